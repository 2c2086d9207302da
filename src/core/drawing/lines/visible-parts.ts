/**
 * What is seen of each piece of a view, as connected parts with the place in each that is farthest from its border: there a
 * leader may point. Found on a grid of pixels: each holds the piece that is seen in it (depth buffer), distances to the
 * borders are exact (Felzenszwalb and Huttenlocher 2012, from memory).
 */
import { boxOfPoints, type PlaneBox, toWorld, type Vec2 } from "../../geometry";
import { type Candidates, candidatesOf, type Occluders, type SeenSolid } from "./candidates";

/** A part of a piece that is seen: the place farthest from its border, and how far that is, in mm of what is drawn. */
export type VisiblePart = { readonly owner: number; readonly at: Vec2; readonly radius: number };

/** Which solid is seen where: row by row from below, in squares of a size in mm; −1: none. */
export type SeenGrid = {
  readonly x0: number;
  readonly y0: number;
  readonly size: number;
  readonly columns: number;
  readonly owners: readonly number[];
};

export type VisibleParts = { readonly parts: readonly VisiblePart[]; readonly grid: SeenGrid | null };

/** Pixels along the longer side of the view: of a few pieces much less than of many shows where a leader may point. */
const LEAST_ACROSS = 300;
const MOST_ACROSS = 800;
const PER_PIECE = 5;
/** Pixels. Smaller parts are nothing that a leader could point at. */
const LEAST_PIXELS = 4;
const NOTHING = -1;
/** For picking, each so many pixels are enough. */
const COARSE = 4;

export function visibleParts(solids: readonly SeenSolid[], found?: Candidates): VisibleParts {
  const across = Math.min(MOST_ACROSS, LEAST_ACROSS + PER_PIECE * solids.length);
  const grid = seenOwners(solids, across, found);
  if (!grid) return { parts: [], grid: null };
  const { owners } = grid;
  return { parts: partsOf(owners, distancesToBorder(owners, grid), grid), grid: coarse(owners, grid) };
}

/** For each pixel of a grid over a view the solid that is seen in its middle, row by row from below; null: there is nothing. */
export function seenOwners(
  solids: readonly SeenSolid[],
  pixels: number,
  { occluders } = candidatesOf(solids),
): FineGrid | null {
  const box = boxOf(solids);
  if (box === null || occluders.count === 0) return null;
  const size = Math.max(box.x1 - box.x0, box.y1 - box.y0) / pixels || 1;
  // One more on each side, so that what touches the edge of the picture has a border there.
  const grid: Grid = {
    x0: box.x0 - size,
    y0: box.y0 - size,
    size,
    columns: Math.ceil((box.x1 - box.x0) / size) + 2,
    rows: Math.ceil((box.y1 - box.y0) / size) + 2,
  };
  return { ...grid, owners: ownersSeen(occluders, grid) };
}

function coarse(seen: Int32Array, { x0, y0, size, columns, rows }: Grid): SeenGrid {
  const [wide, tall] = [Math.floor(columns / COARSE), Math.floor(rows / COARSE)];
  const owners = Array.from({ length: wide * tall }, (_, i) => {
    const [column, row] = [(i % wide) * COARSE + COARSE / 2, Math.floor(i / wide) * COARSE + COARSE / 2];
    return seen[row * columns + column] as number;
  });
  return { x0, y0, size: size * COARSE, columns: wide, owners };
}

/** A grid with the solid that is seen in each pixel; −1: none. */
export type FineGrid = Grid & { readonly owners: Int32Array };

type Grid = {
  readonly x0: number;
  readonly y0: number;
  readonly size: number;
  readonly columns: number;
  readonly rows: number;
};

function boxOf(solids: readonly SeenSolid[]): PlaneBox | null {
  const places = solids.flatMap(({ solid, frame }) =>
    solid.points.map((point): Vec2 => {
      const [x, y] = toWorld(frame, point);
      return [x, y];
    }),
  );
  return places.length === 0 ? null : boxOfPoints(places);
}

// Millions of pixels are gone through here: the indices are known to be within the arrays, and are not looked over one by one.

/** Kept from view to view: megabytes that each would ask for anew. */
let depthsOfLast = new Float64Array(0);

/** For each pixel the solid that is seen in its middle. */
function ownersSeen({ count, planes, starts, edges, boxes, owners }: Occluders, grid: Grid): Int32Array {
  const { x0, y0, size, columns, rows } = grid;
  const seen = new Int32Array(columns * rows).fill(NOTHING);
  if (depthsOfLast.length < seen.length) depthsOfLast = new Float64Array(seen.length);
  const depths = depthsOfLast.fill(Number.NEGATIVE_INFINITY, 0, seen.length);
  for (let face = 0; face < count; face++) {
    const [a, b, c, d] = [0, 1, 2, 3].map((i) => planes[4 * face + i] as number) as [
      number,
      number,
      number,
      number,
    ];
    const [low, high] = [boxes[4 * face + 1] as number, boxes[4 * face + 3] as number];
    const firstRow = Math.max(0, Math.ceil((low - y0) / size - 0.5));
    const lastRow = Math.min(rows - 1, Math.floor((high - y0) / size - 0.5));
    for (let row = firstRow; row <= lastRow; row++) {
      const y = y0 + (row + 0.5) * size;
      let [left, right] = [boxes[4 * face] as number, boxes[4 * face + 2] as number];
      for (let edge = starts[face] as number; edge < (starts[face + 1] as number); edge++) {
        const slope = edges[3 * edge] as number;
        const rest = (edges[3 * edge + 1] as number) * y + (edges[3 * edge + 2] as number);
        if (slope > 1e-12) left = Math.max(left, -rest / slope);
        else if (slope < -1e-12) right = Math.min(right, -rest / slope);
        else if (rest < 0) right = Number.NEGATIVE_INFINITY;
      }
      const first = Math.max(0, Math.ceil((left - x0) / size - 0.5));
      const last = Math.min(columns - 1, Math.floor((right - x0) / size - 0.5));
      for (let column = first; column <= last; column++) {
        const depth = (d - a * (x0 + (column + 0.5) * size) - b * y) / c;
        const pixel = row * columns + column;
        if (depth <= (depths[pixel] as number)) continue;
        depths[pixel] = depth;
        seen[pixel] = owners[face] as number;
      }
    }
  }
  return seen;
}

/** Squared distances in pixels from each pixel to the nearest one that another solid, or nothing, is seen in beside it. */
function distancesToBorder(seen: Int32Array, { columns, rows }: Grid): Float64Array {
  const far = columns * columns + rows * rows;
  const squares = new Float64Array(seen.length).fill(far);
  const border = (a: number, b: number) => {
    if ((seen[a] as number) === (seen[b] as number)) return;
    squares[a] = 0;
    squares[b] = 0;
  };
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const pixel = row * columns + column;
      if (column + 1 < columns) border(pixel, pixel + 1);
      if (row + 1 < rows) border(pixel, pixel + columns);
    }
  const most = Math.max(columns, rows);
  const scratch = {
    values: new Float64Array(most),
    parabolas: new Int32Array(most),
    cuts: new Float64Array(most + 1),
  };
  for (let column = 0; column < columns; column++) nearestAlong(squares, column, columns, rows, scratch);
  for (let row = 0; row < rows; row++) nearestAlong(squares, row * columns, 1, columns, scratch);
  return squares;
}

type Scratch = {
  readonly values: Float64Array;
  readonly parabolas: Int32Array;
  readonly cuts: Float64Array;
};

/** The lower envelope of the parabolas that stand on the values of one line of the grid. */
function nearestAlong(
  squares: Float64Array,
  start: number,
  step: number,
  count: number,
  scratch: Scratch,
): void {
  const { values, parabolas, cuts } = scratch;
  for (let i = 0; i < count; i++) values[i] = squares[start + i * step] as number;
  const meet = (p: number, q: number) =>
    ((values[q] as number) + q * q - (values[p] as number) - p * p) / (2 * (q - p));
  let last = 0;
  parabolas[0] = 0;
  cuts[0] = Number.NEGATIVE_INFINITY;
  cuts[1] = Number.POSITIVE_INFINITY;
  for (let i = 1; i < count; i++) {
    let cut = meet(parabolas[last] as number, i);
    while (cut <= (cuts[last] as number)) {
      last--;
      cut = meet(parabolas[last] as number, i);
    }
    last++;
    parabolas[last] = i;
    cuts[last] = cut;
    cuts[last + 1] = Number.POSITIVE_INFINITY;
  }
  last = 0;
  for (let i = 0; i < count; i++) {
    while ((cuts[last + 1] as number) < i) last++;
    const away = i - (parabolas[last] as number);
    squares[start + i * step] = away * away + (values[parabolas[last] as number] as number);
  }
}

/** Connected pixels of one solid, each with the one that is farthest from a border. */
function partsOf(seen: Int32Array, squares: Float64Array, grid: Grid): readonly VisiblePart[] {
  const { x0, y0, size, columns, rows } = grid;
  const done = new Uint8Array(seen.length);
  const parts: VisiblePart[] = [];
  const queue: number[] = [];
  const take = (pixel: number, owner: number) => {
    if (done[pixel] || seen[pixel] !== owner) return;
    done[pixel] = 1;
    queue.push(pixel);
  };
  for (let first = 0; first < seen.length; first++) {
    const owner = seen[first] as number;
    if (owner === NOTHING || done[first]) continue;
    done[first] = 1;
    queue.length = 0;
    queue.push(first);
    let best = first;
    for (let next = 0; next < queue.length; next++) {
      const pixel = queue[next] as number;
      if ((squares[pixel] as number) > (squares[best] as number)) best = pixel;
      const column = pixel % columns;
      if (column > 0) take(pixel - 1, owner);
      if (column + 1 < columns) take(pixel + 1, owner);
      if (pixel >= columns) take(pixel - columns, owner);
      if (pixel + columns < columns * rows) take(pixel + columns, owner);
    }
    if (queue.length < LEAST_PIXELS) continue;
    const place: Vec2 = [
      x0 + ((best % columns) + 0.5) * size,
      y0 + (Math.floor(best / columns) + 0.5) * size,
    ];
    parts.push({ owner, at: place, radius: (Math.sqrt(squares[best] as number) + 0.5) * size });
  }
  return parts;
}
