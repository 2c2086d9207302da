/** Brings a deleted job back. */
import { setDeleted } from "@/db";
import { connection } from "@/server";
import { guarded, NO_SUCH_JOB, sayJson } from "../../../answer";

export function POST(_: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () =>
    (await setDeleted(await connection(), (await params).id, null)) ? sayJson({}) : NO_SUCH_JOB(),
  );
}
