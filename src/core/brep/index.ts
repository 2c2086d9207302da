/** The door of this folder. */
export type { Brep, BrepCurve, BrepSurface } from "./brep";
export { type Model, type ModelProduct, modelOf, modelWords, pieceModelOf } from "./model";
