import { describe, expect, it } from "vitest";
import { sentence } from "../kernel";
import { smallFrame } from "../pipeline.fixture";
import { type Edit, withEdit } from ".";
import type { Job } from "./job";

function done(job: Job, edit: Edit): Job {
  const after = withEdit(job, edit);
  if (!after.ok) throw new Error(sentence(after.problem));
  return after.value;
}
const refusal = (job: Job, edit: Edit) => {
  const after = withEdit(job, edit);
  return after.ok ? "" : sentence(after.problem);
};

describe("how a job lays its stock out", () => {
  it("says otherwise than the stockroom field by field, and nothing stays when all is put back", () => {
    const own = done(smallFrame(), { kind: "setLayoutSetting", id: "tube", set: { kerf: 3, share: false } });
    expect(own.layoutSettings["tube"]).toMatchObject({ kerf: 3, share: false, grip: null });
    const less = done(own, { kind: "setLayoutSetting", id: "tube", set: { share: null } });
    expect(less.layoutSettings["tube"]).toMatchObject({ kerf: 3, share: null });
    const none = done(less, { kind: "setLayoutSetting", id: "tube", set: { kerf: null } });
    expect(none.layoutSettings).toEqual({});
  });

  it("keeps panels together that are there, each in one group", () => {
    const group = { id: "g1", name: "Shelves", panels: ["shelfLow", "shelfHigh"], along: "width" } as const;
    const set = (panels: string[], id = "g1"): Edit => ({
      kind: "setBlankGroup",
      group: { ...group, id, panels },
    });
    const job = done(smallFrame(), set([...group.panels]));
    expect(job.blankGroups["g1"]).toEqual(group);
    expect(refusal(job, set(["shelfLow", "shelfHigh"], "g2"))).toContain("already kept together in");
    expect(refusal(job, set(["shelfLow", "front"], "g3"))).toContain("front");
    const parted = done(job, { kind: "removeBlankGroup", id: "g1" });
    expect(parted.blankGroups).toEqual({});
  });

  it("a panel that is removed leaves its group, and a group of one is none", () => {
    const job = done(smallFrame(), {
      kind: "setBlankGroup",
      group: { id: "g1", name: "Shelves", panels: ["shelfLow", "shelfHigh"], along: "width" },
    });
    expect(done(job, { kind: "remove", ids: ["shelfLow"] }).blankGroups).toEqual({});
  });
});
