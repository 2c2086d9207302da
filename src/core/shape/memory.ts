/**
 * What the shape stage remembers from one edit to the next: for each record what was made of it, as long as all
 * that it was made from is identical. A new memory gives the same shape, only later.
 */
import type { Vec3 } from "../geometry";
import type { Check, DefaultFinder, Job, Member, Panel, Point } from "../job";
import { type Memory, type Problem, type Result, remembersEach, sameItems } from "../kernel";
import type { PlacedMember } from "./bar";
import type { Box, Compared } from "./box";
import type { ShapeFault } from "./fault";
import type { MemberSolid } from "./member";
import type { PanelSolid } from "./panel";
import type { Instance, Places } from "./places";

export type FrameMemory = {
  readonly lines: Memory<object, readonly Check[]>;
  readonly missed: Memory<MemberSolid, readonly Check[]>;
  readonly memberBox: Memory<MemberSolid, Box | null>;
  readonly panelBox: Memory<PanelSolid, Box | null>;
  readonly stoodBox: (instance: Instance, box: Box, compute: () => Box) => Box;
  readonly compared: { last: Compared | null };
};

/** Points as places, and the checks of those that have none. */
export type PlacedPoints = {
  readonly points: ReadonlyMap<string, Vec3>;
  readonly checks: readonly Check[];
};

export type ShapeMemory = FrameMemory & {
  readonly point: Memory<Point, Result<Vec3, Problem>>;
  readonly allPoints: Memory<Job["points"], PlacedPoints>;
  readonly points: (fresh: ReadonlyMap<string, Vec3>) => ReadonlyMap<string, Vec3>;
  readonly absent: (fresh: ReadonlySet<string>) => ReadonlySet<string>;
  readonly usual: Memory<object, DefaultFinder>;
  readonly places: Memory<object, { readonly places: Places; readonly checks: readonly Check[] }>;
  readonly placed: Memory<Member, Result<PlacedMember, ShapeFault>>;
  readonly cut: Memory<PlacedMember, Result<MemberSolid, ShapeFault>>;
  readonly memberChecks: Memory<MemberSolid, readonly Check[]>;
  readonly panel: Memory<Panel, Result<PanelSolid, ShapeFault>>;
};

export function newShapeMemory(): ShapeMemory {
  return {
    lines: remembersEach(),
    missed: remembersEach(),
    memberBox: remembersEach(),
    panelBox: remembersEach(),
    stoodBox: remembersPairs(),
    compared: { last: null },
    point: remembersEach(),
    allPoints: remembersEach(),
    points: keepsEqual((a, b) => a.size === b.size && [...b].every(([id, place]) => a.get(id) === place)),
    absent: keepsEqual((a, b) => sameItems([...a], [...b])),
    usual: remembersEach(),
    places: remembersEach(),
    placed: remembersEach(),
    cut: remembersEach(),
    memberChecks: remembersEach(),
    panel: remembersEach(),
  };
}

/** The value before, where the new one is equal to it: so that what hangs on it sees the identical one. */
function keepsEqual<T>(equal: (a: T, b: T) => boolean): (fresh: T) => T {
  let last: T | null = null;
  return (fresh) => {
    if (last === null || !equal(last, fresh)) last = fresh;
    return last;
  };
}

/** The box of a piece in one instance of its assembly. */
function remembersPairs(): (instance: Instance, box: Box, compute: () => Box) => Box {
  const known = new WeakMap<Instance, WeakMap<Box, Box>>();
  return (instance, box, compute) => {
    const own = known.get(instance) ?? new WeakMap<Box, Box>();
    known.set(instance, own);
    const before = own.get(box);
    if (before) return before;
    const made = compute();
    own.set(box, made);
    return made;
  };
}
