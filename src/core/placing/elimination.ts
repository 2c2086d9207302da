/**
 * Linear equations taken in one by one: sparse Gauss-Jordan elimination that says of each equation whether those before it
 * already say the same, what stays free, and from which equations a value follows.
 *
 * Equations are Σ coefficient · unknown = value. Coefficients should be of the order of one: what is smaller than
 * `NOTHING` is nothing.
 */
import { at } from "../kernel";

/** Coefficients by the numbers of unknowns. */
export type Coefficients = ReadonlyMap<number, number>;

/** Far below the least coefficient that an equation between pieces has (0.04), far above what rounding leaves. */
const NOTHING = 1e-7;

type Row = { readonly cells: Map<number, number>; value: number; node: number };

/** Equations by their numbers, each with its share. */
export type Shares = ReadonlyMap<number, number>;

/** Of an equation that says nothing new the equations from which it follows, looked for when they are asked for, and what it is off from them. */
export type Following = { readonly from: () => Shares; readonly off: number };

export type Elimination = {
  /** Takes an equation in. null: it said something new. */
  readonly take: (cells: Coefficients, value?: number) => Following | null;
  /** Whether an equation would say something new; it is not taken in. */
  readonly isNew: (cells: Coefficients) => boolean;
  /** What an unknown still hangs on: shares of unknowns that are free; none where it is known. */
  readonly freeOf: (unknown: number) => Coefficients;
  /** The value of an unknown where those that are free are nought. */
  readonly valueOf: (unknown: number) => number;
  /** The equations from which the value of an unknown follows, by the order in which they were taken in; none where it is free itself. */
  readonly sourcesOf: (unknown: number) => Shares;
};

/** An elimination of no equations yet. Each equation taken in has the next number, from nought. */
export function createElimination(): Elimination {
  /** Of each pivot its row, in which it stands with 1, with unknowns that are free beside it. */
  const rows = new Map<number, Row>();
  /** The pivots in whose rows an unknown that is free stands. */
  const used = new Map<number, Set<number>>();
  let taken = 0;

  // How each row came about: a node is an equation (left < 0: the number −1 − left), or scale × (left − share × right).
  const left: number[] = [];
  const right: number[] = [];
  const share: number[] = [];
  const leaf = (equation: number): number => {
    left.push(-1 - equation);
    right.push(-1);
    share.push(1);
    return left.length - 1;
  };
  const combined = (a: number, b: number, by: number): number => {
    left.push(a);
    right.push(b);
    share.push(by);
    return left.length - 1;
  };

  const addTo = (cells: Map<number, number>, unknown: number, by: number): number => {
    const sum = (cells.get(unknown) ?? 0) + by;
    if (Math.abs(sum) < NOTHING) {
      cells.delete(unknown);
      return 0;
    }
    cells.set(unknown, sum);
    return sum;
  };

  const usersOf = (unknown: number): number => used.get(unknown)?.size ?? 0;

  /** What of an equation is new: only unknowns that are free. */
  const reduced = (cells: Coefficients, value: number, node: number | null): Row => {
    const row: Row = { cells: new Map(), value, node: node ?? -1 };
    for (const [unknown, by] of cells) {
      const pivot = rows.get(unknown);
      if (!pivot) {
        addTo(row.cells, unknown, by);
        continue;
      }
      for (const [free, part] of pivot.cells) if (free !== unknown) addTo(row.cells, free, -by * part);
      row.value -= by * pivot.value;
      if (node !== null) row.node = combined(row.node, pivot.node, by);
    }
    return row;
  };

  /** Follows a node back to the equations. Nodes come after those that they are made of: from the last to the first each is complete at its turn. */
  const sharesOf = (node: number, by = 1): Map<number, number> => {
    const shares = new Map<number, number>();
    const parts = new Float64Array(node + 1);
    parts[node] = by;
    for (let now = node; now >= 0; now--) {
      const part = parts[now] ?? 0;
      if (part === 0) continue;
      const [a, b, factor] = [at(left, now), at(right, now), at(share, now)];
      if (a < 0) shares.set(-1 - a, part);
      else if (b < 0) parts[a] = (parts[a] ?? 0) + part / factor;
      else {
        parts[a] = (parts[a] ?? 0) + part;
        parts[b] = (parts[b] ?? 0) - factor * part;
      }
    }
    for (const [equation, part] of shares) if (Math.abs(part) < NOTHING) shares.delete(equation);
    return shares;
  };

  return {
    take: (cells, value = 0) => {
      const row = reduced(cells, value, leaf(taken));
      taken++;
      let [pivot, largest] = [-1, 0];
      for (const [unknown, by] of row.cells) {
        const [size, before] = [Math.abs(by), Math.abs(largest)];
        const isLarger = size > before * (1 + NOTHING);
        // Of those that are as large the one in the fewest rows: the fewest have to be written anew.
        if (isLarger || (size > before * (1 - NOTHING) && usersOf(unknown) < usersOf(pivot)))
          [pivot, largest] = [unknown, by];
      }
      if (pivot < 0) {
        const own = taken - 1;
        const from = () => {
          const shares = sharesOf(row.node, -1);
          shares.delete(own);
          return shares;
        };
        return { from, off: row.value };
      }
      const own: Row = {
        cells: new Map(),
        value: row.value / largest,
        node: combined(row.node, -1, largest),
      };
      for (const [unknown, by] of row.cells) {
        own.cells.set(unknown, unknown === pivot ? 1 : by / largest);
        if (unknown !== pivot) usedOf(used, unknown).add(pivot);
      }
      for (const other of used.get(pivot) ?? []) {
        const before = rows.get(other);
        const by = before?.cells.get(pivot);
        if (!before || by === undefined) continue;
        for (const [unknown, part] of own.cells) {
          const sum = addTo(before.cells, unknown, -by * part);
          if (unknown === pivot) continue;
          if (sum === 0) used.get(unknown)?.delete(other);
          else usedOf(used, unknown).add(other);
        }
        before.cells.delete(pivot);
        before.value -= by * own.value;
        before.node = combined(before.node, own.node, by);
      }
      used.delete(pivot);
      rows.set(pivot, own);
      return null;
    },
    isNew: (cells) => reduced(cells, 0, null).cells.size > 0,
    freeOf: (unknown) => {
      const row = rows.get(unknown);
      if (!row) return new Map([[unknown, 1]]);
      return new Map([...row.cells].filter(([one]) => one !== unknown).map(([one, by]) => [one, 0 - by]));
    },
    valueOf: (unknown) => rows.get(unknown)?.value ?? 0,
    sourcesOf: (unknown) => {
      const row = rows.get(unknown);
      return row ? sharesOf(row.node) : new Map();
    },
  };
}

function usedOf(used: Map<number, Set<number>>, unknown: number): Set<number> {
  const known = used.get(unknown);
  if (known) return known;
  const made = new Set<number>();
  used.set(unknown, made);
  return made;
}
