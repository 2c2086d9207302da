/** A job as a small picture: the lines that are seen of it from the front left and above. */
import { AT_HOME, boxOfPoints, solidOfMesh, toWorld, type Vec2, type Vec3 } from "../geometry";
import { type Assets, NO_ASSETS } from "../job";
import type { Shape } from "../shape";
import type { DrawItem, Drawing } from "./display";
import {
  inView,
  linePaths,
  seenPieces,
  type ViewLine,
  type ViewLineKind,
  viewFrom,
  viewLines,
} from "./lines";

/** As the picture on the desk is first seen. */
const DIRECTION: Vec3 = [-0.62, -1, 0.62];
/** Above this a small picture shows nothing of single pieces, and is only costly. */
const MOST_SOLIDS = 600;
/** Of more members than these nobody sees the roundings. */
const FINE_UP_TO = 60;
/** Without its creases a tube with rounded corners would be a blank strip. */
const WIDTHS: Readonly<Partial<Record<ViewLineKind, number>>> = { outline: 0.9, edge: 0.5, crease: 0.3 };

/** Draws a shape into a box; an empty shape gives an empty drawing. */
export function thumbnail(shape: Shape, width: number, height: number, assets: Assets = NO_ASSETS): Drawing {
  const view = viewFrom(DIRECTION);
  const plain = shape.members.length > FINE_UP_TO;
  const lines = viewLines(seenPieces(shape, view, { assets, most: MOST_SOLIDS, plain }));
  if (lines.length === 0) return { width, height, items: [] };
  return { width, height, items: drawnLines(lines, fitting(lines, width, height)) };
}

/**
 * Triangles (nine numbers each, in mm) as a small picture, seen as a thumbnail is, with what is hidden left out; `marked`:
 * lines through places of it that are drawn strongly over all.
 */
export function shapePicture(
  triangles: readonly number[],
  marked: readonly (readonly Vec3[])[],
  width: number,
  height: number,
): Drawing {
  const view = viewFrom(DIRECTION);
  const frame = inView(view, AT_HOME.frame);
  const corner = (i: number): Vec3 => [triangles[i] ?? 0, triangles[i + 1] ?? 0, triangles[i + 2] ?? 0];
  const vertices = Array.from({ length: triangles.length / 3 }, (_, i) => corner(3 * i));
  const solid = solidOfMesh({
    vertices,
    triangles: [...vertices.keys()],
    edges: [],
  });
  const lines = viewLines([{ solid, frame, round: 0 }]);
  if (lines.length === 0) return { width, height, items: [] };
  const place = fitting(lines, width, height);
  const onPaper = (point: Vec3): Vec2 => {
    const [x, y] = toWorld(frame, point);
    return place([x, y]);
  };
  const rims = marked.flatMap((points) =>
    points.map((point, i): DrawItem => {
      const next = points[(i + 1) % points.length] ?? point;
      return { kind: "line", from: onPaper(point), to: onPaper(next), stroke: { ink: "oxide", width: 2 } };
    }),
  );
  return { width, height, items: [...drawnLines(lines, place), ...rims] };
}

/** Lines of a view, each kind as wide as it is drawn in small pictures. */
function drawnLines(lines: readonly ViewLine[], place: (place: Vec2) => Vec2): readonly DrawItem[] {
  return (Object.entries(WIDTHS) as [ViewLineKind, number][]).flatMap(([kind, wide]): DrawItem[] => {
    const paths = linePaths(
      lines.filter((line) => line.kind === kind),
      place,
    );
    return paths.length === 0
      ? []
      : [{ kind: "paths", paths, stroke: { ink: "ink", width: wide }, fill: null }];
  });
}

/** Where a place of the view comes to lie in a box that all lines fit in, y downwards. */
function fitting(lines: readonly ViewLine[], width: number, height: number): (place: Vec2) => Vec2 {
  const { x0, y0, x1, y1 } = boxOfPoints(lines.flatMap(({ from, to }) => [from, to]));
  const scale = 0.92 * Math.min(width / (x1 - x0 || 1), height / (y1 - y0 || 1));
  return ([x, y]) => [(x - (x0 + x1) / 2) * scale + width / 2, ((y0 + y1) / 2 - y) * scale + height / 2];
}
