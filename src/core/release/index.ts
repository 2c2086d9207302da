/** The door of releases and of what changed. */
export { changeWords, lineChange } from "./difference";
export {
  type ListChange,
  type ListChanges,
  listChanges,
  type SeenList,
  type SeenRow,
  seenBy,
  seenList,
} from "./list-changes";
export {
  type PageChange,
  type PageSays,
  type PutOut,
  PutOutSchema,
  pageChanges,
  pageSays,
  withChangeMarks,
} from "./page-changes";
