/** The door of the jigs: ready-made builds that insert ordinary geometry. */

export { fillJig, JIGS, type JigFilling } from "./fill";
export type { Jig, JigField } from "./jig";
export { lastUsed } from "./last-used";
