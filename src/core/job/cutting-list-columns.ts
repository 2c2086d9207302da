/** The columns of a cutting list: which heading means what, and which measure a heading names. */
import { err, ok, type Problem, type Result } from "../kernel";
import { LENGTH_UNITS, type LengthUnit } from "../measure";

export type ListColumn =
  | "mark"
  | "name"
  | "quantity"
  | "length"
  | "width"
  | "thickness"
  | "stock"
  | "material"
  | "angle1"
  | "angle2"
  | "angles"
  | "stand"
  | "edging"
  | "edgeFront"
  | "edgeBack"
  | "edgeLeft"
  | "edgeRight"
  | "grain"
  | "note";

/** "Edge front", "front edge", "edging L1", and its short name alone: "L1". */
function edgeHeading(names: string, short: string): RegExp {
  const word = "(?:edge|edging|edge band|edge banding|band|banding|tape)";
  return new RegExp(`^${word} (?:${names}|${short})$|^(?:${names}|${short}) ${word}$|^(?:${short})$`);
}

/** Words that a heading may consist of, most specific first. Trade words in common use. */
const HEADINGS: readonly (readonly [RegExp, ListColumn])[] = [
  [
    /^(end|angle|cut)\s*(angle|cut)?\s*(1|a|left|start)\s*(angle|cut)?$|^(left|start|first) (end|angle)( angle)?$/,
    "angle1",
  ],
  [
    /^(end|angle|cut)\s*(angle|cut)?\s*(2|b|right)\s*(angle|cut)?$|^(right|second|far) (end|angle)( angle)?$/,
    "angle2",
  ],
  [/^(end )?angles$|^ends?( cuts?)?$|^end angle$|^angle$|^cuts$/, "angles"],
  [/^(ends? )?stand$|^how (the )?ends stand$|^ends stand$|^end direction$/, "stand"],
  [/^(qty|quantity|count|pcs|pieces|no\.? off|off|number|amount|nos?\.?|how many)\.?$/, "quantity"],
  [/^(mark|pos|position|item|id|ref|part no|no|piece no|#)\.?$/, "mark"],
  [/^(name|part|part name|description|desc|label|component|piece)\.?$/, "name"],
  [/^(cut )?(length|len|l)\.?$/, "length"],
  [/^(width|wide|w|breadth|b)\.?$/, "width"],
  [/^(thickness|thick|t|thk|th|height|h)\.?$/, "thickness"],
  [/^(section|profile|board|sheet|stock|section or board|section\/board|stock size|size|type)\.?$/, "stock"],
  [/^(material|mat|grade|timber|species|steel grade)\.?$/, "material"],
  [/^(edging|edges|edge|edge band(ing)?|banding|edged)$/, "edging"],
  // A column a side: by its name, or long and short edges by number (common practice).
  [edgeHeading("front|long 1|1", "l1"), "edgeFront"],
  [edgeHeading("back|long 2|2", "l2"), "edgeBack"],
  [edgeHeading("left|short 1|3", "s1|w1"), "edgeLeft"],
  [edgeHeading("right|short 2|4", "s2|w2"), "edgeRight"],
  [/^(grain|grain direction)$/, "grain"],
  [/^(note|notes|remark|remarks|comment|comments)$/, "note"],
];

export type ColumnPlace = { readonly index: number; readonly unit: LengthUnit | null };
export type ColumnMap = {
  readonly places: ReadonlyMap<ListColumn, ColumnPlace>;
  /** Headings that mean nothing here; their cells are not read. */
  readonly unread: readonly string[];
};

const UNIT_IN_HEADING = new RegExp(
  String.raw`[\[(,]?\s*\b(${LENGTH_UNITS.join("|")}|inch(?:es)?|deg(?:rees)?|°)\b\s*[\])]?$`,
);

function unitOf(heading: string): LengthUnit | null {
  const word = UNIT_IN_HEADING.exec(heading)?.[1];
  if (word?.startsWith("inch")) return "in";
  return LENGTH_UNITS.find((unit) => unit === word) ?? null;
}

function meaning(heading: string): ListColumn | null {
  const bare = heading
    .replace(/[[(].*?[\])]/g, "")
    .replace(/°/g, "")
    .replace(/[_-]+/g, " ")
    .replace(/\s+/g, " ")
    .trim();
  const direct = HEADINGS.find(([pattern]) => pattern.test(bare))?.[1];
  if (direct) return direct;
  const withoutUnit = bare.replace(UNIT_IN_HEADING, "").trim();
  return HEADINGS.find(([pattern]) => pattern.test(withoutUnit))?.[1] ?? null;
}

/** What a column of a list is taken for; null: it is not read. */
export type ColumnMeaning = ListColumn | null;

/** What each heading means by itself; null where it means nothing here. */
export const meaningsOf = (headings: readonly string[]): readonly ColumnMeaning[] =>
  headings.map((heading) => (heading.trim() === "" ? null : meaning(heading.trim().toLowerCase())));

/** Whether a row looks like a heading row: at least two of its cells mean a column, and none is a number. */
export function looksLikeHeadings(cells: readonly string[]): boolean {
  const known = meaningsOf(cells).filter((one) => one !== null).length;
  return known >= 2 && !cells.some((cell) => /^\s*\d+([.,]\d+)?\s*$/.test(cell));
}

/** Reads the heading row. Two headings for one thing are told, not guessed between. */
export function readHeadings(headings: readonly string[]): Result<ColumnMap, Problem> {
  return mapColumns(meaningsOf(headings), headings);
}

/**
 * The columns of a list as somebody chose them; `headings` are the cells of the heading row, empty where the list has
 * none. Two columns for one thing are told, not guessed between.
 */
export function mapColumns(
  meanings: readonly ColumnMeaning[],
  headings: readonly string[],
): Result<ColumnMap, Problem> {
  const places = new Map<ListColumn, ColumnPlace>();
  const names = new Map<ListColumn, string>();
  const unread: string[] = [];
  for (const [index, column] of meanings.entries()) {
    const heading = headings[index]?.trim() ?? "";
    const name = heading === "" ? `column ${index + 1}` : heading;
    if (column === null) {
      if (heading !== "") unread.push(heading);
    } else if (places.has(column)) {
      const why = `its columns "${names.get(column)}" and "${name}" both stand for ${column}; rename or remove one`;
      return err({ kind: "malformed", what: "The heading row", why });
    } else {
      places.set(column, { index, unit: unitOf(heading.toLowerCase()) });
      names.set(column, name);
    }
  }
  if (!places.has("length") && !places.has("quantity")) {
    const why = "no column is headed Length or Quantity; the first row must hold the headings";
    return err({ kind: "malformed", what: "The heading row", why });
  }
  return ok({ places, unread });
}

/** What a column can be taken for, in the order in which it is offered, with the words for it. */
export const LIST_COLUMN_WORDS: Readonly<Record<ListColumn, string>> = {
  mark: "mark",
  name: "name",
  quantity: "quantity",
  length: "length",
  width: "width",
  thickness: "thickness",
  stock: "section or board",
  material: "material",
  angle1: "end 1, degrees",
  angle2: "end 2, degrees",
  angles: "both ends, degrees",
  stand: "how the ends stand",
  edging: "edging",
  edgeFront: "edging of the front",
  edgeBack: "edging of the back",
  edgeLeft: "edging of the left",
  edgeRight: "edging of the right",
  grain: "grain",
  note: "note",
};
