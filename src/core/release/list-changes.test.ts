import { describe, expect, it } from "vitest";
import { type Edit, type Job, type ListSetup, plainColumn } from "../job";
import { edited } from "../job/edit.fixture";
import { ownList } from "../lists";
import { columns, groundOf, setup } from "../lists/list.fixture";
import { smallFrame } from "../pipeline.fixture";
import { listChanges, seenBy, seenList } from ".";
import { seenRows } from "./list-changes";

const list = setup({ kinds: ["member", "panel"], columns: columns("mark", "name", "count", "length") });
const tableOf = (job: Job) => ownList(list, groundOf(job));
const seen = seenRows(tableOf(smallFrame()));
const wider: Edit = { kind: "setKeySize", id: "size-width", formula: "620", variant: null };

describe("what changed in a list", () => {
  it("nothing, as long as nothing else is said", () => {
    const { byRow, gone } = listChanges(seen, tableOf(smallFrame()));
    expect([byRow.size, gone.length]).toEqual([0, 0]);
  });

  it("the cells that say something else, with what they said", () => {
    const { byRow } = listChanges(seen, tableOf(edited(wider)));
    // Rails and shelves are as long as the width asks; legs and end rails are not.
    expect(Object.fromEntries(byRow)).toEqual({
      A: { kind: "changed", was: { length: "600" } },
      D: { kind: "changed", was: { length: "520" } },
    });
  });

  it("also under a cell that was typed over", () => {
    const cell = { id: "c" as never, list: "list", column: "length", records: ["front", "back"] };
    const listed = edited({ kind: "setList", list }, smallFrame());
    const typed = edited(
      { kind: "setCell", cell: { ...cell, summed: false, text: "612", computed: "600" } },
      listed,
    );
    expect(listChanges(seen, tableOf(typed)).byRow.size).toBe(0);
    expect(listChanges(seen, tableOf(edited(wider, typed))).byRow.get("A")).toEqual({
      kind: "changed",
      was: { length: "600" },
    });
  });

  it("rows that are new or gone; a row under another mark is the same row", () => {
    const fewer = listChanges(seen, tableOf({ ...smallFrame(), panels: {} }));
    expect(fewer.gone.map((row) => row.texts["name"])).toEqual(["Shelf"]);
    const more = listChanges(
      seen,
      tableOf(smallFrame({ members: { extra: { name: "Extra", from: "E", to: "F", section: "lath" } } })),
    );
    expect([...more.byRow.values()].filter(({ kind }) => kind === "new")).toHaveLength(1);
    const held = edited({
      kind: "keepMarks",
      marks: ["front", "back"].map((id) => ({ id, mark: "R1", held: true })),
      drop: [],
    });
    expect(Object.fromEntries(listChanges(seen, tableOf(held)).byRow)["R1"]).toEqual({
      kind: "changed",
      was: { mark: "A" },
    });
  });
});

describe("another setup", () => {
  const tableBy = (by: ListSetup, job: Job = smallFrame()) => ownList(by, groundOf(job));
  const sixteenths: ListSetup = {
    ...list,
    columns: [
      ...columns("mark", "name", "count"),
      { ...plainColumn("length"), unit: "in", format: { kind: "fraction", denominator: 16 } },
    ],
  };

  it("is no change of the design: a column written otherwise counts as seen", () => {
    const looked = seenList(tableBy(list), list);
    const table = tableBy(sixteenths);
    const now = seenBy(looked, table, sixteenths);
    expect(listChanges(now.rows, table).byRow.size).toBe(0);
    expect(seenBy(now, table, sixteenths)).toBe(now);
  });

  it("takes nothing from what changed in other columns before it", () => {
    const looked = seenList(tableBy(list), list);
    const twice = edited({ kind: "changeInfo", set: { batch: 2 } });
    const table = tableBy(sixteenths, twice);
    const now = seenBy(looked, table, sixteenths);
    expect(listChanges(now.rows, table).byRow.get("A")).toEqual({ kind: "changed", was: { count: "2" } });
  });

  it("with other rows is looked at anew", () => {
    const summed: ListSetup = { ...list, groupBy: "name", showRows: false };
    const table = tableBy(summed);
    const now = seenBy(seenList(tableBy(list), list), table, summed);
    expect([listChanges(now.rows, table).byRow.size, listChanges(now.rows, table).gone]).toEqual([0, []]);
  });

  it("the form of sizes decides how sizes are written, and nothing else", () => {
    const sized: ListSetup = { ...list, columns: columns("mark", "size", "count") };
    const other: ListSetup = {
      ...sized,
      sizeOfPanel: sized.sizeOfPanel === null ? "{length} by {width}" : null,
    };
    const twice = edited({ kind: "changeInfo", set: { batch: 2 } });
    const looked = seenList(tableBy(sized), sized);
    const table = tableBy(other, twice);
    const now = seenBy(looked, table, other);
    expect(now).not.toBe(looked);
    // The size is written otherwise and counts as seen; the count of the batch is a change of the design.
    expect(listChanges(now.rows, table).byRow.get("D")).toEqual({ kind: "changed", was: { count: "2" } });
    const plain: ListSetup = { ...list, columns: columns("mark", "count") };
    const plainOther: ListSetup = { ...plain, sizeOfPanel: other.sizeOfPanel };
    const before = seenList(tableBy(plain), plain);
    expect(seenBy(before, tableBy(plainOther), plainOther)).toBe(before);
  });

  it("a unit of its own and none are two ways to write", () => {
    const inch: ListSetup = {
      ...list,
      columns: [...columns("mark", "count"), { ...plainColumn("length"), unit: "in" }],
    };
    const none: ListSetup = { ...list, columns: [...columns("mark", "count"), plainColumn("length")] };
    const before = seenList(tableBy(inch), inch);
    expect(seenBy(before, tableBy(none), none)).not.toBe(before);
    expect(Object.keys(before.columnsBy)).toEqual(["mark", "count", "length"]);
  });

  it("a row that is gone stays as it was seen when a column is written otherwise", () => {
    const looked = seenList(tableBy(list), list);
    const fewer = { ...smallFrame(), panels: {} };
    const now = seenBy(looked, tableBy(sixteenths, fewer), sixteenths);
    expect(
      listChanges(now.rows, tableBy(sixteenths, fewer)).gone.map(({ texts }) => texts["length"]),
    ).toEqual(["520"]);
  });
});

describe("values that somebody typed", () => {
  it("are no change of the design: columns of one's own are not compared", () => {
    const finish = {
      id: "finish" as never,
      name: "Finish",
      kind: "text" as const,
      choices: [],
      formula: null,
      forAll: null,
      position: 0,
    };
    const own = edited({ kind: "setOwnColumn", column: finish });
    const shown: ListSetup = { ...list, columns: [...columns("mark", "count"), plainColumn("own:finish")] };
    const before = seenRows(ownList(shown, groundOf(own)));
    expect(before.every(({ texts }) => !("own:finish" in texts) && "count" in texts)).toBe(true);
    const cell = { id: "v" as never, list: null, column: "own:finish", records: ["front", "back"] };
    const typed = edited(
      { kind: "setCell", cell: { ...cell, summed: false, text: "oiled", computed: null } },
      own,
    );
    expect(listChanges(before, ownList(shown, groundOf(typed))).byRow.size).toBe(0);
  });

  it("rows without a record are told by their id alone", () => {
    const row = (id: string, record: string | null) => ({ id, record, texts: { count: "1" } });
    const table = tableOf(smallFrame());
    const now = seenRows(table);
    const { byRow, gone } = listChanges([...now, row("x", null), row("y", null)], table);
    expect([byRow.size, gone.map(({ id }) => id)]).toEqual([0, ["x", "y"]]);
    expect(listChanges([row("A", null)], table).byRow.get("A")).toEqual({
      kind: "changed",
      was: { count: "1" },
    });
  });
});
