/**
 * Builds a home anew from nothing but numbers: every body but the datum starts at a wrong place and turn, and Newton's method
 * with true rotations (Rodrigues 1840) brings it to where relations and written sizes are met. Nothing of the equations of small
 * movements is used: distances are measured in the places themselves, and differences found by moving a little.
 */
import { add, cross, dot, scale, subtract, type Vec3 } from "../geometry";
import { at, seededRandom } from "../kernel";
import type { HomePlacing } from "./placing";

type Stand = { readonly move: Vec3; readonly turn: Vec3 };

function rotated(v: Vec3, turn: Vec3): Vec3 {
  const angle = Math.hypot(...turn);
  if (angle < 1e-15) return v;
  const axis = scale(turn, 1 / angle);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return add(add(scale(v, c), scale(cross(axis, v), s)), scale(axis, dot(axis, v) * (1 - c)));
}

/** mm per radian, so that moves and turns weigh alike. */
const ARM = 500;

/**
 * How far each body ends from its true place (mm, turns at an arm), by its number. `written`: what stands at each size, in mm,
 * by its id; sizes that are not there do not count.
 */
export function rebuilt(
  placing: HomePlacing,
  written: ReadonlyMap<string, number>,
  { seed, off }: { readonly seed: number; readonly off: number },
): readonly number[] {
  const { bodies, relations, sizes, datum } = placing;
  const random = seededRandom(seed);
  const axes: readonly Vec3[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  const firstOf: number[] = [];
  let count = 0;
  bodies.forEach(({ turns }, i) => {
    firstOf.push(count);
    count += i === datum ? 0 : 3 + turns.length;
  });
  const floor = count++;
  const standOf = (x: readonly number[], body: number): Stand => {
    if (body < 0) return { move: [0, 0, at(x, floor)], turn: [0, 0, 0] };
    if (body === datum) return { move: [0, 0, 0], turn: [0, 0, 0] };
    const first = at(firstOf, body);
    const sum = (own: readonly Vec3[], from: number, by: number) =>
      own.reduce<Vec3>((all, axis, i) => add(all, scale(axis, at(x, from + i) * by)), [0, 0, 0]);
    return { move: sum(axes, first, 1), turn: sum(at(bodies, body).turns, first + 3, 1 / ARM) };
  };
  const middleOf = (body: number): Vec3 => bodies[body]?.middle ?? [0, 0, 0];
  const numbers = new Map(bodies.map(({ key }, i) => [key, i]));
  type Stands = (body: number) => Stand;
  const there = (stands: Stands, body: number, p: Vec3): Vec3 => {
    const { move, turn } = stands(body);
    const middle = middleOf(body);
    return add(add(rotated(subtract(p, middle), turn), middle), move);
  };
  const doTurn = (...pair: readonly number[]) => pair.some((body) => (bodies[body]?.turns.length ?? 0) > 0);
  const rows: { readonly of: readonly number[]; readonly value: (stands: Stands) => number }[] = [
    ...relations.flatMap(({ a, b, holds }) =>
      holds
        // Where nothing turns one point of a plane says what three do.
        .filter(({ along }, i) => doTurn(a, b) || holds.findIndex((one) => one.along === along) === i)
        .map(({ at: p, along }) => ({
          of: [a, b],
          value: (stands: Stands) =>
            dot(rotated(along, stands(a).turn), subtract(there(stands, a, p), there(stands, b, p))),
        })),
    ),
    ...sizes.flatMap(({ id, a, b, hold }) => {
      const [i, k] = [numbers.get(a) ?? 0, numbers.get(b) ?? 0];
      const length = written.get(id);
      if (length === undefined) return [];
      const value = (stands: Stands) =>
        hold.kind === "angle"
          ? ARM * dot(subtract(stands(i).turn, stands(k).turn), hold.about)
          : dot(hold.along, subtract(there(stands, k, hold.atB), there(stands, i, hold.atA))) - length;
      return [{ of: [i, k], value }];
    }),
  ];
  const unknownsOf = (body: number): readonly number[] => {
    if (body < 0) return [floor];
    if (body === datum) return [];
    return Array.from({ length: 3 + at(bodies, body).turns.length }, (_, i) => at(firstOf, body) + i);
  };
  let x: number[] = Array.from({ length: count }, () => (2 * random.next() - 1) * off);
  for (let step = 0; step < 12; step++) {
    const stands = [-1, ...bodies.keys()].map((body) => standOf(x, body));
    const now: Stands = (body) => at(stands, body + 1);
    const square = x.map((_, i) => x.map((__, k): number => (i === k ? 1e-7 : 0)));
    const right = x.map(() => 0);
    let worst = 0;
    for (const { of, value } of rows) {
      const before = value(now);
      worst = Math.max(worst, Math.abs(before));
      const slopes = of.flatMap((body) =>
        unknownsOf(body).map((unknown) => {
          const moved = standOf(x.with(unknown, at(x, unknown) + STEP), body);
          const after = value((one) => (one === body ? moved : now(one)));
          return [unknown, (after - before) / STEP] as const;
        }),
      );
      for (const [i, p] of slopes) {
        right[i] = at(right, i) - p * before;
        const row = at(square, i);
        for (const [k, q] of slopes) row[k] = at(row, k) + p * q;
      }
    }
    if (worst < 1e-7) break;
    const change = solved(square, right);
    x = x.map((one, i) => one + at(change, i));
  }
  return bodies.map((_, i) => {
    const { move, turn } = standOf(x, i);
    return Math.hypot(...move, ...scale(turn, ARM));
  });
}

const STEP = 1e-4;

/** Gauss with the largest pivot. */
function solved(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const rows = matrix.map((row, i) => [...row, at(right, i)]);
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    let best = i;
    for (let k = i + 1; k < n; k++)
      if (Math.abs(at(at(rows, k), i)) > Math.abs(at(at(rows, best), i))) best = k;
    [rows[i], rows[best]] = [at(rows, best), at(rows, i)];
    const pivot = at(rows, i);
    for (let k = i + 1; k < n; k++) {
      const row = at(rows, k);
      const by = at(row, i) / at(pivot, i);
      if (by !== 0) for (let j = i; j <= n; j++) row[j] = at(row, j) - by * at(pivot, j);
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    const row = at(rows, i);
    let sum = at(row, n);
    for (let k = i + 1; k < n; k++) sum -= at(row, k) * at(x, k);
    x[i] = sum / at(row, i);
  }
  return x;
}
