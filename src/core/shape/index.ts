/** The door of the shape stage. */

export type { EndSide } from "./bar";
export { type BoughtCount, meshOfStandIn } from "./bought";
export { placesNear } from "./cells";
export { type Convex, partsOfMember, partsOfPanel } from "./convex-parts";
export {
  type DrawPlace,
  type DrawSettings,
  directionOf,
  drawGuide,
  drawMember,
  editsOfCuts,
  newPointNames,
  placeAlong,
  placeNamed,
  placeOnJobLine,
  splitMember,
  typedPlace,
  WAYS,
  type Way,
  whereIs,
} from "./draw";
export { drawLegs, drawRectangle, drawRun } from "./draw-many";
export { type StandingEdge, standingEdges } from "./edge-words";
export { faultWords } from "./fault";
export { type Features, featuresOf, standInOf } from "./features";
export { between, facingPair, letGo } from "./follow";
export { endsAcross, endsOnOthers, freedEnds, slantedCut, twoPlaneCut } from "./free-ends";
export { guideIds, linesWithoutMember } from "./guides";
export { cutsByRule, type JointRule, type ProposedCut } from "./joints";
export type { MemberSolid } from "./member";
export { plainSolidOfMember, solidOfMember, type WorkedEnds } from "./member-solid";
export { middleOf } from "./member-work";
export { grooveBox, notchBox, type PanelSolid } from "./panel";
export { type OutlineSolid, outlinePolygon } from "./panel-outline";
export { roundRadii, solidOfPanel } from "./panel-solid";
export { asDrawn, type Counted, type Instance, type Places, poseOf } from "./places";
export { ghostOf, sectionSeat } from "./section-seat";
export {
  countStanding,
  createShaper,
  makeMeshes,
  memberSolid,
  meshesOf,
  type PlacedMesh,
  panelSolid,
  type Shape,
  type Standing,
  shapeJob,
  type Uncomputed,
} from "./shape";
export { type SizeSpan, sizeSpans, withKeySize } from "./size-spans";
export { guideLines, pointsIn, type SnapLine, type SnapPlace, snapLines, snapPlaces } from "./snaps";
export { type ReadShape, readTriangles, shapeOfTriangles } from "./triangles";
