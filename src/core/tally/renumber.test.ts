import { describe, expect, it } from "vitest";
import { type Job, newMember, type SimpleEdit } from "../job";
import { edited } from "../job/edit.fixture";
import { type Problem, type Result, sentence } from "../kernel";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { holdMark, letMarkGo, markPicked, type NumberRule, type PickRule, renumber } from ".";

const tallyOf = (job: Job) => resultsOf(job).tally;
/** As the desk does it: the marks that the tally gives out are kept with every edit. */
const kept = (job: Job): Job =>
  edited({ kind: "keepMarks", marks: [...tallyOf(job).newMarks], drop: [] }, job);
const done = (made: Result<SimpleEdit, Problem>, job: Job): Job => {
  if (!made.ok) throw new Error(sentence(made.problem));
  return kept(edited(made.value, job));
};
const marks = (job: Job) =>
  Object.fromEntries(tallyOf(job).rows.flatMap((row) => (row.mark === "" ? [] : [[row.name, row.mark]])));
const rowOf = (job: Job, name: string) => {
  const row = tallyOf(job).rows.find((one) => one.name === name);
  if (!row) throw new Error(`there is ${name}`);
  return row;
};
const rule = (more: Partial<NumberRule>): NumberRule => ({
  style: "letters",
  start: 1,
  step: 1,
  prefix: { member: "", panel: "", other: "" },
  order: "listed",
  ...more,
});
const job = kept(smallFrame());

describe("held marks", () => {
  it("stay with their row, are told, and go back to computed", () => {
    expect(marks(job)).toEqual({ Rail: "A", Leg: "B", "End rail": "C", Shelf: "D" });
    const held = done(holdMark(tallyOf(job), rowOf(job, "Leg"), "L-1"), job);
    expect([marks(held)["Leg"], rowOf(held, "Leg").held, rowOf(held, "Rail").held]).toEqual([
      "L-1",
      true,
      false,
    ]);
    const longer = edited({ kind: "setKeySize", id: "size-height", formula: "700", variant: null }, held);
    expect(marks(kept(longer))["Leg"]).toBe("L-1");
    const back = done({ ok: true, value: letMarkGo(rowOf(held, "Leg")) }, held);
    expect([marks(back)["Leg"], rowOf(back, "Leg").held]).toEqual(["E", false]);
  });

  it("win over the majority when rows become one", () => {
    // The single 430 long leg of its own holds its mark; turned equal to the two others, all three take it.
    const line = { id: "extra-line" as never, from: "E" as never, to: "F" as never };
    const odd = {
      ...job,
      lines: { ...job.lines, [line.id]: line },
      members: {
        ...job.members,
        extra: newMember("extra", line.id, { name: "Extra", from: "", to: "", section: "tube" }),
      },
    };
    const held = done(holdMark(tallyOf(kept(odd)), rowOf(kept(odd), "Extra"), "X"), kept(odd));
    const width = edited({ kind: "setKeySize", id: "size-width", formula: "470", variant: null }, held);
    // 470 − 40 between the points, square at both ends: 430, as long as the legs with their one butt.
    expect(marks(kept(width))).toMatchObject({ Leg: "X" });
  });

  it.each([
    ["A", "is that of Rail"],
    ["  ", "must have 1 to 12 letters"],
    ["a mark that is too long", "must have 1 to 12 letters"],
  ])("%s is refused with a sentence", (text, words) => {
    const made = holdMark(tallyOf(job), rowOf(job, "Leg"), text);
    expect(made.ok ? "" : sentence(made.problem)).toContain(words);
  });
});

describe("renumbering", () => {
  it("gives all made rows marks in the order of the list, in letters or numbers, by kind, from a start in steps", () => {
    expect(
      marks(done(renumber(job, tallyOf(job), rule({ style: "numbers", start: 10, step: 5 })), job)),
    ).toEqual({
      Rail: "10",
      Leg: "15",
      "End rail": "20",
      Shelf: "25",
    });
    const prefix = { member: "M", panel: "P-", other: "" };
    const byKind = done(renumber(job, tallyOf(job), rule({ style: "numbers", prefix })), job);
    expect(marks(byKind)).toEqual({ Rail: "M1", Leg: "M2", "End rail": "M3", Shelf: "P-1" });
    // A new row goes on in the series that most marks bear.
    const more = edited(
      { kind: "changeMembers", ids: ["legLeft"], set: { end: { kind: "square", offset: "5", past: null } } },
      byKind,
    );
    expect(Object.values(marks(kept(more)))).toContain("M4");
  });

  it("passes held marks over and leaves them", () => {
    const held = done(holdMark(tallyOf(job), rowOf(job, "Shelf"), "2"), job);
    expect(marks(done(renumber(held, tallyOf(held), rule({ style: "numbers" })), held))).toEqual({
      Rail: "1",
      Leg: "3",
      "End rail": "4",
      Shelf: "2",
    });
  });

  it.each([
    [{ start: 0 }, "The first number"],
    [{ step: 1.5 }, "The step"],
    [{ prefix: { member: "a long prefix", panel: "", other: "" } }, "more than 12 letters"],
  ])("refuses what makes no marks: %#", (more, words) => {
    const made = renumber(job, tallyOf(job), rule(more));
    expect(made.ok ? "" : sentence(made.problem)).toContain(words);
  });
});

describe("marks given by picking", () => {
  const picked = (from: Job, name: string, next: number, more: Partial<PickRule> = {}) => {
    const pick: PickRule = { style: "numbers", step: 5, prefix: "P", next, ...more };
    const made = markPicked(tallyOf(from), rowOf(from, name), pick);
    if (!made.ok) throw new Error(sentence(made.problem));
    return { job: kept(edited(made.value.edit, from)), next: made.value.next, mark: made.value.mark };
  };

  it("go on by the step, are held, and pass over what is held already", () => {
    const first = picked(job, "Shelf", 10);
    const second = picked(first.job, "Rail", first.next);
    expect([first.mark, second.mark, second.next]).toEqual(["P10", "P15", 20]);
    expect(marks(second.job)).toMatchObject({ Shelf: "P10", Rail: "P15" });
    expect(rowOf(second.job, "Rail").held).toBe(true);
    expect(picked(second.job, "Leg", 10).mark).toBe("P20");
  });

  it("take a mark from a row that does not hold it; that row gets the next free one", () => {
    const taken = picked(job, "Shelf", 1, { style: "letters", prefix: "", step: 1 });
    expect(marks(taken.job)).toEqual({ Rail: "D", Leg: "B", "End rail": "C", Shelf: "A" });
  });

  it("a bought part has none", () => {
    const pick: PickRule = { style: "numbers", step: 1, prefix: "", next: 1 };
    const made = markPicked(tallyOf(job), rowOf(job, "Feet"), pick);
    expect(made.ok ? "" : sentence(made.problem)).toContain("has no mark");
  });
});
