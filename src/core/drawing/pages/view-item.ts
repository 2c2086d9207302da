/** Views on their page: where they stand, to which scale, and what is drawn there. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { Page, PageItem, ViewItem } from "../../job";
import { remembersEach } from "../../kernel";
import type { DrawItem, Layer, Stroke, Tint } from "../display";
import { type Hatch, hatched } from "../hatching";
import { linePaths, type ViewLineKind } from "../lines";
import { circlePath, type Path, placedPath } from "../path";
import { textWidth } from "../text-width";
import type { DrawnView } from "./drawn-view";
import type { LineWidths } from "./paper";
import { featureKey } from "./view-places";

export type ViewPlace = {
  /** The middle of what it shows, on the page. */
  readonly at: Vec2;
  readonly scale: number;
  /** A place of the view, in mm of the design, from there on paper. */
  readonly onPaper: (place: Vec2) => Vec2;
  /** The other way round. */
  readonly fromPaper: (place: Vec2) => Vec2;
};

const middle = ({ x0, y0, x1, y1 }: PlaneBox): Vec2 => [(x0 + x1) / 2, (y0 + y1) / 2];
const NO_BOX: PlaneBox = { x0: 0, y0: 0, x1: 0, y1: 0 };

/** Where all views of a page stand; what follows another is in line with it. Views whose parents are gone are not there. */
export function placesOfViews(
  page: Pick<Page, "scale">,
  items: readonly PageItem[],
  views: ReadonlyMap<string, DrawnView>,
): ReadonlyMap<string, ViewPlace> {
  const byId = new Map<string, ViewItem>(
    items.flatMap((item) => (item.kind === "view" ? [[item.id, item]] : [])),
  );
  const places = new Map<string, ViewPlace>();
  const boxOf = (id: string): PlaneBox => {
    const [item, drawn] = [byId.get(id), views.get(id)];
    return (item && drawn && shownBox(item, drawn)) ?? NO_BOX;
  };
  const placeOf = (item: ViewItem, depth: number): ViewPlace | null => {
    const before = places.get(item.id);
    if (before) return before;
    const parent = item.from.kind === "follower" ? byId.get(item.from.of) : undefined;
    const near = parent && depth < 100 ? placeOf(parent, depth + 1) : null;
    if (item.from.kind === "follower" && (!parent || !near)) return null;
    const scale = item.scale ?? near?.scale ?? page.scale;
    const box = boxOf(item.id);
    const centre = middle(box);
    const at: Vec2 =
      item.from.kind === "follower" && parent && near
        ? beside(item.from, { near, parent: boxOf(parent.id), own: box, scale })
        : item.at;
    const place: ViewPlace = {
      at,
      scale,
      onPaper: ([x, y]) => [(x - centre[0]) * scale, (y - centre[1]) * scale],
      fromPaper: ([x, y]) => [x / scale + centre[0], y / scale + centre[1]],
    };
    places.set(item.id, place);
    return place;
  };
  for (const item of byId.values()) placeOf(item, 0);
  return places;
}

type Beside = {
  readonly near: ViewPlace;
  readonly parent: PlaneBox;
  readonly own: PlaneBox;
  readonly scale: number;
};

/** The place of a follower: as far from its view as its gap says, and in line with it by the axis that both show. */
function beside(
  { side, gap }: { readonly side: "left" | "right" | "above" | "below"; readonly gap: number },
  { near, parent, own, scale }: Beside,
): Vec2 {
  const [ownMiddle, parentMiddle] = [middle(own), middle(parent)];
  const half = (box: PlaneBox, axis: 0 | 1, by: number) =>
    ((axis === 0 ? box.x1 - box.x0 : box.y1 - box.y0) * by) / 2;
  const away = (axis: 0 | 1) => half(parent, axis, near.scale) + gap + half(own, axis, scale);
  // In line: what has the same place along the axis stands at the same height, or one above the other.
  const inLine = (axis: 0 | 1) => near.at[axis] - parentMiddle[axis] * near.scale + ownMiddle[axis] * scale;
  switch (side) {
    case "left":
      return [near.at[0] - away(0), inLine(1)];
    case "right":
      return [near.at[0] + away(0), inLine(1)];
    case "above":
      return [inLine(0), near.at[1] - away(1)];
    case "below":
      return [inLine(0), near.at[1] + away(1)];
    default:
      return side satisfies never;
  }
}

/** What of a drawn view is shown: all, or of a detail what lies round its place; null: nothing, or that place is lost. */
export function shownBox({ from }: Pick<ViewItem, "from">, { box, features }: DrawnView): PlaneBox | null {
  if (from.kind !== "detail") return box;
  const place = features.get(featureKey(from.about))?.at;
  if (!place) return null;
  const [x, y] = place;
  const { radius } = from;
  return { x0: x - radius, y0: y - radius, x1: x + radius, y1: y + radius };
}

/** The room of a view on paper about its place. */
export function boxOfView(item: Pick<ViewItem, "from">, drawn: DrawnView, scale: number): PlaneBox {
  const { x0, y0, x1, y1 } = shownBox(item, drawn) ?? NO_BOX;
  const [w, h] = [((x1 - x0) * scale) / 2, ((y1 - y0) * scale) / 2];
  return { x0: -w, y0: -h, x1: w, y1: h };
}

const LAYER_OF: Readonly<Record<ViewLineKind, Layer>> = {
  outline: "OUTLINES",
  edge: "EDGES",
  crease: "CREASES",
  hidden: "HIDDEN",
};
const KINDS = ["hidden", "crease", "edge", "outline"] as const;

const strokeOf = (kind: ViewLineKind, { wide, narrow }: LineWidths): Stroke => {
  switch (kind) {
    case "outline":
      return { ink: "ink", width: wide };
    case "edge":
      return { ink: "ink", width: narrow };
    case "crease":
      return { ink: "ink", width: narrow / 2 };
    case "hidden":
      // 12 and 3 widths long (ISO 128-2, line 02, from memory).
      return { ink: "ink", width: narrow, dash: [12 * narrow, 3 * narrow] };
    default:
      return kind satisfies never;
  }
};

/** What is not meant is drawn grey and half as wide. */
const paleOf = (stroke: Stroke): Stroke => ({ ...stroke, ink: "seam", width: stroke.width / 2 });

const scaledPaths = remembersEach<readonly Path[], readonly Path[]>();
const CAPTION = 3.5 / 0.7;

/** The pieces of a view that some records are, or that stand there through a placement (or one of its repeats, "id:2"). */
function piecesMeant(pieces: DrawnView["pieces"], records: readonly string[]): ReadonlySet<number> {
  const wanted = new Set(records);
  // A way is "placement:repeat/" for each.
  const isMeant = ({ record, way }: DrawnView["pieces"][number]) =>
    wanted.has(record) ||
    way.split("/").some((part) => wanted.has(part) || wanted.has(part.slice(0, part.indexOf(":"))));
  return new Set(pieces.flatMap((piece, i) => (isMeant(piece) ? [i] : [])));
}

const strongPaths = remembersEach<readonly string[], ReadonlyMap<ViewLineKind, readonly Path[]>>();

/** The lines of some pieces of a view, by their kinds, as paths in mm of the design; remembered for each list of pieces. */
export function pathsOfPieces(
  drawn: Pick<DrawnView, "lines" | "pieces">,
  records: readonly string[],
): ReadonlyMap<ViewLineKind, readonly Path[]> {
  return strongPaths(records, [drawn.lines], () => {
    const own = piecesMeant(drawn.pieces, records);
    const lines = drawn.lines.filter(({ owners }) => owners.some((owner) => own.has(owner)));
    return new Map(
      KINDS.map((kind) => [
        kind,
        linePaths(
          lines.filter((line) => line.kind === kind),
          ([x, y]) => [x, 0 - y],
        ),
      ]),
    );
  });
}

/** What is drawn of a view about its place, and its room there, with its caption so far under it. */
export function viewItems(
  item: Pick<ViewItem, "look" | "from" | "strong">,
  drawn: DrawnView,
  scale: number,
  widths: LineWidths,
  { text: caption, below }: { readonly text: string | null; readonly below: number },
  /** How the section of a piece is hatched, and how the piece is tinted. */
  {
    hatchOf,
    tintOf,
  }: { readonly hatchOf: (piece: number) => Hatch; readonly tintOf: (piece: number) => Tint },
): { readonly items: readonly DrawItem[]; readonly box: PlaneBox } {
  const centre = middle(shownBox(item, drawn) ?? NO_BOX);
  const by: Vec2 = [-centre[0] * scale, -centre[1] * scale];
  const kinds = KINDS.filter((kind) => kind !== "hidden" || item.look === "hidden");
  const inPlace = (whole: readonly Path[], kind: ViewLineKind, stroke: Stroke): readonly DrawItem[] => {
    if (whole.length === 0) return [];
    const paths = scaledPaths(whole, [scale, ...by], () => whole.map((path) => placedPath(path, scale, by)));
    return [{ kind: "paths", paths, stroke, fill: null, layer: LAYER_OF[kind] }];
  };
  const meant = item.strong.length > 0 ? item.strong : (drawn.coming ?? []);
  const own = meant.length > 0 ? piecesMeant(drawn.pieces, meant) : null;
  const inColour = own && own.size < drawn.pieces.length ? own : null;
  const lines = kinds.flatMap((kind) => {
    const stroke = strokeOf(kind, widths);
    return inPlace(drawn.paths[kind], kind, inColour ? paleOf(stroke) : stroke);
  });
  const strongOnes = inColour ? pathsOfPieces(drawn, meant) : null;
  const strong = strongOnes
    ? kinds.flatMap((kind) => inPlace(strongOnes.get(kind) ?? [], kind, strokeOf(kind, widths)))
    : [];
  const onPage = ([x, y]: Vec2): Vec2 => [x * scale + by[0], y * scale + by[1]];
  const faces = drawn.sections.flatMap(({ piece, outlines }) =>
    hatched(
      outlines.map((outline) => outline.map(onPage)),
      hatchOf(piece),
      widths.narrow,
    ),
  );
  const tinted = drawn.tints.filter(({ piece }) => !inColour || inColour.has(piece));
  const tints = tinted.map(({ piece, shade, outlines }): DrawItem => {
    const paths = outlines.flatMap((outline): Path[] => {
      const [from, ...rest] = outline.map(onPage);
      return from ? [{ from, segments: rest.map((to) => ({ kind: "line", to })), closed: true }] : [];
    });
    return { kind: "paths", paths, stroke: null, fill: tintOf(piece), shade, layer: "HATCHING" };
  });
  const all = [...tints, ...faces, ...lines, ...strong];
  const box = boxOfView(item, drawn, scale);
  const items = item.from.kind === "detail" ? inCircle(all, item.from.radius * scale, widths) : all;
  if (caption === null) return { items, box };
  const half = textWidth(caption, CAPTION, "strong") / 2;
  return {
    items: [
      ...items,
      {
        kind: "text",
        at: [0, box.y1 + below + 6],
        text: caption,
        size: CAPTION,
        face: "strong",
        align: "centre",
        ink: "ink",
        layer: "TEXTS",
      },
    ],
    box: { x0: Math.min(box.x0, -half), y0: box.y0, x1: Math.max(box.x1, half), y1: box.y1 + below + 9 },
  };
}

/** Lines within a circle about [0, 0], and the circle. */
function inCircle(lines: readonly DrawItem[], radius: number, { narrow }: LineWidths): readonly DrawItem[] {
  const corners = Array.from({ length: 96 }, (_, i): Vec2 => {
    const angle = (i * Math.PI) / 48;
    return [radius * Math.cos(angle), radius * Math.sin(angle)];
  });
  return [{ kind: "clip", within: corners, items: lines }, circleAt([0, 0], radius, narrow)];
}

const circleAt = (at: Vec2, radius: number, width: number): DrawItem => ({
  kind: "paths",
  paths: [circlePath(at, radius)],
  stroke: { ink: "ink", width },
  fill: null,
  layer: "TEXTS",
});

/** The circle in a view round what a detail shows larger, with its letter. */
export function detailMark(
  detail: ViewItem,
  {
    place,
    drawn,
    widths,
  }: { readonly place: ViewPlace; readonly drawn: DrawnView; readonly widths: LineWidths },
): readonly DrawItem[] {
  if (detail.from.kind !== "detail") return [];
  const at = drawn.features.get(featureKey(detail.from.about))?.at;
  if (!at) return [];
  const [x, y] = place.onPaper([at[0], at[1]]);
  const radius = Math.max(1.5, detail.from.radius * place.scale);
  return [
    circleAt([x, y], radius, widths.narrow),
    {
      kind: "text",
      at: [x + radius * Math.SQRT1_2 + 1.5, y - radius * Math.SQRT1_2 - 2],
      text: detail.from.letter,
      size: CAPTION,
      face: "strong",
      align: "left",
      ink: "ink",
      layer: "TEXTS",
    },
  ];
}
