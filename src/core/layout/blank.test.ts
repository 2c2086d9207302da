import { describe, expect, it } from "vitest";
import { newJob, type PanelParts } from "../job";
import { resultsOf, STOCK_DATA } from "../pipeline.fixture";
import { stockroomOf } from "../stockroom";
import type { PanelForm } from "../tally";
import { blankOf, layoutTasks } from ".";
import { layOutSheets } from "./sheets";

const stock = stockroomOf({
  ...STOCK_DATA,
  edging: [
    ...(STOCK_DATA.edging ?? []),
    {
      id: "thick",
      name: "Solid edge 5 mm",
      material: "birch",
      thickness: 5,
      deducted: true,
      overhang: 0,
      pricePerM: null,
    },
    {
      id: "iron",
      name: "Iron-on",
      material: "birch",
      thickness: 0.6,
      deducted: false,
      overhang: 0,
      pricePerM: null,
    },
  ],
});

function formOf(edging: NonNullable<PanelParts["edging"]>): PanelForm {
  const job = newJob({
    info: { code: "T", title: "T" },
    panels: { p: { name: "P", board: "ply", length: "600", width: "400", edging } },
  });
  const form = resultsOf(job, stock).tally.rows[0]?.shown.form;
  if (form?.kind !== "panel") throw new Error("one panel");
  return form;
}

describe("the blank of a panel", () => {
  // Edging on the left and right edges makes the length shorter, on the front and back edges the width.
  it.each([
    [{ left: "thick" }, 595, 400],
    [{ right: "thick" }, 595, 400],
    [{ front: "thick" }, 600, 395],
    [{ back: "thick" }, 600, 395],
    [{ left: "thick", right: "band", front: "band", back: "thick" }, 594, 394],
    [{ front: "iron", back: "iron" }, 600, 400],
  ] as const)("with edging %o is %f × %f", (edging, length, width) => {
    expect(blankOf(formOf(edging), stock.edgingById)).toEqual({ length, width });
  });

  it("grows by the allowance both ways", () => {
    expect(blankOf(formOf({ front: "thick" }), stock.edgingById, 10)).toEqual({ length: 610, width: 405 });
  });

  it("lies with its length along the sheet where the grain runs along it, across where it runs along the width", () => {
    const lying = (grain: "length" | "width", follows: boolean) => {
      const { boards = [] } = STOCK_DATA;
      const turned = stockroomOf({ ...STOCK_DATA, boards: boards.map((board) => ({ ...board, grain })) });
      const job = newJob({
        info: { code: "T", title: "T" },
        panels: {
          p: { name: "P", board: "ply", length: "1500", width: "400", grain: follows ? "length" : "any" },
        },
      });
      const task = layoutTasks(resultsOf(job, turned).tally, turned)[0];
      if (task?.kind !== "sheets") throw new Error("the ply is laid out on sheets");
      const layout = layOutSheets(task.problem, { seed: 1, now: () => 0, budgetMs: 50 });
      return [
        layout.sheets[0]?.placements.map(({ length, width }) => [length, width]),
        layout.unplaced.map(({ why }) => why.kind),
      ];
    };
    expect(lying("length", true)).toEqual([[[1500, 400]], []]);
    // 2440 × 1220 with the grain along the 1220: a panel of 1500 along the grain is on no sheet.
    expect(lying("width", true)).toEqual([undefined, ["againstGrain"]]);
    expect(lying("width", false)).toEqual([[[1500, 400]], []]);
  });
});
