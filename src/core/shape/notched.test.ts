/** Members that are notched to fit: no place that is tried in the one, by rays through its mesh, lies in the other too; and how near they come. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Mesh, placeMesh, solidMesh, type Vec3 } from "../geometry";
import { cross, dot, subtract } from "../geometry/vector";
import { newJob } from "../job";
import { seededRandom } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK_DATA } from "../pipeline.fixture";
import { type SectionShape, stockroomOf } from "../stockroom";
import { memberSolid, partsOfMember, type Shape, solidOfMember } from ".";

const [tube] = STOCK_DATA.sections ?? [];
if (!tube) throw new Error("there is a tube");
const shapes = {
  angle: { kind: "equalAngle", size: [40, 40, 4], rootRadius: 6 },
  unequal: { kind: "unequalAngle", size: [60, 40, 5], rootRadius: 6 },
  channel: { kind: "channel", size: [80, 45, 6, 8] },
  tee: { kind: "tee", size: [50, 50, 6, 6] },
  beam: { kind: "beam", size: [100, 55, 4.1, 5.7] },
  box: { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  flat: { kind: "flat", size: [40, 8] },
} as const satisfies Record<string, SectionShape>;
type Section = keyof typeof shapes;
const stockroom = stockroomOf({
  ...STOCK_DATA,
  sections: Object.entries(shapes).map(([id, shape]) => ({ ...tube, id, name: id, shape })),
});

type Parts = { readonly roll?: string; readonly cardinal?: number };
/** A header along the depth, and a branch that comes to it from the left, `up` above it. */
const joint = (
  header: Section,
  branch: Section,
  {
    gap = "0",
    up = "0",
    own = {},
    other = {},
    reversed = false,
  }: { gap?: string; up?: string; own?: Parts; other?: Parts; reversed?: boolean } = {},
) => {
  const cut = { kind: "notched", neighbour: "header" as never, gap } as const;
  const ends = reversed ? { from: "C", to: "B", start: cut } : { from: "B", to: "C", end: cut };
  const job = newJob({
    info: { code: "T", title: "T" },
    points: { A: ["0", "-300", "0"], D: ["0", "300", "0"], B: ["-400", "0", up], C: ["0", "0", up] },
    members: {
      header: { name: "Header", from: "A", to: "D", section: header, ...other },
      branch: { name: "Branch", section: branch, ...ends, ...own },
    },
  });
  return resultsOf(job, stockroom);
};

const meshOfMember = (shape: Shape, id: string): Mesh => {
  const member = memberSolid(shape, id);
  if (!member) throw new Error(`${id}: ${JSON.stringify(shape.uncomputed)}`);
  return placeMesh(solidMesh(solidOfMember(member, { step: Math.PI / 8 })), member.frame);
};

/** How often a ray from a point along a slanting direction goes through a mesh: an odd number within it. */
function isWithin({ vertices, triangles }: Mesh, point: Vec3): boolean {
  const ray: Vec3 = [0.3571, 0.6113, 0.7064];
  let times = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => vertices[triangles[i + k] ?? 0]) as [Vec3, Vec3, Vec3];
    const [u, v, from] = [subtract(b, a), subtract(c, a), subtract(point, a)];
    const p = cross(ray, v);
    const size = dot(u, p);
    if (Math.abs(size) < 1e-12) continue;
    const s = dot(from, p) / size;
    const q = cross(from, u);
    const t = dot(ray, q) / size;
    if (s >= 0 && t >= 0 && s + t <= 1 && dot(v, q) / size > 0) times++;
  }
  return times % 2 === 1;
}

/** How many of the places that a header fills round the joint the branch fills as well, the header moved a little. */
function shared(shape: Shape, by: Vec3 = [0, 0, 0]): number {
  const [branch, header] = [meshOfMember(shape, "branch"), meshOfMember(shape, "header")];
  const random = seededRandom(7);
  let [found, tried] = [0, 0];
  for (let i = 0; i < 2500; i++) {
    const place: Vec3 = [random.next() * 130 - 65, random.next() * 110 - 55, random.next() * 130 - 65];
    if (!isWithin(header, subtract(place, by))) continue;
    tried++;
    if (isWithin(branch, place)) found++;
  }
  expect(tried).toBeGreaterThan(20);
  return found;
}

describe("notched to fit", () => {
  it("an angle runs into an angle: the leg that the other's leg is in the way of is cut back by it", () => {
    // Legs of 40 × 4 with a fillet of 6: the lower leg gives way to the whole of the other's, and to its fillet.
    const { shape, tally } = joint("angle", "angle");
    expect(shared(shape)).toBe(0);
    expect(
      memberSolid(shape, "branch")?.work?.notches.map(({ face, depth, length }) => [face, depth, length]),
    ).toEqual([
      ["bottom", 10, 6],
      ["bottom", 4, 36],
    ]);
    expect(tally.checks.map(({ message }) => message)).toEqual([]);
    const row = tally.rows.find(({ name }) => name === "Branch");
    expect(row?.shown.form).toMatchObject({ notches: [{ end: 1 }, { end: 1 }] });
  });

  it("a channel runs into a channel: both flanges are cut back by those of the other, up to its web", () => {
    const { shape } = joint("channel", "channel", { other: { cardinal: 1 }, own: { cardinal: 1 } });
    // By hand: the web's face stands 6 beyond the heel that is on the line, the flanges are 8 thick and reach 45 − 6 further.
    const member = memberSolid(shape, "branch");
    expect(member?.lengths.cut).toBeCloseTo(394, 6);
    expect(member?.work?.notches.map(({ face, depth, length }) => [face, depth, length])).toEqual([
      ["top", 8, 39],
      ["bottom", 8, 39],
    ]);
    expect(shared(shape)).toBe(0);
  });

  it("nothing is filled twice, with any sections, turns and heights, and a gap keeps them apart by as much", () => {
    const section = fc.constantFrom(...(Object.keys(shapes) as Section[]));
    const quarter = fc.constantFrom("0", "90", "180", "270");
    let fitted = 0;
    fc.assert(
      fc.property(
        section,
        section,
        quarter,
        quarter,
        fc.integer({ min: -20, max: 20 }),
        fc.boolean(),
        (header, branch, first, second, up, reversed) => {
          const parts = { up: String(up + 0.37), other: { roll: first }, own: { roll: second }, reversed };
          const { shape } = joint(header, branch, parts);
          if (!memberSolid(shape, "branch")) {
            // Told why, with what to do instead.
            expect(shape.uncomputed[0]?.why).toMatchObject({
              kind: "end",
              why: { kind: "cannotMeet", cut: "notched" },
            });
            return;
          }
          fitted++;
          expect(shared(shape)).toBe(0);
          const apart = joint(header, branch, { ...parts, gap: "3" }).shape;
          if (!memberSolid(apart, "branch")) return;
          for (const by of [
            [-2.9, 0, 0],
            [0, 0, 2.9],
            [0, 0, -2.9],
            [-2, 0, 2],
          ] as const)
            expect(shared(apart, by)).toBe(0);
        },
      ),
      { numRuns: lawRuns(10), seed: 13 },
    );
    expect(fitted).toBeGreaterThan(2);
  });

  it("against a box it is a butt; turned, or beside the other, it is refused", () => {
    const { shape } = joint("box", "channel");
    expect(memberSolid(shape, "branch")?.work).toBeNull();
    expect(memberSolid(shape, "branch")?.lengths.cut).toBeCloseTo(380, 6);
    const turned = joint("channel", "angle", { own: { roll: "20" } }).shape;
    expect(turned.uncomputed[0]?.why).toMatchObject({ why: { why: "notAligned" } });
    const above = joint("channel", "angle", { up: "100" }).shape;
    expect(above.uncomputed[0]?.why).toMatchObject({ why: { why: "passesBeside" } });
  });
});

it("its convex parts fill the room of its solid, notches left out", () => {
  const { shape } = joint("channel", "channel", { other: { cardinal: 1 }, own: { cardinal: 1 } });
  const member = memberSolid(shape, "branch");
  if (!member) throw new Error("it is computed");
  const whole = joint("box", "channel", { own: { cardinal: 1 } });
  const height = (of: Shape) => {
    const one = memberSolid(of, "branch");
    const parts = one ? partsOfMember(one) : [];
    return parts.map(({ points }) => Math.max(...points.map(([x]) => x))).sort((a, b) => a - b);
  };
  // Ends of parts along the depth of the joint: flanges end 39 before the web.
  const ends = height(shape);
  expect((ends.at(-1) ?? 0) - (ends[0] ?? 0)).toBeCloseTo(39, 3);
  expect(new Set(height(whole.shape).map((end) => Math.round(end))).size).toBe(1);
});
