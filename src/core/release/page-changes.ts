/**
 * What changed on a page of drawings since it was last put out: what each item of it said then, and what it says now. Items are known
 * by their ids, so that one that was only moved says the same; of a view it is how large it is and how many pieces are in it.
 */
import * as v from "valibot";
import { type DrawItem, type DrawnPage, type DrawnText, type PlacedItem, textWidth } from "../drawing";
import type { PlaneBox } from "../geometry";
import { type Job, pageStyle } from "../job";
import { addTo, counted } from "../kernel";
import { saySizes } from "../measure";

const ItemSaysSchema = v.object({ kind: v.string(), lines: v.array(v.string()) });

/** What stands on a page when it is put out, by the ids of its items, as plain data that can be kept. */
const PageSaysSchema = v.record(v.string(), ItemSaysSchema);
export type PageSays = v.InferOutput<typeof PageSaysSchema>;

/** A page as it was put out last. */
export const PutOutSchema = v.object({ revision: v.number(), at: v.number(), says: PageSaysSchema });
export type PutOut = v.InferOutput<typeof PutOutSchema>;

export type PageChange = {
  readonly id: string;
  readonly kind: string;
  /** What it said that it does not say any more; nothing: it came anew, or only has more. */
  readonly was: readonly string[];
  /** What it says that it did not say. */
  readonly now: readonly string[];
};

/** More lines of an item are told by how many they are. */
const MOST_LINES = 400;

/** What the items of a page say, once all that it shows is drawn. */
export function pageSays(drawn: DrawnPage, job: Job): PageSays {
  const says: Record<string, PageSays[string]> = {};
  for (const placed of drawn.placed) {
    const { item } = placed;
    const lines = item.kind === "view" ? viewLines(drawn, placed, job) : linesOf(placed);
    if (lines.length > 0) says[item.id] = { kind: item.kind, lines: lines.slice(0, MOST_LINES) };
  }
  return says;
}

function viewLines(drawn: DrawnPage, placed: PlacedItem, job: Job): readonly string[] {
  const ring = drawn.rings.get(placed.item.id);
  const caption = textsIn(placed.items).map(({ text }) => text);
  const box = ring?.drawn.box;
  if (!ring || !box) return caption;
  const sizes = saySizes([box.x1 - box.x0, box.y1 - box.y0], pageStyle(drawn.page, job));
  const pieces = new Set(ring.drawn.pieces.map(({ record, way }) => `${way}${record}`)).size;
  return [...caption, `${sizes}, ${counted(pieces, "piece")}`];
}

/** The texts of an item; those of a row of it as one line. */
function linesOf({ items, rows = [] }: PlacedItem): readonly string[] {
  const texts = textsIn(items);
  const inRow = (text: DrawnText) =>
    rows.findIndex(({ box }) => text.at[1] > box.y0 && text.at[1] < box.y1 && rows.length > 0);
  const byRow = new Map<number, DrawnText[]>();
  const lines: string[] = [];
  for (const text of texts) {
    const row = inRow(text);
    if (row < 0) lines.push(text.text);
    else addTo(byRow, row, text);
  }
  for (const [, own] of [...byRow].sort(([a], [b]) => a - b))
    lines.push(
      [...own]
        .sort((a, b) => a.at[0] - b.at[0])
        .map(({ text }) => text)
        .join(" · "),
    );
  return lines;
}

const textsIn = (items: readonly DrawItem[]): readonly DrawnText[] =>
  items.flatMap((item) => (item.kind === "text" ? [item] : item.kind === "clip" ? textsIn(item.items) : []));

/** What differs, in the order of the page as it is now; what is gone comes last. */
export function pageChanges(before: PageSays, now: PageSays): readonly PageChange[] {
  const changes: PageChange[] = [];
  for (const [id, { kind, lines }] of Object.entries(now)) {
    const old = before[id]?.lines ?? [];
    const [was, is] = [without(old, lines), without(lines, old)];
    if (was.length + is.length > 0) changes.push({ id, kind, was, now: is });
  }
  for (const [id, { kind, lines }] of Object.entries(before))
    if (!now[id]) changes.push({ id, kind, was: lines, now: [] });
  return changes;
}

/** Lines that others do not have, each as often as it is there more. */
function without(lines: readonly string[], others: readonly string[]): readonly string[] {
  const left = new Map<string, number>();
  for (const line of others) left.set(line, (left.get(line) ?? 0) + 1);
  return lines.filter((line) => {
    const count = left.get(line) ?? 0;
    left.set(line, count - 1);
    return count <= 0;
  });
}

/** A page with a bar beside each item that changed: along its left side, of what stands on a view beside its text. */
export function withChangeMarks(drawn: DrawnPage, changes: readonly PageChange[]): DrawnPage {
  const changed = new Set(changes.map(({ id }) => id));
  const bars = drawn.placed.flatMap((placed): readonly DrawItem[] => {
    if (!changed.has(placed.item.id)) return [];
    const { x0, y0, y1 } = markedBox(placed);
    const x = placed.at[0] + x0 - BESIDE;
    const stroke = { ink: "oxide", width: 0.7 } as const;
    return [
      { kind: "line", from: [x, placed.at[1] + y0], to: [x, placed.at[1] + y1], stroke, layer: "TEXTS" },
    ];
  });
  return bars.length === 0 ? drawn : { ...drawn, frame: [...drawn.frame, ...bars] };
}

/** mm on paper. */
const BESIDE = 1.5;

function markedBox({ item, items, box }: PlacedItem): PlaneBox {
  const [text] = item.kind === "size" || item.kind === "balloon" ? textsIn(items) : [];
  if (!text) return box;
  const [wide, tall] = [textWidth(text.text, text.size, text.face) / 2, text.size / 2];
  // A size that stands upright is read from the right: its text goes upwards.
  const [half, high] = text.turn ? [tall, wide] : [wide, tall];
  const [x, y] = text.at;
  return { x0: x - half, y0: y - high, x1: x + half, y1: y + high };
}
