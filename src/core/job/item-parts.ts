/** What the schemas of items of pages are made of. */
import * as v from "valibot";
import { coordinate, keyText, recordId } from "./text";

export const place = v.tuple([coordinate, coordinate]);
export const placed = { id: v.pipe(recordId, v.brand("PageItemId")), page: recordId };
export const records = v.pipe(v.array(recordId), v.maxLength(20_000));
export const text = v.pipe(v.string(), v.trim(), v.minLength(1, "needs a text"), v.maxLength(2_000));
/** Heights of letters that ISO 3098 names, in millimetres. */
export const LETTER_HEIGHTS = [2.5, 3.5, 5, 7, 10] as const;
export const letters = v.picklist(LETTER_HEIGHTS);

/** A record, and the way to the instance of it (the key of where it stands; null: whichever is seen best). */
const instanceEntries = { record: recordId, way: v.nullable(keyText(1_000)) };
export const share = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1));

/** A piece that a leader points at. */
export const PointedSchema = v.object({
  ...instanceEntries,
  /** Where on it the leader ends, as shares of what is seen of it from the left and from above; null: where there is most room. */
  spot: v.optional(v.nullable(v.tuple([share, share])), null),
});
export type Pointed = v.InferOutput<typeof PointedSchema>;

/** A place on a piece that survives edits, by its name there ("start, long point"); `axis`: the line of a member. */
export const FeatureSchema = v.object({ ...instanceEntries, place: keyText(200) });
export type Feature = v.InferOutput<typeof FeatureSchema>;
