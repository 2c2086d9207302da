/**
 * The solids against a solid kernel that knows nothing of this program: manifold-3d (its boolean operations and volumes).
 * It takes meshes in single precision, so lengths agree to some 1e-3 mm and volumes to some 1e-5 of themselves.
 */
import Module from "manifold-3d";
import { describe, expect, it } from "vitest";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { demoStockroom } from "../../../demo/stockroom";
import { slopeOf } from "../ends/ends.fixture";
import { type Mesh, polygonArea, sharpRing, unflatMesh, type Vec2 } from "../geometry";
import { manifoldOf } from "../geometry/manifold.fixture";
import { polygonOf, volumeOf } from "../geometry/mesh.fixture";
import { buttEnd, copeEnd, type EndCut, type Job, mitreEnd, newJob, resolveSizes } from "../job";
import { at } from "../kernel";
import { sectionProperties, stockroomOf } from "../stockroom";
import { type Shape, shapeJob } from ".";
import { meshOfMember } from "./member-solid";
import { picturedMeshes } from "./mesh.fixture";

const kernel = await Module();
kernel.setup();
const stockroom = stockroomOf(demoStockroom);
const shapeOf = (job: Job) => shapeJob(job, resolveSizes(job, null), stockroom);

const solidOf = (mesh: Mesh) => manifoldOf(kernel, mesh);

const solidsOf = (shape: Shape) =>
  new Map(picturedMeshes(shape).map(({ record, mesh }) => [record, { mesh, solid: solidOf(mesh) }]));

describe("solids in the kernel", () => {
  it.each([
    ["the potting bench", pottingBench()],
    ["the seed-packet cabinet", seedPacketCabinet()],
  ])("every solid of %s is closed, and as large there as here", (_, job) => {
    for (const { mesh } of picturedMeshes(shapeOf(job))) {
      const solid = solidOf(mesh);
      expect(solid.status()).toBe("NoError");
      expect(solid.volume() / volumeOf(mesh)).toBeWithinMm(1, 2e-5);
      solid.delete();
    }
  });

  it("solids with sharp sections are closed too, and hold the sharp section times their middle length", () => {
    for (const solid of shapeOf(pottingBench()).members) {
      const mesh = unflatMesh(meshOfMember(solid, true));
      const made = solidOf(mesh);
      expect(made.status()).toBe("NoError");
      // The outline of angles and tubes without their roundings, by the shoelace formula over the points of the plan.
      const { loops } = sectionProperties(solid.entry.shape);
      const area = loops
        .map((loop) => polygonArea(sharpRing(loop).points.map((point) => point.at)))
        .reduce((sum, each) => sum + each, 0);
      const straight = [solid.start, solid.end].every(
        ({ form }) => form.kind === "plane" && form.slope.every((part) => part === 0),
      );
      if (straight) expect(made.volume() / (area * solid.lengths.cut)).toBeWithinMm(1, 2e-5);
      made.delete();
    }
  });

  it("a panel's volume is its block less its grooves, notches and holes, worked out by hand", () => {
    const shape = shapeOf(seedPacketCabinet());
    const side = solidsOf(shape).get("sideLeft")?.solid;
    // 900 × 320 × 18 less two end rebates and the back groove 6 deep, and the shelf's groove stopped 20 short; where the
    // back groove of 6 crosses the others, it is taken once.
    const cross = (18 + 18 + 18) * 6 * 6;
    const grooves = 2 * 18 * 320 * 6 + 6 * 900 * 6 + 18 * 300 * 6 - cross;
    // Holes are drawn with 16 corners: pins of 5, each 11 deep.
    const pins = shape.panels.find(({ panel }) => panel.id === "sideLeft")?.holes ?? [];
    expect(pins.length).toBeGreaterThan(0);
    expect(pins.every(({ diameter, depth }) => diameter === 5 && depth === 11)).toBe(true);
    const holes = pins.length * 11 * 8 * 2.5 ** 2 * Math.sin(Math.PI / 8);
    expect(side?.volume()).toBeWithinMm(900 * 320 * 18 - grooves - holes, 5);
  });
});

function shoelace(points: readonly Vec2[]): number {
  return points.reduce((sum, p, i) => {
    const q = at(points, (i + 1) % points.length);
    return sum + (p[0] * q[1] - q[0] * p[1]) / 2;
  }, 0);
}

/** Two square tubes of 40 that meet in a point, spread by an angle in the level plane. */
function corner(degrees: number, first: EndCut, second: EndCut): Job {
  const angle = (degrees * Math.PI) / 180;
  const far = (500 * Math.cos(angle)).toFixed(6);
  const side = (500 * Math.sin(angle)).toFixed(6);
  return newJob({
    info: { code: "T", title: "Corner" },
    points: { O: ["0", "0", "0"], A: ["500", "0", "0"], B: [far, side, "0"] },
    members: {
      a: { name: "A", from: "O", to: "A", section: "sht-40-3", start: first },
      b: { name: "B", from: "O", to: "B", section: "sht-40-3", start: second },
    },
  });
}

/** Neighbours neither overlap nor gape: nothing is common to both, and they come as near as the gap says. */
function expectMeeting(job: Job, ids: readonly [string, string], gap = 0): void {
  const solids = solidsOf(shapeOf(job));
  const [a, b] = ids.map((id) => solids.get(id)?.solid);
  if (!a || !b) throw new Error("both are computed");
  const common = kernel.Manifold.intersection(a, b).volume();
  expect(common / a.volume()).toBeWithinMm(0, 1e-6);
  expect(a.minGap(b, 50)).toBeWithinMm(gap, 5e-3);
}

describe("neighbours in the kernel", () => {
  it.each([60, 90, 120])("mitred at %d°, they meet in the whole face", (degrees) => {
    const job = corner(degrees, mitreEnd("b"), mitreEnd("a"));
    expectMeeting(job, ["a", "b"]);
    // The face of the cut is the section's area ÷ cos of the cut's angle from square (90 − θ/2).
    const solids = solidsOf(shapeOf(job));
    const [solid] = shapeOf(job).members;
    const a = solids.get("a")?.solid;
    if (!a || !solid) throw new Error("it is computed");
    const radians = ((90 - degrees / 2) * Math.PI) / 180;
    // The kernel sees the outline with its corner arcs as chords, so the area is that of the drawn outline.
    const [outer, inner] = sectionProperties(solid.entry.shape).loops.map((loop) =>
      Math.abs(shoelace(polygonOf(loop))),
    );
    const areaMm2 = (outer ?? 0) - (inner ?? 0);
    const slice = a.rotate([0, 0, 90 - degrees / 2]).rotate([0, -90, 0]);
    const face = areaMm2 / Math.cos(radians);
    const cut = Math.max(...[0.02, -0.02].map((shift) => slice.slice(shift).area()));
    expect(cut / face).toBeWithinMm(1, 1e-4);
  });

  it.each([60, 90, 120])("butted at %d°, they touch and share nothing", (degrees) => {
    expectMeeting(corner(degrees, { kind: "square", offset: "60", past: null }, buttEnd("a")), ["a", "b"]);
  });

  it("a root gap is left open: its width square to the mitre, and to the face of a butt", () => {
    expectMeeting(
      corner(90, { ...mitreEnd("b"), gap: "3" } as EndCut, { ...mitreEnd("a"), gap: "3" } as EndCut),
      ["a", "b"],
      3,
    );
    expectMeeting(corner(60, { kind: "square", offset: "60", past: null }, buttEnd("a", "2")), ["a", "b"], 2);
  });

  it("splayed legs with a compound mitre at their head meet, and the saw's angles are those of the splay", () => {
    const job = newJob({
      info: { code: "T", title: "Splay" },
      points: { L: ["-300", "-200", "0"], R: ["300", "-200", "0"], H: ["0", "0", "700"] },
      members: {
        left: { name: "Leg", from: "L", to: "H", section: "sht-40-3", end: mitreEnd("right") },
        right: { name: "Leg", from: "R", to: "H", section: "sht-40-3", end: mitreEnd("left") },
      },
    });
    expectMeeting(job, ["left", "right"]);
    const [left] = shapeOf(job).members;
    // By plane geometry: the legs mitre in the plane x = 0, which a leg of 300, 200, 700 meets at asin(300 / its length).
    const length = Math.hypot(300, 200, 700);
    const fromSquare = Math.PI / 2 - Math.asin(300 / length);
    expect(Math.atan(Math.hypot(...slopeOf(left?.end.form)))).toBeWithinMm(fromSquare, 1e-12);
    const [x, y] = slopeOf(left?.end.form);
    expect(Math.min(Math.abs(x), Math.abs(y))).toBeGreaterThan(0.1);
  });

  it.each([90, 60])(
    "a round tube coped round another at %d° touches it all round and shares nothing",
    (degrees) => {
      const angle = (degrees * Math.PI) / 180;
      const job = newJob({
        info: { code: "T", title: "Cope" },
        points: {
          A: ["-400", "0", "0"],
          B: ["400", "0", "0"],
          O: ["0", "0", "0"],
          C: [(400 * Math.cos(angle)).toFixed(6), "0", (400 * Math.sin(angle)).toFixed(6)],
        },
        members: {
          header: { name: "Header", from: "A", to: "B", section: "cht-48-3" },
          branch: { name: "Branch", from: "O", to: "C", section: "cht-33-3", start: copeEnd("header") },
        },
      });
      const solids = solidsOf(shapeOf(job));
      const [header, branch] = ["header", "branch"].map((id) => solids.get(id)?.solid);
      if (!header || !branch) throw new Error("both are computed");
      // Facets of both lie within the round surfaces: what is common is at most the sliver between chord and arc.
      const common = kernel.Manifold.intersection(header, branch).volume();
      expect(common / branch.volume()).toBeLessThan(2e-3);
      expect(header.minGap(branch, 50)).toBeLessThan(0.3);
    },
  );
});
