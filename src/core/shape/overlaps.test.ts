/** Solids that run into one another, against a solid kernel that knows nothing of this program (manifold-3d). */

import fc from "fast-check";
import Module from "manifold-3d";
import { describe, expect, it } from "vitest";
import { manifoldOf } from "../geometry/manifold.fixture";
import { newJob, resolveSizes } from "../job";
import { lawRuns } from "../kernel/law-runs.fixture";
import { type SectionShape, sectionParts, sectionProperties, stockroomOf } from "../stockroom";
import { shapeJob } from ".";
import { picturedMeshes } from "./mesh.fixture";

const kernel = await Module();
kernel.setup();

const SHAPES = {
  angle: { kind: "equalAngle", size: [40, 40, 4], rootRadius: 0 },
  unequal: { kind: "unequalAngle", size: [60, 30, 5], rootRadius: 0 },
  channel: { kind: "channel", size: [80, 45, 6, 8] },
  tee: { kind: "tee", size: [50, 50, 6, 6] },
  tapered: { kind: "channel", size: [80, 45, 6, 8], rootRadius: 8, taper: { percent: 8, toeRadius: 4 } },
  rolled: { kind: "beam", size: [80, 42, 3.9, 5.9], rootRadius: 3.9, taper: { percent: 14, toeRadius: 2.3 } },
  beam: { kind: "beam", size: [80, 46, 3.8, 5.2] },
  tube: { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  round: { kind: "roundTube", size: [48.3, 3.2] },
  rod: { kind: "roundBar", size: [20] },
  flat: { kind: "flat", size: [40, 5] },
} as const satisfies Record<string, SectionShape>;
type Kind = keyof typeof SHAPES;
const KINDS = Object.keys(SHAPES) as Kind[];

const stockroom = stockroomOf({
  currency: "EUR",
  sections: KINDS.map((id) => ({
    id,
    name: id,
    shape: SHAPES[id],
    material: null,
    densityKgM3: null,
    massKgPerM: null,
    source: "test",
    stock: [],
    kerf: 0,
    trimStart: 0,
    trimEnd: 0,
  })),
  boards: [],
  edging: [],
  bought: [],
});

type Side = { readonly kind: Kind; readonly roll: number };

/** A rail along x, and a member across it or beside it, moved by some millimetres. */
function pair(a: Side, b: Side, [x, y, z]: readonly [number, number, number], across: boolean) {
  const job = newJob({
    info: { code: "T", title: "T" },
    points: {
      A: ["0", "0", "0"],
      B: ["400", "0", "0"],
      C: across ? [String(200 + x), String(y - 200), String(z)] : [String(x), String(y), String(z)],
      D: across ? [String(200 + x), String(y + 200), String(z)] : [String(400 + x), String(y), String(z)],
    },
    members: {
      a: { name: "A", from: "A", to: "B", section: a.kind, roll: String(a.roll) },
      b: { name: "B", from: "C", to: "D", section: b.kind, roll: String(b.roll) },
    },
  });
  const shape = shapeJob(job, resolveSizes(job, null), stockroom);
  return { shape, told: shape.checks.some(({ kind }) => kind === "overlap") };
}

function commonVolume(shape: ReturnType<typeof pair>["shape"]): number {
  const [a, b] = picturedMeshes(shape).map(({ mesh }) => manifoldOf(kernel, mesh));
  if (!a || !b) throw new Error("both are computed");
  return kernel.Manifold.intersection(a, b).volume();
}

describe("true sections", () => {
  it("an angle whose flange is in the flanges of a rail is told, beside it or in its hollow is not", () => {
    const angle: Side = { kind: "angle", roll: 0 };
    const channel: Side = { kind: "channel", roll: 0 };
    // The same angle beside itself: in the same place, moved out of it, and nested in its inner corner.
    expect(pair(angle, angle, [0, 0, 0], false).told).toBe(true);
    expect(pair(angle, angle, [0, 45, 0], false).told).toBe(false);
    expect(pair(channel, { kind: "rod", roll: 0 }, [0, 0, 0], false).told).toBe(false);
    // A tube slid into a larger place: the rod inside the round tube touches nothing.
    expect(pair({ kind: "round", roll: 0 }, { kind: "rod", roll: 0 }, [0, 0, 0], false).told).toBe(false);
    expect(pair({ kind: "round", roll: 0 }, { kind: "rod", roll: 0 }, [0, 15, 0], false).told).toBe(true);
  });

  it("what is told shares room in the kernel, and what shares much room is told", () => {
    const side = fc.record({
      kind: fc.constantFrom(...KINDS),
      roll: fc.constantFrom(0, 45, 90, 180, 270),
    });
    const by = fc.integer({ min: -70, max: 70 });
    let told = 0;
    let apart = 0;
    fc.assert(
      fc.property(side, side, fc.tuple(fc.constant(0), by, by), fc.boolean(), (a, b, move, across) => {
        const found = pair(a, b, move, across);
        const volume = commonVolume(found.shape);
        if (found.told) {
          told++;
          expect(volume).toBeGreaterThan(0);
        } else {
          apart++;
          // Less than what corners, fillets and half a millimetre of touching leave out, over the length that is shared.
          expect(volume).toBeLessThan(across ? 900 : 6000);
        }
      }),
      { numRuns: lawRuns(400), seed: 7 },
    );
    expect(told).toBeGreaterThan(30);
    expect(apart).toBeGreaterThan(30);
  });
});

describe("the rectangles of a section", () => {
  it("lie in the section, and leave little of it out", () => {
    for (const kind of KINDS) {
      const { areaMm2 } = sectionProperties(SHAPES[kind]);
      const inside = meshArea(kind);
      expect(inside / areaMm2).toBeLessThanOrEqual(1.0001);
      expect(inside / areaMm2).toBeGreaterThan(0.6);
    }
  });

  /** Area of the union of the parts, by the kernel: a prism of height one. */
  function meshArea(kind: Kind): number {
    const prisms = sectionParts(SHAPES[kind]).map(({ middle, half, turn }) =>
      kernel.Manifold.cube([2 * half[0], 2 * half[1], 1], true)
        .rotate([0, 0, (turn * 180) / Math.PI])
        .translate([middle[0], middle[1], 0]),
    );
    return kernel.Manifold.union(prisms).volume();
  }
});
