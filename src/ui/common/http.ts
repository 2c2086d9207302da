/** Calls to our own handlers: the answer, or a sentence why there is none. */
import { err, ok, type Result } from "@/core/kernel";

export type Refusal = { readonly status: number; readonly message: string; readonly body: unknown };

/** `status` 0: the server could not be reached. */
export async function call<T>(method: string, url: string, body?: unknown): Promise<Result<T, Refusal>> {
  let response: Response;
  try {
    response = await fetch(url, {
      method,
      // Also without anything to say: a change that is no JSON is not taken.
      ...(method === "GET"
        ? {}
        : { body: JSON.stringify(body ?? {}), headers: { "content-type": "application/json" } }),
    });
  } catch {
    return err({ status: 0, message: "The server cannot be reached.", body: null });
  }
  const data: unknown = await response.json().catch(() => null);
  if (response.ok) return ok(data as T);
  const told =
    typeof data === "object" && data !== null && "message" in data
      ? String(data.message)
      : "The server gave no answer that can be read.";
  return err({ status: response.status, message: told, body: data });
}
