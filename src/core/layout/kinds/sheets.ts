/** Layouts of sheets that are parted by straight cuts. */
import * as v from "valibot";
import { at, unreachable } from "../../kernel";
import { PLAIN_MM, saySizes } from "../../measure";
import { pricedSheets } from "../../stockroom";
import { blankOf } from "../blank";
import { sheetSettings } from "../settings";
import {
  type LockedPlacement,
  lockedSheetFault,
  readSheetProblem,
  type SheetLayout,
  type SheetProblem,
  SheetProblemSchema,
  type Together,
  verifySheets,
  withOffcuts,
} from "../sheets";
import type { LayoutWishes, NamedRow, SavedSheets, SheetTask, TaskGround } from "../types";
import type { LayoutKindModule, Taken } from "./kind";
import { finite, left, outcome, rect, whole } from "./schema-parts";
import { isSameSheet, sizeOf, takenOver } from "./taken-over";
import {
  boardOf,
  common,
  fingerprintOf,
  finishedOf,
  laidPiece,
  ofMaterial,
  rackSheets,
  stockOf,
  styled,
} from "./task-parts";
import { MORE_SHEETS, marginNotes, NO_SHEET, neededSheet, sayer, turnOrBuy } from "./words";

function task(id: string, named: readonly NamedRow[], ground: TaskGround): SheetTask {
  const { entry, own } = boardOf(named, ground);
  const settings = sheetSettings(entry, own);
  const grain = entry?.grain ?? null;
  const blanks = named.map(({ row }) =>
    row.shown.form.kind === "panel"
      ? blankOf(row.shown.form, ground.stockroom.edgingById, settings.allowance)
      : { length: 0, width: 0 },
  );
  const problem: SheetProblem = {
    ...styled(ground),
    kerf: settings.kerf,
    trim: settings.trim,
    stages: settings.stages,
    keep: settings.keep,
    rackFirst: settings.rack === "first",
    stock: stockOf(entry, ofMaterial(entry, named, ground), pricedSheets).map((sheet) => ({
      ...sheet,
      grain,
    })),
    panels: named.map(({ row }, i) => ({
      length: blanks[i]?.length ?? 0,
      width: blanks[i]?.width ?? 0,
      qty: row.count,
      grain: row.shown.form.kind === "panel" && row.shown.form.grain,
    })),
    together: togetherOf(named, ground.wishes),
    fixed: [],
  };
  const { panels: sizes, style: _, ...said } = problem;
  const pieces = named.map(({ row, job }, i) => {
    const { form } = row.shown;
    const blank = blanks[i];
    const finished = form.kind === "panel" ? finishedOf(form) : null;
    const same = finished === null || (finished[0] === blank?.length && finished[1] === blank.width);
    return { ...laidPiece(row, job), ...(same ? {} : { finished }) };
  });
  return {
    kind: "sheets",
    entry,
    ...common(id, named, entry?.name),
    pieces,
    fingerprint: fingerprintOf(said, sizes, pieces),
    problem: {
      ...problem,
      stock: [
        ...problem.stock,
        ...rackSheets(id, entry, settings.rack, named, ground).map((one) => ({ ...one, grain })),
      ],
    },
  };
}

/**
 * Keep-together groups of one task. A group is cut as often as there are pieces for all of its places; one with a panel of
 * another board is none here.
 */
function togetherOf(named: readonly NamedRow[], wishes: LayoutWishes): Together[] {
  const rowOf = new Map<string, { readonly index: number; readonly quantity: number }>();
  const keyOf = (id: string, job: string | null | undefined) => `${job ?? ""}/${id}`;
  named.forEach(({ row, job }, index) => {
    for (const piece of row.pieces) {
      const key = keyOf(piece.id, job);
      rowOf.set(key, { index, quantity: (rowOf.get(key)?.quantity ?? 0) + piece.quantity });
    }
  });
  return Object.values(wishes.blankGroups).flatMap((group): Together[] => {
    const places = group.panels.map((id) => rowOf.get(keyOf(id, group.job)));
    const panels = places.flatMap((place) => (place ? [place.index] : []));
    if (panels.length < group.panels.length) return [];
    const qty = Math.min(
      ...group.panels.map((id) => {
        const times = group.panels.filter((other) => other === id).length;
        return Math.floor((rowOf.get(keyOf(id, group.job))?.quantity ?? 0) / times);
      }),
    );
    return qty === 0 ? [] : [{ panels, along: group.along, qty }];
  });
}

function notes(problem: SheetProblem): readonly string[] {
  const { kerf, trim, stock, panels } = problem;
  const say = sayer(problem);
  const found: string[] = [];
  const least = Math.min(
    ...panels.filter(({ qty }) => qty > 0).map((one) => Math.min(one.length, one.width)),
  );
  if (kerf > least)
    found.push(`The kerf of ${say(kerf)} is wider than the narrowest panel of ${say(least)}; check both.`);
  return [...new Set([...found, ...marginNotes(trim, "trim", stock, problem.style)])];
}

const advice: LayoutKindModule<"sheets">["advice"] = (problem, index, why) => {
  if (problem.stock.length === 0) return NO_SHEET;
  const needs = neededSheet(problem, at(problem.panels, index), problem.trim);
  switch (why.kind) {
    case "againstGrain":
      return turnOrBuy(needs);
    case "tooLarge":
      return `Join it from two, or buy a sheet of at least ${needs}`;
    case "blank":
      return why.why.kind === "againstGrain" ? turnOrBuy(needs) : "Do not keep these panels together";
    case "blankUneven":
      return "Do not keep these panels together, or make them one size across";
    case "noStock":
    case "usedUp":
    case "usedUpOrStages":
    case "tooLong":
    case "tooLargeTurned":
    case "grainOnly":
    case "tooMany":
    case "badOutline":
    case "told":
      return problem.stages === null
        ? MORE_SHEETS
        : "Allow more stages of cuts, or increase the number of sheets in stock";
    default:
      return unreachable(why);
  }
};

/** The problem with the locks that a layout carries itself. */
function lockedSheets(problem: SheetProblem, layout: SheetLayout): SheetProblem {
  const fixed = layout.sheets.flatMap((sheet) => {
    const placements = sheet.placements
      .filter((one) => one.locked)
      .map(({ panel, x, y, rotated, against = false, together }) => ({
        panel,
        x,
        y,
        rotated,
        against,
        ...(together ? { together } : {}),
      }));
    return placements.length === 0 ? [] : [{ stock: sheet.stock, placements }];
  });
  return { ...problem, fixed };
}

function sheetLocks(task: SheetTask, saved: SavedSheets): Taken<SheetProblem> {
  const { problem } = task;
  const say = (sizes: readonly number[]) => saySizes(sizes, problem.style ?? PLAIN_MM);
  const { groups, notes } = takenOver<LockedPlacement>({
    groups: lockedSheets(saved.problem, saved.layout).fixed.map(({ stock, placements }) => ({
      stock,
      items: placements,
    })),
    before: saved.pieces,
    now: task.pieces,
    wanted: problem.panels.map(({ qty }) => qty),
    stock: problem.stock,
    isStock: (old, now) => isSameSheet(at(saved.problem.stock, old), at(problem.stock, now)),
    pieceOf: ({ panel }) => panel,
    as: (item, panel) => ({ ...item, panel }),
    sizeBefore: (panel) => sizeOf(at(saved.problem.panels, panel)),
    sizeNow: (panel) => sizeOf(at(problem.panels, panel)),
    style: problem.style ?? PLAIN_MM,
    stockWords: (stock) => `the sheet of ${say(sizeOf(at(saved.problem.stock, stock)))}`,
    faultWords: (stock, placements) => {
      const fault = lockedSheetFault(problem, { stock, placements: [...placements] });
      return fault === null ? null : `locked, but ${fault.words}`;
    },
  });
  const fixed = groups.map(({ stock, items }) => ({ stock, placements: withRuns(problem, items) }));
  return { problem: { ...problem, fixed }, notes };
}

/** Locked runs with the group that keeps them together now; panels that no group keeps together any more are single. */
function withRuns(problem: SheetProblem, items: readonly LockedPlacement[]): LockedPlacement[] {
  const panelsOf = (one: LockedPlacement) =>
    items
      .filter(
        ({ together }) => together?.group === one.together?.group && together?.run === one.together?.run,
      )
      .map(({ panel }) => panel);
  return items.map((one): LockedPlacement => {
    const { together, ...single } = one;
    if (!together) return one;
    const wanted = panelsOf(one).join();
    const group = problem.together.findIndex(({ panels }) => panels.join() === wanted);
    // Runs of one sheet keep their numbers apart also where two groups have become one.
    return group < 0 ? single : { ...single, together: { group, run: together.run + 1000 * together.group } };
  });
}

const LayoutSchema = v.object({
  ...outcome,
  utilisation: finite,
  sheets: v.array(
    v.object({
      stock: whole,
      placements: v.array(
        v.object({
          ...rect,
          panel: whole,
          rotated: v.boolean(),
          locked: v.exactOptional(v.boolean()),
          against: v.exactOptional(v.boolean()),
          together: v.exactOptional(v.object({ group: whole, run: whole })),
        }),
      ),
      offcuts: v.array(v.object(rect)),
    }),
  ),
  unplaced: v.array(v.object({ ...left, panel: whole })),
});

function settingWords(problem: SheetProblem): readonly string[] {
  const { kerf, trim, stages } = problem;
  const say = sayer(problem);
  return [
    `kerf ${say(kerf)}`,
    `trim ${say(trim)} all round`,
    stages === null ? "any number of stages" : `${stages} stages`,
  ];
}

export const sheets: LayoutKindModule<"sheets"> = {
  noun: "sheet",
  measure: "m²",
  task,
  notes,
  settingWords,
  pieceMeasure(problem, index) {
    const { length, width } = at(problem.panels, index);
    return (length * width) / 1e6;
  },
  stockSizes: (problem, stock) => sizeOf(at(problem.stock, stock)),
  used: (layout) =>
    layout.sheets.map(({ stock, placements }) => ({
      stock,
      times: 1,
      pieces: placements.map(({ panel }) => panel),
      locks: placements.filter(({ locked }) => locked).length,
    })),
  opposite: () => null,
  share: (_, layout) => layout.utilisation,
  unplaced: ({ unplaced }) => unplaced.map(({ panel, qty, why }) => ({ index: panel, qty, why })),
  advice,
  rests: (layout) =>
    layout.sheets.flatMap(({ offcuts }) => offcuts.map(({ length, width }) => ({ length, width }))),
  withOwnLocks: lockedSheets,
  withLocks: sheetLocks,
  fault: verifySheets,
  schemas: { problem: SheetProblemSchema, layout: LayoutSchema },
  read(stored, layout) {
    const problem = readSheetProblem(stored);
    // Offcuts always come from the tree of cuts, also those of a layout that was stored before there was one.
    return {
      problem,
      layout: { ...layout, sheets: layout.sheets.map((sheet) => withOffcuts(problem, sheet)) },
    };
  },
};
