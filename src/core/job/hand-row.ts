/**
 * Pieces that somebody put into one row of the tally by hand, split off from their twins or together with others.
 * A piece is in one such row at most.
 */
import * as v from "valibot";
import { entity } from "./entity";
import { recordId } from "./text";

export const HandRowSchema = v.object({
  id: v.pipe(recordId, v.brand("HandRowId")),
  pieces: v.pipe(v.array(recordId), v.minLength(1), v.maxLength(20_000)),
});
export type HandRow = v.InferOutput<typeof HandRowSchema>;
export const handRows = entity(HandRowSchema, { since: 4 });
