/** Which saw of the shop cuts a piece: the first, in the shop's own order, that can. */
import { anglesOf, kindOf } from "../ends";
import { unreachable } from "../kernel";
import { type LengthStyle, sayLength } from "../measure";
import { type SawEntry, sectionProperties } from "../stockroom";
import type { MemberForm } from "../tally";

/** Why no saw can cut a piece; lengths in mm. */
export type SawReason =
  | { readonly kind: "tooHigh"; readonly height: number }
  | { readonly kind: "tooSteep"; readonly degrees: number }
  | { readonly kind: "tooLong"; readonly length: number }
  /** One saw has the depth, another the angle, but none all of it. */
  | { readonly kind: "noneHasAll" };

export type SawChoice =
  | { readonly saw: SawEntry; readonly why: null }
  | { readonly saw: null; readonly why: SawReason };

/** The reason as a short sentence without a stop. */
export function sawReasonWords(why: SawReason, style: LengthStyle): string {
  switch (why.kind) {
    case "tooHigh":
      return `${sayLength(why.height, style)} is too high for every saw`;
    case "tooSteep":
      return `${Math.round(why.degrees * 10) / 10}° is past every saw`;
    case "tooLong":
      return `${sayLength(why.length, style)} is past every stop`;
    case "noneHasAll":
      return "no one saw has the depth, the angle and the length";
    default:
      return unreachable(why);
  }
}

/** What a member asks of a saw: height over its table, greatest angle from square in degrees, length to the stop in mm. */
export function askedOf(form: MemberForm): {
  readonly height: number;
  readonly angle: number;
  readonly length: number;
} {
  const slopes = form.ends.flatMap((end) => kindOf(end).slopes(end));
  const extent = form.shape ? sectionProperties(form.shape).extent : null;
  const leans = (axis: 0 | 1) => slopes.some((slope) => Math.abs(slope[axis]) > 1e-6);
  // Cut in one plane, the section lies on the face that the plane is square to; with no lean on its broader one.
  const height = !extent
    ? 0
    : leans(0) && leans(1)
      ? Math.max(...extent)
      : leans(0)
        ? extent[1]
        : leans(1)
          ? extent[0]
          : Math.min(...extent);
  return {
    height,
    angle: Math.max(...slopes.map((slope) => anglesOf(slope).angle)),
    length: form.cutNm / 1e6,
  };
}

/** Slack for angles and lengths that come from geometry. */
const SLACK = 1e-3;

export function sawFor(saws: readonly SawEntry[], form: MemberForm): SawChoice {
  const { height, angle, length } = askedOf(form);
  const able = saws.find(
    (saw) => height <= saw.depth + SLACK && angle <= saw.angle + SLACK && length <= saw.length + SLACK,
  );
  if (able) return { saw: able, why: null };
  const most = (of: (saw: SawEntry) => number) => Math.max(0, ...saws.map(of));
  if (height > most((saw) => saw.depth) + SLACK) return { saw: null, why: { kind: "tooHigh", height } };
  if (angle > most((saw) => saw.angle) + SLACK)
    return { saw: null, why: { kind: "tooSteep", degrees: angle } };
  if (length > most((saw) => saw.length) + SLACK) return { saw: null, why: { kind: "tooLong", length } };
  return { saw: null, why: { kind: "noneHasAll" } };
}
