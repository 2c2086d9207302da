import { describe, expect, it } from "vitest";
import { asStockroom } from "../job";
import { edited } from "../job/edit.fixture";
import { at } from "../kernel";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import {
  type LayoutTask,
  layoutKind,
  layoutTasks,
  type OutdatedReason,
  outdatedWords,
  piecesWithoutPlace,
  restsToKeep,
  savedFor,
  savedLayout,
  stockOfSaved,
  withLocks,
} from ".";
import { layOutSheets } from "./sheets";

const tally = resultsOf(smallFrame()).tally;
const RACK = {
  owner: "job-1",
  pieces: [
    {
      id: "r1",
      label: "R-1",
      entry: "ply",
      material: null,
      length: 700,
      width: 500,
      place: "",
      note: "",
      from: null,
      holder: null,
    },
  ],
};
const wishes = (change: object = {}) => ({
  layoutSettings: { ply: { ...asStockroom("ply"), ...change } },
  blankGroups: {},
});
function sheetTask(...more: [object?, typeof RACK?]): Extract<LayoutTask, { kind: "sheets" }> {
  const task = layoutTasks(tally, STOCK, wishes(more[0]), more[1]).find((one) => one.kind === "sheets");
  if (task?.kind !== "sheets") throw new Error("a board");
  return task;
}
const laid = (task: ReturnType<typeof sheetTask>) =>
  savedLayout(task, layOutSheets(task.problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 2 }), 1);

const notesOf = (task: LayoutTask) => layoutKind(task).notes(task.problem);

describe("what a layout is cut from", () => {
  it("is told by the layout itself; the id of its task keeps colons of names apart", () => {
    const steel = edited(
      { kind: "changePanels", ids: ["shelfLow"], set: { material: "Ply: A/B" } },
      smallFrame(),
    );
    const task = layoutTasks(resultsOf(steel).tally, STOCK, wishes()).find(
      ({ material }) => material === "Ply: A/B",
    );
    expect(task?.stock).toEqual({ entry: "ply", material: "Ply: A/B" });
    // A layout from before says its stock only in the id of its task.
    expect(stockOfSaved({ taskId: task?.id ?? "" })).toEqual({ entry: "ply", material: "Ply: A/B" });
    expect(stockOfSaved({ taskId: "panel:?Board%3A 2:" })).toEqual({ entry: "?Board: 2", material: null });
  });
});

describe("a saved layout", () => {
  it("is outdated when settings, design or marks change, and says which", () => {
    const saved = laid(sheetTask());
    expect(savedFor(sheetTask(), [saved])?.outdated).toBeNull();
    expect(savedFor(sheetTask({ kerf: 5 }), [saved])?.outdated).toMatchObject({
      kind: "changed",
      settings: ["kerf"],
      design: false,
      marks: false,
    });
    const kerfAndTrim = sheetTask({ kerf: 5, trim: 12 });
    expect(savedFor(kerfAndTrim, [saved])?.outdated).toMatchObject({
      kind: "changed",
      settings: ["kerf", "trim"],
      design: false,
    });
    // Only what is kept together changed: nothing else is blamed.
    const group = { id: "g", name: "G", panels: ["shelfLow", "shelfHigh"], along: "width" as const };
    const [together] = layoutTasks(tally, STOCK, { ...wishes(), blankGroups: { g: group } }).filter(
      ({ kind }) => kind === "sheets",
    );
    expect(together && savedFor(together, [saved])?.outdated).toMatchObject({
      kind: "changed",
      settings: ["together"],
      design: false,
    });
    const task = sheetTask();
    const wider = layoutTasks(
      resultsOf(smallFrame({ keySizes: { width: { formula: "700" } } })).tally,
      STOCK,
      wishes(),
    ).find((one) => one.kind === "sheets");
    expect(wider && savedFor(wider, [saved])?.outdated).toMatchObject({
      kind: "changed",
      settings: [],
      design: true,
    });
    expect(task.id).toBe(saved.taskId);
  });

  it.each<[OutdatedReason, string]>([
    [
      { kind: "changed", settings: ["kerf", "trim"], design: false, marks: false },
      "the kerf, the trim changed",
    ],
    [
      { kind: "changed", settings: ["stock"], design: true, marks: true },
      "stock sizes or prices changed, and the design changed",
    ],
    [{ kind: "changed", settings: [], design: false, marks: true }, "marks changed"],
    [{ kind: "changed", settings: ["style"], design: false, marks: false }, "a setting changed"],
    [{ kind: "cutOtherwise" }, "the way in which it is cut changed"],
    [{ kind: "rackTaken", rack: "r1" }, "a rack piece that it uses is not free any more"],
  ])("says why it is outdated: %j", (reason, words) => {
    expect(outdatedWords(reason)).toBe(words);
  });

  it("uses the rack as the job wishes, and is outdated when another has what it uses", () => {
    const task = sheetTask({ rack: "first" }, RACK);
    expect(task.problem.stock.map((one) => one.rack)).toEqual([null, "r1"]);
    expect(sheetTask({ rack: "none" }, RACK).problem.stock).toHaveLength(1);
    const saved = laid(task);
    expect(saved.kind === "sheets" && saved.layout.sheets.some((sheet) => sheet.stock === 1)).toBe(true);
    const holder = { job: "job-2", code: "HL-9", variant: "", task: "x" };
    const taken = { ...RACK, pieces: [{ ...at(RACK.pieces, 0), holder }] };
    // biome-ignore lint/suspicious/noExplicitAny: the fixture's holder is null by its type
    expect(savedFor(sheetTask({ rack: "first" }, taken as any), [saved])?.outdated?.kind).toBe("rackTaken");
  });

  it("that is released does not ask for the rack pieces that it cut up", () => {
    const saved = laid(sheetTask({ rack: "first" }, RACK));
    const without = sheetTask({ rack: "first" });
    expect(savedFor(without, [saved])?.outdated?.kind).toBe("rackTaken");
    expect(savedFor(without, [{ ...saved, releasedAt: 5 }])?.outdated).toBeNull();
  });

  it("gives back rests from the least size that is worth keeping", () => {
    expect(restsToKeep(laid(sheetTask()))).toEqual([]);
    const rests = restsToKeep(laid(sheetTask({ keep: 300 })));
    expect(rests.length).toBeGreaterThan(0);
    expect(rests.every((rest) => Math.min(rest.length, rest.width ?? 0) >= 300)).toBe(true);
  });

  it("its locks are taken over; one whose piece changed or is gone is let go in a sentence", () => {
    const saved = laid(sheetTask());
    if (saved.kind !== "sheets") throw new Error("sheets");
    const locked = {
      ...saved,
      layout: {
        ...saved.layout,
        sheets: saved.layout.sheets.map((sheet) => ({
          ...sheet,
          placements: sheet.placements.map((one, i) => (i === 0 ? { ...one, locked: true } : one)),
        })),
      },
    };
    const same = withLocks(sheetTask(), locked);
    expect(same.notes).toEqual([]);
    expect(same.problem.fixed).toHaveLength(1);
    const larger = withLocks(sheetTask({ allowance: 10 }), locked);
    expect(larger.problem.fixed).toEqual([]);
    expect(larger.notes[0]).toMatch(/is unlocked: its size changed from .* to .*\./);
    const other = { ...locked, pieces: [{ mark: "ZZ", name: "Shelf" }] };
    expect(withLocks(sheetTask(), other).notes[0]).toContain("ZZ is unlocked: it is deleted");
  });

  it("says what would help a piece without a place", () => {
    const task = sheetTask();
    const saved = laid(task);
    if (saved.kind !== "sheets") throw new Error("sheets");
    const size = [500, 299] as [number, number];
    const tooLarge = { kind: "tooLarge", size, largest: size, trimmed: true } as const;
    const large = { ...saved, layout: { ...saved.layout, unplaced: [{ panel: 0, qty: 2, why: tooLarge }] } };
    expect(piecesWithoutPlace(large)).toEqual([
      {
        index: 0,
        qty: 2,
        reason: "tooLarge",
        why: "larger than every sheet: 500 × 299 mm, the largest gives 500 × 299 mm after its trims",
        advice: expect.stringContaining("buy a sheet of at least 540 × 339"),
      },
    ]);
    const bars = layoutTasks(tally, STOCK)[0];
    if (bars?.kind !== "bars") throw new Error("bars");
    const layout = {
      bars: [],
      cost: 0,
      count: 0,
      lowerBound: 0,
      lowerBoundOf: "cost",
      proven: false,
      unplaced: [
        { piece: 0, qty: 1, why: { kind: "tooLong", length: 5980, longest: 5970, trimmed: true } },
        { piece: 0, qty: 1, why: { kind: "usedUp" } },
      ],
    } as const;
    expect(piecesWithoutPlace(savedLayout(bars, layout, 1)).map(({ advice }) => advice)).toEqual([
      "Splice it from two, or have more of 6000 mm",
      "Give its section a stock length that can be bought",
    ]);
  });

  it("says what is odd: a kerf wider than a piece, a trim that leaves nothing", () => {
    expect(notesOf(sheetTask({ kerf: 600 }))[0]).toContain("The kerf of 600 mm is wider than");
    expect(notesOf(sheetTask({ trim: 610 }))[0]).toBe(
      "The trim of 610 mm leaves nothing of a sheet of 2440 × 1220 mm; make it smaller.",
    );
    const bars = layoutTasks(tally, STOCK)[0];
    if (bars?.kind !== "bars") throw new Error("bars");
    expect(notesOf(bars)).toEqual([]);
    const held = notesOf({ ...bars, problem: { ...bars.problem, grip: 7000 } });
    expect(held).toEqual(["Trims and clamp length leave nothing of a bar of 6000 mm; make them smaller."]);
  });
});
