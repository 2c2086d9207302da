import * as v from "valibot";
import { expect, it } from "vitest";
import { EditSchema } from "./edit";
import { issueWords } from "./issue-words";

const wordsFor = (schema: v.GenericSchema, value: unknown) => {
  const read = v.safeParse(schema, value);
  return read.success ? null : issueWords(read.issues);
};

const List = v.union([
  v.object({ title: v.string(), rows: v.array(v.string()) }),
  v.object({ title: v.string(), text: v.string() }),
]);

it.each([
  [{ title: "a", text: "b" }, null],
  [{ title: 5, text: "b" }, "title must be a text, and is 5"],
  [{ title: "a", rows: ["x", 1] }, "rows.1 must be a text, and is 1"],
  [{ title: "a" }, "rows is missing"],
  ["a", 'must be an object, and is "a"'],
])("a value that fits no form is told by the form that it comes nearest to: %j", (value, words) => {
  expect(wordsFor(List, value)).toBe(words);
});

it("an edit of no known kind is told by its kind, one of a known kind by what is wrong in it", () => {
  expect(wordsFor(EditSchema, { kind: "dance" })).toMatch(/^kind must be changeInfo or .*, and is "dance"$/);
  expect(wordsFor(EditSchema, { kind: "removeKeySize", id: 3 })).toBe("id must be a text, and is 3");
  expect(
    wordsFor(EditSchema, { kind: "together", edits: [{ kind: "setMeant", id: "a", meant: "yes" }] }),
  ).toBe('edits.0.meant must be true or false, and is "yes"');
});
