import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import ExcelJS from "exceljs";
import { strToU8, unzipSync, zipSync } from "fflate";
import { SaxesParser } from "saxes";
import { describe, expect, it } from "vitest";
import { LIST_DEFAULTS, type ListSetup, plainColumn } from "@/core/job";
import { edited } from "@/core/job/edit.fixture";
import { sentence } from "@/core/kernel";
import { LIST_STARTS, type ListTable, ownList, startList } from "@/core/lists";
import { resultsOf, STOCK, smallFrame } from "@/core/pipeline.fixture";
import { isListFormat, type ListFormat, listFile } from "./list-file";
import { isZip, xlsxRows } from "./xlsx-in";

const MADE = new Date("2026-11-25T10:00:00Z");
const SIXTEENTHS = { kind: "fraction", denominator: 16 } as const;

const setup = (more: Partial<ListSetup> = {}): ListSetup => ({
  ...LIST_DEFAULTS,
  id: "own" as never,
  name: "Saw: list / 1",
  kinds: ["member", "panel", "bought"],
  assembly: null,
  columns: [
    plainColumn("mark"),
    plainColumn("silhouette"),
    plainColumn("name"),
    plainColumn("count"),
    plainColumn("length"),
    { ...plainColumn("width"), unit: "in", format: SIXTEENTHS },
    plainColumn("cost"),
  ],
  order: [],
  groupBy: "stock",
  showRows: true,
  totals: true,
  sizeOfMember: null,
  sizeOfPanel: null,
  position: 0,
  ...more,
});

/** The small frame with its list, one count typed over and one name that looks like a formula. */
function made(list = setup()): {
  readonly table: ListTable;
  readonly write: (format: ListFormat) => Promise<Uint8Array>;
} {
  const named = smallFrame({ members: { odd: { name: "=1+1 & <b>", from: "E", to: "F", section: "tube" } } });
  const listed = edited({ kind: "setList", list }, named);
  const cell = { id: "c" as never, list: "own", column: "count", records: ["front", "back"] };
  const job = edited({ kind: "setCell", cell: { ...cell, summed: false, text: "5", computed: "2" } }, listed);
  const results = resultsOf(job);
  const table = ownList(list, { job, stockroom: STOCK, ...results });
  const head = { info: job.info.job, revision: 7, date: "2026-11-25", variantName: null, shop: "Shop" };
  return {
    table,
    write: async (format) => {
      const file = await listFile(format, { table, tally: results.tally, head, made: MADE, page: "a4" });
      return typeof file === "string" ? strToU8(file) : file;
    },
  };
}

async function opened(bytes: Uint8Array) {
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(bytes.buffer as ArrayBuffer);
  const [sheet] = book.worksheets;
  if (!sheet) throw new Error("a sheet is expected");
  const headings = (sheet.getRow(1).values as string[]).slice(1);
  const cell = (row: number, heading: string) => sheet.getRow(row).getCell(headings.indexOf(heading) + 1);
  return { sheet, headings, cell };
}

describe("a list as XLSX", () => {
  it("has numbers as numbers in the format of the list, text as text, and a heading that stays", async () => {
    const { sheet, headings, cell } = await opened(await made().write("xlsx"));
    expect(sheet.name).toBe("Saw list 1");
    expect(headings).toEqual([
      "Stock",
      "Material",
      "Mark",
      "Name",
      "Count",
      "Cut length",
      "Width (in)",
      "Cost, net",
      "Changed by hand",
    ]);
    expect(sheet.views[0]).toMatchObject({ state: "frozen", ySplit: 1 });
    const rows = Array.from({ length: 10 }, (_, i) => i + 2);
    const rowOf = (name: string) => rows.find((row) => cell(row, "Name").value === name) ?? 0;
    expect([cell(rowOf("Rail"), "Cut length").value, cell(rowOf("Rail"), "Width (in)").value]).toEqual([
      600,
      null,
    ]);
    // 320 mm is 12.598 in, to the nearest sixteenth 12 5/8.
    expect([cell(rowOf("Shelf"), "Width (in)").value, cell(rowOf("Shelf"), "Width (in)").numFmt]).toEqual([
      12.625,
      "# ??/??",
    ]);
    expect(cell(rowOf("Rail"), "Cost, net").numFmt).toBe("0.00");
    const odd = cell(rowOf("=1+1 & <b>"), "Name");
    expect([odd.type, odd.formula]).toEqual([ExcelJS.ValueType.String, undefined]);
    expect(sheet.getColumn(headings.indexOf("Name") + 1).width).toBeGreaterThan(10);
  });

  it("shows what was typed over, with what is computed, and the sums at the foot", async () => {
    const { sheet, cell } = await opened(await made().write("xlsx"));
    const count = cell(2, "Count");
    expect([count.value, count.note, cell(2, "Changed by hand").value]).toEqual([
      5,
      "Changed by hand. Computed: 2",
      "Count (computed 2)",
    ]);
    const last: string[] = [];
    sheet.eachRow((row) => last.push(String(row.getCell(1).value ?? "")));
    expect(last).toContain("Total");
    expect(last.at(-1)).toBe("T-1 Small frame, revision 7, 2026-11-25");
  });

  it("sets lines of an assembly in, and is read by a program of its own", async () => {
    const bill = LIST_STARTS.find((start) => start.levels);
    if (!bill) throw new Error("there is one");
    const bytes = await made(startList(bill, "own", "Bill", 0)).write("xlsx");
    const parts = unzipSync(bytes);
    expect(Object.keys(parts)).toContain("xl/worksheets/sheet1.xml");
    const back = await xlsxRows(bytes);
    if (!back.ok) throw new Error(sentence(back.problem));
    expect(back.value[0]?.slice(0, 4)).toEqual(["Level", "Mark", "Name", "In one"]);
  });
});

describe("a list as JSON, PDF and SVG", () => {
  it("JSON has text and value of every cell, lengths in mm, and what was typed over", async () => {
    const data = JSON.parse(new TextDecoder().decode(await made().write("json")));
    const rows = data.groups.flatMap((group: { rows: { cells: Record<string, unknown> }[] }) => group.rows);
    expect(data.job).toEqual({ code: "T-1", title: "Small frame", revision: 7, variant: null });
    expect(rows[0].cells.count).toEqual({
      text: "5",
      value: 5,
      typedOver: { computed: "2", changed: false },
    });
    expect(rows[0].cells.width).toEqual({ text: "–", value: null, lack: "notApplicable" });
    expect(data.columns.find((column: { id: string }) => column.id === "width")).toEqual({
      id: "width",
      heading: "Width (in)",
      unit: "mm",
    });
  });

  it("SVG is well formed, in true millimetres, with every mark and its silhouette", async () => {
    const text = new TextDecoder().decode(await made().write("svg"));
    expect(text).toMatch(/^<\?xml.*\n<svg xmlns="http:\/\/www.w3.org\/2000\/svg" width="297mm"/);
    expect(text).toContain("=1+1 &amp; &lt;b&gt;");
    expect(text).not.toContain("<b>");
    const shapes = text.match(/<polygon/g) ?? [];
    expect(shapes.length).toBeGreaterThanOrEqual(4);
    expect(text).toContain("* typed over in A: Count (computed 2).");
    // Read by a strict parser of its own.
    const parser = new SaxesParser();
    const tags: string[] = [];
    parser.on("opentag", ({ name }) => tags.push(name));
    parser.on("error", (fault) => {
      throw fault;
    });
    parser.write(text).close();
    expect(new Set(tags)).toEqual(new Set(["svg", "title", "rect", "line", "polygon", "text"]));
  });

  it("PDF can be read back: title, rows, foot and revision", async () => {
    const path = join(mkdtempSync(join(tmpdir(), "list-")), "list.pdf");
    writeFileSync(path, await made().write("pdf"));
    const text = execFileSync("pdftotext", ["-layout", path, "-"], { encoding: "utf8" });
    for (const words of ["Saw: list / 1", "Rail", "12 5/8", "Total", "T-1 revision 7"])
      expect(text).toContain(words);
  });

  it("PDF has a glyph for every sign that lists use", async () => {
    const hole = {
      kind: "hole",
      id: "h",
      face: "good",
      x: "30",
      y: "30",
      diameter: "8",
      depth: null,
    } as const;
    const more = { along: "length", count: "1", step: "32" } as const;
    const panel = smallFrame().panels["shelfLow"];
    if (!panel) throw new Error("it is there");
    const drilled = edited({
      kind: "changePanels",
      ids: [panel.id],
      set: { work: [{ ...hole, ...more }] as never },
    });
    const results = resultsOf(drilled);
    const head = {
      info: drilled.info.job,
      revision: 1,
      date: "2026-11-25",
      variantName: null,
      shop: "≈ × – · ° ² …",
    };
    const table = ownList(
      { ...setup(), columns: [plainColumn("note")] },
      { job: drilled, stockroom: STOCK, ...results },
    );
    const path = join(mkdtempSync(join(tmpdir(), "list-")), "list.pdf");
    const file = await listFile("pdf", { table, tally: results.tally, head, made: MADE, page: "letter" });
    writeFileSync(path, file);
    const text = execFileSync("pdftotext", ["-layout", path, "-"], { encoding: "utf8" });
    expect(text).toContain("hole Ø 8 through");
    // Signs that the fonts lack are told by their like.
    expect(text.replaceAll(" ", "")).toContain("~×–·°²…");
    expect(text).not.toContain("?");
  });

  it("knows its formats by name", () => {
    expect(["csv", "xlsx", "toString"].map(isListFormat)).toEqual([true, true, false]);
  });
});

async function workbook(fill: (sheet: ExcelJS.Worksheet) => void): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  fill(book.addWorksheet("List"));
  return new Uint8Array(await book.xlsx.writeBuffer());
}
const why = async (bytes: Uint8Array) => {
  const read = await xlsxRows(bytes);
  return read.ok ? `${read.value.length} rows` : sentence(read.problem);
};

describe("rows of a spreadsheet", () => {
  it("come as texts, blank rows and rich text included", async () => {
    const bytes = await workbook((sheet) => {
      sheet.addRow(["Name", "Qty", "Length"]);
      sheet.getRow(3).values = [{ richText: [{ text: "Ra" }, { text: "il" }] } as never, 4, 590.55];
      sheet.getRow(4).values = ["007", true as never, "23 1/4"];
    });
    const read = await xlsxRows(bytes);
    expect(read.ok && read.value).toEqual([
      ["Name", "Qty", "Length"],
      [],
      ["Rail", "4", "590.55"],
      ["007", "true", "23 1/4"],
    ]);
  });

  it("a formula is refused with its cell, since what it gives is not for sure in the file", async () => {
    const bytes = await workbook((sheet) => {
      sheet.addRow(["Name", "Length"]);
      sheet.addRow(["Rail", { formula: "6*100", result: 600 }]);
    });
    expect(await why(bytes)).toContain("cell B2 holds a formula");
  });

  it("is the first sheet of the workbook, whatever the parts are called and in which order they lie", async () => {
    const sheet = (rows: string) => strToU8(`<worksheet><sheetData>${rows}</sheetData></worksheet>`);
    const zip = (list: string) =>
      zipSync({
        "xl/worksheets/sheet1.xml": sheet("<row><c><v>1</v></c></row>"),
        "xl/worksheets/other.xml": sheet(list),
        "xl/workbook.xml": strToU8(
          '<x:workbook xmlns:x="a" xmlns:r="b"><x:sheets><x:sheet r:id="b"/><x:sheet r:id="a"/></x:sheets></x:workbook>',
        ),
        "xl/_rels/workbook.xml.rels": strToU8(
          '<Relationships><Relationship Id="a" Target="worksheets/sheet1.xml"/><Relationship Id="b" Target="/xl/worksheets/other.xml"/></Relationships>',
        ),
        "xl/sharedStrings.xml": strToU8("<sst><si><t>Rail</t><rPh><t>re</t></rPh></si></sst>"),
      });
    const read = await xlsxRows(
      zip(
        '<row><c t="s"><v>0</v></c><c t="inlineStr"><is><r><t>a</t></r><r><t> b</t></r></is></c></row>' +
          '<row r="3"><c r="C3"><v>1e3</v></c></row>',
      ),
    );
    expect(read.ok && read.value).toEqual([["Rail", "a b"], [], ["", "", "1000"]]);
    expect(await why(zip('<row r="2"/><row r="1"/>'))).toContain("rows are out of order");
    expect(await why(zip('<row><c r="ZZ1"/></row>'))).toContain("more than 200 columns");
    expect(await why(zip('<row r="30000"/>'))).toContain("more than 20000 rows");
    expect(await why(zip("<row>&big;</row>"))).toContain("cannot be read as XLSX");
    expect(await why(zip(""))).toContain("first sheet is empty");
  });

  it("more rows or columns than a list may have are refused", async () => {
    const long = await workbook((sheet) => {
      for (let i = 0; i < 20_010; i++) sheet.addRow(["Rail", i]);
    });
    expect(await why(long)).toContain("has more than 20000 rows");
    const wide = await workbook((sheet) => sheet.addRow(Array.from({ length: 300 }, (_, i) => i)));
    expect(await why(wide)).toContain("more than 200 columns");
  });

  it("a small file that unpacks to gigabytes is refused, and memory stays bounded", async () => {
    // 150 MB of zeros in less than 1 MB.
    const bomb = zipSync({ "xl/worksheets/sheet1.xml": [new Uint8Array(150_000_000), { level: 1 }] });
    expect(bomb.length).toBeLessThan(1_000_000);
    // Of this thread alone: what other tests take beside it says nothing of this one.
    const taken = () => process.memoryUsage().arrayBuffers + process.memoryUsage().heapUsed;
    const before = taken();
    expect(await why(bomb)).toContain("unpacks to more than 60 MB");
    expect(taken() - before).toBeLessThan(120e6);
  });

  it.each([
    ["text", strToU8("Name,Qty\nRail,2"), "is not an XLSX file"],
    ["an empty zip", zipSync({ "a.txt": strToU8("x") }), "The spreadsheet"],
    [
      "a torn file",
      zipSync({ "xl/workbook.xml": strToU8("<workbook/>".repeat(200)) }).slice(0, 60),
      "The spreadsheet",
    ],
  ])("%s is refused with a sentence", async (_, bytes, words) => {
    expect(await why(bytes)).toContain(words);
  });

  it("is told from text by its first bytes", () => {
    expect([isZip(zipSync({})), isZip(strToU8("PK,x"))]).toEqual([false, false]);
    expect(isZip(zipSync({ a: strToU8("a") }))).toBe(true);
  });
});
