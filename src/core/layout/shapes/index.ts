/** The door of the layouts of free shapes. */
export { layOutShapes, type ShapeOptions } from "./layout";
export {
  readShapeProblem,
  type ShapeLayout,
  type ShapePlacement,
  type ShapeProblem,
  type ShapeProblemInput,
  ShapeProblemSchema,
  type ShapeSheet,
} from "./problem";
export { lyingOutline, verifyShapes } from "./verify";
