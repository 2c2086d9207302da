/**
 * A plate of any outline with box-shaped cuts, as a mesh: between two levels where a cut starts or ends it is the same all the
 * way up, so each such layer is one region of the plane, and the faces between two layers are what one has and the other has not.
 */
import earcut from "earcut";
import { at } from "../kernel";
import type { BoxCut, Mesh } from "./mesh";
import type { Polygon } from "./polygon";
import { type Region, within, without } from "./regions";
import type { Vec2, Vec3 } from "./vector";

/** A corner that turns by less than this is part of an arc, and no edge is drawn up from it. */
const SMOOTH = (25 * Math.PI) / 180;

/** A plate from z = 0 to `height`; its outline runs anticlockwise. */
export function plateMesh(outline: Polygon, height: number, cuts: readonly BoxCut[]): Mesh {
  const levels = [0, height, ...cuts.flatMap((cut) => [cut.from[2], cut.to[2]])]
    .map((level) => Math.min(Math.max(level, 0), height))
    .sort((a, b) => a - b)
    .filter((level, i, all) => i === 0 || level - at(all, i - 1) > 1e-6);
  const layers = levels.slice(1).map((high, i) => {
    const low = at(levels, i);
    const middle = (low + high) / 2;
    const open = cuts.filter((cut) => cut.from[2] < middle && cut.to[2] > middle);
    const taken = open.map(
      ({ from, to }): Polygon => [
        [from[0], from[1]],
        [to[0], from[1]],
        [to[0], to[1]],
        [from[0], to[1]],
      ],
    );
    return { low, high, taken, rings: without([outline], taken).rings };
  });
  const plate = new PlateBuilder();
  for (const { low, high, rings } of layers) for (const ring of rings) plate.wall(ring, low, high);
  levels.forEach((level, i) => {
    const [below, above] = [layers[i - 1], layers[i]];
    // By what is taken from the other layer, not by its rings: their corners lie a rounding beside the edges that they part,
    // and a difference of two regions with nearly the same edges comes out wrong.
    const facing = (own: typeof below, other: typeof below) =>
      own ? (other ? within(own.rings, other.taken) : without(own.rings, [])).regions : [];
    for (const region of facing(below, above)) plate.cap(region, level, true);
    for (const region of facing(above, below)) plate.cap(region, level, false);
  });
  return plate.mesh();
}

class PlateBuilder {
  private readonly vertices: Vec3[] = [];
  private readonly indexOf = new Map<string, number>();
  private readonly triangles: number[] = [];
  private readonly edges = new Map<string, readonly [number, number]>();

  private vertex(point: Vec3): number {
    const key = point.join(",");
    const known = this.indexOf.get(key);
    if (known !== undefined) return known;
    this.indexOf.set(key, this.vertices.length);
    return this.vertices.push(point) - 1;
  }

  private edge(a: number, b: number): void {
    this.edges.set(a < b ? `${a}|${b}` : `${b}|${a}`, [a, b]);
  }

  wall(ring: readonly Vec2[], low: number, high: number): void {
    const n = ring.length;
    ring.forEach((from, i) => {
      const [before, to] = [at(ring, (i + n - 1) % n), at(ring, (i + 1) % n)];
      const [a, b] = [this.vertex([from[0], from[1], low]), this.vertex([to[0], to[1], low])];
      const [c, d] = [this.vertex([to[0], to[1], high]), this.vertex([from[0], from[1], high])];
      this.triangles.push(a, b, c, a, c, d);
      const [inward, outward] = [
        Math.atan2(from[1] - before[1], from[0] - before[0]),
        Math.atan2(to[1] - from[1], to[0] - from[0]),
      ];
      const turn = Math.abs(Math.atan2(Math.sin(outward - inward), Math.cos(outward - inward)));
      if (turn > SMOOTH) this.edge(a, d);
    });
  }

  cap({ outer, holes }: Region, level: number, up: boolean): void {
    const rings = [outer, ...holes];
    const flat = rings.flat();
    const starts = holes.map((_, i) => rings.slice(0, i + 1).reduce((sum, ring) => sum + ring.length, 0));
    const index = flat.map(([x, y]) => this.vertex([x, y, level]));
    const found = earcut(flat.flat(), starts);
    for (let i = 0; i < found.length; i += 3) {
      const [a, b, c] = [at(found, i), at(found, i + 1), at(found, i + 2)].map((k) => at(index, k)) as [
        number,
        number,
        number,
      ];
      if (this.runsLeft(a, b, c) === up) this.triangles.push(a, b, c);
      else this.triangles.push(c, b, a);
    }
    for (const ring of rings)
      ring.forEach((from, i) => {
        const to = at(ring, (i + 1) % ring.length);
        this.edge(this.vertex([from[0], from[1], level]), this.vertex([to[0], to[1], level]));
      });
  }

  private runsLeft(a: number, b: number, c: number): boolean {
    const [p, q, r] = [at(this.vertices, a), at(this.vertices, b), at(this.vertices, c)];
    return (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]) > 0;
  }

  mesh(): Mesh {
    return { vertices: this.vertices, triangles: this.triangles, edges: [...this.edges.values()].flat() };
  }
}
