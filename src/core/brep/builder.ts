/** What borders are put together from: points, edges and faces, and the loops of level faces. */
import { isInside, type Vec2, type Vec3 } from "../geometry";
import { at } from "../kernel";
import type { BrepCurve, BrepEdge, BrepFace, BrepUse } from "./brep";

export class Builder {
  readonly points: Vec3[] = [];
  readonly edges: BrepEdge[] = [];
  readonly faces: BrepFace[] = [];

  point(place: Vec3): number {
    return this.points.push(place) - 1;
  }

  edge(from: number, to: number, curve: BrepCurve): number {
    return this.edges.push({ from, to, curve }) - 1;
  }
}

/** A loop the other way round. */
export const backwards = (uses: readonly BrepUse[]): BrepUse[] =>
  uses.toReversed().map(({ edge, ahead }) => ({ edge, ahead: !ahead }));

type UsedLoop = readonly BrepUse[];

/** Each outer loop of a flat face with the holes in it; null: a hole lies in none. */
export function withHoles(
  made: Builder,
  outer: readonly UsedLoop[],
  holes: readonly UsedLoop[],
): readonly (readonly UsedLoop[])[] | null {
  const faces = outer.map((uses) => ({ ring: ringOfUses(made, uses), loops: [uses] }));
  for (const uses of holes) {
    const around = faces.find(({ ring }) => isInside(ring, at(ringOfUses(made, uses), 0)));
    if (!around) return null;
    around.loops.push(uses);
  }
  return faces.map(({ loops }) => loops);
}

/** Points along a loop, seen along the bar; curved edges with some between. */
export function ringOfUses(made: Builder, uses: UsedLoop): readonly Vec2[] {
  return uses.flatMap(({ edge, ahead }): readonly Vec2[] => {
    const { from, to, curve } = at(made.edges, edge);
    const [a, b] = [at(made.points, from), at(made.points, to)];
    const [first, last] = ahead ? [a, b] : [b, a];
    // A face in planes has no edges on splines.
    if (curve.kind !== "ellipse") return [[first[0], first[1]]];
    const { centre, short } = curve;
    const angle = (p: Vec3) => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
    const isLeft = curve.ahead === ahead;
    const turn = 2 * Math.PI;
    const swept = (((angle(last) - angle(first)) % turn) + turn) % turn;
    const sweep = isLeft ? swept || turn : swept - turn;
    return Array.from({ length: 12 }, (_, i): Vec2 => {
      const now = angle(first) + (sweep * i) / 12;
      return [centre[0] + short * Math.cos(now), centre[1] + short * Math.sin(now)];
    });
  });
}
