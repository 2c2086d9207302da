/** The binary of the reader of STEP files for its worker, straight from its package. */
import { readFile } from "node:fs/promises";
import path from "node:path";

export async function GET() {
  const file = path.join(process.cwd(), "node_modules", "occt-import-js", "dist", "occt-import-js.wasm");
  return new Response(new Uint8Array(await readFile(file)), {
    headers: { "content-type": "application/wasm", "cache-control": "public, max-age=86400" },
  });
}
