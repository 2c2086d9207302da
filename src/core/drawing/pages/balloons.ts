/** Balloons of a view (item references, ISO 6433): the mark of a row in a circle, with leaders to pieces of that row. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { BalloonItem } from "../../job";
import { addTo, remembersEach } from "../../kernel";
import type { TallyRow } from "../../tally";
import { type DrawItem, fitted } from "../display";
import { circlePath } from "../path";
import { BALLOON_RADIUS, balloonPlaces, type PlacedBalloon, type RingGround } from "./balloon-places";
import type { DrawnView, ViewPart } from "./drawn-view";
import type { ItemFault } from "./item-fault";
import type { LineWidths } from "./paper";
import { dotAt, type PlacedItem } from "./placed";
import { goodParts, tipsOf } from "./tips";
import type { ViewPlace } from "./view-item";

export type BalloonGround = {
  readonly drawn: DrawnView;
  readonly place: ViewPlace;
  /** The view on paper, about its place, as all here. */
  readonly box: PlaneBox;
  /** Rooms of other items. */
  readonly blocked: readonly PlaneBox[];
  readonly border: PlaneBox;
  /** The mark of the row of a record; null: it is in none. */
  readonly markOf: (record: string) => string | null;
  readonly widths: LineWidths;
};

const RADIUS = BALLOON_RADIUS;
/** Between a balloon and what stands beside it. */
const BESIDE = 1.5;

function ringGround({ drawn, box, blocked, border }: BalloonGround): RingGround {
  const reach = RADIUS + BESIDE;
  return {
    box,
    edges: edgesOf(drawn.lines, [], () => edgeDirections(drawn)),
    blocked,
    isFree: ([x, y]) =>
      x - reach >= border.x0 &&
      x + reach <= border.x1 &&
      y - reach >= border.y0 &&
      y + reach <= border.y1 &&
      !blocked.some(
        ({ x0, y0, x1, y1 }) => x + reach > x0 && x - reach < x1 && y + reach > y0 && y - reach < y1,
      ),
  };
}

const SECTORS = 60;

/** Many lines: their directions are found once for each view. */
const edgesOf = remembersEach<DrawnView["lines"], readonly number[]>();

/** The directions that make up much of the lines of a view, y downwards. */
function edgeDirections({ lines }: DrawnView): readonly number[] {
  const lengths = new Array<number>(SECTORS).fill(0);
  let total = 0;
  for (const { from, to, arc } of lines) {
    if (arc) continue;
    const [x, y] = [to[0] - from[0], from[1] - to[1]];
    const length = Math.hypot(x, y);
    const sector = Math.round(((Math.atan2(y, x) + Math.PI) % Math.PI) / (Math.PI / SECTORS)) % SECTORS;
    lengths[sector] = (lengths[sector] ?? 0) + length;
    total += length;
  }
  return lengths.flatMap((length, i) => (length > 0.08 * total ? [(i * Math.PI) / SECTORS] : []));
}

/** Draws the balloons of one view: each where it stands, or moved to where its leader is in nobody's way. */
export function balloonsOfView(
  balloons: readonly BalloonItem[],
  ground: BalloonGround,
): readonly PlacedItem[] {
  const { drawn, place, markOf, widths } = ground;
  const tips = balloons.map(({ pieces }) => {
    const [first] = pieces;
    return first ? tipsOf(first, drawn, place) : [];
  });
  const placed = balloonPlaces(
    balloons.map(({ stands }, i) => ({ tips: tips[i] ?? [], stands })),
    ringGround(ground),
  );
  return balloons.flatMap((item, i): PlacedItem[] => {
    const standing = placed[i];
    if (!standing) return [];
    const mark = item.pieces.reduce<string | null>((found, { record }) => found ?? markOf(record), null);
    const further = item.pieces.slice(1).map((piece) => tipsOf(piece, drawn, place));
    const ends = [
      standing.tip === null ? undefined : tips[i]?.[standing.tip],
      ...further.map((one) => nearest(standing, one)),
    ];
    const fault: ItemFault | null =
      mark === null
        ? { kind: "lost", what: "pieceOfBalloon" }
        : ends[0] === undefined
          ? { kind: "balloonUnseen", mark }
          : standing.crowded
            ? { kind: "balloonCrowded", mark }
            : null;
    return [
      {
        item,
        at: place.at,
        fault,
        stands: standing.stands,
        tips: item.pieces.map((_, k) => ends[k] ?? null),
        box: {
          x0: standing.at[0] - RADIUS,
          y0: standing.at[1] - RADIUS,
          x1: standing.at[0] + RADIUS,
          y1: standing.at[1] + RADIUS,
        },
        items: balloonItems(
          standing.at,
          mark,
          ends.flatMap((end) => (end ? [end] : [])),
          fault !== null,
          item,
          widths,
        ),
      },
    ];
  });
}

function nearest({ at }: PlacedBalloon, tips: readonly Vec2[]): Vec2 | undefined {
  return [...tips].sort(
    (a, b) => Math.hypot(a[0] - at[0], a[1] - at[1]) - Math.hypot(b[0] - at[0], b[1] - at[1]),
  )[0];
}

function balloonItems(
  [x, y]: Vec2,
  mark: string | null,
  ends: readonly Vec2[],
  faulty: boolean,
  item: BalloonItem,
  { narrow }: LineWidths,
): readonly DrawItem[] {
  const ink = faulty ? "oxide" : "ink";
  const stroke = { ink, width: narrow } as const;
  const layer = "BALLOONS" as const;
  const record = item.pieces[0]?.record ?? "";
  const size = 3.5 / 0.7;
  const text = mark ?? "?";
  const fits =
    [size, size * 0.8, size * 0.6].find((one) => fitted(text, 2 * RADIUS - 1.4, one, "strong") === text) ??
    size * 0.5;
  return [
    ...ends.flatMap((end): DrawItem[] => {
      const away = Math.hypot(end[0] - x, end[1] - y) || 1;
      const from: Vec2 = [x + ((end[0] - x) * RADIUS) / away, y + ((end[1] - y) * RADIUS) / away];
      return [{ kind: "line", from, to: end, stroke, layer }, dotAt(end, narrow)];
    }),
    { kind: "paths", paths: [circlePath([x, y], RADIUS)], stroke, fill: "paper", layer, record },
    {
      kind: "text",
      at: [x, y],
      text: fitted(text, 2 * RADIUS - 1, fits, "strong"),
      size: fits,
      face: "strong",
      align: "centre",
      ink,
      layer,
      record,
    },
  ];
}

/**
 * New balloons of a view: one for each row that has none, in the order of the rows, at whichever of its pieces can be pointed at
 * best. Rows of which nothing is seen there, or for which there is no room round the view, get none.
 */
export function newBalloons(
  view: Pick<BalloonItem, "page" | "view">,
  rows: readonly TallyRow[],
  there: readonly BalloonItem[],
  ground: BalloonGround,
  newId: () => BalloonItem["id"],
): readonly BalloonItem[] {
  const { drawn, place } = ground;
  const partsOf = new Map<string, ViewPart[]>();
  for (const part of drawn.parts) {
    const record = drawn.pieces[part.piece]?.record ?? "";
    addTo(partsOf, record, part);
  }
  const wanted = rows.flatMap(({ pieces }) => {
    const parts = goodParts(
      pieces.flatMap(({ id }) => partsOf.get(id) ?? []),
      place.scale,
    );
    return parts.length === 0 ? [] : [parts];
  });
  const old = there.map(({ pieces, stands }) => ({
    tips: pieces[0] ? tipsOf(pieces[0], drawn, place) : [],
    stands,
  }));
  const fresh = wanted.map((parts) => ({ tips: parts.map(({ at }) => place.onPaper(at)), stands: null }));
  return balloonPlaces([...old, ...fresh], ringGround(ground))
    .slice(old.length)
    .flatMap(({ stands, tip, crowded }, i): BalloonItem[] => {
      if (crowded) return [];
      const part = wanted[i]?.[tip ?? 0];
      const piece = part && drawn.pieces[part.piece];
      if (!piece) return [];
      return [
        {
          ...view,
          id: newId(),
          kind: "balloon",
          pieces: [{ record: piece.record, way: piece.way || null, spot: null }],
          stands,
        },
      ];
    });
}
