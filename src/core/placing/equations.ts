/**
 * Equations of small movements. Each body may move along the axes of its home and turn about those axes about which nothing
 * tells how it lies; what holds two bodies together allows no movement between them in its direction. What then cannot move is
 * placed: held to first order at its true place it is held (the witness method, Michelucci and Foufou 2006).
 */
import { cross, dot, subtract, type Vec3 } from "../geometry";
import { at } from "../kernel";
import type { Body } from "./bodies";
import type { Coefficients } from "./elimination";
import { FLOOR, type Hold } from "./relations";

/** mm. Turns count as the way of a point that is so far off, so that they and moves are of one order. */
const ARM = 500;

/** Where the unknowns of each body stand among all: three moves, then its turns. */
export type Unknowns = {
  readonly firstOf: readonly number[];
  /** Of the floor: its height. */
  readonly floor: number;
  /** The body from which all others are placed: it does not move; null: none yet. */
  readonly datum: number | null;
};

export function unknownsOf(bodies: readonly Body[], datum: number | null): Unknowns {
  let next = 0;
  const firstOf = bodies.map(({ turns }) => {
    const first = next;
    next += 3 + turns.length;
    return first;
  });
  return { firstOf, floor: next, datum };
}

/** Two bodies that may be taken apart at a point of each along a direction. */
export type Between = {
  readonly a: number;
  readonly b: number;
  readonly atA: Vec3;
  readonly atB: Vec3;
  readonly along: Vec3;
};

/** How far the two move apart: of a towards the direction less of b. */
export function movingApart(
  bodies: readonly Body[],
  unknowns: Unknowns,
  { a, b, atA, atB, along }: Between,
): Coefficients {
  const cells = new Map<number, number>();
  moves(cells, bodies, unknowns, a, atA, along, 1);
  moves(cells, bodies, unknowns, b, atB, along, -1);
  return cells;
}

export const heldApart = (a: number, b: number, { at: place, along }: Hold): Between => ({
  a,
  b,
  atA: place,
  atB: place,
  along,
});

/** How far two bodies turn against one another about a direction. */
export function turningApart(
  bodies: readonly Body[],
  unknowns: Unknowns,
  a: number,
  b: number,
  about: Vec3,
): Coefficients {
  const cells = new Map<number, number>();
  for (const [body, sign] of [
    [a, 1],
    [b, -1],
  ] as const) {
    if (body === unknowns.datum || body === FLOOR) continue;
    const first = at(unknowns.firstOf, body) + 3;
    for (const [i, axis] of at(bodies, body).turns.entries()) put(cells, first + i, sign * dot(axis, about));
  }
  return cells;
}

function moves(
  cells: Map<number, number>,
  bodies: readonly Body[],
  { firstOf, floor, datum }: Unknowns,
  body: number,
  place: Vec3,
  along: Vec3,
  sign: 1 | -1,
): void {
  if (body === datum) return;
  if (body === FLOOR) {
    put(cells, floor, sign * along[2]);
    return;
  }
  const { middle, turns } = at(bodies, body);
  const first = at(firstOf, body);
  for (const i of [0, 1, 2] as const) put(cells, first + i, sign * along[i]);
  const arm = subtract(place, middle);
  for (const [i, axis] of turns.entries())
    put(cells, first + 3 + i, (sign * dot(cross(axis, arm), along)) / ARM);
}

function put(cells: Map<number, number>, unknown: number, by: number): void {
  if (Math.abs(by) > 1e-12) cells.set(unknown, (cells.get(unknown) ?? 0) + by);
}
