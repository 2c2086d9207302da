import { describe, expect, it } from "vitest";
import { reach } from "../geometry";
import { polygonOf } from "../geometry/mesh.fixture";
import { roundTo } from "../measure";
import { parseSectionName, sectionText } from "./section-name";
import { type SectionShape, sectionProperties, shapeFault } from "./section-shape";
import { steelMassPerMetre } from "./stockroom";

const cold = (width: number, height: number, wall: number): SectionShape => ({
  kind: width === height ? "squareTube" : "rectangularTube",
  size: [width, height, wall],
  corners: "coldFormed",
});
const hot = (side: number, wall: number): SectionShape => ({
  kind: "squareTube",
  size: [side, side, wall],
  corners: "hotFinished",
});
const angle = (leg: number, t: number, rootRadius: number): SectionShape => ({
  kind: "equalAngle",
  size: [leg, leg, t],
  rootRadius,
});
const area = (shape: SectionShape) => sectionProperties(shape).areaMm2;
const mass = (shape: SectionShape) => steelMassPerMetre(area(shape));

describe("areas and masses against the published tables", () => {
  it("cold-formed square and rectangular hollow sections: EN 10219-2, tables of dimensions and masses", () => {
    expect(roundTo(area(cold(40, 40, 3)), 0)).toBe(421);
    expect(roundTo(mass(cold(40, 40, 3)), 2)).toBe(3.3);
    expect(roundTo(area(cold(50, 50, 3)), 0)).toBe(541);
    expect(roundTo(mass(cold(50, 50, 3)), 2)).toBe(4.25);
    expect(roundTo(mass(cold(60, 40, 3)), 2)).toBe(4.25);
    expect(roundTo(mass(cold(100, 100, 5)), 1)).toBe(14.4);
  });

  it("the closed formula of EN 10219-2 gives the same area as the outline", () => {
    for (const [b, h, t] of [
      [40, 40, 3],
      [60, 40, 4],
      [150, 100, 8],
      [200, 200, 12],
    ] as const) {
      const ro = (t <= 6 ? 2 : t <= 10 ? 2.5 : 3) * t;
      const ri = ro - t;
      const formula = 2 * t * (b + h - 2 * t) - (4 - Math.PI) * (ro ** 2 - ri ** 2);
      expect(area(cold(b, h, t))).toBeWithinMm(formula, 1e-9);
    }
  });

  it("hot-finished square hollow sections: EN 10210-2", () => {
    expect(roundTo(mass(hot(100, 5)), 1)).toBe(14.7);
  });

  it("circular hollow sections: EN 10219-2", () => {
    expect(roundTo(mass({ kind: "roundTube", size: [33.7, 3.2] }), 2)).toBe(2.41);
    expect(roundTo(mass({ kind: "roundTube", size: [48.3, 3.2] }), 2)).toBe(3.56);
  });

  it("equal angles: EN 10056-1", () => {
    expect(roundTo(area(angle(30, 3, 5)) / 100, 2)).toBe(1.74);
    expect(roundTo(mass(angle(30, 3, 5)), 2)).toBe(1.36);
    expect(roundTo(mass(angle(40, 4, 6)), 2)).toBe(2.42);
    expect(roundTo(mass(angle(50, 5, 7)), 2)).toBe(3.77);
    const [h, t, r1] = [60, 6, 8];
    const formula = t * (2 * h - t) + (1 - Math.PI / 4) * (r1 ** 2 - 2 * (r1 / 2) ** 2);
    expect(area(angle(h, t, r1))).toBeWithinMm(formula, 1e-9);
  });

  it("beams and channels with their root radii: EN 10365 (IPE 100, HE 100 A, UPE 100; tables of dimensions and masses, from memory)", () => {
    const ipe: SectionShape = { kind: "beam", size: [100, 55, 4.1, 5.7], rootRadius: 7 };
    expect(roundTo(area(ipe) / 100, 1)).toBe(10.3);
    expect(roundTo(mass(ipe), 1)).toBe(8.1);
    const wide: SectionShape = { kind: "beam", size: [96, 100, 5, 8], rootRadius: 12 };
    expect(roundTo(area(wide) / 100, 1)).toBe(21.2);
    expect(roundTo(mass(wide), 1)).toBe(16.7);
    const channel: SectionShape = { kind: "channel", size: [100, 55, 4.5, 7.5], rootRadius: 10 };
    expect(roundTo(area(channel) / 100, 1)).toBe(12.5);
    expect(roundTo(mass(channel), 2)).toBe(9.82);
    expect(shapeFault({ ...channel, rootRadius: 43 })).toBe("rootTooLarge");
  });

  it("flanges that taper: EN 10365 (UPN 100 and 200 at 8 %, IPN 100 and 200 at 14 %; tables of dimensions and masses, from memory)", () => {
    const upn = (h: number, b: number, web: number, flange: number, toeRadius: number): SectionShape => ({
      kind: "channel",
      size: [h, b, web, flange],
      rootRadius: flange,
      taper: { percent: 8, toeRadius },
    });
    const ipn = (h: number, b: number, web: number, flange: number, toeRadius: number): SectionShape => ({
      kind: "beam",
      size: [h, b, web, flange],
      rootRadius: web,
      taper: { percent: 14, toeRadius },
    });
    expect(roundTo(area(upn(100, 50, 6, 8.5, 4.5)) / 100, 1)).toBe(13.5);
    expect(roundTo(mass(upn(100, 50, 6, 8.5, 4.5)), 1)).toBe(10.6);
    expect(roundTo(area(upn(200, 75, 8.5, 11.5, 6)) / 100, 1)).toBe(32.2);
    expect(roundTo(area(ipn(100, 50, 4.5, 6.8, 2.7)) / 100, 1)).toBe(10.6);
    expect(roundTo(mass(ipn(100, 50, 4.5, 6.8, 2.7)), 2)).toBe(8.34);
    expect(roundTo(mass(ipn(200, 90, 7.5, 11.3, 4.5)), 1)).toBe(26.2);
    // The centroid of UPN 100 lies 1.55 cm, that of UPN 200 2.01 cm from the back.
    const fromBack = (shape: SectionShape) => {
      const { boxCentre, extent } = sectionProperties(shape);
      return extent[0] / 2 - boxCentre[0];
    };
    expect(roundTo(fromBack(upn(100, 50, 6, 8.5, 4.5)) / 10, 2)).toBe(1.55);
    expect(roundTo(fromBack(upn(200, 75, 8.5, 11.5, 6)) / 10, 2)).toBe(2.01);
  });

  it("flat 40 x 5: area times density", () => {
    expect(roundTo(mass({ kind: "flat", size: [40, 5] }), 2)).toBe(1.57);
  });

  it("the centroid of a 50 x 50 x 5 angle lies 1.40 cm from its back: EN 10056-1", () => {
    const { boxCentre } = sectionProperties(angle(50, 5, 7));
    expect(roundTo((25 - boxCentre[0]) / 10, 2)).toBe(1.4);
    expect(boxCentre[0]).toBeWithinMm(boxCentre[1], 1e-9);
  });
});

describe("outlines", () => {
  it("corner radii count in the reach: a 40 tube with 6 mm corners reaches 36.485 across its corner", () => {
    const outer = sectionProperties(cold(40, 40, 3)).loops[0];
    // s = (1, 1) is a compound 45/45 end; a sharp corner would give 40.
    expect(outer && reach(outer, [1, 1])).toBeWithinMm(36.4853, 1e-4);
  });

  const shapes: readonly SectionShape[] = [
    cold(40, 40, 3),
    cold(60, 40, 3),
    angle(30, 3, 5),
    { kind: "unequalAngle", size: [40, 20, 4], rootRadius: 4 },
    { kind: "channel", size: [80, 45, 6, 8] },
    { kind: "tee", size: [50, 50, 6, 6] },
    { kind: "beam", size: [100, 55, 4.1, 5.7] },
    { kind: "flat", size: [40, 5] },
    { kind: "squareBar", size: [20, 20] },
    { kind: "timber", size: [88, 18] },
  ];

  it.each(shapes)("the stated symmetry of $kind $size is the outline's, no more and no less", (shape) => {
    const { loops, symmetry } = sectionProperties(shape);
    if (symmetry.kind !== "finite") throw new Error("finite symmetry expected");
    const points = loops.flatMap((loop) => polygonOf(loop, 4));
    const keeps = (a: number, b: number, c: number, d: number) =>
      points.every(([x, y]) =>
        points.some((q) => Math.hypot(a * x + b * y - q[0], c * x + d * y - q[1]) < 1e-6),
      );
    const signs = [1, -1];
    const candidates = signs.flatMap((p) =>
      signs.flatMap(
        (q) =>
          [
            [p, 0, 0, q],
            [0, p, q, 0],
          ] as const,
      ),
    );
    const found = candidates
      .filter((m) => keeps(m[0], m[1], m[2], m[3]))
      .map(String)
      .sort();
    const stated = symmetry.turns.map(({ rows }) => String([...rows[0], ...rows[1]])).sort();
    expect(stated).toEqual(found);
  });

  it("names what cannot exist", () => {
    expect(shapeFault(cold(40, 40, 20))).toBe("wallFillsTube");
    expect(shapeFault(cold(40, 40, 3))).toBeNull();
  });
});

describe("section names in cutting lists", () => {
  it.each([
    ["SHS 40 x 40 x 3", "squareTube", [40, 40, 3]],
    ["square tube 40x40x3", "squareTube", [40, 40, 3]],
    ["RHS 60×40×3", "rectangularTube", [60, 40, 3]],
    ["tube 60 x 40 x 3", "rectangularTube", [60, 40, 3]],
    ["CHS 33.7 x 3.2", "roundTube", [33.7, 3.2]],
    ["L30x30x3", "equalAngle", [30, 30, 3]],
    ["angle 40 x 4", "equalAngle", [40, 40, 4]],
    ["angle 60 x 30 x 5", "unequalAngle", [60, 30, 5]],
    ["flat 40 x 5", "flat", [40, 5]],
    ["larch 88 x 18", "timber", [88, 18]],
    ["round bar 12", "roundBar", [12]],
  ])("reads %s", (text, kind, size) => {
    expect(parseSectionName(text, "mm")).toMatchObject({ kind, size });
  });

  it("reads inch sizes with fractions", () => {
    const shape = parseSectionName("square tube 2 1/2 x 2 1/2 x 3/16", "in");
    expect(shape).toMatchObject({ size: [63.5, 63.5, 4.7625] });
  });

  it("reads and writes root radii and flanges that taper", () => {
    const shape: SectionShape = {
      kind: "channel",
      size: [100, 50, 6, 8.5],
      rootRadius: 8.5,
      taper: { percent: 8, toeRadius: 4.5 },
    };
    const text = sectionText(shape, String, " x ");
    expect(text).toBe("channel 100 x 50 x 6 x 8.5 r 8.5 taper 8 % toe 4.5");
    expect(parseSectionName(text, "mm")).toEqual(shape);
    expect(parseSectionName("Beam 100 x 50 x 4.5 x 6.8 taper 14% r 4.5", "mm")).toEqual({
      kind: "beam",
      size: [100, 50, 4.5, 6.8],
      rootRadius: 4.5,
      taper: { percent: 14, toeRadius: 0 },
    });
    expect(parseSectionName("channel 100 x 50 x 6 x 8.5 toe 4.5", "mm")).toBeNull();
    expect(parseSectionName("channel 100 x 50 x 6 x 8.5 taper 90", "mm")).toBeNull();
    expect(parseSectionName("tee 50 x 50 x 6 x 6 taper 2", "mm")).toBeNull();
    expect(shapeFault({ ...shape, taper: { percent: 40, toeRadius: 0 } })).toBe("taperToNothing");
  });

  it("does not guess", () => {
    expect(parseSectionName("40 x 40 x 3", "mm")).toBeNull();
    expect(parseSectionName("birch ply", "mm")).toBeNull();
    expect(parseSectionName("tube", "mm")).toBeNull();
  });
});
