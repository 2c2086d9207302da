/**
 * Bar layouts on instances of the published kinds and on shop-like ones: the share that is proven best and the time,
 * beside first-fit decreasing run on the same instance. Classes: uniform and triplets, E. Falkenauer, "A hybrid grouping
 * genetic algorithm for bin packing", Journal of Heuristics 2 (1996); set 1 of A. Scholl, R. Klein and C. Jürgens, "BISON",
 * Computers & Operations Research 24 (1997); the generators follow the class definitions, the seeds are our own. The
 * paper-roll example is known from the cutting-stock literature (its 73 rolls recomputed by an exact solver).
 */
import { type Random, seededRandom } from "@/core/kernel";
import {
  type BarProblem,
  type BarProblemInput,
  layOutBars,
  readBarProblem,
  verifyBars,
} from "@/core/layout/bars";
import { loadLinearSolver } from "@/engines/linear-solver";
import { firstFitBars } from "./references";

const BUDGET_MS = 10_000;
const MANY = 1000;
const between = (random: Random, low: number, high: number) => low + random.below(high - low + 1);

function problemOf(lengths: readonly number[], stock: BarProblemInput["stock"], kerf = 0): BarProblem {
  const counts = new Map<number, number>();
  for (const length of lengths) counts.set(length, (counts.get(length) ?? 0) + 1);
  return readBarProblem({ kerf, stock, pieces: [...counts].map(([length, qty]) => ({ length, qty })) });
}
const bar = (length: number, price: number, count: number | null = null) => ({ length, price, count });

const uniform = (n: number) => (random: Random) =>
  problemOf(
    Array.from({ length: n }, () => between(random, 20, 100)),
    [bar(150, 1)],
  );

/** Three items fill a bin of 1000 exactly: 380–490, then 250 to half of the rest, then the rest. */
const triplets = (n: number) => (random: Random) =>
  problemOf(
    Array.from({ length: n / 3 }, () => {
      const first = between(random, 380, 490);
      const second = between(random, 250, Math.floor((1000 - first) / 2));
      return [first, second, 1000 - first - second];
    }).flat(),
    [bar(1000, 1)],
  );

const scholl = (n: number) => (random: Random) =>
  problemOf(
    Array.from({ length: n }, () => between(random, [1, 20, 30][random.below(3)] ?? 1, 100)),
    [bar([100, 120, 150][random.below(3)] ?? 100, 1)],
  );

/** 8 to 40 lengths of 80–2,900 mm, 1 to 40 of each, on bars of one or of several lengths and prices. */
const shop = (stock: BarProblemInput["stock"]) => (random: Random) =>
  problemOf(
    Array.from({ length: between(random, 8, 40) }, () => {
      const length = between(random, 80, 2900);
      return Array.from({ length: between(random, 1, 40) }, () => length);
    }).flat(),
    stock,
    2.5,
  );

const PAPER_ROLLS = readBarProblem({
  kerf: 0,
  stock: [bar(5600, 1)],
  pieces: (
    [
      [1380, 22],
      [1520, 25],
      [1560, 12],
      [1710, 14],
      [1820, 18],
      [1880, 18],
      [1930, 20],
      [2000, 10],
      [2050, 12],
      [2100, 14],
      [2140, 16],
      [2150, 18],
      [2200, 20],
    ] as const
  ).map(([length, qty]) => ({ length, qty })),
});

const CLASSES: readonly (readonly [string, number, (random: Random) => BarProblem])[] = [
  ["paper rolls (73)", 1, () => PAPER_ROLLS],
  ["uniform, 120 items", 10, uniform(120)],
  ["uniform, 250 items", 10, uniform(250)],
  ["uniform, 500 items", 5, uniform(500)],
  ["triplets, 60 items", 5, triplets(60)],
  ["triplets, 120 items", 5, triplets(120)],
  ["Scholl set 1, 200 items", 10, scholl(200)],
  ["shop, one length", 20, shop([bar(6000, 24)])],
  ["shop, three lengths with prices", 10, shop([bar(6000, 24), bar(7500, 31), bar(3000, 13)])],
  [
    "shop, 300 lengths, 2,000 pieces",
    3,
    (random) =>
      problemOf(
        Array.from({ length: 300 }, () => {
          const length = between(random, 80, 2900);
          return Array.from({ length: between(random, 5, 8) }, () => length);
        }).flat(),
        [bar(6000, 24)],
        2.5,
      ),
  ],
  [
    "shop, two lengths and rack pieces",
    10,
    shop([bar(6000, 24), bar(7500, 31), bar(2100, 0, 2), bar(1450, 0, 1), bar(3320, 0, 3)]),
  ],
];

/** ms. What is asked of shop lists of one length. */
const QUICK_MS = 2_000;

/** All classes, or those whose name holds `only`, with `times` as many instances of each. */
export async function barTable(
  median: (values: readonly number[]) => number,
  only = "",
  times = 1,
): Promise<void> {
  const solver = await loadLinearSolver();
  console.log(
    `Bar layouts, ${BUDGET_MS / 1000} s each: proven best, time to the proof, beside first-fit decreasing`,
  );
  for (const [name, usual, make] of CLASSES.filter(([name]) => name.includes(only))) {
    const count = usual * times;
    const random = seededRandom(11);
    const proofs: number[] = [];
    const firsts: number[] = [];
    let [proven, gap, excess] = [0, 0, 0];
    for (let i = 0; i < count; i++) {
      const problem = make(random);
      const start = performance.now();
      let [first, proof] = [0, 0];
      const layout = layOutBars(problem, {
        solver,
        now: () => performance.now(),
        budgetMs: BUDGET_MS,
        onProgress: ({ best }) => {
          if (first === 0) first = performance.now() - start;
          if (proof === 0 && best.proven) proof = performance.now() - start;
        },
      });
      firsts.push(first);
      proofs.push(proof || performance.now() - start);
      const fault = verifyBars(problem, layout);
      if (fault !== null) throw new Error(`${name}: ${fault}`);
      if (layout.proven) proven++;
      const value = (layout.lowerBoundOf === "cost" ? layout.cost : layout.count) ?? layout.count;
      gap = Math.max(gap, value / layout.lowerBound - 1);
      const simple = firstFitBars(problem);
      excess += (simple.cost ?? simple.count) / (layout.cost ?? layout.count) - 1;
    }
    const sorted = [...proofs].sort((a, b) => a - b);
    const p90 = sorted[Math.floor(sorted.length * 0.9)] ?? sorted.at(-1) ?? 0;
    const quick = sorted.filter((time) => time <= QUICK_MS).length;
    console.log(
      `  ${name.padEnd(36)}${`${proven} of ${count}`.padStart(9)} proven  median ${(median(proofs) / 1000).toFixed(2)} s, 90 % within ${(p90 / 1000).toFixed(2)} s, ${quick} within ${QUICK_MS / 1000} s, first answer ${Math.max(...firsts).toFixed(0)} ms at most, greatest gap ${(gap * 100).toFixed(2)} %; first-fit ${((excess / count) * 100).toFixed(1)} % dearer`,
    );
  }
  memoryLine(solver);
  console.log("");
}

/** Memory over many problems in one process, as a long day at the desk would have it. */
function memoryLine(solver: Awaited<ReturnType<typeof loadLinearSolver>>): void {
  const random = seededRandom(5);
  const make = shop([bar(6000, 24), bar(7500, 31)]);
  const resident = () => Math.round(process.memoryUsage().rss / 1e6);
  const marks: number[] = [];
  for (let i = 0; i < MANY; i++) {
    // Short budgets: what is asked is whether anything is left behind.
    layOutBars(make(random), { solver, now: () => performance.now(), budgetMs: 60 });
    if (i === 99 || i === MANY - 1) marks.push(resident());
  }
  console.log(`  memory: ${marks[0]} MB after 100 problems, ${marks[1]} MB after ${MANY}`);
}
