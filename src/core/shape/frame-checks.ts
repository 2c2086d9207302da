/**
 * Checks over the whole frame: points nearly but not joined, members drawn twice, ends cut against
 * something that they do not reach, solids that run into one another. Each is found by sorting or by cells, so that
 * the work grows with the number of pieces and not with its square.
 */
import { cross, distance, dot, norm, subtract, toLocal, toWorld, type Vec3 } from "../geometry";
import {
  type Check,
  type EndCut,
  type Home,
  homeOfLine,
  type Job,
  jobStyle,
  type Line,
  type Member,
  meantId,
  meetsOf,
  neighboursOf,
  plainCheck,
} from "../job";
import { addTo, grouped, NEAR_TWIN_LENGTH_MM, SAME_PLACE_MM } from "../kernel";
import { sayDifference } from "../measure";
import { sectionProperties } from "../stockroom";
import { cellHash, cellOf, cellsNear, LINE_CELL_MM, linesByCell, maybeBeside } from "./cells";
import { endHeight } from "./ends";
import type { MemberSolid } from "./member";
import type { FrameMemory } from "./memory";
import { overlaps, type Solids } from "./overlaps";

/** Points and ends are looked at within each home, solids where they all stand. */
export function frameChecks(job: Job, solids: Solids, memory: FrameMemory): readonly Check[] {
  return [
    ...lineChecks(job, solids.points, memory),
    ...missedNeighbours(solids.members, memory),
    ...overlaps(solids, memory),
  ];
}

/** What hangs on points and lines alone: the same as before while neither they nor the names on them changed. */
function lineChecks(job: Job, points: ReadonlyMap<string, Vec3>, memory: FrameMemory): readonly Check[] {
  const from: unknown[] = [points, job.points, job.lines, job.meant];
  for (const { line, name, leftOut } of Object.values(job.members)) from.push(line, name, leftOut);
  return memory.lines(memory, from, () => {
    const lines = linesOfMembers(job, points);
    return [...nearPoints(job, points), ...drawnTwice(lines), ...nearLines(job, lines)];
  });
}

type LineOfMember = {
  readonly member: Member;
  readonly line: Line;
  readonly home: Home;
  readonly from: Vec3;
  readonly to: Vec3;
};

/** The lines that carry members, once for each of them; those whose ends are nowhere are told elsewhere. */
function linesOfMembers(job: Job, points: ReadonlyMap<string, Vec3>): readonly LineOfMember[] {
  const lines: LineOfMember[] = [];
  for (const member of Object.values(job.members)) {
    const line = job.lines[member.line];
    const [from, to] = [points.get(line?.from ?? ""), points.get(line?.to ?? "")];
    if (line && from && to) lines.push({ member, line, home: homeOfLine(job, line), from, to });
  }
  return lines;
}

/** mm. So much larger than the distance looked for that most points need but one cell. */
const CELL_MM = 100;

type End = { readonly id: string; readonly place: Vec3 };

/** Ends of members that lie nearly, but not quite, on another end of the same home. */
function nearPoints(job: Job, points: ReadonlyMap<string, Vec3>): readonly Check[] {
  const carrying = new Set<string>();
  for (const member of Object.values(job.members)) {
    const line = job.lines[member.line];
    if (line) carrying.add(line.from).add(line.to);
  }
  const ends: End[] = [];
  for (const [id, place] of points) if (carrying.has(id)) ends.push({ id, place });
  const homes = grouped(ends, ({ id }) => job.points[id]?.assembly ?? null);
  return [...homes.values()].flatMap((own) => nearEnds(job, own));
}

function nearEnds(job: Job, ends: readonly End[]): readonly Check[] {
  const cells = new Map<number, End[]>();
  const checks: Check[] = [];
  for (const end of ends) {
    for (const key of cellsNear(end.place, CELL_MM))
      for (const other of cells.get(key) ?? []) {
        const apart = distance(end.place, other.place);
        if (apart <= SAME_PLACE_MM || apart >= NEAR_TWIN_LENGTH_MM) continue;
        if (job.meant[meantId(end.id, other.id)] === undefined)
          checks.push(nearCheck(job, end.id, other.id, apart));
      }
    addTo(cells, cellOf(end.place, CELL_MM), end);
  }
  return checks;
}

function nearCheck(job: Job, id: string, other: string, apart: number): Check {
  const [a, b] = [job.points[id]?.name ?? id, job.points[other]?.name ?? other];
  return {
    ...plainCheck(
      "nearPoints",
      "warning",
      `Points ${b} and ${a} are ${sayDifference(apart, jobStyle(job))} apart, but not joined.`,
      [id, other],
    ),
    fix: { label: "Join points", edit: { kind: "joinPoints", from: id, into: other } },
    meant: meantId(id, other),
  };
}

/** Ends of members that lie nearly, but not quite, on the line of another one between its ends. */
function nearLines(job: Job, lines: readonly LineOfMember[]): readonly Check[] {
  const cells = linesByCell(lines);
  const checks: Check[] = [];
  const looked = new Set<string>();
  for (const { member, line, home, from, to } of lines) {
    for (const [id, place] of [[line.from, from] as const, [line.to, to] as const]) {
      if (looked.has(id)) continue;
      looked.add(id);
      const near = lineBeside(
        place,
        cells,
        (other) =>
          other.member !== member &&
          other.home === home &&
          job.meant[meantId(id, other.member.id)] === undefined,
      );
      if (near) checks.push(nearLineCheck(job, id, near.line, near.beside));
    }
  }
  return checks;
}

/** A line that passes a place within the distance looked for, but not through it. */
function lineBeside(
  place: Vec3,
  cells: ReadonlyMap<number, readonly LineOfMember[]>,
  wanted: (line: LineOfMember) => boolean,
): { readonly line: LineOfMember; readonly beside: number } | null {
  for (const key of cellsNear(place, LINE_CELL_MM)) {
    for (const line of cells.get(key) ?? []) {
      if (!maybeBeside(place, line.from, line.to)) continue;
      const beside = besideLine(place, line.from, line.to);
      if (beside === null || beside <= SAME_PLACE_MM || beside >= NEAR_TWIN_LENGTH_MM) continue;
      // Asked last: few lines come so near, and the question costs more than the distance.
      if (wanted(line)) return { line, beside };
    }
  }
  return null;
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

/** On a line along the width, depth or height the point can take over the two coordinates that do not run. */
function nearLineCheck(
  job: Job,
  id: string,
  { member, line, from, to }: LineOfMember,
  beside: number,
): Check {
  const [point, start] = [job.points[id], job.points[line.from]];
  const words = `Point ${point?.name ?? id} is ${sayDifference(beside, jobStyle(job))} from the line of ${member.name}.`;
  const check: Check = {
    ...plainCheck("nearPoints", "warning", words, [id, member.id]),
    meant: meantId(id, member.id),
  };
  const running = ([0, 1, 2] as const).filter((i) => Math.abs(to[i] - from[i]) > SAME_PLACE_MM);
  if (running.length !== 1 || !point || !start) return check;
  const part = (i: 0 | 1 | 2) => (i === running[0] ? point.at[i] : start.at[i]);
  const moved: [string, string, string] = [part(0), part(1), part(2)];
  return {
    ...check,
    fix: { label: "Move it onto the line", edit: { kind: "movePoints", points: [{ id, at: moved }] } },
  };
}

/** A coordinate in whole hundredths of a millimetre: what is in the same place differs by less. */
const hundredths = (mm: number) => Math.round(mm * 100);

const isAt = (a: Vec3, b: Vec3) =>
  hundredths(a[0]) === hundredths(b[0]) &&
  hundredths(a[1]) === hundredths(b[1]) &&
  hundredths(a[2]) === hundredths(b[2]);

const lieAlike = (a: LineOfMember, b: LineOfMember) =>
  a.home === b.home &&
  ((isAt(a.from, b.from) && isAt(a.to, b.to)) || (isAt(a.from, b.to) && isAt(a.to, b.from)));

const placeHash = (place: Vec3) => cellHash(hundredths(place[0]), hundredths(place[1]), hundredths(place[2]));

/** Members whose lines lie on one another from end to end. */
function drawnTwice(lines: readonly LineOfMember[]): readonly Check[] {
  // By a number that both ways round give; of those few that share it, each is looked at.
  const seen = new Map<number, LineOfMember[]>();
  const checks: Check[] = [];
  for (const own of lines) {
    const { member, from, to } = own;
    if (member.leftOut) continue;
    const key = placeHash(from) + placeHash(to);
    const first = seen.get(key)?.find((other) => lieAlike(own, other));
    if (first === undefined) {
      addTo(seen, key, own);
      continue;
    }
    const other = first.member.name;
    const words =
      other === member.name ? `Two members named ${member.name} are` : `${other} and ${member.name} are`;
    checks.push({
      ...plainCheck("drawnTwice", "warning", `${words} in the same place. Both are counted.`, [
        first.member.id,
        member.id,
      ]),
      fix: { label: "Remove one", edit: { kind: "remove", ids: [member.id] } },
    });
  }
  return checks;
}

/** Ends cut against a face or a saddle that lies beyond the neighbour's own length. */
function missedNeighbours(members: readonly MemberSolid[], memory: FrameMemory): readonly Check[] {
  const byId = new Map(members.map((solid) => [solid.member.id as string, solid]));
  const meets = (cut: EndCut) =>
    meetsOf(cut) === "anywhere" ? neighboursOf(cut).flatMap((id) => byId.get(id) ?? []) : [];
  const checks: Check[] = [];
  for (const solid of members) {
    const [first, second] = [meets(solid.member.start), meets(solid.member.end)];
    const found = memory.missed(solid, [...first, ...second], () => [
      ...first.flatMap((other) => missedAt(solid, "start", other)),
      ...second.flatMap((other) => missedAt(solid, "end", other)),
    ]);
    checks.push(...found);
  }
  return checks;
}

function missedAt(solid: MemberSolid, side: "start" | "end", other: MemberSolid): readonly Check[] {
  const meets = toWorld(solid.frame, [0, 0, endHeight(side, solid[side], solid.entry.shape)([0, 0])]);
  const along = toLocal(other.frame, meets)[2];
  const depth = Math.max(...sectionProperties(solid.entry.shape).extent);
  if (along > other.start.z - depth && along < other.end.z + depth) return [];
  const words = `${solid.member.name}: its ${side} is cut against ${other.member.name}, but does not reach it. Extend ${other.member.name} or change the end cut.`;
  return [plainCheck("meetsNothing", "warning", words, [solid.member.id, other.member.id])];
}
