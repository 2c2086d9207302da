/** The door of the layouts of free shapes. */
export {
  type MovedShape,
  moveShape,
  type ShapeAt,
  ShapeBench,
  type ShapeRefusal,
  type ShapeSpot,
  setShapeAside,
  setShapeLock,
} from "./by-hand";
export { layOutShapes, type ShapeOptions } from "./layout";
export {
  type LockedShape,
  lyingCorners,
  lyingHoles,
  lyingOutline,
  readShapeProblem,
  type ShapeLayout,
  type ShapePlacement,
  type ShapeProblem,
  type ShapeProblemInput,
  ShapeProblemSchema,
  type ShapeSheet,
  sizeOfShape,
} from "./problem";
export { areaOfShape } from "./result";
export { lockedShapeFault, shapeFault, verifyShapes } from "./verify";
