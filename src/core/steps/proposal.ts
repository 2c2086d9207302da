/**
 * The steps in which a home is built: frames of metal first, then the order in which all of it comes apart, the other way round. What
 * is alike, or comes along the same way without touching what comes with it, is one step.
 */
import {
  type Contacts,
  contactsOf,
  peeled,
  togetherOf,
  type Unit,
  type UnitName,
  unitName,
  unitNamesOf,
  unitsAndContacts,
  volumeOf,
} from "../apart";
import { dot, type Vec3 } from "../geometry";
import { type Assets, allOf, type Home, type Job, type StepPart } from "../job";
import { addTo, at } from "../kernel";
import { countedNames } from "../measure";
import type { Shape } from "../shape";
import { joined, jointLevels, jointsOf, metalIn } from "./frames";
import { countedParts } from "./standing";

export type ProposedStep = {
  readonly heading: string;
  readonly text: string;
  readonly comes: readonly StepPart[];
};

/** So many kinds of pieces come in with one step at most. */
const MOST_KINDS = 3;

/** A unit and the way in which it would leave; null: none is told. */
type Coming = { readonly key: string; readonly way: Vec3 | null };

type Draft = {
  readonly units: readonly Coming[];
  /** Pieces of a frame, which are told by what they are joined to. */
  readonly isFrame: boolean;
};

const draftOf = (keys: readonly string[], isFrame = false): Draft => ({
  units: keys.map((key) => ({ key, way: null })),
  isFrame,
});

/** The steps of a home, sub-assemblies as they are; none where there is nothing to put together. */
export function proposedSteps(job: Job, shape: Shape, home: Home, assets: Assets): readonly ProposedStep[] {
  const names = unitNamesOf(shape, home);
  if (names.length < 2) return [];
  const { units, contacts } = unitsAndContacts(shape, home, assets);
  const metal = metalIn(shape);
  const ofMetal = new Set([...units.keys()].filter((i) => metal.has(at(units, i).key)));
  const frames = joined(ofMetal, (i) => at(contacts, i).map((one) => one.with)).map((group) =>
    group.map((i) => at(units, i)),
  );
  const grouped = withFrames(units, frames);
  const others = comingBack(grouped, contactsOf(grouped)).flatMap((draft): readonly Draft[] => {
    const own = draft.units.filter(({ key }) => !key.startsWith(FRAME));
    return own.length === 0 ? [] : [{ ...draft, units: own }];
  });
  // Between more of the same only frames came.
  const likes = new Map(units.map(({ key, like }) => [key, like]));
  const isMore = (before: Draft, next: Draft) => {
    const there = new Set(before.units.map(({ key }) => likes.get(key)));
    return next.units.every(({ key }) => there.has(likes.get(key)));
  };
  const merged: Draft[] = [];
  for (const next of others) {
    const last = merged.at(-1);
    if (last && isMore(last, next))
      merged[merged.length - 1] = { ...last, units: [...last.units, ...next.units] };
    else merged.push(next);
  }
  const drafts = [...alikeTogether(frames).flatMap((alike) => framesDrafts(alike, shape)), ...merged];
  const drawn = new Set(units.map(({ key }) => key));
  const bare = names.filter(({ key }) => !drawn.has(key)).map(({ key }) => key);
  // What has no form to be drawn comes last.
  const all = bare.length > 0 ? [...drafts, draftOf(bare)] : drafts;
  const steps = all.map((draft, i) => stepOf(draft, i, { job, shape, all: names }));
  return withFasteners(steps, job, shape, home);
}

const FRAME = "frame ";

/** Units with the pieces of each frame as one. */
function withFrames(units: readonly Unit[], frames: readonly (readonly Unit[])[]): readonly Unit[] {
  const inFrames = new Set(frames.flat());
  return [
    ...units.filter((unit) => !inFrames.has(unit)),
    ...frames.map((frame, i): Unit => {
      const key = `${FRAME}${i}`;
      return { key, like: key, bought: false, ...togetherOf(frame) };
    }),
  ];
}

type UnitsOfFrame = readonly Unit[];

/** Frames of the same pieces are built side by side. */
function alikeTogether(frames: readonly UnitsOfFrame[]): readonly (readonly UnitsOfFrame[])[] {
  const byPieces = new Map<string, UnitsOfFrame[]>();
  for (const frame of frames) {
    const pieces = frame
      .map(({ like }) => like)
      .sort()
      .join("\n");
    addTo(byPieces, pieces, frame);
  }
  return [...byPieces.values()];
}

/** The steps of frames that are alike: each step of one of them is that of all. */
function framesDrafts(frames: readonly UnitsOfFrame[], shape: Shape): readonly Draft[] {
  const all = frames.map((frame) => frameDrafts(frame, shape));
  const most = Math.max(...all.map(({ length }) => length));
  return Array.from({ length: most }, (_, i): Draft => {
    const own = all.flatMap((drafts) => drafts[i] ?? []);
    return { units: own.flatMap(({ units }) => units), isFrame: own.some(({ isFrame }) => isFrame) };
  });
}

/** The pieces of a frame by the order of its joints; where that says nothing, as it comes apart. */
function frameDrafts(frame: UnitsOfFrame, shape: Shape): readonly Draft[] {
  const levels = jointLevels(frame, shape);
  if (!levels) return comingBack(frame, contactsOf(frame));
  return levels.flatMap((level) => {
    const likes = [...new Set(level.map(({ like }) => like))];
    return Array.from({ length: Math.ceil(likes.length / MOST_KINDS) }, (_, i): Draft => {
      const own = new Set(likes.slice(i * MOST_KINDS, (i + 1) * MOST_KINDS));
      const keys = level.filter(({ like }) => own.has(like)).map(({ key }) => key);
      return draftOf(keys, true);
    });
  });
}

/** Units in the order in which they leave, the other way round. */
function comingBack(units: readonly Unit[], contacts: Contacts): readonly Draft[] {
  const { removals } = peeled(units, contacts);
  const touching = neighboursOf(units, contacts);
  const likes = new Map(units.map(({ key, like }) => [key, like]));
  const kindsIn = (own: readonly Coming[]) => new Set(own.map(({ key }) => likes.get(key) ?? key));
  const leaving = new Set(removals.flatMap((removal) => removal.units.map(({ key }) => key)));
  const { first, stray } = whatStays(
    units.filter(({ key }) => !leaving.has(key)),
    touching,
  );
  const start = draftOf(first);
  /** Whether what comes next may come with a step: more of the same, or along the same axis and touching nothing of it. */
  const joins = (step: Draft, next: Draft): boolean => {
    const all = [...step.units, ...next.units];
    const kinds = kindsIn(all).size;
    if (kinds > MOST_KINDS) return false;
    if (step === start || kinds === kindsIn(step.units).size) return true;
    const axis = step.units.find(({ way }) => way !== null)?.way;
    const alongOne = all.every(({ way }) => way === null || (axis && Math.abs(dot(way, axis)) > 0.999));
    const meets = next.units.some(({ key }) => step.units.some((own) => touching.get(key)?.has(own.key)));
    return Boolean(axis) && alongOne && !meets;
  };
  const drafts: Draft[] = first.length > 0 ? [start] : [];
  for (const { units: own } of [...removals].reverse()) {
    const next: Draft = { units: own, isFrame: false };
    const last = drafts.at(-1);
    if (last && joins(last, next)) drafts[drafts.length - 1] = { ...last, units: [...last.units, ...own] };
    else drafts.push(next);
  }
  return withStrays(drafts, stray, touching);
}

/** Of what never leaves, the largest with all that hangs together with it is there first; the rest strays. */
function whatStays(
  staying: readonly Unit[],
  touching: ReadonlyMap<string, ReadonlySet<string>>,
): { readonly first: readonly string[]; readonly stray: readonly string[] } {
  const [base] = [...staying].sort((a, b) => volumeOf(b) - volumeOf(a) || (a.key < b.key ? -1 : 1));
  const numbers = new Map(staying.map(({ key }, i) => [key, i]));
  const groups = joined(new Set(numbers.values()), (i) =>
    [...(touching.get(at(staying, i).key) ?? [])].flatMap((key) => numbers.get(key) ?? []),
  );
  const start = numbers.get(base?.key ?? "");
  const together = new Set(groups.find((group) => start !== undefined && group.includes(start)) ?? [start]);
  const keys = staying.map(({ key }) => key);
  return {
    first: keys.filter((_, i) => together.has(i)),
    stray: keys.filter((_, i) => !together.has(i)),
  };
}

/** What is left when all else has gone, but touches nothing of that: it comes with the first step that brings something it touches. */
function withStrays(
  drafts: readonly Draft[],
  stray: readonly string[],
  touching: ReadonlyMap<string, ReadonlySet<string>>,
): readonly Draft[] {
  const made = [...drafts];
  const alone: string[] = [];
  for (const key of stray) {
    const near = touching.get(key) ?? new Set();
    const i = made.findIndex(({ units }) => units.some((unit) => near.has(unit.key)));
    const draft = made[i];
    if (draft) made[i] = { ...draft, units: [{ key, way: null }, ...draft.units] };
    else alone.push(key);
  }
  return alone.length > 0 ? [...made, draftOf(alone)] : made;
}

function neighboursOf(units: readonly Unit[], contacts: Contacts): ReadonlyMap<string, ReadonlySet<string>> {
  return new Map(
    units.map(({ key }, i) => [
      key,
      new Set((contacts[i] ?? []).flatMap(({ with: other }) => units[other]?.key ?? [])),
    ]),
  );
}

/** What a record is called, a placement by what it places. */
export function partName(job: Job, record: string): string {
  const placed = job.placements[record];
  return (
    job.members[record]?.name ??
    job.panels[record]?.name ??
    job.boughtParts[record]?.name ??
    (placed && job.assemblies[placed.assembly]?.name) ??
    ""
  );
}

type StepGround = { readonly job: Job; readonly shape: Shape; readonly all: readonly UnitName[] };

function stepOf({ units, isFrame }: Draft, index: number, { job, shape, all }: StepGround): ProposedStep {
  const nameOf = (key: string) => partName(job, unitName(key).record);
  const names = [...new Set(units.map(({ key }) => nameOf(key)))];
  const told = (name: string): string => {
    const own = units.filter(({ key }) => nameOf(key) === name);
    return isFrame
      ? jointWords(
          job,
          shape,
          own.map(({ key }) => key),
        )
      : [...new Set(own.flatMap(({ way }) => (way ? sideWords(way) : [])))].join(" and ");
  };
  return {
    heading: (index === 0 ? `Begin with ${inWords(names)}` : inWords(names)).slice(0, 80),
    text: names
      .flatMap((name) => {
        const words = told(name);
        return words === "" ? [] : [`${name}: ${words}.`];
      })
      .join("\n"),
    comes: partsOf(
      units.map(({ key }) => key),
      all,
    ),
  };
}

/** What pieces of a frame are joined to, by the cuts of their ends. */
function jointWords(job: Job, shape: Shape, keys: readonly string[]): string {
  const own = new Set(keys);
  const cuts = shape.members.flatMap(({ member }) => (own.has(member.id) ? [member.start, member.end] : []));
  const { against, mitred } = jointsOf(cuts);
  const said = (words: string, records: readonly string[]) =>
    records.length === 0 ? [] : [`${words} ${inWords([...new Set(records.map((id) => partName(job, id)))])}`];
  return [...said("mitred with", mitred), ...said("against", against)].join(", ");
}

const inWords = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

const SIDES: readonly (readonly [way: Vec3, words: string])[] = [
  [[0, 0, 1], "from above"],
  [[0, 0, -1], "from below"],
  [[0, -1, 0], "from the front"],
  [[0, 1, 0], "from the back"],
  [[1, 0, 0], "from the right"],
  [[-1, 0, 0], "from the left"],
];

/** From where something comes that leaves along a way. */
function sideWords(way: Vec3): string {
  const near = SIDES.filter(([side]) => dot(side, way) > 0.3).sort(([a], [b]) => dot(b, way) - dot(a, way));
  return near.map(([, words], i) => (i === 0 ? words : words.replace("from ", ""))).join(" and ");
}

/** Units as parts of a step: a placement whole where all its repeats come. */
function partsOf(keys: readonly string[], all: readonly UnitName[]): readonly StepPart[] {
  const wanted = new Set(keys);
  const left = new Set(all.flatMap(({ key, record }) => (wanted.has(key) ? [] : [record])));
  const parts = new Map<string, StepPart>();
  for (const { key, record, repeat } of all) {
    if (!wanted.has(key)) continue;
    if (left.has(record)) parts.set(key, { record, repeat, count: null });
    else parts.set(record, allOf(record));
  }
  return [...parts.values()];
}

/** Bought parts that stand nowhere come with the last of what their count counts; where it counts nothing, with the last step. */
function withFasteners(
  steps: readonly ProposedStep[],
  job: Job,
  shape: Shape,
  home: Home,
): readonly ProposedStep[] {
  const comes = steps.map((step) => [...step.comes]);
  for (const record of countedParts(shape, home).keys()) {
    const counted = new Set(
      countedNames(job.boughtParts[record]?.count ?? "").map((name) => name.toLowerCase()),
    );
    const last = steps.findLastIndex((step) =>
      step.comes.some((part) => counted.has(partName(job, part.record).toLowerCase())),
    );
    comes[last < 0 ? comes.length - 1 : last]?.push(allOf(record));
  }
  return steps.map((step, i) => ({ ...step, comes: comes[i] ?? [] }));
}

/** What no step of a home builds in yet, as one more step. */
export function furtherStep(job: Job, shape: Shape, home: Home, never: readonly UnitName[]): ProposedStep {
  const names = [...new Set(never.map(({ record }) => partName(job, record)))];
  return {
    heading: inWords(names).slice(0, 80),
    text: "",
    comes: partsOf(
      never.map(({ key }) => key),
      unitNamesOf(shape, home),
    ),
  };
}
