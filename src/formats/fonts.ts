/** The fonts that ship with the product, for files that embed them. */
import { readFileSync } from "node:fs";
import PDFDocument from "pdfkit";
import type { Face } from "@/core/drawing";

// .woff, not .woff2: the latter gives text that can be extracted but is invisible.
const FONT_FILES: Readonly<Record<Face, readonly URL[]>> = {
  text: [
    new URL("./fonts/barlow-latin-400-normal.woff", import.meta.url),
    new URL("./fonts/barlow-latin-ext-400-normal.woff", import.meta.url),
  ],
  strong: [
    new URL("./fonts/barlow-latin-600-normal.woff", import.meta.url),
    new URL("./fonts/barlow-latin-ext-600-normal.woff", import.meta.url),
  ],
  condensed: [
    new URL("./fonts/barlow-semi-condensed-latin-400-normal.woff", import.meta.url),
    new URL("./fonts/barlow-semi-condensed-latin-ext-400-normal.woff", import.meta.url),
  ],
  condensedStrong: [
    new URL("./fonts/barlow-semi-condensed-latin-600-normal.woff", import.meta.url),
    new URL("./fonts/barlow-semi-condensed-latin-ext-600-normal.woff", import.meta.url),
  ],
  slab: [
    new URL("./fonts/zilla-slab-latin-600-normal.woff", import.meta.url),
    new URL("./fonts/zilla-slab-latin-ext-600-normal.woff", import.meta.url),
  ],
};

/** Signs that the shipped fonts lack, with what stands for them on paper. */
export const LIKE: Readonly<Record<string, string>> = {
  "≈": "~",
  "⌀": "Ø",
  "−": "-",
  "≤": "<=",
  "≥": ">=",
  "→": "->",
  "∠": "angle ",
};

/** The part of a fontkit font that is asked here; pdfkit's types leave it out. */
export type OpenFont = {
  readonly unitsPerEm: number;
  readonly characterSet: readonly number[];
  readonly hasGlyphForCodePoint: (code: number) => boolean;
  readonly glyphForCodePoint: (code: number) => { readonly advanceWidth: number };
};

/** Opens the fonts of every face in a document, the one to be asked first first; they are known by `fontName`. */
export function openFonts(doc: PDFKit.PDFDocument): ReadonlyMap<string, OpenFont> {
  const fonts = new Map<string, OpenFont>();
  for (const [face, files] of Object.entries(FONT_FILES)) {
    files.forEach((file, i) => {
      const name = `${face}${i}`;
      doc.registerFont(name, readFileSync(file));
      doc.font(name);
      fonts.set(name, (doc as unknown as { _font: { readonly font: OpenFont } })._font.font);
    });
  }
  return fonts;
}

/** The fonts of a face by name, the first that has a sign writes it. */
export const fontNames = (face: Face): readonly [string, string] => [`${face}0`, `${face}1`];

/** The advance of a sign in units of its font; null: the font names it but holds no glyph that can be read. */
function advanceOf(font: OpenFont, code: number): number | null {
  try {
    return font.glyphForCodePoint(code).advanceWidth;
  } catch {
    return null;
  }
}

/** The widths of all signs of a face in thousandths of the size, in runs of signs that follow one another. */
export function shippedWidths(): Readonly<Record<Face, readonly (readonly [number, readonly number[]])[]>> {
  // font: null keeps the built-in Helvetica out.
  const fonts = openFonts(new PDFDocument({ autoFirstPage: false, font: null as unknown as string }));
  const runsOf = (face: Face) => {
    const widths = new Map<number, number>();
    for (const name of fontNames(face).toReversed()) {
      const font = fonts.get(name);
      for (const code of font?.characterSet ?? []) {
        const width = font && advanceOf(font, code);
        if (width !== null && width !== undefined)
          widths.set(code, Math.round((1000 * width) / (font?.unitsPerEm ?? 1)));
      }
    }
    for (const [sign, like] of Object.entries(LIKE)) {
      const parts = [...like].map((one) => widths.get(one.codePointAt(0) ?? 0) ?? 0);
      widths.set(
        sign.codePointAt(0) ?? 0,
        parts.reduce((sum, width) => sum + width, 0),
      );
    }
    const runs: [number, number[]][] = [];
    for (const [code, width] of [...widths].sort(([a], [b]) => a - b)) {
      const last = runs.at(-1);
      if (last && last[0] + last[1].length === code) last[1].push(width);
      else runs.push([code, [width]]);
    }
    return runs;
  };
  return {
    text: runsOf("text"),
    strong: runsOf("strong"),
    condensed: runsOf("condensed"),
    condensedStrong: runsOf("condensedStrong"),
    slab: runsOf("slab"),
  };
}
