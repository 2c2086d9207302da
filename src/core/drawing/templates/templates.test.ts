/**
 * Ends laid flat, against values worked out elsewhere: the saddle of two cylinders (check values computed with a plane of
 * symmetry and by an exact solid kernel), the cosine of an ellipse, and manifold-3d with fine facets.
 */
import Module from "manifold-3d";
import { describe, expect, it } from "vitest";
import type { CopeEnd, End, PlaneEnd, TwoPlaneEnd } from "../../ends";
import { kindOf, tipOf } from "../../ends";
import type { Vec2 } from "../../geometry";
import { at, seededRandom } from "../../kernel";
import type { SectionShape } from "../../stockroom";
import { endLines } from "./end-lines";
import { type Surface, surfaceOf } from "./surface";

const ROUND: SectionShape = { kind: "roundTube", size: [33.7, 3.2] };
const RADIUS = 24.15;
const degrees = (angle: number) => (angle * Math.PI) / 180;

function saddle(angle: number, offset = 0, curve: CopeEnd["curve"] = "surface"): CopeEnd {
  const [cos, sin] = [Math.cos(degrees(angle)), Math.sin(degrees(angle))];
  return { kind: "cope", u: [1, 0], offset: [0, offset], cos, sin, radius: RADIUS, curve };
}

const laid = (
  shape: SectionShape,
  middle: Vec2,
  side: "outside" | "inside" = "outside",
  paper = 0,
): Surface => {
  const made = surfaceOf(shape, { side, paper, middle });
  if (!made.ok) throw new Error(made.problem);
  return made.value;
};

/** The height of a line at a place, straight between its points. */
function heightAt(line: readonly Vec2[], along: number): number {
  const i = line.findIndex(([x]) => x >= along - 1e-9);
  const [b, a] = [at(line, i), at(line, Math.max(0, i - 1))];
  return b[0] - a[0] < 1e-12 ? b[1] : a[1] + ((b[1] - a[1]) * (along - a[0])) / (b[0] - a[0]);
}

/** How far along the branch a saddle stands at an angle from the side on which the axes enclose theirs. */
function along(end: CopeEnd, angle: number, side: "outside" | "inside", line: "surface" | "fit" = "surface") {
  const surface = laid(ROUND, end.u, side);
  const { chosen } = endLines(ROUND, end, surface, line);
  const turned = side === "outside" ? angle : -angle;
  const place = ((((turned + 180) % 360) + 360) % 360) / 360;
  return -heightAt(chosen, place * surface.width) - tipOf(ROUND, end);
}

describe("saddles laid flat", () => {
  it.each([
    [90, "outside", [24.15, 21.0062, 17.3003, 21.0062, 24.15]],
    [90, "inside", [24.15, 22.1373, 19.9223, 22.1373, 24.15]],
    [60, "outside", [37.6144, 31.1349, 19.9767, 17.3769, 18.1577]],
    [60, "inside", [35.7668, 31.1346, 23.0043, 19.9894, 20.0052]],
  ] as const)("at %i°, on the %s wall line, stand where the formula says", (angle, side, values) => {
    values.forEach((value, i) => {
      expect(along(saddle(angle), 45 * i, side)).toBeCloseTo(value, 4);
    });
  });

  it("beside the axis lean to the right side", () => {
    const values = [37.0102, 11.8771, 17.5534, 24.2981];
    values.forEach((value, i) => {
      expect(along(saddle(60, 5), 90 * i, "outside")).toBeCloseTo(value, 4);
    });
  });

  it("for a blade held square take the deeper wall all round", () => {
    expect(along(saddle(60, 0, "fit"), 0, "outside", "fit")).toBeCloseTo(37.6144, 4);
    for (let angle = 0; angle < 360; angle += 7) {
      const fit = along(saddle(60, 3, "fit"), angle, "outside", "fit");
      for (const side of ["outside", "inside"] as const)
        expect(fit).toBeGreaterThan(along(saddle(60, 3), angle, side) - 1e-9);
    }
  });

  it("rolled up again lie on the solid that another kernel cuts", async () => {
    const kernel = await Module();
    kernel.setup();
    for (const [angle, offset] of [
      [90, 0],
      [60, 0],
      [45, 4],
      [70, -6],
    ] as const) {
      const end = saddle(angle, offset);
      const surface = laid(ROUND, end.u);
      const { chosen } = endLines(ROUND, end, surface, "surface");
      const tip = tipOf(ROUND, end);
      // The branch runs along z and ends at the common perpendicular; the other runs through it, `offset` along y.
      const branch = kernel.Manifold.cylinder(200, 16.85, 16.85, 512).translate([0, 0, -100]);
      const tilted = kernel.Manifold.cylinder(400, RADIUS, RADIUS, 4096, true)
        .rotate([0, 180 - angle, 0])
        .translate([0, -offset, 0]);
      const cut = branch.subtract(tilted);
      const { vertProperties, numProp } = cut.getMesh();
      let worst = 0;
      let count = 0;
      for (let i = 0; i < vertProperties.length; i += numProp) {
        const [x, y, z] = [0, 1, 2].map((k) => at(vertProperties, i + k)) as [number, number, number];
        // On the end that is left below, and on the outside.
        if (z > 0 || z < -99 || Math.abs(Math.hypot(x, y) - 16.85) > 1e-4) continue;
        count++;
        const share = (Math.atan2(y, x) / (2 * Math.PI) + 1.5) % 1;
        worst = Math.max(worst, Math.abs(heightAt(chosen, share * surface.width) + tip - z));
      }
      expect(count).toBeGreaterThan(400);
      expect(worst).toBeLessThan(0.01);
    }
  });
});

describe("planes laid flat", () => {
  const slope: Vec2 = [Math.tan(degrees(22.5)), Math.tan(degrees(10))];
  const end: PlaneEnd = { kind: "plane", slope };

  it("are a cosine on a round tube, its amplitude and its phase known", () => {
    const surface = laid(ROUND, [1, 0]);
    const { chosen, depth } = endLines(ROUND, end, surface, "surface");
    expect(depth / 2).toBeCloseTo(7.5856, 4);
    const [top] = [...chosen].sort((a, b) => b[1] - a[1]);
    expect((at(top ?? [], 0) / surface.width) * 360 - 180).toBeCloseTo(23.059, 0);
    for (const [x, y] of chosen) {
      const phi = (x / surface.width) * 2 * Math.PI - Math.PI;
      expect(y + 7.5856).toBeCloseTo(7.5856 * Math.cos(phi - degrees(23.059)), 3);
    }
  });

  it("are straight over the flats of a tube, which is as long round as its section says", () => {
    const tube: SectionShape = { kind: "rectangularTube", size: [50, 40, 3], corners: "coldFormed" };
    const surface = laid(tube, [1, 0]);
    expect(surface.width).toBeCloseTo(169.6991, 4);
    expect(laid(tube, [1, 0], "outside", 0.2).width).toBeCloseTo(169.6991 + 0.2 * Math.PI, 4);
    const { chosen } = endLines(tube, end, surface, "surface");
    // Flats of 38 and 28, bends of a quarter of 12 pi.
    const bend = 3 * Math.PI;
    expect(surface.folds.map((fold) => Math.round(fold * 1e4) / 1e4)).toEqual(
      [
        14,
        14 + bend,
        52 + bend,
        52 + 2 * bend,
        80 + 2 * bend,
        80 + 3 * bend,
        118 + 3 * bend,
        118 + 4 * bend,
      ].map((fold) => Math.round(fold * 1e4) / 1e4),
    );
    const flat = chosen.filter(([x]) => x > 14 + bend && x < 52 + bend);
    const [a, b] = [at(flat, 0), at(flat, flat.length - 1)];
    for (const [x, y] of flat) expect(y).toBeCloseTo(a[1] + ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0]), 9);
  });

  it("with two planes have the ridge as a point of their line", () => {
    const two: TwoPlaneEnd = {
      kind: "twoPlanes",
      faces: [
        { slope: [1, 0.3], beyond: 0 },
        { slope: [-1, 0.1], beyond: 2 },
      ],
    };
    const tube: SectionShape = { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" };
    const surface = laid(tube, [0, 1]);
    const { chosen } = endLines(tube, two, surface, "surface");
    const tip = tipOf(tube, two);
    // On the upper face (y = 20), 1.3 x + ... : both planes give the same where 2 x + 0.2 y = 2.
    const x = (2 - 0.2 * 20) / 2;
    const height = x + 0.3 * 20 - tip;
    expect(Math.min(...chosen.map(([, y]) => Math.abs(y - height)))).toBeLessThan(1e-9);
  });

  it("lie, on paper inside, as they are seen from there", () => {
    const [outside, inside] = [laid(ROUND, slope), laid(ROUND, slope, "inside", 0.1)];
    expect(inside.width).toBeCloseTo(Math.PI * (27.3 - 0.1), 9);
    const over = endLines(ROUND, end, outside, "surface");
    const under = endLines(ROUND, end, inside, "surface");
    const mean = (line: readonly Vec2[], from: number, to: number) =>
      line.filter(([x]) => x > from && x < to).reduce((sum, [, y]) => sum + y, 0);
    // Leaning to the seam's opposite it is the same both ways; a second end tells the hands apart.
    const aside: End = { kind: "plane", slope: [-slope[1], slope[0]] };
    const [a, b] = [
      endLines(ROUND, aside, outside, "surface").chosen,
      endLines(ROUND, aside, inside, "surface").chosen,
    ];
    const right = (line: readonly Vec2[], { width }: Surface) =>
      mean(line, width / 2, width) > mean(line, 0, width / 2);
    expect(right(a, outside)).toBe(true);
    expect(right(b, inside)).toBe(false);
    expect(under.depth).toBeLessThanOrEqual(over.depth + 1e-9);
  });
});

describe("all ends over all sections", () => {
  it("never stand above the tip, and reach it where the paper lies outside", () => {
    const random = seededRandom(5);
    const number = (most: number) => (2 * random.next() - 1) * most;
    const shapes: readonly SectionShape[] = [
      ROUND,
      { kind: "squareTube", size: [40, 40, 3], corners: "hotFinished" },
      { kind: "rectangularTube", size: [60, 30, 2], corners: "coldFormed" },
      { kind: "flat", size: [40, 5] },
      { kind: "roundBar", size: [20] },
      { kind: "timber", size: [88, 18] },
    ];
    for (let i = 0; i < 120; i++) {
      const shape = at(shapes, i % shapes.length);
      const end: End =
        i % 3 === 0
          ? { kind: "plane", slope: [number(1.5), number(1.5)] }
          : {
              kind: "twoPlanes",
              faces: [
                { slope: [number(1), number(1)], beyond: 0 },
                { slope: [number(1), number(1)], beyond: Math.abs(number(4)) },
              ],
            };
      const surface = laid(shape, kindOf(end).lean(end).towards);
      const { chosen } = endLines(shape, end, surface, "surface");
      const most = Math.max(...chosen.map(([, y]) => y));
      expect(most).toBeLessThan(1e-6);
      expect(most).toBeGreaterThan(-0.01);
      // Closed: both edges of the paper stand at one height.
      expect(at(chosen, 0)[1]).toBeCloseTo(at(chosen, chosen.length - 1)[1], 9);
    }
  });

  it("are refused where paper cannot be wrapped round, or there is no inside", () => {
    const asked = { side: "outside", paper: 0.1, middle: [1, 0] } as const;
    expect(surfaceOf({ kind: "channel", size: [80, 45, 6, 8] }, asked)).toEqual({
      ok: false,
      problem: "open",
    });
    expect(surfaceOf({ kind: "roundBar", size: [20] }, { ...asked, side: "inside" })).toEqual({
      ok: false,
      problem: "solid",
    });
  });

  it("of angles are two faces side by side, each as wide as its leg", () => {
    const surface = laid({ kind: "unequalAngle", size: [50, 30, 4], rootRadius: 4 }, [1, 0]);
    expect(surface.width).toBeCloseTo(80, 9);
    expect([30, 50]).toContain(Math.round(at(surface.folds, 0)));
    expect(surface.closed).toBe(false);
  });
});
