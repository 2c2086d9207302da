/** The variants of the demo bench side by side, against sums that are made anew from the pieces. */
import { describe, expect, it } from "vitest";
import { pottingBench } from "../../../demo/potting-bench";
import { demoStockroom } from "../../../demo/stockroom";
import { fromNm } from "../kernel";
import { createPipeline } from "../pipeline";
import { stockroomOf } from "../stockroom";
import { variantsTable } from ".";

const stockroom = stockroomOf(demoStockroom);
const job = pottingBench();
const variants = [
  { id: "", name: "Base design" },
  ...Object.values(job.variants).sort((a, b) => a.position - b.position),
].map(({ id, name }) => ({
  id: id as string,
  name,
  ...createPipeline()(job, id === "" ? null : (id as never), stockroom, []),
}));
const variantColumn = (id: string) => `variant:${id}`;
const table = variantsTable(job, variants);
const row = (group: string, name: string) =>
  table.groups
    .find(({ heading }) => heading === group)
    ?.rows.find(({ cells }) => cells["name"]?.text === name);
const texts = (group: string, name: string) =>
  variants.map(({ id }) => row(group, name)?.cells[variantColumn(id)]?.text);

describe("the variants of the bench", () => {
  it("have a column each, the job's own sizes first", () => {
    expect(table.columns.slice(2).map(({ heading }) => heading)).toEqual([
      "Base design",
      "1000 wide",
      "1400 wide, standing",
    ]);
    expect(texts("Key sizes", "width")).toEqual(["1400", "1000", "1400"]);
    expect(texts("Key sizes", "height")).toEqual(["850", "850", "950"]);
    expect(texts("Key sizes", "with_tray")).toEqual(["yes", "yes", "yes"]);
    expect(
      [row("Key sizes", "drawers"), row("Key sizes", "width")].map((one) => one?.cells["unit"]?.text),
    ).toEqual(["", "mm"]);
  });

  it("count the pieces and sum the metres of each stock", () => {
    expect(texts("Pieces", "made")).toEqual(variants.map(({ tally }) => String(tally.balance.inRows)));
    for (const { id, tally } of variants) {
      const metres = tally.rows
        .filter(({ stockName }) => stockName === "Square tube 40 × 40 × 3")
        .reduce(
          (sum, { count, shown: { form } }) =>
            sum + (form.kind === "member" ? (count * fromNm(form.cutNm)) / 1000 : 0),
          0,
        );
      const cell = row("Net quantities", "Square tube 40 × 40 × 3")?.cells[variantColumn(id)];
      expect(cell?.value).toBeCloseTo(metres, 3);
    }
  });

  it("say where there is no layout, and that a total without one is incomplete", () => {
    expect(new Set(texts("From layout", "Square tube 40 × 40 × 3"))).toEqual(new Set(["no layout"]));
    for (const text of texts("Mass and cost", "from layout")) expect(text).toContain("incomplete");
  });

  it("leave out what no variant has", () => {
    for (const { rows } of table.groups)
      for (const { cells } of rows)
        expect(variants.some(({ id }) => cells[variantColumn(id)]?.lack !== "notApplicable")).toBe(true);
  });
});
