/** Solids of a job as STEP or glTF, or its flat patterns as DXF; of the whole, of one assembly, or of one piece. */
import { assetsOfPapers, findAssembly } from "@/core/job";
import { sentence } from "@/core/kernel";
import { readAssets } from "@/db";
import { isSolidFormat, SOLID_FORMATS, solidsFile } from "@/formats/solids-out";
import { computeJob, connection, fileName } from "@/server";
import { download, guarded, NO_SUCH_JOB, sayProblem } from "../../../answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const format = query.get("format") ?? "step";
    if (!isSolidFormat(format)) return sayProblem("format must be step, glb or dxf.", 422);
    const db = await connection();
    const computed = await computeJob(db, (await params).id, query.get("variant") ?? "");
    if (!computed) return NO_SUCH_JOB();
    const { stockroom, results, shop } = computed;
    const { job } = computed.open;
    const assets = await readAssets(db, assetsOfPapers(job, stockroom));
    const assembly = findAssembly(job, query.get("assembly") ?? "")?.id ?? null;
    const piece = query.get("piece");
    const made = await solidsFile(
      { format, assembly, piece },
      { job, results, stockroom, assets, made: new Date(), shop },
    );
    if (!made.ok) return sayProblem(sentence(made.problem), 422);
    const what = format === "dxf" ? "flat patterns" : "solids";
    return download(made.value.file, SOLID_FORMATS[format], fileName(computed, what, format));
  });
}
