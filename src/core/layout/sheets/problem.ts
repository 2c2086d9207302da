/**
 * Sheet layouts as a problem file (4-architecture.md) and as exact integers. A piece l × w becomes
 * (l + kerf) × (w + kerf) and a sheet (L − 2·trim + kerf) × (W − 2·trim + kerf): after that the kerf
 * can be forgotten, and nothing is lost, for every cut runs right across.
 */
import * as v from "valibot";
import { at, fromNm, toNm } from "../../kernel";
import { scaledInteger } from "../../measure";
import { allowance, pieceCount, stockSize } from "../stock";

const count = pieceCount(20_000);

export const SheetProblemSchema = v.object({
  kerf: allowance,
  /** Taken from all four sides, its own kerf included. */
  trim: v.optional(allowance, 0),
  /** Runs of parallel cuts, the first along the sheet's length; null: without limit. */
  stages: v.optional(v.nullable(v.pipe(v.number(), v.integer(), v.minValue(2), v.maxValue(20))), null),
  stock: v.pipe(
    v.array(
      v.object({
        length: stockSize,
        width: stockSize,
        price: v.optional(v.nullable(v.pipe(v.number(), v.finite(), v.minValue(0))), null),
        count: v.optional(v.nullable(count), null),
        grain: v.optional(v.nullable(v.picklist(["length", "width"])), null),
      }),
    ),
    v.maxLength(50),
  ),
  panels: v.pipe(
    v.array(
      v.object({ length: stockSize, width: stockSize, qty: count, grain: v.optional(v.boolean(), false) }),
    ),
    v.maxLength(5_000),
  ),
});
export type SheetProblem = v.InferOutput<typeof SheetProblemSchema>;

/** A placed panel: x along the sheet's length from the corner of the untrimmed sheet; sizes as placed. */
export type Placement = {
  readonly panel: number;
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
  /** The panel's length runs along y. */
  readonly rotated: boolean;
};

/** A rectangle that is left over and not cut up further. */
export type Offcut = {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
};

export type CutSheet = {
  readonly stock: number;
  readonly placements: readonly Placement[];
  readonly offcuts: readonly Offcut[];
};

export type UnplacedPanel = { readonly panel: number; readonly qty: number; readonly why: string };

export type SheetLayout = {
  readonly sheets: readonly CutSheet[];
  readonly count: number;
  /** Sum of prices; null when a price is missing. */
  readonly cost: number | null;
  /** In the unit of `lowerBoundOf`; holds for every layout, guillotine or not. */
  readonly lowerBound: number;
  readonly lowerBoundOf: "cost" | "count";
  readonly proven: boolean;
  /** Area of panels ÷ area of the sheets used. */
  readonly utilisation: number;
  readonly unplaced: readonly UnplacedPanel[];
};

/** A panel turned or not, as its inflated sizes along x and y. */
export type Turn = { readonly length: number; readonly width: number; readonly rotated: boolean };

/** Panels of one size and grain together. `turns[t]` are the ways in which it may lie on sheet type t. */
export type PanelClass = {
  readonly area: number;
  readonly demand: number;
  readonly panels: readonly number[];
  readonly turns: readonly (readonly Turn[])[];
};

export type SheetType = {
  readonly stock: number;
  readonly length: number;
  readonly width: number;
  readonly cost: number;
  readonly available: number;
};

export type SheetInstance = {
  readonly classes: readonly PanelClass[];
  readonly types: readonly SheetType[];
  readonly stages: number;
  readonly priced: boolean;
};

function turnsOn(
  panel: SheetProblem["panels"][number],
  grain: "length" | "width" | null,
  kerfNm: number,
): readonly Turn[] {
  const along: Turn = {
    length: toNm(panel.length) + kerfNm,
    width: toNm(panel.width) + kerfNm,
    rotated: false,
  };
  const across: Turn = { length: along.width, width: along.length, rotated: true };
  if (panel.grain && grain === "length") return [along];
  if (panel.grain && grain === "width") return [across];
  return panel.length === panel.width ? [along] : [along, across];
}

/** Splits off what fits no sheet and turns the rest into integers (nanometres, inflated by the kerf). */
export function prepare(problem: SheetProblem): {
  readonly instance: SheetInstance;
  readonly unplaced: readonly UnplacedPanel[];
} {
  const kerfNm = toNm(problem.kerf);
  const trimNm = toNm(problem.trim);
  const priced =
    problem.stock.every((sheet) => sheet.price !== null) && problem.stock.some((sheet) => sheet.price !== 0);
  const types = problem.stock.flatMap((sheet, stock): SheetType[] => {
    const length = toNm(sheet.length) - 2 * trimNm;
    const width = toNm(sheet.width) - 2 * trimNm;
    const available = sheet.count ?? Number.POSITIVE_INFINITY;
    if (length <= 0 || width <= 0 || available === 0) return [];
    return [
      {
        stock,
        length: length + kerfNm,
        width: width + kerfNm,
        cost: sheetCost(problem, sheet, priced),
        available,
      },
    ];
  });
  const unplaced: UnplacedPanel[] = [];
  const classes = new Map<
    string,
    { demand: number; panels: number[]; turns: (readonly Turn[])[]; area: number }
  >();
  problem.panels.forEach((panel, index) => {
    if (panel.qty === 0) return;
    const turns = types.map((type) =>
      turnsOn(panel, at(problem.stock, type.stock).grain, kerfNm).filter(
        (turn) => turn.length <= type.length && turn.width <= type.width,
      ),
    );
    if (turns.every((ways) => ways.length === 0)) {
      unplaced.push({ panel: index, qty: panel.qty, why: tooLarge(problem, panel, types, kerfNm) });
      return;
    }
    const key = `${panel.length}|${panel.width}|${panel.grain}`;
    const known = classes.get(key) ?? {
      demand: 0,
      panels: [],
      turns,
      area: (toNm(panel.length) + kerfNm) * (toNm(panel.width) + kerfNm),
    };
    known.demand += panel.qty;
    for (let i = 0; i < panel.qty; i++) known.panels.push(index);
    classes.set(key, known);
  });
  const sorted = [...classes.values()].sort((a, b) => b.area - a.area);
  return {
    instance: { classes: sorted, types, stages: problem.stages ?? Number.POSITIVE_INFINITY, priced },
    unplaced,
  };
}

function tooLarge(
  problem: SheetProblem,
  panel: SheetProblem["panels"][number],
  types: readonly SheetType[],
  kerfNm: number,
): string {
  if (types.length === 0) return "there is no stock for it";
  const size = `${panel.length} x ${panel.width} mm`;
  const freely = types.some((type) =>
    turnsOn({ ...panel, grain: false }, null, kerfNm).some(
      (turn) => turn.length <= type.length && turn.width <= type.width,
    ),
  );
  if (panel.grain && freely) return `${size} only fits turned against the grain`;
  const best = types.reduce((a, b) => (b.length * b.width > a.length * a.width ? b : a));
  const trimmed = problem.trim > 0 ? " after its trims" : "";
  return `larger than every sheet: ${size}, the largest gives ${fromNm(best.length - kerfNm)} x ${fromNm(best.width - kerfNm)} mm${trimmed}`;
}

/** Money in 1/10,000; without prices the number of sheets first, their area second. */
function sheetCost(problem: SheetProblem, sheet: SheetProblem["stock"][number], priced: boolean): number {
  if (priced) return Number(scaledInteger(sheet.price ?? 0, 4));
  const areas = problem.stock.map((one) => Math.round((one.length * one.width) / 100));
  const own = Math.round((sheet.length * sheet.width) / 100);
  return Math.max(...areas) * 500 + own;
}
