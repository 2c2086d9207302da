/** The painted picture against looking for the nearest face at single places of the screen. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../kernel";
import { boxLoop, type Face, levelEnd, paintOrder, prismMesh, ringOf, type Vec3 } from ".";

type Placed = Face<number>;

/** Triangles of axis-parallel boxes turned to an eye that looks along (1, 1, 1)-like, in eye coordinates. */
function facesOf(boxes: readonly (readonly [Vec3, Vec3])[]): readonly Placed[] {
  const turn = ([x, y, z]: Vec3): Vec3 => {
    const [c, s] = [Math.cos(0.6), Math.sin(0.6)];
    const [ce, se] = [Math.cos(0.5), Math.sin(0.5)];
    const into = s * x + c * y;
    return [c * x - s * y, -(z * ce + into * se), into * ce - z * se];
  };
  return boxes.flatMap(([corner, size], tag) => {
    const foot = ringOf(boxLoop([0, 0], [size[0], size[1]]), { step: 1 });
    const mesh = prismMesh([foot], levelEnd(0), levelEnd(size[2]));
    const points = mesh.vertices.map(([x, y, z]) => turn([x + corner[0], y + corner[1], z + corner[2]]));
    const faces: Placed[] = [];
    for (let i = 0; i < mesh.triangles.length; i += 3) {
      const three = [0, 1, 2].map((k) => at(points, at(mesh.triangles, i + k)));
      const [a, b, c] = [at(three, 0), at(three, 1), at(three, 2)];
      if ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) < 0)
        faces.push({ points: three, drawn: [true, true, true], tag });
    }
    return faces;
  });
}

/** Depth of a face's plane at a place inside it; null outside. */
function depthAt({ points }: Placed, x: number, y: number): number | null {
  let inside = 0;
  for (let i = 0; i < points.length; i++) {
    const [a, b] = [at(points, i), at(points, (i + 1) % points.length)];
    const side = (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]);
    if (Math.abs(side) < 1e-6) return null;
    inside += Math.sign(side);
  }
  if (Math.abs(inside) !== points.length) return null;
  const [p, q, r] = [at(points, 0), at(points, 1), at(points, 2)];
  const area = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  const u = ((x - p[0]) * (r[1] - p[1]) - (y - p[1]) * (r[0] - p[0])) / area;
  const v = ((q[0] - p[0]) * (y - p[1]) - (q[1] - p[1]) * (x - p[0])) / area;
  return p[2] + u * (q[2] - p[2]) + v * (r[2] - p[2]);
}

describe("paint order", () => {
  it("the face painted last at a place is the nearest one there", () => {
    const coordinate = fc.integer({ min: 0, max: 60 });
    const size = fc.integer({ min: 4, max: 40 });
    const box = fc.tuple(fc.tuple(coordinate, coordinate, coordinate), fc.tuple(size, size, size));
    fc.assert(
      fc.property(
        fc.array(box, { minLength: 2, maxLength: 6 }),
        fc.array(fc.tuple(fc.integer({ min: -60, max: 90 }), fc.integer({ min: -110, max: 20 })), {
          minLength: 20,
          maxLength: 20,
        }),
        (boxes, places) => {
          const faces = facesOf(boxes);
          const painted = paintOrder(faces);
          for (const [px, py] of places) {
            const [x, y] = [px + 0.317, py + 0.271];
            const nearest = Math.min(...faces.map((face) => depthAt(face, x, y) ?? Number.POSITIVE_INFINITY));
            const last = painted
              .map((face) => depthAt(face, x, y))
              .filter((depth) => depth !== null)
              .at(-1);
            if (last === undefined) continue;
            expect(last).toBeLessThan(nearest + 1e-3);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it("cuts faces that run through one another, and draws no edge along the cut", () => {
    const faces: Placed[] = [
      {
        points: [
          [0, 0, 0],
          [10, 0, 10],
          [10, 10, 10],
          [0, 10, 0],
        ],
        drawn: [true, true, true, true],
        tag: 0,
      },
      {
        points: [
          [0, 0, 10],
          [10, 0, 0],
          [10, 10, 0],
          [0, 10, 10],
        ],
        drawn: [true, true, true, true],
        tag: 1,
      },
    ];
    const painted = paintOrder(faces);
    expect(painted.length).toBe(3);
    const cut = painted.filter((face) => face.drawn.includes(false));
    expect(cut.length).toBe(2);
    for (const face of cut) expect(face.drawn.filter((edge) => !edge).length).toBe(1);
  });

  it("drops faces without area and takes nothing", () => {
    expect(paintOrder([])).toEqual([]);
    expect(
      paintOrder([
        {
          points: [
            [0, 0, 0],
            [1, 1, 1],
            [2, 2, 2],
          ],
          drawn: [true, true, true],
          tag: 0,
        },
      ]),
    ).toEqual([]);
  });
});
