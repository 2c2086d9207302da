/** Members as solids: their axes, their ends and the lengths that the saw needs. */
import { lengthsBetween, type MemberLengths } from "../ends";
import { distance, type Frame, frameAlong, toWorld, type Vec2, type Vec3 } from "../geometry";
import {
  type DefaultChoice,
  type DefaultFinder,
  type EndCut,
  type Home,
  homeOfMember,
  type Job,
  type Member,
  numberWith,
  type Sizes,
} from "../job";
import { err, ok, POINT_TOLERANCE_MM, type Result } from "../kernel";
import { toRadians } from "../measure";
import { type SectionEntry, type SectionProperties, type Stockroom, sectionProperties } from "../stockroom";
import type { EndSide, PlacedMember } from "./bar";
import { endOf, type NotchPart, type Others } from "./end-cutters";
import type { MemberEnd } from "./ends";
import { type ShapeFault, textFault } from "./fault";
import { type MemberWorkSolid, resolveWork, workRemarks } from "./member-work";

/** What is needed to read the records of a job beside the job itself. */
export type Readers = {
  readonly sizes: Sizes;
  readonly stockroom: Stockroom;
  readonly usual: DefaultFinder;
};

/** A value of the record itself, or what is usual where it stands. */
export function ownOrDefault(own: string | null, usual: () => DefaultChoice): string | null {
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
  readonly start: MemberEnd;
  readonly end: MemberEnd;
  readonly lengths: MemberLengths;
  /** Holes and notches; null: none. */
  readonly work: MemberWorkSolid | null;
  /** What does not keep the member from being cut, but should be looked at. */
  readonly remarks: readonly string[];
  readonly mitreOpen: boolean;
};

/** The point of the section that lies on the line, from the centroid: IFC cardinal points 1 to 10 (ISO 16739-1). */
export function cardinalPlace(properties: SectionProperties, cardinal: number): Vec2 {
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
  const section = ownOrDefault(member.section, () => usual(home, "section"));
  const entry = section === null ? undefined : stockroom.sectionById.get(section);
  if (!entry) return err({ kind: section === null ? "noSection" : "unknownSection" });
  const place = cardinalPlace(sectionProperties(entry.shape), member.cardinal);
  const origin = toWorld(frame, [-place[0], -place[1], 0]);
  return ok({
    member,
    home,
    material: ownOrDefault(member.material, () => usual(home, "memberMaterial")) ?? entry.material,
    from,
    to,
    entry,
    bar: { frame: { ...frame, origin }, length: distance(from, to), shape: entry.shape },
  });
}

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
  const { bar } = placed;
  const remarks: string[] = [];
  const fitted: (NotchPart & { readonly side: EndSide })[] = [];
  let mitreOpen = false;
  const cutEnd = (side: EndSide, cut: EndCut) => {
    const joint = side === "start" ? placed.from : placed.to;
    const result = endOf(cut, { placed, side, joint, others, sizes });
    if (!result.ok) return result;
    if (result.value.open) {
      mitreOpen = true;
      remarks.push(`the mitre at its ${side} has a gap: the sections differ. Use a butt cut`);
    }
    for (const part of result.value.notches ?? []) fitted.push({ ...part, side });
    return ok(result.value.end);
  };
  const start = cutEnd("start", placed.member.start);
  if (!start.ok) return err({ kind: "end", side: "start", why: start.problem });
  const end = cutEnd("end", placed.member.end);
  if (!end.ok) return err({ kind: "end", side: "end", why: end.problem });
  const between = end.value.z - start.value.z;
  const lengths = lengthsBetween(bar.shape, between, start.value.form, end.value.form);
  if (lengths.cut <= 0) return err({ kind: "endsCross" });
  const solid = { start: start.value, end: end.value, entry: placed.entry };
  const plain = placed.member.work.length + fitted.length === 0;
  const work = plain ? ok(null) : resolveWork(placed.member.work, solid, sizes, fitted);
  if (!work.ok) return work;
  if (work.value) remarks.push(...workRemarks(work.value, solid, sizes.style));
  return ok({
    member: placed.member,
    home: placed.home,
    material: placed.material,
    entry: placed.entry,
    frame: bar.frame,
    start: start.value,
    end: end.value,
    lengths,
    work: work.value,
    remarks,
    mitreOpen,
  });
}
