/** What a layout is asked (a task), and what is kept of its answer: the types of all kinds. */
import type { BlankGroup, Job } from "../job";
import type { LengthStyle } from "../measure";
import type { BoardEntry, Rack, SectionEntry, Stockroom } from "../stockroom";
import type { TallyRow } from "../tally";
import type { BarLayout, BarProblem } from "./bars";
import type { NestingLayout, NestingProblem } from "./nesting";
import type { SheetLayout, SheetProblem } from "./sheets";

/** The problem and the layout of each kind, and the entry of the stockroom that it is cut from. */
type Kinds = {
  readonly bars: { readonly problem: BarProblem; readonly layout: BarLayout; readonly entry: SectionEntry };
  readonly sheets: {
    readonly problem: SheetProblem;
    readonly layout: SheetLayout;
    readonly entry: BoardEntry;
  };
  /** A board whose pieces are cut along their outlines. */
  readonly shapes: {
    readonly problem: NestingProblem;
    readonly layout: NestingLayout;
    readonly entry: BoardEntry;
  };
};
export type LayoutKind = keyof Kinds;
export type ProblemOf = { readonly [K in LayoutKind]: Kinds[K]["problem"] };
export type LayoutOf = { readonly [K in LayoutKind]: Kinds[K]["layout"] };

/** What a piece of a layout is called, and of which job it is when several are laid out together. */
export type LaidPiece = {
  readonly mark: string;
  readonly name: string;
  readonly job?: string;
  /** Finished length and width of a panel, where its blank is another size. */
  readonly finished?: readonly [number, number];
  /** The pieces of the design that it stands for, in the order in which they lie; saved layouts of before have none. */
  readonly ids?: readonly string[];
  /** How many of them, the last ones, are of the opposite hand, where those are cut mirrored. */
  readonly opposite?: number;
};

type Common = {
  /** Stock and material; the same as long as the job uses them. */
  readonly id: string;
  readonly stock: TaskStock;
  readonly name: string;
  readonly material: string | null;
  /** The row that each piece of the problem stands for. */
  readonly rows: readonly TallyRow[];
  readonly pieces: readonly LaidPiece[];
  readonly fingerprint: string;
};
/** A task of one kind: its problem is what is solved. */
export type TaskOf<K extends LayoutKind> = Common & {
  readonly kind: K;
  readonly entry: Kinds[K]["entry"] | null;
  readonly problem: ProblemOf[K];
};
export type BarTask = TaskOf<"bars">;
export type SheetTask = TaskOf<"sheets">;
export type NestingTask = TaskOf<"shapes">;
export type LayoutTask = { readonly [K in LayoutKind]: TaskOf<K> }[LayoutKind];

/** What names a piece of a layout: its mark, with its job where several are laid out together. */
export const pieceKey = ({ mark, job }: LaidPiece) => (job === undefined ? mark : `${job} ${mark}`);

/** What of a job says how it is laid out. */
export type LayoutWishes = Pick<Job, "layoutSettings"> & {
  /** How lengths are written in words; without it in millimetres. */
  readonly style?: LengthStyle;
  /** Where several jobs are laid out together, each group is of one of them. */
  readonly blankGroups: Readonly<Record<string, BlankGroup & { readonly job?: string }>>;
};
export type TaskGround = {
  readonly stockroom: Stockroom;
  readonly wishes: LayoutWishes;
  readonly rack: Rack;
  readonly variant: string;
};

/** The entry of the stockroom ("?" and a name where there is none) and the material of a task. */
export type TaskStock = { readonly entry: string; readonly material: string | null };

/** The stock that an id of a task names: for layouts that do not say it themselves. A material may have colons of its own. */
export function stockOfTask(taskId: string): TaskStock {
  const [, entry = "", ...material] = taskId.split(":");
  const named = material.join(":");
  return { entry: entry.replaceAll("%3A", ":"), material: named === "" ? null : named };
}

/** A row of the tally with the job that it comes from, when several are laid out together. */
export type NamedRow = { readonly row: TallyRow; readonly job: string | null };

type Saved = {
  /** Names this layout alone, however it is changed by hand; one that is made again gets another. */
  readonly id?: string;
  readonly taskId: string;
  /** What it is cut from: the entry of the stockroom and the material. */
  readonly stock?: TaskStock;
  readonly fingerprint: string;
  /** Revision of the job that it was made from. */
  readonly revision: number;
  readonly pieces: readonly LaidPiece[];
  /** When it went to the floor; null or not there: it has not. */
  readonly releasedAt?: number | null;
};
/** A layout of one kind that was kept, with the problem that it answers. */
export type SavedOf<K extends LayoutKind> = Saved & {
  readonly kind: K;
  readonly problem: ProblemOf[K];
  readonly layout: LayoutOf[K];
};
export type SavedBars = SavedOf<"bars">;
export type SavedSheets = SavedOf<"sheets">;
export type SavedNesting = SavedOf<"shapes">;
export type SavedLayout = { readonly [K in LayoutKind]: SavedOf<K> }[LayoutKind];
