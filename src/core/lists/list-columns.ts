/** The columns that a list can be made of: each computes its cell from a row of the tally and what it stands on. */
import { type ListColumn, type ListSetup, PANEL_EDGES } from "../job";
import { fromNm } from "../kernel";
import {
  costOf,
  formatCents,
  formatDecimal,
  formatDegrees,
  formatLength,
  type LengthStyle,
} from "../measure";
import { anglesOf, type MemberForm, sawSettings } from "../tally";
import { rowNotes, standWords } from "./cut-list";
import { keySizeNumber, type ListedRow, type ListGround, styleWith, wholeQuantity } from "./list-ground";
import { readSizePattern, type SizeName, USUAL_SIZE, writeSize } from "./size-text";
import { type Align, type Cell, type Column, NOT_APPLICABLE, numberCell, textCell } from "./table";

const TOLERANCE_MM = 0.1;

export type CellGround = {
  readonly ground: ListGround;
  readonly setup: ListSetup;
  readonly style: LengthStyle;
};

type ListColumnKind = {
  readonly id: string;
  readonly heading: string;
  readonly align: Align;
  readonly width: number;
  /** Whether its numbers add up in groups and totals. */
  readonly adds: boolean;
  readonly cell: (row: ListedRow, how: CellGround) => Cell;
};

/** It ought to be there and is not. */
const MISSING: Cell = textCell("missing");

const text = (
  id: string,
  heading: string,
  width: number,
  of: (row: ListedRow, how: CellGround) => string,
): ListColumnKind => ({
  id,
  heading,
  width,
  align: "left",
  adds: false,
  cell: (row, how) => textCell(of(row, how)),
});

const number = (
  id: string,
  heading: string,
  adds: boolean,
  cell: ListColumnKind["cell"],
): ListColumnKind => ({ id, heading, width: 11, align: "right", adds, cell });

const lengthCell = (nm: number, { style }: CellGround): Cell =>
  numberCell(fromNm(nm), formatLength(fromNm(nm), style, TOLERANCE_MM));

/** A size of a made piece: missing where the piece has no size, not applicable where its kind has none. */
function size(id: string, heading: string, of: (row: ListedRow) => number | null | "none"): ListColumnKind {
  return number(id, heading, false, (row, how) => {
    const nm = of(row);
    if (nm === "none") return NOT_APPLICABLE;
    return nm === null ? MISSING : lengthCell(nm, how);
  });
}

const memberSize = (row: ListedRow, of: (form: MemberForm) => number): number | null | "none" => {
  const { form } = row.row.shown;
  if (form.kind === "member") return of(form);
  return row.row.kind === "member" ? null : "none";
};

const decimals = (value: number | null, places: number, missing: Cell): Cell =>
  value === null ? missing : numberCell(value, formatDecimal(value, places));

function saw(id: string, heading: string, end: 0 | 1, which: "mitre" | "bevel"): ListColumnKind {
  return number(id, heading, false, ({ row: { shown } }) => {
    if (shown.form.kind !== "member") return NOT_APPLICABLE;
    if (shown.form.copes[end]) return textCell("cope");
    const angle = sawSettings(end === 0 ? shown.form.start : shown.form.end)[which];
    return numberCell(angle, formatDegrees(angle));
  });
}

function endAngle(id: string, heading: string, end: 0 | 1): ListColumnKind {
  return number(id, heading, false, ({ row: { shown } }) => {
    if (shown.form.kind !== "member") return NOT_APPLICABLE;
    if (shown.form.copes[end]) return textCell("cope");
    const { angle } = anglesOf(end === 0 ? shown.form.start : shown.form.end);
    return numberCell(angle, formatDegrees(angle));
  });
}

const KIND_WORDS = { member: "member", panel: "panel", other: "other", bought: "bought" } as const;

export const LIST_COLUMNS: readonly ListColumnKind[] = [
  text("mark", "Mark", 9, ({ row }) => row.mark),
  text("name", "Name", 24, ({ row }) => row.name),
  text("kind", "Kind", 10, ({ row }) => KIND_WORDS[row.kind]),
  number("count", "Count", true, ({ count }) => numberCell(count)),
  number("asDrawn", "As drawn", true, ({ asDrawn }) => numberCell(asDrawn)),
  number("opposite", "Opposite", true, ({ opposite }) => numberCell(opposite)),
  text("stock", "Stock", 24, ({ row }) => row.stockName ?? "missing"),
  text("material", "Material", 16, ({ row }) => row.material ?? (row.kind === "bought" ? "–" : "missing")),
  { ...text("size", "Size", 22, sizeText), align: "right" },
  size("length", "Cut length", (row) => {
    const { form } = row.row.shown;
    if (form.kind === "panel") return form.lengthNm;
    if (form.kind === "member") return form.cutNm;
    return row.row.kind === "bought" || row.row.kind === "other" ? "none" : null;
  }),
  size("width", "Width", ({ row }) =>
    row.shown.form.kind === "panel" ? row.shown.form.widthNm : row.kind === "panel" ? null : "none",
  ),
  size("thickness", "Thick", ({ row }) =>
    row.shown.form.kind === "panel" ? row.shown.form.thicknessNm : row.kind === "panel" ? null : "none",
  ),
  size("longest", "Longest edge", (row) => memberSize(row, (form) => form.longestNm)),
  size("shortest", "Shortest edge", (row) => memberSize(row, (form) => form.shortestNm)),
  endAngle("end1", "End 1 °", 0),
  endAngle("end2", "End 2 °", 1),
  text("stand", "Ends stand", 13, ({ row: { shown } }) =>
    shown.form.kind === "member" ? standWords(shown.form) : "–",
  ),
  saw("mitre1", "Mitre 1 °", 0, "mitre"),
  saw("bevel1", "Bevel 1 °", 0, "bevel"),
  saw("mitre2", "Mitre 2 °", 1, "mitre"),
  saw("bevel2", "Bevel 2 °", 1, "bevel"),
  text("grain", "Grain", 10, ({ row: { shown } }) =>
    shown.form.kind === "panel" ? (shown.form.grain ? "long" : "any way") : "–",
  ),
  text("edging", "Edging", 16, ({ row: { shown } }) => {
    const { form } = shown;
    if (form.kind !== "panel") return "–";
    return PANEL_EDGES.filter((edge) => form.edging[edge] !== null).join(" + ") || "none";
  }),
  text("note", "Note", 28, ({ row }, { style, ground }) => rowNotes(row, style, ground.stockroom).join("; ")),
  text("measure", "In", 7, ({ quantity }) => quantity.measure),
  number("each", "Net each", false, ({ quantity }) => decimals(quantity.each, 3, MISSING)),
  number("net", "Net", true, (row, { ground }) =>
    decimals(wholeQuantity(row, ground.job), row.quantity.measure === "each" ? 0 : 3, MISSING),
  ),
  number("massEach", "kg each", false, ({ quantity, row }) =>
    decimals(quantity.massEach, 2, row.kind === "bought" ? NOT_APPLICABLE : MISSING),
  ),
  number("mass", "kg", true, ({ quantity, count, row }) =>
    decimals(
      quantity.massEach === null ? null : quantity.massEach * count,
      2,
      row.kind === "bought" ? NOT_APPLICABLE : MISSING,
    ),
  ),
  number("unitPrice", "Price per unit", false, ({ quantity: { unitPrice } }) =>
    unitPrice === null ? textCell("price missing") : numberCell(unitPrice, formatDecimal(unitPrice, 2)),
  ),
  number("cost", "Cost, net", true, (row, { ground }) => {
    const net = wholeQuantity(row, ground.job);
    const { unitPrice } = row.quantity;
    if (net === null || unitPrice === null) return textCell("price missing");
    const cents = costOf(net, unitPrice);
    return numberCell(cents / 100, formatCents(cents));
  }),
];

/** Sizes in the order of the list's pattern for members or panels. */
function sizeText({ row: { shown, kind } }: ListedRow, { setup, style }: CellGround): string {
  const { form } = shown;
  if (form.kind === "none") return kind === "bought" || kind === "other" ? "–" : "missing";
  const written = form.kind === "member" ? setup.sizeOfMember : setup.sizeOfPanel;
  const pattern = readSizePattern(written ?? USUAL_SIZE[form.kind]);
  if (!pattern.ok) return "pattern cannot be read";
  const mm = (nm: number | null) => (nm === null ? null : formatLength(fromNm(nm), style, TOLERANCE_MM));
  const values: Readonly<Record<SizeName, string | null>> = {
    length: mm(form.kind === "member" ? form.cutNm : form.lengthNm),
    width: form.kind === "panel" ? mm(form.widthNm) : null,
    thickness: form.kind === "panel" ? mm(form.thicknessNm) : null,
    longest: form.kind === "member" ? mm(form.longestNm) : null,
    shortest: form.kind === "member" ? mm(form.shortestNm) : null,
    stock: shown.stockName,
    material: shown.material,
    name: shown.name,
  };
  return writeSize(pattern.value, (name) => values[name]) ?? "–";
}

const KEY = "key:";

/** A column by its id: a computed one, or that of a key size, which is the same in every row. */
export function columnKind(id: string): ListColumnKind | null {
  const known = LIST_COLUMNS.find((column) => column.id === id);
  if (known) return known;
  if (!id.startsWith(KEY)) return null;
  const name = id.slice(KEY.length);
  return number(id, name, false, (_, { ground }) => {
    const value = keySizeNumber(ground, name);
    return value === null ? MISSING : numberCell(value, formatDecimal(value, 3).replace(/\.?0+$/, ""));
  });
}

/** A column as the table has it: what the setup says wins over the column's own. */
export function columnOf({ column, heading, align, width }: ListColumn): Column {
  const kind = columnKind(column);
  return {
    id: column,
    heading: heading ?? kind?.heading ?? column,
    align: align ?? kind?.align ?? "left",
    width: width ?? kind?.width ?? 12,
  };
}

export function cellOf(
  row: ListedRow,
  { column, format }: ListColumn,
  setup: ListSetup,
  ground: ListGround,
): Cell {
  const kind = columnKind(column);
  // A column of another version, or a key size that is gone: said in every row, never left empty.
  if (!kind) return textCell("no such column");
  return kind.cell(row, { ground, setup, style: styleWith(ground.job, format) });
}
