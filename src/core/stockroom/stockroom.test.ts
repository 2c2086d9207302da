/** Worked cases of the stockroom: materials that are typed over, prices, the rack, names of sections, their rectangles. */
import fc from "fast-check";
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { isInside, type Vec2 } from "../geometry";
import { polygonOf } from "../geometry/mesh.fixture";
import {
  type BoardEntry,
  BoardEntrySchema,
  boardDensity,
  boardInMaterial,
  boughtPrice,
  EMPTY_RACK,
  entryStyle,
  isMetal,
  isOfMaterial,
  leastUnitPrice,
  nextLabel,
  parseSectionName,
  pricedBars,
  pricedSheets,
  type RackPiece,
  type SectionEntry,
  SectionEntrySchema,
  type SectionShape,
  type StockLength,
  sectionInMaterial,
  sectionMass,
  sectionParts,
  sectionProperties,
  shapeFault,
  stockroomOf,
  usableRack,
} from ".";
import { massPerMetre, steelMassPerMetre } from "./stockroom";

const flat = (id: string, more: Partial<SectionEntry>): SectionEntry =>
  v.parse(SectionEntrySchema, {
    id,
    name: id,
    shape: { kind: "flat", size: [40, 5] },
    material: "S235",
    densityKgM3: 7850,
    massKgPerM: null,
    source: "",
    stock: [],
    kerf: 2,
    trimStart: 0,
    trimEnd: 0,
    ...more,
  });
const board = (id: string, more: Partial<BoardEntry>) => ({
  id,
  name: id,
  material: "birch ply",
  thickness: 18,
  grain: "length" as const,
  densityKgM3: 680,
  stock: [],
  kerf: 3,
  trim: 10,
  stages: 3 as const,
  ...more,
});

describe("a material that is typed over", () => {
  const room = stockroomOf({
    currency: "EUR",
    sections: [
      flat("steel", {}),
      flat("brass", { material: "Brass", densityKgM3: 8500 }),
      flat("wide", { material: "alu", densityKgM3: 2700, shape: { kind: "flat", size: [60, 5] } }),
      flat("bare", { material: null, densityKgM3: null }),
    ],
    boards: [
      board("ply", {}),
      board("ply along", { material: "oak ply", densityKgM3: 720 }),
      board("across", { material: "ash ply", densityKgM3: 700, grain: "width" }),
      board("thin", { material: "beech ply", densityKgM3: 710, thickness: 12 }),
      board("unknown", { material: "elm ply", densityKgM3: null }),
    ],
    edging: [],
    bought: [],
  });
  const [steel, , , bare] = room.sections as [SectionEntry, SectionEntry, SectionEntry, SectionEntry];
  const [ply] = room.boards as [BoardEntry];

  it("is the same whatever its capitals and spaces; an entry without one may be taken for any", () => {
    expect([isOfMaterial("S235", " s235 "), isOfMaterial("S235", "S355")]).toEqual([true, false]);
    expect([isOfMaterial(null, "S355"), isOfMaterial("S235", null)]).toEqual([true, true]);
  });

  it("a section's price and mass are those of the same shape in that material, else nobody's", () => {
    expect(sectionInMaterial(room, steel, "S235")?.id).toBe("steel");
    expect(sectionInMaterial(room, steel, "brass")?.id).toBe("brass");
    // The same material in another size says nothing of the price.
    expect(sectionInMaterial(room, steel, "alu")).toBeNull();
    expect(sectionInMaterial(room, bare, "brass")?.id).toBe("bare");
    // 40 × 5 = 200 mm²: 1.57 kg/m of steel, 1.7 of brass, 0.54 of aluminium (area × density).
    expect(sectionMass(room, steel, null)).toEqual({ value: expect.closeTo(1.57, 9), by: null });
    expect(sectionMass(room, steel, "brass")).toEqual({ value: expect.closeTo(1.7, 9), by: "mass of brass" });
    expect(sectionMass(room, steel, "alu")).toEqual({
      value: expect.closeTo(0.54, 9),
      by: "density 2700 kg/m³ of wide",
    });
    expect([sectionMass(room, steel, "lead"), sectionMass(room, bare, null)]).toEqual([null, null]);
  });

  it("a board's are those of the same thickness and way of the grain", () => {
    expect(boardInMaterial(room, ply, "oak ply")?.id).toBe("ply along");
    expect([boardInMaterial(room, ply, "ash ply"), boardInMaterial(room, ply, "beech ply")]).toEqual([
      null,
      null,
    ]);
    expect(boardDensity(room, ply, "birch ply")).toEqual({ value: 680, by: null });
    expect(boardDensity(room, ply, "oak ply")).toEqual({ value: 720, by: "density of ply along" });
    // Of another thickness: its density holds, though it cannot be cut from.
    expect(boardDensity(room, ply, "beech ply")).toEqual({ value: 710, by: "density 710 kg/m³ of thin" });
    expect([boardDensity(room, ply, "elm ply"), boardDensity(room, ply, "teak")]).toEqual([null, null]);
  });

  it("a table's mass goes before area × density; metal is told by its density", () => {
    expect(massPerMetre(flat("t", { massKgPerM: 1.6 }))).toBe(1.6);
    expect(massPerMetre(flat("t", { densityKgM3: null }))).toBeNull();
    expect(steelMassPerMetre(1000)).toBeCloseTo(7.85, 12);
    expect([isMetal(null), isMetal({ densityKgM3: 1599 }), isMetal({ densityKgM3: 1600 })]).toEqual([
      false,
      false,
      true,
    ]);
  });

  it("a unit's price is the lowest of what can be bought without limit", () => {
    const at = (
      price: number | null,
      count: number | null,
      metres: number,
      per?: "m" | "ft" | "kg" | "lb",
    ) => ({
      length: metres * 1000,
      price,
      count,
      ...(per ? { per } : {}),
    });
    const least = (...stock: StockLength[]) =>
      leastUnitPrice(pricedBars({ ...flat("t", { massKgPerM: 2 }), stock }));
    expect(least(at(24, null, 6), at(13, null, 3), at(1, 2, 6), at(null, null, 1))?.price).toBe(4);
    expect(least(at(1, 2, 6), at(null, null, 1))).toBeNull();
    expect(least(at(24, null, 6), at(1.9, null, 6, "kg"))).toEqual({
      price: 3.8,
      entered: { price: 1.9, per: "kg", kg: 2 },
    });
  });

  it("a price by the metre, foot, kilogram or pound is that of the whole bar too, and unknown where its mass is", () => {
    const bar = (per: "m" | "ft" | "kg" | "lb", massKgPerM: number | null = 2) =>
      pricedBars({
        ...flat("t", { massKgPerM, densityKgM3: null }),
        stock: [{ length: 6096, price: 3, per, count: null }],
      })[0];
    // 6.096 m is 20 ft; 12.192 kg are 26.879 lb.
    expect(bar("m")).toMatchObject({ unitPrice: 3, size: { price: 18.288 } });
    expect(bar("ft")?.size.price).toBe(60);
    expect(bar("kg")?.size.price).toBe(36.576);
    expect(bar("lb")?.size.price).toBeCloseTo(80.6363, 3);
    expect(bar("kg", null)).toMatchObject({ unitPrice: null, size: { price: null } });
    expect(bar("kg")?.size).not.toHaveProperty("per");
  });

  it("sheets by the square metre, square foot or kilogram; boxes by the piece", () => {
    const sheet = (per: "m2" | "ft2" | "kg") =>
      pricedSheets({
        ...v.parse(BoardEntrySchema, board("b", {})),
        thickness: 10,
        densityKgM3: 700,
        stock: [{ length: 2438.4, width: 1219.2, price: 2, per, count: null }],
      })[0]?.size.price;
    // 8 ft × 4 ft: 32 ft², 2.97290 m², 20.8103 kg.
    expect(sheet("m2")).toBe(5.9458);
    expect(sheet("ft2")).toBe(64);
    expect(sheet("kg")).toBe(41.6206);
    const screws = { id: "s", name: "Screw", measure: "each", price: 0.05, packOf: 200 } as const;
    expect([boughtPrice(screws), boughtPrice({ ...screws, per: "each" })]).toEqual([0.05, 10]);
  });
});

describe("the rack", () => {
  it("labels go on after the greatest that is given, also of what has left", () => {
    expect([nextLabel([]), nextLabel(["R-2", "R-12", "R-7"]), nextLabel(["R-2"], 3)]).toEqual([
      "R-1",
      "R-13",
      "R-6",
    ]);
    expect(nextLabel(["A-90", "R-x", "xR-5", "R-5x"])).toBe("R-1");
  });

  it("a task may use what is free and what it holds itself, of its own entry", () => {
    const piece = (id: string, holder: RackPiece["holder"], entry = "ply"): RackPiece => ({
      id,
      label: id,
      entry,
      material: null,
      length: 100,
      width: 100,
      place: "",
      note: "",
      from: null,
      holder,
    });
    const held = (job: string, variant: string, task: string) => ({ job, code: job, variant, task });
    const pieces = [
      piece("free", null),
      piece("own", held("j", "", "t")),
      piece("other job", held("k", "", "t")),
      piece("other variant", held("j", "v", "t")),
      piece("other task", held("j", "", "u")),
      piece("other board", null, "mdf"),
    ];
    const ids = (owner: string | null) =>
      usableRack({ owner, pieces }, { entry: "ply", id: "t", variant: "" }).map(({ id }) => id);
    expect(ids("j")).toEqual(["free", "own"]);
    expect(ids(null)).toEqual(["free"]);
    expect(EMPTY_RACK).toEqual({ owner: null, pieces: [] });
  });

  it("sizes in inches are written in sixty-fourths, others to a micron", () => {
    expect(entryStyle("in")).toEqual({ unit: "in", format: { kind: "fraction", denominator: 64 } });
    expect(entryStyle("mm").format).toEqual({ kind: "decimal", places: 3, trailingZeros: false });
  });
});

describe("sections by their words", () => {
  const cold = { corners: "coldFormed" } as const;
  it.each([
    ["SHS 40 x 40 x 3", { kind: "squareTube", size: [40, 40, 3], ...cold }],
    ["SHS 40 x 3", { kind: "squareTube", size: [40, 40, 3], ...cold }],
    ["SHS 40 x 30 x 3", null],
    ["RHS 60*40*3", { kind: "rectangularTube", size: [60, 40, 3], ...cold }],
    ["RHS 40 x 40 x 3", { kind: "squareTube", size: [40, 40, 3], ...cold }],
    ["box 50 × 30 × 2", { kind: "rectangularTube", size: [50, 30, 2], ...cold }],
    ["tube 33.7 x 3.2", { kind: "roundTube", size: [33.7, 3.2] }],
    ["tube 40 x 30", null],
    ["pipe 33.7 x 3.2", { kind: "roundTube", size: [33.7, 3.2] }],
    ["CHS 40 x 40 x 3", null],
    ["L30x30x3", { kind: "equalAngle", size: [30, 30, 3], rootRadius: 5 }],
    ["angle 30 x 3", { kind: "equalAngle", size: [30, 30, 3], rootRadius: 5 }],
    ["angle 50 x 7", { kind: "equalAngle", size: [50, 50, 7], rootRadius: 0 }],
    ["ua 60 x 40 x 5", { kind: "unequalAngle", size: [60, 40, 5], rootRadius: 0 }],
    ["channel 100 x 50 x 6 x 8.5", { kind: "channel", size: [100, 50, 6, 8.5] }],
    ["U 100 x 50 x 6", null],
    ["tee 40 x 40 x 5 x 5", { kind: "tee", size: [40, 40, 5, 5] }],
    ["I 100 x 55 x 4.1 x 5.7", { kind: "beam", size: [100, 55, 4.1, 5.7] }],
    ["flat 40 x 5", { kind: "flat", size: [40, 5] }],
    ["flat 40 x 5 x 3", null],
    ["oak 88 x 18", { kind: "timber", size: [88, 18] }],
    ["rod 12", { kind: "roundBar", size: [12] }],
    ["rod 12 x 3", null],
    ["square bar 12", { kind: "squareBar", size: [12, 12] }],
    ["88 x 18", null],
    ["SHS", null],
    ["SHS 0 x 0 x 3", null],
    ["SHS 4000 x 4000 x 3", null],
  ])("%s", (text, shape) => {
    expect(parseSectionName(text, "mm")).toEqual(shape);
  });

  it("the unit after the last size counts for all that have none", () => {
    expect(parseSectionName("beam 100 x 55 x 4.1 x 5.7 r 7", "mm")).toEqual({
      kind: "beam",
      size: [100, 55, 4.1, 5.7],
      rootRadius: 7,
    });
    expect(parseSectionName("Channel 4 x 2 x 1/4 x 3/8 in r 3/8 in", "mm")).toMatchObject({
      kind: "channel",
      rootRadius: 9.525,
    });
    expect(parseSectionName("flat 2 x 1/4 in", "mm")).toEqual({ kind: "flat", size: [50.8, 6.35] });
    expect(parseSectionName("flat 2 x 1/4", "in")).toEqual({ kind: "flat", size: [50.8, 6.35] });
    expect(parseSectionName("flat 40 x 5 mm", "in")).toEqual({ kind: "flat", size: [40, 5] });
  });
});

describe("a section as rectangles", () => {
  const SHAPES: readonly SectionShape[] = [
    { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
    { kind: "rectangularTube", size: [60, 40, 4], corners: "hotFinished" },
    { kind: "roundTube", size: [33.7, 3.2] },
    { kind: "equalAngle", size: [50, 50, 5], rootRadius: 7 },
    { kind: "unequalAngle", size: [60, 30, 5], rootRadius: 6 },
    { kind: "channel", size: [100, 50, 6, 8.5] },
    { kind: "tee", size: [40, 50, 5, 6] },
    { kind: "beam", size: [100, 55, 4.1, 5.7] },
    { kind: "flat", size: [40, 5] },
    { kind: "roundBar", size: [12] },
    { kind: "squareBar", size: [12, 12] },
    { kind: "timber", size: [88, 18] },
  ];

  it.each(SHAPES)("$kind: they lie in it, and leave little of it", (shape) => {
    const { loops, areaMm2, boxCentre, extent } = sectionProperties(shape);
    const rings = loops.map((loop) => polygonOf(loop, 24));
    const solid = (p: Vec2) => rings.filter((ring) => isInside(ring, p)).length % 2 === 1;
    const parts = sectionParts(shape);
    const within = ([x, y]: Vec2) =>
      parts.some(({ middle, half, turn }) => {
        const [dx, dy] = [x - middle[0], y - middle[1]];
        const [c, s] = [Math.cos(turn), Math.sin(turn)];
        return Math.abs(c * dx + s * dy) < half[0] && Math.abs(c * dy - s * dx) < half[1];
      });
    // A tenth of a millimetre inside every rectangle is inside the section.
    for (const { middle, half, turn } of parts)
      for (const [a, b] of [
        [1, 1],
        [1, -1],
        [-1, 1],
        [-1, -1],
        [0, 0],
      ] as const) {
        const [x, y] = [a * Math.max(0, half[0] - 0.1), b * Math.max(0, half[1] - 0.1)];
        const [c, s] = [Math.cos(turn), Math.sin(turn)];
        expect(solid([middle[0] + c * x - s * y, middle[1] + s * x + c * y])).toBe(true);
      }
    const step = Math.max(...extent) / 160;
    let [inSection, inParts] = [0, 0];
    for (let x = boxCentre[0] - extent[0] / 2 + step / 2; x < boxCentre[0] + extent[0] / 2; x += step)
      for (let y = boxCentre[1] - extent[1] / 2 + step / 2; y < boxCentre[1] + extent[1] / 2; y += step)
        if (solid([x, y])) {
          inSection++;
          if (within([x, y])) inParts++;
        }
    expect(inSection * step * step).toBeGreaterThan(0.94 * areaMm2);
    expect(inParts).toBeGreaterThan(0.68 * inSection);
    // Remembered for the same shape.
    expect(sectionParts(shape)).toBe(parts);
  });

  it.each([
    [{ kind: "squareTube", size: [40, 40, 20], corners: "coldFormed" }, "wallFillsTube"],
    [{ kind: "squareTube", size: [40, 40, 19.9], corners: "coldFormed" }, null],
    [{ kind: "rectangularTube", size: [60, 30, 15], corners: "coldFormed" }, "wallFillsTube"],
    [{ kind: "roundTube", size: [20, 10] }, "wallFillsTube"],
    [{ kind: "roundTube", size: [20, 9.9] }, null],
    [{ kind: "unequalAngle", size: [60, 30, 30], rootRadius: 0 }, "legTooThick"],
    [{ kind: "unequalAngle", size: [30, 60, 29], rootRadius: 0 }, null],
    [{ kind: "channel", size: [100, 50, 6, 50] }, "webOrFlangeFills"],
    [{ kind: "beam", size: [100, 50, 50, 8] }, "webOrFlangeFills"],
    [{ kind: "tee", size: [100, 50, 49, 49] }, null],
    [{ kind: "flat", size: [5, 40] }, null],
  ] as const)("%j can be or not", (shape, fault) => {
    expect(shapeFault(shape as unknown as SectionShape)).toBe(fault);
  });

  it("area grows with every size of a tube, and is less than its box", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 120 }),
        fc.integer({ min: 20, max: 120 }),
        fc.integer({ min: 1, max: 5 }),
        (w, h, t) => {
          const area = (a: number, b: number, wall: number) =>
            sectionProperties({ kind: "rectangularTube", size: [a, b, wall], corners: "coldFormed" }).areaMm2;
          expect(area(w + 1, h, t) - area(w, h, t)).toBeCloseTo(2 * t, 6);
          expect(area(w, h + 1, t) - area(w, h, t)).toBeCloseTo(2 * t, 6);
          expect(area(w, h, t)).toBeLessThan(w * h);
        },
      ),
    );
  });
});
