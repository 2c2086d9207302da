/** The door of the kernel: what every other part of the core builds on. */
export { type AssetId, assetId } from "./asset-id";
export { filledBraces, strayBrace } from "./braces";
export { forKind } from "./by-kind";
export { colourDistance, type LinearColour, linearColour, screenColour } from "./colour";
export { agreeing, counted, timesWords } from "./count";
export { finished } from "./finished";
export { fromNm, NM_PER_MM, type Nm, snapMm, toNm } from "./grid";
export { addTo, grouped } from "./grouped";
export { at, BrokenInvariant, invariant, unreachable } from "./invariant";
export { type Memory, remembersEach, remembersLast, sameItems } from "./memo";
export { byKey, byNaturalText, byNumber, byText, byTuple, inTurn, type Order, reversed } from "./order";
export { canBeKey, own } from "./own";
export { type Problem, sentence } from "./problem";
export { type Random, seededRandom } from "./random";
export { type Err, err, type Ok, ok, type Result } from "./result";
export {
  BELOW_LEAST_LENGTH,
  GREATEST_LENGTH_MM,
  LEAST_LENGTH_MM,
  LENGTH_TOLERANCE_MM,
  NEAR_TWIN_ANGLE_DEG,
  NEAR_TWIN_LENGTH_MM,
  PARALLEL_TOLERANCE,
  POINT_TOLERANCE_MM,
  SAME_PLACE_MM,
  SLOPE_TOLERANCE,
  STEEP_END_DEG,
  STEEP_END_SLACK_DEG,
} from "./tolerance";
