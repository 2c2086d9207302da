/** One bar of a layout: its pieces in order with their real end cuts, marks and lengths, and what is left. */

import type { Vec2 } from "../geometry";
import { at } from "../kernel";
import { type LaidPiece, pieceKey } from "../layout";
import { type BarProblem, type CutBar, type PieceOutline, pieceOutlines, trims } from "../layout/bars";
import { formatLength, type LengthStyle } from "../measure";
import type { Piece } from "../tally";
import { type DrawItem, rectangle } from "./display";
import { barOutline, profilesOf, tintOf } from "./silhouette";
import { textWidth } from "./text-width";

export type BarDrawingInput = {
  readonly bar: CutBar;
  readonly problem: BarProblem;
  /** What each piece of the problem is called. */
  readonly pieces: readonly LaidPiece[];
  /** The piece as the tally knows it, for its ends; null when the row is gone. */
  readonly shownOf: (piece: LaidPiece) => Piece | null;
  readonly style: LengthStyle;
};

export type BarDrawingSize = {
  /** Drawn length of a millimetre. */
  readonly scale: number;
  readonly depth: number;
  readonly line: number;
  readonly text: number;
};

export function barDrawing(input: BarDrawingInput, size: BarDrawingSize): readonly DrawItem[] {
  const { bar, problem, style } = input;
  const { scale, depth, line, text } = size;
  const whole = at(problem.stock, bar.stock).length;
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: rectangle(0, 0, whole * scale, depth),
      stroke: { ink: "soft", width: line * 0.7 },
      fill: "rest",
    },
  ];
  const outlines = pieceOutlines(problem, bar);
  bar.pieces.forEach((_, place) => {
    items.push(...pieceItems(input, size, place, at(outlines, place)));
  });
  const { end } = trims(problem);
  const x = whole - Math.max(0, end) - bar.remainder;
  const label = formatLength(bar.remainder, style, 0.1);
  const room = bar.remainder * scale;
  const words = [`offcut ${label}`, label].find(
    (one) => textWidth(one, text * 0.85, "condensed") < room - 2 * line,
  );
  // What is not worth keeping goes to waste without a word.
  if (bar.remainder > 0 && bar.remainder >= problem.keep && words !== undefined) {
    items.push({
      kind: "text",
      at: [x * scale + room / 2, depth / 2],
      text: words,
      size: text * 0.85,
      face: "condensed",
      align: "centre",
      ink: "soft",
    });
  }
  return items;
}

function pieceItems(
  { bar, problem, pieces, shownOf, style }: BarDrawingInput,
  size: BarDrawingSize,
  place: number,
  outline: PieceOutline,
): readonly DrawItem[] {
  const { scale, depth, line, text } = size;
  const index = at(bar.pieces, place);
  const { length } = at(problem.pieces, index);
  const named = at(pieces, index);
  const pick = pieceKey(named);
  const piece = shownOf(named);
  const from = Math.min(outline.start.upper, outline.start.lower);
  const corners = cornersOf(outline, piece, {
    scale,
    depth,
    from,
    length,
    ends: at(problem.pieces, index).ends,
  });
  const middle = (from + length / 2) * scale;
  const inner =
    Math.min(outline.end.upper, outline.end.lower) - Math.max(outline.start.upper, outline.start.lower);
  const room = inner * scale;
  const locked = bar.locked?.includes(place) ?? false;
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: corners,
      stroke: { ink: "ink", width: line },
      fill: piece ? tintOf(piece) : "steel",
      pick,
    },
    ...(locked ? [lockSign([from * scale + text * 0.55, text * 0.55], text * 0.5)] : []),
  ];
  const mark = textWidth(pick, text, "slab") < room - 2 * line ? pick : named.mark;
  const label = formatLength(length, style, 0.1);
  const both = textWidth(`${mark} `, text, "slab") + textWidth(label, text, "condensed");
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
        pick,
      },
      {
        kind: "text",
        at: [left + textWidth(`${mark} `, text, "slab"), depth / 2],
        text: label,
        size: text,
        face: "condensed",
        align: "left",
        ink: "ink",
        pick,
      },
    );
  } else if (textWidth(mark, text, "slab") < room) {
    items.push({
      kind: "text",
      at: [middle, depth / 2],
      text: mark,
      size: text,
      face: "slab",
      align: "centre",
      ink: "ink",
      pick,
    });
  }
  return items;
}

/** Ends that lean in one plane as the layout has them, to scale along the bar; others as the tally draws them. */
function cornersOf(
  outline: PieceOutline,
  piece: Piece | null,
  how: {
    readonly scale: number;
    readonly depth: number;
    readonly from: number;
    readonly length: number;
    readonly ends: BarProblem["pieces"][number]["ends"];
  },
): readonly Vec2[] {
  const { scale, depth, from, length } = how;
  if (how.ends !== null || piece?.form.kind !== "member")
    return [
      [outline.start.upper * scale, 0],
      [outline.end.upper * scale, 0],
      [outline.end.lower * scale, depth],
      [outline.start.lower * scale, depth],
    ];
  return barOutline(length * scale, depth, profilesOf(piece.form, depth)).map(([x, y]) => [
    x + from * scale,
    y,
  ]);
}

/** The sign of what is locked: a filled notch in the corner. */
export function lockSign([x, y]: Vec2, size: number): DrawItem {
  return {
    kind: "polygon",
    points: [
      [x - size, y - size],
      [x + size, y - size],
      [x - size, y + size],
    ],
    stroke: null,
    fill: "lock",
  };
}
