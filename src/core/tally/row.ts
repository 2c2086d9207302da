/** A row of the tally: identical pieces under one mark, with their count and hands. */
import type { Piece } from "./piece";

export type TallyRow = {
  /** Stable while the row lives: its mark, or the entry for bought parts. */
  readonly id: string;
  /** Empty for bought parts: they are named by their entry. */
  readonly mark: string;
  /** Somebody typed its mark. */
  readonly held: boolean;
  /** Somebody put its pieces together, or split them off: the id of that; null: computed. */
  readonly byHand: string | null;
  readonly name: string;
  readonly kind: Piece["kind"];
  /** Pieces in the whole batch. */
  readonly count: number;
  readonly hands: { readonly asDrawn: number; readonly opposite: number };
  readonly stock: string | null;
  readonly stockName: string | null;
  readonly material: string | null;
  /** The piece whose sizes are shown: the longest of those as drawn. */
  readonly shown: Piece;
  readonly pieces: readonly {
    readonly id: string;
    readonly quantity: number;
    readonly hand: "asDrawn" | "opposite";
    /** Which of those of its record they are, and where all of them stand: `pieceIds` names each. */
    readonly first: number;
    readonly places: readonly string[];
    readonly ofRecord: number;
  }[];
  readonly typed: boolean;
};
