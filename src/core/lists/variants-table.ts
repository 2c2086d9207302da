/** The variants of a job side by side: key sizes, pieces, quantities by stock, whole bars and sheets, mass, cost. */
import { type Job, type KeySize, lengthWith, numberWith, type Sizes } from "../job";
import { formatCents, formatDecimal, formatLength, MM_PER_UNIT, roundTo } from "../measure";
import type { Quantities, QuantityLine } from "../quantities";
import type { Tally } from "../tally";
import { styleOf } from "./piece-notes";
import {
  type Cell,
  type Column,
  type ListGroup,
  type ListRow,
  type ListTable,
  MISSING,
  NOT_APPLICABLE,
  numberCell,
  textCell,
} from "./table";

/** One variant with what was computed for it, or the job's own sizes. */
export type ComparedVariant = {
  readonly id: string;
  readonly name: string;
  readonly sizes: Sizes;
  readonly tally: Tally;
  readonly quantities: Quantities;
};

type Row = {
  readonly name: string;
  readonly unit: string;
  readonly cell: (variant: ComparedVariant) => Cell;
};

/** A row whose variants all say nothing is left out. */
function group(
  heading: string,
  rows: readonly Row[],
  variants: readonly ComparedVariant[],
): readonly ListGroup[] {
  const shown = rows.flatMap(({ name, unit, cell }): ListRow[] => {
    const cells = variants.map(cell);
    if (cells.every(({ lack }) => lack === "notApplicable")) return [];
    return [
      {
        id: `${heading} ${name} ${unit}`,
        records: [],
        summed: false,
        level: 0,
        cells: {
          name: textCell(name),
          unit: textCell(unit),
          ...Object.fromEntries(variants.map(({ id }, i) => [columnId(id), cells[i] ?? NOT_APPLICABLE])),
        },
      },
    ];
  });
  return shown.length === 0 ? [] : [{ heading, detail: "", summary: "", rows: shown }];
}

const columnId = (variant: string) => `variant:${variant}`;

/** What a key size is in a variant: a length in the unit of the job, a number, degrees or a word. */
function sizeCell(sizes: Sizes, { name, measure }: KeySize, job: Job): Cell {
  const value = sizes.scope.get(name);
  if (value === undefined) return MISSING;
  if (typeof value === "boolean") return textCell(value ? "yes" : "no");
  if (typeof value === "string") return textCell(value);
  if (measure !== "length") {
    const number = numberWith(sizes, name);
    return number.ok ? numberCell(number.value) : MISSING;
  }
  const length = lengthWith(sizes, name);
  if (!length.ok) return MISSING;
  const style = styleOf(job.info.job);
  const text = formatLength(length.value, style, 0.01);
  return numberCell(roundTo(length.value / MM_PER_UNIT[style.unit], 6), text);
}

const unitOf = ({ measure }: KeySize, unit: string): string =>
  measure === "length" ? unit : measure === "angle" ? "°" : "";

/** Lines that are the same in every variant by what they are of. */
function linesOf(variants: readonly ComparedVariant[]): readonly QuantityLine[] {
  const found = new Map<string, QuantityLine>();
  for (const { quantities } of variants)
    for (const line of quantities.lines) if (!found.has(line.id)) found.set(line.id, line);
  return [...found.values()];
}

const lineIn = ({ quantities }: ComparedVariant, id: string) => quantities.lines.find((one) => one.id === id);

const moneyCell = (cents: number, missing: number): Cell =>
  missing > 0
    ? { ...MISSING, text: `${formatCents(cents)}, incomplete` }
    : numberCell(cents / 100, formatCents(cents));

/** Variants side by side; each has a column of its own, named by its id. */
export function variantsTable(job: Job, variants: readonly ComparedVariant[]): ListTable {
  const style = styleOf(job.info.job);
  const currency = variants[0]?.quantities.currency ?? "";
  const lines = linesOf(variants);
  const quantity = (line: QuantityLine): Row => ({
    name: line.name,
    unit: line.measure,
    cell: (variant) => {
      const own = lineIn(variant, line.id);
      if (!own) return NOT_APPLICABLE;
      const places = line.measure === "each" ? 0 : 3;
      return numberCell(own.net, formatDecimal(own.net, places));
    },
  });
  const whole = (line: QuantityLine): Row => ({
    name: line.name,
    unit: line.group,
    cell: (variant) => {
      const own = lineIn(variant, line.id);
      if (!own) return NOT_APPLICABLE;
      if (!own.byLayout) return { ...MISSING, text: "no layout" };
      const count = own.byLayout.uses.reduce((sum, use) => sum + use.count, 0);
      return own.byLayout.outdated
        ? { ...MISSING, text: `${count}, outdated` }
        : numberCell(count, String(count));
    },
  });
  const sum = (name: string, unit: string, cell: Row["cell"]): Row => ({ name, unit, cell });
  const groups = [
    ...group(
      "Key sizes",
      Object.values(job.keySizes)
        .sort((a, b) => a.position - b.position)
        .map((size) => sum(size.name, unitOf(size, style.unit), ({ sizes }) => sizeCell(sizes, size, job))),
      variants,
    ),
    ...group(
      "Pieces",
      [
        sum("made", "pieces", ({ tally }) => numberCell(tally.balance.inRows, String(tally.balance.inRows))),
        sum("bought", "pieces", ({ tally }) =>
          numberCell(tally.balance.bought, String(tally.balance.bought)),
        ),
        sum("different rows", "rows", ({ tally }) =>
          numberCell(tally.rows.length, String(tally.rows.length)),
        ),
        sum("checks", "checks", ({ tally }) => numberCell(tally.checks.length, String(tally.checks.length))),
      ],
      variants,
    ),
    ...group("Net quantities", lines.map(quantity), variants),
    ...group("From layout", lines.filter(({ laidOut }) => laidOut).map(whole), variants),
    ...group(
      "Mass and cost",
      [
        sum("mass of bars and sheets", "kg", ({ quantities: { massKg, massKnown, massUnknown } }) =>
          massKnown === 0
            ? NOT_APPLICABLE
            : massUnknown > 0
              ? { ...MISSING, text: `${formatDecimal(massKg, 1)}, incomplete` }
              : numberCell(massKg, formatDecimal(massKg, 1)),
        ),
        sum("net + waste", currency, ({ quantities: { byRule } }) => moneyCell(byRule.cents, byRule.missing)),
        sum("from layout", currency, ({ quantities: { byLayout } }) =>
          moneyCell(byLayout.cents, byLayout.missing + byLayout.notLaidOut + byLayout.outdated),
        ),
      ],
      variants,
    ),
  ];
  const columns: readonly Column[] = [
    { id: "name", heading: "", align: "left", width: 30, writes: null },
    { id: "unit", heading: "In", align: "left", width: 8, writes: null },
    ...variants.map(
      ({ id, name }): Column => ({
        id: columnId(id),
        heading: name,
        align: "right",
        width: 14,
        writes: { kind: "plain" },
      }),
    ),
  ];
  return { title: "Variants", columns, groups, groupColumns: ["Of"], foot: [], notes: [] };
}
