/** The door of the lists. */
export { BUYING_COLUMNS, type BuyingStyle, buyingList, totalWords } from "./buying-list";
export { contentsTable } from "./contents";
export { createCutLister } from "./cut-list";
export { barOrderTable, ofOrderRow, sheetOrderTable } from "./cutting-order";
export { fromBothEdges } from "./groove-settings";
export { howItCame, type Step } from "./how-it-came";
export { LIST_COLUMNS, type ListColumnKind } from "./list-columns";
export type { ListGround } from "./list-ground";
export { LIST_STARTS, startList } from "./list-kinds";
export { handOrderOf } from "./list-rows";
export { listView } from "./list-view";
export { memberWorkWords } from "./member-work-words";
export { createLister, type Lists, listNames, namedTable, ownList } from "./own-list";
export { rowNotes, standWords, styleOf } from "./piece-notes";
export { pieceText } from "./piece-text";
export { shapePiecesTable } from "./shape-pieces";
export { readSizePattern, USUAL_SIZE } from "./size-text";
export {
  type Align,
  allNotes,
  type Cell,
  type Column,
  type FootLine,
  fieldText,
  hasTypedOver,
  type ListGroup,
  type ListRow,
  type ListTable,
  type NumberWriting,
  OVER_HEADING,
  overWords,
  SILHOUETTE_COLUMN,
  severalWords,
  shownColumns,
  tableAsTabs,
  writtenColumns,
} from "./table";
export { type ComparedVariant, variantsTable } from "./variants-table";
