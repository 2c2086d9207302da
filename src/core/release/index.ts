/** The door of releases and of what changed. */
export { type ListChange, type ListChanges, listChanges, type SeenRow, seenRows } from "./list-changes";
