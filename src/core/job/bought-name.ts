/** The name of a bought part follows what is chosen for it, until somebody types another. */
import type { BoughtPart } from "./bought-part";
import type { Edit, SimpleEdit } from "./edit";

/** What a bought part of an entry is called to begin with. */
export const nameOfEntry = (entry: { readonly name: string } | undefined): string =>
  entry?.name.slice(0, 80) ?? "Bought part";

/** The edit that chooses an entry for some parts: those that still carry the name of their entry get that of the new one. */
export function entryChosen(
  parts: readonly BoughtPart[],
  entry: string | null,
  entries: readonly { readonly id: string; readonly name: string }[],
): Edit {
  const find = (id: string | null) => entries.find((one) => one.id === id);
  const follows = (part: BoughtPart) => part.name === nameOfEntry(find(part.entry));
  const change = (some: readonly BoughtPart[], set: { entry: string | null; name?: string }): SimpleEdit[] =>
    some.length === 0 ? [] : [{ kind: "changeBoughtParts", ids: some.map(({ id }) => id), set }];
  const edits = [
    ...change(parts.filter(follows), { entry, name: nameOfEntry(find(entry)) }),
    ...change(
      parts.filter((part) => !follows(part)),
      { entry },
    ),
  ];
  const [only] = edits;
  return edits.length === 1 && only ? only : { kind: "together", edits };
}
