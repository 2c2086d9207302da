/** The lengths between two ends, from plane geometry and against solids cut by hand. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { prismMesh, ringOf, type Vec2 } from "../geometry";
import { isClosed, volumeOf } from "../geometry/mesh.fixture";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { type SectionShape, sectionProperties } from "../stockroom";
import { type End, type EndFace, endOfTwoPlanes, kindOf, lengthsBetween, ridgesOf } from ".";
import { planeEnd } from "./ends.fixture";
import { SQUARE } from "./plane";

const square40: SectionShape = { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" };
const bar40: SectionShape = { kind: "squareBar", size: [40, 40] };

describe("lengths from end slopes", () => {
  it("opposed 45s on 560 between centres: 600 / 600 / 520; parallel: 600 / 560 / 560 (plane geometry)", () => {
    expect(lengthsBetween(square40, 560, planeEnd([1, 0]), planeEnd([1, 0]))).toEqual({
      centre: 560,
      cut: 600,
      longestEdge: 600,
      shortestEdge: 520,
    });
    expect(lengthsBetween(square40, 560, planeEnd([1, 0]), planeEnd([-1, 0]))).toEqual({
      centre: 560,
      cut: 600,
      longestEdge: 560,
      shortestEdge: 560,
    });
  });

  it("a compound 45/45 end reaches 36.485 beyond the centre, not 40: corner radii count", () => {
    expect(lengthsBetween(square40, 500, planeEnd([1, 1]), planeEnd([0, 0])).cut - 500).toBeWithinMm(
      36.485,
      5e-4,
    );
  });
});

const meshBetween = (section: SectionShape, start: End, end: End, steps = 2) => {
  const surface = (one: End, z: number, out: 1 | -1) => {
    const height = kindOf(one).height(one, section);
    const planes = kindOf(one).faces(one);
    return { height: (p: Vec2) => z + out * height(p), planes, ridges: ridgesOf(planes ?? []) };
  };
  const rings = sectionProperties(section).loops.map((loop) =>
    ringOf(loop, { step: Math.PI / 2 / (loop.length === 1 ? Math.max(8, steps) : steps) }),
  );
  return prismMesh(rings, surface(start, 0, -1), surface(end, 500, 1));
};

const point = (a: number, b: number): End =>
  endOfTwoPlanes(bar40, { slope: [a, 0], beyond: 0 }, { slope: [-b, 0], beyond: 0 }).form;

describe("ends of two planes", () => {
  it("a bar of 40 cut to a point at 45° from both sides: the flanks of the point are 20 shorter (plane geometry)", () => {
    // Of 500 between the axes' crossings: the tip on the axis, its flanks 20 back, on the average 10.
    expect(lengthsBetween(bar40, 500, SQUARE, point(1, 1))).toEqual({
      centre: 490,
      cut: 500,
      longestEdge: 500,
      shortestEdge: 480,
    });
    // Two points whose ridges cross: along the edges at most one of them is at its tip, but for the corners of the cross.
    const across = kindOf(point(1, 1)).turned(point(1, 1), [
      [0, -1],
      [1, 0],
    ]);
    expect(lengthsBetween(bar40, 500, across, point(1, 1))).toEqual({
      centre: 480,
      cut: 500,
      longestEdge: 480,
      shortestEdge: 460,
    });
  });

  it("a plane that takes nothing off is none, and two planes on one another are one", () => {
    const far: EndFace = { slope: [1, 0], beyond: 20 };
    expect(endOfTwoPlanes(bar40, { slope: [0, 0], beyond: 0 }, far)).toEqual({ form: SQUARE, beyond: 0 });
    expect(endOfTwoPlanes(bar40, far, { slope: [0, 0], beyond: 0 }).form).toEqual(SQUARE);
    expect(endOfTwoPlanes(bar40, far, far)).toEqual({ form: planeEnd([1, 0]), beyond: 20 });
    expect(endOfTwoPlanes(bar40, { slope: [0, 0], beyond: 0 }, { ...far, beyond: 19 }).form.kind).toBe(
      "twoPlanes",
    );
  });

  const sections = fc.constantFrom<SectionShape>(
    square40,
    bar40,
    { kind: "rectangularTube", size: [60, 40, 3], corners: "hotFinished" },
    { kind: "equalAngle", size: [50, 50, 5], rootRadius: 7 },
    { kind: "channel", size: [80, 45, 6, 8] },
    { kind: "roundTube", size: [48.3, 3.2] },
    { kind: "roundBar", size: [30] },
  );
  const part = fc.double({ min: -1.5, max: 1.5, noNaN: true });
  const face = fc.record({
    slope: fc.tuple(part, part),
    beyond: fc.double({ min: -8, max: 8, noNaN: true }),
  });

  it("area × centre length is the volume of the solid that is drawn, whose ends are closed", () => {
    fc.assert(
      fc.property(sections, face, face, face, face, (section, a, b, c, d) => {
        const [start, end] = [endOfTwoPlanes(section, a, b), endOfTwoPlanes(section, c, d)];
        const { centre } = lengthsBetween(section, 500, start.form, end.form);
        const mesh = meshBetween(section, start.form, end.form, 16);
        expect(isClosed(mesh)).toBe(true);
        // Arcs are drawn as chords: the drawn solid is judged against its own area.
        const drawn = volumeOf(meshBetween(section, SQUARE, SQUARE, 16)) / 500;
        expect(volumeOf(mesh) / drawn).toBeWithinMm(centre, section.kind.startsWith("round") ? 0.25 : 0.02);
      }),
    );
  });

  it("tip to tip, longest and shortest edge are those of the points of its outline", () => {
    fc.assert(
      fc.property(sections, face, face, face, face, (section, a, b, c, d) => {
        const [start, end] = [endOfTwoPlanes(section, a, b).form, endOfTwoPlanes(section, c, d).form];
        const lengths = lengthsBetween(section, 500, start, end);
        const [below, above] = [kindOf(start).height(start, section), kindOf(end).height(end, section)];
        const outline = ringOf(at(sectionProperties(section).loops, 0), {
          step: Math.PI / 128,
        }).points.flatMap(({ at: p }, i, all) => {
          const q = at(all, (i + 1) % all.length).at;
          const steps = Math.ceil(Math.hypot(q[0] - p[0], q[1] - p[1]) / 0.2);
          return Array.from(
            { length: steps },
            (_, k): Vec2 => [p[0] + ((q[0] - p[0]) * k) / steps, p[1] + ((q[1] - p[1]) * k) / steps],
          );
        });
        const [low, high] = [outline.map(below), outline.map(above)];
        const both = low.map((value, i) => value + at(high, i));
        // Full circles are drawn with 32 corners, 0.12 short of the true one in a tube of 48.3.
        const slack = section.kind.startsWith("round") ? 1 : 0.5;
        expect(lengths.cut).toBeWithinMm(500 + Math.max(...low) + Math.max(...high), slack);
        expect(lengths.longestEdge).toBeWithinMm(500 + Math.max(...both), slack);
        expect(lengths.shortestEdge).toBeWithinMm(500 + Math.min(...both), slack);
        // Chords of a hollow corner lie a little outside of it.
        expect(lengths.cut).toBeGreaterThanOrEqual(500 + Math.max(...low) + Math.max(...high) - 0.01);
      }),
      { numRuns: lawRuns(40) },
    );
  });
});
