/** A job as a small picture: its solids seen from the front left and above, near ones over far ones. */
import {
  type Face,
  type Mesh,
  paintOrder,
  placeMesh,
  poseMesh,
  prismMesh,
  sharpRing,
  type Vec2,
  type Vec3,
} from "../geometry";
import { type Assets, NO_ASSETS } from "../job";
import { at } from "../kernel";
import { endSurface, type MemberSolid, meshOfPanel, meshOfStandIn, type Shape } from "../shape";
import { isMetal, sectionProperties } from "../stockroom";
import type { DrawItem, Drawing, Tint } from "./display";

type Solid = { readonly mesh: Mesh; readonly tint: Tint };

/** As the picture on the desk is first seen. */
const AZIMUTH = Math.atan2(0.62, 1);
const ELEVATION = Math.atan2(0.62, Math.hypot(0.62, 1));
/** Above this a small picture shows nothing of single pieces, and is only costly. */
const MOST_SOLIDS = 600;

/** Screen x to the right, y downwards, and the distance from the eye. */
function project([x, y, z]: Vec3): Vec3 {
  const [c, s] = [Math.cos(AZIMUTH), Math.sin(AZIMUTH)];
  const across = c * x - s * y;
  const into = s * x + c * y;
  const [ce, se] = [Math.cos(ELEVATION), Math.sin(ELEVATION)];
  return [across, -(z * ce + into * se), into * ce - z * se];
}

function outerMesh(solid: MemberSolid): Mesh {
  const [outer] = sectionProperties(solid.entry.shape).loops;
  const mesh = prismMesh(
    outer ? [sharpRing(outer)] : [],
    endSurface(solid, "start"),
    endSurface(solid, "end"),
  );
  return placeMesh(mesh, solid.frame);
}

function solidsOf(shape: Shape, assets: Assets): readonly Solid[] {
  const solids: Solid[] = [];
  const place = (home: MemberSolid["home"], tint: Tint, own: () => Mesh) => {
    for (const { key, pose } of shape.places.get(home) ?? []) {
      if (solids.length >= MOST_SOLIDS) return;
      solids.push({ mesh: key === "" ? own() : poseMesh(own(), pose), tint });
    }
  };
  for (const solid of shape.members)
    place(solid.home, solid.entry.shape.kind === "timber" ? "timber" : "steel", () => outerMesh(solid));
  for (const solid of shape.panels)
    place(solid.panel.assembly, isMetal(solid.board) ? "steel" : "board", () => meshOfPanel(solid));
  for (const one of shape.bought)
    for (const mesh of meshOfStandIn(one, assets)) place(one.part.assembly, "rest", () => mesh);
  return solids;
}

/** Draws a shape into a box; an empty shape gives an empty drawing. */
export function thumbnail(shape: Shape, width: number, height: number, assets: Assets = NO_ASSETS): Drawing {
  const faces = paintOrder(solidsOf(shape, assets).flatMap(facesToTheEye));
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
  return { width, height, items: faces.flatMap((face) => faceItems(face, place)) };
}

const least = (values: readonly number[]) =>
  values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);

/** The triangles of a solid that are turned to the eye, on the screen, with the edges that are drawn. */
function facesToTheEye({ mesh, tint }: Solid): readonly Face<Tint>[] {
  const points = mesh.vertices.map(project);
  const edges = new Set<string>();
  for (let i = 0; i < mesh.edges.length; i += 2) edges.add(pairOf(at(mesh.edges, i), at(mesh.edges, i + 1)));
  const faces: Face<Tint>[] = [];
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const corners = [0, 1, 2].map((k) => at(mesh.triangles, i + k));
    const [a, b, c] = [at(points, at(corners, 0)), at(points, at(corners, 1)), at(points, at(corners, 2))];
    // y runs down the screen, so a face turned to the eye runs clockwise in plain coordinates.
    if ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) >= 0) continue;
    const drawn = corners.map((corner, k) => edges.has(pairOf(corner, at(corners, (k + 1) % 3))));
    faces.push({ points: [a, b, c], drawn, tag: tint });
  }
  return faces;
}

const pairOf = (a: number, b: number) => `${Math.min(a, b)}|${Math.max(a, b)}`;

function faceItems({ points, drawn, tag }: Face<Tint>, place: (p: Vec3) => Vec2): readonly DrawItem[] {
  const placed = points.map(place);
  const items: DrawItem[] = [{ kind: "polygon", points: placed, stroke: null, fill: tag }];
  placed.forEach((from, i) => {
    if (!drawn[i]) return;
    items.push({
      kind: "line",
      from,
      to: at(placed, (i + 1) % placed.length),
      stroke: { ink: "ink", width: 0.6 },
    });
  });
  return items;
}
