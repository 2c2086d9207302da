/**
 * A check: something found in the job that a person should look at, with the place and, where there is
 * one, a fix that is one edit.
 */
import type { Edit } from "./edit";

export type CheckKind =
  | "keySize"
  | "notComputed"
  | "endCut"
  | "steepEnd"
  | "placement"
  | "usual"
  | "nearPoints"
  | "drawnTwice"
  | "meetsNothing"
  | "overlap"
  | "shortMember"
  | "endsCross"
  | "mitreDoesNotClose"
  | "noSection"
  | "noBoard"
  | "noMaterial"
  | "noStock"
  | "unknownStock"
  | "noBoughtEntry"
  | "groove"
  | "nearTwins"
  | "spreadRow"
  | "handRow"
  | "typedLikeDrawn"
  | "markShared"
  | "unreadableRow"
  | "noPrice";

export type Check = {
  readonly kind: CheckKind;
  /** `error`: the piece cannot be trusted; `warning`: it should be looked at. */
  readonly severity: "error" | "warning";
  readonly message: string;
  /** Ids of the records that it is about. */
  readonly records: readonly string[];
  readonly marks: readonly string[];
  /** The row of a cutting list that it is about, with the text that stood there. */
  readonly listRow?: { readonly row: number; readonly text: string };
  readonly fix: { readonly label: string; readonly edit: Edit } | null;
  /** Under which id it is kept that somebody meant it so; without one, it cannot be meant. */
  readonly meant?: string;
};

/** A check without a fix, about some records. */
export function plainCheck(
  kind: CheckKind,
  severity: Check["severity"],
  message: string,
  records: readonly string[],
): Check {
  return { kind, severity, message, records, marks: [], fix: null };
}

/** The id under which "it is meant" is kept for two things that differ by little, whichever comes first. */
export const meantId = (a: string, b: string) => [a, b].sort().join(" ~ ");
