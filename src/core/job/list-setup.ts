/**
 * The setup of a list: what goes in, which columns in which order and format, how rows are ordered and grouped.
 * A job may have any number; a piece may be in several.
 */
import * as v from "valibot";
import { LENGTH_UNITS } from "../measure";
import { homeId } from "./assembly";
import { entity } from "./entity";
import { LengthFormatSchema } from "./length-format";
import { keyText, recordId, shortName } from "./text";

export const LIST_KINDS = ["member", "panel", "other", "bought"] as const;
export type ListKind = (typeof LIST_KINDS)[number];

const columnId = keyText(60);

const ListColumnSchema = v.object({
  /** A computed column by its id, `key:NAME` for a key size, `own:ID` for an own column. */
  column: columnId,
  /** null: the column's own heading. */
  heading: v.nullable(shortName),
  align: v.nullable(v.picklist(["left", "right", "centre"])),
  /** Share of the width on paper; null: the column's own. */
  width: v.nullable(v.pipe(v.number(), v.finite(), v.minValue(1), v.maxValue(100))),
  /** How its lengths are written; null: as the job writes them. */
  format: v.nullable(LengthFormatSchema),
  /** The unit of its lengths; null: that of the job. */
  unit: v.optional(v.nullable(v.picklist(LENGTH_UNITS)), null),
  /** Whether its numbers add up in groups and at the foot; null: as the column does of itself. */
  adds: v.optional(v.nullable(v.boolean()), null),
});
export type ListColumn = v.InferOutput<typeof ListColumnSchema>;

/** `{thickness} x {width} x {length}`: the order of sizes that a shop is used to; null: the usual one. */
const sizePattern = v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(120)));

export const ListSetupSchema = v.object({
  id: v.pipe(recordId, v.brand("ListId")),
  /** The title that stands over it. */
  name: shortName,
  kinds: v.pipe(v.array(v.picklist(LIST_KINDS)), v.minLength(1, "needs something that goes in")),
  /** Only what is in this assembly, and in those inside it; null: everything. */
  assembly: homeId,
  /** Only rows of these materials; none named: of all. */
  materials: v.pipe(v.array(shortName), v.maxLength(60)),
  /** Only rows with these marks, `A` or `A-F`; none named: all. */
  marks: v.pipe(v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(30))), v.maxLength(200)),
  columns: v.pipe(v.array(ListColumnSchema), v.minLength(1, "needs a column"), v.maxLength(40)),
  /** Columns that the rows are ordered by, the first first; none: as the tally has them. */
  order: v.pipe(v.array(v.object({ column: columnId, descending: v.boolean() })), v.maxLength(6)),
  /** Records in the order in which somebody dragged their rows; null: not by hand. */
  handOrder: v.nullable(v.pipe(v.array(recordId), v.maxLength(20_000))),
  /** By assembly: each is a line with its count, what is in it stands under it. */
  levels: v.boolean(),
  /** By assembly: off, the assemblies have no lines of their own, and only what is in them stands there. */
  assemblyLines: v.boolean(),
  /** The column whose texts part the rows into groups; null: no groups. */
  groupBy: v.nullable(columnId),
  /** Off: each group is one row that adds its rows up and names their marks; an assembly hides what is in it. */
  showRows: v.boolean(),
  totals: v.boolean(),
  /** The job's waste stands at the foot, between the sum and the total. */
  wasteAtFoot: v.boolean(),
  sizeOfMember: sizePattern,
  sizeOfPanel: sizePattern,
  position: v.pipe(v.number(), v.finite()),
});
export type ListSetup = v.InferOutput<typeof ListSetupSchema>;
export type ListId = ListSetup["id"];

/** What lists got in document version 4: before, a list took everything, in computed order, without levels. */
const SINCE_4 = {
  materials: [],
  marks: [],
  handOrder: null,
  levels: false,
  wasteAtFoot: false,
} satisfies Partial<ListSetup>;
const SINCE_10 = { assemblyLines: true } satisfies Partial<ListSetup>;

/** What a list has of itself where nobody says otherwise. */
export const LIST_DEFAULTS = { ...SINCE_4, ...SINCE_10 };

export const lists = entity(ListSetupSchema, {
  since: 3,
  added: { 4: SINCE_4, 10: SINCE_10 },
});

/** A column as it is of itself. */
export const plainColumn = (column: string): ListColumn => ({
  column,
  heading: null,
  align: null,
  width: null,
  format: null,
  unit: null,
  adds: null,
});
