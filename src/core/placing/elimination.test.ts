import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lawRuns } from "../kernel/law-runs.fixture";
import { createElimination } from "./elimination";

const equation = (...cells: readonly (readonly [number, number])[]) => new Map(cells);

describe("an elimination", () => {
  it("tells what is new, what follows and from what", () => {
    const system = createElimination();
    expect(system.take(equation([0, 1], [1, -1]), 5)).toBeNull();
    expect(system.take(equation([1, 1], [2, -1]), 7)).toBeNull();
    expect(system.isNew(equation([0, 1], [2, -1]))).toBe(false);
    expect(system.isNew(equation([3, 1]))).toBe(true);
    const following = system.take(equation([0, 1], [2, -1]), 12.5);
    expect(following?.off).toBe(0.5);
    expect(following?.from()).toEqual(
      new Map([
        [0, 1],
        [1, 1],
      ]),
    );
    // Which one is free among those that hang together is nobody's business.
    expect([0, 1, 2].filter((one) => system.freeOf(one).has(one))).toHaveLength(1);
    system.take(equation([2, 2]), 6);
    expect([0, 1, 2].map((one) => system.valueOf(one))).toEqual([15, 10, 3]);
    expect(system.freeOf(0).size).toBe(0);
    expect(system.sourcesOf(0)).toEqual(
      new Map([
        [0, 1],
        [1, 1],
        [3, 0.5],
      ]),
    );
  });

  // Small whole numbers: what follows from what is the same whoever computes it.
  const systems = fc.array(fc.array(fc.integer({ min: -2, max: 2 }), { minLength: 6, maxLength: 6 }), {
    minLength: 1,
    maxLength: 9,
  });

  it("agrees with the rank of the whole matrix after every equation, and its shares add up to what they explain", () => {
    fc.assert(
      fc.property(
        systems,
        fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 6, maxLength: 6 }),
        (rows, truth) => {
          const system = createElimination();
          rows.forEach((row, i) => {
            const value = row.reduce((sum, by, k) => sum + by * (truth[k] ?? 0), 0);
            const cells = new Map(row.flatMap((by, k) => (by === 0 ? [] : [[k, by] as const])));
            const before = rankOf(rows.slice(0, i));
            const isNew = rankOf(rows.slice(0, i + 1)) > before;
            expect(system.isNew(cells)).toBe(isNew);
            const told = system.take(cells, value);
            expect(told === null).toBe(isNew);
            if (!told) return;
            expect(told.off).toBeCloseTo(0, 6);
            const from = told.from();
            expect(from.has(i)).toBe(false);
            const sum = row.map((_, k) =>
              [...from].reduce((all, [j, part]) => all + part * (rows[j]?.[k] ?? 0), 0),
            );
            for (const [k, by] of sum.entries()) expect(by).toBeCloseTo(row[k] ?? 0, 6);
          });
          for (const unknown of truth.keys()) {
            const free = system.freeOf(unknown);
            const known = rankOf([...rows, unit(unknown)]) === rankOf(rows);
            expect(free.size === 0).toBe(known);
            if (!known) continue;
            expect(system.valueOf(unknown)).toBeCloseTo(truth[unknown] ?? 0, 5);
            const from = [...system.sourcesOf(unknown)];
            for (const [k, by] of unit(unknown).entries())
              expect(from.reduce((all, [j, part]) => all + part * (rows[j]?.[k] ?? 0), 0)).toBeCloseTo(by, 5);
          }
        },
      ),
      { numRuns: lawRuns(300) },
    );
  });
});

const unit = (which: number): readonly number[] => Array.from({ length: 6 }, (_, i) => (i === which ? 1 : 0));

/** Rank by elimination with exact fractions: numerators stay whole (Bareiss 1968). */
function rankOf(rows: readonly (readonly number[])[]): number {
  const work = rows.map((row) => row.map((one) => BigInt(one)));
  let [rank, before] = [0, 1n];
  for (let column = 0; column < 6 && rank < work.length; column++) {
    const found = work.findIndex((row, i) => i >= rank && row[column] !== 0n);
    if (found < 0) continue;
    const [a, b] = [work[rank], work[found]];
    if (!a || !b) continue;
    work[rank] = b;
    work[found] = a;
    const pivot = b[column] ?? 1n;
    for (let i = rank + 1; i < work.length; i++) {
      const row = work[i];
      if (!row) continue;
      const lead = row[column] ?? 0n;
      work[i] = row.map((one, k) => (one * pivot - lead * (b[k] ?? 0n)) / before);
    }
    before = pivot;
    rank++;
  }
  return rank;
}
