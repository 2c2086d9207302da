/** Problems that the fuzz test found, each kept: they are told in words, or laid out in a way that the verifier takes. */
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { loadLinearSolver } from "@/engines/linear-solver";
import { issueWords } from "../job";
import { BarProblemSchema, layOutBars, lockedBarFault, readBarProblem, verifyBars } from "./bars";
import { NestingProblemSchema } from "./nesting";
import { layOutSheets, readSheetProblem, SheetProblemSchema, verifySheets } from "./sheets";

const refusal = (schema: v.GenericSchema, problem: unknown) => {
  const read = v.safeParse(schema, problem);
  return read.success ? "" : issueWords(read.issues);
};
const PIECES = [
  { length: 1200, qty: 4 },
  { length: 350.5, qty: 7 },
];
const now = () => 0;

describe("bars", () => {
  it("two pieces locked at one place are told", () => {
    const fixed = [
      {
        stock: 0,
        pieces: [
          { piece: 0, place: 5 },
          { piece: 0, place: 5 },
        ],
      },
    ];
    const problem = readBarProblem({ kerf: 2.5, stock: [{ length: 6000 }], pieces: PIECES, fixed });
    expect(lockedBarFault(problem)).toMatch(/two of them have one place/);
  });

  it("without prices the bound is the number of bars to buy: what lies in the rack is not bought", async () => {
    const problem = readBarProblem({
      kerf: 2.5,
      trim: 5,
      stock: [
        { length: 6000, price: 21.6, count: null },
        { length: 1240, price: null, count: 2, rack: "R-1" },
      ],
      pieces: PIECES,
    });
    const layout = layOutBars(problem, { solver: await loadLinearSolver(), now, budgetMs: 50 });
    // 7253.5 of pieces: one bar is too short, one and both rack pieces are enough.
    expect(verifyBars(problem, layout)).toBeNull();
    expect([layout.lowerBoundOf, layout.lowerBound, layout.count, layout.proven]).toEqual([
      "count",
      1,
      3,
      true,
    ]);
  });

  it("no bar is told that nothing is cut from, whatever the rack offers for nothing", async () => {
    const rack = { length: 1240, price: null, count: 2 };
    const problem = readBarProblem({
      kerf: 2.5,
      trim: 5,
      stock: [
        { length: 6000, price: 21.6 },
        { ...rack, rack: "R-1" },
        { ...rack, rack: "R-2" },
      ],
      pieces: PIECES,
    });
    const layout = layOutBars(problem, { solver: await loadLinearSolver(), now, budgetMs: 50 });
    expect(verifyBars(problem, layout)).toBeNull();
    expect(layout.bars.every(({ pieces }) => pieces.length > 0)).toBe(true);
  });
});

it("lengths below a thousandth of a millimetre are refused, in every kind of problem", () => {
  const stock = [{ length: 2440, width: 1220, price: 54 }];
  const panels = [{ length: 720, width: 400, qty: 3 }];
  const sheets = { kerf: 3.2, trim: 1e-8, stock, panels };
  expect(refusal(SheetProblemSchema, sheets)).toBe("trim is less than a thousandth of a millimetre");
  expect(refusal(SheetProblemSchema, { ...sheets, trim: 0.001 })).toBe("");
  expect(refusal(SheetProblemSchema, { ...sheets, trim: 0 })).toBe("");
  const bars = { kerf: 1e-7, stock: [{ length: 100 }], pieces: [{ length: 10, qty: 1 }] };
  expect(refusal(BarProblemSchema, bars)).toContain("less than a thousandth");
  const least = readSheetProblem({ ...sheets, trim: 0.001 });
  expect(verifySheets(least, layOutSheets(least, { seed: 1, now, budgetMs: 50, passes: 1 }))).toBeNull();
});

it("an outline without a body is refused", () => {
  const shapes = (width: number) => ({
    gap: 3,
    stock: [{ length: 300, width: 200 }],
    shapes: [
      {
        outline: [
          [0, 0],
          [width, 0],
          [0, 100],
        ],
        qty: 1,
      },
    ],
  });
  expect(refusal(NestingProblemSchema, shapes(1e-7))).toMatch(/thinner than a hundredth/);
  expect(refusal(NestingProblemSchema, shapes(0.02))).toBe("");
});

it("what is missing and what is of the wrong kind is said in words", () => {
  const problem = { kerf: 2, stock: [{ length: 100 }], pieces: [{ length: 10, qty: 1 }] };
  expect(refusal(BarProblemSchema, { ...problem, pieces: [{ length: 10 }] })).toBe("pieces.0.qty is missing");
  expect(refusal(BarProblemSchema, { ...problem, kerf: "thin" })).toBe(
    'kerf must be a number, and is "thin"',
  );
  expect(refusal(BarProblemSchema, { ...problem, stock: 7 })).toBe("stock must be a list, and is 7");
  expect(refusal(BarProblemSchema, [])).toContain("is missing");
});
