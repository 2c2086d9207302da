/** Hidden stretches by the grid against face after face: no cell that a line runs through is left out. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { AT_HOME, boxLoop, levelEnd, posed, prismSolid, ringOf, type Vec3 } from "../../geometry";
import { at, seededRandom } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { type Candidate, candidatesOf, type Occluders, type SeenSolid } from "./candidates";
import { createHiding, type Stretch } from "./hiding";

/** One face alone: all that there is stands in one row of cells. */
function only(faces: Occluders, face: number): Occluders {
  const [first, last] = [at(faces.starts, face), at(faces.starts, face + 1)];
  return {
    count: 1,
    planes: faces.planes.slice(4 * face, 4 * face + 4),
    starts: Int32Array.from([0, last - first]),
    edges: faces.edges.slice(3 * first, 3 * last),
    boxes: faces.boxes.slice(4 * face, 4 * face + 4),
    // Asked of whatever line, however near it is.
    tops: Float64Array.from([Number.POSITIVE_INFINITY]),
    owners: faces.owners.slice(face, face + 1),
  };
}

function joined(stretches: readonly Stretch[]): readonly Stretch[] {
  const all: [number, number][] = [];
  for (const [from, to] of [...stretches].sort((a, b) => a[0] - b[0])) {
    const last = all.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else all.push([from, to]);
  }
  return all;
}

const isWithin = ([from, to]: Stretch, all: readonly Stretch[]): boolean =>
  all.some(([a, b]) => a <= from + 1e-9 && b >= to - 1e-9);

/** Small blocks, far from one another and in every direction, so that most cells hold some faces and none holds all. */
function scene(seed: number, count: number): readonly SeenSolid[] {
  const { next } = seededRandom(seed);
  return Array.from({ length: count }, () => {
    const size: Vec3 = [5 + 40 * next(), 5 + 20 * next(), 5 + 30 * next()];
    const solid = prismSolid(
      [ringOf(boxLoop([0, 0], [size[0], size[1]]), { step: 1 })],
      levelEnd(0),
      levelEnd(size[2]),
    );
    const pose = posed(
      [600 * next() - 300, 400 * next() - 200, 500 * next()],
      [6 * next(), 6 * next(), 6 * next()],
      null,
    );
    return { solid, frame: pose.frame, round: 0 };
  });
}

describe("what hides a line", () => {
  it("is found in every cell that it runs through, whichever way", () => {
    let hiddenOnes = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 40 }), (seed, count) => {
        const { occluders } = candidatesOf(scene(seed, count));
        const { next } = seededRandom(seed + 1);
        const hiddenOf = createHiding(occluders, () => 0);
        for (let i = 0; i < 30; i++) {
          const [fx, fy] = [700 * next() - 350, 500 * next() - 250];
          // Some along the axes, where a line runs in one row or column of cells.
          const [dx, dy] =
            [
              [900 * next() - 450, 900 * next() - 450],
              [900 * next() - 450, 0],
              [0, 900 * next() - 450],
            ][i % 3] ?? [];
          const line: Candidate = {
            // Behind all of them, or among them.
            from: [fx, fy, 900 * next() - 400],
            to: [fx + (dx ?? 0), fy + (dy ?? 0), 900 * next() - 400],
            kind: "edge",
            owner: -1,
            arc: null,
            bow: 0,
            isSmooth: false,
            isOutermost: false,
          };
          const each = Array.from({ length: occluders.count }, (_, face) =>
            createHiding(only(occluders, face), () => 0)(line),
          );
          const found = hiddenOf(line);
          const size = Math.hypot(line.to[0] - line.from[0], line.to[1] - line.from[1]);
          // A sharp corner of a face that is seen nearly edge-on grows far beyond it, by a hair: what that hides is no matter.
          for (const stretch of each.flat())
            if ((stretch[1] - stretch[0]) * size > 0.02)
              expect([stretch, isWithin(stretch, found)]).toEqual([stretch, true]);
          const all = joined(each.flat());
          for (const stretch of found) expect([stretch, isWithin(stretch, all)]).toEqual([stretch, true]);
          hiddenOnes += found.length;
        }
      }),
      { numRuns: lawRuns(60) },
    );
    // There was something to find: about five hundred.
    expect(hiddenOnes).toBeGreaterThan(50);
  });

  it("is nothing without faces, and never a face that the line lies in", () => {
    const { occluders: none } = candidatesOf([]);
    const line: Candidate = {
      from: [-50, 5, 10],
      to: [50, 5, 10],
      kind: "edge",
      owner: 7,
      arc: null,
      bow: 0,
      isSmooth: false,
      isOutermost: false,
    };
    expect(createHiding(none, () => 0)(line)).toEqual([]);
    const slab = prismSolid([ringOf(boxLoop([0, 0], [20, 20]), { step: 1 })], levelEnd(0), levelEnd(10));
    const { occluders } = candidatesOf([{ solid: slab, frame: AT_HOME.frame, round: 0 }]);
    const hiddenOf = createHiding(occluders, () => 0);
    expect(hiddenOf(line)).toEqual([]);
    const below = { ...line, from: [-50, 5, 9], to: [50, 5, 9] } as const;
    const [[from = 0, to = 0] = []] = hiddenOf(below);
    expect([from, to].map((t) => Math.round(100 * t - 50) + 0)).toEqual([0, 20]);
    // A chord whose curve bows out before the face is not hidden by that little.
    expect(hiddenOf({ ...below, bow: 1.5 })).toEqual([]);
    // Nor is a silhouette by a facet of its own round surface.
    const own = createHiding(occluders, () => 1.5);
    expect(own({ ...below, owner: 0, isSmooth: true })).toEqual([]);
    expect(own({ ...below, owner: 0 })).toHaveLength(1);
  });
});
