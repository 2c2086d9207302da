/** The door of the quantities. */
export {
  type ByLayout,
  type Measure,
  type Quantities,
  type QuantityLine,
  quantitiesOf,
  rowQuantity,
  type StockUse,
} from "./quantities";
