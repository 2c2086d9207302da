/** How far the holes and notches of two members are from being the same, as they lie and over all turns of a round one. */
import type { Tolerance, Wave } from "../ends";
import { dot2, norm2, type Vec2 } from "../geometry";
import { fromNm, type Nm } from "../kernel";
import type { PlaneTurn } from "../stockroom";
import type { MemberForm, MemberHoleForm, MemberNotchForm } from "./forms";
import { allApart, pairsOf } from "./matching";

export type MemberWorkForm = Pick<MemberForm, "holes" | "notches">;

export const hasWork = ({ holes, notches }: MemberWorkForm): boolean => holes.length + notches.length > 0;

/** Whether both have as many of each: else they are never one. */
export const sameCounts = (a: MemberWorkForm, b: MemberWorkForm): boolean =>
  a.holes.length === b.holes.length && a.notches.length === b.notches.length;

const turnedBy = (rows: PlaneTurn["rows"], v: Vec2): Vec2 => [dot2(rows[0], v), dot2(rows[1], v)];

/** The work after a turn or mirror of the section, and with both ends exchanged where that goes with it. */
export function movedWork(
  { holes, notches }: MemberWorkForm,
  rows: PlaneTurn["rows"],
  exchange: boolean,
): MemberWorkForm {
  return {
    holes: holes.map((hole) => {
      const [x, y] = turnedBy(rows, hole.begins);
      return {
        ...hole,
        outwards: turnedBy(rows, hole.outwards),
        begins: [x as Nm, y as Nm],
        z: (exchange ? -hole.z : hole.z) as Nm,
      };
    }),
    notches: notches.map((notch) => ({
      ...notch,
      outwards: turnedBy(rows, notch.outwards),
      end: exchange ? ((1 - notch.end) as 0 | 1) : notch.end,
    })),
  };
}

const gap = (a: Vec2, b: Vec2) => norm2([a[0] - b[0], a[1] - b[1]]);

/** Where a hole lies beside the middle of the section, which does not change when it is drilled from the other side. */
function asideOf({ outwards, begins }: MemberHoleForm): Vec2 {
  const deep = dot2(begins, outwards);
  return [begins[0] - deep * outwards[0], begins[1] - deep * outwards[1]];
}

function holeApart(a: MemberHoleForm, b: MemberHoleForm, tolerance: Tolerance): number {
  if (a.through !== b.through) return Number.POSITIVE_INFINITY;
  const lengths = [a.z - b.z, a.diameterNm - b.diameterNm, a.slotNm - b.slotNm].map(Math.abs);
  const along = Math.max(...lengths) / tolerance.lengthNm;
  if (!a.through)
    return Math.max(
      along,
      gap(a.begins, b.begins) / tolerance.lengthNm,
      gap(a.outwards, b.outwards) / tolerance.slope,
    );
  const turned = Math.min(gap(a.outwards, b.outwards), gap(a.outwards, [-b.outwards[0], -b.outwards[1]]));
  return Math.max(along, gap(asideOf(a), asideOf(b)) / tolerance.lengthNm, turned / tolerance.slope);
}

function notchApart(a: MemberNotchForm, b: MemberNotchForm, tolerance: Tolerance): number {
  if (a.end !== b.end) return Number.POSITIVE_INFINITY;
  const lengths = Math.max(Math.abs(a.depthNm - b.depthNm), Math.abs(a.lengthNm - b.lengthNm));
  return Math.max(lengths / tolerance.lengthNm, gap(a.outwards, b.outwards) / tolerance.slope);
}

/** The greatest difference as they lie, in units of tolerance; with as many of each. */
export const workApart = (a: MemberWorkForm, b: MemberWorkForm, tolerance: Tolerance): number =>
  Math.max(
    allApart(a.holes, b.holes, (one, other) => holeApart(one, other, tolerance)),
    allApart(a.notches, b.notches, (one, other) => notchApart(one, other, tolerance)),
  );

const angleOf = ([x, y]: Vec2) => Math.atan2(y, x);
const rotation = (angle: number): PlaneTurn["rows"] => [
  [Math.cos(angle), -Math.sin(angle)],
  [Math.sin(angle), Math.cos(angle)],
];

/**
 * The ways to lay the work of one round member on that of another: for each turn that brings its first hole or notch over one of
 * the other's, which is laid on which; what a turn changes are waves, what it does not is `fixed`.
 */
export function workWays(
  a: MemberWorkForm,
  b: MemberWorkForm,
  tolerance: Tolerance,
): readonly { readonly waves: readonly Wave[]; readonly fixed: number }[] {
  const first = a.holes[0] ?? a.notches[0];
  if (!first) return [{ waves: [], fixed: 0 }];
  const onto = a.holes.length > 0 ? b.holes : b.notches;
  const both = "through" in first && first.through ? [0, Math.PI] : [0];
  return onto.flatMap((other) =>
    both.map((more) => {
      const turn = rotation(angleOf(other.outwards) - angleOf(first.outwards) + more);
      const laid = movedWork(a, turn, false);
      const holes = pairsOf(
        laid.holes.map((hole, i) => ({ hole, of: i })),
        b.holes.map((hole, i) => ({ hole, of: i })),
        (one, it) => holeApart(one.hole, it.hole, tolerance),
      );
      const notches = pairsOf(
        laid.notches.map((notch, i) => ({ notch, of: i })),
        b.notches.map((notch, i) => ({ notch, of: i })),
        (one, it) => notchApart(one.notch, it.notch, tolerance),
      );
      const mm = ([x, y]: Vec2): Vec2 => [fromNm(x as Nm), fromNm(y as Nm)];
      const unit = fromNm(tolerance.lengthNm as Nm);
      const waves: Wave[] = [];
      let fixed = 0;
      for (const [one, it] of holes) {
        const own = a.holes[one.of] as MemberHoleForm;
        const over = it.hole;
        fixed = Math.max(
          fixed,
          ...[own.z - over.z, own.diameterNm - over.diameterNm, own.slotNm - over.slotNm].map(
            (length) => Math.abs(length) / tolerance.lengthNm,
          ),
        );
        if (own.through !== over.through) fixed = Number.POSITIVE_INFINITY;
        const turned = own.through && dot2(one.hole.outwards, over.outwards) < 0 ? -1 : 1;
        waves.push({
          from: own.outwards,
          to: [turned * over.outwards[0], turned * over.outwards[1]],
          unit: tolerance.slope,
        });
        waves.push(
          own.through
            ? { from: mm(asideOf(own)), to: mm(asideOf(over)), unit }
            : { from: mm(own.begins), to: mm(over.begins), unit },
        );
      }
      for (const [one, it] of notches) {
        const own = a.notches[one.of] as MemberNotchForm;
        fixed = Math.max(fixed, notchApart({ ...own, outwards: it.notch.outwards }, it.notch, tolerance));
        waves.push({ from: own.outwards, to: it.notch.outwards, unit: tolerance.slope });
      }
      return { waves, fixed };
    }),
  );
}

/** Numbers that no turn, no mirror and no exchange of the ends changes; for order only. */
export function workSizes({ holes, notches }: MemberWorkForm): readonly number[] {
  const sorted = (numbers: readonly number[]) => [...numbers].sort((p, q) => p - q);
  return [
    holes.length,
    notches.length,
    ...sorted(holes.map(({ z }) => Math.abs(z))),
    ...sorted(holes.map(({ diameterNm, slotNm }) => diameterNm + slotNm)),
    ...sorted(notches.map(({ depthNm, lengthNm }) => depthNm + lengthNm)),
  ];
}

/** All its numbers as it lies; for order only. */
export function workNumbers({ holes, notches }: MemberWorkForm): readonly number[] {
  const plus = (value: number) => Math.round(value * 1e6) / 1e6 + 0;
  const compare = (p: readonly number[], q: readonly number[]) => {
    for (let i = 0; i < p.length; i++) if (p[i] !== q[i]) return (p[i] ?? 0) - (q[i] ?? 0);
    return 0;
  };
  return [
    ...holes
      .map(({ z, outwards, begins }) => [z, ...outwards.map(plus), ...begins.map(Math.round)])
      .sort(compare),
    ...notches.map(({ end, outwards, depthNm }) => [end, ...outwards.map(plus), depthNm]).sort(compare),
  ].flat();
}

/** Tells the hands of round members apart by how their work goes round them on its way along; for order only. */
export function workTwist({ holes, notches }: MemberWorkForm): number {
  const places = [
    ...holes.map(({ z, outwards }) => ({ z: z as number, angle: angleOf(outwards) })),
    ...notches.map(({ end, outwards }) => ({ z: end === 0 ? -1e9 : 1e9, angle: angleOf(outwards) })),
  ];
  let sum = 0;
  for (const one of places)
    for (const other of places) if (one.z < other.z) sum += Math.sin(other.angle - one.angle);
  return Math.round(sum * 1e6) / 1e6 + 0;
}
