/** The door of the geometry: vectors, frames, outlines and meshes, without a word of the trade. */

export { type BodySide, carved } from "./carve";
export { type CutSolid, cutSolid } from "./cut-solid";
export {
  AT_HOME,
  type Frame,
  frameAlong,
  frameIn,
  frameOfFace,
  type Pose,
  posed,
  poseIn,
  toLocal,
  toWorld,
  turned,
} from "./frame";
export { type CutBox, withCorners, withoutBox } from "./loop-cuts";
export { extremePoints, type Linear, partBelow, pointOn, valueAt, zerosOn } from "./loop-parts";
export { type FlatMesh, flatMesh, type Mesh, placeMesh, poseMesh, unflatMesh, unposeMesh } from "./mesh";
export { solidOfMesh } from "./mesh-solid";
export {
  type Corner,
  circle,
  endOf,
  type Loop,
  loopArea,
  loopMoments,
  moveLoop,
  onArc,
  reach,
  reversedLoop,
  ringPoints,
  roundedPolygon,
  roundedSegments,
  type Segment,
  startOf,
} from "./outline";
export { boxLoop, type Plate, type PlateCut, plateSolid } from "./plate";
export {
  type BulgedCorner,
  boxOfPoints,
  bulgedCorners,
  crossesItself,
  edgeDistance,
  edgesOf,
  filletCorners,
  flattened,
  insideParts,
  isInside,
  movedPolygon,
  nearestOf,
  nearestOnEdges,
  type PlaneBox,
  type Polygon,
  polygonArea,
  polygonDistance,
  stretchDistance,
  stretchesCross,
  turnedPolygon,
} from "./polygon";
export { type EndSurface, levelEnd, prismMesh, prismSolid } from "./prism";
export { CLIPPER_UNIT, clipperPath, convexHull, type Region, sharedArea, without } from "./regions";
export { type Fineness, type Ring, ringOf, sharpRing } from "./ring";
export { type Ellipse, type Solid, type SolidLine, solidMesh } from "./solid";
export {
  add,
  add2,
  cross,
  cross2,
  direction,
  distance,
  dot,
  dot2,
  norm,
  norm2,
  scale,
  scale2,
  subtract,
  subtract2,
  type Vec2,
  type Vec3,
} from "./vector";
export { type Welded, welded } from "./weld";
