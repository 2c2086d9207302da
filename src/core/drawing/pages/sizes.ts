/**
 * Sizes of views (dimensions, ISO 129-1): extension lines with a gap at what is measured and an overshoot past the dimension
 * line, oblique strokes at its ends, the value over it, readable from below or from the right. Values are computed from the
 * design, never from paper.
 */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { SizeItem } from "../../job";
import { LENGTH_TOLERANCE_MM } from "../../kernel";
import { formatDegrees, formatLength, type LengthStyle, toDegrees } from "../../measure";
import { CAPITAL_HEIGHT, type DrawItem, type Stroke } from "../display";
import { textWidth } from "../text-width";
import type { DrawnView } from "./drawn-view";
import type { LineWidths } from "./paper";
import type { PlacedItem } from "./placed";
import type { ViewPlace } from "./view-item";
import { featureKey, type SeenFeature, type SeenPlace } from "./view-places";

/** Millimetres on paper. */
const GAP = 1;
const OVERSHOOT = 2;
const STROKE = 1.6;
/** Of the least letters of ISO 3098; what is larger is so much larger. */
const LEAST_LETTERS = 2.5;
const FRACTION = 0.72;
/** The first dimension line stands so far off the view, further ones so much farther. */
export const FIRST_OUT = 10;
export const NEXT_OUT = 7;
/** mm of the design. Two places that are nearer to one another fall together. */
const TOGETHER = 0.01;

export type SizeGround = {
  readonly drawn: DrawnView;
  readonly place: ViewPlace;
  /** The view on paper, about its place. */
  readonly box: PlaneBox;
  readonly style: LengthStyle;
  readonly widths: LineWidths;
  /** Seen along an axis of what it shows, so that lengths on paper are true. */
  readonly isSquare: boolean;
};

/** What a size measures: millimetres of the design, or degrees; or the sentence why not. */
export type Measured = { readonly value: number } | { readonly fault: string };

const LOST = "What this size measures is gone or not in this view: pick again.";

/** Draws a size about the place of its view. */
export function drawnSize(item: SizeItem, ground: SizeGround): PlacedItem {
  const { drawn, place } = ground;
  const from = drawn.features.get(featureKey(item.from)) ?? null;
  const to = item.to ? (drawn.features.get(featureKey(item.to)) ?? null) : null;
  const lost = from === null || (item.to !== null && to === null);
  const made = lost ? { fault: LOST } : sized(item, from, to, ground);
  if ("fault" in made) return { item, at: place.at, ...lostSize(item, ground), fault: made.fault };
  return { item, at: place.at, fault: null, ...made };
}

type Made = Pick<PlacedItem, "items" | "box" | "way" | "grip">;

function sized(
  item: SizeItem,
  from: SeenFeature,
  to: SeenFeature | null,
  ground: SizeGround,
): Made | { readonly fault: string } {
  switch (item.measure) {
    case "horizontal":
    case "vertical":
    case "along":
      return to ? lengthSize(item, from.at, to.at, ground) : { fault: LOST };
    case "diameter":
      return from.diameter === null
        ? { fault: "This size wants a hole: pick its middle." }
        : roundSize(
            item,
            from.at,
            { sign: "⌀", length: from.diameter, radius: from.diameter / 2, towards: null },
            ground,
          );
    case "radius":
      return from.radius === null
        ? { fault: "This size wants a rounded corner: pick its middle." }
        : roundSize(
            item,
            from.at,
            { sign: "R", length: from.radius, radius: from.radius, towards: from.corner },
            ground,
          );
    case "angle":
      return from.to && to?.to
        ? angleSize(item, [from.at, from.to], [to.at, to.to], ground)
        : { fault: "This size wants two members: pick again." };
    default:
      return item.measure satisfies never;
  }
}

/** The value of a length size in millimetres. */
function lengthOf(
  measure: "horizontal" | "vertical" | "along",
  a: SeenPlace,
  b: SeenPlace,
  isSquare: boolean,
): number {
  if (measure === "horizontal") return Math.abs(b[0] - a[0]);
  if (measure === "vertical") return Math.abs(b[1] - a[1]);
  // Seen at an angle, what runs along something is as long as it is, not as it looks.
  return Math.hypot(b[0] - a[0], b[1] - a[1], isSquare ? 0 : b[2] - a[2]);
}

function lengthSize(
  item: SizeItem,
  a: SeenPlace,
  b: SeenPlace,
  ground: SizeGround,
): Made | { readonly fault: string } {
  const measure = item.measure as "horizontal" | "vertical" | "along";
  if (measure !== "along" && !ground.isSquare)
    return { fault: "In a view that is seen at an angle only sizes along something can be read." };
  const value = lengthOf(measure, a, b, ground.isSquare);
  const [p, q] = [ground.place.onPaper([a[0], a[1]]), ground.place.onPaper([b[0], b[1]])];
  if (value < TOGETHER || (measure === "along" && Math.hypot(q[0] - p[0], q[1] - p[1]) < 0.1))
    return { fault: "The two places fall together in this view: pick again." };
  const { along, off, base } = standing(item, p, q, ground.box);
  const on = (place: Vec2): number => place[0] * along[0] + place[1] * along[1];
  const [first, last] = on(p) <= on(q) ? [p, q] : [q, p];
  const foot = (place: Vec2): Vec2 => {
    const t = base - (place[0] * off[0] + place[1] * off[1]);
    return [place[0] + off[0] * t, place[1] + off[1] * t];
  };
  const [start, end] = [foot(first), foot(last)];
  const stroke: Stroke = { ink: "ink", width: ground.widths.narrow };
  const text = sizeText(item, formatLength(value, ground.style, LENGTH_TOLERANCE_MM));
  const items = [
    ...extension(first, start, stroke),
    ...extension(last, end, stroke),
    ...dimensionLine(start, end, stroke, {
      text,
      typed: item.typed !== null,
      letters: ground.widths.letters,
    }),
  ];
  return { items, box: boxOf(items), way: item.side === "own" ? off : outOf(item.side), grip: [start, end] };
}

const outOf = (side: Exclude<SizeItem["side"], "own">): Vec2 =>
  ({ top: [0, -1], bottom: [0, 1], left: [-1, 0], right: [1, 0] })[side] as unknown as Vec2;

/** The direction of a dimension line, the way off what it measures, and how far along that way it lies. */
function standing(
  { measure, side, out }: SizeItem,
  p: Vec2,
  q: Vec2,
  box: PlaneBox,
): { readonly along: Vec2; readonly off: Vec2; readonly base: number } {
  if (measure === "along") {
    const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
    const along: Vec2 = [(q[0] - p[0]) / length, (q[1] - p[1]) / length];
    const off: Vec2 = [along[1], -along[0]];
    const reach = (place: Vec2) => place[0] * off[0] + place[1] * off[1];
    return { along, off, base: (out >= 0 ? Math.max : Math.min)(reach(p), reach(q)) + out };
  }
  if (measure === "horizontal")
    return side === "top"
      ? { along: [1, 0], off: [0, 1], base: box.y0 - out }
      : { along: [1, 0], off: [0, 1], base: box.y1 + out };
  return side === "left"
    ? { along: [0, 1], off: [1, 0], base: box.x0 - out }
    : { along: [0, 1], off: [1, 0], base: box.x1 + out };
}

const line = (from: Vec2, to: Vec2, stroke: Stroke): DrawItem => ({
  kind: "line",
  from,
  to,
  stroke,
  layer: "SIZES",
});

/** From what is measured, with a gap, to just past the dimension line. */
function extension(place: Vec2, foot: Vec2, stroke: Stroke): readonly DrawItem[] {
  const length = Math.hypot(foot[0] - place[0], foot[1] - place[1]);
  if (length < GAP) return [];
  const way: Vec2 = [(foot[0] - place[0]) / length, (foot[1] - place[1]) / length];
  const on = (t: number): Vec2 => [place[0] + way[0] * t, place[1] + way[1] * t];
  return [line(on(GAP), on(length + OVERSHOOT), stroke)];
}

/** An oblique stroke through an end of a dimension line, at 45 degrees to it. */
function endStroke([x, y]: Vec2, along: Vec2, stroke: Stroke): DrawItem {
  const c = Math.SQRT1_2 * STROKE;
  const way: Vec2 = [(along[0] + along[1]) * c, (along[1] - along[0]) * c];
  return line([x - way[0], y - way[1]], [x + way[0], y + way[1]], { ...stroke, width: stroke.width * 1.6 });
}

type Value = { readonly text: string; readonly typed: boolean; readonly letters: number };

function dimensionLine(start: Vec2, end: Vec2, stroke: Stroke, value: Value): readonly DrawItem[] {
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
function sizeText({ typed, brackets }: SizeItem, value: string): string {
  const text = typed === null ? value : `${typed} *`;
  return brackets ? `(${text})` : text;
}

const FRACTIONS = /^(.*?)(\d+)\/(\d+)(.*)$/;

/** mm on paper. How wide the text of a length is. */
export const lengthTextWidth = (
  length: number,
  { style, widths }: Pick<SizeGround, "style" | "widths">,
): number => widthOf({ text: formatLength(length, style, LENGTH_TOLERANCE_MM), letters: widths.letters });

function widthOf({ text, letters }: Pick<Value, "text" | "letters">): number {
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
function written({ text, typed, letters }: Value, [x, y]: Vec2, turn: number): readonly DrawItem[] {
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

type Round = {
  readonly sign: "⌀" | "R";
  readonly length: number;
  readonly radius: number;
  /** Where its leader goes; null: up to the right. */
  readonly towards: SeenPlace | null;
};

/** A leader from the edge of a hole to its diameter, or from a rounded corner outwards to its radius. */
function roundSize(item: SizeItem, middle: SeenPlace, round: Round, ground: SizeGround): Made {
  const [x, y] = ground.place.onPaper([middle[0], middle[1]]);
  const radius = round.radius * ground.place.scale;
  const reach = radius + Math.max(3, Math.abs(item.out));
  const [tx, ty] = round.towards
    ? ground.place.onPaper([round.towards[0], round.towards[1]])
    : [x + Math.SQRT1_2, y - Math.SQRT1_2];
  const far = Math.hypot(tx - x, ty - y) || 1;
  const [c, s] = [(tx - x) / far, (ty - y) / far];
  const right = c < 0 ? -1 : 1;
  const [edge, knee]: [Vec2, Vec2] = [
    [x + c * radius, y + s * radius],
    [x + c * reach, y + s * reach],
  ];
  const text = sizeText(
    item,
    `${round.sign} ${formatLength(round.length, ground.style, LENGTH_TOLERANCE_MM)}`,
  );
  const { letters, narrow } = ground.widths;
  const value = { text, typed: item.typed !== null, letters };
  const width = widthOf(value);
  const stroke: Stroke = { ink: "ink", width: narrow };
  const items = [
    line(edge, knee, stroke),
    line(knee, [knee[0] + right * (width + 2), knee[1]], stroke),
    ...written(value, [knee[0] + right * (1 + width / 2), knee[1] - letters / 2 - 1], 0),
  ];
  return { items, box: boxOf(items), way: [c, s], grip: [knee, [knee[0] + right * (width + 2), knee[1]]] };
}

/** The angle between the lines of two members, about the place where they would meet. */
function angleSize(
  item: SizeItem,
  first: readonly [SeenPlace, SeenPlace],
  second: readonly [SeenPlace, SeenPlace],
  ground: SizeGround,
): Made | { readonly fault: string } {
  const flat = ([x, y]: SeenPlace): Vec2 => ground.place.onPaper([x, y]);
  const [a, b, c, d] = [flat(first[0]), flat(first[1]), flat(second[0]), flat(second[1])];
  const [u, w]: [Vec2, Vec2] = [
    [b[0] - a[0], b[1] - a[1]],
    [d[0] - c[0], d[1] - c[1]],
  ];
  const det = u[0] * w[1] - u[1] * w[0];
  const sizes = Math.hypot(...u) * Math.hypot(...w);
  if (sizes === 0 || Math.abs(det) < 1e-4 * sizes)
    return { fault: "The two members are parallel in this view: there is no angle to read." };
  const t = ((c[0] - a[0]) * w[1] - (c[1] - a[1]) * w[0]) / det;
  const meet: Vec2 = [a[0] + u[0] * t, a[1] + u[1] * t];
  // From where they meet towards the end that is farther off.
  const away = (p: Vec2, q: Vec2): number => {
    const far =
      Math.hypot(p[0] - meet[0], p[1] - meet[1]) > Math.hypot(q[0] - meet[0], q[1] - meet[1]) ? p : q;
    return Math.atan2(far[1] - meet[1], far[0] - meet[0]);
  };
  const [from, raw] = [away(a, b), away(c, d)];
  const turn = Math.atan2(Math.sin(raw - from), Math.cos(raw - from));
  const value = trueAngle(first, second, Math.abs(turn));
  const radius = Math.max(6, Math.abs(item.out));
  const on = (angle: number, r = radius): Vec2 => [
    meet[0] + r * Math.cos(angle),
    meet[1] + r * Math.sin(angle),
  ];
  const stroke: Stroke = { ink: "ink", width: ground.widths.narrow };
  const text = sizeText(item, `${formatDegrees(toDegrees(value))}°`);
  const shown = { text, typed: item.typed !== null, letters: ground.widths.letters };
  const middle = from + turn / 2;
  const tangent = (angle: number): Vec2 => [-Math.sin(angle), Math.cos(angle)];
  const items: DrawItem[] = [
    {
      kind: "paths",
      paths: [
        {
          from: on(from),
          segments: [
            { kind: "ellipse", centre: meet, u: [radius, 0], v: [0, radius], from, to: from + turn },
          ],
          closed: false,
        },
      ],
      stroke,
      fill: null,
      layer: "SIZES",
    },
    endStroke(on(from), tangent(from), stroke),
    endStroke(on(from + turn), tangent(from + turn), stroke),
    ...written(shown, on(middle, radius + 2 + widthOf(shown) / 2), 0),
  ];
  return {
    items,
    box: boxOf(items),
    way: [Math.cos(middle), Math.sin(middle)],
    grip: [on(from), on(from + turn)],
  };
}

/** The angle between two lines as they stand in the design, on the side of the one that is seen. */
function trueAngle(
  [a, b]: readonly [SeenPlace, SeenPlace],
  [c, d]: readonly [SeenPlace, SeenPlace],
  seen: number,
): number {
  const [u, w] = [b.map((one, i) => one - (a[i] ?? 0)), d.map((one, i) => one - (c[i] ?? 0))];
  const dot = u.reduce((sum, one, i) => sum + one * (w[i] ?? 0), 0);
  const sharp = Math.acos(Math.min(1, Math.abs(dot) / (Math.hypot(...u) * Math.hypot(...w))));
  return seen > Math.PI / 2 + 1e-9 ? Math.PI - sharp : sharp;
}

/** What stands where a size has lost what it measures: a grey stub at the side of the view, with its typed text if it has one. */
function lostSize(item: SizeItem, { box }: SizeGround): Made {
  const y = box.y1 + Math.max(FIRST_OUT, Math.abs(item.out));
  const items: readonly DrawItem[] = [
    line([-12, y], [12, y], { ink: "soft", width: 0.25, dash: [2, 1] }),
    {
      kind: "text",
      at: [0, y - 2.4],
      text: "lost: pick again",
      size: LEAST_LETTERS / CAPITAL_HEIGHT,
      face: "condensed",
      align: "centre",
      ink: "oxide",
      layer: "SIZES",
    },
  ];
  return {
    items,
    box: boxOf(items),
    way: [0, 1],
    grip: [
      [-12, y],
      [12, y],
    ],
  };
}

/** The room that items take, roughly: texts count as they are long. */
function boxOf(items: readonly DrawItem[]): PlaneBox {
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
