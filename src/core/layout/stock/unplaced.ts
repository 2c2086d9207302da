/** Why a piece has no place in a layout: codes with what they are about, and the one place where they are put into words. */
import * as v from "valibot";
import { unreachable } from "../../kernel";
import { type LengthStyle, sayLength, saySizes } from "../../measure";

const size = v.pipe(v.number(), v.finite(), v.minValue(0));
const sizes = v.pipe(v.tuple([size, size]), v.readonly());

/** What stands in the way of a panel or of panels that are cut as one; sizes in mm. */
const tooLarge = v.object({
  kind: v.literal("tooLarge"),
  size: sizes,
  /** What the largest sheet gives. */
  largest: sizes,
  trimmed: v.boolean(),
});
const againstGrain = v.object({ kind: v.literal("againstGrain"), size: sizes });
const noStock = v.object({ kind: v.literal("noStock") });

export const UnplacedReasonSchema = v.variant("kind", [
  /** Set aside by hand. */
  v.object({ kind: v.literal("aside") }),
  noStock,
  v.object({ kind: v.literal("usedUp") }),
  /** Of panels: the sheets are used up, or the stages of cuts do not allow more on them. */
  v.object({ kind: v.literal("usedUpOrStages") }),
  /** A bar piece; lengths in mm. */
  v.object({ kind: v.literal("tooLong"), length: size, longest: size, trimmed: v.boolean() }),
  tooLarge,
  againstGrain,
  /** An outline that fits no sheet in any of the angles it may be turned to. */
  v.object({ kind: v.literal("tooLargeTurned") }),
  /** An outline that would fit, were it not for its grain. */
  v.object({ kind: v.literal("grainOnly") }),
  v.object({ kind: v.literal("tooMany"), most: v.pipe(v.number(), v.integer()) }),
  v.object({ kind: v.literal("badOutline") }),
  /** Panels that are cut from one blank. */
  v.object({ kind: v.literal("blankUneven") }),
  v.object({ kind: v.literal("blank"), why: v.variant("kind", [tooLarge, againstGrain, noStock]) }),
  /** Of a layout that was kept before reasons were codes. */
  v.object({ kind: v.literal("told"), words: v.pipe(v.string(), v.maxLength(400)) }),
]);
export type UnplacedReason = v.InferOutput<typeof UnplacedReasonSchema>;

/** Why a piece waits that somebody set aside. */
export const ASIDE: UnplacedReason = { kind: "aside" };

/** Reasons as they stand in layouts that were kept: a code, or the words of before. */
export function readReason(stored: unknown): UnplacedReason {
  const read = v.safeParse(UnplacedReasonSchema, stored);
  if (read.success) return read.output;
  const words = typeof stored === "string" ? stored : "it found no place";
  return words === "set aside by hand" ? ASIDE : { kind: "told", words };
}

/** What a reason may say of a piece: its own size, what the largest stock gives, in mm, and whether stock is trimmed. */
export type ReasonFacts = {
  readonly size: readonly number[];
  readonly largest: readonly number[];
  readonly trimmed: boolean;
};

/** What a reason says that is not so, or null. `facts` gives those of the piece, or of the blank that it is part of. */
export function reasonFault(
  why: UnplacedReason,
  facts: (blank: boolean) => readonly ReasonFacts[],
): string | null {
  const isTold = (told: Partial<ReasonFacts>, blank: boolean) =>
    facts(blank).some(
      ({ size, largest, trimmed }) =>
        isNear(told.size ?? size, size) &&
        isNear(told.largest ?? largest, largest) &&
        (told.trimmed ?? trimmed) === trimmed,
    );
  const [inner, blank] = why.kind === "blank" ? [why.why, true] : [why, false];
  switch (inner.kind) {
    case "tooLong":
      return isTold({ size: [inner.length], largest: [inner.longest], trimmed: inner.trimmed }, blank)
        ? null
        : `an unplaced piece is said to be ${inner.length} long where ${inner.longest} is the most`;
    case "tooLarge":
    case "againstGrain":
      return isTold(inner, blank) ? null : `an unplaced panel is said to be ${inner.size.join(" × ")}`;
    default:
      return null;
  }
}

/** To a thousandth of a millimetre. */
const isNear = (told: readonly number[], real: readonly number[]) =>
  told.length === real.length && told.every((value, i) => Math.abs(value - (real[i] ?? 0)) < 1e-3);

/** The reason as the end of a sentence. */
export function reasonWords(why: UnplacedReason, style: LengthStyle): string {
  switch (why.kind) {
    case "aside":
      return "removed by hand";
    case "noStock":
      return "there is no stock for it";
    case "usedUp":
      return "the limited stock is used up";
    case "usedUpOrStages":
      return "the sheets that it fits are used up, or the stages do not allow it";
    case "tooLong":
      return `longer than every bar: ${sayLength(why.length, style)}, the longest bar gives ${sayLength(why.longest, style)}${trims(why.trimmed)}`;
    case "tooLarge":
      return `larger than every sheet: ${saySizes(why.size, style)}, the largest gives ${saySizes(why.largest, style)}${trims(why.trimmed)}`;
    case "againstGrain":
      return `${saySizes(why.size, style)} only fits turned against the grain`;
    case "tooLargeTurned":
      return "larger than every sheet, however it is turned";
    case "grainOnly":
      return "it would fit only against the grain";
    case "tooMany":
      return `more than ${why.most.toLocaleString("en")} pieces at once`;
    case "badOutline":
      return "its outline crosses itself or encloses nothing; draw it anew";
    case "blankUneven":
      return "kept together, but their sizes across differ";
    case "blank":
      return `kept together as one blank: ${reasonWords(why.why, style)}`;
    case "told":
      return why.words;
    default:
      return unreachable(why);
  }
}

const trims = (trimmed: boolean) => (trimmed ? " after its trims" : "");
