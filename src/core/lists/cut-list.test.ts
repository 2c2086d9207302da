/** The cut list as an ordinary list: its setup, what is typed over, and what its files hold. */
import { describe, expect, it } from "vitest";
import { CUT_LIST, cutListOf, type Edit, type Job, plainColumn, withEdit } from "../job";
import { sentence } from "../kernel";
import type { SavedLayout } from "../layout";
import { createPipeline } from "../pipeline";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import { listNames, namedTable, ownList, shownColumns, tableAsTabs, writtenColumns } from ".";

const edited = (job: Job, edit: Edit): Job => {
  const made = withEdit(job, edit);
  if (!made.ok) throw new Error(sentence(made.problem));
  return made.value;
};
const ids = (columns: readonly { readonly id: string }[]) => columns.map(({ id }) => id);
const marks = (job: Job) =>
  resultsOf(job).cutList.groups.flatMap(({ rows }) => rows.map(({ cells }) => cells["mark"]?.text));

describe("the cut list", () => {
  const job = smallFrame();

  it("shows sizes together, and writes them apart, with what is needed to read it again", () => {
    const { cutList } = resultsOf(job);
    expect(ids(shownColumns(cutList))).toEqual([
      "mark",
      "name",
      "count",
      "silhouette",
      "size",
      "end1",
      "end2",
      "stand",
      "note",
    ]);
    expect(ids(writtenColumns(cutList))).toEqual([
      ...["mark", "name", "count", "length", "width", "thickness"],
      ...["end1", "end2", "stand", "note", "grain", "edging"],
    ]);
  });

  it("has another setup once somebody changes it, and the usual one when that is removed", () => {
    const usual = cutListOf(job);
    const columns = ["mark", "length", "count"].map(plainColumn);
    const order = [{ column: "length", descending: false }];
    const changed = edited(job, { kind: "setList", list: { ...usual, name: "For the saw", columns, order } });
    const { cutList } = resultsOf(changed);
    expect([cutList.title, ids(shownColumns(cutList))]).toEqual(["For the saw", ["mark", "length", "count"]]);
    expect(ids(writtenColumns(cutList))).toEqual([
      ...["mark", "length", "count", "width", "thickness"],
      ...["name", "end1", "end2", "stand", "grain", "edging"],
    ]);
    // By length within each stock.
    expect(marks(changed)).toEqual(["C", "B", "A", "D"]);
    expect(marks(job)).toEqual(["A", "B", "C", "D"]);
    // Without groups by stock each row names it in columns of their own.
    const flat = edited(job, { kind: "setList", list: { ...usual, groupBy: null } });
    expect(ids(writtenColumns(resultsOf(flat).cutList)).slice(-4)).toEqual([
      ...["stock", "material", "grain", "edging"],
    ]);
    const lists = { job: changed, stockroom: STOCK, ...resultsOf(changed) };
    expect(namedTable("for the saw", lists)).toBe(lists.cutList);
    const back = edited(changed, { kind: "removeList", id: CUT_LIST });
    expect(resultsOf(back).cutList).toEqual(resultsOf(job).cutList);
  });

  it("is typed over without a setup of its own, and is put back", () => {
    const row = resultsOf(job).cutList.groups[0]?.rows[0];
    const typed = edited(job, {
      kind: "setCell",
      cell: {
        id: "one" as never,
        list: CUT_LIST,
        column: "note",
        records: [...(row?.records ?? [])],
        summed: false,
        text: "grind flush",
        computed: "",
      },
    });
    const cell = resultsOf(typed).cutList.groups[0]?.rows[0]?.cells["note"];
    expect(cell).toMatchObject({ text: "grind flush", over: { changed: false } });
    const back = edited(typed, { kind: "clearCells", list: CUT_LIST, column: null, records: null });
    expect(resultsOf(back).cutList).toEqual(resultsOf(job).cutList);
  });

  it("is one list beside those that were added, whatever these are called", () => {
    const other = { ...cutListOf(job), id: "other" as never, name: "Cut list", totals: true };
    const both = edited(edited(job, { kind: "setList", list: other }), {
      kind: "setList",
      list: { ...cutListOf(job), totals: false },
    });
    const lists = { job: both, stockroom: STOCK, ...resultsOf(both) };
    expect(listNames(both)).toEqual(["cut", "buying", "Cut list"]);
    expect(namedTable("cut", lists)?.foot).toEqual([]);
    expect(namedTable("Cut list", lists)?.foot).toHaveLength(1);
  });

  it("names stock and material of each row where it is pasted, as every list by stock does", () => {
    const other = { ...cutListOf(job), id: "other" as never, name: "X" };
    const [first, rail] = tableAsTabs(ownList(other, { job, stockroom: STOCK, ...resultsOf(job) })).split(
      "\n",
    );
    expect(first?.split("\t").slice(0, 4)).toEqual(["Stock", "Material", "Mark", "Name"]);
    expect(rail?.split("\t").slice(0, 4)).toEqual(["Square tube 40 × 40 × 3", "S235", "A", "Rail"]);
  });

  it("is not computed again as long as nothing changes that it is made from", () => {
    const compute = createPipeline();
    const saved: readonly SavedLayout[] = [];
    const first = compute(job, null, STOCK, saved).cutList;
    const added = edited(job, {
      kind: "setList",
      list: { ...cutListOf(job), id: "other" as never, name: "X" },
    });
    expect(compute(added, null, STOCK, saved).cutList).toBe(first);
    const ordered = edited(added, {
      kind: "setList",
      list: { ...cutListOf(job), order: [{ column: "name", descending: true }] },
    });
    expect(compute(ordered, null, STOCK, saved).cutList).not.toBe(first);
  });
});
