/** Notes, lines, pictures and callouts on their page, and the sentence where something cannot be shown. */
import type { Vec2 } from "../../geometry";
import type { Assets, CalloutItem, NoteItem, PageItem, PictureItem, RuleItem } from "../../job";
import { sameItems } from "../../kernel";
import { type ListGround, pieceText } from "../../lists";
import { CAPITAL_HEIGHT, type DrawItem, rectangle, wrapped } from "../display";
import { textWidth } from "../text-width";
import type { BalloonGround } from "./balloons";
import { type ItemFault, itemFaultWords } from "./item-fault";
import type { LineWidths } from "./paper";
import { dotAt, type PlacedItem } from "./placed";
import { tipsOf } from "./tips";

const FAULT_WIDTH = 70;

/** A sentence in the place of what cannot be shown. */
export function faulty(item: PageItem, at: Vec2, fault: ItemFault): PlacedItem {
  const size = 3.1;
  const lines = wrapped(itemFaultWords(fault), FAULT_WIDTH - 4, size, "text");
  const height = lines.length * 4 + 3;
  return {
    item,
    at,
    fault,
    box: { x0: -FAULT_WIDTH / 2, y0: -height / 2, x1: FAULT_WIDTH / 2, y1: height / 2 },
    items: [
      {
        kind: "polygon",
        points: rectangle(-FAULT_WIDTH / 2, -height / 2, FAULT_WIDTH, height),
        stroke: { ink: "oxide", width: 0.25, dash: [1.5, 1] },
        fill: "paper",
      },
      ...lines.map(
        (text, i): DrawItem => ({
          kind: "text",
          at: [0, -height / 2 + 3.5 + i * 4],
          text,
          size,
          face: "text",
          align: "centre",
          ink: "oxide",
        }),
      ),
    ],
  };
}

type Remembered = { readonly from: readonly unknown[]; readonly value: unknown };
/** What the last drawing of an item was made from: the same gives the same objects. */
const drawnItems = new WeakMap<PageItem, Remembered>();

export function remembered<T>(item: PageItem, from: readonly unknown[], draw: () => T): T {
  const before = drawnItems.get(item);
  // An item is of one kind all its life, and each kind remembers one thing.
  if (before && sameItems(before.from, from)) return before.value as T;
  const value = draw();
  drawnItems.set(item, { from, value });
  return value;
}

export function placedNote(item: NoteItem): PlacedItem {
  const drawn = remembered(item, [], () => {
    // Letters are as high as their capitals say.
    const size = item.letters / CAPITAL_HEIGHT;
    const face = item.strong ? "strong" : "text";
    const broken = item.text
      .split("\n")
      .flatMap((line) => (item.width === null ? [line] : wrapped(line, item.width, size, face)));
    const step = item.letters * 1.6;
    const width = item.width ?? Math.max(0, ...broken.map((line) => textWidth(line, size, face)));
    return {
      box: { x0: 0, y0: 0, x1: Math.max(width, 2), y1: broken.length * step },
      items: broken.map(
        (text, i): DrawItem => ({
          kind: "text",
          at: [0, step / 2 + i * step],
          text,
          size,
          face,
          align: "left",
          ink: "ink",
          layer: "TEXTS",
        }),
      ),
    };
  });
  return { item, at: item.at, fault: null, ...drawn };
}

export function placedRule(item: RuleItem, { narrow }: LineWidths): PlacedItem {
  const [x, y] = [item.to[0] - item.at[0], item.to[1] - item.at[1]];
  const box = { x0: Math.min(0, x), y0: Math.min(0, y), x1: Math.max(0, x), y1: Math.max(0, y) };
  const stroke = { ink: "ink", width: narrow } as const;
  const drawn: DrawItem = item.frame
    ? {
        kind: "polygon",
        points: rectangle(box.x0, box.y0, box.x1 - box.x0, box.y1 - box.y0),
        stroke,
        fill: null,
        layer: "TEXTS",
      }
    : { kind: "line", from: [0, 0], to: [x, y], stroke, layer: "TEXTS" };
  return { item, at: item.at, box, items: [drawn], fault: null };
}

export function placedPicture(item: PictureItem, assets: Assets): PlacedItem {
  const asset = assets.get(item.asset);
  const { at, width, ratio } = item;
  if (asset?.kind !== "picture")
    return faulty(item, [at[0] + width / 2, at[1] + 10], { kind: "lost", what: "picture" });
  const height = width * ratio;
  const items: readonly DrawItem[] = [{ kind: "image", at: [0, 0], width, height, picture: asset }];
  return { item, at, fault: null, box: { x0: 0, y0: 0, x1: width, y1: height }, items };
}

export function placedCallout(
  item: CalloutItem,
  { drawn, place, widths: { narrow } }: BalloonGround,
  lists: ListGround,
): PlacedItem {
  const written = pieceText(item.pattern, item.piece.record, lists);
  const at: Vec2 = [place.at[0] + item.at[0], place.at[1] + item.at[1]];
  if (!written.ok) return faulty(item, at, { kind: "textNotRead", problem: written.problem });
  const tips = tipsOf(item.piece, drawn, place);
  const size = item.letters / CAPITAL_HEIGHT;
  const lines = written.value.split("\n");
  const width = Math.max(...lines.map((line) => textWidth(line, size, "text")));
  const step = item.letters * 1.6;
  const height = lines.length * step;
  const ends = tips.map(([x, y]): Vec2 => [x - item.at[0], y - item.at[1]]);
  // From the side of the text that is nearer, at half its height.
  const [tip] = ends.sort((a, b) => Math.hypot(...a) - Math.hypot(...b));
  const foot: Vec2 = [tip && tip[0] > width ? width + 1 : tip && tip[0] < 0 ? -1 : width / 2, height / 2];
  const stroke = { ink: "ink", width: narrow } as const;
  const leader: readonly DrawItem[] = tip
    ? [{ kind: "line", from: foot, to: tip, stroke, layer: "BALLOONS" }, dotAt(tip, narrow)]
    : [];
  return {
    item,
    at,
    fault: tip ? null : { kind: "calloutUnseen" },
    box: { x0: 0, y0: 0, x1: width, y1: height },
    items: [
      ...leader,
      ...lines.map(
        (text, i): DrawItem => ({
          kind: "text",
          at: [0, step / 2 + i * step],
          text,
          size,
          face: "text",
          align: "left",
          ink: tip ? "ink" : "oxide",
          layer: "TEXTS",
          record: item.piece.record,
        }),
      ),
    ],
  };
}
