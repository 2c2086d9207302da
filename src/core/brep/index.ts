/** The door of this folder. */
export {
  type Brep,
  type BrepCurve,
  type BrepEdge,
  type BrepFace,
  type BrepSurface,
  facetedBrep,
  middleOfEdge,
  mirroredBrep,
  prismBrep,
} from "./brep";
export { type Model, type ModelProduct, modelOf } from "./model";
