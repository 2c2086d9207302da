/** The door of what bar, sheet and shape layouts share about stock. */

export { type Claims, claimFault, leastPlain } from "./claims";
export { allowance, pieceCount, rackName, stockCount, stockPrice, stockSize, textStyle } from "./fields";
export { boughtCount, costOf, judged, oneLess, oneMore } from "./hand";
export { divisor, leastMixCost, type MixType, raisedToStep } from "./mix";
export {
  ASIDE,
  type ReasonFacts,
  readReason,
  reasonFault,
  reasonWords,
  type UnplacedReason,
  UnplacedReasonSchema,
} from "./unplaced";
