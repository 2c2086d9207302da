/**
 * The names of the columns that lists are made of. A name is one thing however it is typed: capitals, spaces and
 * signs between words make no difference.
 */

/** Computed columns: their id and the heading that they have of themselves. */
export const COMPUTED_COLUMNS = {
  mark: "Mark",
  silhouette: "Piece",
  level: "Level",
  name: "Name",
  kind: "Kind",
  count: "Count",
  inOne: "In one",
  asDrawn: "As drawn",
  opposite: "Opposite",
  assembly: "Assembly",
  stock: "Stock",
  material: "Material",
  size: "Size",
  length: "Cut length",
  width: "Width",
  thickness: "Thick",
  blankLength: "Blank length",
  blankWidth: "Blank width",
  longest: "Longest edge",
  shortest: "Shortest edge",
  end1: "End 1 °",
  end2: "End 2 °",
  stand: "End direction",
  mitre1: "Mitre 1 °",
  bevel1: "Bevel 1 °",
  mitre2: "Mitre 2 °",
  bevel2: "Bevel 2 °",
  grain: "Grain",
  edging: "Edging",
  note: "Note",
  measure: "In",
  each: "Net each",
  net: "Net",
  massEach: "kg each",
  mass: "kg",
  unitPrice: "Price per unit",
  cost: "Cost, net",
} as const;
export type ComputedColumn = keyof typeof COMPUTED_COLUMNS;

/** What two ways to type one name have in common: letters and digits alone, in lower case. */
export function plainName(name: string): string {
  return name
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "");
}

/** Computed columns by their ids and their headings; of two that are called the same, the first. */
const COMPUTED: ReadonlyMap<string, ComputedColumn> = new Map(
  (Object.entries(COMPUTED_COLUMNS) as [ComputedColumn, string][])
    .flatMap(([id, heading]) => [id, heading].map((name) => [plainName(name), id] as const))
    .reverse(),
);

/** The computed column that a name means: by its id or its heading, however it is typed. */
export const computedColumn = (name: string): ComputedColumn | null => COMPUTED.get(plainName(name)) ?? null;
