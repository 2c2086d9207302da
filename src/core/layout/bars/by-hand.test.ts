/** Bars changed by hand: whatever is moved, set aside, locked or turned, no piece is lost and every layout stands its check. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import {
  type BarLayout,
  barRefusalWords,
  bringPieceBack,
  movePiece,
  readBarProblem,
  setPieceAside,
  setPieceLock,
  turnPiece,
  verifyBars,
} from ".";
import { remainderOf } from "./result";

const problem = readBarProblem({
  kerf: 2,
  trim: 5,
  stock: [
    { length: 2000, price: 10 },
    { length: 1000, price: 6, count: 3 },
  ],
  pieces: [
    { length: 600, qty: 6 },
    { length: 300, qty: 9 },
  ],
});
/** A pattern of three bars alike, and one of another length. */
const layout: BarLayout = (() => {
  const bar = (stock: number, times: number, pieces: readonly number[]) => ({
    stock,
    times,
    pieces,
    remainder: remainderOf(problem, { stock, pieces }),
  });
  const bars = [bar(0, 3, [0, 0, 1, 1]), bar(1, 1, [1, 1, 1])];
  return { bars, cost: 36, count: 4, lowerBound: 30, lowerBoundOf: "cost", proven: false, unplaced: [] };
})();
const must = (result: ReturnType<typeof movePiece>): BarLayout => {
  if (!result.ok) throw new Error(result.problem.kind);
  return result.value;
};
const told = ({ bars, unplaced }: BarLayout) => ({
  bars: bars.map(({ stock, times, pieces }) => `${times} × ${stock}: ${pieces.join(" ")}`),
  waiting: unplaced.map(({ piece, qty }) => `${qty} × ${piece}`),
});
const numberOf = (one: BarLayout, piece: number) =>
  one.bars.reduce((sum, { times, pieces }) => sum + times * pieces.filter((p) => p === piece).length, 0) +
  one.unplaced.reduce((sum, waiting) => sum + (waiting.piece === piece ? waiting.qty : 0), 0);

describe("one bar of a pattern", () => {
  it("is taken out of it when its piece is moved: the others stay as they are", () => {
    expect(verifyBars(problem, layout)).toBeNull();
    const moved = must(movePiece(problem, layout, { bar: 0, place: 2 }, { bar: 2, stock: 1, place: 0 }));
    expect([...told(moved).bars].sort()).toEqual([
      "1 × 0: 0 0 1",
      "1 × 1: 1",
      "1 × 1: 1 1 1",
      "2 × 0: 0 0 1 1",
    ]);
    expect(verifyBars(problem, moved)).toBeNull();
    // Put on another bar of the same pattern: one gives it, one takes it, one stays.
    const among = must(movePiece(problem, layout, { bar: 0, place: 3 }, { bar: 0, place: 0 }));
    expect(told(among).bars).toEqual(expect.arrayContaining(["2 × 0: 0 0 1 1", "1 × 0: 1 0 0 1"]));
  });

  it("is locked, set aside and brought back alone", () => {
    const locked = must(setPieceLock(problem, layout, { bar: 0, place: 0 }, true));
    expect(locked.bars.filter((bar) => bar.locked?.length)).toMatchObject([{ times: 1, locked: [0] }]);
    expect(locked.bars.reduce((sum, { times }) => sum + times, 0)).toBe(4);
    const aside = must(setPieceAside(problem, layout, { bar: 0, place: 0 }));
    expect(told(aside)).toMatchObject({ waiting: ["1 × 0"] });
    expect(told(aside).bars).toEqual(expect.arrayContaining(["2 × 0: 0 0 1 1", "1 × 0: 0 1 1"]));
    const again = must(
      setPieceAside(problem, aside, { bar: aside.bars.findIndex(({ times }) => times === 2), place: 1 }),
    );
    expect(told(again).waiting).toEqual(["2 × 0"]);
    const back = must(bringPieceBack(problem, again, 0, { bar: again.bars.length, stock: 1, place: 0 }));
    expect(told(back).waiting).toEqual(["1 × 0"]);
    expect(told(back).bars).toContain("1 × 1: 0");
    expect(back).toMatchObject({ count: 5, cost: 42, proven: false });
  });

  it("what is not there, has no room or no stock is refused with the reason", () => {
    const why = (result: ReturnType<typeof movePiece>) => (result.ok ? null : result.problem);
    const gone = { kind: "gone" };
    for (const from of [
      { bar: 9, place: 0 },
      { bar: 0, place: 9 },
    ]) {
      expect(why(movePiece(problem, layout, from, { bar: 1, place: 0 }))).toEqual(gone);
      expect(why(setPieceAside(problem, layout, from))).toEqual(gone);
      expect(why(setPieceLock(problem, layout, from, true))).toEqual(gone);
      expect(why(turnPiece(problem, layout, from))).toEqual(gone);
    }
    // 900 of 990 are taken, 600 and a cut come to 512 + … : 1500 + 3 cuts of 2 are 516 more than 990.
    expect(why(movePiece(problem, layout, { bar: 0, place: 0 }, { bar: 1, place: 0 }))).toEqual({
      kind: "noRoom",
      over: 516,
    });
    expect(
      barRefusalWords(
        { kind: "noRoom", over: 25.4 },
        { unit: "in", format: { kind: "fraction", denominator: 16 } },
      ),
    ).toBe("There is no room: the bar would be 1 in too short, cuts included.");
    expect(why(bringPieceBack(problem, layout, 0, { bar: 0, place: 0 }))).toEqual({ kind: "notWaiting" });
    expect(why(turnPiece(problem, layout, { bar: 0, place: 0 }))).toEqual({ kind: "noOtherWay" });
    const limited = { ...problem, stock: problem.stock.map((one) => ({ ...one, count: 1 })) };
    const aside = must(setPieceAside(problem, layout, { bar: 1, place: 0 }));
    expect(why(bringPieceBack(limited, aside, 1, { bar: 99, stock: 1, place: 0 }))).toEqual({
      kind: "noBar",
    });
    expect(why(bringPieceBack(problem, aside, 1, { bar: 99, stock: 7, place: 0 }))).toEqual({
      kind: "noBar",
    });
  });
});

it("any order of changes loses no piece, and every layout stands its check", () => {
  const spot = fc.record({
    bar: fc.nat(5),
    place: fc.nat(4),
    toBar: fc.nat(6),
    toPlace: fc.nat(4),
    stock: fc.nat(1),
  });
  const step = fc.tuple(fc.constantFrom("move", "aside", "back", "lock"), spot);
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      let now = layout;
      for (const [what, { bar, place, toBar, toPlace, stock }] of steps) {
        const to = { bar: toBar, stock, place: toPlace };
        const next =
          what === "move"
            ? movePiece(problem, now, { bar, place }, to)
            : what === "aside"
              ? setPieceAside(problem, now, { bar, place })
              : what === "back"
                ? bringPieceBack(problem, now, at([0, 1], place % 2), to)
                : setPieceLock(problem, now, { bar, place }, toPlace > 1);
        if (!next.ok) continue;
        now = next.value;
        expect([numberOf(now, 0), numberOf(now, 1)]).toEqual([6, 9]);
        expect(verifyBars(problem, now)).toBeNull();
      }
    }),
    { numRuns: lawRuns(200) },
  );
});
