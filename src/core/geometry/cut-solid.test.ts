/** Cut solids: both parts together are the whole, by volume, and their outlines close. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { type SectionShape, sectionProperties } from "../stockroom";
import {
  type CutSolid,
  cutSolid,
  levelEnd,
  polygonArea,
  prismSolid,
  ringOf,
  type Solid,
  type Vec2,
  type Vec3,
} from ".";
import { cross, dot, norm, scale, subtract } from "./vector";

/** By the divergence theorem, from the faces alone: right only where they close and turn outwards. */
const volume = ({ points, faces }: Solid) =>
  faces.reduce((sum, { corners }) => {
    const [a, ...rest] = corners.map((i) => at(points, i)) as [Vec3, ...Vec3[]];
    return (
      sum +
      rest.slice(1).reduce((part, c, i) => {
        const b = at(rest, i);
        return part + dot(a, cross(b, c)) / 6;
      }, 0)
    );
  }, 0);

const solidOf = (shape: SectionShape, length: number) =>
  prismSolid(
    sectionProperties(shape).loops.map((loop) => ringOf(loop, { step: Math.PI / 16 })),
    levelEnd(0),
    levelEnd(length),
  );
const tube = solidOf({ kind: "rectangularTube", size: [60, 40, 4], corners: "coldFormed" }, 500);
const bar = solidOf({ kind: "timber", size: [45, 20] }, 300);
const pipe = solidOf({ kind: "roundTube", size: [40, 5] }, 300);
const tee = solidOf({ kind: "tee", size: [40, 40, 5, 5] }, 300);

describe("a solid cut by a plane", () => {
  it("has its section, by area and by hand", () => {
    const area = ({ section }: CutSolid) =>
      section.reduce((sum, loop) => sum + polygonArea(loop.map(([x, y]): Vec2 => [x, y])), 0);
    const cut = cutSolid(bar, [0, 0, 1], 200);
    if (!cut.solid) throw new Error("something is left");
    expect([area(cut), volume(cut.solid)]).toEqual([45 * 20, 45 * 20 * 200]);
    expect(cut.solid.lines.filter(({ name }) => name.startsWith("cut"))).toHaveLength(4);
    // A pipe of 40 × 5, its circles in chords of a sixteenth of a half turn.
    const ring = cutSolid(pipe, [0, 0, 1], 200);
    const chords = (r: number) => 16 * r * r * Math.sin(Math.PI / 16);
    expect(area(ring)).toBeCloseTo(chords(20) - chords(15), 6);
    expect(ring.section).toHaveLength(2);
    // Halved along its length.
    expect(volume(cutSolid(bar, [1, 0, 0], 0).solid ?? bar)).toBeCloseTo((45 * 20 * 300) / 2, 6);
  });

  it("closes where faces have corners of their own that lie a rounding apart, wherever that is", () => {
    // Each face with its own corners, a nanometre to either side of where they belong.
    const points: Vec3[] = [];
    const loose = {
      ...bar,
      faces: bar.faces.map((face, f) => ({
        ...face,
        corners: face.corners.map((i) => {
          const [x, y, z] = at(bar.points, i);
          const off = (f % 2 === 0 ? 1 : -1) * 1e-9;
          return points.push([x + 5e-6 + off, y + 5e-6 - off, z]) - 1;
        }),
      })),
      points,
      lines: [],
    };
    const { solid, section } = cutSolid(loose, [0, 0, 1], 200);
    expect(section).toHaveLength(1);
    expect(volume(solid ?? bar)).toBeCloseTo(45 * 20 * 200, 3);
  });

  it("that does not meet it is left as it is, or is gone", () => {
    expect(cutSolid(tube, [0, 0, 1], 500).solid).toBe(tube);
    expect(cutSolid(tube, [0, 0, 1], 0)).toEqual({ solid: null, section: [] });
    expect(cutSolid(tube, [0, 0, -1], 0).solid).toBe(tube);
  });

  it.each([
    ["tube", tube],
    ["pipe", pipe],
    ["bar", bar],
    ["tee", tee],
  ])("a %s in any direction falls into two parts that are as large as the whole", (_, whole) => {
    const part = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(part, part, part),
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        (way, share) => {
          fc.pre(Math.hypot(...way) > 0.1);
          const normal = scale(way, 1 / norm(way));
          const reaches = whole.points.map((point) => dot(normal, point));
          const [low, high] = [Math.min(...reaches), Math.max(...reaches)];
          const offset = low + (high - low) * share;
          const [below, above] = [
            cutSolid(whole, normal, offset),
            cutSolid(whole, scale(normal, -1), -offset),
          ];
          const volumes = [below, above].map(({ solid }) => (solid ? volume(solid) : 0));
          expect(volumes.reduce((sum, one) => sum + one, 0) / volume(whole)).toBeCloseTo(1, 6);
          for (const { section } of [below, above])
            for (const loop of section)
              for (const place of loop) expect(Math.abs(dot(normal, place) - offset)).toBeLessThan(1e-6);
          // A line of the cut runs round the section with the material where its faces say.
          for (const line of below.solid?.lines ?? []) {
            if (!line.name.startsWith("cut")) continue;
            const { points, normals } = below.solid as Solid;
            const way2 = subtract(at(points, line.to), at(points, line.from));
            expect(
              dot(cross(at(normals, line.normals[0]), at(normals, line.normals[1])), way2),
            ).toBeGreaterThan(-1e-6);
          }
        },
      ),
      { numRuns: lawRuns(150) },
    );
  });
});
