/** Edits of how a job is laid out: settings of its own for a section or board, panels kept together as one blank. */
import * as v from "valibot";
import { ok, type Problem, type Result, unreachable } from "../kernel";
import type { Job } from "./job";
import { asStockroom, BlankGroupSchema, type LayoutSetting, LayoutSettingSchema } from "./layout-setting";
import { defined, missing, put, refused, removeAll } from "./records";
import { recordId } from "./text";

export const LAYOUT_EDITS = [
  /** null in a field puts it back to what the stockroom says. */
  v.object({
    kind: v.literal("setLayoutSetting"),
    id: recordId,
    set: v.partial(v.omit(LayoutSettingSchema, ["id"])),
  }),
  v.object({ kind: v.literal("setBlankGroup"), group: BlankGroupSchema }),
  v.object({ kind: v.literal("removeBlankGroup"), id: recordId }),
] as const;

export type LayoutEdit = v.InferOutput<(typeof LAYOUT_EDITS)[number]>;

export function applyLayoutEdit(job: Job, edit: LayoutEdit): Result<Job, Problem> {
  switch (edit.kind) {
    case "setLayoutSetting": {
      const before = job.layoutSettings[edit.id] ?? asStockroom(edit.id);
      const after: LayoutSetting = { ...before, ...defined(edit.set) };
      const { id, ...fields } = after;
      const others = { ...job.layoutSettings };
      delete others[id];
      const says = Object.values(fields).some((value) => value !== null);
      return ok({ ...job, layoutSettings: says ? { ...others, [id]: after } : others });
    }
    case "setBlankGroup": {
      const { group } = edit;
      const gone = group.panels.find((id) => !job.panels[id] && job.typedPieces[id]?.kind !== "panel");
      if (gone !== undefined) return missing("panel", gone);
      const taken = Object.values(job.blankGroups).find(
        (other) => other.id !== group.id && other.panels.some((id) => group.panels.includes(id)),
      );
      if (taken)
        return refused("One of these panels is already kept together in", taken.name, "; part that first");
      return ok(put(job, "blankGroups", [group]));
    }
    case "removeBlankGroup":
      return removeAll(job, "blankGroups", "keep-together group", [edit.id]);
    default:
      return unreachable(edit);
  }
}

/** Keep-together groups without the panels that are gone; a group of fewer than two is none. */
export function withoutPanels(job: Job, ids: ReadonlySet<string>): Job {
  const touched = Object.values(job.blankGroups).filter((group) => group.panels.some((id) => ids.has(id)));
  if (touched.length === 0) return job;
  const blankGroups = { ...job.blankGroups };
  for (const group of touched) {
    const panels = group.panels.filter((id) => !ids.has(id));
    if (panels.length < 2) delete blankGroups[group.id];
    else blankGroups[group.id] = { ...group, panels };
  }
  return { ...job, blankGroups };
}

export function layoutEditName(edit: LayoutEdit): string {
  switch (edit.kind) {
    case "setLayoutSetting":
      return "Change how stock is laid out";
    case "setBlankGroup":
      return `Keep ${edit.group.panels.length} panels together`;
    case "removeBlankGroup":
      return "Part panels that were kept together";
    default:
      return unreachable(edit);
  }
}
