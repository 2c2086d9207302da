/** A job, an assembly or a piece of it for other programs: solids as STEP or glTF, flat patterns as DXF. */
import { modelOf, modelWords, pieceModelOf } from "@/core/brep";
import { flatPatterns } from "@/core/drawing";
import { type AssemblyId, type Assets, type Job, jobStyle, refused } from "@/core/job";
import { ok, type Problem, type Result } from "@/core/kernel";
import type { Results } from "@/core/pipeline";
import type { Stockroom } from "@/core/stockroom";
import { drawingToDxf } from "./dxf";
import { writeGlb } from "./glb";
import { writeStep } from "./step";

export const SOLID_FORMATS = {
  step: "model/step",
  glb: "model/gltf-binary",
  dxf: "image/vnd.dxf",
} as const;
export type SolidFormat = keyof typeof SOLID_FORMATS;
export const isSolidFormat = (text: string): text is SolidFormat => Object.hasOwn(SOLID_FORMATS, text);

export type SolidsAsked = {
  readonly format: SolidFormat;
  /** Only this assembly, or only this member, panel or bought part by its id. */
  readonly assembly: AssemblyId | null;
  readonly piece: string | null;
};

type Ground = {
  readonly job: Job;
  readonly results: Pick<Results, "shape" | "tally">;
  readonly stockroom: Stockroom;
  readonly assets: Assets;
  readonly made: Date;
  readonly shop: string;
};

/** The file, and what somebody should know of it. */
export async function solidsFile(
  { format, assembly, piece }: SolidsAsked,
  { job, results, stockroom, assets, made, shop }: Ground,
): Promise<Result<{ readonly file: Uint8Array | string; readonly told: readonly string[] }, Problem>> {
  if (format === "dxf") {
    const { rows, rowOfPiece } = results.tally;
    const own = piece === null ? null : rowOfPiece.get(piece);
    const wanted = own ? [own] : rows.filter(({ shown }) => piece === null && shown.form.kind === "panel");
    const style = jobStyle(job);
    const { drawing, told } = flatPatterns(wanted, { code: job.info.job.code, stockroom, style });
    if (drawing.items.length === 0)
      return refused(
        "A file of flat patterns",
        "",
        `cannot be made: ${told[0]?.replace(/[.]$/, "") ?? (piece === null ? "the job has no panel" : "what is bought is not made, so nothing of it is laid flat")}`,
      );
    return ok({ file: drawingToDxf(drawing, job.info.job.unit), told });
  }
  const model =
    piece === null
      ? modelOf(job, results.shape, assets, assembly)
      : pieceModelOf(job, results.shape, assets, piece);
  if (!model || model.products.every(({ brep, holds }) => !brep && holds.length === 0))
    return refused(
      "A file of solids",
      "",
      `cannot be made: ${model ? (modelWords(model)[0]?.replace(/[.]$/, "") ?? "nothing stands in the job yet") : "there is no such piece"}`,
    );
  const name = piece === null ? job.info.job.title : (model.products[0]?.name ?? job.info.job.title);
  const file = format === "glb" ? await writeGlb(model) : writeStep(model, { name, made, shop });
  return ok({ file, told: modelWords(model) });
}
