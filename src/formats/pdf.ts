/**
 * Display lists as PDF (pdfkit): vector, in true millimetres, fonts embedded, text searchable, and a
 * hint to print dialogs not to scale.
 */
import { readFileSync } from "node:fs";
import PDFDocument from "pdfkit";
import type { DrawItem, Drawing, Face, Ink, TextMeasure } from "@/core/drawing";
import { INKS, TINTS } from "./print-colours";

const POINTS_PER_MM = 72 / 25.4;

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
const LIKE: Readonly<Record<string, string>> = {
  "≈": "~",
  "⌀": "Ø",
  "−": "-",
  "≤": "<=",
  "≥": ">=",
  "→": "->",
  "∠": "angle ",
};

type Run = { readonly font: string; readonly text: string };

/** The part of a fontkit font that is asked here; pdfkit's types leave it out. */
type OpenFont = { readonly font: { hasGlyphForCodePoint: (code: number) => boolean } };

class PdfWriter {
  private readonly doc: PDFKit.PDFDocument;
  private readonly covers = new Map<string, (code: number) => boolean>();

  constructor(title: string, created: Date) {
    // font: null keeps the built-in Helvetica out of the file.
    this.doc = new PDFDocument({
      autoFirstPage: false,
      font: null as unknown as string,
      info: { Title: title, Creator: "Rustic Tally", CreationDate: created },
    });
    for (const [face, files] of Object.entries(FONT_FILES)) {
      files.forEach((file, i) => {
        const name = `${face}${i}`;
        this.doc.registerFont(name, readFileSync(file));
        this.doc.font(name);
        const { font } = (this.doc as unknown as { _font: OpenFont })._font;
        this.covers.set(name, (code) => font.hasGlyphForCodePoint(code));
      });
    }
    const root = this.doc as unknown as { _root: { data: Record<string, unknown> } };
    root._root.data["ViewerPreferences"] = this.doc.ref({ PrintScaling: "None" });
  }

  /** Text in parts of one font each; a sign that no font has is shown by its like or a question mark, not dropped. */
  private runs(asked: string, face: Face): readonly Run[] {
    const runs: { font: string; text: string }[] = [];
    const text = asked.replace(/[≈⌀−≤≥→∠]/g, (sign) => LIKE[sign] ?? sign);
    for (const sign of text) {
      const code = sign.codePointAt(0) ?? 0;
      const font = [`${face}0`, `${face}1`].find((name) => this.covers.get(name)?.(code));
      const last = runs.at(-1);
      const use = font ?? `${face}0`;
      if (last?.font === use) last.text += font ? sign : "?";
      else runs.push({ font: use, text: font ? sign : "?" });
    }
    return runs;
  }

  readonly measure: TextMeasure = (text, size, face) =>
    this.runs(text, face).reduce(
      (sum, run) => sum + this.doc.font(run.font).fontSize(size).widthOfString(run.text),
      0,
    );

  page(drawing: Drawing): void {
    this.doc.addPage({ size: [drawing.width * POINTS_PER_MM, drawing.height * POINTS_PER_MM], margin: 0 });
    this.doc.save().scale(POINTS_PER_MM);
    for (const item of drawing.items) this.item(item);
    this.doc.restore();
  }

  private item(item: DrawItem): void {
    const { doc } = this;
    switch (item.kind) {
      case "line":
        this.stroke(item.stroke);
        doc
          .moveTo(...item.from)
          .lineTo(...item.to)
          .stroke();
        doc.undash();
        return;
      case "polygon": {
        for (const [i, [x, y]] of item.points.entries()) {
          if (i === 0) doc.moveTo(x, y);
          else doc.lineTo(x, y);
        }
        doc.closePath();
        if (item.stroke) this.stroke(item.stroke);
        if (item.fill) doc.fillColor(TINTS[item.fill]);
        if (item.fill && item.stroke) doc.fillAndStroke();
        else if (item.fill) doc.fill();
        else doc.stroke();
        doc.undash();
        return;
      }
      case "text":
        this.text(item);
        return;
      default:
        item satisfies never;
    }
  }

  private stroke({
    ink,
    width,
    dash,
  }: {
    readonly ink: Ink;
    readonly width: number;
    readonly dash?: readonly number[];
  }): void {
    this.doc.lineWidth(width).strokeColor(INKS[ink]).lineJoin("round");
    if (dash) this.doc.dash(dash[0] ?? 1, { space: dash[1] ?? 1 });
  }

  private text({ at, text, size, face, align, ink }: Extract<DrawItem, { kind: "text" }>): void {
    const width = this.measure(text, size, face);
    let x = align === "left" ? at[0] : align === "right" ? at[0] - width : at[0] - width / 2;
    this.doc.fillColor(INKS[ink]);
    for (const run of this.runs(text, face)) {
      this.doc.font(run.font).fontSize(size);
      // The middle of the capitals on the given height; 0.35 of the size is half a capital of these faces.
      this.doc.text(run.text, x, at[1] + size * 0.35, { lineBreak: false, baseline: "alphabetic" });
      x += this.doc.widthOfString(run.text);
    }
  }

  end(): Promise<Uint8Array> {
    return new Promise((resolve, reject) => {
      const parts: Uint8Array[] = [];
      this.doc.on("data", (part: Uint8Array) => parts.push(part));
      this.doc.on("end", () => resolve(Buffer.concat(parts)));
      this.doc.on("error", reject);
      this.doc.end();
    });
  }
}

/** Draws with the widths of the embedded fonts, for files other than PDF. */
export function drawnWithFonts<T>(draw: (measure: TextMeasure) => T): T {
  return draw(new PdfWriter("", new Date(0)).measure);
}

/** Writes pages to a PDF. `draw` gets the widths of the embedded fonts. */
export function pagesToPdf(
  title: string,
  created: Date,
  draw: (measure: TextMeasure) => readonly Drawing[],
): Promise<Uint8Array> {
  const writer = new PdfWriter(title, created);
  for (const page of draw(writer.measure)) writer.page(page);
  return writer.end();
}
