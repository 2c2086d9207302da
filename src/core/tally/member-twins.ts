/**
 * How far two members are from being one piece. A roll of the section keeps the ends; a half-turn about
 * a mirror line of the section exchanges them (2-computation.md, section 5). The distance is the least,
 * over all such motions, of the greatest difference in units of tolerance.
 */
import { norm2, type Vec2 } from "../geometry";
import { at, LENGTH_TOLERANCE_MM, NM_PER_MM, SLOPE_TOLERANCE } from "../kernel";
import { type PlaneTurn, sectionProperties } from "../stockroom";
import type { MemberForm } from "./piece";

export type Tolerance = { readonly lengthNm: number; readonly slope: number };
export const TWIN_TOLERANCE: Tolerance = {
  lengthNm: LENGTH_TOLERANCE_MM * NM_PER_MM,
  slope: SLOPE_TOLERANCE,
};

/** Proper motions make twins; mirrored ones make the opposite hand. */
export type Handedness = "proper" | "mirrored";

type Ends = readonly [Vec2, Vec2];

const applied = ({ rows: [r0, r1] }: PlaneTurn, s: Vec2): Vec2 => [
  r0[0] * s[0] + r0[1] * s[1],
  r1[0] * s[0] + r1[1] * s[1],
];

/** The forms that the two ends take under all motions of one handedness. */
function endForms(form: MemberForm, turns: readonly PlaneTurn[], handedness: Handedness): readonly Ends[] {
  return turns.map((turn): Ends => {
    const exchange = turn.mirror === (handedness === "proper");
    const [first, second] = exchange ? [form.end, form.start] : [form.start, form.end];
    return [applied(turn, first), applied(turn, second)];
  });
}

const STAY: PlaneTurn = {
  rows: [
    [1, 0],
    [0, 1],
  ],
  mirror: false,
};

const turnsOf = (form: MemberForm): readonly PlaneTurn[] | "round" => {
  if (form.shape === null) return [STAY];
  const { symmetry } = sectionProperties(form.shape);
  return symmetry.kind === "round" ? "round" : symmetry.turns;
};

const apart = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Distance between two members of one section, in units of tolerance. */
export function memberDistance(
  a: MemberForm,
  b: MemberForm,
  handedness: Handedness,
  tolerance: Tolerance,
): number {
  const length = Math.abs(a.centreNm - b.centreNm) / tolerance.lengthNm;
  const turns = turnsOf(a);
  const ends = turns === "round" ? roundDistance(a, b, handedness) : finiteDistance(a, b, turns, handedness);
  return Math.max(length, ends / tolerance.slope);
}

function finiteDistance(
  a: MemberForm,
  b: MemberForm,
  turns: readonly PlaneTurn[],
  handedness: Handedness,
): number {
  let least = Number.POSITIVE_INFINITY;
  for (const [start, end] of endForms(a, turns, handedness)) {
    least = Math.min(least, Math.max(apart(start, b.start), apart(end, b.end)));
  }
  return least;
}

/** Round sections: every roll is allowed, so the least is taken over a full turn in closed form. */
function roundDistance(a: MemberForm, b: MemberForm, handedness: Handedness): number {
  const mirrorX = (s: Vec2): Vec2 => [s[0], -s[1]];
  const kept: Ends = [a.start, a.end];
  const exchanged: Ends = [a.end, a.start];
  const candidates: readonly Ends[] =
    handedness === "proper"
      ? [kept, [mirrorX(exchanged[0]), mirrorX(exchanged[1])]]
      : [exchanged, [mirrorX(kept[0]), mirrorX(kept[1])]];
  return Math.min(...candidates.map(([start, end]) => leastOverTurns([start, b.start], [end, b.end])));
}

type Pair = readonly [Vec2, Vec2];

/**
 * min over φ of max(|R(φ)p − p'|, |R(φ)q − q'|). Each squared distance is c − d·cos(φ − φ0); the least
 * of their maximum lies at one of their own minima or where the two are equal.
 */
function leastOverTurns(p: Pair, q: Pair): number {
  const wave = ([from, to]: Pair) => ({
    mean: from[0] ** 2 + from[1] ** 2 + to[0] ** 2 + to[1] ** 2,
    swing: 2 * norm2(from) * norm2(to),
    phase: Math.atan2(to[1], to[0]) - Math.atan2(from[1], from[0]),
  });
  const [first, second] = [wave(p), wave(q)];
  const worst = (angle: number) =>
    Math.max(
      first.mean - first.swing * Math.cos(angle - first.phase),
      second.mean - second.swing * Math.cos(angle - second.phase),
    );
  const angles = [first.phase, second.phase];
  const x = first.swing * Math.cos(first.phase) - second.swing * Math.cos(second.phase);
  const y = first.swing * Math.sin(first.phase) - second.swing * Math.sin(second.phase);
  const size = Math.hypot(x, y);
  const level = size > 0 ? (first.mean - second.mean) / size : 2;
  if (Math.abs(level) <= 1) {
    const centre = Math.atan2(y, x);
    angles.push(centre + Math.acos(level), centre - Math.acos(level));
  }
  // Two equal numbers may differ in their last bits, so a squared distance may come out below zero.
  return Math.sqrt(Math.max(0, Math.min(...angles.map(worst))));
}

/** A tuple that is the same for all forms of a member and its opposite hand; for order only, never for equality. */
export function memberOrderKey(form: MemberForm): readonly number[] {
  const turns = turnsOf(form);
  if (turns === "round") {
    const sizes = [norm2(form.start), norm2(form.end)].sort((a, b) => a - b);
    const between = Math.abs(
      Math.atan2(
        form.start[0] * form.end[1] - form.start[1] * form.end[0],
        form.start[0] * form.end[0] + form.start[1] * form.end[1],
      ),
    );
    return [form.centreNm, ...sizes, between];
  }
  const tuples = (["proper", "mirrored"] as const).flatMap((handedness) => endForms(form, turns, handedness));
  return [form.centreNm, ...leastTuple(tuples)];
}

/** The least tuple over proper motions only: tells the two hands apart, for breaking ties between them. */
export function memberHandKey(form: MemberForm): readonly number[] {
  const turns = turnsOf(form);
  if (turns === "round") {
    const cross = form.start[0] * form.end[1] - form.start[1] * form.end[0];
    return [cross];
  }
  return leastTuple(endForms(form, turns, "proper"));
}

function leastTuple(forms: readonly Ends[]): readonly number[] {
  const tuples = forms.map(([s, e]) => [s[0], s[1], e[0], e[1]]);
  tuples.sort((a, b) => {
    for (let i = 0; i < 4; i++) {
      const difference = at(a, i) - at(b, i);
      if (difference !== 0) return difference;
    }
    return 0;
  });
  return at(tuples, 0);
}
