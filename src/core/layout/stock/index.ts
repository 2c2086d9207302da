/** The door of what bar and sheet layouts share about stock. */

export { allowance, pieceCount, stockSize } from "./fields";
export { divisor, leastMixCost, type MixType, raisedToStep } from "./mix";
