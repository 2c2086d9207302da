/** Where records live: in the job itself or in an assembly; lines and members live where their points do. */
import { grouped, remembersEach } from "../kernel";
import type { Assembly, AssemblyId, Home } from "./assembly";
import type { Line } from "./frame";
import type { Job } from "./job";
import type { Member } from "./member";

export function homeOfLine(job: Pick<Job, "points">, line: Line | undefined): Home {
  return (line && job.points[line.from]?.assembly) ?? null;
}

export function homeOfMember(job: Pick<Job, "points" | "lines">, member: Pick<Member, "line">): Home {
  return homeOfLine(job, job.lines[member.line]);
}

type End = { readonly point: string; readonly member: Member };
const endsByPoint = remembersEach<Job["members"], ReadonlyMap<string, readonly End[]>>();
const membersByHome = remembersEach<Job["members"], ReadonlyMap<Home, readonly Member[]>>();

/** The members whose line starts or ends at a point, in their order. */
export function membersAtPoint(job: Pick<Job, "lines" | "members">, point: string): readonly Member[] {
  const ends = endsByPoint(job.members, [job.lines], () => {
    const all = Object.values(job.members).flatMap((member): readonly End[] => {
      const line = job.lines[member.line];
      return line ? [...new Set<string>([line.from, line.to])].map((end) => ({ point: end, member })) : [];
    });
    return grouped(all, (end) => end.point);
  });
  return (ends.get(point) ?? []).map(({ member }) => member);
}

/** The members that live in a home, in their order. */
export const membersOfHome = (
  job: Pick<Job, "points" | "lines" | "members">,
  home: Home,
): readonly Member[] =>
  membersByHome(job.members, [job.lines, job.points], () =>
    grouped(Object.values(job.members), (member) => homeOfMember(job, member)),
  ).get(home) ?? [];

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
