/**
 * Near twins: two rows of one stock that differ by so little that it is likely a mistake. Says the
 * difference and, where two points lie nearly together, offers to join them.
 */
import { distance, type Vec3 } from "../geometry";
import type { Check, Job } from "../job";
import { at, fromNm, NEAR_TWIN_ANGLE_DEG, NEAR_TWIN_LENGTH_MM, POINT_TOLERANCE_MM } from "../kernel";
import { roundTo } from "../measure";
import type { Shape } from "../shape";
import { NEAR_TWIN_LIMIT } from "./member-twins";
import type { TallyRow } from "./row";
import { eitherDistance, stockKeyOf } from "./rows";

/** The id under which "it is meant" is kept for two marks. */
export const meantId = (a: string, b: string) => [a, b].sort().join(" ~ ");

export function nearTwinChecks(job: Job, shape: Shape, rows: readonly TallyRow[]): readonly Check[] {
  const checks: Check[] = [];
  const sized = rows.filter((row) => row.shown.form.kind !== "none" && !row.typed);
  const byStock = new Map<string, TallyRow[]>();
  for (const row of sized) {
    const key = stockKeyOf(row.shown);
    byStock.set(key, [...(byStock.get(key) ?? []), row]);
  }
  for (const group of byStock.values()) {
    const sorted = [...group].sort((a, b) => lengthOf(a) - lengthOf(b));
    for (let i = 0; i < sorted.length; i++) {
      const a = at(sorted, i);
      for (let j = i + 1; j < sorted.length; j++) {
        const b = at(sorted, j);
        if (lengthOf(b) - lengthOf(a) >= NEAR_TWIN_LIMIT.lengthNm) break;
        if (job.meant[meantId(a.mark, b.mark)]) continue;
        if (eitherDistance(a.shown.form, b.shown.form, NEAR_TWIN_LIMIT) < 1)
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
  const close = nearPoints(job, shape, few);
  const records = [...many.pieces, ...few.pieces].map((piece) => piece.id);
  const cause = close ? ` Points ${close.names} are ${roundTo(close.apart, 2)} mm apart.` : "";
  return {
    kind: "nearTwins",
    severity: "warning",
    message: `Marks ${many.mark} and ${few.mark}: ${differenceWords(many, few)}.${cause}`,
    records,
    marks: [many.mark, few.mark],
    fix: close
      ? { label: "Join points", edit: { kind: "changePoint", id: close.move, set: { at: close.to } } }
      : { label: "It is meant", edit: { kind: "setMeant", id: meantId(a.mark, b.mark), meant: true } },
  };
}

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

type NearPoints = {
  readonly names: string;
  readonly apart: number;
  readonly move: string;
  readonly to: readonly [string, string, string] & [string, string, string];
};

/** A point of the smaller row's members that lies nearly, but not quite, on another point. */
function nearPoints(job: Job, shape: Shape, row: TallyRow): NearPoints | null {
  const all = Object.values(job.points);
  for (const piece of row.pieces) {
    const member = job.members[piece.id];
    const line = member ? job.lines[member.line] : undefined;
    for (const id of line ? [line.from, line.to] : []) {
      const own = shape.points.get(id);
      if (!own) continue;
      const other = all.find((point) => isNear(own, shape.points.get(point.id)));
      const name = job.points[id]?.name;
      if (other && name) {
        const apart = distance(own, shape.points.get(other.id) ?? own);
        return {
          names: `${name} and ${other.name}`,
          apart,
          move: id,
          to: [other.at[0], other.at[1], other.at[2]],
        };
      }
    }
  }
  return null;
}

function isNear(a: Vec3, b: Vec3 | undefined): boolean {
  if (!b) return false;
  const apart = distance(a, b);
  return apart > POINT_TOLERANCE_MM && apart < NEAR_TWIN_LENGTH_MM;
}
