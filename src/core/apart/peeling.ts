/** In which order units leave: always those that can, the easiest first, what is alike together. */
import { dot, type Vec3 } from "../geometry";
import { addTo, at } from "../kernel";
import type { Unit } from "./units";
import { gapBetween, mayMeet, sharedAlong } from "./ways";

/** Units by their keys, each with its way: a direction of length 1 in the axes of the home. */
export type Removal = { readonly units: readonly { readonly key: string; readonly way: Vec3 }[] };

/** mm. Units that come nearer than this to one another are neighbours. */
const NEAR = 3;

/** Ways along the axes of the home with what they cost: up is easiest, down hardest. x runs to the right, y to the back, z up. */
const WAYS: readonly (readonly [way: Vec3, cost: number])[] = [
  [[0, 0, 1], 0],
  [[0, -1, 0], 5],
  [[1, 0, 0], 8],
  [[-1, 0, 0], 8],
  [[0, 1, 0], 12],
  [[0, 0, -1], 18],
];
const OBLIQUE = 20;
/** At most so many ways that lie along no axis, both directions counted. */
const MOST_OBLIQUE = 12;
/** A row that went so already goes so again; a way that is free only since others left is worse than one that always was. */
const LIKE_BEFORE = 15;
const FREED = 12;
/** A way that opens none of its contacts. */
const RUB = 20;

type Way = { readonly way: Vec3; readonly cost: number };

/** The ways that units are asked for: the axes, and the edges of parts that lie along none. */
function waysOf(units: readonly Unit[]): readonly Way[] {
  const ways: Way[] = WAYS.map(([way, cost]) => ({ way, cost }));
  for (const { parts } of units)
    for (const { normals } of parts)
      for (const normal of normals) {
        if (ways.length >= WAYS.length + MOST_OBLIQUE) return ways;
        if (ways.some(({ way }) => Math.abs(dot(way, normal)) > 1 - 1e-6)) continue;
        ways.push(
          { way: normal, cost: OBLIQUE },
          { way: [-normal[0], -normal[1], -normal[2]], cost: OBLIQUE },
        );
      }
  return ways;
}

/** Whether a unit runs into another on a way. Units that share room where they stand block nothing: that is a fault of the design. */
function blocks(a: Unit, b: Unit, way: Vec3): boolean {
  if (!mayMeet(a, b, way)) return false;
  let hit = false;
  for (const p of a.parts)
    for (const q of b.parts) {
      if (!mayMeet(p, q, way)) continue;
      const shared = sharedAlong(p, q, way);
      if (!shared || shared[1] <= 0) continue;
      if (shared[0] < 0) return false;
      hit = true;
    }
  return hit;
}

/** Another unit that one comes near to, by its number, and the direction from that one to this. */
type Contact = { readonly with: number; readonly normal: Vec3 };

/** By the number of each unit. */
export type Contacts = readonly (readonly Contact[])[];

/** Which units come near to which. */
export function contactsOf(units: readonly Unit[]): Contacts {
  const contacts = units.map((): Contact[] => []);
  const order = units.map((_, i) => i).sort((a, b) => at(units, a).low[0] - at(units, b).low[0]);
  order.forEach((i, n) => {
    const a = at(units, i);
    for (let m = n + 1; m < order.length; m++) {
      const k = at(order, m);
      const b = at(units, k);
      if (b.low[0] > a.high[0] + NEAR) break;
      const far = [1, 2].some(
        (axis) => at(b.low, axis) > at(a.high, axis) + NEAR || at(a.low, axis) > at(b.high, axis) + NEAR,
      );
      const normal = far ? null : contactBetween(a, b);
      if (!normal) continue;
      at(contacts, i).push({ with: k, normal });
      at(contacts, k).push({ with: i, normal: [-normal[0], -normal[1], -normal[2]] });
    }
  });
  return contacts;
}

/** The direction from one unit to another that it comes near to: that of the largest of their parts which do; null: none does. */
function contactBetween(a: Unit, b: Unit): Vec3 | null {
  let found: { normal: Vec3; least: number } | null = null;
  for (const p of a.parts)
    for (const q of b.parts) {
      const { gap, normal } = gapBetween(q, p);
      if (gap > NEAR) continue;
      const side = dot(middleOf(p), normal) - dot(middleOf(q), normal);
      const least = Math.min(p.points.length, q.points.length) * Math.abs(side);
      if (!found || least < found.least)
        found = { least, normal: side < 0 ? [-normal[0], -normal[1], -normal[2]] : normal };
    }
  return found?.normal ?? null;
}

function middleOf({ points }: Unit["parts"][number]): Vec3 {
  const sum = points.reduce<Vec3>((all, p) => [all[0] + p[0], all[1] + p[1], all[2] + p[2]], [0, 0, 0]);
  return [sum[0] / points.length, sum[1] / points.length, sum[2] / points.length];
}

/** The order in which units leave, and those that cannot. `stay`: units that are not asked to leave; null: all may but one. */
export function peeled(
  units: readonly Unit[],
  contacts: Contacts = contactsOf(units),
  stay: ReadonlySet<string> | null = null,
): {
  readonly removals: readonly Removal[];
  readonly stuck: readonly string[];
} {
  const ways = waysOf(units);
  const near = contacts.map((own) => new Set(own.map((one) => one.with)));
  const left = new Set(units.keys());
  // For each unit and way the first that blocks it, by its number: as long as that one is there nobody else is asked.
  const first = new Int32Array(units.length * ways.length);
  const always = new Uint8Array(units.length * ways.length);
  const asked = new Uint8Array(units.length * ways.length);
  const isFree = (i: number, way: number): boolean => {
    const own = i * ways.length + way;
    const { way: along } = at(ways, way);
    const hits = (k: number) => k !== i && blocks(at(units, i), at(units, k), along);
    let k = first[own] as number;
    if (asked[own] === 0) {
      asked[own] = 1;
      while (k < units.length && !hits(k)) k++;
      if (k === units.length) always[own] = 1;
    }
    // What has left does not come back, and what did not block does not begin to.
    while (k < units.length && !(left.has(k) && hits(k))) k++;
    first[own] = k;
    return k === units.length;
  };
  const base = stay ? null : baseOf(units, near);
  const stays = (i: number) => i === base || (stay?.has(at(units, i).key) ?? false);
  const went = new Map<string, number>();
  const removals: Removal[] = [];
  const touches = (i: number) => [...at(near, i)].some((k) => left.has(k));
  const bestWay = (i: number): { readonly way: number; readonly cost: number } | null => {
    let best: { way: number; cost: number } | null = null;
    const own = at(contacts, i).filter((one) => left.has(one.with));
    const usual = went.get(at(units, i).like);
    for (const [way, { cost }] of ways.entries()) {
      // What a way does not open at once it has to be slid along.
      const opened = own.filter(({ normal }) => dot(normal, at(ways, way).way) > 0.5).length;
      const rub = own.length === 0 ? 0 : RUB * (1 - opened / own.length);
      const along = usual !== undefined && Math.abs(dot(at(ways, usual).way, at(ways, way).way)) > 1 - 1e-6;
      const least = cost + rub - (along ? LIKE_BEFORE : 0);
      if (best && least >= best.cost) continue;
      if (!isFree(i, way)) continue;
      const whole = least + (always[i * ways.length + way] === 1 ? 0 : FREED);
      if (!best || whole < best.cost) best = { way, cost: whole };
    }
    return best;
  };
  for (;;) {
    const open = [...left].filter((i) => !stays(i) && touches(i));
    if (open.length === 0) break;
    const found = open.flatMap((i) => {
      const best = bestWay(i);
      return best ? [{ i, ...best }] : [];
    });
    if (found.length === 0) break;
    const groups = new Map<string, (typeof found)[number][]>();
    for (const one of found) {
      const { like } = at(units, one.i);
      addTo(groups, like, one);
    }
    const scored = [...groups].map(([like, members]) => {
      const rest = open.filter((i) => at(units, i).like === like).length - members.length;
      return {
        members,
        // Bought parts first, then rows that can leave as a whole, then the cheapest way, then what holds least.
        score: [
          at(units, at(members, 0).i).bought ? 0 : 1,
          rest > 0 ? 1 : 0,
          Math.min(...members.map(({ cost }) => cost)),
          Math.max(...members.map(({ i }) => [...at(near, i)].filter((k) => left.has(k)).length)),
          -members.length,
        ],
        like,
      };
    });
    scored.sort((a, b) => {
      for (let k = 0; k < a.score.length; k++) {
        const more = at(a.score, k) - at(b.score, k);
        if (more !== 0) return more;
      }
      return a.like < b.like ? -1 : 1;
    });
    const { members, like } = at(scored, 0);
    const cheapest = Math.min(...members.map(({ cost }) => cost));
    const axis = at(
      ways,
      at(
        members.filter(({ cost }) => cost === cheapest),
        0,
      ).way,
    ).way;
    // Those that go the same way, or the other way along it; the others of the row come later.
    const together = members.filter(({ way }) => Math.abs(dot(at(ways, way).way, axis)) > 1 - 1e-6);
    removals.push({
      units: together.map(({ i, way }) => ({ key: at(units, i).key, way: at(ways, way).way })),
    });
    went.set(like, at(together, 0).way);
    for (const { i } of together) left.delete(i);
  }
  const stuck = [...left].filter((i) => !stays(i) && touches(i)).map((i) => at(units, i).key);
  return { removals, stuck };
}

/** What all others stand on or hang from: the unit with the most neighbours, of such the largest, where there is one such of its kind. */
function baseOf(units: readonly Unit[], near: readonly ReadonlySet<number>[]): number | null {
  const kinds = new Map<string, number>();
  for (const { like } of units) kinds.set(like, (kinds.get(like) ?? 0) + 1);
  let best: number | null = null;
  for (const [i, unit] of units.entries()) {
    if (unit.bought || (kinds.get(unit.like) ?? 0) > 1) continue;
    const more = best === null ? 1 : at(near, i).size - at(near, best).size;
    if (more > 0 || (more === 0 && best !== null && volumeOf(unit) > volumeOf(at(units, best)))) best = i;
  }
  return best;
}

/** mm³ of the box round a unit. */
export const volumeOf = ({ low, high }: Unit): number =>
  (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2]);
