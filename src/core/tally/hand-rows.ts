/**
 * Rows by hand: pieces split off from their twins, or put together with near ones. Rows that differ by more than near
 * twins may are never put together, since one size and one pair of ends is shown for all.
 */
import type { Edit, HandRow, Job, SimpleEdit } from "../job";
import { plainCheck, refused } from "../job";
import { fromNm, ok, type Problem, type Result } from "../kernel";
import { type LengthStyle, sayLength, saySizes } from "../measure";
import type { Form } from "./forms";
import type { Group } from "./group";
import type { TallyRow } from "./row";
import { mayShareRow } from "./rows";

/** The row by hand of each piece that is in one. */
export function handRowOfPiece(job: Job): ReadonlyMap<string, string> {
  return new Map(
    Object.values(job.handRows).flatMap((row) => row.pieces.map((piece) => [piece, row.id] as const)),
  );
}

type PieceIds = readonly string[];
/** What is asked of a tally here. */
type Tally = { readonly rowOfPiece: ReadonlyMap<string, TallyRow> };

/** The edit that gives some pieces of one row a row of their own. */
export function splitOff(tally: Tally, pieces: PieceIds, id: string): Result<SimpleEdit, Problem> {
  const rows = rowsOf(tally, pieces);
  const [row] = rows;
  if (!row) return refused("The selection", "", "holds no piece of the tally");
  if (rows.length > 1)
    return refused("The selection", marksOf(rows), "is in several rows; split off pieces of one at a time");
  const chosen = new Set(pieces);
  if (row.pieces.every((piece) => chosen.has(piece.id)))
    return refused("Mark", nameOfRow(row), "is selected whole; select some of its pieces only");
  return ok({
    kind: "setHandRow",
    row: { id: id as HandRow["id"], pieces: pieces.filter((one) => inRow(row, one)) },
  });
}

/** The edit that puts the pieces of several rows into one, that of the first. */
export function putTogether(tally: Tally, pieces: PieceIds, id: string): Result<SimpleEdit, Problem> {
  const rows = rowsOf(tally, pieces);
  const [first, ...others] = rows;
  if (!first || others.length === 0)
    return refused("The selection", "", "is in one row; select pieces of two rows or more");
  for (const other of others) {
    const fault = whyApart(first, other);
    if (fault) return refused("Marks", marksOf([first, other]), fault);
  }
  return ok(together(rows, id));
}

/** The edit that moves pieces into another row, which takes them by hand from then on. */
export function moveInto(tally: Tally, pieces: PieceIds, into: TallyRow, id: string): Result<Edit, Problem> {
  const rows = rowsOf(tally, pieces).filter((row) => row.id !== into.id);
  if (rows.length === 0) return refused("The selection", nameOfRow(into), "is in that row already");
  for (const row of rows) {
    const fault = whyApart(into, row);
    if (fault) return refused("Marks", marksOf([into, row]), fault);
  }
  const moved = pieces.filter((piece) => rows.some((row) => inRow(row, piece)));
  const all = [...new Set([...into.pieces.map((piece) => piece.id), ...moved])];
  const row: SimpleEdit = {
    kind: "setHandRow",
    row: { id: (into.byHand ?? id) as HandRow["id"], pieces: all },
  };
  if (into.mark === "") return ok(row);
  // What comes takes the mark of the row that it comes into, however old it is.
  const marks = moved.map((piece) => ({ id: piece, mark: into.mark, held: into.held }));
  return ok({ kind: "together", edits: [row, { kind: "keepMarks", marks, drop: [] }] });
}

/** All pieces of some rows in one row by hand. */
export function together(rows: readonly TallyRow[], id: string): SimpleEdit {
  const own = rows.find((row) => row.byHand !== null)?.byHand ?? id;
  const pieces = [...new Set(rows.flatMap((row) => row.pieces.map((piece) => piece.id)))];
  return { kind: "setHandRow", row: { id: own as HandRow["id"], pieces } };
}

function rowsOf(tally: Tally, pieces: PieceIds): readonly TallyRow[] {
  return [...new Set(pieces.flatMap((id) => tally.rowOfPiece.get(id) ?? []))];
}

const inRow = (row: TallyRow, piece: string) => row.pieces.some(({ id }) => id === piece);
const nameOfRow = (row: TallyRow) => row.mark || row.name;
const marksOf = (rows: readonly TallyRow[]) => rows.map(nameOfRow).join(" and ");

/** Why two rows cannot be one, in the words of a refusal; null when they can. */
function whyApart(a: TallyRow, b: TallyRow): string | null {
  if (a.kind !== b.kind || a.stock !== b.stock || a.material !== b.material)
    return "are of different stock; one row is cut from one stock";
  if (a.kind === "bought" && a.shown.boughtLength !== b.shown.boughtLength)
    return "are bought in different lengths";
  const [one, other] = [a.shown.form, b.shown.form];
  return a.kind === "bought" || mayShareRow(one, other) || mayShareRow(other, one)
    ? null
    : "differ by more than near twins do, or in grain, edging or work; one size is shown for all in a row";
}

/** Rows by hand whose pieces are not twins: said, with the way back. */
export function handRowChecks(
  marked: readonly { readonly group: Group; readonly mark: string }[],
  style: LengthStyle,
) {
  return marked.flatMap(({ group, mark }) => {
    const { byHand, shown, pieces } = group;
    if (byHand === null || !group.spread) return [];
    const ids = pieces.map(({ piece }) => piece.id);
    const sizes = [...new Set(pieces.map(({ piece }) => sizeWords(piece.form, style)))];
    const words = `Mark ${mark}: pieces of ${sizes.slice(0, 3).join(" and ")} were put together by hand; the row shows ${sizeWords(shown.form, style)}.`;
    const check = plainCheck("handRow", "warning", words, ids);
    return [
      {
        ...check,
        marks: [mark],
        fix: { label: "Put back to computed", edit: { kind: "clearHandRows", pieces: ids } as SimpleEdit },
      },
    ];
  });
}

function sizeWords(form: Form, style: LengthStyle): string {
  if (form.kind === "member") return sayLength(fromNm(form.cutNm), style);
  return form.kind === "panel" ? saySizes([fromNm(form.lengthNm), fromNm(form.widthNm)], style) : "no size";
}
