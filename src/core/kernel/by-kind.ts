/**
 * What a table holds for the kind of a record. The table pairs each kind with what is made for records of that very kind,
 * which the compiler cannot follow through a lookup: `M` is what it holds as seen by those who do not know the kind.
 */
export function forKind<M, K extends string = string>(
  table: { readonly [N in K]: unknown },
  { kind }: { readonly kind: K },
): M {
  return table[kind] as M;
}
