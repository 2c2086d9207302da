/** The fonts that ship with the product, for files that embed them. */
import { readFileSync } from "node:fs";
import { inflateSync } from "node:zlib";
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

/** Signs that shipped fonts lack, all of them or some, with what stands for them on paper. */
const LIKE: Readonly<Record<string, string>> = {
  "≈": "~",
  "⌀": "Ø",
  "−": "-",
  "≤": "<=",
  "≥": ">=",
  "→": "->",
  "∠": "angle ",
  "′": "'",
  "″": '"',
  // Thin spaces, which other programs write between groups of digits.
  "\u2009": " ",
  "\u202f": " ",
};

/** What a sign is written as by a face that has it or not. A minus is a hyphen in all faces: a size below zero is found by who types it. */
export const writtenAs = (sign: string, isThere: boolean): string =>
  isThere && sign !== "−" ? sign : (LIKE[sign] ?? "?");

/** The part of a fontkit font that is asked here; pdfkit's types leave it out. */
export type OpenFont = {
  readonly unitsPerEm: number;
  readonly characterSet: readonly number[];
  readonly hasGlyphForCodePoint: (code: number) => boolean;
  readonly glyphForCodePoint: (code: number) => { readonly advanceWidth: number };
};

/**
 * A font out of its compressed form, with the same tables (W3C, WOFF File Format 1.0, sections 3 to 5; the directory of what comes
 * out: OpenType 1.9, "Table Directory"). fontkit would unpack the outlines of all signs again for each sign that it writes.
 */
export function unpacked(woff: Buffer): Buffer {
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i;
    const [offset, packed, length] = [4, 8, 12].map((k) => woff.readUInt32BE(at + k)) as [
      number,
      number,
      number,
    ];
    const data = woff.subarray(offset, offset + packed);
    return {
      tag: woff.readUInt32BE(at),
      checksum: woff.readUInt32BE(at + 16),
      data: packed < length ? inflateSync(data) : data,
    };
  });
  const head = Buffer.alloc(12 + 16 * count);
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  const power = 2 ** Math.floor(Math.log2(count));
  head.writeUInt16BE(16 * power, 6);
  head.writeUInt16BE(Math.log2(power), 8);
  head.writeUInt16BE(16 * (count - power), 10);
  const parts: Buffer[] = [head];
  let offset = head.length;
  tables.forEach(({ tag, checksum, data }, i) => {
    for (const [k, value] of [tag, checksum, offset, data.length].entries())
      head.writeUInt32BE(value, 12 + 16 * i + 4 * k);
    // Each table begins at a multiple of four.
    const filled = Buffer.concat([data, Buffer.alloc((4 - (data.length % 4)) % 4)]);
    parts.push(filled);
    offset += filled.length;
  });
  return Buffer.concat(parts);
}

const OPEN = new Map<string, Buffer>();

/** A shipped font, unpacked once. */
function shippedFont(file: URL): Buffer {
  const known = OPEN.get(file.href);
  if (known) return known;
  const font = unpacked(readFileSync(file));
  OPEN.set(file.href, font);
  return font;
}

/** How a document begins that holds shipped fonts alone: null keeps the built-in Helvetica out. */
export const WITHOUT_FONTS = { autoFirstPage: false, font: null as unknown as string } as const;

/** Opens the fonts of every face in a document, the one to be asked first first; they are known by `fontName`. */
export function openFonts(doc: PDFKit.PDFDocument): ReadonlyMap<string, OpenFont> {
  const fonts = new Map<string, OpenFont>();
  for (const [face, files] of Object.entries(FONT_FILES)) {
    files.forEach((file, i) => {
      const name = `${face}${i}`;
      doc.registerFont(name, shippedFont(file));
      doc.font(name);
      fonts.set(name, (doc as unknown as { _font: { readonly font: OpenFont } })._font.font);
    });
  }
  return fonts;
}

/** The fonts of a face by name, the first that has a sign writes it. */
export const fontNames = (face: Face): readonly [string, string] => [`${face}0`, `${face}1`];

/** The widths of all signs of each face in thousandths of the size, in runs of signs that follow one another, out of the fonts that are opened in a document. */
export function shippedWidths(
  doc: PDFKit.PDFDocument,
): Readonly<Record<Face, readonly (readonly [number, readonly number[]])[]>> {
  const fonts = openFonts(doc);
  const runsOf = (face: Face) => {
    const widths = new Map<number, number>();
    for (const name of fontNames(face).toReversed()) {
      const font = fonts.get(name);
      for (const code of font?.characterSet ?? []) {
        const width = font?.glyphForCodePoint(code).advanceWidth ?? 0;
        widths.set(code, Math.round((1000 * width) / (font?.unitsPerEm ?? 1)));
      }
    }
    for (const sign of Object.keys(LIKE)) {
      const code = sign.codePointAt(0) ?? 0;
      const like = writtenAs(sign, widths.has(code));
      const parts = [...like].map((one) => widths.get(one.codePointAt(0) ?? 0) ?? 0);
      widths.set(
        code,
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
