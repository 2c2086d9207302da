/** Layouts of bars: members of one section and material, one after the other. */
import * as v from "valibot";
import { at, fromNm } from "../../kernel";
import { PLAIN_MM, saySizes } from "../../measure";
import { pricedBars, sectionInMaterial } from "../../stockroom";
import {
  type BarLayout,
  type BarProblem,
  BarProblemSchema,
  lockedBarFault,
  PIECE_TURNS,
  readBarProblem,
  trims,
  usableLength,
  verifyBars,
} from "../bars";
import { endsOf, leaningOf } from "../piece-ends";
import { barSettings } from "../settings";
import type { BarTask, NamedRow, SavedBars, TaskGround } from "../types";
import type { LayoutKindModule, Taken } from "./kind";
import { finite, left, outcome, whole } from "./schema-parts";
import { takenOver } from "./taken-over";
import { common, fingerprintOf, laidPiece, rackOf, stockOf, styled } from "./task-parts";
import { sayer } from "./words";

function task(id: string, named: readonly NamedRow[], ground: TaskGround): BarTask {
  const first = named[0]?.row;
  const entry = first?.stock ? (ground.stockroom.sectionById.get(first.stock) ?? null) : null;
  const settings = barSettings(entry, entry ? ground.wishes.layoutSettings[entry.id] : undefined);
  const problem: BarProblem = {
    ...styled(ground),
    kerf: settings.kerf,
    trim: { start: settings.trimStart, end: settings.trimEnd },
    grip: settings.grip,
    keep: settings.keep,
    share: settings.share,
    rackFirst: settings.rack === "first",
    stock: stockOf(
      entry,
      entry && sectionInMaterial(ground.stockroom, entry, first?.material ?? null),
      pricedBars,
    ),
    pieces: named.map(({ row }) => {
      const ends = endsOf(row);
      return {
        length: row.shown.form.kind === "member" ? fromNm(row.shown.form.cutNm) : 0,
        qty: row.count,
        ends,
        ...(ends === null ? leaningOf(row) : {}),
      };
    }),
    fixed: [],
  };
  const rack = rackOf(id, entry, settings.rack, named, ground).filter(({ width }) => width === null);
  const pieces = named.map(({ row, job }) => laidPiece(row, job));
  const { pieces: sizes, style: _, ...said } = problem;
  return {
    kind: "bars",
    entry,
    ...common(id, named, entry?.name),
    pieces,
    fingerprint: fingerprintOf(said, sizes, pieces),
    problem: {
      ...problem,
      stock: [
        ...problem.stock,
        ...rack.map(({ id: rackId, length }) => ({ length, price: 0, count: 1, rack: rackId })),
      ],
    },
  };
}

function notes(problem: BarProblem): readonly string[] {
  const say = sayer(problem);
  const found: string[] = [];
  const least = Math.min(...problem.pieces.filter(({ qty }) => qty > 0).map(({ length }) => length));
  if (problem.kerf > least)
    found.push(
      `The kerf of ${say(problem.kerf)} is wider than the shortest piece of ${say(least)}; check both.`,
    );
  problem.stock.forEach(({ length }, i) => {
    if (usableLength(problem, i) <= 0)
      found.push(`Trims and clamp length leave nothing of a bar of ${say(length)}; make them smaller.`);
  });
  return [...new Set(found)];
}

const advice: LayoutKindModule<"bars">["advice"] = (problem, index, why) => {
  const { length } = at(problem.pieces, index);
  const say = sayer(problem);
  if (problem.stock.length === 0) return "Give its section a stock length in the stockroom";
  if (why.kind === "tooLong") {
    const { start, end } = trims(problem);
    const held = problem.grip > 0 ? problem.grip + problem.kerf : 0;
    const needed = length + start + Math.max(end, held);
    const longer = problem.stock.filter((bar) => bar.length >= needed).map((bar) => bar.length);
    const buy =
      longer.length > 0
        ? `have more of ${say(Math.min(...longer))}`
        : `buy a bar of ${say(needed)} or longer`;
    return `Splice it from two, or ${buy}`;
  }
  const limited = problem.stock
    .filter((bar) => bar.count !== null && bar.rack === null)
    .map((bar) => say(bar.length));
  return limited.length === 0
    ? "Give its section a stock length that can be bought"
    : `Increase the stock of ${limited.join(" and ")}, or clear the number (no limit)`;
};

/** The problem with the locks that a layout carries itself. */
function lockedBars(problem: BarProblem, layout: BarLayout): BarProblem {
  const fixed = layout.bars.flatMap((bar) => {
    const { locked = [] } = bar;
    return locked.length === 0
      ? []
      : [{ stock: bar.stock, pieces: locked.map((place) => ({ piece: at(bar.pieces, place), place })) }];
  });
  return { ...problem, fixed };
}

function barLocks(task: BarTask, saved: SavedBars): Taken<BarProblem> {
  const { problem } = task;
  const say = (sizes: readonly number[]) => saySizes(sizes, problem.style ?? PLAIN_MM);
  const { groups, notes } = takenOver<BarProblem["fixed"][number]["pieces"][number]>({
    groups: lockedBars(saved.problem, saved.layout).fixed.map(({ stock, pieces }) => ({
      stock,
      items: pieces,
    })),
    before: saved.pieces,
    now: task.pieces,
    wanted: problem.pieces.map(({ qty }) => qty),
    stock: problem.stock,
    isStock: (old, now) => {
      const [one, other] = [at(saved.problem.stock, old), at(problem.stock, now)];
      return one.length === other.length && one.rack === other.rack;
    },
    pieceOf: ({ piece }) => piece,
    as: (item, piece) => ({ ...item, piece }),
    sizeBefore: (piece) => [at(saved.problem.pieces, piece).length],
    sizeNow: (piece) => [at(problem.pieces, piece).length],
    style: problem.style ?? PLAIN_MM,
    stockWords: (stock) => `their bar of ${say([at(saved.problem.stock, stock).length])}`,
    faultWords: (stock, pieces) =>
      lockedBarFault({ ...problem, fixed: [{ stock, pieces: [...pieces] }] }) === null
        ? null
        : "they do not fit one bar any more with kerf and trims as they are",
  });
  const fixed = groups.map(({ stock, items }) => ({ stock, pieces: [...items] }));
  return { problem: { ...problem, fixed }, notes };
}

const LayoutSchema = v.object({
  ...outcome,
  bars: v.array(
    v.object({
      stock: whole,
      times: whole,
      pieces: v.array(whole),
      turns: v.exactOptional(v.array(v.nullable(v.picklist(PIECE_TURNS)))),
      locked: v.exactOptional(v.array(whole)),
      remainder: finite,
    }),
  ),
  unplaced: v.array(v.object({ ...left, piece: whole })),
  shared: v.exactOptional(v.object({ cuts: whole, length: finite })),
});

function settingWords(problem: BarProblem): readonly string[] {
  const { kerf, grip } = problem;
  const say = sayer(problem);
  const { start, end } = trims(problem);
  return [
    `kerf ${say(kerf)}`,
    start === end ? `trim ${say(start)} each end` : `trim ${say(start)} and ${say(end)}`,
    ...(grip > 0 ? [`clamp ${say(grip)}`] : []),
  ];
}

function shareOf(problem: BarProblem, { bars }: BarLayout): number {
  const sum = (lengths: readonly number[]) => lengths.reduce((all, length) => all + length, 0);
  const whole = sum(bars.map(({ stock, times }) => times * at(problem.stock, stock).length));
  const used = bars.map(
    ({ times, pieces }) => times * sum(pieces.map((piece) => at(problem.pieces, piece).length)),
  );
  return whole === 0 ? 0 : sum(used) / whole;
}

export const bars: LayoutKindModule<"bars"> = {
  noun: "bar",
  measure: "m",
  task,
  notes,
  settingWords,
  pieceMeasure: (problem, index) => at(problem.pieces, index).length / 1000,
  stockSizes: (problem, stock) => [at(problem.stock, stock).length],
  used: (layout) =>
    layout.bars.map(({ stock, times, pieces, locked = [] }) => ({
      stock,
      times,
      pieces,
      locks: locked.length,
    })),
  opposite: () => null,
  share: shareOf,
  unplaced: ({ unplaced }) => unplaced.map(({ piece, qty, why }) => ({ index: piece, qty, why })),
  advice,
  rests: (layout) =>
    layout.bars.flatMap((bar) =>
      Array.from({ length: bar.times }, () => ({ length: bar.remainder, width: null })),
    ),
  withOwnLocks: lockedBars,
  withLocks: barLocks,
  fault: verifyBars,
  schemas: { problem: BarProblemSchema, layout: LayoutSchema },
  read: (problem, layout) => ({ problem: readBarProblem(problem), layout }),
};
