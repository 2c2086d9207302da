/**
 * The shape stage: a job document with its computed sizes becomes placed solids. What cannot be
 * computed stays in the result by name, so that nothing in the design can go missing from the lists.
 */
import type { Mesh, Vec3 } from "../geometry";
import {
  type BoughtPart,
  type Check,
  isPresent,
  type Job,
  lengthWith,
  type Member,
  neighbourOf,
  numberWith,
  plainCheck,
  type Sizes,
  SQUARE_END,
} from "../job";
import { STEEP_END_DEG, STEEP_END_SLACK_DEG, sentence } from "../kernel";
import { formatDegrees, roundTo, toDegrees } from "../measure";
import { type BoughtEntry, type Stockroom, sectionProperties } from "../stockroom";
import { frameChecks } from "./frame-checks";
import { cutMember, type MemberSolid, meshOfMember, type PlacedMember, placeMember } from "./member";
import { meshOfPanel, type PanelSolid, placePanel } from "./panel";
import { placedPoints } from "./points";

/** A member or panel of the design that has no solid, and why. */
export type Uncomputed = {
  readonly kind: "member" | "panel";
  readonly id: string;
  readonly name: string;
  readonly leftOut: boolean;
  readonly why: string;
};

export type BoughtCount = {
  readonly part: BoughtPart;
  readonly entry: BoughtEntry | null;
  /** null: its count cannot be computed. */
  readonly count: number | null;
  /** Millimetres of each, for parts bought by length. */
  readonly length: number | null;
};

export type Shape = {
  readonly points: ReadonlyMap<string, Vec3>;
  readonly members: readonly MemberSolid[];
  readonly panels: readonly PanelSolid[];
  readonly bought: readonly BoughtCount[];
  readonly uncomputed: readonly Uncomputed[];
  /** Records whose condition does not hold with the present sizes: not part of the design now. */
  readonly absent: ReadonlySet<string>;
  readonly checks: readonly Check[];
  /** Points and lines: guides, counted beside the pieces. */
  readonly guides: number;
};

/** Turns the job into placed solids. Pure; the same inputs give the same shape. */
export function shapeJob(job: Job, sizes: Sizes, stockroom: Stockroom): Shape {
  const checks: Check[] = keySizeChecks(job, sizes);
  const points = placedPoints(job, sizes, (id, name, why) =>
    checks.push(plainCheck("notComputed", "error", `Point ${name}: ${why}`, [id])),
  );
  const uncomputed: Uncomputed[] = [];
  const absent = absentRecords(job, sizes, checks);
  const members = shapeMembers(job, points, sizes, stockroom, { uncomputed, checks, absent });
  const panels: PanelSolid[] = [];
  for (const panel of Object.values(job.panels)) {
    if (absent.has(panel.id)) continue;
    const placed = placePanel(panel, sizes, stockroom);
    if (placed.ok) {
      panels.push(placed.value);
      for (const remark of placed.value.remarks)
        checks.push(plainCheck("groove", "warning", `${panel.name}: ${remark}.`, [panel.id]));
    } else
      uncomputed.push({
        kind: "panel",
        id: panel.id,
        name: panel.name,
        leftOut: panel.leftOut,
        why: placed.problem,
      });
  }
  for (const piece of uncomputed) {
    const severity = piece.why === "it has no section yet" ? "noSection" : "notComputed";
    checks.push(
      plainCheck(severity, "error", `${piece.name} cannot be computed: ${withoutStop(piece.why)}.`, [
        piece.id,
      ]),
    );
  }
  checks.push(...frameChecks(job, points, members, panels));
  const bought = Object.values(job.boughtParts)
    .filter((part) => !absent.has(part.id))
    .map((part) => countBought(part, sizes, stockroom, checks));
  return {
    points,
    members,
    panels,
    bought,
    uncomputed,
    absent,
    checks,
    guides: Object.keys(job.points).length + Object.keys(job.lines).length,
  };
}

const withoutStop = (text: string) => text.replace(/\.$/, "");

function keySizeChecks(job: Job, sizes: Sizes): Check[] {
  return Object.values(job.keySizes).flatMap((size) => {
    const problem = sizes.problems.get(size.name);
    return problem
      ? [plainCheck("keySize", "error", `Key size ${size.name}: ${sentence(problem)}`, [size.id])]
      : [];
  });
}

function shapeMembers(
  job: Job,
  points: ReadonlyMap<string, Vec3>,
  sizes: Sizes,
  stockroom: Stockroom,
  { uncomputed, checks, absent }: { uncomputed: Uncomputed[]; checks: Check[]; absent: ReadonlySet<string> },
): readonly MemberSolid[] {
  const placed = new Map<string, PlacedMember>();
  const fail = (member: { id: string; name: string; leftOut: boolean }, why: string) =>
    uncomputed.push({ kind: "member", id: member.id, name: member.name, leftOut: member.leftOut, why });
  for (const given of Object.values(job.members)) {
    if (absent.has(given.id)) continue;
    const member = withoutAbsent(given, absent);
    const result = placeMember(job, member, points, sizes, stockroom);
    if (result.ok) placed.set(member.id, result.value);
    else fail(member, result.problem);
  }
  const solids: MemberSolid[] = [];
  for (const one of placed.values()) {
    const solid = cutMember(one, placed, sizes);
    if (!solid.ok) {
      fail(one.member, solid.problem);
      continue;
    }
    solids.push(solid.value);
    checks.push(...memberChecks(solid.value));
  }
  return solids;
}

/** Records that are not part of the design now; a condition that cannot be computed is told and counts as met. */
function absentRecords(job: Job, sizes: Sizes, checks: Check[]): ReadonlySet<string> {
  const absent = new Set<string>();
  for (const table of [job.members, job.panels, job.boughtParts]) {
    for (const { id, name, when } of Object.values(table)) {
      if (when === null) continue;
      const present = isPresent(sizes, when);
      if (!present.ok)
        checks.push(
          plainCheck("notComputed", "error", `${name}: its condition: ${sentence(present.problem)}`, [id]),
        );
      else if (!present.value) absent.add(id);
    }
  }
  return absent;
}

/** An end cut against a member that is not there now is square for the time being. */
function withoutAbsent(member: Member, absent: ReadonlySet<string>): Member {
  const cut = (end: Member["start"]) => (absent.has(neighbourOf(end) ?? "") ? SQUARE_END : end);
  const [start, end] = [cut(member.start), cut(member.end)];
  return start === member.start && end === member.end ? member : { ...member, start, end };
}

function memberChecks(solid: MemberSolid): readonly Check[] {
  const { member, lengths } = solid;
  const checks: Check[] = [];
  const say = (kind: Check["kind"], severity: Check["severity"], words: string) =>
    checks.push(plainCheck(kind, severity, `${member.name}: ${words}.`, [member.id]));
  for (const remark of solid.remarks) say("mitreDoesNotClose", "warning", remark);
  for (const side of ["start", "end"] as const) {
    const angle = toDegrees(Math.atan(Math.hypot(...solid[side].slope)));
    if (angle > STEEP_END_DEG + STEEP_END_SLACK_DEG) {
      say(
        "steepEnd",
        "warning",
        `its ${side} is cut at ${formatDegrees(angle)}° from square; few saws reach more than ${STEEP_END_DEG}°`,
      );
    }
  }
  if (lengths.shortestEdge < -1e-9) {
    say(
      "endsCross",
      "error",
      `its two ends cross: the shortest edge would be ${roundTo(lengths.shortestEdge, 1)} mm`,
    );
  } else if (lengths.cut < Math.max(...sectionProperties(solid.entry.shape).extent)) {
    say("shortMember", "warning", `at ${roundTo(lengths.cut, 1)} mm it is shorter than its section is deep`);
  }
  return checks;
}

function countBought(part: BoughtPart, sizes: Sizes, stockroom: Stockroom, checks: Check[]): BoughtCount {
  const entry = part.entry === null ? null : (stockroom.boughtById.get(part.entry) ?? null);
  const say = (kind: Check["kind"], words: string) =>
    checks.push(plainCheck(kind, "error", `${part.name}: ${words}`, [part.id]));
  if (!entry) say("noBoughtEntry", "it is not in the stockroom; choose an entry.");
  const read = numberWith(sizes, part.count);
  let count: number | null = null;
  if (!read.ok) say("notComputed", sentence(read.problem));
  else if (read.value < 0 || Math.abs(read.value - Math.round(read.value)) > 1e-9 || read.value > 1e6) {
    say(
      "notComputed",
      `its count would be ${roundTo(read.value, 3)}; it must be a whole number from 0 to 1,000,000.`,
    );
  } else count = Math.round(read.value);
  const length = part.length === null ? null : lengthWith(sizes, part.length);
  if (length && !length.ok) say("notComputed", sentence(length.problem));
  return { part, entry, count, length: length?.ok ? length.value : null };
}

/** The picture of a shape: one mesh a piece, by the id of its record. */
export function meshesOf(shape: Shape): ReadonlyMap<string, Mesh> {
  const meshes = new Map<string, Mesh>();
  for (const solid of shape.members) meshes.set(solid.member.id, meshOfMember(solid));
  for (const solid of shape.panels) meshes.set(solid.panel.id, meshOfPanel(solid));
  return meshes;
}
