/**
 * What every route handler does at its edge: read and check the body, answer with a sentence and a
 * fitting status, and never show a stack.
 */
import * as v from "valibot";
import { MOST_BODY_BYTES } from "@/access";
import { issueWords } from "@/core/job";
import { err, ok, type Result } from "@/core/kernel";
import { readFault, UnreadableJob } from "@/db";

export const sayJson = (body: unknown, status = 200) => Response.json(body, { status });
/** A JSON text that is made already. */
export const sayJsonText = (text: string) =>
  new Response(text, { headers: { "content-type": "application/json" } });
export const sayProblem = (message: string, status: number) => sayJson({ message }, status);
export const NO_SUCH_JOB = () => sayProblem("There is no such job. It may have been deleted.", 404);
export const NO_SUCH_COMBINED = () =>
  sayProblem("There is no such combined layout. It may have been deleted.", 404);

/** The JSON body of a request, checked; the error is a response. */
export async function readBody<S extends v.GenericSchema>(
  request: Request,
  schema: S,
): Promise<Result<v.InferOutput<S>, Response>> {
  const bytes = await readBytes(request, MOST_BODY_BYTES);
  if (!bytes.ok) return bytes;
  let data: unknown;
  try {
    data = JSON.parse(new TextDecoder().decode(bytes.value));
  } catch {
    return err(sayProblem("The request is not JSON.", 400));
  }
  const checked = v.safeParse(schema, data);
  return checked.success
    ? ok(checked.output)
    : err(sayProblem(`The request does not fit: ${issueWords(checked.issues)}.`, 400));
}

/** Longer than any file takes over the network of a shop. */
const MOST_BODY_MS = 30_000;

/** The bytes of a request's body. Of more than `most` no more is read, and one that takes too long is let go. */
export async function readBytes(request: Request, most: number): Promise<Result<Uint8Array, Response>> {
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  if (!reader) return ok(new Uint8Array());
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<"late">((resolve) => {
    timer = setTimeout(() => resolve("late"), MOST_BODY_MS);
  });
  try {
    for (;;) {
      const part = await Promise.race([reader.read(), late]);
      if (part === "late") {
        void reader.cancel();
        return err(sayProblem("The request took too long to arrive; send it again.", 408));
      }
      if (part.done) return ok(new Uint8Array(Buffer.concat(parts)));
      size += part.value.length;
      if (size > most) {
        void reader.cancel();
        return err(sayProblem(`The request is larger than ${most / 1e6} MB.`, 413));
      }
      parts.push(part.value);
    }
  } finally {
    clearTimeout(timer);
  }
}

/** Runs a handler; whatever is thrown is logged once and told in one sentence. */
export async function guarded(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (thrown) {
    // Whoever sent it is gone: there is nobody to tell.
    if (thrown instanceof Error && thrown.message === "aborted") return new Response(null, { status: 499 });
    if (thrown instanceof UnreadableJob) return sayProblem(thrown.message, 422);
    const fault = readFault(thrown);
    if (fault) {
      console.error("database:", fault.message);
      return sayProblem(fault.message, 503);
    }
    console.error("request failed:", thrown instanceof Error ? thrown.message.slice(0, 500) : thrown);
    return sayProblem("Something went wrong on the server; nothing was changed. Try again.", 500);
  }
}

export const download = (body: Uint8Array | string, type: string, name: string) =>
  new Response(body as BodyInit, {
    headers: {
      "content-type": type,
      "content-disposition": `attachment; filename="${name}"`,
      "cache-control": "no-store",
    },
  });
