/** What the tally remembers from one edit to the next: pieces by their solids, and the groups of each stock. */
import type { Check } from "../job";
import { type Memory, remembersEach, sameItems } from "../kernel";
import type { MemberSolid, PanelSolid } from "../shape";
import type { Form } from "./forms";
import type { Group } from "./group";
import type { Piece } from "./piece";

type StockGroups = { readonly pieces: readonly Piece[]; readonly groups: readonly Group[] };

export type TallyMemory = {
  readonly solid: Memory<MemberSolid | PanelSolid, readonly Piece[]>;
  readonly nearTwins: Memory<object, readonly Check[]>;
  readonly formText: Memory<Form, string>;
  readonly stockKey: Memory<Piece, string>;
  /** The groups of one stock: the identical ones while its pieces are. */
  readonly stock: (
    key: string,
    pieces: readonly Piece[],
    compute: () => readonly Group[],
  ) => readonly Group[];
};

export function newTallyMemory(): TallyMemory {
  const stocks = new Map<string, StockGroups>();
  return {
    solid: remembersEach(),
    nearTwins: remembersEach(),
    formText: remembersEach(),
    stockKey: remembersEach(),
    stock: (key, pieces, compute) => {
      const before = stocks.get(key);
      if (before && sameItems(before.pieces, pieces)) return before.groups;
      const groups = compute();
      stocks.set(key, { pieces, groups });
      return groups;
    },
  };
}
