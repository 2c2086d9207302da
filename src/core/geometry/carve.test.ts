/** What a body takes out of a solid, by volume: by hand, and by the differences of another kernel (manifold-3d). */
import fc from "fast-check";
import Module from "manifold-3d";
import { beforeAll, describe, expect, it } from "vitest";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { type SectionShape, sectionProperties } from "../stockroom";
import { type BodySide, carved, levelEnd, prismSolid, ringOf, type Solid, solidMesh, type Vec3 } from ".";
import { manifoldOf } from "./manifold.fixture";
import { volumeOf } from "./mesh.fixture";

const solidOf = (shape: SectionShape, length: number) =>
  prismSolid(
    sectionProperties(shape).loops.map((loop) => ringOf(loop, { step: Math.PI / 8 })),
    levelEnd(0),
    levelEnd(length),
  );
const volume = (solid: Solid) => volumeOf(solidMesh(solid));
const box = (from: Vec3, to: Vec3): readonly BodySide[] =>
  ([0, 1, 2] as const).flatMap((i): BodySide[] => {
    const axis = (sign: 1 | -1): Vec3 => [i === 0 ? sign : 0, i === 1 ? sign : 0, i === 2 ? sign : 0];
    return [
      { normal: axis(1), offset: to[i], name: `to ${i}` },
      { normal: axis(-1), offset: -from[i], name: `from ${i}` },
    ];
  });
/** A drill along y at x, z: a prism over a regular polygon of `n` corners. */
const drill = (x: number, z: number, radius: number, n: number): readonly BodySide[] =>
  Array.from({ length: n }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.5)) / n;
    const normal: Vec3 = [Math.cos(angle), 0, Math.sin(angle)];
    const offset = normal[0] * x + normal[2] * z + radius * Math.cos(Math.PI / n);
    return { normal, offset, name: "hole" };
  });
const polygonArea = (radius: number, n: number) => (n / 2) * radius ** 2 * Math.sin((2 * Math.PI) / n);

const tube = solidOf({ kind: "rectangularTube", size: [60, 40, 4], corners: "coldFormed" }, 500);
const bar = solidOf({ kind: "timber", size: [45, 20] }, 300);
const angle = solidOf({ kind: "equalAngle", size: [40, 40, 4], rootRadius: 6 }, 300);
const pipe = solidOf({ kind: "roundTube", size: [40, 5] }, 300);

let kernel: Awaited<ReturnType<typeof Module>>;
beforeAll(async () => {
  kernel = await Module();
  kernel.setup();
});

describe("a carved solid", () => {
  it("loses the drill's area times the walls that it goes through", () => {
    expect(volume(bar) - volume(carved(bar, drill(3, 100, 6, 16)))).toBeCloseTo(polygonArea(6, 16) * 20, 3);
    expect(volume(tube) - volume(carved(tube, drill(0, 250, 9, 24)))).toBeCloseTo(polygonArea(9, 24) * 8, 3);
    const upper = [...drill(0, 250, 9, 24), { normal: [0, -1, 0] as Vec3, offset: 0, name: "depth" }];
    expect(volume(tube) - volume(carved(tube, upper))).toBeCloseTo(polygonArea(9, 24) * 4, 3);
  });

  it("loses a notch at its end, whose inner edge is a line of its own", () => {
    const notch = box([-100, 5, 260], [100, 20, 400]);
    const cut = carved(bar, notch);
    expect(volume(bar) - volume(cut)).toBeCloseTo(45 * 5 * 40, 3);
    const inner = cut.lines.filter(({ name }) => name === "from 1 / from 2");
    expect(
      inner.map(({ from, to }) => [at(cut.points, from), at(cut.points, to)].flat().map(Math.round)),
    ).toEqual([[expect.any(Number), 5, 260, expect.any(Number), 5, 260]]);
    // Nothing is left of the corner that was there.
    expect(
      cut.points.some(
        ([, y, z], i) => y > 5.01 && z > 260.01 && cut.faces.some((f) => f.corners.includes(i)),
      ),
    ).toBe(false);
  });

  it("is the identical one where the body stands beside it", () => {
    expect(carved(bar, box([100, 0, 0], [200, 10, 10]))).toBe(bar);
  });

  it("is what another kernel's difference is, by volume, for boxes anywhere", () => {
    const place = fc.tuple(
      fc.integer({ min: -30, max: 20 }),
      fc.integer({ min: -30, max: 20 }),
      fc.integer({ min: -20, max: 280 }),
    );
    const size = fc.tuple(
      fc.integer({ min: 3, max: 50 }),
      fc.integer({ min: 3, max: 50 }),
      fc.integer({ min: 5, max: 90 }),
    );
    fc.assert(
      fc.property(fc.constantFrom(tube, bar, angle, pipe), place, size, (solid, [x, y, z], [w, d, h]) => {
        // Off the faces of the sections by a third of a millimetre.
        const from: Vec3 = [x + 0.337, y + 0.337, z + 0.337];
        const to: Vec3 = [x + w + 0.661, y + d + 0.661, z + h + 0.661];
        const other = kernel.Manifold.cube([to[0] - from[0], to[1] - from[1], to[2] - from[2]]).translate(
          from,
        );
        const left = manifoldOf(kernel, solidMesh(solid)).subtract(other).volume();
        expect(volume(carved(solid, box(from, to)))).toBeCloseTo(left, 0);
      }),
      { numRuns: lawRuns(40) },
    );
  });
});
