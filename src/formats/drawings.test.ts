/** One display list, and what other programs read of it in each of the files that are written from it. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";
import DxfParser from "dxf-parser";
import PDFDocument from "pdfkit";
import { describe, expect, it } from "vitest";
import type { DrawItem, Drawing, Face } from "@/core/drawing";
import { FONT_WIDTHS } from "@/core/drawing/font-widths";
import { circlePath, type EllipseSegment, onEllipse } from "@/core/drawing/path";
import { textWidth } from "@/core/drawing/text-width";
import type { Vec2 } from "@/core/geometry";
import { drawingToDxf } from "./dxf";
import { shippedWidths, unpacked, WITHOUT_FONTS } from "./fonts";
import { pagesToPdf } from "./pdf";
import { drawingToSvg } from "./svg";

const stroke = { ink: "ink", width: 0.5 } as const;
/** A leaning ellipse, a third of it. */
const LEANING: EllipseSegment = {
  kind: "ellipse",
  centre: [140, 40],
  u: [30, 10],
  v: [-5, 15],
  from: 0.4,
  to: 2.5,
};
const ITEMS: readonly DrawItem[] = [
  // A washer: what lies in the inner circle is no part of it.
  {
    kind: "paths",
    paths: [circlePath([50, 50], 30), circlePath([50, 50], 12)],
    stroke,
    fill: "brass",
    layer: "PANELS",
    record: "washer",
    piece: "washer.1",
  },
  {
    kind: "paths",
    paths: [{ from: onEllipse(LEANING, LEANING.from), segments: [LEANING], closed: false }],
    stroke,
    fill: null,
    layer: "CUTS",
  },
  {
    kind: "text",
    at: [180, 120],
    text: "upright",
    size: 10,
    face: "strong",
    align: "centre",
    ink: "ink",
    turn: 90,
    layer: "LABELS",
  },
  {
    kind: "clip",
    within: [
      [20, 100],
      [60, 100],
      [60, 140],
      [20, 140],
    ],
    items: [
      {
        kind: "polygon",
        points: [
          [0, 90],
          [100, 90],
          [100, 120],
          [0, 120],
        ],
        stroke: null,
        fill: "lock",
      },
      { kind: "line", from: [0, 110], to: [100, 110], stroke },
      { kind: "line", from: [0, 80], to: [100, 80], stroke },
      { kind: "paths", paths: [circlePath([60, 140], 10)], stroke, fill: null },
    ],
  },
];
const DRAWING: Drawing = { width: 200, height: 150, items: ITEMS };

describe("a drawing as PDF", () => {
  it("has its ring hollow, its clip cut off and its text upright, as another program paints it", async () => {
    const file = path.join(mkdtempSync(path.join(tmpdir(), "tally-drawing-")), "d");
    writeFileSync(`${file}.pdf`, await pagesToPdf("D", new Date(0), [DRAWING]));
    execFileSync("pdftoppm", ["-r", "127", "-singlefile", `${file}.pdf`, file]);
    const image = readFileSync(`${file}.ppm`);
    const header = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(image.subarray(0, 40).toString("latin1"));
    const width = Number(header?.[1]);
    const pixels = image.subarray(header?.[0].length ?? 0);
    // 127 dots an inch are five a millimetre.
    const colourAt = (x: number, y: number) =>
      [0, 1, 2].map((k) => pixels[3 * (Math.round(y * 5) * width + Math.round(x * 5)) + k]);
    const white = [255, 255, 255];
    expect(colourAt(50, 50)).toEqual(white);
    expect(colourAt(50, 70)).not.toEqual(white);
    expect(colourAt(50, 90)).toEqual(white);
    // Within the clip the tint, beside it nothing.
    expect(colourAt(40, 105)).not.toEqual(white);
    expect(colourAt(80, 105)).toEqual(white);
    expect(colourAt(40, 95)).toEqual(white);
    // The line of the leaning ellipse, half way.
    const [x, y] = onEllipse(LEANING, 1.45);
    expect(Math.max(...colourAt(x, y).map(Number))).toBeLessThan(120);
    const words = execFileSync("pdftotext", ["-bbox", `${file}.pdf`, "-"], { encoding: "utf8" });
    const [, xMin, yMin, xMax, yMax] =
      /xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">upright</.exec(words) ?? [];
    const mm = (points: string | undefined) => (Number(points) * 25.4) / 72;
    expect(mm(yMax) - mm(yMin)).toBeGreaterThan(2 * (mm(xMax) - mm(xMin)));
    expect((mm(yMax) + mm(yMin)) / 2).toBeWithinMm(120, 0.6);
  });
});

describe("a drawing as SVG", () => {
  it("is well formed, with names, clips and turned text", () => {
    const svg = drawingToSvg(DRAWING, "D");
    const file = path.join(mkdtempSync(path.join(tmpdir(), "tally-drawing-")), "d.svg");
    writeFileSync(file, svg);
    expect(svg).toContain('fill-rule="evenodd"');
    expect(svg).toContain('data-record="washer" data-piece="washer.1"');
    expect(svg.match(/<clipPath id="clip-1">/g)).toHaveLength(1);
    expect(svg).toContain('<g clip-path="url(#clip-1)">');
    expect(svg).toContain('transform="rotate(-90 180 120)"');
  });
});

describe("a drawing as DXF", () => {
  type Entity = {
    type: string;
    layer: string;
    center?: { x: number; y: number };
    radius?: number;
    vertices?: { x: number; y: number }[];
    majorAxisEndPoint?: { x: number; y: number };
    axisRatio?: number;
    startAngle?: number;
    endAngle?: number;
    rotation?: number;
  };
  const entities = (drawing: Drawing) =>
    (new DxfParser().parseSync(drawingToDxf(drawing, "mm"))?.entities ?? []) as unknown as Entity[];

  it("keeps circles and ellipses what they are, y upwards, on their layers", () => {
    const all = entities(DRAWING);
    expect(
      all
        .filter(({ type }) => type === "CIRCLE")
        .map(({ center, radius, layer }) => [center?.x, center?.y, radius, layer]),
    ).toEqual([
      [50, 100, 30, "PANELS"],
      [50, 100, 12, "PANELS"],
    ]);
    const [ellipse] = all.filter(({ type }) => type === "ELLIPSE");
    const {
      center: c = { x: 0, y: 0 },
      majorAxisEndPoint: m = { x: 0, y: 0 },
      axisRatio = 1,
      startAngle = 0,
      endAngle = 0,
    } = ellipse ?? {};
    // DXF reference, ELLIPSE: centre + major cos t + minor sin t, anticlockwise from the start parameter to the end one.
    const at = (t: number): Vec2 => [
      c.x + m.x * Math.cos(t) - m.y * axisRatio * Math.sin(t),
      c.y + m.y * Math.cos(t) + m.x * axisRatio * Math.sin(t),
    ];
    const upright = (angle: number): Vec2 => {
      const [x, y] = onEllipse(LEANING, angle);
      return [x, 150 - y];
    };
    const ends = [upright(LEANING.from), upright(LEANING.to)];
    const turned = (((endAngle - startAngle) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    const written = [at(startAngle), at(endAngle)];
    const near = (a: Vec2, b: Vec2 | undefined) =>
      Math.hypot(a[0] - (b?.[0] ?? 0), a[1] - (b?.[1] ?? 0)) < 1e-6;
    expect(written.every((place) => ends.some((end) => near(place, end)))).toBe(true);
    // Half way along it lies on the piece that was drawn, not on the other part of the ellipse.
    const middle = at(startAngle + turned / 2);
    const drawn = Array.from({ length: 2001 }, (_, i) =>
      upright(LEANING.from + ((LEANING.to - LEANING.from) * i) / 2000),
    );
    expect(
      Math.min(...drawn.map((place) => Math.hypot(place[0] - middle[0], place[1] - middle[1]))),
    ).toBeLessThan(0.03);
  });

  it("cuts what a clip cuts, and turns text", () => {
    const all = entities(DRAWING);
    const lines = all.filter(({ type }) => type === "LINE").map(({ vertices }) => vertices ?? []);
    expect(lines).toContainEqual([
      expect.objectContaining({ x: 20, y: 40 }),
      expect.objectContaining({ x: 60, y: 40 }),
    ]);
    // Of the circle round its corner the clip leaves a quarter.
    const length = lines.reduce(
      (sum, [a, b]) => sum + Math.hypot((a?.x ?? 0) - (b?.x ?? 0), (a?.y ?? 0) - (b?.y ?? 0)),
      0,
    );
    expect(length - 40).toBeWithinMm((Math.PI / 2) * 10, 0.01);
    const text = all.find(({ type }) => type === "TEXT");
    expect(text?.rotation).toBe(90);
  });

  it("writes a circle and an arc the same way round whichever way they were drawn", () => {
    const arc = (from: number, to: number, v: Vec2): Drawing => ({
      ...DRAWING,
      items: [
        {
          kind: "paths",
          paths: [
            {
              from: [70, 50],
              segments: [{ kind: "ellipse", centre: [50, 50], u: [20, 0], v, from, to }],
              closed: false,
            },
          ],
          stroke,
          fill: null,
        },
      ],
    });
    // A quarter from the right to the top of the page, drawn in either sense.
    for (const drawing of [arc(0, Math.PI / 2, [0, -20]), arc(0, -Math.PI / 2, [0, 20])]) {
      const [one] = entities(drawing);
      expect([one?.type, one?.startAngle, one?.endAngle]).toEqual(["ARC", 0, Math.PI / 2]);
    }
  });
});

it("a font is unpacked with all its tables, each with the checksum that its maker gave it (OpenType 1.9, Calculating Checksums)", () => {
  const folder = fileURLToPath(new URL("fonts/", import.meta.url));
  const files = readdirSync(folder).filter((file) => file.endsWith(".woff"));
  expect(files).toHaveLength(10);
  for (const file of files) {
    const woff = readFileSync(path.join(folder, file));
    const font = unpacked(woff);
    // The size that the packed file says of the whole (WOFF 1.0, totalSfntSize).
    expect(font.length).toBe(woff.readUInt32BE(16));
    const tags: string[] = [];
    for (let at = 12; at < 12 + 16 * font.readUInt16BE(4); at += 16) {
      const tag = font.toString("latin1", at, at + 4);
      const [checksum, from, length] = [4, 8, 12].map((k) => font.readUInt32BE(at + k)) as [
        number,
        number,
        number,
      ];
      let sum = 0;
      for (let i = from; i < from + length; i += 4) sum = (sum + font.readUInt32BE(i)) >>> 0;
      // The head table is summed without the number that makes the sum of the whole file what it must be.
      if (tag === "head") sum = (sum - font.readUInt32BE(from + 8)) >>> 0;
      expect(`${file} ${tag} ${sum}`).toBe(`${file} ${tag} ${checksum}`);
      tags.push(tag);
    }
    expect(tags).toEqual(expect.arrayContaining(["cmap", "glyf", "head", "hhea", "hmtx", "loca", "maxp"]));
  }
});

it("a sign that a face lacks is written as what is like it; only what is like nothing is a question mark", async () => {
  const line = (face: Face, i: number): DrawItem => ({
    kind: "text",
    at: [10, 10 + 10 * i],
    text: "3/16″ 1\u2009200 −5 漢",
    size: 4,
    face,
    align: "left",
    ink: "ink",
  });
  const faces: readonly Face[] = ["text", "strong", "condensed", "condensedStrong", "slab"];
  const file = path.join(mkdtempSync(path.join(tmpdir(), "signs-")), "signs.pdf");
  const page: Drawing = { width: 100, height: 60, items: faces.map(line) };
  writeFileSync(file, await pagesToPdf("Signs", new Date(0), [page]));
  const read = execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
  const lines = read
    .split("\n")
    .map((one) => one.trim())
    .filter(Boolean);
  expect(lines).toEqual([...Array(4).fill("3/16″ 1 200 -5 ?"), '3/16" 1 200 -5 ?']);
});

describe("the widths of texts", () => {
  it("are those of the fonts that ship with the product", () => {
    expect(FONT_WIDTHS).toEqual(shippedWidths(new PDFDocument(WITHOUT_FONTS)));
  });

  it("of a text are those of its signs; a sign that no font has counts as the question mark that stands for it", () => {
    const faces: readonly Face[] = ["text", "strong", "condensed", "condensedStrong", "slab"];
    for (const face of faces) {
      expect(textWidth("Shelf 12", 5, face)).toBeCloseTo(
        [..."Shelf 12"].reduce((sum, sign) => sum + textWidth(sign, 5, face), 0),
        9,
      );
      expect(textWidth("漢", 5, face)).toBe(textWidth("?", 5, face));
    }
    // Zilla Slab has no prime and Barlow no thin space: what is like them stands there, as wide as it is.
    expect(textWidth("″", 5, "slab")).toBe(textWidth('"', 5, "slab"));
    expect(textWidth("\u2009", 5, "text")).toBe(textWidth(" ", 5, "text"));
    // Barlow Regular, horizontal advance of its digit one: 350 units of 1000 (the font's hmtx table).
    expect(textWidth("1", 10, "text")).toBe(3.5);
  });
});
