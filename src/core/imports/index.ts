/** The door of this folder. */

export { acceptedChanges, exists } from "./accept";
export { type Again, type Difference, readAgain } from "./again";
export { chosenBefore } from "./choices";
export { boardOfLayer, type DrawnPieces, isOfPanels, piecesEdit } from "./drawn-pieces";
export {
  type ImportAsked,
  type Imported,
  importAsked,
  imported,
  keptWith,
  type Remark,
  remarksOn,
} from "./enter";
export {
  cutLength,
  type FoundFile,
  type FoundPart,
  type FoundProduct,
  type FoundReading,
  type FoundUse,
  readingFor,
  scaledFile,
  type TakeWay,
  timesOf,
} from "./found";
export { closedPart, foundPart, gapThatCloses, withClosed } from "./found-part";
export type { NewId } from "./member-record";
export { keptPrints, type Print, type Prints } from "./prints";
export { layersOf, type Skeleton, type SkeletonLine, skeletonEdit } from "./skeleton";
export {
  type NeededBoard,
  type NeededSection,
  neededStock,
  plainSectionName,
  usualWays,
  type Ways,
  wayOf,
} from "./stock";
