import { describe, expect, it } from "vitest";
import type { LengthUnit } from "../measure";
import { EMPTY_STOCKROOM, type Stockroom, stockroomOf } from "../stockroom";
import { type ListReading, readCuttingList } from "./cutting-list";
import { looksLikeHeadings, meaningsOf } from "./cutting-list-columns";
import { type RowFault, rowFaultWords } from "./row-fault";

const stockroom: Stockroom = stockroomOf({
  ...EMPTY_STOCKROOM,
  sections: [
    {
      id: "sq40",
      name: "Square tube 40 × 40 × 3",
      shape: { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
      material: "S235",
      densityKgM3: 7850,
      massKgPerM: null,
      source: "",
      stock: [],
      kerf: 2,
      trimStart: 0,
      trimEnd: 0,
    },
  ],
  boards: [
    {
      id: "ply18",
      name: "Birch ply 18",
      material: "birch ply",
      thickness: 18,
      grain: "length",
      densityKgM3: null,
      stock: [],
      kerf: 3,
      trim: 10,
      stages: 3,
    },
  ],
});
function read(rows: readonly (readonly string[])[], unit: LengthUnit = "mm") {
  const list = readCuttingList(rows, { unit, stockroom, newId: (i) => `t${i}` });
  if (!list.ok) throw new Error(JSON.stringify(list.problem));
  return list.value;
}
const problemOf = (rows: readonly (readonly string[])[]) => {
  const list = readCuttingList(rows, { unit: "mm", stockroom, newId: (i) => `t${i}` });
  return list.ok ? "" : JSON.stringify(list.problem);
};

describe("cutting lists", () => {
  it("reads members and panels in any order of columns and any notation", () => {
    const { pieces, unreadable } = read([
      [
        "Qty",
        "Part name",
        "Mark",
        "Length (mm)",
        "Width",
        "Thickness",
        "Section or board",
        "Material",
        "End 1",
        "End 2",
        "Stand",
        "Edging",
      ],
      ["4", "Rail", "C", "1400", "", "", "square tube 40x40x3", "S355", "45", "45°", "opposed", ""],
      ["2 off", "Side", "N", "60 cm", "23-5/8 in", "18", "Birch ply 18", "", "", "", "", "front + left"],
      ["1", "Brace", "", "590,5", "", "", "flat 40 x 5", "", "30", "", "", ""],
    ]);
    expect(unreadable).toEqual([]);
    expect(pieces[0]).toMatchObject({
      kind: "member",
      mark: "C",
      quantity: 4,
      length: 1400,
      stock: "sq40",
      material: "S355",
      angles: [45, 45],
      stand: "opposed",
    });
    expect(pieces[1]).toMatchObject({
      kind: "panel",
      quantity: 2,
      length: 600,
      width: 600.075,
      thickness: 18,
      stock: "ply18",
      edged: ["front", "left"],
    });
    expect(pieces[2]).toMatchObject({
      kind: "member",
      mark: null,
      length: 590.5,
      stock: null,
      shape: { kind: "flat", size: [40, 5] },
      angles: [30, 0],
    });
  });

  const panelOf = (...cells: [heading: string, text: string][]) => {
    const { pieces, unreadable } = read([
      ["Name", "Qty", "Length", "Width", "Board", ...cells.map(([heading]) => heading)],
      ["Side", "1", "600", "400", "Birch ply 18", ...cells.map(([, text]) => text)],
    ]);
    const [piece] = pieces;
    if (piece?.kind !== "panel") return unreadable[0]?.fault ?? "nothing";
    const { edged, edgingText, edgingTexts } = piece;
    return { edged, edgingText, ...(edgingTexts ? { edgingTexts } : {}) };
  };

  it("reads edging as a shop writes it: edges, tape and edges, a column a side with the names of tapes", () => {
    expect(panelOf(["Edging", "1L"])).toEqual({ edged: ["front"], edgingText: null });
    expect(panelOf(["Edging", "2L 1W"])).toEqual({ edged: ["front", "back", "left"], edgingText: null });
    expect(panelOf(["Edging", "iron-on edging front"])).toEqual({
      edged: ["front"],
      edgingText: "iron-on edging",
    });
    expect(panelOf(["Edging", "front and left: Birch 1 mm; back: Oak"])).toEqual({
      edged: ["front", "back", "left"],
      edgingText: null,
      edgingTexts: { front: "Birch 1 mm", left: "Birch 1 mm", back: "Oak" },
    });
    expect(panelOf(["Edging", "both long edges"])).toEqual({ edged: ["front", "back"], edgingText: null });
    expect(
      panelOf(["Edge front", "Birch 1 mm"], ["Edge back", ""], ["Edge left", "x"], ["Edge right", "no"]),
    ).toEqual({
      edged: ["front", "left"],
      edgingText: null,
      edgingTexts: { front: "Birch 1 mm" },
    });
    expect(panelOf(["L1", "Oak"], ["L2", "Oak"], ["W1", "-"], ["W2", "0"])).toEqual({
      edged: ["front", "back"],
      edgingText: "Oak",
    });
    expect(panelOf(["Edging", "iron-on"])).toEqual({ kind: "edges", text: "iron-on" });
    expect(panelOf(["Edging", "constructor"])).toEqual({ kind: "edges", text: "constructor" });
  });

  it("takes a board that is named as the material for the board", () => {
    const { pieces } = read([
      ["Name", "Qty", "Length", "Width", "Material"],
      ["Side", "1", "600", "400", "birch ply 18"],
    ]);
    expect(pieces[0]).toMatchObject({ kind: "panel", stock: "ply18", material: null });
  });

  it("tells a comma too many as one, and lines under the table as no pieces", () => {
    const { pieces, unreadable, notes } = read([
      ["Name", "Qty", "Length", "End 1"],
      ["Rail", "2", "590", "5", "45"],
      ["Post", "1", "600", "30", ""],
      ["Counts are for 2 of this job.", "", "", ""],
      ["≈ was rounded", "", "", ""],
    ]);
    expect(unreadable.map(({ row, fault }) => [row, fault])).toEqual([
      [2, { kind: "fields", fields: 5, headings: 4 }],
    ]);
    expect(pieces.map(({ name }) => name)).toEqual(["Post"]);
    expect(notes[0]).toBe('Not read as a piece: "Counts are for 2 of this job." and 1 other line.');
  });

  it("takes a line of sums for no piece, wherever its word stands, and a piece that is called Total for one", () => {
    const list = read([
      ["Stock", "Name", "Qty", "Length (mm)"],
      ["sq40", "Rail", "2", "500"],
      ["sq40", "Total stop", "1", "80"],
      ["Total", "", "3", "1080"],
      ["", "Sum", "3", "1080"],
    ]);
    expect(list.pieces.map(({ name, quantity }) => [name, quantity])).toEqual([
      ["Rail", 2],
      ["Total stop", 1],
    ]);
    expect(list.unreadable).toEqual([]);
    expect(list.notes.join(" ")).toContain("Not read as a piece");
  });

  it("reads what our own lists say where there is nothing, and tells an end that is coped", () => {
    const { pieces, unreadable } = read([
      ["Stock", "Material", "Name", "Count", "Cut length", "End 1 °"],
      ["Square tube 40 × 40 × 3", "no material", "Rail", "1", "≈600.1", "45"],
      ["Square tube 40 × 40 × 3", "S235", "Rail", "1", "600", "cope"],
    ]);
    expect(pieces[0]).toMatchObject({ material: null, length: 600.1 });
    expect(unreadable[0]?.fault).toEqual({ kind: "coped" });
  });

  it("reads bare numbers in the given measure, or in that of the heading", () => {
    expect(
      read(
        [
          ["Name", "Qty", "Length"],
          ["A", "1", "23 1/4"],
        ],
        "in",
      ).pieces[0],
    ).toMatchObject({ length: 590.55 });
    const named = read(
      [
        ["Name", "Qty", "Length [cm]"],
        ["A", "1", "23.5"],
      ],
      "in",
    );
    expect(named.pieces[0]).toMatchObject({ length: 235 });
    expect(named.usedUnit).toBe(false);
    expect(
      read([
        ["Name", "Qty", "Length"],
        ["A", "1", "23"],
      ]).usedUnit,
    ).toBe(true);
  });

  it("tells each row that it cannot read, with its number and text, and keeps the others", () => {
    const { pieces, unreadable } = read([
      ["Name", "Qty", "Length", "Width", "End 1", "End 2", "Stand", "Edging"],
      ["good", "1", "100", "", "", "", "", ""],
      ["", "", "", "", "", "", "", ""],
      ["half", "1.5", "100", "", "", "", "", ""],
      ["none", "0", "100", "", "", "", "", ""],
      ["minus", "-2", "100", "", "", "", "", ""],
      ["blank", "", "100", "", "", "", "", ""],
      ["comma", "1", "1,400", "", "", "", "", ""],
      ["far", "1", "9999999", "", "", "", "", ""],
      ["words", "1", "long", "", "", "", "", ""],
      ["neg", "1", "-5", "", "", "", "", ""],
      ["steep", "1", "100", "", "120", "", "", ""],
      ["which", "1", "100", "", "45", "-45", "", ""],
      ["stand", "1", "100", "", "45", "45", "sideways", ""],
      ["edge", "1", "100", "50", "", "", "", "somewhere"],
      ["many", "1000000", "100", "", "", "", "", ""],
      ["last", "2", "200", "", "90", "", "", ""],
    ]);
    expect(pieces.map((piece) => piece.name)).toEqual(["good", "last"]);
    expect(unreadable.map(({ row }) => row)).toEqual([4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16]);
    expect(unreadable[0]).toEqual({
      row: 4,
      text: "half | 1.5 | 100",
      fault: { kind: "quantity", text: "1.5", must: "whole" },
    });
    expect(unreadable.map(({ fault }) => fault.kind)).toEqual([
      "quantity",
      "quantity",
      "quantity",
      "missing",
      "size",
      "size",
      "size",
      "notPositive",
      "angle",
      "negativeAngle",
      "direction",
      "edges",
      "quantity",
    ]);
  });

  it("tells duplicate headings, missing headings, empty lists and lists without rows", () => {
    expect(
      problemOf([
        ["Name", "Length", "Len"],
        ["A", "1", "2"],
      ]),
    ).toContain("both stand for length");
    expect(
      problemOf([
        ["Foo", "Bar"],
        ["A", "1"],
      ]),
    ).toContain("headings");
    expect(problemOf([])).toContain("empty");
    expect(problemOf([["", ""]])).toContain("empty");
    expect(problemOf([["Name", "Qty", "Length"]])).toContain("no rows");
  });

  it("says which columns were not read and that a missing quantity counts as one", () => {
    const { notes, pieces } = read([
      ["Name", "Length", "Colour"],
      ["A", "100", "red"],
    ]);
    expect(notes.join(" ")).toContain('"Colour"');
    expect(notes.join(" ")).toContain("assumed");
    expect(pieces[0]?.quantity).toBe(1);
  });

  it("counts what has no length and does not guess a thickness against its board", () => {
    expect(
      read([
        ["Name", "Qty", "Length"],
        ["Castor", "4", ""],
      ]).pieces[0],
    ).toMatchObject({ kind: "other", quantity: 4 });
    const wrong = read([
      ["Name", "Qty", "Length", "Width", "Thickness", "Board"],
      ["A", "1", "100", "50", "12", "birch ply 18"],
    ]);
    expect(wrong.unreadable[0]?.fault).toMatchObject({
      kind: "otherThickness",
      thickness: 12,
      boardThickness: 18,
    });
  });
});

describe("columns as somebody chose them", () => {
  const chosen = (rows: readonly (readonly string[])[], reading: Partial<ListReading>) => {
    const list = readCuttingList(rows, { unit: "mm", stockroom, newId: (i) => `t${i}`, ...reading });
    if (!list.ok) throw new Error(JSON.stringify(list.problem));
    return list.value;
  };

  it("need no headings, and rows keep the number that a person sees", () => {
    const columns = { meanings: ["quantity", "name", "length", null] as const, hasHeadings: false };
    const { pieces, unreadable } = chosen(
      [
        ["2", "Rail", "2'-3 1/2\"", "x"],
        ["", "", "", ""],
        ["three", "Rail", "5", ""],
      ],
      { columns, firstPosition: 7 },
    );
    expect(pieces).toMatchObject([{ name: "Rail", quantity: 2, length: 698.5, position: 7 }]);
    expect(unreadable.map(({ row, text }) => [row, text])).toEqual([[3, "three | Rail | 5"]]);
  });

  it("stand in the place of what the headings would mean", () => {
    const rows = [
      ["Length", "How many", "Stuff"],
      ["40", "2", "600"],
    ];
    expect(meaningsOf(rows[0] ?? [])).toEqual(["length", "quantity", null]);
    const columns = { meanings: ["name", "quantity", "length"] as const, hasHeadings: true };
    expect(chosen(rows, { columns }).pieces).toMatchObject([{ name: "40", quantity: 2, length: 600 }]);
  });

  it("are refused where two stand for one thing", () => {
    const columns = { meanings: ["length", "length"] as const, hasHeadings: false };
    const list = readCuttingList([["1", "2"]], { unit: "mm", stockroom, newId: () => "t", columns });
    expect(JSON.stringify(list)).toContain(
      'its columns \\"column 1\\" and \\"column 2\\" both stand for length',
    );
  });

  it("a heading row is told from a row of pieces", () => {
    expect(looksLikeHeadings(["Name", "Qty", "Length"])).toBe(true);
    expect(looksLikeHeadings(["Rail", "2", "600"])).toBe(false);
    expect(looksLikeHeadings(["Length", "600"])).toBe(false);
  });

  it("stock and material that nobody knows are told, where that is asked for; a section by its name is known", () => {
    const rows = [
      ["Name", "Qty", "Length", "Section", "Material"],
      ["good", "1", "100", "square tube 40x40x3", "s235"],
      ["own", "1", "100", "SHS 50 x 50 x 5", ""],
      ["stock", "1", "100", "Unobtanium 4", ""],
      ["stuff", "1", "100", "Square tube 40 × 40 × 3", "moon rock"],
    ];
    const asked = chosen(rows, { knownMaterials: new Set(["S235", "birch ply"]) });
    expect(asked.pieces.map(({ name }) => name)).toEqual(["good", "own"]);
    expect(asked.unreadable.map(({ fault }) => fault)).toEqual([
      { kind: "unknownStock", text: "Unobtanium 4" },
      { kind: "unknownMaterial", text: "moon rock" },
    ]);
    expect(chosen(rows, {}).pieces).toHaveLength(4);
  });

  it("a formula is no value", () => {
    const { unreadable } = read([
      ["Name", "Qty", "Length"],
      ["Rail", "2", "=B1*300"],
    ]);
    expect(unreadable[0]?.fault).toEqual({ kind: "formula", text: "=B1*300" });
  });
});

describe("the words for a row", () => {
  const tooLong: RowFault = {
    kind: "size",
    column: "length",
    problem: { kind: "unreadableLength", text: "1,400" },
  };
  it.each<[RowFault, string]>([
    [{ kind: "formula", text: "=B1*300" }, '"=B1*300" is a formula; paste values.'],
    [
      { kind: "fields", fields: 5, headings: 4 },
      "It has 5 fields, but there are 4 headings. Remove a comma too many, or put quotation marks around a text with a comma.",
    ],
    [{ kind: "missing", what: "name" }, "Name or mark is missing."],
    [{ kind: "quantity", text: "1.5", must: "whole" }, 'The quantity "1.5" must be a whole number.'],
    [
      { kind: "unknownStock", text: "Unobtanium 4" },
      'There is no section or board "Unobtanium 4" in the stockroom.',
    ],
    [{ kind: "notPositive", column: "width", text: "-5" }, 'Width: "-5" must be above zero.'],
    [
      { kind: "otherThickness", thickness: 12, board: "Birch ply 18", boardThickness: 18, unit: "mm" },
      "Its thickness 12 mm is not that of Birch ply 18, 18 mm.",
    ],
    [{ kind: "angle", text: "120", must: "below" }, 'The end angle "120" must be below 89° from square.'],
  ])("%j: %s", (fault, words) => {
    expect(rowFaultWords(fault)).toBe(words);
  });

  it("of a length repeat what is wrong with it", () => {
    expect(rowFaultWords(tooLong)).toMatch(/^Length: .*1,400/);
  });
});
