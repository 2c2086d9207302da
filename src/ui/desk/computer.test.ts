/** Results from another thread: the same as those of the page, whatever is asked for while it computes, and whatever fails. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Answer, type Asked, createAnswering, type Inputs, isLarge } from "@/core/computing";
import { type Edit, type Job, newJob, type SimpleEdit, withEdit } from "@/core/job";
import { createPipeline, type Results } from "@/core/pipeline";
import { STOCK, smallFrame } from "@/core/pipeline.fixture";
import { EMPTY_RACK } from "@/core/stockroom";
import type { ThreadStart } from "../common/thread";
import { createRemoteComputer, type GivenMarks } from "./computer";

const START = smallFrame();
const NO_LAYOUTS: Inputs["layouts"] = [];
const inputsOf = (job: Job): Inputs => ({
  job,
  variant: null,
  stockroom: STOCK,
  layouts: NO_LAYOUTS,
  rack: EMPTY_RACK,
});
const resultsOf = (job: Job): Results => createPipeline()(job, null, STOCK, []);
const edited = (job: Job, edit: Edit): Job => {
  const after = withEdit(job, edit);
  if (!after.ok) throw new Error("the edit applies");
  return after.value;
};
const [width] = Object.values(START.keySizes);
const sized = (job: Job, mm: number) =>
  edited(job, { kind: "setKeySize", id: width?.id ?? "", formula: String(mm), variant: null });

const must = <T>(value: T | null | undefined): T => {
  if (value === null || value === undefined) throw new Error("it is there");
  return value;
};

/** The small frame with thousands of feet. */
const LARGE: Job = {
  ...START,
  boughtParts: newJob({
    info: { code: "T", title: "T" },
    boughtParts: Object.fromEntries(
      Array.from({ length: 4_000 }, (_, i) => [`f${i}`, { name: `Foot ${i}`, entry: "foot", count: "1" }]),
    ),
  }).boughtParts,
};
const { sectionById: _s, boardById: _b, edgingById: _e, boughtById: _p, ...STOCK_DATA } = STOCK;
/** Results of a large job, which would be compared for minutes otherwise. */
const asText = ({ shape, tally, quantities, cutList }: Results) =>
  JSON.stringify([shape.members, shape.checks, shape.bought, tally.rows, quantities, cutList]);

const bytesOf = (job: Job): ArrayBuffer =>
  new TextEncoder().encode(
    JSON.stringify({ opened: { job, layouts: [], rack: EMPTY_RACK, revision: 7 }, stockroom: STOCK_DATA }),
  ).buffer as ArrayBuffer;

/** A thread in this one, that answers when it is told to; each start may be one that fails at its first message. */
function threads(fails: readonly boolean[] = []) {
  const asked: Asked[] = [];
  let answer: (() => void) | null = null;
  let starts = 0;
  const start: ThreadStart<Asked, Answer> = (onAnswer, onFailed) => {
    const failing = fails[starts++] ?? false;
    const answering = createAnswering((bytes) => new TextDecoder().decode(bytes));
    return {
      post: (message, moved = []) => {
        asked.push(message);
        const copy = structuredClone(message, { transfer: [...moved] });
        answer = () => (failing ? onFailed() : onAnswer(structuredClone(answering(copy))));
      },
      end: () => undefined,
    };
  };
  const settle = async () => {
    for (let i = 0; i < 20 && answer; i++) {
      const now = answer;
      answer = null;
      now();
      // Unpacking and what follows it are promises that are settled by then.
      await new Promise((resolve) => setTimeout(resolve, 0));
    }
  };
  return { asked, start, settle, starts: () => starts };
}

function open(start: ThreadStart<Asked, Answer>) {
  const told: { results: Results; newest: boolean }[] = [];
  const computer = createRemoteComputer({ start, rest: () => Promise.resolve(), now: () => 0 });
  computer.onResults = (results, newest) => told.push({ results, newest });
  return { computer, told };
}

describe("results from another thread", () => {
  it("are those of the page, and come later", async () => {
    const { start, settle } = threads();
    const { computer, told } = open(start);
    expect(computer.compute(inputsOf(START))).toBeNull();
    await settle();
    expect(told).toStrictEqual([{ results: resultsOf(START), newest: true }]);
    // Asked for again they are there.
    expect(computer.compute(inputsOf(START))).toBe(told[0]?.results);
  });

  it("are asked for by what changed, and only the newest of what was asked for meanwhile", async () => {
    const { start, settle, asked } = threads();
    const { computer, told } = open(start);
    computer.compute(inputsOf(START));
    const after = [1010, 1020, 1030].map((mm) => sized(START, mm));
    for (const job of after) computer.compute(inputsOf(job));
    await settle();
    expect(told.map(({ newest }) => newest)).toEqual([false, true]);
    expect(told[1]?.results).toStrictEqual(resultsOf(after[2] ?? START));
    expect(asked).toHaveLength(2);
    expect(asked[1]?.job).toBeUndefined();
    expect(asked[1]?.diff?.updated).toHaveLength(1);
    expect(asked[1]?.stockroom).toBeUndefined();
  });

  it("bring the marks that an edit gives out, with results of the document that has them", async () => {
    const { start, settle } = threads();
    const { computer, told } = open(start);
    let given: GivenMarks = null;
    let now = START;
    computer.onMarks((marks) => {
      given = marks;
      now = marks?.job ?? now;
      computer.compute(inputsOf(now));
    });
    computer.compute(inputsOf(START));
    await settle();
    const { edit, from } = given as unknown as { edit: SimpleEdit; from: Job };
    expect(from).toBe(START);
    expect(edit.kind).toBe("keepMarks");
    expect(resultsOf(now).tally.newMarks).toEqual([]);
    // Whoever took the marks asked for the document with them, and had its results at once.
    expect(told).toEqual([]);
    expect(computer.compute(inputsOf(now))).toStrictEqual(resultsOf(now));
  });

  it("give the marks of several edits that were made meanwhile to the last of them", async () => {
    const { start, settle } = threads();
    const { computer } = open(start);
    computer.compute(inputsOf(START));
    const given: GivenMarks[] = [];
    for (const mm of [1010, 1020]) {
      computer.onMarks((marks) => given.push(marks));
      computer.compute(inputsOf(sized(START, mm)));
    }
    await settle();
    expect(given.map((marks) => marks?.edit.kind ?? null)).toEqual([null, "keepMarks"]);
  });

  it("are right whatever order edits and answers come in", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.oneof(fc.integer({ min: 500, max: 1200 }), fc.constant("settle" as const)), {
          minLength: 1,
          maxLength: 8,
        }),
        async (steps) => {
          const { start, settle } = threads();
          const { computer, told } = open(start);
          let now = START;
          computer.compute(inputsOf(now));
          for (const step of steps) {
            if (step === "settle") await settle();
            else {
              now = sized(now, step);
              computer.onMarks((marks) => {
                if (!marks) return;
                now = marks.from === now ? marks.job : edited(now, marks.edit);
                computer.compute(inputsOf(now));
              });
              computer.compute(inputsOf(now));
            }
          }
          await settle();
          const shown = computer.compute(inputsOf(now)) ?? told.at(-1)?.results;
          expect(shown).toStrictEqual(resultsOf(now));
          expect(shown?.tally.newMarks).toEqual(resultsOf(now).tally.newMarks);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("survive a thread that ends; after the second the page computes itself", async () => {
    const once = threads([true, false]);
    const first = open(once.start);
    first.computer.compute(inputsOf(START));
    await once.settle();
    expect(first.told).toStrictEqual([{ results: resultsOf(START), newest: true }]);
    expect(once.starts()).toBe(2);

    const twice = threads([true, true]);
    const second = open(twice.start);
    const given: GivenMarks[] = [];
    second.computer.onMarks((marks) => given.push(marks));
    second.computer.compute(inputsOf(START));
    await twice.settle();
    expect(second.told).toStrictEqual([{ results: resultsOf(START), newest: true }]);
    expect(given.map((marks) => marks?.edit.kind)).toEqual(["keepMarks"]);
    const after = sized(START, 1134);
    expect(second.computer.compute(inputsOf(after))).toStrictEqual(resultsOf(after));
    expect(second.computer.marksOf).not.toBeNull();
  });

  it("come with the job itself, where its text is read there: the same records in both, and edits go on from it", async () => {
    const { start, settle, asked } = threads();
    const { computer, told } = open(start);
    const opening = computer.open(bytesOf(LARGE));
    await settle();
    const there = await opening;
    expect(there?.found).toStrictEqual(JSON.parse(new TextDecoder().decode(bytesOf(LARGE))));
    const job = must(there).found.opened.job;
    const { results, stockroom } = must(there?.computed);
    expect(asText(results)).toBe(asText(resultsOf(job)));
    expect(results.shape.members.every(({ member }) => job.members[member.id] === member)).toBe(true);
    const now = { ...inputsOf(job), ...must(there).found.opened, stockroom };
    const inputs: Inputs = { ...now, variant: null };
    expect(computer.compute(inputs)).toBe(results);
    const after = sized(job, 1134);
    expect(computer.compute({ ...inputs, job: after })).toBeNull();
    await settle();
    expect(told.map(({ newest }) => newest)).toEqual([true]);
    expect(asText(must(told[0]).results)).toBe(asText(resultsOf(after)));
    // The thread was told what changed, and nothing that it has.
    expect(asked).toHaveLength(2);
    expect(asked[1]?.diff?.updated).toHaveLength(1);
    expect(Object.keys(asked[1] ?? {}).sort()).toEqual(["diff", "keepMarks", "number"]);
  });

  it("are left to the page where the job is small; a thread that ends says so", async () => {
    const small = threads();
    const { computer } = open(small.start);
    const opening = computer.open(bytesOf(START));
    await small.settle();
    expect((await opening)?.computed).toBeNull();
    expect((await opening)?.found.opened.job).toStrictEqual(JSON.parse(JSON.stringify(START)));
    const failing = threads([true]);
    const broken = open(failing.start).computer.open(bytesOf(LARGE));
    await failing.settle();
    expect(await broken).toBeNull();
  });

  it("are for jobs of thousands of pieces only", () => {
    expect(isLarge(START)).toBe(false);
    const [member] = Object.values(START.members);
    const many = Object.fromEntries(Array.from({ length: 4_000 }, (_, i) => [`m${i}`, member]));
    expect(isLarge({ ...START, members: many as Job["members"] })).toBe(true);
  });
});
