/** From shapes that lie on sheets to a layout: count, cost, bound, and what is left at the end of each sheet. */
import { boxOfPoints, polygonArea } from "../../geometry";
import { at } from "../../kernel";
import { judged, leastMixCost, type MixType } from "../stock";
import {
  lyingOutline,
  type NestingLayout,
  type NestingProblem,
  type NestingSheet,
  ownPolygon,
  type ShapePlacement,
  type ShapeRest,
  type UnplacedShape,
} from "./problem";

/** Four places of money, so that costs are whole numbers. */
const MONEY = 10_000;

export type BoundOf = { readonly lowerBound: number; readonly lowerBoundOf: "cost" | "count" };

/**
 * The least cost (where every size has its price, else the least number) that the areas of the shapes need, in sheets whose
 * margins are taken off; `most` is that of a layout that exists. Holds for every layout.
 */
export function areaBound(problem: NestingProblem, area: number, most: number): number {
  const priced = isPriced(problem);
  const types = problem.stock.map(({ length, width, price, count, rack }): MixType => {
    const { margin } = problem;
    return {
      // A rack piece is there already: it is not bought.
      cost: priced ? Math.round((price ?? 0) * MONEY) : rack === null ? MONEY : 0,
      holds: Math.max(0, length - 2 * margin) * Math.max(0, width - 2 * margin),
      available: count ?? Number.POSITIVE_INFINITY,
    };
  });
  return leastMixCost(types, area, relaxed(types, area), Math.round(most * MONEY)) / MONEY;
}

/** Cheapest area first, limited sheets only as far as they go. */
function relaxed(types: readonly MixType[], area: number): number {
  let [rest, cost] = [area, 0];
  for (const type of [...types].sort((a, b) => a.cost / a.holds - b.cost / b.holds)) {
    if (rest <= 0 || type.holds === 0) break;
    const sheets = Math.min(type.available, rest / type.holds);
    cost += sheets * type.cost;
    rest -= sheets * type.holds;
  }
  // A hair down before it is rounded up: the sum is made of doubles.
  return cost * (1 - 1e-12) - 1e-6;
}

export const isPriced = ({ stock }: NestingProblem) => stock.every(({ price }) => price !== null);

export const areaOfShape = (problem: NestingProblem, shape: number): number =>
  polygonArea(ownPolygon(problem, shape, false));

/** The strip across the end of a sheet that no shape comes nearer to than the gap. */
function restsOf(
  problem: NestingProblem,
  stock: number,
  placements: readonly ShapePlacement[],
): readonly ShapeRest[] {
  const { length, width } = at(problem.stock, stock);
  const ends = placements.map((one) => boxOfPoints(lyingOutline(problem, one)).x1);
  // Rounded up to a tenth: nobody sets a cut finer, and it keeps clear of the shape.
  const x = Math.ceil((Math.max(0, ...ends) + problem.gap) * 10) / 10;
  return length - x > 0 ? [{ x, y: 0, length: length - x, width }] : [];
}

/** A layout of sheets with its sums; `bound` holds for it with all shapes placed. */
export function layoutOf(
  problem: NestingProblem,
  all: readonly Pick<NestingSheet, "stock" | "placements">[],
  { bound, unplaced }: { readonly bound: BoundOf; readonly unplaced: readonly UnplacedShape[] },
): NestingLayout {
  const sheets = all
    .filter((sheet) => sheet.placements.length > 0)
    .map(({ stock, placements }) => ({ stock, placements, offcuts: restsOf(problem, stock, placements) }));
  const used = sheets.flatMap(({ placements }) => placements);
  const whole = sheets.reduce((sum, { stock }) => {
    const { length, width } = at(problem.stock, stock);
    return sum + length * width;
  }, 0);
  const areas = problem.shapes.map((_, shape) => areaOfShape(problem, shape));
  return {
    sheets,
    lowerBoundOf: bound.lowerBoundOf,
    ...judged(
      { ...bound, unplaced },
      sheets.map(({ stock }) => at(problem.stock, stock)),
    ),
    utilisation: whole === 0 ? 0 : used.reduce((sum, { shape }) => sum + at(areas, shape), 0) / whole,
    unplaced,
  };
}
