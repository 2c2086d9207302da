/** The door of the quantities. */

export { dealtOut, type RowCost } from "./costing";
export {
  type ByLayout,
  type Measure,
  netEach,
  type Quantities,
  type QuantityLine,
  quantitiesOf,
  rowQuantity,
  type StockUse,
} from "./quantities";
export { boardFeet, type FeetForm, isImperial, quantityWords, shopUnit, stockSizeWords } from "./shop-units";
