/**
 * A solid cut by a plane: what lies beyond it is gone, and the cut is closed by a face of its own, with its outline for
 * hatching. Convex faces are clipped corner by corner (Sutherland and Hodgman 1974, from memory); where they are cut they give
 * the outline of the section, which is chained and filled.
 */
import earcut from "earcut";
import { at, grouped } from "../kernel";
import { isInside, type Polygon, polygonArea } from "./polygon";
import { angleOnChord, lineName, type Solid, type SolidFace, type SolidLine } from "./solid";
import { cross, dot, norm, scale, type Vec2, type Vec3 } from "./vector";
import { welded } from "./weld";

export type CutSolid = {
  /** What is left; null: nothing. */
  readonly solid: Solid | null;
  /** The outlines of the section, holes as well, in the axes of the solid; none where it is not cut. */
  readonly section: readonly (readonly Vec3[])[];
};

/** mm. Corners nearer to the plane lie on it. */
const ON_PLANE = 1e-7;
/** mm. Ends of the outline that come this near meet. */
const MEETING = 1e-5;
/** The name of the face that closes a cut. */
export const CUT = "cut";

/** Keeps what lies where normal · p ≤ offset; the normal has the length 1. */
export function cutSolid(solid: Solid, normal: Vec3, offset: number): CutSolid {
  const heights = solid.points.map((point) => {
    const height = dot(normal, point) - offset;
    return Math.abs(height) < ON_PLANE ? 0 : height;
  });
  if (heights.every((height) => height <= 0)) return { solid, section: [] };
  if (heights.every((height) => height >= 0)) return { solid: null, section: [] };
  const build = new Cutting(solid, heights);
  for (const face of solid.faces) build.face(face);
  for (const line of solid.lines) build.line(line);
  return build.closed(normal);
}

/** A stretch of the section's outline, the inside to its left seen against the normal. */
type Edge = { readonly from: number; readonly to: number; readonly face: SolidFace };

class Cutting {
  private readonly points: Vec3[];
  private readonly faces: SolidFace[] = [];
  private readonly lines: SolidLine[] = [];
  private readonly edges: Edge[] = [];
  private readonly crossings = new Map<string, number>();
  private readonly solid: Solid;
  private readonly heights: readonly number[];

  constructor(solid: Solid, heights: readonly number[]) {
    this.solid = solid;
    this.heights = heights;
    this.points = [...solid.points];
  }

  private height(i: number): number {
    return at(this.heights, i);
  }

  /** The place between two corners on either side of the plane, the same whichever face or line asks. */
  private crossing(a: number, b: number): number {
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const known = this.crossings.get(key);
    if (known !== undefined) return known;
    const [p, q] = [at(this.solid.points, a), at(this.solid.points, b)];
    const t = this.height(a) / (this.height(a) - this.height(b));
    this.points.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]);
    this.crossings.set(key, this.points.length - 1);
    return this.points.length - 1;
  }

  face(face: SolidFace): void {
    const corners: number[] = [];
    let [leaves, enters] = [-1, -1];
    face.corners.forEach((a, i) => {
      const b = at(face.corners, (i + 1) % face.corners.length);
      const [ha, hb] = [this.height(a), this.height(b)];
      if (ha <= 0) corners.push(a);
      if (ha <= 0 && hb > 0) leaves = ha === 0 ? a : this.crossing(a, b);
      if (ha > 0 && hb <= 0) enters = hb === 0 ? b : this.crossing(a, b);
      if (ha < 0 && hb > 0) corners.push(leaves);
      if (ha > 0 && hb < 0) corners.push(enters);
    });
    if (corners.length >= 3) this.faces.push({ ...face, corners });
    if (leaves >= 0 && enters >= 0 && leaves !== enters && corners.length >= 3)
      this.edges.push({ from: enters, to: leaves, face });
  }

  line(line: SolidLine): void {
    const [a, b] = [this.height(line.from), this.height(line.to)];
    if (a > 0 || b > 0) {
      if (a >= 0 && b >= 0) return;
      const place = this.crossing(line.from, line.to);
      const share = a / (a - b);
      const { curve } = line;
      const angle = curve ? angleOnChord(curve, share) : 0;
      if (a > 0) this.lines.push({ ...line, from: place, curve: curve && { ...curve, from: angle } });
      else this.lines.push({ ...line, to: place, curve: curve && { ...curve, to: angle } });
    } else this.lines.push(line);
  }

  closed(normal: Vec3): CutSolid {
    const n = this.solid.normals.length;
    for (const { from, to, face } of this.edges)
      this.lines.push({
        from,
        to,
        normals: [n, face.normal],
        kind: "sharp",
        curve: null,
        name: lineName(CUT, face.name),
      });
    const loops = chained(this.edges, this.points);
    for (const corners of triangles(loops, this.points, normal))
      this.faces.push({ corners, normal: n, name: CUT });
    return {
      solid: {
        points: this.points,
        normals: [...this.solid.normals, normal],
        faces: this.faces,
        lines: this.lines,
        curves: this.solid.curves,
      },
      section: loops.map((loop) => loop.map((i) => at(this.points, i))),
    };
  }
}

/** Stretches head to tail; what does not close is left out. */
function chained(edges: readonly Edge[], points: readonly Vec3[]): readonly (readonly number[])[] {
  const ends = edges.flatMap(({ from, to }) => [from, to]);
  const { indices } = welded(ends.length, (i) => at(points, at(ends, i)), MEETING);
  // Each stretch with the places that it runs between, those that come near to one another as one.
  const stretches = edges.map(({ from }, i) => ({
    from,
    start: at(indices, 2 * i),
    end: at(indices, 2 * i + 1),
  }));
  const open = new Map(
    [...grouped(stretches, ({ start }) => start)].map(([start, all]) => [start, [...all]]),
  );
  const loops: number[][] = [];
  for (;;) {
    const first = [...open.values()].find((one) => one.length > 0)?.pop();
    if (!first) return loops;
    const loop = [first.from];
    let place = first.end;
    while (place !== first.start) {
      const next = open.get(place)?.pop();
      if (!next) break;
      loop.push(next.from);
      place = next.end;
    }
    if (place === first.start && loop.length >= 3) loops.push(loop);
  }
}

/** The section filled: each outer outline with the holes in it. */
function triangles(
  loops: readonly (readonly number[])[],
  points: readonly Vec3[],
  normal: Vec3,
): readonly (readonly number[])[] {
  const aside: Vec3 = Math.abs(normal[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0];
  const across = cross(normal, aside);
  const u = scale(across, 1 / norm(across));
  const v = cross(normal, u);
  const flat = loops.map((loop) => ({
    loop,
    polygon: loop.map((i): Vec2 => [dot(u, at(points, i)), dot(v, at(points, i))]) as Polygon,
  }));
  const outers = flat.filter(({ polygon }) => polygonArea(polygon) > 0);
  const holes = flat.filter(({ polygon }) => polygonArea(polygon) < 0);
  // Of several that lie within one another a hole belongs to the smallest round it.
  const ownerOf = ({ polygon }: (typeof flat)[number]) =>
    outers
      .filter((outer) => isInside(outer.polygon, at(polygon, 0)))
      .sort((a, b) => polygonArea(a.polygon) - polygonArea(b.polygon))[0];
  return outers.flatMap((outer) => {
    const rings = [outer, ...holes.filter((hole) => ownerOf(hole) === outer)];
    const starts = rings
      .slice(1)
      .map((_, i) => rings.slice(0, i + 1).reduce((sum, one) => sum + one.loop.length, 0));
    const all = rings.flatMap(({ loop }) => loop);
    const found = earcut(
      rings.flatMap(({ polygon }) => polygon.flat()),
      starts,
    );
    return Array.from({ length: found.length / 3 }, (_, i) => {
      const corners = [0, 1, 2].map((k) => at(all, at(found, 3 * i + k)));
      const [p, q, r] = corners.map((corner) => at(points, corner)) as [Vec3, Vec3, Vec3];
      const side = dot(
        normal,
        cross([q[0] - p[0], q[1] - p[1], q[2] - p[2]], [r[0] - p[0], r[1] - p[1], r[2] - p[2]]),
      );
      return side >= 0 ? corners : corners.reverse();
    });
  });
}
