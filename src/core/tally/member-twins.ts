/**
 * How far two members are from being one piece. A roll of the section keeps the ends; a half-turn about
 * a mirror line of the section exchanges them (2-computation.md, section 5). The distance is the least,
 * over all such motions, of the greatest difference in units of tolerance.
 */
import { type End, kindOf, type Tolerance, type Wave } from "../ends";
import { norm2 } from "../geometry";
import {
  at,
  LENGTH_TOLERANCE_MM,
  NEAR_TWIN_ANGLE_DEG,
  NEAR_TWIN_LENGTH_MM,
  NM_PER_MM,
  SLOPE_TOLERANCE,
} from "../kernel";
import { toRadians } from "../measure";
import { type PlaneTurn, sectionProperties } from "../stockroom";
import type { MemberForm } from "./forms";
import {
  hasWork,
  type MemberWorkForm,
  movedWork,
  sameCounts,
  workApart,
  workNumbers,
  workSizes,
  workTwist,
  workWays,
} from "./member-work-twins";

export const TWIN_TOLERANCE: Tolerance = {
  lengthNm: LENGTH_TOLERANCE_MM * NM_PER_MM,
  slope: SLOPE_TOLERANCE,
};

/** Within this, two rows are likely one by mistake, and may be put together by hand. */
export const NEAR_TWIN_LIMIT: Tolerance = {
  lengthNm: NEAR_TWIN_LENGTH_MM * NM_PER_MM,
  slope: Math.tan(toRadians(NEAR_TWIN_ANGLE_DEG)),
};

/** Proper motions make twins; mirrored ones make the opposite hand. */
export type Handedness = "proper" | "mirrored";

type Ends = MemberForm["ends"];

const turned = (end: End, turn: PlaneTurn): End => kindOf(end).turned(end, turn.rows);

type Laid = { readonly ends: Ends; readonly work: MemberWorkForm };

/** The forms that the two ends and the work take under all motions of one handedness. */
function laidForms(form: MemberForm, turns: readonly PlaneTurn[], handedness: Handedness): readonly Laid[] {
  const { ends } = form;
  return turns.map((turn): Laid => {
    const exchange = turn.mirror === (handedness === "proper");
    const [first, second] = exchange ? [ends[1], ends[0]] : ends;
    return {
      ends: [turned(first, turn), turned(second, turn)],
      work: hasWork(form) ? movedWork(form, turn.rows, exchange) : form,
    };
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

/** Distance between two ends as they lie, in units of tolerance; ends of two kinds are never one. */
function endsApart(a: End, b: End, tolerance: Tolerance): number {
  return a.kind === b.kind ? kindOf(a).apart(a, b, tolerance) : Number.POSITIVE_INFINITY;
}

/** Distance between two members of one section, in units of tolerance. */
export function memberDistance(
  a: MemberForm,
  b: MemberForm,
  handedness: Handedness,
  tolerance: Tolerance,
): number {
  if (!sameCounts(a, b)) return Number.POSITIVE_INFINITY;
  const length = Math.abs(a.centreNm - b.centreNm) / tolerance.lengthNm;
  const turns = turnsOf(a);
  const ends =
    turns === "round"
      ? roundDistance(a, b, handedness, tolerance)
      : finiteDistance(laidForms(a, turns, handedness), b, tolerance);
  return Math.max(length, ends);
}

function finiteDistance(forms: readonly Laid[], b: MemberForm, tolerance: Tolerance): number {
  const [p, q] = b.ends;
  let least = Number.POSITIVE_INFINITY;
  for (const { ends, work } of forms) {
    const apart = Math.max(endsApart(ends[0], p, tolerance), endsApart(ends[1], q, tolerance));
    if (apart >= least) continue;
    least = Math.min(least, Math.max(apart, hasWork(b) ? workApart(work, b, tolerance) : 0));
  }
  return least;
}

const MIRROR_X: PlaneTurn = {
  rows: [
    [1, 0],
    [0, -1],
  ],
  mirror: true,
};

/**
 * Round sections: every roll is allowed, so the least is taken over a full turn in closed form. In units
 * of tolerance.
 */
function roundDistance(a: MemberForm, b: MemberForm, handedness: Handedness, tolerance: Tolerance): number {
  const [p, q] = b.ends;
  let least = Number.POSITIVE_INFINITY;
  for (const { ends, work } of laidForms(a, [STAY, MIRROR_X], handedness)) {
    const drilled = workWays(work, b, tolerance);
    for (const one of waysOnto(ends[0], p, tolerance)) {
      for (const other of waysOnto(ends[1], q, tolerance)) {
        for (const worked of drilled) {
          const fixed = Math.max(one.fixed, other.fixed, worked.fixed);
          if (fixed >= least) continue;
          const waves = [...one.waves, ...other.waves, ...worked.waves];
          least = Math.min(least, Math.max(fixed, leastOverTurns(waves)));
        }
      }
    }
  }
  return least;
}

const waysOnto = (a: End, b: End, tolerance: Tolerance) =>
  a.kind === b.kind ? kindOf(a).ways(a, b, tolerance) : [];

/**
 * min over φ of the greatest |R(φ)from − to| / unit. Each squared distance is c − d·cos(φ − φ0); the least
 * of their maximum lies at one of their own minima or where two of them are equal.
 */
function leastOverTurns(all: readonly Wave[]): number {
  const waves = all.map(({ from, to, unit }) => ({
    mean: (from[0] ** 2 + from[1] ** 2 + to[0] ** 2 + to[1] ** 2) / unit ** 2,
    swing: (2 * norm2(from) * norm2(to)) / unit ** 2,
    phase: Math.atan2(to[1], to[0]) - Math.atan2(from[1], from[0]),
  }));
  const worst = (angle: number) =>
    Math.max(...waves.map(({ mean, swing, phase }) => mean - swing * Math.cos(angle - phase)));
  const angles = waves.map((wave) => wave.phase);
  for (let i = 0; i < waves.length; i++) {
    for (let j = i + 1; j < waves.length; j++) angles.push(...crossings(at(waves, i), at(waves, j)));
  }
  // Two equal numbers may differ in their last bits, so a squared distance may come out below zero.
  return Math.sqrt(Math.max(0, Math.min(...angles.map(worst))));
}

type Cosine = { readonly mean: number; readonly swing: number; readonly phase: number };

/** Where two of the waves are equal. */
function crossings(a: Cosine, b: Cosine): readonly number[] {
  const x = a.swing * Math.cos(a.phase) - b.swing * Math.cos(b.phase);
  const y = a.swing * Math.sin(a.phase) - b.swing * Math.sin(b.phase);
  const size = Math.hypot(x, y);
  const level = size > 0 ? (a.mean - b.mean) / size : 2;
  if (Math.abs(level) > 1) return [];
  const centre = Math.atan2(y, x);
  return [centre + Math.acos(level), centre - Math.acos(level)];
}

/** A tuple that is the same for all forms of a member and its opposite hand; for order only, never for equality. */
export function memberOrderKey(form: MemberForm): readonly number[] {
  const turns = turnsOf(form);
  if (turns === "round") {
    const sizes = form.ends.map((end) => kindOf(end).sizes(end)).sort(compareTuples);
    return [form.centreNm, ...sizes.flat(), Math.abs(turnOf(form)), ...workSizes(form)];
  }
  const forms = (["proper", "mirrored"] as const).flatMap((handedness) => laidForms(form, turns, handedness));
  return [form.centreNm, ...leastTuple(forms)];
}

/** From the lean of the first end to that of the second, in radians. */
function turnOf({ ends }: MemberForm): number {
  const [p, q] = [kindOf(ends[0]).lean(ends[0]).towards, kindOf(ends[1]).lean(ends[1]).towards];
  return Math.atan2(p[0] * q[1] - p[1] * q[0], p[0] * q[0] + p[1] * q[1]);
}

/** The least tuple over proper motions only: tells the two hands apart, for breaking ties between them. */
export function memberHandKey(form: MemberForm): readonly number[] {
  const turns = turnsOf(form);
  return turns === "round"
    ? [Math.sin(turnOf(form)), workTwist(form)]
    : leastTuple(laidForms(form, turns, "proper"));
}

function compareTuples(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    const difference = at(a, i) - at(b, i);
    if (difference !== 0) return difference;
  }
  return a.length - b.length;
}

function leastTuple(forms: readonly Laid[]): readonly number[] {
  const tuples = forms.map(({ ends, work }) => [
    ...ends.flatMap((end) => kindOf(end).numbers(end)),
    ...workNumbers(work),
  ]);
  return at(tuples.sort(compareTuples), 0);
}
