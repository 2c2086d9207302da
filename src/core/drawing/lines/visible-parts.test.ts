/** Visible parts against the image by brute force. */
import { describe, expect, it } from "vitest";
import type { Vec3 } from "../../geometry";
import { resultsOf, smallFrame } from "../../pipeline.fixture";
import { Image } from "./lines.oracle";
import { seenPieces } from "./shape-solids";
import { VIEW_DIRECTIONS, viewFrom } from "./view-frame";
import { visibleParts } from "./visible-parts";

const { front, frontLeft, top } = VIEW_DIRECTIONS;
const DIRECTIONS: readonly Vec3[] = [front, frontLeft, [-0.77, -0.31, -0.5]];

describe("visible parts", () => {
  const { shape } = resultsOf(smallFrame());

  it.each(DIRECTIONS)(
    "seen from %d %d %d have a place that is seen, with room of its own round it",
    (...direction) => {
      const pieces = seenPieces(shape, viewFrom(direction));
      const image = new Image(pieces);
      const { parts, grid } = visibleParts(pieces);
      const pixel = Math.max(image.box[2] - image.box[0], image.box[3] - image.box[1]) / 800;
      for (const { owner, at, radius } of parts) {
        expect(image.seenAt(at)?.owner).toBe(owner);
        // What is within its radius, but for a pixel and a half, is the same piece.
        const near = Math.max(0, radius - 1.5 * pixel);
        for (let i = 0; i < 16; i++) {
          const angle = (i * Math.PI) / 8;
          const place = [at[0] + near * Math.cos(angle), at[1] + near * Math.sin(angle)] as const;
          expect(image.seenAt(place)?.owner).toBe(owner);
        }
      }
      // Nothing that is seen on more than a few pixels is without a part.
      const found = new Set(parts.map(({ owner }) => owner));
      const [x0, y0, x1, y1] = image.box;
      const counts = new Map<number, number>();
      for (let i = 0; i < 60; i++)
        for (let k = 0; k < 60; k++) {
          const seen = image.seenAt([x0 + ((i + 0.5) / 60) * (x1 - x0), y0 + ((k + 0.5) / 60) * (y1 - y0)]);
          if (seen) counts.set(seen.owner, (counts.get(seen.owner) ?? 0) + 1);
        }
      if (!grid) throw new Error("something is seen");
      const rows = grid.owners.length / grid.columns;
      let wrong = 0;
      for (let i = 0; i < grid.owners.length; i += 97) {
        const [column, row] = [i % grid.columns, Math.floor(i / grid.columns)];
        const place = [grid.x0 + (column + 0.625) * grid.size, grid.y0 + (row + 0.625) * grid.size] as const;
        if ((image.seenAt(place)?.owner ?? -1) !== grid.owners[i]) wrong++;
      }
      expect(rows).toBe(Math.floor(rows));
      expect(wrong).toBe(0);
      expect(counts.size).toBeGreaterThan(3);
      for (const [owner, count] of counts) if (count > 1) expect(found.has(owner)).toBe(true);
    },
  );

  it("of nothing are none, and one that is covered wholly has none", () => {
    expect(visibleParts([])).toEqual({ parts: [], grid: null });
    const pieces = seenPieces(shape, viewFrom(top));
    const seen = new Set(visibleParts(pieces).parts.map(({ owner }) => pieces[owner]?.record));
    expect([seen.has("shelfHigh"), seen.has("shelfLow")]).toEqual([true, false]);
  });
});
