import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lawRuns } from "../kernel/law-runs.fixture";
import { createPipeline } from "../pipeline";
import { STOCK, smallFrame } from "../pipeline.fixture";
import { emptyJob, type Job, sharing, TABLES, withEdit } from ".";

const copied = (job: Job): Job => structuredClone(job);
const edited = (job: Job, name: string): Job => {
  const [member] = Object.values(job.members);
  const after = withEdit(job, { kind: "changeMembers", ids: member ? [member.id] : [], set: { name } });
  if (!after.ok) throw new Error("the edit applies");
  return after.value;
};

describe("a document that came from elsewhere", () => {
  it("is the very one from before where it says the same", () => {
    for (const job of [smallFrame(), emptyJob({ code: "T", title: "T", unit: "mm" })])
      expect(sharing(job, copied(job))).toBe(job);
  });

  it("says what it says, and shares every record and table that does not differ", () => {
    const job = smallFrame();
    const shared = sharing(job, copied(edited(job, "Other")));
    expect(shared).toEqual(edited(job, "Other"));
    expect(TABLES.filter((table) => shared[table] !== job[table])).toEqual(["members"]);
    const differ = Object.keys(job.members).filter((id) => shared.members[id] !== job.members[id]);
    expect(differ).toHaveLength(1);
  });

  it("has its own order of records, and lacks what was removed", () => {
    const job = smallFrame();
    const turned: Job = { ...job, members: Object.fromEntries(Object.entries(job.members).reverse()) };
    expect(Object.keys(sharing(job, copied(turned)).members)).toEqual(Object.keys(turned.members));
    const ids = Object.keys(job.members);
    const fewer: Job = { ...job, members: Object.fromEntries(Object.entries(job.members).slice(1)) };
    expect(Object.keys(sharing(job, copied(fewer)).members)).toEqual(ids.slice(1));
    expect(Object.keys(sharing(fewer, copied(job)).members)).toEqual(ids);
  });

  it("costs the pipeline only what differs", () => {
    const pipeline = createPipeline();
    const job = smallFrame();
    const before = pipeline(job, null, STOCK, []);
    const after = pipeline(sharing(job, copied(job)), null, STOCK, []);
    expect(after.shape).toBe(before.shape);
    expect(after.tally).toBe(before.tally);
  });

  it("holds for any names", () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 30 }),
        fc.string({ minLength: 1, maxLength: 30 }),
        (a, b) => {
          const [one, other] = [a, b].map((name) => `n${name}`);
          const [first, second] = [edited(smallFrame(), one ?? ""), edited(smallFrame(), other ?? "")];
          expect(sharing(first, copied(second))).toEqual(second);
        },
      ),
      { numRuns: lawRuns(100) },
    );
  });
});
