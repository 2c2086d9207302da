/**
 * Display lists as PDF (pdfkit): vector, in true millimetres, fonts embedded, text searchable, and a
 * hint to print dialogs not to scale.
 */
import {
  CAPITAL_HEIGHT,
  curvesOf,
  type DrawItem,
  type Drawing,
  type DrawnText,
  type Face,
  type Path,
  type Stroke,
} from "@/core/drawing";
import { fontNames, type OpenFont, openFonts, WITHOUT_FONTS, writtenAs } from "./fonts";
import { INKS, tintColour } from "./print-colours";

const POINTS_PER_MM = 72 / 25.4;

type Run = { readonly font: string; readonly text: string };

class PdfWriter {
  private readonly doc: PDFKit.PDFDocument;
  private readonly fonts: ReadonlyMap<string, OpenFont>;

  constructor(doc: PDFKit.PDFDocument) {
    this.doc = doc;
    this.fonts = openFonts(doc);
    const root = doc as unknown as { _root: { data: Record<string, unknown> } };
    root._root.data["ViewerPreferences"] = doc.ref({ PrintScaling: "None" });
  }

  /** Text in parts of one font each; a sign that no font has is shown by its like or a question mark, not dropped. */
  private runs(asked: string, face: Face): readonly Run[] {
    const runs: { font: string; text: string }[] = [];
    const fontOf = (sign: string) =>
      fontNames(face).find((name) => this.fonts.get(name)?.hasGlyphForCodePoint(sign.codePointAt(0) ?? 0));
    const text = [...asked].flatMap((sign) => [...writtenAs(sign, fontOf(sign) !== undefined)]);
    for (const sign of text) {
      const font = fontOf(sign) ?? fontNames(face)[0];
      const last = runs.at(-1);
      if (last?.font === font) last.text += sign;
      else runs.push({ font, text: sign });
    }
    return runs;
  }

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
      case "polygon":
        this.outline(item.points);
        this.paint(item);
        return;
      case "paths":
        for (const path of item.paths) this.path(path);
        this.paint(item);
        return;
      case "clip":
        doc.save();
        this.outline(item.within);
        doc.clip();
        for (const one of item.items) this.item(one);
        doc.restore();
        return;
      case "image": {
        const { at, width, height, picture } = item;
        doc.image(Buffer.from(picture.data, "base64"), at[0], at[1], { width, height });
        return;
      }
      case "text":
        this.text(item);
        return;
      default:
        item satisfies never;
    }
  }

  private outline(points: readonly (readonly [number, number])[]): void {
    for (const [i, [x, y]] of points.entries()) {
      if (i === 0) this.doc.moveTo(x, y);
      else this.doc.lineTo(x, y);
    }
    this.doc.closePath();
  }

  private path({ from, segments, closed }: Path): void {
    this.doc.moveTo(...from);
    for (const segment of segments) {
      if (segment.kind === "line") this.doc.lineTo(...segment.to);
      else for (const [p, q, end] of curvesOf(segment)) this.doc.bezierCurveTo(...p, ...q, ...end);
    }
    if (closed) this.doc.closePath();
  }

  private paint({
    fill,
    stroke,
    shade,
  }: Pick<Extract<DrawItem, { kind: "paths" }>, "fill" | "stroke" | "shade">): void {
    const { doc } = this;
    if (stroke) this.stroke(stroke);
    if (fill) doc.fillColor(tintColour(fill, shade));
    if (fill && stroke) doc.fillAndStroke("even-odd");
    else if (fill) doc.fill("even-odd");
    else doc.stroke();
    doc.undash();
  }

  private stroke({ ink, width, dash }: Stroke): void {
    this.doc.lineWidth(width).strokeColor(INKS[ink]).lineJoin("round");
    if (dash) this.doc.dash(dash[0] ?? 1, { space: dash[1] ?? 1 });
  }

  /** With kerning, which the widths that drawings are measured by leave out. */
  private width({ font, text }: Run, size: number): number {
    return this.doc.font(font).fontSize(size).widthOfString(text);
  }

  private text({ at, text, size, face, align, ink, turn }: DrawnText): void {
    const runs = this.runs(text, face).map((run) => ({ ...run, width: this.width(run, size) }));
    const width = runs.reduce((sum, run) => sum + run.width, 0);
    let x = align === "left" ? at[0] : align === "right" ? at[0] - width : at[0] - width / 2;
    this.doc.save().fillColor(INKS[ink]);
    if (turn) this.doc.rotate(-turn, { origin: [at[0], at[1]] });
    for (const run of runs) {
      this.doc.font(run.font).fontSize(size);
      // The middle of the capitals on the given height.
      const baseline = at[1] + (size * CAPITAL_HEIGHT) / 2;
      this.doc.text(run.text, x, baseline, { lineBreak: false, baseline: "alphabetic" });
      x += run.width;
    }
    this.doc.restore();
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

/** Writes pages to a PDF. */
export async function pagesToPdf(
  title: string,
  created: Date,
  pages: readonly Drawing[],
): Promise<Uint8Array> {
  // Loaded by who writes a PDF: most commands write none.
  const { default: PDFDocument } = await import("pdfkit");
  const info = { Title: title, Creator: "Rustic Tally", CreationDate: created };
  const writer = new PdfWriter(new PDFDocument({ ...WITHOUT_FONTS, info }));
  for (const page of pages) writer.page(page);
  return writer.end();
}
