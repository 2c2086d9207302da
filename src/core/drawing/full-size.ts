/** Saved layouts at full size, each kind of thing on its layer: one sheet, or one bar of each pattern, above the other. */
import earcut from "earcut";
import type { BulgedCorner, Vec2 } from "../geometry";
import { at, forKind } from "../kernel";
import {
  type LayoutKind,
  pieceKey,
  type SavedBars,
  type SavedLayout,
  type SavedNesting,
  type SavedOf,
  type SavedSheets,
} from "../layout";
import { pieceOutlines } from "../layout/bars";
import { lyingCorners, lyingCutOuts, lyingHoles } from "../layout/nesting";
import { cutLines } from "../layout/sheets";
import { formatLength, type LengthStyle, sayLength, saySizes } from "../measure";
import { CAPITAL_HEIGHT, type DrawItem, type Drawing, type Layer, rectangle, type Stroke } from "./display";
import { circlePath, pathOfCorners } from "./path";

const SPACE = 200;
/** Height that a bar is drawn with when the layout does not know its section. */
const BAR_DEPTH = 40;

type FullSize<T> = (kept: T, style: LengthStyle) => Drawing;
const FULL_SIZE: { readonly [K in LayoutKind]: FullSize<SavedOf<K>> } = {
  bars: barsAtFullSize,
  sheets: sheetsAtFullSize,
  shapes: nestingAtFullSize,
};

/** A saved layout at full size, its first bar or sheet at the foot. */
export function fullSizeDrawing(saved: SavedLayout, style: LengthStyle): Drawing {
  return forKind<FullSize<SavedLayout>>(FULL_SIZE, saved)(saved, style);
}

const STROKE: Stroke = { ink: "ink", width: 0.25 };

/** Things one above the other: places are told from the foot of the one that is drawn, upwards. */
class Stack {
  private readonly items: DrawItem[] = [];
  private readonly size: Vec2;
  private base = 0;

  constructor(width: number, height: number) {
    this.size = [width, height];
  }

  next(height: number): void {
    this.base += height + SPACE;
  }

  private up = ([x, y]: Vec2): Vec2 => [x, this.size[1] - this.base - y];

  outline(layer: Layer, points: readonly Vec2[]): void {
    this.items.push({ kind: "polygon", points: points.map(this.up), stroke: STROKE, fill: null, layer });
  }

  box(layer: Layer, { x, y, length, width }: Box): void {
    this.outline(layer, rectangle(x, y, length, width));
  }

  curve(layer: Layer, corners: readonly BulgedCorner[]): void {
    this.items.push({
      kind: "paths",
      paths: [pathOfCorners(corners, this.up)],
      stroke: STROKE,
      fill: null,
      layer,
    });
  }

  circle(layer: Layer, centre: Vec2, diameter: number): void {
    const paths = [circlePath(this.up(centre), diameter / 2)];
    this.items.push({ kind: "paths", paths, stroke: STROKE, fill: null, layer });
  }

  line(layer: Layer, from: Vec2, to: Vec2): void {
    this.items.push({ kind: "line", from: this.up(from), to: this.up(to), stroke: STROKE, layer });
  }

  /** A text with capitals of a height, which begins at a place and stands on it. */
  label(place: Vec2, height: number, text: string): void {
    const [x, y] = this.up(place);
    this.items.push({
      kind: "text",
      at: [x, y - height / 2],
      text,
      size: height / CAPITAL_HEIGHT,
      face: "condensed",
      align: "left",
      ink: "ink",
      layer: "LABELS",
    });
  }

  drawing(): Drawing {
    return { width: this.size[0], height: this.size[1], items: this.items };
  }
}

type Box = { readonly x: number; readonly y: number; readonly length: number; readonly width: number };
type Sheet = { readonly length: number; readonly width: number };

/** Room for all of them, with the words above the last. */
const stackOf = (things: readonly Sheet[]): Stack =>
  new Stack(
    Math.max(0, ...things.map(({ length }) => length)),
    things.reduce((sum, { width }) => sum + width + SPACE, 0),
  );

/** A sheet and what it is. */
function frame(stack: Stack, { length, width }: Sheet, index: number, style: LengthStyle): void {
  stack.box("STOCK", { x: 0, y: 0, length, width });
  stack.label([0, width + 20], 40, `Sheet ${index + 1}: ${saySizes([length, width], style)}`);
}

/** Outlines with their arcs, as a torch or a laser follows them. */
function nestingAtFullSize({ problem, layout, pieces }: SavedNesting, style: LengthStyle): Drawing {
  const stocks = layout.sheets.map((sheet) => at(problem.stock, sheet.stock));
  const stack = stackOf(stocks);
  layout.sheets.forEach((sheet, i) => {
    const stock = at(stocks, i);
    frame(stack, stock, i, style);
    for (const one of sheet.placements) {
      const corners = lyingCorners(problem, one);
      const holes = lyingHoles(problem, one);
      stack.curve("PANELS", corners);
      for (const cutOut of lyingCutOuts(problem, one)) stack.curve("PANELS", cutOut);
      for (const hole of holes) stack.circle("HOLES", hole.at, hole.diameter);
      stack.label(
        holes[0]?.at ?? middleOf(corners, lyingCutOuts(problem, one)),
        8,
        pieceKey(at(pieces, one.shape)),
      );
    }
    for (const offcut of sheet.offcuts) stack.box("OFFCUTS", offcut);
    stack.next(stock.width);
  });
  return stack.drawing();
}

/** A place inside and in no cut-out: the middle of the first triangle that their corners make. */
function middleOf(outline: readonly BulgedCorner[], cutOuts: readonly (readonly BulgedCorner[])[]): Vec2 {
  const corners = [outline, ...cutOuts].flat();
  const starts = cutOuts.map((_, i) => [outline, ...cutOuts.slice(0, i)].flat().length);
  const flat = corners.flatMap((corner) => [corner[0], corner[1]]);
  const [a = 0, b = 0, c = 0] = earcut(flat, starts);
  const [p, q, r] = [at(corners, a), at(corners, b), at(corners, c)];
  return [(p[0] + q[0] + r[0]) / 3, (p[1] + q[1] + r[1]) / 3];
}

function sheetsAtFullSize({ problem, layout, pieces }: SavedSheets, style: LengthStyle): Drawing {
  const stocks = layout.sheets.map((sheet) => at(problem.stock, sheet.stock));
  const stack = stackOf(stocks);
  const size = (value: number) => formatLength(value, style, 0.1);
  layout.sheets.forEach((sheet, i) => {
    const stock = at(stocks, i);
    frame(stack, stock, i, style);
    for (const one of sheet.placements) {
      const text = `${pieceKey(at(pieces, one.panel))} ${size(one.length)} x ${size(one.width)}`;
      const height = Math.min(30, one.width / 3, (one.length / text.length) * 1.4);
      stack.box("PANELS", one);
      stack.label([one.x + height / 2, one.y + height / 2], height, text);
    }
    for (const offcut of sheet.offcuts) stack.box("OFFCUTS", offcut);
    for (const { from, to } of cutLines(problem, sheet)) stack.line("CUTS", from, to);
    stack.next(stock.width);
  });
  return stack.drawing();
}

function barsAtFullSize({ problem, layout, pieces }: SavedBars, style: LengthStyle): Drawing {
  const bars = layout.bars.map((bar) => {
    const depths = bar.pieces.map((piece) => at(problem.pieces, piece).ends?.depth ?? BAR_DEPTH);
    return { length: at(problem.stock, bar.stock).length, width: Math.max(BAR_DEPTH, ...depths) };
  });
  const stack = stackOf(bars);
  layout.bars.forEach((bar, i) => {
    const { length, width: depth } = at(bars, i);
    stack.box("STOCK", { x: 0, y: 0, length, width: depth });
    stack.label([0, depth + 10], 25, `Pattern ${i + 1}: ${bar.times} × bar ${sayLength(length, style)}`);
    pieceOutlines(problem, bar).forEach(({ start, end }, place) => {
      const piece = at(bar.pieces, place);
      stack.outline("PANELS", [
        [start.lower, 0],
        [end.lower, 0],
        [end.upper, depth],
        [start.upper, depth],
      ]);
      stack.label(
        [Math.max(start.lower, start.upper) + 8, depth / 3],
        Math.min(depth / 3, 16),
        `${pieceKey(at(pieces, piece))} ${formatLength(at(problem.pieces, piece).length, style, 0.1)}`,
      );
    });
    stack.next(depth);
  });
  return stack.drawing();
}
