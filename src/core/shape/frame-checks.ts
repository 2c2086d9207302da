/**
 * Checks over the whole frame: points nearly but not joined, members drawn twice, ends cut against
 * something that they do not reach, solids that run into one another. Each is found by sorting or by cells, so that
 * the work grows with the number of pieces and not with its square.
 */
import {
  cross,
  distance,
  dot,
  frameIn,
  norm,
  reach,
  subtract,
  toLocal,
  toWorld,
  type Vec3,
} from "../geometry";
import {
  type Check,
  type Home,
  homeOfMember,
  type Job,
  type Line,
  type Member,
  neighbourOf,
  plainCheck,
} from "../job";
import { at, NEAR_TWIN_LENGTH_MM, SAME_PLACE_MM } from "../kernel";
import { roundTo } from "../measure";
import { sectionProperties } from "../stockroom";
import { endHeight, outerLoop } from "./ends";
import type { MemberSolid } from "./member";
import { grooveBox, notchBox, type PanelSolid } from "./panel";
import type { Places } from "./places";

/** mm. Solids that share less than this are taken to touch. */
const TOUCH_MM = 0.5;

type Solids = {
  readonly points: ReadonlyMap<string, Vec3>;
  readonly members: readonly MemberSolid[];
  readonly panels: readonly PanelSolid[];
  readonly places: Places;
};

/** Points and ends are looked at within each home, solids where they all stand. */
export function frameChecks(job: Job, solids: Solids): readonly Check[] {
  const { points, members } = solids;
  const homes = new Map<Home, Map<string, Vec3>>();
  for (const [id, place] of points) {
    const home = job.points[id]?.assembly ?? null;
    const own = homes.get(home) ?? new Map<string, Vec3>();
    homes.set(home, own.set(id, place));
  }
  return [
    ...[...homes.values()].flatMap((own) => nearPoints(job, own)),
    ...drawnTwice(job, points),
    ...nearLines(job, points),
    ...missedNeighbours(members),
    ...overlaps(solids),
  ];
}

/** mm. So much larger than the distance looked for that most points need but one cell. */
const CELL_MM = 100;

/** The one or two cells along an axis that lie within reach of a coordinate. */
function cellSpan(value: number): readonly number[] {
  const low = Math.floor((value - NEAR_TWIN_LENGTH_MM) / CELL_MM);
  const high = Math.floor((value + NEAR_TWIN_LENGTH_MM) / CELL_MM);
  return low === high ? [low] : [low, high];
}

/** Cells of one hash only cost a look. */
const cellHash = (x: number, y: number, z: number) =>
  Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791);

/** Keys of the cells within reach of a place. */
function cellsNear(place: Vec3): readonly number[] {
  const [ys, zs] = [cellSpan(place[1]), cellSpan(place[2])];
  const keys: number[] = [];
  for (const x of cellSpan(place[0])) for (const y of ys) for (const z of zs) keys.push(cellHash(x, y, z));
  return keys;
}

const ownCell = (place: Vec3) =>
  cellHash(Math.floor(place[0] / CELL_MM), Math.floor(place[1] / CELL_MM), Math.floor(place[2] / CELL_MM));

/** Ends of members that lie nearly, but not quite, on another end. */
function nearPoints(job: Job, points: ReadonlyMap<string, Vec3>): readonly Check[] {
  const carrying = new Set(
    Object.values(job.members).flatMap((member) => {
      const line = job.lines[member.line];
      return line ? [line.from as string, line.to as string] : [];
    }),
  );
  const cells = new Map<number, string[]>();
  const checks: Check[] = [];
  for (const [id, place] of points) {
    if (!carrying.has(id)) continue;
    for (const key of cellsNear(place)) {
      for (const other of cells.get(key) ?? []) {
        const apart = distance(place, points.get(other) ?? place);
        if (apart > SAME_PLACE_MM && apart < NEAR_TWIN_LENGTH_MM)
          checks.push(nearCheck(job, id, other, apart));
      }
    }
    const own = ownCell(place);
    const there = cells.get(own);
    if (there) there.push(id);
    else cells.set(own, [id]);
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

/** mm. Cells in which lines are looked up: long lines take a few, points look in one. */
const LINE_CELL_MM = 400;

/** Ends of members that lie nearly, but not quite, on the line of another one between its ends. */
function nearLines(job: Job, points: ReadonlyMap<string, Vec3>): readonly Check[] {
  const lines = Object.values(job.members).flatMap((member) => {
    const line = job.lines[member.line];
    const [from, to] = [points.get(line?.from ?? ""), points.get(line?.to ?? "")];
    return line && from && to ? [{ member, line, from, to, home: homeOfMember(job, member) }] : [];
  });
  const cells = new Map<number, (typeof lines)[number][]>();
  for (const one of lines)
    for (const key of cellsAlong(one.from, one.to)) {
      const there = cells.get(key);
      if (there) there.push(one);
      else cells.set(key, [one]);
    }
  const checks = new Map<string, Check>();
  for (const { member, line, home } of lines) {
    for (const id of [line.from, line.to]) {
      const place = points.get(id);
      if (!place || checks.has(id)) continue;
      const [x, y, z] = place.map((value) => Math.floor(value / LINE_CELL_MM));
      for (const other of cells.get(cellHash(x ?? 0, y ?? 0, z ?? 0)) ?? []) {
        if (other.member === member || other.home !== home) continue;
        const beside = besideLine(place, other.from, other.to);
        if (beside === null || beside <= SAME_PLACE_MM || beside >= NEAR_TWIN_LENGTH_MM) continue;
        checks.set(id, nearLineCheck(job, id, other, beside));
        break;
      }
    }
  }
  return [...checks.values()];
}

/** Distance from the line between its ends; null beyond them or near to them, where points are compared. */
function besideLine(place: Vec3, from: Vec3, to: Vec3): number | null {
  const run = subtract(to, from);
  const length = norm(run);
  if (length < 1) return null;
  const along = dot(subtract(place, from), run) / length;
  if (along < NEAR_TWIN_LENGTH_MM || along > length - NEAR_TWIN_LENGTH_MM) return null;
  return norm(cross(subtract(place, from), run)) / length;
}

/** Cells that a line passes, found by steps of half a cell, each with its neighbours within reach. */
function cellsAlong(from: Vec3, to: Vec3): ReadonlySet<number> {
  const steps = Math.min(2_000, Math.ceil(distance(from, to) / (LINE_CELL_MM / 2)) + 1);
  const keys = new Set<number>();
  const span = (value: number) => [
    Math.floor((value - LINE_CELL_MM / 4) / LINE_CELL_MM),
    Math.floor((value + LINE_CELL_MM / 4) / LINE_CELL_MM),
  ];
  for (let i = 0; i <= steps; i++) {
    const part = (axis: 0 | 1 | 2) => from[axis] + ((to[axis] - from[axis]) * i) / steps;
    for (const x of span(part(0)))
      for (const y of span(part(1))) for (const z of span(part(2))) keys.add(cellHash(x, y, z));
  }
  return keys;
}

type LineOfMember = { readonly member: Member; readonly line: Line; readonly from: Vec3; readonly to: Vec3 };

/** On a line along the width, depth or height the point can take over the two coordinates that do not run. */
function nearLineCheck(
  job: Job,
  id: string,
  { member, line, from, to }: LineOfMember,
  beside: number,
): Check {
  const [point, start] = [job.points[id], job.points[line.from]];
  const words = `Point ${point?.name ?? id} lies ${roundTo(beside, 2)} mm beside ${member.name}, but not on its line.`;
  const check = plainCheck("nearPoints", "warning", words, [id, member.id]);
  const running = ([0, 1, 2] as const).filter((i) => Math.abs(to[i] - from[i]) > SAME_PLACE_MM);
  if (running.length !== 1 || !point || !start) return check;
  const part = (i: 0 | 1 | 2) => (i === running[0] ? point.at[i] : start.at[i]);
  const moved: [string, string, string] = [part(0), part(1), part(2)];
  return {
    ...check,
    fix: { label: "Move it onto the line", edit: { kind: "movePoints", points: [{ id, at: moved }] } },
  };
}

/** A place to a hundredth of a millimetre. */
const placeKey = (place: Vec3) =>
  `${Math.round(place[0] * 100)},${Math.round(place[1] * 100)},${Math.round(place[2] * 100)}`;

/** Members whose lines lie on one another from end to end. */
function drawnTwice(job: Job, points: ReadonlyMap<string, Vec3>): readonly Check[] {
  const seen = new Map<string, string>();
  const checks: Check[] = [];
  for (const member of Object.values(job.members)) {
    const line = job.lines[member.line];
    const ends = [points.get(line?.from ?? ""), points.get(line?.to ?? "")];
    const [from, to] = ends;
    if (!from || !to || member.leftOut) continue;
    const [a, b] = [placeKey(from), placeKey(to)];
    const home = homeOfMember(job, member) ?? "";
    const key = a < b ? `${home}|${a}|${b}` : `${home}|${b}|${a}`;
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

/** A solid or the part of it that fills a box: its middle and half its sizes along its own axes. */
type Box = {
  readonly id: string;
  readonly name: string;
  readonly frame: MemberSolid["frame"];
  readonly low: Vec3;
  readonly high: Vec3;
  readonly middle: Vec3;
  readonly half: Vec3;
  /** Half its size along the axes of the job. */
  readonly reach: Vec3;
  readonly grooves: readonly { readonly from: Vec3; readonly to: Vec3 }[];
};

const FILLS: ReadonlySet<string> = new Set(["squareTube", "rectangularTube", "flat", "squareBar", "timber"]);

/** The box that a member surely fills: between its short edges. Open and round sections fill none. */
function memberBox(solid: MemberSolid): Box | null {
  if (!FILLS.has(solid.entry.shape.kind) || solid.member.leftOut || solid.member.role === "guide")
    return null;
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
  if (solid.thickness === null || solid.panel.leftOut || solid.panel.role === "guide") return null;
  const size: Vec3 = [solid.length, solid.width, solid.thickness];
  const grooves = [
    ...solid.grooves.map((groove) => grooveBox(groove, size)),
    ...solid.notches.map((notch) => notchBox(notch, size)),
  ];
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
  const half: Vec3 = [(high[0] - low[0]) / 2, (high[1] - low[1]) / 2, (high[2] - low[2]) / 2];
  return { id, name, low, high, half, grooves, ...stands(frame, low, half) };
}

const X: Vec3 = [1, 0, 0];
const Y: Vec3 = [0, 1, 0];
const Z: Vec3 = [0, 0, 1];

/** What of a box hangs on where it stands. */
function stands(frame: Box["frame"], low: Vec3, half: Vec3): Pick<Box, "frame" | "middle" | "reach"> {
  return {
    frame,
    middle: toWorld(frame, [low[0] + half[0], low[1] + half[1], low[2] + half[2]]),
    reach: [halfAlong(frame, half, X), halfAlong(frame, half, Y), halfAlong(frame, half, Z)],
  };
}

/** The boxes of all pieces wherever they stand; guides are no obstacle, what is left out is not built. */
function allBoxes({ members, panels, places }: Solids): readonly Box[] {
  const boxes: Box[] = [];
  const place = (box: Box | null, home: Home) => {
    if (!box) return;
    for (const { key, pose, counted } of places.get(home) ?? []) {
      if (counted === "guide" || counted === "leftOut") continue;
      if (key === "") boxes.push(box);
      else boxes.push({ ...box, ...stands(frameIn(pose.frame, box.frame), box.low, box.half) });
    }
  };
  for (const solid of members) place(memberBox(solid), solid.home);
  for (const solid of panels) place(panelBox(solid), solid.panel.assembly);
  return boxes;
}

/** Half of what a box takes along a direction. */
const halfAlong = ({ x, y, z }: Box["frame"], half: Vec3, axis: Vec3) =>
  Math.abs(dot(axis, x)) * half[0] + Math.abs(dot(axis, y)) * half[1] + Math.abs(dot(axis, z)) * half[2];

const MOST_OVERLAPS = 50;
/** A cell with more than these holds pieces stacked on one another; they are told by the first, and more would take for ever. */
const MOST_IN_CELL = 150;
/** So many pieces are compared; beyond that it is said that they were not. */
const MOST_COMPARED = 20_000;

/** mm. A few pieces a cell in a dense frame, a few cells a piece for long ones. */
const BOX_CELL_MM = 600;

/** Pairs of boxes that share room: only those that share a cell are looked at. */
function overlaps(solids: Solids): readonly Check[] {
  const all = allBoxes(solids);
  const boxes = all.slice(0, MOST_COMPARED);
  const told = new Set<string>();
  const cells = new Map<number, number[]>();
  const checks: Check[] = [];
  if (all.length > MOST_COMPARED) {
    const words = `${all.length} pieces stand there; only the first ${MOST_COMPARED} were looked at for running into one another.`;
    checks.push(plainCheck("overlap", "warning", words, []));
  }
  boxes.forEach((box, index) => {
    const met: number[] = [];
    for (const key of cellsOf(box)) {
      const there = cells.get(key);
      if (!there) {
        cells.set(key, [index]);
        continue;
      }
      for (const other of there) {
        // A pair may share several cells; the test of the bounds is cheap, the list of those met is short.
        if (other !== index && boundsShare(box, at(boxes, other)) && !met.includes(other)) met.push(other);
      }
      if (there.length < MOST_IN_CELL) there.push(index);
    }
    for (const other of met.sort((a, b) => a - b)) {
      const against = at(boxes, other);
      const pair = `${against.id} ${box.id}`;
      if (told.has(pair) || checks.length >= MOST_OVERLAPS || !shareRoom(box, against)) continue;
      told.add(pair);
      const words =
        box.name === against.name
          ? `Two pieces named ${box.name} run`
          : `${against.name} and ${box.name} run`;
      checks.push(
        plainCheck("overlap", "warning", `${words} into one another; cut one to the other or move it.`, [
          against.id,
          box.id,
        ]),
      );
    }
  });
  return checks;
}

/** Hashes of the cells that a box covers. */
function cellsOf({ middle, reach: half }: Box): readonly number[] {
  const keys: number[] = [];
  const [x0, y0, z0] = middle.map((value, i) => Math.floor((value - at(half, i)) / BOX_CELL_MM));
  const [x1, y1, z1] = middle.map((value, i) => Math.floor((value + at(half, i)) / BOX_CELL_MM));
  for (let x = x0 ?? 0; x <= (x1 ?? 0); x++)
    for (let y = y0 ?? 0; y <= (y1 ?? 0); y++)
      for (let z = z0 ?? 0; z <= (z1 ?? 0); z++) keys.push(cellHash(x, y, z));
  return keys;
}

const areApart = (a: Box, b: Box, i: 0 | 1 | 2) =>
  Math.abs(a.middle[i] - b.middle[i]) > a.reach[i] + b.reach[i] - TOUCH_MM;
const boundsShare = (a: Box, b: Box) => !areApart(a, b, 0) && !areApart(a, b, 1) && !areApart(a, b, 2);

/** Separating axes of two boxes (Gottschalk, Lin and Manocha 1996); what lies in a groove shares nothing. */
function shareRoom(a: Box, b: Box): boolean {
  const first = [a.frame.x, a.frame.y, a.frame.z];
  const second = [b.frame.x, b.frame.y, b.frame.z];
  for (const axis of first) if (separates(axis, a, b)) return false;
  for (const axis of second) if (separates(axis, a, b)) return false;
  for (const p of first) for (const q of second) if (separates(cross(p, q), a, b)) return false;
  return !liesInGroove(a, b) && !liesInGroove(b, a);
}

function separates(axis: Vec3, a: Box, b: Box): boolean {
  const size = norm(axis);
  if (size < 1e-6) return false;
  const reached = halfAlong(a.frame, a.half, axis) + halfAlong(b.frame, b.half, axis);
  return Math.abs(dot(subtract(b.middle, a.middle), axis)) > reached - TOUCH_MM * size;
}

/** Whether all that `b` takes of `a` was grooved out of it. */
function liesInGroove(a: Box, b: Box): boolean {
  if (a.grooves.length === 0) return false;
  const middle = toLocal(a.frame, b.middle);
  const axes = [a.frame.x, a.frame.y, a.frame.z];
  const shared = axes.map((axis, i) => {
    const half = halfAlong(b.frame, b.half, axis);
    return [
      Math.max(at(middle, i) - half, at(a.low, i)),
      Math.min(at(middle, i) + half, at(a.high, i)),
    ] as const;
  });
  return a.grooves.some(({ from, to }) =>
    shared.every(([low, high], i) => low > at(from, i) - TOUCH_MM && high < at(to, i) + TOUCH_MM),
  );
}
