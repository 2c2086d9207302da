/**
 * Joints and the end cuts that are proposed at them: where a member runs through, the others butt against
 * it; two level ends of one section mitre and what else ends there butts under them; otherwise the first
 * runs past and the others butt against it (2-computation.md, section 3).
 */
import { cross, distance, dot, norm, scale, subtract, type Vec3 } from "../geometry";
import {
  defaultFinder,
  type EndCut,
  type Home,
  type Job,
  type Member,
  putBetween,
  type Sizes,
  SQUARE_END,
} from "../job";
import { addTo, at, SAME_PLACE_MM } from "../kernel";
import { type Stockroom, sectionProperties } from "../stockroom";
import type { EndSide, PlacedMember } from "./bar";
import { cellOf, cellsNear, LINE_CELL_MM, linesByCell, maybeBeside } from "./cells";
import { endOnRound } from "./cope";
import { faceMetFirst, mitreCloses, mitrePlane } from "./ends";
import { placeMember } from "./member";
import { placeOfPoint } from "./points";

const LEVEL = 1e-6;

type End = { readonly placed: PlacedMember; readonly side: EndSide; readonly away: Vec3 };
export type ProposedCut = { readonly member: Member["id"]; readonly side: EndSide; readonly cut: EndCut };

/** How joints are cut: corners of two mitred or butted, who runs through where they butt, and the gap for the weld. */
export type JointRule = {
  readonly corners: "mitre" | "butt";
  /** `deepest`: the one with the deepest section; otherwise the level or the plumb ones, or one member by its id. */
  readonly through: "deepest" | "level" | "plumb" | { readonly member: string };
  readonly gap: string;
};

export const PROPOSED_RULE: JointRule = { corners: "mitre", through: "deepest", gap: "0" };

/**
 * The cuts that a rule gives to the joints at which at least two of the members meet, or to the places in `only` alone. Only ends
 * of those members are cut anew; all that they were before is replaced.
 */
export function cutsByRule(
  job: Job,
  ids: ReadonlySet<string>,
  rule: JointRule,
  {
    sizes,
    stockroom,
    only,
  }: { readonly sizes: Sizes; readonly stockroom: Stockroom; readonly only?: readonly Vec3[] },
): readonly ProposedCut[] {
  const own = Object.values(job.members).filter(({ id }) => ids.has(id));
  const placed = placedMembers({ job, sizes, stockroom, points: pointPlaces(job, sizes) }, own);
  const joints = jointsOf(placed).filter(
    ({ joint }) => !only || only.some((place) => distance(joint, place) < SAME_PLACE_MM),
  );
  return cutsAt(joints, placed, rule);
}

type Joint = { readonly home: Home; readonly joint: Vec3 };

/** mm. Joints lie farther apart than this as a rule. */
const JOINT_CELL_MM = 100;

/** The places at which members begin or end, each once in each home. */
function jointsOf(placed: readonly PlacedMember[]): readonly Joint[] {
  const joints: Joint[] = [];
  const cells = new Map<number, Joint[]>();
  for (const { home, from, to } of placed)
    for (const joint of [from, to]) {
      const isThere = cellsNear(joint, JOINT_CELL_MM).some((cell) =>
        cells.get(cell)?.some((one) => one.home === home && distance(one.joint, joint) < SAME_PLACE_MM),
      );
      if (isThere) continue;
      const found = { home, joint };
      joints.push(found);
      const own = cellOf(joint, JOINT_CELL_MM);
      addTo(cells, own, found);
    }
  return joints;
}

/** Of more joints it is looked up which members come near: each would be compared with every member otherwise. */
const FEW_JOINTS = 8;

/** The cuts that a rule gives to joints of members. */
function cutsAt(
  joints: readonly Joint[],
  placed: readonly PlacedMember[],
  rule: JointRule,
): readonly ProposedCut[] {
  const near = joints.length > FEW_JOINTS ? membersByPlace(placed) : () => placed;
  return joints.flatMap(({ home, joint }) =>
    atJoint(
      near(joint).filter((one) => one.home === home),
      joint,
      rule,
    ),
  );
}

/** Finds the members whose line may pass a place, in their order. */
function membersByPlace(placed: readonly PlacedMember[]): (place: Vec3) => readonly PlacedMember[] {
  const cells = linesByCell(
    placed.map((member, order) => ({ member, order, from: member.from, to: member.to })),
  );
  return (place) => {
    const found = new Set(cellsNear(place, LINE_CELL_MM).flatMap((cell) => cells.get(cell) ?? []));
    return [...found].sort((a, b) => a.order - b.order).map(({ member }) => member);
  };
}

/**
 * End cuts for the joints that the given members touch. Ends of other members are changed only where they
 * are plainly square, so that nothing that somebody chose is lost.
 */
export function proposedCuts(
  job: Job,
  ids: ReadonlySet<string>,
  ground: { readonly sizes: Sizes; readonly stockroom: Stockroom },
  points: ReadonlyMap<string, Vec3> = pointPlaces(job, ground.sizes),
): readonly ProposedCut[] {
  const own = [...ids].flatMap((id) => job.members[id] ?? []);
  const joints = jointsOf(placedMembers({ job, points, ...ground }, own));
  // Of a few joints only what comes near is placed at all.
  const isNear = (from: Vec3, to: Vec3) =>
    joints.length > FEW_JOINTS || joints.some(({ joint }) => maybeBeside(joint, from, to));
  const placed = placedMembers({ job, points, ...ground }, Object.values(job.members), isNear);
  const proposals = cutsAt(joints, placed, PROPOSED_RULE);
  return proposals.filter(({ member, side, cut }) => {
    const now = job.members[member]?.[side];
    const free = ids.has(member) || (now?.kind === "square" && now.past === null && now.offset === "0");
    return free && JSON.stringify(now) !== JSON.stringify(cut);
  });
}

type KnownPoints = {
  readonly table: Job["points"];
  readonly sizes: Sizes;
  readonly places: Map<string, Vec3>;
};
let knownPoints: KnownPoints | null = null;

/** Where the points of a job are. One member after the other is drawn into a job of thousands: only new points are computed. */
export function pointPlaces(job: Job, sizes: Sizes): ReadonlyMap<string, Vec3> {
  const last = knownPoints?.sizes === sizes ? knownPoints : null;
  if (last?.table === job.points) return last.places;
  const put = last && putBetween(last.table, job.points);
  const places = new Map(put ? last.places : []);
  const points = put ? put.flatMap((id) => job.points[id] ?? []) : Object.values(job.points);
  for (const point of points) {
    const place = placeOfPoint(point, sizes);
    if (place.ok) places.set(point.id, place.value);
    else places.delete(point.id);
  }
  knownPoints = { table: job.points, sizes, places };
  return places;
}

type PlacingGround = {
  readonly job: Job;
  readonly points: ReadonlyMap<string, Vec3>;
  readonly sizes: Sizes;
  readonly stockroom: Stockroom;
};

/** Members as they are placed, those that can be; of those alone whose two ends are `wanted`. */
function placedMembers(
  { job, points, sizes, stockroom }: PlacingGround,
  members: readonly Member[],
  wanted: (from: Vec3, to: Vec3) => boolean = () => true,
): readonly PlacedMember[] {
  const usual = defaultFinder(job);
  return members.flatMap((member) => {
    const line = job.lines[member.line];
    const [from, to] = [points.get(line?.from ?? ""), points.get(line?.to ?? "")];
    if (!from || !to || !wanted(from, to)) return [];
    const placed = placeMember(job, member, points, { sizes, stockroom, usual });
    return placed.ok ? [placed.value] : [];
  });
}

function atJoint(placed: readonly PlacedMember[], joint: Vec3, rule: JointRule): readonly ProposedCut[] {
  const ends = placed.flatMap((one): End[] => {
    const { z } = one.bar.frame;
    if (distance(one.from, joint) < SAME_PLACE_MM) return [{ placed: one, side: "start", away: z }];
    return distance(one.to, joint) < SAME_PLACE_MM ? [{ placed: one, side: "end", away: scale(z, -1) }] : [];
  });
  const through = placed.find((one) => runsThrough(one, joint));
  if (through) return ends.map((end) => buttOrSquare(end, through, rule.gap));
  if (ends.length < 2) return [];
  const pair = rule.corners === "mitre" ? mitredPair(ends) : null;
  if (pair) {
    const [first, second] = pair;
    const rest = ends.filter((end) => end !== first && end !== second);
    return [
      mitre(first, second, rule.gap),
      mitre(second, first, rule.gap),
      ...rest.map((end) => buttOrSquare(end, first.placed, rule.gap)),
    ];
  }
  return cornerOf(ends, rule);
}

function runsThrough({ from, to }: PlacedMember, joint: Vec3): boolean {
  const run = subtract(to, from);
  const length = norm(run);
  const along = dot(subtract(joint, from), run) / length;
  const beside = norm(cross(subtract(joint, from), run)) / length;
  return beside < SAME_PLACE_MM && along > SAME_PLACE_MM && along < length - SAME_PLACE_MM;
}

const isLevel = (end: End) => Math.abs(end.away[2]) < LEVEL;
const areCollinear = (a: End, b: End) => norm(cross(a.away, b.away)) < LEVEL;

/** Two ends that mitre: the only two there, or the two level ones of three or more. */
function mitredPair(ends: readonly End[]): readonly [End, End] | null {
  const candidates = ends.length === 2 ? ends : ends.filter(isLevel);
  for (let i = 0; i < candidates.length; i++) {
    for (let j = i + 1; j < candidates.length; j++) {
      const [a, b] = [at(candidates, i), at(candidates, j)];
      if (!areCollinear(a, b) && closes(a, b)) return [a, b];
    }
  }
  return null;
}

function closes(a: End, b: End): boolean {
  const joint = a.side === "start" ? a.placed.from : a.placed.to;
  const plane = mitrePlane(a.placed.bar, a.side, b.placed.bar, b.side, joint);
  return plane.ok && mitreCloses(a.placed.bar, b.placed.bar, plane.value);
}

const mitre = (end: End, other: End, gap: string): ProposedCut => ({
  member: end.placed.member.id,
  side: end.side,
  cut: { kind: "mitre", neighbour: other.placed.member.id, ...(gap === "0" ? {} : { gap }) },
});

/** A butt where there is a flat face to meet, a cope round onto round; else the end stays square. */
function buttOrSquare(end: End, against: PlacedMember, gap: string): ProposedCut {
  if (endOnRound(end.placed.bar, end.side, against.bar, 0, "surface").ok) {
    const cut: EndCut = { kind: "cope", neighbour: against.member.id, gap, curve: "surface" };
    return { member: end.placed.member.id, side: end.side, cut };
  }
  const meets = faceMetFirst(end.placed.bar, end.side, against.bar).ok;
  const cut: EndCut = meets ? { kind: "butt", neighbour: against.member.id, gap } : SQUARE_END;
  return { member: end.placed.member.id, side: end.side, cut };
}

/** Who runs past where nobody is said to: the deepest section, plumb ones first. */
function leaderOf(ends: readonly End[], through: JointRule["through"]): End {
  const depth = ({ placed }: End) => Math.max(...sectionProperties(placed.bar.shape).extent);
  const upright = (end: End) => Math.abs(end.away[2]);
  const deepest = (a: End, b: End) => {
    const deeper = depth(b) - depth(a);
    if (Math.abs(deeper) > SAME_PLACE_MM) return deeper > 0 ? b : a;
    return upright(b) > upright(a) + LEVEL ? b : a;
  };
  if (typeof through === "object")
    return ends.find(({ placed }) => placed.member.id === through.member) ?? ends.reduce(deepest);
  if (through === "deepest") return ends.reduce(deepest);
  const wanted = through === "plumb" ? upright : (end: End) => -upright(end);
  return ends.reduce((best, end) => (wanted(end) > wanted(best) + LEVEL ? end : best));
}

/** One runs past, the others butt against it. */
function cornerOf(ends: readonly End[], { through, gap }: JointRule): readonly ProposedCut[] {
  const leader = leaderOf(ends, through);
  const others = ends.filter((end) => end !== leader);
  const butting = others.map((end) => buttOrSquare(end, leader.placed, gap));
  const first = butting.find(({ cut }) => cut.kind === "butt");
  const past: EndCut = first ? { kind: "square", offset: "0", past: first.member } : SQUARE_END;
  return [{ member: leader.placed.member.id, side: leader.side, cut: past }, ...butting];
}
