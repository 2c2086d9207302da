/** The door of the building steps. */
export { joinedWithBefore, partedStep, stepsBeside, withoutParts, withParts } from "./edits";
export { furtherStep, type ProposedStep, partName, proposedSteps } from "./proposal";
export {
  type BuiltIn,
  builtIn,
  findSteps,
  type HomeSteps,
  type StandingStep,
  type StepAsked,
  standingSteps,
} from "./standing";
