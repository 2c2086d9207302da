/** One sheet of a layout to scale: its panels with marks and sizes, the trim, the grain and what is left. */

import { at } from "../kernel";
import { type LaidPiece, pieceKey } from "../layout";
import type { CutSheet, Placement, SheetProblem } from "../layout/sheets";
import { formatLength, type LengthStyle } from "../measure";
import { lockSign } from "./bar-drawing";
import { type DrawItem, rectangle } from "./display";
import { textWidth } from "./text-width";

export type SheetDrawingInput = {
  readonly sheet: CutSheet;
  readonly problem: SheetProblem;
  readonly pieces: readonly LaidPiece[];
  readonly style: LengthStyle;
};
export type SheetDrawingSize = {
  readonly scale: number;
  readonly line: number;
  readonly text: number;
};

export function sheetDrawing(input: SheetDrawingInput, size: SheetDrawingSize): readonly DrawItem[] {
  const { sheet, problem } = input;
  const stock = at(problem.stock, sheet.stock);
  return [
    ...sheetGround(stock, problem.trim, size),
    ...sheet.offcuts.flatMap((offcut) => offcutItems(offcut, input, size)),
    ...sheet.placements.flatMap((placement) => placementItems(placement, stock.grain, input, size)),
  ];
}

/** The bare sheet with the line up to which it can be used. */
export function sheetGround(
  stock: { readonly length: number; readonly width: number },
  margin: number,
  { scale, line }: Pick<SheetDrawingSize, "scale" | "line">,
): readonly DrawItem[] {
  const [length, width, edge] = [stock.length * scale, stock.width * scale, margin * scale];
  return [
    {
      kind: "polygon",
      points: rectangle(0, 0, length, width),
      stroke: { ink: "soft", width: line },
      fill: "rest",
    },
    {
      kind: "polygon",
      points: rectangle(edge, edge, length - 2 * edge, width - 2 * edge),
      stroke: { ink: "seam", width: line * 0.6, dash: [line * 4, line * 3] },
      fill: null,
    },
  ];
}

/** The sheet is drawn with x to the right and y upwards, as the saw operator stands before it. */
const flipped = (input: SheetDrawingInput, y: number, height: number) =>
  at(input.problem.stock, input.sheet.stock).width - y - height;

function offcutItems(
  offcut: CutSheet["offcuts"][number],
  input: SheetDrawingInput,
  { scale, text, line }: SheetDrawingSize,
): readonly DrawItem[] {
  // What is not worth keeping goes to waste without a word.
  if (Math.min(offcut.length, offcut.width) < input.problem.keep) return [];
  const sizes = `${formatLength(offcut.length, input.style, 0.1)} × ${formatLength(offcut.width, input.style, 0.1)}`;
  const [room, height] = [offcut.length * scale - 4 * line, offcut.width * scale];
  const fits = (words: string, size: number) =>
    textWidth(words, size, "condensed") <= room && height >= size * 1.2;
  // An offcut that goes into the rack is told on the sheet, in smaller letters where it is narrow.
  const tries = [`offcut ${sizes}`, sizes].flatMap((words) =>
    [0.85, 0.7, 0.55].map((part) => ({ words, size: text * part })),
  );
  const found = tries.find(({ words, size }) => fits(words, size));
  if (!found && input.problem.keep === 0) return [];
  const { words: label, size: small } = found ?? { words: sizes, size: text * 0.55 };
  const y = flipped(input, offcut.y, offcut.width);
  return [
    {
      kind: "text",
      at: [(offcut.x + offcut.length / 2) * scale, (y + offcut.width / 2) * scale],
      text: label,
      size: small,
      face: "condensed",
      align: "centre",
      ink: "soft",
    },
  ];
}

function placementItems(
  placement: Placement,
  grain: "length" | "width" | null,
  input: SheetDrawingInput,
  size: SheetDrawingSize,
): readonly DrawItem[] {
  const { scale, line } = size;
  const mark = pieceKey(at(input.pieces, placement.panel));
  const x = placement.x * scale;
  const y = flipped(input, placement.y, placement.width) * scale;
  const [length, width] = [placement.length * scale, placement.width * scale];
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: rectangle(x, y, length, width),
      stroke: { ink: "ink", width: line },
      fill: "board",
      pick: mark,
    },
  ];
  const grained = at(input.problem.panels, placement.panel).grain && grain !== null;
  if (grained) items.push(...grainLines(x, y, length, width, grain, line));
  const label = `${formatLength(placement.length, input.style, 0.1)} × ${formatLength(placement.width, input.style, 0.1)}`;
  const short = at(input.pieces, placement.panel).mark;
  const fitting = textWidth(mark, size.text, "slab") < length - 4 * line ? mark : short;
  items.push(...labelItems({ pick: mark, mark: fitting }, label, [x, y, length, width], size));
  const named = at(input.pieces, placement.panel);
  if (named.finished) {
    const [first, second] = placement.rotated ? [named.finished[1], named.finished[0]] : named.finished;
    const words = `finished ${formatLength(first, input.style, 0.1)} × ${formatLength(second, input.style, 0.1)}`;
    items.push(...finishedItem(words, mark, [x, y, length, width], size));
  }
  if (placement.locked) items.push(lockSign([x + size.text * 0.55, y + size.text * 0.55], size.text * 0.5));
  return items;
}

/** The finished size under the blank's own, where edging or allowances make them differ and there is room for it. */
function finishedItem(
  words: string,
  pick: string,
  [x, y, length, width]: readonly [number, number, number, number],
  { line, text }: SheetDrawingSize,
): readonly DrawItem[] {
  const small = text * 0.72;
  if (textWidth(words, small, "condensed") > length - 4 * line || width < text * 4.2) return [];
  return [
    {
      kind: "text",
      at: [x + length / 2, y + width / 2 + text * 1.65],
      text: words,
      size: small,
      face: "condensed",
      align: "centre",
      ink: "soft",
      pick,
    },
  ];
}

/** Mark over size; beside one another on a panel too narrow for two lines; else the mark alone. */
function labelItems(
  { pick, mark }: { readonly pick: string; readonly mark: string },
  label: string,
  [x, y, length, width]: readonly [number, number, number, number],
  { line, text }: SheetDrawingSize,
): readonly DrawItem[] {
  const small = text * 0.85;
  const [markWidth, labelWidth] = [textWidth(mark, text, "slab"), textWidth(label, small, "condensed")];
  const [across, down] = [x + length / 2, y + width / 2];
  const word = (at: readonly [number, number], what: "mark" | "label"): DrawItem => ({
    kind: "text",
    at,
    text: what === "mark" ? mark : label,
    size: what === "mark" ? text : small,
    face: what === "mark" ? "slab" : "condensed",
    align: "centre",
    ink: "ink",
    pick,
  });
  if (labelWidth < length - 4 * line && width > text * 2.6)
    return [word([across, down - text * 0.6], "mark"), word([across, down + text * 0.6], "label")];
  const both = markWidth + text * 0.5 + labelWidth;
  if (both < length - 4 * line && width > text * 1.1)
    return [
      word([across - both / 2 + markWidth / 2, down], "mark"),
      word([across + both / 2 - labelWidth / 2, down], "label"),
    ];
  return markWidth < length && width > text ? [word([across, down], "mark")] : [];
}

function grainLines(
  x: number,
  y: number,
  length: number,
  width: number,
  grain: "length" | "width",
  line: number,
): readonly DrawItem[] {
  const stroke = { ink: "seam", width: line * 0.7 } as const;
  return [0.14, 0.86].map(
    (share): DrawItem =>
      grain === "length"
        ? {
            kind: "line",
            from: [x + length * 0.08, y + width * share],
            to: [x + length * 0.92, y + width * share],
            stroke,
          }
        : {
            kind: "line",
            from: [x + length * share, y + width * 0.08],
            to: [x + length * share, y + width * 0.92],
            stroke,
          },
  );
}
