/** Which piece of a view lies at a place of the paper. */
import { stretchDistance, type Vec2 } from "../../geometry";
import { at } from "../../kernel";
import type { DrawnView } from "./drawn-view";
import type { ViewPiece } from "./view-base";
import type { ViewPlace } from "./view-item";

/**
 * The piece whose line is nearest to a place (from the place of the view, in mm), if it is nearer than `reach`; or the one
 * that is seen there. null: nothing is.
 */
export function pieceAt(drawn: DrawnView, place: ViewPlace, point: Vec2, reach: number): ViewPiece | null {
  let [best, nearest] = [-1, reach];
  for (const { from, to, owners } of drawn.lines) {
    // Lines are kept as they stand in the view, with heights upwards.
    const distance = stretchDistance(
      point,
      place.onPaper([from[0], -from[1]]),
      place.onPaper([to[0], -to[1]]),
    );
    const [owner] = owners;
    if (distance < nearest && owner !== undefined) [best, nearest] = [owner, distance];
  }
  if (best < 0) best = seenAt(drawn, place, point);
  return best < 0 ? null : at(drawn.pieces, best);
}

/** The number of the piece that is seen at a place of the paper; −1: none. */
function seenAt({ grid }: DrawnView, { fromPaper }: ViewPlace, point: Vec2): number {
  if (!grid) return -1;
  const [x, down] = fromPaper(point);
  const [column, row] = [Math.floor((x - grid.x0) / grid.size), Math.floor((-down - grid.y0) / grid.size)];
  if (column < 0 || column >= grid.columns || row < 0) return -1;
  return grid.owners[row * grid.columns + column] ?? -1;
}
