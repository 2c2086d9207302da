/** Ends made free keep every piece as it was; what is freed no longer hangs on its neighbours. */
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { shelfBrackets } from "../../../demo/shelf-brackets";
import { demoStockroom } from "../../../demo/stockroom";
import {
  assemblyOf,
  doubleMitreEnd,
  homeOfMember,
  type Job,
  neighboursOf,
  newJob,
  resolveSizes,
  withEdit,
} from "../job";
import { sentence } from "../kernel";
import { resultsOf, STOCK } from "../pipeline.fixture";
import { stockroomOf } from "../stockroom";
import { endsAcross, endsOnOthers, freedEnds, shapeJob } from ".";

const stockroom = stockroomOf(demoStockroom);
const shapeOf = (job: Job) => shapeJob(job, resolveSizes(job, null), stockroom);
const rowsOf = (job: Job) => resultsOf(job, stockroom).tally.rows;

/** What a shop reads of the rows: names, counts, lengths and angles. */
const told = (job: Job) =>
  JSON.stringify(
    rowsOf(job).map(({ name, count, shown: { form } }) => [
      name,
      count,
      form.kind === "member"
        ? [
            toMicrons(form.cutNm),
            toMicrons(form.longestNm),
            form.ends.map((end) => JSON.stringify(end, rounded)),
          ]
        : null,
    ]),
  );
/** Angles are written with ten places, lengths with nine. */
const toMicrons = (nm: number) => Math.round(nm / 1000);
const rounded = (_: string, value: unknown) =>
  typeof value === "number" ? Math.round(value * 1e6) / 1e6 + 0 : value;

const done = (job: Job, edit: Parameters<typeof withEdit>[1]): Job => {
  const after = withEdit(job, edit);
  if (!after.ok) throw new Error(sentence(after.problem));
  return after.value;
};

describe.each([
  ["potting bench", pottingBench()],
  ["notice board", noticeBoard()],
  ["shelf brackets", shelfBrackets()],
])("the %s with its ends freed", (_, job) => {
  const all = new Set(Object.keys(job.members));
  const { edits, squared } = freedEnds(job, shapeOf(job), endsOnOthers(job, all));
  // Copes cannot be said by angles: those stay as they are here.
  const lost = new Set(squared.map(({ member, side }) => `${member} ${side}`));
  const kept = endsOnOthers(job, all).filter(({ member, side }) => !lost.has(`${member} ${side}`));
  const freed = done(job, { kind: "together", edits: [...freedEnds(job, shapeOf(job), kept).edits] });

  it("has the same rows, with the same lengths and angles", () => {
    expect(edits.length).toBeGreaterThan(0);
    expect(told(freed)).toBe(told(job));
  });

  it("has no end that hangs on another, but for those that are squared", () => {
    expect(endsOnOthers(freed, all)).toHaveLength(squared.length);
    for (const { member, side } of kept)
      expect(neighboursOf(freed.members[member]?.[side] as never)).toEqual([]);
  });
});

it("what is cut against pieces that stay outside can be made an assembly once those ends are free", () => {
  const job = pottingBench();
  const ids = Object.values(job.members).flatMap((member, i) =>
    homeOfMember(job, member) === null && i % 2 === 0 ? [member.id] : [],
  );
  const chosen = new Set<string>(ids);
  let count = 0;
  const make = (now: Job) =>
    assemblyOf(now, ids, { name: "Half", at: ["0", "0", "0"] }, (kind) => `${kind}${++count}`);
  const across = endsAcross(job, chosen);
  expect(across.length).toBeGreaterThan(0);
  const edit = make(job);
  expect(edit.ok && withEdit(job, edit.value)).toMatchObject({ ok: false });
  const { edits, squared } = freedEnds(job, shapeOf(job), across);
  const names = new Set(squared.map(({ member }) => job.members[member]?.name));
  const after = edit.ok ? done(job, { kind: "together", edits: [...edits, edit.value] }) : job;
  expect(Object.keys(after.assemblies)).toHaveLength(Object.keys(job.assemblies).length + 1);
  const lengths = (one: Job) =>
    rowsOf(one)
      .map(({ name, count: n, shown: { form } }) =>
        form.kind === "member" && !names.has(name) ? `${n} ${name} ${toMicrons(form.cutNm)}` : "",
      )
      .sort();
  expect(names).toEqual(new Set(["Hanging rail"]));
  expect(lengths(after)).toEqual(lengths(job));
});

it("double mitres are freed with both their planes: pieces stay as they are", () => {
  const stand = newJob({
    info: { code: "T", title: "Corner" },
    points: {
      J: ["0", "0", "0"],
      A: ["500", "0", "0"],
      B: ["0", "500", "0"],
      C: ["100", "50", "600"],
    },
    members: Object.fromEntries(
      (["a", "b", "c"] as const).map((id, i, ids) => [
        id,
        {
          name: `Arm ${id}`,
          from: "J",
          to: id.toUpperCase(),
          section: "tube",
          start: doubleMitreEnd(ids[(i + 1) % 3] ?? "a", ids[(i + 2) % 3] ?? "a", "2"),
        },
      ]),
    ),
  });
  const shape = shapeJob(stand, resolveSizes(stand, null), STOCK);
  const { edits, squared } = freedEnds(stand, shape, endsOnOthers(stand, new Set(["a", "b", "c"])));
  expect(squared).toEqual([]);
  const freed = done(stand, { kind: "together", edits: [...edits] });
  expect(Object.values(freed.members).map(({ start }) => start.kind)).toEqual([
    "twoAngles",
    "twoAngles",
    "twoAngles",
  ]);
  const rows = (job: Job) =>
    resultsOf(job).tally.rows.map(({ count, shown: { form } }) => [
      count,
      form.kind === "member" ? [toMicrons(form.cutNm), toMicrons(form.longestNm)] : null,
    ]);
  expect(rows(freed)).toEqual(rows(stand));
});
