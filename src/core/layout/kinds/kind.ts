/** What every kind of layout has to say of itself; one module each, and the registry holds them all. */
import type * as v from "valibot";
import type { RackPiece } from "../../stockroom";
import type { UnplacedReason } from "../stock";
import type { LayoutKind, LayoutOf, NamedRow, ProblemOf, SavedOf, TaskGround, TaskOf } from "../types";

/** What is left over of stock; `width` null: of a bar. */
export type Rest = Pick<RackPiece, "length" | "width">;

/** A problem with locks that were taken over, and what had to be let go, a sentence each. */
export type Taken<P> = { readonly problem: P; readonly notes: readonly string[] };

/** Pieces for which there is no place. */
export type Unplaced = { readonly index: number; readonly qty: number; readonly why: UnplacedReason };

export type LayoutKindModule<K extends LayoutKind> = {
  /** What is bought and laid out. */
  readonly noun: "bar" | "sheet";
  /** In what it and its pieces are measured. */
  readonly measure: "m" | "m²";
  task(id: string, rows: readonly NamedRow[], ground: TaskGround): TaskOf<K>;
  /** What is odd about a problem though it can be computed; sentences. */
  notes(problem: ProblemOf[K]): readonly string[];
  /** What it is cut with, in a few words each. */
  settingWords(problem: ProblemOf[K]): readonly string[];
  /** m of a piece, or m² of what it takes of a sheet. */
  pieceMeasure(problem: ProblemOf[K], index: number): number;
  /** Length of a stock, or its length and width. */
  stockSizes(problem: ProblemOf[K], stock: number): readonly number[];
  /** What is used of which stock, one entry a bar pattern or sheet, with the pieces in it and whether each is locked. */
  used(layout: LayoutOf[K]): readonly {
    readonly stock: number;
    readonly times: number;
    readonly pieces: readonly number[];
    readonly locks: number;
    /** Which of the pieces lie mirrored, where the kind can cut them so. */
    readonly mirrored?: readonly boolean[];
  }[];
  /** How many of a piece are wanted mirrored; null: it is the same to it. */
  opposite(problem: ProblemOf[K], index: number): number | null;
  /** The share of what is used that becomes pieces, from 0 to 1. */
  share(problem: ProblemOf[K], layout: LayoutOf[K]): number;
  unplaced(layout: LayoutOf[K]): readonly Unplaced[];
  /** What would help a piece without a place, as a part of a sentence. */
  advice(
    problem: ProblemOf[K],
    index: number,
    why: Exclude<UnplacedReason, { readonly kind: "aside" }>,
  ): string;
  /** All that is left over, however small. */
  rests(layout: LayoutOf[K]): readonly Rest[];
  /** The problem with the locks that a layout carries itself. */
  withOwnLocks(problem: ProblemOf[K], layout: LayoutOf[K]): ProblemOf[K];
  /** A task's problem with the locks of the layout that was kept for it. */
  withLocks(task: TaskOf<K>, saved: SavedOf<K>): Taken<ProblemOf[K]>;
  /** What is wrong with a layout, as the end of a sentence; null: nothing. By code that shares nothing with the search. */
  fault(problem: ProblemOf[K], layout: LayoutOf[K]): string | null;
  /** As it comes in from outside: what a layout of the kind must look like. */
  readonly schemas: {
    readonly problem: v.GenericSchema<unknown, ProblemOf[K]>;
    readonly layout: v.GenericSchema<unknown, LayoutOf[K]>;
  };
  /** As it was stored, by whichever version: with what problems and layouts have got since. */
  read(
    problem: ProblemOf[K],
    layout: LayoutOf[K],
  ): { readonly problem: ProblemOf[K]; readonly layout: LayoutOf[K] };
};
