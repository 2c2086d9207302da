/** What moves as one when a job or an assembly is pulled apart: its own pieces, and the assemblies that stand in it. */
import { AT_HOME, type Frame, poseIn, solidOfMesh, toWorld, type Vec3 } from "../geometry";
import type { Assets, Home } from "../job";
import {
  asDrawn,
  type Convex,
  type Instance,
  meshOfStandIn,
  partsOfMember,
  partsOfPanel,
  type Shape,
} from "../shape";

/** A box along the axes of the home, mm. */
export type Box = { readonly low: Vec3; readonly high: Vec3 };

/** A convex part with the box round it. */
export type Part = Convex & Box;

export type Unit = Box & {
  /** A record, or a placement with its place in the repeat ("id:2"). */
  readonly key: string;
  /** Units that are alike have the same. */
  readonly like: string;
  readonly bought: boolean;
  readonly parts: readonly Part[];
};

type Draft = { like: string; bought: boolean; parts: Part[] };

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** The key of the unit of a home that an instance of a record belongs to; `base`: the key of the instance of the home. */
export function unitOf(record: string, way: string, base: string): string {
  const rest = way.slice(base.length);
  return rest === "" ? record : rest.slice(0, rest.indexOf("/"));
}

/** A unit by what it is: a record, or one of the repeats of a placement. */
export type UnitName = { readonly key: string; readonly record: string; readonly repeat: number | null };

export function unitName(key: string): UnitName {
  const end = key.indexOf(":");
  return end < 0
    ? { key, record: key, repeat: null }
    : { key, record: key.slice(0, end), repeat: Number(key.slice(end + 1)) };
}

const isBuilt = ({ counted }: Instance): boolean => counted !== "guide" && counted !== "leftOut";

/** The key of the instance by whose axes a home is told; null: it stands nowhere. */
export const baseKeyOf = (shape: Shape, home: Home): string | null =>
  asDrawn(shape.places.get(home) ?? [])?.key ?? null;

/** What a home is built of, without its form: its own pieces and bought parts that stand in it, and the assemblies in it, each by itself. */
export function unitNamesOf(shape: Shape, home: Home): readonly UnitName[] {
  const base = baseKeyOf(shape, home);
  if (base === null) return [];
  const names = new Map<string, UnitName>();
  const put = (key: string) => {
    if (!names.has(key)) names.set(key, unitName(key));
  };
  for (const { member, home: own } of shape.members)
    if (own === home && !member.leftOut && member.role !== "guide") put(member.id);
  for (const { panel } of shape.panels)
    if (panel.assembly === home && !panel.leftOut && panel.role !== "guide") put(panel.id);
  for (const { part, stand } of shape.bought) if (part.assembly === home && stand) put(part.id);
  for (const [own, instances] of shape.places)
    for (const instance of instances)
      if (own !== null && instance.key !== base && instance.key.startsWith(base) && isBuilt(instance))
        put(unitOf("", instance.key, base));
  return [...names.values()];
}

/** The units of a home, in its own axes; what cannot be computed, or is a guide, is none. */
export function unitsOf(shape: Shape, home: Home, assets: Assets): readonly Unit[] {
  const instances = shape.places.get(home) ?? [];
  const base = asDrawn(instances);
  if (!base) return [];
  const drafts = new Map<string, Draft>();
  // Which assembly stands in the home by which of its placements.
  const assemblies = new Map<string, string>();
  for (const [own, standing] of shape.places)
    for (const { key, path } of standing)
      if (own !== null && key.startsWith(base.key) && path.length === base.path.length + 1)
        assemblies.set(unitOf("", key, base.key), own);
  const put = (record: string, like: string, bought: boolean, own: Home, parts: () => readonly Convex[]) => {
    let made: readonly Convex[] | null = null;
    for (const instance of shape.places.get(own) ?? []) {
      const { key, pose } = instance;
      if (!key.startsWith(base.key) || !isBuilt(instance)) continue;
      const unit = unitOf(record, key, base.key);
      made ??= parts();
      if (made.length === 0) continue;
      const inner = unit !== record;
      const draft = drafts.get(unit) ?? {
        like: inner ? `assembly ${assemblies.get(unit) ?? unit}` : like,
        bought: !inner && bought,
        parts: [],
      };
      drafts.set(unit, draft);
      const { frame } = poseIn(pose, AT_HOME);
      draft.parts.push(...made.map((part) => placed(part, frame, base.pose.frame)));
    }
  };
  for (const solid of shape.members) {
    const { id, name, leftOut, role } = solid.member;
    if (leftOut || role === "guide") continue;
    const like = `${name} ${solid.entry.id} ${solid.lengths.cut.toFixed(1)}`;
    put(id, like, false, solid.home, () => partsOfMember(solid));
  }
  for (const solid of shape.panels) {
    const { id, name, leftOut, role, assembly } = solid.panel;
    if (leftOut || role === "guide") continue;
    const like = `${name} ${solid.length.toFixed(1)} ${solid.width.toFixed(1)} ${solid.thickness}`;
    put(id, like, false, assembly, () => partsOfPanel(solid));
  }
  for (const one of shape.bought)
    put(one.part.id, `bought ${one.part.name}`, true, one.part.assembly, () =>
      meshOfStandIn(one, assets).map((mesh) => boxAround(solidOfMesh(mesh).points)),
    );
  const units = [...drafts].map(([key, { like, bought, parts }]) => ({
    key,
    like,
    bought,
    parts,
    ...boundsOf(parts),
  }));
  // The same whatever the order of the records is.
  return units.sort((a, b) => (byPlace(a) < byPlace(b) ? -1 : 1));
}

const byPlace = ({ like, low, key }: Unit): string =>
  `${like} ${low.map((one) => (1e6 + one).toFixed(1)).join(" ")} ${key}`;

/** A part where its instance stands, seen from the axes of the home. */
function placed(part: Convex, frame: Frame, home: Frame): Part {
  const turned = ([x, y, z]: Vec3): Vec3 => local(home, sum(frame, x, y, z));
  const points = part.points.map((point) => {
    const [x, y, z] = toWorld(frame, point);
    const { origin } = home;
    return local(home, [x - origin[0], y - origin[1], z - origin[2]]);
  });
  return {
    ...part,
    ...boundsOf([{ points }]),
    points,
    normals: part.normals.map(turned),
    edges: part.edges.map(turned),
  };
}

const sum = ({ x, y, z }: Frame, a: number, b: number, c: number): Vec3 => [
  x[0] * a + y[0] * b + z[0] * c,
  x[1] * a + y[1] * b + z[1] * c,
  x[2] * a + y[2] * b + z[2] * c,
];
const local = ({ x, y, z }: Frame, v: Vec3): Vec3 => [
  v[0] * x[0] + v[1] * x[1] + v[2] * x[2],
  v[0] * y[0] + v[1] * y[1] + v[2] * y[2],
  v[0] * z[0] + v[1] * z[1] + v[2] * z[2],
];

/** A stand-in is taken as the box round it. */
function boxAround(points: readonly Vec3[]): Convex {
  const { low, high } = boundsOf([{ points }]);
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map(
    (bits): Vec3 => [bits & 1 ? high[0] : low[0], bits & 2 ? high[1] : low[1], bits & 4 ? high[2] : low[2]],
  );
  return { points: corners, normals: AXES, edges: AXES };
}

/** Several units as one. */
export function togetherOf(units: readonly Unit[]): Pick<Unit, "parts" | "low" | "high"> {
  const parts = units.flatMap((unit) => unit.parts);
  return { parts, ...boundsOf(parts) };
}

function boundsOf(parts: readonly Pick<Convex, "points">[]): Box {
  const [low, high] = [
    [1, 1, 1].map(() => Number.POSITIVE_INFINITY),
    [1, 1, 1].map(() => Number.NEGATIVE_INFINITY),
  ] as [number[], number[]];
  for (const { points } of parts)
    for (const point of points)
      for (const k of [0, 1, 2] as const) {
        low[k] = Math.min(low[k] as number, point[k]);
        high[k] = Math.max(high[k] as number, point[k]);
      }
  return { low: low as unknown as Vec3, high: high as unknown as Vec3 };
}
