/** Laws of the tally: saw settings against the trade's table, guides beside the balance, causes by their points. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { anglesOf, sawSettings } from "../ends";
import { newJob } from "../job";
import { resultsOf } from "../pipeline.fixture";

describe("a compound cut on a saw's table", () => {
  it("crown at 38° and 45° for a square corner: 31.62 / 33.86 and 35.26 / 30.00 (common table of saw manuals)", () => {
    const spring = (degrees: number) => {
      const angle = (degrees * Math.PI) / 180;
      return sawSettings([Math.sin(angle), Math.cos(angle)]);
    };
    expect(spring(38)).toEqual({ mitre: expect.closeTo(31.62, 2), bevel: expect.closeTo(33.86, 2) });
    expect(spring(45)).toEqual({ mitre: expect.closeTo(35.26, 2), bevel: expect.closeTo(30, 2) });
  });

  it("the blade stands in the plane of the cut: its bevel is the plane's lean over the table", () => {
    const slope = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(slope, slope, (x, y) => {
        const { mitre, bevel } = sawSettings([x, y]);
        const radians = (degrees: number) => (degrees * Math.PI) / 180;
        expect(Math.tan(radians(mitre))).toBeCloseTo(x, 3);
        expect(Math.sin(radians(bevel))).toBeCloseTo(y / Math.hypot(1, x, y), 4);
        const { angle, compound } = anglesOf([x, y]);
        // The whole lean from square is that of the plane's normal.
        expect(Math.cos(radians(angle))).toBeCloseTo(1 / Math.hypot(1, x, y), 5);
        expect(compound.map((degrees) => Math.tan(radians(degrees)))).toEqual([
          expect.closeTo(x, 3),
          expect.closeTo(y, 3),
        ]);
      }),
    );
  });
});

describe("what stands there to look at only", () => {
  const tube = { section: "tube", from: "P", to: "Q" } as const;
  const job = (parts: object) =>
    newJob({
      info: { code: "T", title: "T" },
      assemblies: {
        box: {
          name: "Box",
          points: { P: ["0", "0", "0"], Q: ["300", "0", "0"] },
          members: { bar: { name: "Bar", ...tube }, aid: { name: "Aid", ...tube, role: "guide" } },
          boughtParts: { feet: { name: "Feet", entry: "foot", count: "4" } },
        },
      },
      ...parts,
    } as never);
  const balance = (parts: object) => resultsOf(job(parts)).tally.balance;

  it("is counted beside the balance, as often as it stands there: pieces that are guides, and all of a guide's", () => {
    // Two boxes: a bar and four feet of each are listed, its aid is a guide twice.
    expect(
      balance({ placements: { two: { assembly: "box", count: "2", step: ["0", "0", "500"] } } }),
    ).toMatchObject({
      inRows: 2,
      bought: 8,
      guides: 2,
    });
    // Left out, the aid is still there to look at; the rest is left out.
    expect(
      balance({
        placements: { out: { assembly: "box", count: "3", step: ["0", "0", "500"], leftOut: true } },
      }),
    ).toMatchObject({
      inRows: 0,
      guides: 3,
    });
    const guide = job({ placements: { one: { assembly: "box", count: "2", step: ["0", "0", "500"] } } });
    const asGuide = { ...guide, assemblies: { box: { ...guide.assemblies["box"], role: "guide" } } };
    // Twice a bar, an aid and four feet.
    expect(resultsOf(asGuide as typeof guide).tally.balance).toMatchObject({
      inRows: 0,
      bought: 0,
      guides: 12,
    });
    // The same of every piece that is made twice.
    const twice = { ...asGuide, info: { job: { ...guide.info.job, batch: 3 } } };
    expect(resultsOf(twice as typeof guide).tally.balance.guides).toBe(36);
  });
});
