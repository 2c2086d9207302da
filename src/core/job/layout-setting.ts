/**
 * What a job does otherwise than the stockroom when it lays out a section or board; and panels that it keeps together as
 * one blank.
 */
import * as v from "valibot";
import { GREATEST_LENGTH_MM } from "../kernel";
import { CUT_WAYS, RACK_USES, TURN_STEPS } from "../stockroom";
import { entity } from "./entity";
import { recordId, shortName } from "./text";

const allowance = v.nullable(
  v.pipe(v.number(), v.finite(), v.minValue(0, "must not be negative"), v.maxValue(1000)),
);

/** By the id of the stock entry; null: as the stockroom says. */
export const LayoutSettingSchema = v.object({
  id: recordId,
  kerf: allowance,
  trimStart: allowance,
  trimEnd: allowance,
  grip: allowance,
  /** Of sheets, from all four sides. */
  trim: allowance,
  allowance,
  keep: v.nullable(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(GREATEST_LENGTH_MM))),
  share: v.nullable(v.boolean()),
  rack: v.nullable(v.picklist(RACK_USES)),
  /** 0: any number of stages. */
  stages: v.nullable(v.picklist([0, 2, 3, 4])),
  cut: v.nullable(v.picklist(CUT_WAYS)),
  /** Between pieces that are cut along their outlines. */
  gap: allowance,
  turn: v.nullable(v.picklist(TURN_STEPS)),
});
export type LayoutSetting = v.InferOutput<typeof LayoutSettingSchema>;
export const layoutSettings = entity(LayoutSettingSchema, {
  since: 5,
  // Boards were cut as the stockroom says.
  added: { 6: { cut: null, gap: null, turn: null } },
});

/** Nothing said otherwise. */
export const asStockroom = (id: string): LayoutSetting => ({
  id,
  kerf: null,
  trimStart: null,
  trimEnd: null,
  grip: null,
  trim: null,
  allowance: null,
  keep: null,
  share: null,
  rack: null,
  stages: null,
  cut: null,
  gap: null,
  turn: null,
});

/**
 * Panels in the order in which they lie in one blank, side by side along their length or their width. A record may stand
 * in it more than once (a typed-in row of two); it is cut as often as there are pieces for it.
 */
export const BlankGroupSchema = v.object({
  id: recordId,
  name: shortName,
  panels: v.pipe(v.array(recordId), v.minLength(2, "needs two panels"), v.maxLength(60)),
  along: v.picklist(["length", "width"]),
});
export type BlankGroup = v.InferOutput<typeof BlankGroupSchema>;
export const blankGroups = entity(BlankGroupSchema, { since: 5 });
