/**
 * Why two rows differ by so little: points that lie nearly together, an end that is cut a little differently, a size
 * that goes by another formula or another key size, a length that was typed. Each cause says so in words and, where
 * one edit mends it, has that edit.
 */
import { distance, type Vec3 } from "../geometry";
import {
  cutName,
  cutTexts,
  type Edit,
  type EndCut,
  type Job,
  jobStyle,
  type Member,
  type Panel,
  type Point,
  resolveSizes,
  type SimpleEdit,
  withCutText,
} from "../job";
import { LENGTH_TOLERANCE_MM, NEAR_TWIN_LENGTH_MM, POINT_TOLERANCE_MM } from "../kernel";
import { MM_PER_UNIT, parseFormula, roundTo, sayDifference, sayLength } from "../measure";
import { placesNear, type Shape } from "../shape";
import type { TallyRow } from "./row";

export type Cause = {
  /** A sentence, with a space before it. */
  readonly words: string;
  readonly fix: { readonly label: string; readonly edit: Edit } | null;
};

/** What makes the pieces of `few` differ from those of `many`; null when it is nothing that stands in one place. */
export function causeOf(job: Job, shape: Shape, many: TallyRow, few: TallyRow): Cause | null {
  return (
    nearPoints(job, shape, few) ??
    typedSizes(job, many, few) ??
    endCuts(job, many, few) ??
    oddPoint(job, shape, many, few) ??
    panelSizes(job, many, few) ??
    otherNames(job, many, few)
  );
}

/** A point of the smaller row's members that lies nearly, but not quite, on another point. */
function nearPoints(job: Job, shape: Shape, row: TallyRow): Cause | null {
  const near = placesNear(shape.points);
  for (const piece of row.pieces) {
    const member = job.members[piece.id];
    const line = member ? job.lines[member.line] : undefined;
    for (const id of line ? [line.from, line.to] : []) {
      const own = shape.points.get(id);
      if (!own) continue;
      const home = job.points[id]?.assembly;
      const other = near(own)
        .flatMap((one) => job.points[one] ?? [])
        .find((point) => point.assembly === home && isNear(own, shape.points.get(point.id)));
      const name = job.points[id]?.name;
      const there = other && shape.points.get(other.id);
      if (!other || !name || !there) continue;
      const apart = sayDifference(distance(own, there), jobStyle(job));
      const at: [string, string, string] = [other.at[0], other.at[1], other.at[2]];
      return {
        words: ` Points ${name} and ${other.name} are ${apart} apart.`,
        fix: { label: "Join points", edit: { kind: "changePoint", id, set: { at } } },
      };
    }
  }
  return null;
}

function isNear(a: Vec3, b: Vec3 | undefined): boolean {
  if (!b) return false;
  const apart = distance(a, b);
  return apart > POINT_TOLERANCE_MM && apart < NEAR_TWIN_LENGTH_MM;
}

function typedSizes(job: Job, many: TallyRow, few: TallyRow): Cause | null {
  const [own, other] = [job.typedPieces[few.shown.id], job.typedPieces[many.shown.id]];
  if (!own || !other || own.kind === "other" || other.kind === "other") return null;
  const ids = few.pieces.map((piece) => piece.id);
  // Only a length can be given to all of them by one edit.
  const sameWidth = own.kind !== "panel" || (other.kind === "panel" && own.width === other.width);
  const words = ` The sizes of ${few.mark} were typed.`;
  if (own.length === other.length || !sameWidth) return { words, fix: null };
  const edit: SimpleEdit = { kind: "changeTypedPieces", ids, set: { length: other.length } };
  return { words, fix: { label: `Give ${few.mark} the length of ${many.mark}`, edit } };
}

/** Members of one centre length between points, whose ends take different amounts away. */
function endCuts(job: Job, many: TallyRow, few: TallyRow): Cause | null {
  const [a, b] = [job.members[many.shown.id], job.members[few.shown.id]];
  if (!a || !b) return null;
  const sides = (member: Member) => [member.start, member.end] as const;
  for (const [i, cut] of sides(b).entries()) {
    const like = sides(a).find((one) => one.kind === cut.kind && sameWay(one, cut));
    if (like) continue;
    const near = sides(a).find((one) => one.kind === cut.kind);
    const end = i === 0 ? "start" : "end";
    if (!near) {
      const kinds = [...new Set(sides(a).map(cutName))].join(" and ");
      return { words: ` Its ${end} is cut ${cutName(cut)}, those of ${many.mark} ${kinds}.`, fix: null };
    }
    const edits = few.pieces.flatMap(({ id }): SimpleEdit[] => {
      const member = job.members[id];
      return member
        ? [{ kind: "changeMembers", ids: [id], set: { [end]: withTextsOf(member[end], near) } }]
        : [];
    });
    return {
      words: ` Its ${end} is cut ${cutName(cut)} with ${textsOf(cut)}, that of ${many.mark} with ${textsOf(near)}.`,
      fix: {
        label: `Cut ${few.mark} like ${many.mark}`,
        edit: { kind: "together", what: "Cut ends alike", edits },
      },
    };
  }
  return null;
}

const AXES = ["width", "depth", "height"] as const;

/** One point of the smaller row that stands a little off along one axis, where at least two of the larger row stand alike. */
function oddPoint(job: Job, shape: Shape, many: TallyRow, few: TallyRow): Cause | null {
  const pointsOf = (row: TallyRow) =>
    row.pieces.flatMap(({ id }) => {
      const line = job.lines[job.members[id]?.line ?? ""];
      return [line?.from, line?.to].flatMap((point) => job.points[point ?? ""] ?? []);
    });
  const others = new Map(pointsOf(many).map((point) => [point.id, point]));
  let best: { readonly point: Point; readonly axis: 0 | 1 | 2; readonly alike: readonly Point[] } | null =
    null;
  for (const point of pointsOf(few)) {
    const own = shape.points.get(point.id);
    if (!own || others.has(point.id)) continue;
    for (const axis of [0, 1, 2] as const) {
      const off = (other: Point) => Math.abs((shape.points.get(other.id)?.[axis] ?? Number.NaN) - own[axis]);
      const near = [...others.values()].filter(
        (other) =>
          other.assembly === point.assembly &&
          off(other) > POINT_TOLERANCE_MM &&
          off(other) < NEAR_TWIN_LENGTH_MM,
      );
      const stands = (other: Point) =>
        Math.round((shape.points.get(other.id)?.[axis] ?? 0) / POINT_TOLERANCE_MM);
      const [first] = near;
      const alike = first ? near.filter((other) => stands(other) === stands(first)) : [];
      if (alike.length >= 2 && alike.length > (best?.alike.length ?? 0)) best = { point, axis, alike };
    }
  }
  const [first] = best?.alike ?? [];
  const [own, there] = [shape.points.get(best?.point.id ?? ""), shape.points.get(first?.id ?? "")];
  if (!best || !first || !own || !there) return null;
  const { point, axis } = best;
  const style = jobStyle(job);
  const place = sayLength(there[axis], style);
  const apart = sayDifference(Math.abs(own[axis] - there[axis]), style);
  const at: [string, string, string] = [point.at[0], point.at[1], point.at[2]];
  at[axis] = first.at[axis];
  return {
    words: ` Point ${point.name} stands ${apart} off in ${AXES[axis]}; the other ${best.alike.length} are at ${place}.`,
    fix: { label: `Move it to ${place}`, edit: { kind: "changePoint", id: point.id, set: { at } } },
  };
}

const textsOf = (cut: EndCut) =>
  cutTexts(cut)
    .map(({ text }) => text.trim())
    .join(", ");
const sameWay = (a: EndCut, b: EndCut) => textsOf(a) === textsOf(b);

/** A cut with the formulas of another one of its kind. */
const withTextsOf = (cut: EndCut, other: EndCut): EndCut =>
  cut.kind === other.kind
    ? cutTexts(other).reduce((one, { field, text }) => withCutText(one, field, text), cut)
    : cut;

/** Panels whose length or width is another formula. */
function panelSizes(job: Job, many: TallyRow, few: TallyRow): Cause | null {
  const [a, b] = [job.panels[many.shown.id], job.panels[few.shown.id]];
  if (!a || !b || a.between || b.between) return null;
  const differing = (["length", "width"] as const).filter((side) => a[side].trim() !== b[side].trim());
  if (differing.length === 0) return null;
  const words = differing.map((side) => `its ${side} is ${b[side]}, that of ${many.mark} ${a[side]}`);
  const set = Object.fromEntries(differing.map((side) => [side, a[side]])) as Partial<
    Pick<Panel, "length" | "width">
  >;
  const turned = few.pieces.some(({ id }) => {
    const panel = job.panels[id];
    return !panel || differing.some((side) => panel[side] !== b[side]);
  });
  const ids = few.pieces.map((piece) => piece.id);
  const said = ` ${words.join(", and ").replace(/^./, (first) => first.toUpperCase())}.${sizeWords(
    job,
    differing.map((side) => [a[side], b[side]]),
  )}`;
  return {
    words: said,
    fix: turned
      ? null
      : { label: `Give ${few.mark} the size of ${many.mark}`, edit: { kind: "changePanels", ids, set } },
  };
}

/** Members whose points hang on other key sizes. */
function otherNames(job: Job, many: TallyRow, few: TallyRow): Cause | null {
  const formulas = (row: TallyRow) => {
    const line = job.lines[job.members[row.shown.id]?.line ?? ""];
    const points = line ? [job.points[line.from], job.points[line.to]] : [];
    return points.flatMap((point) => point?.at ?? []).join(" + ");
  };
  const words = sizeWords(job, [[formulas(many), formulas(few)]]);
  return words === "" ? null : { words, fix: null };
}

/** Key sizes on which the one hangs and the other does not, with their values where these nearly agree. */
function sizeWords(job: Job, pairs: readonly (readonly [string, string])[]): string {
  const { unit } = job.info.job;
  const names = (text: string) => {
    const read = parseFormula(text, unit);
    return new Set(read.ok ? read.value.names : []);
  };
  const { scope } = resolveSizes(job, null);
  for (const [a, b] of pairs) {
    const [mine, theirs] = [names(b), names(a)];
    for (const own of mine) {
      if (theirs.has(own)) continue;
      for (const other of theirs) {
        const [x, y] = [scope.get(own), scope.get(other)];
        if (mine.has(other) || typeof x !== "number" || typeof y !== "number") continue;
        // Key sizes are in the job's unit, the limits in millimetres.
        const apart = Math.abs(x - y) * MM_PER_UNIT[unit];
        if (apart > NEAR_TWIN_LENGTH_MM || apart < LENGTH_TOLERANCE_MM) continue;
        return ` Key size ${own} is ${roundTo(x, 3)}, ${other} is ${roundTo(y, 3)}.`;
      }
    }
  }
  return "";
}
