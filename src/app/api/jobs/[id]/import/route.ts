/** A STEP or DXF file into a job: its bytes are the body, `name` its name, `scale` what its lengths are multiplied by, `as` what a drawing holds. */
import { sentence } from "@/core/kernel";
import { DRAWINGS } from "@/formats/brought-in";
import { bringIn, connection } from "@/server";
import { guarded, NO_SUCH_JOB, readBytes, sayJson, sayProblem } from "../../../answer";

/** As large as a STEP file that is read at all. */
const MOST_BYTES = 100_000_000;

export function POST(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const scale = Number(query.get("scale") ?? "1");
    if (!(scale > 0 && scale <= 1e6)) return sayProblem("scale must be a number above 0.", 422);
    const bytes = await readBytes(request, MOST_BYTES);
    if (!bytes.ok) return bytes.problem;
    const as = query.get("as");
    const drawingOf = DRAWINGS.find((one) => one === as) ?? null;
    if (as !== null && drawingOf === null) return sayProblem("as must be frame or panels.", 422);
    const name = (query.get("name") ?? "file.step").slice(0, 200);
    const brought = await bringIn(await connection(), (await params).id, {
      name,
      bytes: bytes.value,
      scale,
      drawingOf,
    });
    if (!brought) return NO_SUCH_JOB();
    if (!brought.ok) return sayProblem(sentence(brought.problem), 422);
    const { answer, stored, told } = brought.value;
    return answer.status === "refused"
      ? sayProblem(answer.message, 409)
      : sayJson({ revision: stored.revision, told });
  });
}
