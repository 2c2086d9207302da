/** The door of the lines of views. */
export { linePaths } from "./line-paths";
export type { ViewLine, ViewLineKind } from "./merging";
export { seenPieces } from "./shape-solids";
export { viewFrom } from "./view-frame";
export { viewLines } from "./view-lines";
