/** How a member's two ends stand to one another, in the words of 2-computation.md, section 3. */
import { kindOf, type PlaneEnd } from "../ends";
import { cross2, dot2, norm2, type Vec2 } from "../geometry";
import { SLOPE_TOLERANCE } from "../kernel";
import { roundTo, toDegrees } from "../measure";
import type { MemberForm } from "./forms";

export type StandKind = "square" | "single" | "opposed" | "parallel" | "turned";
/** `turn`: degrees from the first end's lean to the second's about the axis, in (−180, 180]. */
export type Stand = { readonly kind: StandKind; readonly turn: number };

function standOf(start: Vec2, end: Vec2): Stand {
  const first = norm2(start) > SLOPE_TOLERANCE;
  const second = norm2(end) > SLOPE_TOLERANCE;
  if (!first && !second) return { kind: "square", turn: 0 };
  if (!first || !second) return { kind: "single", turn: 0 };
  const aside = Math.abs(cross2(start, end)) / Math.max(norm2(start), norm2(end));
  if (aside < SLOPE_TOLERANCE) {
    if (dot2(start, end) > 0) return { kind: "opposed", turn: 0 };
    if (Math.abs(norm2(start) - norm2(end)) < SLOPE_TOLERANCE) return { kind: "parallel", turn: 180 };
    return { kind: "turned", turn: 180 };
  }
  const turn = turnBetween(start, end);
  return { kind: "turned", turn: turn === -180 ? 180 : turn };
}

/** The stand of a member's two ends; a saddle at 90° and a point with two equal sides lean to either of two sides. */
export function standOfForm({ ends }: MemberForm): Stand {
  const [first, second] = ends;
  if (first.kind === "plane" && second.kind === "plane") return standOf(first.slope, second.slope);
  const [p, q] = ends.map((end) => kindOf(end).lean(end)) as [Lean, Lean];
  if (norm2(p.towards) <= SLOPE_TOLERANCE || norm2(q.towards) <= SLOPE_TOLERANCE)
    return { kind: "single", turn: 0 };
  const turn = turnBetween(p.towards, q.towards);
  const either = p.either || q.either;
  const folded = either && turn > 90 ? turn - 180 : either && turn <= -90 ? turn + 180 : turn;
  return { kind: "turned", turn: folded === -180 ? 180 : folded };
}

type Lean = { readonly towards: Vec2; readonly either: boolean };

/** Degrees from one direction to another. */
const turnBetween = (p: Vec2, q: Vec2) => roundTo(toDegrees(Math.atan2(cross2(p, q), dot2(p, q))), 4);

/** The two ends of a typed-in bar: both lean in the plane of the section's width. */
export function typedEnds(
  angles: readonly [number, number],
  stand: "opposed" | "parallel" | { readonly turn: number } | null,
): readonly [PlaneEnd, PlaneEnd] {
  const slope = (degrees: number) => (degrees === 0 ? 0 : Math.tan((degrees * Math.PI) / 180));
  const turn = stand === null || stand === "opposed" ? 0 : stand === "parallel" ? 180 : stand.turn;
  const size = slope(angles[1]);
  const radians = (turn * Math.PI) / 180;
  const exact = turn === 0 ? 1 : Math.abs(turn) === 180 ? -1 : Math.cos(radians);
  const aside = turn === 0 || Math.abs(turn) === 180 ? 0 : Math.sin(radians);
  return [
    { kind: "plane", slope: [slope(angles[0]), 0] },
    { kind: "plane", slope: [size * exact, size * aside] },
  ];
}
