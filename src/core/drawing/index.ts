/** The door of the drawings. */

export { type BarDrawingInput, barDrawing } from "./bar-drawing";
export { rowCard } from "./cards";
export { diagramPages } from "./diagrams";
export {
  CAPITAL_HEIGHT,
  type DrawItem,
  type Drawing,
  type DrawnText,
  type Ink,
  LAYERS,
  type Layer,
  type Stroke,
  type Tint,
} from "./display";
export type { Face } from "./face";
export { PAGE_SIZES, type PageHead, type PageSize } from "./flow";
export { fullSizeDrawing } from "./full-size";
export { isSquareView, seenPieces, viewFrom, viewIn, viewLines } from "./lines";
export { type ListPaper, listPages } from "./list-pages";
export { type LyingSize, lyingPiece } from "./lying-piece";
export { type NestingDrawingInput, nestingDrawing } from "./nesting-drawing";
export {
  AXIS,
  areEqualSteps,
  arrangedOn,
  axesOfView,
  balloonPlaces,
  balloonRows,
  baseOf,
  bestScale,
  borderOf,
  type CatchGround,
  type CatchLine,
  type CaughtFeature,
  catchBoxes,
  catchFeature,
  caught,
  createViewDrawer,
  type DrawnPage,
  type DrawnView,
  drawPage,
  featureKey,
  flatPage,
  flatPatterns,
  freePlace,
  itemFaultWords,
  joinedSteps,
  movedBox,
  movedItem,
  NEXT_OUT,
  newBalloons,
  offeredScales,
  overallSizes,
  type PlacedItem,
  pagesForTemplate,
  partedSteps,
  patternFaultWords,
  pieceAt,
  placesInView,
  placesOfViews,
  type RingGround,
  readScale,
  SHEETS,
  type SizeStand,
  scaleWords,
  sizeOfView,
  spotOf,
  standOfSize,
  standsOfSizes,
  subjectOfView,
  type TabledList,
  type ToPlace,
  titleBlockDrawing,
  titleBox,
  titleOn,
  type ViewAsked,
  type ViewPlace,
  viewsAsked,
  wholeTemplate,
} from "./pages";
export {
  axesOf,
  curvesOf,
  type EllipseSegment,
  endOfSegment,
  isRound,
  type Path,
  pathData,
  pointsOf,
  runsOn,
} from "./path";
export { type DiagramInput, type PrintInput, shopPapers } from "./print";
export { type RackLabel, rackLabelPages } from "./rack-labels";
export { type SheetDrawingInput, sheetDrawing } from "./sheet-drawing";
export { silhouette, silhouetteLength } from "./silhouette";
export { textWidth } from "./text-width";
export { shapePicture, thumbnail } from "./thumbnail";
