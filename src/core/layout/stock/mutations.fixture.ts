/** Every way to change one field of a layout, for tests that a check refuses each of them. Written for the tests alone. */

export type Mutation<T> = { readonly path: string; readonly change: string; readonly value: T };

type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** All single changes: numbers raised, lowered, halved, negated; flags turned; entries dropped, doubled; null for a number. */
export function mutationsOf<T>(value: T): readonly Mutation<T>[] {
  return changes(value as Json, "").map(({ path, change, value: made }) => ({
    path,
    change,
    value: made as T,
  }));
}

function changes(value: Json, path: string): readonly Mutation<Json>[] {
  const made = (change: string, to: Json): Mutation<Json> => ({ path, change, value: to });
  if (typeof value === "number")
    return [
      made("raised", value + 1),
      made("lowered", value - 1),
      made("halved", value === 0 ? 0.5 : value / 2),
      made("negated", value === 0 ? -1 : -value),
      ...(/cost$/.test(path) ? [made("missing", null)] : []),
    ];
  if (typeof value === "boolean") return [made("turned", !value)];
  if (value === null) return /cost$/.test(path) ? [made("invented", 7)] : [];
  if (typeof value === "string") return [];
  if (Array.isArray(value)) {
    const list = value as readonly Json[];
    return [
      ...list.flatMap((_, i) => [
        made(
          `dropped ${i}`,
          list.filter((_, k) => k !== i),
        ),
        made(`doubled ${i}`, [...list, list[i] ?? null]),
      ]),
      ...list.flatMap((one, i) =>
        changes(one, `${path}[]`).map((inner) => ({
          ...inner,
          change: `${i}: ${inner.change}`,
          value: list.map((other, k) => (k === i ? inner.value : other)),
        })),
      ),
    ];
  }
  return Object.entries(value as { readonly [key: string]: Json }).flatMap(([key, one]) =>
    changes(one, `${path}.${key}`).map((inner) => ({
      ...inner,
      value: { ...(value as object), [key]: inner.value },
    })),
  );
}
