import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { describe, expect, it } from "vitest";
import type { Drawing } from "@/core/drawing";
import type { ListTable } from "@/core/lists";
import type { LengthStyle } from "@/core/measure";
import { decodeText, listRows, listToCsv, rowsToCsv } from "./csv";
import { pagesToPdf } from "./pdf";

describe("CSV out", () => {
  it("follows RFC 4180: CRLF, quotes doubled, commas and line breaks quoted", () => {
    expect(
      rowsToCsv([
        ["a", 'say "b"'],
        ["1,5", "x\ny"],
      ]),
    ).toBe('a,"say ""b"""\r\n"1,5","x\ny"\r\n');
  });

  it("makes fields harmless that a spreadsheet would run, and leaves numbers alone", () => {
    expect(rowsToCsv([["=1+1", "+cmd", "@x", "-20", "-a", "plain", " =2"]])).toBe(
      "'=1+1,'+cmd,'@x,-20,'-a,plain,' =2\r\n",
    );
  });

  it("writes a list with its groups as columns and an empty field where nothing applies", () => {
    const table: ListTable = {
      title: "T",
      columns: [
        { id: "mark", heading: "Mark", align: "left", width: 1, writes: null },
        { id: "width", heading: "Width", align: "right", width: 1, writes: null },
      ],
      groups: [
        {
          heading: "Tube",
          detail: "S235",
          summary: "",
          rows: [
            {
              id: "A",
              records: ["a"],
              summed: false,
              level: 0,
              cells: {
                mark: { text: "A", value: null },
                width: { text: "–", value: null, lack: "notApplicable" },
              },
            },
          ],
        },
      ],
      foot: [],
      notes: [],
    };
    expect(listToCsv(table)).toBe("Stock,Material,Mark,Width\r\nTube,S235,A,\r\n");
  });

  it("names the unit of lengths once, sums up at the end, and has fractions or decimals", () => {
    const style = { unit: "in", format: { kind: "fraction", denominator: 16 } } as LengthStyle;
    const length = (text: string, inches: number) => ({ text, value: inches * 25.4 });
    const table: ListTable = {
      title: "T",
      groupColumns: [],
      columns: [
        { id: "name", heading: "Name", align: "left", width: 1, writes: null },
        { id: "length", heading: "Length", align: "right", width: 1, writes: { kind: "length", style } },
        { id: "net", heading: "Net in", align: "right", width: 1, writes: { kind: "length", style } },
      ],
      groups: [
        {
          heading: "",
          detail: "",
          summary: "",
          rows: [
            {
              id: "A",
              records: ["a"],
              summed: false,
              level: 0,
              cells: {
                name: { text: "Rail", value: null },
                length: length("12 1/2", 12.5),
                net: length("3", 3),
              },
            },
          ],
        },
      ],
      foot: [{ label: "Total", cells: { length: length("12 1/2", 12.5) } }],
      notes: [],
    };
    expect(listToCsv(table)).toBe("Name,Length (in),Net in\r\nRail,12 1/2,3\r\nTotal,12 1/2,\r\n");
    expect(listToCsv(table, "decimals")).toBe("Name,Length (in),Net in\r\nRail,12.5,3\r\nTotal,12.5,\r\n");
  });
});

describe("rows in", () => {
  const rows = (input: Uint8Array | string) => {
    const read = listRows(input);
    return read.ok ? read.value.filter((row) => row.some((cell) => cell !== "")) : read.problem.kind;
  };
  it.each([
    ["a,b\n1,2", "comma"],
    ["a;b\r\n1;2", "semicolon"],
    ["a\tb\n1\t2\n", "tab"],
    ["\uFEFFa,b\n1,2", "byte order mark"],
  ])("reads %j (%s)", (text) => {
    expect(rows(text)).toEqual([
      ["a", "b"],
      ["1", "2"],
    ]);
  });

  it("keeps 007 and 1e3 as they are typed, and 590,5 in a semicolon file", () => {
    expect(rows("mark;length\n007;590,5\n1e3;2")).toEqual([
      ["mark", "length"],
      ["007", "590,5"],
      ["1e3", "2"],
    ]);
  });

  it("reads UTF-8, UTF-16 and Windows-1252", () => {
    expect(decodeText(new TextEncoder().encode("Länge ½"))).toBe("Länge ½");
    expect(decodeText(Uint8Array.from([0x4c, 0xe4, 0x6e, 0x67, 0x65, 0x20, 0xbd]))).toBe("Länge ½");
    expect(decodeText(Uint8Array.from([0xff, 0xfe, 0x41, 0x00]))).toBe("A");
  });

  it("refuses empty, binary and unclosed input with a sentence", () => {
    expect(rows("   ")).toBe("malformed");
    expect(rows("PK\u0003\0\0")).toBe("malformed");
    expect(rows('a,b\n"1,2')).toBe("malformed");
  });
});

describe("PDF", () => {
  const page: Drawing = {
    width: 210,
    height: 297,
    items: [
      {
        kind: "text",
        at: [20, 20],
        text: "Cut length 1400 × 45° Łódź ½",
        size: 5,
        face: "condensed",
        align: "left",
        ink: "ink",
      },
      { kind: "line", from: [50, 100], to: [150, 100], stroke: { ink: "ink", width: 0.5 } },
      {
        kind: "polygon",
        points: [
          [20, 120],
          [60, 120],
          [60, 140],
        ],
        stroke: { ink: "soft", width: 0.2, dash: [1, 1] },
        fill: "steel",
      },
    ],
  };
  const write = async () => {
    const bytes = await pagesToPdf("Test", new Date(0), [page, { ...page, width: 215.9, height: 279.4 }]);
    const file = path.join(mkdtempSync(path.join(tmpdir(), "tally-pdf-")), "test.pdf");
    writeFileSync(file, bytes);
    return file;
  };

  it("is read back by another program: page sizes, embedded fonts, searchable text", async () => {
    const file = await write();
    const info = execFileSync("pdfinfo", ["-l", "2", file], { encoding: "utf8" });
    expect(info).toMatch(/Page\s+1 size:\s+595\.2\d+ x 841\.8\d+ pts \(A4\)/);
    expect(info).toMatch(/Page\s+2 size:\s+612 x 792 pts \(letter\)/);
    expect(execFileSync("pdftotext", [file, "-"], { encoding: "utf8" })).toContain(
      "Cut length 1400 × 45° Łódź ½",
    );
    const fonts = execFileSync("pdffonts", [file], { encoding: "utf8" }).trim().split("\n").slice(2);
    expect(fonts.length).toBeGreaterThan(0);
    for (const font of fonts) expect(font).toMatch(/\byes\s+yes\s+yes\b/);
  });

  it("draws a 100 mm line 100 mm long and text that can be seen", async () => {
    const file = await write();
    execFileSync("pdftoppm", ["-r", "254", "-gray", "-f", "1", "-l", "1", "-singlefile", file, file]);
    const { readFileSync } = await import("node:fs");
    const image = readFileSync(`${file}.pgm`);
    const header = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(image.subarray(0, 40).toString("latin1"));
    const width = Number(header?.[1]);
    const pixels = image.subarray(header?.[0].length ?? 0);
    const dark = (x: number, y: number) => (pixels[y * width + x] ?? 255) < 128;
    const row = Array.from({ length: width }, (_, x) => x).filter((x) => dark(x, 1000));
    // 254 dots an inch are ten a millimetre.
    expect((row.at(-1) ?? 0) - (row[0] ?? 0) + 1).toBeWithinMm(1000, 2);
    let inked = 0;
    for (let y = 170; y < 230; y++) for (let x = 190; x < 900; x++) if (dark(x, y)) inked++;
    expect(inked).toBeGreaterThan(500);
  });
});
