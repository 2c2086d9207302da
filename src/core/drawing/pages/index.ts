/** The door of the pages. */
export { arrangedOn } from "./arranging";
export { balloonPlaces, type RingGround, type ToPlace } from "./balloon-places";
export { newBalloons } from "./balloons";
export { createViewDrawer, type DrawnView, sizeOfView } from "./drawn-view";
export { flatPatterns } from "./flat-patterns";
export { itemFaultWords, patternFaultWords } from "./item-fault";
export { type CatchLine, catchBoxes, caught, freePlace, movedItem } from "./moving";
export {
  type CatchGround,
  type CaughtFeature,
  catchFeature,
  overallSizes,
  type SizeStand,
  standOfSize,
} from "./new-sizes";
export { type DrawnPage, drawPage, flatPage } from "./page-drawing";
export type { PageGround, TabledList } from "./page-ground";
export { borderOf, SHEETS } from "./paper";
export { pieceAt } from "./picking";
export { movedBox, type PlacedItem } from "./placed";
export { bestScale, offeredScales, readScale, scaleWords } from "./scales";
export { balloonRows } from "./set-lacks";
export { NEXT_OUT } from "./size-parts";
export { standsOfSizes } from "./size-rows";
export { areEqualSteps, joinedSteps, partedSteps } from "./step-sizes";
export { pagesForTemplate, wholeTemplate } from "./template-item";
export { spotOf } from "./tips";
export { titleBlockDrawing, titleBox, titleOn } from "./title-block";
export { axesOfView, subjectOfView, type ViewAsked, viewsAsked } from "./view-asked";
export { baseOf } from "./view-base";
export { placesOfViews, type ViewPlace } from "./view-item";
export { AXIS, featureKey, placesInView } from "./view-places";
