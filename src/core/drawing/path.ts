/** Paths of straight lines and arcs, and what the writers need of them. */
import { type BulgedCorner, edgesOf, type Vec2 } from "../geometry";
import { at } from "../kernel";

/** A piece of an ellipse: centre + u cos φ + v sin φ, from one angle to another in radians, either way round. */
export type EllipseSegment = {
  readonly kind: "ellipse";
  readonly centre: Vec2;
  readonly u: Vec2;
  readonly v: Vec2;
  readonly from: number;
  readonly to: number;
};

export type PathSegment = { readonly kind: "line"; readonly to: Vec2 } | EllipseSegment;

/** Segments head to tail; a closed path runs back to its start by a straight line where it does not end there. */
export type Path = {
  readonly from: Vec2;
  readonly segments: readonly PathSegment[];
  readonly closed: boolean;
};

export const onEllipse = (
  { centre, u, v }: Pick<EllipseSegment, "centre" | "u" | "v">,
  angle: number,
): Vec2 => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [centre[0] + u[0] * c + v[0] * s, centre[1] + u[1] * c + v[1] * s];
};

export const endOfSegment = (segment: PathSegment): Vec2 =>
  segment.kind === "line" ? segment.to : onEllipse(segment, segment.to);

/** A whole circle. */
export function circlePath(centre: Vec2, radius: number): Path {
  const circle: EllipseSegment = {
    kind: "ellipse",
    centre,
    u: [radius, 0],
    v: [0, radius],
    from: 0,
    to: 2 * Math.PI,
  };
  return { from: [centre[0] + radius, centre[1]], segments: [circle], closed: true };
}

/** A closed outline of corners with bulges (DXF group code 42), its places changed by `move`, which may mirror them. */
export function pathOfCorners(
  corners: readonly BulgedCorner[],
  move: (place: Vec2) => Vec2 = (p) => p,
): Path {
  const segments = edgesOf(corners).map((edge): PathSegment => {
    if (edge.kind === "line") return { kind: "line", to: move(edge.to) };
    const centre = move(edge.centre);
    const along = (x: number, y: number): Vec2 => {
      const [px, py] = move([edge.centre[0] + x, edge.centre[1] + y]);
      return [px - centre[0], py - centre[1]];
    };
    const { radius, start, sweep } = edge;
    return {
      kind: "ellipse",
      centre,
      u: along(radius, 0),
      v: along(0, radius),
      from: start,
      to: start + sweep,
    };
  });
  const [first] = corners;
  return { from: first ? move([first[0], first[1]]) : [0, 0], segments, closed: true };
}

/** A path made larger or smaller about [0, 0], then moved. */
export function placedPath({ from, segments, closed }: Path, scale: number, by: Vec2): Path {
  const place = ([x, y]: Vec2): Vec2 => [x * scale + by[0], y * scale + by[1]];
  const size = ([x, y]: Vec2): Vec2 => [x * scale, y * scale];
  return {
    from: place(from),
    segments: segments.map((one) =>
      one.kind === "line"
        ? { kind: "line", to: place(one.to) }
        : { ...one, centre: place(one.centre), u: size(one.u), v: size(one.v) },
    ),
    closed,
  };
}

/** The half axes of an ellipse, the longer one first, and the angle of that one; from any two conjugate half diameters. */
export function axesOf({ u, v }: Pick<EllipseSegment, "u" | "v">): {
  readonly major: number;
  readonly minor: number;
  readonly angle: number;
} {
  // The angle φ at which the radius is greatest: tan 2φ = 2 u·v / (u² − v²).
  const [uu, vv, uv] = [u[0] ** 2 + u[1] ** 2, v[0] ** 2 + v[1] ** 2, u[0] * v[0] + u[1] * v[1]];
  const turn = Math.atan2(2 * uv, uu - vv) / 2;
  const [x, y] = onEllipse({ centre: [0, 0], u, v }, turn);
  const [p, q] = onEllipse({ centre: [0, 0], u, v }, turn + Math.PI / 2);
  return { major: Math.hypot(x, y), minor: Math.hypot(p, q), angle: Math.atan2(y, x) };
}

/** Whether a segment lies on a circle. */
export function isRound({ u, v }: Pick<EllipseSegment, "u" | "v">): boolean {
  const { major, minor } = axesOf({ u, v });
  return major - minor < 1e-9 * major;
}

/** Whether an ellipse runs on anticlockwise in plain coordinates as its angle grows. */
export const runsOn = ({ u, v }: Pick<EllipseSegment, "u" | "v">): boolean => u[0] * v[1] - u[1] * v[0] > 0;

/** An ellipse's piece in pieces of at most a quarter turn, as cubic curves: their two middle points and their end. */
export function curvesOf(segment: EllipseSegment): readonly (readonly [Vec2, Vec2, Vec2])[] {
  const { from, to, u, v } = segment;
  const count = Math.max(1, Math.ceil(Math.abs(to - from) / (Math.PI / 2) - 1e-9));
  const step = (to - from) / count;
  const reach = (4 / 3) * Math.tan(step / 4);
  const slope = (angle: number): Vec2 => [
    -u[0] * Math.sin(angle) + v[0] * Math.cos(angle),
    -u[1] * Math.sin(angle) + v[1] * Math.cos(angle),
  ];
  return Array.from({ length: count }, (_, i) => {
    const [a, b] = [from + i * step, from + (i + 1) * step];
    const [p, q, s, t] = [onEllipse(segment, a), onEllipse(segment, b), slope(a), slope(b)];
    return [[p[0] + reach * s[0], p[1] + reach * s[1]], [q[0] - reach * t[0], q[1] - reach * t[1]], q];
  });
}

/** A path as points, its arcs in steps of at most `step` radians. */
export function pointsOf({ from, segments, closed }: Path, step: number): readonly Vec2[] {
  const points = [from];
  for (const segment of segments) {
    if (segment.kind === "line") points.push(segment.to);
    else {
      const count = Math.max(1, Math.ceil(Math.abs(segment.to - segment.from) / step - 1e-9));
      for (let i = 1; i <= count; i++)
        points.push(onEllipse(segment, segment.from + ((segment.to - segment.from) * i) / count));
    }
  }
  const [first, last] = [at(points, 0), at(points, points.length - 1)];
  if (closed && Math.hypot(first[0] - last[0], first[1] - last[1]) > 1e-9) points.push(first);
  return points;
}

/** Paths as the `d` of an SVG path; numbers are written by `write`. */
export function pathData(paths: readonly Path[], write: (value: number) => string): string {
  const place = ([x, y]: Vec2) => `${write(x)} ${write(y)}`;
  return paths
    .map(({ from, segments, closed }) => {
      const parts = segments.flatMap((segment) => {
        if (segment.kind === "line") return [`L${place(segment.to)}`];
        const { major, minor, angle } = axesOf(segment);
        // A whole turn begins where it ends, which an arc of SVG cannot say: every piece is half a turn at most.
        const count = Math.max(1, Math.ceil(Math.abs(segment.to - segment.from) / Math.PI - 1e-9));
        const step = (segment.to - segment.from) / count;
        const sweep = step > 0 === runsOn(segment) ? 1 : 0;
        const turn = (angle * 180) / Math.PI;
        return Array.from({ length: count }, (_, i) => {
          const end = onEllipse(segment, segment.from + (i + 1) * step);
          return `A${write(major)} ${write(minor)} ${write(turn)} 0 ${sweep} ${place(end)}`;
        });
      });
      return `M${place(from)}${parts.join("")}${closed ? "Z" : ""}`;
    })
    .join("");
}
