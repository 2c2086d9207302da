/**
 * Lines by which a view shows where another is cut: a chain line, thick at its ends, with arrows in the direction of sight and the
 * letter of the cut (ISO 128-3, from memory).
 */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { ViewCut, ViewItem } from "../../job";
import type { DrawItem, Stroke } from "../display";
import type { ViewFrame } from "../lines";
import type { DrawnView } from "./drawn-view";
import type { LineWidths } from "./paper";
import { boxOfView, shownBox, type ViewPlace } from "./view-item";

/** mm on paper: how far the line goes past the view, how long its thick ends are, and its arrows. */
const PAST = 5;
const THICK = 6;
const ARROW = 8;
const HEAD = 3;
const LETTER = 5 / 0.7;
/** A plane is seen edge-on when its normal lies in the paper. */
const EDGE_ON = 1e-6;

const AXIS_NUMBER = { width: 0, depth: 1, height: 2 } as const;

/** What shows a cut: its letter, where it lies along its axis in mm, and from where the cut view looks. */
export type ShownCut = {
  readonly cut: Pick<ViewCut, "axis"> & { readonly letter: string };
  readonly at: number;
  readonly axes: ViewFrame;
};

/** The line of a cut in a view of the same thing, about the place of that view; none where the plane is not seen edge-on, or passes beside it. */
export function cutMark(
  { cut: { axis, letter }, at, axes: from }: ShownCut,
  view: {
    readonly item: ViewItem;
    readonly axes: ViewFrame;
    readonly drawn: DrawnView;
    readonly place: ViewPlace;
  },
  { wide, narrow }: LineWidths,
): readonly DrawItem[] {
  const { drawn, place, axes, item } = view;
  const k = AXIS_NUMBER[axis];
  // y runs down on paper.
  const normal: Vec2 = [axes.right[k], 0 - axes.up[k]];
  if (Math.abs(Math.hypot(...normal) - 1) > EDGE_ON || !shownBox(item, drawn)) return [];
  const [ox, oy] = place.onPaper([drawn.origin[0] + normal[0] * at, drawn.origin[1] + normal[1] * at]);
  const offset = normal[0] * ox + normal[1] * oy;
  const box = boxOfView(item, drawn, place.scale);
  const ends = stretchIn(normal, offset, box);
  if (!ends) return [];
  // Who looks at the cut stands on the side that is left away.
  const sight = from.towards[k] > 0 ? -1 : 1;
  const way: Vec2 = [normal[0] * sight, normal[1] * sight];
  const thin: Stroke = { ink: "ink", width: narrow, dash: [24 * narrow, 3 * narrow, narrow, 3 * narrow] };
  const strong: Stroke = { ink: "ink", width: wide };
  const line = (a: Vec2, b: Vec2, stroke: Stroke): DrawItem => ({
    kind: "line",
    from: a,
    to: b,
    stroke,
    layer: "TEXTS",
  });
  const [a, b] = ends;
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const along: Vec2 = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const moved = ([x, y]: Vec2, [dx, dy]: Vec2, by: number): Vec2 => [x + dx * by, y + dy * by];
  const thick = Math.min(THICK, length / 3);
  return [
    line(a, b, thin),
    line(a, moved(a, along, thick), strong),
    line(b, moved(b, along, -thick), strong),
    ...[a, b].flatMap((end): DrawItem[] => [
      line(moved(end, way, -ARROW), moved(end, way, -HEAD), { ink: "ink", width: narrow }),
      {
        kind: "polygon",
        points: [
          end,
          moved(moved(end, way, -HEAD), along, HEAD / 5),
          moved(moved(end, way, -HEAD), along, -HEAD / 5),
        ],
        stroke: null,
        fill: "ink",
        layer: "TEXTS",
      },
      {
        kind: "text",
        at: moved(end, way, -ARROW - 3),
        text: letter,
        size: LETTER,
        face: "strong",
        align: "centre",
        ink: "ink",
        layer: "TEXTS",
      },
    ]),
  ];
}

/** The part of the line normal · p = offset over a box, a little past it; null: it passes beside the box. */
function stretchIn([nx, ny]: Vec2, offset: number, box: PlaneBox): readonly [Vec2, Vec2] | null {
  const corners: readonly Vec2[] = [
    [box.x0, box.y0],
    [box.x1, box.y0],
    [box.x1, box.y1],
    [box.x0, box.y1],
  ];
  const sides = corners.map(([x, y]) => nx * x + ny * y);
  if (offset < Math.min(...sides) - 1e-9 || offset > Math.max(...sides) + 1e-9) return null;
  const middle = ((box.x0 + box.x1) / 2) * -ny + ((box.y0 + box.y1) / 2) * nx;
  const half = (Math.abs(ny) * (box.x1 - box.x0) + Math.abs(nx) * (box.y1 - box.y0)) / 2 + PAST;
  const on = (s: number): Vec2 => [nx * offset - ny * s, ny * offset + nx * s];
  return [on(middle - half), on(middle + half)];
}
