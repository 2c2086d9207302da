/** The door of this folder. */
export { foundInStep } from "./read";
export { writeStep } from "./write";
