/** What is cut of one sheet along outlines: each piece with its size, which way up it lies, and how long its cut is. */

import { type BulgedCorner, edgesOf, norm2, subtract2 } from "../geometry";
import { at, byKey, byNaturalText, counted, inTurn } from "../kernel";
import { pieceKey, type SavedNesting } from "../layout";
import { lyingCorners, lyingCutOuts, lyingHoles } from "../layout/nesting";
import { formatLength, type LengthStyle } from "../measure";
import { quantityWords, shopUnit } from "../quantities";
import { type ListRow, type ListTable, numberCell, textCell } from "./table";
import { column, table, row as tableRow } from "./work-table";

const COLUMNS = [
  column("mark", "Mark", 14),
  column("count", "Pieces", 9, "right"),
  column("size", "Length × width", 22),
  column("up", "Face up", 22),
  column("holes", "Holes", 9, "right"),
  column("cut", "Cut, each", 12, "right"),
];

/** Length of an outline in mm, arcs along their curve. */
const lengthRound = (corners: readonly BulgedCorner[]): number =>
  edgesOf(corners).reduce(
    (sum, edge) =>
      sum +
      (edge.kind === "line" ? norm2(subtract2(edge.to, edge.from)) : edge.radius * Math.abs(edge.sweep)),
    0,
  );

/** One row for each mark and way up; the note has the length of all cuts and how often the torch is lit. */
export function shapePiecesTable(
  { problem, layout, pieces }: SavedNesting,
  sheet: number,
  style: LengthStyle,
): ListTable {
  const write = (mm: number) => formatLength(mm, style, 0.1);
  const groups = new Map<string, { count: number; row: (count: number) => ListRow }>();
  let [whole, starts] = [0, 0];
  for (const one of at(layout.sheets, sheet).placements) {
    const piece = at(pieces, one.shape);
    const { opposite } = at(problem.shapes, one.shape);
    const round = lengthRound(lyingCorners(problem, one));
    const holes = lyingHoles(problem, one);
    const inner = lyingCutOuts(problem, one).map(lengthRound);
    const cut = inner.reduce((sum, length) => sum + length, round);
    whole += cut + holes.reduce((sum, { diameter }) => sum + Math.PI * diameter, 0);
    starts += 1 + holes.length + inner.length;
    const key = `${pieceKey(piece)}|${one.mirrored ?? false}`;
    const known = groups.get(key);
    if (known) {
      known.count++;
      continue;
    }
    const up = one.mirrored ? (opposite === null ? "the other" : "mirrored, opposite hand") : "as drawn";
    groups.set(key, {
      count: 1,
      row: (count) =>
        tableRow(key, {
          mark: textCell(pieceKey(piece)),
          count: numberCell(count),
          size: textCell(piece.finished?.map(write).join(" × ") ?? ""),
          up: textCell(up),
          holes: numberCell(holes.length + inner.length),
          cut: numberCell(cut, write(cut)),
        }),
    });
  }
  const byMark = inTurn(byKey(([key]: readonly [string, unknown]) => key, byNaturalText));
  const rows = [...groups].toSorted(byMark).map(([, { count, row }]) => row(count));
  const note = `${quantityWords("m", whole / 1000, style)} ${shopUnit("m", style.unit).name} cutting length, ${counted(starts, "start")}.`;
  return table(`Sheet ${sheet + 1}: pieces`, COLUMNS, rows, note);
}
