/** One bar of a layout: its pieces in order with their real end cuts, marks and lengths, and what is left. */
import { at, fromNm, toNm } from "../kernel";
import type { LaidPiece } from "../layout";
import type { BarProblem, CutBar } from "../layout/bars";
import { formatLength, type LengthStyle } from "../measure";
import type { Piece } from "../tally";
import { type DrawItem, rectangle, type TextMeasure } from "./display";
import { barOutline, saddleDepths, seenSlopes, tintOf } from "./silhouette";

export type BarDrawingInput = {
  readonly bar: CutBar;
  readonly problem: BarProblem;
  /** What each piece of the problem is called. */
  readonly pieces: readonly LaidPiece[];
  /** The piece as the tally knows it, for its ends; null when the row is gone. */
  readonly shownOf: (mark: string) => Piece | null;
  readonly style: LengthStyle;
};

export type BarDrawingSize = {
  /** Drawn length of a millimetre. */
  readonly scale: number;
  readonly depth: number;
  readonly line: number;
  readonly text: number;
  readonly measure: TextMeasure;
};

export function barDrawing(input: BarDrawingInput, size: BarDrawingSize): readonly DrawItem[] {
  const { bar, problem, pieces, style } = input;
  const { scale, depth, line, text } = size;
  const whole = at(problem.stock, bar.stock).length;
  const start = typeof problem.trim === "number" ? problem.trim : problem.trim.start;
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: rectangle(0, 0, whole * scale, depth),
      stroke: { ink: "soft", width: line * 0.7 },
      fill: "rest",
    },
  ];
  let x = start;
  for (const index of bar.pieces) {
    const { length } = at(problem.pieces, index);
    const { mark } = at(pieces, index);
    items.push(...pieceItems(input, size, mark, x, length));
    x = fromNm(toNm(x) + toNm(length) + toNm(problem.kerf));
  }
  const label = formatLength(bar.remainder, style, 0.1);
  const room = bar.remainder * scale;
  if (bar.remainder > 0 && size.measure(`${label} left`, text * 0.85, "condensed") < room - 2 * line) {
    items.push({
      kind: "text",
      at: [x * scale + room / 2, depth / 2],
      text: `${label} left`,
      size: text * 0.85,
      face: "condensed",
      align: "centre",
      ink: "soft",
    });
  }
  return items;
}

function pieceItems(
  { shownOf, style }: BarDrawingInput,
  size: BarDrawingSize,
  mark: string,
  x: number,
  length: number,
): readonly DrawItem[] {
  const { scale, depth, line, text, measure } = size;
  const piece = shownOf(mark);
  const slopes = piece?.form.kind === "member" ? seenSlopes(piece.form) : ([0, 0] as const);
  const saddles = piece?.form.kind === "member" ? saddleDepths(piece.form, depth) : ([0, 0] as const);
  const corners = barOutline(length * scale, depth, slopes, saddles).map(
    ([px, py]) => [px + x * scale, py] as const,
  );
  const middle = (x + length / 2) * scale;
  const room = length * scale - (Math.abs(slopes[0]) + Math.abs(slopes[1])) * depth * 0.5;
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: corners,
      stroke: { ink: "ink", width: line },
      fill: piece ? tintOf(piece) : "steel",
      pick: mark,
    },
  ];
  const label = formatLength(length, style, 0.1);
  const both = measure(`${mark} `, text, "slab") + measure(label, text, "condensed");
  if (both < room - 2 * line) {
    const left = middle - both / 2;
    items.push(
      {
        kind: "text",
        at: [left, depth / 2],
        text: mark,
        size: text,
        face: "slab",
        align: "left",
        ink: "ink",
        pick: mark,
      },
      {
        kind: "text",
        at: [left + measure(`${mark} `, text, "slab"), depth / 2],
        text: label,
        size: text,
        face: "condensed",
        align: "left",
        ink: "ink",
        pick: mark,
      },
    );
  } else if (measure(mark, text, "slab") < room) {
    items.push({
      kind: "text",
      at: [middle, depth / 2],
      text: mark,
      size: text,
      face: "slab",
      align: "centre",
      ink: "ink",
      pick: mark,
    });
  }
  return items;
}
