/**
 * What every route handler does at its edge: read and check the body, answer with a sentence and a
 * fitting status, and never show a stack.
 */
import * as v from "valibot";
import { issueWords } from "@/core/job";
import { err, ok, type Result } from "@/core/kernel";
import { UnreadableJob } from "@/db";

const MOST_BODY_BYTES = 12_000_000;

export const sayJson = (body: unknown, status = 200) => Response.json(body, { status });
export const sayProblem = (message: string, status: number) => sayJson({ message }, status);
export const NO_SUCH_JOB = () => sayProblem("There is no such job; it may have been deleted.", 404);
export const NO_SUCH_BATCH = () => sayProblem("There is no such batch; it may have been removed.", 404);

/** The JSON body of a request, checked; the error is a response. */
export async function readBody<S extends v.GenericSchema>(
  request: Request,
  schema: S,
): Promise<Result<v.InferOutput<S>, Response>> {
  const text = await request.text();
  if (text.length > MOST_BODY_BYTES) return err(sayProblem("The request is too large.", 413));
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return err(sayProblem("The request is not JSON.", 400));
  }
  const checked = v.safeParse(schema, data);
  return checked.success
    ? ok(checked.output)
    : err(sayProblem(`The request does not fit: ${issueWords(checked.issues)}.`, 400));
}

/** The bytes of a request's body; null when there are more than `most`, of which no more is read. */
export async function readBytes(request: Request, most: number): Promise<Uint8Array | null> {
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
    size += part.value.length;
    if (size > most) {
      await reader?.cancel();
      return null;
    }
    parts.push(part.value);
  }
  return new Uint8Array(Buffer.concat(parts));
}

/** Runs a handler; whatever is thrown is logged once and told in one sentence. */
export async function guarded(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (thrown) {
    if (thrown instanceof UnreadableJob) return sayProblem(thrown.message, 422);
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
