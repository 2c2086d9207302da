/**
 * Quantities and cost by stock: net, by rule (net plus waste, added once on the sum) and by layout
 * (whole bars and sheets). A price that is missing leaves its line and every total incomplete; it is
 * never zero. Fittings are counted each, without waste (common practice).
 */

import type { Job, JobInfo } from "../job";
import { at, fromNm } from "../kernel";
import { areaOfPanel, type KeptLayout, keptFor, type LayoutTask } from "../layout";
import { areaOfShape } from "../layout/shapes";
import { type Cents, costOf, type MoneyTotal, roundTo, totalOf } from "../measure";
import { leastUnitPrice, massPerMetre, type Stockroom } from "../stockroom";
import type { Tally, TallyRow } from "../tally";

export type Measure = "m" | "m²" | "each";

/** What a layout takes from the stockroom. */
export type StockUse = { readonly label: string; readonly count: number; readonly price: number | null };

export type ByLayout = {
  /** In the line's measure: whole bars and sheets. */
  readonly gross: number;
  readonly uses: readonly StockUse[];
  readonly cost: Cents | null;
  readonly stale: boolean;
  /** Pieces that the layout could not place: what it takes is then not enough. */
  readonly unplaced: number;
};

export type QuantityLine = {
  readonly id: string;
  readonly group: "bars" | "sheets" | "edging" | "bought";
  readonly name: string;
  readonly material: string | null;
  readonly measure: Measure;
  readonly marks: readonly string[];
  readonly pieces: number;
  readonly net: number;
  /** Net plus waste; equal to net for what is counted each. */
  readonly gross: number;
  readonly massKg: number | null;
  readonly unitPrice: number | null;
  readonly cost: Cents | null;
  /** null: nothing was laid out yet, or the line is not laid out at all. */
  readonly byLayout: ByLayout | null;
  /** Whether a layout could stand beside the rule. */
  readonly laidOut: boolean;
};

export type Quantities = {
  readonly currency: string;
  readonly wastePercent: number;
  readonly lines: readonly QuantityLine[];
  readonly byRule: MoneyTotal;
  /** Lines without layout count by rule here; null when there is no line to lay out. */
  readonly byLayout: MoneyTotal & { readonly notLaidOut: number; readonly stale: number };
  readonly massKg: number;
  readonly massUnknown: number;
};

/** A quantity of one row, in m or m², rounded as the job asks: per piece, per line or not at all. */
export function rowQuantity(each: number, count: number, rounding: JobInfo["rounding"]): number {
  if (rounding === "piece") return roundTo(roundTo(each, 3) * count, 9);
  if (rounding === "line") return roundTo(clean(each * count), 3);
  return clean(each * count);
}

/** Twelve significant places: takes the last bits of double noise off a product or a sum. */
const clean = (value: number) => Number(value.toPrecision(12));

/** Computes all quantities of a job. */
export function quantitiesOf(
  job: Job,
  tally: Tally,
  stockroom: Stockroom,
  kept: readonly KeptLayout[],
  tasks: readonly LayoutTask[],
): Quantities {
  const { wastePercent, rounding } = job.info.job;
  const lines = [
    ...tasks.map((task) => taskLine(task, job.info.job, stockroom, kept)),
    ...edgingLines(tally, stockroom, wastePercent, rounding),
    ...boughtLines(tally, stockroom),
  ];
  const masses = lines.filter((line) => line.group === "bars" || line.group === "sheets");
  return {
    currency: stockroom.currency,
    wastePercent,
    lines,
    byRule: totalOf(lines.map((line) => line.cost)),
    byLayout: {
      ...totalOf(lines.map((line) => (line.byLayout ? line.byLayout.cost : line.cost))),
      notLaidOut: lines.filter((line) => line.laidOut && line.byLayout === null).length,
      stale: lines.filter((line) => line.byLayout?.stale).length,
    },
    massKg: clean(masses.reduce((sum, line) => sum + (line.massKg ?? 0), 0)),
    massUnknown: masses.filter((line) => line.massKg === null).length,
  };
}

const withWaste = (net: number, percent: number) => clean(net * (1 + percent / 100));

function taskLine(
  task: LayoutTask,
  info: JobInfo,
  stockroom: Stockroom,
  kept: readonly KeptLayout[],
): QuantityLine {
  const perRow = task.rows.map((row, i) => rowQuantity(netEach(task, i), row.count, info.rounding));
  const net = clean(perRow.reduce((sum, quantity) => sum + quantity, 0));
  const gross = withWaste(net, info.wastePercent);
  const unitPrice =
    task.kind === "bars"
      ? leastUnitPrice((task.entry?.stock ?? []).map((bar) => ({ ...bar, units: bar.length / 1000 })))
      : leastUnitPrice(
          (task.entry?.stock ?? []).map((sheet) => ({ ...sheet, units: (sheet.length * sheet.width) / 1e6 })),
        );
  return {
    id: task.id,
    group: task.kind === "bars" ? "bars" : "sheets",
    name: task.name,
    material: task.material,
    measure: task.kind === "bars" ? "m" : "m²",
    marks: task.rows.map((row) => row.mark),
    pieces: task.rows.reduce((sum, row) => sum + row.count, 0),
    net,
    gross,
    massKg: massOf(task, stockroom),
    unitPrice,
    cost: unitPrice === null ? null : costOf(gross, unitPrice),
    byLayout: layoutUse(task, kept),
    laidOut: true,
  };
}

/** m of a bar piece, tip to tip; m² of a panel's blank, or of its outline where it is cut along that. */
export function netEach(task: LayoutTask, index: number): number {
  if (task.kind === "bars") return at(task.problem.pieces, index).length / 1000;
  if (task.kind === "shapes") return clean(areaOfShape(task.problem, index) / 1e6);
  const panel = at(task.problem.panels, index);
  return (panel.length * panel.width) / 1e6;
}

/** Volume of a member is area × centre length; a panel's mass is that of its finished outline. */
function massOf(task: LayoutTask, stockroom: Stockroom): number | null {
  if (!task.entry) return null;
  if (task.kind === "bars") {
    const perMetre = massPerMetre(task.entry);
    if (perMetre === null) return null;
    return clean(
      task.rows.reduce(
        (sum, { shown, count }) =>
          sum + (shown.form.kind === "member" ? (fromNm(shown.form.centreNm) / 1000) * count * perMetre : 0),
        0,
      ),
    );
  }
  const density = stockroom.boardById.get(task.entry.id)?.densityKgM3 ?? null;
  if (density === null) return null;
  const volumes = task.rows.map(({ shown: { form }, count }) =>
    form.kind === "panel" && form.thicknessNm !== null
      ? areaOfPanel(form) * fromNm(form.thicknessNm) * count
      : 0,
  );
  return clean(volumes.reduce((sum, volume) => sum + volume, 0) * 1e-9 * density);
}

function layoutUse(task: LayoutTask, kept: readonly KeptLayout[]): ByLayout | null {
  const found = keptFor(task, kept);
  if (!found) return null;
  const { kept: layout, stale } = found;
  const counts = new Map<number, number>();
  const tally =
    layout.kind === "bars"
      ? layout.layout.bars
      : layout.layout.sheets.map((sheet) => ({ ...sheet, times: 1 }));
  for (const { stock, times } of tally) counts.set(stock, (counts.get(stock) ?? 0) + times);
  const uses: StockUse[] = [];
  let gross = 0;
  for (const [stock, count] of [...counts].sort(([a], [b]) => a - b)) {
    if (layout.kind === "bars") {
      const bar = at(layout.problem.stock, stock);
      uses.push({ label: `${count} × ${bar.length}`, count, price: bar.price });
      gross += (bar.length / 1000) * count;
    } else {
      const sheet = at(layout.problem.stock, stock);
      uses.push({ label: `${count} × ${sheet.length} × ${sheet.width}`, count, price: sheet.price });
      gross += ((sheet.length * sheet.width) / 1e6) * count;
    }
  }
  const costs = uses.map(({ count, price }) => (price === null ? null : costOf(count, price)));
  const total = totalOf(costs);
  const unplaced = layout.layout.unplaced.reduce((sum, one) => sum + one.qty, 0);
  return {
    gross: clean(gross),
    uses,
    cost: total.missing > 0 || unplaced > 0 ? null : total.cents,
    stale: stale !== null,
    unplaced,
  };
}

function edgingLines(
  tally: Tally,
  stockroom: Stockroom,
  wastePercent: number,
  rounding: JobInfo["rounding"],
): readonly QuantityLine[] {
  const sums = new Map<string, { net: number; marks: Set<string>; pieces: number }>();
  for (const row of tally.rows) {
    const { form } = row.shown;
    if (form.kind !== "panel") continue;
    for (const [edge, id] of Object.entries(form.edging)) {
      if (id === null) continue;
      const overhang = stockroom.edgingById.get(id)?.overhang ?? 0;
      const run = fromNm(edge === "front" || edge === "back" ? form.lengthNm : form.widthNm);
      const sum = sums.get(id) ?? { net: 0, marks: new Set<string>(), pieces: 0 };
      sum.net += rowQuantity((run + 2 * overhang) / 1000, row.count, rounding);
      sum.marks.add(row.mark);
      sum.pieces += row.count;
      sums.set(id, sum);
    }
  }
  return [...sums].map(([id, { net, marks, pieces }]): QuantityLine => {
    const entry = stockroom.edgingById.get(id);
    const gross = withWaste(clean(net), wastePercent);
    const unitPrice = entry?.pricePerM ?? null;
    return {
      id: `edging:${id}`,
      group: "edging",
      name: entry?.name ?? `Edging: ${id}`,
      material: entry?.material ?? null,
      measure: "m",
      marks: [...marks],
      pieces,
      net: clean(net),
      gross,
      massKg: null,
      unitPrice,
      cost: unitPrice === null ? null : costOf(gross, unitPrice),
      byLayout: null,
      laidOut: false,
    };
  });
}

function boughtLines(tally: Tally, stockroom: Stockroom): readonly QuantityLine[] {
  const byEntry = new Map<string, TallyRow[]>();
  for (const row of tally.rows) {
    if (row.kind !== "bought") continue;
    const key = row.stock ?? row.id;
    byEntry.set(key, [...(byEntry.get(key) ?? []), row]);
  }
  return [...byEntry].map(([key, rows]): QuantityLine => {
    const entry = stockroom.boughtById.get(key);
    const pieces = rows.reduce((sum, row) => sum + row.count, 0);
    const byLength = entry?.measure === "length";
    const metres = clean(
      rows.reduce((sum, row) => sum + (row.count * (row.shown.boughtLength ?? 0)) / 1000, 0),
    );
    const net = byLength ? metres : pieces;
    const packs = entry?.packOf ? Math.ceil(pieces / entry.packOf) : null;
    const price = entry?.price ?? null;
    return {
      id: `bought:${key}`,
      group: "bought",
      name: entry ? entry.name : (rows[0]?.name ?? key),
      material: packs === null ? null : `${packs} × box of ${entry?.packOf}`,
      measure: byLength ? "m" : "each",
      marks: [],
      pieces,
      net,
      gross: net,
      massKg: null,
      unitPrice: price,
      cost: price === null ? null : costOf(packs ?? net, price),
      byLayout: null,
      laidOut: false,
    };
  });
}
