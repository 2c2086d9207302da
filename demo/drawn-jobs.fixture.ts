/** The demo jobs with their pages, for tests: made once, whichever tests ask for them. */
import type { Job } from "@/core/job";
import { stockroomOf } from "@/core/stockroom";
import { withPages } from "./pages";
import { demoStockroom } from "./stockroom";

export const STOCKROOM = stockroomOf(demoStockroom);

const made = new Map<string, Job>();

/** A demo job with its pages. */
export function drawnJob(start: Job): Job {
  const { code } = start.info.job;
  const known = made.get(code);
  if (known) return known;
  const job = withPages(start, STOCKROOM);
  made.set(code, job);
  return job;
}
