import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { publishedSchemas } from "./schemas";

describe("published schemas", () => {
  it.each(Object.entries(publishedSchemas()))(
    "docs/schema/%s is what files are read by (npm run schemas writes it)",
    (name, schema) => {
      expect(JSON.parse(readFileSync(`docs/schema/${name}`, "utf8"))).toEqual(
        JSON.parse(JSON.stringify(schema)),
      );
    },
  );
});
