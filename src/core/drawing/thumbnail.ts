/** A job as a small picture: its solids seen from the front right and above, far ones first. */
import { blockMesh, type Mesh, memberMesh, placeMesh, type Vec2, type Vec3 } from "../geometry";
import { at } from "../kernel";
import type { MemberSolid, Shape } from "../shape";
import { sectionProperties } from "../stockroom";
import type { DrawItem, Drawing, Tint } from "./display";

type Solid = { readonly mesh: Mesh; readonly tint: Tint };

const AZIMUTH = (-32 * Math.PI) / 180;
const ELEVATION = (24 * Math.PI) / 180;

/** Screen x to the right, y downwards, and the distance from the eye. */
function project([x, y, z]: Vec3): Vec3 {
  const [c, s] = [Math.cos(AZIMUTH), Math.sin(AZIMUTH)];
  const across = c * x - s * y;
  const into = s * x + c * y;
  const [ce, se] = [Math.cos(ELEVATION), Math.sin(ELEVATION)];
  return [across, -(z * ce + into * se), into * ce - z * se];
}

function outerMesh(solid: MemberSolid): Mesh {
  const loop = sectionProperties(solid.entry.shape).sharp.map((p) => ({ at: p, crease: true }));
  const { start, end } = solid;
  const mesh = memberMesh(
    [loop],
    ([x, y]) => start.z - start.slope[0] * x - start.slope[1] * y,
    ([x, y]) => end.z + end.slope[0] * x + end.slope[1] * y,
  );
  return placeMesh(mesh, solid.frame);
}

function solidsOf(shape: Shape): readonly Solid[] {
  return [
    ...shape.members.map(
      (solid): Solid => ({
        mesh: outerMesh(solid),
        tint: solid.entry.shape.kind === "timber" ? "timber" : "steel",
      }),
    ),
    ...shape.panels.map(
      (solid): Solid => ({
        mesh: placeMesh(blockMesh([solid.length, solid.width, solid.thickness ?? 1], []), solid.frame),
        tint: "board",
      }),
    ),
  ];
}

/** Draws a shape into a box; an empty shape gives an empty drawing. */
export function thumbnail(shape: Shape, width: number, height: number): Drawing {
  const faces = solidsOf(shape).map(({ mesh, tint }) => ({ points: mesh.vertices.map(project), mesh, tint }));
  const all = faces.flatMap(({ points }) => points);
  if (all.length === 0) return { width, height, items: [] };
  const xs = all.map((p) => p[0]);
  const ys = all.map((p) => p[1]);
  const [minX, maxX, minY, maxY] = [least(xs), most(xs), least(ys), most(ys)];
  const scale = 0.92 * Math.min(width / (maxX - minX || 1), height / (maxY - minY || 1));
  const place = (p: Vec3): Vec2 => [
    (p[0] - (minX + maxX) / 2) * scale + width / 2,
    (p[1] - (minY + maxY) / 2) * scale + height / 2,
  ];
  const far = (points: readonly Vec3[]) => points.reduce((sum, p) => sum + p[2], 0) / points.length;
  const items = faces
    .map((face) => ({ ...face, depth: far(face.points) }))
    .sort((a, b) => b.depth - a.depth)
    .flatMap(({ points, mesh, tint }) => solidItems(points, mesh, tint, place));
  return { width, height, items };
}

const least = (values: readonly number[]) =>
  values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);

/** The faces turned to the eye, and the edges between them. */
function solidItems(
  points: readonly Vec3[],
  mesh: Mesh,
  tint: Tint,
  place: (p: Vec3) => Vec2,
): readonly DrawItem[] {
  const items: DrawItem[] = [];
  const seen = new Set<string>();
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const corners = [0, 1, 2].map((k) => at(mesh.triangles, i + k));
    const [a, b, c] = corners.map((k) => at(points, k));
    if (!a || !b || !c) continue;
    // y runs down the screen, so a face turned to the eye runs clockwise in plain coordinates.
    if ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) >= 0) continue;
    items.push({ kind: "polygon", points: [place(a), place(b), place(c)], stroke: null, fill: tint });
    corners.forEach((from, k) => {
      const to = at(corners, (k + 1) % 3);
      seen.add(`${Math.min(from, to)}|${Math.max(from, to)}`);
    });
  }
  for (let i = 0; i < mesh.edges.length; i += 2) {
    const [from, to] = [at(mesh.edges, i), at(mesh.edges, i + 1)];
    if (!seen.has(`${Math.min(from, to)}|${Math.max(from, to)}`)) continue;
    items.push({
      kind: "line",
      from: place(at(points, from)),
      to: place(at(points, to)),
      stroke: { ink: "ink", width: 0.6 },
    });
  }
  return items;
}
