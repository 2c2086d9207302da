/** Which saw of the shop cuts a piece: the first, in the shop's own order, that can. */
import { type SawEntry, sectionProperties } from "../stockroom";
import { anglesOf, type MemberForm } from "../tally";

export type SawChoice = {
  readonly saw: SawEntry | null;
  /** Why none can, for the piece that is hardest to cut; null: one can. */
  readonly why: string | null;
};

/** What a member asks of a saw: height over its table, greatest angle from square in degrees, length to the stop in mm. */
export function askedOf(form: MemberForm): {
  readonly height: number;
  readonly angle: number;
  readonly length: number;
} {
  const ends = [form.start, form.end].map(anglesOf);
  const extent = form.shape ? sectionProperties(form.shape).extent : null;
  const leans = (axis: 0 | 1) => Math.max(Math.abs(form.start[axis]), Math.abs(form.end[axis])) > 1e-6;
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
  return { height, angle: Math.max(...ends.map((end) => Math.abs(end.angle))), length: form.cutNm / 1e6 };
}

/** Slack for angles and lengths that come from geometry. */
const SLACK = 1e-3;

export function sawFor(saws: readonly SawEntry[], form: MemberForm): SawChoice {
  const { height, angle, length } = askedOf(form);
  const able = saws.find(
    (saw) => height <= saw.depth + SLACK && angle <= saw.angle + SLACK && length <= saw.length + SLACK,
  );
  if (able) return { saw: able, why: null };
  const rounded = (value: number) => Math.round(value * 10) / 10;
  const most = (of: (saw: SawEntry) => number) => Math.max(0, ...saws.map(of));
  if (height > most((saw) => saw.depth))
    return { saw: null, why: `${rounded(height)} is too high for every saw` };
  if (angle > most((saw) => saw.angle)) return { saw: null, why: `${rounded(angle)}° is past every saw` };
  if (length > most((saw) => saw.length)) return { saw: null, why: `${rounded(length)} is past every stop` };
  return { saw: null, why: "no one saw has the depth, the angle and the length" };
}
