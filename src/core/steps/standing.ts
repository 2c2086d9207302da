/** What building steps build in: each piece once, in their order; and what they leave out, name twice or cannot find. */
import { type UnitName, unitNamesOf } from "../apart";
import { type Home, type Job, pagesInOrder, type StepItem, type StepPart } from "../job";
import { addTo, remembersEach } from "../kernel";
import type { Shape } from "../shape";

/** A bought part that stands nowhere, and how many of it come. */
export type StepBought = { readonly record: string; readonly count: number };

export type StandingStep = {
  readonly step: StepItem;
  /** Its place among the steps of its home, from 1. */
  readonly number: number;
  /** Units that the steps before it have built in. */
  readonly there: readonly string[];
  /** Units that come in with it. */
  readonly coming: readonly UnitName[];
  readonly bought: readonly StepBought[];
  /** Records of which a step before it has built in all already. */
  readonly again: readonly string[];
  /** Records that are not in its home, or not any more. */
  readonly gone: readonly string[];
};

/** The steps of one home in their order. */
export type HomeSteps = {
  readonly home: Home;
  readonly steps: readonly StandingStep[];
  /** What no step builds in. */
  readonly never: readonly UnitName[];
  /** Bought parts that stand nowhere, as far as steps take fewer or more of them than there are. */
  readonly uneven: readonly { readonly record: string; readonly wanted: number; readonly taken: number }[];
};

/** Building steps in their order: as their pages follow one another, on a page from above down and from the left. */
export function stepsInOrder(job: Pick<Job, "pages" | "pageItems">): readonly StepItem[] {
  const place = new Map<string, number>(pagesInOrder(job).map(({ id }, i) => [id, i]));
  return Object.values(job.pageItems)
    .filter((item): item is StepItem => item.kind === "step")
    .sort(
      (a, b) =>
        (place.get(a.page) ?? 0) - (place.get(b.page) ?? 0) ||
        a.at[1] - b.at[1] ||
        a.at[0] - b.at[0] ||
        (a.id < b.id ? -1 : 1),
    );
}

/** Bought parts of a home that stand nowhere, by how many there are in one of it; those that cannot be counted are not there. */
export function countedParts(shape: Shape, home: Home): ReadonlyMap<string, number> {
  return new Map(
    shape.bought.flatMap(({ part, stand, count }) =>
      part.assembly === home && !stand && count !== null && count > 0 ? [[part.id as string, count]] : [],
    ),
  );
}

const known = remembersEach<Shape, ReadonlyMap<Home, HomeSteps>>();

/** The steps of a job by what they build; homes without any are not there. */
export function standingSteps(
  job: Pick<Job, "pages" | "pageItems">,
  shape: Shape,
): ReadonlyMap<Home, HomeSteps> {
  return known(shape, [job.pages, job.pageItems], () => homesOf(job, shape));
}

function homesOf(job: Pick<Job, "pages" | "pageItems">, shape: Shape): ReadonlyMap<Home, HomeSteps> {
  const byHome = new Map<Home, StepItem[]>();
  for (const step of stepsInOrder(job)) addTo(byHome, step.home, step);
  return new Map([...byHome].map(([home, steps]) => [home, stepsOfHome(home, steps, shape)]));
}

/** A step as it is asked for without the pages: what comes before it, and what it builds in. */
export type StepAsked = {
  readonly home: Home;
  readonly before: readonly StepPart[];
  readonly own: readonly StepPart[];
  /** Repeats that steps of the home name by their numbers. */
  readonly named: readonly string[];
};

/** Units by their keys: what is there, and what comes in. */
export type BuiltIn = { readonly there: readonly string[]; readonly coming: readonly string[] };

/** Finds steps by their items; null: it is gone. */
export function findSteps(job: Pick<Job, "pages" | "pageItems">): (id: string) => StepAsked | null {
  let order: readonly StepItem[] | null = null;
  return (id) => {
    order ??= stepsInOrder(job);
    const step = order.find((one) => one.id === id);
    if (!step) return null;
    const all = order.filter(({ home }) => home === step.home);
    const before = all.slice(0, all.indexOf(step)).flatMap(({ comes }) => comes);
    return { home: step.home, before, own: step.comes, named: [...namedIn(all)] };
  };
}

/** What is there with a step, and what comes in. */
export function builtIn({ home, before, own, named }: StepAsked, shape: Shape): BuiltIn {
  const unitsOf = unitFinder(unitNamesOf(shape, home), new Set(named));
  const there = new Set(before.flatMap(unitsOf).map(({ key }) => key));
  const coming = new Set(own.flatMap(unitsOf).flatMap(({ key }) => (there.has(key) ? [] : [key])));
  return { there: [...there], coming: [...coming] };
}

const namedIn = (steps: readonly StepItem[]): ReadonlySet<string> =>
  new Set(
    steps.flatMap(({ comes }) =>
      comes.flatMap(({ record, repeat }) => (repeat === null ? [] : [`${record}:${repeat}`])),
    ),
  );

/** The units that a part of a step is. */
function unitFinder(
  units: readonly UnitName[],
  named: ReadonlySet<string>,
): (part: StepPart) => readonly UnitName[] {
  const byRecord = new Map<string, UnitName[]>();
  for (const unit of units) addTo(byRecord, unit.record, unit);
  return ({ record, repeat }) =>
    (byRecord.get(record) ?? []).filter(({ key, repeat: own }) =>
      repeat === null ? !named.has(key) : own === repeat,
    );
}

function stepsOfHome(home: Home, steps: readonly StepItem[], shape: Shape): HomeSteps {
  const units = unitNamesOf(shape, home);
  const counts = countedParts(shape, home);
  const unitsOf = unitFinder(units, namedIn(steps));
  // What steps take of a bought part by number; the first that takes the rest gets it.
  const taken = new Map<string, number>();
  for (const { comes } of steps)
    for (const { record, count } of comes) taken.set(record, (taken.get(record) ?? 0) + (count ?? 0));
  const there = new Set<string>();
  const standing = steps.map((step, i): StandingStep => {
    const before = [...there];
    const coming: UnitName[] = [];
    const bought: StepBought[] = [];
    const [again, gone]: [string[], string[]] = [[], []];
    for (const part of step.comes) {
      const own = unitsOf(part);
      const wanted = counts.get(part.record);
      if (own.length > 0) {
        const fresh = own.filter(({ key }) => !there.has(key));
        if (fresh.length === 0) again.push(part.record);
        for (const unit of fresh) {
          there.add(unit.key);
          coming.push(unit);
        }
      } else if (wanted !== undefined) {
        const sum = taken.get(part.record) ?? 0;
        const count = part.count ?? wanted - sum;
        if (part.count === null) taken.set(part.record, Math.max(sum, wanted));
        if (count > 0) bought.push({ record: part.record, count });
        else again.push(part.record);
      } else gone.push(part.record);
    }
    return { step, number: i + 1, there: before, coming, bought, again, gone };
  });
  const uneven = [...counts].flatMap(([record, wanted]) => {
    const sum = taken.get(record) ?? 0;
    return sum === wanted ? [] : [{ record, wanted, taken: sum }];
  });
  return { home, steps: standing, never: units.filter(({ key }) => !there.has(key)), uneven };
}
