/** The steps of one level of the beam that fills a sheet, and the best of them. */

/**
 * Next steps, told apart only by what ranks them: most of them are never taken, so a state is made of one only when it is
 * among the best. A class of −1 gives the top rectangle up as waste.
 */
export class Candidates {
  size = 0;
  private room = 256;
  score = new Float64Array(this.room);
  parent = new Int32Array(this.room);
  panelClass = new Int32Array(this.room);
  turn = new Int32Array(this.room);
  count = new Int32Array(this.room);
  column = new Uint8Array(this.room);

  clear(): void {
    this.size = 0;
  }

  // Called some hundred thousand times a second: numbers by place, not an object each time.
  add(score: number, parent: number, c: number, turn: number, count: number, column: number): void {
    if (this.size === this.room) this.grow();
    const i = this.size++;
    this.score[i] = score;
    this.parent[i] = parent;
    this.panelClass[i] = c;
    this.turn[i] = turn;
    this.count[i] = count;
    this.column[i] = column;
  }

  private grow(): void {
    this.room *= 2;
    const wider = <T extends Float64Array | Int32Array | Uint8Array>(next: T, old: ArrayLike<number>): T => {
      next.set(old);
      return next;
    };
    this.score = wider(new Float64Array(this.room), this.score);
    this.parent = wider(new Int32Array(this.room), this.parent);
    this.panelClass = wider(new Int32Array(this.room), this.panelClass);
    this.turn = wider(new Int32Array(this.room), this.turn);
    this.count = wider(new Int32Array(this.room), this.count);
    this.column = wider(new Uint8Array(this.room), this.column);
  }

  /** Indices of the best, the best first; ties in the order in which they were proposed. */
  best(most: number): readonly number[] {
    const all = Array.from({ length: this.size }, (_, i) => i);
    const order = (a: number, b: number) => (this.score[b] ?? 0) - (this.score[a] ?? 0) || a - b;
    if (all.length <= most * 2) return all.sort(order);
    const floor = nthGreatest(this.score.slice(0, this.size), most);
    return all.filter((i) => (this.score[i] ?? 0) >= floor).sort(order);
  }
}

/** The n-th greatest of some numbers, by quickselect; shuffles them. */
function nthGreatest(values: Float64Array, n: number): number {
  let [low, high] = [0, values.length - 1];
  while (low < high) {
    const pivot = values[(low + high) >> 1] ?? 0;
    let [i, j] = [low, high];
    while (i <= j) {
      while ((values[i] ?? 0) > pivot) i++;
      while ((values[j] ?? 0) < pivot) j--;
      if (i <= j) {
        const swap = values[i] ?? 0;
        values[i++] = values[j] ?? 0;
        values[j--] = swap;
      }
    }
    if (n - 1 <= j) high = j;
    else if (n - 1 >= i) low = i;
    else break;
  }
  return values[n - 1] ?? 0;
}
