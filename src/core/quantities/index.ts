/** The door of the quantities. */
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
