/** Grain across a panel: its form is told with its length along the grain, and is the very piece that is drawn. */
import { describe, expect, it } from "vitest";
import { newJob, type PanelParts, type Work } from "../job";
import { layoutTasks } from "../layout";
import { resultsOf, STOCK, STOCK_DATA } from "../pipeline.fixture";
import { stockroomOf } from "../stockroom";

const base = { name: "Front", board: "ply", length: "700", width: "300" } as const;
const rowsOf = (panels: Readonly<Record<string, PanelParts>>, stockroom = STOCK) =>
  resultsOf(newJob({ info: { code: "T", title: "T" }, panels }), stockroom).tally.rows;
const hole = (x: string, y: string): Work => ({
  id: "h",
  kind: "hole",
  face: "good",
  x,
  y,
  diameter: "8",
  depth: "10",
  count: "1",
  step: "32",
  along: "length",
});

describe("grain across a panel", () => {
  it("the length in lists runs along the grain; edges and work go with it", () => {
    const [row] = rowsOf({
      a: { ...base, grain: "width", goodFace: true, edging: { front: "band" }, work: [hole("60", "40")] },
    });
    // Turned by a quarter: x' = y, y' = 700 − x. What was in front is at the left.
    expect(row?.shown.form).toMatchObject({
      lengthNm: 300e6,
      widthNm: 700e6,
      grain: true,
      edging: { left: "band", front: null, back: null, right: null },
      holes: [{ x: 40e6, y: 640e6, face: "good" }],
    });
  });

  it("is one piece with the same panel drawn along the grain, and no piece with one whose grain runs the other way", () => {
    const across: PanelParts = { ...base, grain: "width", goodFace: true, work: [hole("60", "40")] };
    // The same cut drawn lengthwise: 300 × 700 with the hole where the quarter turn takes it.
    const along: PanelParts = {
      ...across,
      length: "300",
      width: "700",
      grain: "length",
      work: [hole("40", "640")],
    };
    const other: PanelParts = { ...across, grain: "length" };
    expect(rowsOf({ across, along }).map((row) => row.count)).toEqual([2]);
    expect(rowsOf({ across, other }).map((row) => row.count)).toEqual([1, 1]);
    const mirrored: PanelParts = { ...along, work: [hole("40", "60")] };
    const [hands] = rowsOf({ across, mirrored });
    expect([hands?.hands.asDrawn, hands?.hands.opposite]).toEqual([1, 1]);
  });

  it("lies across the sheet, and as drawn on a board without grain", () => {
    const panels = { a: { ...base, grain: "width" } as const };
    const tasks = layoutTasks(resultsOf(newJob({ info: { code: "T", title: "T" }, panels })).tally, STOCK);
    expect(tasks[0]?.kind === "sheets" && tasks[0].problem.panels).toMatchObject([
      { length: 300, width: 700, grain: true },
    ]);
    const { boards = [] } = STOCK_DATA;
    const plain = stockroomOf({ ...STOCK_DATA, boards: boards.map((board) => ({ ...board, grain: null })) });
    expect(rowsOf(panels, plain)[0]?.shown.form).toMatchObject({
      lengthNm: 700e6,
      widthNm: 300e6,
      grain: false,
    });
  });
});
