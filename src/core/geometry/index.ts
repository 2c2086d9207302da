/** The door of the geometry: vectors, frames, outlines and meshes, without a word of the trade. */
export { type Frame, frameAlong, frameOfFace, toLocal, toWorld } from "./frame";
export { type BoxCut, blockMesh, type EndHeight, type Mesh, memberMesh, placeMesh } from "./mesh";
export {
  type Corner,
  circle,
  drawnPoints,
  endOf,
  type Loop,
  loopArea,
  loopMoments,
  moveLoop,
  type OutlinePoint,
  reach,
  roundedPolygon,
  type Segment,
  startOf,
} from "./outline";
export { type Face, paintOrder } from "./paint-order";
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
