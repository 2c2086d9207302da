/** Rows of a cutting list out of a spreadsheet file or CSV, as texts; nothing is stored. */
import { sentence } from "@/core/kernel";
import { MOST_LIST_BYTES } from "@/formats/csv";
import { readListRows } from "@/server";
import { guarded, readBytes, sayJson, sayProblem } from "../answer";

export function POST(request: Request) {
  return guarded(async () => {
    const bytes = await readBytes(request, MOST_LIST_BYTES);
    if (!bytes.ok) return bytes.problem;
    const rows = await readListRows(bytes.value);
    return rows.ok ? sayJson({ rows: rows.value }) : sayProblem(sentence(rows.problem), 422);
  });
}
