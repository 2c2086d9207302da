/** What differs between what something said and what it says, so that nobody has to compare two long texts. */
import { diffWordsWithSpace } from "diff";
import { at } from "../kernel";
import { roundTo } from "../measure";

/** Texts up to so many signs are taken in at a glance. */
const SHORT = 24;
const NUMBER = /^-?\d+(?:\.\d+)?$/;

/** A stretch that was replaced, with the word before and after it that say where. */
type Stretch = {
  readonly before: string;
  readonly was: string;
  readonly now: string;
  readonly after: string;
};

/** The stretches of a text that are others now, one after the other. */
export function differences(was: string, now: string): readonly Stretch[] {
  const parts = diffWordsWithSpace(was, now);
  const found: Stretch[] = [];
  for (let i = 0; i < parts.length; i++) {
    const part = at(parts, i);
    if (!part.added && !part.removed) continue;
    let [gone, came] = ["", ""];
    const before = lastWord(parts[i - 1]?.value ?? "");
    // What is replaced word by word is one stretch, blanks between them included.
    for (; i < parts.length; i++) {
      const { value, added, removed } = at(parts, i);
      if (!added && !removed && value.trim() !== "") break;
      if (!added) gone += value;
      if (!removed) came += value;
    }
    const after = firstWord(parts[i]?.value ?? "");
    if (gone.trim() !== came.trim()) found.push({ before, was: gone.trim(), now: came.trim(), after });
  }
  return found;
}

const bare = (word: string | undefined) => (word ?? "").replace(/[,;:]$/, "");
const lastWord = (text: string) => bare(text.trimEnd().split(/\s+/).at(-1));
const firstWord = (text: string) => bare(text.trimStart().split(/\s+/)[0]);

/**
 * In words what a text said before: of a number by how much it differs, of a long text only what was replaced: "from 645 → 660
 * left". Short ones are told whole.
 */
export function changeWords(was: string, now: string): string {
  if (was === "") return "was nothing";
  if (NUMBER.test(was) && NUMBER.test(now)) {
    const more = roundTo(Number(now) - Number(was), 6);
    return `was ${was}, ${more > 0 ? "+" : "−"}${Math.abs(more)}`;
  }
  if (was.length <= SHORT || now === "") return `was ${was}`;
  const words = differences(was, now).map((one) => {
    if (one.was === "") return `new: ${one.now}`;
    if (one.now === "") return `gone: ${one.was}`;
    return [one.before, one.was, "→", one.now, one.after].filter(Boolean).join(" ");
  });
  return words.length === 0 ? `was ${was}` : words.join("; ");
}

/** The same for whole lines beside one another: a short one with what it says now. */
export const lineChange = (was: string, now: string): string =>
  was.length <= SHORT ? `${now} (${changeWords(was, now)})` : changeWords(was, now);
