/**
 * Edits of assemblies: made from a selection, changed, placed. No edit leaves an assembly inside itself, a
 * line between two homes or an end cut against a member that lives elsewhere.
 */
import * as v from "valibot";
import { ok, type Problem, type Result } from "../kernel";
import { AssemblySchema, type Home, type Placement, PlacementSchema } from "./assembly";
import { neighboursOf } from "./end-cuts";
import { type Line, type Point, PointSchema } from "./frame";
import { findAssembly, holds, homeName, homeOf } from "./homes";
import type { Job } from "./job";
import { minus, type PlaceText, termOf, textOf } from "./place-text";
import { change, idTaken, missing, put, refused } from "./records";
import { recordId } from "./text";

const ids = v.pipe(v.array(recordId), v.minLength(1), v.maxLength(5_000));

export const ASSEMBLY_EDITS = [
  v.object({
    kind: v.literal("makeAssembly"),
    assembly: AssemblySchema,
    /** Its `at` becomes the origin of the assembly; it stands there unturned. */
    placement: PlacementSchema,
    /** Members, panels, bought parts and placements that go into it. */
    ids,
    /** Copies of points that lines outside the assembly keep using. */
    copies: v.pipe(v.array(v.object({ of: recordId, point: PointSchema })), v.maxLength(5_000)),
  }),
  v.object({
    kind: v.literal("changeAssemblies"),
    ids,
    set: v.partial(v.omit(AssemblySchema, ["id"])),
  }),
  v.object({
    kind: v.literal("changePlacements"),
    ids,
    set: v.partial(v.omit(PlacementSchema, ["id", "assembly", "into"])),
  }),
] as const;

type AssemblyEdit = v.InferOutput<(typeof ASSEMBLY_EDITS)[number]>;
export type MakeAssemblyEdit = Extract<AssemblyEdit, { kind: "makeAssembly" }>;

export function applyAssemblyEdit(job: Job, edit: AssemblyEdit): Result<Job, Problem> {
  switch (edit.kind) {
    case "makeAssembly":
      return makeAssembly(job, edit);
    case "changeAssemblies":
      return change(job, "assemblies", "assembly", edit.ids, edit.set);
    case "changePlacements":
      return change(job, "placements", "placement", edit.ids, edit.set);
    default:
      return edit satisfies never;
  }
}

/** Why a placement cannot stand where it says; null when it can. */
export function placementFault(job: Job, placement: Placement): { ok: false; problem: Problem } | null {
  const assembly = findAssembly(job, placement.assembly);
  if (!assembly) return missing("assembly", placement.assembly);
  if (placement.into !== null && !job.assemblies[placement.into]) return missing("assembly", placement.into);
  if (holds(job, placement.assembly, placement.into))
    return refused("Assembly", assembly.name, "cannot stand inside itself; place it somewhere else");
  return null;
}

/** Lines of the members, and the points at their ends. */
function standingOf(job: Job, chosen: ReadonlySet<string>) {
  const lines = new Map<string, Line>();
  for (const member of Object.values(job.members)) {
    const line = job.lines[member.line];
    if (chosen.has(member.id) && line) lines.set(line.id, line);
  }
  const points = new Set([...lines.values()].flatMap((line) => [line.from as string, line.to as string]));
  return { lines, points };
}

/** Points at the ends of chosen members on which other lines stand as well. */
export function sharedPoints(job: Job, chosen: ReadonlySet<string>): readonly Point[] {
  const { lines, points } = standingOf(job, chosen);
  const outside = Object.values(job.lines).filter((line) => !lines.has(line.id));
  const held = new Set(outside.flatMap((line) => [line.from as string, line.to as string]));
  return [...points].flatMap((id) => {
    const point = job.points[id];
    return point && held.has(id) ? [point] : [];
  });
}

function makeAssembly(job: Job, edit: MakeAssemblyEdit): Result<Job, Problem> {
  const { assembly, placement } = edit;
  if (job.assemblies[assembly.id] || job.placements[placement.id]) return idTaken(assembly.id);
  const chosen = new Set(edit.ids);
  const fault = selectionFault(job, chosen, placement.into);
  if (fault) return fault;
  if (placement.assembly !== assembly.id) return missing("assembly", placement.assembly);
  const { lines, points } = standingOf(job, chosen);
  const copyOf = new Map(edit.copies.map(({ of, point }) => [of, point]));
  const still = sharedPoints(job, chosen).find((point) => !copyOf.has(point.id));
  if (still) return refused("Point", still.name, "carries other lines too and needs a copy for the assembly");
  const shift = (at: PlaceText) => relative(job, at, placement.at);
  const moved = <T extends { readonly id: string }>(records: Readonly<Record<string, T>>) =>
    Object.values(records).filter((record) => chosen.has(record.id));
  const own = { assembly: assembly.id };
  let after = put(job, "assemblies", [assembly]);
  after = put(
    after,
    "points",
    [...points].flatMap((id): Point[] => {
      const point = copyOf.get(id) ?? job.points[id];
      return point ? [{ ...point, ...own, at: shift(job.points[id]?.at ?? point.at) }] : [];
    }),
  );
  const end = (id: Line["from"]) => copyOf.get(id)?.id ?? id;
  after = put(
    after,
    "lines",
    [...lines.values()].map((line): Line => ({ ...line, from: end(line.from), to: end(line.to) })),
  );
  after = put(
    after,
    "panels",
    moved(job.panels).map((panel) => ({ ...panel, ...own, origin: shift(panel.origin) })),
  );
  after = put(
    after,
    "boughtParts",
    moved(job.boughtParts).map((part) => ({
      ...part,
      ...own,
      stand: part.stand && { ...part.stand, at: shift(part.stand.at) },
    })),
  );
  after = put(after, "placements", [
    ...moved(job.placements).map((one) => ({ ...one, into: assembly.id, at: shift(one.at) })),
    placement,
  ]);
  return ok(after);
}

/** Everything chosen lives in one home, and nothing that is cut to or follows another is torn from it. */
function selectionFault(job: Job, chosen: ReadonlySet<string>, into: Home) {
  for (const id of chosen) {
    const home = homeOf(job, id);
    if (home === undefined) return missing("record", id);
    if (home !== into)
      return refused(
        "The selection",
        homeName(job, home),
        `is in different assemblies; select pieces of one assembly`,
      );
  }
  for (const member of Object.values(job.members)) {
    for (const id of [...neighboursOf(member.start), ...neighboursOf(member.end)]) {
      const other = job.members[id];
      if (!other || chosen.has(member.id) === chosen.has(other.id)) continue;
      const [inside, outside] = chosen.has(member.id) ? [member, other] : [other, member];
      return refused(
        "Member",
        inside.name,
        `is cut to ${outside.name}, which is not selected; select both, or change the end cut`,
      );
    }
  }
  for (const panel of Object.values(job.panels)) {
    for (const id of panel.between ? [panel.between.first, panel.between.second] : []) {
      const other = job.panels[id];
      if (other && chosen.has(panel.id) !== chosen.has(id))
        return refused("Panel", panel.name, `follows ${other.name}; take both into the assembly`);
    }
  }
  return null;
}

/** A place seen from another one. */
function relative(job: Job, at: PlaceText, from: PlaceText): [string, string, string] {
  const { unit } = job.info.job;
  const part = (i: 0 | 1 | 2) => textOf(minus(termOf(at[i], unit), termOf(from[i], unit)));
  return [part(0), part(1), part(2)];
}
