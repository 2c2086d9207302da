/** Ids for new records, and names that no point bears yet. */

import type { Job, NewId } from "@/core/job";
import { freePointName } from "@/core/shape";
import { freshId } from "../common/fresh-id";

/** Gives the ids of one edit: every call another one, and no point name twice. */
export function freshIds(job: Job): NewId {
  const names: string[] = [];
  return (kind) => {
    if (kind !== "pointName") return `${kind}-${freshId(8)}`;
    const name = freePointName(job, names);
    names.push(name);
    return name;
  };
}
