/** Proposed sizes as items of a page, each in a row of its view where there is room. */
import { type CatchGround, type DrawnPage, standOfSize, standsOfSizes } from "../drawing";
import type { SizeItem } from "../job";
import type { LengthStyle } from "../measure";
import type { ProposedSize } from "./proposal";

/** A size as it is made. */
export const plainSize = (
  own: Pick<SizeItem, "id" | "page" | "view" | "measure" | "from" | "to" | "side" | "out"> &
    Partial<SizeItem>,
): SizeItem => ({ kind: "size", between: [], typed: null, brackets: false, ...own });

/** `grounds`: what sizes of the page's views are picked from, by view; `newId` gives each an id. */
export function itemsOfSizes(
  proposed: readonly ProposedSize[],
  drawn: DrawnPage,
  grounds: ReadonlyMap<string, CatchGround>,
  style: LengthStyle,
  newId: () => SizeItem["id"],
): readonly SizeItem[] {
  return [...new Set(proposed.map(({ view }) => view))].flatMap((view) => {
    const sizes = proposed.filter((one) => one.view === view);
    const there = drawn.placed.flatMap(({ item }) =>
      item.kind === "size" && item.view === view ? [item] : [],
    );
    const [ground, ring] = [grounds.get(view), drawn.rings.get(view)];
    const stands = ground && ring ? standsOfSizes(sizes, there, ground, ring, style) : null;
    return sizes.map(({ measure, from, to, between, brackets }, i): SizeItem => {
      const stand = stands?.[i] ?? standOfSize(measure, IN_THE_MIDDLE, there);
      return {
        ...plainSize({ id: newId(), page: drawn.page.id, view, measure, from, to, ...stand }),
        between: [...between],
        brackets,
      };
    });
  });
}

const IN_THE_MIDDLE = [
  [0, 0],
  [0, 0],
] as const;
