/** Balloons round a view: nothing crosses, nothing is run through, and what stands stays. */
import { describe, expect, it } from "vitest";
import type { Vec2 } from "../../geometry";
import { type Random, seededRandom } from "../../kernel";
import { assigned } from "./assign";
import {
  BALLOON_RADIUS,
  balloonPlaces,
  type PlacedBalloon,
  type RingGround,
  type ToPlace,
} from "./balloon-places";

/** The least sum over all ways to assign, by trying them all. */
function leastSum(costs: readonly (readonly number[])[]): number {
  const [first, ...rest] = costs;
  if (!first) return 0;
  return Math.min(
    ...first.map((cost, column) =>
      cost === Number.POSITIVE_INFINITY
        ? cost
        : cost +
          leastSum(rest.map((row) => row.map((one, i) => (i === column ? Number.POSITIVE_INFINITY : one)))),
    ),
  );
}

describe("the assignment", () => {
  it("has the least sum that any has, each column taken once", () => {
    const random = seededRandom(3);
    for (let i = 0; i < 200; i++) {
      const rows = 1 + Math.floor(random.next() * 5);
      const columns = rows + Math.floor(random.next() * 3);
      const costs = Array.from({ length: rows }, () =>
        Array.from({ length: columns }, () => Math.round(random.next() * 50) - 10),
      );
      const taken = assigned(rows, columns, (row, column) => costs[row]?.[column] ?? 0);
      expect(new Set(taken).size).toBe(rows);
      expect(taken.reduce((sum, column, row) => sum + (costs[row]?.[column] ?? 0), 0)).toBe(leastSum(costs));
    }
  });
});

const ground = (width: number, height: number): RingGround => ({
  box: { x0: -width / 2, y0: -height / 2, x1: width / 2, y1: height / 2 },
  edges: [0, Math.PI / 2],
  blocked: [],
  isFree: () => true,
});
const tipsAt = (count: number, width: number, height: number, random: Random): ToPlace[] =>
  Array.from({ length: count }, () => ({
    stands: null,
    tips: Array.from(
      { length: 1 + Math.floor(random.next() * 2) },
      (): Vec2 => [(random.next() - 0.5) * width, (random.next() - 0.5) * height],
    ),
  }));

type Leader = readonly [Vec2, Vec2];
const leadersOf = (placed: readonly PlacedBalloon[], balloons: readonly ToPlace[]): readonly Leader[] =>
  placed.flatMap(({ at, tip }, i): Leader[] => {
    const end = tip === null ? undefined : balloons[i]?.tips[tip];
    return end ? [[at, end]] : [];
  });

/** By sampling, which shares nothing with the sides of the method: where two stretches come together, or one a balloon. */
function faults(placed: readonly PlacedBalloon[], balloons: readonly ToPlace[]): number {
  const leaders = leadersOf(placed, balloons);
  let count = 0;
  for (const [i, [a, b]] of leaders.entries())
    for (const [k, [c, d]] of leaders.entries()) {
      if (i === k) continue;
      // a + t (b − a) = c + s (d − c), solved by Cramer's rule.
      const [x, y, u, v] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
      const det = u * y - x * v;
      if (i < k && Math.abs(det) > 1e-9) {
        const t = (u * (c[1] - a[1]) - v * (c[0] - a[0])) / det;
        const s = (x * (c[1] - a[1]) - y * (c[0] - a[0])) / det;
        if (t > 1e-6 && t < 1 - 1e-6 && s > 1e-6 && s < 1 - 1e-6) count++;
      }
      const near = Array.from({ length: 200 }, (_, n) => n / 200).some(
        (t) => Math.hypot(a[0] + x * t - c[0], a[1] + y * t - c[1]) < BALLOON_RADIUS,
      );
      if (near) count++;
    }
  return count;
}

describe("balloons", () => {
  it("of random views cross nothing and run through nothing", () => {
    const random = seededRandom(11);
    for (let i = 0; i < 100; i++) {
      const [width, height] = [60 + random.next() * 140, 40 + random.next() * 100];
      const balloons = tipsAt(3 + Math.floor(random.next() * 25), width, height, random);
      const placed = balloonPlaces(balloons, ground(width, height));
      expect(faults(placed, balloons)).toBe(0);
      const places = placed.map(({ at }) => at.join(" "));
      expect(new Set(places).size).toBe(places.length);
    }
  });

  it("that stand stay where they are when the view grows a little, most of them", () => {
    const random = seededRandom(5);
    let [moved, all] = [0, 0];
    for (let i = 0; i < 60; i++) {
      const [width, height] = [120, 80];
      const balloons = tipsAt(12, width, height, random);
      const before = balloonPlaces(balloons, ground(width, height));
      const larger = balloons.map(({ tips }, k) => ({
        tips: tips.map(([x, y]): Vec2 => [x * 1.08, y]),
        stands: before[k]?.stands ?? null,
      }));
      const after = balloonPlaces(larger, ground(width * 1.08, height));
      expect(faults(after, larger)).toBe(0);
      all += after.length;
      moved += after.filter(
        ({ stands }, k) => JSON.stringify(stands) !== JSON.stringify(before[k]?.stands),
      ).length;
    }
    expect(moved / all).toBeLessThan(0.03);
  });

  it("put by hand stay, and the others keep out of their way", () => {
    const random = seededRandom(8);
    for (let i = 0; i < 60; i++) {
      const balloons = tipsAt(8, 120, 80, random);
      const hand: ToPlace = { tips: [[10, 5]], stands: { kind: "hand", at: [90, -30] } };
      const placed = balloonPlaces([...balloons, hand], ground(120, 80));
      expect(placed.at(-1)).toMatchObject({ at: [90, -30], stands: hand.stands });
      expect(faults(placed, [...balloons, hand])).toBe(0);
    }
  });

  it("keep off places that are taken by something else", () => {
    const balloons = tipsAt(10, 120, 80, seededRandom(2));
    const half: RingGround = { ...ground(120, 80), isFree: ([x]) => x > 0 };
    for (const { at } of balloonPlaces(balloons, half)) expect(at[0]).toBeGreaterThan(0);
  });

  it("lead round what stands beside the view, where they can", () => {
    const balloons = tipsAt(6, 100, 60, seededRandom(4));
    const wall = { x0: 55, y0: -60, x1: 60, y1: 60 };
    const placed = balloonPlaces(balloons, { ...ground(100, 60), blocked: [wall] });
    for (const { at } of placed) expect(at[0]).toBeLessThan(wall.x1);
  });

  it("for which there is no room say so", () => {
    const balloons = tipsAt(10, 100, 60, seededRandom(4));
    const placed = balloonPlaces(balloons, {
      ...ground(100, 60),
      isFree: ([x, y]) => y < 0 && x > 0 && x < 40,
    });
    expect(placed.filter(({ crowded }) => crowded).length).toBeGreaterThan(2);
    const stood = placed.filter(({ crowded }) => !crowded).map(({ at }) => at.join(" "));
    expect(new Set(stood).size).toBe(stood.length);
  });
});
