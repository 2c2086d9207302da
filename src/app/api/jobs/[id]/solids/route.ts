/** The solids of a job as STEP or glTF; of the whole, or of one assembly. */
import { modelOf } from "@/core/brep";
import { assetsOfPapers, findAssembly } from "@/core/job";
import { readAssets } from "@/db";
import { writeGlb } from "@/formats/glb";
import { writeStep } from "@/formats/step";
import { computeJob, connection, fileName } from "@/server";
import { download, guarded, NO_SUCH_JOB } from "../../../answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const db = await connection();
    const computed = await computeJob(db, (await params).id, query.get("variant") ?? "");
    if (!computed) return NO_SUCH_JOB();
    const { job } = computed.open;
    const assets = await readAssets(db, assetsOfPapers(job, computed.stockroom));
    const assembly = findAssembly(job, query.get("assembly") ?? "");
    const model = modelOf(job, computed.results.shape, assets, assembly?.id ?? null);
    if (query.get("format") === "glb")
      return download(await writeGlb(model), "model/gltf-binary", fileName(computed, "solids", "glb"));
    const head = { name: job.info.job.title, made: new Date(), shop: computed.shop };
    return download(writeStep(model, head), "model/step", fileName(computed, "solids", "step"));
  });
}
