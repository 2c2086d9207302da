/**
 * Sizes as one text in the order that a shop is used to: `{thickness} x {width} x {length}`. Names in braces
 * stand for values; everything else is written as it is.
 */
import { refused } from "../job";
import { ok, type Problem, type Result } from "../kernel";

export const SIZE_NAMES = [
  "length",
  "width",
  "thickness",
  "longest",
  "shortest",
  "stock",
  "material",
  "name",
] as const;
export type SizeName = (typeof SIZE_NAMES)[number];

type Part =
  | { readonly kind: "text"; readonly text: string }
  | { readonly kind: "value"; readonly name: SizeName };
export type SizePattern = readonly Part[];

export const USUAL_SIZE = { member: "{length}", panel: "{length} × {width} × {thickness}" } as const;

/** Reads a pattern; the problem says which name is not known or which brace stands alone. */
export function readSizePattern(text: string): Result<SizePattern, Problem> {
  const parts: Part[] = [];
  const pieces = text.split(/(\{[^{}]*\})/);
  for (const piece of pieces) {
    if (piece === "") continue;
    const named = /^\{\s*([^{}]*?)\s*\}$/.exec(piece);
    if (!named) {
      if (/[{}]/.test(piece)) return refused("The size pattern", text, "has a brace without its partner");
      parts.push({ kind: "text", text: piece });
      continue;
    }
    const name = SIZE_NAMES.find((one) => one === named[1]);
    if (!name)
      return refused(
        "The size pattern",
        text,
        `uses {${named[1]}}, which it does not know; there are ${SIZE_NAMES.join(", ")}`,
      );
    parts.push({ kind: "value", name });
  }
  return ok(parts);
}

/** The text of a pattern with values; null when one of them does not exist for this piece. */
export function writeSize(pattern: SizePattern, valueFor: (name: SizeName) => string | null): string | null {
  let text = "";
  for (const part of pattern) {
    const value = part.kind === "text" ? part.text : valueFor(part.name);
    if (value === null) return null;
    text += value;
  }
  return text;
}
