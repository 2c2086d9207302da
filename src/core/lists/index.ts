/** The door of the lists. */
export { BUYING_COLUMNS, buyingList, quantityText, totalWords } from "./buying-list";
export { CUT_COLUMNS, cutList, rowNotes, standWords, styleOf } from "./cut-list";
export { columnKind, LIST_COLUMNS } from "./list-columns";
export type { ListGround } from "./list-ground";
export { LIST_STARTS, startList } from "./list-kinds";
export { findList, ownList } from "./own-list";
export { readSizePattern, SIZE_NAMES, USUAL_SIZE, writeSize } from "./size-text";
export {
  type Align,
  type Cell,
  type Column,
  type ListGroup,
  type ListRow,
  type ListTable,
  tableAsTabs,
} from "./table";
