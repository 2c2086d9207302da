/** How a quantity came about, from the pieces to what is paid: each step with its sum, as somebody would write it beside the list. */
import type { JobInfo } from "../job";
import { counted } from "../kernel";
import { formatCents, formatDecimal } from "../measure";
import { type QuantityLine, quantityWords, shopUnit, stockSizeWords } from "../quantities";
import { type EnteredPrice, PER_WORDS } from "../stockroom";
import type { TallyRow } from "../tally";
import type { BuyingStyle } from "./buying-list";

export type Step = {
  /** "4 × 1.400 m, mark A Top rail". */
  readonly words: string;
  readonly result: string;
  /** The pieces that it is about. */
  readonly records: readonly string[];
  /** It sums up what stands before it. */
  readonly isSum: boolean;
};

const ROUNDING: Readonly<Record<JobInfo["rounding"], string>> = {
  piece: "each piece rounded to three places",
  line: "each row rounded to three places",
  end: "rounded only at the end",
};

/** ": 2.10 EUR per kg × 3.454 kg per m"; nothing where the price was entered by that very unit. */
function enteredWords(
  { price, per, kg }: EnteredPrice,
  unit: string,
  units: number,
  currency: string,
): string {
  if (PER_WORDS[per] === unit) return "";
  const said = `: ${formatDecimal(price, 2)} ${currency} per ${PER_WORDS[per]}`;
  return kg === null ? said : `${said}, ${formatDecimal(kg / units, 3)} kg per ${unit}`;
}

/** The steps of one line of the buying list: by rule first, then by layout. */
export function howItCame(
  line: QuantityLine,
  rows: readonly TallyRow[],
  { wastePercent, rounding }: JobInfo,
  { currency, style }: { readonly currency: string; readonly style: BuyingStyle },
): readonly Step[] {
  const unit = shopUnit(line.measure, style.unit).name;
  const amount = (quantity: number) => `${quantityWords(line.measure, quantity, style)} ${unit}`;
  const money = (cents: number | null) =>
    cents === null ? "price missing" : `${formatCents(cents)} ${currency}`;
  const byId = new Map(rows.map((row) => [row.id, row]));
  const steps: Step[] = line.parts.flatMap(({ id, quantity }): Step[] => {
    const row = byId.get(id);
    if (!row) return [];
    const each = line.measure === "each" ? "" : ` × ${amount(quantity / row.count)}`;
    const mark = row.mark === "" ? "" : `${row.mark} `;
    return [
      {
        words: `${mark}${row.name}: ${row.count}${each}`,
        result: amount(quantity),
        records: row.pieces.map((piece) => piece.id),
        isSum: false,
      },
    ];
  });
  const sum = (words: string, result: string) => steps.push({ words, result, records: [], isSum: true });
  sum(line.measure === "each" ? "Net" : `Net, ${ROUNDING[rounding]}`, amount(line.net));
  if (line.gross !== line.net) sum(`With ${wastePercent} % waste`, amount(line.gross));
  const price = line.unitPrice;
  if (line.packOf !== null) {
    const boxes = Math.ceil(line.net / line.packOf);
    const each = price === null ? "price missing" : `${formatDecimal(price, 2)} ${currency}`;
    sum(`${counted(boxes, "box", "boxes")} of ${line.packOf}, ${each} a box`, money(line.cost));
  } else {
    const { per } = shopUnit(line.measure, style.unit);
    const each = price === null ? "no price" : `${formatDecimal(price / per, 2)} ${currency} per ${unit}`;
    const entered = line.entered ? enteredWords(line.entered, unit, per, currency) : "";
    const least = line.laidOut && price !== null ? `, the least of its stock${entered}` : "";
    sum(`× ${each}${least}`, money(line.cost));
  }
  if (!line.laidOut) return steps;
  if (!line.byLayout) {
    sum("From layout", "no layout yet");
    return steps;
  }
  const { uses, cost, outdated, unplaced } = line.byLayout;
  for (const { count, sizes, price: of } of uses) {
    const each = of === null ? "price missing" : `${formatDecimal(of, 2)} ${currency}`;
    sum(
      `From layout: ${count} × ${stockSizeWords(sizes, style)}, ${each} each`,
      of === null ? "price missing" : `${formatDecimal(count * of, 2)} ${currency}`,
    );
  }
  const notes = [
    ...(unplaced > 0 ? [`${counted(unplaced, "piece")} not placed`] : []),
    ...(outdated ? ["outdated"] : []),
  ];
  sum(`From layout, all${notes.length > 0 ? ` (${notes.join(", ")})` : ""}`, money(cost));
  return steps;
}
