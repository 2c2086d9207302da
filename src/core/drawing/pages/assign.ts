/** Who goes where at the least sum of costs: the assignment problem by shortest augmenting paths (Jonker and Volgenant 1987, from memory). */
import { at } from "../../kernel";

/**
 * For each row the column that it takes, each at most once, at the least sum. `cost(row, column)` is finite; there are at
 * least as many columns as rows. Time grows with rows² × columns.
 */
export function assigned(
  rows: number,
  columns: number,
  cost: (row: number, column: number) => number,
): readonly number[] {
  // Counted from 1, so that 0 means nobody.
  const [rowPrice, columnPrice] = [new Float64Array(rows + 1), new Float64Array(columns + 1)];
  const [rowOf, before] = [new Int32Array(columns + 1), new Int32Array(columns + 1)];
  for (let row = 1; row <= rows; row++) {
    const least = new Float64Array(columns + 1).fill(Number.POSITIVE_INFINITY);
    const done = new Uint8Array(columns + 1);
    rowOf[0] = row;
    let column = 0;
    do {
      done[column] = 1;
      const from = at(rowOf, column);
      let [delta, next] = [Number.POSITIVE_INFINITY, 0];
      for (let other = 1; other <= columns; other++) {
        if (done[other]) continue;
        const reduced = cost(from - 1, other - 1) - at(rowPrice, from) - at(columnPrice, other);
        if (reduced < at(least, other)) {
          least[other] = reduced;
          before[other] = column;
        }
        if (at(least, other) < delta) [delta, next] = [at(least, other), other];
      }
      for (let other = 0; other <= columns; other++) {
        if (done[other]) {
          const taken = at(rowOf, other);
          rowPrice[taken] = at(rowPrice, taken) + delta;
          columnPrice[other] = at(columnPrice, other) - delta;
        } else least[other] = at(least, other) - delta;
      }
      column = next;
    } while (at(rowOf, column) !== 0);
    while (column !== 0) {
      const previous = at(before, column);
      rowOf[column] = at(rowOf, previous);
      column = previous;
    }
  }
  const taken = new Array<number>(rows).fill(0);
  for (let column = 1; column <= columns; column++) {
    const row = at(rowOf, column);
    if (row > 0) taken[row - 1] = column - 1;
  }
  return taken;
}
