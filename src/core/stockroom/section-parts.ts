/**
 * A section as rectangles that it surely fills, in its own axes from its centroid: legs, webs and flanges, the walls of a
 * tube between its rounded corners, chords of a round wall. Fillets, toes and the corners themselves are left out, so that
 * two sections whose rectangles share room do so in truth. For finding solids that run into one another.
 */
import type { Vec2 } from "../geometry";
import { unreachable } from "../kernel";
import { flangeThickness, type SectionShape, sectionProperties, toeRadius, tubeRadii } from "./section-shape";

/** A rectangle by its middle and half its sizes, its own x axis turned by `turn` radians from the section's. */
export type SectionPart = { readonly middle: Vec2; readonly half: Vec2; readonly turn: number };

const known = new WeakMap<SectionShape, readonly SectionPart[]>();

/** The rectangles of a section; remembered per shape object. */
export function sectionParts(shape: SectionShape): readonly SectionPart[] {
  const before = known.get(shape);
  if (before) return before;
  const parts = partsOf(shape).filter(({ half }) => half[0] > 0 && half[1] > 0);
  known.set(shape, parts);
  return parts;
}

/** A rectangle between two corners that are measured from the low corner of the section. */
function between(shape: SectionShape, [x0, y0]: Vec2, [x1, y1]: Vec2): SectionPart {
  const { boxCentre, extent } = sectionProperties(shape);
  const [lowX, lowY] = [boxCentre[0] - extent[0] / 2, boxCentre[1] - extent[1] / 2];
  return {
    middle: [lowX + (x0 + x1) / 2, lowY + (y0 + y1) / 2],
    half: [(x1 - x0) / 2, (y1 - y0) / 2],
    turn: 0,
  };
}

function partsOf(shape: SectionShape): readonly SectionPart[] {
  switch (shape.kind) {
    case "squareTube":
    case "rectangularTube": {
      const [w, h, t] = shape.size;
      const { outer } = tubeRadii(shape.corners, t);
      return [
        between(shape, [outer, 0], [w - outer, t]),
        between(shape, [outer, h - t], [w - outer, h]),
        between(shape, [0, outer], [t, h - outer]),
        between(shape, [w - t, outer], [w, h - outer]),
      ];
    }
    case "roundTube":
      return ringParts(shape.size[0] / 2, shape.size[1]);
    case "roundBar":
      return discParts(shape.size[0] / 2);
    case "equalAngle":
    case "unequalAngle": {
      const [legX, legY, t] = shape.size;
      const toe = toeRadius(shape.rootRadius, t);
      return [
        between(shape, [0, 0], [legX - toe, t]),
        between(shape, [0, 0], [legX, t - toe]),
        between(shape, [0, 0], [t, legY - toe]),
        between(shape, [0, 0], [t - toe, legY]),
      ];
    }
    case "channel": {
      const [h, , web] = shape.size;
      return [between(shape, [0, 0], [web, h]), ...flangeParts(shape)];
    }
    case "tee": {
      const [h, b, web, flange] = shape.size;
      return [
        between(shape, [(b - web) / 2, 0], [(b + web) / 2, h]),
        between(shape, [0, h - flange], [b, h]),
      ];
    }
    case "beam": {
      const [h, b, web] = shape.size;
      return [between(shape, [(b - web) / 2, 0], [(b + web) / 2, h]), ...flangeParts(shape)];
    }
    case "flat":
    case "squareBar":
    case "timber":
      return [between(shape, [0, 0], [shape.size[0], shape.size[1]])];
    default:
      return unreachable(shape);
  }
}

/** Both flanges; of those that taper what they have at their edges, without the roundings there. */
function flangeParts(shape: Extract<SectionShape, { kind: "channel" | "beam" }>): readonly SectionPart[] {
  const [h, b] = shape.size;
  const { edge } = flangeThickness(shape);
  const toe = shape.taper?.toeRadius ?? 0;
  const from = shape.kind === "channel" ? 0 : toe;
  const boxes: readonly (readonly [Vec2, number])[] =
    toe === 0
      ? [[[0, b], edge]]
      : [
          [[from, b - toe], edge],
          [[0, b], edge - toe],
        ];
  return boxes.flatMap(([[x0, x1], thick]) => [
    between(shape, [x0, 0], [x1, thick]),
    between(shape, [x0, h - thick], [x1, h]),
  ]);
}

/** A rectangle by two corners, in the section's axes from its centroid. */
export type SectionRoom = { readonly from: Vec2; readonly to: Vec2 };

/**
 * Rectangles that together hold the whole section, fillets as squares: what a member beside it must keep clear of. Of an open section
 * its legs, web and flanges; of others the box round it.
 */
export function sectionRooms(shape: SectionShape): readonly SectionRoom[] {
  const { boxCentre, extent } = sectionProperties(shape);
  const [x0, y0] = [boxCentre[0] - extent[0] / 2, boxCentre[1] - extent[1] / 2];
  const room = (a: Vec2, b: Vec2): SectionRoom => ({
    from: [x0 + a[0], y0 + a[1]],
    to: [x0 + b[0], y0 + b[1]],
  });
  switch (shape.kind) {
    case "equalAngle":
    case "unequalAngle": {
      const [legX, legY, t] = shape.size;
      const fillet = t + shape.rootRadius;
      return [room([0, 0], [legX, t]), room([0, 0], [t, legY]), room([0, 0], [fillet, fillet])];
    }
    case "channel":
    case "tee":
    case "beam": {
      const [h, b, web] = shape.size;
      const flange = shape.kind === "tee" ? shape.size[3] : flangeThickness(shape).root;
      const middle = shape.kind === "channel" ? 0 : (b - web) / 2;
      const fillet = shape.rootRadius ?? 0;
      const [from, to] = [Math.max(0, middle - fillet), middle + web + fillet];
      const flanges = [room([0, h - flange], [b, h])];
      if (shape.kind !== "tee") flanges.push(room([0, 0], [b, flange]));
      const fillets =
        fillet === 0
          ? []
          : [
              room([from, h - flange - fillet], [to, h - flange]),
              ...(shape.kind === "tee" ? [] : [room([from, flange], [to, flange + fillet])]),
            ];
      return [room([middle, 0], [middle + web, h]), ...flanges, ...fillets];
    }
    default:
      return [room([0, 0], extent)];
  }
}

/** Rectangles inside a disc whose union leaves little of it. */
const discParts = (radius: number): readonly SectionPart[] =>
  [15, 30, 45, 60, 75].map((degrees): SectionPart => {
    const angle = (degrees * Math.PI) / 180;
    return { middle: [0, 0], half: [radius * Math.cos(angle), radius * Math.sin(angle)], turn: 0 };
  });

/** Flat bars round the wall of a tube: their inner faces touch the bore, their outer corners the outside. */
function ringParts(radius: number, wall: number): readonly SectionPart[] {
  const bore = radius - wall;
  // So many that the chord takes no more than a third of the wall.
  const least = Math.PI / Math.acos(Math.min(1, (radius - wall / 3) / radius));
  const count = Math.min(48, Math.max(8, Math.ceil(least)));
  const half = radius * Math.sin(Math.PI / count);
  const reach = Math.sqrt(radius ** 2 - half ** 2);
  return Array.from({ length: count }, (_, i): SectionPart => {
    const turn = (2 * Math.PI * i) / count;
    const middle = (bore + reach) / 2;
    return {
      middle: [middle * Math.cos(turn), middle * Math.sin(turn)],
      half: [(reach - bore) / 2, half],
      turn,
    };
  });
}
