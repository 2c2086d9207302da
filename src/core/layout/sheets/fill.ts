/**
 * Filling one sheet: a beam search over guillotine splits. A state is what is still wanted and a stack
 * of free rectangles; the top one either gets a row or a column of one panel class in its corner, or
 * becomes waste. States are ranked by the value placed for the area used up.
 *
 * Stages: a rectangle carries the number of the run of cuts it stands in; odd runs rip along the sheet's
 * length, even runs cross-cut. A cut in the direction of the present run is free, the other opens the next.
 */
import { at, type Random } from "../../kernel";
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
  readonly score: number;
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

/** The run in which a cut of a direction can be made next: rips are odd, cross-cuts even. */
const ripRun = (run: number) => (run % 2 === 1 ? run : run + 1);
const crossRun = (run: number) => (run % 2 === 0 ? run : run + 1);

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
    score: 0,
    hash: 0,
  };
  let beam: State[] = [start];
  let best: State = start;
  while (beam.length > 0) {
    const next: State[] = [];
    for (const state of beam) {
      if (!state.free) {
        if (state.value > best.value) best = state;
        continue;
      }
      expand(instance, typeIndex, state, values, options, sheetArea, next);
    }
    beam = narrowed(next, options.width);
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

/** The best states, without those that want the same and left the same room. */
function narrowed(states: State[], width: number): State[] {
  if (states.length <= 1) return states;
  states.sort((a, b) => b.score - a.score || a.hash - b.hash);
  const seen = new Set<number>();
  const kept: State[] = [];
  for (const state of states) {
    if (seen.has(state.hash)) continue;
    seen.add(state.hash);
    kept.push(state);
    if (kept.length >= width) break;
  }
  return kept;
}

function expand(
  instance: SheetInstance,
  typeIndex: number,
  state: State,
  values: readonly number[],
  options: FillOptions,
  sheetArea: number,
  out: State[],
): void {
  const free = state.free;
  if (!free) return;
  const rect = free.top;
  let fits = false;
  for (let c = 0; c < instance.classes.length; c++) {
    const wanted = state.rest[c] ?? 0;
    if (wanted === 0) continue;
    const one = at(instance.classes, c);
    for (const turn of at(one.turns, typeIndex)) {
      if (turn.length > rect.length || turn.width > rect.width) continue;
      const row = Math.min(wanted, Math.floor(rect.length / turn.length));
      const column = Math.min(wanted, Math.floor(rect.width / turn.width));
      const value = at(values, c);
      for (const split of splitsOf(rect, turn, row, column, options.stages)) {
        fits = true;
        out.push(child(state, free.below, c, turn, split, value, one.area, options, sheetArea));
      }
    }
  }
  if (fits) return;
  const usedUp = state.usedUp + rect.length * rect.width;
  out.push({
    ...state,
    free: free.below,
    waste: push(rect, state.waste),
    usedUp,
    score: scoreOf(state.value, usedUp, sheetArea, options),
  });
}

/** How much value was placed for the area that is no longer free, with a little noise for restarts. */
function scoreOf(value: number, usedUp: number, sheetArea: number, options: FillOptions): number {
  const noise = options.noise === 0 ? 0 : options.noise * (options.random.next() - 0.5);
  // States early on have used up little: a small share of the sheet keeps their ratio from jumping about.
  return (value / (usedUp + 0.02 * sheetArea)) * (1 + noise);
}

type Split = { readonly count: number; readonly column: boolean; readonly rests: readonly FreeRect[] };

/** The ways to cut a row or a column of a panel out of the corner of a rectangle, within the stages. */
function splitsOf(rect: FreeRect, turn: Turn, row: number, column: number, stages: number): readonly Split[] {
  const splits: Split[] = [];
  const rows = row > 1 ? [row, 1] : [1];
  for (const count of rows) ripFirst(rect, turn, count, stages, splits);
  const columns = column > 1 ? [column, 1] : [1];
  for (const count of columns) crossFirst(rect, turn, count, stages, splits);
  return splits;
}

/** The run in which panels that are kept together are parted at last. */
const partedRun = (run: number, { inner }: Turn) =>
  inner === null ? run : inner === "x" ? crossRun(run) : ripRun(run);

/** A strip as wide as the panel is ripped off, then panels are cross-cut from it. */
function ripFirst(rect: FreeRect, turn: Turn, count: number, stages: number, out: Split[]): void {
  const rips = rect.width > turn.width;
  const run = rips ? ripRun(rect.run) : rect.run;
  const used = count * turn.length;
  const crosses = count > 1 || rect.length > used;
  const last = crosses ? crossRun(run) : run;
  if (partedRun(last, turn) > stages) return;
  const rests: FreeRect[] = [];
  if (rips) rests.push({ ...rect, y: rect.y + turn.width, width: rect.width - turn.width, run });
  if (rect.length > used)
    rests.push({ x: rect.x + used, y: rect.y, length: rect.length - used, width: turn.width, run: last });
  out.push({ count, column: false, rests });
}

/** A strip as long as the panel is cross-cut off, then panels are ripped from it. */
function crossFirst(rect: FreeRect, turn: Turn, count: number, stages: number, out: Split[]): void {
  const crosses = rect.length > turn.length;
  const used = count * turn.width;
  const rips = count > 1 || rect.width > used;
  // Without both cuts it is the same as the other way round.
  if (!crosses || !rips) return;
  const run = crossRun(rect.run);
  const last = ripRun(run);
  if (partedRun(last, turn) > stages) return;
  const rests: FreeRect[] = [{ ...rect, x: rect.x + turn.length, length: rect.length - turn.length, run }];
  if (rect.width > used)
    rests.push({ x: rect.x, y: rect.y + used, length: turn.length, width: rect.width - used, run: last });
  out.push({ count, column: true, rests });
}

function child(
  state: State,
  below: Stack<FreeRect>,
  panelClass: number,
  turn: Turn,
  split: Split,
  value: number,
  area: number,
  options: FillOptions,
  sheetArea: number,
): State {
  const rect = state.free?.top ?? { x: 0, y: 0 };
  const rest = state.rest.slice();
  rest[panelClass] = (rest[panelClass] ?? 0) - split.count;
  let free = below;
  // The strip that was begun lies on top, so it is finished before new room is opened.
  for (const rectangle of split.rests) free = push(rectangle, free);
  const block: PlacedBlock = {
    panelClass,
    turn,
    x: rect.x,
    y: rect.y,
    count: split.count,
    column: split.column,
  };
  const usedUp = state.usedUp + split.count * area;
  const total = state.value + split.count * value;
  let hash = state.hash;
  for (let i = 0; i < split.count; i++) hash = (hash + Math.imul(panelClass + 1, 0x9e3779b1)) | 0;
  return {
    rest,
    free,
    blocks: push(block, state.blocks),
    waste: state.waste,
    value: total,
    area: state.area + split.count * area,
    usedUp,
    score: scoreOf(total + rowBonus(split.count, value, options), usedUp, sheetArea, options),
    hash: hashStack(hash, free),
  };
}

const rowBonus = (count: number, value: number, { rows }: FillOptions) =>
  rows === undefined ? 0 : rows * (count - 1) * value;

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
