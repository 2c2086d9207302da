import { describe, expect, it } from "vitest";
import type { SavedLayout } from "../layout";
import { readBarProblem } from "../layout/bars";
import { readSheetProblem } from "../layout/sheets";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { barOrderTable, sheetOrderTable } from ".";
import { rowsOf } from "./list.fixture";

const MM = { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } } as const;
const kept = { taskId: "t", fingerprint: "", revision: 1 };

describe("the cutting order as a table", () => {
  it("of bars: a stop setting, then its marks with their ends and the bars that they come from", () => {
    const { tally } = resultsOf(smallFrame());
    const named = (name: string) => tally.rows.find((row) => row.name === name)?.mark ?? "";
    const bars: Extract<SavedLayout, { kind: "bars" }> = {
      ...kept,
      kind: "bars",
      pieces: ["Rail", "End rail"].map((name) => ({ mark: named(name), name })),
      problem: readBarProblem({
        kerf: 2.5,
        trim: 5,
        stock: [{ length: 2100 }],
        pieces: [
          { length: 600, qty: 4 },
          { length: 400, qty: 4 },
        ],
      }),
      layout: {
        bars: [{ stock: 0, times: 2, pieces: [0, 0, 1, 1], remainder: 80 }],
        cost: null,
        count: 2,
        lowerBound: 2,
        lowerBoundOf: "count",
        proven: true,
        unplaced: [],
      },
    };
    const table = barOrderTable(bars, ({ mark }) => tally.rows.find((row) => row.mark === mark) ?? null, MM);
    expect(rowsOf(table).map(({ cells }) => Object.values(cells).map((cell) => cell.text))).toEqual([
      ["600", named("Rail"), "45 / 45, opposed", "4", "2 from each of the 2 bars of pattern 1"],
      ["400", named("End rail"), "45 / 45, opposed", "4", "2 from each of the 2 bars of pattern 1"],
    ]);
    // On each of two bars a trim, four pieces and the rest parted by the last of those cuts.
    expect(table.notes[0]).toContain("10 cuts at 2 stop settings");
  });

  it("of a sheet: one row a setting, what is left at its size said apart", () => {
    const placed = (x: number, y: number) => ({ panel: 0, x, y, length: 498, width: 248, rotated: false });
    const sheets: Extract<SavedLayout, { kind: "sheets" }> = {
      ...kept,
      kind: "sheets",
      pieces: [{ mark: "S", name: "Shelf" }],
      problem: readSheetProblem({
        kerf: 4,
        stock: [{ length: 1000, width: 500 }],
        panels: [{ length: 498, width: 248, qty: 4 }],
      }),
      layout: {
        sheets: [
          {
            stock: 0,
            offcuts: [],
            placements: [placed(0, 0), placed(502, 0), placed(0, 252), placed(502, 252)],
          },
        ],
        count: 1,
        cost: null,
        lowerBound: 1,
        lowerBoundOf: "count",
        proven: true,
        utilisation: 0.99,
        unplaced: [],
      },
    };
    const table = sheetOrderTable(sheets, 0, MM);
    expect(rowsOf(table).map(({ cells }) => Object.values(cells).map((cell) => cell.text))).toEqual([
      ["1", "rip", "248", "the sheet", "part 1"],
      ["2", "cross-cut × 2", "498", "part 1, part 2", "S × 2"],
    ]);
    expect(table.notes[0]).toBe(
      "3 cuts at 2 settings. Left at its size without a cut: S from part 1, S from part 2.",
    );
  });
});
