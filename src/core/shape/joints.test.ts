/** Proposed end cuts, and mirrored copies looked at as solids: each must be the mirror image of the first. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Mesh, Vec3 } from "../geometry";
import {
  type Axis,
  copyOfPieces,
  type Groove,
  type Job,
  neighboursOf,
  newJob,
  newPanel,
  resolveSizes,
  withEdit,
} from "../job";
import { sentence } from "../kernel";
import { countedRuns, lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK, STOCK_DATA, smallFrame } from "../pipeline.fixture";
import { type SectionShape, stockroomOf } from "../stockroom";
import { cutsByRule, editsOfCuts, type JointRule, shapeJob, snapLines, snapPlaces } from ".";
import { PROPOSED_RULE, proposedCuts } from "./joints";
import { meshOf } from "./mesh.fixture";

const allOf = (job: Job) => new Set(Object.keys(job.members));
const inStock = (job: Job, stockroom = STOCK) => ({ sizes: resolveSizes(job, null), stockroom });
const words = (job: Job, stockroom = STOCK) =>
  Object.fromEntries(
    proposedCuts(job, allOf(job), inStock(job, stockroom)).map(({ member, side, cut }) => {
      const kind = cut.kind === "square" && cut.past !== null ? "past" : cut.kind;
      return [`${member} ${side}`, `${kind} ${neighboursOf(cut).join(" ")}`.trim()];
    }),
  );

/** Members between named points, all square to begin with. */
function sticks(
  points: Readonly<Record<string, readonly [string, string, string]>>,
  members: Readonly<Record<string, readonly [string, string, string?]>>,
): Job {
  return newJob({
    info: { code: "T", title: "T" },
    points,
    members: Object.fromEntries(
      Object.entries(members).map(([id, [from, to, section]]) => [
        id,
        { name: id, from, to, section: section ?? "tube" },
      ]),
    ),
  });
}

describe("proposed end cuts", () => {
  const corner = {
    A: ["0", "0", "0"],
    B: ["600", "0", "0"],
    C: ["600", "400", "0"],
    D: ["600", "0", "-500"],
    M: ["300", "0", "0"],
    N: ["300", "400", "0"],
  } as const;

  it("two level ends of one section mitre", () => {
    expect(words(sticks(corner, { ab: ["A", "B"], bc: ["B", "C"] }))).toEqual({
      "ab end": "mitre bc",
      "bc start": "mitre ab",
    });
  });

  it("with a leg under the corner the level ones mitre and the leg butts", () => {
    expect(words(sticks(corner, { leg: ["D", "B"], ab: ["A", "B"], bc: ["B", "C"] }))).toEqual({
      "ab end": "mitre bc",
      "bc start": "mitre ab",
      "leg end": "butt ab",
    });
  });

  it("what ends on a member that runs through butts against it; in line nothing is cut", () => {
    expect(words(sticks(corner, { ab: ["A", "B"], mn: ["M", "N"] }))).toEqual({ "mn start": "butt ab" });
    expect(words(sticks({ ...corner, E: ["900", "0", "0"] }, { ab: ["A", "B"], be: ["B", "E"] }))).toEqual(
      {},
    );
  });

  it("what ends a hair beside the line of another butts against it too; what ends beside it does not", () => {
    const beside = (y: string) =>
      words(sticks({ ...corner, M: ["300", y, "0"] }, { ab: ["A", "B"], mn: ["M", "N"] }));
    expect(beside("0.0005")).toEqual({ "mn start": "butt ab" });
    expect(beside("0.01")).toEqual({});
    expect(beside("30")).toEqual({});
    // However long the other is.
    const long = { ...corner, B: ["60000", "0", "0"], M: ["300", "0.0005", "0"] } as const;
    expect(words(sticks(long, { ab: ["A", "B"], mn: ["M", "N"] }))).toEqual({ "mn start": "butt ab" });
  });

  it("unlike sections do not mitre: the deeper one (45 against 40) runs past, the other butts", () => {
    expect(words(sticks(corner, { ab: ["A", "B"], bc: ["B", "C", "lath"] }))).toEqual({
      "ab end": "butt bc",
      "bc start": "past ab",
    });
  });

  it("give the small frame the cuts that were given to it by hand, and touch no end that somebody chose", () => {
    const job = smallFrame();
    expect(proposedCuts(job, new Set(["front"]), inStock(job))).toEqual([]);
    const bare: Job = {
      ...job,
      members: Object.fromEntries(
        Object.entries(job.members).map(([id, member]) => [
          id,
          {
            ...member,
            start: { kind: "square", offset: "0", past: null },
            end: { kind: "square", offset: "0", past: null },
          },
        ]),
      ),
    };
    const set = proposedCuts(bare, allOf(bare), inStock(bare));
    const cut = { ...bare, members: { ...bare.members } };
    for (const { member, side, cut: to } of set)
      cut.members[member] = { ...(cut.members[member] as Job["members"][string]), [side]: to };
    expect(
      resultsOf(cut).tally.rows.map((row) => [
        row.name,
        row.count,
        row.shown.form.kind === "member" ? row.shown.form.cutNm / 1e6 : null,
      ]),
    ).toEqual(
      resultsOf(job).tally.rows.map((row) => [
        row.name,
        row.count,
        row.shown.form.kind === "member" ? row.shown.form.cutNm / 1e6 : null,
      ]),
    );
    const chosen = {
      ...bare,
      members: {
        ...bare.members,
        front: {
          ...(bare.members["front"] as Job["members"][string]),
          start: { kind: "square", offset: "5", past: null } as const,
        },
      },
    };
    expect(
      proposedCuts(chosen, new Set(["left"]), inStock(chosen)).some(({ member }) => member === "front"),
    ).toBe(false);
  });
});

describe("snap places", () => {
  it("are points, shares of lines and corners of panels, with texts that follow the key sizes", () => {
    const job = smallFrame();
    const places = snapPlaces(job, resultsOf(job).shape);
    expect(places.find((place) => place.point === "B")?.at).toEqual([580, 20, 450]);
    expect(places.find((place) => place.words() === "middle of Rail")?.texts()).toEqual(
      ["20 + ((width - 20) - 20) * 0.5", "20", "height"].map(() => expect.any(String)),
    );
    const { scope, unit } = resolveSizes(job, null);
    expect([scope.get("width"), unit]).toEqual([600, "mm"]);
    const corners = places.filter((place) => place.words() === "corner of Shelf");
    expect(corners).toHaveLength(16);
    expect(corners.map((place) => place.at)).toContainEqual([560, 360, 118]);
  });

  it("are there for every line, however many", () => {
    const many = Array.from({ length: 2_050 }, (_, i) => i);
    const job = newJob({
      info: { code: "T", title: "T" },
      points: Object.fromEntries(many.map((i) => [`P${i}`, [`${40 * i}`, "0", "0"] as const])),
      members: Object.fromEntries(
        many
          .slice(1)
          .map((i) => [`m${i}`, { name: `M${i}`, from: `P${i - 1}`, to: `P${i}`, section: "tube" }]),
      ),
    });
    const { shape } = resultsOf(job);
    const middle = snapPlaces(job, shape).find((place) => place.words() === "middle of M2049");
    expect([middle?.at, middle?.texts()]).toEqual([
      [81_940, 0, 0],
      ["81940", "0", "0"],
    ]);
    expect(snapLines(job, shape).map(({ words }) => words)).toContain("M2049");
  });
});

const SHAPES: readonly SectionShape[] = [
  { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  { kind: "rectangularTube", size: [60, 40, 3], corners: "coldFormed" },
  { kind: "equalAngle", size: [30, 30, 3], rootRadius: 5 },
  { kind: "unequalAngle", size: [40, 20, 4], rootRadius: 4 },
  { kind: "channel", size: [80, 45, 6, 8] },
];
const stockroom = stockroomOf({
  ...STOCK_DATA,
  sections: SHAPES.map((shape, i) => ({
    ...(STOCK_DATA.sections[0] as (typeof STOCK_DATA.sections)[number]),
    id: `s${i}`,
    name: `s${i}`,
    shape,
  })),
});

/** Whether the vertices of two meshes are mirror images of one another. */
function expectMirrored(first: Mesh, second: Mesh, axis: Axis, plane: number): void {
  const reflected = first.vertices.map(
    (vertex): Vec3 =>
      [0, 1, 2].map((i) => (i === axis ? 2 * plane - (vertex[i] ?? 0) : (vertex[i] ?? 0))) as unknown as Vec3,
  );
  expect(second.vertices.length).toBe(reflected.length);
  for (const vertex of reflected) {
    const nearest = Math.min(
      ...second.vertices.map((other) =>
        Math.hypot(other[0] - vertex[0], other[1] - vertex[1], other[2] - vertex[2]),
      ),
    );
    expect(nearest).toBeLessThan(1e-6);
  }
}

describe("mirrored copies", () => {
  it("of members are the mirror image as solids, for every section, roll and place on the line", () => {
    const place = fc.tuple(
      fc.integer({ min: -400, max: 400 }),
      fc.integer({ min: -400, max: 400 }),
      fc.integer({ min: -400, max: 400 }),
    );
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: SHAPES.length - 1 }),
        place,
        place,
        fc.constantFrom(0, 30, 90, 180),
        fc.integer({ min: 1, max: 10 }),
        fc.constantFrom<Axis>(0, 1, 2),
        fc.boolean(),
        (shape, a, b, roll, cardinal, axis, plumb) => {
          const to: readonly [number, number, number] = plumb ? [a[0], a[1], a[2] + 300] : b;
          fc.pre(Math.hypot(to[0] - a[0], to[1] - a[1], to[2] - a[2]) > 60);
          // Nearly plumb lines take another reference; the text of the mirrored roll cannot see that.
          fc.pre(plumb || Math.hypot(to[0] - a[0], to[1] - a[1]) > 20);
          const text = (p: readonly number[]) => p.map(String) as unknown as [string, string, string];
          const job = newJob({
            info: { code: "T", title: "T" },
            points: { A: text(a), B: text(to) },
            members: {
              m: { name: "m", from: "A", to: "B", section: `s${shape}`, roll: String(roll), cardinal },
            },
          });
          let count = 0;
          const edit = copyOfPieces(
            job,
            ["m"],
            { kind: "mirror", axis, plane: "75" },
            (kind) => `${kind}${++count}`,
          );
          if (!edit.ok) throw new Error(sentence(edit.problem));
          const after = withEdit(job, edit.value);
          if (!after.ok) throw new Error(sentence(after.problem));
          const copied = shapeJob(after.value, resolveSizes(after.value, null), stockroom);
          const [first, second] = [meshOf(copied, "m"), meshOf(copied, edit.value.members[0]?.id ?? "")];
          if (!first || !second) throw new Error("both are computed");
          expectMirrored(first, second, axis, 75);
        },
      ),
      { numRuns: lawRuns(150) },
    );
  });

  it("of panels are the mirror image, grooves and stops included, and the opposite hand in the tally", () => {
    const groove: Groove = {
      id: "g",
      kind: "groove",
      face: "good",
      from: "front",
      distance: "40",
      width: "6",
      depth: "5",
      stopAtStart: "30",
      stopAtEnd: "0",
    };
    const cross: Groove = {
      ...groove,
      id: "h",
      from: "left",
      distance: "100",
      stopAtStart: "20",
      stopAtEnd: "50",
    };
    const axes = [
      ["1", "0", "0"],
      ["0", "1", "0"],
      ["0", "0", "1"],
      ["0", "-1", "0"],
    ] as const;
    for (const axis of [0, 1, 2] as const) {
      for (const lengthAxis of axes) {
        for (const faceAxis of axes.filter((one) =>
          one.every((part, i) => part === "0" || lengthAxis[i] === "0"),
        )) {
          const panel = newPanel("p", {
            name: "p",
            board: "ply",
            origin: ["10", "20", "width"],
            lengthAxis,
            faceAxis,
            length: "width",
            width: "200",
            goodFace: true,
            edging: { front: "band" },
            work: [groove, cross],
          });
          const job = {
            ...newJob({ info: { code: "T", title: "T" }, keySizes: { width: { formula: "300" } } }),
            panels: { p: panel },
          };
          let count = 0;
          const edit = copyOfPieces(
            job,
            ["p"],
            { kind: "mirror", axis, plane: "width + 100" },
            (kind) => `${kind}${++count}`,
          );
          if (!edit.ok) throw new Error(sentence(edit.problem));
          const after = withEdit(job, edit.value);
          if (!after.ok) throw new Error(sentence(after.problem));
          const { shape, tally } = resultsOf(after.value);
          const [first, second] = [meshOf(shape, "p"), meshOf(shape, edit.value.panels[0]?.id ?? "")];
          if (!first || !second) throw new Error("both are computed");
          expectMirrored(first, second, axis, 400);
          expect(tally.rows.map((row) => row.hands)).toEqual([{ asDrawn: 1, opposite: 1 }]);
        }
      }
    }
  });
});

describe("joints by a rule", () => {
  const ring = smallFrame();
  const ids = new Set(["front", "right", "back", "left"]);
  const cutBy = (rule: Partial<JointRule>) => {
    const ground = { sizes: resolveSizes(ring, null), stockroom: STOCK };
    const cuts = cutsByRule(ring, ids, { ...PROPOSED_RULE, ...rule }, ground);
    const after = withEdit(ring, { kind: "together", edits: [...editsOfCuts(cuts)] });
    if (!after.ok) throw new Error(sentence(after.problem));
    const solids = resultsOf(after.value).shape.members.filter(({ member }) => ids.has(member.id));
    return Object.fromEntries(solids.map(({ member, lengths }) => [member.id, lengths.cut]));
  };

  it("mitred with a root gap, each of two stands back by half of it, square to the mitre", () => {
    // 600 × 400 over all; at 45° half a gap square to the mitre is gap/2 · √2 along the tube, at either end.
    const short = 2 * (3 / 2) * Math.SQRT2;
    const lengths = cutBy({ gap: "3" });
    expect(lengths["front"]).toBeWithinMm(600 - short, 1e-9);
    expect(lengths["left"]).toBeWithinMm(400 - short, 1e-9);
  });

  it("butted, the member that runs through has the length over all, the other stands between with its gap", () => {
    const lengths = cutBy({ corners: "butt", through: { member: "front" }, gap: "2" });
    // By hand, from 560 and 360 between the points: 20 past a corner, 20 + 2 short of a face. At the two rear corners
    // the earlier drawn one runs through.
    expect(lengths["front"]).toBeWithinMm(560 + 20 + 20, 1e-9);
    expect(lengths["right"]).toBeWithinMm(360 - 22 + 20, 1e-9);
    expect(lengths["back"]).toBeWithinMm(560 - 22 + 20, 1e-9);
    expect(lengths["left"]).toBeWithinMm(360 - 22 - 22, 1e-9);
  });

  it("only the joint that is meant is cut anew", () => {
    const only = [[20, 20, 450]] as const;
    const ground = { sizes: resolveSizes(ring, null), stockroom: STOCK, only };
    const cuts = cutsByRule(ring, ids, { ...PROPOSED_RULE, gap: "1" }, ground);
    expect(cuts.map(({ member, side }) => `${member} ${side}`).sort()).toEqual(["front start", "left end"]);
  });

  it("many joints are cut as each of them is alone, in one home and in another", () => {
    // Places on the borders of cells and a little off them, lines that run through joints of others.
    const coordinate = fc.constantFrom("0", "500", "999.9995", "1000", "1000.0004", "2000", "-1000");
    const place = fc.tuple(coordinate, coordinate, fc.constantFrom("0", "1000"));
    const member = fc.tuple(place, place, fc.constantFrom("tube", "lath"), fc.boolean());
    let through = 0;
    fc.assert(
      fc.property(fc.array(member, { minLength: 8, maxLength: 24 }), (members) => {
        const frame = (inside: boolean) => {
          const own = members.filter(([a, b, , isInside]) => isInside === inside && a.join() !== b.join());
          return {
            points: Object.fromEntries(
              own.flatMap(([a, b], i) => [
                [`${inside}A${i}`, a],
                [`${inside}B${i}`, b],
              ]),
            ),
            members: Object.fromEntries(
              own.map(([, , section], i) => [
                `${inside}${i}`,
                { name: `M${i}`, from: `${inside}A${i}`, to: `${inside}B${i}`, section },
              ]),
            ),
          };
        };
        const job = newJob({
          info: { code: "T", title: "T" },
          ...frame(false),
          assemblies: { unit: { name: "Unit", ...frame(true) } },
          placements: { one: { assembly: "unit" } },
        });
        const ground = { sizes: resolveSizes(job, null), stockroom: STOCK };
        const all = cutsByRule(job, allOf(job), PROPOSED_RULE, ground);
        const alone = [...resultsOf(job).shape.points.values()].flatMap((joint) =>
          cutsByRule(job, allOf(job), PROPOSED_RULE, { ...ground, only: [joint] }),
        );
        const text = (cuts: typeof all) => [...new Set(cuts.map((cut) => JSON.stringify(cut)))].sort();
        expect(text(all)).toEqual(text(alone));
        if (all.length > 8) through++;
      }),
      countedRuns(40),
    );
    expect(through).toBeGreaterThan(lawRuns(40) / 4);
  });
});
