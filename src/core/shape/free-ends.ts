/** Ends made free of the members that they are cut against: each stays as it is now, said by its own angles and how far it reaches. */
import type { EndFace } from "../ends";
import { dot2, toLocal, type Vec2, type Vec3 } from "../geometry";
import {
  type EndCut,
  type Job,
  type Member,
  neighboursOf,
  type SimpleEdit,
  SQUARE_END,
  textOf,
} from "../job";
import { type LengthUnit, MM_PER_UNIT, roundTo, toDegrees } from "../measure";
import type { EndSide } from "./bar";
import type { MemberSolid } from "./member";
import { memberSolid, type Shape } from "./shape";

export type MemberEndName = { readonly member: Member["id"]; readonly side: EndSide };

/** Ends of chosen members that are cut against others, and of others that are cut against chosen ones. */
export function endsAcross(job: Job, chosen: ReadonlySet<string>): readonly MemberEndName[] {
  return cutEnds(job).filter(({ member, neighbours }) =>
    neighbours.some((id) => job.members[id] && chosen.has(id) !== chosen.has(member)),
  );
}

/** Ends of members that are cut against any other. */
export const endsOnOthers = (job: Job, chosen: ReadonlySet<string>): readonly MemberEndName[] =>
  cutEnds(job).filter(({ member, neighbours }) => chosen.has(member) && neighbours.length > 0);

function cutEnds(job: Job) {
  return Object.values(job.members).flatMap((member) =>
    (["start", "end"] as const).map((side) => ({
      member: member.id,
      side,
      neighbours: neighboursOf(member[side]),
    })),
  );
}

export type FreedEnds = {
  readonly edits: readonly SimpleEdit[];
  /** Those that no angles of their own can say, such as copes, or that are not computed now: they become square. */
  readonly squared: readonly MemberEndName[];
};

/** The edits that free ends. Lengths and angles stay to a millionth of a millimetre and 1e-10 degrees. */
export function freedEnds(job: Job, shape: Shape, ends: readonly MemberEndName[]): FreedEnds {
  const squared: MemberEndName[] = [];
  const edits = ends.map((end): SimpleEdit => {
    const solid = memberSolid(shape, end.member);
    const line = job.lines[job.members[end.member]?.line ?? ""];
    const joint = shape.points.get((end.side === "start" ? line?.from : line?.to) ?? "");
    const free = solid && joint ? freeCut(solid, end.side, joint, job.info.job.unit) : null;
    if (!free) squared.push(end);
    const cut = free ?? SQUARE_END;
    return {
      kind: "changeMembers",
      ids: [end.member],
      set: end.side === "start" ? { start: cut } : { end: cut },
    };
  });
  return { edits, squared };
}

/** An end as its own angles say it; null: it is cut in no planes. The other way round than the ends that are given by angles. */
function freeCut(solid: MemberSolid, side: EndSide, joint: Vec3, unit: LengthUnit): EndCut | null {
  const { form, z } = solid[side];
  const [x, y, along] = toLocal(solid.frame, joint);
  const out = side === "start" ? -1 : 1;
  const point: Vec2 = [x, y];
  const offset = ({ slope, beyond }: EndFace) =>
    textOf(roundTo((out * (z - along) + beyond + dot2(slope, point)) / MM_PER_UNIT[unit], 9));
  switch (form.kind) {
    case "plane":
      return slantedCut(form.slope, offset({ slope: form.slope, beyond: 0 }));
    case "twoPlanes":
      return twoPlaneCut(form.faces, [offset(form.faces[0]), offset(form.faces[1])]);
    case "cope":
      return null;
    default:
      return form satisfies never;
  }
}

/** An end as its own angles say it; `slope`: how far it reaches out per mm across. */
export function slantedCut(slope: Vec2, offset = "0"): EndCut {
  return slope[0] === 0 && slope[1] === 0
    ? { kind: "square", offset, past: null }
    : { kind: "angled", acrossWidth: degrees(slope[0]), acrossHeight: degrees(slope[1]), offset };
}

/**
 * An end in two planes as its own angles say it, with how far out of its point each stands: pointed, where both fall off from a
 * ridge through the point along one axis of the section.
 */
export function twoPlaneCut(
  [a, b]: readonly [EndFace, EndFace],
  [offset, secondOffset]: readonly [string, string],
): EndCut {
  const k = ([0, 1] as const).find((one) => isLevel(a.slope[1 - one]) && isLevel(b.slope[1 - one]));
  if (k !== undefined && a.slope[k] * b.slope[k] < 0 && offset === secondOffset) {
    // The first side falls off where the axis of the section is negative.
    const [first, second] = a.slope[k] > 0 ? [a.slope[k], -b.slope[k]] : [b.slope[k], -a.slope[k]];
    const across = k === 0 ? "width" : "height";
    return { kind: "pointed", across, first: degrees(first), second: degrees(second), offset };
  }
  return {
    kind: "twoAngles",
    acrossWidth: degrees(a.slope[0]),
    acrossHeight: degrees(a.slope[1]),
    offset,
    secondAcrossWidth: degrees(b.slope[0]),
    secondAcrossHeight: degrees(b.slope[1]),
    secondOffset,
  };
}

/** Of a slope: nowhere on a section is it seen. */
const isLevel = (tangent: number | undefined) => Math.abs(tangent ?? 0) < 1e-6;

const degrees = (tangent: number): string => textOf(roundTo(toDegrees(Math.atan(tangent)), 10));
