/** From a filled-in form to the edit that inserts what a jig makes, with its lengths as key sizes where that is wanted. */
import {
  type Edit,
  type Home,
  type InsertEdit,
  type Job,
  lengthWith,
  type NewId,
  newAssembly,
  newKeySize,
  newPlacement,
  readPlace,
  refused,
  resolveSizes,
  type SimpleEdit,
  withEdit,
} from "../job";
import { ok, type Problem, type Result } from "../kernel";
import { RESERVED_NAMES } from "../measure";
import type { Stockroom } from "../stockroom";
import { CARCASS_JIGS } from "./carcasses";
import { FRAME_JIGS } from "./frames";
import type { Jig } from "./jig";
import { JigMaker } from "./maker";

export const JIGS: readonly Jig[] = [...FRAME_JIGS, ...CARCASS_JIGS];

export type JigFilling = {
  /** Texts by the name of the field. */
  readonly values: Readonly<Record<string, string>>;
  /** Where its lower front left corner stands: three coordinates separated by semicolons. */
  readonly place: string;
  /** Whether its plain lengths become key sizes that the geometry follows. */
  readonly keepSizes: boolean;
  /** Whether it becomes an assembly, placed once, instead of loose pieces. */
  readonly asAssembly: boolean;
  /** The assembly that it is put into; null: the job itself. */
  readonly home: Home;
};

/** The edit that inserts a jig. The problem names the field. */
export function fillJig(
  job: Job,
  jig: Jig,
  filling: JigFilling,
  stockroom: Stockroom,
  newId: NewId,
): Result<Edit, Problem> {
  const sizes = resolveSizes(job, null);
  const texts = new Map<string, string>();
  const keySizes: SimpleEdit[] = [];
  const typed = (name: string) => (filling.values[name] ?? "").trim();
  for (const field of jig.fields) {
    const text = typed(field.name);
    if (field.isNeeded && !field.isNeeded(typed)) continue;
    if (field.kind === "section" && text === "" && field.like) {
      texts.set(field.name, texts.get(field.like.field) ?? "");
      continue;
    }
    if (field.kind === "count") {
      const value = Number(text);
      if (!Number.isInteger(value) || value < field.least || value > field.most)
        return refused(field.label, text, `must be a whole number from ${field.least} to ${field.most}`);
    }
    if (field.kind === "length") {
      const value = lengthWith(sizes, text);
      if (!value.ok) return value;
      if (value.value <= 0) return refused(field.label, text, "must be above zero");
      const named = filling.keepSizes && /^[\d\s./'"-]+(mm|cm|m|in|ft)?$/.test(text);
      if (named) {
        const name = freeName(job, field.name, keySizes);
        keySizes.push({
          kind: "addKeySize",
          keySize: newKeySize(newId("size"), name, text, {
            note: `${field.label.toLowerCase()}, ${jig.name.toLowerCase()}`,
            position: Object.keys(job.keySizes).length + keySizes.length,
          }),
        });
        texts.set(field.name, name);
        continue;
      }
    }
    texts.set(field.name, text);
  }
  const place = readPlace(filling.place);
  if (place?.kind !== "place")
    return refused("The place", filling.place, "must be three coordinates separated by semicolons");
  const insert = made(job, jig, { filling, texts, at: place.at }, stockroom, newId);
  const edit: Edit = keySizes.length === 0 ? insert : { kind: "together", edits: [...keySizes, insert] };
  const tried = withEdit(job, edit);
  return tried.ok ? ok(edit) : tried;
}

type Filled = {
  readonly filling: JigFilling;
  readonly texts: ReadonlyMap<string, string>;
  readonly at: [string, string, string];
};

/** What the jig inserts: loose pieces at their place, or an assembly that is placed there. */
function made(
  job: Job,
  jig: Jig,
  { filling, texts, at }: Filled,
  stockroom: Stockroom,
  newId: NewId,
): InsertEdit {
  const values = {
    text: (name: string) => texts.get(name) ?? "",
    count: (name: string) => Number(texts.get(name) ?? 0),
  };
  if (!filling.asAssembly) return jig.make(new JigMaker(job, stockroom, at, newId, filling.home), values);
  const assembly = newAssembly(newId("assembly"), { name: jig.name });
  const insert = jig.make(new JigMaker(job, stockroom, ["0", "0", "0"], newId, assembly.id), values);
  const placement = newPlacement(newId("placement"), { assembly: assembly.id, into: filling.home, at });
  return { ...insert, assemblies: [assembly], placements: [placement] };
}

function freeName(job: Job, name: string, added: readonly SimpleEdit[]): string {
  const names = new Set([
    ...Object.values(job.keySizes).map((size) => size.name),
    ...added.map((edit) => (edit.kind === "addKeySize" ? edit.keySize.name : "")),
    ...RESERVED_NAMES,
  ]);
  if (!names.has(name)) return name;
  for (let i = 2; ; i++) if (!names.has(`${name}_${i}`)) return `${name}_${i}`;
}
