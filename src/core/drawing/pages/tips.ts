/** Where leaders end on pieces: where there is most room for them, or where somebody has slid them to. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { Pointed } from "../../job";
import { remembersEach } from "../../kernel";
import type { SeenGrid } from "../lines";
import type { DrawnView, ViewPart } from "./drawn-view";
import type { ViewPiece } from "./view-base";
import type { ViewPlace } from "./view-item";

/** Of the parts of a piece, those large enough to be pointed at: 0.7 of the largest, or 2 mm on paper. */
export function goodParts(parts: readonly ViewPart[], scale: number): readonly ViewPart[] {
  const largest = Math.max(0, ...parts.map(({ radius }) => radius));
  return parts.filter(({ radius }) => radius >= 0.7 * largest || radius * scale > 2);
}

const isPointed = ({ record, way }: Pick<Pointed, "record" | "way">, one: ViewPiece | undefined): boolean =>
  one?.record === record && (way === null || one.way === way);

/** The places on paper that a leader to a piece may end at, from the place of its view; none: the piece is not seen. */
export function tipsOf(pointed: Pointed, drawn: DrawnView, place: ViewPlace): readonly Vec2[] {
  const slid = pointed.spot && slidTip(pointed, pointed.spot, drawn);
  if (slid) return [place.onPaper(slid)];
  const own = drawn.parts.filter(({ piece }) => isPointed(pointed, drawn.pieces[piece]));
  return goodParts(own, place.scale).map(({ at }) => place.onPaper(at));
}

/** The shares of what is seen of a piece at which a place lies, from the place of the view; null: nothing of it is seen. */
export function spotOf(
  pointed: Pick<Pointed, "record" | "way">,
  at: Vec2,
  drawn: DrawnView,
  place: ViewPlace,
): [number, number] | null {
  const box = cellsOf(pointed, drawn)?.box;
  if (!box) return null;
  const [x, y] = place.fromPaper(at);
  const share = (value: number, low: number, high: number) =>
    Math.round(Math.min(1, Math.max(0, (value - low) / (high - low))) * 1000) / 1000;
  return [share(x, box.x0, box.x1), share(y, box.y0, box.y1)];
}

/** The place of a spot, in mm of the design; where the piece is not seen just there, the nearest place at which it is. */
function slidTip(
  pointed: Pick<Pointed, "record" | "way">,
  [right, down]: readonly [number, number],
  drawn: DrawnView,
): Vec2 | null {
  const seen = cellsOf(pointed, drawn);
  if (!seen || !drawn.grid) return null;
  const { box, middles } = seen;
  const half = drawn.grid.size / 2;
  const wanted: Vec2 = [box.x0 + right * (box.x1 - box.x0), box.y0 + down * (box.y1 - box.y0)];
  let [best, nearest] = [middles[0] as Vec2, Number.POSITIVE_INFINITY];
  for (const middle of middles) {
    const [x, y] = [Math.abs(middle[0] - wanted[0]), Math.abs(middle[1] - wanted[1])];
    if (x <= half && y <= half) return wanted;
    const distance = Math.hypot(x, y);
    if (distance < nearest) [best, nearest] = [middle, distance];
  }
  return best;
}

type Cells = { readonly box: PlaneBox; readonly middles: readonly Vec2[] };
const cellsByPiece = remembersEach<SeenGrid, ReadonlyMap<number, Cells>>();

/** The squares in which a piece is seen, y downwards; of several instances, those of the first that is. */
function cellsOf(pointed: Pick<Pointed, "record" | "way">, { grid, pieces }: DrawnView): Cells | null {
  if (!grid) return null;
  const cells = cellsByPiece(grid, [], () => sortedCells(grid));
  for (const [i, piece] of pieces.entries()) {
    const own = isPointed(pointed, piece) ? cells.get(i) : undefined;
    if (own) return own;
  }
  return null;
}

function sortedCells({ owners, columns, size, x0, y0 }: SeenGrid): ReadonlyMap<number, Cells> {
  const byPiece = new Map<number, { box: PlaneBox; middles: Vec2[] }>();
  for (const [i, owner] of owners.entries()) {
    if (owner < 0) continue;
    const x = x0 + (i % columns) * size;
    const y = 0 - (y0 + (Math.floor(i / columns) + 1) * size);
    const cell = { x0: x, y0: y, x1: x + size, y1: y + size };
    const middle: Vec2 = [x + size / 2, y + size / 2];
    const known = byPiece.get(owner);
    if (!known) byPiece.set(owner, { box: cell, middles: [middle] });
    else {
      known.middles.push(middle);
      known.box = {
        x0: Math.min(known.box.x0, cell.x0),
        y0: Math.min(known.box.y0, cell.y0),
        x1: Math.max(known.box.x1, cell.x1),
        y1: Math.max(known.box.y1, cell.y1),
      };
    }
  }
  return byPiece;
}
