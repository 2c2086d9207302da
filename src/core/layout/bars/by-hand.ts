/**
 * Bars changed by hand: a piece is moved, turned, locked, set aside and brought back. A pattern that is cut several times
 * gives one of its bars for it. Every change gives a layout that fits, or the reason why it would not.
 */

import { at, err, fromNm, ok, type Result, toNm, unreachable } from "../../kernel";
import { type LengthStyle, sayLength } from "../../measure";
import { ASIDE, judged, oneLess, oneMore } from "../stock";
import { waysOf } from "./mitre";
import { type BarLayout, type BarProblem, type CutBar, type PieceTurn, usableLength } from "./problem";
import { mergedBars, placesNm, remainderOf, sharedBy } from "./result";

export type PieceAt = { readonly bar: number; readonly place: number };
export type BarSpot = { readonly bar: number; readonly stock?: number; readonly place: number };

/** Why a change by hand cannot be; lengths in mm. */
export type BarRefusal =
  | { readonly kind: "gone" }
  | { readonly kind: "notWaiting" }
  | { readonly kind: "noBar" }
  /** How much too short the bar would be, cuts included. */
  | { readonly kind: "noRoom"; readonly over: number }
  | { readonly kind: "noOtherWay" }
  | { readonly kind: "noRoomTurned"; readonly over: number };

const GONE: BarRefusal = { kind: "gone" };

/** The refusal as a sentence. */
export function barRefusalWords(refusal: BarRefusal, style: LengthStyle): string {
  switch (refusal.kind) {
    case "gone":
      return "This piece is no longer in the layout.";
    case "notWaiting":
      return "This piece is already placed.";
    case "noBar":
      return "There is no more bar of that length in stock.";
    case "noRoom":
      return `There is no room: the bar would be ${sayLength(refusal.over, style)} too short, cuts included.`;
    case "noOtherWay":
      return "It looks the same however it is turned, or its section does not allow it.";
    case "noRoomTurned":
      return `Turned so, the bar would be ${sayLength(refusal.over, style)} too short.`;
    default:
      return unreachable(refusal);
  }
}

type Lying = { readonly piece: number; readonly turn: PieceTurn | null; readonly locked: boolean };

const lyingOn = (bar: CutBar): readonly Lying[] =>
  bar.pieces.map((piece, place) => ({
    piece,
    turn: bar.turns?.[place] ?? null,
    locked: bar.locked?.includes(place) ?? false,
  }));

function barOf(problem: BarProblem, stock: number, lying: readonly Lying[]): CutBar {
  const pieces = lying.map(({ piece }) => piece);
  const turns = lying.map(({ turn }) => turn);
  const locked = lying.flatMap((one, place) => (one.locked ? [place] : []));
  const bar = {
    stock,
    times: 1,
    pieces,
    ...(turns.some((turn) => turn !== null) ? { turns } : {}),
    ...(locked.length > 0 ? { locked } : {}),
  };
  return { ...bar, remainder: remainderOf(problem, bar) };
}

/** One bar of each named pattern taken out of it, so that it can be changed by itself; its index in the new list. */
function singled(
  bars: readonly CutBar[],
  index: number,
): { readonly bars: readonly CutBar[]; readonly index: number } {
  const bar = at(bars, index);
  if (bar.times === 1) return { bars, index };
  const rest = bars.map((one, i) => (i === index ? { ...one, times: one.times - 1 } : one));
  return {
    bars: [...rest.slice(0, index + 1), { ...bar, times: 1 }, ...rest.slice(index + 1)],
    index: index + 1,
  };
}

/** All bars with the piece taken off its own, which is one by itself then, at `index`. */
function takenOff(problem: BarProblem, layout: BarLayout, from: PieceAt) {
  const source = at(layout.bars, from.bar);
  const { bars, index } = singled(layout.bars, from.bar);
  const without = lyingOn(source).filter((_, place) => place !== from.place);
  return {
    index,
    bars: bars.map((bar, i) => (i === index ? barOf(problem, source.stock, without) : bar)),
  };
}

/** Moves a piece to a place on another bar, on its own, or on a bar that is not begun. */
export function movePiece(
  problem: BarProblem,
  layout: BarLayout,
  from: PieceAt,
  to: BarSpot,
): Result<BarLayout, BarRefusal> {
  const source = layout.bars[from.bar];
  const moved = source && lyingOn(source)[from.place];
  if (!moved) return err(GONE);
  const taken = takenOff(problem, layout, from);
  // Taking one bar out of a pattern moves those behind it.
  const shift = taken.index - from.bar;
  const target = to.bar === from.bar ? taken.index : to.bar > from.bar ? to.bar + shift : to.bar;
  return putOn(problem, layout, taken.bars, { ...to, bar: target }, moved);
}

/** Brings a piece back that was set aside or found no place. */
export function bringPieceBack(
  problem: BarProblem,
  layout: BarLayout,
  piece: number,
  to: BarSpot,
): Result<BarLayout, BarRefusal> {
  const waiting = layout.unplaced.find((one) => one.piece === piece);
  if (!waiting) return err({ kind: "notWaiting" });
  const unplaced = oneLess(layout.unplaced, waiting);
  const lying: Lying = { piece, turn: null, locked: false };
  return putOn(problem, { ...layout, unplaced }, layout.bars, to, lying);
}

function putOn(
  problem: BarProblem,
  layout: BarLayout,
  bars: readonly CutBar[],
  to: BarSpot,
  moved: Lying,
): Result<BarLayout, BarRefusal> {
  const known = bars[to.bar];
  const single = known ? singled(bars, to.bar) : { bars, index: bars.length };
  const stock = known?.stock ?? to.stock;
  const size = stock === undefined ? undefined : problem.stock[stock];
  const used = bars.reduce((sum, bar) => sum + (bar.stock === stock ? bar.times : 0), 0);
  if (stock === undefined || !size || (!known && size.count !== null && used >= size.count))
    return err({ kind: "noBar" });
  const lying = [...(known ? lyingOn(known) : [])];
  lying.splice(Math.min(to.place, lying.length), 0, moved);
  const filled = barOf(problem, stock, lying);
  const over = placesNm(problem, filled).endNm - toNm(usableLength(problem, stock));
  if (over > 0) return err({ kind: "noRoom", over: fromNm(over) });
  const whole = known
    ? single.bars.map((bar, i) => (i === single.index ? filled : bar))
    : [...single.bars, filled];
  return ok(recounted(problem, layout, whole));
}

/** Sets a piece aside: it waits until it is brought back or filled in. */
export function setPieceAside(
  problem: BarProblem,
  layout: BarLayout,
  from: PieceAt,
): Result<BarLayout, BarRefusal> {
  const moved = layout.bars[from.bar]?.pieces[from.place];
  if (moved === undefined) return err(GONE);
  const { bars } = takenOff(problem, layout, from);
  const fresh = { piece: moved, qty: 1, why: ASIDE };
  const unplaced = oneMore(layout.unplaced, fresh, ({ piece }) => piece === moved);
  return ok(recounted(problem, { ...layout, unplaced }, bars));
}

/** Locks a piece to its bar, or lets it go. */
export function setPieceLock(
  problem: BarProblem,
  layout: BarLayout,
  from: PieceAt,
  locked: boolean,
): Result<BarLayout, BarRefusal> {
  return changed(problem, layout, from, (one) => ({ ...one, locked }));
}

/** Turns a piece to the next way in which its section and its ends let it lie. */
export function turnPiece(
  problem: BarProblem,
  layout: BarLayout,
  from: PieceAt,
): Result<BarLayout, BarRefusal> {
  const piece = layout.bars[from.bar]?.pieces[from.place];
  if (piece === undefined) return err(GONE);
  const ways = waysOf(problem.pieces[piece]?.ends ?? null);
  if (ways.length < 2) return err({ kind: "noOtherWay" });
  return changed(problem, layout, from, (one) => {
    const now = ways.findIndex((way) => way.turn === one.turn);
    return { ...one, turn: ways[(now + 1) % ways.length]?.turn ?? null };
  });
}

function changed(
  problem: BarProblem,
  layout: BarLayout,
  from: PieceAt,
  change: (one: Lying) => Lying,
): Result<BarLayout, BarRefusal> {
  const source = layout.bars[from.bar];
  if (source?.pieces[from.place] === undefined) return err(GONE);
  const taken = singled(layout.bars, from.bar);
  const lying = lyingOn(source).map((one, place) => (place === from.place ? change(one) : one));
  const bar = barOf(problem, source.stock, lying);
  const over = placesNm(problem, bar).endNm - toNm(usableLength(problem, bar.stock));
  if (over > 0) return err({ kind: "noRoomTurned", over: fromNm(over) });
  return ok(
    recounted(
      problem,
      layout,
      taken.bars.map((one, i) => (i === taken.index ? bar : one)),
    ),
  );
}

/** Sums made anew; bars without a piece go back to stock. */
function recounted(problem: BarProblem, layout: BarLayout, all: readonly CutBar[]): BarLayout {
  const bars = mergedBars(all.filter((bar) => bar.pieces.length > 0));
  const used = bars.flatMap((bar) => Array.from({ length: bar.times }, () => at(problem.stock, bar.stock)));
  return {
    ...layout,
    ...judged(layout, used),
    bars,
    ...(layout.shared ? { shared: sharedBy(problem, bars) } : {}),
  };
}
