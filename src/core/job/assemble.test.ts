import { describe, expect, it } from "vitest";
import { sentence } from "../kernel";
import { resultsOf } from "../pipeline.fixture";
import { type Edit, type Job, newJob, takenApart } from ".";
import { edited } from "./edit.fixture";

const newIds = () => {
  let count = 0;
  return (kind: string) => `new-${kind}-${++count}`;
};

describe("taking apart", () => {
  it("keeps guides, what was typed for pieces, and rows by hand", () => {
    const base = newJob({
      info: { code: "T", title: "T" },
      assemblies: {
        box: {
          name: "Box",
          points: { P: ["0", "0", "0"], Q: ["100", "0", "0"] },
          guides: { middle: ["P", "Q"] },
          panels: {
            a: { name: "Side", board: "ply", length: "300", width: "200" },
            b: { name: "Side", board: "ply", length: "300", width: "200" },
          },
        },
      },
      placements: { here: { assembly: "box", at: ["50", "0", "0"] } },
    });
    const column = { id: "finish" as never, name: "Finish", kind: "text" as const, choices: [] };
    const cell = { id: "c" as never, list: null, column: "own:finish", records: ["a"], summed: false };
    const job = [
      { kind: "setOwnColumn", column: { ...column, formula: null, forAll: null, position: 0 } },
      { kind: "setCell", cell: { ...cell, text: "oiled", computed: null } },
      { kind: "setHandRow", row: { id: "h" as never, pieces: ["b"] } },
    ].reduce((now: Job, edit) => edited(edit as Edit, now), base);
    const apart = takenApart(job, "here", newIds());
    if (!apart.ok) throw new Error(sentence(apart.problem));
    const after = edited(apart.value, job);
    const [line] = Object.values(after.lines);
    expect(after.points[line?.from ?? ""]?.at).toEqual(["50", "0", "0"]);
    const [first, second] = Object.keys(after.panels);
    expect(
      Object.values(after.listCells).filter(({ records }) => records.includes(first ?? "")),
    ).toMatchObject([{ text: "oiled" }]);
    expect(after.handRows["h"]?.pieces).toContain(second);
    expect(resultsOf(after).tally.rows.map((row) => row.count)).toEqual([1, 1]);
  });
});
