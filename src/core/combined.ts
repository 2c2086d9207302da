/** Several jobs laid out together: one set of tasks, each piece still named with its job and mark. */

import type { Job } from "./job";
import { jobStyle } from "./job";
import { type LayoutTask, type NamedRow, tasksOfRows } from "./layout";
import { createPipeline } from "./pipeline";
import type { Rack, Stockroom } from "./stockroom";

export type CombinedJob = { readonly id: string; readonly code: string; readonly job: Job };

/**
 * Tasks of all jobs, their pieces named by job. Settings are the stockroom's, since jobs may want different ones; panels that
 * a job keeps together stay together. Two jobs of one code are told apart by a number.
 */
export function combinedTasks(
  jobs: readonly CombinedJob[],
  stockroom: Stockroom,
  rack: Rack,
): readonly LayoutTask[] {
  const names = distinctNames(jobs.map(({ code }) => code));
  const rows: NamedRow[] = [];
  // Several jobs may write lengths in several ways: the first of them says it.
  const [first] = jobs;
  const blankGroups: Record<string, Job["blankGroups"][string] & { job: string }> = {};
  jobs.forEach(({ id, job }, i) => {
    const name = names[i] ?? id;
    const { tally } = createPipeline()(job, null, stockroom, []);
    for (const row of tally.rows) rows.push({ row, job: name });
    for (const group of Object.values(job.blankGroups))
      blankGroups[`${id}/${group.id}`] = { ...group, job: name };
  });
  return tasksOfRows(rows, {
    stockroom,
    wishes: { layoutSettings: {}, blankGroups, ...(first ? { style: jobStyle(first.job) } : {}) },
    rack,
    variant: "",
  });
}

function distinctNames(codes: readonly string[]): readonly string[] {
  const seen = new Map<string, number>();
  return codes.map((code) => {
    const times = (seen.get(code) ?? 0) + 1;
    seen.set(code, times);
    return times === 1 ? code : `${code} (${times})`;
  });
}
