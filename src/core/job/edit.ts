/**
 * The edits: small, named, validated values, and the one pure function that applies them. The browser
 * and the server run the same function; what cannot be applied comes back as a sentence.
 */
import * as v from "valibot";
import { err, ok, own, type Problem, type Result, remembersLast, unreachable } from "../kernel";
import { RESERVED_NAMES } from "../measure";
import { BoughtPartSchema } from "./bought-part";
import { type Diff, diffBetween, settled } from "./diff";
import { ASSEMBLY_EDITS, applyAssemblyEdit } from "./edit-assembly";
import {
  betweenFault,
  changeLines,
  GEOMETRY_EDITS,
  insertedTogether,
  insertRecords,
  joinPoints,
  movePoints,
  neighbourFault,
  removeRecords,
  splitLine,
} from "./edit-geometry";
import { applyLayoutEdit, LAYOUT_EDITS } from "./edit-layout";
import { applyListEdit, forgetPieces, LIST_EDITS } from "./edit-lists";
import { applyPageEdit, PAGE_EDITS } from "./edit-pages";
import { PointSchema } from "./frame";
import { ImportSchema } from "./import";
import type { Job } from "./job";
import { JobInfoSchema, type KeptMark, KeptMarkSchema } from "./job-info";
import { type KeySize, KeySizeSchema, type Variant, type VariantId, VariantSchema } from "./key-size";
import { MemberSchema } from "./member";
import { PanelSchema } from "./panel";
import {
  change,
  changeInTurn,
  defined,
  idTaken,
  missing,
  put,
  refused,
  removeAll,
  takenId,
  without,
} from "./records";
import { renameKeySize } from "./rename";
import { resolveSizes, usesOf } from "./sizes";
import { formulaText, keyText, recordId, shortName } from "./text";
import { type TypedPiece, TypedPieceSchema } from "./typed-piece";

const ids = v.pipe(v.array(recordId), v.minLength(1), v.maxLength(20_000));
const [typedMember, typedPanel, typedOther] = TypedPieceSchema.options;

const SimpleEditSchema = v.variant("kind", [
  v.object({ kind: v.literal("changeInfo"), set: v.partial(v.omit(JobInfoSchema, ["id", "unit"])) }),
  v.object({
    kind: v.literal("setKeySize"),
    id: recordId,
    formula: formulaText,
    /** The variant whose value is meant; null: the job's own. */
    variant: v.nullable(recordId),
  }),
  v.object({
    kind: v.literal("changeKeySize"),
    id: recordId,
    set: v.partial(v.pick(KeySizeSchema, ["least", "greatest", "note", "locked", "choices", "asked"])),
  }),
  v.object({ kind: v.literal("addKeySize"), keySize: KeySizeSchema }),
  v.object({ kind: v.literal("removeKeySize"), id: recordId }),
  v.object({ kind: v.literal("addVariant"), variant: VariantSchema }),
  v.object({ kind: v.literal("removeVariant"), id: recordId }),
  v.object({ kind: v.literal("renameKeySize"), id: recordId, name: KeySizeSchema.entries.name }),
  v.object({ kind: v.literal("changePoint"), id: recordId, set: v.partial(v.pick(PointSchema, ["at"])) }),
  v.object({ kind: v.literal("changeMembers"), ids, set: v.partial(v.omit(MemberSchema, ["id", "line"])) }),
  v.object({ kind: v.literal("changePanels"), ids, set: v.partial(v.omit(PanelSchema, ["id", "assembly"])) }),
  v.object({
    kind: v.literal("changeBoughtParts"),
    ids,
    set: v.partial(v.omit(BoughtPartSchema, ["id", "assembly"])),
  }),
  v.object({
    kind: v.literal("changeTypedPieces"),
    ids,
    set: v.partial(
      v.object({
        ...v.pick(typedMember, ["name", "mark", "quantity", "stock", "material", "leftOut", "length"])
          .entries,
        // Of panels alone.
        ...v.pick(typedPanel, ["width", "grain", "edged", "edgingText"]).entries,
        edgingTexts: typedPanel.entries.edgingTexts.wrapped,
      }),
    ),
  }),
  v.object({
    kind: v.literal("addTypedPieces"),
    pieces: v.pipe(
      v.array(v.variant("kind", [typedMember, typedPanel, typedOther])),
      v.minLength(1),
      v.maxLength(20_000),
    ),
  }),
  v.object({ kind: v.literal("removeTypedPieces"), ids }),
  v.object({
    kind: v.literal("keepMarks"),
    marks: v.pipe(v.array(KeptMarkSchema), v.maxLength(200_000)),
    drop: v.array(recordId),
  }),
  v.object({
    kind: v.literal("setMeant"),
    id: keyText(130),
    meant: v.boolean(),
  }),
  v.object({ kind: v.literal("setImport"), import: ImportSchema }),
  v.object({ kind: v.literal("removeImport"), id: recordId }),
  ...LIST_EDITS,
  ...LAYOUT_EDITS,
  ...PAGE_EDITS,
  ...GEOMETRY_EDITS,
  ...ASSEMBLY_EDITS,
]);

export type SimpleEdit = v.InferOutput<typeof SimpleEditSchema>;
/** A named change, or several that stand or fall together and are undone as one. */
export type Edit =
  | SimpleEdit
  | {
      readonly kind: "together";
      /** What they are called as one; without it they are called by the first. */
      readonly what?: string | undefined;
      readonly edits: readonly SimpleEdit[];
    };

export const EditSchema: v.GenericSchema<unknown, Edit> = v.variant("kind", [
  SimpleEditSchema,
  v.object({
    kind: v.literal("together"),
    what: v.optional(shortName),
    edits: v.pipe(v.array(SimpleEditSchema), v.minLength(1), v.maxLength(5_000)),
  }),
]);

/** Applies an edit; the diff is what changed, or the problem why nothing did. */
export function applyEdit(job: Job, edit: Edit): Result<Diff, Problem> {
  const after = edited(job, edit);
  return after.ok ? ok(diffBetween(job, after.value)) : after;
}

// What is drawn is tried before it is submitted: the same edit of the same document comes twice.
const edited = remembersLast((job: Job, edit: Edit): Result<Job, Problem> => {
  let after: Result<Job, Problem> = ok(job);
  for (const part of edit.kind === "together" ? merged(edit.edits) : [edit]) {
    if (!after.ok) return after;
    after = Array.isArray(part) ? changeMembers(after.value, part) : applySimple(after.value, part);
  }
  return after;
});

type MemberChange = Extract<SimpleEdit, { readonly kind: "changeMembers" }>;

/**
 * Parts of an edit that put records into the same tables, one after the other, as one: members that are drawn, and ends that are
 * cut against them, would each copy tables of thousands. What changes members comes after what brings some.
 */
function merged(edits: readonly SimpleEdit[]): readonly (SimpleEdit | MemberChange[])[] {
  const parts: (SimpleEdit | MemberChange[])[] = [];
  let inserts: Extract<SimpleEdit, { readonly kind: "insert" }>[] = [];
  let changes: MemberChange[] = [];
  const close = () => {
    if (inserts.length > 0) parts.push(insertedTogether(inserts));
    if (changes.length > 0) parts.push(changes);
    [inserts, changes] = [[], []];
  };
  for (const edit of edits) {
    if (edit.kind === "insert") inserts.push(edit);
    else if (edit.kind === "changeMembers") changes.push(edit);
    else {
      close();
      parts.push(edit);
    }
  }
  close();
  return parts;
}

function applySimple(job: Job, edit: SimpleEdit): Result<Job, Problem> {
  switch (edit.kind) {
    case "changeInfo":
      return ok({ ...job, info: { job: { ...job.info.job, ...defined(edit.set) } } });
    case "setKeySize":
      return setKeySize(job, edit.id, edit.formula, edit.variant);
    case "changeKeySize": {
      const size = job.keySizes[edit.id];
      if (!size) return missing("key size", edit.id);
      return refuseNewlyBroken(
        job,
        put(job, "keySizes", [{ ...size, ...defined(edit.set) }]),
        null,
        size.name,
      );
    }
    case "addKeySize":
      return addKeySize(job, edit.keySize);
    case "removeKeySize":
      return removeKeySize(job, edit.id);
    case "addVariant":
      return addVariant(job, edit.variant);
    case "removeVariant":
      return removeAll(job, "variants", "variant", [edit.id]);
    case "renameKeySize":
      return renameKeySize(job, edit.id, edit.name);
    case "changePoint":
      return change(job, "points", "point", [edit.id], edit.set);
    case "changeMembers":
      return changeMembers(job, [edit]);
    case "changePanels":
      return changePanels(job, edit.ids, edit.set);
    case "changeBoughtParts":
      return change(job, "boughtParts", "bought part", edit.ids, edit.set);
    case "changeTypedPieces":
      return typedFault(job, edit) ?? change(job, "typedPieces", "typed-in piece", edit.ids, edit.set);
    case "addTypedPieces":
      return addTypedPieces(job, edit.pieces);
    case "removeTypedPieces":
      return removeAll(forgetPieces(job, edit.ids), "typedPieces", "typed-in piece", edit.ids);
    case "keepMarks":
      return ok(keepMarks(job, edit));
    case "setMeant":
      return ok(setMeant(job, edit.id, edit.meant));
    case "setImport":
      return ok(put(job, "imports", [edit.import]));
    case "removeImport":
      return removeAll(job, "imports", "file", [edit.id]);
    case "setList":
    case "removeList":
    case "setOwnColumn":
    case "removeOwnColumn":
    case "setCell":
    case "clearCells":
    case "setHandRow":
    case "clearHandRows":
      return applyListEdit(job, edit);
    case "setLayoutSetting":
    case "setBlankGroup":
    case "removeBlankGroup":
      return applyLayoutEdit(job, edit);
    case "setPages":
    case "removePages":
    case "setPageItems":
    case "removePageItems":
      return applyPageEdit(job, edit);
    case "insert":
      return insertRecords(job, edit);
    case "remove":
      return removeRecords(job, edit.ids);
    case "movePoints":
      return movePoints(job, edit.points);
    case "changeLines":
      return changeLines(job, edit.members);
    case "joinPoints":
      return joinPoints(job, edit.from, edit.into);
    case "splitLine":
      return splitLine(job, edit);
    case "makeAssembly":
    case "changeAssemblies":
    case "changePlacements":
      return applyAssemblyEdit(job, edit);
    default:
      return unreachable(edit);
  }
}

type SetOf<K extends SimpleEdit["kind"]> = Extract<SimpleEdit, { kind: K; set: object }>["set"];

function changeMembers(job: Job, changes: readonly MemberChange[]): Result<Job, Problem> {
  const after = changeInTurn(job, "members", "member", changes);
  if (!after.ok) return after;
  for (const { ids, set } of changes) {
    if (!(set.start || set.end)) continue;
    for (const id of ids) {
      const member = after.value.members[id];
      const fault = member && neighbourFault(after.value, member);
      if (fault) return fault;
    }
  }
  return after;
}

function changePanels(
  job: Job,
  targets: readonly string[],
  set: SetOf<"changePanels">,
): Result<Job, Problem> {
  const after = change(job, "panels", "panel", targets, set);
  if (!after.ok || !set.between) return after;
  for (const id of targets) {
    const panel = after.value.panels[id];
    const fault = panel && betweenFault(after.value, panel);
    if (fault) return fault;
  }
  return after;
}

function setKeySize(job: Job, id: string, formula: string, variantId: string | null): Result<Job, Problem> {
  const size = job.keySizes[id];
  if (!size) return missing("key size", id);
  if (size.locked) return err({ kind: "locked", name: size.name });
  if (variantId === null)
    return refuseNewlyBroken(job, put(job, "keySizes", [{ ...size, formula }]), null, size.name);
  const variant = job.variants[variantId];
  if (!variant) return missing("variant", variantId);
  const after = put(job, "variants", [
    { ...variant, formulas: { ...variant.formulas, [size.name]: formula } },
  ]);
  return refuseNewlyBroken(job, after, variant.id, size.name);
}

/** An edit of one size is refused when it, or anything that hangs on it, cannot be computed any more. */
function refuseNewlyBroken(
  before: Job,
  after: Job,
  variant: VariantId | null,
  name: string,
): Result<Job, Problem> {
  const old = resolveSizes(before, variant).problems;
  const now = resolveSizes(after, variant).problems;
  const own = now.get(name);
  if (own) return err(own);
  for (const [broken, problem] of now) if (!old.has(broken)) return err(problem);
  return ok(after);
}

function addKeySize(job: Job, size: KeySize): Result<Job, Problem> {
  if (RESERVED_NAMES.has(size.name))
    return err({
      kind: "badValue",
      what: "The name",
      value: size.name,
      must: "means something else in formulas; choose another",
    });
  if (Object.values(job.keySizes).some((other) => other.name === size.name)) {
    return err({ kind: "duplicateName", name: size.name });
  }
  if (own(job.keySizes, size.id)) return idTaken(size.id);
  return refuseNewlyBroken(job, put(job, "keySizes", [size]), null, size.name);
}

function addVariant(job: Job, variant: Variant): Result<Job, Problem> {
  if (Object.values(job.variants).some((other) => other.name === variant.name))
    return refused("There is already a variant", variant.name, "in this job; choose another name");
  if (own(job.variants, variant.id)) return idTaken(variant.id);
  return ok(put(job, "variants", [variant]));
}

function addTypedPieces(job: Job, pieces: readonly TypedPiece[]): Result<Job, Problem> {
  const taken = takenId(job.typedPieces, pieces);
  return taken !== null ? idTaken(taken) : ok(put(job, "typedPieces", pieces));
}

function removeKeySize(job: Job, id: string): Result<Job, Problem> {
  const size = job.keySizes[id];
  if (!size) return missing("key size", id);
  const uses = usesOf(job, size.name);
  if (uses.length > 0) {
    const where = uses.slice(0, 3).join(", ") + (uses.length > 3 ? ` and ${uses.length - 3} more` : "");
    return err({
      kind: "badValue",
      what: "Key size",
      value: size.name,
      must: `is used by ${where}; change those first`,
    });
  }
  return removeAll(job, "keySizes", "key size", [id]);
}

function keepMarks(job: Job, edit: Extract<SimpleEdit, { kind: "keepMarks" }>): Job {
  const { marks } = job;
  const rest = edit.drop.length === 0 ? job : { ...job, marks: without(marks, new Set(edit.drop)) };
  const now = new Map<string, KeptMark>();
  for (const kept of edit.marks) {
    const before = now.get(kept.id) ?? rest.marks[kept.id];
    // What only says the same mark again takes nothing from a mark that is held.
    if (before?.mark !== kept.mark || (kept.held !== undefined && kept.held !== before.held))
      now.set(kept.id, kept);
  }
  return put(rest, "marks", [...now.values()]);
}

function setMeant(job: Job, id: string, meant: boolean): Job {
  return meant ? put(job, "meant", [{ id }]) : { ...job, meant: without(job.meant, new Set([id])) };
}

/** The document after an edit, or the problem why there is none; tables that it does not change stay the same objects. */
export function withEdit(job: Job, edit: Edit): Result<Job, Problem> {
  const after = edited(job, edit);
  return after.ok ? ok(settled(job, after.value)) : after;
}

/** Why what is set does not belong to one of these pieces; null: it does. */
function typedFault(
  job: Job,
  { ids, set }: Extract<SimpleEdit, { readonly kind: "changeTypedPieces" }>,
): ReturnType<typeof refused> | null {
  const ofPanels = Object.keys(set).some((field) => !(field in typedMember.entries));
  for (const id of ids) {
    const piece = own(job.typedPieces, id);
    if (!piece) continue;
    if (ofPanels && piece.kind !== "panel")
      return refused("Piece", piece.name, "is no panel, so it has no width, no grain and no edging");
    if (set.length !== undefined && piece.kind === "other")
      return refused("Piece", piece.name, "is neither a member nor a panel, so it has no length");
  }
  return null;
}
