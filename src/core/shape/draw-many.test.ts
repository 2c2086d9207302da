/** Several members in one go are those that are drawn one by one, in one step back. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Edit, emptyJob, type Job, resolveSizes, withEdit } from "../job";
import { type Problem, type Result, sentence } from "../kernel";
import { countedRuns, lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import { type DrawPlace, type DrawSettings, drawLegs, drawMember, drawRectangle, drawRun } from ".";

const RAIL: DrawSettings = { name: "Rail", section: "tube", roll: "0", cardinal: 10 };
let count = 0;
const newId = (kind: string) => `${kind}-${++count}`;
const groundOf = (job: Job) => ({ job, sizes: resolveSizes(job, null), stockroom: STOCK });
const place = (...texts: [string, string, string]): DrawPlace => ({ point: null, texts });
const done = (job: Job, drawn: Result<{ readonly edit: Edit }, Problem>): Job => {
  const after = drawn.ok ? withEdit(job, drawn.value.edit) : drawn;
  if (!after.ok) throw new Error(sentence(after.problem));
  return after.value;
};
const rows = (job: Job) =>
  resultsOf(job).tally.rows.map(({ name, count: number, shown: { form } }) => [
    name,
    number,
    form.kind === "member" ? form.cutNm / 1e6 : 0,
  ]);
const EMPTY = emptyJob({ code: "T", title: "T" });

describe("several members in one go", () => {
  it("a rectangle and legs down from its corners make the frame worked out by hand", () => {
    // Centre lines 560 × 360 at 430, tubes of 40: 600 × 400 over all; legs butt under the ring, 410 long.
    const ring = done(
      EMPTY,
      drawRectangle(groundOf(EMPTY), place("0", "0", "430"), place("560", "360", "430"), RAIL, newId),
    );
    const points = Object.keys(ring.points);
    expect(points).toHaveLength(4);
    const legs = drawLegs(groundOf(ring), points, "0", { ...RAIL, name: "Leg" }, newId);
    const job = done(ring, legs);
    expect(rows(job)).toEqual([
      ["Rail", 2, 600],
      ["Leg", 4, 410],
      ["Rail", 2, 400],
    ]);
    const { tally, shape } = resultsOf(job);
    expect([tally.checks, shape.uncomputed]).toEqual([[], []]);
  });

  it("a run stands a step further each time, and follows a key size in the step", () => {
    const sized = done(EMPTY, {
      ok: true,
      value: {
        edit: {
          kind: "addKeySize",
          keySize: { id: "s", name: "gap", formula: "150", least: null, greatest: null, note: "" } as never,
        },
      },
    } as never);
    const run = drawRun(
      groundOf(sized),
      place("0", "0", "0"),
      place("800", "0", "0"),
      { count: 4, step: ["0", "gap", "0"] },
      RAIL,
      newId,
    );
    const job = done(sized, run);
    expect(rows(job)).toEqual([["Rail", 4, 800]]);
    expect([...new Set(Object.values(job.points).map(({ at }) => at[1]))]).toEqual([
      "0",
      "gap",
      "gap * 2",
      "gap * 3",
    ]);
  });

  it("says what is wrong with what it is given", () => {
    const ground = groundOf(EMPTY);
    const words = (result: Result<unknown, Problem>) => (result.ok ? "" : sentence(result.problem));
    expect(words(drawRectangle(ground, place("0", "0", "0"), place("500", "0", "0"), RAIL, newId))).toContain(
      "must differ from the first one in two",
    );
    expect(words(drawRectangle(ground, place("0", "0", "0"), place("5", "5", "5"), RAIL, newId))).toContain(
      "in those alone",
    );
    const run = { count: 1, step: ["0", "1", "0"] as const };
    expect(words(drawRun(ground, place("0", "0", "0"), place("9", "0", "0"), run, RAIL, newId))).toContain(
      "from 2 to 200",
    );
    expect(words(drawLegs(ground, ["gone"], "0", RAIL, newId))).toContain("nothing to draw from");
  });

  it("is what they are drawn one after the other, cut against what is there and against one another", () => {
    const way = fc.constantFrom(
      ["0", "100", "0"],
      ["0", "0", "50"],
      ["0", "width / 8", "0"],
      ["90", "0", "0"],
    );
    const from = fc.constantFrom(
      ["20", "20", "height"],
      ["20", "20", "100"],
      ["20", "60", "225"],
      ["300", "20", "height"],
    );
    const to = fc.constantFrom(
      ["width - 20", "20", "100"],
      ["width - 20", "60", "225"],
      ["300", "380", "height"],
    );
    let cuts = 0;
    fc.assert(
      fc.property(from, to, way, fc.integer({ min: 2, max: 6 }), (start, end, step, many) => {
        const job = smallFrame();
        const ids = () => {
          let last = 0;
          return (kind: string) => `${kind}-${++last}`;
        };
        const [a, b, by] = [start, end, step] as unknown as [string, string, string][];
        if (!a || !b || !by) throw new Error("three places");
        const run = drawRun(groundOf(job), place(...a), place(...b), { count: many, step: by }, RAIL, ids());
        const newIds = ids();
        let inTurn: Result<Job, Problem> = { ok: true, value: job };
        for (let n = 0; n < many && inTurn.ok; n++) {
          const at = (from: readonly string[]) =>
            place(
              ...(from.map((text, i) => (n === 0 ? text : `${text} + ${n} * (${by[i]})`)) as [
                string,
                string,
                string,
              ]),
            );
          const drawn = drawMember(groundOf(inTurn.value), at(a), at(b), RAIL, newIds);
          if (drawn.ok && drawn.value.edit.kind === "together") cuts += drawn.value.edit.edits.length - 1;
          inTurn = drawn.ok ? withEdit(inTurn.value, drawn.value.edit) : drawn;
        }
        const whole = run.ok ? withEdit(job, run.value.edit) : run;
        expect(whole.ok).toBe(inTurn.ok);
        // Texts of the points are written otherwise; everything else is the same, in the same order.
        const rest = (drawn: typeof whole) =>
          drawn.ok &&
          JSON.stringify([drawn.value.lines, drawn.value.members, Object.keys(drawn.value.points)]);
        expect(rest(whole)).toBe(rest(inTurn));
      }),
      countedRuns(40),
    );
    expect(cuts).toBeGreaterThan(lawRuns(40));
  });
});
