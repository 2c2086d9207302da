/** What is drawn in a DXF file as runs of lines and arcs, and the loops that they close to. */
import DxfParser from "dxf-parser";
import { type BulgedCorner, flattened, type Polygon, polygonArea, type Vec2 } from "@/core/geometry";
import { at, err, GREATEST_LENGTH_MM, ok, type Problem, type Result } from "@/core/kernel";
import { type ArcRun, arcsOf, ellipse, spline } from "./dxf-curves";
import { cleanDrawing, MM_OF_UNIT } from "./dxf-pairs";

const MOST_BYTES = 4_000_000;
const MOST_ENTITIES = 4_000;
/** Blocks within blocks. */
const MOST_LEVELS = 8;
/** mm. Ends that stand nearer than this meet. */
const MEET = 0.01;

/** `end`: null where it closes by itself. */
export type Run = {
  readonly corners: readonly BulgedCorner[];
  readonly end: Vec2 | null;
  readonly layer: string;
};
export type Circle = { readonly centre: Vec2; readonly radius: number; readonly layer: string };
type Shapes = { readonly runs: Run[]; readonly circles: Circle[] };

export type DrawnShapes = {
  /** In millimetres; of a file that tells no unit, in units of the file. */
  readonly runs: readonly Run[];
  readonly circles: readonly Circle[];
  /** Millimetres of one unit; null: the file tells none. */
  readonly unit: number | null;
};

/** All that is drawn with lines and arcs, ellipses and splines as arcs; the problem says what is wrong with the file. */
export function drawnShapes(name: string, text: string): Result<DrawnShapes, Problem> {
  const refuse = (why: string) => err({ kind: "malformed", what: name, why } as const);
  if (text.length > MOST_BYTES) return refuse("it is larger than 4 MB; leave the outlines alone in it");
  const clean = cleanDrawing(text);
  if (typeof clean === "string") return refuse(clean);
  if (clean.entities > MOST_ENTITIES)
    return refuse(`it holds ${clean.entities} entities; at most ${MOST_ENTITIES} are read`);
  const drawing = parsed(clean.text);
  if (!drawing?.entities) return refuse("it cannot be read as DXF; save it as DXF text");
  const told = Number(drawing.header?.["$INSUNITS"] ?? 0);
  const unit = told === 0 ? null : MM_OF_UNIT[told];
  if (unit === undefined) return refuse("its unit is not one that is known; set it to millimetres or inches");
  const shapes: Shapes = { runs: [], circles: [] };
  const blocks: Blocks = {
    named: new Map(Object.entries(drawing.blocks ?? {})) as unknown as Blocks["named"],
    drawn: new Map(),
  };
  for (const entity of drawing.entities) {
    const fault = take(entity as unknown as Entity, unit ?? 1, shapes, blocks, 0);
    if (fault !== null) return refuse(fault);
  }
  const numbers = [
    ...shapes.runs.flatMap(({ corners, end }) => [...corners.flat(), ...(end ?? [])]),
    ...shapes.circles.flatMap(({ centre, radius }) => [...centre, radius]),
  ];
  return numbers.some((value) => !(Math.abs(value) <= GREATEST_LENGTH_MM))
    ? refuse("a place in it is no number or lies more than 100 m away; look at its unit")
    : ok({ ...shapes, unit });
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
  readonly layer?: string;
  readonly shape?: boolean;
  readonly vertices?: readonly { readonly x: number; readonly y: number; readonly bulge?: number }[];
  readonly center?: { readonly x: number; readonly y: number };
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly extrusionDirection?: { readonly z: number };
  readonly extrusionDirectionZ?: number;
  readonly majorAxisEndPoint?: { readonly x: number; readonly y: number };
  readonly axisRatio?: number;
  readonly degreeOfSplineCurve?: number;
  readonly knotValues?: readonly number[];
  readonly controlPoints?: readonly { readonly x: number; readonly y: number; readonly z?: number }[];
  readonly name?: string;
  readonly position?: { readonly x: number; readonly y: number };
  readonly rotation?: number;
  readonly xScale?: number;
  readonly yScale?: number;
  readonly columnCount?: number;
  readonly rowCount?: number;
  readonly columnSpacing?: number;
  readonly rowSpacing?: number;
};

type Blocks = {
  readonly named: ReadonlyMap<
    string,
    { readonly entities?: readonly Entity[]; readonly position?: { readonly x: number; readonly y: number } }
  >;
  /** What a block draws, in its own plane, or why that cannot be read: each once, however often it is put. */
  readonly drawn: Map<string, Shapes | string>;
};

function drawnBy(name: string, blocks: Blocks, level: number): Shapes | string {
  const known = blocks.drawn.get(name);
  if (known !== undefined) return known;
  const shapes: Shapes = { runs: [], circles: [] };
  let fault: string | null = null;
  for (const entity of blocks.named.get(name)?.entities ?? []) {
    fault ??= take(entity, 1, shapes, blocks, level + 1);
    if (fault !== null) break;
  }
  const drawn = fault ?? shapes;
  blocks.drawn.set(name, drawn);
  return drawn;
}

/** Takes one entity in; the sentence why it cannot be taken, or null. What is no line of the drawing is passed over. */
function take(entity: Entity, unit: number, shapes: Shapes, blocks: Blocks, level: number): string | null {
  const { runs, circles } = shapes;
  // Drawn on the back of the plane: x is mirrored, and arcs run the other way.
  const mirror = (entity.extrusionDirection?.z ?? entity.extrusionDirectionZ ?? 1) < 0 ? -1 : 1;
  const place = ({ x, y }: { readonly x: number; readonly y: number }): Vec2 => [x * unit * mirror, y * unit];
  const layer = entity.layer ?? "0";
  const curved = ({ corners, end }: ArcRun) => runs.push({ corners, end, layer });
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
      runs.push(
        entity.shape
          ? { corners, end: null, layer }
          : { corners: corners.slice(0, -1), end: place(last), layer },
      );
      return null;
    }
    case "LINE": {
      const [from, to] = entity.vertices ?? [];
      if (from && to) runs.push({ corners: [place(from)], end: place(to), layer });
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
        layer,
      });
      return null;
    }
    case "CIRCLE":
      if (entity.center && entity.radius)
        circles.push({ centre: place(entity.center), radius: entity.radius * unit, layer });
      return null;
    case "ELLIPSE": {
      const {
        center,
        majorAxisEndPoint: axis,
        axisRatio = 1,
        startAngle = 0,
        endAngle = 2 * Math.PI,
      } = entity;
      if (!center || !axis || Math.hypot(axis.x, axis.y) === 0) return null;
      const turn = 2 * Math.PI;
      const sweep = (((endAngle - startAngle) % turn) + turn) % turn || turn;
      const major = place(axis);
      // The shorter axis lies to the left of the longer one, on the back of the plane to its right.
      const minor = place({ x: -axis.y * axisRatio, y: axis.x * axisRatio });
      curved(arcsOf(ellipse(place(center), major, minor, startAngle, startAngle + sweep)));
      return null;
    }
    case "SPLINE": {
      const parts = spline(
        entity.degreeOfSplineCurve ?? 3,
        entity.knotValues ?? [],
        (entity.controlPoints ?? []).map(place),
        // Where a height would stand there is the weight.
        (entity.controlPoints ?? []).map(({ z = 1 }) => z),
      );
      if (!parts || parts.length === 0)
        return "it holds a spline whose knots do not fit; turn it into lines and arcs in the CAD program first";
      curved(arcsOf(parts));
      return null;
    }
    case "INSERT":
      return takeBlock(entity, unit * mirror, unit, shapes, blocks, level);
    default:
      return null;
  }
}

/** Takes in what a block draws, wherever it is put, `unitX` and `unitY` from its plane to that of the drawing. */
function takeBlock(
  { name = "", layer = "0", position, rotation = 0, xScale: sx = 1, yScale: sy = 1, ...grid }: Entity,
  unitX: number,
  unitY: number,
  shapes: Shapes,
  blocks: Blocks,
  level: number,
): string | null {
  const block = blocks.named.get(name);
  if (!block)
    return `it holds a block that is not in it, ${name || "without a name"}; save it with its blocks`;
  if (level >= MOST_LEVELS)
    return `it holds blocks in more than ${MOST_LEVELS} levels; take them apart first`;
  if (sx === 0 || sy === 0) return null;
  const inner = drawnBy(name, blocks, level);
  if (typeof inner === "string") return inner;
  const isStretched = Math.abs(Math.abs(sx) - Math.abs(sy)) > 1e-9 * Math.abs(sx);
  if (isStretched && (inner.circles.length > 0 || inner.runs.some(({ corners }) => corners.some(isBulged))))
    return "it holds a block with arcs that is stretched one way; turn it into lines and arcs in the CAD program first";
  const [base, at] = [block.position ?? { x: 0, y: 0 }, position ?? { x: 0, y: 0 }];
  const angle = (rotation * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const isMirrored = sx * sy * unitX * unitY < 0;
  const [columns = 1, rows = 1] = [grid.columnCount, grid.rowCount].map((count) => Math.max(1, count ?? 1));
  const count = columns * rows * (inner.runs.length + inner.circles.length);
  if (count === 0) return null;
  if (!(shapes.runs.length + shapes.circles.length + count <= MOST_ENTITIES))
    return `its blocks draw more than ${MOST_ENTITIES} lines and circles; leave fewer in it`;
  const onLayer = (own: string) => (own === "0" ? layer : own);
  for (let column = 0; column < columns; column++)
    for (let row = 0; row < rows; row++) {
      const [gx, gy] = [column * (grid.columnSpacing ?? 0), row * (grid.rowSpacing ?? 0)];
      const put = ([x, y]: Vec2): Vec2 => {
        const [u, w] = [(x - base.x) * sx + gx, (y - base.y) * sy + gy];
        return [(at.x + u * c - w * s) * unitX, (at.y + u * s + w * c) * unitY];
      };
      for (const { corners, end, layer: own } of inner.runs)
        shapes.runs.push({
          corners: corners.map(([x, y, bulge = 0]): BulgedCorner => {
            const [u, w] = put([x, y]);
            return [u, w, isMirrored ? 0 - bulge : bulge];
          }),
          end: end && put(end),
          layer: onLayer(own),
        });
      for (const { centre, radius, layer: own } of inner.circles)
        shapes.circles.push({
          centre: put(centre),
          radius: radius * Math.abs(sx * unitX),
          layer: onLayer(own),
        });
    }
  return null;
}

const isBulged = ([, , bulge = 0]: BulgedCorner) => bulge !== 0;

const near = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]) <= MEET;
const startOf = ({ corners }: Run): Vec2 => {
  const [x, y] = at(corners, 0);
  return [x, y];
};

/** A run the other way round: the bulge of an edge goes with the edge and changes its sign. */
function reversed(run: Run): Run {
  const { corners, end } = run;
  if (end === null) return run;
  const places = [...corners.map(([x, y]): Vec2 => [x, y]), end].reverse();
  const bulges = corners.map((corner) => -(corner[2] ?? 0)).reverse();
  const [x, y] = at(places, places.length - 1);
  return {
    ...run,
    corners: bulges.map((bulge, i): BulgedCorner => [at(places, i)[0], at(places, i)[1], bulge]),
    end: [x, y],
  };
}

/** A closed outline, with the circle that it is where it is one. */
export type Loop = {
  readonly corners: readonly BulgedCorner[];
  readonly polygon: Polygon;
  readonly area: number;
  readonly circle: Circle | null;
  readonly layer: string;
};

/** Runs joined end to end, the largest loop first; `open`: how many lead nowhere. */
export function loopsOf({ runs, circles }: Pick<DrawnShapes, "runs" | "circles">): {
  readonly loops: readonly Loop[];
  readonly open: number;
} {
  const closed: Run[] = [];
  const waiting: Run[] = [];
  let open = 0;
  for (const run of runs) {
    if (run.end === null || (near(startOf(run), run.end) && run.corners.length > 1)) closed.push(run);
    else waiting.push(run);
  }
  for (let first = waiting.shift(); first; first = waiting.shift()) {
    let whole = first;
    while (whole.end !== null && !near(startOf(whole), whole.end)) {
      const { end } = whole;
      const next = waiting.findIndex(
        (run) => near(startOf(run), end) || (run.end !== null && near(run.end, end)),
      );
      const [run] = next < 0 ? [] : waiting.splice(next, 1);
      if (!run) break;
      const ahead = near(startOf(run), end) ? run : reversed(run);
      whole = { ...whole, corners: [...whole.corners, ...ahead.corners], end: ahead.end };
    }
    if (whole.end !== null && near(startOf(whole), whole.end)) closed.push(whole);
    else open++;
  }
  const loop = (corners: readonly BulgedCorner[], layer: string, circle: Circle | null): Loop => {
    const polygon = flattened(corners, 0.01);
    return { corners, polygon, area: polygonArea(polygon), circle, layer };
  };
  return {
    loops: [
      ...closed.map(({ corners, layer }) => loop(corners, layer, null)),
      ...circles.map((circle) => loop(roundLoop(circle), circle.layer, circle)),
    ].toSorted((a, b) => Math.abs(b.area) - Math.abs(a.area)),
    open,
  };
}

/** The corners of a loop, anticlockwise. */
export function anticlockwise({ corners, area, layer }: Loop): readonly BulgedCorner[] {
  const [x, y] = at(corners, 0);
  return area < 0 ? reversed({ corners, end: [x, y], layer }).corners : corners;
}

const roundLoop = ({ centre: [x, y], radius }: Circle): readonly BulgedCorner[] => [
  [x - radius, y, 1],
  [x + radius, y, 1],
];
