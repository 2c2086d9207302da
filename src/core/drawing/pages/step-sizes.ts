/** Sizes that follow one another from place to place as one of equal steps, and the other way round. */
import type { Feature, SizeItem } from "../../job";
import { featureKey } from "./view-places";

/** mm. Steps that differ by as much are not equal. */
const EQUAL_MM = 0.01;

/** Whether steps are equal and make up a whole, one after the other. */
export function areEqualSteps(steps: readonly number[], whole: number): boolean {
  const sum = steps.reduce((all, one) => all + one, 0);
  return Math.max(...steps) - Math.min(...steps) < EQUAL_MM && Math.abs(sum - whole) < EQUAL_MM;
}

/** A size of steps as one size for each of them, the first under its own id. */
export function partedSteps(item: SizeItem, newId: () => SizeItem["id"]): readonly SizeItem[] {
  if (!item.to) return [item];
  const places = [item.from, ...item.between, item.to];
  return places.slice(1).flatMap((to, i): SizeItem[] => {
    const from = places[i];
    return from ? [{ ...item, id: i === 0 ? item.id : newId(), from, to, between: [], typed: null }] : [];
  });
}

/**
 * Sizes as one of steps, in whatever order they are given, under the id of the first; null: they do not follow one another, or
 * do not measure alike. Whether they are equally long the design says.
 */
export function joinedSteps(items: readonly SizeItem[]): SizeItem | null {
  const [first] = items;
  if (!first || items.length < 2) return null;
  const isLength =
    first.measure === "horizontal" || first.measure === "vertical" || first.measure === "along";
  const isLike = ({ page, view, measure, to }: SizeItem) =>
    page === first.page && view === first.view && measure === first.measure && to !== null;
  if (!isLength || !items.every(isLike)) return null;
  const left = new Set(items);
  left.delete(first);
  // Grown at both ends; which way round each was picked does not count.
  let places = placesOf(first);
  for (let grown = true; grown && left.size > 0; ) {
    grown = false;
    for (const one of left) {
      const longer = joined(places, placesOf(one));
      if (!longer) continue;
      places = longer;
      left.delete(one);
      grown = true;
    }
  }
  const [from, to] = [places[0], places.at(-1)];
  if (left.size > 0 || !from || !to || new Set(places.map(featureKey)).size < places.length) return null;
  return { ...first, from, to, between: places.slice(1, -1), typed: null };
}

const placesOf = ({ from, between, to }: SizeItem): readonly Feature[] => [
  from,
  ...between,
  ...(to ? [to] : []),
];

/** Two runs of places of which one begins or ends where the other does; null: none does. */
function joined(run: readonly Feature[], other: readonly Feature[]): readonly Feature[] | null {
  const ends = (places: readonly Feature[]) =>
    [places[0], places.at(-1)].map((one) => one && featureKey(one));
  const [[start, end], [first, last]] = [ends(run), ends(other)];
  if (end === first) return [...run, ...other.slice(1)];
  if (end === last) return [...run, ...[...other].reverse().slice(1)];
  if (start === last) return [...other, ...run.slice(1)];
  if (start === first) return [...[...other].reverse(), ...run.slice(1)];
  return null;
}
