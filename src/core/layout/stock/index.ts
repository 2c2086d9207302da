/** The door of what bar, sheet and shape layouts share about stock. */

export { allowance, pieceCount, rackName, stockCount, stockPrice, stockSize } from "./fields";
export { ASIDE, judged, oneLess, oneMore } from "./hand";
export { divisor, leastMixCost, type MixType, raisedToStep } from "./mix";
