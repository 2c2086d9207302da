/** Sums of lists: how often a number counts, in which unit, and that there is one costing. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newJob, plainColumn } from "../job";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK, STOCK_DATA, smallFrame } from "../pipeline.fixture";
import { dealtOut } from "../quantities";
import { stockroomOf } from "../stockroom";
import { LIST_COLUMNS, LIST_STARTS, ownList, startList } from ".";
import { groundOf, made, rowsOf, setup } from "./list.fixture";

/** An inch job: three of 41 1/4, four of 32, and one of 120 in lath; one row a group. */
const inches = newJob({
  info: { code: "I", title: "Inches", unit: "in", format: { kind: "fraction", denominator: 16 } },
  points: {
    A: ["0", "0", "0"],
    B: ["41 1/4", "0", "0"],
    C: ["0", "10", "0"],
    D: ["32", "10", "0"],
    E: ["0", "20", "0"],
    F: ["120", "20", "0"],
  },
  members: {
    ...Object.fromEntries(
      [1, 2, 3].map((n) => [`a${n}`, { name: "Post", from: "A", to: "B", section: "tube" }]),
    ),
    ...Object.fromEntries(
      [1, 2, 3, 4].map((n) => [
        `b${n}`,
        { name: "Rail", from: "C", to: "D", section: "tube", finish: n } as never,
      ]),
    ),
    c: { name: "Lath", from: "E", to: "F", section: "lath" },
  },
});

describe("lengths added up", () => {
  const list = setup({
    kinds: ["member"],
    columns: [plainColumn("stock"), plainColumn("count"), { ...plainColumn("length"), adds: true }],
    groupBy: "stock",
    showRows: false,
    totals: true,
  });

  it("count once for each piece, in the unit and the format of the column", () => {
    const table = ownList(list, groundOf(inches));
    // 3 · 41 1/4 + 4 · 32 = 251 3/4, and 120.
    expect(rowsOf(table).map(({ cells }) => cells["length"]?.text)).toEqual(["251 3/4", "120"]);
    expect(table.foot[0]?.cells["length"]).toMatchObject({ text: "371 3/4", value: 9442.45 });
  });

  it("follow the unit that is chosen for the column", () => {
    const inMetres = {
      ...plainColumn("length"),
      adds: true,
      unit: "m" as const,
      format: { kind: "decimal" as const, places: 3, trailingZeros: true },
    };
    const table = ownList({ ...list, columns: [plainColumn("stock"), inMetres] }, groundOf(inches));
    expect(table.foot[0]?.cells["length"]?.text).toBe("≈9.442");
  });

  it("stand in the words of a group with their unit", () => {
    const shown = {
      ...list,
      showRows: true,
      columns: list.columns.filter(({ column }) => column !== "stock"),
    };
    const table = ownList(shown, groundOf(inches));
    expect(table.groups[0]?.summary).toBe("7 pieces · cut length 251 3/4 in");
  });

  it("angles, prices and levels never add up, whatever is ticked", () => {
    const never = LIST_COLUMNS.filter(({ sumOf }) => sumOf === null).map(({ id }) => id);
    expect(never).toEqual(expect.arrayContaining(["end1", "mitre2", "unitPrice", "level", "mark"]));
    const ticked = { ...list, columns: never.map((id) => ({ ...plainColumn(id), adds: true })) };
    expect(ownList(ticked, groundOf(inches)).foot[0]?.cells).toEqual({});
  });

  it("mass each and the quantity each count once for each piece too", () => {
    const each = setup({
      kinds: ["member"],
      columns: ["massEach", "mass", "each", "net"].map((id) => ({ ...plainColumn(id), adds: true })),
      totals: true,
      materials: ["S235"],
    });
    const [foot] = ownList(each, groundOf(smallFrame())).foot;
    expect(foot?.cells["massEach"]?.text).toBe(foot?.cells["mass"]?.text);
    expect(foot?.cells["each"]?.value).toBeWithinMm(2.86, 1e-9);
  });
});

describe("one costing", () => {
  const costed = (job = smallFrame(), more = {}) => {
    const start = LIST_STARTS.find(({ name }) => name === "Costed cut list");
    if (!start) throw new Error("there is one");
    return ownList({ ...startList(start, "c", "Costed", 0), ...more }, groundOf(job));
  };
  const cents = (table: ReturnType<typeof costed>, label: string) =>
    Math.round((table.foot.find((line) => line.label === label)?.cells["cost"]?.value ?? Number.NaN) * 100);

  it("a costed list comes to what is bought: boxes whole, edging and waste at its foot", () => {
    const { quantities } = resultsOf(smallFrame());
    const table = costed();
    expect(table.foot.map(({ label }) => label)).toEqual(["Sum", "Edging", "Waste, 10 %", "Total"]);
    expect(cents(table, "Edging")).toBe(168);
    expect(cents(table, "Total")).toBe(quantities.byRule.cents);
    expect(table.notes.filter((note) => note.includes("leaves out"))).toEqual([]);
  });

  it("the same whatever the design and its rounding", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 300, max: 1200 }),
        fc.constantFrom("piece", "line", "end"),
        fc.integer({ min: 0, max: 30 }),
        (width, rounding, wastePercent) => {
          const job = smallFrame({
            info: { code: "T", title: "T", rounding: rounding as never, wastePercent },
            keySizes: { width: { formula: String(width) } },
          });
          expect(cents(costed(job), "Total")).toBe(resultsOf(job).quantities.byRule.cents);
        },
      ),
      { numRuns: lawRuns(40) },
    );
  });

  it("says what a list leaves out", () => {
    const { quantities } = resultsOf(smallFrame());
    const members = costed(smallFrame(), { kinds: ["member"] });
    const left = quantities.byRule.cents - cents(members, "Total");
    expect(members.notes.find((note) => note.includes("leaves out"))).toBe(
      `This list leaves out ${(left / 100).toFixed(2)} EUR of the 39.83 EUR that the job costs: 4 rows not in it.`,
    );
    const bare = costed(smallFrame(), { wasteAtFoot: false });
    expect(bare.notes.find((note) => note.includes("leaves out"))).toMatch(/: edging, waste\.$/);
  });

  it("deals a sum out in whole hundredths that add up to it", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1_000_000 }),
        fc.array(fc.double({ min: 0.001, max: 1000, noNaN: true }), { minLength: 1, maxLength: 30 }),
        (sum, weights) => {
          const parts = dealtOut(sum, weights);
          expect(parts.reduce((a, b) => a + b, 0)).toBe(sum);
          const whole = weights.reduce((a, b) => a + b, 0);
          parts.forEach((part, i) => {
            expect(Math.abs(part - (sum * (weights[i] ?? 0)) / whole)).toBeLessThan(1 + 1e-6);
          });
        },
      ),
    );
  });
});

describe("a material that was typed over", () => {
  const frame = made(smallFrame(), {
    kind: "changeMembers",
    ids: ["front", "back"],
    set: { material: "304" },
  });
  const lineOf = (stockroom = STOCK) =>
    resultsOf(frame, stockroom).quantities.lines.find(({ material }) => material === "304");

  it("takes neither price nor mass of the stock's own material", () => {
    expect(lineOf()).toMatchObject({ unitPrice: null, cost: null, massKg: null });
    expect(resultsOf(frame).quantities.byRule.missing).toBe(1);
    const [task] = resultsOf(frame).tasks.filter(({ material }) => material === "304");
    expect(task?.problem.stock.map(({ price }) => price)).toEqual([null]);
  });

  it("is priced by the stock of that material, or weighed by a density that is named", () => {
    const [tube, lath] = STOCK_DATA.sections ?? [];
    if (!tube || !lath) throw new Error("two");
    const stainless = {
      ...tube,
      id: "tube304",
      name: "Tube 304",
      material: "304",
      densityKgM3: 7900,
      stock: [{ length: 6000, price: 96, count: null }],
    };
    const priced = lineOf(stockroomOf({ ...STOCK_DATA, sections: [tube, lath, stainless] }));
    // Two rails of 600: 1.2 m of a bar of 6 m for 96.
    expect(priced).toMatchObject({ unitPrice: 16, netCost: 1920, massBy: "mass of Tube 304" });
    const flat = {
      ...stainless,
      id: "flat304",
      name: "Flat 304",
      shape: { kind: "flat" as const, size: [40, 5] as [number, number] },
    };
    const weighed = lineOf(stockroomOf({ ...STOCK_DATA, sections: [tube, lath, flat] }));
    expect(weighed).toMatchObject({ unitPrice: null, massBy: "density 7900 kg/m³ of Flat 304" });
    // 421 mm² (EN 10219-2, table of square hollow sections 40 × 40 × 3) over the centre lines of two rails of 560.
    expect(weighed?.massKg).toBeWithinMm(421e-6 * 7900 * 1.12, 0.01);
  });
});
