import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Vec3 } from "../geometry";
import { NEAR_TWIN_LENGTH_MM } from "../kernel";
import { cellOf, cellsAlong, cellsNear } from "./cells";

/** None lies on a border. */
const coordinate = fc.integer({ min: -500, max: 500 }).map((value) => value + 0.37);
const place = fc.tuple(coordinate, coordinate, coordinate);
const size = fc.integer({ min: 20, max: 90 });

describe("cells of space", () => {
  it("along a line are those of every place on it, and no others", () => {
    fc.assert(
      fc.property(place, place, size, (from, to, cell) => {
        const found = new Set(cellsAlong(from, to, cell));
        const passed = new Set(
          Array.from({ length: 400 }, (_, k): Vec3 => {
            const at = (i: 0 | 1 | 2) => from[i] + ((to[i] - from[i]) * (k + 0.5)) / 400;
            return [at(0), at(1), at(2)];
          }).map((one) => cellOf(one, cell)),
        );
        // A corner that is cut by less than a step may be missed by the samples, never by the cells.
        for (const key of passed) expect(found).toContain(key);
        // One border crossed is one cell more.
        const borders = ([0, 1, 2] as const).reduce<number>(
          (sum, i) => sum + Math.abs(Math.floor(from[i] / cell) - Math.floor(to[i] / cell)),
          0,
        );
        expect(found.size).toBeLessThanOrEqual(borders + 1);
      }),
    );
  });

  it("a line along a border or of no length lies in a cell too", () => {
    expect(cellsAlong([10, 0, 0], [90, 0, 0], 100)).toEqual([cellOf([50, 0, 0], 100)]);
    expect(cellsAlong([50, 50, 50], [50, 50, 50], 100)).toEqual([cellOf([50, 50, 50], 100)]);
  });

  it("near a place are those of whatever lies within reach, eight at most", () => {
    const reach = fc.double({ min: -NEAR_TWIN_LENGTH_MM, max: NEAR_TWIN_LENGTH_MM, noNaN: true });
    fc.assert(
      fc.property(place, fc.tuple(reach, reach, reach), size, (at, away, cell) => {
        const near = cellsNear(at, cell);
        expect(near).toContain(cellOf([at[0] + away[0], at[1] + away[1], at[2] + away[2]], cell));
        expect(near.length).toBeLessThanOrEqual(8);
      }),
    );
    expect(cellsNear([50, 50, 50], 100)).toEqual([cellOf([50, 50, 50], 100)]);
  });
});
