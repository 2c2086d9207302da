/**
 * Fewer settings and cuts: a sheet laid out again with the same panels a number of times, in few stages first and with a
 * bias for rows of like panels; what needs fewest settings, then fewest cuts, is taken. The largest rest stays as large.
 */
import type { Random } from "../../kernel";
import { at } from "../../kernel";
import { sheetCuts } from "./cutting-order";
import { fillSheet } from "./fill";
import type { SheetInstance } from "./instance";
import { largestRest, type PlanSheet } from "./plan";
import type { SheetProblem } from "./problem";
import { toSheet } from "./result";

export type TidyOptions = {
  readonly random: Random;
  readonly width: number;
  readonly timeIsUp: () => boolean;
};

const TRIES = 40;

/** The sheet in an arrangement with fewer settings, or as it was. */
export function tidied(
  problem: SheetProblem,
  instance: SheetInstance,
  sheet: PlanSheet,
  { random, width, timeIsUp }: TidyOptions,
): PlanSheet {
  if (sheet.begun !== null) return sheet;
  let best = sheet;
  let effort = effortOf(problem, instance, sheet);
  for (let attempt = 0; attempt < TRIES && !timeIsUp(); attempt++) {
    const fill = fillSheet(instance, sheet.type, sheet.placed, {
      // Narrow beams are quick, and all that is asked of them is to place the same panels once more.
      width: 3 + random.below(width),
      values: null,
      stages: Math.min(instance.stages, 2 + (attempt % 3)),
      random,
      noise: attempt < 3 ? 0 : 0.1,
      rows: 0.03 * (attempt % 3),
    });
    if (fill.placed.some((count, c) => count !== at(sheet.placed, c))) continue;
    if (largestRest(fill) < largestRest(sheet)) continue;
    const again: PlanSheet = { ...fill, begun: null };
    const own = effortOf(problem, instance, again);
    if (own.settings < effort.settings || (own.settings === effort.settings && own.cuts < effort.cuts)) {
      best = again;
      effort = own;
    }
  }
  return best;
}

function effortOf(
  problem: SheetProblem,
  instance: SheetInstance,
  sheet: PlanSheet,
): { readonly settings: number; readonly cuts: number } {
  const queues = instance.classes.map((one, c) => one.panels.slice(0, at(sheet.placed, c)));
  const { settings, cuts } = sheetCuts(problem, toSheet(problem, instance, sheet, queues), "plain");
  return { settings, cuts: cuts.length };
}
