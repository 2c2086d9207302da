/** The door of this folder. */
export { type Imported, imported, type Remark, remarksOn } from "./enter";
export {
  type FoundFile,
  type FoundPart,
  type FoundProduct,
  type FoundReading,
  type FoundUse,
  readingFor,
  scaledFile,
  TAKE_WAYS,
  type TakeWay,
  timesOf,
} from "./found";
export { type JoinedImport, joinedImport } from "./joins";
export { type Entered, enteredOf, type ImportChoices } from "./records";
export {
  type NeededBoard,
  type NeededSection,
  neededStock,
  newBoard,
  newSection,
  plainSectionName,
  usualWays,
  type Ways,
  wayOf,
} from "./stock";
