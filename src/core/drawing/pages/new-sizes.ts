/** New sizes of a view: what the pointer catches on, where a new dimension line stands, and the over-all ones. */
import { distance, type Vec2 } from "../../geometry";
import type { Assets, Feature, SizeItem } from "../../job";
import type { Shape } from "../../shape";
import type { DrawnView } from "./drawn-view";
import { pieceAt } from "./picking";
import { FIRST_OUT, NEXT_OUT } from "./size-parts";
import type { ViewAsked } from "./view-asked";
import type { ViewPiece } from "./view-base";
import type { ViewPlace } from "./view-item";
import { AXIS, placesInView, type SeenFeature } from "./view-places";

export type CatchGround = {
  readonly shape: Shape;
  readonly asked: ViewAsked;
  readonly assets: Assets;
  readonly drawn: DrawnView;
  readonly place: ViewPlace;
};

export type CaughtFeature = {
  readonly feature: Feature;
  readonly seen: SeenFeature;
  /** On paper, from the place of the view. */
  readonly at: Vec2;
};

const featureOf = ({ record, way }: ViewPiece, place: string): Feature => ({
  record,
  way: way || null,
  place,
});

/**
 * What a new size may take hold of near a place of the paper: for angles a member's line, for diameters a hole, for radii a rounded corner, else a named
 * place; of several that lie together the one nearest to the viewer. null: there is nothing within reach.
 */
export function catchFeature(
  measure: SizeItem["measure"],
  point: Vec2,
  reach: number,
  { shape, asked, assets, drawn, place }: CatchGround,
): CaughtFeature | null {
  let best: (CaughtFeature & { readonly away: number }) | null = null;
  const there = pieceAt(drawn, place, point, reach);
  const near = piecesNear(drawn, place, point, 3 * reach);
  // A member is taken by any place on it, whatever else is near.
  for (const piece of measure === "angle" ? (there ? [there] : []) : near) {
    for (const [name, seen] of placesInView(shape, asked, piece, assets) ?? []) {
      if ((name === AXIS) !== (measure === "angle")) continue;
      const round = measure === "diameter" ? half(seen.diameter) : measure === "radius" ? seen.radius : 0;
      if (round === null) continue;
      const at = place.onPaper([seen.at[0], seen.at[1]]);
      const away = measure === "angle" ? 0 : Math.hypot(at[0] - point[0], at[1] - point[1]);
      const within = round * place.scale + reach;
      if (away > within) continue;
      const nearer = best === null || away < best.away - 0.05;
      const before = best !== null && Math.abs(away - best.away) <= 0.05 && seen.at[2] > best.seen.at[2];
      if (nearer || before) best = { feature: featureOf(piece, name), seen, at, away };
    }
  }
  return best;
}

/** Where a place of a piece lies on paper, from the place of the view; null: it is not in it. */
export function featurePlace(
  { record, way, place: name }: Feature,
  { shape, asked, assets, place }: Pick<CatchGround, "shape" | "asked" | "assets" | "place">,
): Vec2 | null {
  const seen = placesInView(shape, asked, { record, way: way ?? "" }, assets)?.get(name);
  return seen ? place.onPaper([seen.at[0], seen.at[1]]) : null;
}

const half = (diameter: number | null): number | null => (diameter === null ? null : diameter / 2);

/** Pieces that have a line near a place, or are seen there. */
function piecesNear(drawn: DrawnView, place: ViewPlace, [x, y]: Vec2, reach: number): readonly ViewPiece[] {
  const [cx, cy] = place.fromPaper([x, y]);
  const far = reach / place.scale;
  const found = new Set<number>();
  for (const { from, to, owners } of drawn.lines) {
    // A box round the line is enough: what it lets through is looked at place by place.
    if (Math.min(from[0], to[0]) > cx + far || Math.max(from[0], to[0]) < cx - far) continue;
    if (Math.min(-from[1], -to[1]) > cy + far || Math.max(-from[1], -to[1]) < cy - far) continue;
    for (const owner of owners) found.add(owner);
  }
  return [...found].flatMap((owner) => drawn.pieces[owner] ?? []);
}

export type SizeStand = Pick<SizeItem, "side" | "out">;

/** Where the line of a new size stands: on the nearer side of the view, in the first row that is free there. */
export function standOfSize(
  measure: SizeItem["measure"],
  [a, b]: readonly [Vec2, Vec2],
  there: readonly SizeItem[],
): SizeStand {
  if (measure === "along") return { side: "own", out: 8 };
  if (measure === "angle") return { side: "own", out: 15 };
  if (measure === "diameter" || measure === "radius") return { side: "own", out: 6 };
  const [x, y] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const side = measure === "horizontal" ? (y < 0 ? "top" : "bottom") : x < 0 ? "left" : "right";
  const rows = there.filter((one) => one.side === side).map(({ out }) => out);
  let out = FIRST_OUT;
  while (rows.some((one) => Math.abs(one - out) < NEXT_OUT - 0.01)) out += NEXT_OUT;
  return { side, out };
}

export type NewSize = Pick<SizeItem, "measure" | "from" | "to" | "side" | "out">;

/** The over-all sizes of a view: the places of its pieces that lie farthest apart, across and up. */
export function overallSizes(
  { shape, asked, assets, drawn, place }: CatchGround,
  there: readonly SizeItem[],
): readonly NewSize[] {
  type End = { readonly feature: Feature; readonly at: Vec2 };
  const ends: (End | null)[] = [null, null, null, null];
  for (const piece of drawn.pieces)
    for (const [name, { at }] of placesInView(shape, asked, piece, assets) ?? []) {
      if (name === AXIS) continue;
      const one: End = { feature: featureOf(piece, name), at: [at[0], at[1]] };
      for (const [i, sign, axis] of [
        [0, -1, 0],
        [1, 1, 0],
        [2, -1, 1],
        [3, 1, 1],
      ] as const) {
        const before = ends[i];
        if (!before || sign * (one.at[axis] - before.at[axis]) > 1e-6) ends[i] = one;
      }
    }
  const [left, right, top, bottom] = ends;
  if (!left || !right || !top || !bottom) return [];
  const free = (side: SizeItem["side"]): number => {
    const outs = there.filter((one) => one.side === side).map(({ out }) => out);
    return outs.length === 0 ? FIRST_OUT : Math.max(...outs) + NEXT_OUT;
  };
  const apart = (a: End, b: End) => distance([...a.at, 0], [...b.at, 0]) * place.scale > 1;
  return [
    ...(apart(left, right)
      ? [
          {
            measure: "horizontal",
            from: left.feature,
            to: right.feature,
            side: "bottom",
            out: free("bottom"),
          } as const,
        ]
      : []),
    ...(apart(top, bottom)
      ? [
          {
            measure: "vertical",
            from: top.feature,
            to: bottom.feature,
            side: "left",
            out: free("left"),
          } as const,
        ]
      : []),
  ];
}
