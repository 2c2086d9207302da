import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { issueWords } from "../job";
import { stockroomOf } from "./stockroom";
import {
  TITLE_WORDS,
  type TitleBlock,
  TitleBlockSchema,
  titleText,
  titleTextFault,
  USUAL_TITLE_BLOCK,
} from "./title-block";

const values = Object.fromEntries(TITLE_WORDS.map((word) => [word, word.toUpperCase()])) as Record<
  (typeof TITLE_WORDS)[number],
  string
>;
const withText = (text: string): TitleBlock => ({
  ...USUAL_TITLE_BLOCK,
  rows: [[{ kind: "text", label: "", text, parts: 1 }]],
});
const faultOf = (block: unknown) => {
  const read = v.safeParse(TitleBlockSchema, block);
  return read.success ? null : issueWords(read.issues);
};

describe("texts of a title block", () => {
  it("are filled, however the words are typed, and keep everything else", () => {
    expect(titleText("{sheet} of { Sheets }, {DRAWN  BY}!", values)).toBe("SHEET of SHEETS, DRAWN BY!");
    expect(titleText("Tolerances ±0.5", values)).toBe("Tolerances ±0.5");
    for (const word of TITLE_WORDS) expect(titleText(`{${word}}`, values)).toBe(word.toUpperCase());
  });

  it("say which word is not known, and a brace that stands alone", () => {
    expect(titleTextFault("{colour} {sheet}")).toMatch(/^names \{colour\}, .* shop, title, /);
    expect(titleTextFault("{sheet")).toBe("has an unmatched { or }");
    expect(titleTextFault("sheet} {sheets}")).toBe("has an unmatched { or }");
    expect(titleTextFault("{sheet} of {sheets}")).toBeNull();
  });
});

describe("the title block of a shop", () => {
  it("is the usual one where nobody made one, and has the fields that ISO 7200 asks for", () => {
    const { titleBlock } = stockroomOf({ currency: "EUR", sections: [], boards: [], edging: [], bought: [] });
    expect(titleBlock).toEqual(USUAL_TITLE_BLOCK);
    expect(faultOf(titleBlock)).toBeNull();
    const said = titleBlock.rows.flat().map((field) => (field.kind === "text" ? field.text : ""));
    // ISO 7200: legal owner, identification number, date of issue, sheet number, title, creator.
    for (const word of ["{shop}", "{number}", "{date}", "{sheet}", "{title}", "{drawn by}"])
      expect(said.join(" ")).toContain(word);
    expect(titleBlock.width).toBe(180);
  });

  it("is refused with what is wrong: a word, a width above 180 mm, no row, no part", () => {
    expect(faultOf(withText("{colour}"))).toContain("names {colour}");
    expect(faultOf({ ...USUAL_TITLE_BLOCK, width: 181 })).toContain("above 180 mm");
    expect(faultOf({ ...USUAL_TITLE_BLOCK, rows: [] })).toContain("needs a row");
    expect(faultOf({ ...USUAL_TITLE_BLOCK, rows: [[{ kind: "symbol", parts: 0 }]] })).toContain("at least 1");
  });
});
