/** What of a job was drawn as a guide. */
import { type Job, type Line, membersOnLines } from "../job";
import { remembersEach } from "../kernel";

const bare = remembersEach<Job["lines"], readonly Line[]>();

/** Lines that carry no member; the same list as long as the lines are, and which members there are. */
export function linesWithoutMember({ lines, members }: Pick<Job, "lines" | "members">): readonly Line[] {
  return bare(lines, [membersOnLines(members)], () => {
    const carrying = new Set(Object.values(members).map((member) => member.line as string));
    return Object.values(lines).filter(({ id }) => !carrying.has(id));
  });
}

/** Lines that carry no member and points on no line: what somebody drew as a guide. */
export function guideIds(job: Job): readonly string[] {
  const ends = new Set<string>();
  for (const { from, to } of Object.values(job.lines)) ends.add(from).add(to);
  return [
    ...linesWithoutMember(job).map(({ id }) => id),
    ...Object.keys(job.points).filter((id) => !ends.has(id)),
  ];
}
