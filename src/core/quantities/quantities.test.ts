import { describe, expect, it } from "vitest";
import { type Job, newJob } from "../job";
import { layoutTasks, type SavedLayout, savedLayout } from "../layout";
import { verifyBars } from "../layout/bars";
import { costOf, totalOf } from "../measure";
import { createPipeline } from "../pipeline";
import { resultsOf, STOCK, STOCK_DATA, smallFrame } from "../pipeline.fixture";
import { stockroomOf } from "../stockroom";
import { type Quantities, rowQuantity } from ".";

const lineOf = ({ lines }: Quantities, name: string) => {
  const line = lines.find((one) => one.name.startsWith(name));
  if (!line) throw new Error(`no line ${name}`);
  return line;
};

describe("rounding (recomputed by hand: 0.640 × 0.415 m, two off, at 14.20 per m² and 10 % waste)", () => {
  it("per piece 0.532, per line 0.531, at the end 0.5312", () => {
    const each = 0.64 * 0.415;
    expect(rowQuantity(each, 2, "piece")).toBe(0.532);
    expect(rowQuantity(each, 2, "line")).toBe(0.531);
    expect(rowQuantity(each, 2, "end")).toBe(0.5312);
  });

  it("cost before waste 7.55, 7.54, 7.54", () => {
    expect([0.532, 0.531, 0.5312].map((area) => costOf(area, 14.2))).toEqual([755, 754, 754]);
  });

  it("the job's own choice reaches the lines", () => {
    const panel = {
      name: "Panel",
      board: "ply",
      origin: ["0", "0", "0"],
      lengthAxis: ["1", "0", "0"],
      faceAxis: ["0", "0", "1"],
      length: "640",
      width: "415",
    } as const;
    const job = (rounding: "piece" | "line" | "end"): Job =>
      newJob({
        info: { code: "T", title: "T", rounding },
        panels: { a: panel, b: { ...panel, origin: ["0", "0", "500"] } },
      });
    const net = (["piece", "line", "end"] as const).map(
      (rounding) => lineOf(resultsOf(job(rounding)).quantities, "Birch ply").net,
    );
    expect(net).toEqual([0.532, 0.531, 0.5312]);
  });
});

describe("by rule", () => {
  const { quantities } = resultsOf(smallFrame());

  it("adds waste once on the sum: (2 × 600 + 2 × 400 + 2 × 430) mm + 10 %", () => {
    const tube = lineOf(quantities, "Square tube");
    expect([tube.net, tube.gross, tube.measure, tube.pieces]).toEqual([2.86, 3.146, "m", 6]);
    // 24 for 6 m is 4 a metre.
    expect([tube.unitPrice, tube.cost]).toEqual([4, 1258]);
  });

  it("masses come from area × length on the centroids: EN 10219-2 gives 3.30 kg/m for 40 × 40 × 3", () => {
    // Mitred rails are 560 and 360 long on their centroids.
    const metres = (2 * 560 + 2 * 360 + 2 * 430) / 1000;
    expect(lineOf(quantities, "Square tube").massKg).toBeWithinMm(metres * 3.3, 0.01 * metres);
    // Two shelves of 520 × 320 × 18 at 680 kg/m³.
    expect(lineOf(quantities, "Birch ply").massKg).toBeWithinMm(2 * 0.52 * 0.32 * 0.018 * 680, 1e-9);
  });

  it("the job's mass is that of all bars and sheets together; what has no known mass is counted, not guessed", () => {
    const steel = lineOf(quantities, "Square tube").massKg ?? 0;
    const ply = lineOf(quantities, "Birch ply").massKg ?? 0;
    expect(steel).toBeGreaterThan(8);
    expect(ply).toBeGreaterThan(4);
    expect(quantities.massKg).toBeWithinMm(steel + ply, 1e-6);
    expect([quantities.massKnown, quantities.massUnknown]).toEqual([2, 0]);
    const lath = { name: "Lath", from: "A", to: "E", section: "lath" };
    const more = resultsOf(smallFrame({ members: { lath } })).quantities;
    expect(more.massKg).toBeWithinMm(steel + ply, 1e-6);
    expect([more.massKnown, more.massUnknown]).toEqual([2, 1]);
  });

  it("edging is the edged length and two overhangs each; the blank is smaller by what is deducted", () => {
    const band = lineOf(quantities, "Birch edging");
    expect([band.net, band.gross]).toEqual([1.12, 1.232]);
    const ply = lineOf(quantities, "Birch ply");
    // Blank 520 × 319 (front edge deducted), twice, rounded to three places.
    expect(ply.net).toBe(0.332);
  });

  it("fittings count each without waste, by the box where they come in boxes, chain by its length", () => {
    expect([
      lineOf(quantities, "Foot").net,
      lineOf(quantities, "Foot").gross,
      lineOf(quantities, "Foot").cost,
    ]).toEqual([2, 2, 470]);
    expect([lineOf(quantities, "Screw").material, lineOf(quantities, "Screw").cost]).toEqual([
      "2 × box of 100",
      1280,
    ]);
    expect([
      lineOf(quantities, "Chain").net,
      lineOf(quantities, "Chain").measure,
      lineOf(quantities, "Chain").cost,
    ]).toEqual([0.4, "m", 128]);
  });

  it("a batch multiplies everything", () => {
    const three = resultsOf(smallFrame({ info: { code: "T", title: "T", batch: 3 } })).quantities;
    expect(lineOf(three, "Square tube").net).toBe(8.58);
    expect(lineOf(three, "Screw").cost).toBe(2560);
  });
});

describe("what has no price", () => {
  it("makes a total incomplete, never zero", () => {
    expect(totalOf([100, null, 250])).toEqual({ cents: 350, missing: 1 });
    const stockroom = stockroomOf({
      ...STOCK_DATA,
      boards: STOCK_DATA.boards.map((board) => ({
        ...board,
        stock: board.stock.map((sheet) => ({ ...sheet, price: null })),
      })),
    });
    const { quantities, buyingList } = resultsOf(smallFrame(), stockroom);
    expect(lineOf(quantities, "Birch ply").cost).toBeNull();
    expect(quantities.byRule.missing).toBe(1);
    expect(buyingList.notes[0]).toMatch(/incomplete: [\d.]+ EUR without 1 line that has no price/);
    const row = buyingList.groups
      .flatMap((group) => group.rows)
      .find((one) => one.cells["name"]?.text.startsWith("Birch ply"));
    expect(row?.cells["cost"]).toEqual({ text: "price missing", value: null, lack: "missing" });
  });

  it("an entry that can only be had in limited number has no price for the rule", () => {
    const stockroom = stockroomOf({
      ...STOCK_DATA,
      sections: STOCK_DATA.sections.map((section) => ({
        ...section,
        stock: section.stock.map((bar) => ({ ...bar, count: 1 })),
      })),
    });
    expect(lineOf(resultsOf(smallFrame(), stockroom).quantities, "Square tube").cost).toBeNull();
  });
});

describe("by layout", () => {
  const job = smallFrame();
  const task = layoutTasks(resultsOf(job).tally, STOCK).find((one) => one.name.startsWith("Square tube"));
  if (task?.kind !== "bars") throw new Error("the tube is laid out on bars");
  const layout = {
    bars: [{ stock: 0, times: 1, pieces: [0, 0, 1, 1, 2, 2], remainder: 3110.857864 }],
    cost: 24,
    count: 1,
    lowerBound: 24,
    lowerBoundOf: "cost" as const,
    proven: true,
    unplaced: [],
  };
  const saved: SavedLayout = savedLayout(task, layout, 1);

  it("takes whole bars at their price, and says what is not laid out", () => {
    expect(verifyBars(task.problem, layout)).toBeNull();
    const { quantities } = createPipeline()(job, null, STOCK, [saved]);
    const tube = lineOf(quantities, "Square tube");
    expect(tube.byLayout).toEqual({
      gross: 6,
      uses: [{ sizes: [6000], count: 1, price: 24 }],
      cost: 2400,
      outdated: false,
      unplaced: 0,
    });
    expect(quantities.byLayout.notLaidOut).toBe(1);
    expect(quantities.byLayout.cents).toBe(quantities.byRule.cents - 1258 + 2400);
  });

  it("takes as many metres as the bars that are cut, not one of each pattern", () => {
    const more = smallFrame({ info: { code: "T", title: "T", batch: 2 } });
    const tubes = layoutTasks(resultsOf(more).tally, STOCK).find((one) => one.name.startsWith("Square tube"));
    if (tubes?.kind !== "bars") throw new Error("the tube is laid out on bars");
    const twice = {
      ...layout,
      bars: layout.bars.map((bar) => ({ ...bar, times: 2 })),
      cost: 48,
      count: 2,
      lowerBound: 24,
      proven: false,
    };
    expect(verifyBars(tubes.problem, twice)).toBeNull();
    const { quantities } = createPipeline()(more, null, STOCK, [savedLayout(tubes, twice, 1)]);
    expect(lineOf(quantities, "Square tube").byLayout).toMatchObject({ gross: 12, cost: 4800 });
    expect(lineOf(quantities, "Square tube").byLayout?.uses).toEqual([
      { sizes: [6000], count: 2, price: 24 },
    ]);
  });

  it("is outdated as soon as the design changes, and incomplete where pieces are unplaced", () => {
    const wider = smallFrame({ keySizes: { width: { formula: "620" } } });
    const { quantities } = createPipeline()(wider, null, STOCK, [saved]);
    expect(lineOf(quantities, "Square tube").byLayout?.outdated).toBe(true);
    expect(quantities.byLayout.outdated).toBe(1);
    const short: SavedLayout = {
      ...saved,
      layout: { ...layout, unplaced: [{ piece: 0, qty: 1, why: { kind: "usedUp" } }] },
    } as SavedLayout;
    expect(
      lineOf(createPipeline()(job, null, STOCK, [short]).quantities, "Square tube").byLayout?.cost,
    ).toBeNull();
  });
});
