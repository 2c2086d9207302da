import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyDiff, applyEdit, type ListSetup, newJob, plainColumn, reverseDiff } from "../job";
import { edited } from "../job/edit.fixture";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { holdMark } from "../tally";
import { createLister, fieldText, overWords, ownList, tableAsTabs } from ".";
import { cellIn, columns, groundOf, made, over, own, rowsOf, setup, texts, value } from "./list.fixture";
import { markIsIn } from "./list-rows";

const withList = (list = setup({})) => edited({ kind: "setList", list }, smallFrame());

describe("cells typed over", () => {
  it("show what was typed and keep the computed value beside it", () => {
    const job = edited(over("length", ["front", "back"], "612", "600"), withList());
    const cell = cellIn(ownList(setup({}), groundOf(job)), "front", "length");
    expect(cell).toEqual({
      text: "612",
      value: 612,
      over: { computed: "600", was: "600", changed: false },
    });
    // Another list, and the layouts, know nothing of it.
    const other = setup({ id: "other" as never });
    expect(cellIn(ownList(other, groundOf(job)), "front", "length")?.text).toBe("600");
  });

  it("tell when the computed value has changed since, and go back", () => {
    const job = edited(over("length", ["front", "back"], "612", "600"), withList());
    const wider = edited({ kind: "setKeySize", id: "size-width", formula: "620", variant: null }, job);
    const cell = cellIn(ownList(setup({}), groundOf(wider)), "front", "length");
    expect(cell?.over).toEqual({ computed: "620", was: "600", changed: true });
    const back = edited(
      { kind: "clearCells", list: "list", column: "length", records: ["front", "back"] },
      wider,
    );
    expect(back.listCells).toEqual({});
    const all = edited({ kind: "clearCells", list: "list", column: null, records: null }, wider);
    expect(all.listCells).toEqual({});
    expect(edited({ kind: "removeList", id: "list" }, wider).listCells).toEqual({});
  });

  it("go with the pieces that are removed, and come back when that is undone", () => {
    const job = edited(over("count", ["legLeft", "legRight"], "3", "2"), withList());
    const hand = edited({ kind: "setHandRow", row: { id: "h" as never, pieces: ["legLeft"] } }, job);
    const fewer = edited({ kind: "remove", ids: ["legLeft"] }, hand);
    expect(Object.values(fewer.listCells).map(({ records }) => records)).toEqual([["legRight"]]);
    expect(fewer.handRows).toEqual({});
    const diff = applyEdit(hand, { kind: "remove", ids: ["legLeft", "legRight"] });
    if (!diff.ok) throw new Error("it can be");
    const none = applyDiff(hand, diff.value);
    expect(none.listCells).toEqual({});
    expect(applyDiff(none, reverseDiff(diff.value))).toEqual(hand);
  });

  it("count in sums by what was typed; a word in place of a number makes them incomplete", () => {
    const list = setup({ kinds: ["member"], columns: columns("name", "count"), totals: true });
    const more = edited(over("count", ["front", "back"], "3", "2"), withList(list));
    // By hand: 3 typed + 2 end rails + 2 legs.
    expect(ownList(list, groundOf(more)).foot[0]?.cells["count"]?.text).toBe("7");
    const word = edited(over("count", ["front", "back"], "a few", "2"), withList(list));
    expect(ownList(list, groundOf(word)).foot[0]?.cells["count"]?.text).toBe("incomplete: 4");
  });

  it("stay with the row that adds others up, not with its single rows", () => {
    const list = setup({
      kinds: ["member"],
      columns: columns("stock", "count"),
      groupBy: "stock",
      showRows: false,
    });
    const ids = Object.keys(smallFrame().members);
    const job = edited(over("count", ids, "8", "6", true), withList(list));
    expect(texts(list, job)).toEqual([[expect.stringContaining("Square tube"), "8"]]);
    expect(texts({ ...list, showRows: true, groupBy: null }, job).map(([, count]) => count)).toEqual([
      "2",
      "2",
      "2",
    ]);
  });

  it("are told in files beside the value", () => {
    const job = edited(over("name", ["front", "back"], "Long rail", "Rail"), withList());
    const table = ownList(setup({}), groundOf(job));
    const [head, first] = tableAsTabs(table).split("\n");
    expect(head?.endsWith("\tChanged by hand")).toBe(true);
    expect(first).toBe("A\tLong rail\t2\t600\tName (computed Rail)");
    const row = rowsOf(table)[0];
    expect(row && overWords(row, table.columns)).toBe("Name (computed Rail)");
  });

  it("typing twice for one piece keeps the later text, and never two", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.subarray(["front", "back", "left", "right"], { minLength: 1 }),
            fc.constantFrom("1", "2", "3"),
          ),
          { minLength: 1, maxLength: 8 },
        ),
        (typings) => {
          let job = withList();
          typings.forEach(([records, text], i) => {
            job = edited(
              {
                kind: "setCell",
                cell: {
                  id: `c${i}` as never,
                  list: "list",
                  column: "count",
                  records,
                  summed: false,
                  text,
                  computed: "2",
                },
              },
              job,
            );
          });
          for (const id of ["front", "back", "left", "right"]) {
            const last = typings.filter(([records]) => records.includes(id)).at(-1)?.[1];
            const found = Object.values(job.listCells).filter((cell) => cell.records.includes(id));
            expect(found.map((cell) => cell.text)).toEqual(last === undefined ? [] : [last]);
          }
        },
      ),
      { numRuns: lawRuns(60) },
    );
  });
});

describe("what goes in and in which order", () => {
  it("marks one by one and from one to another, materials, and rows by hand", () => {
    expect(["A", "C", "D", "AA"].map((mark) => markIsIn(mark, "B-D"))).toEqual([false, true, true, false]);
    expect(["P9", "P10", "Q10"].map((mark) => markIsIn(mark, "P1 – P10"))).toEqual([true, true, false]);
    expect(markIsIn("T-1", "T-1")).toBe(true);
    expect(texts(setup({ marks: ["A-B"], columns: columns("mark") }))).toEqual([["A"], ["B"]]);
    expect(texts(setup({ materials: ["birch ply"], columns: columns("name") }))).toEqual([["Shelf"]]);
    const hand = setup({
      kinds: ["member"],
      columns: columns("name"),
      order: [{ column: "name", descending: false }],
      handOrder: ["legLeft", "left"],
    });
    expect(texts(hand)).toEqual([["Leg"], ["End rail"], ["Rail"]]);
  });

  it("a column in another unit says so in its heading", () => {
    const list = setup({
      columns: [
        { ...plainColumn("length"), unit: "m", format: { kind: "decimal", places: 3, trailingZeros: true } },
      ],
      marks: ["A"],
    });
    const table = ownList(list, groundOf(smallFrame()));
    expect(table.columns[0]?.heading).toBe("Cut length (m)");
    expect(texts(list)).toEqual([["0.600"]]);
  });

  it("the costed list has the sum, the waste on what is measured, and the total at its foot", () => {
    const job = newJob({
      info: { code: "T", title: "T", wastePercent: 10, rounding: "end" },
      panels: { tray: { name: "Tray", board: "ply", length: "640", width: "415" } },
      boughtParts: { feet: { name: "Feet", entry: "foot", count: "2" } },
    });
    const list = setup({ columns: columns("name", "cost"), totals: true, wasteAtFoot: true });
    const { foot } = ownList(list, groundOf(job));
    // Ply 54.00 a sheet of 2.44 · 1.22 = 2.9768 m²: 0.2656 m² at 18.14 is 4.82; feet 4.70; waste on the ply alone 0.48.
    expect(foot.map(({ label, cells }) => [label, cells["cost"]?.text])).toEqual([
      ["Sum", "9.52 EUR"],
      ["Waste, 10 %", "0.48 EUR"],
      ["Total", "10.00 EUR"],
    ]);
  });
});

describe("pasted into a spreadsheet", () => {
  it("a bare fraction is a number there, not a date", () => {
    const list = setup({
      columns: [{ ...plainColumn("thickness"), unit: "in", format: { kind: "fraction", denominator: 64 } }],
      kinds: ["panel"],
    });
    // 18 mm is 45.35 / 64 of an inch: what is rounded by more than the tolerance is told in the heading there.
    expect(tableAsTabs(ownList(list, groundOf(smallFrame()))).split("\n")).toEqual([
      "Thick (in) ≈",
      "0 45/64",
    ]);
    expect(fieldText({ text: "–", value: null, lack: "notApplicable" })).toBe("");
  });
});

describe("held marks", () => {
  it("stay when the values of own columns are typed", () => {
    const { tally } = resultsOf(smallFrame());
    const row = tally.rows.find((one) => one.name === "Rail");
    const held = row && holdMark(tally, row, "R1");
    if (!held?.ok) throw new Error("it can be");
    const job = made(smallFrame(), held.value, own("Finish"), value("finish", ["front", "back"], "oiled"));
    expect(texts(setup({ kinds: ["member"], columns: columns("mark", "own:finish") }), job)[0]).toEqual([
      "R1",
      "oiled",
    ]);
  });
});

describe("a list with a memory", () => {
  it("says the same as one without, whatever is changed in between", () => {
    const lister = createLister();
    const job = withList();
    const wider = edited({ kind: "setKeySize", id: "size-width", formula: "620", variant: null }, job);
    const typed = edited(over("count", ["front", "back"], "5", "2"), job);
    const coloured = made(job, own("Finish", { forAll: "raw" }));
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            job: fc.constantFrom(job, wider, typed, coloured),
            setup: fc.record({
              order: fc.constantFrom<ListSetup["order"][]>([], [{ column: "name", descending: true }]),
              groupBy: fc.constantFrom(null, "stock"),
              showRows: fc.boolean(),
              totals: fc.boolean(),
              columns: fc.constantFrom(columns("mark", "count"), columns("name", "length", "own:finish")),
              marks: fc.constantFrom<string[][]>([], ["A-B"]),
            }),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        (asked) => {
          for (const one of asked) {
            const list = setup(one.setup);
            const ground = groundOf(one.job);
            expect(lister(list, ground)).toEqual(ownList(list, ground));
          }
        },
      ),
      { numRuns: lawRuns(40) },
    );
  });
});
