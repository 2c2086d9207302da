/** What sizes are drawn of (ISO 129-1): extension lines, dimension lines with their strokes, and the value over them. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { SizeItem } from "../../job";
import { type LengthStyle, toDegrees } from "../../measure";
import { CAPITAL_HEIGHT, type DrawItem, type Stroke } from "../display";
import { textWidth } from "../text-width";
import type { DrawnView } from "./drawn-view";
import type { LineWidths } from "./paper";
import type { PlacedItem } from "./placed";
import type { ViewPlace } from "./view-item";

/** Millimetres on paper. */
const GAP = 1;
const OVERSHOOT = 2;
const STROKE = 1.6;
/** Of the least letters of ISO 3098; what is larger is so much larger. */
export const LEAST_LETTERS = 2.5;
const FRACTION = 0.72;
/** The first dimension line stands so far off the view, further ones so much farther. */
export const FIRST_OUT = 10;
export const NEXT_OUT = 7;
export type SizeGround = {
  readonly drawn: DrawnView;
  readonly place: ViewPlace;
  /** The view on paper, about its place. */
  readonly box: PlaneBox;
  readonly style: LengthStyle;
  readonly widths: LineWidths;
  /** Seen along an axis of what it shows, so that lengths on paper are true. */
  readonly isSquare: boolean;
  /** It is pulled apart: nothing can be measured in it. */
  readonly isApart?: boolean;
};

export type Made = Pick<PlacedItem, "items" | "box" | "way" | "grip">;

export const line = (from: Vec2, to: Vec2, stroke: Stroke): DrawItem => ({
  kind: "line",
  from,
  to,
  stroke,
  layer: "SIZES",
});

/** From what is measured, with a gap, to just past the dimension line. */
export function extension(place: Vec2, foot: Vec2, stroke: Stroke): readonly DrawItem[] {
  const length = Math.hypot(foot[0] - place[0], foot[1] - place[1]);
  if (length < GAP) return [];
  const way: Vec2 = [(foot[0] - place[0]) / length, (foot[1] - place[1]) / length];
  const on = (t: number): Vec2 => [place[0] + way[0] * t, place[1] + way[1] * t];
  return [line(on(GAP), on(length + OVERSHOOT), stroke)];
}

/** An oblique stroke through an end of a dimension line, at 45 degrees to it. */
export function endStroke([x, y]: Vec2, along: Vec2, stroke: Stroke): DrawItem {
  const c = Math.SQRT1_2 * STROKE;
  const way: Vec2 = [(along[0] + along[1]) * c, (along[1] - along[0]) * c];
  return line([x - way[0], y - way[1]], [x + way[0], y + way[1]], { ...stroke, width: stroke.width * 1.6 });
}

type Value = { readonly text: string; readonly typed: boolean; readonly letters: number };

export function dimensionLine(start: Vec2, end: Vec2, stroke: Stroke, value: Value): readonly DrawItem[] {
  const length = Math.hypot(end[0] - start[0], end[1] - start[1]);
  const along: Vec2 = [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
  // Read from below, or from the right.
  const reading: Vec2 =
    along[0] < -1e-9 || (Math.abs(along[0]) <= 1e-9 && along[1] > 0) ? [-along[0], -along[1]] : along;
  const turn = -toDegrees(Math.atan2(reading[1], reading[0]));
  const width = widthOf(value);
  const fits = width + 2 <= length;
  const over: Vec2 = [reading[1], -reading[0]];
  const room = value.letters / 2 + 1;
  // What does not fit between the ends stands beside the end that is read last, on the line drawn on.
  const last = reading[0] === along[0] && reading[1] === along[1] ? end : start;
  const middle: Vec2 = fits
    ? [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2]
    : [last[0] + reading[0] * (width / 2 + 2.5), last[1] + reading[1] * (width / 2 + 2.5)];
  const beyond: readonly DrawItem[] = fits
    ? []
    : [line(last, [last[0] + reading[0] * (width + 3.5), last[1] + reading[1] * (width + 3.5)], stroke)];
  return [
    line(start, end, stroke),
    ...beyond,
    endStroke(start, along, stroke),
    endStroke(end, along, stroke),
    ...written(value, [middle[0] + over[0] * room, middle[1] + over[1] * room], turn),
  ];
}

/** The value as it stands there: typed over with an asterisk, in brackets where it is for reference. */
export function sizeText({ typed, brackets }: SizeItem, value: string): string {
  const text = typed === null ? value : `${typed} *`;
  return brackets ? `(${text})` : text;
}

const FRACTIONS = /^(.*?)(\d+)\/(\d+)(.*)$/;

export function widthOf({ text, letters }: Pick<Value, "text" | "letters">): number {
  const size = letters / CAPITAL_HEIGHT;
  const parts = text.match(FRACTIONS);
  if (!parts) return textWidth(text, size, "condensed");
  const [, before = "", above = "", below = "", after = ""] = parts;
  const small = (digits: string) => textWidth(digits, size * FRACTION, "condensed");
  return (
    textWidth(before, size, "condensed") +
    Math.max(small(above), small(below)) +
    0.6 +
    textWidth(after, size, "condensed")
  );
}

/** A value about its middle; a fraction stacked over its bar. */
export function written({ text, typed, letters }: Value, [x, y]: Vec2, turn: number): readonly DrawItem[] {
  const ink = typed ? "brass" : "ink";
  const size = letters / CAPITAL_HEIGHT;
  const angle = (-turn * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const at = (right: number, down: number): Vec2 => [x + c * right - s * down, y + s * right + c * down];
  const word = (words: string, place: Vec2, high: number, align: "left" | "centre"): DrawItem => ({
    kind: "text",
    at: place,
    text: words,
    size: high,
    face: "condensed",
    align,
    ink,
    layer: "SIZES",
    ...(Math.abs(turn) < 1e-9 ? {} : { turn }),
  });
  const parts = text.match(FRACTIONS);
  if (!parts) return [word(text, [x, y], size, "centre")];
  const [, before = "", above = "", below = "", after = ""] = parts;
  const small = size * FRACTION;
  const wide = Math.max(textWidth(above, small, "condensed"), textWidth(below, small, "condensed")) + 0.6;
  const left = -widthOf({ text, letters }) / 2;
  const middle = left + textWidth(before, size, "condensed") + wide / 2;
  const rise = letters * 0.62;
  return [
    ...(before === "" ? [] : [word(before.trimEnd(), at(left, 0), size, "left")]),
    word(above, at(middle, -rise), small, "centre"),
    word(below, at(middle, rise), small, "centre"),
    line(at(middle - wide / 2 + 0.2, 0), at(middle + wide / 2 - 0.2, 0), { ink, width: 0.2 }),
    ...(after === "" ? [] : [word(after, at(middle + wide / 2, 0), size, "left")]),
  ];
}

/** The room that items take, roughly: texts count as they are long. */
export function boxOf(items: readonly DrawItem[]): PlaneBox {
  const places = items.flatMap((item): readonly Vec2[] => {
    if (item.kind === "line") return [item.from, item.to];
    if (item.kind === "text") {
      const half = textWidth(item.text, item.size, item.face) / 2;
      const flat = Math.abs(item.turn ?? 0) < 45;
      const high = item.size * CAPITAL_HEIGHT;
      const [w, h] = flat ? [half, high] : [high, half];
      return [
        [item.at[0] - w, item.at[1] - h],
        [item.at[0] + w, item.at[1] + h],
      ];
    }
    return item.kind === "paths" ? item.paths.flatMap(({ from }) => [from]) : [];
  });
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}
