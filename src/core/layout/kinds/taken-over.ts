/**
 * Locks that are taken over from a saved layout when it is made again: pieces are known by job and mark, stock by its size.
 * What has changed its size or is gone is let go, and each of those is told in a sentence.
 */
import { at, toNm } from "../../kernel";
import { type LengthStyle, saySizes } from "../../measure";
import { type LaidPiece, pieceKey } from "../types";

export const nameOf = ({ mark, job }: LaidPiece) => (job === undefined ? mark : `${mark} of ${job}`);

type SheetSize = { readonly length: number; readonly width: number; readonly rack: string | null };
export const isSameSheet = (a: SheetSize, b: SheetSize) =>
  a.length === b.length && a.width === b.width && a.rack === b.rack;

export const sizeOf = ({ length, width }: { readonly length: number; readonly width: number }) => [
  length,
  width,
];

/** Pieces that are locked to one bar or sheet. */
type Group<T> = { readonly stock: number; readonly items: readonly T[] };

/** What bars and sheets have of their own when locks are taken over. */
type Side<T> = {
  readonly groups: readonly Group<T>[];
  readonly before: readonly LaidPiece[];
  readonly now: readonly LaidPiece[];
  readonly wanted: readonly number[];
  readonly stock: readonly { readonly count: number | null }[];
  readonly isStock: (old: number, now: number) => boolean;
  readonly pieceOf: (item: T) => number;
  readonly as: (item: T, piece: number) => T;
  /** How lengths are written in the notes. */
  readonly style: LengthStyle;
  readonly sizeBefore: (piece: number) => readonly number[];
  readonly sizeNow: (piece: number) => readonly number[];
  /** What is not in stock any more. */
  readonly stockWords: (stock: number) => string;
  /** Why the group cannot stay together, or null. */
  readonly faultWords: (stock: number, items: readonly T[]) => string | null;
};

export function takenOver<T>(side: Side<T>): { groups: readonly Group<T>[]; notes: readonly string[] } {
  const notes: string[] = [];
  const groups: Group<T>[] = [];
  const left = [...side.wanted];
  const stockLeft = side.stock.map(({ count }) => count ?? Number.POSITIVE_INFINITY);
  for (const group of side.groups) {
    const names = (pieces: readonly LaidPiece[], items: readonly T[]) =>
      items.map((item) => nameOf(at(pieces, side.pieceOf(item)))).join(", ");
    const stock = side.stock.findIndex((_, i) => side.isStock(group.stock, i) && at(stockLeft, i) > 0);
    if (stock < 0) {
      const lost = side.stockWords(group.stock);
      notes.push(
        `${names(side.before, group.items)}: ${lost} is not in stock any more. These pieces are unlocked.`,
      );
      continue;
    }
    const items = group.items.flatMap((item) => {
      const piece = side.pieceOf(item);
      const found = foundPiece(side.now, at(side.before, piece), left);
      const size = found === null ? null : side.sizeNow(found);
      const note = letGo(at(side.before, piece), side.sizeBefore(piece), size, side.style);
      if (note !== null) notes.push(note);
      if (note !== null || found === null) return [];
      left[found] = at(left, found) - 1;
      return [side.as(item, found)];
    });
    if (items.length === 0) continue;
    const fault = side.faultWords(stock, items);
    if (fault !== null) {
      notes.push(`${names(side.now, items)}: ${fault}. These pieces are unlocked.`);
      for (const item of items) left[side.pieceOf(item)] = at(left, side.pieceOf(item)) + 1;
      continue;
    }
    stockLeft[stock] = at(stockLeft, stock) - 1;
    groups.push({ stock, items });
  }
  return { groups, notes };
}

function foundPiece(pieces: readonly LaidPiece[], wanted: LaidPiece, left: readonly number[]): number | null {
  const found = pieces.findIndex((piece, i) => pieceKey(piece) === pieceKey(wanted) && at(left, i) > 0);
  return found < 0 ? null : found;
}

/** Why a locked piece is let go, or null: it is gone (`now` is null), or its size is another. */
function letGo(
  piece: LaidPiece,
  before: readonly number[],
  now: readonly number[] | null,
  style: LengthStyle,
): string | null {
  if (now === null) return `${nameOf(piece)} is unlocked: it is deleted, or fewer of it are needed.`;
  const same = before.every((size, i) => toNm(size) === toNm(at(now, i)));
  return same
    ? null
    : `${nameOf(piece)} is unlocked: its size changed from ${saySizes(before, style)} to ${saySizes(now, style)}.`;
}
