/**
 * The outline of one piece out of a DXF file: polylines with their arcs, lines and arcs that meet end to end, circles. The
 * largest closed outline is the piece, circles in it are its holes. What would have to be guessed at is refused with a sentence.
 */
import DxfParser from "dxf-parser";
import {
  type BulgedCorner,
  filletCorners,
  flattened,
  isInside,
  type Polygon,
  polygonArea,
  reach,
  roundedPolygon,
  type Vec2,
} from "@/core/geometry";
import { type DrawnOutline, MOST_CORNERS } from "@/core/job";
import { at, err, GREATEST_LENGTH_MM, ok, own, type Problem, type Result } from "@/core/kernel";
import { cleanDrawing, MM_OF_UNIT } from "./dxf-pairs";

const MOST_BYTES = 4_000_000;
const MOST_ENTITIES = 4_000;
const MOST_HOLES = 40;
/** mm. Ends that stand nearer than this meet. */
const MEET = 0.01;

type Run = { readonly corners: readonly BulgedCorner[]; readonly end: Vec2 | null };
type Circle = { readonly centre: Vec2; readonly radius: number };
type Shapes = { readonly runs: Run[]; readonly circles: Circle[] };

const refuse = (name: string, why: string) => err({ kind: "malformed", what: name, why } as const);

/** Reads the outline of one piece; the problem says what is wrong with the file and what to do. */
export function readOutline(name: string, text: string): Result<DrawnOutline, Problem> {
  if (text.length > MOST_BYTES) return refuse(name, "it is larger than 4 MB; leave the outline alone in it");
  const clean = cleanDrawing(text);
  if (typeof clean === "string") return refuse(name, clean);
  if (clean.entities > MOST_ENTITIES)
    return refuse(name, `it holds ${clean.entities} entities; at most ${MOST_ENTITIES} are read`);
  const drawing = parsed(clean.text);
  if (!drawing?.entities) return refuse(name, "it cannot be read as DXF; save it as DXF text");
  const { entities, header } = drawing;
  const told = Number(header?.["$INSUNITS"] ?? 0);
  // A drawing without unit is taken as millimetres.
  const unit = told === 0 ? 1 : MM_OF_UNIT[told];
  if (unit === undefined)
    return refuse(name, "its unit is not one that is known; set it to millimetres or inches");
  const shapes: Shapes = { runs: [], circles: [] };
  for (const entity of entities) {
    const fault = take(entity as unknown as Entity, unit, shapes);
    if (fault !== null) return refuse(name, fault);
  }
  return outlineOf(name, shapes);
}

function parsed(text: string) {
  try {
    return new DxfParser().parseSync(text);
  } catch {
    return null;
  }
}

/** What is used of an entity, whatever it is; places are in the entity's own plane. */
type Entity = {
  readonly type: string;
  readonly shape?: boolean;
  readonly vertices?: readonly { readonly x: number; readonly y: number; readonly bulge?: number }[];
  readonly center?: { readonly x: number; readonly y: number };
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly extrusionDirection?: { readonly z: number };
  readonly extrusionDirectionZ?: number;
};

const WORDS: Readonly<Record<string, string>> = {
  SPLINE: "a spline",
  ELLIPSE: "an ellipse",
  INSERT: "a block",
};

/** Takes one entity in; the sentence why it cannot be taken, or null. What is no line of the drawing is passed over. */
function take(entity: Entity, unit: number, { runs, circles }: Shapes): string | null {
  // Drawn on the back of the plane: x is mirrored, and arcs run the other way.
  const mirror = (entity.extrusionDirection?.z ?? entity.extrusionDirectionZ ?? 1) < 0 ? -1 : 1;
  const place = ({ x, y }: { readonly x: number; readonly y: number }): Vec2 => [x * unit * mirror, y * unit];
  switch (entity.type) {
    case "LWPOLYLINE":
    case "POLYLINE": {
      const vertices = entity.vertices ?? [];
      const corners = vertices.map((vertex): BulgedCorner => {
        const [x, y] = place(vertex);
        return [x, y, (vertex.bulge ?? 0) * mirror];
      });
      const last = vertices.at(-1);
      if (corners.length < 2 || !last) return null;
      runs.push(entity.shape ? { corners, end: null } : { corners: corners.slice(0, -1), end: place(last) });
      return null;
    }
    case "LINE": {
      const [from, to] = entity.vertices ?? [];
      if (from && to) runs.push({ corners: [place(from)], end: place(to) });
      return null;
    }
    case "ARC": {
      const { center, radius = 0, startAngle = 0, endAngle = 0 } = entity;
      if (!center || radius <= 0) return null;
      const turn = 2 * Math.PI;
      const sweep = (((endAngle - startAngle) % turn) + turn) % turn || turn;
      const on = (angle: number) =>
        place({ x: center.x + radius * Math.cos(angle), y: center.y + radius * Math.sin(angle) });
      const middle = on(startAngle + sweep / 2);
      const bulge = Math.tan(sweep / 8) * mirror;
      // In two halves, so that no bulge is that of more than half a circle.
      const [x, y] = on(startAngle);
      runs.push({
        corners: [
          [x, y, bulge],
          [middle[0], middle[1], bulge],
        ],
        end: on(startAngle + sweep),
      });
      return null;
    }
    case "CIRCLE":
      if (entity.center && entity.radius)
        circles.push({ centre: place(entity.center), radius: entity.radius * unit });
      return null;
    default: {
      const word = own(WORDS, entity.type);
      return word === undefined
        ? null
        : `it holds ${word}; turn it into lines and arcs in the CAD program first`;
    }
  }
}

const near = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]) <= MEET;
const startOf = ({ corners }: Run): Vec2 => {
  const [x, y] = at(corners, 0);
  return [x, y];
};

/** A run the other way round: the bulge of an edge goes with the edge and changes its sign. */
function reversed({ corners, end }: Run): Run {
  if (end === null) return { corners, end };
  const places = [...corners.map(([x, y]): Vec2 => [x, y]), end].reverse();
  const bulges = corners.map((corner) => -(corner[2] ?? 0)).reverse();
  const [x, y] = at(places, places.length - 1);
  return {
    corners: bulges.map((bulge, i): BulgedCorner => [at(places, i)[0], at(places, i)[1], bulge]),
    end: [x, y],
  };
}

/** Runs joined end to end; null: one of them leads nowhere. */
function loopsOf(runs: readonly Run[]): readonly (readonly BulgedCorner[])[] | null {
  const loops: (readonly BulgedCorner[])[] = [];
  const open: Run[] = [];
  for (const run of runs) {
    if (run.end === null) loops.push(run.corners);
    else if (near(startOf(run), run.end)) loops.push(run.corners);
    else open.push(run);
  }
  for (let first = open.shift(); first; first = open.shift()) {
    let whole = first;
    while (whole.end !== null && !near(startOf(whole), whole.end)) {
      const { end } = whole;
      const next = open.findIndex(
        (run) => near(startOf(run), end) || (run.end !== null && near(run.end, end)),
      );
      if (next < 0) return null;
      const [run] = open.splice(next, 1);
      if (!run) return null;
      const ahead = near(startOf(run), end) ? run : reversed(run);
      whole = { corners: [...whole.corners, ...ahead.corners], end: ahead.end };
    }
    loops.push(whole.corners);
  }
  return loops;
}

const roundLoop = ({ centre: [x, y], radius }: Circle): readonly BulgedCorner[] => [
  [x - radius, y, 1],
  [x + radius, y, 1],
];
const drawn = (corners: readonly BulgedCorner[]): Polygon => flattened(corners, 0.01);

function outlineOf(name: string, { runs, circles }: Shapes): Result<DrawnOutline, Problem> {
  const numbers = [
    ...runs.flatMap(({ corners, end }) => [...corners.flat(), ...(end ?? [])]),
    ...circles.flatMap(({ centre, radius }) => [...centre, radius]),
  ];
  if (numbers.some((value) => !(Math.abs(value) <= GREATEST_LENGTH_MM)))
    return refuse(name, "a place in it is no number or lies more than 100 m away; look at its unit");
  const loops = loopsOf(runs);
  if (loops === null)
    return refuse(name, "its lines do not close to an outline; join their ends in the CAD program");
  const outlines = [...loops, ...circles.map(roundLoop)]
    .map((corners) => ({ corners, polygon: drawn(corners) }))
    .toSorted((a, b) => Math.abs(polygonArea(b.polygon)) - Math.abs(polygonArea(a.polygon)));
  const [outer, ...others] = outlines;
  if (!outer || Math.abs(polygonArea(outer.polygon)) < 1e-3)
    return refuse(name, "there is no closed outline in it; draw one of lines, arcs or polylines");
  const round = new Map(circles.map((circle) => [roundKey(roundLoop(circle)), circle]));
  const holes: Circle[] = [];
  for (const { corners, polygon } of others) {
    const circle = round.get(roundKey(corners));
    const [x, y] = at(polygon, 0);
    if (!isInside(outer.polygon, circle?.centre ?? [x, y]))
      return refuse(name, "it holds more than one piece; leave one outline in it and what is inside that");
    if (!circle)
      return refuse(name, "a cut-out in it is no circle; only round holes are read, cut the others by hand");
    holes.push(circle);
  }
  if (holes.length > MOST_HOLES)
    return refuse(name, `it has ${holes.length} holes; at most ${MOST_HOLES} are taken`);
  const corners = filletCorners(polygonArea(outer.polygon) < 0 ? backwards(outer.corners) : outer.corners);
  if (corners.length > MOST_CORNERS)
    return refuse(name, `its outline has ${corners.length} corners; at most ${MOST_CORNERS} are taken`);
  const loop = roundedPolygon(corners);
  const [x0, y0] = [-reach(loop, [-1, 0]), -reach(loop, [0, -1])];
  return ok({
    length: reach(loop, [1, 0]) - x0,
    width: reach(loop, [0, 1]) - y0,
    corners: corners.map(({ at: [x, y], radius }) => ({ x: x - x0, y: y - y0, radius })),
    holes: holes.map(({ centre: [x, y], radius }) => ({ x: x - x0, y: y - y0, diameter: 2 * radius })),
  });
}

const roundKey = (corners: readonly BulgedCorner[]) => corners.flat().join(",");
const backwards = (corners: readonly BulgedCorner[]): readonly BulgedCorner[] => {
  const [x, y] = at(corners, 0);
  return reversed({ corners, end: [x, y] }).corners;
};
