/** Calls to our own handlers: the answer, or a sentence why there is none. */
import { err, ok, type Result } from "@/core/kernel";

export type Refusal = { readonly status: number; readonly message: string; readonly body: unknown };

const UNREACHED: Refusal = { status: 0, message: "The server cannot be reached.", body: null };

/** `status` 0: the server could not be reached. */
export const call = <T>(method: string, url: string, body?: unknown): Promise<Result<T, Refusal>> =>
  answerOf<T>(url, {
    method,
    // Also without anything to say: a change that is no JSON is not taken.
    ...(method === "GET"
      ? {}
      : { body: JSON.stringify(body ?? {}), headers: { "content-type": "application/json" } }),
  });

/** Sends a file as it is. */
export const sendFile = <T>(url: string, file: Blob): Promise<Result<T, Refusal>> =>
  answerOf<T>(url, { method: "POST", headers: { "content-type": "application/octet-stream" }, body: file });

async function answerOf<T>(url: string, request: RequestInit): Promise<Result<T, Refusal>> {
  let response: Response;
  try {
    response = await fetch(url, request);
  } catch {
    return err(UNREACHED);
  }
  const data: unknown = await response.json().catch(() => null);
  return response.ok ? ok(data as T) : err(refusalOf(response.status, data));
}

const UNREADABLE = "The server gave no answer that can be read.";

/** What stands in the bytes of an answer, or the sentence that it cannot be read. */
export function answerIn<T>(bytes: ArrayBuffer): Result<T, Refusal> {
  try {
    return ok(JSON.parse(new TextDecoder().decode(bytes)));
  } catch {
    return err({ status: 0, message: UNREADABLE, body: null });
  }
}

function refusalOf(status: number, data: unknown): Refusal {
  const told =
    typeof data === "object" && data !== null && "message" in data ? String(data.message) : UNREADABLE;
  return { status, message: told, body: data };
}

/** What a GET gives, as the bytes of its text: of a large answer somebody else may make sense. */
export async function fetchBytes(url: string): Promise<Result<ArrayBuffer, Refusal>> {
  try {
    const response = await fetch(url);
    if (response.ok) return ok(await response.arrayBuffer());
    return err(refusalOf(response.status, await response.json().catch(() => null)));
  } catch {
    return err(UNREACHED);
  }
}
