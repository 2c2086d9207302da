/** Layouts of sheets whose pieces are cut along their outlines. */
import * as v from "valibot";
import { at, unreachable } from "../../kernel";
import { PLAIN_MM, saySizes } from "../../measure";
import { pricedSheets } from "../../stockroom";
import {
  areaOfShape,
  type LockedShape,
  type NestingLayout,
  type NestingProblem,
  NestingProblemSchema,
  nestingFault,
  readNestingProblem,
  sizeOfShape,
  verifyNesting,
} from "../nesting";
import { type PanelShape, panelShape } from "../panel-shape";
import { nestingSettings } from "../settings";
import type { LaidPiece, NamedRow, NestingTask, SavedNesting, TaskGround } from "../types";
import type { LayoutKindModule, Taken } from "./kind";
import { finite, left, outcome, rect, whole } from "./schema-parts";
import { isSameSheet, nameOf, sizeOf, takenOver } from "./taken-over";
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
import { finer, MORE_SHEETS, marginNotes, NO_SHEET, neededSheet, sayer, turnOrBuy } from "./words";

function task(id: string, named: readonly NamedRow[], ground: TaskGround): NestingTask {
  const { entry, own } = boardOf(named, ground);
  const settings = nestingSettings(entry, own);
  const grain = entry?.grain ?? "length";
  const problem: NestingProblem = {
    ...styled(ground),
    gap: settings.gap,
    margin: settings.trim,
    step: settings.turn,
    keep: settings.keep,
    rackFirst: settings.rack === "first",
    stock: stockOf(entry, ofMaterial(entry, named, ground), pricedSheets).map((sheet) => ({
      ...sheet,
      grain,
    })),
    shapes: named.map(({ row }) => {
      const { form } = row.shown;
      const shape = form.kind === "panel" ? panelShape(form, ground.stockroom.edgingById) : NO_SHAPE;
      return {
        outline: shape.outline.map((corner): ShapeCorner => [...corner]),
        holes: shape.holes.map((hole) => ({ ...hole })),
        // Layouts that were saved before there were any say nothing of them.
        ...(shape.cutOuts.length > 0
          ? { cutOuts: shape.cutOuts.map((corners) => corners.map((corner): ShapeCorner => [...corner])) }
          : {}),
        qty: row.count,
        grain: form.kind === "panel" && form.grain,
        // Without a good face it may be turned over; with one, its opposite hand is cut mirrored.
        opposite: form.kind === "panel" && form.goodFace ? row.hands.opposite : null,
      };
    }),
    fixed: [],
  };
  const pieces = named.map(({ row, job }): LaidPiece => {
    const { form } = row.shown;
    return { ...laidPiece(row, job), ...(form.kind === "panel" ? { finished: finishedOf(form) } : {}) };
  });
  const { shapes, style: _, ...said } = problem;
  return {
    kind: "shapes",
    entry,
    ...common(id, named, entry?.name),
    pieces,
    fingerprint: fingerprintOf({ ...said, cut: "outline" }, shapes, pieces),
    problem: {
      ...problem,
      stock: [
        ...problem.stock,
        ...rackSheets(id, entry, settings.rack, named, ground).map((one) => ({ ...one, grain })),
      ],
    },
  };
}

type ShapeCorner = NestingProblem["shapes"][number]["outline"][number];
const NO_SHAPE: PanelShape = { outline: [], holes: [], cutOuts: [] };

function notes(problem: NestingProblem): readonly string[] {
  const say = sayer(problem);
  const { gap, margin, stock, shapes } = problem;
  const least = Math.min(
    ...shapes.flatMap(({ qty }, i) => {
      const { length, width } = sizeOfShape(problem, i);
      return qty > 0 ? [Math.round(Math.min(length, width) * 10) / 10] : [];
    }),
  );
  const wide =
    gap > least
      ? [`The gap of ${say(gap)} is wider than the narrowest piece of ${say(least)}; check both.`]
      : [];
  return [...new Set([...wide, ...marginNotes(margin, "margin", stock, problem.style)])];
}

const advice: LayoutKindModule<"shapes">["advice"] = (problem, index, why) => {
  if (problem.stock.length === 0) return NO_SHEET;
  const needs = () => neededSheet(problem, sizeOfShape(problem, index), problem.margin);
  switch (why.kind) {
    case "tooMany":
      return "Make fewer at once: a smaller number of the job, or another board for some";
    case "badOutline":
      return "Set the corners of its outline in their order round the panel";
    case "grainOnly":
    case "againstGrain":
      return turnOrBuy(needs());
    case "tooLargeTurned":
    case "tooLarge":
      return finer(needs());
    case "noStock":
    case "usedUp":
    case "usedUpOrStages":
    case "tooLong":
    case "blank":
    case "blankUneven":
    case "told":
      return MORE_SHEETS;
    default:
      return unreachable(why);
  }
};

/** The problem with the locks that a layout carries itself. */
function lockedShapes(problem: NestingProblem, layout: NestingLayout): NestingProblem {
  const fixed = layout.sheets.flatMap((sheet) => {
    const placements = sheet.placements
      .filter((one) => one.locked)
      .map(({ shape, angle, x, y, mirrored = false, against = false }) => ({
        shape,
        angle,
        x,
        y,
        mirrored,
        against,
      }));
    return placements.length === 0 ? [] : [{ stock: sheet.stock, placements }];
  });
  return { ...problem, fixed };
}

function nestingLocks(task: NestingTask, saved: SavedNesting): Taken<NestingProblem> {
  const { problem } = task;
  const say = (sizes: readonly number[]) => saySizes(sizes, problem.style ?? PLAIN_MM);
  const tenth = (value: number) => Math.round(value * 10) / 10;
  const size = (of: NestingProblem, shape: number) => {
    const { length, width } = sizeOfShape(of, shape);
    return [tenth(length), tenth(width)];
  };
  const { groups, notes } = takenOver<LockedShape>({
    groups: lockedShapes(saved.problem, saved.layout).fixed.map(({ stock, placements }) => ({
      stock,
      items: placements,
    })),
    before: saved.pieces,
    now: task.pieces,
    wanted: problem.shapes.map(({ qty }) => qty),
    stock: problem.stock,
    isStock: (old, now) => isSameSheet(at(saved.problem.stock, old), at(problem.stock, now)),
    pieceOf: ({ shape }) => shape,
    as: (item, shape) => ({ ...item, shape }),
    sizeBefore: (shape) => size(saved.problem, shape),
    sizeNow: (shape) => size(problem, shape),
    style: problem.style ?? PLAIN_MM,
    stockWords: (stock) => `the sheet of ${say(sizeOf(at(saved.problem.stock, stock)))}`,
    faultWords: (stock, placements) => {
      const fault = nestingFault(problem, stock, placements);
      return fault === null ? null : `locked, but ${LOCK_WORDS[fault.kind]}`;
    },
  });
  const fixed = groups.map(({ stock, items }) => ({ stock, placements: [...items] }));
  const hands = ofTheirHand(task, fixed);
  return { problem: { ...problem, fixed: hands.fixed }, notes: [...notes, ...hands.notes] };
}

/** Locked shapes of which there are fewer in their hand now are let go. */
function ofTheirHand({ problem, pieces }: NestingTask, groups: NestingProblem["fixed"]) {
  const notes: string[] = [];
  const left = problem.shapes.map(({ qty, opposite }) =>
    opposite === null ? { plain: qty, mirrored: qty } : { plain: qty - opposite, mirrored: opposite },
  );
  const fixed = groups
    .map((group) => ({
      ...group,
      placements: group.placements.filter(({ shape, mirrored }) => {
        const hand = mirrored ? "mirrored" : "plain";
        if (at(left, shape)[hand]-- > 0) return true;
        notes.push(`${nameOf(at(pieces, shape))} is unlocked: fewer of this hand are needed.`);
        return false;
      }),
    }))
    .filter(({ placements }) => placements.length > 0);
  return { fixed, notes };
}

const LOCK_WORDS = {
  unknown: "gone",
  off: "with the margin as it is one lies off the sheet",
  against: "one would lie across the grain",
  taken: "with outlines and gap as they are two lie too near to one another",
} as const;

const LayoutSchema = v.object({
  ...outcome,
  utilisation: finite,
  sheets: v.array(
    v.object({
      stock: whole,
      placements: v.array(
        v.object({
          shape: whole,
          angle: finite,
          x: finite,
          y: finite,
          mirrored: v.exactOptional(v.boolean()),
          locked: v.exactOptional(v.boolean()),
          against: v.exactOptional(v.boolean()),
        }),
      ),
      offcuts: v.array(v.object(rect)),
    }),
  ),
  unplaced: v.array(v.object({ ...left, shape: whole })),
});

function settingWords(problem: NestingProblem): readonly string[] {
  const { gap, margin, step } = problem;
  const say = sayer(problem);
  return [
    "nesting",
    `gap ${say(gap)}`,
    `margin ${say(margin)}`,
    step === 0 ? "no rotation" : `rotation step ${step}°`,
  ];
}

export const shapes: LayoutKindModule<"shapes"> = {
  noun: "sheet",
  measure: "m²",
  task,
  notes,
  settingWords,
  pieceMeasure: (problem, index) => areaOfShape(problem, index) / 1e6,
  stockSizes: (problem, stock) => sizeOf(at(problem.stock, stock)),
  used: (layout) =>
    layout.sheets.map(({ stock, placements }) => ({
      stock,
      times: 1,
      pieces: placements.map(({ shape }) => shape),
      locks: placements.filter(({ locked }) => locked).length,
      mirrored: placements.map(({ mirrored = false }) => mirrored),
    })),
  opposite: (problem, index) => at(problem.shapes, index).opposite,
  share: (_, layout) => layout.utilisation,
  unplaced: ({ unplaced }) => unplaced.map(({ shape, qty, why }) => ({ index: shape, qty, why })),
  advice,
  rests: (layout) =>
    layout.sheets.flatMap(({ offcuts }) => offcuts.map(({ length, width }) => ({ length, width }))),
  withOwnLocks: lockedShapes,
  withLocks: nestingLocks,
  fault: verifyNesting,
  schemas: { problem: NestingProblemSchema, layout: LayoutSchema },
  read: (problem, layout) => ({ problem: readNestingProblem(problem), layout }),
};
