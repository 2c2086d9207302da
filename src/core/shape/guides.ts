/** What of a job was drawn as a guide. */
import type { Job } from "../job";

/** Lines that carry no member and points on no line: what somebody drew as a guide. */
export function guideIds(job: Job): readonly string[] {
  const carrying = new Set(Object.values(job.members).map((member) => member.line as string));
  const ends = new Set(Object.values(job.lines).flatMap(({ from, to }) => [from as string, to as string]));
  return [
    ...Object.keys(job.lines).filter((id) => !carrying.has(id)),
    ...Object.keys(job.points).filter((id) => !ends.has(id)),
  ];
}
