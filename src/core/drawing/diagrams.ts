/** The diagrams of one stock size: on pages to a stated scale, and at full size as shapes on layers. */
import earcut from "earcut";
import type { BulgedCorner, Vec2 } from "../geometry";
import { at, forKind, timesWords } from "../kernel";
import {
  type KeptBars,
  type KeptLayout,
  type KeptOf,
  type KeptShapes,
  type KeptSheets,
  type LayoutKind,
  pieceKey,
} from "../layout";
import { pieceOutlines } from "../layout/bars";
import { lyingCorners, lyingHoles } from "../layout/shapes";
import { cutLines } from "../layout/sheets";
import type { styleOf } from "../lists";
import { formatLength, sayLength, saySizes } from "../measure";
import type { Drawing, TextMeasure } from "./display";
import { Flow, PAGE_SIZES, type PageSize, title } from "./flow";
import { type DiagramInput, layoutBlock } from "./print";

/** Pages with the diagrams of the tasks that `input` holds; `tall`: one page that is as long as they are. */
export function diagramPages(
  input: DiagramInput,
  page: PageSize | "tall",
  measure: TextMeasure,
): readonly Drawing[] {
  const size =
    page === "tall" ? { name: "one page", width: 297, height: Number.POSITIVE_INFINITY } : PAGE_SIZES[page];
  const flow = new Flow(size, measure);
  flow.add(9, title("Layouts"));
  for (const task of input.results.tasks) layoutBlock(flow, task, input, measure);
  return flow.pages(input);
}

/** Layers of a full-size drawing. */
export const SHAPE_LAYERS = ["STOCK", "PANELS", "HOLES", "LABELS", "CUTS", "OFFCUTS"] as const;
export type ShapeLayer = (typeof SHAPE_LAYERS)[number];

/** A shape at full size in mm, y upwards. */
export type FullShape =
  | { readonly kind: "outline"; readonly layer: ShapeLayer; readonly points: readonly Vec2[] }
  /** Closed, with true arcs. */
  | { readonly kind: "curve"; readonly layer: ShapeLayer; readonly corners: readonly BulgedCorner[] }
  | { readonly kind: "circle"; readonly layer: ShapeLayer; readonly centre: Vec2; readonly radius: number }
  | { readonly kind: "line"; readonly layer: ShapeLayer; readonly from: Vec2; readonly to: Vec2 }
  | {
      readonly kind: "label";
      readonly layer: ShapeLayer;
      readonly at: Vec2;
      readonly height: number;
      readonly text: string;
    };

const SPACE = 200;
/** Height that a bar is drawn with when the layout does not know its section. */
const BAR_DEPTH = 40;

const box = (x: number, y: number, length: number, width: number): readonly Vec2[] => [
  [x, y],
  [x + length, y],
  [x + length, y + width],
  [x, y + width],
];

type FullSize<T> = (kept: T, style: ReturnType<typeof styleOf>) => readonly FullShape[];
const FULL_SIZE: { readonly [K in LayoutKind]: FullSize<KeptOf<K>> } = {
  bars: barShapes,
  sheets: sheetShapes,
  shapes: freeShapes,
};

/** A kept layout at full size: one sheet, or one bar of each pattern, above the other. */
export function fullSizeShapes(kept: KeptLayout, style: ReturnType<typeof styleOf>): readonly FullShape[] {
  return forKind<FullSize<KeptLayout>>(FULL_SIZE, kept)(kept, style);
}

/** Outlines with their arcs, as a torch or a laser follows them. */
function freeShapes(
  { problem, layout, pieces }: KeptShapes,
  style: ReturnType<typeof styleOf>,
): readonly FullShape[] {
  let base = 0;
  return layout.sheets.flatMap((sheet, i) => {
    const stock = at(problem.stock, sheet.stock);
    const low = base;
    base += stock.width + SPACE;
    return [
      ...sheetFrame(stock, i, low, style),
      ...sheet.placements.flatMap((one): readonly FullShape[] => {
        const corners = lyingCorners(problem, one);
        const holes = lyingHoles(problem, one);
        const [x, y] = holes[0]?.at ?? middleOf(corners);
        return [
          {
            kind: "curve",
            layer: "PANELS",
            corners: corners.map(([cx, cy, bulge = 0]): BulgedCorner => [cx, cy + low, bulge]),
          },
          ...holes.map(
            ({ at: [hx, hy], diameter }): FullShape => ({
              kind: "circle",
              layer: "HOLES",
              centre: [hx, hy + low],
              radius: diameter / 2,
            }),
          ),
          {
            kind: "label",
            layer: "LABELS",
            at: [x, y + low],
            height: 8,
            text: pieceKey(at(pieces, one.shape)),
          },
        ];
      }),
      ...sheet.offcuts.map(
        (rest): FullShape => ({
          kind: "outline",
          layer: "OFFCUTS",
          points: box(rest.x, low + rest.y, rest.length, rest.width),
        }),
      ),
    ];
  });
}

/** A place inside: the middle of the first triangle that an outline's corners make. */
function middleOf(corners: readonly BulgedCorner[]): Vec2 {
  const flat = corners.flatMap((corner) => [corner[0], corner[1]]);
  const [a = 0, b = 0, c = 0] = earcut(flat);
  const [p, q, r] = [at(corners, a), at(corners, b), at(corners, c)];
  return [(p[0] + q[0] + r[0]) / 3, (p[1] + q[1] + r[1]) / 3];
}

/** A sheet and what it is, its lower edge at `base`. */
function sheetFrame(
  { length, width }: { readonly length: number; readonly width: number },
  index: number,
  base: number,
  style: ReturnType<typeof styleOf>,
): readonly FullShape[] {
  return [
    { kind: "outline", layer: "STOCK", points: box(0, base, length, width) },
    {
      kind: "label",
      layer: "LABELS",
      at: [0, base + width + 20],
      height: 40,
      text: `Sheet ${index + 1}: ${saySizes([length, width], style)}`,
    },
  ];
}

function sheetShapes(
  { problem, layout, pieces }: KeptSheets,
  style: ReturnType<typeof styleOf>,
): readonly FullShape[] {
  const shapes: FullShape[] = [];
  let base = 0;
  layout.sheets.forEach((sheet, i) => {
    const stock = at(problem.stock, sheet.stock);
    const up = ([x, y]: readonly [number, number]): Vec2 => [x, y + base];
    const size = (value: number) => formatLength(value, style, 0.1);
    shapes.push(...sheetFrame(stock, i, base, style));
    for (const one of sheet.placements) {
      const text = `${pieceKey(at(pieces, one.panel))} ${size(one.length)} x ${size(one.width)}`;
      const height = Math.min(30, one.width / 3, (one.length / text.length) * 1.4);
      shapes.push(
        { kind: "outline", layer: "PANELS", points: box(one.x, base + one.y, one.length, one.width) },
        {
          kind: "label",
          layer: "LABELS",
          at: [one.x + height / 2, base + one.y + height / 2],
          height,
          text,
        },
      );
    }
    for (const rest of sheet.offcuts)
      shapes.push({
        kind: "outline",
        layer: "OFFCUTS",
        points: box(rest.x, base + rest.y, rest.length, rest.width),
      });
    for (const { from, to } of cutLines(problem, sheet))
      shapes.push({ kind: "line", layer: "CUTS", from: up(from), to: up(to) });
    base += stock.width + SPACE;
  });
  return shapes;
}

function barShapes(
  { problem, layout, pieces }: KeptBars,
  style: ReturnType<typeof styleOf>,
): readonly FullShape[] {
  const shapes: FullShape[] = [];
  const size = (value: number) => formatLength(value, style, 0.1);
  layout.bars.forEach((bar, i) => {
    const depths = bar.pieces.map((piece) => at(problem.pieces, piece).ends?.depth ?? BAR_DEPTH);
    const depth = Math.max(BAR_DEPTH, ...depths);
    const base = i * (depth + SPACE);
    const stock = at(problem.stock, bar.stock);
    const _times = timesWords(bar.times);
    shapes.push(
      { kind: "outline", layer: "STOCK", points: box(0, base, stock.length, depth) },
      {
        kind: "label",
        layer: "LABELS",
        at: [0, base + depth + 10],
        height: 25,
        text: `Pattern ${i + 1}: ${bar.times} × bar ${sayLength(stock.length, style)}`,
      },
    );
    pieceOutlines(problem, bar).forEach(({ start, end }, place) => {
      const piece = at(bar.pieces, place);
      shapes.push(
        {
          kind: "outline",
          layer: "PANELS",
          points: [
            [start.lower, base],
            [end.lower, base],
            [end.upper, base + depth],
            [start.upper, base + depth],
          ],
        },
        {
          kind: "label",
          layer: "LABELS",
          at: [Math.max(start.lower, start.upper) + 8, base + depth / 3],
          height: Math.min(depth / 3, 16),
          text: `${pieceKey(at(pieces, piece))} ${size(at(problem.pieces, piece).length)}`,
        },
      );
    });
  });
  return shapes;
}
