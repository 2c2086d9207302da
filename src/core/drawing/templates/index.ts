/** The door of the templates. */
export { type EndTemplateFault, endPattern } from "./end-pattern";
export { panelPattern } from "./panel-pattern";
export { type Part, type Pattern, partOfPattern, partsFor } from "./pattern";
