/** What lists say in words and texts: notes of rows, edging as files need it, tabs, starts, headings of cutting orders. */
import { describe, expect, it } from "vitest";
import { edited } from "../job/edit.fixture";
import type { SavedLayout } from "../layout";
import { layOutSheets, readSheetProblem } from "../layout/sheets";
import { resultsOf, STOCK, STOCK_DATA, smallFrame } from "../pipeline.fixture";
import { stockroomOf } from "../stockroom";
import { LIST_STARTS, ownList, rowNotes, sheetOrderTable, startList, tableAsTabs } from ".";
import { columns, groundOf, own, rowsOf, setup, value } from "./list.fixture";

const MM = { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } } as const;

describe("notes of a row", () => {
  it("tell hands only where there are two", () => {
    const [row] = resultsOf(smallFrame()).tally.rows;
    if (!row) throw new Error("there is a row");
    const notes = (asDrawn: number, opposite: number) =>
      rowNotes({ ...row, hands: { ...row.hands, asDrawn, opposite } }, MM, STOCK).join("; ");
    expect(notes(2, 0)).not.toContain("opposite");
    expect(notes(3, 1)).toContain("3 as drawn + 1 opposite");
  });

  it("edging in files names each tape with its edges, in the order of the edges", () => {
    const room = stockroomOf({
      ...STOCK_DATA,
      edging: [
        ...(STOCK_DATA.edging ?? []),
        {
          id: "iron",
          name: "Iron-on",
          material: null,
          thickness: 0,
          deducted: false,
          overhang: 0,
          pricePerM: 1,
        },
      ],
    });
    const job = smallFrame();
    const edging = (set: object) => {
      const panels = Object.fromEntries(
        Object.entries(job.panels).map(([id, panel]) => [
          id,
          { ...panel, edging: { ...panel.edging, front: null, ...set } },
        ]),
      );
      const { cutList } = resultsOf({ ...job, panels } as typeof job, room);
      const row = rowsOf(cutList).find(({ cells }) => cells["name"]?.text === "Shelf");
      return row?.cells["edging"]?.text;
    };
    expect(edging({ front: "band", back: "iron", left: "band" })).toBe(
      "front + left: Birch edging 1 mm; back: Iron-on",
    );
    expect(edging({ front: "gone" })).toBe("front: gone");
    expect(edging({})).toBe("none");
  });
});

describe("texts for a spreadsheet", () => {
  it("keep one line a row and one cell a column, whatever was typed", () => {
    const job = [own("Remark"), value("remark", ["front", "back"], "first\tsecond\r\n\r\nthird")].reduce(
      (all, edit) => edited(edit, all),
      smallFrame(),
    );
    const list = setup({ marks: ["A"], columns: columns("mark", "own:remark", "count") });
    const lines = tableAsTabs(ownList(list, groundOf(job)))
      .split("\n")
      .filter((line) => line !== "");
    expect(lines.at(-1)?.split("\t")).toEqual(["A", "first second third", "2"]);
    expect(new Set(lines.map((line) => line.split("\t").length))).toEqual(new Set([3]));
  });
});

describe("lists to begin with", () => {
  it("show rows or only their sums, as they say; and each of them shows something of the job", () => {
    const shown = Object.fromEntries(LIST_STARTS.map(({ name, showRows }) => [name, showRows]));
    expect(shown).toMatchObject({ "Cut list by stock": true, "Lengths to buy": false });
    for (const start of LIST_STARTS) {
      const list = startList(start, "own", start.name, 0);
      expect([list.showRows, list.totals, list.columns.map(({ column }) => column)]).toEqual([
        start.showRows,
        start.totals,
        start.columns,
      ]);
      expect(rowsOf(ownList(list, groundOf(smallFrame()))).length).toBeGreaterThan(0);
    }
    const cut = LIST_STARTS.find(({ name }) => name === "Cut list by stock");
    if (!cut) throw new Error("there is one");
    // Longest first within a stock.
    const rows = ownList(startList(cut, "own", "Cut", 0), groundOf(smallFrame())).groups.map(
      ({ rows: all }) => all.map(({ cells }) => cells["mark"]?.text),
    );
    expect(rows.flat()).toEqual(["D", "A", "B", "C"]);
  });

  it("a column without values says in how many rows, by its name", () => {
    const job = [own("Finish"), value("finish", ["front", "back"], "oiled")].reduce(
      (all, edit) => edited(edit, all),
      smallFrame(),
    );
    const table = ownList(
      setup({ kinds: ["member"], columns: columns("mark", "own:finish") }),
      groundOf(job),
    );
    expect(table.notes.join(" ")).toContain("Finish is not set in 2 rows.");
  });
});

describe("the cutting order of a sheet", () => {
  const problem = readSheetProblem({
    kerf: 4,
    stock: [{ length: 1000, width: 520, price: 1 }],
    panels: [{ length: 480, width: 250, qty: 6 }],
  });
  const layout = layOutSheets(problem, { seed: 1, now: () => 0, budgetMs: 50, passes: 2 });
  const saved: Extract<SavedLayout, { kind: "sheets" }> = {
    kind: "sheets",
    taskId: "t",
    fingerprint: "",
    revision: 1,
    pieces: [{ mark: "S", name: "Shelf" }],
    problem,
    layout,
  };

  it("is headed by the number of its sheet, and its steps count from one", () => {
    expect(layout.sheets).toHaveLength(2);
    const tables = [0, 1].map((sheet) => sheetOrderTable(saved, sheet, MM));
    expect(tables.map(({ title }) => title)).toEqual([
      "Cutting order of sheet 1",
      "Cutting order of sheet 2",
    ]);
    for (const table of tables)
      expect(rowsOf(table).map(({ cells }) => cells["step"]?.value)).toEqual(
        rowsOf(table).map((_, i) => i + 1),
      );
    // All panels of a sheet are given by its steps.
    const given = (sheet: number) =>
      rowsOf(sheetOrderTable(saved, sheet, MM))
        .flatMap(({ cells }) => [...(cells["gives"]?.text ?? "").matchAll(/\bS(?: × (\d+))?/g)])
        .reduce((sum, [, count]) => sum + Number(count ?? 1), 0);
    const left = (sheet: number) =>
      [...(sheetOrderTable(saved, sheet, MM).notes[0] ?? "").matchAll(/\bS from/g)].length;
    layout.sheets.forEach((sheet, i) => {
      expect(given(i) + left(i)).toBe(sheet.placements.length);
    });
  });
});
