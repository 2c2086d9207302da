/** The buying list: what to buy by stock size, by rule and by layout, with subtotals and a total. */
import { agreeing, counted } from "../kernel";
import {
  type Cents,
  formatCents,
  formatDecimal,
  type LengthStyle,
  type MoneyTotal,
  PLAIN_MM,
  sayLength,
  totalOf,
} from "../measure";
import {
  boardFeet,
  type FeetForm,
  isImperial,
  type Quantities,
  type QuantityLine,
  quantityWords,
  shopUnit,
  stockSizeWords,
} from "../quantities";
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
  { id: "gross", heading: "Net + waste", align: "right", width: 10, writes: { kind: "decimal", places: 3 } },
  {
    id: "cost",
    heading: "Cost, net + waste",
    align: "right",
    width: 13,
    writes: { kind: "decimal", places: 2 },
  },
  { id: "uses", heading: "From layout", align: "left", width: 24, writes: null },
  {
    id: "layoutCost",
    heading: "Cost from layout",
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

/** How a buying list writes what it says: the lengths of the job, and its feet. */
export type BuyingStyle = LengthStyle & { readonly feet: FeetForm };
const METRIC_BUYING: BuyingStyle = { ...PLAIN_MM, feet: "decimal" };

const quantityText = (line: Pick<QuantityLine, "measure">, quantity: number, style: BuyingStyle): string =>
  quantityWords(line.measure, quantity, style);

const moneyCell = (cents: Cents | null): Cell =>
  cents === null ? { ...MISSING, text: "price missing" } : numberCell(cents / 100, formatCents(cents));

/** "12.50", or what is known of it with what is missing. */
export function totalWords(total: MoneyTotal, currency: string): string {
  const sum = `${formatCents(total.cents)} ${currency}`;
  if (total.missing === 0) return sum;
  return `incomplete: ${sum} without ${counted(total.missing, "line")} that ${agreeing(total.missing, "has", "have")} no price`;
}

export function buyingList(quantities: Quantities, style: BuyingStyle = METRIC_BUYING): ListTable {
  const groups = GROUPS.flatMap(([group, heading]): ListGroup[] => {
    const lines = quantities.lines.filter((line) => line.group === group);
    if (lines.length === 0) return [];
    const subtotal = totalWords(totalOf(lines.map((line) => line.cost)), quantities.currency);
    return [
      {
        heading,
        detail: "",
        summary: `net + waste ${subtotal}`,
        rows: lines.map((line) => buyingRow(line, style)),
      },
    ];
  });
  return { title: "Buying list", columns: BUYING_COLUMNS, groups, foot: [], notes: totalNotes(quantities) };
}

function totalNotes({
  byRule,
  byLayout,
  currency,
  wastePercent,
  massKg,
  massKnown,
  massUnknown,
  lines,
}: Quantities): readonly string[] {
  const notes = [
    `Total net + ${wastePercent} % waste: ${totalWords(byRule, currency)}.`,
    `Total from layout (whole bars and sheets): ${totalWords(byLayout, currency)}.`,
  ];
  if (byLayout.notLaidOut > 0)
    notes.push(
      `${byLayout.notLaidOut} stock ${agreeing(byLayout.notLaidOut, "size is", "sizes are")} without a layout. Their quantity is net + waste.`,
    );
  if (byLayout.outdated > 0)
    notes.push(
      `${counted(byLayout.outdated, "layout is", "layouts are")} outdated. Lay out again before buying.`,
    );
  if (massKnown + massUnknown > 0) notes.push(massNote(massKg, massKnown, massUnknown));
  for (const { name, material, massBy } of lines)
    if (massBy !== null) notes.push(`Mass of ${name}, ${material}: by the ${massBy}.`);
  return notes;
}

function massNote(massKg: number, known: number, unknown: number): string {
  if (known === 0) return "Mass of bars and sheets: not known, since no density is set.";
  const without = unknown > 0 ? `, without ${counted(unknown, "stock", "stocks")} of unknown density` : "";
  return `Mass of bars and sheets: ${formatDecimal(massKg, 1)} kg${without}.`;
}

function buyingRow(line: QuantityLine, style: BuyingStyle): ListRow {
  const { name: unit, per } = shopUnit(line.measure, style.unit);
  return {
    id: line.id,
    records: [],
    summed: false,
    level: 0,
    cells: {
      name: textCell(nameWords(line, style)),
      marks: textCell(line.marks.join(" ")),
      measure: textCell(unit),
      net: numberCell(line.net * per, quantityText(line, line.net, style)),
      gross: numberCell(line.gross * per, quantityText(line, line.gross, style)),
      cost: moneyCell(line.cost),
      uses: usesCell(line, style),
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

/** Name, material, and what the quantity has in it that nobody would look for there. */
function nameWords({ name, material, overhang, timber, net }: QuantityLine, style: BuyingStyle): string {
  const named = material ? `${name}, ${material}` : name;
  if (overhang) return `${named} (with ${sayLength(overhang, style)} overhang at each end)`;
  if (!timber || !isImperial(style.unit)) return named;
  return `${named} (${formatDecimal(boardFeet(timber[0], timber[1], net), 2)} board ft by actual size)`;
}

function usesCell({ laidOut, byLayout }: QuantityLine, style: BuyingStyle): Cell {
  if (!laidOut) return NOT_APPLICABLE;
  if (!byLayout) return textCell("no layout");
  const unplaced = byLayout.unplaced > 0 ? ` (${byLayout.unplaced} unplaced)` : "";
  return textCell(
    `${byLayout.uses.map(({ count, sizes }) => `${count} × ${stockSizeWords(sizes, style)}`).join(", ") || "nothing"}${unplaced}${byLayout.outdated ? " (outdated)" : ""}`,
  );
}

function layoutCostCell({ laidOut, byLayout }: QuantityLine): Cell {
  if (!laidOut) return NOT_APPLICABLE;
  if (!byLayout) return textCell("no layout");
  return byLayout.cost === null && byLayout.unplaced > 0
    ? textCell("not all placed")
    : moneyCell(byLayout.cost);
}
