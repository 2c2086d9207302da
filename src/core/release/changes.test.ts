import { describe, expect, it } from "vitest";
import { styleOf } from "../lists";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { changesSince, factsOf } from ".";

const job = smallFrame();
const style = styleOf(job.info.job);
const before = factsOf(resultsOf(job).tally);

describe("what changed since", () => {
  it("nothing changed", () => {
    const { byRow, gone } = changesSince(before, resultsOf(smallFrame()).tally, style);
    expect([byRow.size, gone.length]).toEqual([0, 0]);
  });

  it("says the old size, the old count and the old angles, each at its row", () => {
    const wider = changesSince(
      before,
      resultsOf(smallFrame({ keySizes: { width: { formula: "620" } } })).tally,
      style,
    );
    expect(Object.fromEntries(wider.byRow)).toEqual({
      A: { kind: "changed", words: ["was 600"] },
      D: { kind: "changed", words: ["was 520 × 320 × 18"] },
    });
    const square = changesSince(
      before,
      resultsOf(smallFrame({ info: { code: "T", title: "T", batch: 2 } })).tally,
      style,
    );
    expect(square.byRow.get("A")).toEqual({ kind: "changed", words: ["was 2 off"] });
  });

  it("tells rows that are new and rows that are gone", () => {
    const more = changesSince(
      before,
      resultsOf(smallFrame({ members: { extra: { name: "Extra", from: "E", to: "F", section: "lath" } } }))
        .tally,
      style,
    );
    expect([...more.byRow.values()].filter((change) => change.kind === "new")).toHaveLength(1);
    const fewer = changesSince(before, resultsOf({ ...job, panels: {} }).tally, style);
    expect(fewer.gone.map((facts) => facts.name)).toEqual(["Shelf"]);
  });
});
