/**
 * Pieces as convex parts that cover them: walls of tubes, legs and flanges, sectors of round walls, panels without their grooves,
 * rebates and notches. For what can leave where; roundings of corners are left square, holes are filled. In the axes of their homes.
 */
import earcut from "earcut";
import { kindOf, ridgesOf } from "../ends";
import {
  cross,
  dot,
  type Frame,
  type Linear,
  norm,
  type Polygon,
  scale,
  subtract,
  toWorld,
  type Vec2,
  type Vec3,
  valueAt,
} from "../geometry";
import { at } from "../kernel";
import { flangeThickness, type SectionShape, sectionProperties } from "../stockroom";
import { endHeight } from "./ends";
import type { MemberSolid } from "./member";
import { notchLevel } from "./member-work";
import { grooveBox, notchBox, type PanelSolid, panelPolygon } from "./panel";
import { outlinePolygon } from "./panel-outline";

/** A convex solid: its corners, and the directions of its faces and edges, each once up to its sign. */
export type Convex = {
  readonly points: readonly Vec3[];
  readonly normals: readonly Vec3[];
  readonly edges: readonly Vec3[];
  /** It covers a piece of something round, which it lies beside by up to half a millimetre. */
  readonly round?: boolean;
};

/** Round walls are covered by so many sectors: within 0.5 mm of the circle up to a diameter of 120. */
const SECTORS = 24;

const rectangle = (x0: number, y0: number, x1: number, y1: number): Polygon => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** The convex polygons that cover a section, about its centroid. */
function sectionCover(shape: SectionShape): readonly Polygon[] {
  const { boxCentre, extent } = sectionProperties(shape);
  const [x0, y0] = [boxCentre[0] - extent[0] / 2, boxCentre[1] - extent[1] / 2];
  const [w, h] = extent;
  const box = (a: number, b: number, c: number, d: number) => rectangle(x0 + a, y0 + b, x0 + c, y0 + d);
  /** Upside down, and left to right, about the middle of the box. */
  const flipped = (polygon: Polygon, way: 0 | 1): Polygon =>
    polygon
      .map(([x, y]): Vec2 => (way === 0 ? [2 * boxCentre[0] - x, y] : [x, 2 * boxCentre[1] - y]))
      .toReversed();
  /** Both flanges from the web at `from` to the right edge: thinner there where they taper. */
  const flanges = (
    one: Extract<SectionShape, { kind: "channel" | "beam" }>,
    from: number,
  ): readonly Polygon[] => {
    const { edge, root } = flangeThickness(one);
    const low: Polygon = [
      [x0 + from, y0],
      [x0 + w, y0],
      [x0 + w, y0 + edge],
      [x0 + from, y0 + root],
    ];
    return [low, flipped(low, 1)];
  };
  switch (shape.kind) {
    case "squareTube":
    case "rectangularTube": {
      const t = shape.size[2];
      return [box(0, 0, w, t), box(0, h - t, w, h), box(0, t, t, h - t), box(w - t, t, w, h - t)];
    }
    case "roundTube":
      return ring(shape.size[0] / 2, shape.size[0] / 2 - shape.size[1]);
    case "roundBar":
      return [Array.from({ length: SECTORS }, (_, i) => onCircle(shape.size[0] / 2, i))];
    case "equalAngle":
    case "unequalAngle": {
      const t = shape.size[2];
      return [box(0, 0, w, t), box(0, t, t, h)];
    }
    case "channel": {
      const [, , web] = shape.size;
      return [box(0, 0, web, h), ...flanges(shape, web)];
    }
    case "tee": {
      const [, , web, flange] = shape.size;
      return [box((w - web) / 2, 0, (w + web) / 2, h - flange), box(0, h - flange, w, h)];
    }
    case "beam": {
      const [, , web] = shape.size;
      const [left, right] = [(w - web) / 2, (w + web) / 2];
      const beside = flanges(shape, right);
      return [box(left, 0, right, h), ...beside, ...beside.map((one) => flipped(one, 0))];
    }
    case "flat":
    case "squareBar":
    case "timber":
      return [box(0, 0, w, h)];
    default:
      return shape satisfies never;
  }
}

const onCircle = (radius: number, i: number): Vec2 => {
  const angle = (2 * Math.PI * i) / SECTORS;
  return [radius * Math.cos(angle), radius * Math.sin(angle)];
};

const ring = (outer: number, bore: number): readonly Polygon[] =>
  Array.from({ length: SECTORS }, (_, i) => [
    onCircle(bore, i),
    onCircle(outer, i),
    onCircle(outer, i + 1),
    onCircle(bore, i + 1),
  ]);

/** The convex parts of a member. */
export function partsOfMember(solid: MemberSolid): readonly Convex[] {
  const { shape } = solid.entry;
  const [start, end] = (["start", "end"] as const).map((side) => endHeight(side, solid[side], shape)) as [
    (p: Vec2) => number,
    (p: Vec2) => number,
  ];
  const ridges = [solid.start, solid.end].flatMap(({ form }) => ridgesOf(kindOf(form).faces(form) ?? []));
  const { isRound } = sectionProperties(shape);
  return sectionCover(shape)
    .flatMap((polygon) => notchedPolygons(polygon, solid))
    .flatMap(({ polygon, from, to }) => {
      const plan = withRidges(polygon, ridges);
      const low = plan.map((p): Vec3 => [p[0], p[1], Math.max(from, start(p))]);
      const high = plan.map((p): Vec3 => [p[0], p[1], Math.min(to, end(p))]);
      return low.every((p, i) => p[2] >= at(high, i)[2])
        ? []
        : [{ ...prism(low, high, solid.frame), round: isRound }];
    });
}

type Left = { readonly polygon: Polygon; readonly from: number; readonly to: number };

/** A part of a section, parted where notches cut into it, and from where to where along the member they leave it. */
function notchedPolygons(polygon: Polygon, { work, entry }: MemberSolid): readonly Left[] {
  return (work?.notches ?? []).reduce<readonly Left[]>(
    (parts, notch) => {
      const { outwards, inner, end } = notch;
      const level = notchLevel(notch, entry.shape);
      const beyond: Linear = { slope: outwards, constant: -level };
      return parts.flatMap((one): readonly Left[] => {
        const cutBack =
          end === "start" ? { from: Math.max(one.from, inner) } : { to: Math.min(one.to, inner) };
        return [
          { ...one, polygon: below(one.polygon, beyond) },
          {
            ...one,
            ...cutBack,
            polygon: below(one.polygon, { slope: [-outwards[0], -outwards[1]], constant: level }),
          },
        ].filter((left) => left.polygon.length >= 3);
      });
    },
    [{ polygon, from: Number.NEGATIVE_INFINITY, to: Number.POSITIVE_INFINITY }],
  );
}

/** The part of a convex polygon where a linear function is at most nought; nothing where it only touches there. */
function below(polygon: Polygon, level: Linear): Polygon {
  const part = polygon.flatMap((p, i): readonly Vec2[] => {
    const q = at(polygon, (i + 1) % polygon.length);
    const [a, b] = [valueAt(level, p), valueAt(level, q)];
    const t = a / (a - b);
    const crossing: Vec2[] = a * b < 0 ? [[p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]] : [];
    return a <= 0 ? [p, ...crossing] : crossing;
  });
  return part.some((p) => valueAt(level, p) < -1e-9) ? part : [];
}

/** With the places at which the two planes of an end meet over the border of a polygon. */
function withRidges(polygon: Polygon, ridges: readonly Linear[]): Polygon {
  return ridges.reduce<Polygon>((plan, ridge) => {
    return plan.flatMap((p, i): readonly Vec2[] => {
      const q = at(plan, (i + 1) % plan.length);
      const [a, b] = [valueAt(ridge, p), valueAt(ridge, q)];
      if (a * b >= 0) return [p];
      const t = a / (a - b);
      return [p, [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]];
    });
  }, polygon);
}

/** A prism between two rings of corners, in the axes of a frame; caps that are not flat are covered by their triangles. */
function prism(low: readonly Vec3[], high: readonly Vec3[], frame: Frame): Convex {
  const place = (ringOf: readonly Vec3[]) => ringOf.map((p) => toWorld(frame, p));
  const [below, above] = [place(low), place(high)];
  const count = below.length;
  const sides = below.map((p, i) => subtract(at(below, (i + 1) % count), p));
  const tops = above.map((p, i) => subtract(at(above, (i + 1) % count), p));
  const capNormals = [below, above].flatMap((corners) =>
    corners
      .slice(2)
      .map((c, i) => cross(subtract(at(corners, i + 1), at(corners, 0)), subtract(c, at(corners, 0)))),
  );
  return {
    points: [...below, ...above],
    normals: distinct([...sides.map((side) => cross(side, frame.z)), ...capNormals]),
    edges: distinct([frame.z, ...sides, ...tops]),
  };
}

/** Directions of length 1, each once up to its sign. */
function distinct(directions: readonly Vec3[]): readonly Vec3[] {
  const found: Vec3[] = [];
  for (const one of directions) {
    const size = norm(one);
    if (size < 1e-9) continue;
    const unit = scale(one, 1 / size);
    const isNew = found.every((other) => Math.abs(Math.abs(dot(unit, other)) - 1) > 1e-9);
    if (isNew) found.push(unit);
  }
  return found;
}

/** The convex parts of a panel. Panels along an outline or with cut-outs are covered without their grooves. */
export function partsOfPanel(solid: PanelSolid): readonly Convex[] {
  const { thickness, length, width, frame } = solid;
  if (thickness === null) return [];
  if (solid.outline || solid.cutOuts.length > 0) {
    const rings = [panelPolygon(solid), ...solid.cutOuts.map((one) => outlinePolygon(one))];
    const polygon = rings.flat();
    const starts = rings.slice(1).map((_, i) => rings.slice(0, i + 1).flat().length);
    const triangles = earcut(polygon.flat(), starts);
    return Array.from({ length: triangles.length / 3 }, (_, i) => {
      const corners = [0, 1, 2].map((k) => at(polygon, at(triangles, 3 * i + k)));
      return prism(
        corners.map(([x, y]): Vec3 => [x, y, 0]),
        corners.map(([x, y]): Vec3 => [x, y, thickness]),
        frame,
      );
    });
  }
  const size: Vec3 = [length, width, thickness];
  const cuts = [
    ...solid.grooves.map((groove) => grooveBox(groove, size)),
    ...solid.notches.map((notch) => notchBox(notch, size)),
  ];
  return boxesWithout(size, cuts).map(([[x0, y0, z0], [x1, y1, z1]]) => {
    const plan = rectangle(x0, y0, x1, y1);
    return prism(
      plan.map(([x, y]): Vec3 => [x, y, z0]),
      plan.map(([x, y]): Vec3 => [x, y, z1]),
      frame,
    );
  });
}

type Cut = { readonly from: Vec3; readonly to: Vec3 };
type Block = readonly [Vec3, Vec3];

/** A block less some boxes, as blocks: each cut parts those that it meets along its six sides. */
function boxesWithout(size: Vec3, cuts: readonly Cut[]): readonly Block[] {
  let blocks: readonly Block[] = [[[0, 0, 0], size]];
  for (const { from, to } of cuts)
    blocks = blocks.flatMap(([low, high]): readonly Block[] => {
      const meets = [0, 1, 2].every((k) => at(from, k) < at(high, k) - 1e-6 && at(to, k) > at(low, k) + 1e-6);
      if (!meets) return [[low, high]];
      const left: Block[] = [];
      let [a, b]: [Vec3, Vec3] = [low, high];
      for (const k of [2, 1, 0] as const) {
        const [f, t] = [at(from, k), at(to, k)];
        const set = (corner: Vec3, value: number): Vec3 =>
          corner.map((one, i) => (i === k ? value : one)) as unknown as Vec3;
        if (f > a[k] + 1e-6) {
          left.push([a, set(b, f)]);
          a = set(a, f);
        }
        if (t < b[k] - 1e-6) {
          left.push([set(a, t), b]);
          b = set(b, t);
        }
      }
      return left;
    });
  return blocks;
}
