/** Balloons and what points at pieces. */
import type { CaughtFeature, PlacedItem, SizeStand } from "@/core/drawing";
import type { BalloonItem, SizeItem, SizeMeasure } from "@/core/job";

/** What the next click on a piece of a view does. */
export type Pointing =
  | { readonly kind: "balloon" }
  | { readonly kind: "leader"; readonly balloon: string }
  | { readonly kind: "callout" }
  | { readonly kind: "detail" }
  | Sizing;

/** Sizes from place to place: one by one, each from the end of the one before, or all from the first place. */
export type SizeRun = "single" | "chain" | "steps";
export type Sizing = {
  readonly kind: "size";
  readonly measure: SizeMeasure;
  readonly run: SizeRun;
  /** What was picked last, in which view; null: the next pick is the first. */
  readonly from: { readonly view: string; readonly caught: CaughtFeature } | null;
  /** Where the line of the run stands; null: the next one finds its place. */
  readonly stand: SizeStand | null;
};

/** The balloons of a view. */
export const balloonsIn = (placed: readonly PlacedItem[], view: string): readonly BalloonItem[] =>
  placed.flatMap(({ item }) => (item.kind === "balloon" && item.view === view ? [item] : []));

/** The sizes of a view. */
export const sizesIn = (placed: readonly PlacedItem[], view: string): readonly SizeItem[] =>
  placed.flatMap(({ item }) => (item.kind === "size" && item.view === view ? [item] : []));
