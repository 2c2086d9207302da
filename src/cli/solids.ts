import path from "node:path";
import { assetIdOf, emptyJob, type Job } from "@/core/job";
import { ok, type Result } from "@/core/kernel";
import type { Results } from "@/core/pipeline";
import { EMPTY_STOCKROOM, indexStockroom } from "@/core/stockroom";
import { DRAWINGS } from "@/formats/brought-in";
import { readJobFile, writeJobFile } from "@/formats/job-file";
import { type SolidFormat, solidsFile } from "@/formats/solids-out";
import { numberOption } from "./arguments";
import { type CommandFault, fault, ofCore } from "./command-fault";
import { brought, load, type Output, openFile, readFile, titleOf } from "./loading";

const IMPORT_OPTIONS = { into: "any", title: "any", scale: "any", as: DRAWINGS, stockroom: "any" } as const;

export async function importCommand(words: readonly string[]): Promise<Result<Output, CommandFault>> {
  const opened = openFile(words, IMPORT_OPTIONS);
  if (!opened.ok) return opened;
  const { file, options, bytes, given } = opened.value;
  const scale = numberOption(options, "scale", 1);
  if (!scale.ok) return scale;
  const into = options.get("into");
  const before = into === undefined ? ok(null) : readFile(into);
  if (!before.ok) return before;
  const known = before.value === null ? null : readJobFile(new TextDecoder().decode(before.value));
  if (known && !known.ok) return ofCore(known.problem);
  const title = options.get("title") ?? titleOf(file);
  const job = known?.value.job ?? emptyJob({ code: "file", title, unit: "mm" });
  const stockroom = given ?? (known ? indexStockroom(known.value.stockroom) : EMPTY_STOCKROOM);
  const name = path.basename(file);
  const entered = await brought(
    name,
    bytes,
    { job, stockroom, scale: scale.value },
    DRAWINGS.find((one) => one === options.get("as")) ?? null,
  );
  if (!entered.ok) return entered;
  const { told } = entered.value;
  const assets = new Map(known?.value.assets ?? []);
  for (const asset of entered.value.assets) assets.set(assetIdOf(asset), asset);
  return ok({
    code: told.length > 0 ? 1 : 0,
    stdout: writeJobFile(entered.value.job, entered.value.stockroom, {
      assets,
      revision: known?.value.revision ?? 0,
    }),
    stderr: told.join("\n"),
  });
}

const EXPORT_OPTIONS = {
  format: ["step", "glb", "dxf"],
  assembly: "any",
  piece: "any",
  stockroom: "any",
  variant: "any",
} as const;

/** The record that somebody calls by its mark, its name or its id; null: none is called so. */
function pieceNamed(wanted: string, job: Job, { rows }: Results["tally"]): string | null {
  const row = rows.find(({ mark }) => mark === wanted);
  const named = [job.members, job.panels, job.boughtParts].flatMap((table) =>
    Object.values(table).filter(({ id, name }) => id === wanted || name === wanted),
  );
  return row?.pieces[0]?.id ?? named[0]?.id ?? null;
}

export async function exportCommand(words: readonly string[]): Promise<Result<Output, CommandFault>> {
  const loaded = await load(words, EXPORT_OPTIONS);
  if (!loaded.ok) return loaded;
  const { job, results, stockroom, assets, options } = loaded.value;
  const wanted = options.get("assembly");
  const assembly = Object.values(job.assemblies).find(({ id, name }) => id === wanted || name === wanted);
  if (wanted !== undefined && !assembly)
    return fault({
      kind: "noAssembly",
      name: wanted,
      there: Object.values(job.assemblies).map(({ name }) => name),
    });
  const asked = options.get("piece");
  const piece = asked === undefined ? null : pieceNamed(asked, job, results.tally);
  if (asked !== undefined && piece === null) return fault({ kind: "noPiece", name: asked });
  const format = (options.get("format") ?? "step") as SolidFormat;
  const made = await solidsFile(
    { format, assembly: assembly?.id ?? null, piece },
    { job, results, stockroom, assets, made: new Date(), shop: "" },
  );
  if (!made.ok) return ofCore(made.problem);
  const { file, told } = made.value;
  return ok({ code: told.length > 0 ? 1 : 0, stdout: file, stderr: told.join("\n") });
}
