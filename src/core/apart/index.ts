/**
 * Pulled apart: in which order and along which ways the pieces of a job or an assembly can leave it, and how far they then stand
 * from their places. What can leave is found from their solids: a piece may go along a way when nothing that is still there lies on
 * it (directional blocking, Wilson and Latombe 1994; exploded views after Agrawala and others 2003 and Li and others 2008, from memory).
 */
import type { Vec3 } from "../geometry";
import type { Assets, Home } from "../job";
import { at, remembersEach } from "../kernel";
import type { Shape } from "../shape";
import type { SeenFrom } from "./covering";
import { offsetsOf, offsetsSeen } from "./distances";
import { type Contacts, contactsOf, peeled, type Removal, volumeOf } from "./peeling";
import {
  baseKeyOf,
  togetherOf,
  type Unit,
  type UnitName,
  unitName,
  unitNamesOf,
  unitOf,
  unitsOf,
} from "./units";

export type Leaving = {
  readonly units: readonly Unit[];
  /** In the order in which they leave; together what is alike. */
  readonly removals: readonly Removal[];
  /** Units that hold one another, so that none of them can leave by itself: they stay where they are. */
  readonly stuck: readonly string[];
};

export type Apart = Leaving & {
  /** How far each unit stands from its place when all is apart, in mm along the axes of the home; those that stay are not there. */
  readonly offsets: ReadonlyMap<string, Vec3>;
};

/** How some units come to those that are there already: the other way round than they would leave. */
export type Arriving = {
  /** How far each stands off where it goes when it is drawn apart, in mm along the axes of the home. */
  readonly offsets: ReadonlyMap<string, Vec3>;
  /** In the order in which they come, those together that do so alike; `way` is that in which they would leave. */
  readonly removals: readonly Removal[];
  /** What is there is in the way of them. */
  readonly blocked: readonly string[];
  /** They come near to something that is not there yet, and to nothing that is, or comes with them. */
  readonly loose: readonly string[];
};

type Grounds = { readonly units: readonly Unit[]; readonly contacts: Contacts };
const grounds = remembersEach<Shape, Map<Home, Grounds>>();

/** Units of a home, in its own axes, and what they come near to: found once for all that asks. */
export function unitsAndContacts(shape: Shape, home: Home, assets: Assets): Grounds {
  const byHome = grounds(shape, [assets], () => new Map());
  const before = byHome.get(home);
  if (before) return before;
  const units = unitsOf(shape, home, assets);
  const made = { units, contacts: contactsOf(units) };
  byHome.set(home, made);
  return made;
}

/** How units come in, by their keys, where others are already. */
export function arriving(
  shape: Shape,
  home: Home,
  assets: Assets,
  { there, coming }: { readonly there: readonly string[]; readonly coming: readonly string[] },
): Arriving {
  const all = unitsAndContacts(shape, home, assets);
  const [stay, come] = [new Set(there), new Set(coming)];
  const kept = [...all.units.keys()].filter((i) => {
    const { key } = at(all.units, i);
    return stay.has(key) || come.has(key);
  });
  const units = kept.map((i) => at(all.units, i));
  const numbers = new Map(kept.map((i, own) => [i, own]));
  const contacts: Contacts = kept.map((i) =>
    at(all.contacts, i).flatMap(({ with: other, normal }) => {
      const own = numbers.get(other);
      return own === undefined ? [] : [{ with: own, normal }];
    }),
  );
  const { removals, stuck } = peeled(units, contacts, there.length === 0 ? null : stay);
  return {
    offsets: offsetsOf(units, removals, contacts),
    removals: [...removals].reverse(),
    blocked: stuck,
    // What never comes near to anything cannot come too early.
    loose: kept.flatMap((whole, i) => {
      const { key } = at(units, i);
      const early = at(contacts, i).length === 0 && at(all.contacts, whole).length > 0;
      return there.length > 0 && come.has(key) && early ? [key] : [];
    }),
  };
}

const left = remembersEach<Shape, Map<Home, Leaving>>();

/** In which order a home comes apart, one level of it: assemblies that stand in it move as they are. Found once for all that asks. */
export function leavingOf(shape: Shape, home: Home, assets: Assets): Leaving {
  const byHome = left(shape, [assets], () => new Map());
  const before = byHome.get(home);
  if (before) return before;
  const { units, contacts } = unitsAndContacts(shape, home, assets);
  const made = { units, ...peeled(units, contacts) };
  byHome.set(home, made);
  return made;
}

/** Pulls a home apart, so that little covers other things when it is seen from where it is said, in its axes. */
export function pulledApart(shape: Shape, home: Home, assets: Assets, from: SeenFrom): Apart {
  const leaving = leavingOf(shape, home, assets);
  const { contacts } = unitsAndContacts(shape, home, assets);
  return { ...leaving, offsets: offsetsSeen(leaving.units, leaving.removals, contacts, from) };
}

export {
  baseKeyOf,
  type Contacts,
  contactsOf,
  peeled,
  type Removal,
  type SeenFrom,
  togetherOf,
  type Unit,
  type UnitName,
  unitName,
  unitNamesOf,
  unitOf,
  volumeOf,
};
