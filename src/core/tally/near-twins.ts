/**
 * Near twins: two rows of one stock that differ by so little that it is likely a mistake. Says the difference and what
 * causes it, and offers the one edit that mends it.
 */

import type { Check, Job } from "../job";
import { jobStyle, meantId } from "../job";
import {
  addTo,
  at,
  byKey,
  byNumber,
  byText,
  fromNm,
  inTurn,
  NEAR_TWIN_ANGLE_DEG,
  NEAR_TWIN_LENGTH_MM,
} from "../kernel";
import { type LengthStyle, sayDifference, sayLength, saySizes } from "../measure";
import type { Shape } from "../shape";
import type { MemberForm } from "./forms";
import { type Handedness, memberDistance, NEAR_TWIN_LIMIT, TWIN_TOLERANCE } from "./member-twins";
import { hasWork } from "./member-work-twins";
import { causeOf } from "./near-causes";
import type { TallyRow } from "./row";
import { eitherDistance, stockKeyOf } from "./rows";

export function nearTwinChecks(job: Job, shape: Shape, rows: readonly TallyRow[]): readonly Check[] {
  const checks: Check[] = [];
  const sized = rows.filter((row) => row.shown.form.kind !== "none");
  const byStock = new Map<string, TallyRow[]>();
  for (const row of sized) {
    // Typed-in rows are compared with one another, whatever marks they were given.
    const key = stockKeyOf({ ...row.shown, typedMark: null });
    addTo(byStock, key, row);
  }
  for (const group of byStock.values())
    for (const near of linkedPairs(job, group))
      if (near.rows.length > MOST_IN_PAIRS) checks.push(...chainChecks(job, near.rows));
      else checks.push(...near.pairs.map(([a, b]) => twinCheck(job, shape, a, b)));
  return [...checks, ...boughtLengths(job, rows)];
}

/** Parts of one entry that are bought in nearly the same length. */
function boughtLengths(job: Job, rows: readonly TallyRow[]): readonly Check[] {
  const byLength = (row: TallyRow) => row.shown.boughtLength ?? 0;
  const cut = rows
    .filter((row) => row.kind === "bought" && row.stock !== null && byLength(row) > 0 && row.byHand === null)
    .sort(
      inTurn(
        byKey((row: TallyRow) => row.stock ?? "", byText),
        byKey(byLength, byNumber),
      ),
    );
  return cut.flatMap((b, i): Check[] => {
    const a = cut[i - 1];
    if (!a || a.stock !== b.stock || byLength(b) - byLength(a) >= NEAR_TWIN_LENGTH_MM) return [];
    if (isMeant(job, a, b)) return [];
    const [many, few] = a.count >= b.count ? [a, b] : [b, a];
    const style = jobStyle(job);
    const size = (row: TallyRow) => `${row.count} × ${row.name} of ${sayLength(byLength(row), style)}`;
    const length = job.boughtParts[many.shown.id]?.length;
    const ids = few.pieces.map((piece) => piece.id);
    return [
      {
        kind: "nearTwins",
        severity: "warning",
        message: `${many.stockName ?? many.name}: ${size(many)}, ${size(few)}.`,
        records: [...many.pieces, ...few.pieces].map((piece) => piece.id),
        marks: [],
        fix: length
          ? {
              label: `Take ${sayLength(byLength(many), style)} for both`,
              edit: { kind: "changeBoughtParts", ids, set: { length } },
            }
          : null,
        meant: meantId(keyOf(a), keyOf(b)),
      },
    ];
  });
}

/** Above this many rows that are near one another in a chain, they are told at once and not pair by pair. */
const MOST_IN_PAIRS = 4;

type Near = { readonly rows: TallyRow[]; readonly pairs: (readonly [TallyRow, TallyRow])[] };

/** Pairs of near twins of one stock, taken together where one row is in several. */
function linkedPairs(job: Job, group: readonly TallyRow[]): readonly Near[] {
  const sorted = [...group].sort((a, b) => lengthOf(a) - lengthOf(b));
  const nearOf = new Map<TallyRow, Near>();
  for (let i = 0; i < sorted.length; i++) {
    const a = at(sorted, i);
    for (let j = i + 1; j < sorted.length; j++) {
      const b = at(sorted, j);
      if (lengthOf(b) - lengthOf(a) >= NEAR_TWIN_LIMIT.lengthNm) break;
      // What somebody put apart or together is as it is meant to be.
      if (a.byHand !== null || b.byHand !== null) continue;
      if (eitherDistance(a.shown.form, b.shown.form, NEAR_TWIN_LIMIT) >= 1 || isMeant(job, a, b)) continue;
      joined(nearOf, a, b).pairs.push([a, b]);
    }
  }
  return [...new Set(nearOf.values())];
}

/** The set that holds both rows from now on. */
function joined(nearOf: Map<TallyRow, Near>, a: TallyRow, b: TallyRow): Near {
  const near = nearOf.get(a) ?? { rows: [a], pairs: [] };
  const other = nearOf.get(b) ?? { rows: [b], pairs: [] };
  nearOf.set(a, near);
  if (other === near) return near;
  near.rows.push(...other.rows);
  near.pairs.push(...other.pairs);
  for (const row of other.rows) nearOf.set(row, near);
  return near;
}

/** Many rows whose sizes creep from one to the next: one sentence, which can be meant as a whole. */
function chainChecks(job: Job, rows: readonly TallyRow[]): readonly Check[] {
  const sorted = [...rows].sort((a, b) => lengthOf(a) - lengthOf(b));
  const [first, last] = [at(sorted, 0), at(sorted, sorted.length - 1)];
  if (isMeant(job, first, last)) return [];
  const marks = sorted.map((row) => row.mark);
  const said = marks.slice(0, 3).join(", ");
  const style = jobStyle(job);
  const size = (row: TallyRow) => sayLength(fromNm(lengthOf(row)), style);
  return [
    {
      kind: "nearTwins",
      severity: "warning",
      message: `Marks ${said} and ${marks.length - 3} more: ${marks.length} sizes from ${size(first)} to ${size(last)}, each less than ${sayDifference(NEAR_TWIN_LENGTH_MM, style)} from the next.`,
      records: sorted.flatMap((row) => row.pieces.map((piece) => piece.id)),
      marks,
      fix: null,
      meant: meantId(keyOf(first), keyOf(last)),
    },
  ];
}

function lengthOf(row: TallyRow): number {
  const { form } = row.shown;
  return form.kind === "member"
    ? form.centreNm
    : form.kind === "panel"
      ? Math.min(form.lengthNm, form.widthNm)
      : 0;
}

function twinCheck(job: Job, shape: Shape, a: TallyRow, b: TallyRow): Check {
  const [many, few] = a.count >= b.count ? [a, b] : [b, a];
  const cause = causeOf(job, shape, many, few);
  const records = [...many.pieces, ...few.pieces].map((piece) => piece.id);
  return {
    kind: "nearTwins",
    severity: "warning",
    message: `Marks ${many.mark} and ${few.mark}: ${differenceWords(many, few, jobStyle(job))}.${cause?.words ?? ""}`,
    records,
    marks: [many.mark, few.mark],
    fix: cause?.fix ?? null,
    meant: meantId(keyOf(a), keyOf(b)),
  };
}

/** What a row is known by as long as it lives, whatever mark it is given: the first of its records. */
const keyOf = (row: TallyRow) =>
  row.pieces.map((piece) => piece.id).reduce((least, id) => (byText(id, least) < 0 ? id : least));

/** Whether somebody looked at the difference and meant it; by marks in jobs of before. */
const isMeant = (job: Job, a: TallyRow, b: TallyRow) =>
  job.meant[meantId(keyOf(a), keyOf(b))] !== undefined || job.meant[meantId(a.mark, b.mark)] !== undefined;

const counted = (row: TallyRow, text: string) => `${row.count} × ${row.name} at ${text}`;

/**
 * Both sizes as the job writes lengths; where they would look alike, as finely as differences are told.
 */
function differenceWords(a: TallyRow, b: TallyRow, style: LengthStyle): string {
  const [fa, fb] = [a.shown.form, b.shown.form];
  if (fa.kind === "member" && fb.kind === "member") {
    const [la, lb] = [fa, fb].map((form) => sayLength(fromNm(form.cutNm), style));
    if (la !== lb) return `${counted(a, String(la))}, ${counted(b, String(lb))}`;
    const [fineA, fineB] = [fa, fb].map((form) => sayDifference(fromNm(form.cutNm), style));
    if (fineA !== fineB) return `${counted(a, String(fineA))}, ${counted(b, String(fineB))}`;
    // With the same ends and sizes it is their work that stands a little apart.
    const bare = (form: MemberForm): MemberForm => ({ ...form, holes: [], notches: [] });
    const alike = (handedness: Handedness) =>
      memberDistance(bare(fa), bare(fb), handedness, TWIN_TOLERANCE) <= 1;
    if (hasWork(fa) && (alike("proper") || alike("mirrored")))
      return `the same length ${la}, but their holes or notches differ by less than ${sayLength(NEAR_TWIN_LENGTH_MM, style)}`;
    return `the same length ${la}, but their end angles differ by less than ${NEAR_TWIN_ANGLE_DEG}°`;
  }
  if (fa.kind === "panel" && fb.kind === "panel") {
    const rough = (form: typeof fa) => saySizes([fromNm(form.lengthNm), fromNm(form.widthNm)], style);
    const fine = (form: typeof fa) =>
      [form.lengthNm, form.widthNm].map((nm) => sayDifference(fromNm(nm), style)).join(" × ");
    const size = rough(fa) === rough(fb) ? fine : rough;
    return size(fa) === size(fb)
      ? `the same size ${size(fa)}, but their ${fa.outline ? "outline or work" : "work"} differs a little`
      : `${counted(a, size(fa))}, ${counted(b, size(fb))}`;
  }
  return "they differ a little";
}
