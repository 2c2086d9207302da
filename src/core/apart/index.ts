/**
 * Pulled apart: in which order and along which ways the pieces of a job or an assembly can leave it, and how far they then stand
 * from their places. What can leave is found from their solids: a piece may go along a way when nothing that is still there lies on
 * it (directional blocking, Wilson and Latombe 1994; exploded views after Agrawala and others 2003 and Li and others 2008, from memory).
 */
import type { Vec3 } from "../geometry";
import type { Assets, Home } from "../job";
import type { Shape } from "../shape";
import { offsetsOf } from "./distances";
import { contactsOf, peeled, type Removal } from "./peeling";
import { type Unit, unitOf, unitsOf } from "./units";

export type Apart = {
  readonly units: readonly Unit[];
  /** In the order in which they leave; together what is alike. */
  readonly removals: readonly Removal[];
  /** Units that hold one another, so that none of them can leave by itself: they stay where they are. */
  readonly stuck: readonly string[];
  /** How far each unit stands from its place when all is apart, in mm along the axes of the home; those that stay are not there. */
  readonly offsets: ReadonlyMap<string, Vec3>;
};

/** Pulls a home apart, one level of it: assemblies that stand in it move as they are. */
export function pulledApart(shape: Shape, home: Home, assets: Assets): Apart {
  const units = unitsOf(shape, home, assets);
  const contacts = contactsOf(units);
  const { removals, stuck } = peeled(units, contacts);
  return { units, removals, stuck, offsets: offsetsOf(units, removals, contacts) };
}

export { type Removal, type Unit, unitOf };
