/** How a member's two ends stand to one another, in the words of 2-computation.md, section 3. */
import { cross2, dot2, norm2, type Vec2 } from "../geometry";
import { SLOPE_TOLERANCE } from "../kernel";
import { roundTo, toDegrees } from "../measure";
import type { MemberForm } from "./piece";

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
  const turn = roundTo(toDegrees(Math.atan2(cross2(start, end), dot2(start, end))), 4);
  return { kind: "turned", turn: turn === -180 ? 180 : turn };
}

/** The stand of a member's two ends, copes by their φ = 0 direction (a saddle at 90° has two of them). */
export function standOfForm({ start, end, copes: [first, second] }: MemberForm): Stand {
  if (!first && !second) return standOf(start, end);
  const [p, q] = [first?.u ?? start, second?.u ?? end];
  if (norm2(p) <= SLOPE_TOLERANCE || norm2(q) <= SLOPE_TOLERANCE) return { kind: "single", turn: 0 };
  const turn = roundTo(toDegrees(Math.atan2(cross2(p, q), dot2(p, q))), 4);
  const either = [first, second].some((cope) => cope !== null && cope.cos <= SLOPE_TOLERANCE);
  const folded = either && turn > 90 ? turn - 180 : either && turn <= -90 ? turn + 180 : turn;
  return { kind: "turned", turn: folded === -180 ? 180 : folded };
}

export type EndAngles = { readonly angle: number; readonly compound: readonly [number, number] };

/** Degrees from square: the whole angle, and the signed parts along the section's x and y. */
export function anglesOf(slope: Vec2): EndAngles {
  const degrees = (value: number) => roundTo(toDegrees(Math.atan(value)), 4);
  return { angle: degrees(norm2(slope)), compound: [degrees(slope[0]), degrees(slope[1])] };
}

/** Settings of a saw with the section's y face on its table: mitre = atan s_x, bevel = atan(s_y · cos mitre). */
export function sawSettings(slope: Vec2): { readonly mitre: number; readonly bevel: number } {
  const mitre = Math.atan(slope[0]);
  return {
    mitre: roundTo(toDegrees(mitre), 4),
    bevel: roundTo(toDegrees(Math.atan(slope[1] * Math.cos(mitre))), 4),
  };
}

/** The two end slopes of a typed-in bar: both lean in the plane of the section's width. */
export function typedSlopes(
  angles: readonly [number, number],
  stand: "opposed" | "parallel" | { readonly turn: number } | null,
): readonly [Vec2, Vec2] {
  const slope = (degrees: number) => (degrees === 0 ? 0 : Math.tan((degrees * Math.PI) / 180));
  const turn = stand === null || stand === "opposed" ? 0 : stand === "parallel" ? 180 : stand.turn;
  const size = slope(angles[1]);
  const radians = (turn * Math.PI) / 180;
  const exact = turn === 0 ? 1 : Math.abs(turn) === 180 ? -1 : Math.cos(radians);
  const aside = turn === 0 || Math.abs(turn) === 180 ? 0 : Math.sin(radians);
  return [
    [slope(angles[0]), 0],
    [size * exact, size * aside],
  ];
}
