/**
 * Sizes as one text in the order that a shop is used to: `{thickness} x {width} x {length}`. A name in braces stands
 * for what that column says, however the name is typed; everything else is written as it is.
 */
import { computedColumn, plainName, refused } from "../job";
import { ok, type Problem, type Result } from "../kernel";

/** The names that are offered first; any other column will do. */
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

type Part =
  | { readonly kind: "text"; readonly text: string }
  | { readonly kind: "value"; readonly name: string };
export type SizePattern = readonly Part[];

export const USUAL_SIZE = { member: "{length}", panel: "{length} × {width} × {thickness}" } as const;

/**
 * Reads a pattern; `own` are the names of the job's own columns. The problem says which name is not known or which
 * brace stands alone.
 */
export function readSizePattern(text: string, own: readonly string[] = []): Result<SizePattern, Problem> {
  const parts: Part[] = [];
  const pieces = text.split(/(\{[^{}]*\})/);
  for (const piece of pieces) {
    if (piece === "") continue;
    const named = /^\{\s*([^{}]*?)\s*\}$/.exec(piece);
    if (!named) {
      if (/[{}]/.test(piece)) return refused("The size pattern", text, "has an unmatched { or }");
      parts.push({ kind: "text", text: piece });
      continue;
    }
    const [, name = ""] = named;
    // A size within a size would go round for ever.
    const known = computedColumn(name) ?? own.find((one) => plainName(one) === plainName(name));
    if (!known || known === "size" || plainName(name) === "")
      return refused(
        "The size pattern",
        text,
        `uses {${name}}, which it does not know; there are ${SIZE_NAMES.join(", ")} and the other columns`,
      );
    parts.push({ kind: "value", name });
  }
  return ok(parts);
}

/** The text of a pattern with values; null when one of them does not exist for this piece. */
export function writeSize(pattern: SizePattern, valueFor: (name: string) => string | null): string | null {
  let text = "";
  for (const part of pattern) {
    const value = part.kind === "text" ? part.text : valueFor(part.name);
    if (value === null) return null;
    text += value;
  }
  return text;
}
