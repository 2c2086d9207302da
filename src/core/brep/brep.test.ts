import { describe, expect, it } from "vitest";
import { type CopeEnd, endOfTwoPlanes, kindOf } from "../ends";
import type { Vec2 } from "../geometry";
import { seededRandom } from "../kernel";
import { type SectionShape, sectionProperties } from "../stockroom";
import { type Brep, mirroredBrep } from "./brep";
import { faultsOf, volumeOf } from "./check.fixture";
import { copedEnd } from "./coped";
import { drilled } from "./drilled";
import { type BarEnd, type FlatEnd, prismBrep } from "./prism";

const SHAPES: readonly SectionShape[] = [
  { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  { kind: "rectangularTube", size: [80, 40, 4], corners: "hotFinished" },
  { kind: "roundTube", size: [48.3, 3.2] },
  { kind: "roundBar", size: [20] },
  { kind: "equalAngle", size: [50, 50, 5], rootRadius: 7 },
  { kind: "unequalAngle", size: [60, 40, 5], rootRadius: 6 },
  { kind: "channel", size: [100, 50, 6, 8.5] },
  { kind: "tee", size: [50, 50, 6, 6] },
  { kind: "beam", size: [100, 55, 4.1, 5.7] },
  { kind: "channel", size: [100, 50, 6, 8.5], rootRadius: 8.5, taper: { percent: 8, toeRadius: 4.5 } },
  { kind: "beam", size: [100, 50, 4.5, 6.8], rootRadius: 4.5, taper: { percent: 14, toeRadius: 2.7 } },
  { kind: "flat", size: [60, 8] },
  { kind: "squareBar", size: [25, 25] },
  { kind: "timber", size: [95, 45] },
];

/** A bar whose ends can be told. */
function bar(shape: SectionShape, start: BarEnd, end: BarEnd): Brep {
  const brep = prismBrep(sectionProperties(shape).loops, start, end);
  if (!brep) throw new Error("no bar");
  return brep;
}

describe("bars between two planes", () => {
  const random = seededRandom(5);
  for (const shape of SHAPES)
    it(`${shape.kind}: sound, and of the volume that area and length make`, () => {
      for (let i = 0; i < 6; i++) {
        const slope = () => [random.next() * 1.6 - 0.8, random.next() * 1.6 - 0.8] as const;
        const [start, end] = [slope(), slope()];
        const brep = bar(shape, [{ height: 0, slope: start }], [{ height: 500, slope: end }]);
        expect(faultsOf(brep)).toEqual([]);
        // Area × length on the centroids (a truncated prism).
        const volume = sectionProperties(shape).areaMm2 * 500;
        expect(Math.abs(volumeOf(brep) / volume - 1)).toBeLessThan(2e-5);
        const mirror = mirroredBrep(brep);
        expect(faultsOf(mirror)).toEqual([]);
        expect(Math.abs(volumeOf(mirror) / volume - 1)).toBeLessThan(2e-5);
      }
    });
});

describe("bars whose ends are cut in two planes", () => {
  const random = seededRandom(7);
  for (const shape of SHAPES)
    it(`${shape.kind}: sound, and of the volume that the mean height of both ends makes`, () => {
      let inTwo = 0;
      for (let i = 0; i < 12; i++) {
        const slope = (): Vec2 => [random.next() * 1.6 - 0.8, random.next() * 1.6 - 0.8];
        const faces = [
          { slope: slope(), beyond: 0 },
          { slope: slope(), beyond: random.next() * 12 - 6 },
        ] as const;
        const { form } = endOfTwoPlanes(shape, ...faces);
        if (form.kind !== "twoPlanes") continue;
        inTwo++;
        const end = form.faces.map(({ slope: own, beyond }) => ({ height: 500 + beyond, slope: own }));
        const start = form.faces.map(({ slope: [x, y], beyond }) => ({
          height: -beyond,
          slope: [-x, -y] as const,
        }));
        for (const low of [[{ height: 0, slope: [0, 0] }], start] as unknown as FlatEnd[]) {
          const brep = bar(shape, low, end as unknown as BarEnd);
          expect(faultsOf(brep)).toEqual([]);
          const mean = kindOf(form).mean(form, shape);
          const volume = sectionProperties(shape).areaMm2 * (500 + mean * low.length);
          expect(Math.abs(volumeOf(brep) / volume - 1)).toBeLessThan(2e-5);
          const ends = brep.faces.filter(
            ({ surface }) => surface.kind === "plane" && Math.abs(surface.normal[2]) > 1e-6,
          );
          expect(ends.length).toBeGreaterThanOrEqual(1 + 2);
        }
      }
      expect(inTwo).toBeGreaterThan(6);
    });
});

describe("coped bars", () => {
  const random = seededRandom(9);
  const coped = (radius: number, degrees: number, beside: number): CopeEnd => {
    const turn = random.next() * 2 * Math.PI;
    const [u, theta] = [[Math.cos(turn), Math.sin(turn)] as const, (degrees * Math.PI) / 180];
    const offset: Vec2 = [-u[1] * beside, u[0] * beside];
    return { kind: "cope", u, offset, cos: Math.cos(theta), sin: Math.sin(theta), radius, curve: "surface" };
  };
  for (const shape of [
    { kind: "roundTube", size: [48.3, 3.2] },
    { kind: "roundBar", size: [20] },
  ] as const satisfies readonly SectionShape[])
    it(`${shape.kind}: sound, round what is as wide, hardly wider and much wider, at any angle and beside its axis`, () => {
      const own = shape.size[0] / 2;
      for (const [radius, beside] of [
        [own, 0],
        [own * 1.001, 0],
        [own * 1.02, own * 0.01],
        [own * 4, -own * 2],
      ] as const)
        for (const degrees of [90, 40]) {
          const form = coped(radius, degrees, beside);
          const [start, end] = [copedEnd(form, 0, -1, shape), copedEnd(form, 500, 1, shape)];
          if (!start || !end) throw new Error("no cope");
          const mean = kindOf(form).mean(form, shape);
          for (const [low, count] of [
            [[{ height: 0, slope: [0, 0] }], 1],
            [start, 2],
          ] as const) {
            const brep = bar(shape, low as BarEnd, end);
            expect(faultsOf(brep)).toEqual([]);
            const volume = sectionProperties(shape).areaMm2 * (500 + mean * count);
            expect(Math.abs(volumeOf(brep, 80) / volume - 1)).toBeLessThan(1e-4);
          }
          expect(faultsOf(mirroredBrep(bar(shape, start, end)))).toEqual([]);
        }
    });

  it("none that runs past the side of what it meets, or is cut for a blade held square", () => {
    const shape: SectionShape = { kind: "roundTube", size: [48.3, 3.2] };
    expect(copedEnd(coped(30, 90, 10), 0, 1, shape)).toBeNull();
    expect(copedEnd({ ...coped(30, 90, 0), curve: "fit" }, 0, 1, shape)).toBeNull();
  });
});

describe("holes", () => {
  const flat = bar(
    { kind: "flat", size: [60, 8] },
    [{ height: 0, slope: [0, 0] }],
    [{ height: 200, slope: [0, 0] }],
  );
  const area = Math.PI * 25;

  it("through, blind, and more than one", () => {
    const one = drilled(flat, { from: [0, 20, 50], way: [0, -1, 0], radius: 5, slot: null, to: "all" });
    expect(one && faultsOf(one)).toEqual([]);
    expect(one && volumeOf(one)).toBeCloseTo(60 * 8 * 200 - area * 8, 1);
    const blind = one && drilled(one, { from: [10, 20, 120], way: [0, -1, 0], radius: 5, slot: null, to: 3 });
    expect(blind && faultsOf(blind)).toEqual([]);
    expect(blind && volumeOf(blind)).toBeCloseTo(60 * 8 * 200 - area * 8 - area * 3, 1);
  });

  it("through one wall of a tube or through both", () => {
    const tube = bar(
      { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
      [{ height: 0, slope: [0, 0] }],
      [{ height: 200, slope: [0, 0] }],
    );
    const whole = volumeOf(tube);
    for (const [to, walls] of [
      ["first", 1],
      ["all", 2],
    ] as const) {
      const made = drilled(tube, { from: [0, 100, 50], way: [0, -1, 0], radius: 5, slot: null, to });
      expect(made && faultsOf(made)).toEqual([]);
      expect(made && whole - volumeOf(made)).toBeCloseTo(walls * area * 3, 1);
    }
  });

  it("slots along a bar, through one wall and through both, blind ones as well", () => {
    const tube = bar(
      { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
      [{ height: 0, slope: [0, 0] }],
      [{ height: 200, slope: [0.3, 0.2] }],
    );
    const slot = { from: [0, 100, 60], way: [0, -1, 0], radius: 4, slot: [0, 0, 10] } as const;
    const taken = Math.PI * 16 + 20 * 8;
    for (const [body, to, depth] of [
      [tube, "first", 3],
      [tube, "all", 6],
      [flat, 5, 5],
    ] as const) {
      const made = drilled(body, { ...slot, to });
      expect(made && faultsOf(made)).toEqual([]);
      expect(made && volumeOf(body) - volumeOf(made)).toBeCloseTo(taken * depth, 1);
      // Its round end would leave the bar.
      expect(drilled(body, { ...slot, slot: [0, 0, 57], to })).toBeNull();
    }
    const one = drilled(flat, { ...slot, to: "all" });
    const middle = { ...slot, slot: null, from: [0, 100, 60] as const };
    expect(one && drilled(one, { ...middle, to: "all" })).toBeNull();
    expect(one && drilled(one, { ...middle, from: [0, 100, 80], to: "all" })).not.toBeNull();
  });

  it("none that would cut the border of a face, or another hole", () => {
    expect(
      drilled(flat, { from: [27, 20, 50], way: [0, -1, 0], radius: 5, slot: null, to: "all" }),
    ).toBeNull();
    const one = drilled(flat, { from: [0, 20, 50], way: [0, -1, 0], radius: 5, slot: null, to: "all" });
    expect(
      one && drilled(one, { from: [0, 20, 58], way: [0, -1, 0], radius: 5, slot: null, to: "all" }),
    ).toBeNull();
  });
});
