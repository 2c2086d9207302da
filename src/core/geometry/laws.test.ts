/**
 * Laws of the geometry, over random figures: against plain sums of other kinds (counting points, walking finely along
 * arcs, the formulas of textbooks) and against what must stay the same when a figure is moved, turned or mirrored.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import {
  add,
  boxLoop,
  boxOfPoints,
  bulgedCorners,
  type Corner,
  circle,
  convexHull,
  cross,
  cross2,
  crossesItself,
  distance,
  dot,
  dot2,
  edgeDistance,
  edgesOf,
  filletCorners,
  flatMesh,
  flattened,
  frameAlong,
  frameOfFace,
  isInside,
  type Loop,
  levelEnd,
  loopArea,
  loopMoments,
  movedPolygon,
  moveLoop,
  nearestOnEdges,
  norm,
  norm2,
  type Polygon,
  polygonArea,
  polygonDistance,
  posed,
  poseIn,
  poseMesh,
  prismMesh,
  reach,
  ringOf,
  ringPoints,
  roundedPolygon,
  scale,
  sharedArea,
  sharpRing,
  subtract,
  subtract2,
  toLocal,
  toWorld,
  turnedPolygon,
  unflatMesh,
  unposeMesh,
  type Vec2,
  type Vec3,
  without,
} from ".";
import { turned } from "./frame";
import { volumeOf } from "./mesh.fixture";
import { endOf, startOf } from "./outline";
import { add2, direction } from "./vector";

/** mm, on the thousandths. */
const number = fc.integer({ min: -900_000, max: 900_000 }).map((n) => n / 1000);
const place: fc.Arbitrary<Vec3> = fc.tuple(number, number, number);
const spot: fc.Arbitrary<Vec2> = fc.tuple(number, number);
const turn: fc.Arbitrary<Vec3> = fc.tuple(
  fc.double({ min: -4, max: 4, noNaN: true }),
  fc.double({ min: -4, max: 4, noNaN: true }),
  fc.double({ min: -4, max: 4, noNaN: true }),
);
const axis = fc.constantFrom(0 as const, 1 as const, 2 as const, null);
const near = (a: Vec3, b: Vec3, mm = 1e-6) => expect(distance(a, b)).toBeLessThan(mm);

/** A star round the origin: simple, anticlockwise, hollow in places. */
const star: fc.Arbitrary<Polygon> = fc
  .array(fc.double({ min: 30, max: 200, noNaN: true }), { minLength: 3, maxLength: 9 })
  .map((radii) =>
    radii.map((radius, i): Vec2 => {
      const angle = (2 * Math.PI * i) / radii.length;
      return [radius * Math.cos(angle), radius * Math.sin(angle)];
    }),
  );

describe("vectors", () => {
  it("cross is square to both and as long as the parallelogram is large (Lagrange's identity)", () => {
    fc.assert(
      fc.property(place, place, (a, b) => {
        const c = cross(a, b);
        expect(Math.abs(dot(c, a)) + Math.abs(dot(c, b))).toBeLessThan(1e-3);
        expect(dot(c, c)).toBeCloseTo(dot(a, a) * dot(b, b) - dot(a, b) ** 2, -4);
      }),
    );
    expect(cross([1, 0, 0], [0, 1, 0])).toEqual([0, 0, 1]);
    expect([cross2([1, 0], [0, 1]), dot2([3, 4], [2, 1]), norm2([3, 4]), norm([2, 3, 6])]).toEqual([
      1, 10, 5, 7,
    ]);
    expect([add([1, 2, 3], [4, 5, 6]), subtract([4, 5, 6], [1, 2, 4]), scale([1, -2, 3], 2)]).toEqual([
      [5, 7, 9],
      [3, 3, 2],
      [2, -4, 6],
    ]);
    expect([add2([1, 2], [3, 5]), subtract2([1, 2], [3, 5])]).toEqual([
      [4, 7],
      [-2, -3],
    ]);
  });

  it("a direction has length one and points the same way; what has no length has none", () => {
    fc.assert(
      fc.property(place, (a) => {
        fc.pre(norm(a) > 1e-6);
        const d = direction(a) ?? [0, 0, 0];
        expect(norm(d)).toBeCloseTo(1, 12);
        near(scale(d, norm(a)), a);
      }),
    );
    expect([direction([0, 0, 0]), direction([1e-13, 0, 0])]).toEqual([null, null]);
    near(direction([0, 0, 1e-11]) ?? [0, 0, 0], [0, 0, 1]);
  });
});

describe("frames", () => {
  const isSquare = ({ x, y, z }: { x: Vec3; y: Vec3; z: Vec3 }, handed: 1 | -1 = 1) => {
    for (const one of [x, y, z]) expect(norm(one)).toBeCloseTo(1, 9);
    near(cross(x, y), scale(z, handed), 1e-9);
  };

  it("of a line: along it, y as near to up as it can be, turned by the roll", () => {
    fc.assert(
      fc.property(place, place, fc.double({ min: -3, max: 3, noNaN: true }), (from, to, roll) => {
        fc.pre(Math.hypot(to[0] - from[0], to[1] - from[1]) > 0.02 * distance(from, to) + 1e-3);
        const [frame, plain] = [frameAlong(from, to, roll), frameAlong(from, to, 0)];
        if (!frame || !plain) throw new Error("the line has a length");
        isSquare(frame);
        near(toWorld(frame, [0, 0, distance(from, to)]), to);
        // Level x, and y never below the horizon.
        expect(Math.abs(plain.x[2])).toBeLessThan(1e-9);
        expect(plain.y[2]).toBeGreaterThan(0);
        expect(dot(frame.x, plain.x)).toBeCloseTo(Math.cos(roll), 9);
        expect(dot(frame.x, plain.y)).toBeCloseTo(Math.sin(roll), 9);
      }),
    );
    expect(frameAlong([0, 0, 0], [0, 0, 5], 0)).toMatchObject({ x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] });
    expect(frameAlong([1, 1, 1], [1, 1, 1], 0)).toBeNull();
    // Within 0.8 degrees of plumb the reference is the depth; beyond it is up.
    expect(frameAlong([0, 0, 0], [13, 0, 1000], 0)?.y[1]).toBeCloseTo(1, 3);
    expect(frameAlong([0, 0, 0], [16, 0, 1000], 0)?.y[1]).toBeCloseTo(0, 3);
  });

  it("of a face: x as given, z made square to it; parallel directions give none", () => {
    fc.assert(
      fc.property(place, place, place, (origin, along, face) => {
        fc.pre(norm(cross(along, face)) > 1e-3 * norm(along) * norm(face) + 1e-3);
        const frame = frameOfFace(origin, along, face);
        if (!frame) throw new Error("they are not parallel");
        isSquare(frame);
        near(frame.x, direction(along) ?? along, 1e-9);
        expect(dot(frame.z, face)).toBeGreaterThan(0);
        expect(frameOfFace(origin, along, scale(along, -3))).toBeNull();
      }),
    );
    expect([
      frameOfFace([0, 0, 0], [0, 0, 0], [0, 0, 1]),
      frameOfFace([0, 0, 0], [1, 0, 0], [0, 0, 0]),
    ]).toEqual([null, null]);
  });

  it("local and world are each other's inverse; poses in poses follow one another", () => {
    fc.assert(
      fc.property(place, turn, axis, place, turn, axis, place, (a, ta, ma, b, tb, mb, p) => {
        const [outer, inner] = [posed(a, ta, ma), posed(b, tb, mb)];
        near(toLocal(outer.frame, toWorld(outer.frame, p)), p);
        near(toWorld(poseIn(outer, inner).frame, p), toWorld(outer.frame, toWorld(inner.frame, p)), 1e-5);
        expect(poseIn(outer, inner).mirrored).toBe((ma !== null) !== (mb !== null));
        isSquare(outer.frame, ma === null ? 1 : -1);
        near(add(outer.frame.origin, turned(outer.frame, p)), toWorld(outer.frame, p));
      }),
    );
  });

  it("is mirrored first, then turned about width, depth and height, then moved", () => {
    const about = {
      0: (t: number, [x, y, z]: Vec3): Vec3 => [
        x,
        y * Math.cos(t) - z * Math.sin(t),
        y * Math.sin(t) + z * Math.cos(t),
      ],
      1: (t: number, [x, y, z]: Vec3): Vec3 => [
        x * Math.cos(t) + z * Math.sin(t),
        y,
        z * Math.cos(t) - x * Math.sin(t),
      ],
      2: (t: number, [x, y, z]: Vec3): Vec3 => [
        x * Math.cos(t) - y * Math.sin(t),
        x * Math.sin(t) + y * Math.cos(t),
        z,
      ],
    } as const;
    fc.assert(
      fc.property(place, turn, axis, place, (moved, t, mirror, p) => {
        const first = p.map((value, i) => (i === mirror ? -value : value)) as unknown as Vec3;
        const whole = about[2](t[2], about[1](t[1], about[0](t[0], first)));
        near(toWorld(posed(moved, t, mirror).frame, p), add(moved, whole));
      }),
    );
    // Quarter turns are exact: no axis is a hair beside another.
    const { x, y } = posed([0, 0, 0], [0, 0, Math.PI / 2], null).frame;
    expect([...x, ...y].map((value) => value + 0)).toEqual([0, 1, 0, -1, 0, 0]);
  });
});

/** A figure by counting the middles of small squares: no formula of ours. */
function counted(inside: (p: Vec2) => boolean, half: number, step: number) {
  let [area, mx, my] = [0, 0, 0];
  for (let x = -half + step / 2; x < half; x += step)
    for (let y = -half + step / 2; y < half; y += step)
      if (inside([x, y])) {
        area += step * step;
        mx += x * step * step;
        my += y * step * step;
      }
  return { area, mx, my };
}

describe("outlines with arcs", () => {
  const rounded: fc.Arbitrary<readonly Corner[]> = fc
    .tuple(star, fc.constantFrom(0, 0.5, 2, 6))
    .map(([polygon, radius]) => polygon.map((p) => ({ at: p, radius })));
  /** A fine polygon along a loop. */
  const walked = (loop: Loop, steps = 400): Polygon =>
    loop.flatMap((segment): readonly Vec2[] => {
      if (segment.kind === "line") return [segment.from];
      return Array.from({ length: steps }, (_, i) =>
        endOf({ ...segment, sweep: (segment.sweep * i) / steps }),
      );
    });

  it("area, moments and reach are those of a fine walk along them", () => {
    fc.assert(
      fc.property(rounded, spot, fc.double({ min: 0, max: 6.3, noNaN: true }), (corners, by, angle) => {
        const loop = moveLoop(roundedPolygon(corners), by);
        const fine = walked(loop);
        expect(loopArea(loop)).toBeCloseTo(polygonArea(fine), 0);
        const [mx, my] = loopMoments(loop);
        const moment = (k: 0 | 1) =>
          fine.reduce((sum, p, i) => {
            const q = at(fine, (i + 1) % fine.length);
            return sum + ((p[k] + q[k]) * cross2(p, q)) / 6;
          }, 0);
        expect(Math.abs(mx - moment(0)) + Math.abs(my - moment(1))).toBeLessThan(
          1e-4 * (1e5 + Math.abs(moment(0)) + Math.abs(moment(1))),
        );
        const v: Vec2 = [Math.cos(angle), Math.sin(angle)];
        const most = Math.max(...fine.map((p) => dot2(p, v)));
        expect(reach(loop, v)).toBeGreaterThan(most - 1e-9);
        expect(reach(loop, v)).toBeLessThan(most + 0.01);
      }),
      { numRuns: lawRuns(60) },
    );
    expect(loopArea(circle(10))).toBeCloseTo(100 * Math.PI, 9);
    expect(loopArea(circle(10, true))).toBeCloseTo(-100 * Math.PI, 9);
    expect([reach(circle(10), [0, 1]), reach(circle(10), [-2, 0])]).toEqual([10, 20]);
  });

  it("a rounded square loses (4 − π) r² at its corners (textbook), inward and outward", () => {
    const square = (radius: number): readonly Corner[] =>
      [
        [0, 0],
        [100, 0],
        [100, 60],
        [0, 60],
      ].map(([x = 0, y = 0]) => ({ at: [x, y], radius }));
    expect(loopArea(roundedPolygon(square(8)))).toBeCloseTo(6000 - (4 - Math.PI) * 64, 9);
    const notch: readonly Corner[] = [
      [0, 0],
      [100, 0],
      [100, 60],
      [50, 60],
      [50, 30],
      [0, 30],
    ].map(([x = 0, y = 0], i) => ({ at: [x, y], radius: i === 4 ? 10 : 0 }));
    expect(loopArea(roundedPolygon(notch))).toBeCloseTo(4500 + (1 - Math.PI / 4) * 100, 9);
  });

  it("segments meet head to tail; bulged corners and back give the same outline", () => {
    fc.assert(
      fc.property(rounded, (corners) => {
        const loop = roundedPolygon(corners);
        loop.forEach((segment, i) => {
          expect(norm2(subtract2(endOf(segment), startOf(at(loop, (i + 1) % loop.length))))).toBeLessThan(
            1e-6,
          );
        });
        const bulged = bulgedCorners(loop);
        expect(loopArea(edgesOf(bulged))).toBeCloseTo(loopArea(loop), 5);
        expect(loopArea(roundedPolygon(filletCorners(bulged)))).toBeCloseTo(loopArea(loop), 4);
        expect(edgesOf(bulged).filter(({ kind }) => kind === "arc").length).toBe(
          bulged.filter(([, , bulge = 0]) => bulge !== 0).length,
        );
      }),
      { numRuns: lawRuns(60) },
    );
    // Half a circle on a chord of 20, anticlockwise: the bulge is 1 (DXF reference, group code 42).
    const [arc] = edgesOf([
      [10, 0, 1],
      [-10, 0],
    ]);
    expect(arc).toMatchObject({ kind: "arc", radius: 10 });
    expect(
      loopArea(
        edgesOf([
          [10, 0, 1],
          [-10, 0, 1],
        ]),
      ),
    ).toBeCloseTo(100 * Math.PI, 6);
  });

  it("flattened holds its outline and lies nowhere more than the tolerance away", () => {
    fc.assert(
      fc.property(rounded, fc.constantFrom(0.02, 0.1, 0.5), (corners, tolerance) => {
        const bulged = bulgedCorners(roundedPolygon(corners));
        const polygon = flattened(bulged, tolerance);
        for (const point of walked(edgesOf(bulged), 12)) {
          if (!isInside(polygon, point)) expect(edgeDistance(polygon, point)).toBeLessThan(1e-6);
          expect(edgeDistance(polygon, point)).toBeLessThan(tolerance * 1.02 + 1e-9);
        }
      }),
      { numRuns: lawRuns(40) },
    );
  });

  it("rings lie on the outline, in even steps with the middle of each corner; circles have no crease", () => {
    const ring = ringOf(circle(10), { step: Math.PI / 16, creases: true });
    expect(ring.points).toHaveLength(32);
    expect(ring.points.every(({ at: p, kind }) => Math.abs(norm2(p) - 10) < 1e-9 && kind === "smooth")).toBe(
      true,
    );
    const corners = boxLoop([0, 0], [40, 20]).map(
      (segment) => (segment.kind === "line" ? segment.from : [0, 0]) as Vec2,
    );
    const box = ringOf(roundedPolygon(corners.map((p) => ({ at: p, radius: 5 }))), {
      step: Math.PI / 4,
      creases: true,
    });
    expect(box.points).toHaveLength(12);
    // The edge along a rounded corner is drawn in its middle, not where it runs into the flat.
    expect(box.points.map(({ kind }) => kind).sort()).toEqual([
      ...Array(4).fill("crease"),
      ...Array(8).fill("smooth"),
    ]);
    const sharp = ringOf(roundedPolygon(corners.map((p) => ({ at: p, radius: 0 }))), { step: 1 });
    expect(sharp.points.map(({ kind }) => kind)).toEqual(Array(4).fill("sharp"));
    const six = ringPoints({ centre: [5, 5], radius: 2 }, 6);
    expect(six).toHaveLength(6);
    expect(at(six, 0)).toEqual([7, 5]);
    expect(polygonArea(six)).toBeCloseTo(6 * Math.sqrt(3), 9);
  });

  it("points of a ring lie on their segments, in order, with no step larger than asked", () => {
    fc.assert(
      fc.property(
        rounded,
        fc.constantFrom(0.1, 0.4, 1),
        fc.array(
          fc.integer({ min: 0, max: 359 }).map((one) => (one * Math.PI) / 180),
          { maxLength: 4 },
        ),
        (corners, step, silhouettes) => {
          const loop = roundedPolygon(corners);
          const { points } = ringOf(loop, { step, silhouettes });
          const polygon = points.map((point) => point.at);
          for (const [i, { at: p, segment }] of points.entries()) {
            const on = at(loop, segment);
            if (on.kind === "line") expect(norm2(subtract2(p, on.from))).toBeLessThan(1e-9);
            else {
              expect(norm2(subtract2(p, on.centre))).toBeCloseTo(on.radius, 6);
              const [a, b] = [p, at(polygon, (i + 1) % polygon.length)].map((q) =>
                subtract2(q, on.centre),
              ) as [Vec2, Vec2];
              const turned = Math.atan2(cross2(a, b), dot2(a, b));
              expect(Math.abs(turned)).toBeLessThan(step + 1e-9);
              expect(turned * on.sweep).toBeGreaterThan(0);
            }
          }
          // Where an arc's tangent runs along the direction of view it has a point: nothing of it reaches farther.
          for (const one of silhouettes) {
            const way: Vec2 = [Math.cos(one), Math.sin(one)];
            expect(Math.max(...polygon.map((p) => dot2(way, p)))).toBeCloseTo(reach(loop, way), 6);
          }
        },
      ),
      { numRuns: lawRuns(60) },
    );
  });

  it("sharp outlines have the very corners that were rounded, whichever way they turn", () => {
    fc.assert(
      fc.property(rounded, (corners) => {
        const outline = roundedPolygon(corners);
        fc.pre(outline.every((segment) => segment.kind === "line" || Math.abs(segment.sweep) < 3));
        const sharp = sharpRing(outline).points;
        expect(sharp).toHaveLength(corners.length);
        for (const corner of corners)
          expect(Math.min(...sharp.map((point) => norm2(subtract2(point.at, corner.at))))).toBeLessThan(1e-6);
        expect(sharp.every(({ kind }) => kind === "sharp")).toBe(true);
      }),
      { numRuns: lawRuns(200) },
    );
    const whole = circle(10, true);
    expect(sharpRing(whole)).toEqual(ringOf(whole, { step: Math.PI / 16 }));
  });
});

describe("polygons", () => {
  it("area and inside agree with counting squares; turning and moving change neither", () => {
    fc.assert(
      fc.property(star, fc.double({ min: -400, max: 400, noNaN: true }), spot, (polygon, degrees, by) => {
        const { area } = counted((p) => isInside(polygon, p), 210, 4);
        const around = polygon.reduce(
          (sum, corner, i) => sum + norm2(subtract2(corner, at(polygon, (i + 1) % polygon.length))),
          0,
        );
        // Half a square of 4 × 4 for each that an edge runs through, and one for each corner.
        expect(Math.abs(polygonArea(polygon) - area)).toBeLessThan(2 * around + 16 * polygon.length);
        const moved = movedPolygon(turnedPolygon(polygon, degrees), by[0], by[1]);
        expect(polygonArea(moved)).toBeCloseTo(polygonArea(polygon), 4);
        expect(polygonArea([...polygon].reverse())).toBeCloseTo(-polygonArea(polygon), 6);
        expect(isInside(moved, by)).toBe(isInside(polygon, [0, 0]));
        const box = boxOfPoints(moved);
        expect(moved.every(([x, y]) => x >= box.x0 && x <= box.x1 && y >= box.y0 && y <= box.y1)).toBe(true);
        expect(
          moved.filter(([x, y]) => x === box.x0 || x === box.x1 || y === box.y0 || y === box.y1).length,
        ).toBeGreaterThan(1);
      }),
      { numRuns: lawRuns(40) },
    );
    expect(turnedPolygon([[3, 1]], 90)).toEqual([[-1, 3]]);
    expect(turnedPolygon([[3, 1]], 180)).toEqual([[-3, -1]]);
  });

  it("the nearest place on the edges lies on one of them, and no sampled place is nearer", () => {
    fc.assert(
      fc.property(star, spot, (polygon, point) => {
        const found = nearestOnEdges(polygon, point);
        expect(edgeDistance(polygon, found)).toBeLessThan(1e-6);
        const apart = norm2(subtract2(found, point));
        expect(edgeDistance(polygon, point)).toBeCloseTo(apart, 6);
        polygon.forEach((a, i) => {
          const b = at(polygon, (i + 1) % polygon.length);
          for (let k = 0; k <= 10; k++) {
            const p: Vec2 = [a[0] + ((b[0] - a[0]) * k) / 10, a[1] + ((b[1] - a[1]) * k) / 10];
            expect(norm2(subtract2(p, point))).toBeGreaterThan(apart - 1e-9);
          }
        });
      }),
      { numRuns: lawRuns(60) },
    );
  });

  it("two polygons are as far apart as their nearest sampled places; 0 where they meet", () => {
    const walk = (polygon: Polygon) =>
      polygon.flatMap((a, i) => {
        const b = at(polygon, (i + 1) % polygon.length);
        return Array.from(
          { length: 40 },
          (_, k): Vec2 => [a[0] + ((b[0] - a[0]) * k) / 40, a[1] + ((b[1] - a[1]) * k) / 40],
        );
      });
    fc.assert(
      fc.property(star, star, fc.double({ min: 0, max: 500, noNaN: true }), (a, far, x) => {
        const b = movedPolygon(far, x, 40);
        const apart = polygonDistance(a, b);
        expect(polygonDistance(b, a)).toBeCloseTo(apart, 9);
        const sampled = Math.min(
          ...walk(a).map((p) => Math.min(...walk(b).map((q) => norm2(subtract2(p, q))))),
        );
        expect(apart).toBeLessThan(sampled + 1e-9);
        if (apart > 0) {
          expect(apart).toBeGreaterThan(sampled - 12);
          expect(sharedArea(a, b)).toBeLessThan(0.5);
        } else expect(sharedArea(a, b) > 0 || sampled < 12).toBe(true);
      }),
      { numRuns: lawRuns(40) },
    );
    const box: Polygon = [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ];
    expect([
      polygonDistance(box, movedPolygon(box, 13, 14)),
      polygonDistance(box, movedPolygon(box, 3, 0)),
    ]).toEqual([5, 0]);
    expect(
      polygonDistance(box, [
        [4, 4],
        [6, 4],
        [5, 6],
      ]),
    ).toBe(0);
  });

  it("crosses itself where two edges cross, not where they touch at a corner", () => {
    fc.assert(
      fc.property(star, (polygon) => {
        expect(crossesItself(polygon)).toBe(false);
      }),
    );
    expect(
      crossesItself([
        [0, 0],
        [10, 10],
        [10, 0],
        [0, 10],
      ]),
    ).toBe(true);
    expect(
      crossesItself([
        [0, 0],
        [10, 0],
        [10, 10],
        [5, -5],
        [0, 10],
      ]),
    ).toBe(true);
  });

  it("the hull is convex, holds every point, and has only points that were there", () => {
    fc.assert(
      fc.property(fc.array(spot, { minLength: 3, maxLength: 30 }), (points) => {
        const hull = convexHull(points);
        fc.pre(hull.length > 2);
        hull.forEach((a, i) => {
          const [b, c] = [at(hull, (i + 1) % hull.length), at(hull, (i + 2) % hull.length)];
          expect(cross2(subtract2(b, a), subtract2(c, b))).toBeGreaterThan(0);
          expect(points).toContainEqual(a);
          for (const p of points) expect(cross2(subtract2(b, a), subtract2(p, a))).toBeGreaterThan(-1e-6);
        });
      }),
    );
  });

  it("what is left and what is taken make up the whole", () => {
    fc.assert(
      fc.property(star, star, fc.double({ min: -150, max: 150, noNaN: true }), (a, other, x) => {
        const b = movedPolygon(other, x, x / 2);
        const { rings, regions } = without([a], [b]);
        const left = rings.reduce((sum, ring) => sum + polygonArea(ring), 0);
        expect(left + sharedArea(a, b)).toBeCloseTo(polygonArea(a), -1);
        const byRegions = regions.reduce(
          (sum, { outer, holes }) =>
            sum + polygonArea(outer) + holes.reduce((h, hole) => h + polygonArea(hole), 0),
          0,
        );
        expect(byRegions).toBeCloseTo(left, 3);
        for (const { outer, holes } of regions) {
          expect(polygonArea(outer)).toBeGreaterThan(0);
          for (const hole of holes) expect(polygonArea(hole)).toBeLessThan(0);
        }
      }),
      { numRuns: lawRuns(60) },
    );
    const frame = without(
      [
        [
          [0, 0],
          [10, 0],
          [10, 10],
          [0, 10],
        ],
      ],
      [
        [
          [3, 3],
          [6, 3],
          [6, 6],
          [3, 6],
        ],
      ],
    );
    expect(frame.regions).toHaveLength(1);
    expect(frame.regions[0]?.holes).toHaveLength(1);
    expect(
      sharedArea(
        [
          [0, 0],
          [1, 0],
        ],
        [
          [0, 0],
          [1, 0],
          [1, 1],
        ],
      ),
    ).toBe(0);
  });
});

describe("meshes", () => {
  /** Six times the volume of the tetrahedra to the origin: a solid's own volume when its faces run outwards. */
  it("a member's volume is its section's area times its length at the centroid; posing and back changes nothing", () => {
    fc.assert(
      fc.property(
        star,
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        place,
        turn,
        axis,
        (section, lean, moved, t, mirror) => {
          const mesh = prismMesh([ringOf(edgesOf(section), { step: 1 })], levelEnd(0), {
            height: ([x]) => 800 + lean * x,
            planes: [{ slope: [lean, 0], beyond: 0 }],
            ridges: [],
          });
          const centre =
            section.reduce((sum, p, i) => {
              const q = at(section, (i + 1) % section.length);
              return sum + ((p[0] + q[0]) * cross2(p, q)) / 6;
            }, 0) / polygonArea(section);
          expect(volumeOf(mesh) / (polygonArea(section) * (800 + lean * centre))).toBeCloseTo(1, 6);
          const pose = posed(moved, t, mirror);
          const there = poseMesh(flatMesh(mesh), pose);
          expect(volumeOf(unflatMesh(there)) / volumeOf(mesh)).toBeCloseTo(1, 4);
          const back = unflatMesh(unposeMesh(there, pose));
          for (const [i, vertex] of back.vertices.entries()) near(vertex, at(mesh.vertices, i), 1e-5);
          expect(volumeOf(back) / volumeOf(mesh)).toBeCloseTo(1, 6);
        },
      ),
      { numRuns: lawRuns(40) },
    );
  });
});

it("corners of fillets: rounded ones stay, sharp ones stay where the outline turns, straight ones go", () => {
  const corners: readonly Corner[] = [
    { at: [0, 0], radius: 8 },
    { at: [100, 0], radius: 0 },
    { at: [100, 60], radius: 5 },
    { at: [50, 90], radius: 0 },
    { at: [0, 60], radius: 0 },
  ];
  const back = filletCorners(bulgedCorners(roundedPolygon(corners)));
  expect(back.map(({ radius }) => Math.round(radius * 1e6) / 1e6).sort()).toEqual([0, 0, 0, 5, 8]);
  for (const { at: p, radius } of corners)
    expect(
      back.some((one) => norm2(subtract2(one.at, p)) < 1e-6 && Math.abs(one.radius - radius) < 1e-6),
    ).toBe(true);
  // A corner in the middle of a straight edge is none.
  expect(
    filletCorners([
      [0, 0],
      [50, 0],
      [100, 0],
      [100, 50],
      [0, 50],
    ]),
  ).toHaveLength(4);
});
