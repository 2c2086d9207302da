"use client";
import { useDroppable } from "@dnd-kit/core";
import { at } from "@/core/kernel";
import { layoutKind, type SavedLayout } from "@/core/layout";
/** Of which stock a further bar or sheet can be begun by hand, and where a piece is dropped to begin one. */
import { type LengthStyle, saySizes } from "@/core/measure";
import { useLayoutGround } from "./layout-ground";

const MOST_SHOWN = 3;

/** The stock of which one more can be begun, as far as it is not used up. */
export function furtherStock(saved: SavedLayout): readonly number[] {
  const all = layoutKind(saved).used(saved.layout);
  const used = (stock: number) => all.reduce((sum, one) => sum + (one.stock === stock ? one.times : 0), 0);
  const order = saved.problem.stock
    .map((one, i) => ({ i, ...one }))
    .filter(({ i, count }) => count === null || used(i) < count)
    // What is bought comes first, the cheapest before the others; then what lies in the rack.
    .sort((a, b) => Number(a.rack !== null) - Number(b.rack !== null) || (a.price ?? 0) - (b.price ?? 0));
  return order.slice(0, MOST_SHOWN).map(({ i }) => i);
}

export type FurtherStockProps = {
  readonly saved: SavedLayout;
  readonly stock: number;
  /** What a drop here is told of. */
  readonly data:
    | { readonly bar: number; readonly stock: number }
    | { readonly sheet: number; readonly stock: number };
  /** Whether a piece goes here, where the bench knows it better than the pointer. */
  readonly going?: boolean;
};

/** Where a further bar or sheet of one size, or a piece of the rack, can be begun. */
export function FurtherStock({ saved, stock, data, going }: FurtherStockProps) {
  const ground = useLayoutGround();
  const { setNodeRef, isOver } = useDroppable({ id: `fresh-${stock}`, data });
  const { problem } = saved;
  const { rack } = at<{ readonly rack: string | null }>(problem.stock, stock);
  const look = going
    ? "border-moss text-moss-deep"
    : going === undefined && isOver
      ? "border-brass text-ink"
      : "border-seam text-ink-soft";
  return (
    <p ref={setNodeRef} className={`border border-dashed bg-leaf px-2.5 py-1 ${look}`}>
      {rack === null ? "Drop here: another" : `Drop here: ${ground.rackLabel(rack)},`}{" "}
      {sizeWords(saved, stock, ground.style)}
    </p>
  );
}

const sizeWords = (saved: SavedLayout, stock: number, style: LengthStyle): string =>
  saySizes(layoutKind(saved).stockSizes(saved.problem, stock), style);
