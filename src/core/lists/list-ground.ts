/** What the columns of a list are computed from, and what is known of one row beside the tally. */
import { type Assembly, type Home, type Job, type ListColumn, numberWith, type Sizes } from "../job";
import { fromNm } from "../kernel";
import { areaOfPanel, cutOutArea, type LayoutTask } from "../layout";
import type { LengthStyle } from "../measure";
import {
  type Measure,
  netEach,
  type Quantities,
  type QuantityLine,
  type RowCost,
  rowQuantity,
} from "../quantities";
import type { Shape } from "../shape";
import { boardDensity, type Stockroom, sectionMass } from "../stockroom";
import type { Tally, TallyRow } from "../tally";
import { styleOf } from "./piece-notes";

export type ListGround = {
  readonly job: Job;
  readonly sizes: Sizes;
  readonly stockroom: Stockroom;
  readonly shape: Pick<Shape, "places">;
  readonly tally: Tally;
  readonly tasks: readonly LayoutTask[];
  readonly quantities: Quantities;
};

/** Net quantity of one piece of a row in its measure, its unit price and its mass; null where they are not known. */
export type RowQuantity = {
  readonly measure: Measure;
  readonly each: number | null;
  readonly unitPrice: number | null;
  /** How many pieces the unit price is for; null: one, or one unit of the measure. */
  readonly packOf: number | null;
  readonly massEach: number | null;
  /** What all pieces of the row cost, as it is bought. */
  readonly cost: RowCost;
};

/** A row of the tally with what its cells need: the counts may be those of one assembly alone. */
export type PieceLine = {
  readonly kind: "pieces";
  readonly id: string;
  readonly level: number;
  readonly row: TallyRow;
  readonly records: readonly string[];
  readonly count: number;
  readonly asDrawn: number;
  readonly opposite: number;
  /** How many are in one job, or in one of the assembly that the line stands under. */
  readonly inOne: number;
  readonly quantity: RowQuantity;
};

/** An assembly as one line of a list by assembly, with all lines of pieces inside it. */
export type AssemblyLine = {
  readonly kind: "assembly";
  readonly id: string;
  readonly level: number;
  readonly assembly: Assembly;
  readonly records: readonly string[];
  readonly count: number;
  readonly inOne: number;
  readonly inside: readonly PieceLine[];
};
export type Line = PieceLine | AssemblyLine;

const NO_COST: RowCost = { net: null, waste: null };
export const NOTHING_KNOWN: RowQuantity = {
  measure: "each",
  each: null,
  unitPrice: null,
  packOf: null,
  massEach: null,
  cost: NO_COST,
};

/** Where a home stands in the job so that what is in it counts. */
export const listedPlaces = ({ shape }: ListGround, home: Home) =>
  (shape.places.get(home) ?? []).filter(({ counted }) => counted === "listed");

/** They are the same for every list of a job, however it is ordered or grouped. */
const KNOWN = new WeakMap<Quantities, ReadonlyMap<string, RowQuantity>>();

/** Quantities by row id; bought parts are counted each or measured by length. */
export function rowQuantities(ground: ListGround): ReadonlyMap<string, RowQuantity> {
  const known = KNOWN.get(ground.quantities) ?? computedQuantities(ground);
  KNOWN.set(ground.quantities, known);
  return known;
}

function computedQuantities(ground: ListGround): ReadonlyMap<string, RowQuantity> {
  const found = new Map<string, RowQuantity>();
  const lines = new Map(ground.quantities.lines.map((line) => [line.id, line]));
  for (const task of ground.tasks)
    task.rows.forEach((row, i) => {
      found.set(row.id, laidOut(task, i, row, lines.get(task.id), ground));
    });
  for (const row of ground.tally.rows) {
    if (row.kind !== "bought") continue;
    const line = lines.get(`bought:${row.stock ?? row.id}`);
    const byLength = line?.measure === "m";
    const each = byLength ? (row.shown.boughtLength === null ? null : row.shown.boughtLength / 1000) : 1;
    found.set(row.id, {
      measure: byLength ? "m" : "each",
      each,
      unitPrice: line?.unitPrice ?? null,
      packOf: line?.packOf ?? null,
      massEach: null,
      cost: ground.quantities.rowCosts.get(row.id) ?? NO_COST,
    });
  }
  return found;
}

function laidOut(
  task: LayoutTask,
  index: number,
  row: TallyRow,
  line: QuantityLine | undefined,
  { stockroom, quantities }: ListGround,
): RowQuantity {
  const money = {
    unitPrice: line?.unitPrice ?? null,
    packOf: null,
    cost: quantities.rowCosts.get(row.id) ?? NO_COST,
  };
  const { form } = row.shown;
  if (task.kind === "bars") {
    const perMetre = task.entry ? sectionMass(stockroom, task.entry, task.material) : null;
    const centre = form.kind === "member" ? fromNm(form.centreNm) / 1000 : null;
    return {
      measure: "m",
      each: netEach(task, index),
      ...money,
      massEach: perMetre === null || centre === null ? null : perMetre.value * centre,
    };
  }
  const density = task.entry ? boardDensity(stockroom, task.entry, task.material) : null;
  const volume =
    form.kind === "panel" && form.thicknessNm !== null
      ? (areaOfPanel(form) - cutOutArea(form)) * fromNm(form.thicknessNm) * 1e-9
      : null;
  return {
    measure: "m²",
    each: netEach(task, index),
    ...money,
    massEach: density === null || volume === null ? null : density.value * volume,
  };
}

/** The net quantity of a whole row, rounded as the job asks. */
export function wholeQuantity({ quantity, count }: PieceLine, job: Job): number | null {
  if (quantity.each === null) return null;
  return quantity.measure === "each"
    ? quantity.each * count
    : rowQuantity(quantity.each, count, job.info.job.rounding);
}

/** How lengths are written: as the job has them, but for what the column says. */
export function styleWith(job: Job, { format, unit }: ListColumn): LengthStyle {
  const style = styleOf(job.info.job);
  return { unit: unit ?? style.unit, format: format ?? style.format };
}

/** The number of a key size, or null where it has none. */
export function keySizeNumber({ sizes }: ListGround, name: string): number | null {
  const value = numberWith(sizes, name);
  return value.ok ? value.value : null;
}
