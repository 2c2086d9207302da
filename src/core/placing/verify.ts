/**
 * Checks what is said of a home by another way than it was found: all bodies but the datum are pushed off at random, and conjugate
 * gradients (Hestenes and Stiefel 1952, on the normal equations) bring them back as far as what holds them does. A body that is
 * said to be placed must come back, and one that is said to be loose must not.
 *
 * It shares what relations and sizes were read with what it checks, and nothing of how they are solved.
 */
import { cross, dot, subtract, type Vec3 } from "../geometry";
import { at, seededRandom } from "../kernel";
import type { Body } from "./bodies";
import type { HomePlacing } from "./placing";

const ARM = 500;

export type Verdict = {
  /** Said to be placed, but something moves them. */
  readonly movable: readonly number[];
  /** Said to be loose, but they do not move. */
  readonly held: readonly number[];
};

/** Sums over unknowns that must not change, in one list after the other: a sum begins where the one before it ends. */
type Sums = { readonly unknowns: number[]; readonly factors: number[]; readonly ends: number[] };

/** The unknowns of a body begin at its number here: its moves along x, y and z, then its turns in mm at an arm of `ARM`. */
type Numbering = {
  readonly firstOf: readonly number[];
  readonly floor: number;
  readonly datum: number | null;
};

/** What pulling a point of a body along a direction means for its unknowns; the floor has its height only. */
function pull(
  sums: Sums,
  bodies: readonly Body[],
  numbering: Numbering,
  body: number,
  place: Vec3,
  along: Vec3,
  sign: number,
): void {
  const put = (unknown: number, factor: number) => {
    if (factor === 0) return;
    sums.unknowns.push(unknown);
    sums.factors.push(sign * factor);
  };
  if (body === numbering.datum) return;
  const own = bodies[body];
  if (!own) {
    put(numbering.floor, along[2]);
    return;
  }
  const first = at(numbering.firstOf, body);
  for (const [i, part] of along.entries()) put(first + i, part);
  const arm = subtract(place, own.middle);
  for (const [i, axis] of own.turns.entries()) put(first + 3 + i, dot(cross(axis, arm), along) / ARM);
}

function twist(
  sums: Sums,
  bodies: readonly Body[],
  numbering: Numbering,
  body: number,
  about: Vec3,
  sign: number,
): void {
  if (body === numbering.datum) return;
  for (const [i, axis] of at(bodies, body).turns.entries()) {
    sums.unknowns.push(at(numbering.firstOf, body) + 3 + i);
    sums.factors.push(sign * dot(axis, about));
  }
}

function sumsOf({ bodies, relations, sizes }: HomePlacing, numbering: Numbering): Sums {
  const sums: Sums = { unknowns: [], factors: [], ends: [] };
  const end = () => sums.ends.push(sums.unknowns.length);
  for (const { a, b, holds } of relations) {
    const turns = [a, b].some((one) => (bodies[one]?.turns.length ?? 0) > 0);
    for (const [i, { at: place, along }] of holds.entries()) {
      // Where nothing turns, further points say the same.
      if (!turns && holds.findIndex((one) => one.along === along) < i) continue;
      pull(sums, bodies, numbering, a, place, along, 1);
      pull(sums, bodies, numbering, b, place, along, -1);
      end();
    }
  }
  const numbers = new Map(bodies.map(({ key }, i) => [key, i]));
  for (const { a, b, hold } of sizes) {
    const [i, k] = [numbers.get(a) ?? 0, numbers.get(b) ?? 0];
    if (hold.kind === "angle") {
      twist(sums, bodies, numbering, i, hold.about, 1);
      twist(sums, bodies, numbering, k, hold.about, -1);
    } else {
      pull(sums, bodies, numbering, i, hold.atA, hold.along, 1);
      pull(sums, bodies, numbering, k, hold.atB, hold.along, -1);
    }
    end();
  }
  return sums;
}

/** Pushed off by about 1, what comes back to within a thousandth of it came back. */
const BACK = 1e-3;
const MOST_STEPS = 6_000;

/** What is pushed off at random may by chance come to rest near to where it belongs: what looks wrong is looked at so often. */
const TRIES = 3;

/** Compares what is said of a home with what moves. */
export function verifyPlacing(placing: HomePlacing, seed = 1): Verdict {
  const { bodies, loose, datum } = placing;
  const firstOf: number[] = [];
  let width = 0;
  for (const { turns } of bodies) {
    firstOf.push(width);
    width += 3 + turns.length;
  }
  const floor = width++;
  const sums = sumsOf(placing, { firstOf, floor, datum });
  const isLoose = new Set(loose.flatMap((group) => group.bodies));
  let wrong: readonly number[] = [...bodies.keys()];
  for (let i = 0; i < TRIES && wrong.length > 0; i++) {
    const x = settled(sums, width, seed + i);
    const hasMoved = (body: number) =>
      body !== datum &&
      x.subarray(at(firstOf, body), firstOf[body + 1] ?? floor).some((part) => Math.abs(part) > BACK);
    wrong = wrong.filter((body) => hasMoved(body) !== isLoose.has(body));
  }
  return {
    movable: wrong.filter((body) => !isLoose.has(body)),
    held: wrong.filter((body) => isLoose.has(body)),
  };
}

/** Where unknowns that were pushed off at random come to rest when all sums are drawn back to nought. */
function settled({ unknowns, factors, ends }: Sums, width: number, seed: number): Float64Array {
  const random = seededRandom(seed);
  const x = Float64Array.from({ length: width }, () => 2 * random.next() - 1);
  const columns = Int32Array.from(unknowns);
  const parts = Float64Array.from(factors);
  const rows = ends.length;
  const q = new Float64Array(rows);
  const s = new Float64Array(width);
  const apply = (v: Float64Array): void => {
    let k = 0;
    for (let row = 0; row < rows; row++) {
      let sum = 0;
      for (const end = ends[row] ?? 0; k < end; k++) sum += (parts[k] ?? 0) * (v[columns[k] ?? 0] ?? 0);
      q[row] = sum;
    }
  };
  const transposed = (v: Float64Array): number => {
    s.fill(0);
    let k = 0;
    for (let row = 0; row < rows; row++) {
      const by = v[row] ?? 0;
      for (const end = ends[row] ?? 0; k < end; k++) {
        const column = columns[k] ?? 0;
        s[column] = (s[column] ?? 0) + (parts[k] ?? 0) * by;
      }
    }
    return square(s);
  };
  apply(x);
  const r = q.map((part) => 0 - part);
  let gamma = transposed(r);
  const p = s.slice();
  for (let step = 0; step < MOST_STEPS && gamma > NOTHING_LEFT; step++) {
    apply(p);
    const by = gamma / square(q);
    for (let i = 0; i < width; i++) x[i] = (x[i] ?? 0) + by * (p[i] ?? 0);
    for (let i = 0; i < rows; i++) r[i] = (r[i] ?? 0) - by * (q[i] ?? 0);
    const next = transposed(r);
    for (let i = 0; i < width; i++) p[i] = (s[i] ?? 0) + (next / gamma) * (p[i] ?? 0);
    gamma = next;
  }
  return x;
}

/** Squares of what is still off: far below what would be seen as a movement. */
const NOTHING_LEFT = 1e-18;

function square(v: Float64Array): number {
  let sum = 0;
  for (const part of v) sum += part * part;
  return sum;
}
