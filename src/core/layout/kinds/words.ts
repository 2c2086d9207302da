/** Words that several kinds of layout say. */
import { type LengthStyle, PLAIN_MM, sayLength, saySizes } from "../../measure";

/** Lengths of a problem in words. */
export const sayer =
  ({ style = PLAIN_MM }: { readonly style?: LengthStyle }) =>
  (mm: number) =>
    sayLength(mm, style);

export function marginNotes(
  margin: number,
  name: "trim" | "margin",
  stock: readonly { readonly length: number; readonly width: number }[],
  style: LengthStyle = PLAIN_MM,
): readonly string[] {
  return stock
    .filter(({ length, width }) => Math.min(length, width) <= 2 * margin)
    .map(
      ({ length, width }) =>
        `The ${name} of ${sayLength(margin, style)} leaves nothing of a sheet of ${saySizes([length, width], style)}; make it smaller.`,
    );
}

export const NO_SHEET = "Give its board a sheet size in the stockroom";
export const MORE_SHEETS = "Increase the number of sheets in stock, or clear it (no limit)";
export const turnOrBuy = (needs: string) =>
  `Place it across the grain by hand, remove its grain, or buy a sheet of at least ${needs}`;
export const finer = (needs: string) =>
  `Let it turn in finer steps, join it from two, or buy a sheet of at least ${needs}`;

/** What a size and what is kept free round it come to, in words. */
export function neededSheet(
  problem: { readonly style?: LengthStyle },
  size: { readonly length: number; readonly width: number },
  free: number,
): string {
  return saySizes([size.length + 2 * free, size.width + 2 * free], problem.style ?? PLAIN_MM);
}
