/** Full-size patterns: what is drawn of one, the words on it, and its parts where it is larger than a page. */
import type { Vec2 } from "../../geometry";
import { at } from "../../kernel";
import {
  CAPITAL_HEIGHT,
  type DrawItem,
  type Layer,
  movedBy,
  rectangle,
  type Stroke,
  wrapped,
} from "../display";

/** A pattern at full size, in mm from its upper left corner. */
export type Pattern = {
  readonly width: number;
  readonly height: number;
  readonly items: readonly DrawItem[];
};

/** Which part of a pattern, counted from 0, and how many there are side by side and one under the other. */
export type Part = {
  readonly column: number;
  readonly row: number;
  readonly columns: number;
  readonly rows: number;
};

export const WIDE: Stroke = { ink: "ink", width: 0.5 };
export const NARROW: Stroke = { ink: "ink", width: 0.25 };
/** Long and short strokes: lines to lay a pattern by. */
export const CHAIN: Stroke = { ink: "ink", width: 0.18, dash: [6, 1.5, 0.5, 1.5] };
export const DASHED: Stroke = { ink: "ink", width: 0.25, dash: [3, 1.5] };

/** mm. Letters of ISO 3098. */
const LETTERS = 2.5;
const SIZE = LETTERS / CAPITAL_HEIGHT;
const LINE = 4.2;

export const lineOf = (from: Vec2, to: Vec2, stroke: Stroke, layer: Layer): DrawItem => ({
  kind: "line",
  from,
  to,
  stroke,
  layer,
});

export const wordsAt = (
  place: Vec2,
  text: string,
  {
    align = "left",
    strong = false,
  }: { readonly align?: "left" | "centre" | "right"; readonly strong?: boolean } = {},
): DrawItem => ({
  kind: "text",
  at: place,
  text,
  size: SIZE,
  face: strong ? "strong" : "text",
  align,
  ink: "ink",
  layer: "TEXTS",
});

/** Lines of words, the first one strong, broken where they are too wide; from their upper left corner. */
export function wordsBlock(
  lines: readonly string[],
  width: number,
): { readonly items: readonly DrawItem[]; readonly height: number } {
  const broken = lines.flatMap((text, i) => {
    const strong = i === 0;
    return wrapped(text, width, SIZE, strong ? "strong" : "text").map((line) => ({ line, strong }));
  });
  return {
    items: broken.map(({ line, strong }, i) => wordsAt([0, LINE * (i + 0.5)], line, { strong })),
    height: broken.length * LINE,
  };
}

/** What is beyond the border of a part, so that the next one can be laid over it. */
const OVERLAP = 5;
/** Crosses of one joint stand so far apart where there is room. */
const CROSSES_APART = 120;
/** Room for the scale bars and the words under a part. */
const BELOW = 16;
const BESIDE = 10;
const BAR = 100;
const INCH_BAR = 101.6;

/** A part of a pattern as it is printed: crosses on both sides of every joint, and bars to measure the printer by. */
export function partOfPattern(
  pattern: Pattern,
  { column, row, columns, rows }: Part,
  { inch }: { readonly inch: boolean },
): Pattern {
  const [wide, high] = [pattern.width / columns, pattern.height / rows];
  const x0 = column === 0 ? 0 : column * wide - OVERLAP;
  const x1 = column === columns - 1 ? pattern.width : (column + 1) * wide + OVERLAP;
  const y0 = row === 0 ? 0 : row * high - OVERLAP;
  const y1 = row === rows - 1 ? pattern.height : (row + 1) * high + OVERLAP;
  const crosses = [
    ...joints(columns).flatMap((joint) =>
      jointMarks(joint - 1, pattern.height, (t) => [joint * wide, t], true),
    ),
    ...joints(rows).flatMap((joint) =>
      jointMarks(columns - 1 + joint - 1, pattern.width, (t) => [t, joint * high], false),
    ),
  ];
  const all = [...pattern.items, ...crosses];
  const isWhole = columns === 1 && rows === 1;
  const [width, height] = [x1 - x0, y1 - y0];
  const shown: readonly DrawItem[] = isWhole
    ? all
    : [{ kind: "clip", within: rectangle(0, 0, width, height), items: movedBy(all, [-x0, -y0]) }];
  const bar = inch ? INCH_BAR : BAR;
  const length = inch ? "4 in" : "100 mm";
  const told = isWhole
    ? `Print at 100 %: both bars are ${length} long.`
    : `Part ${row * columns + column + 1} of ${columns * rows}. Print at 100 %: both bars are ${length} long.`;
  return {
    width: Math.max(width + BESIDE, bar),
    height: Math.max(height + BELOW, bar),
    items: [
      ...shown,
      ...scaleBar([0, height + 6], [bar, height + 6]),
      ...scaleBar([width + 6, 0], [width + 6, bar]),
      wordsAt([0, height + 12], told),
    ],
  };
}

const joints = (parts: number) => Array.from({ length: parts - 1 }, (_, i) => i + 1);

/** Both crosses of a joint, with its letter, and the line along which the parts meet. */
function jointMarks(
  number: number,
  length: number,
  on: (t: number) => Vec2,
  upright: boolean,
): readonly DrawItem[] {
  const letter = String.fromCharCode(65 + (number % 26));
  const apart = Math.min(CROSSES_APART, 0.7 * length);
  const places = [length / 2 - apart / 2, length / 2 + apart / 2];
  return [
    lineOf(on(0), on(length), { ...DASHED, width: 0.18 }, "TEXTS"),
    ...places.flatMap((t): DrawItem[] => {
      const [x, y] = on(t);
      const aside: Vec2 = upright ? [x - 2.2, y - 2.2] : [x + 2.2, y - 2.2];
      return [
        lineOf([x - 4, y], [x + 4, y], NARROW, "TEXTS"),
        lineOf([x, y - 4], [x, y + 4], NARROW, "TEXTS"),
        wordsAt(aside, letter, { align: "centre", strong: true }),
      ];
    }),
  ];
}

/** A bar with a stroke at either end. */
function scaleBar(from: Vec2, to: Vec2): readonly DrawItem[] {
  const upright = from[0] === to[0];
  const stroke = ([x, y]: Vec2): DrawItem =>
    upright
      ? lineOf([x - 1.5, y], [x + 1.5, y], NARROW, "TEXTS")
      : lineOf([x, y - 1.5], [x, y + 1.5], NARROW, "TEXTS");
  return [lineOf(from, to, NARROW, "TEXTS"), stroke(from), stroke(to)];
}

/** In how many parts a pattern has to be printed so that each has room; null: not even that many do. */
export function partsFor(
  { width, height }: Pick<Pattern, "width" | "height">,
  room: { readonly width: number; readonly height: number },
): Pick<Part, "columns" | "rows"> | null {
  const count = (size: number, free: number): number | null => {
    for (let parts = 1; parts <= MOST_PARTS; parts++) {
      // Those at the ends overlap once, those between twice.
      const one = size / parts + (parts === 1 ? 0 : parts === 2 ? OVERLAP : 2 * OVERLAP);
      if (one <= free) return parts;
    }
    return null;
  };
  const [columns, rows] = [count(width, room.width - BESIDE), count(height, room.height - BELOW)];
  return columns === null || rows === null ? null : { columns, rows };
}
const MOST_PARTS = 20;

/** An open run of points as one path. */
export function runOf(points: readonly Vec2[], stroke: Stroke, layer: Layer): DrawItem {
  const from = at(points, 0);
  return {
    kind: "paths",
    paths: [{ from, segments: points.slice(1).map((to) => ({ kind: "line", to })), closed: false }],
    stroke,
    fill: null,
    layer,
  };
}
