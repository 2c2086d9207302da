/**
 * Ends joined to what they meet, so that the design can be changed afterwards: mitres of two ends in one plane, ends that
 * stand on a flat of another member, copes round another. Each is proposed, computed as the product computes it, and kept only
 * where every corner of the member stays within a hundredth of a millimetre of what was read.
 */
import { type EndFace, kindOf } from "../ends";
import { add, dot, dot2, norm, scale, subtract, toWorld, type Vec2, type Vec3 } from "../geometry";
import {
  type EndCut,
  type Home,
  type InsertEdit,
  type Job,
  meetsOf,
  neighboursOf,
  newInsert,
  type Point,
  resolveSizes,
  textOf,
  withEdit,
} from "../job";
import { type LengthUnit, MM_PER_UNIT, roundTo } from "../measure";
import { nearest } from "../recognise";
import { type MemberSolid, memberSolid, type Shape, shapeJob, slantedCut, twoPlaneCut } from "../shape";
import { type SectionShape, type Stockroom, sectionProperties } from "../stockroom";
import { type EnteredMember, freeRecords, type NewId } from "./member-record";
import type { Entered } from "./records";

type Side = "start" | "end";
const SIDES = ["start", "end"] as const;
/** Where an end's point stands, and how it is cut. */
type Plan = { readonly place: Vec3; readonly cut: EndCut };
type Plans = ReadonlyMap<string, Plan>;

/** mm. How far a corner may move when an end is joined. */
const STAYS = 0.01;
/** mm. Points nearer than this are one. */
const ONE_POINT = 0.002;
/** mm. What counts as touching. */
const TOUCH = 0.02;
const ROUNDS = 5;

export type JoinedImport = {
  readonly edit: InsertEdit;
  /** Ends that are cut against another member now. */
  readonly joined: number;
  /** Ends that no cut of the product says: they are square, at their longest. */
  readonly unsaid: readonly { readonly member: string; readonly side: Side }[];
  /** Members whose corners, as the product computes them, stray from what was read; and those that cannot be computed. */
  readonly astray: readonly string[];
};

export function joinedImport(entered: Entered, job: Job, stockroom: Stockroom, newId: NewId): JoinedImport {
  const { unit } = job.info.job;
  const free: Plans = new Map(
    entered.members.flatMap((member) =>
      SIDES.map(
        (side) =>
          [
            keyOf(member.id, side),
            { place: placeOf(member, side), cut: freeCut(member[side], unit) },
          ] as const,
      ),
    ),
  );
  const proposed = new Map(proposals(entered.members, job));
  let built = build(entered, new Map([...free, ...proposed]), job, newId);
  let shape = computed(membersOf(built), job, stockroom);
  for (let round = 0; round < ROUNDS && proposed.size > 0; round++) {
    const wrong = entered.members.flatMap((member) =>
      SIDES.filter((side) => proposed.has(keyOf(member.id, side)) && !staysAt(shape, member, side)).map(
        (side) => keyOf(member.id, side),
      ),
    );
    if (wrong.length === 0) break;
    for (const key of wrong) {
      // All ends that are mitred together, or none.
      const cut = proposed.get(key)?.cut;
      const [own, others] = [idOf(key), cut && meetsOf(cut) === "ends" ? neighboursOf(cut) : []];
      for (const other of others)
        for (const side of SIDES) {
          const theirs = proposed.get(keyOf(other, side))?.cut;
          if (theirs && meetsOf(theirs) === "ends" && neighboursOf(theirs).some((id) => id === own))
            proposed.delete(keyOf(other, side));
        }
      proposed.delete(key);
    }
    if (round === ROUNDS - 1) proposed.clear();
    built = build(entered, new Map([...free, ...proposed]), job, newId);
    shape = computed(membersOf(built), job, stockroom);
  }
  return {
    edit: built,
    joined: proposed.size,
    unsaid: entered.members.flatMap((member) =>
      SIDES.filter((side) => !isFree(member[side]) && !proposed.has(keyOf(member.id, side))).map((side) => ({
        member: member.id,
        side,
      })),
    ),
    astray: entered.members
      .filter((member) => SIDES.some((side) => isFree(member[side]) && !staysAt(shape, member, side)))
      .map(({ id }) => id),
  };
}

/** An end as its own angles say it. */
const freeCut = ({ slope, faces }: EnteredMember[Side], unit: LengthUnit): EndCut =>
  faces
    ? twoPlaneCut(faces, [lengthText(faces[0].beyond, unit), lengthText(faces[1].beyond, unit)])
    : slantedCut(slope);

const lengthText = (mm: number, unit: LengthUnit): string => textOf(roundTo(mm / MM_PER_UNIT[unit], 7));

/** Ends that a cut of their own says: they are said even where they are joined to nothing. */
const isFree = ({ read }: EnteredMember[Side]) => read === "plane" || read === "twoPlanes";

const keyOf = (id: string, side: Side) => `${id}/${side}`;
const idOf = (key: string) => key.slice(0, key.lastIndexOf("/"));
const placeOf = (member: EnteredMember, side: Side): Vec3 => (side === "start" ? member.from : member.to);

function build(entered: Entered, plans: Plans, job: Job, newId: NewId): InsertEdit {
  const { unit } = job.info.job;
  const known = new Map<Home, { readonly place: Vec3; readonly point: Point }[]>();
  let named = Object.keys(job.points).length;
  const points: Point[] = [];
  const lines: InsertEdit["lines"] = [];
  const members = entered.members.map((member) => {
    const { point, record } = freeRecords(member, unit, newId);
    const ends = SIDES.map((side) => {
      const plan = plans.get(keyOf(member.id, side)) ?? {
        place: placeOf(member, side),
        cut: freeCut(member[side], unit),
      };
      const there = known.get(member.home) ?? [];
      known.set(member.home, there);
      const found = there.find(({ place }) => norm(subtract(place, plan.place)) < ONE_POINT);
      if (found) return { id: found.point.id, cut: plan.cut };
      const made = point(plan.place, `i${++named}`);
      there.push({ place: plan.place, point: made });
      points.push(made);
      return { id: made.id, cut: plan.cut };
    });
    const [start, end] = ends as [(typeof ends)[number], (typeof ends)[number]];
    const line = { id: newId("line"), from: start.id, to: end.id } as InsertEdit["lines"][number];
    lines.push(line);
    return record(line.id, start.cut, end.cut);
  });
  const { panels, boughtParts, assemblies, placements } = entered;
  return newInsert("what was read", {
    points,
    lines,
    members,
    panels: [...panels],
    boughtParts: [...boughtParts],
    assemblies: [...assemblies],
    placements: [...placements],
  });
}

/** Panels and bought parts join nothing. */
const membersOf = (edit: InsertEdit): InsertEdit => ({ ...edit, panels: [], boughtParts: [] });

/** What enters as the product computes it, alone in the job. */
export function computed(edit: InsertEdit, job: Job, stockroom: Stockroom): Shape | null {
  const nothing = {
    points: {},
    lines: {},
    members: {},
    panels: {},
    boughtParts: {},
    assemblies: {},
    placements: {},
  };
  const bare: Job = { ...job, ...nothing };
  const after = withEdit(bare, edit);
  if (!after.ok) return null;
  return shapeJob(after.value, resolveSizes(after.value, null), stockroom);
}

const outOf = (member: EnteredMember, side: Side): Vec3 => {
  const along = subtract(member.to, member.from);
  const size = norm(along) || 1;
  return scale(along, (side === "start" ? -1 : 1) / size);
};

/** Where the corners of the section stand at an end, as it was read. */
function cornersAt(member: EnteredMember, side: Side): readonly Vec3[] {
  const { slope, faces } = member[side];
  const reach = (p: Vec2) =>
    Math.min(...(faces ?? [{ slope, beyond: 0 }]).map((one) => one.beyond + dot2(one.slope, p)));
  const out = outOf(member, side);
  return sectionProperties(member.shape).sharp.map(([px, py]) =>
    add(
      placeOf(member, side),
      add(add(scale(member.x, px), scale(member.y, py)), scale(out, reach([px, py]))),
    ),
  );
}

function staysAt(shape: Shape | null, member: EnteredMember, side: Side): boolean {
  const solid = shape && memberSolid(shape, member.id as Parameters<typeof memberSolid>[1]);
  if (!solid) return false;
  const { form, z } = solid[side];
  const { cope } = member[side];
  if (cope) return form.kind === "cope" && isOnCylinder(solid, side, cope);
  if (form.kind !== (member[side].read === "twoPlanes" ? "twoPlanes" : "plane")) return false;
  const reach = kindOf(form).height(form, solid.entry.shape);
  const sign = side === "start" ? -1 : 1;
  const read = cornersAt(member, side);
  return sectionProperties(member.shape).sharp.every(([px, py]) => {
    const height = z + sign * reach([px, py]);
    const place = toWorld(solid.frame, [px, py, height]);
    return read.some((corner) => norm(subtract(corner, place)) < STAYS);
  });
}

/** Whether a saddle lies on a cylinder that was read: round the section, at eight places. */
function isOnCylinder(
  solid: MemberSolid,
  side: Side,
  { centre, axis, radius }: NonNullable<EnteredMember[Side]["cope"]>,
): boolean {
  const { form, z } = solid[side];
  const { shape } = solid.entry;
  const height = kindOf(form).height(form, shape);
  const [own, sign] = [radiusOf(shape) ?? 0, side === "start" ? -1 : 1];
  return Array.from({ length: 8 }, (_, i) => (i * Math.PI) / 4).every((turn) => {
    const [x, y] = [own * Math.cos(turn), own * Math.sin(turn)];
    const from = subtract(toWorld(solid.frame, [x, y, z + sign * height([x, y])]), centre);
    return Math.abs(norm(subtract(from, scale(axis, dot(from, axis)))) - radius) < STAYS;
  });
}

type OuterFace = { readonly normal: Vec3; readonly offset: number };

/** The flats along a member; none where it is round. */
function flatsOf(member: EnteredMember): readonly OuterFace[] {
  const { sharp, isRound } = sectionProperties(member.shape);
  if (isRound) return [];
  return sharp.map(([ax, ay], i) => {
    const [bx, by] = sharp[(i + 1) % sharp.length] ?? [ax, ay];
    const size = Math.hypot(bx - ax, by - ay) || 1;
    const normal = add(scale(member.x, (by - ay) / size), scale(member.y, (ax - bx) / size));
    const on = add(member.from, add(scale(member.x, ax), scale(member.y, ay)));
    return { normal, offset: dot(normal, on) };
  });
}

const radiusOf = (shape: SectionShape): number | null =>
  shape.kind === "roundTube" || shape.kind === "roundBar" ? shape.size[0] / 2 : null;

/** Two planes that halve the corners with two others that end in the same place. */
function doubleMitreAt(
  faces: readonly [EndFace, EndFace],
  member: EnteredMember,
  side: Side,
  others: readonly EnteredMember[],
): EndCut | null {
  const place = placeOf(member, side);
  const out = outOf(member, side);
  const halved = faces.map(({ slope }) => {
    const normal = normalAt(member, slope, side);
    return others.find((other) =>
      SIDES.some((far) => {
        if (norm(subtract(placeOf(other, far), place)) > ONE_POINT) return false;
        const between = subtract(out, outOf(other, far));
        return dot(between, normal) > norm(between) * (1 - 1e-8);
      }),
    );
  });
  const [first, second] = halved;
  if (!first || !second || first === second || faces.some(({ beyond }) => beyond > 0)) return null;
  return { kind: "doubleMitre", neighbours: [first.id, second.id], gap: "0" } as EndCut;
}

/** The normal of a plane at an end, out of the member; `slope`: how far it reaches out per mm across. */
function normalAt(member: EnteredMember, slope: Vec2, side: Side): Vec3 {
  const raw = subtract(outOf(member, side), add(scale(member.x, slope[0]), scale(member.y, slope[1])));
  return scale(raw, 1 / (norm(raw) || 1));
}

function* proposals(members: readonly EnteredMember[], job: Job): Generator<readonly [string, Plan]> {
  const { unit } = job.info.job;
  const cells = cellsOf(members);
  for (const member of members)
    for (const side of SIDES) {
      const place = placeOf(member, side);
      const others = cells(place, member);
      const cut = proposalAt(member, side, place, others, (mm) => lengthText(mm, unit));
      if (cut) yield [keyOf(member.id, side), cut];
    }
}

function proposalAt(
  member: EnteredMember,
  side: Side,
  place: Vec3,
  others: readonly EnteredMember[],
  text: (mm: number) => string,
): Plan | null {
  const end = member[side];
  const out = outOf(member, side);
  if (end.read === "cope" && end.cope) {
    const { centre, axis, radius } = end.cope;
    for (const other of others) {
      const own = radiusOf(other.shape);
      const along = outOf(other, "end");
      if (own === null || Math.abs(dot(along, axis)) < 1 - 1e-6) continue;
      const between = subtract(centre, other.from);
      const beside = norm(subtract(between, scale(along, dot(between, along))));
      if (beside > TOUCH || radius - own < -TOUCH) continue;
      const met = nearest(place, out, other.from, along);
      if (!met) continue;
      const gap = Math.abs(radius - own) < 0.005 ? 0 : radius - own;
      return {
        place: add(place, scale(out, met.z)),
        cut: { kind: "cope", neighbour: other.id, gap: text(gap), curve: "surface" } as EndCut,
      };
    }
    return null;
  }
  if (end.faces) {
    const cut = doubleMitreAt(end.faces, member, side, others);
    return cut && { place, cut };
  }
  if (end.read !== "plane") return null;
  const normal = normalAt(member, end.slope, side);
  for (const other of others)
    for (const far of SIDES)
      if (
        other[far].read === "plane" &&
        (end.slope[0] !== 0 || end.slope[1] !== 0) &&
        norm(subtract(placeOf(other, far), place)) < ONE_POINT &&
        dot(normalAt(other, other[far].slope, far), normal) < -1 + 1e-8
      )
        return { place, cut: { kind: "mitre", neighbour: other.id } as EndCut };
  for (const other of others) {
    const along = outOf(other, "end");
    const on = dot(subtract(place, other.from), along);
    const length = norm(subtract(other.to, other.from));
    if (on < -TOUCH - reachOf(other) || on > length + TOUCH + reachOf(other)) continue;
    const faces = flatsOf(other).some(
      (face) =>
        dot(face.normal, normal) < -1 + 1e-8 && Math.abs(dot(face.normal, place) - face.offset) < TOUCH,
    );
    if (!faces) continue;
    const met = nearest(place, out, other.from, along);
    // So that key sizes move both: the point stands where the two axes come nearest.
    if (!met || met.z < -TOUCH || met.apart > reachOf(other)) continue;
    return {
      place: add(place, scale(out, met.z)),
      cut: { kind: "butt", neighbour: other.id, gap: "0" } as EndCut,
    };
  }
  return null;
}

/** How far a section reaches from its centroid. */
const reachOf = ({ shape }: EnteredMember): number =>
  sectionProperties(shape).sharp.reduce((far, [x, y]) => Math.max(far, Math.hypot(x, y)), 0);

/** Finds the members of the same home whose boxes a place lies in. */
function cellsOf(
  members: readonly EnteredMember[],
): (place: Vec3, member: EnteredMember) => readonly EnteredMember[] {
  const boxed = members.map((member) => {
    const far = reachOf(member) + TOUCH;
    const [a, b] = [member.from, member.to];
    const low = ([0, 1, 2] as const).map((k) => Math.min(a[k], b[k]) - far);
    const high = ([0, 1, 2] as const).map((k) => Math.max(a[k], b[k]) + far);
    return { member, low, high };
  });
  return (place, self) =>
    boxed.flatMap(({ member, low, high }) =>
      member !== self &&
      member.home === self.home &&
      place.every((value, k) => value >= (low[k] ?? 0) && value <= (high[k] ?? 0))
        ? [member]
        : [],
    );
}
