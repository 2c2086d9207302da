/**
 * Constructors: records with everything that goes without saying filled in, and a job put together
 * from readable parts. Demo data, tests and imports build their jobs with these.
 */
import * as v from "valibot";
import {
  type Assembly,
  type AssemblyId,
  AssemblySchema,
  type Home,
  type Placement,
  PlacementSchema,
} from "./assembly";
import { type BoughtPart, BoughtPartSchema } from "./bought-part";
import { type EndCut, EndCutSchema, SQUARE_END } from "./end-cuts";
import { LineSchema, type Point, PointSchema } from "./frame";
import { emptyJob, type Job } from "./job";
import type { JobInfo } from "./job-info";
import { type KeySize, KeySizeSchema, type Variant, VariantSchema } from "./key-size";
import type { ListSetup } from "./list-setup";
import { type Member, MemberSchema } from "./member";
import type { MemberWork } from "./member-work";
import {
  type Between,
  type EdgingChoice,
  type GrainWay,
  NO_EDGING,
  type OutlineCorner,
  type Panel,
  PanelSchema,
  type Tilt,
  type Work,
} from "./panel";
import { type Defaults, NOTHING_USUAL } from "./usual";

type Texts = readonly [string, string, string];

export type MemberParts = {
  readonly name: string;
  readonly from: string;
  readonly to: string;
  readonly section: string | null;
  readonly start?: EndCut;
  readonly end?: EndCut;
  readonly roll?: string;
  readonly cardinal?: number;
  readonly material?: string | null;
  readonly when?: string | null;
  readonly work?: readonly MemberWork[];
  readonly role?: Member["role"];
  readonly look?: Member["look"];
};

export type PanelParts = {
  readonly name: string;
  readonly board: string | null;
  readonly assembly?: string | null;
  readonly origin?: Texts;
  readonly lengthAxis?: Texts;
  readonly faceAxis?: Texts;
  readonly length?: string;
  readonly width?: string;
  readonly between?: Omit<Between, "first" | "second"> & { readonly first: string; readonly second: string };
  readonly outline?: readonly OutlineCorner[] | null;
  readonly material?: string | null;
  readonly role?: Panel["role"];
  readonly look?: Panel["look"];
  readonly grain?: GrainWay;
  readonly tilt?: Tilt | null;
  readonly goodFace?: boolean;
  readonly edging?: Partial<EdgingChoice>;
  readonly work?: readonly Work[];
  readonly when?: string | null;
};

/** What stands in the job itself or in an assembly. */
type ContentParts = {
  /** Point name → coordinates. In the job itself the name is the id as well. */
  readonly points?: Readonly<Record<string, Texts>>;
  /** Member id → its parts. Each member gets a line of its own. */
  readonly members?: Readonly<Record<string, MemberParts>>;
  /** Lines without a member: id → the points that they join. */
  readonly guides?: Readonly<Record<string, readonly [string, string]>>;
  readonly panels?: Readonly<Record<string, PanelParts>>;
  readonly boughtParts?: Readonly<
    Record<string, Partial<BoughtPart> & Pick<BoughtPart, "name" | "entry" | "count">>
  >;
};

export type AssemblyParts = ContentParts &
  Partial<Pick<Assembly, "role" | "look" | "entry">> & {
    readonly name: string;
    readonly usual?: Partial<Defaults>;
  };

export type PlacementParts = Partial<Omit<Placement, "id" | "assembly" | "into">> & {
  readonly assembly: string;
  readonly into?: string | null;
};

export type JobParts = ContentParts & {
  readonly info: Pick<JobInfo, "code" | "title"> & Partial<JobInfo>;
  readonly keySizes?: Readonly<Record<string, Partial<KeySize> & Pick<KeySize, "formula">>>;
  readonly variants?: readonly {
    readonly id: string;
    readonly name: string;
    readonly formulas: Variant["formulas"];
  }[];
  readonly assemblies?: Readonly<Record<string, AssemblyParts>>;
  readonly placements?: Readonly<Record<string, PlacementParts>>;
  readonly lists?: readonly ListSetup[];
};

export function newKeySize(id: string, name: string, formula: string, rest: Partial<KeySize> = {}): KeySize {
  const fresh = {
    measure: "length",
    choices: [],
    least: null,
    greatest: null,
    note: "",
    locked: false,
    asked: false,
    position: 0,
  };
  return v.parse(KeySizeSchema, { ...fresh, ...rest, id, name, formula });
}

export function newMember(id: string, line: string, parts: MemberParts): Member {
  return v.parse(MemberSchema, {
    id,
    name: parts.name,
    line,
    section: parts.section,
    material: parts.material ?? null,
    when: parts.when ?? null,
    roll: parts.roll ?? "0",
    cardinal: parts.cardinal ?? 10,
    start: parts.start ?? SQUARE_END,
    end: parts.end ?? SQUARE_END,
    work: parts.work ?? [],
    role: parts.role ?? "made",
    look: parts.look ?? null,
    leftOut: false,
  });
}

export function newPoint(id: string, name: string, at: Texts, assembly: Home = null): Point {
  return v.parse(PointSchema, { id, name, assembly, at });
}

export function newPanel(id: string, parts: PanelParts): Panel {
  const fresh = {
    assembly: null,
    origin: ["0", "0", "0"],
    lengthAxis: ["1", "0", "0"],
    faceAxis: ["0", "0", "1"],
    length: "1",
    width: "1",
    between: null,
    outline: null,
    when: null,
    material: null,
    grain: "length",
    tilt: null,
    goodFace: false,
    work: [],
    role: "made",
    look: null,
    leftOut: false,
  };
  return v.parse(PanelSchema, { ...fresh, ...parts, id, edging: { ...NO_EDGING, ...parts.edging } });
}

export function newBoughtPart(
  id: string,
  parts: Partial<BoughtPart> & Pick<BoughtPart, "name" | "entry" | "count">,
): BoughtPart {
  const fresh = {
    assembly: null,
    when: null,
    length: null,
    note: "",
    stand: null,
    look: null,
    leftOut: false,
  };
  return v.parse(BoughtPartSchema, { ...fresh, ...parts, id });
}

export function newAssembly(
  id: string,
  parts: Pick<AssemblyParts, "name" | "role" | "look" | "entry" | "usual">,
): Assembly {
  return v.parse(AssemblySchema, {
    id,
    name: parts.name,
    role: parts.role ?? "made",
    look: parts.look ?? null,
    entry: parts.entry ?? null,
    usual: { ...NOTHING_USUAL, ...parts.usual },
  });
}

export function newPlacement(id: string, parts: PlacementParts): Placement {
  const fresh = {
    into: null,
    at: ["0", "0", "0"],
    turn: ["0", "0", "0"],
    mirror: null,
    count: "1",
    step: ["0", "0", "0"],
    when: null,
    leftOut: false,
    without: [],
  };
  return v.parse(PlacementSchema, { ...fresh, ...parts, id });
}

const keyed = <T extends { readonly id: string }>(records: readonly T[]): Record<string, T> =>
  Object.fromEntries(records.map((record) => [record.id, record]));

/** The records of one home. Points of an assembly are named within it: their ids carry its own before the name. */
function contents(parts: ContentParts, home: AssemblyId | null) {
  const pointId = (name: string) => (home === null ? name : `${home}-${name}`);
  const line = (id: string, from: string, to: string) =>
    v.parse(LineSchema, { id, from: pointId(from), to: pointId(to) });
  const members = Object.entries(parts.members ?? {});
  return {
    points: Object.entries(parts.points ?? {}).map(([name, at]) => newPoint(pointId(name), name, at, home)),
    lines: [
      ...members.map(([id, { from, to }]) => line(`${id}-line`, from, to)),
      ...Object.entries(parts.guides ?? {}).map(([id, [from, to]]) => line(id, from, to)),
    ],
    members: members.map(([id, member]) => newMember(id, `${id}-line`, member)),
    panels: Object.entries(parts.panels ?? {}).map(([id, panel]) =>
      newPanel(id, { ...panel, assembly: home }),
    ),
    boughtParts: Object.entries(parts.boughtParts ?? {}).map(([id, part]) =>
      newBoughtPart(id, { ...part, assembly: home }),
    ),
  };
}

/** Puts a job together. Throws on parts that no valid job could have: they are the program's own. */
export function newJob(parts: JobParts): Job {
  const assemblies = Object.entries(parts.assemblies ?? {}).map(
    ([id, assembly]) => [newAssembly(id, assembly), assembly] as const,
  );
  const all = [contents(parts, null), ...assemblies.map(([{ id }, assembly]) => contents(assembly, id))];
  return {
    ...emptyJob(parts.info),
    keySizes: keyed(
      Object.entries(parts.keySizes ?? {}).map(([name, size], i) =>
        newKeySize(`size-${name}`, name, size.formula, { position: i, ...size }),
      ),
    ),
    variants: keyed(
      (parts.variants ?? []).map((variant, position) => v.parse(VariantSchema, { ...variant, position })),
    ),
    points: keyed(all.flatMap(({ points }) => points)),
    lines: keyed(all.flatMap(({ lines }) => lines)),
    members: keyed(all.flatMap(({ members }) => members)),
    panels: keyed(all.flatMap(({ panels }) => panels)),
    boughtParts: keyed(all.flatMap(({ boughtParts }) => boughtParts)),
    assemblies: keyed(assemblies.map(([assembly]) => assembly)),
    placements: keyed(
      Object.entries(parts.placements ?? {}).map(([id, placement]) => newPlacement(id, placement)),
    ),
    lists: keyed(parts.lists ?? []),
  };
}

/** End cuts in one word each. */
export const squareEnd = (offset = "0"): EndCut => ({ kind: "square", offset, past: null });
export const pastEnd = (member: string, offset = "0"): EndCut =>
  v.parse(EndCutSchema, { kind: "square", offset, past: member });
export const mitreEnd = (member: string): EndCut =>
  v.parse(EndCutSchema, { kind: "mitre", neighbour: member });
export const copeEnd = (member: string, gap = "0", curve: "surface" | "fit" = "surface"): EndCut =>
  v.parse(EndCutSchema, { kind: "cope", neighbour: member, gap, curve });
export const buttEnd = (member: string, gap = "0"): EndCut =>
  v.parse(EndCutSchema, { kind: "butt", neighbour: member, gap });
export const doubleMitreEnd = (first: string, second: string, gap = "0"): EndCut =>
  v.parse(EndCutSchema, { kind: "doubleMitre", neighbours: [first, second], gap });
