/** Why an item of a page is not shown as it should be, as data, and the one place where that is put into words. */
import { agreeing, counted, LENGTH_TOLERANCE_MM, type Problem, sentence } from "../../kernel";
import { type OutdatedReason, outdatedWords } from "../../layout";
import { formatLength, type LengthStyle } from "../../measure";
import type { EndTemplateFault } from "../templates";

/** The part of a card that has no room on it. */
export type CardFault = { readonly kind: "noRoomOnCard"; readonly what: "section" | "panel" | "facts" };

/** Why there is no pattern of a piece at full size. */
export type PatternFault = EndTemplateFault | "noSize";

/** What an item was made for that is in the job no more, or has not come yet. */
type Lost =
  | "followedView"
  | "assemblyOfView"
  | "placeOfDetail"
  | "stepOfView"
  | "pieceOfCard"
  | "pieceOfTemplate"
  | "assemblyOfStep"
  | "pieceOfBalloon"
  | "listBefore"
  | "list"
  | "stockOfLayout"
  | "picture";

/** Why a size cannot be read in its view. */
export type SizeFault =
  | { readonly kind: "sizeInApartView" }
  | { readonly kind: "sizeLost" }
  | { readonly kind: "sizeWants"; readonly what: "hole" | "rounding" | "members" }
  | { readonly kind: "sizeSeenAtAngle" }
  | { readonly kind: "placesTogether" }
  | { readonly kind: "linesParallel" }
  | {
      readonly kind: "stepsUnequal";
      /** mm */
      readonly least: number;
      readonly most: number;
      readonly style: LengthStyle;
    };

export type ItemFault =
  | SizeFault
  | CardFault
  | { readonly kind: "lost"; readonly what: Lost }
  | { readonly kind: "offSheet" }
  | { readonly kind: "cutNotComputed"; readonly problem: Problem }
  | { readonly kind: "nothingSeen" }
  /** Pieces that a view pulls apart hold one another; those of a step cannot get to their places, or stand in the air. */
  | { readonly kind: "piecesHeld" | "piecesInTheWay" | "piecesLoose"; readonly count: number }
  | { readonly kind: "textNotRead"; readonly problem: Problem }
  | { readonly kind: "calloutUnseen" }
  | { readonly kind: "balloonUnseen"; readonly mark: string }
  | { readonly kind: "balloonCrowded"; readonly mark: string }
  | { readonly kind: "noPattern"; readonly why: PatternFault }
  | { readonly kind: "templatePastBorder" }
  /** `parts`: in so many it would have room; null: in none. */
  | { readonly kind: "templateTooLarge"; readonly parts: number | null }
  | { readonly kind: "listTooLong"; readonly left: number; readonly what: "row" | "column" }
  | { readonly kind: "layoutOutdated"; readonly revision: number; readonly reason: OutdatedReason }
  | { readonly kind: "builtTwice"; readonly names: readonly string[] }
  | { readonly kind: "stepPiecesGone"; readonly count: number };

const LOST_WORDS: Readonly<Record<Lost, string>> = {
  followedView: "The view that this one follows is gone. Give it a direction of its own.",
  assemblyOfView: "The assembly that this view shows is gone. Choose what it shows.",
  stepOfView: "The building step of this view is gone, or builds something else. Choose another, or none.",
  placeOfDetail: "The place that this detail is of is gone, or not in its view any more.",
  pieceOfCard: "The piece that this card is for is gone. Remove the card.",
  pieceOfTemplate: "The piece that this template is for is gone. Remove the template.",
  assemblyOfStep: "The assembly that this step builds is gone. Remove the step.",
  pieceOfBalloon: "The piece that this balloon names is gone, or in no list.",
  listBefore: "The list that continues here is gone. Remove this part of it.",
  list: "The list that stood here is gone. Choose another.",
  stockOfLayout: "The stock whose layout stood here is not in the job any more.",
  picture: "The picture has not arrived, or is not there any more.",
};

const PATTERN_WORDS: Readonly<Record<PatternFault, string>> = {
  open: "Paper cannot be wrapped round this section: templates are for tubes, bars and angles.",
  solid: "This section has no inside that paper could lie on. Choose the outside.",
  noSection: "This piece has no section, so its ends cannot be laid flat.",
  crossed: "The two ends of this member cross: make a template of one end.",
  noSize: "This piece has no size, so there is nothing to draw at full size.",
};

export const patternFaultWords = (why: PatternFault): string => PATTERN_WORDS[why];

const WANTS_WORDS: Readonly<Record<Extract<SizeFault, { kind: "sizeWants" }>["what"], string>> = {
  hole: "This size wants a hole: pick its middle.",
  rounding: "This size wants a rounded corner: pick its middle.",
  members: "This size wants two members: pick again.",
};

const CARD_WORDS: Readonly<Record<CardFault["what"], string>> = {
  section: "The section has no room on this card. Make the card taller.",
  panel: "The panel with its sizes has no room on this card. Make the card larger.",
  facts: "The text on this card has no room. Make the card taller.",
};

/** The sentence for a fault: what is wrong with the item, and what to do. */
export function itemFaultWords(fault: ItemFault): string {
  switch (fault.kind) {
    case "lost":
      return LOST_WORDS[fault.what];
    case "offSheet":
      return "It runs off the page. Move it, make it smaller, or take a larger sheet.";
    case "cutNotComputed":
      return `Where this view is cut cannot be computed: ${sentence(fault.problem)}`;
    case "nothingSeen":
      return "Nothing to be seen: all of it is hidden, cut away, absent in this variant, or gone.";
    case "piecesHeld":
      return `${counted(fault.count, "piece")} hold one another and stay together in this view. Select one and move it by hand.`;
    case "piecesInTheWay":
      return `${counted(fault.count, "piece")} cannot get to ${agreeing(fault.count, "its place", "their places")}: what is there already is in the way. Put ${agreeing(fault.count, "it", "them")} into an earlier step.`;
    case "piecesLoose":
      return `${counted(fault.count, "piece")} ${agreeing(fault.count, "comes", "come")} near to nothing that is there. Put ${agreeing(fault.count, "it", "them")} into a later step.`;
    case "textNotRead":
      return sentence(fault.problem);
    case "calloutUnseen":
      return "The piece that this text points at is not seen in this view.";
    case "balloonUnseen":
      return `${fault.mark} is not seen in this view.`;
    case "balloonCrowded":
      return `There is no room for ${fault.mark} round this view. Make its scale smaller, or the page larger.`;
    case "noRoomOnCard":
      return CARD_WORDS[fault.what];
    case "noPattern":
      return patternFaultWords(fault.why);
    case "templatePastBorder":
      return "This template reaches past the border of the page. Move it.";
    case "templateTooLarge":
      return fault.parts === null
        ? "This template has no room on the page, not even in parts. Choose larger paper."
        : `This template has no room on the page. Print it in ${fault.parts} parts, or choose larger paper.`;
    case "listTooLong":
      return `${counted(fault.left, fault.what)} ${agreeing(fault.left, "has", "have")} no room here. Make it taller, or continue it on another page.`;
    case "layoutOutdated":
      return `Made from revision ${fault.revision}, older than the design: ${outdatedWords(fault.reason)}. Lay it out again before anybody cuts from it.`;
    case "builtTwice":
      return `${fault.names.join(", ")}: built in by a step before this one already. Take it out of one of them.`;
    case "stepPiecesGone":
      return `${counted(fault.count, "piece")} of this step ${agreeing(fault.count, "is", "are")} gone. Take ${agreeing(fault.count, "it", "them")} out of the step.`;
    default:
      return sizeFaultWords(fault);
  }
}

function sizeFaultWords(fault: SizeFault): string {
  switch (fault.kind) {
    case "sizeInApartView":
      return "In a view that is pulled apart nothing can be measured. Make it whole, or move the size to another.";
    case "sizeLost":
      return "What this size measures is gone or not in this view: pick again.";
    case "sizeWants":
      return WANTS_WORDS[fault.what];
    case "sizeSeenAtAngle":
      return "In a view that is seen at an angle only sizes along something can be read.";
    case "placesTogether":
      return "The two places fall together in this view: pick again.";
    case "linesParallel":
      return "The two members are parallel in this view: there is no angle to read.";
    case "stepsUnequal": {
      const words = (value: number) => formatLength(value, fault.style, LENGTH_TOLERANCE_MM);
      return `The steps of this size are not equal any more: from ${words(fault.least)} to ${words(fault.most)}. Part it into single sizes.`;
    }
    default:
      return fault satisfies never;
  }
}
