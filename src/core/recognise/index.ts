/** The door of this folder. */
export type { SolidMesh } from "./body";
export { closing } from "./close";
export { nearest, type ReadEnd, type ReadMember } from "./member";
export type { MemberHole } from "./member-holes";
export type { PanelGroove, PanelHole, ReadPanel } from "./panel";
export { type FlatRule, type OtherReading, type Reading, reading, USUAL_FLAT_RULE } from "./reading";
