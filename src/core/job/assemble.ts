/** The edits that make an assembly of a selection, and that take one apart again where it stands. */
import { err, ok, type Problem, type Result } from "../kernel";
import type { Home } from "./assembly";
import { newAssembly, newPlacement, newPoint } from "./build";
import { copyOfPieces, type NewId } from "./copies";
import type { Edit, SimpleEdit } from "./edit";
import { type MakeAssemblyEdit, sharedPoints } from "./edit-assembly";
import { contentsOf, findAssembly, homeOf } from "./homes";
import type { Job } from "./job";
import { type PlaceText, termOf, textOf } from "./place-text";
import { missing, refused } from "./records";

export type Repeat = { readonly count: string; readonly step: PlaceText };

/**
 * The edit that makes an assembly of members, panels, bought parts and placements that live in one home. Its
 * origin lies at `at`; with `repeat` it stands there as often as the count says.
 */
export function assemblyOf(
  job: Job,
  ids: readonly string[],
  { name, at, repeat }: { readonly name: string; readonly at: PlaceText; readonly repeat?: Repeat },
  newId: NewId,
): Result<MakeAssemblyEdit, Problem> {
  const [first] = ids;
  if (first === undefined) return err({ kind: "emptyText", what: "The selection of pieces" });
  if (name.trim() === "") return err({ kind: "emptyText", what: "The name of the assembly" });
  const into: Home = homeOf(job, first) ?? null;
  const assembly = newAssembly(newId("assembly"), { name: name.trim().slice(0, 80) });
  const [x, y, z] = at;
  const placement = newPlacement(newId("placement"), {
    assembly: assembly.id,
    into,
    at: [x, y, z],
    ...(repeat ? { count: repeat.count, step: [repeat.step[0], repeat.step[1], repeat.step[2]] } : {}),
  });
  const copies = sharedPoints(job, new Set(ids)).map((point) => ({
    of: point.id,
    point: newPoint(newId("point"), newId("pointName"), point.at, into),
  }));
  return ok({ kind: "makeAssembly", assembly, placement, ids: [...ids], copies });
}

const isNought = (text: string) => textOf(termOf(text, "mm")) === "0";

/**
 * The edit that puts what is in a placed assembly into its surroundings as ordinary geometry, marks included. The
 * assembly goes when this was its only placement. Only for a placement that is neither turned, mirrored nor
 * repeated: elsewhere formulas would lose what they say.
 */
export function takenApart(job: Job, id: string, newId: NewId): Result<Edit, Problem> {
  const placement = job.placements[id];
  const assembly = findAssembly(job, placement?.assembly ?? null);
  if (!placement || !assembly) return missing("placement", id);
  if (placement.mirror !== null || !placement.turn.every(isNought))
    return refused(
      "Assembly",
      assembly.name,
      "is rotated or mirrored; remove rotation and mirror, then dissolve it",
    );
  if (placement.count.trim() !== "1")
    return refused("Assembly", assembly.name, "is repeated there; set its count to 1 first");
  // What was no part of the lists must not get into them by this.
  if (placement.leftOut || placement.without.includes(1))
    return refused("Assembly", assembly.name, "is left out of the lists there; include it first");
  const own = contentsOf(job, assembly.id);
  const isOwn = new Set(own);
  const rule = { kind: "move", by: placement.at, times: 1 } as const;
  const insert = copyOfPieces(job, own, rule, newId, placement.into);
  if (!insert.ok) return insert;
  const others = Object.values(job.placements).some((one) => one.assembly === assembly.id && one.id !== id);
  // Copies stand in the order of the records that they are copies of.
  const copyOf = new Map(
    (["members", "panels", "boughtParts", "placements"] as const).flatMap((table) =>
      Object.values(job[table])
        .filter((record) => isOwn.has(record.id))
        .flatMap(({ id: original }, i): [string, string][] => {
          const copy = insert.value[table][i];
          return copy ? [[original, copy.id]] : [];
        }),
    ),
  );
  const marks = [...copyOf].flatMap(([original, copy]) => {
    const kept = job.marks[original];
    return kept ? [{ ...kept, id: copy }] : [];
  });
  const edits: SimpleEdit[] = [
    { ...insert.value, what: `Take ${assembly.name} apart` },
    { kind: "remove", ids: [others ? id : assembly.id] },
    ...typedFor(job, copyOf, { stay: others, newId }),
  ];
  if (marks.length > 0) edits.push({ kind: "keepMarks", marks, drop: [] });
  return ok({ kind: "together", edits });
}

/** What was typed into lists for pieces, and the rows that they were put in by hand, for those that stand in their place. */
function typedFor(
  job: Job,
  copyOf: ReadonlyMap<string, string>,
  { stay, newId }: { readonly stay: boolean; readonly newId: NewId },
): readonly SimpleEdit[] {
  const copies = (ids: readonly string[]) => ids.flatMap((id) => copyOf.get(id) ?? []);
  const cells = Object.values(job.listCells).flatMap((cell): SimpleEdit[] => {
    const records = copies(cell.records);
    if (records.length === 0) return [];
    return [{ kind: "setCell", cell: { ...cell, id: newId("cell") as typeof cell.id, records } }];
  });
  const rows = Object.values(job.handRows).flatMap((row): SimpleEdit[] => {
    const pieces = copies(row.pieces);
    const all = [...row.pieces.filter((id) => stay || !copyOf.has(id)), ...pieces];
    return pieces.length === 0 ? [] : [{ kind: "setHandRow", row: { ...row, pieces: all } }];
  });
  return [...cells, ...rows];
}
