/**
 * How far two members are from being one piece. A roll of the section keeps the ends; a half-turn about
 * a mirror line of the section exchanges them (2-computation.md, section 5). The distance is the least,
 * over all such motions, of the greatest difference in units of tolerance.
 */
import { norm2, type Vec2 } from "../geometry";
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
import type { CopeForm, MemberForm } from "./piece";

export type Tolerance = { readonly lengthNm: number; readonly slope: number };
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
  const ends =
    turns === "round"
      ? roundDistance(a, b, handedness, tolerance)
      : finiteDistance(a, b, turns, handedness) / tolerance.slope;
  return Math.max(length, ends);
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

/** One end of a round member: its lean and, where it is coped, its saddle. */
type RoundEnd = { readonly slope: Vec2; readonly cope: CopeForm | null };

const mirrorX = (s: Vec2): Vec2 => [s[0], -s[1]];
const mirroredEnd = ({ slope, cope }: RoundEnd): RoundEnd => ({
  slope: mirrorX(slope),
  cope: cope && { ...cope, u: mirrorX(cope.u), offset: mirrorX(cope.offset) },
});

/**
 * Round sections: every roll is allowed, so the least is taken over a full turn in closed form. In units
 * of tolerance.
 */
function roundDistance(a: MemberForm, b: MemberForm, handedness: Handedness, tolerance: Tolerance): number {
  const [first, second] = endsOf(a);
  const candidates =
    handedness === "proper"
      ? [
          [first, second],
          [mirroredEnd(second), mirroredEnd(first)],
        ]
      : [
          [second, first],
          [mirroredEnd(first), mirroredEnd(second)],
        ];
  const [p, q] = endsOf(b);
  let least = Number.POSITIVE_INFINITY;
  for (const [start, end] of candidates) {
    if (!start || !end) continue;
    for (const one of endWaves(start, p, tolerance)) {
      for (const other of endWaves(end, q, tolerance)) {
        const fixed = Math.max(one.fixed, other.fixed);
        if (fixed >= least) continue;
        least = Math.min(least, Math.max(fixed, leastOverTurns([...one.waves, ...other.waves])));
      }
    }
  }
  return least;
}

const endsOf = ({ start, end, copes }: MemberForm): readonly [RoundEnd, RoundEnd] => [
  { slope: start, cope: copes[0] },
  { slope: end, cope: copes[1] },
];

/** Two vectors of which the first is turned onto the second, and the tolerance between them. */
type Wave = { readonly from: Vec2; readonly to: Vec2; readonly unit: number };
type EndWaves = { readonly waves: readonly Wave[]; readonly fixed: number };

/**
 * What must be turned onto one another at one end, and the difference that no turn changes. A saddle at
 * 90° has no side where the axes enclose θ: either sign of u will do, so there are two ways.
 */
function endWaves(a: RoundEnd, b: RoundEnd, tolerance: Tolerance): readonly EndWaves[] {
  const slope: Wave = { from: a.slope, to: b.slope, unit: tolerance.slope };
  if (!a.cope && !b.cope) return [{ waves: [slope], fixed: 0 }];
  if (!a.cope || !b.cope || a.cope.curve !== b.cope.curve) return [];
  const [p, q] = [a.cope, b.cope];
  const lengthMm = tolerance.lengthNm / NM_PER_MM;
  const fixed = Math.max(
    Math.abs(p.radiusNm - q.radiusNm) / tolerance.lengthNm,
    Math.abs(p.cos - q.cos) / tolerance.slope,
  );
  const way = (sign: 1 | -1): EndWaves => ({
    fixed,
    waves: [
      slope,
      { from: [sign * p.u[0], sign * p.u[1]], to: q.u, unit: tolerance.slope },
      { from: p.offset, to: q.offset, unit: lengthMm },
    ],
  });
  return Math.max(p.cos, q.cos) <= tolerance.slope ? [way(1), way(-1)] : [way(1)];
}

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
    const sizes = [norm2(form.start), norm2(form.end)].sort((a, b) => a - b);
    const between = Math.abs(
      Math.atan2(
        form.start[0] * form.end[1] - form.start[1] * form.end[0],
        form.start[0] * form.end[0] + form.start[1] * form.end[1],
      ),
    );
    const copes = form.copes
      .flatMap((cope) => (cope ? [[cope.radiusNm, cope.cos, norm2(cope.offset)]] : [[0, 0, 0]]))
      .sort((a, b) => at(a, 0) - at(b, 0) || at(a, 1) - at(b, 1) || at(a, 2) - at(b, 2));
    return [form.centreNm, ...sizes, between, ...copes.flat()];
  }
  const tuples = (["proper", "mirrored"] as const).flatMap((handedness) => endForms(form, turns, handedness));
  return [form.centreNm, ...leastTuple(tuples)];
}

/** The least tuple over proper motions only: tells the two hands apart, for breaking ties between them. */
export function memberHandKey(form: MemberForm): readonly number[] {
  const turns = turnsOf(form);
  if (turns === "round") {
    const [first, second] = form.copes;
    const [p, q] = [first?.u ?? form.start, second?.u ?? form.end];
    return [p[0] * q[1] - p[1] * q[0]];
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
