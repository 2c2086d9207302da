/** Where records live: in the job itself or in an assembly; lines and members live where their points do. */
import { grouped, remembersEach } from "../kernel";
import type { Assembly, AssemblyId, Home } from "./assembly";
import type { MemberId } from "./end-cuts";
import type { Line, Point } from "./frame";
import type { Job } from "./job";
import { standsFor } from "./lineage";
import type { Member } from "./member";

export function homeOfLine(job: Pick<Job, "points">, line: Line | undefined): Home {
  return (line && job.points[line.from]?.assembly) ?? null;
}

export function homeOfMember(job: Pick<Job, "points" | "lines">, member: Pick<Member, "line">): Home {
  return homeOfLine(job, job.lines[member.line]);
}

/** Which members there are and on which lines: what most edits of members leave as it is. */
export const membersOnLines = standsFor<Member>((member) => member.line);
const pointsInHomes = standsFor<Point>((point) => point.assembly);

type End = { readonly point: string; readonly member: MemberId };
const endsByPoint = remembersEach<object, ReadonlyMap<string, readonly End[]>>();
const membersByHome = remembersEach<object, ReadonlyMap<Home, readonly MemberId[]>>();

/** The members whose line starts or ends at a point, in their order. */
export function membersAtPoint(
  { lines, members }: Pick<Job, "lines" | "members">,
  point: string,
): readonly Member[] {
  const ends = endsByPoint(membersOnLines(members), [lines], () => {
    const all = Object.values(members).flatMap((member): readonly End[] => {
      const line = lines[member.line];
      const points = line ? new Set<string>([line.from, line.to]) : [];
      return [...points].map((end) => ({ point: end, member: member.id }));
    });
    return grouped(all, (end) => end.point);
  });
  return (ends.get(point) ?? []).flatMap(({ member }) => members[member] ?? []);
}

const NONE: readonly never[] = [];

/** The members that live in a home, in their order: the same list as long as none comes, goes or moves to another home. */
export function membersOfHome(
  job: Pick<Job, "points" | "lines" | "members">,
  home: Home,
): readonly MemberId[] {
  const { points, lines, members } = job;
  const byHome = membersByHome(membersOnLines(members), [lines, pointsInHomes(points)], () => {
    const all = grouped(Object.values(members), (member) => homeOfMember(job, member));
    return new Map([...all].map(([own, there]) => [own, there.map(({ id }) => id)]));
  });
  return byHome.get(home) ?? NONE;
}

/** The home of any record of the design; undefined when there is no such record. */
export function homeOf(job: Job, id: string): Home | undefined {
  const member = job.members[id];
  if (member) return homeOfMember(job, member);
  const line = job.lines[id];
  if (line) return homeOfLine(job, line);
  const own = job.panels[id] ?? job.boughtParts[id] ?? job.points[id];
  return own ? own.assembly : job.placements[id]?.into;
}

export const findAssembly = (job: Pick<Job, "assemblies">, id: string | null): Assembly | undefined =>
  id === null ? undefined : job.assemblies[id];

/** What a home is called in sentences. */
export const homeName = (job: Job, home: Home): string => findAssembly(job, home)?.name ?? "the job itself";

/** Whether `inner` is `outer` or stands somewhere in it: `outer` put into `inner` would hold itself. */
export function holds(job: Job, outer: AssemblyId, inner: Home, seen = new Set<string>()): boolean {
  if (inner === null) return false;
  if (inner === outer) return true;
  if (seen.has(outer)) return false;
  seen.add(outer);
  return Object.values(job.placements).some(
    (placement) => placement.into === outer && holds(job, placement.assembly, inner, seen),
  );
}

/** Ids of all that lives in a home, points and lines included. */
export function contentsOf(job: Job, home: Home): readonly string[] {
  const own = <T extends { readonly id: string }>(
    records: Readonly<Record<string, T>>,
    at: (record: T) => Home,
  ) =>
    Object.values(records)
      .filter((record) => at(record) === home)
      .map((record) => record.id as string);
  return [
    ...own(job.points, (point) => point.assembly),
    ...own(job.lines, (line) => homeOfLine(job, line)),
    ...own(job.members, (member) => homeOfMember(job, member)),
    ...own(job.panels, (panel) => panel.assembly),
    ...own(job.boughtParts, (part) => part.assembly),
    ...own(job.placements, (placement) => placement.into),
  ];
}

/**
 * Everything that has to be out of sight for some records to be seen alone: what leads to them stays, and so does
 * all that is in the assemblies among them.
 */
export function othersThan(job: Job, ids: readonly string[]): readonly string[] {
  const chosen = new Set(ids);
  const placements = Object.values(job.placements);
  const around = new Set<Home>();
  const lead = (home: Home): void => {
    if (home === null || around.has(home)) return;
    around.add(home);
    for (const placement of placements) if (placement.assembly === home) lead(placement.into);
  };
  const within = new Set<Home>();
  const hold = (home: AssemblyId): void => {
    if (within.has(home)) return;
    within.add(home);
    for (const placement of placements) if (placement.into === home) hold(placement.assembly);
  };
  for (const id of ids) {
    lead(homeOf(job, id) ?? null);
    const placement = job.placements[id];
    if (placement) hold(placement.assembly);
  }
  const stays = (id: string) => {
    const placement = job.placements[id];
    return (
      chosen.has(id) || within.has(homeOf(job, id) ?? null) || (placement && around.has(placement.assembly))
    );
  };
  return [job.members, job.panels, job.boughtParts, job.placements]
    .flatMap((table) => Object.keys(table))
    .filter((id) => !stays(id));
}
