/** A bought part of a job: so many of an entry of the stockroom, or so much length of it. */
import * as v from "valibot";
import { assetId } from "../kernel";
import { homeId } from "./assembly";
import { withoutInline } from "./asset";
import { entity, type Stored } from "./entity";
import { look } from "./look";
import { condition, formulaText, placeTexts, recordId, shortName } from "./text";

/** The solid that stands for a bought part in the picture; its origin is the middle of its foot. */
const StandInSchema = v.variant("kind", [
  v.object({ kind: v.literal("box"), size: placeTexts }),
  v.object({ kind: v.literal("cylinder"), diameter: formulaText, height: formulaText }),
  /** A shape from a file of that name. */
  v.object({ kind: v.literal("shape"), name: v.pipe(v.string(), v.maxLength(80)), asset: assetId }),
]);
export type StandIn = v.InferOutput<typeof StandInSchema>;

/** Where it stands: moved to `at` after turning by degrees about width, depth and height; each one a `step` further. */
const StandSchema = v.object({
  at: placeTexts,
  turn: placeTexts,
  step: placeTexts,
  as: StandInSchema,
});
export type Stand = v.InferOutput<typeof StandSchema>;

export const BoughtPartSchema = v.object({
  id: v.pipe(recordId, v.brand("BoughtPartId")),
  name: shortName,
  assembly: homeId,
  entry: v.nullable(recordId),
  /** How many, by value or formula; for parts bought by length, how many pieces of `length`. */
  count: formulaText,
  length: v.nullable(formulaText),
  note: v.pipe(v.string(), v.maxLength(200)),
  when: condition,
  /** null: it is counted, but stands nowhere in the picture. */
  stand: v.nullable(StandSchema),
  look,
  leftOut: v.boolean(),
});
export type BoughtPart = v.InferOutput<typeof BoughtPartSchema>;
export const boughtParts = entity(BoughtPartSchema, {
  // What was there was always present; it stood in the job itself, nowhere in particular.
  added: { 2: { when: null }, 3: { assembly: null, stand: null, look: null } },
  changed: { 8: withoutShape },
});

/** Shapes stood within their parts once. */
function withoutShape(record: Stored): Stored {
  const { stand } = record;
  if (typeof stand !== "object" || stand === null || !("as" in stand)) return record;
  return { ...record, stand: { ...stand, as: withoutInline(stand.as) } };
}
export type BoughtPartId = BoughtPart["id"];
