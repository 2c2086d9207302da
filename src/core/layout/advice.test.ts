/** Pieces without a place: reasons are codes, their words and the advice are made of them, in the unit of the job. */
import { describe, expect, it } from "vitest";
import type { LengthStyle } from "../measure";
import { piecesWithoutPlace, type SavedLayout, sawReasonWords } from ".";
import { ASIDE, readReason, reasonWords, type UnplacedReason } from "./stock";

const MM: LengthStyle = { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } };
const INCHES: LengthStyle = { unit: "in", format: { kind: "fraction", denominator: 16 } };
const kept = { taskId: "t", fingerprint: "", revision: 1, pieces: [{ mark: "A", name: "A" }] };
const outcome = { cost: null, count: 0, lowerBound: 0, lowerBoundOf: "count", proven: false } as const;
const bar = { length: 6000, price: null, count: null, rack: null };
const sheet = { length: 2500, width: 1250, price: null, count: null, rack: null, grain: null };

const bars = (why: UnplacedReason, stock = [bar]): SavedLayout =>
  ({
    ...kept,
    kind: "bars",
    problem: {
      kerf: 3,
      trim: { start: 10, end: 5 },
      grip: 40,
      stock,
      pieces: [{ length: 5960, qty: 1 }],
      fixed: [],
    },
    layout: { ...outcome, bars: [], unplaced: [{ piece: 0, qty: 2, why }] },
  }) as unknown as SavedLayout;
const sheets = (why: UnplacedReason, more: object = {}): SavedLayout =>
  ({
    ...kept,
    kind: "sheets",
    problem: {
      kerf: 3,
      trim: 10,
      stages: null,
      stock: [sheet],
      panels: [{ length: 2600, width: 400, qty: 1 }],
      ...more,
    },
    layout: { ...outcome, utilisation: 0, sheets: [], unplaced: [{ panel: 0, qty: 1, why }] },
  }) as unknown as SavedLayout;
const advice = (one: SavedLayout) => piecesWithoutPlace(one)[0]?.advice;

const tooLarge = { kind: "tooLarge", size: [2600, 400], largest: [2480, 1230], trimmed: true } as const;
const againstGrain = { kind: "againstGrain", size: [2600, 400] } as const;

describe("advice", () => {
  it("for bars: a longer bar that is there, what to buy, or more of what is limited", () => {
    const tooLong = { kind: "tooLong", length: 5960, longest: 5942, trimmed: true } as const;
    // 5960 with 10 at the start and, at the end, what the saw holds and its kerf: 6013.
    expect(advice(bars(tooLong))).toBe("Splice it from two, or buy a bar of 6013 mm or longer");
    expect(advice(bars(tooLong, [bar, { ...bar, length: 7000 }, { ...bar, length: 6013 }]))).toBe(
      "Splice it from two, or have more of 6013 mm",
    );
    expect(advice(bars({ kind: "noStock" }, []))).toBe("Give its section a stock length in the stockroom");
    expect(advice(bars({ kind: "usedUp" }))).toBe("Give its section a stock length that can be bought");
    const limited = { ...bar, count: 2 as number | null };
    const offcut = { ...limited, length: 900, rack: "r" as string | null };
    expect(advice(bars({ kind: "usedUp" }, [limited as typeof bar, offcut as typeof bar]))).toBe(
      "Increase the stock of 6000 mm, or clear the number (no limit)",
    );
    expect(advice(bars(ASIDE))).toBe("Drag it back, or fill again");
  });

  it.each<[UnplacedReason, RegExp]>([
    [againstGrain, /^Place it across the grain by hand, .* at least 2620 × 420 mm$/],
    [tooLarge, /^Join it from two, or buy a sheet of at least 2620 × 420 mm$/],
    [{ kind: "blank", why: againstGrain }, /across the grain/],
    [{ kind: "blank", why: tooLarge }, /^Do not keep these panels together$/],
    [{ kind: "blankUneven" }, /make them one size across/],
    [{ kind: "usedUpOrStages" }, /^Increase the number of sheets/],
  ])("for panels: %j", (why, words) => {
    expect(advice(sheets(why))).toMatch(words);
  });

  it("names the stages of cuts where they are limited, and missing stock before all else", () => {
    expect(advice(sheets({ kind: "usedUpOrStages" }, { stages: 2 }))).toMatch(/^Allow more stages/);
    expect(advice(sheets(tooLarge, { stock: [] }))).toMatch(/^Give its board a sheet size/);
  });
});

describe("words", () => {
  it("are in the unit of the job", () => {
    expect(reasonWords(tooLarge, MM)).toBe(
      "larger than every sheet: 2600 × 400 mm, the largest gives 2480 × 1230 mm after its trims",
    );
    const inches = { ...tooLarge, size: [2540, 406.4], largest: [2438.4, 1219.2], trimmed: false } as const;
    expect(reasonWords({ ...inches, size: [2540, 406.4], largest: [2438.4, 1219.2] }, INCHES)).toBe(
      "larger than every sheet: 100 × 16 in, the largest gives 96 × 48 in",
    );
    expect(reasonWords({ kind: "blank", why: againstGrain }, MM)).toBe(
      "kept together as one blank: 2600 × 400 mm only fits turned against the grain",
    );
    expect(sawReasonWords({ kind: "tooHigh", height: 50.8 }, INCHES)).toBe("2 in is too high for every saw");
    expect(sawReasonWords({ kind: "tooLong", length: 609.6 }, INCHES)).toBe("24 in is past every stop");
    expect(sawReasonWords({ kind: "tooSteep", degrees: 52.5 }, INCHES)).toBe("52.5° is past every saw");
  });

  it("of layouts that were kept before reasons were codes are still told", () => {
    expect(readReason("set aside by hand")).toEqual(ASIDE);
    expect(readReason("the limited stock is used up")).toEqual({
      kind: "told",
      words: "the limited stock is used up",
    });
    expect(readReason({ ...tooLarge })).toEqual(tooLarge);
    expect(readReason({ kind: "dance" })).toEqual({ kind: "told", words: "it found no place" });
  });
});
