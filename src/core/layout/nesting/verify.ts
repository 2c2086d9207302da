/** The check of shape layouts, on plain polygons: null, or what is wrong. */
import { boxOfPoints, type Polygon, polygonDistance, sharedArea } from "../../geometry";
import { at } from "../../kernel";
import { claimFault } from "../stock";
import {
  liesWithGrain,
  lyingOutline,
  type NestingLayout,
  type NestingProblem,
  type ShapePlacement,
} from "./problem";

/** What a gap may fall short by: a thousandth for exact fits, and what rounding corners to whole thousandths takes off. */
const SLACK = 0.004;

export type NestingFault = { readonly kind: "unknown" | "off" | "against" | "taken"; readonly words: string };

/** What is wrong with one sheet: a shape off it, against the grain or nearer than the gap to another; null: nothing. */
export function nestingFault(
  problem: NestingProblem,
  stock: number,
  placements: readonly ShapePlacement[],
): NestingFault | null {
  const size = problem.stock[stock];
  if (!size) return { kind: "unknown", words: `there is no stock ${stock}` };
  const { margin, gap } = problem;
  const outlines: Polygon[] = [];
  for (const one of placements) {
    const shape = problem.shapes[one.shape];
    if (!shape) return { kind: "unknown", words: `there is no shape ${one.shape}` };
    const outline = lyingOutline(problem, one);
    outlines.push(outline);
    const { x0, y0, x1, y1 } = boxOfPoints(outline);
    const inside =
      x0 >= margin - SLACK &&
      y0 >= margin - SLACK &&
      x1 <= size.length - margin + SLACK &&
      y1 <= size.width - margin + SLACK;
    if (!inside) return { kind: "off", words: `shape ${one.shape} lies off it` };
    if (shape.grain && !one.against && !liesWithGrain(size.grain, one.angle))
      return { kind: "against", words: `shape ${one.shape} lies across the grain` };
  }
  const boxes = outlines.map(boxOfPoints);
  for (let k = 1; k < outlines.length; k++)
    for (let other = 0; other < k; other++) {
      const [a, b] = [at(boxes, other), at(boxes, k)];
      if (a.x1 + gap < b.x0 || b.x1 + gap < a.x0 || a.y1 + gap < b.y0 || b.y1 + gap < a.y0) continue;
      if (!areApart(at(outlines, other), at(outlines, k), gap))
        return { kind: "taken", words: `shapes ${other} and ${k} are nearer than the gap` };
    }
  return null;
}

/** Why locked shapes cannot stay: there are fewer of them or of their hand, or they cannot lie so; null: they can. */
export function lockedNestingFault(problem: NestingProblem): string | null {
  for (const [i, { qty, opposite }] of problem.shapes.entries()) {
    const locked = problem.fixed.flatMap(({ placements }) => placements.filter(({ shape }) => shape === i));
    const mirrored = locked.filter((one) => one.mirrored).length;
    if (locked.length > qty) return `shape ${i} is locked ${locked.length} times, and there are ${qty}`;
    if (opposite === null) continue;
    if (mirrored > opposite) return `shape ${i} is locked mirrored ${mirrored} times of ${opposite}`;
    if (locked.length - mirrored > qty - opposite)
      return `shape ${i} is locked as drawn ${locked.length - mirrored} times of ${qty - opposite}`;
  }
  for (const [i, { stock, placements }] of problem.fixed.entries()) {
    const fault = nestingFault(problem, stock, placements);
    if (fault) return `on locked sheet ${i + 1} ${fault.words}`;
  }
  const over = problem.stock.findIndex(
    ({ count }, i) => count !== null && problem.fixed.filter(({ stock }) => stock === i).length > count,
  );
  return over >= 0 ? `stock ${over} is locked more often than it is there` : null;
}

/** Whether two shapes keep the gap; without one they may touch, but not lie upon one another. */
function areApart(a: Polygon, b: Polygon, gap: number): boolean {
  if (gap > SLACK) return polygonDistance(a, b) >= gap - SLACK;
  return sharedArea(a, b) <= SLACK * (lengthRound(a) + lengthRound(b));
}

const lengthRound = (polygon: Polygon) =>
  polygon.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = at(polygon, (i + 1) % polygon.length);
    return sum + Math.hypot(nextX - x, nextY - y);
  }, 0);

export function verifyNesting(problem: NestingProblem, layout: NestingLayout): string | null {
  const placed = problem.shapes.map(() => 0);
  const mirrored = problem.shapes.map(() => 0);
  const used = problem.stock.map(() => 0);
  for (const [i, sheet] of layout.sheets.entries()) {
    const fault = nestingFault(problem, sheet.stock, sheet.placements);
    if (fault) return `sheet ${i}: ${fault.words}`;
    used[sheet.stock] = (used[sheet.stock] ?? 0) + 1;
    for (const one of sheet.placements) {
      placed[one.shape] = (placed[one.shape] ?? 0) + 1;
      if (one.mirrored) mirrored[one.shape] = (mirrored[one.shape] ?? 0) + 1;
    }
    const rest = restFault(problem, sheet);
    if (rest) return `sheet ${i}: ${rest}`;
  }
  const waiting = problem.shapes.map(() => 0);
  for (const { shape, qty } of layout.unplaced) waiting[shape] = (waiting[shape] ?? 0) + qty;
  for (const [i, { qty, opposite }] of problem.shapes.entries()) {
    const all = at(placed, i) + at(waiting, i);
    if (all !== qty) return `shape ${i} is placed ${all} times of ${qty}`;
    if (opposite === null) continue;
    const most = [at(mirrored, i), at(placed, i) - at(mirrored, i)];
    if (at(most, 0) > opposite || at(most, 1) > qty - opposite)
      return `shape ${i} lies mirrored ${at(most, 0)} times of ${opposite}`;
  }
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && at(used, i) > stock.count);
  if (over >= 0) return `stock ${over} is used ${used[over]} times`;
  return (
    turnFault(problem, layout) ??
    utilisationFault(problem, layout) ??
    lockFault(problem, layout) ??
    claimFault(layout, {
      used: layout.sheets.map(({ stock }) => at(problem.stock, stock)),
      stock: problem.stock.map(({ price }) => price),
      isImpossible: (i) => isTooLarge(problem, layout.unplaced[i]?.shape ?? -1),
      plain: () => leastByArea(problem, layout),
    })
  );
}

/** Shapes are turned by whole steps, but for those that are locked as they are. */
function turnFault(problem: NestingProblem, layout: NestingLayout): string | null {
  const { step } = problem;
  for (const one of layout.sheets.flatMap(({ placements }) => placements)) {
    if (one.locked) continue;
    const off = step === 0 ? one.angle : one.angle - Math.round(one.angle / step) * step;
    if (Math.abs(off) > 1e-9 || one.angle < 0 || one.angle >= 360 + 1e-9)
      return `shape ${one.shape} is turned by ${one.angle}°, and the step is ${step}°`;
  }
  return null;
}

const areaWithin = (polygon: Polygon) =>
  Math.abs(
    polygon.reduce((sum, [x, y], i) => {
      const [nextX, nextY] = at(polygon, (i + 1) % polygon.length);
      return sum + x * nextY - nextX * y;
    }, 0) / 2,
  );

const bare = (shape: number): ShapePlacement => ({ shape, angle: 0, x: 0, y: 0 });

function utilisationFault(problem: NestingProblem, layout: NestingLayout): string | null {
  let [shapes, sheets] = [0, 0];
  for (const { stock, placements } of layout.sheets) {
    const { length, width } = at(problem.stock, stock);
    sheets += length * width;
    for (const { shape } of placements) shapes += areaWithin(lyingOutline(problem, bare(shape)));
  }
  const share = sheets === 0 ? 0 : shapes / sheets;
  return Math.abs(share - layout.utilisation) > 1e-6
    ? `utilisation ${layout.utilisation} should be ${share}`
    : null;
}

/** The shape is longer, or has more area, than any sheet whatever its turn: no layout holds it. */
function isTooLarge(problem: NestingProblem, shape: number): boolean {
  const { x0, y0, x1, y1 } = boxOfPoints(lyingOutline(problem, bare(shape)));
  return problem.stock.every(({ length, width, count }) => {
    const [l, w] = [length - 2 * problem.margin, width - 2 * problem.margin];
    const as = x1 - x0 <= l + SLACK && y1 - y0 <= w + SLACK;
    const turned = x1 - x0 <= w + SLACK && y1 - y0 <= l + SLACK;
    return count === 0 || !(as || turned);
  });
}

const MOST_MIXES = 50_000;

/** The cheapest stock that has the area of the shapes, found by trying all mixes: the bound of areas is no higher. */
function leastByArea(
  problem: NestingProblem,
  layout: NestingLayout,
): { readonly cost: number | null; readonly count: number } | null {
  const out = new Set(layout.unplaced.map(({ shape }) => shape));
  const area = problem.shapes.reduce(
    (sum, { qty }, i) => sum + (out.has(i) ? 0 : qty * areaWithin(lyingOutline(problem, bare(i)))),
    0,
  );
  const types = problem.stock.map(({ length, width, price, count, rack }) => ({
    bought: rack === null ? 1 : 0,
    holds: Math.max(0, length - 2 * problem.margin) * Math.max(0, width - 2 * problem.margin),
    price,
    most: Math.min(count ?? Number.POSITIVE_INFINITY, layout.count),
  }));
  if (types.reduce((product, { most }) => product * (most + 1), 1) > MOST_MIXES) return null;
  let [cost, count] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const visit = (i: number, holds: number, paid: number, sheets: number): void => {
    const type = types[i];
    if (!type) {
      if (holds < area * (1 - 1e-9)) return;
      cost = Math.min(cost, paid);
      count = Math.min(count, sheets);
      return;
    }
    for (let n = 0; n <= type.most; n++)
      visit(i + 1, holds + n * type.holds, paid + n * (type.price ?? 0), sheets + n * type.bought);
  };
  visit(0, 0, 0, 0);
  if (!Number.isFinite(count)) return null;
  return { cost: types.some(({ price }) => price === null) ? null : cost, count };
}

/** One offcut across the end of a sheet at most, from the tenth of a millimetre behind the last shape and its gap on. */
function restFault(problem: NestingProblem, sheet: NestingLayout["sheets"][number]): string | null {
  const { length, width } = at(problem.stock, sheet.stock);
  const reach =
    Math.max(0, ...sheet.placements.map((one) => boxOfPoints(lyingOutline(problem, one)).x1)) + problem.gap;
  const [rest] = sheet.offcuts;
  if (!rest) return length - reach > 0.1 + SLACK ? "an offcut is not told" : null;
  if (sheet.offcuts.length > 1) return "more than one offcut";
  if (rest.x < reach - SLACK) return "an offcut has a shape in it";
  const isWhole =
    rest.y === 0 &&
    rest.length > 0 &&
    Math.abs(rest.width - width) < 1e-9 &&
    Math.abs(rest.x + rest.length - length) < 1e-6;
  return isWhole && rest.x <= reach + 0.1 + SLACK ? null : "an offcut of another size than what is left";
}

const keyOf = ({ shape, angle, x, y, mirrored }: ShapePlacement) =>
  `${shape}@${angle},${x},${y},${mirrored ?? false}`;

/** Every locked shape lies where it was locked, with the others of its sheet. */
function lockFault(problem: NestingProblem, layout: NestingLayout): string | null {
  const rest = layout.sheets.map(({ stock, placements }) => ({
    stock,
    keys: new Set(placements.filter((one) => one.locked).map(keyOf)),
  }));
  for (const { stock, placements } of problem.fixed) {
    const found = rest.findIndex(
      (sheet) => sheet.stock === stock && placements.every((one) => sheet.keys.has(keyOf(one))),
    );
    if (found < 0) return "a locked shape does not lie where it was locked";
    rest.splice(found, 1);
  }
  return null;
}
