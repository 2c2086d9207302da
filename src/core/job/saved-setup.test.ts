import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { LIST_STARTS, startList } from "../lists";
import { columns } from "../lists/list.fixture";
import { smallFrame } from "../pipeline.fixture";
import {
  type Edit,
  type Job,
  listFromSaved,
  type OwnColumn,
  putBackEdits,
  type SavedSetup,
  SavedSetupSchema,
  setupToKeep,
} from ".";
import { edited } from "./edit.fixture";

const own = (id: string, name: string, more: Partial<OwnColumn> = {}): Edit => ({
  kind: "setOwnColumn",
  column: {
    id: id as never,
    name,
    kind: "number",
    choices: [],
    formula: null,
    forAll: null,
    position: 0,
    ...more,
  },
});
const [, , costed] = LIST_STARTS;
if (!costed) throw new Error("there is one");
const list = {
  ...startList(costed, "list", "Costed", 0),
  columns: columns("mark", "own:sum"),
  groupBy: "own:sum",
  marks: ["A-C"],
  handOrder: ["front"],
};
const source = [
  own("price", "Price"),
  own("unused", "Unused"),
  own("sum", "Sum", { kind: "formula", formula: "{count} * {price}" }),
  { kind: "setList", list } as Edit,
].reduce((job: Job, edit) => edited(edit, job), smallFrame());
const saved = setupToKeep(source, list);
let count = 0;
const fresh = () => `fresh-${++count}`;
const put = (job: Job, setup: SavedSetup) => {
  const { id, edit } = listFromSaved(job, setup, fresh);
  const after = edited(edit, job);
  const made = after.lists[id];
  if (!made) throw new Error("the list is there");
  return { after, made };
};

describe("a list setup saved for other jobs", () => {
  it("leaves behind what belongs to one job, and takes along the own columns that it needs", () => {
    expect(Object.keys(saved.setup)).not.toEqual(expect.arrayContaining(["assembly"]));
    expect("marks" in saved.setup || "handOrder" in saved.setup || "id" in saved.setup).toBe(false);
    // Price is not shown, but the formula needs it.
    expect(saved.ownColumns.map(({ name }) => name)).toEqual(["Price", "Sum"]);
    expect(v.is(SavedSetupSchema, JSON.parse(JSON.stringify(saved)))).toBe(true);
  });

  it("makes the list in another job, with the columns that it lacks", () => {
    const { after, made } = put(smallFrame(), saved);
    const names = Object.values(after.ownColumns).map(({ name }) => name);
    expect(names).toEqual(["Price", "Sum"]);
    const sum = Object.values(after.ownColumns).find(({ name }) => name === "Sum");
    expect(made.columns.map(({ column }) => column)).toEqual(["mark", `own:${sum?.id}`]);
    expect([made.groupBy, made.marks, made.handOrder, made.name]).toEqual([
      `own:${sum?.id}`,
      [],
      null,
      "Costed",
    ]);
  });

  it("takes a column of the same name, however it is typed, for the same; a taken title gets a number", () => {
    const there = edited(own("mine", "PRICE!"), smallFrame());
    const once = put(there, saved);
    expect(Object.values(once.after.ownColumns).map(({ name }) => name)).toEqual(["PRICE!", "Sum"]);
    expect(put(once.after, saved).made.name).toBe("Costed 2");
  });
});

it("a setup that was kept before lists had all that they have now is read", () => {
  const { assemblyLines: _, ...before } = setupToKeep(smallFrame(), list).setup;
  const read = v.safeParse(SavedSetupSchema, { name: "Saw", setup: before, ownColumns: [] });
  expect(read.success && read.output.setup.assemblyLines).toBe(true);
});

describe("putting back what is left out", () => {
  it("names each record, and each placement, that leaves something out", () => {
    const job = [
      { kind: "changeMembers", ids: ["front"], set: { leftOut: true } },
      { kind: "changePanels", ids: ["shelfLow"], set: { leftOut: true } },
    ].reduce((now: Job, edit) => edited(edit as Edit, now), smallFrame());
    const edits = putBackEdits(job, ["front", "back", "shelfLow"]);
    expect(edits).toEqual([
      { kind: "changeMembers", ids: ["front"], set: { leftOut: false } },
      { kind: "changePanels", ids: ["shelfLow"], set: { leftOut: false } },
    ]);
    expect(putBackEdits(smallFrame(), ["front"])).toEqual([]);
  });

  it("an assembly that is placed left out, from any piece in it", () => {
    const drawer = { assembly: "drawer" as never, leftOut: true, without: [] };
    const job = {
      ...smallFrame(),
      panels: { base: { ...(smallFrame().panels["shelfLow"] as object), id: "base", assembly: "drawer" } },
      placements: {
        out: { id: "out", into: null, ...drawer },
        in: { id: "in", into: null, ...drawer, leftOut: false },
        row: { id: "row", into: null, ...drawer, leftOut: false, without: [2] },
      },
    } as unknown as Job;
    expect(putBackEdits(job, ["base"])).toEqual([
      { kind: "changePlacements", ids: ["out"], set: { leftOut: false } },
      { kind: "changePlacements", ids: ["row"], set: { without: [] } },
    ]);
  });
});
