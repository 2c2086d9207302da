import { describe, expect, it } from "vitest";
import { readRowNumbers, rowNumbersFaultWords, rowNumberWords } from "./row-numbers";

describe("numbers of a row", () => {
  it.each([
    ["", []],
    ["2", [2]],
    ["7, 2 5-6", [2, 5, 6, 7]],
    ["3–4; 3", [3, 4]],
  ])("%j", (text, numbers) => {
    expect(readRowNumbers(text)).toEqual({ ok: true, value: numbers });
  });

  it.each([
    ["0", { kind: "outOfRow", part: "0" }],
    ["3 x", { kind: "notANumber", part: "x" }],
    ["5-2", { kind: "outOfRow", part: "5-2" }],
    ["1-20000", { kind: "outOfRow", part: "1-20000" }],
    ["1.5", { kind: "notANumber", part: "1.5" }],
    ["1-9999", { kind: "tooMany", most: 1000 }],
  ])("%j is refused", (text, problem) => {
    const read = readRowNumbers(text);
    expect(read).toEqual({ ok: false, problem });
    expect(read.ok ? "" : rowNumbersFaultWords(read.problem)).toMatch(/^("|At most).*\.$/);
  });

  it("is written as it is read", () => {
    expect(rowNumberWords([2, 5, 6, 7])).toBe("2, 5-7");
    expect(readRowNumbers(rowNumberWords([1, 2, 9]))).toEqual({ ok: true, value: [1, 2, 9] });
  });
});
