/** The door of the job document: its records, its edits and its key sizes. */

export { type AssetId, assetId } from "../kernel";
export { assemblyOf, type Repeat, takenApart } from "./assemble";
export {
  type Assembly,
  type AssemblyId,
  type Home,
  MIRROR_AXES,
  type Placement,
  type PlacementId,
  type Role,
} from "./assembly";
export {
  type Asset,
  AssetSchema,
  type Assets,
  assetIdOf,
  inlineAssets,
  NO_ASSETS,
  type PictureAsset,
  type ShapeAsset,
} from "./asset";
export { assetsOf, assetsOfFile, assetsOfPapers } from "./assets-of";
export { entryChosen, nameOfEntry } from "./bought-name";
export type { BoughtPart, BoughtPartId, Stand, StandIn } from "./bought-part";
export {
  type AssemblyParts,
  buttEnd,
  copeEnd,
  doubleMitreEnd,
  type JobParts,
  mitreEnd,
  newAssembly,
  newBoughtPart,
  newJob,
  newKeySize,
  newMember,
  newPanel,
  newPlacement,
  newPoint,
  type PanelParts,
  type PlacementParts,
  pastEnd,
  squareEnd,
} from "./build";
export { type Check, type CheckKind, meantId, plainCheck } from "./check";
export { type ColumnFormula, readColumnFormula } from "./column-formula";
export { COMPUTED_COLUMNS, type ComputedColumn, computedColumn, plainName } from "./column-names";
export { type CopyRule, copyOfPieces, type NewId } from "./copies";
export { addedLists, CUT_LIST, cutListOf } from "./cut-list";
export {
  type CuttingList,
  type ListReading,
  MOST_LIST_ROWS,
  readCuttingList,
  type UnreadableRow,
} from "./cutting-list";
export { type ColumnMeaning, LIST_COLUMN_WORDS, looksLikeHeadings, meaningsOf } from "./cutting-list-columns";
export {
  applyDiff,
  type Diff,
  diffBetween,
  diffOfToday,
  isEmptyDiff,
  reverseDiff,
  touchedRecords,
} from "./diff";
export { type CornerPlace, cornerFromLeft, type DrawnOutline, panelFromDrawing } from "./drawn-outline";
export { applyEdit, type Edit, EditSchema, type SimpleEdit, withEdit } from "./edit";
export type { MakeAssemblyEdit } from "./edit-assembly";
export { type InsertEdit, newInsert } from "./edit-geometry";
export type { ListEdit } from "./edit-lists";
export { editName } from "./edit-name";
export {
  copyOfPage,
  itemsOfPage,
  MOST_PAGES,
  type PageEdit,
  pagesInOrder,
  tooManyPages,
  withThoseOnThem,
} from "./edit-pages";
export {
  cutName,
  cutTexts,
  cutWords,
  type EndCut,
  type EndCutName,
  type EndCutOf,
  type MemberId,
  meetsOf,
  neighboursOf,
  replacedNeighbour,
  SQUARE_END,
  withCutText,
  withoutNeighbours,
} from "./end-cuts";
export type { Line, LineId, Point, PointId } from "./frame";
export type { HandRow } from "./hand-row";
export { memberHolesInRows, panelHolesInRows } from "./hole-rows";
export {
  contentsOf,
  findAssembly,
  holds,
  homeName,
  homeOf,
  homeOfLine,
  homeOfMember,
  membersAtPoint,
  membersOfHome,
  membersOnLines,
  othersThan,
} from "./homes";
export type { Import } from "./import";
export { issueWords } from "./issue-words";
export { type Feature, LETTER_HEIGHTS, type Pointed } from "./item-parts";
export { emptyJob, type Job, JobSchema, readJob, TABLES, type TableName } from "./job";
export { type JobInfo, JobInfoSchema, jobStyle, type KeptMark } from "./job-info";
export { type KeySize, type KeySizeId, readChoices, type Variant, type VariantId } from "./key-size";
export { lawFault, storedFault } from "./laws";
export { asStockroom, type BlankGroup, type LayoutSetting } from "./layout-setting";
export { putBackEdits } from "./left-out";
export { putBetween } from "./lineage";
export type { ListCell } from "./list-cell";
export {
  LIST_DEFAULTS,
  LIST_KINDS,
  type ListColumn,
  type ListId,
  type ListKind,
  type ListSetup,
  plainColumn,
} from "./list-setup";
export { LOOK_COLOURS, LOOKS, type Look } from "./look";
export type { Member } from "./member";
export {
  MEMBER_FACES,
  type MemberFace,
  type MemberHole,
  type MemberNotch,
  type MemberWork,
  MOST_WORK,
} from "./member-work";
export {
  isLink,
  OWN_COLUMN_KINDS,
  type OwnColumn,
  type OwnColumnKind,
  ownColumnId,
  ownColumnIn,
} from "./own-column";
export {
  PAPERS,
  type Page,
  type PageId,
  PageSchema,
  type Paper,
  PROJECTIONS,
  type Projection,
  pageStyle,
  plainPage,
} from "./page";
export {
  type BalloonItem,
  type BalloonPlace,
  type CalloutItem,
  type CardItem,
  LIST_CORNERS,
  type ListCorner,
  type ListItem,
  listChain,
  movesWith,
  type NoteItem,
  type PageItem,
  type PageItemId,
  PageItemSchema,
  type PictureItem,
  plainCard,
  plainList,
  plainTemplate,
  type RuleItem,
  type SizeItem,
  type SizeMeasure,
  type TemplateItem,
} from "./page-item";
export {
  type Between,
  type CutOut,
  type EdgingChoice,
  type GrainWay,
  type Groove,
  type Hole,
  MOST_CORNERS,
  NO_EDGING,
  type Notch,
  type OutlineCorner,
  PANEL_EDGES,
  type Panel,
  type PanelEdge,
  type PanelId,
  type Tilt,
  type Work,
} from "./panel";
export { pictureFault, readPicture } from "./picture";
export {
  type Axis,
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
export { rowFaultWords } from "./row-fault";
export { readRowNumbers, rowNumbersFaultWords, rowNumberWords } from "./row-numbers";
export { listFromSaved, type SavedSetup, SavedSetupSchema, setupToKeep } from "./saved-setup";
export { sharing } from "./sharing";
export { isPresent, lengthWith, numberWith, resolveSizes, type Sizes, usesOf } from "./sizes";
export { allOf, type StepItem, type StepPart } from "./step-item";
export { type TypedPiece, type TypedPieceId, type TypedStand, UNNAMED_EDGING } from "./typed-piece";
export type { Defaults } from "./usual";
export { type Chooser, chosenBy, type DefaultChoice, type DefaultFinder, defaultFinder } from "./usual-of";
export {
  FOLLOWER_SIDES,
  type FollowerSide,
  plainView,
  VIEW_LOOKS,
  VIEW_SIDES,
  type ViewCut,
  type ViewFrom,
  type ViewItem,
  type ViewLook,
  type ViewOf,
  type ViewSide,
} from "./view-item";
