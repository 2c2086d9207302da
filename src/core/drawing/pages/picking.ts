/** Which piece of a view lies at a place of the paper. */
import { stretchDistance, type Vec2 } from "../../geometry";
import { at } from "../../kernel";
import type { DrawnView, ViewPiece } from "./drawn-view";
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
  if (best < 0)
    for (const part of drawn.parts) {
      const [x, y] = place.onPaper(part.at);
      const room = part.radius * place.scale;
      const distance = Math.hypot(point[0] - x, point[1] - y);
      if (distance <= room) {
        best = part.piece;
        break;
      }
    }
  return best < 0 ? null : at(drawn.pieces, best);
}
