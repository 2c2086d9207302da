/** Why something has no solid: codes with what they are about, and the one place where they are put into words. */
import { type Problem, sentence, unreachable } from "../kernel";
import { formatDegrees, type LengthStyle, roundTo, sayLength } from "../measure";
import type { EndSide } from "./bar";

/** Why two members cannot meet as they should. */
export type MeetFault =
  | "cutAlong"
  | "onOneAnother"
  | "parallel"
  | "passesBeside"
  | "roundFace"
  | "runsAlong"
  | "branchNotRound"
  | "headerNotRound"
  | "notAllRound"
  | "notSquare"
  | "notAligned"
  | "inTheMiddle";

type Meeting = "mitre" | "butt" | "cope" | "notched" | "past";

/** Why an end cannot be cut. Lengths in mm. */
export type EndFault =
  | { readonly kind: "noNeighbour"; readonly cut: Meeting }
  /** A mitre with a member that does not end there. */
  | { readonly kind: "endsApart"; readonly name: string; readonly apart: number }
  | { readonly kind: "doesNotEndThere"; readonly name: string }
  | { readonly kind: "text"; readonly what: "gap" | "offset" | "angle"; readonly problem: Problem }
  | { readonly kind: "cannotMeet"; readonly cut: Meeting; readonly name: string; readonly why: MeetFault }
  | { readonly kind: "levelMember" }
  | { readonly kind: "tooSteep"; readonly degrees: number; readonly most: number };

/** A text of a record that cannot be computed, by what it stands for. */
export type TextField =
  | "roll"
  | "corner"
  | "lengthAxis"
  | "faceAxis"
  | "length"
  | "width"
  | "tilt"
  | "place"
  | "step"
  | "turn"
  | "size"
  | "between"
  | "groove"
  | "hole"
  | "holeCount"
  | "notch"
  | "other";

/** What has corners one after the other: the outline of a panel, or one of its cut-outs. */
export type Cornered = "outline" | "cutOut";

export type ShapeFault =
  | { readonly kind: "text"; readonly field: TextField; readonly problem: Problem }
  | { readonly kind: "noLine" }
  | { readonly kind: "noPoint" }
  | { readonly kind: "noLength" }
  | { readonly kind: "noSection" }
  | { readonly kind: "unknownSection" }
  | { readonly kind: "end"; readonly side: EndSide; readonly why: EndFault }
  | { readonly kind: "endsCross" }
  | { readonly kind: "noAxes" }
  | { readonly kind: "noSize" }
  /** A corner of an outline, counted from 1. */
  | { readonly kind: "cornerText"; readonly of: Cornered; readonly corner: number; readonly problem: Problem }
  | { readonly kind: "cornerRadius"; readonly of: Cornered; readonly corner: number }
  | { readonly kind: "cornerTooRound"; readonly of: Cornered; readonly corner: number }
  /** `corner` null: an arc of the outline. */
  | { readonly kind: "outlineBeyond"; readonly of: Cornered; readonly corner: number | null }
  | { readonly kind: "outlineCrosses"; readonly of: Cornered }
  | { readonly kind: "followsNone" }
  | { readonly kind: "followsElsewhere"; readonly name: string }
  | { readonly kind: "followsLoop"; readonly names: readonly [string, string] }
  | { readonly kind: "followsFault"; readonly name: string }
  | { readonly kind: "notParallel" | "noRoom" | "notFacing"; readonly names: readonly [string, string] }
  | { readonly kind: "badCount"; readonly field: TextField; readonly count: number; readonly most: number }
  | { readonly kind: "countLoop" }
  | { readonly kind: "countOfNone"; readonly name: string }
  | { readonly kind: "noBox" }
  | { readonly kind: "noCylinder" };

/** A text that cannot be computed, as a fault. */
export const textFault = (field: TextField, problem: Problem): ShapeFault => ({
  kind: "text",
  field,
  problem,
});

const MEET_WORDS: Readonly<Record<MeetFault, string>> = {
  cutAlong: "its cut is parallel to the member",
  onOneAnother: "the members overlap",
  parallel: "the two members are parallel",
  passesBeside: "the members do not meet",
  roundFace: "a butt needs a flat face, and that member is round",
  runsAlong: "the member that butts runs along this one",
  branchNotRound: "only a round section is coped; butt or mitre this one",
  headerNotRound: "it is not round; butt against it instead",
  notSquare: "the two do not meet square; butt this one",
  notAligned: "its section stands turned to the other; butt this one, or turn it",
  inTheMiddle: "the other stands in the way of its middle alone; butt this one",
  notAllRound:
    "it does not meet it all round: its axis is too far beside that of the other. Move the point or take a smaller section",
};

const NO_NEIGHBOUR: Readonly<Record<Meeting, string>> = {
  mitre: "is mitred with a member that does not exist; choose another neighbour",
  butt: "butts against a member that does not exist; choose another neighbour",
  cope: "is coped round a member that does not exist; choose another neighbour",
  notched: "is notched to a member that does not exist; choose another neighbour",
  past: "runs past a member that does not exist; choose another neighbour",
};

function cannotMeet(cut: Meeting, name: string): string {
  switch (cut) {
    case "mitre":
      return "cannot be mitred";
    case "butt":
      return `cannot butt against ${name}`;
    case "cope":
      return `cannot be coped round ${name}`;
    case "notched":
      return `cannot be notched to fit ${name}`;
    case "past":
      return `cannot run past ${name}`;
    default:
      return unreachable(cut);
  }
}

function endFaultWords(why: EndFault, style: LengthStyle): string {
  switch (why.kind) {
    case "noNeighbour":
      return NO_NEIGHBOUR[why.cut];
    case "endsApart":
      return `is mitred with ${why.name}, whose nearest end is ${sayLength(why.apart, style)} away; join the points or choose another cut`;
    case "doesNotEndThere":
      return `runs past ${why.name}, which does not end there`;
    case "text":
      return `has no ${why.what}: ${withoutStop(sentence(why.problem))}`;
    case "cannotMeet":
      return `${cannotMeet(why.cut, why.name)}: ${MEET_WORDS[why.why]}`;
    case "levelMember":
      return "cannot be cut horizontally: the member itself is horizontal";
    case "tooSteep":
      return `cannot be cut at ${formatDegrees(why.degrees)}° from square; the most is ${why.most}°`;
    default:
      return unreachable(why);
  }
}

const FIELD_WORDS: Readonly<Record<TextField, string>> = {
  roll: "",
  corner: "its corner: ",
  lengthAxis: "its length axis: ",
  faceAxis: "its face axis: ",
  length: "its length: ",
  width: "its width: ",
  tilt: "its tilt: ",
  place: "its place: ",
  step: "its step: ",
  turn: "its turn: ",
  size: "its size: ",
  between: "its place between two panels: ",
  groove: "a groove: ",
  hole: "a hole: ",
  holeCount: "a row of holes: ",
  notch: "a notch: ",
  other: "",
};

const withoutStop = (text: string) => text.replace(/\.$/, "");

const CORNERED_WORDS: Readonly<Record<Cornered, string>> = { outline: "its outline", cutOut: "a cut-out" };

/** The fault as the end of a sentence, without its stop. */
export function faultWords(fault: ShapeFault, style: LengthStyle): string {
  switch (fault.kind) {
    case "text":
      return `${FIELD_WORDS[fault.field]}${withoutStop(sentence(fault.problem))}`;
    case "noLine":
      return "its line is gone";
    case "noPoint":
      return "one of its points cannot be computed";
    case "noLength":
      return "its line has no length";
    case "noSection":
      return "it has no section yet";
    case "unknownSection":
      return "its section is not in the stockroom";
    case "end":
      return `its ${fault.side} ${endFaultWords(fault.why, style)}`;
    case "endsCross":
      return "its end cuts overlap, so no length remains";
    case "noAxes":
      return "its length axis and face axis are parallel or empty";
    case "noSize":
      return "its length or width would be zero or negative";
    case "cornerText":
      return `corner ${fault.corner} of ${CORNERED_WORDS[fault.of]}: ${withoutStop(sentence(fault.problem))}`;
    case "cornerRadius":
      return `corner ${fault.corner} of ${CORNERED_WORDS[fault.of]} is rounded by less than nothing`;
    case "cornerTooRound":
      return `corner ${fault.corner} of ${CORNERED_WORDS[fault.of]} is rounded by more than its edges are long`;
    case "outlineBeyond":
      return `${fault.corner === null ? "" : `corner ${fault.corner} of `}${CORNERED_WORDS[fault.of]} lies beyond its length or width`;
    case "outlineCrosses":
      return `${CORNERED_WORDS[fault.of]} crosses itself or encloses nothing; set its corners in their order round ${fault.of === "outline" ? "the panel" : "it"}`;
    case "followsNone":
      return "a panel that it is attached to does not exist";
    case "followsElsewhere":
      return `${fault.name}, which it is attached to, is in another assembly`;
    case "followsLoop":
      return `${fault.names.join(" and ")} are attached to each other; detach one`;
    case "followsFault":
      return `${fault.name}, which it is attached to, cannot be computed`;
    case "notParallel":
      return `${fault.names.join(" and ")}, between which it stands, are not parallel`;
    case "noRoom":
      return `${fault.names.join(" and ")} leave no room between them`;
    case "notFacing":
      return `${fault.names.join(" and ")} do not face one another there`;
    case "badCount":
      return `${FIELD_WORDS[fault.field]}its count would be ${roundTo(fault.count, 3)}; it must be a whole number from 0 to ${fault.most.toLocaleString("en")}`;
    case "countLoop":
      return "its count needs itself, by way of other counts";
    case "countOfNone":
      return `nothing in this job is named "${fault.name}", so it cannot be counted`;
    case "noBox":
      return "a side of its box would be zero or negative";
    case "noCylinder":
      return "its cylinder would have no size";
    default:
      return unreachable(fault);
  }
}
