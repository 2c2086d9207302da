import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type LaidPiece, layoutTasks, type SavedLayout, savedLayout } from "../layout";
import { layOutSheets } from "../layout/sheets";
import { createPipeline } from "../pipeline";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import { barDrawing, type DrawItem, PAGE_SIZES, sheetDrawing, shopPapers, silhouette, thumbnail } from ".";
import { endOfSegment } from "./path";
import { barOutline, planeProfiles } from "./silhouette";

const job = smallFrame();
const results = resultsOf(job);
const texts = (items: readonly DrawItem[]) =>
  items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
const places = (items: readonly DrawItem[]) =>
  items.flatMap((item) =>
    item.kind === "line"
      ? [item.from, item.to]
      : item.kind === "polygon"
        ? item.points
        : item.kind === "text"
          ? [item.at]
          : [],
  );

function bars(): SavedLayout {
  const task = layoutTasks(results.tally, STOCK)[0];
  if (task?.kind !== "bars") throw new Error("bars come first");
  return savedLayout(
    task,
    {
      bars: [{ stock: 0, times: 1, pieces: [0, 0, 1, 1, 2, 2], remainder: 3115 }],
      cost: 24,
      count: 1,
      lowerBound: 24,
      lowerBoundOf: "cost",
      proven: true,
      unplaced: [],
    },
    1,
  );
}
function sheets(): SavedLayout {
  const task = layoutTasks(results.tally, STOCK)[1];
  if (task?.kind !== "sheets") throw new Error("sheets come second");
  return savedLayout(task, layOutSheets(task.problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 2 }), 1);
}

describe("silhouettes", () => {
  const corners = (length: number, depth: number, slopes: readonly [number, number]) =>
    barOutline(length, depth, planeProfiles(slopes, depth));

  it("opposed mitres are a trapezoid, parallel ones a parallelogram, at their true angle", () => {
    expect(corners(100, 10, [1, 1])).toEqual([
      [0, 0],
      [100, 0],
      [90, 10],
      [10, 10],
    ]);
    expect(corners(100, 10, [1, -1])).toEqual([
      [0, 0],
      [90, 0],
      [100, 10],
      [10, 10],
    ]);
    expect(corners(100, 10, [0, 0])).toEqual([
      [0, 0],
      [100, 0],
      [100, 10],
      [0, 10],
    ]);
  });

  it("never leave the box of the piece, however steep and short", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 200, noNaN: true }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        (length, depth, a, b) => {
          const drawn = corners(length, depth, [a, b]);
          for (const [x, y] of drawn) {
            expect(x).toBeGreaterThanOrEqual(-1e-9);
            expect(x).toBeLessThanOrEqual(length + 1e-9);
            expect([0, depth]).toContain(y);
          }
          expect(drawn[1]?.[0] ?? 0).toBeGreaterThan(drawn[0]?.[0] ?? 0);
          expect(drawn[2]?.[0] ?? 0).toBeGreaterThan(drawn[3]?.[0] ?? 0);
        },
      ),
    );
  });

  it("a panel shows its banded edge thick and its grain", () => {
    const shelf = results.tally.rows.find((row) => row.name === "Shelf");
    const items = shelf ? silhouette(shelf.shown, { scale: 0.1, depth: 16, line: 1 }) : [];
    const thick = items.filter((item) => item.kind === "line" && item.stroke.width === 3);
    expect(thick.map((item) => (item.kind === "line" ? [item.from, item.to] : []))).toEqual([
      [
        [0, 16],
        [52, 16],
      ],
    ]);
    expect(items.filter((item) => item.kind === "line" && item.stroke.ink === "soft")).toHaveLength(2);
  });
});

describe("diagrams", () => {
  it("a bar to scale: pieces stand where the saw finds them, with trims and kerfs", () => {
    const saved = bars();
    if (saved.kind !== "bars" || !saved.layout.bars[0]) throw new Error("a bar");
    const shownOf = ({ mark }: LaidPiece) =>
      results.tally.rows.find((row) => row.mark === mark)?.shown ?? null;
    const items = barDrawing(
      {
        bar: saved.layout.bars[0],
        problem: saved.problem,
        pieces: saved.pieces,
        shownOf,
        style: { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } },
      },
      { scale: 0.1, depth: 10, line: 0.1, text: 3 },
    );
    const pieces = items.filter((item) => item.kind === "polygon" && item.pick);
    const spans = pieces.map((item) =>
      item.kind === "polygon"
        ? [Math.min(...item.points.map((p) => p[0])), Math.max(...item.points.map((p) => p[0]))]
        : [],
    );
    // Trim 5; 600 600 430 430 400 400 at 1:10 in mm. Along the bar a cut at 45° takes 2.5 · √2, a square one 2.5.
    const mitred = 2.5 * Math.SQRT2;
    let from = 5;
    [
      [600, mitred],
      [600, mitred],
      [430, 2.5],
      [430, mitred],
      [400, mitred],
      [400, 0],
    ].forEach(([length = 0, cut = 0], i) => {
      expect(spans[i]?.[0]).toBeWithinMm(from / 10, 1e-6);
      expect(spans[i]?.[1]).toBeWithinMm((from + length) / 10, 1e-6);
      from += length + cut;
    });
    expect(texts(items)).toEqual([
      "A",
      "600",
      "A",
      "600",
      "B",
      "430",
      "B",
      "430",
      "C",
      "400",
      "C",
      "400",
      "offcut 3115",
    ]);
  });

  it("a sheet to scale: every panel inside it at its size", () => {
    const saved = sheets();
    if (saved.kind !== "sheets" || !saved.layout.sheets[0]) throw new Error("a sheet");
    const sheet = saved.layout.sheets[0];
    const items = sheetDrawing(
      {
        sheet,
        problem: saved.problem,
        pieces: saved.pieces,
        style: { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } },
      },
      { scale: 0.1, line: 0.1, text: 3 },
    );
    const panels = items.filter((item) => item.kind === "polygon" && item.pick === "D");
    expect(panels).toHaveLength(2);
    for (const [x, y] of places(items)) {
      expect(x).toBeGreaterThanOrEqual(-0.2);
      expect(x).toBeLessThanOrEqual(244.2);
      expect(y).toBeGreaterThanOrEqual(-0.2);
      expect(y).toBeLessThanOrEqual(122.2);
    }
    expect(texts(items).filter((text) => text === "D")).toHaveLength(2);
  });
});

describe("the shop papers", () => {
  const computed = createPipeline()(job, null, STOCK, [bars(), sheets()]);
  const input = {
    info: job.info.job,
    revision: 7,
    date: "2026-11-25",
    variantName: null,
    shop: "A shop",
    results: computed,
    saved: [bars(), sheets()],
    saws: [],
  };

  it.each(["a4", "letter"] as const)(
    "on %s: every page in its size, with head and revision, nothing beyond the paper",
    (size) => {
      const pages = shopPapers(input, size);
      expect(pages.length).toBeGreaterThanOrEqual(1);
      for (const page of pages) {
        expect([page.width, page.height]).toEqual([PAGE_SIZES[size].width, PAGE_SIZES[size].height]);
        expect(texts(page.items).join(" ")).toContain("T-1");
        expect(texts(page.items).join(" ")).toMatch(/revision 7/i);
        for (const [x, y] of places(page.items)) {
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(page.width);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(page.height);
        }
      }
    },
  );

  it("hold every row of the lists, the diagrams with a scale, and both totals", () => {
    const all = shopPapers(input, "a4")
      .flatMap((page) => texts(page.items))
      .join("\n");
    for (const word of [
      "Cut list",
      "Rail",
      "End rail",
      "Shelf",
      "Bar layouts",
      "Sheet layouts",
      "Buying list",
      "Chain 4 mm",
      "Total net + ",
      "Total from layout",
    ])
      expect(all).toContain(word);
    expect(all).toMatch(/1 ?: ?\d+/);
  });

  it("break over pages and repeat the heading row, losing no row", () => {
    const members = Object.fromEntries(
      Array.from({ length: 90 }, (_, i) => [
        `x${i}`,
        { name: `Extra ${i}`, from: "E", to: `X${i}`, section: "lath" },
      ]),
    );
    const points = Object.fromEntries(
      Array.from({ length: 90 }, (_, i) => [`X${i}`, [`${700 + i * 7}`, "20", "0"] as const]),
    );
    const long = createPipeline()(smallFrame({ members, points }), null, STOCK, []);
    const pages = shopPapers({ ...input, results: long, saved: [], saws: [] }, "a4");
    expect(pages.length).toBeGreaterThan(2);
    const names = pages.flatMap((page) => texts(page.items)).filter((text) => /^Extra \d+$/.test(text));
    expect(new Set(names).size).toBe(90);
    expect(pages.filter((page) => texts(page.items).includes("End 1 °")).length).toBeGreaterThan(1);
  });
});

describe("thumbnails", () => {
  it("show every piece inside their box; an empty job is an empty picture", () => {
    const drawing = thumbnail(results.shape, 200, 120);
    const ends = drawing.items.flatMap((item) =>
      item.kind === "paths"
        ? item.paths.flatMap(({ from, segments }) => [from, ...segments.map(endOfSegment)])
        : [],
    );
    expect(ends.length).toBeGreaterThan(80);
    for (const [x, y] of ends) {
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(200);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(120);
    }
    // It fills the box in one direction.
    const [xs, ys] = [ends.map(([x]) => x), ends.map(([, y]) => y)];
    const filled = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
    expect(Math.max((filled[0] ?? 0) / 200, (filled[1] ?? 0) / 120)).toBeCloseTo(0.92, 3);
    expect(thumbnail(resultsOf({ ...job, members: {}, panels: {} }).shape, 10, 10).items).toEqual([]);
  });
});
