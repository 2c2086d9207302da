/**
 * Free shapes: plates of a welding shop, generated; sheets and the share of the last one used, beside the areas' bound and
 * beside a general-purpose packer of their boxes (`maxrects-packer`), which is what a saw would have to cut first.
 */
import { boxOfPoints, type Vec2 } from "@/core/geometry";
import { at, type Random, seededRandom } from "@/core/kernel";
import {
  layOutNesting,
  type NestingLayout,
  type NestingProblemInput,
  readNestingProblem,
} from "@/core/layout/nesting";
import { MaxRectsPacker } from "../node_modules/maxrects-packer/dist/maxrects-packer.mjs";

type Outline = NestingProblemInput["shapes"][number]["outline"];
type Draw = (random: Random) => Outline;

const size = (random: Random, low: number, high: number) => low + random.below(high - low + 1);
const QUARTER = Math.tan(Math.PI / 8);

const gusset: Draw = (random) => {
  const [a, b, blunt] = [size(random, 60, 220), size(random, 60, 220), size(random, 8, 25)];
  return [
    [10, 0],
    [a, 0],
    [a, blunt],
    [blunt, b],
    [0, b],
    [0, 10],
  ];
};
const angle: Draw = (random) => {
  const [a, b, leg] = [size(random, 80, 240), size(random, 80, 240), size(random, 20, 50)];
  return [
    [0, 0],
    [a, 0],
    [a, leg],
    [leg, leg],
    [leg, b],
    [0, b],
  ];
};
const lug: Draw = (random) => {
  const [r, h] = [size(random, 15, 40), size(random, 20, 90)];
  return [
    [0, 0],
    [2 * r, 0],
    [2 * r, h, QUARTER],
    [r, h + r, QUARTER],
    [0, h],
  ];
};
const plate: Draw = (random) => {
  const [a, b] = [size(random, 60, 300), size(random, 40, 160)];
  return [
    [0, 0],
    [a, 0],
    [a, b],
    [0, b],
  ];
};
const CLASSES: readonly (readonly [string, readonly Draw[]])[] = [
  ["gussets", [gusset]],
  ["angles", [angle]],
  ["lugs", [lug]],
  ["plates", [plate]],
  ["of all kinds", [gusset, angle, lug, plate]],
];
const [LENGTH, WIDTH, GAP, MARGIN] = [1500, 1000, 6, 10];

function problemOf(draws: readonly Draw[], count: number, seed: number) {
  const random = seededRandom(seed);
  const shapes = Array.from({ length: Math.ceil(count / 5) }, (_, i) => ({
    outline: at(draws, i % draws.length)(random),
    qty: 5,
    opposite: null,
  }));
  return readNestingProblem({
    gap: GAP,
    margin: MARGIN,
    stock: [{ length: LENGTH, width: WIDTH, price: 100 }],
    shapes,
  });
}

/** Sheets that the boxes of the shapes need. */
function boxes(problem: ReturnType<typeof problemOf>): number {
  const all = problem.shapes.flatMap(({ outline, qty }) => {
    const { x0, y0, x1, y1 } = boxOfPoints(outline.map(([x, y]): Vec2 => [x, y]));
    return Array.from({ length: qty }, () => ({ width: x1 - x0 + GAP, height: y1 - y0 + GAP, x: 0, y: 0 }));
  });
  const [length, width] = [LENGTH - 2 * MARGIN + GAP, WIDTH - 2 * MARGIN + GAP];
  const packer = new MaxRectsPacker(length, width, 0, {
    smart: false,
    pot: false,
    square: false,
    allowRotation: true,
  });
  packer.addArray(all as never);
  return packer.bins.length;
}

/** Sheets, the last one as far as it is used. */
const used = ({ sheets, count }: NestingLayout) =>
  count - Math.max(0, ...sheets.map(({ offcuts }) => (offcuts[0]?.length ?? 0) / LENGTH));

export function shapeTable(budgetMs = 3_000): void {
  console.log(`Free shapes on plates of ${LENGTH} × ${WIDTH}, gap ${GAP}, ${budgetMs / 1000} s each`);
  console.log("  kind          pieces   first answer   sheets (used)   bound   boxes   used ÷ bound by area");
  for (const [name, draws] of CLASSES)
    for (const count of [50, 200]) {
      const sums = { first: 0, sheets: 0, used: 0, bound: 0, boxes: 0, area: 0 };
      for (const seed of [1, 2, 3]) {
        const problem = problemOf(draws, count, seed);
        const start = performance.now();
        let first: number | null = null;
        const layout = layOutNesting(problem, {
          seed: 1,
          now: () => performance.now(),
          budgetMs,
          onProgress: () => {
            first ??= performance.now() - start;
          },
        });
        sums.first = Math.max(sums.first, first ?? 0);
        sums.sheets += layout.count;
        sums.used += used(layout);
        sums.bound += layout.lowerBound / 100;
        sums.boxes += boxes(problem);
        sums.area +=
          (layout.utilisation * layout.count * LENGTH * WIDTH) /
          ((LENGTH - 2 * MARGIN) * (WIDTH - 2 * MARGIN));
      }
      console.log(
        `  ${name.padEnd(13)}${String(count).padStart(5)}${`${sums.first.toFixed(0)} ms`.padStart(14)}${`${sums.sheets} (${sums.used.toFixed(2)})`.padStart(16)}${String(sums.bound).padStart(8)}${String(sums.boxes).padStart(8)}${(sums.used / sums.area).toFixed(3).padStart(15)}`,
      );
    }
}
