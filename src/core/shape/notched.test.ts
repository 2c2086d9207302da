/** Members that are notched to fit: another kernel (manifold-3d) finds no room that both fill, and how near they come. */
import fc from "fast-check";
import Module from "manifold-3d";
import { beforeAll, describe, expect, it } from "vitest";
import { placeMesh, solidMesh } from "../geometry";
import { manifoldOf } from "../geometry/manifold.fixture";
import { newJob } from "../job";
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

let kernel: Awaited<ReturnType<typeof Module>>;
beforeAll(async () => {
  kernel = await Module();
  kernel.setup();
});

const solid = (shape: Shape, id: string) => {
  const member = memberSolid(shape, id);
  if (!member) throw new Error(`${id}: ${JSON.stringify(shape.uncomputed)}`);
  return manifoldOf(kernel, placeMesh(solidMesh(solidOfMember(member, { step: Math.PI / 4 })), member.frame));
};
/** How much of the room of the one the other fills as well. */
const shared = (shape: Shape, by: readonly [number, number, number] = [0, 0, 0]) =>
  solid(shape, "branch")
    .intersect(solid(shape, "header").translate([...by]))
    .volume();

describe("notched to fit", () => {
  it("an angle runs into an angle: the leg that the other's leg is in the way of is cut back by it", () => {
    // Legs of 40 × 4 with a fillet of 6: the lower leg gives way to the whole of the other's, and to its fillet.
    const { shape, tally } = joint("angle", "angle");
    expect(shared(shape)).toBeLessThan(0.5);
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
    expect(shared(shape)).toBeLessThan(0.5);
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
          expect(shared(shape)).toBeLessThan(0.5);
          const apart = joint(header, branch, { ...parts, gap: "3" }).shape;
          if (!memberSolid(apart, "branch")) return;
          for (const by of [
            [-2.9, 0, 0],
            [0, 0, 2.9],
            [0, 0, -2.9],
            [-2, 0, 2],
          ] as const)
            expect(shared(apart, by)).toBeLessThan(0.5);
        },
      ),
      { numRuns: 25 },
    );
    expect(fitted).toBeGreaterThan(12);
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
