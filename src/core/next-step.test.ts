import { describe, expect, it } from "vitest";
import { newJob } from "./job";
import { edited } from "./job/edit.fixture";
import { type SavedLayout, savedLayout } from "./layout";
import { layOutSheets } from "./layout/sheets";
import { nextStep } from "./next-step";
import { resultsOf, smallFrame } from "./pipeline.fixture";

const empty = newJob({ info: { code: "T", title: "T" } });
const job = smallFrame();
const results = resultsOf(job);
const words = (stage: Parameters<typeof nextStep>[0], saved: readonly SavedLayout[] = [], of = job) =>
  nextStep(stage, of, resultsOf(of), saved);

describe("what comes next", () => {
  it("an empty job is drawn, whatever stage is open", () => {
    expect(words("shape", [], empty).stage).toBeNull();
    for (const stage of ["tally", "layout", "buy", "drawings", "floor"] as const)
      expect(words(stage, [], empty).stage).toBe("shape");
  });

  it("leads from stage to stage, and on each asks first for what is lacking there", () => {
    expect(results.tasks).toHaveLength(2);
    expect(words("shape")).toEqual({
      stage: "tally",
      words: `Tally: ${results.tally.rows.length} rows to look over`,
    });
    expect(words("tally")).toEqual({ stage: "layout", words: "Layout: 2 stocks to lay out" });
    expect(words("layout").words).toContain("2 stocks have no layout");
    expect(words("drawings").words).toContain("whole set");
    expect(words("buy")).toMatchObject({ stage: "drawings" });
    const broken = edited({ kind: "changeMembers", ids: ["front"], set: { roll: "1/0" } }, job);
    expect(words("shape", [], broken)).toMatchObject({ stage: null });
    expect(words("shape", [], broken).words).toContain("cannot be computed");
  });

  it("laid out it goes on to buying; changed since, to laying out again", () => {
    const saved = results.tasks.map((task): SavedLayout => {
      if (task.kind === "sheets")
        return savedLayout(
          task,
          layOutSheets(task.problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 2 }),
          1,
        );
      if (task.kind !== "bars") throw new Error("neither bars nor sheets");
      const unplaced = {
        bars: [],
        cost: null,
        count: 0,
        lowerBound: 0,
        lowerBoundOf: "count",
        proven: false,
        unplaced: [],
      } as const;
      return savedLayout(task, unplaced, 1);
    });
    expect(words("tally", saved).words).toBe("Layout: all is laid out");
    expect(words("layout", saved)).toMatchObject({ stage: "buy" });
    const longer = edited({ kind: "setKeySize", id: "size-width", formula: "650", variant: null }, job);
    expect(words("layout", saved, longer).words).toMatch(/^Lay out again: .* outdated$/);
    expect(words("tally", saved, longer).words).toMatch(/^Layout: \d stocks? to lay out$/);
  });
});
