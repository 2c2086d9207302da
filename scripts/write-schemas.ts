/** Writes the published JSON Schemas of docs/schema/ from the schemas that the program itself reads by. */
import { mkdirSync, writeFileSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { publishedSchemas } from "../src/formats/schemas";

const folder = fileURLToPath(new URL("../docs/schema/", import.meta.url));
mkdirSync(folder, { recursive: true });
for (const [name, schema] of Object.entries(publishedSchemas())) {
  writeFileSync(path.join(folder, name), `${JSON.stringify(schema, null, 2)}\n`);
  console.log(`docs/schema/${name}`);
}
