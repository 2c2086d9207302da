/**
 * Members, panels and what stands for bought parts as solids with named faces, lines and places, in the piece's own axes.
 * The names come from the section, from records and from corners, so they are the same after an edit of any size: a
 * drawing holds on to them. The picture's meshes are made from the same solids.
 */
import { kindOf, ridgesOf } from "../ends";
import {
  boxLoop,
  type Fineness,
  type Linear,
  type Mesh,
  type Plate,
  type PlateCut,
  placeMesh,
  plateSolid,
  prismMesh,
  prismSolid,
  type Ring,
  ringOf,
  roundedSegments,
  type Solid,
  sharpRing,
  solidMesh,
  type Vec2,
  type Vec3,
} from "../geometry";
import { at, remembersEach } from "../kernel";
import { type SectionProperties, sectionProperties } from "../stockroom";
import type { EndSide } from "./bar";
import { endHeight, endSurface } from "./ends";
import type { MemberSolid } from "./member";
import { type BoxCut, type GrooveSolid, grooveBox, type HoleSolid, notchBox, type PanelSolid } from "./panel";

/** How the picture on the desk is drawn: sections at two steps a corner, circles at 32. */
const PICTURE: Fineness = { step: Math.PI / 4, creases: true };
const PICTURE_CIRCLE: Fineness = { step: Math.PI / 16 };

/** A circle is drawn finer than the corner of a tube: of a tube the whole circle is seen. */
const pictureRing = (loop: SectionProperties["loops"][number]): Ring =>
  ringOf(loop, loop.length === 1 ? PICTURE_CIRCLE : PICTURE);

const pictureRings = remembersEach<SectionProperties["loops"], readonly Ring[]>();
const sharpRings = remembersEach<SectionProperties["loops"], readonly Ring[]>();

/**
 * A member in its own axes, z along it from its start. Faces: `side 1` and on round its section, `bore 1` and on inside,
 * `start` and `end`; each line by the two faces that meet in it.
 */
export function solidOfMember(solid: MemberSolid, fineness: Fineness): Solid {
  const rings = sectionProperties(solid.entry.shape).loops.map((loop) => ringOf(loop, fineness));
  return prismSolid(rings, endSurface(solid, "start"), endSurface(solid, "end"));
}

/** The member as the picture shows it, in its home's axes; `sharp`: without the roundings of its section. */
export function meshOfMember(solid: MemberSolid, sharp = false): Mesh {
  const { loops } = sectionProperties(solid.entry.shape);
  // A saddle follows the section's true outline: beside it there may be nothing that it lies on.
  const flat = sharp && [solid.start, solid.end].every(({ form }) => kindOf(form).faces(form) !== null);
  const rings = flat
    ? sharpRings(loops, [], () => loops.map(sharpRing))
    : pictureRings(loops, [], () => loops.map(pictureRing));
  const mesh = prismMesh(rings, endSurface(solid, "start"), endSurface(solid, "end"));
  return placeMesh(mesh, solid.frame);
}

/**
 * The places of a member that a drawing can take hold of, by their names: where its line of centroids meets its ends, the
 * corners of either end as they are without roundings (of round sections the points on its two axes), and the long and
 * the short point of either end, in the middle where several stand alike. In its own axes, mm.
 */
export function placesOfMember(solid: MemberSolid): ReadonlyMap<string, Vec3> {
  const { sharp, isRound, extent } = sectionProperties(solid.entry.shape);
  const places = new Map<string, Vec3>();
  const [rx, ry] = [extent[0] / 2, extent[1] / 2];
  const corners: readonly Vec2[] = isRound
    ? [
        [rx, 0],
        [0, ry],
        [-rx, 0],
        [0, -ry],
      ]
    : sharp;
  for (const side of ["start", "end"] as const) {
    const height = endHeight(side, solid[side], solid.entry.shape);
    places.set(`${side}, axis`, [0, 0, height([0, 0])]);
    const word = isRound ? "quarter" : "corner";
    for (const [i, [x, y]] of corners.entries())
      places.set(`${side}, ${word} ${i + 1}`, [x, y, height([x, y])]);
    for (const [which, sign] of [
      ["long", 1],
      ["short", -1],
    ] as const) {
      const place = extremeOf(solid, side, sign);
      if (place) places.set(`${side}, ${which} point`, place);
    }
  }
  return places;
}

/** mm. Points whose heights differ by less stand alike. */
const ALIKE_MM = 1e-6;

/** The middle of the points of an end that reach farthest out (1) or least (−1); null where all stand alike. */
function extremeOf(solid: MemberSolid, side: EndSide, sign: 1 | -1): Vec3 | null {
  const { sharp, isRound, loops } = sectionProperties(solid.entry.shape);
  const { form } = solid[side];
  const out = side === "start" ? -1 : 1;
  const height = endHeight(side, solid[side], solid.entry.shape);
  const kind = kindOf(form);
  const ridges: readonly Linear[] = ridgesOf(kind.faces(form) ?? []);
  // Round outlines, and copes on them, at points so close together that a drawing shows no difference.
  const ring = isRound
    ? ringOf(at(loops, 0), { step: Math.PI / 180, silhouettes: leaningAngles(kind.slopes(form)) })
    : null;
  const outline = ring ? ring.points.map((point) => point.at) : [...sharp, ...onRidges(sharp, ridges)];
  const reaches = outline.map((p) => sign * out * height(p));
  const most = Math.max(...reaches);
  if (most - Math.min(...reaches) < ALIKE_MM) return null;
  const alike = outline.filter((_, i) => most - at(reaches, i) < ALIKE_MM);
  const middle = alike.reduce<Vec2>(
    (sum, [x, y]) => [sum[0] + x / alike.length, sum[1] + y / alike.length],
    [0, 0],
  );
  return [middle[0], middle[1], (sign * most) / out];
}

const leaningAngles = (slopes: readonly Vec2[]): readonly number[] =>
  slopes.flatMap(([x, y]) => [Math.atan2(y, x), Math.atan2(-y, -x)]);

/** Where ridges cross the straight edges of an outline. */
function onRidges(outline: readonly Vec2[], ridges: readonly Linear[]): readonly Vec2[] {
  return ridges.flatMap(({ slope, constant }) => {
    const value = ([x, y]: Vec2) => constant + slope[0] * x + slope[1] * y;
    return outline.flatMap((a, i): readonly Vec2[] => {
      const b = at(outline, (i + 1) % outline.length);
      const [p, q] = [value(a), value(b)];
      if (p * q >= 0) return [];
      const share = p / (p - q);
      return [[a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share]];
    });
  });
}

/** The size of a panel as a solid; one without a board is drawn as a thin sheet. */
const sizeOf = ({ length, width, thickness }: PanelSolid): Vec3 => [length, width, thickness ?? 1];

/**
 * A panel in its own axes. Faces: `good face` and `other face`, `front edge` and the other three, of an outline
 * `corner A` and `edge A to B` by the ids of its corners; of each groove, hole and notch its walls and floor.
 */
export function solidOfPanel(solid: PanelSolid, fineness: Fineness): Solid {
  return plateSolid(plateOf(solid), fineness);
}

/** mm. Arcs in the picture may lie so far outside or inside the true ones. */
const PICTURE_FINENESS = 0.5;

/** The panel as the picture shows it, in its home's axes. */
export function meshOfPanel(solid: PanelSolid): Mesh {
  const radii = [
    ...solid.holes.map(({ diameter }) => diameter / 2),
    ...(solid.outline?.loop ?? []).flatMap((segment) => (segment.kind === "arc" ? [segment.radius] : [])),
  ];
  const largest = Math.max(PICTURE_FINENESS, ...radii);
  // Circles at 16 corners at least, large ones finer.
  const step = Math.min(Math.PI / 8, 2 * Math.acos(1 - PICTURE_FINENESS / largest));
  return placeMesh(solidMesh(solidOfPanel(solid, { step })), solid.frame);
}

const EDGE_NAMES = ["front edge", "right edge", "back edge", "left edge"] as const;

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
  ];
  return {
    outline: solid.outline?.loop ?? boxLoop([0, 0], [length, width]),
    names: solid.outline ? outlineNames(solid) : EDGE_NAMES,
    below: "other face",
    above: "good face",
    height,
    cuts: cuts.filter(({ shape }) =>
      shape.kind === "round" ? shape.radius > 0 : shape.to[0] > shape.from[0] && shape.to[1] > shape.from[1],
    ),
  };
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
function outlineNames(solid: PanelSolid): readonly string[] {
  const ids = cornerIds(solid);
  return roundedSegments(solid.outline?.corners ?? []).map(({ corner, part }) =>
    part === "rounding"
      ? `corner ${at(ids, corner)}`
      : `edge ${[at(ids, corner), at(ids, (corner + 1) % ids.length)].sort().join(" to ")}`,
  );
}

/**
 * The places of a panel that a drawing can take hold of, by their names: the corners of its faces (of an outline those
 * that were set, before any rounding), the corners of grooves where they meet their face, the middles of holes on the faces
 * that they come out at, the corners of notches. In its own axes, mm.
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
  for (const notch of solid.notches) {
    const [from, to] = withinPanel(notchBox(notch, size), size);
    for (const [face, z] of faces)
      for (const [corner, [x, y]] of boxCorners(from, to))
        places.set(`notch ${notch.id}, ${corner} on the ${face} face`, [x, y, z]);
  }
  return places;
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
