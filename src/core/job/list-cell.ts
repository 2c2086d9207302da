/**
 * A value that somebody typed into a cell of a list. It stays with the pieces of its row, so that it follows them
 * when marks change or a row is parted. In an own column it is the value, for all lists; in a computed one it
 * stands over the computed value, in one list.
 */
import * as v from "valibot";
import { entity } from "./entity";
import { cellText } from "./own-column";
import { keyText, recordId } from "./text";

export const ListCellSchema = v.object({
  id: v.pipe(recordId, v.brand("ListCellId")),
  /** The list whose computed cell is typed over; null: a value of an own column. */
  list: v.nullable(recordId),
  column: keyText(60),
  /** Records of the row: pieces, or the assembly of a line that stands for one. */
  records: v.pipe(v.array(recordId), v.minLength(1), v.maxLength(20_000)),
  /** Whether the row adds others up: what is typed there says nothing of its single rows. */
  summed: v.boolean(),
  text: cellText,
  /** What was computed when it was typed, as it was shown; null in own columns. */
  computed: v.nullable(v.pipe(v.string(), v.maxLength(400))),
});
export type ListCell = v.InferOutput<typeof ListCellSchema>;
export const listCells = entity(ListCellSchema, { since: 4 });
export type ListCellId = ListCell["id"];
