/**
 * What is usual in a job or an assembly: the stock and material of every member or panel in it that names
 * none of its own. A narrower choice wins over a wider one.
 */
import * as v from "valibot";
import { materialName, recordId } from "./text";

export const DefaultsSchema = v.object({
  section: v.nullable(recordId),
  board: v.nullable(recordId),
  memberMaterial: materialName,
  panelMaterial: materialName,
});
export type Defaults = v.InferOutput<typeof DefaultsSchema>;

export const NOTHING_USUAL: Defaults = {
  section: null,
  board: null,
  memberMaterial: null,
  panelMaterial: null,
};
