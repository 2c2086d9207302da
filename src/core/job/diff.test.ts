/** What differs between documents is the same whether it is known from the edits or found by going through all records. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { countedRuns, lawRuns } from "../kernel/law-runs.fixture";
import { smallFrame } from "../pipeline.fixture";
import {
  applyDiff,
  applyEdit,
  type Diff,
  diffBetween,
  type Edit,
  type Job,
  newInsert,
  newPoint,
  reverseDiff,
  withEdit,
} from ".";
import { membersOnLines } from "./homes";
import { TABLES } from "./job";

/** By the texts of all records: nothing of how the tables came about. */
function differing(before: Job, after: Job): readonly string[] {
  const texts = (job: Job) =>
    new Map(
      TABLES.flatMap((table) =>
        Object.entries(job[table]).map(([id, record]) => [`${table}/${id}`, JSON.stringify(record)] as const),
      ),
    );
  const [from, to] = [texts(before), texts(after)];
  return [...new Set([...from.keys(), ...to.keys()])]
    .filter((key) => from.get(key) !== to.get(key))
    .map((key) => `${key} ${from.get(key)} ${to.get(key)}`)
    .sort();
}

const told = ({ added, updated, removed }: Diff): readonly string[] =>
  [
    ...added.map(({ table, record }) => `${table}/${record.id} undefined ${JSON.stringify(record)}`),
    ...updated.map(
      ({ table, from, to }) => `${table}/${to.id} ${JSON.stringify(from)} ${JSON.stringify(to)}`,
    ),
    ...removed.map(({ table, record }) => `${table}/${record.id} ${JSON.stringify(record)} undefined`),
  ]
    // A record that was set to what it is already is named, and says the same on both sides.
    .filter((line) => {
      const [, from, to] = line.split(/ (?=[{u])/);
      return from !== to;
    })
    .sort();

const member = fc.constantFrom("front", "back", "legRight", "odd");
const edits: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .tuple(member, fc.constantFrom("0", "45", "90"))
    .map(([id, roll]): Edit => ({ kind: "changeMembers", ids: [id as never], set: { roll } })),
  fc
    .tuple(member, member)
    .map(([a, b]): Edit => ({ kind: "changeMembers", ids: [a, b] as never[], set: { leftOut: true } })),
  fc
    .constantFrom("400", "410")
    .map((formula): Edit => ({ kind: "setKeySize", id: "size-width", formula, variant: null })),
  fc
    .constantFrom("0", "20")
    .map((x): Edit => ({ kind: "movePoints", points: [{ id: "A", at: [x, "20", "height"] }] })),
  member.map((id): Edit => ({ kind: "remove", ids: [id] })),
  fc.constantFrom(true, false).map((meant): Edit => ({ kind: "setMeant", id: "a check", meant })),
  fc.subarray(["back", "front"]).map(
    (drop): Edit => ({
      kind: "keepMarks",
      marks: ["back", "front"].map((id) => ({ id, mark: "A" })),
      drop,
    }),
  ),
  fc
    .constantFrom("P", "Q")
    .map((name): Edit => newInsert("Point", { points: [newPoint(name, name, ["1", "2", "3"])] })),
  // A record that goes and comes back within one edit stands last.
  fc.constant<Edit>({
    kind: "together",
    edits: [
      { kind: "setMeant", id: "a check", meant: false },
      { kind: "setMeant", id: "a check", meant: true },
    ],
  }),
  fc
    .constantFrom("A", "B", "E")
    .map((into): Edit => ({ kind: "joinPoints", from: "F", into: into as never })),
);

const start = smallFrame({
  members: { odd: { name: "Odd", from: "E", to: "F", section: "tube" } },
});

/** The documents after each edit that can be made, some of them taken back and done again. */
function documents(steps: readonly (readonly [Edit, boolean])[]): readonly Job[] {
  const jobs = [start];
  for (const [edit, back] of steps) {
    const before = jobs.at(-1) ?? start;
    const after = withEdit(before, edit);
    const diff = applyEdit(before, edit);
    if (!after.ok || !diff.ok) continue;
    // The server stores what the diff makes of the document; order counts in a table.
    expect(JSON.stringify(after.value)).toBe(JSON.stringify(applyDiff(before, diff.value)));
    jobs.push(after.value);
    if (back) jobs.push(applyDiff(after.value, reverseDiff(diffBetween(before, after.value))));
  }
  return jobs;
}

describe("the difference between two documents", () => {
  it("is what the texts of their records say, for any two on the way of any edits", () => {
    let changes = 0;
    const steps = fc.array(fc.tuple(edits, fc.boolean()), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(steps, (way) => {
        const jobs = documents(way);
        for (const before of jobs)
          for (const after of jobs) {
            const diff = diffBetween(before, after);
            expect(told(diff)).toEqual(differing(before, after));
            changes += diff.updated.length;
          }
      }),
      countedRuns(60),
    );
    expect(changes).toBeGreaterThan(lawRuns(60));
  });

  it("is read from the records that an edit put, and by going through all where that is not known", () => {
    const before = start;
    const after = withEdit(before, { kind: "changeMembers", ids: ["front"] as never[], set: { roll: "30" } });
    if (!after.ok) throw new Error("refused");
    let read = 0;
    const counting = (records: object) =>
      new Proxy(records, {
        ownKeys: (target) => {
          read++;
          return Reflect.ownKeys(target);
        },
      });
    expect(diffBetween(before, after.value).updated).toHaveLength(1);
    const unknown = { ...after.value, members: counting(after.value.members) as Job["members"] };
    expect(diffBetween(before, unknown).updated).toHaveLength(1);
    expect(read).toBe(1);
  });
});

describe("several changes of members as one edit", () => {
  it("give what each of them gives after the other, the same members too", () => {
    const sets = [{ roll: "45" }, { name: "Odd" }, { leftOut: true }, { roll: "90" }, { section: null }];
    const change = fc
      .tuple(fc.subarray(["front", "back", "odd"], { minLength: 1 }), fc.constantFrom(...sets))
      .map(([ids, set]) => ({ kind: "changeMembers" as const, ids: ids as never[], set }));
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 6 }), (changes) => {
        const together = withEdit(start, { kind: "together", edits: changes });
        const inTurn = changes.reduce((job, edit) => {
          const after = withEdit(job, edit);
          return after.ok ? after.value : job;
        }, start);
        expect(together).toEqual({ ok: true, value: inTurn });
      }),
      { numRuns: lawRuns(60) },
    );
  });

  it("are refused where one of them is", () => {
    const cut = (neighbour: string): Edit => ({
      kind: "together",
      edits: ["back", "front"].map((id) => ({
        kind: "changeMembers" as const,
        ids: [id as never],
        set: { end: { kind: "mitre", neighbour: neighbour as never } },
      })),
    });
    expect(withEdit(start, cut("right")).ok).toBe(true);
    expect(withEdit(start, cut("nobody"))).toMatchObject({ ok: false, problem: { kind: "missingRecord" } });
  });
});

describe("which members are on which lines", () => {
  const stampAfter = (edit: Edit, from = start) => {
    const after = withEdit(from, edit);
    if (!after.ok) throw new Error("refused");
    return membersOnLines(after.value.members);
  };

  it("is the same thing after an edit of other things, and another after one that brings, takes or moves members", () => {
    const stamp = membersOnLines(start.members);
    expect(stampAfter({ kind: "changeMembers", ids: ["front"] as never[], set: { name: "Odd" } })).toBe(
      stamp,
    );
    expect(stampAfter({ kind: "setKeySize", id: "size-width", formula: "410", variant: null })).toBe(stamp);
    expect(stampAfter({ kind: "remove", ids: ["front"] })).not.toBe(stamp);
    const moved = { ...start.members, front: { ...start.members["front"], line: "back-line" } };
    expect(membersOnLines(moved as unknown as Job["members"])).not.toBe(stamp);
  });
});
