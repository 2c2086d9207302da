import { describe, expect, it } from "vitest";
import { readRowNumbers, rowNumberWords } from "./row-numbers";

describe("numbers of a row", () => {
  it.each([
    ["", []],
    ["2", [2]],
    ["7, 2 5-6", [2, 5, 6, 7]],
    ["3–4; 3", [3, 4]],
  ])("%j", (text, numbers) => {
    expect(readRowNumbers(text)).toEqual({ ok: true, value: numbers });
  });

  it.each(["0", "x", "5-2", "1-20000", "1.5", "1-9999"])("%j is refused with a sentence", (text) => {
    const read = readRowNumbers(text);
    expect(!read.ok && read.problem).toMatch(/\.$/);
  });

  it("is written as it is read", () => {
    expect(rowNumberWords([2, 5, 6, 7])).toBe("2, 5-7");
    expect(readRowNumbers(rowNumberWords([1, 2, 9]))).toEqual({ ok: true, value: [1, 2, 9] });
  });
});
