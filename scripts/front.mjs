/**
 * The server itself: Next.js behind the rules of src/access. A request that is not taken is refused by its head, before
 * anything reads its body; one that takes too long to arrive is let go. Reads PORT, HOSTNAME, RUSTIC_TALLY_HOSTS and
 * RUSTIC_TALLY_ACCESS (the file with the passcode's hash: then everybody has to enter it).
 */
import { randomBytes } from "node:crypto";
import http from "node:http";
import next from "next";
import { fromSources } from "../bin/sources.mjs";
import { ROOT } from "./setup.mjs";

const access = await fromSources("src/access/index.ts");
const { COOKIE, hostNames, isPass, isShared, keptAccess, pagePolicy, requestFault, securityHeads } = access;

const port = Number(process.env.PORT ?? "3000");
const hostname = process.env.HOSTNAME ?? "127.0.0.1";
const hosts = hostNames(process.env.RUSTIC_TALLY_HOSTS);

/** Of one request: its head within 15 s, all of it within a minute. */
const most = Number(process.env.RUSTIC_TALLY_REQUEST_MS ?? 60_000);
const TIMES = {
  headersTimeout: Math.min(15_000, most),
  requestTimeout: most,
  connectionsCheckingInterval: Math.min(5_000, most / 2),
};

/** What a browser needs to show the page that asks for the passcode. */
const isOpen = (path) =>
  path === "/enter" || path === "/api/enter" || path.startsWith("/_next/static/") || path === "/icon.svg";

function cookieOf(request) {
  const cookies = (request.headers.cookie ?? "").split(/;\s*/);
  return cookies.find((one) => one.startsWith(`${COOKIE}=`))?.slice(COOKIE.length + 1);
}

function mayPass(request, path) {
  if (!isShared() || isOpen(path)) return true;
  const kept = keptAccess();
  return kept !== null && isPass(kept, cookieOf(request), Date.now());
}

function say(request, response, status, message) {
  response.writeHead(status, { "content-type": "application/json", connection: "close" });
  response.end(JSON.stringify({ message }));
  // What still arrives is thrown away, so that the sender gets to read the answer.
  request.resume();
}

const head = (request, name) => {
  const value = request.headers[name];
  return value === undefined ? null : String(value);
};

const application = next({ dev: false, dir: ROOT, hostname, port });
await application.prepare();
const pass = application.getRequestHandler();

const server = http.createServer(TIMES, (request, response) => {
  const path = (request.url ?? "/").split(/[?#]/)[0] ?? "/";
  const nonce = randomBytes(16).toString("base64");
  const policy = pagePolicy(nonce);
  for (const [name, value] of Object.entries(securityHeads(path, policy))) response.setHeader(name, value);
  const refused = requestFault(
    {
      method: request.method ?? "GET",
      host: head(request, "host"),
      origin: head(request, "origin"),
      fetchSite: head(request, "sec-fetch-site"),
      contentType: head(request, "content-type"),
      contentLength: head(request, "content-length"),
    },
    hosts,
  );
  if (refused) return say(request, response, refused.status, refused.message);
  if (!mayPass(request, path)) {
    if (path.startsWith("/api/")) return say(request, response, 401, "Enter the passcode of the shop first.");
    response.writeHead(307, { location: `/enter?to=${encodeURIComponent(request.url ?? "/")}` });
    return response.end();
  }
  // Who sends is said by the connection alone; the nonce of its scripts Next.js takes from the policy on the request.
  request.headers["x-forwarded-for"] = request.socket.remoteAddress ?? "";
  request.headers["content-security-policy"] = policy;
  pass(request, response).catch((fault) => {
    console.error("request failed:", fault);
    if (!response.headersSent) say(request, response, 500, "Something went wrong on the server. Try again.");
    else response.destroy();
  });
});
server.listen(port, hostname);
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
