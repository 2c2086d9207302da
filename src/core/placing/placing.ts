/** Which pieces the drawings place, how each is known, and which sizes say what others say already. */
import type { Assets, Home, Job, VariantId } from "../job";
import { addTo, at, remembersEach } from "../kernel";
import type { Shape } from "../shape";
import { type Body, homesOf } from "./bodies";
import { declaredIn } from "./declared";
import { type Coefficients, createElimination, type Elimination } from "./elimination";
import { heldApart, movingApart, turningApart, type Unknowns, unknownsOf } from "./equations";
import { type GivenSize, type GivenSizes, givenSizes, itemOfSize } from "./given-sizes";
import { type Hold, lastingPart, type Relation, relationsOf } from "./relations";

/** A direction of a home, or a turn. */
export type Freedom = "width" | "depth" | "height" | "turn";
export const DIRECTIONS = ["width", "depth", "height"] as const;

/** Bodies that nothing holds in a direction; they move as one. */
export type Loose = { readonly freedom: Freedom; readonly bodies: readonly number[] };

/** A size that follows from what else is told. */
export type Repeated = {
  readonly size: string;
  /** The other sizes that it follows from; none: it follows from how the pieces meet. */
  readonly from: readonly string[];
};

export type HomePlacing = {
  readonly home: Home;
  readonly bodies: readonly Body[];
  readonly relations: readonly Relation[];
  /** Those that place something, and those in brackets. */
  readonly sizes: readonly GivenSize[];
  readonly reference: readonly GivenSize[];
  /** The number of the body from which all are placed; null: there is none. */
  readonly datum: number | null;
  readonly loose: readonly Loose[];
  readonly repeated: readonly Repeated[];
  /** The body that stands farthest from its place if it is built from the numbers as they are written, in mm. */
  readonly farthest: { readonly body: number; readonly mm: number } | null;
  readonly solved: Solved;
};

/** The equations of a home with what was taken in: relations first, then sizes in their order. */
export type Solved = { readonly unknowns: Unknowns; readonly elimination: Elimination };

export type Placing = Pick<GivenSizes, "ofOnePiece" | "contrary"> & {
  readonly homes: readonly HomePlacing[];
};

/** Bodies and relations of the homes of a design, before any size. */
export type Told = {
  readonly home: Home;
  readonly bodies: readonly Body[];
  readonly relations: readonly Relation[];
};

/**
 * What a design tells by itself. `others`: the same design with each key size changed a little; what does not hold in all of
 * them holds by chance, and does not count.
 */
export function toldByDesign(
  job: Pick<Job, "placements">,
  shape: Shape,
  others: readonly Shape[],
  assets: Assets,
): readonly Told[] {
  const changed = others.map(
    (other) => new Map(homesOf(job, other, assets).map(({ home, bodies }) => [home, bodies])),
  );
  return homesOf(job, shape, assets).map(({ home, bodies }) => {
    let relations = relationsOf(bodies, declaredIn(shape, home, bodies), home === null);
    for (const one of changed) {
      const there = new Map((one.get(home) ?? []).map((body) => [body.key, body]));
      const then = bodies.map(({ key }) => there.get(key));
      relations = relations.flatMap((relation) => lastingPart(relation, bodies, then) ?? []);
    }
    return { home, bodies, relations };
  });
}

/** Which pieces of a job its pages place. */
export function placingOf(
  told: readonly Told[],
  job: Job,
  shape: Shape,
  variant: VariantId | null,
  assets: Assets,
): Placing {
  const { sizes, ofOnePiece, contrary } = givenSizes(job, shape, variant, assets);
  return {
    homes: told.map((one) =>
      homePlacing(
        one,
        sizes.filter(({ home }) => home === one.home),
      ),
    ),
    ofOnePiece,
    contrary,
  };
}

/** What the sizes between bodies of one home say. */
export function homePlacing(told: Told, given: readonly GivenSize[]): HomePlacing {
  const { home, bodies, relations } = told;
  const numbers = new Map(bodies.map(({ key }, i) => [key, i]));
  const between = given.filter(({ a, b }) => numbers.has(a) && numbers.has(b));
  const sizes = between.filter(({ brackets }) => !brackets);
  const free = taken(told, sizes, null);
  const datum = datumOf(told, free);
  const { unknowns, elimination, repeated } = heldAt(datum, told, sizes, free);
  return {
    home,
    bodies,
    relations,
    sizes,
    reference: between.filter(({ brackets }) => brackets),
    datum,
    loose: looseOf(bodies, unknowns, elimination),
    repeated,
    farthest: farthestOf(bodies, unknowns, elimination),
    solved: { unknowns, elimination },
  };
}

type Taken = Solved & { readonly repeated: readonly Repeated[] };

/**
 * The same equations with one body that does not move. Of one that does not turn that is three more: what equations say of others
 * by moves alone hangs on no body, so none of them says more or less by it.
 */
function heldAt(datum: number | null, told: Told, sizes: readonly GivenSize[], free: Taken): Taken {
  if (datum === null) return free;
  if (at(told.bodies, datum).turns.length > 0) return taken(told, sizes, datum);
  const first = at(free.unknowns.firstOf, datum);
  for (const unknown of [first, first + 1, first + 2]) free.elimination.take(new Map([[unknown, 1]]));
  return { ...free, unknowns: { ...free.unknowns, datum } };
}

/** The equations of a home, relations first, then sizes in their order; what follows from those before it is told. */
export function taken(
  { bodies, relations }: Pick<Told, "bodies" | "relations">,
  sizes: readonly GivenSize[],
  datum: number | null,
): Taken {
  const unknowns = unknownsOf(bodies, datum);
  const elimination = createElimination();
  const numbers = new Map(bodies.map(({ key }, i) => [key, i]));
  const takenAs: (string | null)[] = [];
  for (const { relation, hold } of holdsOf(bodies, relations)) {
    elimination.take(movingApart(bodies, unknowns, heldApart(relation.a, relation.b, hold)));
    takenAs.push(null);
  }
  /** By item, from what each of its steps follows that does. */
  const follows = new Map<string, (readonly string[])[]>();
  for (const size of sizes) {
    const item = itemOfSize(size);
    const said = elimination.take(sizeCells(bodies, unknowns, size, numbers), size.rounding);
    if (said) {
      const from = [...said.from().keys()].flatMap((one) => takenAs[one] ?? []);
      addTo(follows, item, from);
    }
    takenAs.push(item);
  }
  return { unknowns, elimination, repeated: repeatedOf(sizes, follows) };
}

/** Sizes that say nothing new: of equal steps, those of which no step does. */
function repeatedOf(
  sizes: readonly GivenSize[],
  follows: ReadonlyMap<string, readonly (readonly string[])[]>,
): readonly Repeated[] {
  const stepsOf = new Map<string, number>();
  for (const size of sizes) stepsOf.set(itemOfSize(size), (stepsOf.get(itemOfSize(size)) ?? 0) + 1);
  return [...follows].flatMap(([size, from]) =>
    from.length === stepsOf.get(size)
      ? [{ size, from: [...new Set(from.flat())].filter((one) => one !== size) }]
      : [],
  );
}

type Held = { readonly relation: Relation; readonly hold: Hold };

const heldBy = remembersEach<readonly Relation[], readonly Held[]>();

/** What relations hold, each thing once: of bodies that do not turn only the direction counts, whatever the point and the face. */
const holdsOf = (bodies: readonly Body[], relations: readonly Relation[]): readonly Held[] =>
  heldBy(relations, [bodies], () => {
    const said = new Set<string | number>();
    const isSquare = (one: number) => one < 0 || at(bodies, one).turns.length === 0;
    return relations.flatMap((relation) => {
      const { a, b, holds } = relation;
      const whole = holds.map((hold) => ({ relation, hold }));
      if (!isSquare(a) || !isSquare(b)) return whole;
      const pair = (Math.min(a, b) + 1) * (bodies.length + 1) + Math.max(a, b);
      return whole.filter(({ hold: { along } }) => {
        // Along an axis both ways round are one; others are told apart.
        const axis = along.findIndex((part) => Math.abs(part) > 1 - 1e-12);
        const key = axis < 0 ? `${pair} ${along.join(" ")}` : 3 * pair + axis;
        if (said.has(key)) return false;
        said.add(key);
        return true;
      });
    });
  });

/** What a size says of two bodies. */
export function sizeCells(
  bodies: readonly Body[],
  unknowns: Unknowns,
  { a, b, hold }: Pick<GivenSize, "a" | "b" | "hold">,
  numbers: ReadonlyMap<string, number>,
): Coefficients {
  const [first, second] = [numbers.get(a) ?? 0, numbers.get(b) ?? 0];
  return hold.kind === "angle"
    ? turningApart(bodies, unknowns, second, first, hold.about)
    : movingApart(bodies, unknowns, {
        a: second,
        b: first,
        atA: hold.atB,
        atB: hold.atA,
        along: hold.along,
      });
}

/**
 * The body from which others are placed: of the largest group that is held together, one that is always there and lies square,
 * with the most relations.
 */
function datumOf({ bodies, relations }: Told, { unknowns, elimination }: Solved): number | null {
  if (bodies.length === 0) return null;
  const groups = new Map<string, number[]>();
  for (const i of bodies.keys()) {
    const key = unknownsOfBody(bodies, unknowns, i)
      .map((one) => words(elimination.freeOf(one)))
      .join("; ");
    addTo(groups, key, i);
  }
  const relationsOfBody = bodies.map(() => 0);
  for (const { a, b } of relations)
    for (const one of [a, b]) if (one >= 0) relationsOfBody[one] = (relationsOfBody[one] ?? 0) + 1;
  const rank = (i: number) => {
    const { conditional, turns } = at(bodies, i);
    return [turns.length === 0 ? 1 : 0, conditional ? 0 : 1, at(relationsOfBody, i)] as const;
  };
  const groupOf = (group: readonly number[]) => [
    group.some((i) => at(bodies, i).turns.length === 0) ? 1 : 0,
    group.filter((i) => !at(bodies, i).conditional).length,
    group.length,
  ];
  const largest = [...groups.values()].reduce((a, b) => (isMore(groupOf(b), groupOf(a)) ? b : a));
  return largest.reduce((a, b) => (isMore(rank(b), rank(a)) ? b : a));
}

/** Whether one list of numbers comes after another, the first that differ deciding. */
function isMore(a: readonly number[], b: readonly number[]): boolean {
  const i = a.findIndex((one, k) => one !== b[k]);
  return i >= 0 && at(a, i) > at(b, i);
}

function unknownsOfBody(bodies: readonly Body[], { firstOf }: Unknowns, i: number): readonly number[] {
  const first = at(firstOf, i);
  return Array.from({ length: 3 + at(bodies, i).turns.length }, (_, k) => first + k);
}

/** An expression as text, the same for the same. */
const words = (free: Coefficients): string =>
  [...free]
    .sort(([a], [b]) => a - b)
    .map(([unknown, by]) => `${by.toFixed(4)}·${unknown}`)
    .join(" + ");

function looseOf(bodies: readonly Body[], unknowns: Unknowns, elimination: Elimination): readonly Loose[] {
  const groups = new Map<string, { readonly freedom: Freedom; readonly bodies: number[] }>();
  for (const i of bodies.keys()) {
    if (i === unknowns.datum) continue;
    const free = unknownsOfBody(bodies, unknowns, i).map((one) => elimination.freeOf(one));
    const told = new Set<Freedom>();
    for (const [k, one] of free.entries()) {
      const freedom = DIRECTIONS[k] ?? "turn";
      // Who turns is told of that alone: where its middle goes hangs on it.
      if (one.size === 0 || told.has(freedom)) continue;
      told.add(freedom);
      const key = `${freedom}: ${freedom === "turn" ? i : words(one)}`;
      const there = groups.get(key);
      if (there) there.bodies.push(i);
      else groups.set(key, { freedom, bodies: [i] });
    }
  }
  return [...groups.values()];
}

function farthestOf(
  bodies: readonly Body[],
  unknowns: Unknowns,
  elimination: Elimination,
): HomePlacing["farthest"] {
  let farthest: { readonly body: number; readonly mm: number } | null = null;
  for (const i of bodies.keys()) {
    if (i === unknowns.datum) continue;
    const moves = unknownsOfBody(bodies, unknowns, i).slice(0, 3);
    const mm = Math.hypot(...moves.map((one) => elimination.valueOf(one)));
    if (mm > 1e-6 && (farthest === null || mm > farthest.mm)) farthest = { body: i, mm };
  }
  return farthest;
}

/** From what the place of a body follows, by direction; what is free is not there. */
export type HowKnown = readonly {
  readonly freedom: Freedom;
  readonly sizes: readonly string[];
  /** Numbers of bodies that hold it, or others that do, by how they meet; the floor is −1. */
  readonly relations: readonly Pick<Relation, "kind" | "a" | "b">[];
}[];

export function howKnown({ bodies, relations, sizes, solved, datum }: HomePlacing, body: number): HowKnown {
  const { unknowns, elimination } = solved;
  if (body === datum) return [];
  const sources: readonly (GivenSize | Relation)[] = [
    ...holdsOf(bodies, relations).map(({ relation }) => relation),
    ...sizes,
  ];
  return unknownsOfBody(bodies, unknowns, body).flatMap((unknown, k) => {
    if (elimination.freeOf(unknown).size > 0) return [];
    // That the datum does not move stands after all of them, and is no source.
    const from = new Set([...elimination.sourcesOf(unknown).keys()].flatMap((one) => sources[one] ?? []));
    return [
      {
        freedom: DIRECTIONS[k] ?? "turn",
        sizes: [...new Set([...from].flatMap((one) => ("id" in one ? [itemOfSize(one)] : [])))],
        relations: [...from].flatMap((one) => ("id" in one ? [] : [one])),
      },
    ];
  });
}
