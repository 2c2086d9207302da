/**
 * From the tally to layout problems: one task for each section or board with one material. A kept layout
 * carries the fingerprint of its task, so it is known to be stale as soon as anything that it was made
 * from has changed.
 */
import { byKey, byNaturalText, byNumber, fromNm, inTurn } from "../kernel";
import type { BoardEntry, EdgingEntry, SectionEntry, Stockroom } from "../stockroom";
import type { PanelForm, Tally, TallyRow } from "../tally";
import type { BarLayout, BarProblem } from "./bars";
import type { SheetLayout, SheetProblem } from "./sheets";

type Common = {
  /** Stock and material; the same as long as the job uses them. */
  readonly id: string;
  readonly name: string;
  readonly material: string | null;
  /** The row that each piece of the problem stands for. */
  readonly rows: readonly TallyRow[];
  readonly fingerprint: string;
};
export type BarTask = Common & {
  readonly kind: "bars";
  readonly entry: SectionEntry | null;
  readonly problem: BarProblem;
};
export type SheetTask = Common & {
  readonly kind: "sheets";
  readonly entry: BoardEntry | null;
  readonly problem: SheetProblem;
};
export type LayoutTask = BarTask | SheetTask;

/** What a piece of a kept layout was called and how large it was when the layout was made. */
export type LaidPiece = { readonly mark: string; readonly name: string };

type Kept = {
  readonly taskId: string;
  readonly fingerprint: string;
  /** Revision of the job that it was made from. */
  readonly revision: number;
  readonly pieces: readonly LaidPiece[];
};
/** A layout that was kept, with the problem that it answers. */
export type KeptLayout =
  | (Kept & { readonly kind: "bars"; readonly problem: BarProblem; readonly layout: BarLayout })
  | (Kept & { readonly kind: "sheets"; readonly problem: SheetProblem; readonly layout: SheetLayout });

/** The blank of a panel: its finished size less the edging that is deducted, in mm. */
export function blankOf(
  form: PanelForm,
  edgingById: ReadonlyMap<string, EdgingEntry>,
): { readonly length: number; readonly width: number } {
  const off = (id: string | null) => {
    const entry = id === null ? undefined : edgingById.get(id);
    return entry?.deducted ? entry.thickness : 0;
  };
  const { edging } = form;
  return {
    length: fromNm(Math.round(form.lengthNm - (off(edging.left) + off(edging.right)) * 1e6)),
    width: fromNm(Math.round(form.widthNm - (off(edging.front) + off(edging.back)) * 1e6)),
  };
}

/** All layout tasks of a tally, in the order of the stockroom. */
export function layoutTasks(tally: Tally, stockroom: Stockroom): readonly LayoutTask[] {
  const groups = new Map<string, TallyRow[]>();
  for (const row of tally.rows) {
    if (row.shown.form.kind === "none") continue;
    const id = `${row.kind}:${row.stock ?? `?${row.stockName ?? ""}`}:${row.material ?? ""}`;
    groups.set(id, [...(groups.get(id) ?? []), row]);
  }
  const tasks = [...groups].map(([id, rows]) =>
    rows[0]?.kind === "member" ? barTask(id, rows, stockroom) : sheetTask(id, rows, stockroom),
  );
  const place = new Map([...stockroom.sections, ...stockroom.boards].map((entry, i) => [entry.id, i]));
  return tasks.sort(
    inTurn(
      byKey((task: LayoutTask) => (task.kind === "bars" ? 0 : 1), byNumber),
      byKey((task: LayoutTask) => (task.entry ? (place.get(task.entry.id) ?? 0) : 1e9), byNumber),
      byKey((task: LayoutTask) => task.id, byNaturalText),
    ),
  );
}

function barTask(id: string, rows: readonly TallyRow[], stockroom: Stockroom): BarTask {
  const first = rows[0];
  const entry = first?.stock ? (stockroom.sectionById.get(first.stock) ?? null) : null;
  const problem: BarProblem = {
    kerf: entry?.kerf ?? 0,
    trim: { start: entry?.trimStart ?? 0, end: entry?.trimEnd ?? 0 },
    stock: [...(entry?.stock ?? [])],
    pieces: rows.map((row) => ({
      length: row.shown.form.kind === "member" ? fromNm(row.shown.form.cutNm) : 0,
      qty: row.count,
    })),
  };
  return { kind: "bars", entry, problem, ...common(id, rows, problem, entry?.name) };
}

function sheetTask(id: string, rows: readonly TallyRow[], stockroom: Stockroom): SheetTask {
  const first = rows[0];
  const entry = first?.stock ? (stockroom.boardById.get(first.stock) ?? null) : null;
  const problem: SheetProblem = {
    kerf: entry?.kerf ?? 0,
    trim: entry?.trim ?? 0,
    stages: entry?.stages ?? null,
    stock: (entry?.stock ?? []).map((sheet) => ({ ...sheet, grain: entry?.grain ?? null })),
    panels: rows.map((row) => {
      const { form } = row.shown;
      const blank = form.kind === "panel" ? blankOf(form, stockroom.edgingById) : { length: 0, width: 0 };
      return { ...blank, qty: row.count, grain: form.kind === "panel" && form.grain };
    }),
  };
  return { kind: "sheets", entry, problem, ...common(id, rows, problem, entry?.name) };
}

function common(
  id: string,
  rows: readonly TallyRow[],
  problem: BarProblem | SheetProblem,
  name: string | undefined,
): Common {
  const first = rows[0];
  return {
    id,
    name: name ?? first?.stockName ?? (first?.kind === "panel" ? "No board chosen" : "No section chosen"),
    material: first?.material ?? null,
    rows,
    fingerprint: JSON.stringify([problem, rows.map((row) => row.mark)]),
  };
}

/** The layout that was kept for a task, and whether what it was made from has changed since. */
export function keptFor(
  task: LayoutTask,
  kept: readonly KeptLayout[],
): { readonly kept: KeptLayout; readonly stale: boolean } | null {
  const found = kept.find((layout) => layout.taskId === task.id);
  return found ? { kept: found, stale: found.fingerprint !== task.fingerprint } : null;
}

export function keepLayout(task: LayoutTask, layout: BarLayout | SheetLayout, revision: number): KeptLayout {
  const base = {
    taskId: task.id,
    fingerprint: task.fingerprint,
    revision,
    pieces: task.rows.map(({ mark, name }) => ({ mark, name })),
  };
  return task.kind === "bars"
    ? { ...base, kind: "bars", problem: task.problem, layout: layout as BarLayout }
    : { ...base, kind: "sheets", problem: task.problem, layout: layout as SheetLayout };
}
