/** The door of nesting. */
export {
  type MovedShape,
  moveShape,
  NestingBench,
  type ShapeAt,
  type ShapeRefusal,
  type ShapeSpot,
  setShapeAside,
  setShapeLock,
} from "./by-hand";
export { layOutNesting, type NestingOptions } from "./layout";
export {
  type LockedShape,
  lyingCorners,
  lyingCutOuts,
  lyingHoles,
  lyingOutline,
  type NestingLayout,
  type NestingProblem,
  type NestingProblemInput,
  NestingProblemSchema,
  type NestingSheet,
  readNestingProblem,
  type ShapePlacement,
  sizeOfShape,
} from "./problem";
export { areaOfShape } from "./result";
export { lockedNestingFault, nestingFault, verifyNesting } from "./verify";
