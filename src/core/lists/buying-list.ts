/** The buying list: what to buy by stock size, by rule and by layout, with subtotals and a total. */
import { type Cents, formatCents, formatDecimal, type MoneyTotal, totalOf } from "../measure";
import type { Quantities, QuantityLine } from "../quantities";
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

export const BUYING_COLUMNS: readonly Column[] = [
  { id: "name", heading: "Stock", align: "left", width: 30, writes: null },
  { id: "marks", heading: "For marks", align: "left", width: 20, writes: null },
  { id: "measure", heading: "In", align: "left", width: 6, writes: null },
  { id: "net", heading: "Net", align: "right", width: 10, writes: { kind: "decimal", places: 3 } },
  { id: "gross", heading: "By rule", align: "right", width: 10, writes: { kind: "decimal", places: 3 } },
  { id: "cost", heading: "Cost by rule", align: "right", width: 13, writes: { kind: "decimal", places: 2 } },
  { id: "uses", heading: "By layout", align: "left", width: 24, writes: null },
  {
    id: "layoutCost",
    heading: "Cost by layout",
    align: "right",
    width: 14,
    writes: { kind: "decimal", places: 2 },
  },
  { id: "mass", heading: "kg", align: "right", width: 9, writes: { kind: "decimal", places: 1 } },
];

const GROUPS = [
  ["bars", "Bars"],
  ["sheets", "Sheets"],
  ["edging", "Edging"],
  ["bought", "Bought parts"],
] as const;

export function quantityText(line: Pick<QuantityLine, "measure">, quantity: number): string {
  return line.measure === "each" ? formatDecimal(quantity, 0) : formatDecimal(quantity, 3);
}

const moneyCell = (cents: Cents | null): Cell =>
  cents === null ? { ...MISSING, text: "price missing" } : numberCell(cents / 100, formatCents(cents));

/** "12.50", or what is known of it with what is missing. */
export function totalWords(total: MoneyTotal, currency: string): string {
  const sum = `${formatCents(total.cents)} ${currency}`;
  if (total.missing === 0) return sum;
  return `incomplete: ${sum} without ${total.missing} ${total.missing === 1 ? "line" : "lines"} that ${total.missing === 1 ? "has" : "have"} no price`;
}

export function buyingList(quantities: Quantities): ListTable {
  const groups = GROUPS.flatMap(([group, heading]): ListGroup[] => {
    const lines = quantities.lines.filter((line) => line.group === group);
    if (lines.length === 0) return [];
    const subtotal = totalWords(totalOf(lines.map((line) => line.cost)), quantities.currency);
    return [{ heading, detail: "", summary: `by rule ${subtotal}`, rows: lines.map(buyingRow) }];
  });
  return { title: "Buying list", columns: BUYING_COLUMNS, groups, foot: [], notes: totalNotes(quantities) };
}

function totalNotes({
  byRule,
  byLayout,
  currency,
  wastePercent,
  massKg,
  massUnknown,
}: Quantities): readonly string[] {
  const notes = [
    `Total by rule (net + ${wastePercent} % waste): ${totalWords(byRule, currency)}.`,
    `Total by layout (whole bars and sheets): ${totalWords(byLayout, currency)}.`,
  ];
  if (byLayout.notLaidOut > 0)
    notes.push(
      `${byLayout.notLaidOut} stock ${byLayout.notLaidOut === 1 ? "size is" : "sizes are"} not laid out yet; by layout, those count by rule.`,
    );
  if (byLayout.stale > 0)
    notes.push(
      `${byLayout.stale} ${byLayout.stale === 1 ? "layout is" : "layouts are"} older than the design: lay out again before buying.`,
    );
  notes.push(
    `Mass of bars and sheets: ${formatDecimal(massKg, 1)} kg${massUnknown > 0 ? `, without ${massUnknown} of unknown density` : ""}.`,
  );
  return notes;
}

function buyingRow(line: QuantityLine): ListRow {
  return {
    id: line.id,
    records: [],
    summed: false,
    level: 0,
    cells: {
      name: textCell(line.material ? `${line.name}, ${line.material}` : line.name),
      marks: textCell(line.marks.join(" ")),
      measure: textCell(line.measure),
      net: numberCell(line.net, quantityText(line, line.net)),
      gross: numberCell(line.gross, quantityText(line, line.gross)),
      cost: moneyCell(line.cost),
      uses: usesCell(line),
      layoutCost: layoutCostCell(line),
      mass:
        line.massKg === null
          ? line.laidOut
            ? textCell("unknown")
            : NOT_APPLICABLE
          : numberCell(line.massKg, formatDecimal(line.massKg, 1)),
    },
  };
}

function usesCell({ laidOut, byLayout }: QuantityLine): Cell {
  if (!laidOut) return NOT_APPLICABLE;
  if (!byLayout) return textCell("not laid out");
  const unplaced = byLayout.unplaced > 0 ? ` (${byLayout.unplaced} unplaced)` : "";
  return textCell(
    `${byLayout.uses.map((use) => use.label).join(", ") || "nothing"}${unplaced}${byLayout.stale ? " (stale)" : ""}`,
  );
}

function layoutCostCell({ laidOut, byLayout }: QuantityLine): Cell {
  if (!laidOut) return NOT_APPLICABLE;
  if (!byLayout) return textCell("not laid out");
  return byLayout.cost === null && byLayout.unplaced > 0
    ? textCell("not all placed")
    : moneyCell(byLayout.cost);
}
