/** One sheet of a nesting to scale: their outlines with marks, the holes in them, the margin, the grain and the rest. */

import {
  boxOfPoints,
  edgeDistance,
  flattened,
  isInside,
  norm2,
  type Polygon,
  ringPoints,
  subtract2,
  type Vec2,
} from "../geometry";
import { at } from "../kernel";
import { type LaidPiece, pieceKey } from "../layout";
import {
  lyingCutOuts,
  lyingHoles,
  lyingOutline,
  type NestingProblem,
  type NestingSheet,
  type ShapePlacement,
} from "../layout/nesting";
import { formatLength, type LengthStyle } from "../measure";
import { lockSign } from "./bar-drawing";
import type { DrawItem, Tint } from "./display";
import { type SheetDrawingSize, sheetGround } from "./sheet-drawing";
import { textWidth } from "./text-width";

export type NestingDrawingInput = {
  readonly sheet: NestingSheet;
  readonly problem: NestingProblem;
  readonly pieces: readonly LaidPiece[];
  readonly style: LengthStyle;
  /** Of the pieces: what they are made of. */
  readonly tint: Tint;
};

export function nestingDrawing(input: NestingDrawingInput, size: SheetDrawingSize): readonly DrawItem[] {
  const { sheet, problem } = input;
  const stock = at(problem.stock, sheet.stock);
  return [
    ...sheetGround(stock, problem.margin, size),
    ...sheet.offcuts.flatMap((rest) => restItems(rest, input, size)),
    ...sheet.placements.flatMap((one) => shapeItems(one, stock.width, input, size)),
  ];
}

/** The line at which the rest begins, and its size where there is room for the words. */
function restItems(
  rest: NestingSheet["offcuts"][number],
  { style, problem }: NestingDrawingInput,
  { scale, line, text }: SheetDrawingSize,
): readonly DrawItem[] {
  const [x, end, height] = [rest.x * scale, (rest.x + rest.length) * scale, rest.width * scale];
  const edge: DrawItem = {
    kind: "line",
    from: [x, 0],
    to: [x, height],
    stroke: { ink: "soft", width: line * 0.6, dash: [line * 2, line * 2] },
  };
  const words = `offcut ${formatLength(rest.length, style, 0.1)} × ${formatLength(rest.width, style, 0.1)}`;
  const small = text * 0.85;
  // What is not worth keeping goes to waste without a word.
  const isScrap = Math.min(rest.length, rest.width) < problem.keep;
  if (isScrap || textWidth(words, small, "condensed") > end - x - 4 * line) return [edge];
  const label: DrawItem = {
    kind: "text",
    at: [(x + end) / 2, height / 2],
    text: words,
    size: small,
    face: "condensed",
    align: "centre",
    ink: "soft",
  };
  return [edge, label];
}

const HOLE_CORNERS = 20;
/** mm. Arcs of openings. */
const DRAWN_FINENESS = 0.5;

function shapeItems(
  one: ShapePlacement,
  sheetWidth: number,
  { problem, pieces, style, tint }: NestingDrawingInput,
  size: SheetDrawingSize,
): readonly DrawItem[] {
  const { scale, line, text } = size;
  // Drawn with y upwards, as whoever stands before the sheet sees it.
  const drawn = ([x, y]: Vec2): Vec2 => [x * scale, (sheetWidth - y) * scale];
  const piece = at(pieces, one.shape);
  const pick = pieceKey(piece);
  const outline = lyingOutline(problem, one).map(drawn);
  const items: DrawItem[] = [
    { kind: "polygon", points: outline, stroke: { ink: "ink", width: line }, fill: tint, pick },
  ];
  const holes = lyingHoles(problem, one).map(({ at: place, diameter }) => ({
    centre: drawn(place),
    radius: (diameter / 2) * scale,
  }));
  for (const hole of holes)
    items.push({
      kind: "polygon",
      points: ringPoints(hole, HOLE_CORNERS),
      stroke: { ink: "ink", width: line * 0.7 },
      fill: "paper",
      pick,
    });
  const openings = lyingCutOuts(problem, one).map((corners) => flattened(corners, DRAWN_FINENESS).map(drawn));
  for (const points of openings)
    items.push({
      kind: "polygon",
      points,
      stroke: { ink: "ink", width: line * 0.7 },
      fill: "paper",
      pick,
    });
  const [middle, room] = innermost(outline, holes, openings);
  const word = (place: Vec2, words: string, face: "slab" | "condensed", height: number): DrawItem => ({
    kind: "text",
    at: place,
    text: words,
    size: height,
    face,
    align: "centre",
    ink: "ink",
    pick,
  });
  const short = textWidth(pick, text, "slab") < 1.7 * room ? pick : piece.mark;
  const sized = piece.finished?.map((value) => formatLength(value, style, 0.1)).join(" × ") ?? "";
  // Of several jobs together, the job is worth more than the size where both find no room.
  const second = piece.job !== undefined && short === piece.mark ? piece.job : sized;
  const small = text * 0.85;
  const both = textWidth(second, small, "condensed") < 1.7 * room && room > text * 1.2 && second !== "";
  const fits = textWidth(short, text, "slab") < 2 * room;
  if (both)
    items.push(
      word([middle[0], middle[1] - text * 0.6], short, "slab", text),
      word([middle[0], middle[1] + text * 0.6], second, "condensed", small),
    );
  else if (fits && room > text * 0.45) items.push(word(middle, short, "slab", text));
  else items.push(word(middle, short, "slab", Math.max(text * 0.55, Math.min(text, room))));
  if (one.locked) {
    const [x, y] = [middle[0] - textWidth(short, text, "slab") / 2 - text * 0.45, middle[1]];
    items.push(lockSign([x, both ? y - text * 0.6 : y], text * 0.3));
  }
  return items;
}

/** How finely a polygon is searched for its innermost place. */
const STEPS = 16;

type Round = { readonly centre: Vec2; readonly radius: number };

/** A place well inside a polygon, clear of its holes, and how far it is from all edges: the middle of a gusset may lie outside. */
function innermost(
  polygon: Polygon,
  holes: readonly Round[],
  openings: readonly Polygon[],
): readonly [Vec2, number] {
  const { x0, y0, x1, y1 } = boxOfPoints(polygon);
  const roomAt = (place: Vec2) =>
    isInside(polygon, place) && !openings.some((opening) => isInside(opening, place))
      ? Math.min(
          ...[polygon, ...openings].map((ring) => edgeDistance(ring, place)),
          ...holes.map(({ centre, radius }) => norm2(subtract2(place, centre)) - radius),
        )
      : -1;
  let best: Vec2 = [(x0 + x1) / 2, (y0 + y1) / 2];
  let most = roomAt(best);
  for (let i = 1; i < STEPS; i++)
    for (let k = 1; k < STEPS; k++) {
      const place: Vec2 = [x0 + ((x1 - x0) * i) / STEPS, y0 + ((y1 - y0) * k) / STEPS];
      const room = roomAt(place);
      if (room <= most + 1e-9) continue;
      most = room;
      best = place;
    }
  return [best, Math.max(0, most)];
}
