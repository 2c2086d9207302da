/**
 * What of a line is hidden, by the faces before it: where it runs over a face on the paper and lies behind its plane. The
 * distance from a plane is square to it and never along the direction of view, or steep faces would hide what they touch;
 * a line in a plane is not hidden by it. Faces are found by a grid over the paper.
 */
import type { Candidate, Occluders } from "./candidates";

/** mm. A line this little behind a face touches it. */
const DEPTH_MM = 0.01;
/** mm. Faces reach so far beyond their borders that what lies along the border of two slips through neither. */
const GROWN_MM = 0.002;
/** mm. Faces stand in cells that they come this near to, so that a line on the border of two cells meets them in either. */
const BESIDE_CELL_MM = 0.01;
/** A share of a cell, for numbers that are rounded. */
const ROUNDING = 1e-6;
/** Cells of the grid for each face: from 1 to 8 make no difference, fewer take twice as long. */
const CELLS_A_FACE = 4;
const MOST_CELLS = 4_000_000;

/** A stretch of a line, from 0 to 1 along it. */
export type Stretch = readonly [from: number, to: number];

/**
 * All that is asked of a face, one number beside the other: a line asks some thirty faces, which lie all over memory. A face
 * starts with these and goes on with its edges, three numbers each.
 */
const PLANE = 0;
const TOP = 4;
const OWNER = 5;
/** The last line that it was asked for. */
const ASKED = 6;
const PAST = 7;
const EDGES = 8;

type Records = {
  readonly numbers: Float64Array;
  /** Where each face starts. */
  readonly starts: Int32Array;
};

function recordsOf({ count, planes, starts, edges, tops, owners }: Occluders): Records {
  const numbers = new Float64Array(EDGES * count + 3 * (starts[count] ?? 0));
  const places = new Int32Array(count);
  let place = 0;
  for (let face = 0; face < count; face++) {
    const [first, past] = [3 * (starts[face] ?? 0), 3 * (starts[face + 1] ?? 0)];
    places[face] = place;
    for (let i = 0; i < 4; i++) numbers[place + PLANE + i] = planes[4 * face + i] ?? 0;
    numbers[place + TOP] = tops[face] ?? 0;
    numbers[place + OWNER] = owners[face] ?? 0;
    for (let i = first; i < past; i++) numbers[place + EDGES + i - first] = edges[i] ?? 0;
    numbers[place + PAST] = place + EDGES + past - first;
    place += EDGES + past - first;
  }
  return { numbers, starts: places };
}

/** Tells the hidden stretches of candidates, in order and apart. `round`: mm, how far silhouettes stand before facets of their own solid. */
export function createHiding(
  faces: Occluders,
  round: (owner: number) => number,
): (line: Candidate) => readonly Stretch[] {
  const { numbers, starts } = recordsOf(faces);
  const grid = gridOf(faces, starts);
  const hidden = new Stretches();
  const found = new Float64Array(2);
  let turn = 0;
  return (line) => {
    turn++;
    const { from, to, owner, bow, isSmooth, isOutermost } = line;
    const foot = Math.min(from[2], to[2]);
    const ownDepth = DEPTH_MM + (isSmooth ? round(owner) : 0);
    const otherDepth = DEPTH_MM + bow;
    hidden.clear();
    const cells = grid.along(from[0], from[1], to[0], to[1]);
    for (let c = 0; c < cells; c++) {
      const cell = grid.met[c] ?? 0;
      const past = grid.starts[cell + 1] ?? grid.faces.length;
      for (let i = grid.starts[cell] ?? 0; i < past; i++) {
        const face = grid.faces[i] ?? 0;
        // The nearest come first: what reaches no nearer than the line lies behind it, and so does all that follows.
        if ((numbers[face + TOP] ?? 0) <= foot) break;
        const own = numbers[face + OWNER] === owner;
        if ((own && isOutermost) || numbers[face + ASKED] === turn) continue;
        numbers[face + ASKED] = turn;
        if (!hiddenBy(numbers, face, line, own ? ownDepth : otherDepth, found)) continue;
        const [low, high] = [found[0] ?? 0, found[1] ?? 0];
        // Wholly hidden it is whatever else lies before it.
        if (low <= 0 && high >= 1) return ALL;
        hidden.add(low, high);
      }
    }
    return hidden.joined();
  };
}

const ALL: readonly Stretch[] = [[0, 1]];

/**
 * Whether a face hides a stretch of a line, which is written to `found`. One of some million calls a view: numbers are read
 * and written one by one, since a list of them would be made each time.
 */
function hiddenBy(
  numbers: Float64Array,
  face: number,
  { from, to }: Candidate,
  depth: number,
  found: Float64Array,
): boolean {
  const nx = numbers[face + PLANE] ?? 0;
  const ny = numbers[face + PLANE + 1] ?? 0;
  const nz = numbers[face + PLANE + 2] ?? 0;
  const plane = (numbers[face + PLANE + 3] ?? 0) - depth;
  const x0 = from[0];
  const y0 = from[1];
  const x1 = to[0];
  const y1 = to[1];
  // How far behind the plane, beyond what counts as touching it.
  const a = plane - (nx * x0 + ny * y0 + nz * from[2]);
  const b = plane - (nx * x1 + ny * y1 + nz * to[2]);
  if (a <= 0 && b <= 0) return false;
  let low = 0;
  let high = 1;
  if (a <= 0) low = a / (a - b);
  else if (b <= 0) high = a / (a - b);
  const past = numbers[face + PAST] ?? 0;
  for (let i = face + EDGES; i < past; i += 3) {
    const ex = numbers[i] ?? 0;
    const ey = numbers[i + 1] ?? 0;
    const c = (numbers[i + 2] ?? 0) + GROWN_MM;
    const u = ex * x0 + ey * y0 + c;
    const v = ex * x1 + ey * y1 + c;
    if (u < 0 && v < 0) return false;
    if (u < 0) low = Math.max(low, u / (u - v));
    else if (v < 0) high = Math.min(high, u / (u - v));
    if (high - low <= 0) return false;
  }
  found[0] = low;
  found[1] = high;
  return true;
}

/** Stretches of one line after the other, in order of where they start. */
class Stretches {
  private numbers = new Float64Array(128);
  private count = 0;

  clear(): void {
    this.count = 0;
  }

  add(from: number, to: number): void {
    if (2 * this.count + 2 > this.numbers.length) {
      const larger = new Float64Array(2 * this.numbers.length);
      larger.set(this.numbers);
      this.numbers = larger;
    }
    const { numbers } = this;
    let place = 2 * this.count;
    // There are few of them, and most come in order.
    for (; place > 0 && (numbers[place - 2] ?? 0) > from; place -= 2) {
      numbers[place] = numbers[place - 2] ?? 0;
      numbers[place + 1] = numbers[place - 1] ?? 0;
    }
    numbers[place] = from;
    numbers[place + 1] = to;
    this.count++;
  }

  /** With what touches as one. */
  joined(): readonly Stretch[] {
    const all: [number, number][] = [];
    for (let i = 0; i < 2 * this.count; i += 2) {
      const [from, to] = [this.numbers[i] ?? 0, this.numbers[i + 1] ?? 0];
      const last = all.at(-1);
      if (last && from <= last[1]) last[1] = Math.max(last[1], to);
      else all.push([from, to]);
    }
    return all;
  }
}

/** An array with its numbers and room for twice as many, or for `least` where that is more. */
function doubled(array: Int32Array<ArrayBuffer>, least: number): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(Math.max(2 * array.length, least));
  larger.set(array);
  return larger;
}

/** Faces by the cells of a grid over the paper. */
type Grid = {
  /** Where the faces of each cell start among those of all, and one past the last. */
  readonly starts: Int32Array;
  /** By their names, the nearest to the viewer first in each cell. */
  readonly faces: Int32Array;
  /** The cells of the line that was asked for last. */
  readonly met: Int32Array;
  /** How many cells a line runs through; they are in `met`. */
  readonly along: (x0: number, y0: number, x1: number, y1: number) => number;
};

/** `names`: what each face is told as. */
function gridOf({ count, boxes, tops, starts, edges }: Occluders, names: Int32Array): Grid {
  let [minX, minY, maxX, maxY] = [0, 0, 1, 1];
  for (let f = 0; f < count; f++) {
    const i = 4 * f;
    const [a, b, c, d] = [boxes[i] ?? 0, boxes[i + 1] ?? 0, boxes[i + 2] ?? 0, boxes[i + 3] ?? 0];
    if (f === 0) [minX, minY, maxX, maxY] = [a, b, c, d];
    else {
      minX = Math.min(minX, a);
      minY = Math.min(minY, b);
      maxX = Math.max(maxX, c);
      maxY = Math.max(maxY, d);
    }
  }
  const [width, height] = [Math.max(1, maxX - minX), Math.max(1, maxY - minY)];
  const cells = Math.min(MOST_CELLS, Math.max(1, CELLS_A_FACE * count));
  const size = Math.sqrt((width * height) / cells);
  const columns = Math.max(1, Math.min(cells, Math.ceil(width / size)));
  const rows = Math.max(1, Math.ceil(cells / columns));
  const [cellX, cellY] = [width / columns, height / rows];
  const columnOf = (x: number) => Math.min(columns - 1, Math.max(0, Math.floor((x - minX) / cellX)));
  const rowOf = (y: number) => Math.min(rows - 1, Math.max(0, Math.floor((y - minY) / cellY)));
  // Which cell each face stands in, face by face; the nearest faces come first.
  let cellsOf = new Int32Array(4 * count + 16);
  let facesOf = new Int32Array(cellsOf.length);
  let entries = 0;
  // How many stand in each cell, one place on; later where each cell starts among those that are told.
  const ends = new Int32Array(columns * rows + 1);
  const order = Int32Array.from(tops.keys()).sort((a, b) => (tops[b] ?? 0) - (tops[a] ?? 0));
  for (const face of order) {
    const i = 4 * face;
    const left = columnOf((boxes[i] ?? 0) - BESIDE_CELL_MM);
    const right = columnOf((boxes[i + 2] ?? 0) + BESIDE_CELL_MM);
    const top = rowOf((boxes[i + 3] ?? 0) + BESIDE_CELL_MM);
    const last = starts[face + 1] ?? 0;
    for (let row = rowOf((boxes[i + 1] ?? 0) - BESIDE_CELL_MM); row <= top; row++) {
      // Of the row the cells that lie wholly beyond no edge of the face: long slanted faces reach few of those in their box.
      const y = minY + (row + 0.5) * cellY;
      let from = left;
      let to = right;
      for (let e = starts[face] ?? 0; e < last; e++) {
        const ex = edges[3 * e] ?? 0;
        const ey = edges[3 * e + 1] ?? 0;
        const reach = (Math.abs(ex) * cellX + Math.abs(ey) * cellY) / 2 + BESIDE_CELL_MM;
        // ex · x must be at least this in the middle of a cell.
        const least = -reach - (edges[3 * e + 2] ?? 0) - ey * y;
        if (ex === 0) {
          if (least > 0) to = -1;
          continue;
        }
        const column = (least / ex - minX) / cellX - 0.5;
        if (ex > 0) from = Math.max(from, Math.ceil(column - ROUNDING));
        else to = Math.min(to, Math.floor(column + ROUNDING));
      }
      if (entries + columns > cellsOf.length) {
        cellsOf = doubled(cellsOf, entries + columns);
        facesOf = doubled(facesOf, entries + columns);
      }
      for (let column = from; column <= to; column++) {
        const cell = row * columns + column;
        cellsOf[entries] = cell;
        facesOf[entries++] = face;
        ends[cell + 1] = (ends[cell + 1] ?? 0) + 1;
      }
    }
  }
  // Sorted by cell, the order within each kept: a line reads what it meets one after the other.
  for (let cell = 0; cell < columns * rows; cell++)
    ends[cell + 1] = (ends[cell + 1] ?? 0) + (ends[cell] ?? 0);
  const told = new Int32Array(entries);
  for (let i = entries - 1; i >= 0; i--) {
    const cell = (cellsOf[i] ?? 0) + 1;
    const place = (ends[cell] ?? 0) - 1;
    ends[cell] = place;
    told[place] = names[facesOf[i] ?? 0] ?? 0;
  }
  // Each end has gone back to where its cell starts.
  const startsOf = ends.subarray(1);
  const met = new Int32Array(columns + rows);
  return {
    starts: startsOf,
    faces: told,
    met,
    along: (x0, y0, x1, y1) => {
      let column = columnOf(x0);
      let row = rowOf(y0);
      const lastColumn = columnOf(x1);
      const lastRow = rowOf(y1);
      const stepX = Math.sign(lastColumn - column);
      const stepY = Math.sign(lastRow - row);
      // How far along the line, from 0 to 1, the next border of either kind is, and how far it is to the one after it.
      const [acrossX, acrossY] = [(stepX * cellX) / (x1 - x0), (stepY * cellY) / (y1 - y0)];
      let borderX = stepX === 0 ? 2 : (minX + (column + (stepX > 0 ? 1 : 0)) * cellX - x0) / (x1 - x0);
      let borderY = stepY === 0 ? 2 : (minY + (row + (stepY > 0 ? 1 : 0)) * cellY - y0) / (y1 - y0);
      let count = 0;
      for (;;) {
        met[count++] = row * columns + column;
        if (column === lastColumn && row === lastRow) return count;
        if (row === lastRow || (column !== lastColumn && borderX <= borderY)) {
          column += stepX;
          borderX += acrossX;
        } else {
          row += stepY;
          borderY += acrossY;
        }
      }
    },
  };
}
