import { describe, expect, it } from "vitest";
import { numberOption, readWords } from "./arguments";
import { commandWords } from "./command-fault";

const ALLOWED = { format: ["json", "csv"], list: "any" } as const;

describe("the words of a command line", () => {
  it("are one file and options with a value each, joined or apart", () => {
    expect(readWords(["job.json", "--format=csv", "--list", "cut"], ALLOWED)).toEqual({
      ok: true,
      value: {
        file: "job.json",
        options: new Map([
          ["format", "csv"],
          ["list", "cut"],
        ]),
      },
    });
  });

  it.each([
    [["a.json", "--colour", "red"], { kind: "unknownOption", option: "colour" }],
    [["a.json", "--list"], { kind: "noValue", option: "list" }],
    [
      ["a.json", "--format", "doc"],
      { kind: "notAmong", option: "format", value: "doc", choices: ["json", "csv"] },
    ],
    [[], { kind: "noFile" }],
    [["a.json", "b.json"], { kind: "tooManyFiles", extra: "b.json" }],
  ] as const)("%j is refused, and the reason is one line", (words, fault) => {
    const read = readWords(words, ALLOWED);
    expect(read).toEqual({ ok: false, problem: fault });
    if (!read.ok) expect(commandWords(read.problem)).toMatch(/^[^\n]{5,}$/);
  });

  it("numbers are zero or more, and have their usual value where none is given", () => {
    const of = (text: string | null) =>
      numberOption(new Map(text === null ? [] : [["seconds", text]]), "seconds", 5);
    expect([of(null), of("0"), of("2.5")]).toEqual([5, 0, 2.5].map((value) => ({ ok: true, value })));
    for (const text of ["-1", "soon", "Infinity"])
      expect(of(text)).toEqual({
        ok: false,
        problem: { kind: "notANumber", option: "seconds", value: text },
      });
  });
});
