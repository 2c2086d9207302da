/**
 * The sizes that pages need: over all, and for whatever is not placed yet one for each direction, chosen by cost. An equation is
 * taken when it says something new; taking the cheapest first gives the fewest sizes and the least cost (a linear matroid).
 */
import { featureKey } from "../drawing";
import { dot, type Vec3 } from "../geometry";
import type { Feature, SizeItem } from "../job";
import { addTo, at, byKey, byNumber, byText, inTurn, LENGTH_TOLERANCE_MM } from "../kernel";
import { MM_PER_UNIT } from "../measure";
import { inHome, toldBy } from "./given-sizes";
import { DIRECTIONS, type Freedom, type HomePlacing, sizeCells, taken } from "./placing";

import {
  type Level,
  ON_EDGE,
  type ProposalGround,
  type Sides,
  type Spot,
  type ViewOfHome,
  viewsOfHome,
} from "./shown-bodies";

/** A size of a view, before it has a row to stand in. */
export type ProposedSize = {
  readonly measure: SizeItem["measure"];
  readonly from: Feature;
  readonly to: Feature;
  /** What parts it into equal steps. */
  readonly between: readonly Feature[];
  readonly view: string;
  /** For reference: it follows from what else is told. */
  readonly brackets: boolean;
};

type Candidate = {
  readonly size: ProposedSize;
  /** mm; null: it is an angle. */
  readonly length: number | null;
  /** Where it begins and ends in the view, across and up. */
  readonly ends: readonly [readonly number[], readonly number[]];
  readonly cells: ReadonlyMap<number, number>;
  readonly cost: number;
  readonly key: string;
};

/**
 * Sizes that a page should have for the bodies of a home; none where no view of the page looks square at it. `only`: for these
 * bodies alone, without over-all sizes.
 */
export function proposedSizes(
  placing: HomePlacing,
  ground: ProposalGround,
  only: readonly number[] | null = null,
): readonly ProposedSize[] {
  const views = viewsOfHome(placing, ground);
  if (views.length === 0) return [];
  const { elimination } = taken(placing, placing.sizes, placing.datum);
  const chosen: ProposedSize[] = [];
  for (const { size, cells } of only ? [] : overallSizes(views, placing, ground)) {
    const brackets = !elimination.isNew(cells);
    chosen.push({ ...size, brackets });
    if (!brackets) elimination.take(cells);
  }
  const wanted = new Set(only ?? placing.loose.flatMap(({ bodies }) => bodies));
  const candidates = views
    .flatMap((view) => candidatesIn(view, placing, wanted, ground))
    .sort(
      inTurn(
        byKey(({ cost }) => cost, byNumber),
        byKey(({ key }) => key, byText),
      ),
    );
  const needed: Candidate[] = [];
  for (const one of candidates) {
    if (!elimination.isNew(one.cells)) continue;
    elimination.take(one.cells);
    needed.push(one);
  }
  return [...chosen, ...inEqualSteps(needed)];
}

/** mm. Steps that differ by more are not equal. */
const EQUAL_MM = 0.005;

/** Sizes that follow one another in a view from place to place, all equally long, as one with its steps. */
function inEqualSteps(
  needed: readonly Pick<Candidate, "size" | "length" | "ends">[],
): readonly ProposedSize[] {
  type One = { readonly size: ProposedSize; readonly length: number | null };
  const sizes = needed.map(({ size, length, ends: [a, b] }): One => {
    const axis = size.measure === "vertical" ? 1 : 0;
    const isBackwards = (a[axis] ?? 0) > (b[axis] ?? 0);
    return { length, size: isBackwards ? { ...size, from: size.to, to: size.from } : size };
  });
  const placeKey = ({ size: { view, measure } }: One, place: Feature) =>
    JSON.stringify([view, measure, featureKey(place)]);
  const isLength = ({ size: { measure } }: One) => measure === "horizontal" || measure === "vertical";
  const from = new Map<string, One[]>();
  for (const one of sizes) {
    const key = placeKey(one, one.size.from);
    addTo(from, key, one);
  }
  const equal = (a: One, b: One) =>
    a.length !== null && b.length !== null && Math.abs(a.length - b.length) < EQUAL_MM;
  const nextOf = (one: One): One | undefined =>
    isLength(one)
      ? from.get(placeKey(one, one.size.to))?.find((other) => other !== one && equal(one, other))
      : undefined;
  const followed = new Set(sizes.flatMap((one) => nextOf(one) ?? []));
  const used = new Set<One>();
  const made: ProposedSize[] = [];
  // From where each run begins; whatever goes round is left as it is.
  for (const start of [...sizes.filter((one) => !followed.has(one)), ...sizes]) {
    if (used.has(start)) continue;
    const run: One[] = [];
    for (let one: One | undefined = start; one && !used.has(one); one = nextOf(one)) {
      run.push(one);
      used.add(one);
    }
    const last = at(run, run.length - 1);
    made.push({
      ...start.size,
      between: run.slice(1).map(({ size }) => size.from),
      to: last.size.to,
    });
  }
  return made;
}

const WAYS = [
  ["across", "horizontal", 0],
  ["up", "vertical", 1],
] as const;

/** The equation of a size; null: it says nothing of places. */
function candidateOf(
  { view, instance, right, up, towards }: ViewOfHome,
  placing: HomePlacing,
  measure: ProposedSize["measure"],
  [a, b]: readonly [Spot, Spot],
  bodies: readonly [number, number],
): Omit<Candidate, "cost"> | null {
  const told = toldBy({ measure }, [a.placed, b.placed], { right, up, towards, isSquare: true });
  if (!told) return null;
  const [first, second] = [at(placing.bodies, bodies[0]).key, at(placing.bodies, bodies[1]).key];
  const numbers = new Map([
    [first, bodies[0]],
    [second, bodies[1]],
  ]);
  const hold = inHome(told.hold, instance.pose);
  const cells = sizeCells(placing.bodies, placing.solved.unknowns, { a: first, b: second, hold }, numbers);
  const size = { view, measure, from: a.feature, to: b.feature, between: [], brackets: false };
  return {
    size,
    cells,
    length: told.length,
    ends: [a.at, b.at],
    key: JSON.stringify([view, measure, a.feature, b.feature]),
  };
}

const levelAt = ({ first }: Level, axis: 0 | 1): number => first.at[axis];
const nearOf = ({ first, last }: Level, isLast: boolean): Spot => (isLast ? last : first);

/** Over all, once for each direction of the home; not where a size says so already. */
function overallSizes(
  views: readonly ViewOfHome[],
  placing: HomePlacing,
  ground: ProposalGround,
): readonly Pick<Candidate, "size" | "cells">[] {
  const found: Pick<Candidate, "size" | "cells">[] = [];
  const done: Vec3[] = [];
  for (const view of views.filter(({ isOwn }) => isOwn))
    for (const [way, measure, axis] of WAYS) {
      const direction = axis === 0 ? view.right : view.up;
      if (done.some((one) => Math.abs(dot(one, direction)) > 0.999)) continue;
      const sides = [...view.shown].flatMap(([body, shown]) => (shown[way] ? [{ body, ...shown[way] }] : []));
      if (sides.length === 0) continue;
      const low = sides.reduce((a, b) => (levelAt(b.low, axis) < levelAt(a.low, axis) - ON_EDGE ? b : a));
      const high = sides.reduce((a, b) => (levelAt(b.high, axis) > levelAt(a.high, axis) + ON_EDGE ? b : a));
      done.push(direction);
      // Widths stand below, heights to the left.
      const spots = [nearOf(low.low, axis === 0), nearOf(high.high, axis === 0)] as const;
      const one = candidateOf(view, placing, measure, spots, [low.body, high.body]);
      if (one && !isGiven(one, placing) && !isOnView(one.size, ground)) found.push(one);
    }
  return found;
}

/** Whether a view has a size from and to the same places. */
const isOnView = ({ view, measure, from, to }: ProposedSize, { items }: ProposalGround): boolean =>
  items.some(
    (item) =>
      item.kind === "size" &&
      item.view === view &&
      item.measure === measure &&
      JSON.stringify([item.from, item.to]) === JSON.stringify([from, to]),
  );

/** Whether a size on the pages, in brackets or not, says the same between the same bodies. */
const isGiven = (
  { length }: { readonly length: number | null },
  { sizes, reference }: HomePlacing,
): boolean =>
  [...sizes, ...reference].some(
    (one) => length !== null && one.length !== null && Math.abs(one.length - length) < ON_EDGE,
  );

/** Points of cost: what a person would rather measure from, and read. */
const COST = {
  far: 3,
  neighbour: 5,
  next: 6,
  likeNext: -2,
  point: -1,
  angle: 3,
  ofKeySize: -2,
  turned: 2,
  bought: 3,
  optional: 4,
  narrow: 5,
} as const;

/** A body with the levels that it reaches along an axis of a view. */
type Reaching = Sides & { readonly body: number };

/** Where a body lies across an axis of a view, about. */
const levelCross = ({ low, high }: Reaching, axis: 0 | 1): number =>
  [low.first, low.last, high.first, high.last].reduce(
    (sum, { at: spot }) => sum + (spot[1 - axis] ?? 0) / 4,
    0,
  );

/** Twice the middle of what is shown, across an axis of a view. */
function spans(shown: readonly Reaching[], axis: number): number | null {
  const all = shown.flatMap(({ low, high }) =>
    [low.first, low.last, high.first, high.last].map((spot) => spot.at[axis] ?? 0),
  );
  return all.length === 0 ? null : Math.min(...all) + Math.max(...all);
}
/** mm. What is in line has no size. */
const LEAST_MM = 0.05;
/** mm on paper. A size that is narrower is hard to read. */
const NARROW = 12;

function candidatesIn(
  view: ViewOfHome,
  placing: HomePlacing,
  wanted: ReadonlySet<number>,
  ground: ProposalGround,
): readonly Candidate[] {
  const { bodies, relations, datum } = placing;
  const found: Candidate[] = [];
  const beside = neighboursOf(relations);
  // An assembly is placed by what is made in it, rather than by its knobs.
  const ofBought = ({ feature }: Spot) => (ground.job.boughtParts[feature.record] ? COST.bought : 0);
  const put = (
    measure: ProposedSize["measure"],
    spots: readonly [Spot, Spot],
    pair: readonly [number, number],
    cost: number,
  ) => {
    const one = candidateOf(view, placing, measure, spots, pair);
    if (!one || one.cells.size === 0 || (one.length !== null && one.length < LEAST_MM)) return;
    const turned = pair.some((body) => at(bodies, body).turns.length > 0) ? COST.turned : 0;
    const bought = ofBought(spots[0]) + ofBought(spots[1]);
    const optional = at(bodies, pair[0]).conditional ? COST.optional : 0;
    found.push({ ...one, cost: cost + turned + bought + optional + costOf(one.length, view.scale, ground) });
  };
  for (const [way, measure, axis] of WAYS) {
    const shown = [...view.shown].flatMap(([body, one]) => (one[way] ? [{ body, ...one[way] }] : []));
    shown.sort((a, b) => levelAt(a.low, axis) - levelAt(b.low, axis) || a.body - b.body);
    const firm = shown.filter(({ body }) => !isLoose(placing, body, view, axis));
    // What is not there in every variant is no place to measure from.
    const always = firm.filter(({ body }) => !at(bodies, body).conditional);
    const whole = always.length > 0 ? always : firm.length > 0 ? firm : shown;
    const lowest = whole[0];
    const highest = whole.reduce<Reaching | undefined>(
      (a, b) => (a && levelAt(a.high, axis) >= levelAt(b.high, axis) ? a : b),
      undefined,
    );
    // Heights are measured from the foot, which is the greater on paper.
    const [base, far] = axis === 0 ? ([lowest, highest] as const) : ([highest, lowest] as const);
    const baseOf = (one: Reaching) => (axis === 0 ? one.low : one.high);
    const farOf = (one: Reaching) => (axis === 0 ? one.high : one.low);
    const middle = (spans(shown, 1 - axis) ?? 0) / 2;
    for (const [i, one] of shown.entries()) {
      if (!wanted.has(one.body) && one.body !== datum) continue;
      // The dimension line stands on the side of the view that the body is nearer to.
      const isLast = levelCross(one, axis) >= middle;
      const next = [shown[i - 1], shown[i + 1]];
      const like = (other: Reaching) => at(bodies, other.body).like === at(bodies, one.body).like;
      const others: (readonly [Reaching | undefined, number])[] = [
        [base, 0],
        [far, COST.far],
        ...shown
          .filter(({ body }) => beside.get(one.body)?.has(body))
          .map((other) => [other, COST.neighbour] as const),
        ...next.map((other) => [other, other && like(other) ? COST.likeNext : COST.next] as const),
      ];
      const points = (view.shown.get(one.body)?.points ?? []).map((spot) => [spot, COST.point] as const);
      const own = [[nearOf(baseOf(one), isLast), 0], [nearOf(farOf(one), isLast), 1], ...points] as const;
      for (const [other, cost] of others) {
        if (!other || other.body === one.body) continue;
        const from = [
          [nearOf(baseOf(other), isLast), other === far && other !== base ? 1 : 0],
          [nearOf(farOf(other), isLast), other === far && other !== base ? 0 : 1],
        ] as const;
        const middles = view.shown.get(other.body)?.points ?? [];
        // Of like pieces from the one to the next: the same place of both, so that the pitch is read.
        const pairs = like(other)
          ? [
              ...middles.flatMap((spot, k) => (points[k] ? [[spot, points[k][0], COST.point] as const] : [])),
              ...from.flatMap(([spot, more], k) => (own[k] ? [[spot, own[k][0], more] as const] : [])),
            ]
          : from.flatMap(([spot, more]) => own.map(([mine, also]) => [spot, mine, more + also] as const));
        for (const [spot, mine, more] of pairs)
          put(measure, [spot, mine], [other.body, one.body], cost + more);
      }
    }
  }
  for (const body of wanted) {
    const own = view.shown.get(body)?.axis;
    if (!own || at(bodies, body).turns.length === 0) continue;
    for (const [other, { axis }] of view.shown)
      if (axis && other !== body && at(bodies, other).turns.length === 0)
        put("angle", [axis, own], [other, body], COST.angle);
  }
  return found;
}

/** Whether nothing holds a body along an axis of a view yet. */
function isLoose({ loose }: HomePlacing, body: number, view: ViewOfHome, axis: 0 | 1): boolean {
  const direction = inHome({ kind: "angle", about: axis === 0 ? view.right : view.up }, view.instance.pose);
  if (direction.kind !== "angle") return false;
  const parts = direction.about.map(Math.abs);
  const whichOf: readonly Freedom[] = DIRECTIONS;
  return loose.some(({ freedom, bodies }) => {
    const along = freedom === "turn" ? 1 : at(parts, whichOf.indexOf(freedom));
    return along > 1e-6 && bodies.includes(body);
  });
}

function neighboursOf(relations: HomePlacing["relations"]): ReadonlyMap<number, ReadonlySet<number>> {
  const beside = new Map<number, Set<number>>();
  for (const { a, b } of relations)
    for (const [one, other] of [
      [a, b],
      [b, a],
    ] as const) {
      const there = beside.get(one) ?? new Set();
      beside.set(one, there.add(other));
    }
  return beside;
}

/** How little somebody wants to read and measure a length: round ones and key sizes rather, long ones last. */
function costOf(length: number | null, scale: number, { job, sizes }: ProposalGround): number {
  if (length === null) return 0;
  const unit = MM_PER_UNIT[job.info.job.unit];
  const value = length / unit;
  const { unit: name } = job.info.job;
  const steps =
    name === "in" || name === "ft"
      ? [1, 0.5, 0.25, 0.125, 0.0625]
      : [10, 5, 1, 0.5, 0.1].map((mm) => mm / unit);
  const round = steps.findIndex((step) => Math.abs(value / step - Math.round(value / step)) < 1e-6);
  const isKeySize = [...sizes.scope.values()].some(
    (one) => typeof one === "number" && Math.abs(one - value) * unit < LENGTH_TOLERANCE_MM / 10,
  );
  const paper = length * scale;
  return (
    (round < 0 ? 5 : round) +
    (isKeySize ? COST.ofKeySize : 0) +
    (paper < NARROW ? COST.narrow : 0) +
    paper / 100
  );
}
