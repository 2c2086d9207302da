/**
 * A column of the job's own: its values are typed for marks, for a selection or for all, or computed from other
 * columns by a formula such as `{count} * {price}`.
 */
import * as v from "valibot";
import { entity } from "./entity";
import { formulaText, recordId, shortName } from "./text";

export const OWN_COLUMN_KINDS = ["text", "number", "length", "choice", "link", "formula"] as const;
export type OwnColumnKind = (typeof OWN_COLUMN_KINDS)[number];

export const cellText = v.pipe(v.string(), v.trim(), v.minLength(1, "needs a value"), v.maxLength(300));

/** Whether a text may be followed as a link. Every other scheme, javascript: among them, stays a text. */
export const isLink = (text: string): boolean => /^(https?:\/\/|mailto:)\S+$/i.test(text);

export const OwnColumnSchema = v.object({
  id: v.pipe(recordId, v.maxLength(50), v.brand("OwnColumnId")),
  name: shortName,
  kind: v.picklist(OWN_COLUMN_KINDS),
  /** What a choice is taken from; empty for the other kinds. */
  choices: v.pipe(v.array(cellText), v.maxLength(60)),
  /** For the kind `formula`; null for the others. */
  formula: v.nullable(formulaText),
  /** The value of every row that has none of its own; null: such a row says that it is empty. */
  forAll: v.nullable(cellText),
  position: v.pipe(v.number(), v.finite()),
});
export type OwnColumn = v.InferOutput<typeof OwnColumnSchema>;
export const ownColumns = entity(OwnColumnSchema, { since: 4 });
export type OwnColumnId = OwnColumn["id"];

const OWN = "own:";

/** The id under which lists show an own column. */
export const ownColumnId = (column: Pick<OwnColumn, "id">) => `${OWN}${column.id}`;

/** The record id of an own column in the column id of a list; null for other columns. */
export const ownColumnIn = (column: string): string | null =>
  column.startsWith(OWN) ? column.slice(OWN.length) : null;
