/** The door of the lines of views. */
export { candidatesOf } from "./candidates";
export { linePaths } from "./line-paths";
export type { ViewLine, ViewLineKind } from "./merging";
export { type SeenPiece, seenPieces } from "./shape-solids";
export { shadedRegions, tintRegions } from "./tint-regions";
export { inView, isSquareView, VIEW_DIRECTIONS, type ViewFrame, viewFrom, viewIn } from "./view-frame";
export { viewLines } from "./view-lines";
export { type SeenGrid, visibleParts } from "./visible-parts";
