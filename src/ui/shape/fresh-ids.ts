/** Ids for new records, and names that no point bears yet. */

import type { Job, NewId } from "@/core/job";
import { freePointName } from "@/core/shape";
import { newId } from "../common/fresh-id";

/** Gives the ids of one edit: every call another one, and no point name twice. */
export function freshIds(job: Job): NewId {
  const names: string[] = [];
  return (kind) => {
    if (kind !== "pointName") return newId(kind);
    const name = freePointName(job, names);
    names.push(name);
    return name;
  };
}
