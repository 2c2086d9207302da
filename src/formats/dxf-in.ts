/**
 * The outline of one piece out of a DXF file, or of several: polylines with their arcs, lines, arcs, ellipses and splines that meet
 * end to end, circles. Circles in an outline are its holes, other outlines in it are
 * its cut-outs. What would have to be guessed at is refused with a sentence.
 */
import { type Corner, filletCorners, isInside, reach, roundedPolygon, type Vec2 } from "@/core/geometry";
import type { DrawnPieces } from "@/core/imports";
import { type CornerPlace, type DrawnOutline, MOST_CORNERS, MOST_WORK, panelFromDrawing } from "@/core/job";
import { agreeing, at, counted, err, grouped, ok, type Problem, type Result } from "@/core/kernel";
import { anticlockwise, drawnShapes, type Loop, loopsOf } from "./dxf-loops";

/** Holes and cut-outs of one piece. */
const MOST_INNER = 2_000;
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
  for (const [i, loop] of others.entries()) {
    const isAlone = isWithin(loop, outer) && !others.slice(0, i).some((other) => isWithin(loop, other));
    if (!isAlone)
      return refuse(name, "it holds more than one piece; leave one outline in it and what is inside that");
  }
  const made = pieceOf(outer, others);
  return made.ok ? ok(made.value.outline) : refuse(name, `its outline ${outlineFaultWords(made.problem)}`);
}

/** Why an outline with what is in it is no piece: more of something than is taken. */
type OutlineFault =
  | { readonly kind: "manyInner"; readonly count: number }
  | { readonly kind: "manyCorners"; readonly ofCutOut: boolean; readonly count: number }
  | { readonly kind: "manyRows"; readonly count: number };

/** The end of a sentence that begins with the outline. */
function outlineFaultWords(fault: OutlineFault): string {
  switch (fault.kind) {
    case "manyInner":
      return `has ${fault.count} holes and cut-outs; at most ${MOST_INNER} are taken`;
    case "manyCorners":
      return `has ${fault.ofCutOut ? "a cut-out with " : ""}${fault.count} corners; at most ${MOST_CORNERS} are taken`;
    case "manyRows":
      return `has its holes and cut-outs in ${fault.count} rows; at most ${MOST_WORK} are taken`;
    default:
      return fault satisfies never;
  }
}

/** Whether a loop lies in another one: one place of it does, since loops of pieces do not cross. */
function isWithin({ circle, polygon }: Loop, outer: Loop): boolean {
  const [x, y] = circle?.centre ?? at(polygon, 0);
  return isInside(outer.polygon, [x, y]);
}

/** A piece with its low corner in the drawing; or why it cannot be one. */
function pieceOf(
  outer: Loop,
  inner: readonly Loop[],
): Result<{ readonly outline: DrawnOutline; readonly low: Vec2 }, OutlineFault> {
  if (inner.length > MOST_INNER) return err({ kind: "manyInner", count: inner.length });
  const cutOuts = inner
    .filter(({ circle }) => circle === null)
    .map((one) => filletCorners(anticlockwise(one)));
  const many = cutOuts.find(({ length }) => length > MOST_CORNERS);
  if (many) return err({ kind: "manyCorners", ofCutOut: true, count: many.length });
  const corners = filletCorners(anticlockwise(outer));
  if (corners.length > MOST_CORNERS)
    return err({ kind: "manyCorners", ofCutOut: false, count: corners.length });
  const loop = roundedPolygon(corners);
  const holes = inner.flatMap(({ circle }) => (circle ? [circle] : []));
  const [x0, y0] = [-reach(loop, [-1, 0]), -reach(loop, [0, -1])];
  const placed = ({ at: [x, y], radius }: Corner): CornerPlace => ({ x: x - x0, y: y - y0, radius });
  const outline: DrawnOutline = {
    length: reach(loop, [1, 0]) - x0,
    width: reach(loop, [0, 1]) - y0,
    corners: corners.map(placed),
    cutOuts: cutOuts.map((one) => one.map(placed)),
    holes: holes.map(({ centre: [x, y], radius }) => ({ x: x - x0, y: y - y0, diameter: 2 * radius })),
  };
  const { work } = panelFromDrawing(outline, { between: null, work: [] }, "mm", () => "new");
  const rows = work?.length ?? 0;
  return rows > MOST_WORK ? err({ kind: "manyRows", count: rows }) : ok({ low: [x0, y0], outline });
}

/** All closed outlines of a drawing as pieces, each with the holes in it; what is none is told. */
export function readPieces(name: string, text: string): Result<DrawnPieces, Problem> {
  const shapes = drawnShapes(name, text);
  if (!shapes.ok) return shapes;
  const { loops, open } = loopsOf(shapes.value);
  // The largest come first: what lies in none before it is a piece.
  const outers: { readonly loop: Loop; readonly inner: Loop[] }[] = [];
  for (const loop of loops) {
    if (Math.abs(loop.area) < LEAST_AREA) continue;
    const outer = outers.findLast((one) => isWithin(loop, one.loop));
    // What lies in a cut-out is a piece of its own.
    if (!outer || outer.inner.some((one) => isWithin(loop, one))) outers.push({ loop, inner: [] });
    else outer.inner.push(loop);
  }
  const pieces: DrawnPieces["pieces"][number][] = [];
  const refused: string[] = [];
  for (const { loop, inner } of outers) {
    const made = pieceOf(loop, inner);
    if (made.ok) pieces.push({ layer: loop.layer, outline: made.value.outline, low: made.value.low });
    else refused.push(outlineFaultWords(made.problem));
  }
  const alike = [...grouped(refused, (words) => words)];
  const told = alike.map(([words, { length: count }]) =>
    count === 1 ? `1 outline ${words}` : `${count} outlines: each ${words}`,
  );
  if (open > 0)
    told.push(`${counted(open, "run")} of lines ${agreeing(open, "closes", "close")} to no outline`);
  return ok({ name, unit: shapes.value.unit, pieces, open, told });
}
