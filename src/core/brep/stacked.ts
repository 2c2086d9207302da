/**
 * A bar along z whose section changes at levels, exact: grooves and rebates of a panel, notches across the ends of a member. Between two
 * levels it is a prism; prisms that stand on one another share the edges that they have in common, and where one of them reaches
 * beyond the other a level face closes it.
 */
import {
  endOf,
  type Loop,
  loopArea,
  polygonArea,
  reach,
  type Segment,
  startOf,
  type Vec2,
  withCorners,
} from "../geometry";
import { at } from "../kernel";
import type { Brep, BrepUse } from "./brep";
import { Builder, ringOfUses, withHoles } from "./builder";
import { type BarFace, curveOf, type EndEdge, endFace, type FlatEnd, inParts, walls } from "./prism";

/** mm. Places on a level that are nearer than this are one. */
const SAME = 1e-6;
/** mm. An end must stand so far from the next level. */
const CLEAR = 1e-3;

/**
 * `sections`: the loops between two levels each, from the start to the end, one more than `levels`, which rise. Of neighbours one
 * must lie within the other. Null: an end reaches over a level, or borders touch one another in a corner.
 */
export function stackedBrep(
  sections: readonly (readonly Loop[])[],
  levels: readonly number[],
  start: FlatEnd,
  end: FlatEnd,
): Brep | null {
  const whole = sections.flat();
  if (sections.some((loops) => loops.length === 0) || sections.length !== levels.length + 1) return null;
  if (levels.length > 0) {
    const [low, high] = [at(levels, 0), at(levels, levels.length - 1)];
    if (reachUp(start, whole, 1) > low - CLEAR || -reachUp(end, whole, -1) < high + CLEAR) return null;
  }
  const corners = whole.flatMap((loop) => loop.flatMap((segment) => [startOf(segment), endOf(segment)]));
  const layers = sections.map((loops) => withCorners(loops, corners).map(inParts));
  const made = new Builder();
  const floors = levels.map(
    (level, i) => new LevelFace(made, level, areaOf(at(layers, i)) > areaOf(at(layers, i + 1))),
  );
  const faces: readonly BarFace[] = [endFace(made, start, -1), ...floors, endFace(made, end, 1)];
  for (const [i, loops] of layers.entries()) {
    for (const loop of loops) if (!walls(made, loop, at(faces, i), at(faces, i + 1))) return null;
    floors[i]?.upper();
  }
  for (const face of faces) if (!face.close()) return null;
  return { points: made.points, edges: made.edges, faces: made.faces, isFaceted: false };
}

const areaOf = (loops: readonly Loop[]) => loops.reduce((sum, loop) => sum + loopArea(loop), 0);

/** The greatest height (sign 1) or the greatest depth (sign −1) of the planes of an end over some loops. */
const reachUp = (end: FlatEnd, loops: readonly Loop[], sign: 1 | -1): number =>
  Math.max(
    ...end.flatMap(({ height, slope }) =>
      loops.map((loop) => sign * height + reach(loop, [sign * slope[0], sign * slope[1]])),
    ),
  );

/** Where two prisms stand on one another: first the end of the lower one, then, after `upper`, that of the upper one. */
class LevelFace implements BarFace {
  private readonly corners: { readonly place: Vec2; readonly point: number }[] = [];
  /** Edges that one of the two prisms alone has, in the direction in which the face uses them. */
  private readonly open = new Map<string, BrepUse>();
  private readonly made: Builder;
  private readonly level: number;
  /** The lower prism reaches beyond the upper one, so that the face looks up. */
  private readonly isUp: boolean;
  private isLower = true;

  constructor(made: Builder, level: number, isUp: boolean) {
    this.made = made;
    this.level = level;
    this.isUp = isUp;
  }

  upper(): void {
    this.isLower = false;
  }

  corner(place: Vec2): number {
    const known = this.corners.find(
      ({ place: [x, y] }) => Math.abs(x - place[0]) < SAME && Math.abs(y - place[1]) < SAME,
    );
    if (known) return known.point;
    const point = this.made.point([place[0], place[1], this.level]);
    this.corners.push({ place, point });
    return point;
  }

  along(segment: Segment, from: number, to: number): readonly EndEdge[] {
    const key = `${segment.kind} ${from} ${to}`;
    const shared = this.open.get(key);
    if (shared && !this.isLower) {
      this.open.delete(key);
      return [{ edge: shared.edge, plane: 0 }];
    }
    const edge = this.made.edge(from, to, curveOf(segment, { height: this.level, slope: [0, 0] }));
    this.open.set(key, { edge, ahead: this.isLower });
    return [{ edge, plane: 0 }];
  }

  loop(): void {}

  close(): boolean {
    const startOfUse = ({ edge, ahead }: BrepUse) => at(this.made.edges, edge)[ahead ? "from" : "to"];
    const endOfUse = ({ edge, ahead }: BrepUse) => at(this.made.edges, edge)[ahead ? "to" : "from"];
    const after = new Map<number, BrepUse>();
    for (const use of this.open.values()) {
      // Borders that touch in a corner cannot be told apart.
      if (after.has(startOfUse(use))) return false;
      after.set(startOfUse(use), use);
    }
    const outer: BrepUse[][] = [];
    const holes: BrepUse[][] = [];
    while (after.size > 0) {
      const [first] = after.keys();
      const loop: BrepUse[] = [];
      for (let corner = first as number; loop.length === 0 || corner !== first; ) {
        const use = after.get(corner);
        if (!use) return false;
        after.delete(corner);
        loop.push(use);
        corner = endOfUse(use);
      }
      const turn = polygonArea(ringOfUses(this.made, loop));
      (turn > 0 === this.isUp ? outer : holes).push(loop);
    }
    const faces = withHoles(this.made, outer, holes);
    for (const loops of faces ?? [])
      this.made.faces.push({
        surface: { kind: "plane", on: [0, 0, this.level], normal: [0, 0, this.isUp ? 1 : -1] },
        loops,
      });
    return faces !== null;
  }
}
