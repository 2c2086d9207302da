/**
 * Sheets of paper, their borders and the widths of lines on them. Sizes: ISO 216 (A series) and ANSI/ASME Y14.1 (letter,
 * tabloid, C, D); borders: ISO 5457 (20 mm at the filed edge, 10 mm else); lines: ISO 128 (two widths, 2:1).
 */
import type { PlaneBox } from "../../geometry";
import type { Page, Paper } from "../../job";

/** Millimetres, upright. */
export const SHEETS: Readonly<
  Record<Paper, { readonly name: string; readonly width: number; readonly height: number }>
> = {
  a4: { name: "A4", width: 210, height: 297 },
  a3: { name: "A3", width: 297, height: 420 },
  a2: { name: "A2", width: 420, height: 594 },
  a1: { name: "A1", width: 594, height: 841 },
  letter: { name: "Letter", width: 215.9, height: 279.4 },
  tabloid: { name: "Tabloid", width: 279.4, height: 431.8 },
  ansiC: { name: "ANSI C", width: 431.8, height: 558.8 },
  ansiD: { name: "ANSI D", width: 558.8, height: 863.6 },
};

const FILED_EDGE = 20;
const EDGE = 10;

export type SheetSize = { readonly width: number; readonly height: number };

/** The size of a page as it is turned. */
export function sheetSize({ paper, lying }: Pick<Page, "paper" | "lying">): SheetSize {
  const { width, height } = SHEETS[paper];
  return lying ? { width: height, height: width } : { width, height };
}

/** Where the border of a page runs, drawn or not: nothing is proposed outside it. The filed edge is at the left. */
export function borderOf(page: Pick<Page, "paper" | "lying">): PlaneBox {
  const { width, height } = sheetSize(page);
  return { x0: FILED_EDGE, y0: EDGE, x1: width - EDGE, y1: height - EDGE };
}

export type LineWidths = {
  readonly wide: number;
  readonly narrow: number;
  /** The height of the letters of sizes, of the series of ISO 3098. */
  readonly letters: number;
};

/** Widths of lines in millimetres: 0.5 and 0.25 on sheets up to A3 and tabloid, 0.7 and 0.35 on larger ones. */
export function lineWidths(paper: Paper): LineWidths {
  const { width } = SHEETS[paper];
  if (width > SHEETS.a3.width) return { wide: 0.7, narrow: 0.35, letters: 3.5 };
  return { wide: 0.5, narrow: 0.25, letters: width > SHEETS.letter.width ? 3.5 : 2.5 };
}
