/** How entries of the stockroom are shown and typed in a table: one column, one reader, one writer. */

import { ok, type Result } from "@/core/kernel";
import { parseLength, writeLength } from "@/core/measure";
import {
  type BoardEntry,
  type BoughtEntry,
  type CutWay,
  type EdgingEntry,
  type EntryUnit,
  PER_WORDS,
  type Priced,
  parseSectionName,
  pricedBars,
  pricedSheets,
  type SawEntry,
  type SectionEntry,
  type SectionShape,
  type StockLength,
  type StockSheet,
  sectionText,
  shapeFault,
  TURN_STEPS,
} from "@/core/stockroom";
import { type EntryFault, entryFault } from "./entry-fault";

export type EntryKind = "section" | "board" | "edging" | "bought" | "saw";
export type AnyEntry = SectionEntry | BoardEntry | EdgingEntry | BoughtEntry | SawEntry;

export const KINDS = [
  { kind: "section", name: "Sections", list: "sections" },
  { kind: "board", name: "Boards", list: "boards" },
  { kind: "edging", name: "Edging", list: "edging" },
  { kind: "bought", name: "Bought parts", list: "bought" },
  { kind: "saw", name: "Saws", list: "saws" },
] as const;

/** The unit in which an entry was typed, and in which its lengths are shown. */
export const unitOf = (entry: AnyEntry): EntryUnit => ("unit" in entry ? entry.unit : "mm");

/** A length in an entry's unit: inches as a fraction where it is one, without loss either way. */
export function lengthText(mm: number, unit: EntryUnit): string {
  if (unit === "mm") return shown(mm);
  const fraction = writeLength(mm, { unit, format: { kind: "fraction", denominator: 64 } });
  if (fraction.movedMm < 1e-6) return fraction.text;
  return writeLength(mm, { unit, format: { kind: "decimal", places: 5, trailingZeros: false } }).text;
}

type Choices = readonly { readonly value: string; readonly label: string }[];

export type FieldColumn<T> = {
  readonly id: string;
  readonly heading: string;
  readonly width?: number;
  readonly numeric: boolean;
  /** What an empty field says. */
  readonly empty: string;
  readonly choices?: Choices | ((unit: EntryUnit, record: T) => Choices);
  /** Lengths are read and written in the unit of the entry. */
  readonly read: (record: T, unit: EntryUnit) => string;
  readonly write: (record: T, text: string, unit: EntryUnit) => Result<T, EntryFault>;
};
export type EntryColumn = FieldColumn<AnyEntry>;

/** The choices of a column in a unit, with the one that is chosen already, whatever the unit was then. */
export function choicesOf<T>({ choices, read }: FieldColumn<T>, unit: EntryUnit, record: T): Choices {
  const offered = typeof choices === "function" ? choices(unit, record) : (choices ?? []);
  const chosen = read(record, unit);
  return offered.some(({ value }) => value === chosen)
    ? offered
    : [...offered, { value: chosen, label: WORDS[chosen] ?? chosen }];
}

/** Only the choices of prices hang on the unit. */
const WORDS: Readonly<Record<string, string>> = PER_WORDS;

const fieldOf = <T>(record: T, id: string): unknown => (record as Record<string, unknown>)[id];
const shown = (value: unknown) =>
  value === null || value === undefined ? "" : String(Math.round(Number(value) * 1e6) / 1e6);

const MOST_LETTERS = 80;
/** Degrees from square. */
const STEEPEST = 80;

function textColumn<T>(id: string, heading: string, width: number, optional: boolean): FieldColumn<T> {
  return {
    id,
    heading,
    width,
    numeric: false,
    empty: optional ? "none" : "",
    read: (record) => String(fieldOf(record, id) ?? ""),
    write: (record, text) => {
      const value = text.trim();
      if (value === "" && !optional) return entryFault({ kind: "noName" });
      if (value.length > MOST_LETTERS) return entryFault({ kind: "tooLong", most: MOST_LETTERS });
      return ok({ ...record, [id]: value === "" ? null : value });
    },
  };
}

/** A field that `parse` reads as a number, or as nothing. */
function parsedColumn<T>(
  of: { readonly id: string; readonly heading: string; readonly width: number; readonly empty: string },
  parse: (text: string) => Result<number | null, EntryFault>,
): FieldColumn<T> {
  return {
    ...of,
    numeric: true,
    read: (record) => shown(fieldOf(record, of.id)),
    write: (record, text) => {
      const read = parse(text);
      return read.ok ? ok({ ...record, [of.id]: read.value }) : read;
    },
  };
}

/** A length in any notation, in the entry's unit where none is typed; `positive` refuses zero. */
function lengthColumn<T>(id: string, heading: string, width: number, positive: boolean): FieldColumn<T> {
  return {
    id,
    heading,
    width,
    numeric: true,
    empty: "",
    read: (record, unit) => {
      const value = fieldOf(record, id);
      return typeof value === "number" ? lengthText(value, unit) : "";
    },
    write: (record, text, unit) => {
      const read = parseLength(text, unit);
      if (!read.ok) return entryFault({ kind: "problem", problem: read.problem });
      if (read.value < 0 || (positive && read.value === 0))
        return entryFault({ kind: positive ? "notPositive" : "negative" });
      return ok({ ...record, [id]: read.value });
    },
  };
}

/** A number that may be missing: an empty field. */
function numberColumn<T>(
  id: string,
  heading: string,
  width: number,
  empty: string,
  whole = false,
): FieldColumn<T> {
  return parsedColumn({ id, heading, width, empty }, (text) => {
    const plain = text.trim().replace(/^(\d+),(\d{1,2})$/, "$1.$2");
    if (plain === "") return ok(null);
    const value = Number(plain);
    if (!Number.isFinite(value) || value < 0) return entryFault({ kind: "notANumber", text: text.trim() });
    if (whole && !Number.isInteger(value)) return entryFault({ kind: "notWhole" });
    return ok(value);
  });
}

/** An angle from square. */
function degreesColumn<T>(id: string, heading: string, width: number): FieldColumn<T> {
  return parsedColumn({ id, heading, width, empty: "" }, (text) => {
    const value = Number(text.trim().replace(",", ".").replace(/°$/, ""));
    if (text.trim() === "" || !Number.isFinite(value) || value < 0 || value > STEEPEST)
      return entryFault({ kind: "notAnAngle", most: STEEPEST });
    return ok(value);
  });
}

function choiceColumn<T>(
  id: string,
  heading: string,
  width: number,
  choices: Choices,
  toValue: (text: string) => unknown,
): FieldColumn<T> {
  return {
    id,
    heading,
    width,
    numeric: false,
    empty: "",
    choices,
    read: (record) => String(fieldOf(record, id) ?? ""),
    write: (record, text) => ok({ ...record, [id]: toValue(text) }),
  };
}

/** Kind and sizes of a section as people write them, in the field for them or in the name of a new one. */
export function readSection(
  text: string,
  unit: EntryUnit,
  place: "field" | "name",
): Result<SectionShape, EntryFault> {
  const shape = parseSectionName(text, unit);
  if (!shape) return entryFault({ kind: "unknownSection", in: place });
  const why = shapeFault(shape);
  return why === null ? ok(shape) : entryFault({ kind: "impossibleSection", why });
}

const kindColumn: EntryColumn = {
  id: "shape",
  heading: "Kind and size",
  width: 170,
  numeric: false,
  empty: "",
  read: (entry, unit) =>
    "shape" in entry
      ? sectionText(entry.shape, (mm) => `${lengthText(mm, unit)}${unit === "in" ? " in" : ""}`, " x ")
      : "",
  write: (entry, text, unit) => {
    const shape = readSection(text, unit, "field");
    return shape.ok ? ok({ ...entry, shape: shape.value } as AnyEntry) : shape;
  },
};

const grain: Choices = [
  { value: "length", label: "along length" },
  { value: "width", label: "along width" },
  { value: "", label: "none" },
];
const stages: Choices = [
  { value: "2", label: "2" },
  { value: "3", label: "3" },
  { value: "4", label: "4" },
  { value: "", label: "any" },
];
const yesNo: Choices = [
  { value: "true", label: "yes" },
  { value: "false", label: "no" },
];
const rackUses: Choices = [
  { value: "none", label: "not used" },
  { value: "saving", label: "where it saves buying" },
  { value: "first", label: "used up first" },
];
const cutWays: Choices = [
  { value: "through", label: "straight through" },
  { value: "outline", label: "nesting (along outlines)" },
];
const turnSteps: Choices = TURN_STEPS.map((step) => ({
  value: String(step),
  label: step === 0 ? "not at all" : `${step}°`,
}));
const measures: Choices = [
  { value: "each", label: "each" },
  { value: "length", label: "by length" },
];
const orNull = (text: string) => (text === "" ? null : text);

/** What the price of a bought part is for hangs on how it is bought. */
const pricePerColumn: EntryColumn = {
  id: "per",
  heading: "Price per",
  width: 90,
  numeric: false,
  empty: "",
  choices: (_, entry) => {
    if (!("packOf" in entry)) return [];
    if (entry.measure === "length") return [{ value: "", label: "m" }];
    if (entry.packOf === null) return [{ value: "", label: "piece" }];
    return [
      { value: "", label: "box" },
      { value: "each", label: "piece" },
    ];
  },
  read: (entry) => ("packOf" in entry ? (entry.per ?? "") : ""),
  write: (entry, text) => {
    if (!("packOf" in entry)) return ok(entry);
    const { per: _, ...rest } = entry;
    return ok(text === "" ? rest : { ...rest, per: "each" });
  },
};

const units: Choices = [
  { value: "mm", label: "mm" },
  { value: "in", label: "in" },
];
const unitColumn: EntryColumn = choiceColumn("unit", "Unit", 64, units, (text) => text);

export const COLUMNS: Readonly<Record<EntryKind, readonly EntryColumn[]>> = {
  section: [
    textColumn("name", "Name", 260, false),
    unitColumn,
    kindColumn,
    textColumn("material", "Material", 90, true),
    numberColumn("densityKgM3", "kg/m³", 70, "unknown"),
    numberColumn("massKgPerM", "kg/m by table", 84, "by area"),
  ],
  board: [
    textColumn("name", "Name", 190, false),
    unitColumn,
    textColumn("material", "Material", 130, true),
    lengthColumn("thickness", "Thickness", 70, true),
    choiceColumn("grain", "Grain", 110, grain, orNull),
    numberColumn("densityKgM3", "kg/m³", 70, "unknown"),
  ],
  edging: [
    textColumn("name", "Name", 260, false),
    unitColumn,
    textColumn("material", "Material", 160, true),
    lengthColumn("thickness", "Thickness", 90, false),
    choiceColumn("deducted", "Deducted from the blank", 160, yesNo, (text) => text === "true"),
    lengthColumn("overhang", "Overhang at each end", 130, false),
    numberColumn("pricePerM", "Price per m", 110, "missing"),
  ],
  bought: [
    textColumn("name", "Name", 360, false),
    choiceColumn("measure", "Bought", 130, measures, (text) => text),
    numberColumn("price", "Price", 110, "missing"),
    pricePerColumn,
    numberColumn("packOf", "Box of", 110, "sold singly", true),
  ],
  saw: [
    textColumn("name", "Name", 360, false),
    unitColumn,
    lengthColumn("depth", "Greatest height", 130, true),
    degreesColumn("angle", "Greatest angle, °", 130),
    lengthColumn("length", "Longest at the stop", 150, true),
  ],
};

const keepOfBoard: EntryColumn = lengthColumn("keep", "Smallest offcut to keep", 120, false);
const rackOfBoard: EntryColumn = choiceColumn("rack", "Rack pieces", 160, rackUses, (text) => text);
const cutOfBoard: EntryColumn = choiceColumn("cut", "Cut", 150, cutWays, (text) => text);

/** What is asked of a board hangs on how it is cut. */
const BOARD_COLUMNS: Readonly<Record<CutWay, readonly EntryColumn[]>> = {
  through: [
    cutOfBoard,
    lengthColumn("kerf", "Kerf", 60, false),
    lengthColumn("trim", "Trim", 60, false),
    choiceColumn("stages", "Stages", 70, stages, (text) => (text === "" ? null : Number(text))),
    lengthColumn("allowance", "Allowance on blanks", 125, false),
    keepOfBoard,
    rackOfBoard,
  ],
  outline: [
    cutOfBoard,
    lengthColumn("gap", "Gap", 60, false),
    lengthColumn("trim", "Margin", 60, false),
    choiceColumn("turn", "Turned by", 90, turnSteps, Number),
    keepOfBoard,
    rackOfBoard,
  ],
};

/** How an entry is laid out: on a line of its own under it. */
export const layoutColumns = (kind: EntryKind, entry: AnyEntry): readonly EntryColumn[] =>
  kind === "board" && "cut" in entry ? BOARD_COLUMNS[entry.cut] : LAYOUT_COLUMNS[kind];

const LAYOUT_COLUMNS: Readonly<Record<EntryKind, readonly EntryColumn[]>> = {
  section: [
    lengthColumn("kerf", "Kerf", 60, false),
    lengthColumn("trimStart", "Trim, start", 70, false),
    lengthColumn("trimEnd", "Trim, end", 70, false),
    lengthColumn("grip", "Clamp length", 90, false),
    lengthColumn("keep", "Smallest offcut to keep", 104, false),
    choiceColumn("share", "Mitres share cuts", 100, yesNo, (text) => text === "true"),
    choiceColumn("rack", "Rack pieces", 150, rackUses, (text) => text),
  ],
  board: [],
  edging: [],
  bought: [],
  saw: [],
};

/** Why the prices of an entry cannot be taken: one by mass says nothing of a stock whose mass nobody knows. */
export function priceFault(entry: AnyEntry): EntryFault | null {
  const lacks = (sizes: readonly Priced<unknown>[]) =>
    sizes.some(({ entered, unitPrice }) => entered !== null && unitPrice === null);
  if ("shape" in entry) return lacks(pricedBars(entry)) ? { kind: "massNeeded", of: "section" } : null;
  if ("thickness" in entry && "stock" in entry)
    return lacks(pricedSheets(entry)) ? { kind: "massNeeded", of: "board" } : null;
  return null;
}

export type StockSize = {
  readonly length: number;
  readonly width?: number;
  readonly price: number | null;
  readonly per?: StockLength["per"] | StockSheet["per"];
  readonly count: number | null;
};

/** What the price of a size is for, in the units of the entry; the empty one is the whole of it. */
const perColumn = (whole: string, metric: Choices, imperial: Choices): FieldColumn<StockSize> => ({
  id: "per",
  heading: "Price per",
  width: 74,
  numeric: false,
  empty: "",
  choices: (unit) => [{ value: "", label: whole }, ...(unit === "in" ? imperial : metric)],
  read: ({ per }) => per ?? "",
  write: ({ per: _, ...size }, text) => ok(text === "" ? size : { ...size, per: text as StockLength["per"] }),
});
const [KG, LB] = [
  { value: "kg", label: "kg" },
  { value: "lb", label: "lb" },
] as const;
const perBar = perColumn("bar", [{ value: "m", label: "m" }, KG], [{ value: "ft", label: "ft" }, LB]);
const perSheet = perColumn("sheet", [{ value: "m2", label: "m²" }, KG], [{ value: "ft2", label: "ft²" }, LB]);

const length = lengthColumn<StockSize>("length", "Length", 74, true);
const price = numberColumn<StockSize>("price", "Price", 74, "price");
const count = numberColumn<StockSize>("count", "Quantity in stock", 74, "no limit", true);

export const SIZE_COLUMNS: Readonly<Record<EntryKind, readonly FieldColumn<StockSize>[]>> = {
  section: [length, price, perBar, count],
  board: [length, lengthColumn<StockSize>("width", "Width", 74, true), price, perSheet, count],
  edging: [],
  bought: [],
  saw: [],
};

/** A size to begin with, in round values of the unit. */
export function blankSize(kind: EntryKind, unit: EntryUnit): StockSize {
  const common = { price: null, count: null };
  if (unit === "in")
    return kind === "board"
      ? { length: 96 * 25.4, width: 48 * 25.4, ...common }
      : { length: 240 * 25.4, ...common };
  return kind === "board" ? { length: 2440, width: 1220, ...common } : { length: 6000, ...common };
}
