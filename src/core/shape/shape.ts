/**
 * The shape stage: a job document with its computed sizes becomes placed solids. Each record is computed
 * once, in the axes of the job or the assembly that it lives in; `places` says where and how often that
 * stands. What cannot be computed stays in the result by name, so that nothing in the design can go missing
 * from the lists.
 */

import { kindOf } from "../ends";
import { type FlatMesh, flatMesh, poseMesh, type Vec3 } from "../geometry";
import {
  type Assets,
  type Check,
  type DefaultFinder,
  defaultFinder,
  type Home,
  homeOfLine,
  homeOfMember,
  isPresent,
  type Job,
  type Member,
  NO_ASSETS,
  neighboursOf,
  plainCheck,
  type Sizes,
  withoutNeighbours,
} from "../job";
import {
  finished,
  type Problem,
  remembersEach,
  STEEP_END_DEG,
  STEEP_END_SLACK_DEG,
  sentence,
} from "../kernel";
import { formatDegrees, type LengthStyle, sayLength, toDegrees } from "../measure";
import { type Stockroom, sectionProperties } from "../stockroom";
import type { PlacedMember } from "./bar";
import { type BoughtCount, countBought, meshOfStandIn } from "./bought";
import { faultWords, type ShapeFault } from "./fault";
import { frameChecks } from "./frame-checks";
import { guideIds } from "./guides";
import { cutMember, type MemberSolid, placeMember } from "./member";
import { meshOfMember } from "./member-solid";
import { newShapeMemory, type ShapeMemory } from "./memory";
import type { PanelSolid } from "./panel";
import { meshOfPanel } from "./panel-solid";
import { placedPanels } from "./panels";
import { type Instance, instancesOf, type Places } from "./places";
import { placedPoints } from "./points";

/** A member or panel of the design that has no solid, and why. */
export type Uncomputed = {
  readonly kind: "member" | "panel";
  readonly id: string;
  readonly name: string;
  readonly home: Home;
  readonly leftOut: boolean;
  readonly why: ShapeFault;
};

export type Shape = {
  /** In the axes of their homes, like all solids here. */
  readonly points: ReadonlyMap<string, Vec3>;
  readonly members: readonly MemberSolid[];
  readonly panels: readonly PanelSolid[];
  readonly bought: readonly BoughtCount[];
  readonly uncomputed: readonly Uncomputed[];
  readonly places: Places;
  /** Records whose condition does not hold with the present sizes: not part of the design now. */
  readonly absent: ReadonlySet<string>;
  readonly checks: readonly Check[];
  /** Lines that carry no member, and points on no line: what was drawn as a guide, counted beside the pieces. */
  readonly guides: number;
};

/** A shape stage with its own memory: what an edit does not touch is not computed again. */
export function createShaper(): (job: Job, sizes: Sizes, stockroom: Stockroom) => Shape {
  const memory = newShapeMemory();
  return (job, sizes, stockroom) => shapeJob(job, sizes, stockroom, memory);
}

/** Turns the job into placed solids. Pure; the same inputs give the same shape, whatever is remembered. */
export function shapeJob(
  job: Job,
  sizes: Sizes,
  stockroom: Stockroom,
  memory: ShapeMemory = newShapeMemory(),
): Shape {
  const checks: Check[] = keySizeChecks(job, sizes);
  const placed = memory.allPoints(job.points, [sizes], () => {
    const faults: Check[] = [];
    const onFault = (id: string, name: string, why: Problem) =>
      faults.push(plainCheck("notComputed", "error", `Point ${name}: ${sentence(why)}`, [id]));
    return { points: memory.points(placedPoints(job, sizes, { onFault, memory })), checks: faults };
  });
  const { points } = placed;
  checks.push(...placed.checks);
  const uncomputed: Uncomputed[] = [];
  const absent = memory.absent(absentRecords(job, sizes, checks));
  const { info, assemblies, placements } = job;
  const stood = memory.places(memory, [assemblies, placements, sizes, absent], () => {
    const found: Check[] = [];
    return { places: instancesOf(job, sizes, absent, found), checks: found };
  });
  const { places } = stood;
  checks.push(...stood.checks);
  const usual = memory.usual(memory, [info, assemblies, placements], () => defaultFinder(job));
  const ground: Ground = { job, sizes, stockroom, usual, absent, checks, uncomputed, memory };
  const members = shapeMembers(ground, points);
  const panels = shapePanels(ground);
  for (const piece of uncomputed) {
    checks.push(
      plainCheck(
        piece.why.kind === "noSection" ? "noSection" : "notComputed",
        "error",
        `${piece.name} cannot be computed: ${faultWords(piece.why, sizes.style)}.`,
        [piece.id],
      ),
    );
  }
  checks.push(
    ...disputedDefaults(job, usual),
    ...frameChecks(job, { points, members, panels, places }, memory),
  );
  return {
    points,
    members,
    panels,
    bought: countBought(job, { sizes, stockroom, absent, places, checks }),
    uncomputed,
    places,
    absent,
    checks,
    guides: guideIds(job).length,
  };
}

type Ground = {
  readonly job: Job;
  readonly sizes: Sizes;
  readonly stockroom: Stockroom;
  readonly usual: DefaultFinder;
  readonly absent: ReadonlySet<string>;
  readonly checks: Check[];
  readonly uncomputed: Uncomputed[];
  readonly memory: ShapeMemory;
};

function shapePanels({ job, sizes, stockroom, usual, absent, checks, uncomputed, memory }: Ground) {
  const panels: PanelSolid[] = [];
  for (const [panel, placed] of placedPanels(job, { sizes, stockroom, usual, absent, memory })) {
    if (placed.ok) {
      panels.push(placed.value);
      for (const remark of placed.value.remarks)
        checks.push(plainCheck("groove", "warning", `${panel.name}: ${remark}.`, [panel.id]));
    } else
      uncomputed.push({
        kind: "panel",
        id: panel.id,
        name: panel.name,
        home: panel.assembly,
        leftOut: panel.leftOut,
        why: placed.problem,
      });
  }
  return panels;
}

/** Assemblies that stand in places which say different things: the pieces cannot follow both. */
function disputedDefaults(job: Job, usual: DefaultFinder): readonly Check[] {
  return Object.values(job.assemblies).flatMap((assembly) =>
    (["section", "board", "memberMaterial", "panelMaterial"] as const).flatMap((field) => {
      const { disputed } = usual(assembly.id, field);
      if (disputed.length === 0) return [];
      const words = `${assembly.name} stands in ${disputed.join(" and ")}, which differ in the ${USUAL_WORDS[field]}; say on ${assembly.name} which one it has.`;
      return [plainCheck("usual", "warning", words, [assembly.id])];
    }),
  );
}

const USUAL_WORDS = {
  section: "usual section",
  board: "usual board",
  memberMaterial: "material of members",
  panelMaterial: "material of panels",
} as const;

function keySizeChecks(job: Job, sizes: Sizes): Check[] {
  return Object.values(job.keySizes).flatMap((size) => {
    const problem = sizes.problems.get(size.name);
    return problem
      ? [plainCheck("keySize", "error", `Key size ${size.name}: ${sentence(problem)}`, [size.id])]
      : [];
  });
}

function shapeMembers(
  { job, sizes, stockroom, usual, uncomputed, checks, absent, memory }: Ground,
  points: ReadonlyMap<string, Vec3>,
): readonly MemberSolid[] {
  const placed = new Map<string, PlacedMember>();
  const fail = (member: Member, home: Home, why: ShapeFault) =>
    uncomputed.push({
      kind: "member",
      id: member.id,
      name: member.name,
      home,
      leftOut: member.leftOut,
      why,
    });
  for (const given of Object.values(job.members)) {
    if (absent.has(given.id)) continue;
    const member = absent.size === 0 ? given : withoutAbsent(given, absent);
    const line = job.lines[member.line];
    const [start, end] = [points.get(line?.from ?? ""), points.get(line?.to ?? "")];
    const home = homeOfLine(job, line);
    const result = memory.placed(member, [line, start, end, home, sizes, stockroom, usual], () =>
      placeMember(job, member, points, { sizes, stockroom, usual }),
    );
    if (result.ok) placed.set(member.id, result.value);
    else fail(member, home, result.problem);
  }
  const solids: MemberSolid[] = [];
  for (const one of placed.values()) {
    const { start, end } = one.member;
    const neighbours = [...neighboursOf(start), ...neighboursOf(end)];
    const from = [...neighbours.map((id) => placed.get(id)), sizes];
    const solid = memory.cut(one, from, () => cutMember(one, placed, sizes));
    if (!solid.ok) {
      fail(one.member, one.home, solid.problem);
      continue;
    }
    solids.push(solid.value);
    const { value } = solid;
    checks.push(
      ...memory.memberChecks(value, [sizes.style.unit, sizes.style.format], () =>
        memberChecks(value, sizes.style),
      ),
    );
  }
  return solids;
}

/** Records that are not part of the design now; a condition that cannot be computed is told and counts as met. */
function absentRecords(job: Job, sizes: Sizes, checks: Check[]): ReadonlySet<string> {
  const absent = new Set<string>();
  const nameOf = (record: { readonly name: string } | { readonly assembly: string }) =>
    "name" in record ? record.name : (job.assemblies[record.assembly]?.name ?? "An assembly");
  for (const table of [job.members, job.panels, job.boughtParts, job.placements]) {
    for (const record of Object.values(table)) {
      const { id, when } = record;
      if (when === null) continue;
      const name = nameOf(record);
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

/** An end cut against a member that is not there now is cut by what is left of it for the time being. */
function withoutAbsent(member: Member, absent: ReadonlySet<string>): Member {
  const [start, end] = [withoutNeighbours(member.start, absent), withoutNeighbours(member.end, absent)];
  return start === member.start && end === member.end ? member : { ...member, start, end };
}

function memberChecks(solid: MemberSolid, style: LengthStyle): readonly Check[] {
  const { member, lengths } = solid;
  const checks: Check[] = [];
  const say = (kind: Check["kind"], severity: Check["severity"], words: string) =>
    checks.push(plainCheck(kind, severity, `${member.name}: ${words}.`, [member.id]));
  for (const remark of solid.remarks) say("mitreDoesNotClose", "warning", remark);
  for (const side of ["start", "end"] as const) {
    const { form } = solid[side];
    const steepest = Math.max(
      ...kindOf(form)
        .slopes(form)
        .map((slope) => Math.hypot(...slope)),
    );
    const angle = toDegrees(Math.atan(steepest));
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
      `its two ends cross: the shortest edge would be ${sayLength(lengths.shortestEdge, style)}`,
    );
  } else if (lengths.cut < Math.max(...sectionProperties(solid.entry.shape).extent)) {
    say(
      "shortMember",
      "warning",
      `at ${sayLength(lengths.cut, style)} it is shorter than its section is deep`,
    );
  }
  return checks;
}

/** How many members and panels stand in a design, each as often as its home does, and whether anything does that has a picture. */
export type Standing = { readonly pieces: number; readonly anything: boolean };

/** Counted without computing a solid. */
export function countStanding(job: Job, sizes: Sizes): Standing {
  const unheard: Check[] = [];
  const absent = absentRecords(job, sizes, unheard);
  const places = instancesOf(job, sizes, absent, unheard);
  let pieces = 0;
  const count = (id: string, home: Home) => {
    if (!absent.has(id)) pieces += places.get(home)?.length ?? 0;
  };
  for (const member of Object.values(job.members)) count(member.id, homeOfMember(job, member));
  for (const panel of Object.values(job.panels)) count(panel.id, panel.assembly);
  const bought = Object.values(job.boughtParts).some(
    ({ id, assembly }) => !absent.has(id) && places.has(assembly),
  );
  return { pieces, anything: pieces > 0 || bought };
}

const membersById = remembersEach<Shape["members"], ReadonlyMap<string, MemberSolid>>();
const panelsById = remembersEach<Shape["panels"], ReadonlyMap<string, PanelSolid>>();

/** The solid of a member by its id; undefined where it has none. */
export function memberSolid({ members }: Pick<Shape, "members">, id: string): MemberSolid | undefined {
  return membersById(members, [], () => new Map(members.map((one) => [one.member.id, one]))).get(id);
}

/** The solid of a panel by its id; undefined where it has none. */
export function panelSolid({ panels }: Pick<Shape, "panels">, id: string): PanelSolid | undefined {
  return panelsById(panels, [], () => new Map(panels.map((one) => [one.panel.id, one]))).get(id);
}

/** One piece as it stands in the picture: what it is of, its mesh in the job's coordinates, and the way to it. */
export type PlacedMesh = {
  readonly record: string;
  readonly of: MemberSolid | PanelSolid | BoughtCount;
  readonly instance: Instance;
  readonly mesh: FlatMesh;
};

// Solids never change, so their meshes are made once and go when they go.
const memberMeshes = remembersEach<MemberSolid, FlatMesh>();
const panelMeshes = remembersEach<PanelSolid, FlatMesh>();

/** From more pieces than these on sections are drawn with sharp corners: a third of the triangles, and no eye sees it. */
const ROUND_UP_TO = 1_000;

const memberMesh = (solid: MemberSolid, sharp: boolean): FlatMesh =>
  memberMeshes(solid, [sharp], () => meshOfMember(solid, sharp));
const panelMesh = (solid: PanelSolid): FlatMesh => panelMeshes(solid, [], () => meshOfPanel(solid));

/** Where a mesh stands in each instance: the same mesh again as long as both are. */
const posedMeshes = remembersEach<FlatMesh, Map<Instance, FlatMesh>>();
function posed(mesh: FlatMesh, instance: Instance): FlatMesh {
  if (instance.key === "") return mesh;
  const known = posedMeshes(mesh, [], () => new Map());
  const made = known.get(instance) ?? poseMesh(mesh, instance.pose);
  known.set(instance, made);
  return made;
}

const standing = ({ places }: Shape, home: Home): readonly Instance[] => places.get(home) ?? [];

function isSharp(shape: Shape): boolean {
  return shape.members.reduce((sum, { home }) => sum + standing(shape, home).length, 0) > ROUND_UP_TO;
}

const pictures = remembersEach<Shape, readonly PlacedMesh[]>();

/** The picture of a shape: one mesh for every piece that stands somewhere, those from files where they are at hand. */
export const meshesOf = (shape: Shape, assets: Assets = NO_ASSETS): readonly PlacedMesh[] =>
  pictures(shape, [assets], () => finished(placedMeshes(shape, assets)));

/** Makes the picture of a shape ahead of `meshesOf`, one solid a step. */
export function* makeMeshes(shape: Shape, assets: Assets = NO_ASSETS): Generator<void, void> {
  const made = yield* placedMeshes(shape, assets);
  pictures(shape, [assets], () => made);
}

function* placedMeshes(shape: Shape, assets: Assets): Generator<void, readonly PlacedMesh[]> {
  const meshes: PlacedMesh[] = [];
  const sharp = isSharp(shape);
  const place = (record: string, of: PlacedMesh["of"], home: Home, own: FlatMesh) => {
    for (const instance of standing(shape, home))
      meshes.push({ record, of, instance, mesh: posed(own, instance) });
  };
  for (const solid of shape.members)
    yield place(solid.member.id, solid, solid.home, memberMesh(solid, sharp));
  for (const solid of shape.panels)
    yield place(solid.panel.id, solid, solid.panel.assembly, panelMesh(solid));
  for (const one of shape.bought)
    for (const mesh of meshOfStandIn(one, assets))
      yield place(one.part.id, one, one.part.assembly, flatMesh(mesh));
  return meshes;
}
