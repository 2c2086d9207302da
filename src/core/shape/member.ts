/** Members as solids: their axes, their end planes and the lengths that the saw needs. */
import {
  distance,
  drawnPoints,
  type Frame,
  frameAlong,
  type Mesh,
  memberMesh,
  placeMesh,
  reach,
  toWorld,
  type Vec2,
  type Vec3,
} from "../geometry";
import {
  type EndCut,
  type Home,
  homeOfMember,
  type Job,
  lengthWith,
  type Member,
  numberWith,
  type Sizes,
  type UsualChoice,
  type UsualFinder,
} from "../job";
import { err, ok, POINT_TOLERANCE_MM, type Result, SAME_PLACE_MM, unreachable } from "../kernel";
import { toRadians } from "../measure";
import {
  type SectionEntry,
  type SectionProperties,
  type SectionShape,
  type Stockroom,
  sectionProperties,
} from "../stockroom";
import type { Bar, EndSide } from "./bar";
import { extremesOverTurn, meanOverRing, radiiOf } from "./cope";
import {
  type EndPlane,
  endHeight,
  endOnPlane,
  endOnRound,
  faceMetFirst,
  mitreCloses,
  mitrePlane,
  outerLoop,
  reachPast,
} from "./ends";
import { type EndFault, type MeetFault, type ShapeFault, textFault } from "./fault";

/** A member whose axes are known; its ends may not be. */
export type PlacedMember = {
  readonly member: Member;
  readonly home: Home;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly entry: SectionEntry;
  readonly material: string | null;
  readonly bar: Bar;
};

/** What is needed to read the records of a job beside the job itself. */
export type Readers = {
  readonly sizes: Sizes;
  readonly stockroom: Stockroom;
  readonly usual: UsualFinder;
};

/** A value of the record itself, or what is usual where it stands. */
export function ownOrUsual(own: string | null, usual: () => UsualChoice): string | null {
  return own ?? usual().value;
}

export type MemberSolid = {
  readonly member: Member;
  readonly home: Home;
  readonly entry: SectionEntry;
  /** Of what it is made; null where even the stock does not say. */
  readonly material: string | null;
  /** Origin on the line of centroids beside the line's first point; z along it. */
  readonly frame: Frame;
  readonly start: EndPlane;
  readonly end: EndPlane;
  readonly lengths: MemberLengths;
  /** What does not keep the member from being cut, but should be looked at. */
  readonly remarks: readonly string[];
  readonly mitreOpen: boolean;
};

export type MemberLengths = {
  /** Between the end planes on the line of centroids: area × this is the exact volume. */
  readonly centre: number;
  /** Tip to tip along the axis: what the stop is set to. */
  readonly cut: number;
  readonly longestEdge: number;
  /** Negative when the two ends cross. */
  readonly shortestEdge: number;
};

/** Lengths of a member from its end planes over the true outline, corner radii included. */
export function memberLengths(shape: SectionShape, centre: number, start: Vec2, end: Vec2): MemberLengths {
  const outline = outerLoop(sectionProperties(shape));
  const sum: Vec2 = [start[0] + end[0], start[1] + end[1]];
  return {
    centre,
    cut: centre + reach(outline, start) + reach(outline, end),
    longestEdge: centre + reach(outline, sum),
    shortestEdge: centre - reach(outline, [-sum[0], -sum[1]]),
  };
}

/** Lengths between two ends, copes included: their extremes over the outer surface, their means over the wall. */
function lengthsBetween(shape: SectionShape, start: EndPlane, end: EndPlane): MemberLengths {
  const radii = radiiOf(shape);
  if ((!start.cope && !end.cope) || !radii)
    return memberLengths(shape, end.z - start.z, start.slope, end.slope);
  const [low, high] = [endHeight("start", start), endHeight("end", end)];
  const onSurface = (height: (point: Vec2) => number) => (phi: number) =>
    height([radii.outer * Math.cos(phi), radii.outer * Math.sin(phi)]);
  const edge = extremesOverTurn((phi) => onSurface(high)(phi) - onSurface(low)(phi));
  return {
    centre: meanOverRing(radii.outer, radii.bore, high) - meanOverRing(radii.outer, radii.bore, low),
    cut: extremesOverTurn(onSurface(high)).greatest - extremesOverTurn(onSurface(low)).least,
    longestEdge: edge.greatest,
    shortestEdge: edge.least,
  };
}

/** The point of the section that lies on the line, from the centroid: IFC cardinal points 1 to 10 (ISO 16739-1). */
function cardinalPlace(properties: SectionProperties, cardinal: number): Vec2 {
  if (cardinal === 10) return [0, 0];
  const column = (cardinal - 1) % 3;
  const row = Math.floor((cardinal - 1) / 3);
  const { boxCentre, extent } = properties;
  return [boxCentre[0] + ((column - 1) * extent[0]) / 2, boxCentre[1] + ((row - 1) * extent[1]) / 2];
}

/** Puts a member on its line. */
export function placeMember(
  job: Job,
  member: Member,
  points: ReadonlyMap<string, Vec3>,
  { sizes, stockroom, usual }: Readers,
): Result<PlacedMember, ShapeFault> {
  const line = job.lines[member.line];
  if (!line) return err({ kind: "noLine" });
  const from = points.get(line.from);
  const to = points.get(line.to);
  if (!from || !to) return err({ kind: "noPoint" });
  const roll = numberWith(sizes, member.roll);
  if (!roll.ok) return err(textFault("roll", roll.problem));
  const frame = frameAlong(from, to, toRadians(roll.value));
  if (!frame || distance(from, to) < POINT_TOLERANCE_MM) return err({ kind: "noLength" });
  const home = homeOfMember(job, member);
  const section = ownOrUsual(member.section, () => usual(home, "section"));
  const entry = section === null ? undefined : stockroom.sectionById.get(section);
  if (!entry) return err({ kind: section === null ? "noSection" : "unknownSection" });
  const place = cardinalPlace(sectionProperties(entry.shape), member.cardinal);
  const origin = toWorld(frame, [-place[0], -place[1], 0]);
  return ok({
    member,
    home,
    material: ownOrUsual(member.material, () => usual(home, "memberMaterial")) ?? entry.material,
    from,
    to,
    entry,
    bar: { frame: { ...frame, origin }, length: distance(from, to), shape: entry.shape },
  });
}

type Others = Pick<ReadonlyMap<string, PlacedMember>, "get">;

/** Cuts a placed member's two ends against others of its home. */
export function cutMember(
  placed: PlacedMember,
  all: ReadonlyMap<string, PlacedMember>,
  sizes: Sizes,
): Result<MemberSolid, ShapeFault> {
  const others: Others = {
    get: (id) => {
      const other = all.get(id);
      return other?.home === placed.home ? other : undefined;
    },
  };
  const remarks: string[] = [];
  let mitreOpen = false;
  const cutEnd = (side: EndSide, cut: EndCut) => {
    const result = endPlane(placed, side, cut, others, sizes);
    if (!result.ok) return result;
    if (result.value.open) {
      mitreOpen = true;
      remarks.push(
        `the mitre at its ${side} does not close: the two outlines differ there; butt one to the other`,
      );
    }
    return ok(result.value.plane);
  };
  const start = cutEnd("start", placed.member.start);
  if (!start.ok) return err({ kind: "end", side: "start", why: start.problem });
  const end = cutEnd("end", placed.member.end);
  if (!end.ok) return err({ kind: "end", side: "end", why: end.problem });
  const lengths = lengthsBetween(placed.bar.shape, start.value, end.value);
  if (lengths.cut <= 0) return err({ kind: "endsCross" });
  return ok({
    member: placed.member,
    home: placed.home,
    material: placed.material,
    entry: placed.entry,
    frame: placed.bar.frame,
    start: start.value,
    end: end.value,
    lengths,
    remarks,
    mitreOpen,
  });
}

type CutResult = Result<{ readonly plane: EndPlane; readonly open: boolean }, EndFault>;

const cannotMeet = (
  cut: Extract<EndFault, { kind: "cannotMeet" }>["cut"],
  { member }: PlacedMember,
  why: MeetFault,
): EndFault => ({ kind: "cannotMeet", cut, name: member.name, why });

function endPlane(placed: PlacedMember, side: EndSide, cut: EndCut, others: Others, sizes: Sizes): CutResult {
  const joint = side === "start" ? placed.from : placed.to;
  switch (cut.kind) {
    case "square":
      return squareEnd(placed, side, cut, joint, others, sizes);
    case "mitre": {
      const other = others.get(cut.neighbour);
      if (!other) return err({ kind: "noNeighbour", cut: "mitre" });
      const otherSide = sideAt(other, joint);
      if (!otherSide) {
        const apart = Math.min(distance(other.from, joint), distance(other.to, joint));
        return err({ kind: "endsApart", name: other.member.name, apart });
      }
      const plane = mitrePlane(placed.bar, side, other.bar, otherSide, joint);
      if (!plane.ok) return err(cannotMeet("mitre", other, plane.problem));
      const gap = lengthWith(sizes, cut.gap ?? "0");
      if (!gap.ok) return err({ kind: "text", what: "gap", problem: gap.problem });
      // The normal points into this member: each of the two stands back by half of the gap.
      const { normal, offset } = plane.value;
      const end = endOnPlane(placed.bar, side, { normal, offset: offset + gap.value / 2 });
      if (!end.ok) return err(cannotMeet("mitre", other, end.problem));
      return ok({ plane: end.value, open: !mitreCloses(placed.bar, other.bar, plane.value) });
    }
    case "butt": {
      const other = others.get(cut.neighbour);
      if (!other) return err({ kind: "noNeighbour", cut: "butt" });
      const gap = lengthWith(sizes, cut.gap);
      if (!gap.ok) return err({ kind: "text", what: "gap", problem: gap.problem });
      const face = faceMetFirst(placed.bar, side, other.bar);
      if (!face.ok) return err(cannotMeet("butt", other, face.problem));
      const plane = { normal: face.value.normal, offset: face.value.offset + gap.value };
      const end = endOnPlane(placed.bar, side, plane);
      if (!end.ok) return err(cannotMeet("butt", other, end.problem));
      return ok({ plane: end.value, open: false });
    }
    case "cope": {
      const other = others.get(cut.neighbour);
      if (!other) return err({ kind: "noNeighbour", cut: "cope" });
      const gap = lengthWith(sizes, cut.gap);
      if (!gap.ok) return err({ kind: "text", what: "gap", problem: gap.problem });
      const end = endOnRound(placed.bar, side, other.bar, gap.value, cut.curve);
      return end.ok ? ok({ plane: end.value, open: false }) : err(cannotMeet("cope", other, end.problem));
    }
    case "level": {
      const offset = lengthWith(sizes, cut.offset);
      if (!offset.ok) return err({ kind: "text", what: "offset", problem: offset.problem });
      const end = endOnPlane(placed.bar, side, { normal: [0, 0, 1], offset: joint[2] + offset.value });
      if (!end.ok) return err({ kind: "levelMember" });
      return ok({ plane: end.value, open: false });
    }
    default:
      return unreachable(cut);
  }
}

function squareEnd(
  placed: PlacedMember,
  side: EndSide,
  cut: Extract<EndCut, { kind: "square" }>,
  joint: Vec3,
  others: Others,
  sizes: Sizes,
): CutResult {
  const offset = lengthWith(sizes, cut.offset);
  if (!offset.ok) return err({ kind: "text", what: "offset", problem: offset.problem });
  let beyond = offset.value;
  if (cut.past !== null) {
    const branch = others.get(cut.past);
    if (!branch) return err({ kind: "noNeighbour", cut: "past" });
    const branchSide = sideAt(branch, joint);
    if (!branchSide) return err({ kind: "doesNotEndThere", name: branch.member.name });
    const past = reachPast(placed.bar, side, joint, branch.bar, branchSide);
    if (!past.ok) return err(cannotMeet("past", branch, past.problem));
    beyond += past.value;
  }
  const z = side === "start" ? -beyond : placed.bar.length + beyond;
  return ok({ plane: { z, slope: [0, 0], cope: null }, open: false });
}

/** At which of its ends a member meets a point; null when it does not. */
function sideAt(placed: PlacedMember, point: Vec3): EndSide | null {
  // A micron: far below what two formulas for one corner differ by, far above double noise.
  if (distance(placed.from, point) < SAME_PLACE_MM) return "start";
  return distance(placed.to, point) < SAME_PLACE_MM ? "end" : null;
}

/** The solid for the picture, in the job's coordinates. */
export function meshOfMember(solid: MemberSolid): Mesh {
  const loops = sectionProperties(solid.entry.shape).loops.map((loop) => drawnPoints(loop));
  const mesh = memberMesh(loops, endHeight("start", solid.start), endHeight("end", solid.end));
  return placeMesh(mesh, solid.frame);
}
