/**
 * What a bench of sheets must know to let pieces be moved by hand. Sheets that are parted by straight cuts and sheets whose
 * pieces are cut along their outlines each have their own; dragging and keys are the same.
 */
import type { Result } from "@/core/kernel";

/** A piece by its sheet and its place in the list of that sheet. */
export type PlacedAt = { readonly sheet: number; readonly index: number };
export type Held = PlacedAt | { readonly waiting: number };
export type Target = { readonly sheet: number; readonly stock: number };
export type Direction = "left" | "right" | "up" | "down";

/** `against`: it could lie there if the grain is let be. */
export type PlaneRefusal = { readonly kind: string; readonly message: string };

/** A change that was tried at a spot. */
export type Tried<L, S> = { readonly spot: S; readonly changed: Result<L, PlaneRefusal> };

export type PlaneHand<L, S> = {
  readonly sheetCount: number;
  /** In mm, of the stock that a sheet is of or would be of. */
  readonly stockSize: (stock: number) => { readonly length: number; readonly width: number };
  readonly stockOf: (sheet: number) => number;
  /** Which piece of the problem lies there; null: none. */
  readonly pieceAt: (at: PlacedAt) => number | null;
  readonly isLocked: (at: PlacedAt) => boolean;
  /** Length and width of what a drag carries, as it is drawn. */
  readonly carried: (from: Held) => { readonly length: number; readonly width: number };
  /** The spot of a drag whose low corner is there, snapped to what is within reach; in mm. */
  readonly spotAt: (from: Held, target: Target, low: readonly [number, number], reach: number) => S;
  readonly tried: (from: Held, spot: S) => Result<L, PlaneRefusal>;
  /** The same spot with the grain let be. */
  readonly knowingly: (spot: S) => S;
  /** Into the first place on a sheet, or on a further one of that stock; null: it has no room. */
  readonly toSheet: (from: Held, target: { readonly sheet: number; readonly stock?: number }) => L | null;
  /** Turned where it lies, or else somewhere on its sheet; a sentence where neither is possible. */
  readonly turned: (at: PlacedAt) => Tried<L, S> | string;
  /** With its other face up; null where no piece is ever turned over. */
  readonly turnedOver: ((at: PlacedAt) => Tried<L, S> | string) | null;
  readonly pushed: (at: PlacedAt, direction: Direction) => L | null;
  readonly aside: (at: PlacedAt) => Result<L, PlaneRefusal>;
  readonly locked: (at: PlacedAt, locked: boolean) => L;
  /** Where a piece stands after it was moved. */
  readonly followed: (after: L, from: PlacedAt, to: number) => PlacedAt;
  /** Somewhere on any sheet, a further one last; null: there is no room. */
  readonly broughtBack: (waiting: number, further: number | null) => L | null;
};

/** Every sheet of a layout, and a further one of that stock at last; null: there is none. */
export const everySheet = (
  count: number,
  further: number | null,
): readonly { readonly sheet: number; readonly stock?: number }[] => [
  ...Array.from({ length: count }, (_, sheet) => ({ sheet })),
  ...(further === null ? [] : [{ sheet: count, stock: further }]),
];
