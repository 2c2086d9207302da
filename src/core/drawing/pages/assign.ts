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
  // Each cost is asked for again and again. All arrays here are as long as they are counted: nothing is missing in them.
  const costs = new Float64Array(rows * columns);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) costs[row * columns + column] = cost(row, column);
  // Counted from 1, so that 0 means nobody.
  const [rowPrice, columnPrice] = [new Float64Array(rows + 1), new Float64Array(columns + 1)];
  const [rowOf, before] = [new Int32Array(columns + 1), new Int32Array(columns + 1)];
  const [least, done] = [new Float64Array(columns + 1), new Uint8Array(columns + 1)];
  for (let row = 1; row <= rows; row++) {
    least.fill(Number.POSITIVE_INFINITY);
    done.fill(0);
    rowOf[0] = row;
    let column = 0;
    do {
      done[column] = 1;
      const from = rowOf[column] as number;
      const first = (from - 1) * columns - 1;
      const price = rowPrice[from] as number;
      let [delta, next] = [Number.POSITIVE_INFINITY, 0];
      for (let other = 1; other <= columns; other++) {
        if (done[other] === 1) continue;
        const reduced = (costs[first + other] as number) - price - (columnPrice[other] as number);
        if (reduced < (least[other] as number)) {
          least[other] = reduced;
          before[other] = column;
        }
        const own = least[other] as number;
        if (own < delta) {
          delta = own;
          next = other;
        }
      }
      for (let other = 0; other <= columns; other++) {
        if (done[other] === 1) {
          const taken = rowOf[other] as number;
          rowPrice[taken] = (rowPrice[taken] as number) + delta;
          columnPrice[other] = (columnPrice[other] as number) - delta;
        } else least[other] = (least[other] as number) - delta;
      }
      column = next;
    } while (rowOf[column] !== 0);
    while (column !== 0) {
      const previous = before[column] as number;
      rowOf[column] = rowOf[previous] as number;
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
