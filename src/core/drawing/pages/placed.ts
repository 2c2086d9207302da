/** An item of a page that has found its place. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { BalloonPlace, PageItem } from "../../job";
import type { DrawItem } from "../display";
import type { ItemFault } from "./item-fault";

export type PlacedRow = { readonly box: PlaneBox; readonly records: readonly string[] };

export type PlacedItem = {
  readonly item: PageItem;
  /** Where its own [0, 0] lies on the page. */
  readonly at: Vec2;
  readonly items: readonly DrawItem[];
  /** Its room, from its own [0, 0]. */
  readonly box: PlaneBox;
  /** Why it is not shown as it should be; null: it is. */
  readonly fault: ItemFault | null;
  /** The columns of a list, as wide as they came out, in mm. */
  readonly columns?: readonly { readonly id: string; readonly heading: string; readonly width: number }[];
  /** Rows of a list, or columns of a layout, that have no room in it. */
  readonly left?: number;
  /** The place of a balloon as it came out: the one that it has, or another where that is in somebody's way. */
  readonly stands?: BalloonPlace;
  /** Where its leaders end, from its own [0, 0], for each of its pieces; null: that one is not seen. */
  readonly tips?: readonly (Vec2 | null)[];
  /** Parts of its room that stand for records: the rows of a list. */
  readonly rows?: readonly PlacedRow[];
  /** The way in which it is moved, where there is but one; it then stands farther off by as much. */
  readonly way?: Vec2 | undefined;
  /** Where it is taken hold of, where that is but a line of its room: what it spans is not covered. */
  readonly grip?: readonly [Vec2, Vec2];
};

export const movedBox = ({ x0, y0, x1, y1 }: PlaneBox, [x, y]: Vec2): PlaneBox => ({
  x0: x0 + x,
  y0: y0 + y,
  x1: x1 + x,
  y1: y1 + y,
});

/** What ends a leader on a face: a dot (ISO 128-22, from memory). */
export function dotAt([x, y]: Vec2, width: number): DrawItem {
  const r = 2 * width;
  const corners = Array.from({ length: 12 }, (_, i): Vec2 => {
    const angle = (i * Math.PI) / 6;
    return [x + r * Math.cos(angle), y + r * Math.sin(angle)];
  });
  return {
    kind: "polygon",
    points: corners,
    stroke: { ink: "ink", width: width / 2 },
    fill: "ink",
    layer: "BALLOONS",
  };
}
