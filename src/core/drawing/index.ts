/** The door of the drawings. */
export { type BarDrawingInput, barDrawing } from "./bar-drawing";
export type { DrawItem, Drawing, Face, Ink, TextMeasure, Tint } from "./display";
export { layoutFacts, PAGE_SIZES, type PageSize, type PrintInput, scaleToFit, shopPapers } from "./print";
export { type SheetDrawingInput, sheetDrawing } from "./sheet-drawing";
export { silhouette, silhouetteLength } from "./silhouette";
export { thumbnail } from "./thumbnail";
