/**
 * Solids against what they are made of: whether a place lies inside is asked of the outline, the ends and the cuts by
 * themselves, and every face and line of the solid has to have solid on the one side and air on the other.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at, type Random, seededRandom } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import {
  boxLoop,
  type EndSurface,
  isInside,
  type Linear,
  levelEnd,
  type Plate,
  type PlateCut,
  plateSolid,
  prismMesh,
  prismSolid,
  ringOf,
  roundedPolygon,
  type Solid,
  solidMesh,
  type Vec2,
  type Vec3,
} from ".";
import { isClosed, volumeOf } from "./mesh.fixture";
import { endOf, type Loop, startOf } from "./outline";
import { add, cross, dot, norm, scale, subtract } from "./vector";

type Inside = (place: Vec3) => boolean;

const middleOf = (points: readonly Vec3[]): Vec3 =>
  scale(
    points.reduce((sum, p) => add(sum, p), [0, 0, 0] as Vec3),
    1 / points.length,
  );

/** mm. How far beside a face or a line it is asked what is there. */
const BESIDE = 0.005;

/** Every face is flat, runs as its normal says, and parts solid from air; so does every line with both its normals. */
function expectTrue({ points, normals, faces, lines, curves }: Solid, inside: Inside): void {
  for (const { corners, normal } of faces) {
    const places = corners.map((i) => at(points, i));
    const n = at(normals, normal);
    expect(norm(n)).toBeCloseTo(1, 9);
    for (const place of places) expect(dot(n, subtract(place, at(places, 0)))).toBeCloseTo(0, 6);
    const [a, b, c] = places as [Vec3, Vec3, Vec3];
    const area = dot(n, cross(subtract(b, a), subtract(c, a)));
    // Slivers have no room for a place beside them.
    if (area < 1) continue;
    const middle = middleOf([a, b, c]);
    expect([add(middle, scale(n, -BESIDE)), add(middle, scale(n, BESIDE))].map(inside)).toEqual([
      true,
      false,
    ]);
  }
  for (const { from, to, normals: both, curve } of lines) {
    const [a, b] = [at(points, from), at(points, to)];
    const sum = add(at(normals, both[0]), at(normals, both[1]));
    if (norm(subtract(b, a)) > 0.5 && norm(sum) > 0.2) {
      const out = scale(sum, BESIDE / norm(sum));
      const middle = middleOf([a, b]);
      expect([subtract(middle, out), add(middle, out)].map(inside)).toEqual([true, false]);
    }
    if (curve === null) continue;
    const { centre, u, v } = at(curves, curve.of);
    const on = (phi: number) => add(centre, add(scale(u, Math.cos(phi)), scale(v, Math.sin(phi))));
    for (const [place, phi] of [
      [a, curve.from],
      [b, curve.to],
    ] as const)
      expect(norm(subtract(on(phi), place))).toBeLessThan(0.003 + CHORD_MM);
  }
}

/** mm. Where a ridge crosses a rounding, its point lies on a chord. */
const CHORD_MM = 0.02 * 30;

const tube = (half: number, radius: number, wall: number): readonly Loop[] => {
  const square = (h: number, r: number) =>
    roundedPolygon(boxLoop([-h, -h], [h, h]).map((one) => ({ at: startOf(one), radius: r })));
  const inner = square(half - wall, Math.max(0, radius - wall)).map((one) =>
    one.kind === "line"
      ? { kind: "line" as const, from: one.to, to: one.from }
      : { ...one, start: one.start + one.sweep, sweep: -one.sweep },
  );
  return [square(half, radius), inner.toReversed()];
};

type Slope = readonly [number, number, number];

/** An end of one or two planes: the lowest stands, counted outwards from z. */
function endOfPlanes(z: number, out: 1 | -1, slopes: readonly Slope[]): EndSurface {
  const planes = slopes.map(([x, y, beyond]) => ({ slope: [x, y] as Vec2, beyond }));
  const lowest = (p: Vec2) =>
    Math.min(...planes.map(({ slope, beyond }) => beyond + slope[0] * p[0] + slope[1] * p[1]));
  const [a, b] = planes;
  const ridges: Linear[] =
    a && b
      ? [{ slope: [a.slope[0] - b.slope[0], a.slope[1] - b.slope[1]], constant: a.beyond - b.beyond }]
      : [];
  return { height: (p) => z + out * lowest(p), planes, ridges };
}

const slopeArb = fc.tuple(
  fc.integer({ min: -100, max: 100 }).map((n) => n / 100),
  fc.integer({ min: -100, max: 100 }).map((n) => n / 100),
  fc.integer({ min: 0, max: 10 }),
);
const endArb = fc
  .array(slopeArb, { minLength: 1, maxLength: 2 })
  .filter(([a, b]) => !b || !a || Math.hypot(a[0] - b[0], a[1] - b[1]) > 0.05);

describe("prisms", () => {
  it("part solid from air at every face and line, whichever planes cut their ends", () => {
    fc.assert(
      fc.property(endArb, endArb, fc.constantFrom(0, 6), (below, above, radius) => {
        const [start, end] = [endOfPlanes(0, -1, below), endOfPlanes(500, 1, above)];
        const rings = tube(20, radius, 3).map((loop) => ringOf(loop, { step: 0.4, creases: true }));
        const flat = rings.map((ring) => ring.points.map((point) => point.at));
        const solid = prismSolid(rings, start, end);
        expectTrue(solid, ([x, y, z]) => {
          const rounds = flat.filter((ring) => isInside(ring, [x, y])).length;
          return rounds === 1 && z > start.height([x, y]) && z < end.height([x, y]);
        });
        expect(isClosed(solidMesh(solid))).toBe(true);
        expect(prismMesh(rings, start, end)).toEqual(solidMesh(solid));
      }),
      { numRuns: lawRuns(30) },
    );
  });

  it("name their faces by the segments of the section, and lines by the two faces that meet in them", () => {
    const rings = tube(20, 0, 3).map((loop) => ringOf(loop, { step: 1 }));
    const solid = prismSolid(
      rings,
      levelEnd(0),
      endOfPlanes(500, 1, [
        [0.5, 0, 0],
        [-0.5, 0, 0],
      ]),
    );
    expect([...new Set(solid.faces.map(({ name }) => name))].sort()).toEqual(
      [1, 2, 3, 4]
        .flatMap((n) => [`side ${n}`, `bore ${n}`])
        .concat("start", "end", "end 2")
        .sort(),
    );
    const names = new Set(solid.lines.map(({ name }) => name));
    for (const name of ["side 1 / side 2", "side 1 / start", "end / side 3", "end 2 / side 3", "end / end 2"])
      expect(names).toContain(name);
    // The ridge runs over the two walls of 3 that it crosses, in however many pieces.
    const lengthOf = (name: string) =>
      solid.lines
        .filter((line) => line.name === name)
        .reduce((sum, { from, to }) => sum + norm(subtract(at(solid.points, from), at(solid.points, to))), 0);
    expect(lengthOf("end / end 2")).toBeCloseTo(6, 9);
    expect(lengthOf("side 1 / start")).toBeCloseTo(40, 9);
    expect(lengthOf("end / side 1") + lengthOf("end 2 / side 1")).toBeCloseTo(40 * Math.hypot(1, 0.5), 9);
  });

  it("of one section share their build, and each end of a plane its ellipse", () => {
    const rings = [
      ringOf([{ kind: "arc", centre: [0, 0], radius: 20, start: 0, sweep: 2 * Math.PI }], { step: 0.3 }),
    ];
    const [first, second] = [0.3, 0.7].map((lean) =>
      prismSolid(rings, levelEnd(0), endOfPlanes(500, 1, [[lean, 0, 0]])),
    );
    expect(first?.faces).toBe(second?.faces);
    expect(second?.curves).toEqual([
      { centre: [0, 0, 0], u: [20, 0, -0], v: [0, 20, -0] },
      { centre: [0, 0, 500], u: [20, 0, 14], v: [0, 20, 0] },
    ]);
    expect(second?.lines.filter(({ kind }) => kind === "smooth")).toHaveLength(rings[0]?.points.length ?? 0);
  });
});

/** Cuts into a plate of 200 × 120 × 18: grooves, pockets, holes, through or blind, from either face. */
function someCuts(random: Random): readonly PlateCut[] {
  const whole = (from: number, to: number) => from + random.below(to - from);
  return Array.from({ length: 1 + random.below(4) }, (_, i): PlateCut => {
    const depth = whole(2, 17);
    const [low, high] = at(
      [
        [-1, 19],
        [18 - depth, 19],
        [-1, depth],
      ] as const,
      random.below(3),
    );
    const [x, y] = [whole(-20, 190), whole(-20, 110)];
    const kind = random.below(3);
    if (kind === 2) {
      // A lug: three straight sides and half a circle.
      // Off the whole millimetres of the others, so that its half circle touches no straight wall.
      const [wide, deep] = [whole(10, 60) + 0.53, whole(5, 40) + 0.11];
      const corners = [
        { at: [x, y], radius: 0 },
        { at: [x + wide, y], radius: 0 },
        { at: [x + wide, y + deep + wide / 2], radius: wide / 2 },
        { at: [x, y + deep + wide / 2], radius: wide / 2 },
      ] as const;
      const loop = roundedPolygon(corners);
      return {
        name: `cut ${i}`,
        low,
        high,
        shape: { kind: "loop", loop, names: loop.map((_, k) => `cut ${i} wall ${k}`) },
      };
    }
    return kind === 0
      ? {
          name: `cut ${i}`,
          low,
          high,
          shape: { kind: "box", from: [x, y], to: [x + whole(8, 80), y + whole(8, 80)] },
        }
      : {
          name: `cut ${i}`,
          low,
          high,
          shape: { kind: "round", centre: [x, y], radius: whole(3, 25) + 0.29 },
        };
  });
}

const plateOf = (cuts: readonly PlateCut[], outline: Loop = boxLoop([0, 0], [200, 120])): Plate => ({
  outline,
  names: outline.map((_, i) => `edge ${i}`),
  below: "below",
  above: "above",
  height: 18,
  cuts,
});

const STEP = 0.2;

/** Whether a place lies in a plate and in none of its cuts; circles are polygons of the same step. */
function insidePlate({ outline, height, cuts }: Plate): Inside {
  const polygon = (loop: Loop) => ringOf(loop, { step: STEP }).points.map((point) => point.at);
  const whole = polygon(outline);
  const taken = cuts.map(({ shape, low, high }) => ({
    low,
    high,
    ring: polygon(
      shape.kind === "loop"
        ? shape.loop
        : shape.kind === "box"
          ? boxLoop(shape.from, shape.to)
          : [{ kind: "arc", centre: shape.centre, radius: shape.radius, start: 0, sweep: 2 * Math.PI }],
    ),
  }));
  return ([x, y, z]) =>
    z > 0 &&
    z < height &&
    isInside(whole, [x, y]) &&
    !taken.some(({ ring, low, high }) => z > low && z < high && isInside(ring, [x, y]));
}

describe("plates", () => {
  it("part solid from air at every face and line, whatever is cut into them", () => {
    for (let seed = 1; seed <= 80; seed++) {
      const plate = plateOf(someCuts(seededRandom(seed)));
      expectTrue(plateSolid(plate, { step: STEP }), insidePlate(plate));
    }
  });

  it("hold what their layers hold, counted place by place", () => {
    for (let seed = 1; seed <= 6; seed++) {
      const plate = plateOf(someCuts(seededRandom(100 + seed)));
      const inside = insidePlate(plate);
      let count = 0;
      for (let x = 1; x < 200; x += 2)
        for (let y = 1; y < 120; y += 2) for (let z = 0.5; z < 18; z++) if (inside([x, y, z])) count++;
      const volume = volumeOf(solidMesh(plateSolid(plate, { step: STEP })));
      expect(Math.abs(volume / (count * 4) - 1)).toBeLessThan(0.02);
    }
  });

  it("name walls and floors by what cut them, and draw a hole as two circles", () => {
    const cuts: readonly PlateCut[] = [
      { name: "groove g", low: 12, high: 19, shape: { kind: "box", from: [-1, 40], to: [201, 52] } },
      { name: "hole h", low: -1, high: 19, shape: { kind: "round", centre: [100, 90], radius: 8 } },
    ];
    const solid = plateSolid(plateOf(cuts), { step: STEP });
    expect([...new Set(solid.faces.map(({ name }) => name))].sort()).toEqual([
      "above",
      "below",
      "edge 0",
      "edge 1",
      "edge 2",
      "edge 3",
      "groove g back",
      "groove g floor",
      "groove g front",
      "hole h wall",
    ]);
    expect(solid.curves).toEqual([
      { centre: [100, 90, 0], u: [8, 0, 0], v: [0, 8, 0] },
      { centre: [100, 90, 18], u: [8, 0, 0], v: [0, 8, 0] },
    ]);
    const rims = solid.lines.filter(({ curve }) => curve !== null);
    const turned = rims.reduce((sum, { curve }) => sum + Math.abs((curve?.to ?? 0) - (curve?.from ?? 0)), 0);
    expect(turned).toBeCloseTo(2 * 2 * Math.PI, 6);
    expect(new Set(rims.map(({ name }) => name))).toEqual(
      new Set(["above / hole h wall", "below / hole h wall"]),
    );
    // Nothing stands along the wall of a hole but what is seen as its silhouette.
    for (const line of solid.lines)
      if (line.name === "hole h wall / hole h wall") expect(line.kind).toBe("smooth");
  });

  it("are in exact coordinates and closed where nothing is cut, with an outline of any kind", () => {
    const outline = roundedPolygon([
      { at: [0.1234567, 0], radius: 0 },
      { at: [150, 0], radius: 20 },
      { at: [150, 90], radius: 0 },
    ]);
    const solid = plateSolid(plateOf([], outline), { step: STEP });
    expect(isClosed(solidMesh(solid))).toBe(true);
    expect(solid.points.some(([x]) => x === 0.1234567)).toBe(true);
    expectTrue(solid, insidePlate(plateOf([], outline)));
    // Sharp where the outline turns, smooth along the rounding and where it runs into the straights.
    const standing = solid.lines.filter(
      ({ from, to }) => at(solid.points, from)[2] !== at(solid.points, to)[2],
    );
    expect(standing.filter(({ kind }) => kind === "sharp")).toHaveLength(2);
    expect(norm([...endOf(at(outline, 0)), 0])).toBeGreaterThan(0);
  });
});
