/** Heads that tell a browser what a page of ours may do (CSP Level 3, and the heads beside it). */

const ALWAYS = {
  "x-content-type-options": "nosniff",
  "referrer-policy": "same-origin",
  "permissions-policy": "camera=(), geolocation=(), microphone=(), payment=(), usb=()",
  "cross-origin-opener-policy": "same-origin",
} as const;

/** Scripts run when they are files of ours or carry the nonce; WebAssembly is compiled, text is never run as code. */
export function pagePolicy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

/** For answers that are no pages: nothing in them is run. */
const DATA_POLICY =
  "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";

/** The heads of an answer to `path`. */
export function securityHeads(path: string, policy: string): Readonly<Record<string, string>> {
  return { ...ALWAYS, "content-security-policy": path.startsWith("/api/") ? DATA_POLICY : policy };
}
