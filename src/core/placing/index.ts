/** The door of what drawings tell of the places of pieces. */
export type { Body } from "./bodies";
export { changedShapes } from "./changed";
export {
  type Freedom,
  type HomePlacing,
  type HowKnown,
  howKnown,
  placingOf,
  type Repeated,
  toldByDesign,
} from "./placing";
export { type ProposedSize, proposedSizes } from "./proposal";
export { itemsOfSizes, plainSize } from "./size-items";
export { verifyPlacing } from "./verify";
