/** The guide geometry of frames: points with formulas for coordinates, and lines between them. */
import * as v from "valibot";
import { homeId } from "./assembly";
import { entity } from "./entity";
import { placeTexts, recordId } from "./text";

export const PointSchema = v.object({
  id: v.pipe(recordId, v.brand("PointId")),
  name: v.pipe(v.string(), v.minLength(1), v.maxLength(20)),
  /** The assembly that it belongs to, and with it all lines and members that stand on it. */
  assembly: homeId,
  at: placeTexts,
});
export type Point = v.InferOutput<typeof PointSchema>;
export const points = entity(PointSchema, { added: { 3: { assembly: null } } });
export type PointId = Point["id"];

export const LineSchema = v.object({
  id: v.pipe(recordId, v.brand("LineId")),
  from: v.pipe(recordId, v.brand("PointId")),
  to: v.pipe(recordId, v.brand("PointId")),
});
export type Line = v.InferOutput<typeof LineSchema>;
export const lines = entity(LineSchema);
export type LineId = Line["id"];
