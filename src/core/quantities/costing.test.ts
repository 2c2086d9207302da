/** Costs of rows: dealt out in whole hundredths, so that the rows come to the very totals that are bought. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../kernel";
import { savedLayout } from "../layout";
import { layOutSheets } from "../layout/sheets";
import { createPipeline } from "../pipeline";
import { resultsOf, STOCK, STOCK_DATA, smallFrame } from "../pipeline.fixture";
import { stockroomOf } from "../stockroom";
import { dealtOut, rowCosts } from "./costing";

describe("a sum dealt out by weights", () => {
  it("worked: 100 over three alike, 10 over 1 and 2, the greatest fractions first", () => {
    expect(dealtOut(100, [1, 1, 1])).toEqual([34, 33, 33]);
    expect(dealtOut(10, [1, 2])).toEqual([3, 7]);
    expect(dealtOut(7, [3, 2, 2])).toEqual([3, 2, 2]);
    expect(dealtOut(1, [1, 1, 2])).toEqual([0, 0, 1]);
    // Without weights somebody still pays it, and nobody twice.
    expect([dealtOut(50, [0, 0, 0]), dealtOut(0, [1, 2]), dealtOut(50, [])]).toEqual([
      [50, 0, 0],
      [0, 0],
      [],
    ]);
  });

  it("comes to the sum, and nobody is a hundredth or more away from their exact share", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1_000_000 }),
        fc.array(fc.integer({ min: 0, max: 900 }), { minLength: 1, maxLength: 30 }),
        (cents, weights) => {
          const whole = weights.reduce((sum, one) => sum + one, 0);
          fc.pre(whole > 0);
          const parts = dealtOut(cents, weights);
          expect(parts.reduce((sum, part) => sum + part, 0)).toBe(cents);
          parts.forEach((part, i) => {
            expect(Math.abs(part - (cents * at(weights, i)) / whole)).toBeLessThan(1);
            expect(Number.isInteger(part)).toBe(true);
          });
        },
      ),
    );
  });

  it("a line's net and waste are dealt out apart; without a price no row has one", () => {
    const rows = [
      { id: "a", quantity: 1 },
      { id: "b", quantity: 3 },
    ];
    expect(rowCosts({ netCost: 400, cost: 440 }, rows)).toEqual([
      ["a", { net: 100, waste: 10 }],
      ["b", { net: 300, waste: 30 }],
    ]);
    const none = [
      ["a", { net: null, waste: null }],
      ["b", { net: null, waste: null }],
    ];
    expect(rowCosts({ netCost: null, cost: 440 }, rows)).toEqual(none);
    expect(rowCosts({ netCost: 400, cost: null }, rows)).toEqual(none);
  });
});

describe("the rows of a job", () => {
  const { quantities, tally } = resultsOf(smallFrame());

  it("come to the totals of the buying list: bars, sheets, bought parts, and edging apart", () => {
    const total = quantities.lines.reduce((sum, { cost }) => sum + (cost ?? 0), 0);
    const rows = [...quantities.rowCosts.values(), ...quantities.edgingCosts.values()];
    expect(rows.reduce((sum, { net, waste }) => sum + (net ?? 0) + (waste ?? 0), 0)).toBe(total);
    expect(quantities.byRule).toEqual({ cents: total, missing: 0 });
    // Every row of the tally has its cost, and only panels have edging.
    expect(new Set(quantities.rowCosts.keys())).toEqual(new Set(tally.rows.map(({ id }) => id)));
    const edged = tally.rows.filter(({ kind }) => kind === "panel").map(({ id }) => id);
    expect([...quantities.edgingCosts.keys()]).toEqual(edged);
  });

  it("two edges with different edging add up in their row; one without a price leaves it open", () => {
    const edging = [
      { id: "band", name: "Band", material: null, thickness: 0, deducted: false, overhang: 0, pricePerM: 1 },
      {
        id: "bare",
        name: "Bare",
        material: null,
        thickness: 0,
        deducted: false,
        overhang: 0,
        pricePerM: null,
      },
    ];
    const room = stockroomOf({ ...STOCK_DATA, edging });
    const cost = (back: string) => {
      const shelf = smallFrame().panels["shelfLow"];
      const job = smallFrame();
      const panels = Object.fromEntries(
        Object.entries(job.panels).map(([id, panel]) => [
          id,
          { ...panel, edging: { ...panel.edging, front: "band", back } },
        ]),
      );
      expect(shelf).toBeDefined();
      const found = resultsOf({ ...job, panels } as typeof job, room).quantities.edgingCosts;
      return [...found.values()];
    };
    // 2 shelves of 520: 1.04 m front and back, at 1 a metre and 10 % waste.
    expect(cost("band")).toEqual([{ net: 208, waste: 21 }]);
    expect(cost("bare")).toEqual([{ net: null, waste: null }]);
  });

  it("sheets by layout: their area, their price, one entry for each size that is used", () => {
    const task = resultsOf(smallFrame()).tasks.find(({ kind }) => kind === "sheets");
    if (task?.kind !== "sheets") throw new Error("there is a board");
    const layout = layOutSheets(task.problem, { seed: 1, now: () => 0, budgetMs: 50, passes: 2 });
    const saved = savedLayout(task, layout, 1);
    const laid = createPipeline()(smallFrame(), null, STOCK, [saved]).quantities;
    const line = laid.lines.find(({ group }) => group === "sheets");
    expect(line?.byLayout).toEqual({
      gross: 2.44 * 1.22,
      uses: [{ sizes: [2440, 1220], count: 1, price: 54 }],
      cost: 5400,
      outdated: false,
      unplaced: 0,
    });
    expect([laid.byLayout.notLaidOut, laid.byLayout.outdated]).toEqual([1, 0]);
  });
});
