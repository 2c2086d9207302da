/** What the commands read: job files, cutting lists and STEP files, computed. */
import { readFileSync } from "node:fs";
import path from "node:path";
import * as v from "valibot";
import {
  type Assets,
  assetIdOf,
  emptyJob,
  issueWords,
  type Job,
  NO_ASSETS,
  plainCheck,
  readCuttingList,
  rowFaultWords,
  type VariantId,
  withEdit,
} from "@/core/job";
import { ok, type Result } from "@/core/kernel";
import type { LengthUnit } from "@/core/measure";
import { createPipeline, type Results } from "@/core/pipeline";
import { EMPTY_STOCKROOM, indexStockroom, type Stockroom, StockroomSchema } from "@/core/stockroom";
import { loadStepReader } from "@/engines/step-reader";
import {
  type BringGround,
  type Brought,
  broughtDrawing,
  broughtSolids,
  type DrawingOf,
  isDrawingFile,
} from "@/formats/brought-in";
import { listRows } from "@/formats/csv";
import { readJobFile } from "@/formats/job-file";
import { foundInStep } from "@/formats/step";
import { isZip, xlsxRows } from "@/formats/xlsx-in";
import { readWords } from "./arguments";
import { type CommandFault, fault, ofCore } from "./command-fault";

export type Output = {
  readonly code: 0 | 1;
  readonly stdout: string | Uint8Array;
  readonly stderr?: string;
};

export const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`;

export function readFile(file: string): Result<Uint8Array, CommandFault> {
  try {
    return ok(readFileSync(file));
  } catch {
    return fault({ kind: "cannotBeOpened", file });
  }
}

export function readJson(file: string): Result<unknown, CommandFault> {
  const bytes = readFile(file);
  if (!bytes.ok) return bytes;
  try {
    return ok(JSON.parse(new TextDecoder().decode(bytes.value)));
  } catch {
    return fault({ kind: "notJson", file });
  }
}

const LIST_OPTIONS = {
  format: ["json", "csv", "xlsx", "pdf", "svg"],
  page: ["a4", "letter"],
  list: "any",
  unit: ["mm", "cm", "m", "in", "ft"],
  stockroom: "any",
  variant: "any",
} as const;

export const DRAW_OPTIONS = {
  format: ["pdf", "svg", "dxf"],
  page: "any",
  set: ["asIs", "whole"],
  unit: LIST_OPTIONS.unit,
  stockroom: "any",
  variant: "any",
} as const;

export type Loaded = {
  readonly job: Job;
  readonly revision: number;
  readonly variant: VariantId | null;
  readonly variantName: string | null;
  readonly assets: Assets;
  readonly stockroom: Stockroom;
  readonly results: Results;
  readonly stderr: string;
  readonly found: boolean;
};

/** A job file or cutting list, computed. Unreadable rows become checks of their own. */
export async function load(
  words: readonly string[],
  allowed: Parameters<typeof readWords>[1] = LIST_OPTIONS,
): Promise<Result<Loaded & { readonly options: ReadonlyMap<string, string> }, CommandFault>> {
  const opened = openFile(words, allowed);
  if (!opened.ok) return opened;
  const { file, options, bytes, given } = opened.value;
  const loaded = /\.json$/i.test(file)
    ? loadJob(bytes, given, options)
    : isStepName(file)
      ? await loadStep(path.basename(file), bytes, given ?? EMPTY_STOCKROOM)
      : await loadList(bytes, given ?? EMPTY_STOCKROOM, options);
  return loaded.ok ? ok({ ...loaded.value, options }) : loaded;
}

type Opened = {
  readonly file: string;
  readonly options: ReadonlyMap<string, string>;
  readonly bytes: Uint8Array;
  /** The stockroom of the option; null: none is named. */
  readonly given: Stockroom | null;
};

/** The file that a command names, with the stockroom that goes with it. */
export function openFile(
  words: readonly string[],
  allowed: Parameters<typeof readWords>[1],
): Result<Opened, CommandFault> {
  const read = readWords(words, allowed);
  if (!read.ok) return read;
  const { file, options } = read.value;
  const bytes = readFile(file);
  if (!bytes.ok) return bytes;
  const given = readStockroom(options.get("stockroom"));
  return given.ok ? ok({ file, options, bytes: bytes.value, given: given.value }) : given;
}

function readStockroom(file: string | undefined): Result<Stockroom | null, CommandFault> {
  if (file === undefined) return ok(null);
  const data = readJson(file);
  if (!data.ok) return data;
  const checked = v.safeParse(StockroomSchema, data.value);
  return checked.success
    ? ok(indexStockroom(checked.output))
    : fault({ kind: "badContent", file, why: issueWords(checked.issues) });
}

function loadJob(
  bytes: Uint8Array,
  stockroom: Stockroom | null,
  options: ReadonlyMap<string, string>,
): Result<Loaded, CommandFault> {
  const file = readJobFile(new TextDecoder().decode(bytes));
  if (!file.ok) return ofCore(file.problem);
  const { job } = file.value;
  const name = options.get("variant");
  const variant =
    name === undefined
      ? undefined
      : Object.values(job.variants).find((one) => one.name === name || one.id === name);
  if (name !== undefined && !variant) return fault({ kind: "noVariant", name });
  const used = stockroom ?? indexStockroom(file.value.stockroom);
  const results = createPipeline()(job, (variant?.id ?? null) as VariantId | null, used, []);
  return ok({
    job,
    revision: file.value.revision ?? 0,
    variant: variant?.id ?? null,
    variantName: variant?.name ?? null,
    assets: file.value.assets,
    stockroom: used,
    results,
    stderr: "",
    found: results.tally.checks.some((check) => check.severity === "error"),
  });
}

async function loadList(
  bytes: Uint8Array,
  stockroom: Stockroom,
  options: ReadonlyMap<string, string>,
): Promise<Result<Loaded, CommandFault>> {
  const unit = (options.get("unit") ?? "mm") as LengthUnit;
  const rows = isZip(bytes) ? await xlsxRows(bytes) : listRows(bytes);
  if (!rows.ok) return ofCore(rows.problem);
  const list = readCuttingList(rows.value, { unit, stockroom, newId: (index) => `T${index + 1}` });
  if (!list.ok) return ofCore(list.problem);
  const { pieces, unreadable, notes, usedUnit } = list.value;
  const job: Job = {
    ...emptyJob({ code: "list", title: "Cut list", unit }),
    typedPieces: Object.fromEntries(pieces.map((piece) => [piece.id, piece])),
  };
  const results = createPipeline()(job, null, stockroom, []);
  const badRows = unreadable.map(({ row, text, fault }) => ({
    ...plainCheck("unreadableRow", "error", `Row ${row} ("${text}"): ${rowFaultWords(fault)}`, []),
    listRow: { row, text },
  }));
  const tally = { ...results.tally, checks: [...badRows, ...results.tally.checks] };
  const said = [
    ...notes,
    ...(usedUnit && !options.has("unit")
      ? ["Numbers without unit are read as mm. Use --unit to change this."]
      : []),
    ...badRows.map((check) => check.message),
  ];
  return ok({
    job,
    revision: 0,
    variant: null,
    variantName: null,
    assets: NO_ASSETS,
    stockroom,
    results: { ...results, tally },
    stderr: said.join("\n"),
    found: unreadable.length > 0,
  });
}

const isStepName = (file: string) => /\.(stp|step|p21)$/i.test(file);

export const titleOf = (file: string) =>
  path
    .basename(file)
    .replace(/\.[^.]+$/, "")
    .slice(0, 80) || "From a file";

/** What a STEP file holds, as a job of its own. */
async function loadStep(
  name: string,
  bytes: Uint8Array,
  stockroom: Stockroom,
): Promise<Result<Loaded, CommandFault>> {
  const before = emptyJob({ code: "file", title: titleOf(name), unit: "mm" });
  const read = await brought(name, bytes, { job: before, stockroom, scale: 1 });
  if (!read.ok) return read;
  const { job, assets, told, stockroom: whole } = read.value;
  return ok({
    job,
    revision: 0,
    variant: null,
    variantName: null,
    assets: new Map(assets.map((asset) => [assetIdOf(asset), asset])),
    stockroom: whole,
    results: createPipeline()(job, null, whole, []),
    stderr: told.join("\n"),
    found: told.length > 0,
  });
}

/** A file of solids, or a drawing, in a job. */
export async function brought(
  name: string,
  bytes: Uint8Array,
  ground: BringGround,
  drawingOf: DrawingOf | null = null,
): Promise<Result<Omit<Brought, "edit" | "added"> & { readonly job: Job }, CommandFault>> {
  const found = isDrawingFile(name) ? null : foundInStep(name, bytes, await loadStepReader());
  if (found && !found.ok) return ofCore(found.problem);
  const read = found ? broughtSolids(found.value, ground) : broughtDrawing(name, bytes, ground, drawingOf);
  if (!read.ok) return ofCore(read.problem);
  const after = withEdit(ground.job, read.value.edit);
  return after.ok ? ok({ ...read.value, job: after.value }) : ofCore(after.problem);
}
