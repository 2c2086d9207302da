/** Rims that do not meet: joined within the gap that is given, told where they still lie open, exact where faces cut one another. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { add, type Frame, frameAlong, scale, toWorld, type Vec3 } from "../geometry";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import type { SolidMesh } from "./body";
import { closing } from "./close";
import { reading } from "./reading";

type Quad = readonly [Vec3, Vec3, Vec3, Vec3];

/** The six faces of a box, each with corners of its own. */
function boxFaces([l, w, h]: Vec3): readonly Quad[] {
  const p = (x: 0 | 1, y: 0 | 1, z: 0 | 1): Vec3 => [x * l, y * w, z * h];
  return [
    [p(0, 0, 0), p(0, 1, 0), p(1, 1, 0), p(1, 0, 0)],
    [p(0, 0, 1), p(1, 0, 1), p(1, 1, 1), p(0, 1, 1)],
    [p(0, 0, 0), p(1, 0, 0), p(1, 0, 1), p(0, 0, 1)],
    [p(0, 1, 0), p(0, 1, 1), p(1, 1, 1), p(1, 1, 0)],
    [p(0, 0, 0), p(0, 0, 1), p(0, 1, 1), p(0, 1, 0)],
    [p(1, 0, 0), p(1, 1, 0), p(1, 1, 1), p(1, 0, 1)],
  ];
}

function meshOf(faces: readonly (readonly Vec3[])[]): SolidMesh {
  const positions: number[] = [];
  const corners: number[] = [];
  const ranges: [number, number][] = [];
  for (const face of faces) {
    const from = corners.length / 3;
    const first = positions.length / 3;
    for (const corner of face) positions.push(...corner);
    for (let i = 1; i + 1 < face.length; i++) corners.push(first, first + i, first + i + 1);
    ranges.push([from, corners.length / 3]);
  }
  return { positions, corners, faces: ranges };
}

/** A face drawn in from its rims by so much, in its own plane. */
function shrunk(face: readonly Vec3[], by: number): readonly Vec3[] {
  const middle = scale(
    face.reduce<Vec3>((sum, corner) => add(sum, corner), [0, 0, 0]),
    1 / face.length,
  );
  return face.map((corner) => {
    const way = corner.map((value, k) => Math.sign(at(middle, k) - value) * by);
    return corner.map((value, k) =>
      Math.abs(at(middle, k) - value) < 1e-9 ? value : value + at(way, k),
    ) as unknown as Vec3;
  });
}

describe("closing", () => {
  const SIZE: Vec3 = [600, 300, 18];

  it("joins faces that stop short of one another, and its corners lie where the faces cut: the true box", () => {
    const frame = frameAlong([3, 4, 5], [100, 40, -60], 17) as Frame;
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.4, noNaN: true }), fc.boolean(), (by, isTurned) => {
        const faces = boxFaces(SIZE).map((face) => {
          const own = shrunk(face, by);
          return isTurned ? own.map((corner) => toWorld(frame, corner)) : own;
        });
        const open = meshOf(faces);
        expect(reading(open).gaps.length).toBeGreaterThan(0);
        const { mesh, moved } = closing(open, 1);
        const { gaps, taken, volume } = reading(mesh);
        expect(gaps).toEqual([]);
        expect(volume).toBeCloseTo(600 * 300 * 18, 3);
        expect(moved).toBeLessThan(2 * by);
        expect(
          taken.kind === "panel" &&
            [taken.length, taken.width, taken.thickness].map((one) => Math.round(one * 1e4) / 1e4),
        ).toEqual([600, 300, 18]);
        // Nothing is joined that lies farther apart than the gap.
        expect(reading(closing(open, by).mesh).gaps.length).toBeGreaterThan(0);
      }),
      { numRuns: lawRuns(40) },
    );
  });

  it("parts a rim where corners of other faces lie on it", () => {
    const faces = boxFaces(SIZE);
    const [a, b, c, d] = at(faces, 2);
    const [low, high]: readonly [Vec3, Vec3] = [
      [250, 0.05, 0],
      [250, 0.05, 18],
    ];
    const parted = [...faces.filter((_, i) => i !== 2), [a, low, high, d], [low, b, c, high]];
    // The middle of the front stands a little inwards, so that neither of its faces has the plane of the front.
    const { mesh } = closing(meshOf(parted), 0.2);
    const { gaps, volume } = reading(mesh);
    expect(gaps).toEqual([]);
    expect(Math.abs(volume / (600 * 300 * 18) - 1)).toBeLessThan(1e-3);
  });

  it("leaves open what is missing, and says how large it is", () => {
    const { mesh } = closing(
      meshOf(
        boxFaces(SIZE)
          .slice(1)
          .map((face) => shrunk(face, 0.2)),
      ),
      1,
    );
    const { gaps, taken } = reading(mesh);
    expect(gaps.map(({ length }) => Math.round(length))).toEqual([1800]);
    expect(taken.kind).toBe("other");
  });

  it("turns faces that look the other way than those beside them", () => {
    const faces = boxFaces(SIZE).map((face, i) => (i % 2 ? face.toReversed() : face));
    expect(reading(meshOf(faces)).gaps.length).toBeGreaterThan(0);
    const { gaps, taken, volume } = reading(closing(meshOf(faces), 0.01).mesh);
    expect([gaps.length, taken.kind]).toEqual([0, "panel"]);
    expect(volume).toBeCloseTo(600 * 300 * 18, 3);
  });

  it("never joins the two sides of a thin plate, however large the gap", () => {
    const plate = boxFaces([600, 300, 3]).map((face) => shrunk(face, 0.2));
    const { mesh } = closing(meshOf(plate), 5);
    const { gaps, volume } = reading(mesh);
    expect(gaps).toEqual([]);
    expect(volume).toBeCloseTo(600 * 300 * 3, 2);
  });
});
