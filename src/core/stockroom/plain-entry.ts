/** Sections and boards as they are before the shop says more of them: nothing is sold yet, nothing is lost in a cut. */
import type { BoardEntry, SectionEntry } from "./stockroom";

export const plainSection = (
  own: Pick<SectionEntry, "id" | "name" | "shape" | "source"> & Partial<SectionEntry>,
): SectionEntry => ({
  unit: "mm",
  material: null,
  densityKgM3: null,
  massKgPerM: null,
  stock: [],
  kerf: 0,
  trimStart: 0,
  trimEnd: 0,
  grip: 0,
  keep: 0,
  share: true,
  rack: "saving",
  ...own,
});

export const plainBoard = (
  own: Pick<BoardEntry, "id" | "name" | "thickness" | "grain" | "stages"> & Partial<BoardEntry>,
): BoardEntry => ({
  unit: "mm",
  material: null,
  densityKgM3: null,
  stock: [],
  kerf: 0,
  trim: 0,
  allowance: 0,
  keep: 0,
  rack: "saving",
  cut: "through",
  gap: 6,
  turn: 90,
  ...own,
});
