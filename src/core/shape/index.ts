/** The door of the shape stage. */
export type { EndPlane, EndSide } from "./ends";
export { type MemberLengths, type MemberSolid, memberLengths, meshOfMember } from "./member";
export { type GrooveSolid, meshOfPanel, type PanelSolid } from "./panel";
export { type BoughtCount, meshesOf, type Shape, shapeJob, type Uncomputed } from "./shape";
