import fc from "fast-check";
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { loadLinearSolver } from "@/engines/linear-solver";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import {
  type BarLayout,
  type BarProblemInput,
  BarProblemSchema,
  barCuts,
  layOutBars,
  readBarProblem,
} from "./bars";
import { type CutSheet, layOutSheets, type SheetProblem, SheetProblemSchema, sheetCuts } from "./sheets";

type Parts = v.InferInput<typeof SheetProblemSchema>;
const read = (parts: Parts): SheetProblem => v.parse(SheetProblemSchema, parts);

/**
 * Carries the cuts out on a piece of board, knowing nothing of how they were found: each takes its setting and a kerf
 * off the part that it cuts. Gives the panels that come off, with their sizes; throws where a cut has no room.
 */
function sawn(problem: SheetProblem, sheet: CutSheet) {
  const { cuts, left } = sheetCuts(problem, sheet);
  const stock = at(problem.stock, sheet.stock);
  const { kerf, trim } = problem;
  const parts = new Map([[0, { length: stock.length, width: stock.width }]]);
  const panels: { panel: number; length: number; width: number }[] = [];
  const trims = cuts.filter(({ kind }) => kind === "trim");
  const whole = parts.get(0);
  if (!whole) throw new Error("there is the sheet");
  // The trims take their own kerf with them: one edge along the length, one across.
  if (trims.length > 0) {
    whole.length -= trim;
    whole.width -= trim;
  }
  let stage = 0;
  for (const cut of cuts) {
    if (cut.kind === "trim") continue;
    if (cut.stage < stage) throw new Error("a stage comes back");
    stage = cut.stage;
    const from = parts.get(cut.of);
    if (!from) throw new Error(`part ${cut.of} is not there`);
    const side = cut.kind === "rip" ? "width" : "length";
    if (cut.setting > from[side] + 1e-6) throw new Error(`no room for ${cut.setting} in ${from[side]}`);
    const part = { ...from, [side]: cut.setting };
    from[side] -= cut.setting + kerf;
    parts.set(cut.part, part);
    for (const rest of left.filter((one) => one.of === cut.of)) parts.set(rest.part, from);
    if (cut.panel !== null) panels.push({ panel: cut.panel, ...part });
  }
  for (const { of, part, panel } of left) {
    const rest = parts.get(part) ?? parts.get(of);
    if (panel !== null && rest) panels.push({ panel, ...rest });
  }
  return panels;
}

const rounded = (value: number) => Math.round(value * 1e4) / 1e4;
const sorted = (panels: readonly { panel: number; length: number; width: number }[]) =>
  panels.map(({ panel, length, width }) => `${panel}: ${rounded(length)} x ${rounded(width)}`).sort();

describe("the cutting order of sheets", () => {
  it("two strips of two, worked out by hand", () => {
    // A sheet of 1000 × 500 with a trim of 10: two rips at 200, then cross-cuts, two at 400 and two at 300.
    const problem = read({
      kerf: 4,
      trim: 10,
      stages: 2,
      stock: [{ length: 1000, width: 500, price: 1 }],
      panels: [
        { length: 400, width: 200, qty: 2, grain: true },
        { length: 300, width: 200, qty: 2, grain: true },
      ],
    });
    const placed = (panel: number, x: number, y: number, length: number) => ({
      panel,
      x,
      y,
      length,
      width: 200,
      rotated: false,
    });
    const sheet: CutSheet = {
      stock: 0,
      offcuts: [],
      placements: [
        placed(0, 10, 10, 400),
        placed(1, 414, 10, 300),
        placed(0, 10, 214, 400),
        placed(1, 414, 214, 300),
      ],
    };
    const { cuts, left, settings } = sheetCuts(problem, sheet);
    expect(cuts.map(({ kind, setting, of, part, panel }) => [kind, setting, of, part, panel])).toEqual([
      ["trim", 10, 0, 0, null],
      ["trim", 10, 0, 0, null],
      ["rip", 200, 0, 1, null],
      ["rip", 200, 0, 2, null],
      ["cross", 400, 1, 4, 0],
      ["cross", 400, 2, 7, 0],
      ["cross", 300, 1, 5, 1],
      ["cross", 300, 2, 8, 1],
    ]);
    // Two trims, one rip setting, two cross-cut settings.
    expect(settings).toBe(5);
    // Three offcuts are what is left of the sheet and of the two strips; none needs a cut of its own.
    expect(left.map(({ of, panel, offcut }) => [of, panel, offcut])).toEqual([
      [0, null, 2],
      [1, null, 0],
      [2, null, 1],
    ]);
    expect(sorted(sawn(problem, sheet))).toEqual([
      "0: 400 x 200",
      "0: 400 x 200",
      "1: 300 x 200",
      "1: 300 x 200",
    ]);
  });

  it("without a trim the last part is what is left", () => {
    const problem = read({
      kerf: 4,
      stock: [{ length: 1000, width: 500, price: 1 }],
      panels: [{ length: 498, width: 248, qty: 4 }],
    });
    const layout = layOutSheets(problem, { seed: 1, now: () => performance.now(), budgetMs: 2000 });
    const order = sheetCuts(problem, at(layout.sheets, 0));
    // One rip and two cross-cuts part four panels; three of their parts need no cut of their own.
    expect([order.cuts.length, order.left.length, order.settings]).toEqual([3, 3, 2]);
  });

  it("gives just the panels of the sheet, whatever the layout", () => {
    const panel = fc.record({
      length: fc.integer({ min: 60, max: 900 }),
      width: fc.integer({ min: 60, max: 480 }),
      qty: fc.integer({ min: 1, max: 4 }),
      grain: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(panel, { minLength: 1, maxLength: 6 }),
        fc.constantFrom(0, 3.2),
        fc.constantFrom(0, 12.5),
        fc.constantFrom(2, 3, null),
        (panels, kerf, trim, stages) => {
          const stock = [{ length: 1220, width: 610, price: 20, grain: "length" as const }];
          const problem = read({ kerf, trim, stages, stock, panels });
          const layout = layOutSheets(problem, { seed: 3, now: () => 0, budgetMs: 1, passes: 2 });
          for (const sheet of layout.sheets) {
            expect(sorted(sawn(problem, sheet))).toEqual(sorted(sheet.placements));
            const { cuts, settings } = sheetCuts(problem, sheet);
            expect(settings).toBeLessThanOrEqual(cuts.length);
          }
        },
      ),
      { numRuns: lawRuns(25) },
    );
  });
});

describe("cuts of bars", () => {
  const ends = (first: number, second: number, turns: ("end" | "over" | "roll")[] = ["roll"]) => ({
    plane: "x",
    depth: 40,
    angles: [first, second] as [number, number],
    turns,
  });
  const cutsOf = (input: BarProblemInput, bars: Parameters<typeof barCuts>[1]["bars"]) =>
    barCuts(readBarProblem(input), { bars } as BarLayout).cuts;

  it("four pieces with 45/45 ends on an untrimmed bar are five cuts: its square end is mitred first", () => {
    const problem = {
      kerf: 2,
      share: true,
      stock: [{ length: 4000 }],
      pieces: [{ length: 800, qty: 4, ends: ends(45, -45) }],
    };
    const bar = {
      stock: 0,
      times: 1,
      pieces: [0, 0, 0, 0],
      turns: [null, "roll", null, "roll"] as const,
      remainder: 900,
    };
    expect(cutsOf(problem, [bar])).toBe(5);
    // Tip to tip every end is cut by itself: two for each piece.
    expect(cutsOf({ ...problem, share: false }, [{ ...bar, turns: [null, null, null, null] }])).toBe(8);
  });

  it("nine pieces at 45/30 on three bars are twelve", () => {
    // Facing ends are of one angle, so that each shares its cut.
    const problem = {
      kerf: 2,
      share: true,
      stock: [{ length: 3000 }],
      pieces: [{ length: 900, qty: 9, ends: ends(45, -30, ["end", "over", "roll"]) }],
    };
    const bar = {
      stock: 0,
      times: 3,
      pieces: [0, 0, 0],
      turns: [null, "over", null] as const,
      remainder: 250,
    };
    const facing = { ...bar, turns: [null, "end", null] as const };
    expect(cutsOf(problem, [facing])).toBe(12);
  });

  it("square ends: one for each piece, one for a trim, none at the end of a bar that is used up", () => {
    const problem = { kerf: 0, stock: [{ length: 3000 }], pieces: [{ length: 1000, qty: 3 }] };
    const bar = (remainder: number) => ({ stock: 0, times: 1, pieces: [0, 0, 0], remainder });
    expect(cutsOf(problem, [bar(0)])).toBe(2);
    expect(cutsOf(problem, [bar(10)])).toBe(3);
    expect(cutsOf({ ...problem, trim: { start: 5, end: 0 } }, [bar(0)])).toBe(3);
    expect(cutsOf({ ...problem, trim: { start: 0, end: 5 } }, [bar(0)])).toBe(3);
    expect(cutsOf({ ...problem, grip: 80 }, [bar(0)])).toBe(3);
    // Ends of which nothing is known but that they lean: the first end, and two cuts at each joint.
    const leaning = [{ length: 1000, qty: 3, leans: [true, false] as [boolean, boolean] }];
    expect(cutsOf({ ...problem, pieces: leaning }, [bar(0)])).toBe(1 + 2 + 2);
    expect(cutsOf({ ...problem, pieces: [{ length: 1000, qty: 3, leans: [false, true] }] }, [bar(0)])).toBe(
      2 + 2 + 1,
    );
  });
});

describe("the cutting order of bars", () => {
  it("sets the stop once for each length and cuts every piece", async () => {
    const solver = await loadLinearSolver();
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ length: fc.integer({ min: 100, max: 2900 }), qty: fc.integer({ min: 1, max: 6 }) }),
          {
            minLength: 1,
            maxLength: 6,
          },
        ),
        fc.constantFrom(0, 5),
        (pieces, trim) => {
          const problem = v.parse(BarProblemSchema, {
            kerf: 2.5,
            trim,
            stock: [{ length: 3000, price: 10 }],
            pieces,
          });
          const layout = layOutBars(problem, { solver, now: () => 0, budgetMs: 200 });
          const { steps, cuts } = barCuts(problem, layout);
          const settings = steps.map(({ setting }) => setting);
          expect(settings).toEqual([...new Set(settings)].sort((a, b) => b - a));
          const made = problem.pieces.map((_, i) =>
            steps
              .flatMap(({ from }) => from)
              .filter(({ piece }) => piece === i)
              .reduce((sum, { each, bars }) => sum + each * bars, 0),
          );
          const unplaced = (i: number) => layout.unplaced.find(({ piece }) => piece === i)?.qty ?? 0;
          expect(made).toEqual(problem.pieces.map(({ qty }, i) => qty - unplaced(i)));
          const placed = made.reduce((sum, count) => sum + count, 0);
          expect(cuts).toBeLessThanOrEqual(placed + (trim > 0 ? layout.count : 0));
          expect(cuts).toBeGreaterThanOrEqual(placed - layout.count);
        },
      ),
      { numRuns: lawRuns(30) },
    );
  });
});
