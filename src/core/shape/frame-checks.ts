/**
 * Checks over the whole frame: points nearly but not joined, members drawn twice, ends cut against
 * something that they do not reach, solids that run into one another. Each is found by sorting or by cells, so that
 * the work grows with the number of pieces and not with its square.
 */
import { cross, distance, dot, reach, toLocal, toWorld, type Vec3 } from "../geometry";
import { type Check, type Job, neighbourOf, plainCheck } from "../job";
import { at, NEAR_TWIN_LENGTH_MM, POINT_TOLERANCE_MM } from "../kernel";
import { roundTo } from "../measure";
import { sectionProperties } from "../stockroom";
import { endHeight, outerLoop } from "./ends";
import type { MemberSolid } from "./member";
import { grooveBox, type PanelSolid } from "./panel";

/** mm. Solids that share less than this are taken to touch. */
const TOUCH_MM = 0.5;

export function frameChecks(
  job: Job,
  points: ReadonlyMap<string, Vec3>,
  members: readonly MemberSolid[],
  panels: readonly PanelSolid[],
): readonly Check[] {
  return [
    ...nearPoints(job, points),
    ...drawnTwice(job, points),
    ...missedNeighbours(members),
    ...overlaps(members, panels),
  ];
}

const cellOf = ([x, y, z]: Vec3, size: number) => [x, y, z].map((value) => Math.floor(value / size));

/** Ends of members that lie nearly, but not quite, on another end. */
function nearPoints(job: Job, points: ReadonlyMap<string, Vec3>): readonly Check[] {
  const carrying = new Set(
    Object.values(job.members).flatMap((member) => {
      const line = job.lines[member.line];
      return line ? [line.from as string, line.to as string] : [];
    }),
  );
  const cells = new Map<string, string[]>();
  const checks: Check[] = [];
  for (const [id, place] of points) {
    if (!carrying.has(id)) continue;
    const [cx = 0, cy = 0, cz = 0] = cellOf(place, NEAR_TWIN_LENGTH_MM);
    for (let i = 0; i < 27; i++) {
      const key = `${cx + (i % 3) - 1},${cy + (Math.floor(i / 3) % 3) - 1},${cz + Math.floor(i / 9) - 1}`;
      for (const other of cells.get(key) ?? []) {
        const apart = distance(place, points.get(other) ?? place);
        if (apart > POINT_TOLERANCE_MM * 1000 && apart < NEAR_TWIN_LENGTH_MM)
          checks.push(nearCheck(job, id, other, apart));
      }
    }
    const own = `${cx},${cy},${cz}`;
    cells.set(own, [...(cells.get(own) ?? []), id]);
  }
  return checks;
}

function nearCheck(job: Job, id: string, other: string, apart: number): Check {
  const [a, b] = [job.points[id]?.name ?? id, job.points[other]?.name ?? other];
  return {
    ...plainCheck(
      "nearPoints",
      "warning",
      `Points ${b} and ${a} are ${roundTo(apart, 2)} mm apart, but not joined.`,
      [id, other],
    ),
    fix: { label: "Join points", edit: { kind: "joinPoints", from: id, into: other } },
  };
}

/** Members whose lines lie on one another from end to end. */
function drawnTwice(job: Job, points: ReadonlyMap<string, Vec3>): readonly Check[] {
  const seen = new Map<string, string>();
  const checks: Check[] = [];
  for (const member of Object.values(job.members)) {
    const line = job.lines[member.line];
    const ends = [points.get(line?.from ?? ""), points.get(line?.to ?? "")];
    const [from, to] = ends;
    if (!from || !to || member.leftOut) continue;
    const key = [from, to]
      .map((place) => place.map((value) => roundTo(value, 2)).join(","))
      .sort()
      .join("|");
    const first = seen.get(key);
    if (first === undefined) seen.set(key, member.id);
    else {
      const other = job.members[first]?.name ?? first;
      const words =
        other === member.name ? `Two members named ${member.name} lie` : `${other} and ${member.name} lie`;
      checks.push({
        ...plainCheck(
          "drawnTwice",
          "warning",
          `${words} on one another from end to end; both would be cut.`,
          [first, member.id],
        ),
        fix: { label: "Remove one", edit: { kind: "remove", ids: [member.id] } },
      });
    }
  }
  return checks;
}

/** Ends cut against a face or a saddle that lies beyond the neighbour's own length. */
function missedNeighbours(members: readonly MemberSolid[]): readonly Check[] {
  const byId = new Map(members.map((solid) => [solid.member.id as string, solid]));
  return members.flatMap((solid) =>
    (["start", "end"] as const).flatMap((side) => {
      const cut = solid.member[side];
      const other = cut.kind === "butt" || cut.kind === "cope" ? byId.get(neighbourOf(cut) ?? "") : undefined;
      if (!other) return [];
      const meets = toWorld(solid.frame, [0, 0, endHeight(side, solid[side])([0, 0])]);
      const along = toLocal(other.frame, meets)[2];
      const depth = Math.max(...sectionProperties(solid.entry.shape).extent);
      if (along > other.start.z - depth && along < other.end.z + depth) return [];
      const words = `${solid.member.name}: its ${side} is cut against ${other.member.name}, but meets nothing there; lengthen that one or cut it otherwise.`;
      return [plainCheck("meetsNothing", "warning", words, [solid.member.id, other.member.id])];
    }),
  );
}

/** A solid or the part of it that fills a box, in its own frame. */
type Box = {
  readonly id: string;
  readonly name: string;
  readonly low: Vec3;
  readonly high: Vec3;
  readonly frame: MemberSolid["frame"];
  readonly grooves: readonly { readonly from: Vec3; readonly to: Vec3 }[];
  readonly around: { readonly low: Vec3; readonly high: Vec3 };
};

const FILLS: ReadonlySet<string> = new Set(["squareTube", "rectangularTube", "flat", "squareBar", "timber"]);

/** The box that a member surely fills: between its short edges. Open and round sections fill none. */
function memberBox(solid: MemberSolid): Box | null {
  if (!FILLS.has(solid.entry.shape.kind) || solid.member.leftOut) return null;
  const properties = sectionProperties(solid.entry.shape);
  const [cx, cy] = properties.boxCentre;
  const [w, h] = properties.extent;
  const outline = outerLoop(properties);
  const { start, end } = solid;
  const low: Vec3 = [cx - w / 2, cy - h / 2, start.z + reach(outline, [-start.slope[0], -start.slope[1]])];
  const high: Vec3 = [cx + w / 2, cy + h / 2, end.z - reach(outline, [-end.slope[0], -end.slope[1]])];
  if (high[2] - low[2] <= TOUCH_MM) return null;
  return boxOf(solid.member.id, solid.member.name, solid.frame, low, high, []);
}

function panelBox(solid: PanelSolid): Box | null {
  if (solid.thickness === null || solid.panel.leftOut) return null;
  const size: Vec3 = [solid.length, solid.width, solid.thickness];
  const grooves = solid.grooves.map((groove) => grooveBox(groove, size));
  return boxOf(solid.panel.id, solid.panel.name, solid.frame, [0, 0, 0], size, grooves);
}

function boxOf(
  id: string,
  name: string,
  frame: Box["frame"],
  low: Vec3,
  high: Vec3,
  grooves: Box["grooves"],
): Box {
  const corners = cornersOf(low, high).map((corner) => toWorld(frame, corner));
  return { id, name, frame, low, high, grooves, around: boundsOf(corners) };
}

const cornersOf = (low: Vec3, high: Vec3): readonly Vec3[] =>
  [0, 1, 2, 3, 4, 5, 6, 7].map(
    (bits): Vec3 => [bits & 1 ? high[0] : low[0], bits & 2 ? high[1] : low[1], bits & 4 ? high[2] : low[2]],
  );

function boundsOf(corners: readonly Vec3[]): { readonly low: Vec3; readonly high: Vec3 } {
  const along = (i: 0 | 1 | 2, pick: (...values: number[]) => number) =>
    pick(...corners.map((corner) => corner[i]));
  return {
    low: [along(0, Math.min), along(1, Math.min), along(2, Math.min)],
    high: [along(0, Math.max), along(1, Math.max), along(2, Math.max)],
  };
}

const MOST_OVERLAPS = 50;

/** Pairs of boxes that share room, by a sweep along the width. */
function overlaps(members: readonly MemberSolid[], panels: readonly PanelSolid[]): readonly Check[] {
  const boxes = [...members.map(memberBox), ...panels.map(panelBox)]
    .filter((box) => box !== null)
    .sort((a, b) => a.around.low[0] - b.around.low[0]);
  const checks: Check[] = [];
  let open: Box[] = [];
  for (const box of boxes) {
    open = open.filter((other) => other.around.high[0] > box.around.low[0] + TOUCH_MM);
    for (const other of open) {
      if (checks.length >= MOST_OVERLAPS) return checks;
      if (!boundsShare(box, other) || !shareRoom(box, other)) continue;
      const words =
        box.name === other.name ? `Two pieces named ${box.name} run` : `${other.name} and ${box.name} run`;
      checks.push(
        plainCheck("overlap", "warning", `${words} into one another; cut one to the other or move it.`, [
          other.id,
          box.id,
        ]),
      );
    }
    open.push(box);
  }
  return checks;
}

const boundsShare = (a: Box, b: Box) =>
  ([1, 2] as const).every(
    (i) => a.around.high[i] > b.around.low[i] + TOUCH_MM && b.around.high[i] > a.around.low[i] + TOUCH_MM,
  );

/** Separating axes of two boxes (Gottschalk, Lin and Manocha 1996); what lies in a groove shares nothing. */
function shareRoom(a: Box, b: Box): boolean {
  const axesOf = ({ frame }: Box): readonly Vec3[] => [frame.x, frame.y, frame.z];
  const [first, second] = [axesOf(a), axesOf(b)];
  const crossed = first.flatMap((p) => second.map((q) => cross(p, q)));
  for (const axis of [...first, ...second, ...crossed]) {
    const size = Math.hypot(...axis);
    if (size < 1e-6) continue;
    const [p, q] = [spanOf(a, axis), spanOf(b, axis)];
    if (Math.min(p[1], q[1]) - Math.max(p[0], q[0]) < TOUCH_MM * size) return false;
  }
  return !liesInGroove(a, b) && !liesInGroove(b, a);
}

function spanOf({ frame, low, high }: Box, axis: Vec3): readonly [number, number] {
  const values = cornersOf(low, high).map((corner) => dot(toWorld(frame, corner), axis));
  return [Math.min(...values), Math.max(...values)];
}

/** Whether all that `b` takes of `a` was grooved out of it. */
function liesInGroove(a: Box, b: Box): boolean {
  if (a.grooves.length === 0) return false;
  const inside = boundsOf(
    cornersOf(b.low, b.high).map((corner) => toLocal(a.frame, toWorld(b.frame, corner))),
  );
  const shared = ([0, 1, 2] as const).map(
    (i) => [Math.max(inside.low[i], a.low[i]), Math.min(inside.high[i], a.high[i])] as const,
  );
  return a.grooves.some(({ from, to }) =>
    shared.every(([low, high], i) => low > at(from, i) - TOUCH_MM && high < at(to, i) + TOUCH_MM),
  );
}
