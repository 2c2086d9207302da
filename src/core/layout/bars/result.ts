/** From a plan of patterns to the bars of a layout: pieces dealt out, ordered on their bars, with what is left over. */
import { addTo, at, fromNm, toNm } from "../../kernel";
import { boughtCount, costOf } from "../stock";
import type { BarInstance } from "./instance";
import { endLossNm, gapNm, sharesCut, type Way, waysOf } from "./mitre";
import { costOfPlan, type UsedPattern } from "./pattern";
import {
  type BarLayout,
  type BarProblem,
  type CutBar,
  type PieceTurn,
  trims,
  type Unplaced,
} from "./problem";

export type Outcome = {
  readonly bound: number;
  readonly proven: boolean;
  readonly unplaced: readonly Unplaced[];
};

export function toLayout(
  problem: BarProblem,
  instance: BarInstance,
  plan: readonly UsedPattern[],
  outcome: Outcome,
): BarLayout {
  const queues = instance.sizes.map((size) => [...size.pieces]);
  const bars = plan.flatMap((used) => toBars(problem, instance, used, queues));
  const begun = new Set(plan.map(({ pattern }) => at(instance.types, pattern.type).fixed));
  problem.fixed.forEach((_, fixed) => {
    if (!begun.has(fixed)) bars.push(fixedBar(problem, instance, fixed, []));
  });
  const left = queues.flat();
  const short = [...new Set(left)].map(
    (piece): Unplaced => ({
      piece,
      qty: left.filter((one) => one === piece).length,
      why: { kind: "usedUp" },
    }),
  );
  const count = bars.length;
  const bought = boughtCount(bars.map((bar) => at(problem.stock, bar.stock)));
  const cost = instance.sunk + costOfPlan(instance, plan);
  const bound = instance.sunk + outcome.bound;
  const merged = mergedBars(bars);
  const shared = problem.share ? sharedBy(problem, merged) : null;
  return {
    bars: merged,
    cost: instance.priced
      ? cost / 10_000
      : costOf(merged.map((bar) => [at(problem.stock, bar.stock).price, bar.times])),
    count,
    lowerBound: instance.priced ? bound / 10_000 : countBound(instance, bound, outcome.proven, bought),
    lowerBoundOf: instance.priced ? "cost" : "count",
    proven: outcome.proven && short.length === 0,
    unplaced: [...outcome.unplaced, ...short],
    ...(shared ? { shared } : {}),
  };
}

/** Without prices the cost weighs a bar and its length; the number of bars to buy is bounded from it. */
function countBound(instance: BarInstance, bound: number, proven: boolean, bought: number): number {
  if (proven) return bought;
  const dearest = Math.max(0, ...instance.types.map((type) => type.cost));
  return dearest === 0 ? 0 : Math.min(bought, Math.ceil(bound / dearest));
}

/** Pieces of one length but from different rows of the problem are dealt out in order, bar by bar. */
function toBars(
  problem: BarProblem,
  instance: BarInstance,
  { pattern, times }: UsedPattern,
  queues: number[][],
): readonly CutBar[] {
  const { stock, fixed } = at(instance.types, pattern.type);
  const bars: CutBar[] = [];
  // A few of hundreds of sizes: looked up once, or the bars of a long list take longer to deal out than to fill.
  const taken = pattern.counts.flatMap((count, size) =>
    count > 0 ? [{ count, queue: at(queues, size) }] : [],
  );
  for (let i = 0; i < times; i++) {
    const pieces = taken.flatMap(({ count, queue }) => queue.splice(0, count));
    // A rack piece costs nothing, so a plan may name one more than there are pieces for.
    if (fixed === null && pieces.length === 0) continue;
    if (fixed === null) bars.push(orderedBar(problem, instance, stock, pieces));
    else bars.push(fixedBar(problem, instance, fixed, pieces));
  }
  return bars;
}

/** A bar with pieces in their best order. */
function orderedBar(
  problem: BarProblem,
  instance: BarInstance,
  stock: number,
  pieces: readonly number[],
): CutBar {
  if (instance.orderer === null)
    return { stock, times: 1, pieces, remainder: remainderOf(problem, { stock, pieces }) };
  return laidBar(problem, stock, inOrder(problem, instance, pieces));
}

type Lying = { readonly piece: number; readonly turn: PieceTurn | null };

/** Pieces in the order in which their neighbours share most; of one pair of ends the longest first. */
function inOrder(problem: BarProblem, instance: BarInstance, pieces: readonly number[]): readonly Lying[] {
  const { orderer } = instance;
  if (!orderer) return pieces.map((piece) => ({ piece, turn: null }));
  const classOf = (piece: number) => orderer.classOf(problem.pieces[piece]?.ends ?? null);
  const byClass = new Map<number, number[]>();
  for (const piece of [...pieces].sort((a, b) => at(problem.pieces, b).length - at(problem.pieces, a).length))
    addTo(byClass, classOf(piece), piece);
  const counts = Array.from({ length: instance.endClasses }, (_, c) => byClass.get(c)?.length ?? 0);
  return orderer.order(counts).sequence.map(({ endClass, way }) => {
    const piece = byClass.get(endClass)?.shift() ?? 0;
    return { piece, turn: turnFor(at(problem.pieces, piece).ends, way) };
  });
}

/** The turn that brings a piece's own ends into a way; pieces of one class may need different ones. */
function turnFor(ends: BarProblem["pieces"][number]["ends"], way: Way): PieceTurn | null {
  const same = (one: Way) => sameSlope(one.left, way.left) && sameSlope(one.right, way.right);
  return waysOf(ends).find(same)?.turn ?? null;
}
const sameSlope = (a: Way["left"], b: Way["left"]) => a.tan === b.tan && (a.tan === 0 || a.plane === b.plane);

function laidBar(problem: BarProblem, stock: number, lying: readonly Lying[]): CutBar {
  const pieces = lying.map(({ piece }) => piece);
  const turns = lying.map(({ turn }) => turn);
  const bar = { stock, times: 1, pieces, ...(turns.some((turn) => turn !== null) ? { turns } : {}) };
  return { ...bar, remainder: remainderOf(problem, bar) };
}

/** A bar with locked pieces: they keep their places as far as there are pieces before them. */
function fixedBar(
  problem: BarProblem,
  instance: BarInstance,
  fixed: number,
  pieces: readonly number[],
): CutBar {
  const { stock, pieces: locked } = at(problem.fixed, fixed);
  const all = [...locked.map(({ piece }) => piece), ...pieces];
  const lockedAt = (order: readonly Lying[]) => {
    const rest = locked.map(({ piece }) => piece);
    return order.flatMap(({ piece }, place) => {
      const found = rest.indexOf(piece);
      if (found < 0) return [];
      rest.splice(found, 1);
      return [place];
    });
  };
  if (instance.orderer) {
    const order = inOrder(problem, instance, all);
    return { ...laidBar(problem, stock, order), locked: lockedAt(order) };
  }
  const order: Lying[] = pieces.map((piece) => ({ piece, turn: null }));
  const places: number[] = [];
  for (const { piece, place } of [...locked].sort((a, b) => a.place - b.place)) {
    const position = Math.min(place, order.length);
    order.splice(position, 0, { piece, turn: null });
    places.push(position);
  }
  return { ...laidBar(problem, stock, order), locked: places };
}

/** The way in which a piece of a bar lies. */
function wayOf(problem: BarProblem, bar: Pick<CutBar, "pieces" | "turns">, place: number): Way {
  const turn = bar.turns?.[place] ?? null;
  const ways = waysOf(problem.pieces[at(bar.pieces, place)]?.ends ?? null);
  return ways.find((way) => way.turn === turn) ?? at(ways, 0);
}

/** Nanometres from the start of a bar to where each piece's mid-length begins, and to the end of the last piece. */
export function placesNm(
  problem: BarProblem,
  bar: Pick<CutBar, "pieces" | "turns">,
): { readonly starts: readonly number[]; readonly endNm: number } {
  const kerfNm = toNm(problem.kerf);
  let position = 0;
  let last: Way | null = null;
  const starts: number[] = [];
  bar.pieces.forEach((piece, place) => {
    const way = wayOf(problem, bar, place);
    position += last ? gapNm(last.right, way.left, kerfNm, problem.share) : endLossNm(way.left);
    starts.push(position);
    position += toNm(at(problem.pieces, piece).length) - endLossNm(way.left) - endLossNm(way.right);
    last = way;
  });
  const final: Way | null = last;
  return { starts, endNm: position + (final === null ? 0 : endLossNm((final as Way).right)) };
}

/** Whether a piece of a bar and the one before it share a mitred cut. */
export const isShared = (problem: BarProblem, bar: CutBar, place: number): boolean =>
  sharesCut(wayOf(problem, bar, place - 1).right, wayOf(problem, bar, place).left);

/** tan of the two end angles of a piece as it lies, as the saw's table shows it; null: its ends do not lean in one plane. */
export function leansOf(
  problem: BarProblem,
  piece: number,
  turn: PieceTurn | null,
): readonly [number, number] | null {
  if ((problem.pieces[piece]?.ends ?? null) === null) return null;
  const { left, right } = wayOf(problem, { pieces: [piece], turns: [turn] }, 0);
  return [left.tan, right.tan];
}

/** A piece on a bar, in mm from the start of the bar: its ends at the upper and the lower edge as the saw's table shows it. */
export type PieceOutline = {
  readonly start: { readonly upper: number; readonly lower: number };
  readonly end: { readonly upper: number; readonly lower: number };
};

/** The outline of each piece of a bar, trims included, so that shared cuts lie on one another but for the kerf. */
export function pieceOutlines(
  problem: BarProblem,
  bar: Pick<CutBar, "pieces" | "turns">,
): readonly PieceOutline[] {
  const first = toNm(trims(problem).start);
  const { starts } = placesNm(problem, bar);
  return bar.pieces.map((piece, place) => {
    const { left, right } = wayOf(problem, bar, place);
    const from = first + at(starts, place);
    const to = from + toNm(at(problem.pieces, piece).length) - endLossNm(left) - endLossNm(right);
    const lean = (slope: Way["left"]) => (slope.tan * slope.depthNm) / 2;
    return {
      start: { upper: fromNm(from + lean(left)), lower: fromNm(from - lean(left)) },
      end: { upper: fromNm(to + lean(right)), lower: fromNm(to - lean(right)) },
    };
  });
}

/**
 * What is left of a bar after its pieces and the cut that parts them from the rest; never below zero. What the saw holds
 * stays on it.
 */
export function remainderOf(problem: BarProblem, bar: Pick<CutBar, "stock" | "pieces" | "turns">): number {
  const { start, end } = trims(problem);
  const kerf = toNm(problem.kerf);
  const whole = toNm(at(problem.stock, bar.stock).length) - toNm(start) - toNm(end);
  const used = bar.pieces.length === 0 ? 0 : placesNm(problem, bar).endNm + kerf;
  return fromNm(Math.max(0, whole - used));
}

/** What shared cuts save against the same bars cut tip to tip. */
export function sharedBy(
  problem: BarProblem,
  bars: readonly CutBar[],
): { readonly cuts: number; readonly length: number } {
  let [cuts, lengthNm] = [0, 0];
  const kerfNm = toNm(problem.kerf);
  for (const bar of bars) {
    let last: Way | null = null;
    bar.pieces.forEach((_, place) => {
      const way = wayOf(problem, bar, place);
      const before = last as Way | null;
      if (before) {
        const apart = endLossNm(before.right) + endLossNm(way.left) + kerfNm;
        lengthNm += bar.times * Math.max(0, apart - gapNm(before.right, way.left, kerfNm, true));
        if (sharesCut(before.right, way.left)) cuts += bar.times;
      }
      last = way;
    });
  }
  return { cuts, length: fromNm(lengthNm) };
}

export function mergedBars(bars: readonly CutBar[]): readonly CutBar[] {
  const merged = new Map<string, CutBar>();
  for (const bar of bars) {
    // A bar with locked pieces is one of its own.
    const key = bar.locked
      ? `locked ${merged.size}`
      : `${bar.stock}:${bar.pieces.join(",")}:${bar.turns?.join(",") ?? ""}`;
    const known = merged.get(key);
    merged.set(key, known ? { ...known, times: known.times + bar.times } : bar);
  }
  return [...merged.values()];
}
