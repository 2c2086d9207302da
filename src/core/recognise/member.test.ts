/** Ends in two planes, and slots, read from the solids that the product draws, stood anywhere. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { EndFace } from "../ends";
import {
  boxLoop,
  circle,
  dot2,
  type Fineness,
  type Frame,
  frameAlong,
  type Loop,
  levelEnd,
  moveLoop,
  norm2,
  prismSolid,
  ringOf,
  type Solid,
  toWorld,
  type Vec3,
} from "../geometry";
import { type EndCut, newJob, resolveSizes } from "../job";
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

describe("an end in two planes", () => {
  const shapes: readonly SectionShape[] = [
    { kind: "squareBar", size: [40, 40] },
    { kind: "timber", size: [95, 45] },
    { kind: "flat", size: [60, 8] },
  ] as readonly SectionShape[];

  const drawn = (shape: SectionShape, end: EndCut) => {
    const job = newJob({
      info: { code: "a", title: "a" },
      points: { P: ["0", "0", "0"], Q: ["900", "0", "0"] },
      members: { m: { name: "Piece", from: "P", to: "Q", section: "s", end } },
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
    const stock = stockroomOf({ currency: "EUR", sections: [entry], boards: [], edging: [], bought: [] });
    const solid = memberSolid(shapeJob(job, resolveSizes(job, null), stock), "m" as never);
    if (!solid) throw new Error("no solid");
    return solid;
  };

  /** What no turn of the section changes: how steep both planes are, how far from one another they lean and stand. */
  const sayings = ([a, b]: readonly [EndFace, EndFace]) => {
    const [first, second] = [a, b].toSorted((p, q) => norm2(p.slope) - norm2(q.slope)) as [EndFace, EndFace];
    return [first, second]
      .flatMap(({ slope, beyond }) => [norm2(slope), beyond])
      .concat(dot2(a.slope, b.slope));
  };
  const angle = fc.integer({ min: -55, max: 55 }).map(String);
  const anyTwo = fc.record({
    kind: fc.constant("twoAngles" as const),
    acrossWidth: angle,
    acrossHeight: angle,
    offset: fc.constant("0"),
    secondAcrossWidth: angle,
    secondAcrossHeight: angle,
    secondOffset: fc.integer({ min: -10, max: 10 }).map(String),
  });
  const steep = fc.integer({ min: 10, max: 60 }).map(String);
  const ridged = fc.record({
    kind: fc.constant("pointed" as const),
    across: fc.constantFrom("width" as const, "height" as const),
    first: steep,
    second: steep,
    offset: fc.constant("0"),
  });

  // Of sections with roundings the way out as STEP and back says the same.
  it("is read with all its angles", () => {
    let [read, all] = [0, 0];
    fc.assert(
      fc.property(fc.constantFrom(...shapes), fc.oneof(anyTwo, ridged), (shape, cut) => {
        const solid = drawn(shape, cut);
        const { form } = solid.end;
        if (form.kind !== "twoPlanes") return;
        all++;
        const { taken, otherwise } = reading(meshOf(solidOfMember(solid, FINE), ANYWHERE));
        const member = [taken, ...otherwise].find((one) => one.kind === "member");
        const ends = member?.kind === "member" ? [member.start, member.end] : [];
        const end = ends.find((one) => one.kind === "twoPlanes");
        if (end?.kind !== "twoPlanes" || member?.kind !== "member") return;
        const [is, wanted] = [sayings(end.faces), sayings(form.faces)];
        for (const [i, value] of wanted.entries()) expect(is[i]).toBeCloseTo(value, 3);
        expect(member.end.z - member.start.z).toBeCloseTo(solid.end.z - solid.start.z, 2);
        if (member.leftOver === 0) read++;
      }),
      { numRuns: 120, seed: 20261128 },
    );
    expect(all).toBeGreaterThan(60);
    expect(read).toBe(all);
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
