/**
 * Constructors: records with everything that goes without saying filled in, and a job put together
 * from readable parts. Demo data, tests and imports build their jobs with these.
 */
import * as v from "valibot";
import { type BoughtPart, BoughtPartSchema } from "./bought-part";
import { LineSchema, PointSchema } from "./frame";
import { emptyJob, type Job, type JobInfo } from "./job";
import { type KeySize, KeySizeSchema, type Variant, VariantSchema } from "./key-size";
import { type EndCut, type Member, MemberSchema, SQUARE_END } from "./member";
import { type EdgingChoice, type Groove, NO_EDGING, type Panel, PanelSchema } from "./panel";

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
};

export type PanelParts = {
  readonly name: string;
  readonly board: string | null;
  readonly origin: Texts;
  readonly lengthAxis: Texts;
  readonly faceAxis: Texts;
  readonly length: string;
  readonly width: string;
  readonly grain?: boolean;
  readonly goodFace?: boolean;
  readonly edging?: Partial<EdgingChoice>;
  readonly work?: readonly Groove[];
  readonly when?: string | null;
};

export type JobParts = {
  readonly info: Pick<JobInfo, "code" | "title"> & Partial<JobInfo>;
  readonly keySizes?: Readonly<Record<string, Partial<KeySize> & Pick<KeySize, "formula">>>;
  readonly variants?: readonly {
    readonly id: string;
    readonly name: string;
    readonly formulas: Variant["formulas"];
  }[];
  /** Point name → coordinates. The name is the id as well. */
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

export function newKeySize(id: string, name: string, formula: string, rest: Partial<KeySize> = {}): KeySize {
  const fresh = {
    measure: "length",
    choices: [],
    least: null,
    greatest: null,
    note: "",
    locked: false,
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
    leftOut: false,
  });
}

export function newPanel(id: string, parts: PanelParts): Panel {
  const fresh = { when: null, material: null, grain: true, goodFace: false, work: [], leftOut: false };
  return v.parse(PanelSchema, { ...fresh, ...parts, id, edging: { ...NO_EDGING, ...parts.edging } });
}

export function newBoughtPart(
  id: string,
  parts: Partial<BoughtPart> & Pick<BoughtPart, "name" | "entry" | "count">,
): BoughtPart {
  return v.parse(BoughtPartSchema, { when: null, length: null, note: "", leftOut: false, ...parts, id });
}

const keyed = <T extends { readonly id: string }>(records: readonly T[]): Record<string, T> =>
  Object.fromEntries(records.map((record) => [record.id, record]));

/** Puts a job together. Throws on parts that no valid job could have: they are the program's own. */
export function newJob(parts: JobParts): Job {
  const members = Object.entries(parts.members ?? {});
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
    points: keyed(
      Object.entries(parts.points ?? {}).map(([name, at]) => v.parse(PointSchema, { id: name, name, at })),
    ),
    lines: keyed([
      ...members.map(([id, { from, to }]) => v.parse(LineSchema, { id: `${id}-line`, from, to })),
      ...Object.entries(parts.guides ?? {}).map(([id, [from, to]]) => v.parse(LineSchema, { id, from, to })),
    ]),
    members: keyed(members.map(([id, member]) => newMember(id, `${id}-line`, member))),
    panels: keyed(Object.entries(parts.panels ?? {}).map(([id, panel]) => newPanel(id, panel))),
    boughtParts: keyed(Object.entries(parts.boughtParts ?? {}).map(([id, part]) => newBoughtPart(id, part))),
  };
}

/** End cuts in one word each. */
export const squareEnd = (offset = "0"): EndCut => ({ kind: "square", offset, past: null });
export const pastEnd = (member: string, offset = "0"): EndCut =>
  v.parse(MemberSchema.entries.start, { kind: "square", offset, past: member });
export const mitreEnd = (member: string): EndCut =>
  v.parse(MemberSchema.entries.start, { kind: "mitre", neighbour: member });
export const copeEnd = (member: string, gap = "0", curve: "surface" | "fit" = "surface"): EndCut =>
  v.parse(MemberSchema.entries.start, { kind: "cope", neighbour: member, gap, curve });
export const buttEnd = (member: string, gap = "0"): EndCut =>
  v.parse(MemberSchema.entries.start, { kind: "butt", neighbour: member, gap });
