import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { slopeOf } from "../ends/ends.fixture";
import { cross, cross2, dot, type Mesh, subtract, type Vec2, type Vec3 } from "../geometry";
import { polygonOf, sewn, volumeOf } from "../geometry/mesh.fixture";
import { buttEnd, type EndCut, type Job, mitreEnd, newJob, pastEnd, resolveSizes, squareEnd } from "../job";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { toDegrees } from "../measure";
import { type SectionEntry, type SectionShape, sectionProperties, stockroomOf } from "../stockroom";
import { picturedMeshes } from "./mesh.fixture";
import { shapeJob } from "./shape";

const entry = (id: string, shape: SectionShape): SectionEntry => ({
  id,
  name: id,
  unit: "mm",
  shape,
  material: "S235",
  densityKgM3: 7850,
  massKgPerM: null,
  source: "test",
  stock: [],
  kerf: 2.5,
  trimStart: 0,
  trimEnd: 0,
  grip: 0,
  keep: 0,
  share: false,
  rack: "none",
});
const square40: SectionShape = { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" };
const rect: SectionShape = { kind: "rectangularTube", size: [60, 40, 3], corners: "coldFormed" };
const stockroom = stockroomOf({
  currency: "EUR",
  sections: [
    entry("sq40", square40),
    entry("rhs", rect),
    entry("angle", { kind: "equalAngle", size: [30, 30, 3], rootRadius: 5 }),
    entry("round", { kind: "roundTube", size: [33.7, 3.2] }),
  ],
  boards: [
    {
      id: "ply",
      name: "ply",
      material: "birch ply",
      thickness: 18,
      grain: "length",
      densityKgM3: null,
      stock: [],
      kerf: 3,
      trim: 10,
      stages: 3,
    },
  ],
  edging: [],
  bought: [],
});
const shapeOf = (job: Job) => shapeJob(job, resolveSizes(job, null), stockroom);
const named = (job: Job, id: string) => {
  const solid = shapeOf(job).members.find((one) => one.member.id === id);
  if (!solid)
    throw new Error(
      `${id} is not computed: ${shapeOf(job)
        .checks.map((c) => c.message)
        .join(" ")}`,
    );
  return solid;
};

/** A rectangle frame whose lines are the centre lines of members in 40 square, 600 x 400 over all. */
function rectangleFrame(
  ends: Readonly<Record<"long" | "short", (own: string, neighbour: string) => EndCut>>,
) {
  const member = (
    from: string,
    to: string,
    kind: "long" | "short",
    before: string,
    after: string,
    id: string,
  ) => ({
    name: id,
    from,
    to,
    section: "sq40",
    start: ends[kind](id, before),
    end: ends[kind](id, after),
  });
  return newJob({
    info: { code: "T", title: "Frame" },
    points: { A: ["20", "20", "0"], B: ["580", "20", "0"], C: ["580", "380", "0"], D: ["20", "380", "0"] },
    members: {
      front: member("A", "B", "long", "left", "right", "front"),
      right: member("B", "C", "short", "front", "back", "right"),
      back: member("C", "D", "long", "right", "left", "back"),
      left: member("D", "A", "short", "back", "front", "left"),
    },
  });
}

describe("a frame of 600 x 400 over all in 40 square (common practice, recomputed by hand)", () => {
  it("mitred: cut lengths 600 and 400, short edges 520 and 320", () => {
    const job = rectangleFrame({ long: (_, n) => mitreEnd(n), short: (_, n) => mitreEnd(n) });
    expect(named(job, "front").lengths.cut).toBeWithinMm(600, 1e-9);
    expect(named(job, "front").lengths.shortestEdge).toBeWithinMm(520, 1e-9);
    expect(named(job, "left").lengths.cut).toBeWithinMm(400, 1e-9);
    expect(named(job, "left").lengths.shortestEdge).toBeWithinMm(320, 1e-9);
    expect(shapeOf(job).checks).toEqual([]);
  });

  it("butted with the 600s through: 600 and 320", () => {
    const job = rectangleFrame({ long: (_, n) => pastEnd(n), short: (_, n) => buttEnd(n) });
    expect(named(job, "front").lengths.cut).toBeWithinMm(600, 1e-9);
    expect(named(job, "left").lengths.cut).toBeWithinMm(320, 1e-9);
  });

  it("a gap at the butt shortens by the gap at each end", () => {
    const job = rectangleFrame({ long: (_, n) => pastEnd(n), short: (_, n) => buttEnd(n, "1.5") });
    expect(named(job, "left").lengths.cut).toBeWithinMm(317, 1e-9);
  });
});

/** Two members that meet at the origin at an angle, each 1000 long. */
function corner(degrees: number, through: EndCut, branch: EndCut, sections = ["sq40", "sq40"], roll = "0") {
  const x = `1000*cos(${degrees})`;
  const y = `1000*sin(${degrees})`;
  return newJob({
    info: { code: "T", title: "Corner" },
    points: { J: ["0", "0", "0"], A: ["1000", "0", "0"], B: [x, y, "0"] },
    members: {
      a: { name: "through", from: "J", to: "A", section: sections[0] ?? null, start: through },
      b: { name: "branch", from: "J", to: "B", section: sections[1] ?? null, start: branch, roll },
    },
  });
}
const startAngle = (job: Job, id: string) =>
  toDegrees(Math.atan(Math.hypot(...slopeOf(named(job, id).start.form))));

describe("end angles at corners (plane geometry: 90 − θ/2, 90 − angle to the face)", () => {
  it.each([
    [60, 60],
    [90, 45],
    [120, 30],
    [180, 0],
  ])("a mitre at %i° is %i° from square", (corners, angle) => {
    const job = corner(corners, mitreEnd("b"), mitreEnd("a"));
    expect(startAngle(job, "a")).toBeWithinMm(angle, 1e-9);
    expect(startAngle(job, "b")).toBeWithinMm(angle, 1e-9);
    expect(shapeOf(job).checks.filter((c) => c.kind === "mitreDoesNotClose")).toEqual([]);
  });

  it.each([
    [60, 30],
    [90, 0],
    [120, 30],
  ])("a butt at %i° is %i° from square", (corners, angle) => {
    expect(startAngle(corner(corners, squareEnd(), buttEnd("a")), "b")).toBeWithinMm(angle, 1e-9);
  });

  it.each([
    [90, 20],
    [60, 11.547],
    [120, 34.641],
  ])("at %i° the through member runs %f past the joint", (corners, past) => {
    const { start } = named(corner(corners, pastEnd("b"), buttEnd("a")), "a");
    expect(-start.z).toBeWithinMm(past, 5e-4);
  });

  it("60 itself is not called steep, 61 is", () => {
    const steep = (degrees: number) =>
      shapeOf(corner(degrees, mitreEnd("b"), mitreEnd("a"))).checks.filter((c) => c.kind === "steepEnd")
        .length;
    expect(steep(60)).toBe(0);
    expect(steep(58)).toBe(2);
  });

  it("a mitre between unlike outlines, or turned ones, does not close", () => {
    const open = (job: Job) => shapeOf(job).checks.filter((c) => c.kind === "mitreDoesNotClose").length;
    expect(open(corner(90, mitreEnd("b"), mitreEnd("a"), ["sq40", "rhs"]))).toBe(2);
    expect(open(corner(90, mitreEnd("b"), mitreEnd("a"), ["rhs", "rhs"]))).toBe(0);
    expect(open(corner(90, mitreEnd("b"), mitreEnd("a"), ["rhs", "rhs"], "90"))).toBe(2);
    // Turned onto itself a section closes: a rectangle by half a turn, a square by a quarter either way.
    expect(open(corner(90, mitreEnd("b"), mitreEnd("a"), ["rhs", "rhs"], "180"))).toBe(0);
    expect(open(corner(90, mitreEnd("b"), mitreEnd("a"), ["sq40", "sq40"], "90"))).toBe(0);
    expect(open(corner(90, mitreEnd("b"), mitreEnd("a"), ["sq40", "sq40"], "-90"))).toBe(0);
    expect(open(corner(90, mitreEnd("b"), mitreEnd("a"), ["sq40", "sq40"], "45"))).toBe(2);
  });

  it("butts an angle section to a tube and refuses a butt to a round one", () => {
    expect(named(corner(90, squareEnd(), buttEnd("a"), ["sq40", "angle"]), "b").start.z).toBeWithinMm(
      20,
      1e-9,
    );
    const round = shapeOf(corner(90, squareEnd(), buttEnd("a"), ["round", "sq40"]));
    const why = { kind: "cannotMeet", cut: "butt", name: "through", why: "roundFace" };
    expect(round.uncomputed.map((piece) => piece.why)).toEqual([{ kind: "end", side: "start", why }]);
  });
});

/** Signed area of a polygon (shoelace formula). */
function areaOf(polygon: readonly Vec2[]): number {
  return polygon.reduce((sum, p, i) => sum + cross2(p, at(polygon, (i + 1) % polygon.length)) / 2, 0);
}

/** Every directed edge of a closed mesh has its opposite. */
function isClosed(mesh: Mesh): boolean {
  const key = (v: Vec3) => v.map((x) => x.toFixed(4)).join();
  const open = new Map<string, number>();
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const ring = [0, 1, 2].map((k) => key(at(mesh.vertices, at(mesh.triangles, i + k))));
    ring.forEach((from, k) => {
      const to = at(ring, (k + 1) % 3);
      open.set(`${from}>${to}`, (open.get(`${from}>${to}`) ?? 0) + 1);
      open.set(`${to}>${from}`, (open.get(`${to}>${from}`) ?? 0) - 1);
    });
  }
  return [...open.values()].every((count) => count === 0);
}

describe("solids", () => {
  it("volume = outline area × length on the centroids, for any two end planes (truncated prism)", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 150 }),
        fc.constantFrom("sq40", "rhs", "angle"),
        (degrees, section) => {
          const job = corner(degrees, mitreEnd("b"), mitreEnd("a"), [section, section]);
          const mesh = at(picturedMeshes(shapeOf(job)), 0).mesh;
          expect(isClosed(mesh)).toBe(true);
          const solid = named(job, "a");
          const polygons = sectionProperties(solid.entry.shape).loops.map((loop) => polygonOf(loop));
          const drawnArea = polygons.reduce((sum, polygon) => sum + areaOf(polygon), 0);
          // The flattened corner arcs of an angle move its drawn centroid a little; a tube's stays.
          expect(volumeOf(mesh) / (drawnArea * solid.lengths.centre)).toBeWithinMm(
            1,
            section === "angle" ? 2e-3 : 1e-9,
          );
        },
      ),
      { numRuns: lawRuns(40) },
    );
  });

  it("mitred neighbours meet in one plane and do not overlap: their volumes add up to the through length", () => {
    const job = rectangleFrame({ long: (_, n) => mitreEnd(n), short: (_, n) => mitreEnd(n) });
    const centres = shapeOf(job).members.reduce((sum, solid) => sum + solid.lengths.centre, 0);
    expect(centres).toBeWithinMm(2 * 560 + 2 * 360, 1e-9);
  });

  it("a panel with grooves keeps its volume less the grooves", () => {
    const panel = (work: readonly object[]) =>
      newJob({
        info: { code: "T", title: "Panel" },
        panels: {
          p: {
            name: "side",
            board: "ply",
            origin: ["0", "0", "0"],
            lengthAxis: ["1", "1", "0"],
            faceAxis: ["0", "0", "1"],
            length: "600",
            width: "400",
            work: work as never,
          },
        },
      });
    const groove = {
      id: "g",
      kind: "groove",
      face: "good",
      from: "front",
      distance: "20",
      width: "10",
      depth: "6",
      stopAtStart: "0",
      stopAtEnd: "50",
    };
    const rebate = { ...groove, id: "h", face: "other", from: "left", distance: "0", stopAtEnd: "0" };
    const mesh = at(picturedMeshes(shapeOf(panel([groove, rebate]))), 0).mesh;
    expect(isClosed(sewn(mesh))).toBe(true);
    expect(volumeOf(mesh)).toBeWithinMm(600 * 400 * 18 - 550 * 10 * 6 - 400 * 10 * 6, 1e-3);
  });

  it("has right-handed axes with y as near to up as can be", () => {
    const { frame } = named(corner(90, squareEnd(), squareEnd()), "a");
    expect(dot(cross(frame.x, frame.y), frame.z)).toBeWithinMm(1, 1e-12);
    expect(frame.y).toEqual([0, 0, 1]);
    expect(subtract(frame.origin, [0, 0, 0])).toEqual([0, 0, 0]);
  });
});

describe("what cannot be computed", () => {
  it("stays in the result by name, with the reason", () => {
    const job = newJob({
      info: { code: "T", title: "Broken" },
      keySizes: { width: { formula: "depth" }, depth: { formula: "width" } },
      points: { A: ["0", "0", "0"], B: ["width", "0", "0"], C: ["0", "0", "0"], D: ["0", "0", "900"] },
      members: {
        loop: { name: "Rail", from: "A", to: "B", section: "sq40" },
        none: { name: "Stub", from: "A", to: "C", section: "sq40" },
        bare: { name: "Post", from: "A", to: "D", section: null },
        crossed: {
          name: "Short",
          from: "A",
          to: "D",
          section: "sq40",
          start: squareEnd("-500"),
          end: squareEnd("-500"),
        },
      },
    });
    const shape = shapeOf(job);
    expect(Object.fromEntries(shape.uncomputed.map(({ id, why }) => [id, why.kind]))).toEqual({
      bare: "noSection",
      crossed: "endsCross",
      loop: "noPoint",
      none: "noLength",
    });
    expect(shape.checks.filter(({ kind }) => kind === "noSection")).toHaveLength(1);
    expect(shape.checks.some((c) => c.message.includes("form a loop"))).toBe(true);
    expect(
      shape.checks.some((c) => c.message.includes("Short") && c.message.includes("no length remains")),
    ).toBe(true);
  });
});
