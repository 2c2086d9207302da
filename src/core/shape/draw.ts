/**
 * Drawing members: from a place to a place, as one edit that inserts what is missing and cuts the ends
 * at the joints that come about. A place on an existing point takes that point.
 */
import { distance, type Vec3 } from "../geometry";
import {
  type Edit,
  type Home,
  type Job,
  type Line,
  lengthWith,
  type MemberId,
  type NewId,
  newInsert,
  newMember,
  newPoint,
  numberWith,
  type PlaceText,
  type Point,
  placeBetween,
  plus,
  readPlace,
  refused,
  type SimpleEdit,
  type Sizes,
  termOf,
  textOf,
  times,
  withEdit,
} from "../job";
import { err, ok, type Problem, type Result, SAME_PLACE_MM } from "../kernel";
import type { Stockroom } from "../stockroom";
import { type ProposedCut, pointPlaces, proposedCuts } from "./joints";

/** A place to draw from or to: a point that is there, or coordinates for a new one. */
export type DrawPlace = { readonly point: string | null; readonly texts: PlaceText };
export type DrawSettings = {
  readonly name: string;
  readonly section: string | null;
  readonly roll: string;
  readonly cardinal: number;
};

/** Ways to go from a place, in the words of the shop; the job's axes are width, depth and height. */
export const WAYS = ["right", "left", "back", "front", "up", "down"] as const;
export type Way = (typeof WAYS)[number];
const WAY_AXES: Readonly<Record<Way, readonly [0 | 1 | 2, 1 | -1]>> = {
  right: [0, 1],
  left: [0, -1],
  back: [1, 1],
  front: [1, -1],
  up: [2, 1],
  down: [2, -1],
};

export function directionOf(way: Way): Vec3 {
  const [axis, sign] = WAY_AXES[way];
  return [0, 1, 2].map((i) => (i === axis ? sign : 0)) as unknown as Vec3;
}

/**
 * A typed place: the name of a point, three coordinates separated by semicolons, or a share or length along the way
 * from one point to another: `P1 to P2 at 1/3`, `P1 to P2 at 200`.
 */
export function typedPlace(
  { job, sizes, home = null }: Omit<Ground, "stockroom">,
  text: string,
): Result<DrawPlace, Problem> {
  const along = /^(\S+) to (\S+) at (.+)$/.exec(text.trim());
  if (along) {
    const [, from = "", to = "", how = ""] = along;
    const ends = [from, to].map((name) => pointNamed(job, home, name));
    const [a, b] = ends;
    if (!a || !b) return noPoint(a ? to : from);
    const place = placeOnLine(job, sizes, a, b, how);
    return place.ok ? ok({ point: null, texts: place.value }) : place;
  }
  const read = readPlace(text);
  if (!read)
    return refused(
      "The place",
      text,
      "must be the name of a point or three coordinates such as 0; depth/2; 300",
    );
  if (read.kind === "place") return ok({ point: null, texts: read.at });
  const point = pointNamed(job, home, read.name);
  return point ? ok({ point: point.id, texts: point.at }) : noPoint(read.name);
}

const pointNamed = (job: Job, home: Home, name: string) =>
  Object.values(job.points).find(
    (one) => one.assembly === home && one.name.toLowerCase() === name.toLowerCase(),
  );

const noPoint = (name: string) =>
  refused(
    "The point",
    name,
    "is not here; type a name that is, or three coordinates separated by semicolons",
  );

/** The place of a point that is called so, in any case of letters; null: none is. */
export function placeNamed(job: Job, home: Home, name: string): DrawPlace | null {
  const point = pointNamed(job, home, name.trim());
  return point ? { point: point.id, texts: point.at } : null;
}

/** The place on a line of the job at a share of it or at a length from its start, as texts that follow. */
export function placeOnJobLine(
  { job, sizes }: Pick<Ground, "job" | "sizes">,
  id: string,
  text: string,
): Result<DrawPlace, Problem> {
  const line = job.lines[id];
  const [from, to] = [job.points[line?.from ?? ""], job.points[line?.to ?? ""]];
  if (!from || !to) return err({ kind: "missingRecord", what: "line", id });
  const place = placeOnLine(job, sizes, from, to, text);
  return place.ok ? ok({ point: null, texts: place.value }) : place;
}

/** The place so far away from another one along the width, depth or height. */
export function placeAlong(job: Job, from: DrawPlace, way: Way, length: string): DrawPlace {
  const [axis, sign] = WAY_AXES[way];
  const unit = job.info.job.unit;
  const part = (i: 0 | 1 | 2) =>
    i === axis ? textOf(plus(termOf(from.texts[i], unit), times(termOf(length, unit), sign))) : from.texts[i];
  return { point: null, texts: [part(0), part(1), part(2)] };
}

/** Millimetres of a place with the present key sizes. */
export function whereIs(sizes: Sizes, { texts }: DrawPlace): Result<Vec3, Problem> {
  const values: number[] = [];
  for (const text of texts) {
    const value = lengthWith(sizes, text);
    if (!value.ok) return value;
    values.push(value.value);
  }
  return ok([values[0] ?? 0, values[1] ?? 0, values[2] ?? 0]);
}

/** Gives names for new points of a job: P1, P2, …, none that a point is called and none twice. */
export function newPointNames(job: Job): () => string {
  let taken: Set<string> | null = null;
  let number = 0;
  return () => {
    taken ??= new Set(Object.values(job.points).map(({ name }) => name));
    do number++;
    while (taken.has(`P${number}`));
    return `P${number}`;
  };
}

/** `home`: the assembly that is drawn in; null or absent: the job itself. */
export type DrawGround = {
  readonly job: Job;
  readonly sizes: Sizes;
  readonly stockroom: Stockroom;
  readonly home?: Home;
};
type Ground = DrawGround;
/** Where the points of a job are while somebody draws in it, and what new ones are called. */
type PointsThere = { readonly places: ReadonlyMap<string, Vec3>; readonly newName: () => string };
type Settled = { readonly point: Point; readonly fresh: boolean; readonly at: Vec3 };

function settle(
  { job, sizes, home = null }: Ground,
  { places, newName }: PointsThere,
  place: DrawPlace,
  newId: NewId,
): Result<Settled, Problem> {
  const at = whereIs(sizes, place);
  if (!at.ok) return at;
  const known =
    (place.point === null ? undefined : job.points[place.point]) ?? pointAt(job, home, places, at.value);
  if (known) return ok({ point: known, fresh: false, at: at.value });
  return ok({ point: newPoint(newId("point"), newName(), place.texts, home), fresh: true, at: at.value });
}

function pointAt(job: Job, home: Home, places: PointsThere["places"], place: Vec3): Point | undefined {
  for (const [id, at] of places) {
    const point = distance(at, place) < SAME_PLACE_MM ? job.points[id] : undefined;
    if (point?.assembly === home) return point;
  }
  return undefined;
}

type Drawn = { readonly edit: Edit; readonly end: DrawPlace };

/** The two ends of what is drawn, settled on points; refused where it would have no length. */
function settledEnds(
  ground: Ground,
  there: PointsThere,
  { from, to, what }: { readonly from: DrawPlace; readonly to: DrawPlace; readonly what: string },
  newId: NewId,
): Result<readonly [Settled, Settled], Problem> {
  const start = settle(ground, there, from, newId);
  if (!start.ok) return start;
  const end = settle(ground, there, to, newId);
  if (!end.ok) return end;
  if (distance(start.value.at, end.value.at) < SAME_PLACE_MM)
    return refused(`A ${what} to`, end.value.point.name, "would have no length; choose another end");
  return ok([start.value, end.value]);
}

/** The edit that draws a guide between two places: a line to draw from, which is no piece. */
export function drawGuide(
  ground: Ground,
  from: DrawPlace,
  to: DrawPlace,
  newId: NewId,
): Result<Drawn, Problem> {
  const { job, sizes } = ground;
  const there = { places: pointPlaces(job, sizes), newName: newPointNames(job) };
  const ends = settledEnds(ground, there, { from, to, what: "guide" }, newId);
  if (!ends.ok) return ends;
  const [a, b] = ends.value;
  const line: Line = { id: newId("line") as Line["id"], from: a.point.id, to: b.point.id };
  const points = ends.value.filter((one) => one.fresh).map((one) => one.point);
  const edit = newInsert("Draw a guide", { points, lines: [line] });
  const after = withEdit(job, edit);
  return after.ok ? ok({ edit, end: { point: b.point.id, texts: b.point.at } }) : after;
}

/** The edit that draws a member between two places; `end` is where the next one can start. */
export const drawMember = (
  ground: Ground,
  from: DrawPlace,
  to: DrawPlace,
  settings: DrawSettings,
  newId: NewId,
): Result<Drawn, Problem> => drawPairs(ground, [[from, to]], settings, newId);

/**
 * One edit for members between pairs of places, in their order; `what` it is called, otherwise as the first of them. `end`: where
 * the last one ends.
 */
export function drawPairs(
  ground: DrawGround,
  pairs: readonly (readonly [from: DrawPlace, to: DrawPlace])[],
  settings: DrawSettings,
  newId: NewId,
  what?: string,
): Result<Drawn, Problem> {
  const draft = draftOf(ground);
  const edits: SimpleEdit[] = [];
  let end: DrawPlace | null = null;
  for (const [from, to] of pairs) {
    const drawn = drawInto(draft, from, to, settings, newId);
    if (!drawn.ok) return drawn;
    edits.push(...drawn.value.edits);
    end = drawn.value.end;
  }
  if (!end) return refused("The selection", "", "holds nothing to draw from");
  const edit: Edit = { kind: "together", ...(what === undefined ? {} : { what }), edits };
  const after = withEdit(ground.job, edit);
  return after.ok ? ok({ edit, end }) : after;
}

/**
 * A document that is drawn in: its points, lines and members are copies of its own, written in place, since each of many members is
 * drawn against those before it. Nothing that remembers by a table may be asked of it.
 */
type Draft = {
  readonly ground: Ground;
  readonly places: Map<string, Vec3>;
  readonly newName: () => string;
  /** The name of the member on a line, by its two points. */
  readonly between: Map<string, string>;
};

const pairKey = (a: string, b: string) => (a < b ? `${a} ${b}` : `${b} ${a}`);

function draftOf(ground: Ground): Draft {
  const { job, sizes } = ground;
  const { points, lines, members } = job;
  const between = new Map<string, string>();
  for (const { line: id, name } of Object.values(members)) {
    const line = lines[id];
    const key = line && pairKey(line.from, line.to);
    if (key !== undefined && !between.has(key)) between.set(key, name);
  }
  return {
    ground: {
      ...ground,
      job: { ...job, points: { ...points }, lines: { ...lines }, members: { ...members } },
    },
    places: new Map(pointPlaces(job, sizes)),
    newName: newPointNames(job),
    between,
  };
}

/** Draws a member in a draft: the edits that do the same to the document. */
function drawInto(
  { ground, places, newName, between }: Draft,
  from: DrawPlace,
  to: DrawPlace,
  settings: DrawSettings,
  newId: NewId,
): Result<{ readonly edits: readonly SimpleEdit[]; readonly end: DrawPlace }, Problem> {
  const { job } = ground;
  const ends = settledEnds(ground, { places, newName }, { from, to, what: "member" }, newId);
  if (!ends.ok) return ends;
  const [a, b] = ends.value;
  const key = pairKey(a.point.id, b.point.id);
  const twin = between.get(key);
  if (twin !== undefined)
    return refused("Member", twin, "already connects these points; choose another end point");
  const fresh = ends.value.filter((one) => one.fresh);
  for (const { point, at } of fresh) {
    job.points[point.id] = point;
    places.set(point.id, at);
  }
  const line: Line = { id: newId("line") as Line["id"], from: a.point.id, to: b.point.id };
  const member = newMember(newId("member"), line.id, { ...settings, from: "", to: "" });
  job.lines[line.id] = line;
  job.members[member.id] = member;
  between.set(key, member.name);
  const points = fresh.map(({ point }) => point);
  const insert = newInsert(`Draw ${settings.name}`, { points, lines: [line], members: [member] });
  const cuts = proposedCuts(job, new Set([member.id]), ground, places);
  for (const { member: id, side, cut } of cuts) {
    const now = job.members[id];
    if (now) job.members[id] = { ...now, [side]: cut };
  }
  return ok({ edits: [insert, ...editsOfCuts(cuts)], end: { point: b.point.id, texts: b.point.at } });
}

/** One change of a member for each end that is cut anew. */
export function editsOfCuts(cuts: readonly ProposedCut[]): readonly SimpleEdit[] {
  return cuts.map(
    ({ member, side, cut }): SimpleEdit => ({
      kind: "changeMembers",
      ids: [member],
      set: side === "start" ? { start: cut } : { end: cut },
    }),
  );
}

/**
 * The edit that splits a member at a share of its line (0.5, 1/3) or at a length from its start (200,
 * width/4). On a line along the width, depth or height the length stays a formula; elsewhere it becomes
 * the share that it is now.
 */
export function splitMember(
  { job, sizes }: Pick<Ground, "job" | "sizes">,
  id: string,
  text: string,
  newId: NewId,
): Result<Edit, Problem> {
  const member = job.members[id];
  const line = member ? job.lines[member.line] : undefined;
  const [from, to] = [job.points[line?.from ?? ""], job.points[line?.to ?? ""]];
  if (!member || !line || !from || !to) return err({ kind: "missingRecord", what: "member", id });
  const place = placeOnLine(job, sizes, from, to, text);
  if (!place.ok) return place;
  return ok({
    kind: "splitLine",
    line: line.id,
    point: newPoint(newId("point"), newPointNames(job)(), place.value, from.assembly),
    newLine: newId("line") as Line["id"],
    newMember: newId("member") as MemberId,
  });
}

function placeOnLine(
  job: Job,
  sizes: Sizes,
  from: Point,
  to: Point,
  text: string,
): Result<PlaceText, Problem> {
  const unit = job.info.job.unit;
  const ends = [from, to].map((point) => whereIs(sizes, { point: point.id, texts: point.at }));
  const [a, b] = ends;
  if (!a?.ok) return a ?? err({ kind: "missingRecord", what: "point", id: from.id });
  if (!b?.ok) return b ?? err({ kind: "missingRecord", what: "point", id: to.id });
  const whole = distance(a.value, b.value);
  const share = numberWith(sizes, text);
  if (share.ok && share.value > 0 && share.value < 1)
    return ok(placeBetween(from.at, to.at, share.value, unit));
  const length = lengthWith(sizes, text);
  if (!length.ok) return length;
  if (length.value <= SAME_PLACE_MM || length.value >= whole - SAME_PLACE_MM)
    return refused("The place at", text, "must lie between the two ends of the line");
  const along = ([0, 1, 2] as const).filter((i) => Math.abs(a.value[i] - b.value[i]) > SAME_PLACE_MM);
  const [axis] = along;
  if (along.length !== 1 || axis === undefined)
    return ok(placeBetween(from.at, to.at, length.value / whole, unit));
  const sign = b.value[axis] > a.value[axis] ? 1 : -1;
  const part = (i: 0 | 1 | 2) =>
    i === axis ? textOf(plus(termOf(from.at[i], unit), times(termOf(text, unit), sign))) : from.at[i];
  return ok([part(0), part(1), part(2)]);
}
