/** What the cuts have in common that are made against one other member: without it, the end is square. */
import { type MemberId, unchanged } from "./kind";
import { SQUARE_END, type SquareCut } from "./square";

type AgainstOne = { readonly neighbour: MemberId };

export const againstOne = {
  neighbours: ({ neighbour }: AgainstOne): readonly MemberId[] => [neighbour],
  replaced: <C extends AgainstOne>(cut: C, _: MemberId, other: MemberId): C => ({ ...cut, neighbour: other }),
  without: <C extends AgainstOne>(cut: C, gone: ReadonlySet<string>): C | SquareCut =>
    gone.has(cut.neighbour) ? SQUARE_END : cut,
  mirrored: unchanged,
} as const;
