/** How a section stands on its line, seen from the start of the line: up the picture is up, of plumb lines away from the front. */
import { frameAlong, ringOf, toWorld, type Vec2, type Vec3 } from "../geometry";
import { toRadians } from "../measure";
import { type SectionShape, sectionProperties } from "../stockroom";
import { cardinalPlace } from "./member";

/** The points of a section that may lie on its line: the numbers of IFC (ISO 16739-1), nine of the box and the centroid. */
const CARDINALS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const;
export type SectionSeat = {
  /** Outlines in mm, y upwards, from the point that lies on the line; the first is the outer one. */
  readonly outlines: readonly (readonly Vec2[])[];
  /** Where the points lie that could be on the line instead. */
  readonly points: readonly { readonly cardinal: number; readonly at: Vec2 }[];
  /** Parts that people call by their names: the heel and toes of an angle, the web and flanges of a channel. */
  readonly names: readonly { readonly words: string; readonly at: Vec2 }[];
};

/** `roll`: degrees. */
export function sectionSeat(shape: SectionShape, roll: number, cardinal: number): SectionSeat {
  const properties = sectionProperties(shape);
  const on = cardinalPlace(properties, cardinal);
  const angle = toRadians(roll);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  // Seen along the line, its own x runs to the left: x, y and the line are right-handed.
  const seen = ([x, y]: Vec2): Vec2 => {
    const [dx, dy] = [x - on[0], y - on[1]];
    return [0 - (dx * c - dy * s), dx * s + dy * c];
  };
  return {
    outlines: properties.loops.map((loop) =>
      ringOf(loop, { step: Math.PI / 18 }).points.map(({ at }) => seen(at)),
    ),
    points: CARDINALS.map((one) => ({ cardinal: one, at: seen(cardinalPlace(properties, one)) })),
    names: namedParts(shape).map(({ words, at }) => ({ words, at: seen(at) })),
  };
}

/** Names of parts of open sections, at places in the section's own axes. */
function namedParts(shape: SectionShape): readonly { readonly words: string; readonly at: Vec2 }[] {
  const { boxCentre, extent } = sectionProperties(shape);
  const [left, low] = [boxCentre[0] - extent[0] / 2, boxCentre[1] - extent[1] / 2];
  const at = (x: number, y: number): Vec2 => [left + x * extent[0], low + y * extent[1]];
  switch (shape.kind) {
    case "equalAngle":
    case "unequalAngle":
      return [
        { words: "heel", at: at(0, 0) },
        { words: "toe", at: at(1, 0) },
        { words: "toe", at: at(0, 1) },
      ];
    case "channel":
      return [
        { words: "web", at: at(0, 0.5) },
        { words: "flange", at: at(0.6, 0) },
        { words: "flange", at: at(0.6, 1) },
      ];
    default:
      return [];
  }
}

/** The edges of a member that is not drawn yet, square at both ends: pairs of places in the axes of its home; none without a length. */
export function ghostOf(
  from: Vec3,
  to: Vec3,
  {
    shape,
    roll,
    cardinal,
  }: { readonly shape: SectionShape; readonly roll: number; readonly cardinal: number },
): readonly (readonly [Vec3, Vec3])[] {
  const frame = frameAlong(from, to, toRadians(roll));
  if (!frame) return [];
  const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
  const properties = sectionProperties(shape);
  const on = cardinalPlace(properties, cardinal);
  const corner = ([x, y]: Vec2, z: number) => toWorld(frame, [x - on[0], y - on[1], z]);
  const { sharp } = properties;
  return sharp.flatMap((place, i): readonly (readonly [Vec3, Vec3])[] => {
    const next = sharp[(i + 1) % sharp.length] ?? place;
    return [
      [corner(place, 0), corner(place, length)],
      [corner(place, 0), corner(next, 0)],
      [corner(place, length), corner(next, length)],
    ];
  });
}
