/** The columns that a list can be made of: each computes its cell from a line of the list and what it stands on. */
import { anglesOf, sawSettings } from "../ends";
import type { Vec2 } from "../geometry";
import { COMPUTED_COLUMNS, type ComputedColumn, homeName, homeOf, type Job, type ListSetup } from "../job";
import { fromNm, LENGTH_TOLERANCE_MM, remembersEach } from "../kernel";
import { blankOf } from "../layout";
import { formatCents, formatDecimal, formatLength, type LengthStyle } from "../measure";
import { type Measure, shopUnit } from "../quantities";
import type { MemberForm } from "../tally";
import { type AssemblyLine, type Line, type ListGround, type PieceLine, wholeQuantity } from "./list-ground";
import { angleCell, edgingWords, rowNotes, standWords } from "./piece-notes";
import { readSizePattern, USUAL_SIZE, writeSize } from "./size-text";
import {
  type Align,
  type Cell,
  MISSING,
  NOT_APPLICABLE,
  numberCell,
  SILHOUETTE_COLUMN,
  textCell,
} from "./table";

/** What the cells of one column are written by. */
export type CellGround = {
  readonly ground: ListGround;
  readonly setup: ListSetup;
  readonly style: LengthStyle;
  /** Decimal places that the column asks for; null: as many as it has of itself. */
  readonly places: number | null;
  /** What another column says in a line, by its name, with what was typed over it. */
  readonly other: (line: Line, name: string) => Cell;
  /** What another column computes for a line, its lengths written as this column writes them. */
  readonly computedAs: (line: Line, name: string) => Cell;
};

type Writes =
  | { readonly kind: "words" }
  | { readonly kind: "length" }
  | { readonly kind: "plain" }
  | { readonly kind: "decimal"; readonly places: number };

/** A group of lines: its heading, what stands beside it, and what tells it from others. */
export type LineGroup = { readonly key: string; readonly heading: string; readonly detail: string };

export type ListColumnKind = {
  readonly id: string;
  readonly heading: string;
  readonly align: Align;
  readonly width: number;
  /** Whether its numbers add up in groups and totals, unless the list says otherwise. */
  readonly adds: boolean;
  /**
   * What a number in it is of, and so how it is added up: of the whole line, or of each of its pieces, so that it counts as
   * often as there are pieces. null: it never adds up (angles, prices, levels).
   */
  readonly sumOf: "line" | "piece" | null;
  readonly writes: Writes;
  /** Its values are typed, not computed. */
  readonly typed?: boolean;
  /** The group that it puts a line into; without it, lines with the same text stand together. */
  readonly group?: (line: PieceLine) => LineGroup;
  readonly cell: (line: PieceLine, how: CellGround) => Cell;
  /** What it says of an assembly that is one line; without it, it does not apply. */
  readonly ofAssembly?: (line: AssemblyLine, how: CellGround) => Cell;
};

const text = (
  id: ComputedColumn,
  width: number,
  of: (line: PieceLine, how: CellGround) => string | Cell,
  ofAssembly?: ListColumnKind["ofAssembly"],
): ListColumnKind => ({
  id,
  heading: COMPUTED_COLUMNS[id],
  width,
  align: "left",
  adds: false,
  sumOf: null,
  writes: { kind: "words" },
  cell: (line, how) => {
    const found = of(line, how);
    return typeof found === "string" ? textCell(found) : found;
  },
  ...(ofAssembly ? { ofAssembly } : {}),
});

const number = (
  id: ComputedColumn,
  writes: Writes,
  cell: ListColumnKind["cell"],
  ofAssembly?: ListColumnKind["ofAssembly"],
): ListColumnKind => ({
  id,
  heading: COMPUTED_COLUMNS[id],
  width: 11,
  align: "right",
  adds: false,
  sumOf: null,
  writes,
  cell,
  ...(ofAssembly ? { ofAssembly } : {}),
});

const PLAIN: Writes = { kind: "plain" };
const decimalsOf = (places: number): Writes => ({ kind: "decimal", places });
/** Its numbers are of the whole line, and add up. */
const summing = (kind: ListColumnKind): ListColumnKind => ({ ...kind, adds: true, sumOf: "line" });
/** Its numbers are of one piece: a sum takes them as often as there are pieces. */
const ofEach = (kind: ListColumnKind): ListColumnKind => ({ ...kind, sumOf: "piece" });

export const lengthCell = (mm: number, style: LengthStyle): Cell =>
  numberCell(mm, formatLength(mm, style, LENGTH_TOLERANCE_MM));

/** A size of a made piece: missing where the piece has no size, not applicable where its kind has none. */
function size(id: ComputedColumn, of: (line: PieceLine) => number | null | "none"): ListColumnKind {
  return ofEach(
    number(id, { kind: "length" }, (line, { style }) => {
      const nm = of(line);
      if (nm === "none") return NOT_APPLICABLE;
      return nm === null ? MISSING : lengthCell(fromNm(nm), style);
    }),
  );
}

/** What is sawn of a panel: its finished size less the edging that is deducted. */
function blank(id: ComputedColumn, side: "length" | "width"): ListColumnKind {
  return ofEach(
    number(id, { kind: "length" }, ({ row }, { style, ground }) => {
      const { form } = row.shown;
      if (form.kind !== "panel") return row.kind === "panel" ? MISSING : NOT_APPLICABLE;
      return lengthCell(blankOf(form, ground.stockroom.edgingById)[side], style);
    }),
  );
}

const memberSize = ({ row }: PieceLine, of: (form: MemberForm) => number): number | null | "none" => {
  const { form } = row.shown;
  if (form.kind === "member") return of(form);
  return row.kind === "member" ? null : "none";
};

const decimals = (value: number | null, places: number, missing: Cell): Cell =>
  value === null ? missing : numberCell(value, formatDecimal(value, places));

const angle = (id: ComputedColumn, end: 0 | 1, of: (slope: Vec2) => number): ListColumnKind =>
  number(
    id,
    decimalsOf(1),
    ({
      row: {
        shown: { form },
      },
    }) => (form.kind === "member" ? angleCell(form.ends[end], of) : NOT_APPLICABLE),
  );

const KIND_WORDS = { member: "member", panel: "panel", other: "other", bought: "bought" } as const;

const PRICE_MISSING: Cell = { ...MISSING, text: "price missing" };

/** The sum of what a number says in all lines inside an assembly; incomplete where one of them is missing. */
function sumInside(
  line: AssemblyLine,
  of: (inside: PieceLine) => Cell,
  write: (sum: number) => string,
): Cell {
  const cells = line.inside.map(of);
  const sum = Number(cells.reduce((total, cell) => total + (cell.value ?? 0), 0).toPrecision(12));
  return cells.some((cell) => cell.lack === "missing")
    ? { ...MISSING, text: `incomplete: ${write(sum)}` }
    : numberCell(sum, write(sum));
}

const noMass = (line: PieceLine): Cell => (line.row.kind === "bought" ? NOT_APPLICABLE : MISSING);
const massOf = (line: PieceLine, places: number): Cell => {
  const { massEach } = line.quantity;
  return decimals(massEach === null ? null : massEach * line.count, places, noMass(line));
};

/** Metres and square metres of a row in the unit of the job's shop. */
const shopOf = (measure: Measure, { job }: ListGround) => shopUnit(measure, job.info.job.unit);
const inShop = (value: number | null, measure: Measure, ground: ListGround) =>
  value === null ? null : value * shopOf(measure, ground).per;

/** The part of a row's cost that a line has, which may be of one assembly alone; not rounded, so that parts add up. */
export const partOfCost = (line: PieceLine, cents: number | null): number | null =>
  cents === null ? null : (cents * line.count) / Math.max(1, line.row.count);

const costCell = (line: PieceLine): Cell => {
  const cents = partOfCost(line, line.quantity.cost.net);
  return cents === null ? PRICE_MISSING : numberCell(cents / 100, formatCents(Math.round(cents)));
};

/** The same section or board of another material is bought and cut by itself. */
function stockGroup({ row: { kind, stock, stockName, material } }: PieceLine): LineGroup {
  const none = { panel: "No board", member: "No section", other: "Other", bought: "Bought parts" }[kind];
  return {
    key: [kind, stock ?? "", stockName ?? "", material ?? ""].join("|"),
    heading: stockName ?? none,
    detail: material ?? (kind === "panel" || kind === "member" ? "no material" : ""),
  };
}

export const LIST_COLUMNS: readonly ListColumnKind[] = [
  text("mark", 9, ({ row }) => (row.mark === "" ? NOT_APPLICABLE : row.mark)),
  { ...text("silhouette", 22, () => ""), id: SILHOUETTE_COLUMN },
  {
    ...number(
      "level",
      PLAIN,
      ({ level }) => (level === 0 ? NOT_APPLICABLE : numberCell(level)),
      ({ level }) => numberCell(level),
    ),
    width: 6,
  },
  text(
    "name",
    24,
    ({ row }) => row.name,
    ({ assembly }) => textCell(assembly.name),
  ),
  text(
    "kind",
    10,
    ({ row }) => KIND_WORDS[row.kind],
    () => textCell("assembly"),
  ),
  summing(
    number(
      "count",
      PLAIN,
      ({ count }) => numberCell(count),
      ({ count }) => numberCell(count),
    ),
  ),
  {
    ...number(
      "inOne",
      PLAIN,
      ({ inOne }) => numberCell(inOne),
      ({ inOne }) => numberCell(inOne),
    ),
    sumOf: "line",
  },
  summing(number("asDrawn", PLAIN, ({ asDrawn }) => numberCell(asDrawn))),
  summing(number("opposite", PLAIN, ({ opposite }) => numberCell(opposite))),
  text("assembly", 18, ({ records }, { ground: { job } }) => {
    const homes = new Set(records.map((id) => homeName(job, homeOf(job, id) ?? null)));
    return [...homes].join(", ");
  }),
  { ...text("stock", 24, ({ row }) => row.stockName ?? MISSING), group: stockGroup },
  text("material", 16, ({ row }) => row.material ?? (row.kind === "bought" ? NOT_APPLICABLE : MISSING)),
  { ...text("size", 22, sizeText), align: "right" },
  size("length", ({ row }) => {
    const { form } = row.shown;
    if (form.kind === "panel") return form.lengthNm;
    if (form.kind === "member") return form.cutNm;
    return row.kind === "bought" || row.kind === "other" ? "none" : null;
  }),
  size("width", ({ row }) =>
    row.shown.form.kind === "panel" ? row.shown.form.widthNm : row.kind === "panel" ? null : "none",
  ),
  size("thickness", ({ row }) =>
    row.shown.form.kind === "panel" ? row.shown.form.thicknessNm : row.kind === "panel" ? null : "none",
  ),
  blank("blankLength", "length"),
  blank("blankWidth", "width"),
  size("longest", (line) => memberSize(line, (form) => form.longestNm)),
  size("shortest", (line) => memberSize(line, (form) => form.shortestNm)),
  angle("end1", 0, (slope) => anglesOf(slope).angle),
  angle("end2", 1, (slope) => anglesOf(slope).angle),
  text("stand", 13, ({ row: { shown } }) => {
    const { form } = shown;
    if (form.kind === "panel" && form.grain) return "grain long";
    return form.kind === "member" ? standWords(form) : NOT_APPLICABLE;
  }),
  angle("mitre1", 0, (slope) => sawSettings(slope).mitre),
  angle("bevel1", 0, (slope) => sawSettings(slope).bevel),
  angle("mitre2", 1, (slope) => sawSettings(slope).mitre),
  angle("bevel2", 1, (slope) => sawSettings(slope).bevel),
  text("grain", 10, ({ row: { shown } }) =>
    shown.form.kind === "panel" ? (shown.form.grain ? "long" : "none") : NOT_APPLICABLE,
  ),
  text("edging", 16, ({ row: { shown } }, { ground }) =>
    shown.form.kind === "panel" ? edgingWords(shown.form, ground.stockroom) : NOT_APPLICABLE,
  ),
  text("note", 28, ({ row }, { style, ground }) => rowNotes(row, style, ground.stockroom).join("; ")),
  text("measure", 7, ({ quantity }, { ground }) => shopOf(quantity.measure, ground).name),
  ofEach(
    number("each", decimalsOf(3), ({ quantity }, { places }) =>
      decimals(quantity.each, places ?? 3, MISSING),
    ),
  ),
  summing(
    number("net", decimalsOf(3), (line, { ground, places }) =>
      decimals(
        inShop(wholeQuantity(line, ground.job), line.quantity.measure, ground),
        line.quantity.measure === "each" ? 0 : (places ?? 3),
        MISSING,
      ),
    ),
  ),
  ofEach(
    number("massEach", decimalsOf(2), (line, { places }) =>
      decimals(line.quantity.massEach, places ?? 2, noMass(line)),
    ),
  ),
  summing(
    number(
      "mass",
      decimalsOf(2),
      (line, { places }) => massOf(line, places ?? 2),
      (line, { places }) =>
        sumInside(
          line,
          (inside) => massOf(inside, places ?? 2),
          (sum) => formatDecimal(sum, places ?? 2),
        ),
    ),
  ),
  number("unitPrice", decimalsOf(2), ({ quantity: { unitPrice, packOf, measure } }, { places, ground }) => {
    if (unitPrice === null) return PRICE_MISSING;
    const price = unitPrice / shopOf(measure, ground).per;
    const said = formatDecimal(price, places ?? 2);
    return numberCell(price, packOf === null ? said : `${said} per ${packOf}`);
  }),
  summing(
    number(
      "cost",
      decimalsOf(2),
      (line) => costCell(line),
      (line) =>
        sumInside(
          line,
          (inside) => costCell(inside),
          (sum) => formatCents(Math.round(sum * 100)),
        ),
    ),
  ),
];

const patterns = remembersEach<Job["ownColumns"], Map<string, ReturnType<typeof readSizePattern>>>();

/** Read once for all rows of a list. */
function patternOf(text: string, ownColumns: Job["ownColumns"]): ReturnType<typeof readSizePattern> {
  const known = patterns(ownColumns, [], () => new Map());
  const before = known.get(text);
  if (before) return before;
  const pattern = readSizePattern(
    text,
    Object.values(ownColumns).map((column) => column.name),
  );
  known.set(text, pattern);
  return pattern;
}

/** Sizes in the order of the list's pattern for members or panels. */
function sizeText(line: PieceLine, { setup, computedAs, ground }: CellGround): string | Cell {
  const { shown, kind } = line.row;
  const { form } = shown;
  if (form.kind === "none") return kind === "bought" || kind === "other" ? NOT_APPLICABLE : MISSING;
  const written = form.kind === "member" ? setup.sizeOfMember : setup.sizeOfPanel;
  const pattern = patternOf(written ?? USUAL_SIZE[form.kind], ground.job.ownColumns);
  if (!pattern.ok) return { ...MISSING, text: "pattern cannot be read" };
  const said = writeSize(pattern.value, (name) => {
    const cell = computedAs(line, name);
    return cell.lack ? null : cell.text;
  });
  return said ?? NOT_APPLICABLE;
}
