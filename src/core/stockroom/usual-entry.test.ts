import { describe, expect, it } from "vitest";
import { demoStockroom } from "../../../demo/stockroom";
import { asUsual } from ".";
import type { SectionEntry } from "./stockroom";

const { sections } = demoStockroom as unknown as { sections: readonly SectionEntry[] };
const blank = (shape: SectionEntry["shape"]): SectionEntry => ({
  ...(sections[0] as SectionEntry),
  id: "new",
  name: "new",
  shape,
  material: null,
  kerf: 0,
  trimStart: 0,
  trimEnd: 0,
  stock: [],
});

describe("a new section", () => {
  it("is sawn and bought as most of the shop's own of its kind are, without a price", () => {
    const tubes = sections.filter(({ shape }) => shape.kind === "squareTube");
    const made = asUsual(blank({ kind: "squareTube", size: [50, 50, 4], corners: "coldFormed" }), sections);
    expect(tubes.map(({ kerf }) => kerf)).toContain(made.kerf);
    expect(tubes.map(({ material }) => material)).toContain(made.material);
    expect(made.stock.length).toBeGreaterThan(0);
    expect(made.stock.every(({ price, count }) => price === null && count === null)).toBe(true);
  });

  it("of a kind that the shop has none of takes after the other metal, or the other timber", () => {
    const metal = sections.filter(({ shape }) => shape.kind !== "timber" && shape.kind !== "beam");
    const made = asUsual(
      blank({ kind: "beam", size: [100, 55, 4, 6] }),
      sections.filter(({ shape }) => shape.kind !== "beam"),
    );
    expect(metal.map(({ kerf }) => kerf)).toContain(made.kerf);
    const timber = sections.filter(({ shape }) => shape.kind === "timber");
    const board = asUsual(blank({ kind: "timber", size: [45, 45] }), sections);
    expect(timber.map(({ kerf }) => kerf)).toContain(board.kerf);
  });

  it("stays as it is in an empty stockroom", () => {
    const entry = blank({ kind: "flat", size: [40, 5] });
    expect(asUsual(entry, [])).toEqual(entry);
  });
});
