/** What a file said of each piece when it was read, in its own sizes: what a later state of the file is compared with. */
import * as v from "valibot";
import type { EndFace } from "../ends";
import {
  type Asset,
  assetIdOf,
  type BoughtPart,
  type Import,
  type Panel,
  type SimpleEdit,
  textOf,
} from "../job";
import { err, ok, type Problem, type Result } from "../kernel";
import { type LengthUnit, MM_PER_UNIT, roundTo } from "../measure";
import type { EnteredEnd, EnteredMember } from "./member-record";
import type { Entered } from "./records";
import { plainSectionName } from "./stock";

/** Digits that are about a hundredth of a millimetre, which is as near as readings of one piece come to one another. */
const DIGITS: Readonly<Record<LengthUnit, number>> = { mm: 2, cm: 3, m: 5, in: 4, ft: 5 };
export const nearText = (value: number, unit: LengthUnit): string => String(roundTo(value, DIGITS[unit]) + 0);

const PrintSchema = v.object({
  /** The record that it became. */
  id: v.string(),
  kind: v.picklist(["member", "panel", "bought", "placement"]),
  /** The assembly that it stands in; null: the job itself. */
  home: v.nullable(v.string()),
  name: v.string(),
  /** What it is, by what can differ: words that people read, of what has none a number of its content. */
  form: v.record(v.string(), v.string()),
  /** Where it stands, in the unit of the job, and for directions as numbers; of one kind as many for all. */
  place: v.array(v.number()),
});
export type Print = v.InferOutput<typeof PrintSchema>;

const PrintsSchema = v.object({
  version: v.literal(1),
  unit: v.picklist(["mm", "cm", "m", "in", "ft"]),
  assemblies: v.array(v.object({ id: v.string(), name: v.string() })),
  prints: v.array(PrintSchema),
  /** What was chosen for its parts; a file that entered before choices were kept has none. */
  choices: v.optional(
    v.array(
      v.object({
        name: v.string(),
        way: v.nullable(v.picklist(["taken", "otherwise", "bought", "leave"])),
        within: v.nullable(v.number()),
      }),
    ),
    [],
  ),
  /** What all its lengths were multiplied by. */
  scale: v.optional(v.number(), 1),
});
/** All that a file said. */
export type Prints = v.InferOutput<typeof PrintsSchema>;

/** `unit`: of the job that it enters. */
export function printsOf(
  entered: Entered,
  chosen: Pick<Prints, "choices" | "scale">,
  unit: LengthUnit,
): Prints {
  const assemblyNames = new Map(entered.assemblies.map(({ id, name }) => [id as string, name]));
  return {
    version: 1,
    unit,
    ...chosen,
    assemblies: entered.assemblies.map(({ id, name }) => ({ id, name })),
    prints: [
      ...entered.members.map((member) => ofMember(member, unit)),
      ...entered.panels.map((panel) => ofPanel(panel, unit)),
      ...entered.boughtParts.map(ofBought),
      ...entered.placements.map(
        ({ id, into, assembly, at, turn }): Print => ({
          id,
          kind: "placement",
          home: into,
          name: assemblyNames.get(assembly) ?? "Assembly",
          form: { assembly },
          place: [...at, ...turn].map(Number),
        }),
      ),
    ],
  };
}

const slopeWords = (slope: readonly number[]) =>
  slope.map((one) => String(Math.round(one * 1e5) / 1e5 + 0)).join("; ");

const faceWords = ({ slope, beyond }: EndFace, unit: LengthUnit) =>
  `${slopeWords(slope)} at ${nearText(beyond / MM_PER_UNIT[unit], unit)}`;

const endWords = ({ read, slope, faces, cope }: EnteredEnd, unit: LengthUnit): string =>
  read === "plane"
    ? slope.every((one) => Math.abs(one) < 1e-6)
      ? "square"
      : `angled ${slopeWords(slope)}`
    : cope
      ? `coped round ${nearText((2 * cope.radius) / MM_PER_UNIT[unit], unit)}`
      : faces
        ? `in two planes ${faces
            .map((face) => faceWords(face, unit))
            .sort()
            .join(" and ")}`
        : read;

/** Whether a text is a plain number, which hangs on no key size. */
export const isNumberText = (text: string): boolean => /^-?\d+([.]\d+)?$/.test(text);

/** A row of holes as so many single ones: files that were read before told them so. */
function asSingle(work: object): readonly object[] {
  const row = work as Readonly<Record<string, unknown>>;
  const field = row["along"] === "width" ? "y" : row["along"] === "length" ? "x" : "along";
  const texts = [row["count"], row["step"], row[field]];
  if (row["kind"] !== "hole" || !texts.every((text) => typeof text === "string" && isNumberText(text)))
    return [work];
  const [count = 1, step = 0, first = 0] = texts.map(Number);
  return Array.from({ length: count }, (_, i) => ({
    ...row,
    ...("x" in row ? { along: "length" } : {}),
    [field]: textOf(first + i * step),
    count: "1",
    step: "0",
  }));
}

/** Work, or the corners of an outline, without the ids of its records: one text each, its lengths as near as readings come. */
export function workTexts(work: readonly object[], unit: LengthUnit): readonly string[] {
  const fields = (one: object): readonly unknown[] =>
    Object.entries(one).flatMap(([key, value]) => (key === "id" ? [] : [[key, near(value)]]));
  const near = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(fields)
      : typeof value === "string" && isNumberText(value)
        ? nearText(Number(value), unit)
        : value;
  return work.flatMap(asSingle).map((one) => JSON.stringify(fields(one)));
}

const workWords = (work: readonly object[], unit: LengthUnit): string =>
  work.length === 0 ? "" : JSON.stringify(workTexts(work, unit).toSorted());

const WorkTextsSchema = v.pipe(v.string(), v.parseJson(), v.array(v.string()));

/** What was kept before holes stood in rows has its work in the order of the file. */
const inOrder = (print: Print): Print => {
  const texts = v.safeParse(WorkTextsSchema, print.form["work"]);
  return texts.success
    ? { ...print, form: { ...print.form, work: JSON.stringify(texts.output.toSorted()) } }
    : print;
};

function ofMember(member: EnteredMember, unit: LengthUnit): Print {
  const { id, home, name, shape, from, to, x, start, end, work } = member;
  const size = Math.hypot(...([0, 1, 2] as const).map((k) => to[k] - from[k]));
  return {
    id,
    kind: "member",
    home,
    name,
    form: {
      section: plainSectionName(shape),
      length: nearText(size / MM_PER_UNIT[unit], unit),
      start: endWords(start, unit),
      end: endWords(end, unit),
      work: workWords(work, unit),
    },
    // The roll is said by where the section's first axis points.
    place: [...[...from, ...to].map((value) => value / MM_PER_UNIT[unit]), ...x],
  };
}

function ofPanel(panel: Panel, unit: LengthUnit): Print {
  const { id, assembly, name, board, length, width, origin, lengthAxis, faceAxis, outline, work } = panel;
  return {
    id,
    kind: "panel",
    home: assembly,
    name,
    form: {
      size: `${nearText(Number(length), unit)} × ${nearText(Number(width), unit)}`,
      board: board ?? "",
      outline: outline ? JSON.stringify(workTexts(outline, unit)) : "",
      work: workWords(work, unit),
    },
    place: [...origin, ...lengthAxis, ...faceAxis].map(Number),
  };
}

function ofBought({ id, assembly, name, stand }: BoughtPart): Print {
  const as = stand?.as;
  return {
    id,
    kind: "bought",
    home: assembly,
    name,
    form: { shape: as?.kind === "shape" ? as.asset : as?.kind === "box" ? as.size.join(" × ") : "" },
    place: [...(stand?.at ?? []), ...(stand?.turn ?? [])].map(Number),
  };
}

export type KeptImport = { readonly asset: Asset; readonly edit: SimpleEdit };

/** How a job keeps what a file said. */
export function keptImport(id: string, name: string, prints: Prints): KeptImport {
  const asset: Asset = { kind: "read", data: JSON.stringify(prints) };
  const kept = { id, name: name.slice(0, 200) || "file", asset: assetIdOf(asset) } as Import;
  return { asset, edit: { kind: "setImport", import: kept } };
}

/** What a file said, as a job has kept it. */
export function keptPrints(asset: Asset | undefined, name: string): Result<Prints, Problem> {
  const lost = err({
    kind: "malformed",
    what: name,
    why: "what it said before is not stored here; import it as new",
  } as const);
  if (asset?.kind !== "read") return lost;
  let data: unknown;
  try {
    data = JSON.parse(asset.data);
  } catch {
    return lost;
  }
  const checked = v.safeParse(PrintsSchema, data);
  return checked.success ? ok({ ...checked.output, prints: checked.output.prints.map(inOrder) }) : lost;
}

/** In the unit of the job, for directions plain numbers: how far apart two places are at the farthest. */
export function apart(a: Print, b: Print): number {
  let most = 0;
  for (const [i, value] of a.place.entries()) most = Math.max(most, Math.abs(value - (b.place[i] ?? 0)));
  return most;
}
