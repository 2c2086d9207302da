/** A small job and stockroom that the tests of the later stages share: a mitred frame with two shelves. */
import { buttEnd, type Job, type JobParts, mitreEnd, newJob } from "./job";
import { createPipeline, type Results } from "./pipeline";
import { type Stockroom, type StockroomInput, stockroomOf } from "./stockroom";

export const STOCK_DATA: StockroomInput = {
  currency: "EUR",
  sections: [
    {
      id: "tube",
      name: "Square tube 40 × 40 × 3",
      shape: { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
      material: "S235",
      densityKgM3: 7850,
      massKgPerM: null,
      source: "EN 10219-2",
      stock: [{ length: 6000, price: 24, count: null }],
      kerf: 2.5,
      trimStart: 5,
      trimEnd: 5,
    },
    {
      id: "lath",
      name: "Larch 45 × 20",
      shape: { kind: "timber", size: [45, 20] },
      material: "larch",
      densityKgM3: null,
      massKgPerM: null,
      source: "actual size",
      stock: [{ length: 3000, price: null, count: null }],
      kerf: 3,
      trimStart: 0,
      trimEnd: 0,
    },
  ],
  boards: [
    {
      id: "ply",
      name: "Birch ply 18",
      material: "birch ply",
      thickness: 18,
      grain: "length",
      densityKgM3: 680,
      stock: [{ length: 2440, width: 1220, price: 54, count: null }],
      kerf: 3.2,
      trim: 10,
      stages: 3,
    },
  ],
  edging: [
    {
      id: "band",
      name: "Birch edging 1 mm",
      material: "birch",
      thickness: 1,
      deducted: true,
      overhang: 20,
      pricePerM: 1.5,
    },
  ],
  bought: [
    { id: "screw", name: "Screw 5 × 40", measure: "each", price: 6.4, packOf: 100 },
    { id: "foot", name: "Foot M10", measure: "each", price: 2.35, packOf: null },
    { id: "chain", name: "Chain 4 mm", measure: "length", price: 3.2, packOf: null },
  ],
};
export const STOCK: Stockroom = stockroomOf(STOCK_DATA);

const HALF = "20";
const SHELF = {
  name: "Shelf",
  board: "ply",
  lengthAxis: ["1", "0", "0"],
  faceAxis: ["0", "0", "1"],
  length: "width - 80",
  width: "depth - 80",
  edging: { front: "band" },
} as const;

/** 600 × 400 over all, mitred; legs under its corners; `parts` adds to it or stands in its place. */
export function smallFrame(parts: Partial<JobParts> = {}): Job {
  const corner = { section: "tube" } as const;
  return newJob({
    info: { code: "T-1", title: "Small frame", ...parts.info },
    keySizes: {
      width: { formula: "600", least: "300", greatest: "1200" },
      depth: { formula: "400" },
      height: { formula: "depth + 50" },
      ...parts.keySizes,
    },
    variants: [{ id: "wide", name: "900 wide", formulas: { width: "900" } }, ...(parts.variants ?? [])],
    points: {
      A: [HALF, HALF, "height"],
      B: [`width - ${HALF}`, HALF, "height"],
      C: [`width - ${HALF}`, `depth - ${HALF}`, "height"],
      D: [HALF, `depth - ${HALF}`, "height"],
      E: [HALF, HALF, "0"],
      F: [`width - ${HALF}`, HALF, "0"],
      ...parts.points,
    },
    members: {
      front: { ...corner, name: "Rail", from: "A", to: "B", start: mitreEnd("left"), end: mitreEnd("right") },
      right: {
        ...corner,
        name: "End rail",
        from: "B",
        to: "C",
        start: mitreEnd("front"),
        end: mitreEnd("back"),
      },
      back: { ...corner, name: "Rail", from: "C", to: "D", start: mitreEnd("right"), end: mitreEnd("left") },
      left: {
        ...corner,
        name: "End rail",
        from: "D",
        to: "A",
        start: mitreEnd("back"),
        end: mitreEnd("front"),
      },
      legLeft: { ...corner, name: "Leg", from: "E", to: "A", end: buttEnd("front") },
      legRight: { ...corner, name: "Leg", from: "F", to: "B", end: buttEnd("front") },
      ...parts.members,
    },
    panels: {
      shelfLow: { ...SHELF, origin: ["40", "40", "100"] },
      shelfHigh: { ...SHELF, origin: ["40", "40", "250"] },
      ...parts.panels,
    },
    boughtParts: {
      screws: { name: "Screws", entry: "screw", count: "4 * 30 + 1" },
      feet: { name: "Feet", entry: "foot", count: "2" },
      chain: { name: "Chain", entry: "chain", count: "2", length: "depth / 2" },
      ...parts.boughtParts,
    },
  });
}

export function resultsOf(job: Job, stockroom: Stockroom = STOCK): Results {
  return createPipeline()(job, null, stockroom, []);
}
