/** How pieces are made, whatever they come from. */
import type { Piece } from "./piece";

export type Parts = Pick<
  Piece,
  "id" | "kind" | "name" | "form" | "stock" | "stockName" | "material" | "leftOut"
> &
  Partial<Pick<Piece, "quantity" | "places" | "typed" | "typedMark" | "boughtLength" | "why">>;

type Times = Partial<Pick<Piece, "quantity" | "places" | "mirrored" | "leftOut">>;

/** In the job itself. */
const HERE: readonly string[] = [""];

/** Written out field by field: spreading twenty thousand times costs more than all that follows. */
export function newPiece(parts: Parts, times: Times = {}): Piece {
  return {
    id: parts.id,
    kind: parts.kind,
    name: parts.name,
    quantity: times.quantity ?? parts.quantity ?? 1,
    mirrored: times.mirrored ?? 0,
    places: times.places ?? parts.places ?? HERE,
    form: parts.form,
    stock: parts.stock,
    stockName: parts.stockName,
    material: parts.material,
    typed: parts.typed ?? false,
    typedMark: parts.typedMark ?? null,
    leftOut: times.leftOut ?? parts.leftOut,
    boughtLength: parts.boughtLength ?? null,
    why: parts.why ?? null,
  };
}
