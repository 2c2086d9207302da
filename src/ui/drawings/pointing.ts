/** Balloons and what points at pieces. */
import type { PlacedItem } from "@/core/drawing";
import type { BalloonItem } from "@/core/job";

/** What the next click on a piece of a view does. */
export type Pointing =
  | { readonly kind: "balloon" }
  | { readonly kind: "leader"; readonly balloon: string }
  | { readonly kind: "callout" };

/** The balloons of a view. */
export const balloonsIn = (placed: readonly PlacedItem[], view: string): readonly BalloonItem[] =>
  placed.flatMap(({ item }) => (item.kind === "balloon" && item.view === view ? [item] : []));
