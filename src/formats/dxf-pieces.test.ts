/** Several panels out of one drawing, written by ezdxf 1.4: rounded plates with holes, an ellipse, a spline on a line, a square cut-out. */
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { loopArea, type Vec2 } from "@/core/geometry";
import { boardOfLayer, piecesEdit } from "@/core/imports";
import { emptyJob, withEdit } from "@/core/job";
import { at, sentence } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { solidOfPanel } from "@/core/shape";
import { stockroomOf } from "@/core/stockroom";
import { demoStockroom } from "../../demo/stockroom";
import { readPieces } from "./dxf-in";

const text = readFileSync("src/formats/fixtures/panels-R2010.dxf", "utf8");
const stockroom = stockroomOf(demoStockroom);
const boards = stockroom.boards;

describe("outlines of a drawing", () => {
  const read = readPieces("panels.dxf", text);
  if (!read.ok) throw new Error("not read");
  const drawn = read.value;

  it("are each a piece with the holes in it, largest first; what is none is told", () => {
    expect(drawn.unit).toBeNull();
    const sizes = drawn.pieces.map(({ layer, outline }) => [
      layer,
      Math.round(outline.length * 100) / 100,
      Math.round(outline.width * 100) / 100,
      outline.holes.length,
    ]);
    expect(sizes[0]).toEqual(["TOP 18", 1200, 800, 0]);
    expect(sizes.filter(([, length]) => length === 400)).toEqual([
      ["PLY 12", 400, 200, 2],
      ["PLY 12", 400, 200, 2],
    ]);
    expect(drawn.told).toEqual([]);
    expect(
      drawn.pieces
        .map(({ outline }) => outline.cutOuts.map(({ length }) => length))
        .filter(({ length }) => length > 0),
    ).toEqual([[4]]);
    // Arcs are exact: four corners, each rounded by 20.
    const plate = drawn.pieces.find(({ outline }) => outline.holes.length === 2);
    expect(plate?.outline.corners.map(({ radius }) => Math.round(radius * 1e6) / 1e6)).toEqual([
      20, 20, 20, 20,
    ]);
  });

  it("become panels of the boards of their layers, twins in one row, with the areas of the closed forms", () => {
    const job = emptyJob({ code: "D", title: "D" });
    let count = 0;
    const chosen = new Map(
      ["PLY 12", "TOP 18"].map((layer) => [
        layer,
        boards.find(({ thickness }) => thickness === (layer === "PLY 12" ? 12 : 18))?.id ?? "",
      ]),
    );
    const edit = piecesEdit(drawn, { scale: 1, boards: chosen }, job, (kind) => `${kind}-${++count}`);
    const after = withEdit(job, edit);
    if (!after.ok) throw new Error("refused");
    const { tally, shape } = createPipeline()(after.value, null, stockroom, []);
    expect(tally.checks.filter(({ severity }) => severity === "error")).toEqual([]);
    expect(tally.rows.map(({ name, count: pieces }) => [name, pieces]).toSorted()).toEqual([
      // One of the two alike has a square cut-out.
      ["PLY 12 1", 1],
      ["PLY 12 2", 1],
      ["PLY 12 3", 1],
      ["TOP 18 1", 1],
    ]);
    const areaOf = (name: string) =>
      Math.abs(loopArea(shape.panels.find(({ panel }) => panel.name === name)?.outline?.loop ?? []));
    // An ellipse has π a b; a board of 1,200 may be off by a hundredth of a millimetre around.
    expect(Math.abs(areaOf("TOP 18 1") - Math.PI * 600 * 400)).toBeLessThan(0.01 * 3200);
    // Under the cubic: the integral of y dx by Simpson's rule, exact for polynomials of its degree in parts this fine.
    const bernstein = (t: number, c: readonly number[]) =>
      (1 - t) ** 3 * at(c, 0) +
      3 * t * (1 - t) ** 2 * at(c, 1) +
      3 * t * t * (1 - t) * at(c, 2) +
      t ** 3 * at(c, 3);
    const slope = (t: number, c: readonly number[]) =>
      3 *
      ((1 - t) ** 2 * (at(c, 1) - at(c, 0)) +
        2 * t * (1 - t) * (at(c, 2) - at(c, 1)) +
        t * t * (at(c, 3) - at(c, 2)));
    const [xs, ys] = [
      [600, 500, 100, 0],
      [0, 300, 100, 0],
    ];
    const parts = 400;
    let under = 0;
    for (let i = 0; i <= parts; i++) {
      const weight = i === 0 || i === parts ? 1 : i % 2 ? 4 : 2;
      under += (weight * bernstein(i / parts, ys) * slope(i / parts, xs)) / (3 * parts);
    }
    expect(Math.abs(areaOf("PLY 12 3") - Math.abs(under))).toBeLessThan(0.01 * 1500);
  });

  it("of a smooth curve are drawn without a line where two of its arcs meet", () => {
    const job = emptyJob({ code: "D", title: "D" });
    const edit = piecesEdit(
      { ...drawn, pieces: drawn.pieces.slice(0, 1) },
      { scale: 1, boards: new Map([["TOP 18", boards.find(({ thickness }) => thickness === 18)?.id ?? ""]]) },
      job,
      (kind) => `${kind}-${Math.random()}`,
    );
    const after = withEdit(job, edit);
    if (!after.ok) throw new Error("refused");
    const [top] = createPipeline()(after.value, null, stockroom, []).shape.panels;
    if (!top) throw new Error("no panel");
    const { lines, points } = solidOfPanel(top, { step: Math.PI / 16 });
    const upright = lines.filter(
      ({ from, to, kind }) => kind === "sharp" && at(points, from)[2] !== at(points, to)[2],
    );
    expect(upright).toEqual([]);
  });

  it("of a unit that is chosen are as large as it says", () => {
    const job = emptyJob({ code: "D", title: "D" });
    const edit = piecesEdit(
      drawn,
      { scale: 25.4, boards: new Map() },
      job,
      (kind) => `${kind}-${Math.random()}`,
    );
    expect(Number(edit.panels[0]?.length)).toBeCloseTo(1200 * 25.4, 2);
  });

  it("take the board that their layer is called as, or the only one of its thickness", () => {
    const [first] = boards;
    expect(boardOfLayer(first?.name.toUpperCase() ?? "", boards)).toBe(first?.id);
    const once = boards.filter(
      (one) => boards.filter(({ thickness }) => thickness === one.thickness).length === 1,
    );
    expect(boardOfLayer(`CUT ${once[0]?.thickness} mm`, boards)).toBe(once[0]?.id);
    expect(boardOfLayer("0", boards)).toBeNull();
  });
});

describe("outlines that are no pieces", () => {
  /** A drawing of polylines in plain text, closed or open. */
  const drawing = (...lines: readonly { readonly closed: boolean; readonly corners: readonly Vec2[] }[]) => {
    const entities = lines.flatMap(({ closed, corners }) => [
      ["0", "LWPOLYLINE"],
      ["8", "PLY 12"],
      ["90", String(corners.length)],
      ["70", closed ? "1" : "0"],
      ...corners.flatMap(([x, y]) => [
        ["10", String(x)],
        ["20", String(y)],
      ]),
    ]);
    const groups = [["0", "SECTION"], ["2", "ENTITIES"], ...entities, ["0", "ENDSEC"], ["0", "EOF"]];
    return groups.flat().join("\n");
  };
  const square = (x: number, y: number): readonly Vec2[] => [
    [x, y],
    [x + 100, y],
    [x + 100, y + 100],
    [x, y + 100],
  ];
  /** A comb of teeth, two corners each, over its base. */
  const comb = (y: number, teeth: number): readonly Vec2[] => [
    ...Array.from({ length: teeth }, (_, i): readonly Vec2[] => [
      [i * 10, y],
      [i * 10 + 5, y + 20],
    ]).flat(),
    [teeth * 10, y],
    [teeth * 10, y - 50],
    [0, y - 50],
  ];

  it("are told with why, those alike together; runs that stay open are counted", () => {
    const text = drawing(
      { closed: true, corners: square(0, 0) },
      { closed: true, corners: comb(1_000, 150) },
      { closed: true, corners: comb(2_000, 150) },
      { closed: true, corners: comb(3_000, 200) },
      { closed: false, corners: square(0, 4_000) },
      { closed: false, corners: square(200, 4_000) },
    );
    const read = readPieces("combs.dxf", text);
    if (!read.ok) throw new Error(sentence(read.problem));
    expect(read.value.pieces.map(({ outline }) => outline.length)).toEqual([100]);
    expect(read.value.told).toEqual([
      "1 outline has 403 corners; at most 200 are taken",
      "2 outlines: each has 303 corners; at most 200 are taken",
      "2 runs of lines close to no outline",
    ]);
  });
});
