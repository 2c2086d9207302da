/** What the layouts of all kinds have in common when they come in from outside. */
import * as v from "valibot";
import { UnplacedReasonSchema } from "../stock";

export const whole = v.pipe(v.number(), v.integer(), v.minValue(0));
export const finite = v.pipe(v.number(), v.finite());
export const left = { qty: whole, why: UnplacedReasonSchema };
export const outcome = {
  cost: v.nullable(finite),
  count: whole,
  lowerBound: finite,
  lowerBoundOf: v.picklist(["cost", "count"]),
  proven: v.boolean(),
};
export const rect = { x: finite, y: finite, length: finite, width: finite };
