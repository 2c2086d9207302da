/** Copies are the same pieces elsewhere, mirrored ones their mirror images; what is typed into lists goes where it is meant to. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Vec3 } from "../geometry";
import { at, sentence } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { picturedMeshes } from "../shape/mesh.fixture";
import {
  copyOfPieces,
  type Edit,
  type Job,
  type Member,
  mitreEnd,
  newJob,
  squareEnd,
  takenApart,
  withEdit,
} from ".";
import { edited, refusal } from "./edit.fixture";

let ids = 0;
const newId = (kind: string) => `${kind}-${++ids}`;
const must = (job: Job, edit: Edit): Job => {
  const after = withEdit(job, edit);
  if (!after.ok) throw new Error(sentence(after.problem));
  return after.value;
};
/** Corners of all solids as texts to a hundredth of a millimetre, in order. */
const corners = (job: Job, map: (p: Vec3) => Vec3 = (p) => p) =>
  picturedMeshes(resultsOf(job).shape)
    .flatMap(({ mesh }) =>
      mesh.vertices.map((p) =>
        map(p)
          .map((value) => (Math.round(value * 100) / 100 + 0).toFixed(2))
          .join(" "),
      ),
    )
    .sort();
const without = (all: readonly string[], some: readonly string[]) => {
  const rest = [...all];
  for (const one of some) {
    const found = rest.indexOf(one);
    if (found >= 0) rest.splice(found, 1);
  }
  return rest;
};

describe("copies of members", () => {
  const place = fc.integer({ min: -40, max: 40 }).map((n) => n * 10);
  const end = fc.tuple(place, place, place);
  const degrees = fc.constantFrom("0", "20", "-35", "lean");
  const freeEnd = fc.oneof(
    fc.constant(squareEnd("7")),
    fc.record({
      kind: fc.constant("angled" as const),
      acrossWidth: degrees,
      acrossHeight: degrees,
      offset: fc.constantFrom("0", "12"),
    }),
    fc.record({
      kind: fc.constant("pointed" as const),
      across: fc.constantFrom("width" as const, "height" as const),
      first: degrees,
      second: degrees,
      offset: fc.constantFrom("0", "-5"),
    }),
    fc.record({
      kind: fc.constant("twoAngles" as const),
      acrossWidth: degrees,
      acrossHeight: degrees,
      offset: fc.constantFrom("0", "12"),
      secondAcrossWidth: degrees,
      secondAcrossHeight: degrees,
      secondOffset: fc.constantFrom("0", "-5"),
    }),
  );
  const bar = (
    from: Vec3,
    to: Vec3,
    roll: number,
    cardinal: number,
    ends: Pick<Member, "start" | "end">,
  ): Job =>
    newJob({
      keySizes: { lean: { formula: "45", measure: "angle" } },
      info: { code: "T", title: "T" },
      points: { P: from.map(String) as never, Q: to.map(String) as never },
      members: {
        m: { name: "Bar", section: "lath", from: "P", to: "Q", roll: String(roll), cardinal, ...ends },
      },
    });

  it("mirrored across any plane they are the mirror image of the solid, plumb, level or leaning, rolled, off their line, with ends at angles, at two and to points", () => {
    const plumb = fc.tuple(end, fc.integer({ min: 1, max: 30 })).map(([[x, y, z], up]): [Vec3, Vec3] => [
      [x, y, z],
      [x, y, z + up * 10],
    ]);
    const level = fc.tuple(end, end).map(([[x, y, z], [a, b]]): [Vec3, Vec3] => [
      [x, y, z],
      [a, b, z],
    ]);
    const line = fc.oneof(plumb, level, fc.tuple(end, end));
    fc.assert(
      fc.property(
        line,
        fc.constantFrom(0 as const, 1 as const, 2 as const),
        fc.constantFrom(0, 30, 90, 200),
        fc.integer({ min: 1, max: 9 }),
        fc.record({ start: freeEnd, end: freeEnd }),
        ([from, to], axis, roll, cardinal, ends) => {
          fc.pre(Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]) > 200);
          const job = bar(from, to, roll, cardinal, ends);
          const edit = copyOfPieces(job, ["m"], { kind: "mirror", axis, plane: "25" }, newId);
          if (!edit.ok) throw new Error(sentence(edit.problem));
          const both = must(job, edit.value);
          const image = corners(
            job,
            (p) => p.map((value, i) => (i === axis ? 50 - value : value)) as unknown as Vec3,
          );
          expect(without(corners(both), corners(job))).toEqual(image);
        },
      ),
      { numRuns: lawRuns(120) },
    );
  });

  it("moved and repeated they stand a step further each time, cut against one another's copies", () => {
    const job = smallFrame();
    const ring = ["front", "right", "back", "left"];
    const edit = copyOfPieces(job, ring, { kind: "move", by: ["0", "0", "width"], times: 2 }, newId);
    if (!edit.ok) throw new Error(sentence(edit.problem));
    const after = must(job, edit.value);
    expect(Object.keys(after.members)).toHaveLength(6 + 8);
    const added = Object.values(after.members).filter(({ id }) => !job.members[id]);
    for (const member of added)
      for (const side of [member.start, member.end])
        if (side.kind === "mitre") expect(added.map(({ id }) => id)).toContain(side.neighbour);
    // By formula: a wider frame has its copies higher.
    const { tally } = resultsOf(
      edited({ kind: "setKeySize", id: "size-width", formula: "700", variant: null }, after),
    );
    expect(tally.rows.filter(({ name }) => name === "Rail").map(({ count }) => count)).toEqual([6]);
    const heights = Object.values(after.points).map((point) => point.at[2]);
    expect(heights).toContain("height + width");
    expect(heights).toContain("height + width * 2");
  });

  it("how many is a whole number up to 500, and something must be chosen", () => {
    const job = smallFrame();
    const why = (times: number, which = ["front"]) => {
      const edit = copyOfPieces(job, which, { kind: "move", by: ["1", "0", "0"], times }, newId);
      return edit.ok ? "" : sentence(edit.problem);
    };
    expect([why(1), why(500)]).toEqual(["", ""]);
    for (const times of [0, -1, 1.5, 501, Number.NaN])
      expect(why(times)).toContain("must be a whole number from 1 to 500");
    expect(why(1, [])).toContain("selection of pieces");
    // A fitting that is only counted stands nowhere, so there is nothing to copy.
    expect(why(1, ["screws"])).toContain("selection of pieces");
  });
});

describe("an assembly taken apart", () => {
  const job = newJob({
    info: { code: "T", title: "T" },
    assemblies: {
      box: {
        name: "Box",
        points: { P: ["0", "0", "0"], Q: ["300", "0", "0"], R: ["300", "200", "0"] },
        members: {
          one: { name: "One", section: "tube", from: "P", to: "Q", end: mitreEnd("two") },
          two: { name: "Two", section: "tube", from: "Q", to: "R", start: mitreEnd("one") },
        },
      },
    },
    placements: {
      first: { assembly: "box", at: ["10", "20", "30"] },
      second: { assembly: "box", at: ["0", "0", "500"] },
    },
  } as never);
  const apart = (from: Job, id: string) => {
    const edit = takenApart(from, id, newId);
    if (!edit.ok) throw new Error(sentence(edit.problem));
    return must(from, edit.value);
  };

  it("stays where another placement uses it, and goes with its last one; nothing moves", () => {
    const once = apart(job, "first");
    expect([Object.keys(once.placements), Object.keys(once.assemblies)]).toEqual([["second"], ["box"]]);
    expect(corners(once)).toEqual(corners(job));
    const twice = apart(once, "second");
    expect([Object.keys(twice.placements), Object.keys(twice.assemblies)]).toEqual([[], []]);
    expect(corners(twice)).toEqual(corners(job));
    expect(
      Object.values(twice.members).every(({ start, end }) =>
        [start, end].every((cut) => cut.kind !== "mitre" || twice.members[cut.neighbour]),
      ),
    ).toBe(true);
  });

  it("only one that stands plainly", () => {
    const why = (set: object) => {
      const turned = must(job, { kind: "changePlacements", ids: ["first" as never], set: set as never });
      const edit = takenApart(turned, "first", newId);
      return edit.ok ? "" : sentence(edit.problem);
    };
    expect(why({ turn: ["0", "0", "90"] })).toContain("rotated or mirrored");
    expect(why({ mirror: "width" })).toContain("rotated or mirrored");
    expect(why({ count: "2" })).toContain("repeated there");
    expect(why({ leftOut: true })).toContain("left out of the lists there");
    expect(why({ without: [1] })).toContain("left out of the lists there");
    expect(takenApart(job, "gone", newId).ok).toBe(false);
  });
});

describe("what is typed into lists", () => {
  const column = (id: string, kind: "text" | "number" = "text") =>
    ({
      kind: "setOwnColumn",
      column: { id: id as never, name: id, kind, choices: [], formula: null, forAll: null, position: 0 },
    }) as Edit;
  const cell = (id: string, own: string, records: readonly string[], text: string, summed = false) =>
    ({
      kind: "setCell",
      cell: {
        id: id as never,
        list: null,
        column: `own:${own}`,
        records: [...records],
        summed,
        text,
        computed: null,
      },
    }) as Edit;
  const start = [column("finish"), column("paint")].reduce<Job>(
    (job, edit) => edited(edit, job),
    smallFrame(),
  );
  const told = (job: Job) =>
    Object.fromEntries(
      Object.values(job.listCells).map(({ id, records, text }) => [id, `${text}: ${records.join(" ")}`]),
    );

  it("a later value takes its pieces from an earlier one of that column alone", () => {
    const job = [
      cell("a", "finish", ["front", "back", "left"], "oiled"),
      cell("b", "paint", ["front", "back"], "green"),
      cell("c", "finish", ["back"], "waxed"),
    ].reduce((all, edit) => edited(edit, all), start);
    expect(told(job)).toEqual({ a: "oiled: front left", b: "green: front back", c: "waxed: back" });
    const all = edited(cell("d", "finish", ["front", "left", "back"], "raw"), job);
    expect(told(all)).toEqual({ b: "green: front back", d: "raw: front left back" });
  });

  it("a value of a summed row and one of its pieces stand beside one another", () => {
    const job = [
      cell("a", "finish", ["front"], "oiled"),
      cell("s", "finish", ["front", "back"], "all oiled", true),
    ].reduce((all, edit) => edited(edit, all), start);
    expect(told(job)).toEqual({ a: "oiled: front", s: "all oiled: front back" });
  });

  it("is taken away for some pieces, for a column, or for all", () => {
    const job = [
      cell("a", "finish", ["front", "back"], "oiled"),
      cell("b", "paint", ["front"], "green"),
    ].reduce((all, edit) => edited(edit, all), start);
    const clear = (more: object) =>
      told(edited({ kind: "clearCells", list: null, column: null, records: null, ...more } as Edit, job));
    expect(clear({ column: "own:finish", records: ["front"] })).toEqual({
      a: "oiled: back",
      b: "green: front",
    });
    expect(clear({ records: ["front"] })).toEqual({ a: "oiled: back" });
    expect(clear({ column: "own:paint" })).toEqual({ a: "oiled: front back" });
    expect(clear({ list: "none" })).toEqual(told(job));
    expect(clear({})).toEqual({});
  });

  it("goes with a column that is removed, and with a piece that is", () => {
    const job = edited(cell("a", "finish", ["front", "back"], "oiled"), start);
    expect(told(edited({ kind: "removeOwnColumn", id: "finish" as never }, job))).toEqual({});
    expect(told(edited({ kind: "remove", ids: ["front"] }, job))).toEqual({ a: "oiled: back" });
    expect(refusal(cell("z", "none", ["front"], "x"), job)).toContain("none");
  });
});

it("removing a member leaves the ends that were cut against it square, and the lines that others use", () => {
  const after = edited({ kind: "remove", ids: ["left"] });
  expect(after.members["front"]?.start).toMatchObject({ kind: "square" });
  expect(after.members["back"]?.end).toMatchObject({ kind: "square" });
  expect(after.members["front"]?.end).toMatchObject({ kind: "mitre", neighbour: "right" });
  // Points D and A still carry the other rails.
  expect([at(Object.keys(after.points), 0), "D" in after.points, "left-line" in after.lines]).toEqual([
    "A",
    true,
    false,
  ]);
});
