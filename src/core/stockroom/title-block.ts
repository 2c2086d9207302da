/**
 * The shop's own title block: rows of fields at the lower right of every page, with a picture of the shop beside them where it has
 * one. What a field says is a text with words in braces, which are filled from the job, the page and the shop. Fields, and the
 * greatest width of 180 mm, are those of ISO 7200.
 */
import * as v from "valibot";
import { assetId, filledBraces, strayBrace } from "../kernel";

/** What can stand in braces, spelled as here. */
export const TITLE_WORDS = [
  "shop",
  "title",
  "number",
  "page",
  "variant",
  "drawn by",
  "date",
  "revision",
  "scale",
  "sheet",
  "sheets",
] as const;
export type TitleWord = (typeof TITLE_WORDS)[number];

const wordOf = (text: string): TitleWord | undefined =>
  TITLE_WORDS.find((word) => word === text.toLowerCase().replace(/\s+/g, " "));

/** Why a text cannot be filled, as the end of a sentence; null: it can. */
export function titleTextFault(text: string): string | null {
  const stray = strayBrace(text, (name) => wordOf(name) !== undefined);
  if (stray !== null)
    return `names ${stray}, which a title block does not know; there are ${TITLE_WORDS.join(", ")}`;
  return /[{}]/.test(filledBraces(text, () => "")) ? "has an unmatched { or }" : null;
}

/** The text with what its words stand for; a word that is not known stays as it is. */
export const titleText = (text: string, values: Readonly<Record<TitleWord, string>>): string =>
  filledBraces(text, (name) => {
    const word = wordOf(name);
    return word ? values[word] : null;
  });

/** How wide a field is beside the others of its row: parts of their sum. */
const parts = v.pipe(
  v.number(),
  v.integer("must be a whole number"),
  v.minValue(1, "must be at least 1"),
  v.maxValue(60),
);

const TitleFieldSchema = v.variant("kind", [
  v.object({
    kind: v.literal("text"),
    /** Small over the text; none where it is empty. */
    label: v.pipe(v.string(), v.trim(), v.maxLength(40, "is longer than 40 characters")),
    text: v.pipe(
      v.string(),
      v.trim(),
      v.maxLength(120, "is longer than 120 characters"),
      v.rawCheck(({ dataset, addIssue }) => {
        const fault = dataset.typed ? titleTextFault(dataset.value) : null;
        if (fault !== null) addIssue({ message: fault });
      }),
    ),
    parts,
  }),
  /** The symbol of first- or third-angle projection (ISO 5456-2). */
  v.object({ kind: v.literal("symbol"), parts }),
]);
export type TitleField = v.InferOutput<typeof TitleFieldSchema>;

export const TitleBlockSchema = v.object({
  /** mm. */
  width: v.pipe(
    v.number(),
    v.finite(),
    v.minValue(80, "is below 80 mm"),
    v.maxValue(180, "is above 180 mm, the widest of ISO 7200"),
  ),
  /** mm. */
  rowHeight: v.pipe(v.number(), v.finite(), v.minValue(8, "is below 8 mm"), v.maxValue(16, "is above 16 mm")),
  rows: v.pipe(
    v.array(
      v.pipe(
        v.array(TitleFieldSchema),
        v.minLength(1, "needs a field"),
        v.maxLength(8, "has more than 8 fields"),
      ),
    ),
    v.minLength(1, "needs a row"),
    v.maxLength(8, "has more than 8 rows"),
  ),
  /** A picture of the shop, left of the fields, over their whole height; `ratio`: its height for a width of one. */
  logo: v.nullable(
    v.object({
      asset: assetId,
      ratio: v.pipe(v.number(), v.finite(), v.minValue(0.001), v.maxValue(1_000)),
    }),
  ),
});
export type TitleBlock = v.InferOutput<typeof TitleBlockSchema>;

const field = (label: string, text: string, wide: number): TitleField => ({
  kind: "text",
  label,
  text,
  parts: wide,
});

/** The one of a shop that has made none: the fields that ISO 7200 asks for. */
export const USUAL_TITLE_BLOCK: TitleBlock = {
  width: 180,
  rowHeight: 11,
  rows: [
    [field("Shop", "{shop}", 5), field("Title", "{title}", 7), field("Number", "{number}", 6)],
    [field("Drawn by", "{drawn by}", 5), field("Page", "{page}", 7), field("Variant", "{variant}", 6)],
    [
      field("Date", "{date}", 5),
      field("Revision", "{revision}", 3),
      field("Scale", "{scale}", 4),
      { kind: "symbol", parts: 3 },
      field("Sheet", "{sheet} of {sheets}", 3),
    ],
  ],
  logo: null,
};
