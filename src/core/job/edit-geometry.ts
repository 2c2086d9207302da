/**
 * Edits of the frame geometry: records inserted together, removed with all that hangs on them, points
 * joined and moved, lines split. Each keeps the document whole: no line without its points, no end cut
 * against a member that is gone.
 */
import * as v from "valibot";
import { ok, type Problem, type Result } from "../kernel";
import { AssemblySchema, PlacementSchema } from "./assembly";
import { BoughtPartSchema } from "./bought-part";
import { placementFault } from "./edit-assembly";
import { forgetPieces } from "./edit-lists";
import { type EndCut, neighboursOf, replacedNeighbour, SQUARE_END, withoutNeighbours } from "./end-cuts";
import { type Line, LineSchema, type Point, PointSchema } from "./frame";
import { contentsOf, findAssembly, homeName, homeOfLine, homeOfMember } from "./homes";
import type { Job } from "./job";
import { type Member, MemberSchema } from "./member";
import { type Panel, PanelSchema } from "./panel";
import { idTaken, missing, put, refused, takenId, without } from "./records";
import { placeTexts, recordId, shortName } from "./text";

const MOST = 5_000;
const many = <S extends v.GenericSchema>(schema: S) => v.pipe(v.array(schema), v.maxLength(MOST));

export const GEOMETRY_EDITS = [
  v.object({
    kind: v.literal("insert"),
    /** What it is called in undo: "Draw a member", "Insert a box frame". */
    what: shortName,
    points: many(PointSchema),
    lines: many(LineSchema),
    members: many(MemberSchema),
    panels: many(PanelSchema),
    boughtParts: many(BoughtPartSchema),
    assemblies: many(AssemblySchema),
    placements: many(PlacementSchema),
  }),
  v.object({ kind: v.literal("remove"), ids: v.pipe(v.array(recordId), v.minLength(1), v.maxLength(MOST)) }),
  v.object({
    kind: v.literal("movePoints"),
    points: v.pipe(v.array(v.object({ id: recordId, at: placeTexts })), v.minLength(1), v.maxLength(MOST)),
  }),
  v.object({
    kind: v.literal("changeLines"),
    /** Members on other lines of their homes. */
    members: v.pipe(
      v.array(v.object({ id: recordId, line: v.pipe(recordId, v.brand("LineId")) })),
      v.minLength(1),
      v.maxLength(MOST),
    ),
  }),
  v.object({ kind: v.literal("joinPoints"), from: recordId, into: recordId }),
  v.object({
    kind: v.literal("splitLine"),
    line: recordId,
    point: PointSchema,
    newLine: v.pipe(recordId, v.brand("LineId")),
    newMember: v.pipe(recordId, v.brand("MemberId")),
  }),
] as const;

type GeometryEdit = v.InferOutput<(typeof GEOMETRY_EDITS)[number]>;
export type InsertEdit = Extract<GeometryEdit, { kind: "insert" }>;
type SplitEdit = Extract<GeometryEdit, { kind: "splitLine" }>;

const INSERTED = ["points", "lines", "members", "panels", "boughtParts", "assemblies", "placements"] as const;
type Inserted = (typeof INSERTED)[number];

/** An insertion with the tables that are named; the others stay as they are. */
export function newInsert(what: string, parts: { readonly [T in Inserted]?: InsertEdit[T] }): InsertEdit {
  const nothing = { points: [], lines: [], members: [], panels: [], boughtParts: [] };
  return { kind: "insert", what, ...nothing, assemblies: [], placements: [], ...parts };
}

/** Several insertions as one, called as the first. */
export const insertedTogether = (inserts: readonly InsertEdit[]): InsertEdit => ({
  kind: "insert",
  what: inserts[0]?.what ?? "",
  points: inserts.flatMap(({ points }) => points),
  lines: inserts.flatMap(({ lines }) => lines),
  members: inserts.flatMap(({ members }) => members),
  panels: inserts.flatMap(({ panels }) => panels),
  boughtParts: inserts.flatMap(({ boughtParts }) => boughtParts),
  assemblies: inserts.flatMap(({ assemblies }) => assemblies),
  placements: inserts.flatMap(({ placements }) => placements),
});

/** Adds records that stand on one another or on what is there. */
export function insertRecords(job: Job, edit: InsertEdit): Result<Job, Problem> {
  let after = job;
  for (const table of INSERTED) {
    const taken = takenId(job[table], edit[table]);
    if (taken !== null) return idTaken(taken);
    after = put(after, table, edit[table]);
  }
  for (const { assembly } of [...edit.points, ...edit.panels, ...edit.boughtParts])
    if (assembly !== null && !after.assemblies[assembly]) return missing("assembly", assembly);
  for (const line of edit.lines) {
    const fault = lineFault(after, line);
    if (fault) return fault;
  }
  for (const member of edit.members) {
    if (!after.lines[member.line]) return missing("line", member.line);
    const fault = neighbourFault(after, member);
    if (fault) return fault;
  }
  for (const panel of edit.panels) {
    const fault = betweenFault(after, panel);
    if (fault) return fault;
  }
  // Each against those before it: two new placements can hold one another.
  for (const placement of edit.placements) {
    const { [placement.id]: own, ...others } = after.placements;
    const fault = own && placementFault({ ...after, placements: others }, own);
    if (fault) return fault;
  }
  return ok(after);
}

/** Ends are cut against members of the same assembly only: elsewhere it may stand in many places. */
export function neighbourFault(job: Job, member: Member) {
  for (const id of neighboursOfMember(member)) {
    const other = job.members[id];
    if (!other) return missing("member", id);
    if (homeOfMember(job, other) !== homeOfMember(job, member))
      return refused(
        "The end of",
        member.name,
        `cannot be cut to ${other.name}, which stands in ${homeName(job, homeOfMember(job, other))}`,
      );
  }
  return null;
}

/** A panel follows two other panels of its own assembly. */
export function betweenFault(job: Job, panel: Panel) {
  if (!panel.between) return null;
  const { first, second } = panel.between;
  if (first === second || first === panel.id || second === panel.id)
    return refused("Panel", panel.name, "must stand between two other panels");
  for (const id of [first, second]) {
    const other = job.panels[id];
    if (!other) return missing("panel", id);
    if (other.assembly !== panel.assembly)
      return refused("Panel", panel.name, `cannot follow ${other.name}, which stands in another assembly`);
  }
  return null;
}

function lineFault(job: Job, line: Line) {
  for (const id of [line.from, line.to]) if (!job.points[id]) return missing("point", id);
  if (line.from === line.to) {
    return refused(
      "A line from point",
      job.points[line.from]?.name ?? "",
      "to itself has no length; choose another end",
    );
  }
  if (job.points[line.from]?.assembly !== job.points[line.to]?.assembly)
    return refused(
      "A line from point",
      job.points[line.from]?.name ?? "",
      "would lead into another assembly; draw it inside one of them",
    );
  return null;
}

const neighboursOfMember = ({ start, end }: Member) => [...neighboursOf(start), ...neighboursOf(end)];

/** Ids with all that goes along: an assembly takes what is in it, and its placements. */
function withContents(job: Job, ids: readonly string[]): readonly string[] {
  return ids.flatMap((id) => {
    const assembly = findAssembly(job, id);
    if (!assembly) return [id];
    const placed = Object.values(job.placements).filter((placement) => placement.assembly === id);
    return [id, ...contentsOf(job, assembly.id), ...placed.map((placement) => placement.id)];
  });
}

const REMOVED = ["members", "panels", "boughtParts", "lines", "points", "assemblies", "placements"] as const;

/**
 * Removes members, panels, bought parts, placements, guide lines and points, and assemblies with all that is in
 * them; lines and points that nothing uses any more go along.
 */
export function removeRecords(job: Job, asked: readonly string[]): Result<Job, Problem> {
  const ids = [...new Set(withContents(job, asked))];
  const gone = new Set(ids);
  for (const id of ids) if (!REMOVED.some((table) => job[table][id])) return missing("record", id);
  for (const panel of Object.values(job.panels)) {
    const followed = panel.between && [panel.between.first, panel.between.second].find((id) => gone.has(id));
    if (followed && !gone.has(panel.id))
      return refused("Panel", panel.name, `follows ${job.panels[followed]?.name ?? "it"}; let it go first`);
  }
  const members = without(job.members, gone);
  const used = new Set(Object.values(members).map((member) => member.line as string));
  const standsOn = Object.values(members).find((member) => gone.has(member.line));
  if (standsOn)
    return refused("The line of", standsOn.name, "carries that member; remove the member with it");
  // The lines that go: those asked for and those whose last member goes.
  const bare = Object.values(job.members)
    .filter((member) => gone.has(member.id) && !used.has(member.line))
    .map((member) => member.line as string);
  const lost = new Set([...ids.filter((id) => job.lines[id]), ...bare]);
  const lines = without(job.lines, lost);
  const touched = new Set(
    [...lost].flatMap((id) => [job.lines[id]?.from as string, job.lines[id]?.to as string]),
  );
  const held = new Set(Object.values(lines).flatMap((line) => [line.from as string, line.to as string]));
  for (const id of ids) {
    const point = job.points[id];
    if (point && held.has(id))
      return refused("Point", point.name, "is the end of a line; remove or move that first");
  }
  const loose = new Set([...ids, ...[...touched].filter((id) => !held.has(id))]);
  return ok({
    ...forgetPieces(job, ids),
    members: withoutCutsAgainst(members, gone),
    lines,
    points: without(job.points, loose),
    panels: without(job.panels, gone),
    boughtParts: without(job.boughtParts, gone),
    assemblies: without(job.assemblies, gone),
    placements: without(job.placements, gone),
    marks: without(job.marks, gone),
  });
}

/** An end that was cut against a member that is gone is cut by what is left of it, else square. */
function withoutCutsAgainst(members: Job["members"], gone: ReadonlySet<string>): Job["members"] {
  const hangs = (member: Member) => neighboursOfMember(member).some((id) => gone.has(id));
  if (!Object.values(members).some(hangs)) return members;
  return Object.fromEntries(
    Object.entries(members).map(([id, member]) => [
      id,
      hangs(member)
        ? {
            ...member,
            start: withoutNeighbours(member.start, gone),
            end: withoutNeighbours(member.end, gone),
          }
        : member,
    ]),
  );
}

/** Gives points other coordinates; whatever stands on them follows. */
export function movePoints(
  job: Job,
  moves: readonly { readonly id: string; readonly at: Point["at"] }[],
): Result<Job, Problem> {
  const moved: Point[] = [];
  for (const { id, at: place } of moves) {
    const point = job.points[id];
    if (!point) return missing("point", id);
    moved.push({ ...point, at: place });
  }
  return ok(put(job, "points", moved));
}

/** Puts members on other lines; lines and points that nothing uses any more go. */
export function changeLines(
  job: Job,
  changes: readonly { readonly id: string; readonly line: Line["id"] }[],
): Result<Job, Problem> {
  const moved: Member[] = [];
  const left = new Set<string>();
  for (const { id, line } of changes) {
    const member = job.members[id];
    if (!member) return missing("member", id);
    const [before, after] = [job.lines[member.line], job.lines[line]];
    if (!after) return missing("line", line);
    if (before && homeOfLine(job, before) !== homeOfLine(job, after))
      return refused("Member", member.name, "cannot stand on a line of another assembly");
    if (before) left.add(before.id);
    moved.push({ ...member, line });
  }
  const after = put(job, "members", moved);
  const used = new Set(Object.values(after.members).map((member) => member.line as string));
  const bare = [...left].filter((id) => !used.has(id));
  return bare.length === 0 ? ok(after) : removeRecords(after, bare);
}

/** Makes one point of two: the lines of the first end at the second. */
export function joinPoints(job: Job, from: string, into: string): Result<Job, Problem> {
  const [first, second] = [job.points[from], job.points[into]];
  if (!first) return missing("point", from);
  if (!second) return missing("point", into);
  if (from === into) return refused("Point", first.name, "cannot be joined to itself");
  if (first.assembly !== second.assembly)
    return refused("Point", first.name, "stands in another assembly and cannot be joined to it");
  const lines = Object.values(job.lines)
    .filter((line) => line.from === from || line.to === from)
    .map(
      (line): Line => ({
        ...line,
        from: line.from === from ? second.id : line.from,
        to: line.to === from ? second.id : line.to,
      }),
    );
  if (lines.some((line) => line.from === line.to))
    return refused(
      "The line between",
      `${first.name} and ${second.name}`,
      "would have no length; remove it first",
    );
  return ok({ ...put(job, "lines", lines), points: without(job.points, new Set([from])) });
}

/** Parts a line and the member on it at a new point; both halves are square there. */
export function splitLine(job: Job, edit: SplitEdit): Result<Job, Problem> {
  const line = job.lines[edit.line];
  if (!line) return missing("line", edit.line);
  if (job.points[edit.point.id] || job.lines[edit.newLine] || job.members[edit.newMember])
    return idTaken(edit.point.id);
  const second: Line = { id: edit.newLine, from: edit.point.id, to: line.to };
  const point = { ...edit.point, assembly: homeOfLine(job, line) };
  const after = put(put(job, "points", [point]), "lines", [{ ...line, to: edit.point.id }, second]);
  const [member, other] = Object.values(job.members).filter((one) => one.line === line.id);
  if (!member) return ok(after);
  if (other)
    return refused("The line of", member.name, `also carries ${other.name}; give it a line of its own first`);
  const halves: readonly Member[] = [
    { ...member, end: SQUARE_END },
    { ...member, id: edit.newMember, line: second.id, start: SQUARE_END },
  ];
  return ok(
    put(put(after, "members", halves), "members", turnedToSecondHalf(job, member, line.to, edit.newMember)),
  );
}

/** Ends that meet the far end of a split member are now cut against its second half. */
function turnedToSecondHalf(
  job: Job,
  member: Member,
  joint: string,
  half: SplitEdit["newMember"],
): readonly Member[] {
  const turned = (cut: EndCut, place: string | undefined): EndCut => {
    if (place !== joint || !neighboursOf(cut).includes(member.id)) return cut;
    return replacedNeighbour(cut, member.id, half);
  };
  return Object.values(job.members).flatMap((other) => {
    if (other.id === member.id) return [];
    const own = job.lines[other.line];
    const [start, end] = [turned(other.start, own?.from), turned(other.end, own?.to)];
    return start === other.start && end === other.end ? [] : [{ ...other, start, end }];
  });
}
