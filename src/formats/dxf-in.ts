/**
 * The outline of one piece out of a DXF file, or of several: polylines with their arcs, lines, arcs, ellipses and splines that meet
 * end to end, circles. Circles in an outline are its holes. What would have to be guessed at is refused with a sentence.
 */
import { filletCorners, isInside, reach, roundedPolygon, type Vec2 } from "@/core/geometry";
import type { DrawnPieces } from "@/core/imports";
import { type DrawnOutline, MOST_CORNERS } from "@/core/job";
import { at, counted, err, ok, type Problem, type Result } from "@/core/kernel";
import { anticlockwise, type Circle, drawnShapes, type Loop, loopsOf } from "./dxf-loops";

const MOST_HOLES = 40;
/** mm². Less is no outline. */
const LEAST_AREA = 1e-3;

const refuse = (name: string, why: string) => err({ kind: "malformed", what: name, why } as const);

/** Reads the outline of one piece; the problem says what is wrong with the file and what to do. */
export function readOutline(name: string, text: string): Result<DrawnOutline, Problem> {
  // A drawing without unit is taken as millimetres.
  const shapes = drawnShapes(name, text);
  if (!shapes.ok) return shapes;
  const { loops, open } = loopsOf(shapes.value);
  if (open > 0)
    return refuse(name, "its lines do not close to an outline; join their ends in the CAD program");
  const [outer, ...others] = loops;
  if (!outer || Math.abs(outer.area) < LEAST_AREA)
    return refuse(name, "there is no closed outline in it; draw one of lines, arcs or polylines");
  const holes: Circle[] = [];
  for (const loop of others) {
    if (!isWithin(loop, outer))
      return refuse(name, "it holds more than one piece; leave one outline in it and what is inside that");
    if (!loop.circle)
      return refuse(name, "a cut-out in it is no circle; only round holes are read, cut the others by hand");
    holes.push(loop.circle);
  }
  const made = pieceOf(outer, holes);
  return made.ok ? ok(made.value.outline) : refuse(name, made.problem);
}

/** Whether a loop lies in another one: one place of it does, since loops of pieces do not cross. */
function isWithin({ circle, polygon }: Loop, outer: Loop): boolean {
  const [x, y] = circle?.centre ?? at(polygon, 0);
  return isInside(outer.polygon, [x, y]);
}

/** A piece with its low corner in the drawing; or why it cannot be one. */
function pieceOf(
  outer: Loop,
  holes: readonly Circle[],
): Result<{ readonly outline: DrawnOutline; readonly low: Vec2 }, string> {
  if (holes.length > MOST_HOLES) return err(`it has ${holes.length} holes; at most ${MOST_HOLES} are taken`);
  const corners = filletCorners(anticlockwise(outer));
  if (corners.length > MOST_CORNERS)
    return err(`its outline has ${corners.length} corners; at most ${MOST_CORNERS} are taken`);
  const loop = roundedPolygon(corners);
  const [x0, y0] = [-reach(loop, [-1, 0]), -reach(loop, [0, -1])];
  return ok({
    low: [x0, y0],
    outline: {
      length: reach(loop, [1, 0]) - x0,
      width: reach(loop, [0, 1]) - y0,
      corners: corners.map(({ at: [x, y], radius }) => ({ x: x - x0, y: y - y0, radius })),
      holes: holes.map(({ centre: [x, y], radius }) => ({ x: x - x0, y: y - y0, diameter: 2 * radius })),
    },
  });
}

/** All closed outlines of a drawing as pieces, each with the holes in it; what is none is told. */
export function readPieces(name: string, text: string): Result<DrawnPieces, Problem> {
  const shapes = drawnShapes(name, text);
  if (!shapes.ok) return shapes;
  const { loops, open } = loopsOf(shapes.value);
  const told = new Map<string, number>();
  const tell = (words: string) => told.set(words, (told.get(words) ?? 0) + 1);
  // The largest come first: what lies in none before it is a piece.
  const outers: { readonly loop: Loop; readonly holes: Circle[] }[] = [];
  for (const loop of loops) {
    if (Math.abs(loop.area) < LEAST_AREA) continue;
    const outer = outers.findLast((one) => isWithin(loop, one.loop));
    if (!outer) outers.push({ loop, holes: [] });
    else if (loop.circle) outer.holes.push(loop.circle);
    else tell("cut-out that is no circle: cut it by hand");
  }
  const pieces: DrawnPieces["pieces"][number][] = [];
  for (const { loop, holes } of outers) {
    const made = pieceOf(loop, holes);
    if (made.ok) pieces.push({ layer: loop.layer, outline: made.value.outline, low: made.value.low });
    else tell(`outline: ${made.problem}`);
  }
  if (open > 0) told.set("run of lines that closes to no outline", open);
  return ok({
    name,
    unit: shapes.value.unit,
    pieces,
    open,
    told: [...told].map(([words, count]) => {
      const [what, ...why] = words.split(": ");
      return [counted(count, what ?? ""), ...why].join(": ");
    }),
  });
}
