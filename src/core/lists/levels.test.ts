import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Job, newJob } from "../job";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf } from "../pipeline.fixture";
import { LIST_STARTS, ownList, startList } from ".";
import { columns, groundOf, rowsOf, setup, texts } from "./list.fixture";

/**
 * Two cases, each with one top and three drawers; a drawer has a base, two sides and two screws. Cases and one loose
 * drawer stand in the job, made twice.
 */
const nested = (parts: { batch?: number; drawers?: string; leftOut?: boolean } = {}): Job =>
  newJob({
    info: { code: "T", title: "T", batch: parts.batch ?? 1 },
    panels: { sign: { name: "Sign", board: "ply", length: "300", width: "200" } },
    assemblies: {
      case: { name: "Case", panels: { top: { name: "Top", board: "ply", length: "500", width: "400" } } },
      drawer: {
        name: "Drawer",
        panels: {
          base: { name: "Base", board: "ply", length: "350", width: "250" },
          side1: { name: "Side", board: "ply", length: "350", width: "80" },
          side2: { name: "Side", board: "ply", length: "350", width: "80" },
        },
        boughtParts: { screws: { name: "Screws", entry: "screw", count: "2" } },
      },
      handle: { name: "Handle", role: "bought" },
    },
    placements: {
      left: { assembly: "case" },
      right: { assembly: "case" },
      inCase: { assembly: "drawer", into: "case", count: parts.drawers ?? "3" },
      loose: { assembly: "drawer", leftOut: parts.leftOut ?? false },
      grip: { assembly: "handle", into: "drawer" },
    },
  });

const bill = (showRows = true) =>
  setup({ columns: columns("level", "name", "inOne", "count"), levels: true, showRows });

describe("a list by assembly", () => {
  it("without the assemblies' own lines only what is in them stands there, with the same counts and sums", () => {
    const job = nested();
    const whole = texts(bill(), job);
    const inside = texts({ ...bill(), assemblyLines: false }, job);
    expect(inside).toEqual(whole.filter(([, name]) => name !== "Case" && name !== "Drawer"));
    const sums = (assemblyLines: boolean) =>
      ownList({ ...bill(), assemblyLines, totals: true }, groundOf(job)).foot;
    expect(sums(false)).toEqual(sums(true));
  });

  it("counts each line in one of what it stands under, and in all", () => {
    // By hand: 2 cases of 3 drawers are 6, with the loose one 7; a drawer has 1 base, 2 sides, 2 screws, 1 handle.
    expect(texts(bill(), nested())).toEqual([
      ["1", "Case", "2", "2"],
      ["2", "Drawer", "3", "6"],
      ["3", "Base", "1", "6"],
      ["3", "Side", "2", "12"],
      ["3", "Screws", "2", "12"],
      ["3", "Handle", "1", "6"],
      ["2", "Top", "1", "2"],
      ["1", "Drawer", "1", "1"],
      ["2", "Base", "1", "1"],
      ["2", "Side", "2", "2"],
      ["2", "Screws", "2", "2"],
      ["2", "Handle", "1", "1"],
      ["1", "Sign", "1", "1"],
    ]);
  });

  it("shows an assembly as one line with the cost and mass of what is in it", () => {
    const list = { ...bill(false), columns: columns("name", "count", "cost", "mass") };
    const rows = texts(list, nested());
    expect(rows.map(([name, count]) => [name, count])).toEqual([
      ["Case", "2"],
      ["Drawer", "1"],
      ["Sign", "1"],
    ]);
    // Ply 18 at 680 kg/m³: (0.35 · 0.25 + 2 · 0.35 · 0.08) · 0.018 · 680 = 1.756 kg, written to 2 places.
    expect(rows[1]?.[3]).toBe("1.76");
    // The handle has no price: what the drawer costs is told as incomplete.
    expect(rows[1]?.[2]).toMatch(/^incomplete: /);
  });

  it("leaves out what is left out, and multiplies the batch through", () => {
    const rows = texts(bill(), nested({ batch: 5, leftOut: true }));
    expect(rows[0]).toEqual(["1", "Case", "2", "10"]);
    expect(rows[3]).toEqual(["3", "Side", "2", "60"]);
    expect(rows.filter(([level, name]) => level === "1" && name === "Drawer")).toEqual([]);
  });

  it("is offered among the lists to begin with, and orders pieces within their assembly", () => {
    const start = LIST_STARTS.find((one) => one.levels);
    if (!start) throw new Error("there is one");
    const list = {
      ...startList(start, "b", "Bill", 0),
      order: [{ column: "length", descending: false }],
    };
    const rows = rowsOf(ownList(list, groundOf(nested())));
    expect(rows.map((row) => row.level)).toEqual([1, 2, 3, 3, 3, 3, 2, 1, 2, 2, 2, 2, 1]);
    expect(new Set(rows.map((row) => row.id)).size).toBe(rows.length);
  });

  it("holds every counted piece once: its lines add up to the tally", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 0, max: 6 }),
        fc.boolean(),
        (batch, drawers, leftOut) => {
          const job = nested({ batch, drawers: String(drawers), leftOut });
          const { tally } = resultsOf(job);
          const lines = rowsOf(ownList(bill(), groundOf(job)));
          const leaves = lines.filter((line) => !line.records.some((id) => id === "case" || id === "drawer"));
          const listed = leaves.reduce((sum, line) => sum + (line.cells["count"]?.value ?? 0), 0);
          expect(listed).toBe(tally.rows.reduce((sum, row) => sum + row.count, 0));
        },
      ),
      { numRuns: lawRuns(30) },
    );
  });
});
