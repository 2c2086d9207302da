/**
 * Which requests the server takes at all, by what their heads say: for a host that is ours, and, where they change
 * something, sent by a page of ours and as JSON. A page of another website can make a browser send requests, but no such
 * head with them (Fetch Metadata and the CORS protocol, WHATWG Fetch).
 */

/** Heads of a request, null where there is none. */
export type RequestHeads = {
  readonly method: string;
  readonly host: string | null;
  readonly origin: string | null;
  readonly fetchSite: string | null;
  readonly contentType: string | null;
  readonly contentLength: string | null;
};

export type Refusal = { readonly status: number; readonly message: string };

/** Bytes that a request may carry: a job of some ten thousand records is below it. */
export const MOST_BODY_BYTES = 12_000_000;

const LOCAL = ["localhost", "127.0.0.1", "[::1]"];
const READS = new Set(["GET", "HEAD", "OPTIONS"]);
/** JSON, or the bytes of a file: what a form of another website cannot send. */
const TYPES = new Set(["application/json", "application/octet-stream"]);

const nameOf = (host: string) => host.toLowerCase().replace(/:\d+$/, "");

/** Names under which the server is asked for, ports left out: the machine itself, and what RUSTIC_TALLY_HOSTS adds. */
export function hostNames(added: string | undefined): ReadonlySet<string> {
  const more = (added ?? "")
    .split(",")
    .map((name) => nameOf(name.trim()))
    .filter((name) => name !== "");
  return new Set([...LOCAL, ...more]);
}

/** Why a request is not taken; null: it is. */
export function requestFault(heads: RequestHeads, hosts: ReadonlySet<string>): Refusal | null {
  const { method, host, origin, fetchSite, contentType, contentLength } = heads;
  if (host === null || !hosts.has(nameOf(host)))
    return {
      status: 421,
      message:
        "This server does not answer under that name. Start it with RUSTIC_TALLY_HOSTS set to the names it may have.",
    };
  if (READS.has(method)) return null;
  if (!isOurs(host, origin, fetchSite))
    return { status: 403, message: "Changes are taken from the pages of this application only." };
  const type = (contentType ?? "").split(";")[0]?.trim().toLowerCase() ?? "";
  if (!TYPES.has(type)) return { status: 415, message: "A change must be sent as application/json." };
  const length = Number(contentLength ?? Number.NaN);
  // Without its length a body would have to be read to find out that it is too large.
  if (!(length >= 0)) return { status: 411, message: "The request must say how long it is." };
  if (length > MOST_BODY_BYTES)
    return { status: 413, message: `The request is larger than ${MOST_BODY_BYTES / 1e6} MB.` };
  return null;
}

function isOurs(host: string, origin: string | null, fetchSite: string | null): boolean {
  if (fetchSite !== null && fetchSite !== "same-origin") return false;
  if (origin === null) return fetchSite === "same-origin";
  try {
    return new URL(origin).host === host.toLowerCase();
  } catch {
    return false;
  }
}
