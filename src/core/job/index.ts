/** The door of the job document: its records, its edits and its key sizes. */

export { type BoughtPart, type BoughtPartId, BoughtPartSchema } from "./bought-part";
export {
  buttEnd,
  copeEnd,
  type JobParts,
  mitreEnd,
  newBoughtPart,
  newJob,
  newKeySize,
  newMember,
  newPanel,
  pastEnd,
  squareEnd,
} from "./build";
export { type Check, type CheckKind, plainCheck } from "./check";
export { type Axis, type CopyRule, copyOfPieces, type NewId } from "./copies";
export {
  type CuttingList,
  type ListReading,
  MOST_LIST_ROWS,
  readCuttingList,
  type UnreadableRow,
} from "./cutting-list";
export {
  applyDiff,
  type Diff,
  diffBetween,
  diffOfToday,
  isEmptyDiff,
  NO_CHANGE,
  reverseDiff,
  touchedRecords,
} from "./diff";
export { applyEdit, type Edit, EditSchema, editName, type SimpleEdit, withEdit } from "./edit";
export type { InsertEdit } from "./edit-geometry";
export { type Line, type LineId, LineSchema, type Point, type PointId, PointSchema } from "./frame";
export {
  emptyJob,
  issueWords,
  type Job,
  type JobInfo,
  JobInfoSchema,
  JobSchema,
  type KeptMark,
  readJob,
  SCHEMA_VERSION,
  type TableName,
} from "./job";
export {
  type KeySize,
  type KeySizeId,
  KeySizeSchema,
  readChoices,
  type Variant,
  type VariantId,
  VariantSchema,
} from "./key-size";
export {
  against,
  cutText,
  type EndCut,
  EndCutSchema,
  type Member,
  type MemberId,
  MemberSchema,
  neighbourOf,
  SQUARE_END,
} from "./member";
export {
  type EdgingChoice,
  type Groove,
  GrooveSchema,
  NO_EDGING,
  PANEL_EDGES,
  type Panel,
  type PanelEdge,
  type PanelId,
  PanelSchema,
} from "./panel";
export {
  minus,
  movedPlace,
  type PlaceText,
  placeBetween,
  plus,
  readPlace,
  type Term,
  termOf,
  textOf,
  times,
} from "./place-text";
export { refused } from "./records";
export { isPresent, lengthWith, numberWith, resolveSizes, type Sizes, usesOf } from "./sizes";
export { type TypedPiece, type TypedPieceId, TypedPieceSchema, type TypedStand } from "./typed-piece";
