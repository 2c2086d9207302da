import { describe, expect, it } from "vitest";
import {
  contentsOf,
  type Home,
  holds,
  homeOf,
  homeOfMember,
  membersAtPoint,
  membersOfHome,
  newJob,
  othersThan,
} from ".";
import { edited, refusal } from "./edit.fixture";

const panel = { name: "Panel", board: null } as const;
const job = newJob({
  info: { code: "T", title: "T" },
  points: { A: ["0", "0", "0"], B: ["500", "0", "0"] },
  members: { bar: { name: "Bar", from: "A", to: "B", section: null } },
  panels: { top: panel },
  assemblies: {
    unit: { name: "Unit", panels: { shelf: panel } },
    drawer: {
      name: "Drawer",
      points: { P: ["0", "0", "0"], Q: ["0", "90", "0"] },
      members: { pull: { name: "Pull", from: "P", to: "Q", section: null } },
      panels: { floor: panel },
    },
  },
  placements: {
    left: { assembly: "unit" },
    right: { assembly: "unit", at: ["900", "0", "0"] },
    inUnit: { assembly: "drawer", into: "unit", count: "3" },
  },
});

/** Three legs that meet in one point. */
const joined = newJob({
  info: { code: "T", title: "T" },
  points: { T: ["0", "0", "900"], G0: ["0", "0", "0"], G1: ["300", "0", "0"], G2: ["0", "300", "0"] },
  members: Object.fromEntries(
    [0, 1, 2].map((i) => [`leg-${i}`, { name: "Leg", from: `G${i}`, to: "T", section: null }]),
  ),
});

describe("homes", () => {
  it("lines and members live where their points do", () => {
    expect(
      ["bar", "pull", "pull-line", "floor", "inUnit", "left", "nothing"].map((id) => homeOf(job, id)),
    ).toEqual([null, "drawer", "drawer", "drawer", "unit", null, undefined]);
    expect(contentsOf(job, "drawer" as never)).toEqual([
      "drawer-P",
      "drawer-Q",
      "pull-line",
      "pull",
      "floor",
    ]);
  });

  it("members are found by their points and homes as by going through all of them, after edits too", () => {
    const after = edited({ kind: "changeMembers", ids: ["leg-0"], set: { name: "Odd" } }, joined);
    const gone = edited({ kind: "remove", ids: ["leg-1"] }, after);
    for (const now of [job, joined, after, gone]) {
      const all = Object.values(now.members);
      for (const point of [...Object.keys(now.points), "nowhere"])
        expect(membersAtPoint(now, point)).toEqual(
          all.filter(({ line }) => now.lines[line]?.from === point || now.lines[line]?.to === point),
        );
      for (const home of [null, "drawer", "unit"] as Home[])
        expect(membersOfHome(now, home)).toEqual(
          all.filter((one) => homeOfMember(now, one) === home).map(({ id }) => id),
        );
    }
    expect(membersAtPoint(joined, "T").map(({ id }) => id)).toEqual(["leg-0", "leg-1", "leg-2"]);
    expect(membersAtPoint(gone, "T").map(({ name }) => name)).toEqual(["Odd", "Leg"]);
  });

  it("an assembly holds itself and what stands in it, at any depth", () => {
    const [unit, drawer] = ["unit", "drawer"] as never[];
    expect([holds(job, unit as never, drawer as never), holds(job, drawer as never, unit as never)]).toEqual([
      true,
      false,
    ]);
    expect([holds(job, unit as never, unit as never), holds(job, unit as never, null)]).toEqual([
      true,
      false,
    ]);
  });

  it("alone, a piece keeps the way to it and an assembly all that is in it", () => {
    expect(othersThan(job, ["floor"])).toEqual(["bar", "pull", "top", "shelf"]);
    expect(othersThan(job, ["left"])).toEqual(["bar", "top", "right"]);
    expect(othersThan(job, ["bar"])).toEqual(["pull", "top", "shelf", "floor", "left", "right", "inUnit"]);
  });

  it("points of two homes are neither joined nor joined by a line", () => {
    expect(refusal({ kind: "joinPoints", from: "A", into: "drawer-P" }, job)).toBe(
      'Point "A" stands in another assembly and cannot be joined to it.',
    );
    const line = { id: "n" as never, from: "A" as never, to: "drawer-P" as never };
    const nothing = { points: [], members: [], panels: [], boughtParts: [], assemblies: [], placements: [] };
    expect(refusal({ kind: "insert", what: "Draw", ...nothing, lines: [line] }, job)).toBe(
      'A line from point "A" would lead into another assembly; draw it inside one of them.',
    );
  });

  it("a split line stays in its home, whatever the new point says", () => {
    const after = edited(
      {
        kind: "splitLine",
        line: "pull-line",
        point: { id: "M" as never, name: "M", assembly: null, at: ["0", "45", "0"] },
        newLine: "second" as never,
        newMember: "pull2" as never,
      },
      job,
    );
    expect([homeOf(after, "M"), homeOf(after, "pull2")]).toEqual(["drawer", "drawer"]);
  });
});
