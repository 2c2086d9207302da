/** What a validation complains about, in words: where it is, and what must stand there. */
import type * as v from "valibot";

const KINDS: ReadonlyMap<string, string> = new Map([
  ["number", "a number"],
  ["string", "a text"],
  ["boolean", "true or false"],
  ["array", "a list"],
  ["tuple", "a list"],
  ["object", "an object"],
  ["Object", "an object"],
  ["record", "an object"],
  ["strict_object", "an object"],
]);

/** The first complaint of a validation, with its path; the end of a sentence. */
export function issueWords(issues: readonly v.BaseIssue<unknown>[]): string {
  const first = issues[0];
  if (!first) return "it does not fit";
  const { issue, keys } = deepest(first, []);
  const path = keys.map((key) => shortened(String(key), 30)).join(".");
  const words = wordsOf(issue);
  return path ? `${path} ${words}` : words;
}

/** An issue with the whole path to it. */
type Complaint = { readonly issue: v.BaseIssue<unknown>; readonly keys: readonly unknown[] };

/** Of a value that fits none of several forms, the complaint of the form that it comes nearest to: that fits deepest. */
function deepest(issue: v.BaseIssue<unknown>, above: readonly unknown[]): Complaint {
  const keys = [...above, ...(issue.path ?? []).map(({ key }) => key)];
  const inner = issue.type === "union" ? (issue.issues ?? []).map((one) => deepest(one, keys)) : [];
  // What is missing is further off than what is there and wrong.
  const rank = (one: Complaint) => 2 * one.keys.length - (one.issue.received === "undefined" ? 1 : 0);
  return inner.reduce((best, one) => (rank(one) > rank(best) ? one : best), { issue, keys });
}

function wordsOf(issue: v.BaseIssue<unknown>): string {
  const { kind, type, expected, received, message } = issue;
  // Words of our own, where a schema has some.
  if (!message.startsWith("Invalid ")) return message;
  if (received === "undefined") return "is missing";
  const must =
    KINDS.get(type) ?? KINDS.get(expected ?? "") ?? (expected === null ? "something else" : oneOf(expected));
  if (kind !== "schema") return `must be ${must}, and is ${shortened(received, 60)}`;
  return `must be ${must}, and is ${received === "NaN" ? "no number" : shortened(received, 60)}`;
}

/** `("a" | "b")` as `a or b`; bounds such as `>=0` as they are. */
function oneOf(expected: string): string {
  const choices = expected.replace(/^\(|\)$/g, "").split(" | ");
  const plain = choices.map((one) => one.replace(/^"|"$/g, ""));
  return shortened(plain.join(" or "), 160);
}

const shortened = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
