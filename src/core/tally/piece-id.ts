/**
 * Names of physical pieces: the record that it comes from, the way through placements to where it stands, which of several
 * there, and in which copy of the job. They stay over edits as long as those do; marks, rows and layouts come and go.
 */
import { at } from "../kernel";
import type { TallyRow } from "./row";

declare const pieceId: unique symbol;
export type PieceId = string & { readonly [pieceId]: true };

/** Signs that part a name are written otherwise in what it is made of. */
const plain = (text: string) => text.replace(/[%@#*]/g, (sign) => `%${sign.charCodeAt(0).toString(16)}`);

/** The name of one piece; what there is but one of is not said. Counted from 1. */
function nameOf(record: string, place: string, nth: number, copy: number): PieceId {
  const where = place === "" ? "" : `@${plain(place)}`;
  return `${plain(record)}${where}${nth === 1 ? "" : `#${nth}`}${copy === 1 ? "" : `*${copy}`}` as PieceId;
}

/**
 * The names of all pieces of a row, as many as it counts, those as drawn before those of the opposite hand: the copies of
 * the job one after the other in each hand.
 */
export function pieceIds({ pieces, count }: Pick<TallyRow, "pieces" | "count">): readonly PieceId[] {
  const each = pieces.reduce((sum, { quantity }) => sum + quantity, 0);
  const copies = each === 0 ? 0 : count / each;
  const ids: PieceId[] = [];
  for (const hand of ["asDrawn", "opposite"] as const)
    for (let copy = 1; copy <= copies; copy++)
      for (const piece of pieces) {
        if (piece.hand !== hand) continue;
        const perPlace = piece.ofRecord / piece.places.length;
        for (let i = piece.first; i < piece.first + piece.quantity; i++)
          ids.push(nameOf(piece.id, at(piece.places, Math.floor(i / perPlace)), (i % perPlace) + 1, copy));
      }
  return ids;
}
