/** The door of the lists. */
export { BUYING_COLUMNS, buyingList, quantityText, totalWords } from "./buying-list";
export { CUT_COLUMNS, cutList, rowNotes, standWords, styleOf } from "./cut-list";
export type { Align, Cell, Column, ListGroup, ListRow, ListTable } from "./table";
