/** Lists of a job as files: cut.csv, buying.xlsx, NAME.pdf of one of its own by name or id; and tally.json. */
import type { PageSize } from "@/core/drawing";
import { listNames } from "@/core/lists";
import { isListFormat, LIST_FORMATS } from "@/formats/list-file";
import { tallyToJson } from "@/formats/tally-json";
import { computeJob, connection, fileName, printList } from "@/server";
import { download, guarded, NO_SUCH_JOB, sayJson, sayProblem } from "../../../../answer";

export function GET(
  request: Request,
  { params }: { readonly params: Promise<{ readonly id: string; readonly name: string }> },
) {
  return guarded(async () => {
    const { id, name } = await params;
    const query = new URL(request.url).searchParams;
    const variant = query.get("variant") ?? "";
    const page: PageSize = query.get("page") === "letter" ? "letter" : "a4";
    const computed = await computeJob(await connection(), id, variant);
    if (!computed) return NO_SUCH_JOB();
    const { results, open } = computed;
    if (name === "tally.json")
      return sayJson({ revision: open.revision, ...tallyToJson(open.job, results.tally) });
    const dot = name.lastIndexOf(".");
    const format = name.slice(dot + 1);
    if (dot < 0 || !isListFormat(format))
      return sayProblem(
        `"${name.slice(0, 60)}" does not end in a format; there are ${Object.keys(LIST_FORMATS).join(", ")}.`,
        404,
      );
    const numbers = query.get("numbers") === "decimals" ? "decimals" : "shown";
    const list = await printList(computed, name.slice(0, dot), format, { page, variant, numbers });
    if (!list)
      return sayProblem(
        `There is no list "${name.slice(0, Math.min(dot, 60))}"; there are ${listNames(open.job).join(", ")}.`,
        404,
      );
    return download(list.bytes, LIST_FORMATS[format], fileName(computed, slug(list.title), format));
  });
}

const slug = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 40) || "list";
