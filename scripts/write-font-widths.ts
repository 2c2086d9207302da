/** Writes the widths of the shipped fonts that drawings are measured by: `npx tsx scripts/write-font-widths.ts`. */
import { writeFileSync } from "node:fs";
import PDFDocument from "pdfkit";
import { shippedWidths, WITHOUT_FONTS } from "@/formats/fonts";

const faces = Object.entries(shippedWidths(new PDFDocument(WITHOUT_FONTS))).map(([face, runs]) => {
  const lines = runs.map(([first, widths]) => `    [${first}, [${widths.join(", ")}]],`);
  return `  ${face}: [\n${lines.join("\n")}\n  ],`;
});
const text = `/**
 * Advance widths of the shipped fonts, in thousandths of the size: runs of signs that follow one another, each with the code
 * of its first. Made by scripts/write-font-widths.ts; a test holds it against the fonts.
 */
import type { Face } from "./face";

type Run = readonly [first: number, widths: readonly number[]];

export const FONT_WIDTHS: Readonly<Record<Face, readonly Run[]>> = {
${faces.join("\n")}
};
`;
writeFileSync("src/core/drawing/font-widths.ts", text);
