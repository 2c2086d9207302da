/**
 * Where each piece of a view is seen, as regions to be tinted: traced along the borders of the fine grid on which the pieces
 * are told apart, then straightened (Douglas and Peucker 1973). What is left of the grid's steps is narrower than the lines
 * that are drawn over every border.
 */
import type { Vec2, Vec3 } from "../../geometry";
import { addTo, at } from "../../kernel";
import { type Candidates, candidatesOf, type SeenSolid } from "./candidates";
import { type FineGrid, seenOwners } from "./visible-parts";

/** What is seen of a piece, heights upwards: closed outlines, of which one within another is a hole. */
export type TintRegion = {
  readonly owner: number;
  /** How much darker than its tint it is, from 0 to 1. */
  readonly shade: number;
  readonly outlines: readonly (readonly Vec2[])[];
};

/** Pixels along the longer side of the view: a fifth of a millimetre where that is as wide as A3. */
const PIXELS = 1_600;
/** Pixels. How far a straightened border may lie beside the traced one. */
const STRAIGHT = 0.75;

/** Where each piece is seen, by the numbers of their solids; or only those that are wanted. */
export function tintRegions(
  solids: readonly SeenSolid[],
  found?: Candidates,
  isWanted?: (owner: number) => boolean,
): readonly TintRegion[] {
  return regionsOf(seenOwners(solids, PIXELS, found), isWanted).map((region) => ({ ...region, shade: 0 }));
}

/** From where light falls, in the axes of the view: from the upper left, over the shoulder of whoever looks. */
const LIGHT: Vec3 = [-0.35, 0.7, 0.62];
/** Faces are shaded in so many steps, the darkest of them so much darker than what is turned to the light. */
const STEPS = 6;
const DARKEST = 0.32;

/**
 * Where the faces of each piece are seen that are turned away from the light, by how far; to be laid over the piece as a whole, so
 * that nothing of the paper shows between two of them.
 */
export function shadedRegions(
  solids: readonly SeenSolid[],
  found: Candidates = candidatesOf(solids),
  isWanted: (owner: number) => boolean = () => true,
): readonly TintRegion[] {
  const { occluders } = found;
  const size = Math.hypot(...LIGHT);
  const keys = occluders.owners.map((owner, face) => {
    const [x, y, z] = [0, 1, 2].map((i) => occluders.planes[4 * face + i] as number) as [
      number,
      number,
      number,
    ];
    const lit = (x * LIGHT[0] + y * LIGHT[1] + z * LIGHT[2]) / size;
    return owner * STEPS + Math.round((STEPS - 1) * Math.min(1, Math.max(0, 1 - lit)));
  });
  const byFace = { ...found, occluders: { ...occluders, owners: keys } };
  const isWantedStep = (key: number) => isWanted(Math.floor(key / STEPS));
  return regionsOf(seenOwners(solids, PIXELS, byFace), isWantedStep).flatMap(({ owner: key, outlines }) => {
    const step = key % STEPS;
    return step === 0
      ? []
      : [{ owner: Math.floor(key / STEPS), shade: (DARKEST * step) / (STEPS - 1), outlines }];
  });
}

function regionsOf(
  grid: FineGrid | null,
  isWanted: (owner: number) => boolean = () => true,
): readonly Omit<TintRegion, "shade">[] {
  if (!grid) return [];
  const { x0, y0, size } = grid;
  const byOwner = new Map<number, (readonly Vec2[])[]>();
  for (const { owner, corners } of tracedBorders(grid, isWanted)) {
    const outline = straightened(corners).map(([column, row]): Vec2 => [x0 + column * size, y0 + row * size]);
    if (outline.length < 3) continue;
    addTo(byOwner, owner, outline);
  }
  return [...byOwner].sort(([a], [b]) => a - b).map(([owner, outlines]) => ({ owner, outlines }));
}

type Border = { readonly owner: number; readonly corners: readonly Vec2[] };

/** Directions along the grid: right, up, left, down. */
const WAYS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/** By direction, how far before the corner the pixel at its left lies. */
const BACK = [0, 1, 1, 0] as const;
const DOWN = [0, 0, 1, 1] as const;
const TURNS = [1, 0, 3] as const;

/** The borders of the regions of wanted pieces in corners of pixels, each with its region at the left. */
function tracedBorders(
  { owners, columns, rows }: FineGrid,
  isWanted: (owner: number) => boolean,
): readonly Border[] {
  const ownerAt = (column: number, row: number): number =>
    column < 0 || row < 0 || column >= columns || row >= rows
      ? -1
      : (owners[row * columns + column] as number);
  /** Whether a step from a corner in a direction has a region at its left and not at its right. */
  const isBorder = (x: number, y: number, way: number, owner: number): boolean => {
    // The pixel at the left lies one column back for up and left, one row down for left and down; the other is the left one of a
    // quarter turn to the right.
    const right = (way + 3) % 4;
    return (
      ownerAt(x - at(BACK, way), y - at(DOWN, way)) === owner &&
      ownerAt(x - at(BACK, right), y - at(DOWN, right)) !== owner
    );
  };
  const done = new Uint8Array((columns + 1) * (rows + 1));
  const borders: Border[] = [];
  // Every border has steps to the right or to the left; from each lower edge of a region one is begun. Millions of pixels are gone
  // through here: nothing is made for each of them.
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const owner = owners[row * columns + column] as number;
      if (owner < 0 || (row > 0 && owner === owners[(row - 1) * columns + column])) continue;
      if (((done[row * (columns + 1) + column] as number) & 1) !== 0 || !isWanted(owner)) continue;
      const corners: Vec2[] = [];
      let [x, y, way] = [column, row, 0];
      do {
        const corner = y * (columns + 1) + x;
        done[corner] = (done[corner] as number) | (1 << way);
        const [dx, dy] = at(WAYS, way);
        [x, y] = [x + dx, y + dy];
        // Leftmost first: pixels that only touch at a corner are one region.
        let turn = 0;
        while (turn < 3 && !isBorder(x, y, (way + at(TURNS, turn)) % 4, owner)) turn++;
        if (turn === 3) break;
        const next = (way + at(TURNS, turn)) % 4;
        if (next !== way) corners.push([x, y]);
        way = next;
      } while (x !== column || y !== row || way !== 0);
      borders.push({ owner, corners });
    }
  return borders;
}

/** A closed outline with as few corners as lie within the tolerance. */
function straightened(corners: readonly Vec2[]): readonly Vec2[] {
  if (corners.length < 4) return corners;
  // From the two corners that lie farthest from one another, about: the first, and what is farthest from that.
  const first = at(corners, 0);
  let far = 0;
  for (const [i, [x, y]] of corners.entries()) {
    const [a, b] = at(corners, far);
    if (Math.hypot(x - first[0], y - first[1]) > Math.hypot(a - first[0], b - first[1])) far = i;
  }
  const halves = [corners.slice(0, far + 1), [...corners.slice(far), first]];
  return halves.flatMap((half) => simplified(half).slice(0, -1));
}

function simplified(places: readonly Vec2[]): readonly Vec2[] {
  const kept = new Uint8Array(places.length);
  kept[0] = 1;
  kept[places.length - 1] = 1;
  const open: [number, number][] = [[0, places.length - 1]];
  for (let part = open.pop(); part; part = open.pop()) {
    const [from, to] = part;
    const [a, b] = [at(places, from), at(places, to)];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length = Math.hypot(dx, dy);
    let [worst, most] = [-1, STRAIGHT];
    for (let i = from + 1; i < to; i++) {
      const [x, y] = at(places, i);
      const away =
        length === 0 ? Math.hypot(x - a[0], y - a[1]) : Math.abs((x - a[0]) * dy - (y - a[1]) * dx) / length;
      if (away > most) [worst, most] = [i, away];
    }
    if (worst < 0) continue;
    kept[worst] = 1;
    open.push([from, worst], [worst, to]);
  }
  return places.filter((_, i) => kept[i] === 1);
}
