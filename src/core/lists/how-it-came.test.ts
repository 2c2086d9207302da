/** How quantities came about: the steps of every line of the demo jobs add up to what the line says, summed anew from their words. */
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { demoStockroom } from "../../../demo/stockroom";
import { createPipeline } from "../pipeline";
import { stockroomOf } from "../stockroom";
import { howItCame } from ".";

const stockroom = stockroomOf(demoStockroom);
const numberIn = (text: string) => Number(text.replace(/[^\d.]/g, ""));

describe.each([
  ["potting bench", pottingBench()],
  ["notice board", noticeBoard()],
  ["seed-packet cabinet", seedPacketCabinet()],
])("the buying list of the %s", (_, job) => {
  const info = job.info.job;
  const { quantities, tally } = createPipeline()(job, null, stockroom, []);
  const style = { unit: info.unit, format: info.format, feet: "decimal" as const };
  const stories = quantities.lines.map((line) => ({
    line,
    steps: howItCame(line, tally.rows, info, { currency: quantities.currency, style }),
  }));

  it("names every piece of each line, once", () => {
    expect(stories.length).toBeGreaterThan(3);
    for (const { line, steps } of stories) {
      const told = steps.flatMap(({ words, records }) =>
        records.length > 0 ? [/: (\d+)/.exec(words)?.[1]] : [],
      );
      // A panel with two edges of one edging is one row of it; its count is told once.
      if (line.group !== "edging")
        expect(told.reduce((sum, count) => sum + Number(count), 0)).toBe(line.pieces);
    }
  });

  it("adds up, from the pieces to the net, with waste and at its price", () => {
    for (const { line, steps } of stories) {
      const parts = steps.filter(({ isSum }) => !isSum).map(({ result }) => numberIn(result));
      const net = steps.find(({ words }) => words.startsWith("Net"));
      const sum = parts.reduce((all, part) => all + part, 0);
      // Each is written with two or three places.
      expect(Math.abs(sum - numberIn(net?.result ?? ""))).toBeLessThan(0.006 * (parts.length + 1));
      const cost = steps.find(({ words }) => words.startsWith("× ") || words.includes(" a box"));
      if (line.cost !== null) expect(numberIn(cost?.result ?? "")).toBeCloseTo(line.cost / 100, 6);
      else expect(cost?.result).toBe("price missing");
      if (line.gross !== line.net)
        expect(
          steps.some(({ words }) => words.includes(`${info.wastePercent}`) && words.includes("waste")),
        ).toBe(true);
    }
  });
});

it("a price that was entered by mass is told as it was entered, with the mass that it was taken by", () => {
  const job = pottingBench();
  const info = job.info.job;
  const sections = demoStockroom.sections.map((section) => ({
    ...section,
    // 3.45 kg/m for all of them: 2 per kg are 6.90 a metre.
    massKgPerM: 3.45,
    stock: section.stock.map((bar) => ({ ...bar, price: 2, per: "kg" as const })),
  }));
  const { quantities, tally } = createPipeline()(job, null, stockroomOf({ ...demoStockroom, sections }), []);
  const style = { unit: info.unit, format: info.format, feet: "decimal" as const };
  const [line] = quantities.lines;
  if (!line) throw new Error("there are bars");
  const words = howItCame(line, tally.rows, info, { currency: "EUR", style }).map((step) => step.words);
  expect(words).toContain("× 6.90 EUR per m, the least of its stock: 2.00 EUR per kg, 3.450 kg per m");
  expect(line.cost).toBe(Math.round(Number((line.gross * 6.9).toFixed(6)) * 100));
});
