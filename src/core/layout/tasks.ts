/**
 * From the tally to layout problems: one task for each section or board with one material. Settings come from the
 * stockroom and from what the job says otherwise; rack pieces stand beside the stock sizes.
 */
import { addTo, byKey, byNaturalText, byNumber, inTurn } from "../kernel";
import { EMPTY_RACK, type Rack, type Stockroom } from "../stockroom";
import type { Tally, TallyRow } from "../tally";
import { boardOf, LAYOUT_KINDS, stockOfRow } from "./kinds";
import { cutWay } from "./settings";
import {
  type LaidPiece,
  type LayoutKind,
  type LayoutTask,
  type LayoutWishes,
  type NamedRow,
  pieceKey,
  type TaskGround,
} from "./types";

const NO_WISHES: LayoutWishes = { layoutSettings: {}, blankGroups: {} };

/** All layout tasks of a tally, in the order of the stockroom. */
export function layoutTasks(
  tally: Pick<Tally, "rows">,
  stockroom: Stockroom,
  wishes: LayoutWishes = NO_WISHES,
  rack: Rack = EMPTY_RACK,
  variant = "",
): readonly LayoutTask[] {
  const ground: TaskGround = { stockroom, wishes, rack, variant };
  const named = tally.rows.map((row): NamedRow => ({ row, job: null }));
  return tasksOfRows(named, ground);
}

/** One task for each kind, stock and material. A colon in the name of a stock does not part it. */
const taskIdOf = (row: TallyRow) => {
  const { entry, material } = stockOfRow(row);
  return `${row.kind}:${entry.replaceAll(":", "%3A")}:${material ?? ""}`;
};

export function tasksOfRows(named: readonly NamedRow[], ground: TaskGround): readonly LayoutTask[] {
  const groups = new Map<string, NamedRow[]>();
  for (const one of named) {
    const { row } = one;
    if (row.shown.form.kind === "none") continue;
    const id = taskIdOf(row);
    addTo(groups, id, one);
  }
  const tasks = [...groups].map(([id, rows]) =>
    LAYOUT_KINDS[kindOfRows(rows, ground)].task(id, rows, ground),
  );
  const { stockroom } = ground;
  const place = new Map([...stockroom.sections, ...stockroom.boards].map((entry, i) => [entry.id, i]));
  return tasks.sort(
    inTurn(
      byKey((task: LayoutTask) => (LAYOUT_KINDS[task.kind].noun === "bar" ? 0 : 1), byNumber),
      byKey((task: LayoutTask) => (task.entry ? (place.get(task.entry.id) ?? 0) : 1e9), byNumber),
      byKey((task: LayoutTask) => task.id, byNaturalText),
    ),
  );
}

/** Members lie on bars; a board's entry decides whether its pieces are parted by straight cuts or cut along their outlines. */
function kindOfRows(named: readonly NamedRow[], ground: TaskGround): LayoutKind {
  if (named[0]?.row.kind === "member") return "bars";
  const { entry, own } = boardOf(named, ground);
  return cutWay(entry, own) === "outline" ? "shapes" : "sheets";
}

/** The row that a piece of a task stands for today; null: the task or the piece is gone. */
export type RowFinder = (piece: LaidPiece) => TallyRow | null;

/** Finds the rows of one task among those of today. */
export function rowFinder(tasks: readonly LayoutTask[], taskId: string): RowFinder {
  const task = tasks.find((one) => one.id === taskId);
  const rows = new Map(task?.pieces.map((piece, i) => [pieceKey(piece), task.rows[i] ?? null]));
  return (piece) => rows.get(pieceKey(piece)) ?? null;
}
