/** Moving items on their page: by how much, where they catch on one another, and where there is room for new ones. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { Page, PageItem } from "../../job";
import type { DrawnPage } from "./page-drawing";
import { borderOf } from "./paper";
import { movedBox, type PlacedItem } from "./placed";

const rounded = (value: number) => Math.round(value * 1000) / 1000;
const plus = ([x, y]: Vec2, [dx, dy]: Vec2): [number, number] => [rounded(x + dx), rounded(y + dy)];

/** An item as it is after it was moved by so many millimetres; of what is in line with something only its gap changes. */
export function movedItem({ item, box, way }: Pick<PlacedItem, "item" | "box" | "way">, by: Vec2): PageItem {
  switch (item.kind) {
    case "view": {
      const { from } = item;
      if (from.kind !== "follower") return { ...item, at: plus(item.at, by) };
      const [dx, dy] = by;
      const more = { right: dx, left: -dx, below: dy, above: -dy }[from.side];
      return { ...item, from: { ...from, gap: rounded(from.gap + more) } };
    }
    case "balloon": {
      const at: Vec2 = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
      return { ...item, stands: { kind: "hand", at: plus(at, by) } };
    }
    case "size":
      return { ...item, out: rounded(item.out + (way ? by[0] * way[0] + by[1] * way[1] : 0)) };
    case "rule":
      return { ...item, at: plus(item.at, by), to: plus(item.to, by) };
    case "list":
    case "note":
    case "picture":
    case "template":
    case "card":
    case "step":
    case "callout":
      return { ...item, at: plus(item.at, by) };
    default:
      return item satisfies never;
  }
}

/** Where an item is caught: the line on the page along which it lies with another. */
export type CatchLine = { readonly axis: "x" | "y"; readonly at: number };
export type Caught = { readonly by: Vec2; readonly lines: readonly CatchLine[] };

/** A move that catches where edges or the middle of a box come near those of others, or of the border. */
export function caught(box: PlaneBox, by: Vec2, others: readonly PlaneBox[], reach: number): Caught {
  const moved = movedBox(box, by);
  const x = nearest(
    stopsOf(moved.x0, moved.x1),
    others.flatMap((one) => stopsOf(one.x0, one.x1)),
    reach,
  );
  const y = nearest(
    stopsOf(moved.y0, moved.y1),
    others.flatMap((one) => stopsOf(one.y0, one.y1)),
    reach,
  );
  return {
    by: [by[0] + (x?.more ?? 0), by[1] + (y?.more ?? 0)],
    lines: [
      ...(x ? [{ axis: "x", at: x.at } as const] : []),
      ...(y ? [{ axis: "y", at: y.at } as const] : []),
    ],
  };
}

const stopsOf = (low: number, high: number): readonly number[] => [low, (low + high) / 2, high];

function nearest(
  own: readonly number[],
  others: readonly number[],
  reach: number,
): { readonly more: number; readonly at: number } | null {
  let best: { more: number; at: number } | null = null;
  for (const at of others)
    for (const stop of own) {
      const more = at - stop;
      if (Math.abs(more) <= reach && (best === null || Math.abs(more) < Math.abs(best.more)))
        best = { more, at };
    }
  return best;
}

/** What an item may catch on: the other items that stand by themselves, and the border. */
export function catchBoxes(
  { page, placed }: Pick<DrawnPage, "page" | "placed">,
  moving: ReadonlySet<string>,
): readonly PlaneBox[] {
  return [
    borderOf(page),
    ...placed.flatMap(({ item, at, box }) =>
      moving.has(item.id) || item.kind === "callout" ? [] : [movedBox(box, at)],
    ),
  ];
}

const STEP = 5;

/** The middle of a free room of a size on a page with so many millimetres round it, from the upper left; the middle of the page where there is none. */
export function freePlace(
  page: Pick<Page, "paper" | "lying" | "titleBlock">,
  taken: readonly PlaneBox[],
  size: { readonly width: number; readonly height: number },
  clear = 6,
): Vec2 {
  const border = borderOf(page);
  const [w, h] = [size.width / 2 + clear, size.height / 2 + clear];
  for (let y = border.y0 + h; y <= border.y1 - h; y += STEP)
    for (let x = border.x0 + w; x <= border.x1 - w; x += STEP)
      if (!taken.some((box) => x + w > box.x0 && x - w < box.x1 && y + h > box.y0 && y - h < box.y1))
        return [x, y];
  return [(border.x0 + border.x1) / 2, (border.y0 + border.y1) / 2];
}
