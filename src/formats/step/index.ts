/** The door of this folder. */

export { foundInStep, type GeometryReader, MOST_STEP_BYTES, type StepProgress } from "./read";
export { readStatements, type Statements } from "./statements";
export { readStructure, type StepProduct, type StepStructure, type StepUse, separated } from "./structure";
export { quoted, type StepHead, writeStep } from "./write";
