/** Paths against places on their curves, worked out one by one. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { BulgedCorner, Vec2 } from "../geometry";
import { lawRuns } from "../kernel/law-runs.fixture";
import {
  axesOf,
  circlePath,
  curvesOf,
  type EllipseSegment,
  endOfSegment,
  isRound,
  onEllipse,
  pathData,
  pathOfCorners,
  pointsOf,
} from "./path";

const size = fc.integer({ min: -500, max: 500 }).map((n) => n / 10);
const vector = fc.tuple(size, size);
const ellipse: fc.Arbitrary<EllipseSegment> = fc
  .record({
    centre: vector,
    u: vector,
    v: vector,
    from: fc.double({ min: -7, max: 7, noNaN: true }),
    turn: fc.double({ min: -6.28, max: 6.28, noNaN: true }),
  })
  .filter(({ u, v, turn }) => {
    const area = Math.abs(u[0] * v[1] - u[1] * v[0]);
    return area > 1 && area > 0.02 * (Math.hypot(...u) ** 2 + Math.hypot(...v) ** 2) && Math.abs(turn) > 0.01;
  })
  .map(({ centre, u, v, from, turn }) => ({ kind: "ellipse", centre, u, v, from, to: from + turn }));

const distance = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** The places of an SVG arc by its end points (SVG 2, appendix B.2.4: conversion from endpoint to centre parameterization). */
function arcOfSvg(start: Vec2, [rx, ry, turn, large, sweep, x, y]: readonly number[], share: number): Vec2 {
  const phi = ((turn ?? 0) * Math.PI) / 180;
  const [c, s] = [Math.cos(phi), Math.sin(phi)];
  const [dx, dy] = [(start[0] - (x ?? 0)) / 2, (start[1] - (y ?? 0)) / 2];
  const [px, py] = [c * dx + s * dy, -s * dx + c * dy];
  const grown = Math.sqrt(Math.max(1, (px / (rx ?? 1)) ** 2 + (py / (ry ?? 1)) ** 2));
  const [a, b] = [(rx ?? 1) * grown, (ry ?? 1) * grown];
  const root =
    Math.sqrt(Math.max(0, (a * b) ** 2 / ((a * py) ** 2 + (b * px) ** 2) - 1)) * (large === sweep ? -1 : 1);
  const [qx, qy] = [(root * a * py) / b, (-root * b * px) / a];
  const centre: Vec2 = [
    c * qx - s * qy + (start[0] + (x ?? 0)) / 2,
    s * qx + c * qy + (start[1] + (y ?? 0)) / 2,
  ];
  const first = Math.atan2((py - qy) / b, (px - qx) / a);
  const last = Math.atan2((-py - qy) / b, (-px - qx) / a);
  let delta = last - first;
  if (sweep === 0 && delta > 0) delta -= 2 * Math.PI;
  if (sweep === 1 && delta < 0) delta += 2 * Math.PI;
  const angle = first + delta * share;
  const [ex, ey] = [a * Math.cos(angle), b * Math.sin(angle)];
  return [centre[0] + c * ex - s * ey, centre[1] + s * ex + c * ey];
}

describe("pieces of ellipses", () => {
  it("have half axes: the longest and the shortest radius", () => {
    fc.assert(
      fc.property(ellipse, (segment) => {
        const { major, minor, angle } = axesOf(segment);
        const radii = Array.from({ length: 720 }, (_, i) => {
          const place = onEllipse({ ...segment, centre: [0, 0] }, (i * Math.PI) / 360);
          return { radius: Math.hypot(...place), place };
        });
        expect(Math.max(...radii.map(({ radius }) => radius))).toBeLessThan(major + 1e-9);
        expect(Math.min(...radii.map(({ radius }) => radius))).toBeGreaterThan(minor - 1e-9);
        // Every place fulfils the equation of the ellipse with these axes.
        for (const {
          place: [x, y],
        } of radii) {
          const [p, q] = [
            Math.cos(angle) * x + Math.sin(angle) * y,
            -Math.sin(angle) * x + Math.cos(angle) * y,
          ];
          expect((p / major) ** 2 + (q / minor) ** 2).toBeCloseTo(1, 6);
        }
      }),
      { numRuns: lawRuns(60) },
    );
    expect(isRound({ u: [3, 4], v: [-4, 3] })).toBe(true);
    expect(isRound({ u: [3, 4], v: [-4, 3.1] })).toBe(false);
  });

  it("are followed by their cubic curves to some ten thousandths of their size", () => {
    fc.assert(
      fc.property(ellipse, (segment) => {
        const { major } = axesOf(segment);
        const curves = curvesOf(segment);
        let start = onEllipse(segment, segment.from);
        for (const [i, [p, q, end]] of curves.entries()) {
          for (const t of [0.25, 0.5, 0.75]) {
            const bezier = [0, 1].map(
              (k) =>
                (1 - t) ** 3 * (start[k] ?? 0) +
                3 * (1 - t) ** 2 * t * (p[k] ?? 0) +
                3 * (1 - t) * t ** 2 * (q[k] ?? 0) +
                t ** 3 * (end[k] ?? 0),
            ) as unknown as Vec2;
            const [a, b] = [i, i + 1].map(
              (n) => segment.from + ((segment.to - segment.from) * n) / curves.length,
            );
            const near = Array.from({ length: 401 }, (_, n) =>
              onEllipse(segment, (a ?? 0) + (((b ?? 0) - (a ?? 0)) * n) / 400),
            );
            expect(Math.min(...near.map((place) => distance(place, bezier)))).toBeLessThan(3e-3 * major);
          }
          start = end;
        }
        expect(distance(start, endOfSegment(segment))).toBeLessThan(1e-9);
      }),
      { numRuns: lawRuns(25) },
    );
  });

  it("are the very arcs that SVG draws by their end points", () => {
    fc.assert(
      fc.property(ellipse, (segment) => {
        const start = onEllipse(segment, segment.from);
        const data = pathData([{ from: start, segments: [segment], closed: false }], String);
        const arcs = [...data.matchAll(/A([^AZ]+)/g)].map(([, numbers = ""]) =>
          numbers.split(" ").map(Number),
        );
        expect(data.startsWith(`M${start[0]} ${start[1]}A`)).toBe(true);
        let from = start;
        arcs.forEach((arc, i) => {
          const middle = segment.from + ((segment.to - segment.from) * (i + 0.5)) / arcs.length;
          // Places hang on the square root of what is left of the radii at half a turn.
          expect(distance(arcOfSvg(from, arc, 0.5), onEllipse(segment, middle))).toBeLessThan(1e-3);
          from = [arc[5] ?? 0, arc[6] ?? 0];
        });
        expect(distance(from, endOfSegment(segment))).toBeLessThan(1e-9);
      }),
      { numRuns: lawRuns(200) },
    );
  });
});

describe("paths", () => {
  it("of corners with bulges keep their places under a flip", () => {
    // A slot: two straight sides of 30 and two half circles of radius 10 (bulge 1 is half a turn).
    const slot: readonly BulgedCorner[] = [
      [0, 0],
      [30, 0, 1],
      [30, 20],
      [0, 20, 1],
    ];
    const flip = ([x, y]: Vec2): Vec2 => [x, 50 - y];
    const [plain, flipped] = [pathOfCorners(slot), pathOfCorners(slot, flip)].map((path) =>
      pointsOf(path, 0.1),
    );
    for (const [i, place] of (plain ?? []).entries())
      expect(distance(flip(place), flipped?.[i] ?? [0, 0])).toBeLessThan(1e-9);
    expect(Math.max(...(plain ?? []).map(([x]) => x))).toBeCloseTo(40, 6);
  });

  it("close by themselves, and a circle is one", () => {
    const points = pointsOf(circlePath([5, 5], 3), Math.PI / 2);
    expect(points.map((place) => place.map((one) => Math.round(one * 1e6) / 1e6))).toEqual([
      [8, 5],
      [5, 8],
      [2, 5],
      [5, 2],
      [8, 5],
    ]);
    const open = {
      from: [0, 0] as Vec2,
      segments: [
        { kind: "line" as const, to: [4, 0] as Vec2 },
        { kind: "line" as const, to: [4, 4] as Vec2 },
      ],
    };
    expect(pointsOf({ ...open, closed: true }, 1)).toHaveLength(4);
    expect(pointsOf({ ...open, closed: false }, 1)).toHaveLength(3);
  });
});
