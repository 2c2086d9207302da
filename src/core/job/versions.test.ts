/** Documents of all earlier versions are read; they stand beside this file as they were written then. */
import { describe, expect, it } from "vitest";
import { readJob } from ".";
import { ENTITIES, SCHEMA_VERSION, TABLES } from "./job";
import documents from "./versions.fixture.json";

type Document = Readonly<Record<string, unknown>>;
const ofVersion = (version: number) => (documents as Readonly<Record<string, Document>>)[String(version)];

/** Every step of every table's history: the version, the table, and what it got. */
const STEPS = TABLES.flatMap((table) => {
  const { since, added } = ENTITIES[table];
  const fields = Object.entries(added).map(([version, got]) => ({
    table,
    version: Number(version),
    fields: got,
  }));
  return since > 1 ? [{ table, version: since, fields: null }, ...fields] : fields;
});

describe("documents of earlier versions", () => {
  it("there is one of each", () => {
    expect(Object.keys(documents).map(Number)).toEqual(
      Array.from({ length: SCHEMA_VERSION - 1 }, (_, i) => i + 1),
    );
  });

  it.each(Array.from({ length: SCHEMA_VERSION - 1 }, (_, i) => i + 1))("version %d is read", (version) => {
    const read = readJob(ofVersion(version));
    expect(read.ok).toBe(true);
    expect(read.ok && read.value.schemaVersion).toBe(SCHEMA_VERSION);
    expect(read.ok && Object.keys(read.value.members)).toEqual(["one", "two"]);
  });

  it.each(STEPS)(
    "$table in version $version: there is a document without it, and what held before is filled in",
    ({ table, version, fields }) => {
      const old = ofVersion(version - 1);
      const read = readJob(old);
      if (!read.ok) throw new Error("it is read");
      if (fields === null) {
        expect(old).not.toHaveProperty(table);
        expect(read.value[table]).toEqual({});
        return;
      }
      const records = Object.entries(old?.[table] ?? {}) as [string, object][];
      // A history that no old record goes through is a promise that nobody has tried.
      if (ENTITIES[table].since < version) expect(records.length).toBeGreaterThan(0);
      for (const [id, record] of records) {
        for (const field of Object.keys(fields)) expect(record).not.toHaveProperty(field);
        expect((read.value[table] as Readonly<Record<string, object>>)[id]).toEqual(
          expect.objectContaining(fields),
        );
      }
    },
  );
});
