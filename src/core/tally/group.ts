/** Pieces of one row before it has a mark. */
import type { Piece } from "./piece";

export type Hand = "asDrawn" | "opposite";
/** So many of a piece in one hand, from the first on; a piece that stands mirrored elsewhere is there twice. */
export type HandedPiece = {
  readonly piece: Piece;
  readonly hand: Hand;
  readonly first: number;
  readonly quantity: number;
};

/** Pieces of one row, with their hands; `spread` when they were parted from a longer chain of near equals. */
export type Group = {
  readonly pieces: readonly HandedPiece[];
  /** The longest piece, among those as drawn: what is cut is never too short. */
  readonly shown: Piece;
  readonly spread: boolean;
  /** The row by hand that it is; null: computed. */
  readonly byHand: string | null;
};
