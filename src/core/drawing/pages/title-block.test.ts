import { describe, expect, it } from "vitest";
import type { PlaneBox } from "../../geometry";
import { type Asset, type AssetId, NO_ASSETS } from "../../job";
import { TITLE_WORDS, type TitleBlock, type TitleField, USUAL_TITLE_BLOCK } from "../../stockroom";
import type { DrawItem } from "../display";
import { textWidth } from "../text-width";
import { titleBlock, titleBlockDrawing, titleBox } from "./title-block";

const BORDER: PlaneBox = { x0: 20, y0: 10, x1: 410, y1: 287 };
const values = Object.fromEntries(TITLE_WORDS.map((word) => [word, `<${word}>`])) as Record<
  (typeof TITLE_WORDS)[number],
  string
>;
const LOGO = "a".repeat(64) as AssetId;
const picture: Asset = { kind: "picture", type: "png", width: 40, height: 10, data: "" };
const ground = {
  values,
  projection: "first" as const,
  assets: new Map([[LOGO, picture]]),
  widths: { wide: 0.5, narrow: 0.25 },
};
const field = (label: string, text: string, parts: number): TitleField => ({
  kind: "text",
  label,
  text,
  parts,
});
const textsOf = (items: readonly DrawItem[]) =>
  items.flatMap((item) => (item.kind === "text" ? [item.text] : []));

describe("title blocks on pages", () => {
  it("stand in the lower right corner of the border, as tall as their rows, no wider than the paper", () => {
    expect(titleBox(BORDER, USUAL_TITLE_BLOCK)).toEqual({ x0: 230, y0: 254, x1: 410, y1: 287 });
    expect(titleBox({ ...BORDER, x1: 120 }, USUAL_TITLE_BLOCK).x0).toBe(20);
  });

  it("say each field, filled, in its own part of the row", () => {
    const block: TitleBlock = {
      ...USUAL_TITLE_BLOCK,
      rows: [[field("Owner", "{shop}", 3), field("", "Tolerances ±0.5", 2), { kind: "symbol", parts: 1 }]],
    };
    const items = titleBlock(block, titleBox(BORDER, block), ground);
    expect(textsOf(items)).toEqual(["Owner", "<shop>", "Tolerances ±0.5"]);
    const lefts = items.flatMap((item) => (item.kind === "text" ? [item.at[0]] : []));
    // 180 mm in six parts: fields begin at 0 and 90 mm.
    expect(lefts).toEqual([231.6, 231.6, 321.6]);
  });

  it("shorten what is too long for its field", () => {
    const long = field("A label of the shop that goes on and on", "W".repeat(120), 1);
    const block: TitleBlock = {
      ...USUAL_TITLE_BLOCK,
      width: 80,
      rows: [[long, long, long, long]],
    };
    for (const item of titleBlock(block, titleBox(BORDER, block), ground))
      if (item.kind === "text")
        expect(textWidth(item.text, item.size, item.face)).toBeLessThanOrEqual(80 / 4 - 3.2 + 1e-9);
  });

  it("have the picture left of all rows, whole and in its proportions, of at most a third of the width", () => {
    for (const ratio of [0.05, 0.25, 1, 8]) {
      const block: TitleBlock = { ...USUAL_TITLE_BLOCK, logo: { asset: LOGO, ratio } };
      const box = titleBox(BORDER, block);
      const items = titleBlock(block, box, ground);
      const image = items.find((item) => item.kind === "image");
      if (image?.kind !== "image") throw new Error("the picture is drawn");
      expect(image.height / image.width).toBeCloseTo(ratio, 9);
      expect(image.at[0]).toBeGreaterThan(box.x0);
      expect(image.at[1]).toBeGreaterThan(box.y0);
      expect(image.at[1] + image.height).toBeLessThan(box.y1);
      expect(image.at[0] + image.width).toBeLessThanOrEqual(box.x0 + 60);
      const first = items.find((item) => item.kind === "text");
      expect(first?.kind === "text" && first.at[0] > image.at[0] + image.width).toBe(true);
    }
  });

  it("leave the room of a picture that has not arrived empty", () => {
    const block: TitleBlock = { ...USUAL_TITLE_BLOCK, logo: { asset: LOGO, ratio: 0.25 } };
    const { items, width, height } = titleBlockDrawing(block, { ...ground, assets: NO_ASSETS });
    expect(items.some(({ kind }) => kind === "image")).toBe(false);
    expect([width, height]).toEqual([180, 33]);
  });
});
