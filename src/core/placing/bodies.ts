/**
 * What has to be placed: in the job itself and in each assembly the pieces that stand there, and the assemblies in it, each
 * as one rigid body whose own form the lists give. An assembly is looked at once, however often it stands.
 */
import { kindOf } from "../ends";
import {
  AT_HOME,
  boxOfPoints,
  dot,
  type Frame,
  type Mesh,
  type Solid,
  solidOfMesh,
  toLocal,
  toWorld,
  turned,
  type Vec3,
} from "../geometry";
import type { Assets, Home, Job } from "../job";
import { addTo, at, PARALLEL_TOLERANCE, remembersEach } from "../kernel";
import {
  type BoughtCount,
  type Instance,
  type MemberSolid,
  meshOfStandIn,
  type PanelSolid,
  plainSolidOfMember,
  poseOf,
  type Shape,
  solidOfMember,
  solidOfPanel,
} from "../shape";
import { sectionProperties } from "../stockroom";

/** A flat face of a body. */
export type Flat = {
  /** The same after an edit of any size. */
  readonly name: string;
  /** Outward, of length 1. */
  readonly normal: Vec3;
  /** normal · p for each of its points. */
  readonly offset: number;
  /** Convex parts of it. */
  readonly parts: readonly (readonly Vec3[])[];
  /** An end of a member, what is cut into a panel, or any other. */
  readonly of: "start" | "end" | "groove" | "outside";
};

export type Body = {
  /** The record, or the last step of the way to an assembly; the same in each instance of their home. */
  readonly key: string;
  /** A member, panel or bought part, or the placement of an assembly. */
  readonly record: string;
  /** Which of several by the same record, from 1. */
  readonly nth: number;
  /** The same for bodies of one form. */
  readonly like: string;
  /** A round bar or tube: sizes go to its axis rather than to its edge. */
  readonly isRound: boolean;
  /** Whether it is only there while something holds. */
  readonly conditional: boolean;
  readonly middle: Vec3;
  /** The axes about which nothing tells how it is turned: none where it lies square in its home. */
  readonly turns: readonly Vec3[];
  readonly flats: readonly Flat[];
};

export type HomeBodies = {
  readonly home: Home;
  /** All bodies in the axes of the home. */
  readonly bodies: readonly Body[];
};

/** The homes that have to be complete, with what stands in them: the job itself first. Bought assemblies are whole as they come. */
export function homesOf(
  { placements }: Pick<Job, "placements">,
  shape: Shape,
  assets: Assets,
): readonly HomeBodies[] {
  const standing = [...shape.places].flatMap(([home, instances]) =>
    instances.flatMap((instance) => (isBuilt(instance) ? [{ home, instance }] : [])),
  );
  const homes = new Map<Home, Instance>();
  for (const { home, instance } of standing) {
    const before = homes.get(home);
    if (instance.counted === "listed" && !instance.boughtWhole && (!before || better(instance, before)))
      homes.set(home, instance);
  }
  const pieces = piecesOf(shape, assets);
  const isConditional = (placement: string) => (placements[placement]?.when ?? null) !== null;
  return [...homes].map(([home, instance]) => ({
    home,
    bodies: [...(pieces.get(home) ?? []), ...assembliesIn(instance, standing, pieces, isConditional)],
  }));
}

const isBuilt = ({ counted }: Instance): boolean => counted === "listed" || counted === "within";
const better = (one: Instance, before: Instance): boolean => before.pose.mirrored && !one.pose.mirrored;

type Standing = { readonly home: Home; readonly instance: Instance };

/** The pieces of each home, in its axes. */
function piecesOf(shape: Shape, assets: Assets): ReadonlyMap<Home, readonly Body[]> {
  const pieces = new Map<Home, Body[]>();
  const put = (home: Home, body: Body) => {
    addTo(pieces, home, body);
  };
  for (const solid of shape.members)
    if (!solid.member.leftOut && solid.member.role !== "guide") put(solid.home, memberBody(solid));
  for (const solid of shape.panels)
    if (!solid.panel.leftOut && solid.panel.role !== "guide") put(solid.panel.assembly, panelBody(solid));
  for (const one of shape.bought)
    if (one.stand && !one.part.leftOut)
      for (const body of boughtBodies(one, assets)) put(one.part.assembly, body);
  return pieces;
}

/** The assemblies that stand directly in an instance of a home, each with all that is in it. */
function assembliesIn(
  outer: Instance,
  standing: readonly Standing[],
  pieces: ReadonlyMap<Home, readonly Body[]>,
  isConditional: (placement: string) => boolean,
): readonly Body[] {
  const inside = new Map<string, Standing[]>();
  for (const one of standing) {
    const { key } = one.instance;
    if (key.length <= outer.key.length || !key.startsWith(outer.key)) continue;
    const step = key.slice(outer.key.length, key.indexOf("/", outer.key.length) + 1);
    addTo(inside, step, one);
  }
  return [...inside].flatMap(([step, all]): Body[] => {
    const own = all.find(({ instance }) => instance.key === outer.key + step);
    if (!own) return [];
    const flats = all.flatMap(({ home, instance }) => {
      const pose = seenFrom(outer.pose.frame, instance.pose.frame);
      return (pieces.get(home) ?? []).flatMap((body) =>
        body.flats.map((flat) =>
          placedFlat(flat, pose, `${instance.key.slice(outer.key.length)}${body.key} `),
        ),
      );
    });
    const frame = seenFrom(outer.pose.frame, own.instance.pose.frame);
    const placement = at(own.instance.path, own.instance.path.length - 1);
    return [
      {
        key: step,
        record: placement,
        nth: Number(step.slice(placement.length + 1, -1)) + 1,
        like: `assembly ${own.home}`,
        isRound: false,
        conditional: isConditional(placement),
        middle: middleOf(flats, frame.origin),
        turns: turnsOf(frame, false),
        flats,
      },
    ];
  });
}

/** A frame of the job in the axes of another that stands in it. */
const seenFrom = (outer: Frame, { origin, x, y, z }: Frame): Frame => {
  const way = (axis: Vec3): Vec3 => [dot(axis, outer.x), dot(axis, outer.y), dot(axis, outer.z)];
  return { origin: toLocal(outer, origin), x: way(x), y: way(y), z: way(z) };
};

function placedFlat(flat: Flat, frame: Frame, before: string): Flat {
  const normal = turned(frame, flat.normal);
  return {
    name: before + flat.name,
    normal,
    offset: flat.offset + dot(normal, frame.origin),
    parts: flat.parts.map((part) => part.map((point) => toWorld(frame, point))),
    of: flat.of,
  };
}

const memberBodies = remembersEach<MemberSolid, Body>();
const panelBodies = remembersEach<PanelSolid, Body>();
const boughtOnes = remembersEach<BoughtCount, readonly Body[]>();

function memberBody(solid: MemberSolid): Body {
  return memberBodies(solid, [], () => {
    const { isRound } = sectionProperties(solid.entry.shape);
    // Copes are on round members alone, of which only ends that are flat count.
    const made = plainSolidOfMember(solid) ?? solidOfMember(solid, { step: Math.PI / 4 });
    const isFlat = (name: string) => !isRound && name.startsWith("side ");
    const capOf = (name: string) =>
      name.startsWith("start") ? "start" : name.startsWith("end") ? "end" : null;
    const flats = flatsOf(made, (name) => {
      const cap = capOf(name);
      if (cap) return isOfPlanes(solid, cap) ? cap : null;
      return isFlat(name) ? "outside" : null;
    });
    const middle: Vec3 = [0, 0, (solid.start.z + solid.end.z) / 2];
    const like = `member ${solid.entry.id} ${solid.lengths.cut.toFixed(1)}`;
    return pieceBody(solid.member, solid.frame, {
      like,
      isRound,
      turns: turnsOf(solid.frame, isRound),
      flats,
      middle,
    });
  });
}

const isOfPlanes = (solid: MemberSolid, side: "start" | "end"): boolean =>
  kindOf(solid[side].form).faces(solid[side].form) !== null;

function panelBody(solid: PanelSolid): Body {
  return panelBodies(solid, [], () => {
    const flats = flatsOf(solidOfPanel(solid, { step: Math.PI / 8 }), (name) => {
      if (name.startsWith("hole ") || name.startsWith("corner ")) return null;
      return name.startsWith("groove ") ? "groove" : "outside";
    });
    const middle: Vec3 = [solid.length / 2, solid.width / 2, (solid.thickness ?? 0) / 2];
    const like = `panel ${solid.board?.id} ${solid.length.toFixed(1)} ${solid.width.toFixed(1)}`;
    return pieceBody(solid.panel, solid.frame, {
      like,
      isRound: false,
      turns: turnsOf(solid.frame, false),
      flats,
      middle,
    });
  });
}

function boughtBodies(one: BoughtCount, assets: Assets): readonly Body[] {
  return boughtOnes(one, [assets], () =>
    meshOfStandIn(one, assets).map((mesh, i) => {
      const flats = flatsOfMesh(mesh);
      const { part, stand } = one;
      const turns = stand ? turnsOf(poseOf(stand, i, null).frame, false) : [];
      const middle = middleOf(flats, AT_HOME.frame.origin);
      return {
        key: bodyKey(part.id, i + 1),
        record: part.id,
        nth: i + 1,
        like: `bought ${part.entry ?? part.id}`,
        isRound: false,
        conditional: part.when !== null,
        middle,
        turns,
        flats,
      };
    }),
  );
}

/** The name of a body in its home by its record, and which of several by it. */
export const bodyKey = (record: string, nth: number): string => (nth === 1 ? record : `${record} no ${nth}`);

function pieceBody(
  { id, when }: { readonly id: string; readonly when: string | null },
  frame: Frame,
  own: Pick<Body, "like" | "isRound" | "turns" | "flats" | "middle">,
): Body {
  return {
    key: id,
    record: id,
    nth: 1,
    like: own.like,
    isRound: own.isRound,
    conditional: when !== null,
    middle: toWorld(frame, own.middle),
    turns: own.turns,
    flats: own.flats.map((flat) => placedFlat(flat, frame, "")),
  };
}

/** The middle of the box round all flat faces. */
function middleOf(flats: readonly Flat[], otherwise: Vec3): Vec3 {
  const points = flats.flatMap(({ parts }) => parts.flat());
  if (points.length === 0) return otherwise;
  const flat = boxOfPoints(points.map(([x, y]) => [x, y]));
  const heights = boxOfPoints(points.map(([, , z]) => [z, 0]));
  return [(flat.x0 + flat.x1) / 2, (flat.y0 + flat.y1) / 2, (heights.x0 + heights.x1) / 2];
}

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const isAlong = (a: Vec3, b: Vec3): boolean => Math.abs(dot(a, b)) > 1 - PARALLEL_TOLERANCE;

/**
 * What a drawing does not tell of how a body is turned: nothing where it lies along the axes, one turn where it lies in one of
 * their planes, else all three. Of what is round its own turn is nobody's business.
 */
function turnsOf({ x, y, z }: Frame, isRound: boolean): readonly Vec3[] {
  const own = isRound ? [z] : [x, y, z];
  if (own.every((axis) => AXES.some((one) => isAlong(axis, one)))) return [];
  if (isRound) {
    const flat = AXES.find((one) => Math.abs(dot(z, one)) < PARALLEL_TOLERANCE);
    return flat ? [flat] : [x, y];
  }
  const about = AXES.find((one) => own.some((axis) => isAlong(axis, one)));
  return about ? [about] : AXES;
}

/** The flat faces of a solid in its own axes; `of` says what each one is, null: none. */
function flatsOf(
  { points, normals, faces }: Solid,
  of: (name: string) => Flat["of"] | null,
): readonly Flat[] {
  const found = new Map<
    string,
    { readonly flat: Omit<Flat, "parts" | "name">; readonly name: string; readonly parts: Vec3[][] }
  >();
  for (const { corners, normal, name } of faces) {
    const what = of(name);
    if (what === null) continue;
    const way = at(normals, normal);
    const part = corners.map((corner) => at(points, corner));
    const offset = dot(way, at(part, 0));
    const key = `${name} ${[...way, offset].map((one) => one.toFixed(5)).join(" ")}`;
    const known = found.get(key);
    if (known) known.parts.push(part);
    else found.set(key, { name, flat: { normal: way, offset, of: what }, parts: [part] });
  }
  // A name may stand for several planes: the walls of a groove, an end that is cut twice.
  const times = new Map<string, number>();
  return [...found.values()].map(({ name, flat, parts }) => {
    const nth = (times.get(name) ?? 0) + 1;
    times.set(name, nth);
    return { ...flat, name: nth === 1 ? name : `${name} (${nth})`, parts };
  });
}

/** Faces of a mesh, whose triangles have no names: told by the order of their planes. */
function flatsOfMesh(mesh: Mesh): readonly Flat[] {
  const solid = solidOfMesh(mesh);
  const faces = solid.faces.map((face) => ({ ...face, name: "face" }));
  return flatsOf({ ...solid, faces }, () => "outside");
}
