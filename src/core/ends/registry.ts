/** All kinds of end by their names: to add one, write its module, and the compiler lists what is missing. */
import { forKind } from "../kernel";
import { cope } from "./cope";
import type { End, EndKind } from "./end";
import { plane } from "./plane";
import { twoPlanes } from "./two-planes";

const KINDS: { readonly [K in End["kind"]]: EndKind<Extract<End, { readonly kind: K }>> } = {
  plane,
  twoPlanes,
  cope,
};

/** What a kind says of an end of its own. */
export function kindOf<E extends End>(end: E): EndKind<E> {
  return forKind(KINDS, end);
}
