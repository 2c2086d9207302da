import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { changeWords, differences, lineChange } from "./difference";

describe("what differs", () => {
  it("of a long text only what was replaced is told, between the words that it stands between", () => {
    const note = (from: number, deep: number) =>
      `front birch edging 1 mm; groove 18 × ${deep} deep, ${from} from left / 237 from right; 8 × hole Ø 5`;
    expect(changeWords(note(645, 6), note(660, 6))).toBe("deep 645 → 660 from");
    expect(changeWords(note(645, 6), note(660, 8))).toBe("× 6 → 8 deep; deep 645 → 660 from");
  });

  it("what came and what went", () => {
    expect(changeWords("front birch edging 1 mm all along", "front birch edging 1 mm")).toBe(
      "gone: all along",
    );
    expect(changeWords("groove 18 × 6 deep from left", "groove 18 × 6 deep from left; 8 holes")).toContain(
      "8 holes",
    );
  });

  it("of numbers by how much, of short texts the text, of nothing that it was nothing", () => {
    expect(changeWords("1380", "1377.5")).toBe("was 1380, −2.5");
    expect(changeWords("4", "5")).toBe("was 4, +1");
    expect(changeWords("B", "C")).toBe("was B");
    expect(changeWords("", "C")).toBe("was nothing");
    expect(lineChange("1380", "1400")).toBe("1400 (was 1380, +20)");
  });

  it("puts the new text together out of the old one: nothing that differs is left untold", () => {
    const word = fc.constantFrom("groove", "18", "×", "6", "from", "left;", "645", "hole");
    const text = fc.array(word, { minLength: 1, maxLength: 14 }).map((words) => words.join(" "));
    fc.assert(
      fc.property(text, text, (was, now) => {
        const told = differences(was, now);
        expect(told.length === 0).toBe(was === now);
        const count = (texts: readonly string[]) =>
          texts.flatMap((one) => one.split(" ")).filter((one) => one !== "").length;
        // Words that stay are as many on both sides.
        expect(count([was]) - count(told.map((one) => one.was))).toBe(
          count([now]) - count(told.map((one) => one.now)),
        );
      }),
    );
  });
});
