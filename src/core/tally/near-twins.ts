/**
 * Near twins: two rows of one stock that differ by so little that it is likely a mistake. Says the difference and what
 * causes it, and offers the one edit that mends it.
 */
import type { Check, Job } from "../job";
import { at, byText, fromNm, NEAR_TWIN_ANGLE_DEG } from "../kernel";
import { roundTo } from "../measure";
import type { Shape } from "../shape";
import { NEAR_TWIN_LIMIT } from "./member-twins";
import { causeOf } from "./near-causes";
import type { TallyRow } from "./row";
import { eitherDistance, stockKeyOf } from "./rows";

/** The id under which "it is meant" is kept for two rows. */
export const meantId = (a: string, b: string) => [a, b].sort().join(" ~ ");

export function nearTwinChecks(job: Job, shape: Shape, rows: readonly TallyRow[]): readonly Check[] {
  const checks: Check[] = [];
  const sized = rows.filter((row) => row.shown.form.kind !== "none");
  const byStock = new Map<string, TallyRow[]>();
  for (const row of sized) {
    // Typed-in rows are compared with one another, whatever marks they were given.
    const key = stockKeyOf({ ...row.shown, typedMark: null });
    const known = byStock.get(key);
    if (known) known.push(row);
    else byStock.set(key, [row]);
  }
  for (const group of byStock.values()) {
    const sorted = [...group].sort((a, b) => lengthOf(a) - lengthOf(b));
    for (let i = 0; i < sorted.length; i++) {
      const a = at(sorted, i);
      for (let j = i + 1; j < sorted.length; j++) {
        const b = at(sorted, j);
        if (lengthOf(b) - lengthOf(a) >= NEAR_TWIN_LIMIT.lengthNm) break;
        // What somebody put apart or together is as it is meant to be.
        if (a.byHand !== null || b.byHand !== null) continue;
        if (eitherDistance(a.shown.form, b.shown.form, NEAR_TWIN_LIMIT) < 1 && !isMeant(job, a, b))
          checks.push(twinCheck(job, shape, a, b));
      }
    }
  }
  return checks;
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
    message: `Marks ${many.mark} and ${few.mark}: ${differenceWords(many, few)}.${cause?.words ?? ""}`,
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

function differenceWords(a: TallyRow, b: TallyRow): string {
  const [fa, fb] = [a.shown.form, b.shown.form];
  if (fa.kind === "member" && fb.kind === "member") {
    const [la, lb] = [roundTo(fromNm(fa.cutNm), 2), roundTo(fromNm(fb.cutNm), 2)];
    if (la !== lb) return `${counted(a, `${la} mm`)}, ${counted(b, `${lb} mm`)}`;
    return `the same length ${la} mm, but their end angles differ by less than ${NEAR_TWIN_ANGLE_DEG}°`;
  }
  if (fa.kind === "panel" && fb.kind === "panel") {
    const size = (form: typeof fa) =>
      `${roundTo(fromNm(form.lengthNm), 2)} × ${roundTo(fromNm(form.widthNm), 2)} mm`;
    return size(fa) === size(fb)
      ? `the same size ${size(fa)}, but their work differs a little`
      : `${counted(a, size(fa))}, ${counted(b, size(fb))}`;
  }
  return "they differ a little";
}
