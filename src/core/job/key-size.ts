/** A key size: a named value that drives the design, by value or by formula over other key sizes. */
import * as v from "valibot";
import { entity } from "./entity";
import { formulaText, keyText, recordId } from "./text";

export const KeySizeSchema = v.object({
  id: v.pipe(recordId, v.brand("KeySizeId")),
  /** The name that formulas use. */
  name: v.pipe(keyText(40), v.regex(/^[A-Za-z_][A-Za-z0-9_]{0,39}$/, "must start with a letter")),
  measure: v.picklist(["length", "number", "angle", "yesNo", "choice"]),
  /** What a choice is made from; empty for all others. */
  choices: v.pipe(v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40))), v.maxLength(50)),
  formula: formulaText,
  least: v.nullable(formulaText),
  greatest: v.nullable(formulaText),
  note: v.pipe(v.string(), v.maxLength(200)),
  locked: v.boolean(),
  /** Whether the fill-in form asks for it. */
  asked: v.boolean(),
  /** Place in the list of key sizes. */
  position: v.pipe(v.number(), v.finite()),
});
export type KeySize = v.InferOutput<typeof KeySizeSchema>;
export const keySizes = entity(KeySizeSchema, {
  // It had nothing to choose from, and no form asked for it.
  added: { 2: { choices: [] }, 3: { asked: false } },
});
export type KeySizeId = KeySize["id"];

/** A named set of key-size values of one job. */
export const VariantSchema = v.object({
  id: v.pipe(recordId, v.brand("VariantId")),
  name: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(60)),
  /** Key-size name → the text that stands in its place. */
  formulas: v.record(keyText(40), formulaText),
  position: v.pipe(v.number(), v.finite()),
});
export type Variant = v.InferOutput<typeof VariantSchema>;
export const variants = entity(VariantSchema);
export type VariantId = Variant["id"];

/** The choices of a text that parts them by commas. */
export function readChoices(text: string): string[] {
  return text
    .split(",")
    .map((choice) => choice.trim())
    .filter((choice) => choice !== "");
}
