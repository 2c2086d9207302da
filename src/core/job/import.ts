/**
 * Files of solids that were read into a job, each with what they said then, so that a later state of the same file can be compared
 * with it: only what the file changed is accepted, and what was done by hand stays.
 */
import * as v from "valibot";
import { assetId } from "../kernel";
import { entity } from "./entity";
import { recordId } from "./text";

export const ImportSchema = v.object({
  id: v.pipe(recordId, v.brand("ImportId")),
  /** Of the file. */
  name: v.pipe(v.string(), v.minLength(1), v.maxLength(200)),
  /** What the file said, piece by piece. */
  asset: assetId,
});
export type Import = v.InferOutput<typeof ImportSchema>;
export const imports = entity(ImportSchema, { since: 11 });
