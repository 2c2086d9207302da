/**
 * The lines of a view by a general geometry kernel (Open CASCADE as WebAssembly), beside ours: the same members as prisms of
 * their exact sections with arcs, their ends square (which spares the kernel the planes of the mitres), panels as boxes.
 */
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { seenPieces, viewFrom, viewLines } from "@/core/drawing";
import { type Loop, type Segment, toWorld, type Vec2, type Vec3 } from "@/core/geometry";
import { createPipeline } from "@/core/pipeline";
import type { Shape } from "@/core/shape";
import { type SectionShape, type Stockroom, sectionProperties } from "@/core/stockroom";
import { generatedJob } from "./generated";

const FOLDER = fileURLToPath(new URL("./kernel", import.meta.url));
const PACKAGE = path.join(FOLDER, "node_modules", "replicad-opencascadejs", "dist");

/** What is used of the kernel; its own types are a megabyte. */
// biome-ignore lint/suspicious/noExplicitAny: a foreign library without types here.
type Kernel = any;

async function loadKernel(): Promise<Kernel> {
  if (!existsSync(PACKAGE)) {
    console.log("  installing the kernel…");
    const words = ["ci", "--no-audit", "--no-fund"];
    if (spawnSync("npm", words, { cwd: FOLDER, stdio: "inherit" }).status !== 0)
      throw new Error("the kernel could not be installed");
  }
  // It was built for CommonJS.
  Object.assign(globalThis, { __dirname: PACKAGE, require: createRequire(import.meta.url) });
  const { default: start } = await import(pathToFileURL(path.join(PACKAGE, "replicad_single.js")).href);
  return start({ wasmBinary: readFileSync(path.join(PACKAGE, "replicad_single.wasm")) });
}

const on = ({ centre, radius }: Extract<Segment, { kind: "arc" }>, angle: number): Vec2 => [
  centre[0] + radius * Math.cos(angle),
  centre[1] + radius * Math.sin(angle),
];

/** The places of a segment: its ends, and the middle of an arc. */
function placesOf(segment: Segment): readonly [Vec2, Vec2 | null, Vec2] {
  if (segment.kind === "line") return [segment.from, null, segment.to];
  const { start, sweep } = segment;
  return [on(segment, start), on(segment, start + sweep / 2), on(segment, start + sweep)];
}

const RECTANGLE = (x0: number, y0: number, x1: number, y1: number): Loop => [
  { kind: "line", from: [x0, y0], to: [x1, y0] },
  { kind: "line", from: [x1, y0], to: [x1, y1] },
  { kind: "line", from: [x1, y1], to: [x0, y1] },
  { kind: "line", from: [x0, y1], to: [x0, y0] },
];

const sectionOf = (shape: Shape, record: string): SectionShape | null =>
  shape.members.find(({ member }) => member.id === record)?.entry.shape ?? null;

export async function kernelTable(
  stockroom: Stockroom,
  timed: (work: () => void) => number,
  median: (values: readonly number[]) => number,
): Promise<void> {
  console.log(
    "Lines of an isometric view by a general kernel, beside ours (ours: median of 5; the kernel once)",
  );
  const oc = await loadKernel();
  const point = ([x, y, z]: Vec3) => new oc.gp_Pnt(x, y, z);
  for (const size of [20, 100, 300]) {
    const { shape } = createPipeline()(generatedJob(size), null, stockroom, []);
    const view = viewFrom([-1, -1, 1]);
    const pieces = seenPieces(shape, view);
    const ours = median(Array.from({ length: 5 }, () => timed(() => void viewLines(pieces))));
    const wireOf = (loop: Loop, place: (p: Vec2) => Vec3) => {
      const wire = new oc.BRepBuilderAPI_MakeWire();
      for (const segment of loop) {
        const [from, middle, to] = placesOf(segment);
        const edge = middle
          ? new oc.BRepBuilderAPI_MakeEdge(
              new oc.GC_MakeArcOfCircle(point(place(from)), point(place(middle)), point(place(to))).Value(),
            )
          : new oc.BRepBuilderAPI_MakeEdge(point(place(from)), point(place(to)));
        wire.Add(edge.Edge());
      }
      return wire.Wire();
    };
    const algorithm = new oc.HLRBRep_Algo();
    const made = timed(() => {
      for (const { record, solid, frame } of pieces) {
        const [xs, ys, zs] = [0, 1, 2].map((k) => solid.points.map((p) => p[k as 0 | 1 | 2])) as [
          number[],
          number[],
          number[],
        ];
        const [low, high] = [Math.min(...zs), Math.max(...zs)];
        const section = sectionOf(shape, record);
        const loops = section
          ? sectionProperties(section).loops
          : [RECTANGLE(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys))];
        const place = ([x, y]: Vec2) => toWorld(frame, [x, y, low]);
        const [outer, ...holes] = loops;
        if (!outer) continue;
        const face = new oc.BRepBuilderAPI_MakeFace(wireOf(outer, place), true);
        for (const hole of holes) face.Add(wireOf(hole, place));
        const [dx, dy, dz] = frame.z;
        const by = high - low;
        const prism = new oc.BRepPrimAPI_MakePrism(
          face.Face(),
          new oc.gp_Vec(dx * by, dy * by, dz * by),
          false,
          true,
        );
        algorithm.Add(prism.Shape(), 0);
      }
    });
    const axes = new oc.gp_Ax2(new oc.gp_Pnt(0, 0, 0), new oc.gp_Dir(0, 0, 1), new oc.gp_Dir(1, 0, 0));
    algorithm.Projector(new oc.HLRAlgo_Projector(axes));
    let seen = 0;
    const hidden = timed(() => {
      algorithm.Update();
      algorithm.Hide();
      const shapes = new oc.HLRBRep_HLRToShape(algorithm);
      for (const part of [shapes.VCompound(), shapes.OutLineVCompound()]) {
        if (!part || part.IsNull()) continue;
        for (
          const walk = new oc.TopExp_Explorer(part, oc.TopAbs_ShapeEnum.TopAbs_EDGE);
          walk.More();
          walk.Next()
        )
          seen++;
      }
    });
    console.log(
      `  ${`${pieces.length} pieces`.padEnd(14)}ours ${ours.toFixed(0).padStart(5)} ms   kernel ${hidden.toFixed(0).padStart(7)} ms (its solids ${made.toFixed(0)} ms)   ${(hidden / ours).toFixed(0).padStart(4)} ×   (aim: at least 10 ×)   ${viewLines(pieces).length} lines, ${seen} edges`,
    );
  }
}
