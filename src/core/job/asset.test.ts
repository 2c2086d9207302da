/** Shapes by their content: the same name everywhere, and what older documents held within themselves. */
import { createHash } from "node:crypto";
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { type Asset, AssetSchema, assetIdOf, inlineAssets } from "./asset";
import { assetsOf } from "./assets-of";
import type { BoughtPart } from "./bought-part";
import { readJob, recordOfToday } from "./job";
import documents from "./versions.fixture.json";

const WEDGE: Asset = { kind: "shape", triangles: [-10, -15, 0, 10, -15, 0, -10, 15, 20] };

describe("an asset", () => {
  it("is called by the SHA-256 of what it is, as any other program works it out", () => {
    const text = JSON.stringify(["shape", WEDGE.triangles]);
    expect(assetIdOf(WEDGE)).toBe(createHash("sha256").update(text).digest("hex"));
    expect(assetIdOf({ ...WEDGE, triangles: WEDGE.triangles.toReversed() })).not.toBe(assetIdOf(WEDGE));
  });

  it("has nine numbers a triangle, none of them beyond 100 m", () => {
    const fits = (triangles: unknown) => v.safeParse(AssetSchema, { kind: "shape", triangles }).success;
    expect([WEDGE.triangles, [], [1, 2, 3], [...WEDGE.triangles.slice(1), 100_001], ["1"]].map(fits)).toEqual(
      [true, true, false, false, false],
    );
  });
});

describe("documents from before version 8", () => {
  it("held shapes within themselves: read, they name them, and nothing of the shape is lost", () => {
    const old = documents["7"];
    const id = assetIdOf(WEDGE);
    const read = readJob(old);
    if (!read.ok) throw new Error("it is read");
    expect(JSON.stringify(read.value)).not.toContain("triangles");
    expect(Object.values(read.value.boughtParts).find(({ name }) => name === "Shaped")?.stand?.as).toEqual({
      kind: "shape",
      name: "wedge.stl",
      asset: id,
    });
    expect([...inlineAssets(old)]).toEqual([[id, WEDGE]]);
    expect([...assetsOf(read.value)]).toEqual([id]);
  });

  it("left records in the edit log, which undo brings back as they are today", () => {
    const stored = Object.values(documents["7"].boughtParts).find(({ name }) => name === "Shaped");
    const record = recordOfToday("boughtParts", stored as unknown as BoughtPart) as BoughtPart;
    expect([...assetsOf({ boughtParts: { shaped: record } })]).toEqual([assetIdOf(WEDGE)]);
    // One of today stays what it is.
    expect(recordOfToday("boughtParts", record)).toEqual(record);
  });
});
