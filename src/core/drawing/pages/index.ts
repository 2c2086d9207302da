/** The door of the pages. */
export { newBalloons } from "./balloons";
export { createViewDrawer, type DrawnView, drawnView } from "./drawn-view";
export { type DrawnPage, drawPage, flatPage, type PageGround } from "./page-drawing";
export { borderOf, SHEETS, sheetSize } from "./paper";
export type { PlacedItem } from "./placed";
export { bestScale, offeredScales, readScale, scaleWords } from "./scales";
export { type ViewAsked, viewsAsked } from "./view-asked";
export { boxOfView } from "./view-item";
