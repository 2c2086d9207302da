import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { LAYOUT_KINDS } from "../kinds";
import { bringBack, movePanel, setAside, setLock } from "./by-hand";
import { cutLines } from "./cut-lines";
import { sheetFaultOf } from "./independent.fixture";
import { layOutSheets, lockedFault } from "./layout";
import { readSheetProblem, type SheetLayout, type SheetProblem, type SheetProblemInput } from "./problem";
import { firstSpot, nextSpot, snapped } from "./spots";
import { verifySheets } from "./verify";

function solved(problem: SheetProblem, budgetMs = 400): SheetLayout {
  const layout = layOutSheets(problem, { seed: 1, now: () => performance.now(), budgetMs });
  expect(verifySheets(problem, layout)).toBeNull();
  expect(sheetFaultOf(problem, layout)).toBeNull();
  return layout;
}
const run = (input: SheetProblemInput, budgetMs?: number) => solved(readSheetProblem(input), budgetMs);
const SHEET = { length: 1000, width: 600, price: 10, grain: "length" } as const;

const list = fc.array(
  fc.record({
    length: fc.integer({ min: 60, max: 700 }),
    width: fc.integer({ min: 40, max: 400 }),
    qty: fc.integer({ min: 1, max: 4 }),
    grain: fc.boolean(),
  }),
  { minLength: 1, maxLength: 5 },
);

describe("locked panels and the trim", () => {
  const problem = (x: number, y: number, length = 300) =>
    readSheetProblem({
      kerf: 3,
      trim: 10,
      stages: 3,
      stock: [SHEET],
      panels: [{ length, width: 200, qty: 2 }],
      fixed: [{ stock: 0, placements: [{ panel: 0, x, y, rotated: false, against: false }] }],
    });

  it("lie from the corner of the untrimmed sheet: the trim counts once", () => {
    const layout = solved(problem(10, 10));
    const locked = layout.sheets[0]?.placements.find((one) => one.locked);
    expect([locked?.x, locked?.y]).toEqual([10, 10]);
    // The far corner: 1000 − 10 − 300 and 600 − 10 − 200.
    expect(lockedFault(problem(690, 390))).toBeNull();
    expect(solved(problem(690, 390)).sheets).toHaveLength(1);
  });

  it.each([
    [9, 10],
    [10, 9],
    [691, 390],
    [690, 391],
  ])("never in the trim: at %d, %d", (x, y) => {
    expect(lockedFault(problem(x, y))).not.toBeNull();
  });

  it("a locked panel as long as the trimmed sheet fills it", () => {
    expect(lockedFault(problem(10, 10, 980))).toBeNull();
    expect(lockedFault(problem(10, 10, 981))).not.toBeNull();
  });
});

describe("laws", () => {
  it("random jobs in any stages stand the independent check; the bound never exceeds the answer", () => {
    fc.assert(
      fc.property(list, fc.constantFrom(2, 3, null), (panels, stages) => {
        const layout = run({ kerf: 3, trim: 8, stages, stock: [SHEET], panels }, 150);
        if (layout.unplaced.length === 0) expect(layout.lowerBound).toBeLessThanOrEqual(layout.cost ?? 0);
      }),
      { numRuns: lawRuns(15) },
    );
  });

  it("the bound of fewer panels is no higher: what is proven stays possible", () => {
    fc.assert(
      fc.property(list, (panels) => {
        const all = run({ kerf: 3, stock: [SHEET], panels }, 150);
        const fewer = run({ kerf: 3, stock: [SHEET], panels: panels.slice(1) }, 150);
        if (all.unplaced.length === 0) expect(fewer.lowerBound).toBeLessThanOrEqual(all.cost ?? 0);
      }),
      { numRuns: lawRuns(15) },
    );
  });
});

describe("kept together", () => {
  const inch = 25.4;
  it("two 12 in sides with a 1/8 saw are one blank of 24 1/8 (common practice), a kerf between them", () => {
    const layout = run({
      kerf: inch / 8,
      stages: 3,
      stock: [{ length: 96 * inch, width: 48 * inch, price: 60, grain: "length" }],
      panels: [
        { length: 30 * inch, width: 12 * inch, qty: 2, grain: true },
        { length: 20 * inch, width: 11 * inch, qty: 3 },
      ],
      together: [{ panels: [0, 0], along: "width", qty: 1 }],
    });
    const sides = layout.sheets[0]?.placements.filter((one) => one.panel === 0) ?? [];
    const [low, high] = sides.map((one) => one.y).sort((a, b) => a - b);
    expect(sides).toHaveLength(2);
    expect(sides[0]?.x).toBe(sides[1]?.x);
    expect((high ?? 0) + 12 * inch - (low ?? 0)).toBeWithinMm(24.125 * inch, 1e-6);
  });

  it("fronts follow one another along the grain in their order", () => {
    const layout = run({
      kerf: 4,
      stock: [SHEET],
      panels: [
        { length: 120, width: 400, qty: 1, grain: true },
        { length: 160, width: 400, qty: 1, grain: true },
        { length: 200, width: 400, qty: 1, grain: true },
      ],
      together: [{ panels: [2, 0, 1], along: "length", qty: 1 }],
    });
    const order = [...(layout.sheets[0]?.placements ?? [])].sort((a, b) => a.x - b.x);
    expect(order.map((one) => one.panel)).toEqual([2, 0, 1]);
    expect(order[1]?.x).toBeWithinMm((order[0]?.x ?? 0) + 204, 1e-6);
  });

  it("panels that differ across cannot be one blank, and a blank that fits no sheet says why", () => {
    const differ = run({
      kerf: 4,
      stock: [SHEET],
      panels: [
        { length: 300, width: 200, qty: 1 },
        { length: 310, width: 200, qty: 1 },
      ],
      together: [{ panels: [0, 1], along: "width", qty: 1 }],
    });
    expect(differ.unplaced.map((one) => one.why)).toEqual([{ kind: "blankUneven" }, { kind: "blankUneven" }]);
    const large = run({
      kerf: 4,
      stock: [SHEET],
      panels: [{ length: 700, width: 400, qty: 2, grain: true }],
      together: [{ panels: [0, 0], along: "width", qty: 1 }],
    });
    expect(large.unplaced[0]).toMatchObject({ panel: 0, qty: 2 });
    expect(large.unplaced[0]?.why).toMatchObject({ kind: "blank", why: { kind: "tooLarge" } });
  });
});

describe("locked panels", () => {
  it("stay where they are while the rest is filled round them, whatever they are", () => {
    fc.assert(
      fc.property(list, fc.integer({ min: 0, max: 3 }), (panels, pick) => {
        const problem = readSheetProblem({ kerf: 3, trim: 8, stock: [SHEET], panels });
        const layout = solved(problem, 120);
        const sheet = layout.sheets.findIndex((one) => one.placements.length > pick);
        if (sheet < 0) return;
        const locked = setLock(layout, { sheet, index: pick }, true);
        const again = LAYOUT_KINDS.sheets.withOwnLocks(problem, locked);
        expect(lockedFault(again)).toBeNull();
        const filled = solved(again, 120);
        const before = layout.sheets[sheet]?.placements[pick];
        const after = filled.sheets.flatMap((one) => one.placements).find((one) => one.locked);
        expect(after).toMatchObject({ panel: before?.panel, x: before?.x, y: before?.y });
      }),
      { numRuns: lawRuns(12) },
    );
  });

  it("that cannot be parted are told, not laid out", () => {
    // Four round a hole, none of which a cut can pass: a pinwheel.
    const pinwheel = readSheetProblem({
      kerf: 0,
      stock: [{ length: 300, width: 300, price: 1 }],
      panels: [{ length: 200, width: 100, qty: 4 }],
      fixed: [
        {
          stock: 0,
          placements: [
            { panel: 0, x: 0, y: 0, rotated: false },
            { panel: 0, x: 200, y: 0, rotated: true },
            { panel: 0, x: 100, y: 200, rotated: false },
            { panel: 0, x: 0, y: 100, rotated: true },
          ],
        },
      ],
    });
    expect(lockedFault(pinwheel)).toContain("cannot be cut by cuts that run right across");
  });
});

describe("by hand", () => {
  const problem = readSheetProblem({
    kerf: 4,
    trim: 10,
    stock: [SHEET],
    panels: [
      { length: 400, width: 200, qty: 2, grain: true },
      { length: 300, width: 150, qty: 1 },
    ],
  });
  const layout = solved(problem);
  const at = (panel: number) => {
    const index = layout.sheets[0]?.placements.findIndex((one) => one.panel === panel) ?? -1;
    return { sheet: 0, index };
  };

  it("refuses what collides, lies off the sheet or against the grain, each with its reason", () => {
    const spot = { sheet: 0, x: 10, y: 10, rotated: false };
    const other = layout.sheets[0]?.placements[at(0).index];
    const onto = movePanel(problem, layout, at(1), { ...spot, x: other?.x ?? 0, y: other?.y ?? 0 });
    expect(onto.ok ? "" : onto.problem.kind).toBe("taken");
    const off = movePanel(problem, layout, at(1), { ...spot, x: 900 });
    expect(off.ok ? "" : off.problem.kind).toBe("off");
    const fresh = { sheet: 1, stock: 0, x: 10, y: 10, rotated: true };
    const against = movePanel(problem, layout, at(0), fresh);
    expect(against.ok ? "" : against.problem.kind).toBe("against");
    const knowingly = movePanel(problem, layout, at(0), { ...fresh, against: true });
    if (!knowingly.ok) throw new Error(knowingly.problem.message);
    expect(knowingly.value.sheets[1]?.placements[0]).toMatchObject({ against: true, locked: true });
    const held = LAYOUT_KINDS.sheets.withOwnLocks(problem, knowingly.value);
    expect(verifySheets(held, knowingly.value)).toBeNull();
    expect(sheetFaultOf(held, knowingly.value)).toBeNull();
  });

  it("snaps an edge to a kerf from its neighbour or to the trim", () => {
    const sheet = layout.sheets[0];
    if (!sheet) throw new Error("a sheet");
    const own = at(1);
    const wanted = { x: 14, y: 13, length: 300, width: 150 };
    expect(snapped(problem, { ...sheet, placements: [] }, wanted, { except: [], reach: 5 })).toEqual({
      x: 10,
      y: 10,
    });
    const [one] = sheet.placements.filter((_, i) => i !== own.index);
    const beside = { x: (one?.x ?? 0) + (one?.length ?? 0) + 6, y: one?.y ?? 0, length: 300, width: 150 };
    const found = snapped(problem, sheet, beside, { except: [own.index], reach: 5 });
    expect(found.x).toBeWithinMm((one?.x ?? 0) + (one?.length ?? 0) + 4, 1e-6);
  });

  it("keys move a panel to the next place, another sheet or aside and back; sums follow", () => {
    const moved = nextSpot(problem, layout, at(1), "right") ?? nextSpot(problem, layout, at(1), "up");
    expect(moved && verifySheets(problem, moved)).toBeNull();
    const away = firstSpot(problem, layout, at(1), { sheet: 1, stock: 0, rotated: false });
    expect(away).toMatchObject({ count: 2, cost: 20, proven: false });
    const aside = setAside(problem, layout, at(1));
    if (!aside.ok) throw new Error(aside.problem.message);
    expect(aside.value.unplaced).toEqual([{ panel: 1, qty: 1, why: { kind: "aside" } }]);
    expect(verifySheets(problem, aside.value)).toBeNull();
    const back = bringBack(problem, aside.value, 1, { sheet: 1, stock: 0, x: 10, y: 10, rotated: false });
    expect(back.ok && back.value).toMatchObject({ unplaced: [], count: 2 });
  });

  it("tells where the blade runs: between two panels in the middle of their kerf", () => {
    const exact = run({
      kerf: 4,
      stages: 2,
      stock: [{ length: 804, width: 200, price: 1 }],
      panels: [{ length: 400, width: 200, qty: 2 }],
    });
    const plain = readSheetProblem({
      kerf: 4,
      stages: 2,
      stock: [{ length: 804, width: 200, price: 1 }],
      panels: [{ length: 400, width: 200, qty: 2 }],
    });
    expect(exact.sheets[0] && cutLines(plain, exact.sheets[0])).toEqual([
      { stage: 2, from: [402, 0], to: [402, 200] },
    ]);
  });
});
