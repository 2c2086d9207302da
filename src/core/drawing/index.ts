/** The door of the drawings. */
export { type BarDrawingInput, barDrawing } from "./bar-drawing";
export { diagramPages, type FullShape, fullSizeShapes, SHAPE_LAYERS, type ShapeLayer } from "./diagrams";
export type { DrawItem, Drawing, Face, Ink, TextMeasure, Tint } from "./display";
export { PAGE_SIZES, type PageHead, type PageSize } from "./flow";
export { type ListPaper, listPages } from "./list-pages";
export { type LyingSize, lyingPiece } from "./lying-piece";
export { type DiagramInput, type PrintInput, shopPapers } from "./print";
export { type RackLabel, rackLabelPages } from "./rack-labels";
export { type ShapeDrawingInput, shapeDrawing } from "./shape-drawing";
export { type SheetDrawingInput, sheetDrawing } from "./sheet-drawing";
export { silhouette, silhouetteLength } from "./silhouette";
export { thumbnail } from "./thumbnail";
