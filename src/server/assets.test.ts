/** Shapes from files on the server: stored once, taken out of what older versions wrote, and there before a job names them. */
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { eq } from "drizzle-orm";
import { afterAll, describe, expect, it } from "vitest";
import { type Asset, assetIdOf, assetsOf, type Edit } from "@/core/job";
import documents from "@/core/job/versions.fixture.json";
import { findJob, openDatabase, readAssets, saveAsset } from "@/db";
import { assets, editLog, jobs, settings } from "@/db/schema";
import { jobPicture } from "./cards";
import { submitEdit } from "./edits";

const url = `file:${path.join(mkdtempSync(path.join(tmpdir(), "tally-assets-")), "jobs.db")}`;
const db = await openDatabase(url);
afterAll(() => db.close());

const old = documents["7"];
const WEDGE: Asset = { kind: "shape", triangles: [-10, -15, 0, 10, -15, 0, -10, 15, 20] };
const OTHER: Asset = { kind: "shape", triangles: [0, 0, 0, 9, 0, 0, 0, 9, 9] };

describe("a database from before version 8", () => {
  it("gives its shapes out once, those of the edit log too, and opens as it was", async () => {
    const at = 1;
    await db.write(async (writer) => {
      await writer.delete(settings).where(eq(settings.name, "assetsMoved"));
      const { code, title } = old.info.job;
      await writer.insert(jobs).values({
        id: "old",
        code,
        title,
        document: JSON.stringify(old),
        revision: 1,
        createdAt: at,
        updatedAt: at,
      });
      const part = Object.values(old.boughtParts).find(({ name }) => name === "Shaped");
      const before = { ...part, stand: { ...part?.stand, as: { ...OTHER, name: "other.stl" } } };
      const diff = { added: [], removed: [], updated: [{ table: "boughtParts", from: before, to: part }] };
      await writer.insert(editLog).values({
        jobId: "old",
        revision: 1,
        action: "edit",
        name: "Change a bought part",
        state: "applied",
        diff: JSON.stringify(diff),
        at,
      });
    });
    const again = await openDatabase(url);
    const stored = await findJob(again, "old");
    if (!stored) throw new Error("the job");
    expect([...(await readAssets(again, assetsOf(stored.job))).values()]).toEqual([WEDGE]);
    expect((await again.db.select().from(assets)).map(({ id }) => id).sort()).toEqual(
      [WEDGE, OTHER].map(assetIdOf).sort(),
    );
    expect((await jobPicture(again, "old"))?.svg).toContain("<path");
    again.close();
  });
});

describe("an edit that names a shape", () => {
  const edit = (asset: Asset): Edit =>
    ({
      kind: "changeBoughtParts",
      ids: ["shaped"],
      set: {
        stand: {
          at: ["0", "0", "0"],
          turn: ["0", "0", "0"],
          step: ["0", "0", "0"],
          as: { kind: "shape", name: "new.stl", asset: assetIdOf(asset) },
        },
      },
    }) as unknown as Edit;

  it("is refused while the shape is not stored, and taken when it is", async () => {
    const fresh: Asset = { kind: "shape", triangles: [1, 1, 1, 2, 1, 1, 1, 2, 2] };
    const refused = await submitEdit(db, "old", 1, edit(fresh));
    expect(refused?.answer).toMatchObject({ status: "refused" });
    expect(refused?.answer.status === "refused" && refused.answer.message).toContain("Choose its file again");
    await saveAsset(db, assetIdOf(fresh), fresh, 2);
    // Stored once more it is the same one.
    await saveAsset(db, assetIdOf(fresh), fresh, 3);
    const taken = await submitEdit(db, "old", 1, edit(fresh));
    expect(taken?.answer.status).toBe("applied");
    expect([...assetsOf(taken?.stored.job ?? { boughtParts: {} })]).toEqual([assetIdOf(fresh)]);
    // What every edit parses, checks and writes no longer holds the shape.
    expect(JSON.stringify(taken?.stored.job)).not.toContain("triangles");
  });
});
