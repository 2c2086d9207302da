/**
 * Filling one sheet: a beam search over guillotine splits. A state is what is still wanted and a stack
 * of free rectangles; the top one either gets a row or a column of one panel class in its corner, or
 * becomes waste. States are ranked by the value placed for the area used up.
 *
 * Stages: a rectangle carries the number of the run of cuts it stands in; odd runs rip along the sheet's
 * length, even runs cross-cut. A cut in the direction of the present run is free, the other opens the next.
 */
import { at, invariant, type Random } from "../../kernel";
import { Candidates } from "./candidates";
import { crossRun, partedRun, ripRun } from "./cuts";
import type { SheetInstance, SheetType, Turn } from "./instance";

/** A free rectangle; `run` is the run of cuts that parted it from the rest. */
export type FreeRect = {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
  readonly run: number;
};
type Stack<T> = { readonly top: T; readonly below: Stack<T> | null } | null;

/** `count` panels of a class from (x, y) on, one after the other along x, or along y when `column`. */
export type PlacedBlock = {
  readonly panelClass: number;
  readonly turn: Turn;
  readonly x: number;
  readonly y: number;
  readonly count: number;
  readonly column: boolean;
};

export type SheetFill = {
  readonly type: number;
  readonly blocks: readonly PlacedBlock[];
  /** Rectangles left over, inflated coordinates. */
  readonly waste: readonly FreeRect[];
  readonly placed: readonly number[];
  readonly area: number;
  readonly value: number;
};

type State = {
  readonly rest: Uint16Array;
  readonly free: Stack<FreeRect>;
  readonly blocks: Stack<PlacedBlock>;
  readonly waste: Stack<FreeRect>;
  readonly value: number;
  readonly area: number;
  readonly usedUp: number;
  /** Names what was placed, and with the free rectangles the whole state. */
  readonly wants: number;
  readonly hash: number;
};

export type FillOptions = {
  readonly width: number;
  /** Value of one panel of each class; null: its area. */
  readonly values: readonly number[] | null;
  readonly stages: number;
  readonly random: Random;
  readonly noise: number;
  /** Smaller size for the sheet, for squeezing a last sheet together. */
  readonly size?: { readonly length: number; readonly width: number };
  /** How much more a row of like panels is worth than the panels one by one, as a share for each further one. */
  readonly rows?: number;
  /** What is free of a sheet that is begun already; otherwise all of it. */
  readonly free?: readonly FreeRect[];
};

const push = <T>(top: T, below: Stack<T>): Stack<T> => ({ top, below });

function listed<T>(stack: Stack<T>): T[] {
  const list: T[] = [];
  for (let node = stack; node; node = node.below) list.push(node.top);
  return list.reverse();
}

/** The smallest on top: what is narrow is filled before there is only what needs room. */
function stacked(free: readonly FreeRect[]): Stack<FreeRect> {
  let stack: Stack<FreeRect> = null;
  const sorted = [...free].sort((a, b) => b.length * b.width - a.length * a.width);
  for (const rect of sorted) stack = push(rect, stack);
  return stack;
}

/** Fills one sheet of a type as well as the beam finds; `rest` is what is still wanted of each class. */
export function fillSheet(
  instance: SheetInstance,
  typeIndex: number,
  rest: readonly number[],
  options: FillOptions,
): SheetFill {
  const type: SheetType = at(instance.types, typeIndex);
  const length = options.size?.length ?? type.length;
  const width = options.size?.width ?? type.width;
  const sheetArea = length * width;
  const values = options.values ?? instance.classes.map((one) => one.area);
  const start: State = {
    rest: Uint16Array.from(rest),
    free: stacked(options.free ?? [{ x: 0, y: 0, length, width, run: 1 }]),
    blocks: null,
    waste: null,
    value: 0,
    area: 0,
    usedUp: 0,
    wants: 0,
    hash: 0,
  };
  let beam: State[] = [start];
  let best: State = start;
  const candidates = new Candidates();
  const search: Search = { instance, type: typeIndex, values, options, sheetArea };
  while (beam.length > 0) {
    candidates.clear();
    beam.forEach((state, parent) => {
      if (state.free) propose(search, state, parent, candidates);
      else if (state.value > best.value) best = state;
    });
    beam = chosen(search, beam, candidates);
  }
  return {
    type: typeIndex,
    blocks: listed(best.blocks),
    waste: listed(best.waste),
    placed: rest.map((count, i) => count - at(best.rest, i)),
    area: best.area,
    value: best.value,
  };
}

type Search = {
  readonly instance: SheetInstance;
  readonly type: number;
  readonly values: readonly number[];
  readonly options: FillOptions;
  readonly sheetArea: number;
};

/** The best states, without those that want the same and left the same room. */
function chosen(search: Search, beam: readonly State[], candidates: Candidates): State[] {
  const { width } = search.options;
  const seen = new Set<number>();
  const kept: State[] = [];
  for (const i of candidates.best(width * 3)) {
    const state = at(beam, candidates.parent[i] ?? 0);
    const next = taken(search, state, candidates, i);
    if (seen.has(next.hash)) continue;
    seen.add(next.hash);
    kept.push(next);
    if (kept.length >= width) break;
  }
  return kept;
}

/** All ways to go on from a state. */
function propose(search: Search, state: State, parent: number, out: Candidates): void {
  const { instance, type, values, options } = search;
  const rect = state.free?.top;
  if (!rect) return;
  const least = leastSizes(search, state.rest);
  const { stages } = options;
  let fits = false;
  for (let c = 0; c < instance.classes.length; c++) {
    const wanted = state.rest[c] ?? 0;
    if (wanted === 0) continue;
    const one = at(instance.classes, c);
    const value = at(values, c);
    const turns = at(one.turns, type);
    for (let t = 0; t < turns.length; t++) {
      const turn = at(turns, t);
      const [beyond, above] = [rect.length - turn.length, rect.width - turn.width];
      if (beyond < 0 || above < 0) continue;
      for (let column = 0; column < 2; column++) {
        const most = Math.min(
          wanted,
          Math.floor(column ? rect.width / turn.width : rect.length / turn.length),
        );
        for (let count = most; count > 0; count = count > 1 ? 1 : 0) {
          const used = count * (column ? turn.width : turn.length);
          const last = column ? lastOfColumn(rect, turn, count, used) : lastOfRow(rect, turn, count, used);
          if (last === 0 || last > stages) continue;
          fits = true;
          // Of what is left, the strip that was begun and the rest beside it.
          const [stripLength, stripWidth] = column
            ? [turn.length, rect.width - used]
            : [rect.length - used, turn.width];
          const [restLength, restWidth] = column ? [beyond, rect.width] : [rect.length, above];
          let usedUp = state.usedUp + count * one.area;
          if (stripLength < least.length || stripWidth < least.width) usedUp += stripLength * stripWidth;
          if (restLength < least.length || restWidth < least.width) usedUp += restLength * restWidth;
          const total = state.value + count * value + rowBonus(count, value, options);
          out.add(scoreOf(total, usedUp, search.sheetArea, options), parent, c, t, count, column);
        }
      }
    }
  }
  if (fits) return;
  const usedUp = state.usedUp + rect.length * rect.width;
  const score = scoreOf(state.value, usedUp, search.sheetArea, options);
  out.add(score, parent, -1, 0, 0, 0);
}

/** No panel that is still wanted is shorter or narrower in any of its turns. */
function leastSizes({ instance, type }: Search, rest: Uint16Array): { length: number; width: number } {
  let [length, width] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (let c = 0; c < rest.length; c++) {
    if (rest[c] === 0) continue;
    for (const turn of at(at(instance.classes, c).turns, type)) {
      if (turn.length < length) length = turn.length;
      if (turn.width < width) width = turn.width;
    }
  }
  return { length, width };
}

/** The state after a step. */
function taken(search: Search, state: State, candidates: Candidates, i: number): State {
  const rect = state.free?.top;
  invariant(rect && state.free, "a step is only proposed where there is room");
  const { below } = state.free;
  const c = candidates.panelClass[i] ?? -1;
  if (c < 0) {
    const usedUp = state.usedUp + rect.length * rect.width;
    return {
      ...state,
      free: below,
      waste: push(rect, state.waste),
      usedUp,
      hash: hashStack(state.wants, below),
    };
  }
  const { instance, values } = search;
  const one = at(instance.classes, c);
  const turn = at(at(one.turns, search.type), candidates.turn[i] ?? 0);
  const count = candidates.count[i] ?? 1;
  const column = candidates.column[i] === 1;
  const rest = state.rest.slice();
  rest[c] = (rest[c] ?? 0) - count;
  const least = leastSizes(search, rest);
  let { waste } = state;
  let free = below;
  let usedUp = state.usedUp + count * one.area;
  // The strip that was begun lies on top, so it is finished before new room is opened.
  for (const left of split(rect, turn, count, column)) {
    if (left.length < least.length || left.width < least.width) {
      waste = push(left, waste);
      usedUp += left.length * left.width;
    } else free = push(left, free);
  }
  const wants = (state.wants + Math.imul(count, Math.imul(c + 1, 0x9e3779b1))) | 0;
  return {
    rest,
    free,
    blocks: push({ panelClass: c, turn, x: rect.x, y: rect.y, count, column }, state.blocks),
    waste,
    value: state.value + count * at(values, c),
    area: state.area + count * one.area,
    usedUp,
    wants,
    hash: hashStack(wants, free),
  };
}

/** How much value was placed for the area that is no longer free, with a little noise for restarts. */
function scoreOf(value: number, usedUp: number, sheetArea: number, options: FillOptions): number {
  const noise = options.noise === 0 ? 0 : options.noise * (options.random.next() - 0.5);
  // States early on have used up little: a small share of the sheet keeps their ratio from jumping about.
  return (value / (usedUp + 0.02 * sheetArea)) * (1 + noise);
}

const rowBonus = (count: number, value: number, { rows }: FillOptions) =>
  rows === undefined ? 0 : rows * (count - 1) * value;

/**
 * The last run that a row needs: a strip as wide as the panel is ripped off, then panels are cross-cut from it.
 */
function lastOfRow(rect: FreeRect, turn: Turn, count: number, used: number): number {
  const run = rect.width > turn.width ? ripRun(rect.run) : rect.run;
  return partedRun(turn, count > 1 || rect.length > used ? crossRun(run) : run);
}

/** The same for a column, cut the other way round; 0 where it would be the same as a row. */
function lastOfColumn(rect: FreeRect, turn: Turn, count: number, used: number): number {
  if (rect.length <= turn.length || (count === 1 && rect.width <= used)) return 0;
  return partedRun(turn, ripRun(crossRun(rect.run)));
}

/** What is left of a rectangle when a row of a panel, or a column, is cut out of its corner: the rest, then the strip. */
function split(rect: FreeRect, turn: Turn, count: number, column: boolean): readonly FreeRect[] {
  if (column) {
    const used = count * turn.width;
    const run = crossRun(rect.run);
    const beside: FreeRect = { ...rect, x: rect.x + turn.length, length: rect.length - turn.length, run };
    if (rect.width <= used) return [beside];
    const strip = { x: rect.x, y: rect.y + used, length: turn.length, width: rect.width - used };
    return [beside, { ...strip, run: ripRun(run) }];
  }
  const rips = rect.width > turn.width;
  const run = rips ? ripRun(rect.run) : rect.run;
  const used = count * turn.length;
  const rests: FreeRect[] = [];
  if (rips) rests.push({ ...rect, y: rect.y + turn.width, width: rect.width - turn.width, run });
  if (rect.length > used) {
    const strip = { x: rect.x + used, y: rect.y, length: rect.length - used, width: turn.width };
    rests.push({ ...strip, run: crossRun(run) });
  }
  return rests;
}

function hashStack(hash: number, free: Stack<FreeRect>): number {
  let value = hash;
  for (let node = free; node; node = node.below) {
    const { length, width, run } = node.top;
    value =
      (Math.imul(value ^ (length % 2147483647), 0x85ebca6b) +
        Math.imul((width % 2147483647) | 0, 0xc2b2ae35) +
        run) |
      0;
  }
  return value;
}
