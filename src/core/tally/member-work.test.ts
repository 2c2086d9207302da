/** Holes and notches of members: which of them are one piece, which the opposite hand, and how they go with copies. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Mesh, Vec3 } from "../geometry";
import { volumeOf } from "../geometry/mesh.fixture";
import {
  copyOfPieces,
  type MemberFace,
  type MemberHole,
  type MemberNotch,
  type MemberWork,
  newJob,
} from "../job";
import { edited } from "../job/edit.fixture";
import { sentence } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK_DATA } from "../pipeline.fixture";
import { meshOf, reflected, sameVertices } from "../shape/mesh.fixture";
import { type SectionShape, stockroomOf } from "../stockroom";

const [tube] = STOCK_DATA.sections ?? [];
if (!tube) throw new Error("there is a tube");
const shapes = {
  square: { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  rectangular: { kind: "rectangularTube", size: [60, 40, 3], corners: "coldFormed" },
  angle: { kind: "equalAngle", size: [40, 40, 4], rootRadius: 6 },
  flat: { kind: "flat", size: [40, 5] },
  round: { kind: "roundTube", size: [48.3, 3.2] },
} as const satisfies Record<string, SectionShape>;
type Section = keyof typeof shapes;
const stockroom = stockroomOf({
  ...STOCK_DATA,
  sections: Object.entries(shapes).map(([id, shape]) => ({ ...tube, id, name: id, shape })),
});

const hole = (face: MemberFace, along: string, more: Partial<MemberHole> = {}): MemberHole => ({
  id: `${face} ${along}`,
  kind: "hole",
  face,
  from: "start",
  along,
  across: "0",
  diameter: "8",
  slot: "0",
  walls: "one",
  count: "1",
  step: "50",
  ...more,
});
const notch = (end: "start" | "end", face: MemberFace): MemberNotch => ({
  id: `${end} ${face}`,
  kind: "notch",
  end,
  face,
  depth: "10",
  length: "25",
});
/** Members of 500 mm side by side, each with its work. */
const jobOf = (section: Section, ...works: readonly (readonly MemberWork[])[]) =>
  newJob({
    info: { code: "T", title: "T" },
    points: Object.fromEntries(
      works.flatMap((_, i) => [
        [`A${i}`, ["0", `${i * 200}`, "0"]],
        [`B${i}`, ["500", `${i * 200}`, "0"]],
      ]),
    ),
    members: Object.fromEntries(
      works.map((work, i) => [`m${i}`, { name: "M", from: `A${i}`, to: `B${i}`, section, work }]),
    ),
  });
/** How many are drawn and how many are of the other hand, row by row. */
const hands = (section: Section, ...works: readonly (readonly MemberWork[])[]) =>
  resultsOf(jobOf(section, ...works), stockroom).tally.rows.map((row) => [
    row.hands.asDrawn,
    row.hands.opposite,
  ]);

describe("which members with work are one piece", () => {
  it.each([
    ["a roll of a square tube", "square", [hole("top", "100")], [hole("left", "100")], [[2, 0]]],
    ["turned end for end", "square", [hole("top", "100")], [hole("top", "100", { from: "end" })], [[2, 0]]],
    [
      "a rectangular tube does not roll by a quarter",
      "rectangular",
      [hole("top", "100")],
      [hole("left", "100")],
      [
        [1, 0],
        [1, 0],
      ],
    ],
    [
      "through all walls it does not matter from which side",
      "rectangular",
      [hole("top", "100", { walls: "all" })],
      [hole("bottom", "100", { walls: "all" })],
      [[2, 0]],
    ],
    [
      "through one wall it does, but a half-turn brings it over",
      "rectangular",
      [hole("top", "100")],
      [hole("bottom", "100")],
      [[2, 0]],
    ],
    [
      "another place",
      "square",
      [hole("top", "100")],
      [hole("top", "101")],
      [
        [1, 0],
        [1, 0],
      ],
    ],
    [
      "another size",
      "square",
      [hole("top", "100")],
      [hole("top", "100", { diameter: "9" })],
      [
        [1, 0],
        [1, 0],
      ],
    ],
    [
      "a slot is no hole",
      "square",
      [hole("top", "100")],
      [hole("top", "100", { slot: "20" })],
      [
        [1, 0],
        [1, 0],
      ],
    ],
    [
      "two faces in the other order are the other hand",
      "square",
      [hole("top", "100"), hole("right", "200")],
      [hole("top", "100"), hole("left", "200")],
      [[1, 1]],
    ],
    [
      "off the middle on a flat is its own mirror image turned over",
      "flat",
      [hole("top", "100", { across: "8", walls: "all" })],
      [hole("top", "100", { across: "-8", walls: "all" })],
      [[2, 0]],
    ],
    [
      "the legs of an angle",
      "angle",
      [hole("top", "100", { across: "10" })],
      [hole("right", "100", { across: "10" })],
      [[1, 1]],
    ],
    [
      "round: however it is turned",
      "round",
      [hole("top", "100")],
      [hole("left", "100", { from: "end" })],
      [[2, 0]],
    ],
    [
      "round: a quarter on or a quarter back",
      "round",
      [hole("top", "100"), hole("right", "200")],
      [hole("top", "100"), hole("left", "200")],
      [[1, 1]],
    ],
    ["notches", "square", [notch("start", "top")], [notch("end", "left")], [[2, 0]]],
    [
      "notches on one side or on two",
      "square",
      [notch("start", "top"), notch("end", "top")],
      [notch("start", "top"), notch("end", "bottom")],
      [
        [1, 0],
        [1, 0],
      ],
    ],
  ] as const)("%s", (_, section, a, b, expected) => {
    expect(hands(section, a, b)).toEqual(expected);
  });
});

/** The volume of a mesh and its first moments about a place, by tetrahedra from there: mm³ and mm⁴. */
function momentsOf({ vertices, triangles }: Mesh, about: Vec3): readonly [number, Vec3] {
  const from = (i: number): Vec3 => {
    const [x, y, z] = vertices[i] ?? about;
    return [x - about[0], y - about[1], z - about[2]];
  };
  let volume = 0;
  const sums: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => from(triangles[i + k] ?? 0)) as [Vec3, Vec3, Vec3];
    const part =
      (a[0] * (b[1] * c[2] - b[2] * c[1]) +
        a[1] * (b[2] * c[0] - b[0] * c[2]) +
        a[2] * (b[0] * c[1] - b[1] * c[0])) /
      6;
    volume += part;
    for (const k of [0, 1, 2] as const) sums[k] += (part * (a[k] + b[k] + c[k])) / 4;
  }
  return [volume, sums];
}

/** How much work took out of a member, and where the middle of that is, from a place in it. */
function taken(plain: Mesh, worked: Mesh, about: Vec3): { readonly volume: number; readonly middle: Vec3 } {
  const [whole, all] = momentsOf(plain, about);
  const [left, rest] = momentsOf(worked, about);
  const volume = whole - left;
  return {
    volume,
    middle: [0, 1, 2].map((k) => ((all[k] ?? 0) - (rest[k] ?? 0)) / volume) as unknown as Vec3,
  };
}

/** The same mesh with its triangles turned over, as a mirror leaves them. */
const outwardAgain = (mesh: Mesh): Mesh => ({
  ...mesh,
  triangles: Array.from({ length: mesh.triangles.length / 3 }, (_, i) => {
    const [a = 0, b = 0, c = 0] = mesh.triangles.slice(3 * i, 3 * i + 3);
    return [a, c, b];
  }).flat(),
});

it("holes that stand a little apart are told as what they are", () => {
  const { checks } = resultsOf(jobOf("square", [hole("top", "100")], [hole("top", "101")]), stockroom).tally;
  expect(checks.map(({ message }) => message)).toEqual([
    expect.stringMatching(
      /^Marks A and B: the same length 500 mm, but their holes or notches differ by less than /,
    ),
  ]);
  // Farther apart than a slip they are meant.
  expect(
    resultsOf(jobOf("square", [hole("top", "100")], [hole("top", "140")]), stockroom).tally.checks,
  ).toEqual([]);
});

describe("copies", () => {
  const faces = ["top", "bottom", "left", "right"] as const;
  const works = fc.array(
    fc.oneof(
      fc
        .record({
          face: fc.constantFrom(...faces),
          along: fc.integer({ min: 60, max: 240 }),
          from: fc.constantFrom("start" as const, "end" as const, "middle" as const),
          across: fc.integer({ min: -6, max: 6 }),
          walls: fc.constantFrom("one" as const, "all" as const),
          count: fc.constantFrom("1", "2"),
        })
        .map(({ face, along, across, ...more }) =>
          hole(face, String(more.from === "middle" ? along - 150 : along), {
            ...more,
            across: String(across),
            step: "15",
          }),
        ),
      fc
        .tuple(fc.constantFrom("start" as const, "end" as const), fc.constantFrom(...faces))
        .map(([end, face]) => notch(end, face)),
    ),
    { minLength: 1, maxLength: 3 },
  );

  it("a mirrored copy is the mirror image, and counts as the same piece or its opposite hand", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(shapes) as Section[])),
        works,
        fc.constantFrom(0 as const, 1 as const, 2 as const),
        (section, work, axis) => {
          const job = jobOf(
            section,
            work.map((one, i) => ({ ...one, id: `w${i}` })),
          );
          const copy = copyOfPieces(
            job,
            ["m0"],
            { kind: "mirror", axis, plane: "700" },
            (kind) => `new-${kind}-${Math.random()}`,
          );
          if (!copy.ok) throw new Error(sentence(copy.problem));
          const after = resultsOf(edited(copy.value, job), stockroom);
          const [one, other] = [
            meshOf(after.shape, "m0"),
            meshOf(after.shape, copy.value.members[0]?.id ?? ""),
          ];
          if (!one || !other) throw new Error("both are computed");
          // Faces are parted another way in the image: what fills the same room has lost as much at the same place.
          const plain = meshOf(resultsOf(jobOf(section, []), stockroom).shape, "m0");
          if (!plain) throw new Error("it is computed");
          const image = (mesh: Mesh) => outwardAgain(reflected(mesh, axis, 700));
          const about = image({ ...one, vertices: [[250, 0, 0]] }).vertices[0] ?? [0, 0, 0];
          const [own, mirrored] = [taken(image(plain), image(one), about), taken(image(plain), other, about)];
          expect(mirrored.volume).toBeWithinMm(own.volume, 1 + own.volume / 100);
          // Of what missed the section there is no middle.
          if (own.volume > 5)
            for (const k of [0, 1, 2] as const) expect(mirrored.middle[k]).toBeWithinMm(own.middle[k], 3);
          expect(after.tally.rows).toHaveLength(1);
        },
      ),
      { numRuns: lawRuns(30) },
    );
  });

  it("a moved copy is the same piece, vertex for vertex", () => {
    const job = jobOf("square", [hole("top", "100"), notch("end", "left")]);
    const copy = copyOfPieces(
      job,
      ["m0"],
      { kind: "move", by: ["0", "300", "0"], times: 1 },
      (kind) => `new-${kind}-${Math.random()}`,
    );
    if (!copy.ok) throw new Error(sentence(copy.problem));
    const after = resultsOf(edited(copy.value, job), stockroom);
    const other = meshOf(after.shape, copy.value.members[0]?.id ?? "");
    const own = meshOf(after.shape, "m0");
    if (!own || !other) throw new Error("both are computed");
    const moved = { ...own, vertices: own.vertices.map(([x, y, z]) => [x, y + 300, z] as const) };
    expect(sameVertices(moved, other)).toBe(true);
    expect(after.tally.rows.map((row) => row.count)).toEqual([2]);
  });
});

describe("what work takes out", () => {
  const lost = (section: Section, work: readonly MemberWork[]) => {
    const volume = (of: readonly MemberWork[]) => {
      const mesh = meshOf(resultsOf(jobOf(section, of), stockroom).shape, "m0");
      if (!mesh) throw new Error("it is computed");
      return volumeOf(mesh);
    };
    return volume([]) - volume(work);
  };

  it("by hand: a wall of 3 mm loses the circle times 3, a notch its part of the section", () => {
    // The picture draws circles with eight corners: 2√2 r².
    const circle = 2 * Math.SQRT2 * 16;
    expect(lost("square", [hole("top", "100")])).toBeCloseTo(circle * 3, 3);
    expect(lost("square", [hole("top", "100", { walls: "all" })])).toBeCloseTo(circle * 6, 3);
    expect(lost("square", [hole("top", "100", { count: "3" })])).toBeCloseTo(circle * 9, 3);
    expect(lost("square", [hole("left", "100", { slot: "20" })])).toBeCloseTo((circle + 12 * 8) * 3, 3);
    expect(lost("flat", [notch("end", "right")])).toBeCloseTo(10 * 5 * 25, 3);
  });

  it("places follow formulas and the ends; what is off the piece or near an edge is told", () => {
    const checks = (section: Section, work: readonly MemberWork[]) =>
      resultsOf(jobOf(section, work), stockroom)
        .tally.checks.map(({ message }) => message)
        .join(" ");
    expect(checks("square", [hole("top", "100")])).toBe("");
    expect(checks("square", [hole("top", "3")])).toContain("on or beyond an end");
    expect(checks("square", [hole("top", "9")])).toContain("nearer to an edge than 9.6 mm");
    expect(checks("square", [hole("top", "100", { across: "14" })])).toContain("nearer to an edge");
    expect(checks("angle", [hole("bottom", "100", { across: "40" })])).toContain("misses the section");
    expect(checks("square", [{ ...notch("end", "top"), depth: "40" }])).toContain("as deep as the section");
    const { shape } = resultsOf(jobOf("square", [hole("top", "100", { along: "no_size + 1" })]), stockroom);
    expect(shape.uncomputed[0]?.why).toMatchObject({ kind: "text", field: "hole" });
  });
});
