/**
 * Panels as solids with named faces, lines and places, in their own axes. The names come from the panel's edges, its work and
 * the corners of its outline, so they are the same after an edit of any size.
 */
import {
  boxLoop,
  type Fineness,
  type FlatMesh,
  flatMesh,
  type Plate,
  type PlateCut,
  plateSolid,
  roundedSegments,
  type Solid,
  solidMesh,
  type Vec2,
  type Vec3,
} from "../geometry";
import { at } from "../kernel";
import { type BoxCut, type GrooveSolid, grooveBox, type HoleSolid, notchBox, type PanelSolid } from "./panel";
import type { OutlineSolid } from "./panel-outline";

/** The size of a panel as a solid; one without a board is drawn as a thin sheet. */
const sizeOf = ({ length, width, thickness }: PanelSolid): Vec3 => [length, width, thickness ?? 1];

/**
 * A panel in its own axes. Faces: `good face` and `other face`, `front edge` and the other three, of an outline
 * `corner A` and `edge A to B` by the ids of its corners; of each groove, hole and notch its walls and floor,
 * of each cut-out its walls by the ids of its corners.
 */
export function solidOfPanel(solid: PanelSolid, fineness: Fineness): Solid {
  if (!isPlain(solid)) return plateSolid(plateOf(solid), fineness);
  const [length, width, height] = sizeOf(solid);
  return { ...PLAIN, points: PLAIN.points.map(([x, y, z]) => [x * length, y * width, z * height]) };
}

/** Most panels are rectangles without work: they differ in nothing but their size. */
const isPlain = ({ outline, grooves, holes, notches, cutOuts }: PanelSolid): boolean =>
  outline === null && grooves.length + holes.length + notches.length + cutOuts.length === 0;

const NAMES = {
  edges: ["front edge", "right edge", "back edge", "left edge"],
  below: "other face",
  above: "good face",
} as const;

/** One of length, width and thickness 1. */
const PLAIN = plateSolid(
  {
    outline: boxLoop([0, 0], [1, 1]),
    names: NAMES.edges,
    below: NAMES.below,
    above: NAMES.above,
    height: 1,
    cuts: [],
  },
  { step: Math.PI / 8 },
);

/** mm. Arcs in the picture may lie so far outside or inside the true ones. */
const PICTURE_FINENESS = 0.5;

/** The panel as the picture shows it, in its home's axes. */
export function meshOfPanel(solid: PanelSolid): FlatMesh {
  const largest = Math.max(PICTURE_FINENESS, ...roundRadii(solid));
  // Circles at 16 corners at least, large ones finer.
  const step = Math.min(Math.PI / 8, 2 * Math.acos(1 - PICTURE_FINENESS / largest));
  return flatMesh(solidMesh(solidOfPanel(solid, { step })), solid.frame);
}

/** mm. The radii of all that is round in a panel: holes, and roundings of its outline and its cut-outs. */
export const roundRadii = ({ holes, outline, cutOuts }: PanelSolid): readonly number[] => [
  ...holes.map(({ diameter }) => diameter / 2),
  ...[...(outline ? [outline] : []), ...cutOuts].flatMap(({ loop }) =>
    loop.flatMap((segment) => (segment.kind === "arc" ? [segment.radius] : [])),
  ),
];

function plateOf(solid: PanelSolid): Plate {
  const size = sizeOf(solid);
  const [length, width, height] = size;
  const box = (from: Vec3, to: Vec3): PlateCut["shape"] => ({
    kind: "box",
    from: [from[0], from[1]],
    to: [to[0], to[1]],
  });
  // What is cut into a thickness that nobody knows is not drawn; what goes right through is.
  const grooves = solid.thickness === null ? [] : solid.grooves;
  const holes = solid.holes.filter(({ depth }) => solid.thickness !== null || depth === null);
  const cuts: readonly PlateCut[] = [
    ...grooves.map((groove): PlateCut => {
      const { from, to } = grooveBox(groove, size);
      return { name: `groove ${groove.id}`, low: from[2], high: to[2], shape: box(from, to) };
    }),
    ...holes.map((hole): PlateCut => {
      const [low, high] = depthOf(hole, height);
      return {
        name: holeName(solid, hole),
        low,
        high,
        shape: { kind: "round", centre: [hole.x, hole.y], radius: hole.diameter / 2 },
      };
    }),
    ...solid.notches.map((notch): PlateCut => {
      const { from, to } = notchBox(notch, size);
      return { name: `notch ${notch.id}`, low: from[2], high: to[2], shape: box(from, to) };
    }),
    ...solid.cutOuts.map((cutOut): PlateCut => {
      const name = `cut-out ${cutOut.id}`;
      const names = segmentNames(cutOut, cutOut.cornerIds).map((one) => `${name} ${one}`);
      return {
        name,
        low: -OPEN_MM,
        high: height + OPEN_MM,
        shape: { kind: "loop", loop: cutOut.loop, names },
      };
    }),
  ];
  return {
    outline: solid.outline?.loop ?? boxLoop([0, 0], [length, width]),
    names: solid.outline ? segmentNames(solid.outline, cornerIds(solid)) : NAMES.edges,
    below: NAMES.below,
    above: NAMES.above,
    height,
    cuts: cuts.filter(({ shape }) => hasRoom(shape)),
  };
}

function hasRoom(shape: PlateCut["shape"]): boolean {
  if (shape.kind === "loop") return true;
  return shape.kind === "round"
    ? shape.radius > 0
    : shape.to[0] > shape.from[0] && shape.to[1] > shape.from[1];
}

/** A little beyond the face, so that a cut is open there. */
const OPEN_MM = 1;

function depthOf({ face, depth }: HoleSolid, height: number): readonly [number, number] {
  if (depth === null) return [-OPEN_MM, height + OPEN_MM];
  return face === "good" ? [height - depth, height + OPEN_MM] : [-OPEN_MM, depth];
}

/** Holes of one row are told by their number in it. */
function holeName({ holes }: PanelSolid, hole: HoleSolid): string {
  const row = holes.filter(({ id }) => id === hole.id);
  return row.length > 1 ? `hole ${hole.id} no ${row.indexOf(hole) + 1}` : `hole ${hole.id}`;
}

/** The ids of an outline's corners, in the order of its solid. */
function cornerIds({ panel, outline }: PanelSolid): readonly string[] {
  const ids = (panel.outline ?? []).map(({ id }) => id as string);
  return outline?.reversed ? ids.toReversed() : ids;
}

/** A name for each segment of an outline: a rounding by its corner, an edge by the corners at its ends. */
function segmentNames({ corners }: OutlineSolid, ids: readonly string[]): readonly string[] {
  return roundedSegments(corners).map(({ corner, part }) =>
    part === "rounding"
      ? `corner ${at(ids, corner)}`
      : `edge ${[at(ids, corner), at(ids, (corner + 1) % ids.length)].sort().join(" to ")}`,
  );
}

/**
 * The places of a panel that a drawing can take hold of, by their names: the corners of its faces (of an outline those
 * that were set, before any rounding, and the middles of the roundings), the corners of grooves where they meet their face, the
 * middles of holes on the faces that they come out at, the corners of notches. In its own axes, mm.
 */
export function placesOfPanel(solid: PanelSolid): ReadonlyMap<string, Vec3> {
  const size = sizeOf(solid);
  const [length, width, height] = size;
  const places = new Map<string, Vec3>();
  const ids = cornerIds(solid);
  const corners: readonly (readonly [string, Vec2])[] = solid.outline
    ? solid.outline.corners.map(({ at: p }, i) => [`corner ${at(ids, i)}`, p])
    : boxCorners([0, 0], [length, width]);
  const faces = [
    ["good", height],
    ["other", 0],
  ] as const;
  for (const [face, z] of faces)
    for (const [corner, [x, y]] of corners) places.set(`${face} face, ${corner}`, [x, y, z]);
  for (const groove of solid.grooves) {
    const [from, to] = withinPanel(grooveBox(groove, size), size);
    for (const [corner, [x, y]] of boxCorners(from, to))
      places.set(`groove ${groove.id}, ${corner}`, [x, y, faceOf(groove, height)]);
  }
  for (const hole of solid.holes)
    for (const [face, z] of faces)
      if (hole.depth === null || hole.face === face)
        places.set(`${holeName(solid, hole)}, middle on the ${face} face`, [hole.x, hole.y, z]);
  for (const { id, corners: own, cornerIds: names } of solid.cutOuts)
    for (const [face, z] of faces)
      for (const [i, { at: p }] of own.entries())
        places.set(`cut-out ${id}, corner ${at(names, i)} on the ${face} face`, [p[0], p[1], z]);
  for (const { name, middle } of roundingsOf(solid))
    for (const [face, z] of faces)
      places.set(`${name}, middle on the ${face} face`, [middle[0], middle[1], z]);
  for (const notch of solid.notches) {
    const [from, to] = withinPanel(notchBox(notch, size), size);
    for (const [face, z] of faces)
      for (const [corner, [x, y]] of boxCorners(from, to))
        places.set(`notch ${notch.id}, ${corner} on the ${face} face`, [x, y, z]);
  }
  return places;
}

/** The roundings of an outline and of cut-outs, in the plane of the panel: their middles and the corners that they round, by their names. */
export function roundingsOf(solid: PanelSolid): readonly {
  readonly name: string;
  readonly middle: Vec2;
  readonly corner: Vec2;
  readonly radius: number;
}[] {
  const { outline, cutOuts } = solid;
  const of = ({ corners }: OutlineSolid, ids: readonly string[], before: string) =>
    roundedSegments(corners).flatMap(({ segment, corner, part }) => {
      if (part !== "rounding" || segment.kind !== "arc") return [];
      const { centre: middle, radius } = segment;
      const name = `${before}rounding ${at(ids, corner)}`;
      return [{ name, middle, corner: at(corners, corner).at, radius }];
    });
  return [
    ...(outline ? of(outline, cornerIds(solid), "") : []),
    ...cutOuts.flatMap((one) => of(one, one.cornerIds, `cut-out ${one.id} `)),
  ];
}

const faceOf = ({ face }: GrooveSolid, height: number) => (face === "good" ? height : 0);

const boxCorners = ([x0, y0]: Vec2, [x1, y1]: Vec2): readonly (readonly [string, Vec2])[] => [
  ["front left", [x0, y0]],
  ["front right", [x1, y0]],
  ["back right", [x1, y1]],
  ["back left", [x0, y1]],
];

/** What of a cut lies in its panel. */
function withinPanel({ from, to }: BoxCut, [length, width]: Vec3): readonly [Vec2, Vec2] {
  const inside = (x: number, most: number) => Math.min(Math.max(x, 0), most);
  return [
    [inside(from[0], length), inside(from[1], width)],
    [inside(to[0], length), inside(to[1], width)],
  ];
}
