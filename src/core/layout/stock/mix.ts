/**
 * Mixes of stock: which sums of costs exist at all, and how much the best mix of each cost holds. With
 * several prices a bound from a linear programme lies between two such sums and may be raised to the
 * next one; without this step hardly a layout with several stock sizes could be called proven.
 */
import { at } from "../../kernel";

/** A stock size: whole cost, what it holds (length or area), how many there are (infinite: no limit). */
export type MixType = { readonly cost: number; readonly holds: number; readonly available: number };

export function divisor(a: number, b: number): number {
  return b === 0 ? a : divisor(b, a % b);
}

const commonStep = (types: readonly MixType[]) =>
  types.reduce((common, type) => divisor(common, type.cost), 0);

/** A bound raised to a multiple of the common divisor of all costs. */
export function raisedToStep(types: readonly MixType[], bound: number): number {
  const step = commonStep(types);
  return Math.max(0, step === 0 ? Math.ceil(bound) : Math.ceil(bound / step) * step);
}

/** More cells than this would cost more time than the proof is worth; then only the step is used. */
const MOST_CELLS = 1_000_000;

/**
 * The least cost of at least `bound` that a mix of stock holding `load` can have, looked for up to
 * `most` (the cost of a layout that exists, so that there is always an answer). Holds for every layout:
 * whatever it does, its pieces must fit into the sum of its stock. Sums of areas are doubles, so
 * a mix that holds the load but for 1e-12 of it counts as holding it.
 */
export function leastMixCost(types: readonly MixType[], load: number, bound: number, most: number): number {
  const step = commonStep(types);
  const raised = raisedToStep(types, bound);
  if (step === 0 || most / step > MOST_CELLS || raised >= most) return Math.min(raised, most);
  // No mix above `most` is looked for; where that is a sum itself, noise in the quotient must not lose it.
  const cells = Math.floor(most / step + 1e-6);
  const holds = new Float64Array(cells + 1).fill(Number.NEGATIVE_INFINITY);
  holds[0] = types.reduce((sum, type) => sum + (type.cost === 0 ? type.available * type.holds : 0), 0);
  for (const type of types) if (type.cost > 0) addType(holds, type, Math.round(type.cost / step));
  const wanted = load * (1 - 1e-12);
  for (let cell = Math.round(raised / step); cell <= cells; cell++) {
    if (at(holds, cell) >= wanted) return cell * step;
  }
  return most;
}

/** Bounded knapsack over exact costs; counts beyond what the cells allow are of no use. */
function addType(holds: Float64Array, type: MixType, width: number): void {
  const cells = holds.length - 1;
  let copies = Math.min(type.available, Math.floor(cells / width));
  for (let bundle = 1; copies > 0; bundle *= 2) {
    const taken = Math.min(bundle, copies);
    copies -= taken;
    for (let cell = cells; cell >= taken * width; cell--) {
      const candidate = at(holds, cell - taken * width) + taken * type.holds;
      if (candidate > at(holds, cell)) holds[cell] = candidate;
    }
  }
}
