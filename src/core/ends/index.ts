/** The door of the ends: their kinds, what each knows of itself, and the lengths between two of them. */
export { anglesOf, type EndAngles, sawSettings, signedDegrees } from "./angles";
export { radiiOf } from "./cope";
export type {
  CopeCurve,
  CopeEnd,
  End,
  EndFace,
  EndKind,
  PlaneEnd,
  ProfilePoint,
  SeenAlong,
  Tolerance,
  TwoPlaneEnd,
  Wave,
} from "./end";
export { lengthsBetween, type MemberLengths, ridgesOf, tipOf } from "./lengths";
export { kindOf } from "./registry";
export { endOfTwoPlanes } from "./two-planes";
