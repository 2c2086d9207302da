/** The door of releases and of what changed. */
export { type Changes, changesSince, factsOf, type RowChange, type RowFacts } from "./changes";
export { type ListChange, type ListChanges, listChanges, type SeenRow, seenRows } from "./list-changes";
