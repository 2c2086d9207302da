/** Every physical piece has a name of its own, in the tally and on the bar or sheet that it is cut from. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mitreEnd, newJob } from "../job";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK } from "../pipeline.fixture";
import { pieceIds } from "../tally";
import { type LaidPiece, type LayoutTask, layoutTasks, savedLayout } from ".";
import type { BarLayout, BarProblem } from "./bars";
import { laidStock } from "./saved";
import { layOutSheets } from "./sheets";

/** A frame and a box of a bar, a panel with a good face and three feet: the box twice, and once mirrored inside another. */
const job = (batch: number, count: string) =>
  newJob({
    info: { code: "T", title: "T", batch },
    points: { A: ["0", "0", "0"], B: ["600", "0", "0"], C: ["600", "400", "0"] },
    members: {
      one: { name: "Rail", from: "A", to: "B", section: "tube", end: mitreEnd("two") },
      two: { name: "Rail", from: "B", to: "C", section: "tube", start: mitreEnd("one") },
    },
    assemblies: {
      box: {
        name: "Box",
        points: { P: ["0", "0", "0"], Q: ["300", "0", "0"] },
        members: { bar: { name: "Bar", section: "tube", from: "P", to: "Q" } },
        panels: {
          door: {
            name: "Door",
            board: "ply",
            length: "400",
            width: "300",
            goodFace: true,
            edging: { front: "band", back: null, left: "band", right: null },
          },
        },
        boughtParts: { feet: { name: "Feet", entry: "foot", count: "3" } },
      },
      stack: { name: "Stack" },
    },
    placements: {
      row: { assembly: "box", count, step: ["0", "0", "500"] },
      inner: { assembly: "box", into: "stack", mirror: "width" },
      outer: { assembly: "stack", count: "2", step: ["0", "500", "0"] },
    },
  } as never);

describe("the names of pieces", () => {
  it("are as many as the row counts, none twice, and say where each stands", () => {
    const { tally } = resultsOf(job(2, "3"));
    const all = tally.rows.flatMap((row) => {
      const ids = pieceIds(row);
      expect(ids).toHaveLength(row.count);
      return ids;
    });
    expect(new Set(all).size).toBe(all.length);
    expect(all).toHaveLength(tally.balance.design);
    const doors = tally.rows.find(({ name }) => name === "Door");
    // Three as drawn, two mirrored; each in both copies of the job; those of the opposite hand last.
    expect(doors && pieceIds(doors)).toEqual([
      "door@row:0/",
      "door@row:1/",
      "door@row:2/",
      "door@row:0/*2",
      "door@row:1/*2",
      "door@row:2/*2",
      "door@outer:0/inner:0/",
      "door@outer:1/inner:0/",
      "door@outer:0/inner:0/*2",
      "door@outer:1/inner:0/*2",
    ]);
    const feet = tally.rows.find(({ name }) => name === "Feet");
    expect(feet && pieceIds(feet).slice(0, 4)).toEqual([
      "feet@row:0/",
      "feet@row:0/#2",
      "feet@row:0/#3",
      "feet@row:1/",
    ]);
  });

  it("stay while sizes change, more are added and the job is made more often", () => {
    const idsOf = (batch: number, count: string) =>
      new Set(resultsOf(job(batch, count)).tally.rows.flatMap((row) => pieceIds(row)));
    const before = idsOf(1, "2");
    for (const after of [idsOf(1, "5"), idsOf(3, "2")]) for (const id of before) expect(after).toContain(id);
  });

  it("keep apart what is made of odd names", () => {
    const row = (id: string, places: readonly string[]) =>
      pieceIds({
        count: 1,
        pieces: [{ id, quantity: 1, hand: "asDrawn", first: 0, places, ofRecord: 1 }],
      })[0];
    expect(
      new Set([row("a@b", [""]), row("a", ["b"]), row("a", ["b#2"]), row("a#2", ["b"]), row("a%40b", [""])])
        .size,
    ).toBe(5);
  });
});

/** Bars of two of a kind, as many as there are, and one by one what is left: names hang on the places, not on the cost. */
function twoByTwo({ pieces }: BarProblem): BarLayout {
  const bars = pieces.flatMap(({ qty }, piece) => [
    { stock: 0, times: Math.floor(qty / 2), pieces: [piece, piece], remainder: 0 },
    { stock: 0, times: qty % 2, pieces: [piece], remainder: 0 },
  ]);
  return {
    bars,
    unplaced: [],
    cost: null,
    count: bars.length,
    lowerBound: 0,
    lowerBoundOf: "count",
    proven: false,
  };
}

describe("laid pieces", () => {
  const laid = (task: LayoutTask) =>
    task.kind === "bars"
      ? savedLayout(task, twoByTwo(task.problem), 1)
      : task.kind === "sheets"
        ? savedLayout(task, layOutSheets(task.problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 1 }), 1)
        : null;

  it("carry the names of the rows that they are cut for, each once", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 6 }), (batch, count) => {
        const { tally } = resultsOf(job(batch, String(count)));
        for (const task of layoutTasks(tally, STOCK)) {
          const saved = laid(task);
          if (!saved) throw new Error("bars and sheets");
          const found = laidStock(saved).flatMap(({ pieces }) => pieces);
          const ids = found.map(({ id }) => id);
          expect([...ids].sort()).toEqual(task.rows.flatMap((row) => pieceIds(row)).sort());
          for (const { index, id } of found) expect(pieceIds(at(task.rows, index))).toContain(id);
        }
      }),
      { numRuns: lawRuns(20) },
    );
  });

  it("of a layout that was kept before there were names have none", () => {
    const task = at(layoutTasks(resultsOf(job(1, "1")).tally, STOCK), 0);
    const saved = laid(task);
    if (!saved) throw new Error("bars");
    const pieces = saved.pieces.map(({ ids: _, ...piece }): LaidPiece => piece);
    const found = laidStock({ ...saved, pieces }).flatMap((one) => one.pieces);
    expect(found.length).toBeGreaterThan(0);
    expect(found.every(({ id }) => id === null)).toBe(true);
  });
});
