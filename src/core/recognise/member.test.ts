/** Ridges and slots, read from the solids that the product draws, stood anywhere. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  boxLoop,
  circle,
  type Fineness,
  type Frame,
  frameAlong,
  type Loop,
  levelEnd,
  moveLoop,
  prismSolid,
  ringOf,
  type Solid,
  toWorld,
  type Vec3,
} from "../geometry";
import { newJob, resolveSizes } from "../job";
import { at, grouped } from "../kernel";
import { memberSolid, shapeJob, solidOfMember } from "../shape";
import { type SectionShape, stockroomOf } from "../stockroom";
import type { SolidMesh } from "./body";
import { reading } from "./reading";

const FINE: Fineness = { step: Math.PI / 16 };

/** A solid as a reader of files gives it: a face for each of its names; of several holes each has its own. */
function meshOf(
  { points, faces }: Solid,
  frame: Frame,
  partOf: (point: Vec3) => string = () => "",
): SolidMesh {
  const corners: number[] = [];
  const ranges = [
    ...grouped(faces, ({ name, corners: [first = 0] }) => name + partOf(at(points, first))).values(),
  ].map((own) => {
    const from = corners.length / 3;
    for (const { corners: ring } of own)
      for (let i = 1; i + 1 < ring.length; i++) corners.push(at(ring, 0), at(ring, i), at(ring, i + 1));
    return [from, corners.length / 3] as const;
  });
  return { positions: points.flatMap((point) => [...toWorld(frame, point)]), corners, faces: ranges };
}

const ANYWHERE = frameAlong([120, -40, 900], [300, 700, 250], 33) as Frame;

describe("an end with a ridge", () => {
  const shapes: readonly SectionShape[] = [
    { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
    { kind: "timber", size: [95, 45] },
    { kind: "flat", size: [60, 8] },
  ] as readonly SectionShape[];

  it("is read with both its angles, of tubes and bars", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...shapes),
        fc.constantFrom("width" as const, "height" as const),
        fc.integer({ min: 10, max: 60 }),
        fc.integer({ min: 10, max: 60 }),
        (shape, across, first, second) => {
          const job = newJob({
            info: { code: "a", title: "a" },
            points: { P: ["0", "0", "0"], Q: ["900", "0", "0"] },
            members: {
              m: {
                name: "Piece",
                from: "P",
                to: "Q",
                section: "s",
                end: { kind: "pointed", across, first: String(first), second: String(second), offset: "0" },
              },
            },
          });
          const entry = {
            id: "s",
            name: "s",
            shape,
            material: null,
            densityKgM3: null,
            massKgPerM: null,
            source: "",
            stock: [],
            kerf: 0,
            trimStart: 0,
            trimEnd: 0,
          };
          const stock = stockroomOf({
            currency: "EUR",
            sections: [entry],
            boards: [],
            edging: [],
            bought: [],
          });
          const solid = memberSolid(shapeJob(job, resolveSizes(job, null), stock), "m" as never);
          if (!solid) throw new Error("no solid");
          const { taken, otherwise } = reading(meshOf(solidOfMember(solid, FINE), ANYWHERE));
          const member = [taken, ...otherwise].find((one) => one.kind === "member");
          if (member?.kind !== "member") throw new Error(`read as a ${taken.kind}`);
          const ends = [member.start, member.end];
          const ridge = ends.find(({ kind }) => kind === "pointed");
          if (ridge?.kind !== "pointed") throw new Error("no ridge");
          const angles = ridge.slopes
            .map((slope) => Math.round((Math.atan(Math.hypot(...slope)) * 1.8e8) / Math.PI) / 1e6)
            .toSorted((a, b) => a - b);
          expect(angles).toEqual([first, second].toSorted((a, b) => a - b));
          expect(Math.abs(member.end.z - member.start.z)).toBeCloseTo(900, 3);
          expect(member.leftOver).toBe(0);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe("a slot", () => {
  /** A flat bar that stands on its side, with a slot through it: the outline of its broad face, drawn up by its thickness. */
  const slotted = (length: number, diameter: number, apart: number): Solid => {
    const [r, x0, x1, y] = [diameter / 2, 150, 150 + apart, 30];
    const slot: Loop = [
      { kind: "line", from: [x0, y + r], to: [x1, y + r] },
      { kind: "arc", centre: [x1, y], radius: r, start: Math.PI / 2, sweep: -Math.PI },
      { kind: "line", from: [x1, y - r], to: [x0, y - r] },
      { kind: "arc", centre: [x0, y], radius: r, start: -Math.PI / 2, sweep: -Math.PI },
    ];
    return prismSolid(
      [ringOf(boxLoop([0, 0], [length, 60]), FINE), ringOf(slot, FINE)],
      levelEnd(0),
      levelEnd(8),
    );
  };

  it("along a bar is one hole, with its width and its length over all", () => {
    const { taken, otherwise } = reading(meshOf(slotted(500, 9, 31), ANYWHERE));
    const member = [taken, ...otherwise].find((one) => one.kind === "member");
    if (member?.kind !== "member") throw new Error(`read as a ${taken.kind}`);
    expect(member.shape).toEqual({ kind: "flat", size: [60, 8] });
    expect(member.leftOver).toBe(0);
    expect(member.holes.map(({ diameter, slot }) => [diameter, slot])).toEqual([[9, 40]]);
    const z = member.holes[0]?.along ?? 0;
    const fromEnd = Math.min(z - member.start.z, member.end.z - z);
    expect(fromEnd).toBeCloseTo(150 + 31 / 2, 3);
  });

  it("two round holes of one size are two", () => {
    // Clockwise, as holes are.
    const holes = [100, 300].map((x) =>
      moveLoop(
        circle(5).map((one) => (one.kind === "arc" ? { ...one, sweep: -one.sweep } : one)),
        [x, 30],
      ),
    );
    const solid = prismSolid(
      [boxLoop([0, 0], [500, 60]), ...holes].map((loop) => ringOf(loop, FINE)),
      levelEnd(0),
      levelEnd(8),
    );
    // Holes are numbered by their walls alone.
    const { taken, otherwise } = reading(meshOf(solid, ANYWHERE, ([x]) => (x > 200 ? " right" : " left")));
    const member = [taken, ...otherwise].find((one) => one.kind === "member");
    if (member?.kind !== "member") throw new Error(`read as a ${taken.kind}`);
    expect(member.holes.map(({ diameter, slot }) => [diameter, slot])).toEqual([
      [10, 10],
      [10, 10],
    ]);
  });
});
