import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  type Job,
  meantId,
  newJob,
  newPoint,
  type PanelParts,
  squareEnd,
  type TypedPiece,
  withEdit,
} from "../job";
import { fromNm, seededRandom } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import { balances, indexOfMark, markOf, type Tally } from ".";

const tallyOf = (job: Job): Tally => resultsOf(job, STOCK).tally;
const facts = (tally: Tally) =>
  tally.rows.map(({ mark, name, count, hands, shown }) => ({
    mark,
    name,
    count,
    opposite: hands.opposite,
    size:
      shown.form.kind === "member"
        ? fromNm(shown.form.cutNm)
        : shown.form.kind === "panel"
          ? [fromNm(shown.form.lengthNm), fromNm(shown.form.widthNm)]
          : null,
  }));

/**
 * Cosine and sine of so many turns by the angle of the 3-4-5 triangle. Up to six of them, whole
 * millimetres come out in whole nanometres, to which typed coordinates are kept: nothing is rounded.
 */
function exactTurn(turns: number): [number, number] {
  let [c, s] = [1, 0];
  for (let i = 0; i < Math.abs(turns); i++) [c, s] = [3 * c - 4 * s, 4 * c + 3 * s];
  const scale = 5 ** Math.abs(turns);
  return [c / scale, (Math.sign(turns) * s) / scale + 0];
}

/** Laths along x, each of its own length, at its own place. */
function laths(lengths: readonly number[]): Job {
  return newJob({
    info: { code: "T-2", title: "Laths" },
    points: Object.fromEntries(
      lengths.flatMap((length, i) => [
        [`A${i}`, ["0", `${i * 100}`, "0"]],
        [`B${i}`, [`${length}`, `${i * 100}`, "0"]],
      ]),
    ),
    members: Object.fromEntries(
      lengths.map((_, i) => [
        `m${i}`,
        { name: "Lath", from: `A${i}`, to: `B${i}`, section: "lath", end: squareEnd() },
      ]),
    ),
  });
}

const typed = (id: string, rest: Partial<TypedPiece> = {}): TypedPiece =>
  ({
    id,
    name: "Typed",
    mark: null,
    quantity: 2,
    stockText: "tube",
    stock: "tube",
    material: null,
    leftOut: false,
    position: 0,
    kind: "member",
    length: 600,
    shape: null,
    angles: [0, 0],
    stand: null,
    ...rest,
  }) as TypedPiece;

describe("rows", () => {
  it("the small frame: rails, end rails and legs by hand, shelves twice, bought parts beside them", () => {
    // By hand: 600 and 400 over all; legs from 0 to the underside of the rails, 450 + 0 − 20.
    expect(facts(tallyOf(smallFrame()))).toEqual([
      { mark: "A", name: "Rail", count: 2, opposite: 0, size: 600 },
      { mark: "B", name: "Leg", count: 2, opposite: 0, size: 430 },
      { mark: "C", name: "End rail", count: 2, opposite: 0, size: 400 },
      { mark: "D", name: "Shelf", count: 2, opposite: 0, size: [520, 320] },
      { mark: "", name: "Screws", count: 121, opposite: 0, size: null },
      { mark: "", name: "Feet", count: 2, opposite: 0, size: null },
      { mark: "", name: "Chain", count: 2, opposite: 0, size: null },
    ]);
  });

  it("balances, with the batch, with pieces left out and with pieces that cannot be computed", () => {
    const job = smallFrame({
      info: { code: "T", title: "T", batch: 3 },
      members: {
        broken: { name: "Broken", from: "A", to: "A", section: "tube" },
        none: { name: "None", from: "E", to: "F", section: null },
      },
    });
    const left = withEdit(job, { kind: "changeMembers", ids: ["legLeft"], set: { leftOut: true } });
    const tally = tallyOf(left.ok ? left.value : job);
    expect(tally.balance).toEqual({
      design: 3 * (10 + 125),
      inRows: 3 * 9,
      bought: 3 * 125,
      leftOut: 3,
      guides: 0,
    });
    expect(balances(tally.balance)).toBe(true);
    expect(tally.rows.filter((row) => row.shown.why !== null).map((row) => row.name)).toEqual([
      "Broken",
      "None",
    ]);
    expect(tally.checks.filter((check) => check.severity === "error").map((check) => check.kind)).toEqual([
      "notComputed",
      "noSection",
    ]);
  });

  it("links within the tolerance are one row; the row shows its greatest length", () => {
    const tally = tallyOf(laths([500, 500.06, 499.98]));
    expect(facts(tally)).toEqual([{ mark: "A", name: "Lath", count: 3, opposite: 0, size: 500.06 }]);
  });

  it("a chain that creeps beyond the tolerance is parted, the same way whatever the order, and said", () => {
    const chain = [500, 500.08, 500.16, 500.24];
    const rows = (order: readonly number[]) =>
      tallyOf(laths(order)).rows.map((row) => [
        row.count,
        row.shown.form.kind === "member" ? fromNm(row.shown.form.cutNm) : 0,
      ]);
    const expected = [
      [2, 500.24],
      [2, 500.08],
    ];
    expect(rows(chain)).toEqual(expected);
    expect(rows([...chain].reverse())).toEqual(expected);
    expect(rows([500.16, 500, 500.24, 500.08])).toEqual(expected);
    expect(tallyOf(laths(chain)).checks.map((check) => check.kind)).toContain("spreadRow");
  });

  it("the majority is as drawn; the other hand is counted apart in the same row", () => {
    const side = (at: number, flip: boolean): PanelParts => ({
      name: "Side",
      board: "ply",
      material: null,
      origin: ["0", `${at}`, "0"],
      lengthAxis: ["1", "0", "0"],
      faceAxis: ["0", "0", "1"],
      length: "600",
      width: "400",
      when: null,
      grain: "length",
      goodFace: false,
      edging: { front: "band", back: null, left: null, right: null },
      work: [
        {
          id: "g",
          kind: "groove",
          face: "good",
          from: flip ? "right" : "left",
          distance: "50",
          width: "6",
          depth: "5",
          stopAtStart: "0",
          stopAtEnd: "0",
        },
      ],
    });
    const tally = tallyOf(
      newJob({
        info: { code: "T", title: "T" },
        panels: { a: side(0, true), b: side(500, false), c: side(1000, false) },
      }),
    );
    expect(tally.rows.map((row) => row.hands)).toEqual([{ asDrawn: 2, opposite: 1 }]);
    expect(tally.rows[0]?.pieces.find((piece) => piece.hand === "opposite")?.id).toBe("a");
  });

  it("material parts rows", () => {
    const changed = withEdit(smallFrame(), {
      kind: "changeMembers",
      ids: ["back"],
      set: { material: "S355" },
    });
    expect(
      changed.ok &&
        facts(tallyOf(changed.value))
          .filter((row) => row.name === "Rail")
          .map((row) => row.count),
    ).toEqual([1, 1]);
  });
});

describe("laws of the tally", () => {
  const shuffled = <T>(record: Readonly<Record<string, T>>, seed: number): Record<string, T> => {
    const random = seededRandom(seed);
    return Object.fromEntries(
      Object.entries(record)
        .map((entry) => [random.next(), entry] as const)
        .sort((a, b) => a[0] - b[0])
        .map(([, entry]) => entry),
    );
  };
  const partition = (tally: Tally) =>
    tally.rows
      .map((row) =>
        row.pieces
          .map((piece) => piece.id)
          .sort()
          .join(" "),
      )
      .sort();

  it("who shares a row does not depend on the order of the records", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 2, maxLength: 14 }),
        fc.integer(),
        (steps, seed) => {
          const job = laths(steps.map((step) => 500 + step * 0.04));
          const other = { ...job, members: shuffled(job.members, seed) };
          expect(partition(tallyOf(other))).toEqual(partition(tallyOf(job)));
        },
      ),
      { numRuns: lawRuns(60) },
    );
  });

  it("no row spreads beyond the tolerance, and every piece is in just one", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 1, maxLength: 20 }), (steps) => {
        const lengths = steps.map((step) => 500 + step * 0.03);
        const tally = tallyOf(laths(lengths));
        const seen = tally.rows.flatMap((row) => row.pieces.map((piece) => piece.id));
        expect([...seen].sort()).toEqual(lengths.map((_, i) => `m${i}`).sort());
        for (const row of tally.rows) {
          const own = row.pieces.map((piece) => lengths[Number(piece.id.slice(1))] ?? 0);
          expect(Math.max(...own) - Math.min(...own)).toBeLessThanOrEqual(0.1 + 1e-9);
        }
      }),
      { numRuns: lawRuns(80) },
    );
  });

  it("turning and moving the whole job changes nothing but its place", () => {
    fc.assert(
      fc.property(fc.integer({ min: -6, max: 6 }), fc.integer({ min: -900, max: 900 }), (turns, shift) => {
        const job = smallFrame();
        const { shape } = resultsOf(job);
        const [c, s] = exactTurn(turns);
        const points = Object.fromEntries(
          Object.values(job.points).map((point) => {
            const [x, y, z] = shape.points.get(point.id) ?? [0, 0, 0];
            const at = [c * x - s * y + shift, s * x + c * y - shift, z + 2 * shift].map((value) =>
              value.toFixed(6),
            ) as [string, string, string];
            return [point.id, { ...point, at }];
          }),
        );
        expect(facts(tallyOf({ ...job, points, panels: {} }))).toEqual(
          facts(tallyOf({ ...job, panels: {} })),
        );
      }),
      { numRuns: lawRuns(30) },
    );
  });

  it("a mirrored job has the same rows with all hands exchanged", () => {
    const job = newJob({
      info: { code: "T", title: "T" },
      points: {
        A: ["0", "0", "0"],
        B: ["500", "0", "0"],
        C: ["500", "300", "200"],
        D: ["-200", "150", "300"],
      },
      members: {
        ab: {
          name: "AB",
          from: "A",
          to: "B",
          section: "tube",
          start: { kind: "mitre", neighbour: "ad" as never },
          end: { kind: "mitre", neighbour: "bc" as never },
        },
        bc: { name: "BC", from: "B", to: "C", section: "tube" },
        ad: { name: "AD", from: "A", to: "D", section: "tube" },
      },
    });
    const mirrored = Object.fromEntries(
      Object.values(job.points).map((point) => [
        `${point.id}m`,
        {
          ...point,
          id: `${point.id}m` as never,
          at: [point.at[0], `0 - (${point.at[1]})`, point.at[2]] as [string, string, string],
        },
      ]),
    );
    const both: Job = {
      ...job,
      points: { ...job.points, ...mirrored },
      lines: {
        ...job.lines,
        ...Object.fromEntries(
          Object.values(job.lines).map((line) => [
            `${line.id}m`,
            { id: `${line.id}m` as never, from: `${line.from}m` as never, to: `${line.to}m` as never },
          ]),
        ),
      },
      members: {
        ...job.members,
        ...Object.fromEntries(
          Object.values(job.members).map((member) => [
            `${member.id}m`,
            {
              ...member,
              id: `${member.id}m` as never,
              line: `${member.line}m` as never,
              start:
                member.start.kind === "mitre" ? { kind: "mitre", neighbour: "adm" as never } : member.start,
              end: member.end.kind === "mitre" ? { kind: "mitre", neighbour: "bcm" as never } : member.end,
            },
          ]),
        ),
      },
    };
    const row = tallyOf(both).rows.find((one) => one.pieces.some((piece) => piece.id === "ab"));
    expect(row?.pieces.map((piece) => piece.id).sort()).toEqual(["ab", "abm"]);
    expect(row?.hands).toEqual({ asDrawn: 1, opposite: 1 });
  });
});

describe("marks", () => {
  it("run A … Z, AA …, and back", () => {
    expect([0, 25, 26, 27, 701, 702].map(markOf)).toEqual(["A", "Z", "AA", "AB", "ZZ", "AAA"]);
    for (const index of [0, 25, 26, 701, 702, 18_277]) expect(indexOfMark(markOf(index))).toBe(index);
    expect(indexOfMark("L-1")).toBeNull();
  });

  it("stay with the row that keeps most of its pieces; a new row gets a mark that was never used", () => {
    const job = smallFrame();
    const first = tallyOf(job);
    const kept = withEdit(job, { kind: "keepMarks", marks: [...first.newMarks], drop: [] });
    if (!kept.ok) throw new Error("marks are kept");
    expect(tallyOf(kept.value).newMarks).toEqual([]);
    // One leg becomes longer: the pair parts, the leg that stays keeps B by age, the other gets E.
    const parted = withEdit(kept.value, {
      kind: "changePoint",
      id: "F",
      set: { at: ["width - 20", "20", "0 - 30"] },
    });
    if (!parted.ok) throw new Error("the point moves");
    const rows = facts(tallyOf(parted.value)).filter((row) => row.name === "Leg");
    expect(rows.map(({ mark, size }) => [mark, size]).sort()).toEqual([
      ["B", 430],
      ["E", 460],
    ]);
    // Put back, they share B again.
    expect(facts(tallyOf(kept.value)).find((row) => row.name === "Leg")?.mark).toBe("B");
  });

  it("of a list are held; where two different rows claim one, the second is told", () => {
    const job = {
      ...smallFrame({ members: {}, panels: {} }),
      typedPieces: {
        a: typed("a", { mark: "R1" }),
        b: typed("b", { mark: "R1", length: 700, position: 1 } as Partial<TypedPiece>),
      },
    };
    const tally = tallyOf(job);
    expect(tally.rows.filter((row) => row.typed).map((row) => row.mark)).toContain("R1");
    expect(tally.checks.find((check) => check.kind === "markShared")?.message).toContain("R1");
  });
});

describe("near twins", () => {
  it("say the difference and offer to join the points that cause it", () => {
    const job = laths([500, 500, 502.5]);
    const withGuide: Job = {
      ...job,
      points: { ...job.points, G: newPoint("G", "G", ["500", "200", "0"]) },
    };
    const check = tallyOf(withGuide).checks.find((one) => one.kind === "nearTwins");
    expect(check?.message).toBe(
      "Marks B and A: 2 × Lath at 500 mm, 1 × Lath at 502.5 mm. Points B2 and G are 2.5 mm apart.",
    );
    expect(check?.fix).toEqual({
      label: "Join points",
      edit: { kind: "changePoint", id: "B2", set: { at: ["500", "200", "0"] } },
    });
    if (!check?.fix) throw new Error("there is a fix");
    const fixed = withEdit(withGuide, check.fix.edit);
    expect(fixed.ok && facts(tallyOf(fixed.value)).map((row) => row.count)).toEqual([3]);
  });

  it("are not asked about again once they are meant, and not at all from 5 mm on", () => {
    const job = laths([500, 502.5]);
    const meant = withEdit(job, { kind: "setMeant", id: meantId("A", "B"), meant: true });
    expect(meant.ok && tallyOf(meant.value).checks.filter((check) => check.kind === "nearTwins")).toEqual([]);
    expect(tallyOf(laths([500, 505])).checks.filter((check) => check.kind === "nearTwins")).toEqual([]);
    expect(tallyOf(laths([500, 504.9])).checks.filter((check) => check.kind === "nearTwins")).toHaveLength(1);
  });
});

describe("typed-in pieces", () => {
  it("never merge with drawn ones by themselves; it is said where they could", () => {
    const job: Job = {
      ...smallFrame(),
      typedPieces: {
        t: typed("t", { length: 600, angles: [45, 45], stand: "opposed" } as Partial<TypedPiece>),
      },
    };
    const tally = tallyOf(job);
    const rails = tally.rows.filter(
      (row) => row.shown.form.kind === "member" && fromNm(row.shown.form.cutNm) === 600,
    );
    expect(rails.map((row) => [row.typed, row.count])).toEqual([
      [false, 2],
      [true, 2],
    ]);
    expect(tally.checks.find((check) => check.kind === "typedLikeDrawn")?.marks).toEqual([
      rails[1]?.mark,
      rails[0]?.mark,
    ]);
    expect(balances(tally.balance)).toBe(true);
  });

  it("with two angles and no word how they stand are assumed opposed, and that is said", () => {
    const job: Job = {
      ...smallFrame(),
      typedPieces: { t: typed("t", { angles: [45, 30] } as Partial<TypedPiece>) },
    };
    expect(tallyOf(job).checks.find((check) => check.kind === "endCut")?.message).toContain(
      "opposed is assumed",
    );
  });
});
