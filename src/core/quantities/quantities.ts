/**
 * Quantities and cost by stock: net, by rule (net plus waste, added once on the sum) and by layout
 * (whole bars and sheets). A price that is missing leaves its line and every total incomplete; it is
 * never zero. Fittings are counted each, without waste (common practice).
 */

import type { Job, JobInfo } from "../job";
import { addTo, at, fromNm } from "../kernel";
import { areaOfPanel, cutOutArea, type LayoutTask, layoutKind, type SavedLayout, savedFor } from "../layout";
import { type Cents, costOf, type MoneyTotal, roundTo, totalOf } from "../measure";
import {
  boardDensity,
  boardInMaterial,
  boughtPrice,
  type EnteredPrice,
  type Known,
  leastUnitPrice,
  pricedBars,
  pricedSheets,
  type SectionEntry,
  type Stockroom,
  sectionInMaterial,
  sectionMass,
} from "../stockroom";
import type { Tally, TallyRow } from "../tally";
import { type RowCost, rowCosts } from "./costing";

export type Measure = "m" | "m²" | "each";

/** What a layout takes from the stockroom. */
export type StockUse = {
  /** Length of a bar, length and width of a sheet, in mm. */
  readonly sizes: readonly number[];
  readonly count: number;
  readonly price: number | null;
};

export type ByLayout = {
  /** In the line's measure: whole bars and sheets. */
  readonly gross: number;
  readonly uses: readonly StockUse[];
  readonly cost: Cents | null;
  readonly outdated: boolean;
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
  /** What the mass goes by where that is not the stock itself; null: by the stock, or not known. */
  readonly massBy: string | null;
  readonly unitPrice: number | null;
  /** The price as it was entered, where the unit price is made from it; null: entered by the unit. */
  readonly entered: EnteredPrice | null;
  /** How many pieces the unit price is for; null: one, or one unit of the measure. */
  readonly packOf: number | null;
  /** Without waste. */
  readonly netCost: Cents | null;
  readonly cost: Cents | null;
  /** null: nothing was laid out yet, or the line is not laid out at all. */
  readonly byLayout: ByLayout | null;
  /** Whether a layout could stand beside the rule. */
  readonly laidOut: boolean;
  /** Width and height of the section of a timber, in mm. */
  readonly timber?: readonly [number, number];
  /** mm that edging is longer at each end of an edge; part of the net. */
  readonly overhang?: number;
  /** The rows of the tally that it comes from, each with its part of the net, in the line's measure. */
  readonly parts: readonly LinePart[];
};

export type LinePart = { readonly id: string; readonly quantity: number };

export type Quantities = {
  readonly currency: string;
  readonly wastePercent: number;
  readonly lines: readonly QuantityLine[];
  readonly byRule: MoneyTotal;
  /** Lines without layout count by rule here; null when there is no line to lay out. */
  readonly byLayout: MoneyTotal & { readonly notLaidOut: number; readonly outdated: number };
  readonly massKg: number;
  /** Bars and sheets whose mass is known, and those whose mass is not. */
  readonly massKnown: number;
  readonly massUnknown: number;
  /** What the rows of the tally cost, by the id of the row; its edging apart. */
  readonly rowCosts: ReadonlyMap<string, RowCost>;
  readonly edgingCosts: ReadonlyMap<string, RowCost>;
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
  saved: readonly SavedLayout[],
  tasks: readonly LayoutTask[],
): Quantities {
  const { wastePercent, rounding } = job.info.job;
  const laid = tasks.map((task) => taskLine(task, job.info.job, stockroom, saved));
  const edging = edgingLines(tally, stockroom, wastePercent, rounding);
  const bought = boughtLines(tally, stockroom);
  const lines = [...laid, ...edging, ...bought].map(
    ({ line, rows }): QuantityLine => ({ ...line, parts: rows }),
  );
  const masses = lines.filter((line) => line.group === "bars" || line.group === "sheets");
  return {
    currency: stockroom.currency,
    wastePercent,
    lines,
    byRule: totalOf(lines.map((line) => line.cost)),
    byLayout: {
      ...totalOf(lines.map((line) => (line.byLayout ? line.byLayout.cost : line.cost))),
      notLaidOut: lines.filter((line) => line.laidOut && line.byLayout === null).length,
      outdated: lines.filter((line) => line.byLayout?.outdated).length,
    },
    massKg: clean(masses.reduce((sum, line) => sum + (line.massKg ?? 0), 0)),
    massKnown: masses.filter((line) => line.massKg !== null).length,
    massUnknown: masses.filter((line) => line.massKg === null).length,
    rowCosts: new Map([...laid, ...bought].flatMap(({ line, rows }) => rowCosts(line, rows))),
    edgingCosts: addedCosts(edging.flatMap(({ line, rows }) => rowCosts(line, rows))),
  };
}

/** A line with the rows that its quantity comes from. */
type LineOfRows = {
  readonly line: Omit<QuantityLine, "parts">;
  readonly rows: readonly LinePart[];
};

/** Several costs of one row added up: each edge of a panel may have another edging. */
function addedCosts(costs: readonly (readonly [string, RowCost])[]): ReadonlyMap<string, RowCost> {
  const sums = new Map<string, RowCost>();
  for (const [id, { net, waste }] of costs) {
    const known = sums.get(id) ?? { net: 0, waste: 0 };
    const sum = (a: Cents | null, b: Cents | null) => (a === null || b === null ? null : a + b);
    sums.set(id, { net: sum(known.net, net), waste: sum(known.waste, waste) });
  }
  return sums;
}

const withWaste = (net: number, percent: number) => clean(net * (1 + percent / 100));

function taskLine(
  task: LayoutTask,
  info: JobInfo,
  stockroom: Stockroom,
  saved: readonly SavedLayout[],
): LineOfRows {
  const perRow = task.rows.map((row, i) => rowQuantity(netEach(task, i), row.count, info.rounding));
  const net = clean(perRow.reduce((sum, quantity) => sum + quantity, 0));
  const gross = withWaste(net, info.wastePercent);
  const least = unitPriceOf(task, stockroom);
  const unitPrice = least?.price ?? null;
  const mass = massOf(task, stockroom);
  const line: LineOfRows["line"] = {
    id: task.id,
    group: layoutKind(task).noun === "bar" ? "bars" : "sheets",
    name: task.name,
    material: task.material,
    measure: layoutKind(task).measure,
    marks: task.rows.map((row) => row.mark),
    pieces: task.rows.reduce((sum, row) => sum + row.count, 0),
    net,
    gross,
    massKg: mass?.value ?? null,
    massBy: mass?.by ?? null,
    unitPrice,
    entered: least?.entered ?? null,
    packOf: null,
    netCost: unitPrice === null ? null : costOf(net, unitPrice),
    cost: unitPrice === null ? null : costOf(gross, unitPrice),
    byLayout: layoutUse(task, saved),
    laidOut: true,
    ...timberOf(task),
  };
  return { line, rows: task.rows.map(({ id }, i) => ({ id, quantity: at(perRow, i) })) };
}

function timberOf(task: LayoutTask): { readonly timber?: readonly [number, number] } {
  if (task.kind !== "bars" || task.entry?.shape.kind !== "timber") return {};
  return { timber: task.entry.shape.size };
}

/** The price of a metre or a square metre in the material that is wanted; null where no stock of it has one. */
function unitPriceOf(task: LayoutTask, stockroom: Stockroom): ReturnType<typeof leastUnitPrice> {
  const { entry, material } = task;
  if (!entry) return null;
  if (task.kind === "bars") {
    const priced = sectionInMaterial(stockroom, entry as SectionEntry, material);
    return leastUnitPrice(priced ? pricedBars(priced) : []);
  }
  const priced = boardInMaterial(stockroom, task.entry as NonNullable<typeof task.entry>, material);
  return leastUnitPrice(priced ? pricedSheets(priced) : []);
}

/** m of a bar piece, tip to tip; m² of a panel's blank, or of its outline where it is cut along that. */
export const netEach = (task: LayoutTask, index: number): number =>
  clean(layoutKind(task).pieceMeasure(task.problem, index));

/** Volume of a member is area × centre length; a panel's mass is that of its finished outline. */
function massOf(task: LayoutTask, stockroom: Stockroom): Known | null {
  if (!task.entry) return null;
  if (task.kind === "bars") {
    const perMetre = sectionMass(stockroom, task.entry, task.material);
    if (perMetre === null) return null;
    const metres = task.rows.reduce(
      (sum, { shown, count }) =>
        sum + (shown.form.kind === "member" ? (fromNm(shown.form.centreNm) / 1000) * count : 0),
      0,
    );
    return { value: clean(metres * perMetre.value), by: perMetre.by };
  }
  const density = boardDensity(stockroom, task.entry, task.material);
  if (density === null) return null;
  const volumes = task.rows.map(({ shown: { form }, count }) =>
    form.kind === "panel" && form.thicknessNm !== null
      ? (areaOfPanel(form) - cutOutArea(form)) * fromNm(form.thicknessNm) * count
      : 0,
  );
  const volume = volumes.reduce((sum, one) => sum + one, 0) * 1e-9;
  return { value: clean(volume * density.value), by: density.by };
}

function layoutUse(task: LayoutTask, saved: readonly SavedLayout[]): ByLayout | null {
  const found = savedFor(task, saved);
  if (!found) return null;
  const { saved: layout, outdated } = found;
  const kind = layoutKind(layout);
  const counts = new Map<number, number>();
  for (const { stock, times } of kind.used(layout.layout))
    counts.set(stock, (counts.get(stock) ?? 0) + times);
  const uses: StockUse[] = [];
  let gross = 0;
  for (const [stock, count] of [...counts].sort(([a], [b]) => a - b)) {
    const sizes = kind.stockSizes(layout.problem, stock);
    uses.push({
      sizes,
      count,
      price: at<{ readonly price: number | null }>(layout.problem.stock, stock).price,
    });
    gross += sizes.reduce((product, size) => product * (size / 1000), 1) * count;
  }
  const costs = uses.map(({ count, price }) => (price === null ? null : costOf(count, price)));
  const total = totalOf(costs);
  const unplaced = layout.layout.unplaced.reduce((sum, one) => sum + one.qty, 0);
  return {
    gross: clean(gross),
    uses,
    cost: total.missing > 0 || unplaced > 0 ? null : total.cents,
    outdated: outdated !== null,
    unplaced,
  };
}

function edgingLines(
  tally: Tally,
  stockroom: Stockroom,
  wastePercent: number,
  rounding: JobInfo["rounding"],
): readonly LineOfRows[] {
  const sums = new Map<
    string,
    { net: number; marks: Set<string>; pieces: number; rows: Map<string, number> }
  >();
  for (const row of tally.rows) {
    const { form } = row.shown;
    if (form.kind !== "panel") continue;
    for (const [edge, id] of Object.entries(form.edging)) {
      if (id === null) continue;
      const overhang = stockroom.edgingById.get(id)?.overhang ?? 0;
      const run = fromNm(edge === "front" || edge === "back" ? form.lengthNm : form.widthNm);
      const sum = sums.get(id) ?? { net: 0, marks: new Set<string>(), pieces: 0, rows: new Map() };
      const quantity = rowQuantity((run + 2 * overhang) / 1000, row.count, rounding);
      sum.net += quantity;
      sum.rows.set(row.id, (sum.rows.get(row.id) ?? 0) + quantity);
      sum.marks.add(row.mark);
      sum.pieces += row.count;
      sums.set(id, sum);
    }
  }
  return [...sums].map(([id, { net, marks, pieces, rows }]): LineOfRows => {
    const entry = stockroom.edgingById.get(id);
    const gross = withWaste(clean(net), wastePercent);
    const unitPrice = entry?.pricePerM ?? null;
    const line: LineOfRows["line"] = {
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
      massBy: null,
      unitPrice,
      entered: null,
      packOf: null,
      netCost: unitPrice === null ? null : costOf(clean(net), unitPrice),
      cost: unitPrice === null ? null : costOf(gross, unitPrice),
      byLayout: null,
      laidOut: false,
      overhang: entry?.overhang ?? 0,
    };
    return { line, rows: [...rows].map(([row, quantity]) => ({ id: row, quantity })) };
  });
}

function boughtLines(tally: Tally, stockroom: Stockroom): readonly LineOfRows[] {
  const byEntry = new Map<string, TallyRow[]>();
  for (const row of tally.rows) {
    if (row.kind !== "bought") continue;
    const key = row.stock ?? row.id;
    addTo(byEntry, key, row);
  }
  return [...byEntry].map(([key, rows]): LineOfRows => {
    const entry = stockroom.boughtById.get(key);
    const pieces = rows.reduce((sum, row) => sum + row.count, 0);
    const byLength = entry?.measure === "length";
    const metres = clean(
      rows.reduce((sum, row) => sum + (row.count * (row.shown.boughtLength ?? 0)) / 1000, 0),
    );
    const net = byLength ? metres : pieces;
    const packs = entry?.packOf ? Math.ceil(pieces / entry.packOf) : null;
    const price = entry ? boughtPrice(entry) : null;
    const cost = price === null ? null : costOf(packs ?? net, price);
    const line: LineOfRows["line"] = {
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
      massBy: null,
      unitPrice: price,
      entered: null,
      packOf: entry?.packOf ?? null,
      netCost: cost,
      cost,
      byLayout: null,
      laidOut: false,
    };
    const quantities = rows.map((row) => ({
      id: row.id,
      quantity: row.count * (byLength ? (row.shown.boughtLength ?? 0) / 1000 : 1),
    }));
    return { line, rows: quantities };
  });
}
