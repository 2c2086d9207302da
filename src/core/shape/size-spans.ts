/**
 * Where key sizes show in the picture: for each length the stretch that is as long as it and grows with it, found by
 * making the size a little larger and looking what follows. Whatever formulas lie between is of no matter.
 */
import { type End, kindOf, tipOf } from "../ends";
import { add, distance, scale, type Vec3 } from "../geometry";
import { type Home, type Job, type KeySize, resolveSizes, type Sizes, type VariantId } from "../job";
import { at } from "../kernel";
import { MM_PER_UNIT } from "../measure";
import type { Stockroom } from "../stockroom";
import { meshesOf, type Shape, shapeJob } from "./shape";

/** A key size with the stretch that it measures, and the way in which a dimension line stands off it. */
export type SizeSpan = {
  readonly size: KeySize;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly off: Vec3;
};

type Stretch = Omit<SizeSpan, "size">;

/** mm. How much larger a size is made; far above rounding, far below what would break a design. */
const GROWTH_MM = 0.5;
/** mm. What two lengths may differ by and still be the same stretch. */
const SAME_MM = 1e-3;
/** Designs with more pieces are looked at by their lines and panels alone; each size means shaping them anew. */
const MOST_PIECES = 600;

/** The spans of all key sizes that have one, in the order of their list. */
export function sizeSpans(
  job: Job,
  { variant, sizes, shape, home = null }: Ground,
  stockroom: Stockroom,
): readonly SizeSpan[] {
  const pieces = shape.members.length + shape.panels.length;
  const now = stretches(job, shape, home, pieces <= MOST_PIECES);
  const lengths = Object.values(job.keySizes)
    .filter((size) => size.measure === "length" && typeof sizes.scope.get(size.name) === "number")
    .sort((a, b) => a.position - b.position);
  const spans: SizeSpan[] = [];
  for (const size of lengths) {
    const unit = MM_PER_UNIT[job.info.job.unit];
    const value = Number(sizes.scope.get(size.name)) * unit;
    const likely = now.flatMap((one, i) => (Math.abs(spanOf(one) - value) < SAME_MM ? [i] : []));
    if (likely.length === 0) continue;
    const larger = withKeySize(job, size, (value + GROWTH_MM) / unit, variant);
    const then = stretches(job, shapeJob(larger.job, larger.sizes, stockroom), home, pieces <= MOST_PIECES);
    if (then.length !== now.length) continue;
    const found = likely.find((i) => Math.abs(spanOf(at(then, i)) - value - GROWTH_MM) < SAME_MM);
    if (found !== undefined) spans.push({ size, ...at(now, found) });
  }
  return spans;
}

type Ground = {
  readonly variant: VariantId | null;
  readonly sizes: Sizes;
  readonly shape: Shape;
  readonly home?: Home;
};

const spanOf = ({ from, to }: Stretch) => distance(from, to);

/** The job with one key size set to a value in the job's unit, whatever its formula, range or variant says. */
export function withKeySize(job: Job, size: KeySize, value: number, variantId: VariantId | null) {
  const set = { ...size, formula: value.toFixed(6), least: null, greatest: null };
  const variant = variantId === null ? undefined : job.variants[variantId];
  const { [size.name]: _, ...formulas } = variant?.formulas ?? {};
  const larger: Job = {
    ...job,
    keySizes: { ...job.keySizes, [size.id]: set },
    variants: variant ? { ...job.variants, [variant.id]: { ...variant, formulas } } : job.variants,
  };
  return { job: larger, sizes: resolveSizes(larger, variantId) };
}

/** All stretches that a size could measure, the largest kind first; the same order whatever the sizes are. */
function stretches(job: Job, shape: Shape, home: Home, withSolids: boolean): readonly Stretch[] {
  return [
    ...(withSolids && home === null ? overAll(shape) : []),
    ...memberReaches(shape, home),
    ...panelEdges(shape, home),
    ...lines(job, shape, home),
  ];
}

const LEFT: Vec3 = [-1, 0, 0];
const FRONT: Vec3 = [0, -1, 0];
const RIGHT: Vec3 = [1, 0, 0];

/** Width along the front, depth along the right side, height up the left of everything. */
function overAll(shape: Shape): readonly Stretch[] {
  const low: [number, number, number] = [1e9, 1e9, 1e9];
  const high: [number, number, number] = [-1e9, -1e9, -1e9];
  for (const { mesh } of meshesOf(shape))
    for (let k = 0; k < mesh.places.length; k += 3)
      for (const i of [0, 1, 2] as const) {
        const place = at(mesh.places, k + i);
        low[i] = Math.min(low[i], place);
        high[i] = Math.max(high[i], place);
      }
  if (low[0] > high[0]) return [];
  return [
    { from: low, to: [high[0], low[1], low[2]], off: FRONT },
    { from: [high[0], low[1], low[2]], to: [high[0], high[1], low[2]], off: RIGHT },
    { from: low, to: [low[0], low[1], high[2]], off: LEFT },
  ];
}

/** Members tip to tip, where no end is curved. */
function memberReaches(shape: Shape, home: Home): readonly Stretch[] {
  return shape.members
    .filter((solid) => solid.home === home && isOfPlanes(solid.start.form) && isOfPlanes(solid.end.form))
    .map(({ frame, entry, start, end }): Stretch => {
      const tip = (z: number) => add(frame.origin, scale(frame.z, z));
      const [low, high] = [start.z - tipOf(entry.shape, start.form), end.z + tipOf(entry.shape, end.form)];
      const [dx, dy, dz] = frame.z.map(Math.abs) as [number, number, number];
      return { from: tip(low), to: tip(high), off: dz > 0.7 ? LEFT : dy > dx ? RIGHT : FRONT };
    });
}

const isOfPlanes = (end: End) => kindOf(end).faces(end) !== null;

function panelEdges(shape: Shape, home: Home): readonly Stretch[] {
  return shape.panels
    .filter(({ panel }) => panel.assembly === home)
    .flatMap(({ frame, length, width }): Stretch[] => [
      { from: frame.origin, to: add(frame.origin, scale(frame.x, length)), off: scale(frame.y, -1) },
      { from: frame.origin, to: add(frame.origin, scale(frame.y, width)), off: scale(frame.x, -1) },
    ]);
}

/** Lines, and the heights of their points above the ground. */
function lines(job: Job, shape: Shape, home: Home): readonly Stretch[] {
  const along = Object.values(job.lines).flatMap((line): Stretch[] => {
    const [from, to] = [shape.points.get(line.from), shape.points.get(line.to)];
    if (!from || !to || job.points[line.from]?.assembly !== home) return [];
    return [{ from, to, off: Math.abs(to[2] - from[2]) > Math.abs(to[0] - from[0]) ? LEFT : FRONT }];
  });
  const heights = [...shape.points].flatMap(([id, place]): Stretch[] =>
    job.points[id]?.assembly === home ? [{ from: [place[0], place[1], 0], to: place, off: LEFT }] : [],
  );
  return [...along, ...heights];
}
