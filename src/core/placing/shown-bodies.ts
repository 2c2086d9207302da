/** What the views of a page show of the bodies of a home: places that sizes may measure from and to. */
import {
  AXIS,
  axesOfView,
  baseOf,
  type DrawnView,
  isSquareView,
  placesInView,
  subjectOfView,
  viewIn,
} from "../drawing";
import type { Vec2, Vec3 } from "../geometry";
import type { Assets, Feature, Job, Page, PageItem, Sizes } from "../job";
import type { Instance, Shape } from "../shape";
import { type Body, bodyKey } from "./bodies";
import { type Placed, placedFeature } from "./given-sizes";
import type { HomePlacing } from "./placing";

export type ProposalGround = {
  readonly job: Job;
  readonly sizes: Sizes;
  readonly shape: Shape;
  readonly assets: Assets;
  readonly page: Page;
  readonly items: readonly PageItem[];
  /** Views as they are drawn, by the ids of their items. */
  readonly views: ReadonlyMap<string, DrawnView>;
  /** Of each view its scale on the page. */
  readonly scales: ReadonlyMap<string, number>;
};

/** A place that a size may measure from or to. */
export type Spot = { readonly feature: Feature; readonly placed: Placed; readonly at: Vec2 };
/** Of a level that a body reaches the place at either end of its edge: the one nearer to the side where a dimension line stands is taken. */
export type Level = { readonly first: Spot; readonly last: Spot };
export type Sides = { readonly low: Level; readonly high: Level };

/** What a body shows in a view: its sides across and up, and places along it where it is turned. */
type Shown = {
  readonly across: Sides | null;
  readonly up: Sides | null;
  readonly points: readonly Spot[];
  readonly axis: Spot | null;
};

export type ViewOfHome = {
  readonly view: string;
  readonly scale: number;
  readonly right: Vec3;
  readonly up: Vec3;
  readonly towards: Vec3;
  readonly instance: Instance;
  /** It is a view of this home, not of one around it. */
  readonly isOwn: boolean;
  readonly shown: ReadonlyMap<number, Shown>;
};

/** The views of a page that look square at a home, with what its bodies show in each. */
export function viewsOfHome(placing: HomePlacing, ground: ProposalGround): readonly ViewOfHome[] {
  const { shape, page, items, views, scales } = ground;
  const byId = new Map<string, PageItem>(items.map((item) => [item.id, item]));
  const find = (id: string) => byId.get(id);
  const found = items.flatMap((item): ViewOfHome[] => {
    const drawn = views.get(item.id);
    if (item.kind !== "view" || item.from.kind === "detail" || !drawn) return [];
    const subject = subjectOfView(item, find);
    if (subject.apart) return [];
    const axes = axesOfView(item, find, page.projection);
    const base = axes && baseOf(shape, subject);
    if (!axes || !base || !isSquareView(axes) || subject.of.kind === "piece") return [];
    const { of } = subject;
    const isThere = (one: Instance) =>
      of.kind === "assembly" ? of.assembly === placing.home && base.holds("", one) : true;
    const instance = (shape.places.get(placing.home) ?? []).find(
      (one) => one.counted === "listed" && isThere(one),
    );
    if (!instance) return [];
    const frame = viewIn(base.frame, axes);
    const pieces = shownIn({ drawn, instance, placing, ground, asked: { of, axes }, base });
    const isOwn = of.kind === "assembly" ? of.assembly === placing.home : placing.home === null;
    return [
      { view: item.id, scale: scales.get(item.id) ?? page.scale, ...frame, instance, isOwn, shown: pieces },
    ];
  });
  const own = found.filter(({ isOwn }) => isOwn);
  return own.length > 0 ? own : found;
}

type ShownGround = {
  readonly drawn: DrawnView;
  readonly instance: Instance;
  readonly placing: HomePlacing;
  readonly ground: ProposalGround;
  readonly asked: Parameters<typeof placesInView>[1];
  readonly base: NonNullable<ReturnType<typeof baseOf>>;
};

/** mm. A place lies on a visible line of its piece when it is so near to the edge of what is seen of it. */
export const ON_EDGE = 0.05;

function shownIn({ drawn, instance, placing, ground, asked, base }: ShownGround): ReadonlyMap<number, Shown> {
  const { shape, assets } = ground;
  const numbers = new Map(placing.bodies.map(({ key }, i) => [key, i]));
  const seen = seenLevels(drawn);
  const shown = new Map<
    number,
    { across: Sides | null; up: Sides | null; points: Spot[]; axis: Spot | null }
  >();
  for (const [number, piece] of drawn.pieces.entries()) {
    const levels = seen.get(number);
    if (!levels || !piece.way.startsWith(instance.key)) continue;
    const step = piece.way.slice(instance.key.length, piece.way.indexOf("/", instance.key.length) + 1);
    for (const [place, { at: spot }] of placesInView(shape, asked, piece, assets) ?? []) {
      const feature: Feature = { record: piece.record, way: piece.way || null, place };
      const placed = placedFeature({ ...feature, way: piece.way }, shape, base, assets);
      const body = placed && numbers.get(step === "" ? bodyKey(piece.record, placed.nth) : step);
      if (!placed || body === undefined || body === null) continue;
      const one: Spot = { feature, placed, at: [spot[0], spot[1]] };
      const known = shown.get(body) ?? { across: null, up: null, points: [], axis: null };
      shown.set(body, known);
      if (place === AXIS) {
        if (step === "") known.axis = one;
        continue;
      }
      if (isPoint(place, placing.bodies[body])) known.points.push(one);
      if (hasLevel(levels.across, one.at[0])) known.across = wider(known.across, one, 0);
      if (hasLevel(levels.up, one.at[1])) known.up = wider(known.up, one, 1);
    }
  }
  return shown;
}

/** Of what is turned the ends of its line, or corners of a face; of round pieces the ends of their axis. */
function isPoint(place: string, body: Body | undefined): boolean {
  if (body?.isRound) return place.endsWith(", axis");
  if (!body || body.turns.length === 0) return false;
  return place.endsWith(", axis") || place.startsWith("good face, ");
}

function wider(sides: Sides | null, one: Spot, axis: 0 | 1): Sides {
  const alone: Level = { first: one, last: one };
  if (!sides) return { low: alone, high: alone };
  const level = (before: Level, sign: 1 | -1): Level => {
    const by = sign * (one.at[axis] - before.first.at[axis]);
    if (Math.abs(by) <= ON_EDGE) {
      const cross = (spot: Spot) => spot.at[1 - axis] ?? 0;
      return {
        first: cross(one) < cross(before.first) ? one : before.first,
        last: cross(one) > cross(before.last) ? one : before.last,
      };
    }
    return by > 0 ? alone : before;
  };
  return { low: level(sides.low, -1), high: level(sides.high, 1) };
}

/** The levels across and up at which something of a piece is seen to end, by its number. */
type SeenLevels = { readonly across: ReadonlySet<number>; readonly up: ReadonlySet<number> };

const stepOf = (value: number): number => Math.round(value / ON_EDGE);
const hasLevel = (levels: ReadonlySet<number>, value: number): boolean =>
  [-1, 0, 1].some((beside) => levels.has(stepOf(value) + beside));

/** Lines of several pieces may be one; where it ends something of one of them does. y downwards. */
function seenLevels({ lines }: DrawnView): ReadonlyMap<number, SeenLevels> {
  const seen = new Map<number, { readonly across: Set<number>; readonly up: Set<number> }>();
  for (const { from, to, kind, owners } of lines) {
    if (kind === "hidden") continue;
    for (const owner of owners) {
      const levels = seen.get(owner) ?? { across: new Set(), up: new Set() };
      seen.set(owner, levels);
      for (const [x, y] of [from, to]) {
        levels.across.add(stepOf(x));
        levels.up.add(stepOf(-y));
      }
    }
  }
  return seen;
}
