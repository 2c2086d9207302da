/** A piece of a bar layout as it lies on the saw: turned as the cutting order says, at its true angles. */

import { at } from "../kernel";
import type { RowFinder, SavedBars } from "../layout";
import { leansOf } from "../layout/bars";
import { ofOrderRow } from "../lists";
import type { DrawItem } from "./display";
import { barOutline, planeProfiles, profilesOf, tintOf } from "./silhouette";

export type LyingSize = { readonly width: number; readonly depth: number; readonly line: number };

/** What is drawn in a row of the cutting order of bars; the longest piece of the layout fills the width. */
export function lyingPiece(
  { problem, pieces }: SavedBars,
  rowId: string,
  rowOf: RowFinder,
  { width, depth, line }: LyingSize,
): readonly DrawItem[] {
  const row = ofOrderRow(rowId);
  const piece = row ? problem.pieces[row.piece] : undefined;
  if (!row || !piece) return [];
  const longest = Math.max(...problem.pieces.map((one) => one.length));
  const shown = rowOf(at(pieces, row.piece))?.shown ?? null;
  const form = shown?.form.kind === "member" ? shown.form : null;
  const leans = leansOf(problem, row.piece, row.turn);
  // Drawn with y downwards: a start that leans to the right leaves its upper edge the shorter one.
  const profiles =
    leans || !form ? planeProfiles(leans ? [-leans[0], leans[1]] : [0, 0], depth) : profilesOf(form, depth);
  return [
    {
      kind: "polygon",
      points: barOutline((piece.length / longest) * width, depth, profiles),
      stroke: { ink: "ink", width: line },
      fill: shown ? tintOf(shown) : "steel",
    },
  ];
}
