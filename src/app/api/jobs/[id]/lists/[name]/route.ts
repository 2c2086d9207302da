/** Lists of a job: cut.csv, buying.csv, tally.json, and its own lists by id or name. */

import { findList, ownList } from "@/core/lists";
import { listToCsv } from "@/formats/csv";
import { tallyToJson } from "@/formats/tally-json";
import { computeJob, connection, fileName } from "@/server";
import { download, guarded, NO_SUCH_JOB, sayJson, sayProblem } from "../../../../answer";

export function GET(
  request: Request,
  { params }: { readonly params: Promise<{ readonly id: string; readonly name: string }> },
) {
  return guarded(async () => {
    const { id, name } = await params;
    const variant = new URL(request.url).searchParams.get("variant") ?? "";
    const computed = await computeJob(await connection(), id, variant);
    if (!computed) return NO_SUCH_JOB();
    const { results, open, stockroom } = computed;
    if (name === "cut.csv")
      return download(
        listToCsv(results.cutList),
        "text/csv; charset=utf-8",
        fileName(computed, "cut-list", "csv"),
      );
    if (name === "buying.csv")
      return download(
        listToCsv(results.buyingList),
        "text/csv; charset=utf-8",
        fileName(computed, "buying-list", "csv"),
      );
    const own = findList(open.job, name.replace(/\.csv$/, ""));
    if (own && name.endsWith(".csv"))
      return download(
        listToCsv(ownList(own, { job: open.job, stockroom, ...results })),
        "text/csv; charset=utf-8",
        fileName(computed, "list", "csv"),
      );
    if (name === "tally.json")
      return sayJson({ revision: open.revision, ...tallyToJson(open.job, results.tally) });
    return sayProblem(
      `There is no list "${name.slice(0, 30)}"; there are cut.csv, buying.csv, tally.json and the job's own lists by their name.`,
      404,
    );
  });
}
