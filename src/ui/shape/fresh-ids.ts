/** Ids for new records, and names that no point bears yet. */

import type { Job, NewId } from "@/core/job";
import { newPointNames } from "@/core/shape";
import { newId } from "../common/fresh-id";

/** Gives the ids of one edit: every call another one, and no point name twice. */
export function freshIds(job: Job): NewId {
  const newName = newPointNames(job);
  return (kind) => (kind === "pointName" ? newName() : newId(kind));
}
