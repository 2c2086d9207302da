/** Cards of rows on their page, with the picture of where the piece sits once its lines are there. */
import type { PlaneBox, Vec2 } from "../../geometry";
import { type CardItem, jobStyle, pageStyle } from "../../job";
import { remembersEach } from "../../kernel";
import type { TallyRow } from "../../tally";
import { rowCard } from "../cards";
import type { DrawItem, Layer, Stroke } from "../display";
import type { ViewLineKind } from "../lines";
import { type Path, placedPath } from "../path";
import type { DrawnView } from "./drawn-view";
import type { PageGround } from "./page-ground";
import type { PlacedItem } from "./placed";
import { faulty, remembered } from "./plain-items";
import { pathsOfPieces } from "./view-item";

const PALE: Stroke = { ink: "seam", width: 0.1 };
const STRONG: Stroke = { ink: "ink", width: 0.3 };
const BEHIND: Stroke = { ink: "ink", width: 0.15, dash: [1.2, 0.7] };
/** mm on paper. Shorter lines of what is around it say nothing in so small a picture. */
const LEAST = 0.6;

export function placedCard(item: CardItem, ground: PageGround): PlacedItem {
  const { job, tally, lists, views } = ground;
  const row = tally.rowOfPiece.get(item.record);
  const [x, y] = item.at;
  if (!row) return faulty(item, [x + 35, y + 10], { kind: "lost", what: "pieceOfCard" });
  const page = job.pages[item.page];
  const style = page ? pageStyle(page, job) : jobStyle(job);
  const { stockroom } = lists;
  const card = remembered(item, [row, stockroom, JSON.stringify(style)], () =>
    rowCard(row, item.width, item.height, { style, stockroom }),
  );
  const view = item.sits ? views.get(item.id) : undefined;
  const records = recordsOf(row.pieces, [], () => row.pieces.map(({ id }) => id));
  return {
    item,
    at: item.at,
    items: view ? [...card.items, ...sitting(view, records, card.sits)] : card.items,
    box: { x0: 0, y0: 0, x1: item.width, y1: item.height },
    fault: card.fault,
    rows: [{ box: { x0: 0, y0: 0, x1: item.width, y1: 14 }, records }],
  };
}

const recordsOf = remembersEach<TallyRow["pieces"], readonly string[]>();
const paleLines = remembersEach<DrawnView["lines"], readonly Path[]>();

/** The whole job pale with some pieces strong, in the middle of a box. */
function sitting(view: DrawnView, records: readonly string[], room: PlaneBox): readonly DrawItem[] {
  const { box } = view;
  if (!box) return [];
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const scale = Math.min((room.x1 - room.x0) / width, (room.y1 - room.y0) / height);
  const by: Vec2 = [
    (room.x0 + room.x1) / 2 - ((box.x0 + box.x1) / 2) * scale,
    (room.y0 + room.y1) / 2 - ((box.y0 + box.y1) / 2) * scale,
  ];
  const pale = paleLines(view.lines, [scale, ...by], () =>
    view.paths.outline
      .filter((path) => reach(path) * scale > LEAST)
      .map((path) => placedPath(path, scale, by)),
  );
  const own = pathsOfPieces(view, records);
  const inPlace = (kinds: readonly ViewLineKind[]) =>
    kinds.flatMap((kind) => own.get(kind) ?? []).map((path) => placedPath(path, scale, by));
  const [strong, behind] = [inPlace(["outline", "edge"]), inPlace(["hidden"])];
  return [
    { kind: "paths", paths: pale, stroke: PALE, fill: null, layer: "OUTLINES" },
    ...pathsItem(behind, BEHIND, "HIDDEN"),
    ...pathsItem(strong, STRONG, "OUTLINES"),
  ];
}

const pathsItem = (paths: readonly Path[], stroke: Stroke, layer: Layer): readonly DrawItem[] =>
  paths.length === 0 ? [] : [{ kind: "paths", paths, stroke, fill: null, layer }];

/** How far a path reaches from its start at most, roughly. */
function reach({ from, segments }: Path): number {
  return Math.max(
    0,
    ...segments.map((segment) =>
      segment.kind === "line"
        ? Math.hypot(segment.to[0] - from[0], segment.to[1] - from[1])
        : 2 * Math.max(Math.hypot(...segment.u), Math.hypot(...segment.v)),
    ),
  );
}
