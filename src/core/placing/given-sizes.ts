/** The sizes of the pages as what they say of the places of bodies. */
import { AXIS, areEqualSteps, axesOfView, baseOf, isSquareView, subjectOfView, viewIn } from "../drawing";
import {
  cross,
  dot,
  norm,
  type Pose,
  poseIn,
  scale,
  subtract,
  toLocal,
  toWorld,
  turned,
  type Vec3,
} from "../geometry";
import type { Assets, Feature, Home, Job, PageItem, SizeItem, VariantId } from "../job";
import { itemsOfPage, pageStyle, pagesInOrder } from "../job";
import { at, LENGTH_TOLERANCE_MM } from "../kernel";
import { formatLength, type LengthStyle, parseLength } from "../measure";
import { featuresOf, type Shape, standInOf } from "../shape";
import { bodyKey } from "./bodies";

/** What a size holds: two points apart along a direction, or two directions at an angle. */
type GivenHold =
  | { readonly kind: "apart"; readonly atA: Vec3; readonly atB: Vec3; readonly along: Vec3 }
  | { readonly kind: "angle"; readonly about: Vec3 };

/** A size between two bodies of a home, in its axes. */
export type GivenSize = {
  readonly id: string;
  /** The item whose step it is, and how many equal steps that has; not there: it is an item by itself. */
  readonly step?: { readonly of: string; readonly count: number };
  readonly home: Home;
  /** Keys of bodies. */
  readonly a: string;
  readonly b: string;
  readonly hold: GivenHold;
  /** In mm; null: it is an angle. */
  readonly length: number | null;
  /** What is written less what is so, in mm; 0 for angles. */
  readonly rounding: number;
  /** In brackets: for reference, it says nothing of its own. */
  readonly brackets: boolean;
};

export type GivenSizes = {
  /** In the order of the pages. */
  readonly sizes: readonly GivenSize[];
  /** Sizes of a piece by itself that are not in brackets: the lists say them already. */
  readonly ofOnePiece: readonly string[];
  /** Typed over with another value than the design has. */
  readonly contrary: readonly string[];
};

/** All sizes of a job's pages in one variant. Sizes that are lost, or typed over with what is no length, say nothing. */
export function givenSizes(job: Job, shape: Shape, variant: VariantId | null, assets: Assets): GivenSizes {
  const sizes: GivenSize[] = [];
  const ofOnePiece: string[] = [];
  const contrary: string[] = [];
  const standing = createStanding(shape);
  for (const page of pagesInOrder(job)) {
    const items = itemsOfPage(job, page.id);
    const byId = new Map<string, PageItem>(items.map((item) => [item.id, item]));
    const find = (id: string) => byId.get(id);
    for (const item of items) {
      if (item.kind !== "size") continue;
      const view = find(item.view);
      if (view?.kind !== "view") continue;
      const subject = subjectOfView(view, find);
      // Where pieces are not in their places nothing is measured.
      if (subject.apart) continue;
      const axes = axesOfView(view, find, page.projection);
      const base = axes && baseOf(shape, subject);
      if (!axes || !base || (subject.variant !== null && subject.variant !== variant)) continue;
      const isShown = ({ record }: Feature) => !subject.hidden.includes(record);
      const place = (feature: Feature) =>
        isShown(feature) ? placedFeature(feature, shape, base, assets) : null;
      const { right, up, towards } = viewIn(base.frame, axes);
      const seen = { right, up, towards, isSquare: isSquareView(axes) };
      const places = [item.from, ...item.between, ...(item.to ? [item.to] : [])].flatMap(
        (feature) => place(feature) ?? [],
      );
      const [from, ...others] = places;
      if (item.measure === "diameter" || item.measure === "radius") {
        if (from && !item.brackets) ofOnePiece.push(item.id);
        continue;
      }
      const to = others.at(-1);
      if (!from || !to || places.length < item.between.length + 2) continue;
      const steps = others.map((other, i) => {
        const ends = [at(places, i), other] as const;
        return { between: standing.between(...ends), told: toldBy(item, ends, seen) };
      });
      if (steps.every(({ between }) => between === null)) {
        if (!item.brackets) ofOnePiece.push(item.id);
        continue;
      }
      const whole = toldBy(item, [from, to], seen);
      if (!whole) continue;
      // Of steps that are not equal the page says so.
      const lengths = steps.map(({ told }) => told?.length ?? Number.NaN);
      if (steps.length > 1 && !areEqualSteps(lengths, whole.length ?? Number.NaN)) continue;
      const written = whole.length === null ? 0 : writtenLess(item, whole.length, pageStyle(page, job));
      if (written === null) continue;
      if (item.typed !== null && Math.abs(written) > CONTRARY_MM) contrary.push(item.id);
      // What is written is the whole; each step is its part.
      const rounding = item.typed === null ? written / steps.length : 0;
      for (const [i, { between, told }] of steps.entries()) {
        if (!between || !told) continue;
        const { home, pose, a, b } = between;
        sizes.push({
          ...(steps.length === 1
            ? { id: item.id }
            : { id: `${item.id} step ${i + 1}`, step: { of: item.id, count: steps.length } }),
          home,
          a,
          b,
          hold: inHome(told.hold, pose),
          length: told.length,
          rounding,
          brackets: item.brackets,
        });
      }
    }
  }
  return { sizes, ofOnePiece, contrary };
}

/** The item of the pages that says a size. */
export const itemOfSize = ({ id, step }: Pick<GivenSize, "id" | "step">): string => step?.of ?? id;

/** mm. What somebody types is no nearer to the design than what is printed. */
const CONTRARY_MM = 0.5;

/** A feature where it stands in the job. */
export type Placed = {
  readonly record: string;
  readonly nth: number;
  readonly way: string;
  readonly at: Vec3;
  /** Along a member whose line is meant. */
  readonly axis: Vec3 | null;
};

type Base = NonNullable<ReturnType<typeof baseOf>>;

export function placedFeature(
  { record, way, place }: Feature,
  shape: Shape,
  base: Base,
  assets: Assets,
): Placed | null {
  const features = featuresOf(shape, record, assets);
  if (!features) return null;
  const instance = (shape.places.get(features.home) ?? []).find(
    (one) => base.holds(record, one) && (way === null || one.key === way),
  );
  if (!instance) return null;
  const { frame } = poseIn(instance.pose, { frame: features.frame, mirrored: false });
  const [start, end] = [features.places.get("start, axis"), features.places.get("end, axis")];
  const own = place === AXIS ? start : features.places.get(place);
  if (!own) return null;
  const axis = place === AXIS && start && end ? turned(frame, subtract(end, start)) : null;
  return { record, nth: standInOf(place), way: instance.key, at: toWorld(frame, own), axis };
}

type View = { readonly right: Vec3; readonly up: Vec3; readonly towards: Vec3; readonly isSquare: boolean };

/** What a size says, in the axes of the job; null: it cannot be read there, which its page says. */
export function toldBy(
  { measure }: Pick<SizeItem, "measure">,
  [a, b]: readonly [Placed, Placed],
  { right, up, towards, isSquare }: View,
): { readonly hold: GivenHold; readonly length: number | null } | null {
  if (measure === "angle") {
    if (!a.axis || !b.axis) return null;
    const about = cross(a.axis, b.axis);
    const size = norm(about);
    return size < 1e-6 * norm(a.axis) * norm(b.axis)
      ? null
      : { hold: { kind: "angle", about: scale(about, 1 / size) }, length: null };
  }
  const way = subtract(b.at, a.at);
  const apart = (axis: Vec3) => {
    const length = dot(way, axis);
    const along = length < 0 ? scale(axis, -1) : axis;
    return { hold: { kind: "apart", atA: a.at, atB: b.at, along } as const, length: Math.abs(length) };
  };
  if (measure !== "along") return isSquare ? apart(measure === "horizontal" ? right : up) : null;
  const seen = isSquare ? subtract(way, scale(towards, dot(way, towards))) : way;
  const size = norm(seen);
  return size < 0.01 ? null : apart(scale(seen, 1 / size));
}

/** What is written of a length less what it is; null: it cannot be read. */
function writtenLess({ typed }: SizeItem, length: number, style: LengthStyle): number | null {
  const read = parseLength(typed ?? formatLength(length, style, LENGTH_TOLERANCE_MM), style.unit);
  return read.ok ? read.value - length : null;
}

export function inHome(hold: GivenHold, { frame }: Pose): GivenHold {
  const way = (v: Vec3): Vec3 => [dot(v, frame.x), dot(v, frame.y), dot(v, frame.z)];
  return hold.kind === "angle"
    ? { kind: "angle", about: way(hold.about) }
    : { kind: "apart", atA: toLocal(frame, hold.atA), atB: toLocal(frame, hold.atB), along: way(hold.along) };
}

/** Of two places the bodies in the innermost home that holds both. */
function createStanding(shape: Shape) {
  const homes = new Map<string, { readonly home: Home; readonly pose: Pose }>();
  for (const [home, instances] of shape.places)
    for (const { key, pose } of instances) homes.set(key, { home, pose });
  return {
    /** null: both are of one piece. */
    between: (one: Pick<Placed, "record" | "nth" | "way">, other: Pick<Placed, "record" | "nth" | "way">) => {
      const [mine, its] = [steps(one.way), steps(other.way)];
      let shared = 0;
      while (shared < mine.length && mine[shared] === its[shared]) shared++;
      const bodyOf = ({ record, nth }: typeof one, way: readonly string[]) =>
        way[shared] ?? bodyKey(record, nth);
      const [a, b] = [bodyOf(one, mine), bodyOf(other, its)];
      const found = homes.get(mine.slice(0, shared).join(""));
      return a === b || !found ? null : { ...found, a, b };
    },
  };
}

const steps = (way: string): readonly string[] => way.match(/[^/]*\//g) ?? [];
