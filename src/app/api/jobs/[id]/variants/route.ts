/** The variants of a job side by side: as a table for the screen, or as a file (?format=csv, xlsx, pdf, svg or json). */
import { isListFormat, LIST_FORMATS } from "@/formats/list-file";
import { compareVariants, connection, fileName, printVariants } from "@/server";
import { download, guarded, NO_SUCH_JOB, sayJson, sayProblem } from "../../../answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const compared = await compareVariants(await connection(), (await params).id);
    if (!compared) return NO_SUCH_JOB();
    const format = new URL(request.url).searchParams.get("format");
    if (format === null) return sayJson({ table: compared.table });
    if (!isListFormat(format))
      return sayProblem(
        `"${format.slice(0, 60)}" is no format; there are ${Object.keys(LIST_FORMATS).join(", ")}.`,
        404,
      );
    const bytes = await printVariants(compared, format);
    return download(bytes, LIST_FORMATS[format], fileName(compared.computed, "variants", format));
  });
}
