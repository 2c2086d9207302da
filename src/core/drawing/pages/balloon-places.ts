/**
 * Where balloons stand round a view: on one ring at even distance, each with a leader to what it names, so that no leader
 * crosses another or runs through a balloon. The assignment of least total length has no crossings (of two that cross, the
 * other way round is shorter); leaders along the edges of the view, and balloons that stand already, are counted in, and
 * what that brings is mended by the best exchange or move.
 */
import { type PlaneBox, stretchDistance, stretchesCross, type Vec2 } from "../../geometry";
import type { BalloonPlace } from "../../job";
import { at } from "../../kernel";
import { assigned } from "./assign";

type RingPlace = Extract<BalloonPlace, { kind: "ring" }>;
export type Standing = { readonly place: RingPlace; readonly at: Vec2 };

/** A balloon to be placed: the places that its leader may point at, and where it stands already (null: nowhere yet). */
export type ToPlace = { readonly tips: readonly Vec2[]; readonly stands: BalloonPlace | null };

/** Where a balloon has come to stand, and at which of its tips its leader points (null: it has none). */
export type PlacedBalloon = {
  readonly stands: BalloonPlace;
  readonly at: Vec2;
  readonly tip: number | null;
  /** There is no room for it: it stands over the view. */
  readonly crowded: boolean;
};

/** Millimetres on paper. */
export const BALLOON_RADIUS = 4.5;
const PITCH = 12;
const AWAY = 12;
const FARTHER = 6;
/** Leaders keep so far from other balloons. */
const CLEAR = 1;
/** A leader within six degrees of an edge of the view counts as so much longer. */
const ALONG_EDGE = 15;
const NEAR_EDGE = (6 * Math.PI) / 180;
/** One that runs through something else as so much. */
const THROUGH = 80;
/** Lengths across this direction count more: leaders then lean the same way. Affine, so that nothing crosses by it. */
const LEAN = Math.PI / 3;
const ACROSS = 1.5;
/** More places than balloons, so that there is something to choose from. */
const SPARE = 1.3;
const MOST_RINGS = 40;

export type RingGround = {
  /** The view on paper. */
  readonly box: PlaneBox;
  /** Whether a balloon may stand there. */
  readonly isFree: (at: Vec2) => boolean;
  /** Directions of the view's edges, in radians from 0 to π. */
  readonly edges: readonly number[];
  /** What a leader had better not run through. */
  readonly blocked: readonly PlaneBox[];
};

/** What makes leaders count as longer than they are: directions of edges, of length 1, and what is in the way. */
type Bars = Pick<RingGround, "blocked"> & { readonly ways: readonly Vec2[] };

/** The places of a ring so far from the view, those that are free. */
function ring({ box, isFree }: RingGround, away: number): readonly Standing[] {
  const [x0, y0, x1, y1] = [box.x0 - away, box.y0 - away, box.x1 + away, box.y1 + away];
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const steps = (length: number): readonly number[] => {
    const most = Math.floor(length / 2 / PITCH + 1e-9);
    return Array.from({ length: 2 * most + 1 }, (_, i) => i - most);
  };
  // The upright sides leave the corners to the level ones.
  const [level, upright] = [steps(x1 - x0), steps(y1 - y0 - 2 * PITCH)];
  const on = (side: RingPlace["side"], step: number, place: Vec2): Standing => ({
    place: { kind: "ring", side, step },
    at: place,
  });
  return [
    ...level.map((step) => on("top", step, [cx + step * PITCH, y0])),
    ...upright.map((step) => on("right", step, [x1, cy + step * PITCH])),
    ...level.map((step) => on("bottom", step, [cx + step * PITCH, y1])),
    ...upright.map((step) => on("left", step, [x0, cy + step * PITCH])),
  ].filter((standing) => isFree(standing.at));
}

/** The nearest ring with room enough; the farthest where none has. */
function ringFor(ground: RingGround, count: number): readonly Standing[] {
  let best: readonly Standing[] = [];
  for (let i = 0; i < MOST_RINGS; i++) {
    const places = ring(ground, AWAY + i * FARTHER);
    if (places.length >= SPARE * count) return places;
    if (places.length > best.length) best = places;
  }
  return best;
}

const [LEAN_X, LEAN_Y] = [Math.cos(LEAN), Math.sin(LEAN)];
const SIN_NEAR = Math.sin(NEAR_EDGE);
/** Lengths found in two ways may differ by this factor at most. */
const ROUNDING = 1 + 1e-9;

/** Length of a leader as it counts: lengths across the lean more, leaders along edges of the view more. */
function weigh(from: Vec2, to: Vec2, { ways, blocked }: Bars): number {
  const x = to[0] - from[0];
  const y = to[1] - from[1];
  const a = x * LEAN_X - y * LEAN_Y;
  const b = ACROSS * (x * LEAN_Y + y * LEAN_X);
  let weight = Math.sqrt(a * a + b * b);
  // Sine of the angle to an edge, times the length.
  const least = SIN_NEAR * Math.sqrt(x * x + y * y);
  for (const way of ways)
    if (Math.abs(x * way[1] - y * way[0]) < least) {
      weight += ALONG_EDGE;
      break;
    }
  for (const box of blocked) if (runsThrough(from, to, box)) weight += THROUGH;
  return weight;
}

/** Both coordinates of places in a plane where distances are lengths as they count: those across the lean more. */
function leaning(places: readonly Vec2[]): Float64Array {
  const leant = new Float64Array(2 * places.length);
  for (const [i, [x, y]] of places.entries()) {
    leant[2 * i] = x * LEAN_X - y * LEAN_Y;
    leant[2 * i + 1] = ACROSS * (x * LEAN_Y + y * LEAN_X);
  }
  return leant;
}

/** Whether a stretch has a part within a box. */
function runsThrough(a: Vec2, b: Vec2, { x0, y0, x1, y1 }: PlaneBox): boolean {
  const [x, y] = [b[0] - a[0], b[1] - a[1]];
  // Most are wholly beside it.
  if (a[0] < x0 && b[0] < x0) return false;
  if (a[0] > x1 && b[0] > x1) return false;
  if (a[1] < y0 && b[1] < y0) return false;
  if (a[1] > y1 && b[1] > y1) return false;
  let [from, to] = [0, 1];
  if (Math.abs(x) < 1e-12) {
    if (a[0] < x0 || a[0] > x1) return false;
  } else {
    const [p, q] = [(x0 - a[0]) / x, (x1 - a[0]) / x];
    from = Math.max(from, Math.min(p, q));
    to = Math.min(to, Math.max(p, q));
  }
  if (Math.abs(y) < 1e-12) {
    if (a[1] < y0 || a[1] > y1) return false;
  } else {
    const [p, q] = [(y0 - a[1]) / y, (y1 - a[1]) / y];
    from = Math.max(from, Math.min(p, q));
    to = Math.min(to, Math.max(p, q));
  }
  return from < to;
}

/** The leaders that a balloon can have: for each place the tip that is best seen from there, weighed once. */
type Leaders = {
  readonly weights: Float64Array;
  readonly on: (place: number) => Leader;
};

/** Of tips that are seen equally well the first is taken; without any, leaders have no end and no weight. */
function leadersOf(tips: readonly Vec2[], places: readonly Vec2[], bars: Bars): Leaders {
  const weights = new Float64Array(places.length);
  const chosen = new Int32Array(places.length);
  const [ends, starts] = [leaning(tips), leaning(places)];
  // Places follow one another round the view: the tip for the one before is a good guess. With it, the others are given
  // up by their length alone. Asked often: all arrays are as long as they are counted.
  let guess = 0;
  for (let place = 0; tips.length > 0 && place < places.length; place++) {
    const from = at(places, place);
    const [x, y] = [starts[2 * place] as number, starts[2 * place + 1] as number];
    let tip = guess;
    let weight = weigh(from, at(tips, tip), bars);
    for (let i = 0; i < tips.length; i++) {
      const a = (ends[2 * i] as number) - x;
      const b = (ends[2 * i + 1] as number) - y;
      if (i === guess || a * a + b * b > weight * weight * ROUNDING) continue;
      const one = weigh(from, at(tips, i), bars);
      if (one < weight || (one === weight && i < tip)) {
        tip = i;
        weight = one;
      }
    }
    guess = tip;
    chosen[place] = tip;
    weights[place] = weight;
  }
  const made: Leader[] = [];
  return {
    weights,
    on: (place) => {
      const tip = tips.length === 0 ? null : at(chosen, place);
      made[place] ??= {
        from: at(places, place),
        to: tip === null ? null : at(tips, tip),
        tip,
        weight: at(weights, place),
      };
      return made[place];
    },
  };
}

/**
 * Places for balloons: those that stand already stay where they can, new ones are put where all leaders together are
 * shortest. Where that leaves leaders in each other's way all are placed anew, at last without regard to edges and farther
 * out. Those for which there is no room any more are put over the view.
 */
export function balloonPlaces(balloons: readonly ToPlace[], ground: RingGround): readonly PlacedBalloon[] {
  const onRing = balloons.filter(({ stands }) => stands?.kind !== "hand").length;
  const places = ringFor(ground, onRing);
  // y runs down on paper, as all places here; directions do not know up from down.
  const bars: Bars = {
    blocked: ground.blocked,
    ways: ground.edges.map((edge): Vec2 => [Math.cos(edge), Math.sin(edge)]),
  };
  let best = settled(balloons, places, bars, true);
  const plain: Bars = { ways: [], blocked: [] };
  const farther = (count: number) => ringFor(ground, count);
  const stay = balloons.some(({ stands }) => stands?.kind === "ring");
  const others: readonly (() => Settled)[] = [
    ...(stay ? [() => settled(balloons, places, bars, false)] : []),
    () => settled(balloons, places, plain, false),
    () => settled(balloons, farther(1.5 * onRing), plain, false),
    () => settled(balloons, farther(2.5 * onRing), plain, false),
  ];
  for (const other of others) {
    if (best.faults === 0) break;
    const next = other();
    if (next.faults < best.faults) best = next;
  }
  const { taken, places: on, leaders } = best;
  const spare: Standing = {
    place: { kind: "ring", side: "top", step: 0 },
    at: [ground.box.x0, ground.box.y0 - AWAY],
  };
  return balloons.map(({ tips, stands }, i): PlacedBalloon => {
    const standing = on[taken.get(i) ?? -1] ?? spare;
    const where = stands?.kind === "hand" ? stands.at : standing.at;
    const leader = leaders[i] ?? leaderFrom(where, tips, best.bars);
    return {
      stands: stands?.kind === "hand" ? stands : standing.place,
      at: where,
      tip: leader.tip,
      crowded: stands?.kind !== "hand" && !taken.has(i),
    };
  });
}

type Settled = {
  /** By balloon, the number of its place. */
  readonly taken: ReadonlyMap<number, number>;
  readonly places: readonly Standing[];
  readonly bars: Bars;
  /** By balloon; null: it has no place. */
  readonly leaders: readonly (Leader | null)[];
  readonly faults: number;
};

/** All balloons on some places: those that stand there stay if wished, the others by least length, then mended. */
function settled(
  balloons: readonly ToPlace[],
  places: readonly Standing[],
  bars: Bars,
  stay: boolean,
): Settled {
  const byKey = new Map(places.map((standing, i) => [keyOf(standing.place), i]));
  const taken = new Map<number, number>();
  const used = new Set<number>();
  const going: number[] = [];
  for (const [i, { stands }] of balloons.entries()) {
    if (stands?.kind === "hand") continue;
    const place = stands && stay ? byKey.get(keyOf(stands)) : undefined;
    if (place === undefined || used.has(place)) going.push(i);
    else {
      taken.set(i, place);
      used.add(place);
    }
  }
  const left = places.map((_, i) => i).filter((place) => !used.has(place));
  const placed = going.slice(0, left.length);
  // Each is asked for again and again: weighed once.
  const spots = places.map(({ at }) => at);
  const leaders = balloons.map(({ tips }) => leadersOf(tips, spots, bars));
  const column = assigned(placed.length, left.length, (row, i) =>
    at(at(leaders, at(placed, row)).weights, at(left, i)),
  );
  for (const [row, balloon] of placed.entries()) taken.set(balloon, at(left, at(column, row)));
  return { places, bars, ...mended(balloons, places, leaders, taken, bars) };
}

const keyOf = ({ side, step }: RingPlace) => `${side} ${step}`;

type Leader = {
  readonly from: Vec2;
  readonly to: Vec2 | null;
  /** The number of its tip. */
  readonly tip: number | null;
  readonly weight: number;
};

/** The leader from a place to the tip that is best seen from there. */
const leaderFrom = (from: Vec2, tips: readonly Vec2[], bars: Bars): Leader =>
  leadersOf(tips, [from], bars).on(0);

/** Other tips, moves and exchanges of balloons on the ring until no leader crosses another or runs through a balloon, or nothing helps. */
function mended(
  balloons: readonly ToPlace[],
  places: readonly Standing[],
  possible: readonly Leaders[],
  start: ReadonlyMap<number, number>,
  bars: Bars,
): Pick<Settled, "taken" | "faults" | "leaders"> {
  const leaderOn = (balloon: number, place: number): Leader => at(possible, balloon).on(place);
  const leaders = balloons.map(({ stands, tips }, i): Leader | null => {
    if (stands?.kind === "hand") return leaderFrom(stands.at, tips, bars);
    const place = start.get(i);
    return place === undefined ? null : leaderOn(i, place);
  });
  const tipsOf = (i: number) => at(balloons, i).tips;
  const taken = new Map(start);
  /** How often a leader is in the way of the others; counted no further than to `most`, above which nobody asks. */
  const faultsOf = (i: number, leader: Leader, without: number, most = Number.POSITIVE_INFINITY): number => {
    let faults = 0;
    for (let k = 0; k < leaders.length && faults <= most; k++) {
      const other = leaders[k];
      if (other && k !== i && k !== without) faults += inTheWay(leader, other);
    }
    return faults;
  };
  const counts = leaders.map((leader, i) => (leader && taken.has(i) ? faultsOf(i, leader, i) : 0));
  for (let round = 0; ; round++) {
    const faulty = [...taken.keys()]
      .filter((i) => at(counts, i) > 0)
      .sort((a, b) => at(counts, b) - at(counts, a));
    const faults = faulty.reduce((sum, i) => sum + at(counts, i), 0);
    if (faults === 0 || round > 2 * balloons.length) return { taken, faults, leaders };
    let change: readonly Change[] | null = null;
    // A leader that ends elsewhere on its piece moves no balloon.
    for (const i of faulty) {
      const leader = leaders[i];
      const other = leader && otherTip(leader, at(counts, i), tipsOf(i), bars, (one) => faultsOf(i, one, i));
      if (other) change = [{ balloon: i, place: null, leader: other }];
      if (change) break;
    }
    for (const i of change ? [] : faulty) {
      const moves = bestChange(i, { taken, leaders, places: places.length, leaderOn, faultsOf });
      if (moves)
        change = moves.map(([balloon, place]) => ({ balloon, place, leader: leaderOn(balloon, place) }));
      if (change) break;
    }
    if (!change) return { taken, faults, leaders };
    for (const { balloon, place, leader: after } of change) {
      const before = leaders[balloon];
      if (place !== null) taken.set(balloon, place);
      leaders[balloon] = after;
      // Only what it was in the way of, and is now, counts anew.
      let own = 0;
      for (let k = 0; k < leaders.length; k++) {
        const other = leaders[k];
        if (!other || k === balloon) continue;
        const [was, is] = [before ? inTheWay(before, other) : 0, inTheWay(after, other)];
        counts[k] = at(counts, k) + (taken.has(k) ? is - was : 0);
        own += is;
      }
      counts[balloon] = own;
    }
  }
}

/** A balloon with another leader, on another place or (null) where it stands. */
type Change = { readonly balloon: number; readonly place: number | null; readonly leader: Leader };

/** A leader from the same place to another tip that is in the way less often, of such the shortest; null: there is none. */
function otherTip(
  { from, tip }: Leader,
  faults: number,
  tips: readonly Vec2[],
  bars: Bars,
  faultsOf: (leader: Leader) => number,
): Leader | null {
  let best: { leader: Leader; faults: number } | null = null;
  for (const [i, to] of tips.entries()) {
    if (i === tip) continue;
    const leader = { from, to, tip: i, weight: weigh(from, to, bars) };
    const own = faultsOf(leader);
    const isBetter = best
      ? own < best.faults || (own === best.faults && leader.weight < best.leader.weight)
      : own < faults;
    if (isBetter) best = { leader, faults: own };
  }
  return best?.leader ?? null;
}

type MendGround = {
  readonly taken: ReadonlyMap<number, number>;
  readonly leaders: readonly (Leader | null)[];
  /** How many there are. */
  readonly places: number;
  readonly leaderOn: (balloon: number, place: number) => Leader;
  readonly faultsOf: (balloon: number, leader: Leader, without: number, most?: number) => number;
};

/** The move or exchange of a balloon that takes most faults away, of such the shortest; null: none takes any. */
function bestChange(
  i: number,
  { taken, leaders, places, leaderOn, faultsOf }: MendGround,
): readonly (readonly [number, number])[] | null {
  const owner = new Map([...taken].map(([balloon, place]) => [place, balloon]));
  const own = taken.get(i);
  const leader = leaders[i];
  if (own === undefined || !leader) return null;
  let best: { change: readonly (readonly [number, number])[]; gain: number; longer: number } | null = null;
  for (let place = 0; place < places; place++) {
    if (place === own) continue;
    const other = owner.get(place);
    const moved = leaderOn(i, place);
    const theirs = other === undefined ? null : leaders[other];
    const back = other === undefined ? null : leaderOn(other, own);
    const before =
      faultsOf(i, leader, other ?? i) +
      (other !== undefined && theirs ? faultsOf(other, theirs, i) + inTheWay(leader, theirs) : 0);
    // More than this many would take nothing away, or less than the best does.
    const most: number = before - Math.max(1, best?.gain ?? 1);
    const moves = faultsOf(i, moved, other ?? i, most);
    if (moves > most) continue;
    const after: number =
      moves +
      (other !== undefined && back ? faultsOf(other, back, i, most - moves) + inTheWay(moved, back) : 0);
    const gain: number = before - after;
    const longer = moved.weight - leader.weight + (back && theirs ? back.weight - theirs.weight : 0);
    if (gain <= 0 || (best && (gain < best.gain || (gain === best.gain && longer >= best.longer)))) continue;
    const change: [number, number][] = [[i, place]];
    if (other !== undefined) change.push([other, own]);
    best = { change, gain, longer };
  }
  return best?.change ?? null;
}

const REACH = BALLOON_RADIUS + CLEAR;

/** How often two leaders with their balloons are in each other's way. */
function inTheWay(a: Leader, b: Leader): number {
  const [p, q] = [a.to ?? a.from, b.to ?? b.from];
  // Most are nowhere near one another.
  for (const k of [0, 1] as const) {
    if (Math.min(a.from[k], p[k]) - REACH > Math.max(b.from[k], q[k])) return 0;
    if (Math.min(b.from[k], q[k]) - REACH > Math.max(a.from[k], p[k])) return 0;
  }
  return (
    Number(a.to !== null && b.to !== null && stretchesCross(a.from, a.to, b.from, b.to)) +
    Number(a.to !== null && stretchDistance(b.from, a.from, a.to) < REACH) +
    Number(b.to !== null && stretchDistance(a.from, b.from, b.to) < REACH)
  );
}
