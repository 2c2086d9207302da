/**
 * What a changed file says, accepted into records that an earlier state of it made: of each record only what the file changed,
 * so that marks, settings and work by hand stay. Points are moved where all that stands on them goes along; else pieces get
 * points and lines of their own.
 */
import { distance, type Vec3 } from "../geometry";
import {
  type Asset,
  type BoughtPart,
  type Edit,
  type EndCut,
  type Import,
  type Job,
  type Line,
  type Member,
  neighboursOf,
  newInsert,
  type Panel,
  type Placement,
  type Point,
  replacedNeighbour,
  resolveSizes,
  type SimpleEdit,
  textOf,
  withoutNeighbours,
} from "../job";
import { at, counted, grouped } from "../kernel";
import { type LengthUnit, MM_PER_UNIT, roundTo } from "../measure";
import { shapeJob } from "../shape";
import type { Again, Difference } from "./again";
import type { Imported } from "./enter";
import type { NewId } from "./member-record";
import { isNumberText, keptImport, type Print, type Prints, workTexts } from "./prints";

/** mm. Points nearer than this are one. */
const ONE_POINT = 0.002;

/**
 * Some of the differences as one step of the job, with the assets that have to be there before. What is not taken stays a difference,
 * and is told again when the file is read next. `told`: what somebody should know before it is done. `entered`: all that the new state of the file would enter as; `kept`: the
 * earlier import.
 */
export function acceptedChanges(
  again: Again,
  taken: ReadonlySet<Difference>,
  entered: Imported,
  job: Job,
  kept: Import,
  newId: NewId,
): { readonly edit: Edit; readonly assets: readonly Asset[]; readonly told: readonly string[] } {
  const { edits, prints, unbound } = accepted(again, taken, entered, job, newId);
  const { asset, edit } = keptImport(kept.id, kept.name, prints);
  return {
    edit: { kind: "together", what: `Read ${kept.name} again`.slice(0, 60), edits: [...edits, edit] },
    assets: [...entered.assets, asset],
    told:
      unbound.length > 0
        ? [
            `${counted(unbound.length, "point")} with formulas would stand at plain numbers from then on: ${unbound.join(", ")}.`,
          ]
        : [],
  };
}

type Accepted = {
  /** What changes in the job, in this order; none: nothing does. */
  readonly edits: readonly SimpleEdit[];
  /** What the file is known to have said from now on, by the ids of the job's records. */
  readonly prints: Prints;
  /** Names of points that move though somebody gave them formulas. */
  readonly unbound: readonly string[];
};

function accepted(
  again: Again,
  taken: ReadonlySet<Difference>,
  { prints: now, edit: insert, stockroom }: Imported,
  job: Job,
  newId: NewId,
): Accepted {
  const places = shapeJob(job, resolveSizes(job, null), stockroom).points;
  const chosen = again.differences.filter((one) => taken.has(one));
  const came = new Set(
    chosen.flatMap(({ kind, now: print }) => (kind === "came" && print ? [print.id] : [])),
  );
  const unit = MM_PER_UNIT[job.info.job.unit];
  // Assemblies that are new come with the first of what stands in them, or of what places them.
  const cameAssemblies = new Set<string>();
  for (const { now: print } of chosen)
    for (const id of [print?.home, print?.form["assembly"]])
      if (id && !again.sameAs.has(id)) cameAssemblies.add(id);
  const recordOf = (id: string): string | null => {
    const known = again.sameAs.get(id);
    if (known !== undefined) return exists(job, known) ? known : null;
    return came.has(id) || cameAssemblies.has(id) ? id : null;
  };
  const homeOf = <H extends string | null>(home: H): H =>
    (home === null ? null : (recordOf(home) ?? home)) as H;
  const cutOf = (cut: EndCut): EndCut => {
    let own = cut;
    for (const id of neighboursOf(cut)) {
      const record = recordOf(id);
      own =
        record === null
          ? withoutNeighbours(own, new Set([id]))
          : record === id
            ? own
            : replacedNeighbour(own, id, record as typeof id);
    }
    return own;
  };

  const fresh = byId(insert.members);
  const freshPoints = byId(insert.points);
  const freshLines = byId(insert.lines);
  const [panels, boughtParts, placements] = [
    byId(insert.panels),
    byId(insert.boughtParts),
    byId(insert.placements),
  ];
  const homes = new Map(now.prints.map(({ id, home }) => [id, home]));
  /** Where the ends of a member of the new state stand, in mm. */
  const endsOf = (member: Member): readonly [Vec3, Vec3] => {
    const line = freshLines.get(member.line);
    return [placeOf(freshPoints.get(line?.from ?? ""), unit), placeOf(freshPoints.get(line?.to ?? ""), unit)];
  };

  const went = chosen.flatMap(({ kind, before }) =>
    kind === "went" && before && exists(job, before.id) ? [before.id] : [],
  );
  const altered = chosen.flatMap(({ kind, before, now: print }) =>
    (kind === "moved" || kind === "changed") && before && print && exists(job, before.id)
      ? [{ before, print }]
      : [],
  );
  const gone = new Set(went);

  // Where the points of members that go elsewhere are to stand.
  const going = new Map<string, readonly [Vec3, Vec3]>();
  for (const { before, print } of altered) {
    const member = fresh.get(print.id);
    if (before.kind === "member" && member && movesBy(before, print)) going.set(before.id, endsOf(member));
  }
  const placeNow = (id: string): Vec3 => places.get(id) ?? placeOf(job.points[id], unit);
  const standing = (line: Line) =>
    [line.from, line.to].map((id) => ({ id: id as string, place: placeNow(id) }));
  const carriers = new Set(Object.values(job.members).map(({ line }) => line as string));
  const wanted = grouped(
    [
      ...Object.values(job.members).flatMap((member) => {
        const line = job.lines[member.line];
        if (!line || gone.has(member.id)) return [];
        const ends = going.get(member.id);
        return ends ? ends.map((place, k) => ({ id: k === 0 ? line.from : line.to, place })) : standing(line);
      }),
      // A guide line stays where it is, and its points with it.
      ...Object.values(job.lines).flatMap((line) => (carriers.has(line.id) ? [] : standing(line))),
    ],
    ({ id }) => id as string,
  );
  const moves = new Map<string, Vec3>();
  for (const [id, all] of wanted) {
    const first = at(all, 0).place;
    if (
      distance(first, placeNow(id)) > ONE_POINT &&
      all.every(({ place }) => distance(place, first) <= ONE_POINT)
    )
      moves.set(id, first);
  }
  const stands = (id: string): Vec3 => moves.get(id) ?? placeNow(id);

  // Points and lines that are new: of what came, and of what cannot take its points along.
  const points: Point[] = [];
  const lines: Line[] = [];
  const standingIn = grouped(
    Object.values(job.points).map(({ id, assembly }) => ({ id, assembly, place: stands(id) })),
    ({ assembly }) => assembly,
  );
  const known = new Map([...standingIn].map(([home, all]) => [home, [...all]]));
  let named = Object.keys(job.points).length;
  const pointAt = (place: Vec3, home: Point["assembly"], like: Point | undefined): Point["id"] => {
    const there = known.get(home) ?? [];
    const found = there.find((one) => distance(one.place, place) <= ONE_POINT);
    if (found) return found.id;
    const point = {
      id: newId("point") as Point["id"],
      name: `i${++named}`,
      assembly: home,
      at: like?.at ?? ["0", "0", "0"],
    } as Point;
    points.push(point);
    known.set(home, there);
    there.push({ id: point.id, assembly: home, place });
    return point.id;
  };
  const lineFor = (member: Member, home: Point["assembly"]): Line["id"] => {
    const line = freshLines.get(member.line);
    const [from, to] = endsOf(member);
    const own: Line = {
      id: newId("line") as Line["id"],
      from: pointAt(from, home, freshPoints.get(line?.from ?? "")),
      to: pointAt(to, home, freshPoints.get(line?.to ?? "")),
    };
    lines.push(own);
    return own.id;
  };

  const newMembers = insert.members
    .filter(({ id }) => came.has(id))
    .map((member): Member => {
      const home = homeOf(homes.get(member.id) ?? null) as Point["assembly"];
      return { ...member, line: lineFor(member, home), start: cutOf(member.start), end: cutOf(member.end) };
    });
  const elsewhere: { id: string; line: Line["id"] }[] = [];
  const changes: SimpleEdit[] = [];
  for (const { before, print } of altered) {
    const { id } = before;
    if (before.kind === "member") {
      const [own, member] = [job.members[id], fresh.get(print.id)];
      if (!own || !member) continue;
      const line = job.lines[own.line];
      const ends = going.get(id);
      if (
        ends &&
        line &&
        (distance(stands(line.from), ends[0]) > ONE_POINT || distance(stands(line.to), ends[1]) > ONE_POINT)
      )
        elsewhere.push({ id, line: lineFor(member, job.points[line.from]?.assembly ?? null) });
      const set = memberChanges(before, print, own, member, cutOf, job.info.job.unit);
      if (Object.keys(set).length > 0) changes.push({ kind: "changeMembers", ids: [id], set });
    } else if (before.kind === "panel") {
      const panel = panels.get(print.id);
      const set = panel ? panelChanges(before, print, panel) : {};
      if (Object.keys(set).length > 0) changes.push({ kind: "changePanels", ids: [id], set });
    } else if (before.kind === "bought") {
      const part = boughtParts.get(print.id);
      if (part)
        changes.push({
          kind: "changeBoughtParts",
          ids: [id],
          set: { ...(before.name === print.name ? {} : { name: part.name }), stand: part.stand },
        });
    } else {
      const placement = placements.get(print.id);
      if (placement)
        changes.push({
          kind: "changePlacements",
          ids: [id],
          set: { at: placement.at, turn: placement.turn },
        });
    }
  }
  const added = newInsert("what came in the file", {
    points,
    lines,
    members: newMembers,
    panels: insert.panels
      .filter(({ id }) => came.has(id))
      .map((panel): Panel => ({ ...panel, assembly: homeOf(panel.assembly) })),
    boughtParts: insert.boughtParts
      .filter(({ id }) => came.has(id))
      .map((part): BoughtPart => ({ ...part, assembly: homeOf(part.assembly) })),
    assemblies: insert.assemblies.filter(({ id }) => cameAssemblies.has(id)),
    placements: insert.placements
      .filter(({ id }) => came.has(id))
      .map((one): Placement => ({ ...one, into: homeOf(one.into), assembly: homeOf(one.assembly) })),
  });
  const isAnything = Object.values(added).some((table) => Array.isArray(table) && table.length > 0);
  const moved = [...moves].map(([id, place]) => ({
    id,
    at: place.map((value) => textOf(roundTo(value / unit, 7))) as unknown as Point["at"],
  }));
  return {
    edits: [
      ...(isAnything ? [added] : []),
      ...(moved.length > 0 ? [{ kind: "movePoints" as const, points: moved }] : []),
      ...(elsewhere.length > 0 ? [{ kind: "changeLines" as const, members: elsewhere }] : []),
      ...changes,
      ...(went.length > 0 ? [{ kind: "remove" as const, ids: went }] : []),
    ],
    prints: nextPrints(again, taken, now, recordOf),
    unbound: moved.flatMap(({ id }) => {
      const point = job.points[id];
      return point?.at.some((text) => !isNumberText(text)) ? [point.name] : [];
    }),
  };
}

const byId = <R extends { readonly id: string }>(records: readonly R[]): ReadonlyMap<string, R> =>
  new Map(records.map((record) => [record.id, record]));

const TABLES = ["members", "panels", "boughtParts", "placements", "assemblies"] as const;

/** Whether a job still has a record that a file became. */
export const exists = (job: Job, id: string): boolean => TABLES.some((table) => job[table][id] !== undefined);

/** Whether a member's ends stand elsewhere; its first six numbers say where they do. */
const movesBy = (a: Print, b: Print): boolean =>
  a.place.slice(0, 6).some((value, i) => Math.abs(value - (b.place[i] ?? 0)) > 1e-4);

/** Where a point of a file stands: its coordinates are plain numbers. */
const placeOf = (point: Point | undefined, unit: number): Vec3 =>
  (point?.at ?? ["0", "0", "0"]).map((text) => Number(text) * unit) as unknown as Vec3;

type MemberSet = Extract<SimpleEdit, { kind: "changeMembers" }>["set"];

function memberChanges(
  before: Print,
  print: Print,
  own: Member,
  member: Member,
  cutOf: (cut: EndCut) => EndCut,
  unit: LengthUnit,
): MemberSet {
  const isOther = (key: string) => before.form[key] !== print.form[key];
  const isTurned = before.place
    .slice(6)
    .some((value, i) => Math.abs(value - (print.place[6 + i] ?? 0)) > 1e-5);
  return {
    ...(before.name === print.name ? {} : { name: member.name }),
    ...(isOther("section") ? { section: member.section, material: member.material } : {}),
    ...(isTurned ? { roll: member.roll } : {}),
    ...(isOther("start") ? { start: cutOf(member.start) } : {}),
    ...(isOther("end") ? { end: cutOf(member.end) } : {}),
    // What was drilled by hand stays beside what the file has.
    ...(isOther("work") ? { work: [...handWork(own, before, unit), ...member.work] } : {}),
  };
}

/** Holes and notches that somebody added by hand: those that the file did not have. */
function handWork(own: Member, before: Print, unit: LengthUnit): Member["work"] {
  const known = new Set(before.form["work"] ? (JSON.parse(before.form["work"]) as readonly string[]) : []);
  return own.work.filter((one) => !workTexts([one], unit).every((text) => known.has(text)));
}

type PanelSet = Extract<SimpleEdit, { kind: "changePanels" }>["set"];

function panelChanges(before: Print, print: Print, panel: Panel): PanelSet {
  const isOther = (key: string) => before.form[key] !== print.form[key];
  const isElsewhere = before.place.some((value, i) => Math.abs(value - (print.place[i] ?? 0)) > 1e-4);
  return {
    ...(before.name === print.name ? {} : { name: panel.name }),
    ...(isOther("size") ? { length: panel.length, width: panel.width } : {}),
    ...(isOther("board") ? { board: panel.board, material: panel.material } : {}),
    ...(isOther("outline") ? { outline: panel.outline } : {}),
    ...(isOther("work") ? { work: panel.work } : {}),
    ...(isElsewhere ? { origin: panel.origin, lengthAxis: panel.lengthAxis, faceAxis: panel.faceAxis } : {}),
  };
}

/** What is known of the file afterwards: its new state where it was accepted, the old one where it was not. */
function nextPrints(
  { differences, sameAs }: Again,
  taken: ReadonlySet<Difference>,
  now: Prints,
  recordOf: (id: string) => string | null,
): Prints {
  const left = differences.filter((one) => !taken.has(one));
  const refused = new Set(left.flatMap(({ now: print }) => (print ? [print.id] : [])));
  const idOf = (id: string) => recordOf(id) ?? sameAs.get(id) ?? id;
  const own = ({ id, home, form, ...print }: Print): Print => ({
    ...print,
    id: idOf(id),
    home: home === null ? null : idOf(home),
    form: form["assembly"] === undefined ? form : { ...form, assembly: idOf(form["assembly"]) },
  });
  return {
    ...now,
    assemblies: now.assemblies.map(({ id, name }) => ({ id: idOf(id), name })),
    prints: [
      ...now.prints.filter(({ id }) => !refused.has(id)).map(own),
      ...left.flatMap(({ before }) => (before ? [before] : [])),
    ],
  };
}
