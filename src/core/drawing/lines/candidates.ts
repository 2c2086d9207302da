/** What of solids can be seen in a view: faces that are turned to the viewer, and the lines that may be drawn. */
import {
  cross,
  dot,
  type Ellipse,
  type Frame,
  type Solid,
  type SolidLine,
  subtract,
  type Vec2,
  type Vec3,
} from "../../geometry";
import { at, remembersEach } from "../../kernel";

/** A solid as it stands in the axes of the view (right, up, towards the viewer); `frame` may be left-handed. */
export type SeenSolid = {
  readonly solid: Solid;
  readonly frame: Frame;
  /** mm. How far facets of its roundings may stand before its own silhouettes. */
  readonly round: number;
};

/** `outline`: one of its two faces is turned to the viewer; `edge`: both are; `crease`: the middle of a rounded corner. */
export type SeenKind = "outline" | "edge" | "crease";

/** Faces turned to the viewer, in flat arrays. All are convex, anticlockwise on the paper. */
export type Occluders = {
  readonly count: number;
  /** Four numbers a face: its normal, and how far its plane lies along it. */
  readonly planes: Float64Array;
  /** The first corner of each face, and one past the last of all. */
  readonly starts: Int32Array;
  /** Three numbers an edge of a face: a x + b y + c is the distance inside of it. */
  readonly edges: Float64Array;
  /** Four numbers a face: least x and y, most x and y. */
  readonly boxes: Float64Array;
  /** How far towards the viewer each face reaches. */
  readonly tops: Float64Array;
  /** The solid that each face belongs to. */
  readonly owners: Int32Array;
};

/** An ellipse on the paper: centre + u cos φ + v sin φ. One object for all chords of one curve. */
export type FlatEllipse = { readonly centre: Vec2; readonly u: Vec2; readonly v: Vec2 };
/** A piece of one, from an angle to another in radians. */
export type Arc = { readonly on: FlatEllipse; readonly from: number; readonly to: number };

export type Candidate = {
  readonly from: Vec3;
  readonly to: Vec3;
  readonly kind: SeenKind;
  readonly owner: number;
  /** The curve that it is a chord of; null: it is straight, or the curve is seen edge-on. */
  readonly arc: Arc | null;
  /** mm. How far that curve bows out beside it. */
  readonly bow: number;
  /** It is a silhouette of a round surface, which its own facets lie beside. */
  readonly isSmooth: boolean;
  /** No face of its own solid can lie before it. */
  readonly isOutermost: boolean;
};

/** n · towards. Below this a face is seen edge-on and hides nothing, and no line is drawn for it alone. */
const FRONT = 1e-5;
/** A crease is drawn only where the flats on both sides are seen. */
const CREASE = 0.02;
/** An ellipse so many times flatter than it is long is a line. */
const EDGE_ON = 1e-3;
/** Imported shapes can be so large that looking for their outermost lines takes longer than it saves. */
const MOST_REACHES = 1_000_000;
/** mm². Thinner faces hide nothing. */
const LEAST_AREA = 1e-9;

/** Millions of numbers one after the other, in one array that grows. */
class Numbers {
  private array = new Float64Array(1 << 12);
  length = 0;

  /** Adds one number, or as many as are given. */
  add(a: number, b?: number, c?: number): void {
    if (this.length + 3 > this.array.length) {
      const larger = new Float64Array(2 * this.array.length);
      larger.set(this.array);
      this.array = larger;
    }
    this.array[this.length++] = a;
    if (b !== undefined) this.array[this.length++] = b;
    if (c !== undefined) this.array[this.length++] = c;
  }

  all(): Float64Array {
    return this.array.subarray(0, this.length);
  }
}

/** What of solids can be seen: worked out once for all that a view is asked for. */
export type Candidates = {
  readonly occluders: Occluders;
  readonly candidates: readonly Candidate[];
};

export function candidatesOf(solids: readonly SeenSolid[]): Candidates {
  const [planes, edges, boxes, tops] = [new Numbers(), new Numbers(), new Numbers(), new Numbers()];
  const starts: number[] = [0];
  const owners: number[] = [];
  const candidates: Candidate[] = [];
  const turnedOf = createTurning();
  for (const [owner, { solid, frame }] of solids.entries()) {
    const seen = turnedOf(solid, frame);
    const [x, y, z] = frame.origin;
    for (const { plane, edges: sides, box, top } of seen.faces) {
      const [nx, ny, nz, d] = plane;
      planes.add(nx, ny, nz);
      planes.add(d + nx * x + ny * y + nz * z);
      for (const [ex, ey, c] of sides) edges.add(ex, ey, c - ex * x - ey * y);
      starts.push(edges.length / 3);
      boxes.add(box[0] + x, box[1] + y);
      boxes.add(box[2] + x, box[3] + y);
      tops.add(top + z);
      owners.push(owner);
    }
    const points = seen.points.map(([px, py, pz]): Vec3 => [px + x, py + y, pz + z]);
    const curves = seen.curves.map(
      (curve): FlatEllipse | null =>
        curve && { centre: [curve.centre[0] + x, curve.centre[1] + y], u: curve.u, v: curve.v },
    );
    for (const { from, to, kind, curve, bow, isSmooth, isOutermost } of seen.lines) {
      const on = curve === null ? null : at(curves, curve.of);
      candidates.push({
        from: at(points, from),
        to: at(points, to),
        kind,
        owner,
        arc: curve === null || !on ? null : { on, from: curve.from, to: curve.to },
        bow,
        isSmooth,
        isOutermost,
      });
    }
  }
  return {
    occluders: {
      count: owners.length,
      planes: planes.all(),
      starts: Int32Array.from(starts),
      edges: edges.all(),
      boxes: boxes.all(),
      tops: tops.all(),
      owners: Int32Array.from(owners),
    },
    candidates,
  };
}

/** What is seen of a solid that is turned to the viewer and not yet moved to its place. */
type Turned = {
  /** Only those that lines need. */
  readonly points: readonly Vec3[];
  readonly faces: readonly {
    readonly plane: readonly [nx: number, ny: number, nz: number, d: number];
    readonly edges: readonly Vec3[];
    readonly box: readonly [left: number, low: number, right: number, high: number];
    readonly top: number;
  }[];
  readonly curves: readonly (FlatEllipse | null)[];
  readonly lines: readonly (Pick<SolidLine, "from" | "to" | "curve"> &
    Pick<Candidate, "kind" | "bow" | "isSmooth" | "isOutermost">)[];
};

/** Pieces that share a solid and stand the same way differ by their place alone: what is seen of them is worked out once. */
function createTurning(): (solid: Solid, frame: Frame) => Turned {
  const known = new Map<Solid, { readonly frame: Frame; readonly seen: Turned }[]>();
  return (solid, frame) => {
    const ways = known.get(solid) ?? [];
    const before = ways.find((way) => AXES.every((axis) => isSame(way.frame[axis], frame[axis])));
    if (before) return before.seen;
    const seen = turnedSolid(solid, frame);
    known.set(solid, [...ways, { frame, seen }]);
    return seen;
  };
}

const AXES = ["x", "y", "z"] as const;
const isSame = (a: Vec3, b: Vec3) => a[0] === b[0] && a[1] === b[1] && a[2] === b[2];

function turnedSolid(solid: Solid, frame: Frame): Turned {
  const points = solid.points.map((point) => turned(frame, point));
  // How far each normal turns to the viewer: most say only that their face is not seen.
  const facing = facingOf(solid.normals, frame);
  const faces: Turned["faces"][number][] = [];
  for (const { corners, normal } of solid.faces) {
    if ((facing[normal] ?? 0) <= FRONT) continue;
    const area = flatArea(corners, points);
    if (Math.abs(area) < LEAST_AREA) continue;
    const n = turned(frame, at(solid.normals, normal));
    const plane = [...n, dot(n, at(points, at(corners, 0)))] as const;
    faces.push({ plane, edges: edgesOf(corners, points, area > 0), ...extentOf(corners, points) });
  }
  const isOutermost = outermostLines(solid, facing);
  const used = new Map<number, number>();
  const place = (point: number) => {
    const known = used.get(point) ?? used.size;
    used.set(point, known);
    return known;
  };
  const lines: Turned["lines"][number][] = [];
  for (const line of solid.lines) {
    const kind = kindSeen(line, facing);
    if (kind === null) continue;
    // What bounds a hollow lies behind its other side: its silhouettes are never seen.
    if (kind === "outline" && line.kind !== "sharp" && isHollow(solid, line)) continue;
    lines.push({
      from: place(line.from),
      to: place(line.to),
      kind,
      curve: line.curve,
      bow: bowOf(solid, line),
      isSmooth: line.kind === "smooth",
      isOutermost: isOutermost(line),
    });
  }
  return {
    points: [...used.keys()].map((point) => at(points, point)),
    faces,
    curves: solid.curves.map((curve) => flatEllipse(frame, curve)),
    lines,
  };
}

/** mm. Planes that nothing of a solid stands farther out than by this have it behind them. */
const BEHIND_MM = 1e-6;
/** How far a solid reaches along each of its normals; found once. */
const reaches = remembersEach<Solid, Float64Array>();

function reachesOf({ points, normals }: Solid): Float64Array {
  const far = new Float64Array(normals.length).fill(Number.NEGATIVE_INFINITY);
  for (const [i, [x, y, z]] of normals.entries()) {
    let most = Number.NEGATIVE_INFINITY;
    for (const point of points) {
      const one = x * point[0] + y * point[1] + z * point[2];
      if (one > most) most = one;
    }
    far[i] = most;
  }
  return far;
}

/**
 * Which lines of a solid none of its own faces can lie before: those in a plane that is turned to the viewer and has all of
 * the solid behind it. Of walls and flats that is nearly every line that is seen.
 */
function outermostLines(solid: Solid, facing: Float64Array): (line: SolidLine) => boolean {
  if (solid.points.length * solid.normals.length > MOST_REACHES) return () => false;
  const far = reaches(solid, [], () => reachesOf(solid));
  const isFarthest = (normal: number, from: number) =>
    (facing[normal] ?? 0) > FRONT &&
    dot(at(solid.normals, normal), at(solid.points, from)) >= at(far, normal) - BEHIND_MM;
  return ({ normals: [a, b], from }) => isFarthest(a, from) || isFarthest(b, from);
}

/** What of each normal points towards the viewer, who looks along the third axis. */
function facingOf(normals: readonly Vec3[], { x, y, z }: Frame): Float64Array {
  const facing = new Float64Array(normals.length);
  for (const [i, [a, b, c]] of normals.entries()) facing[i] = a * x[2] + b * y[2] + c * z[2];
  return facing;
}

function turned({ x, y, z }: Frame, [a, b, c]: Vec3): Vec3 {
  return [a * x[0] + b * y[0] + c * z[0], a * x[1] + b * y[1] + c * z[1], a * x[2] + b * y[2] + c * z[2]];
}

/** The box of a face on the paper, and how far it reaches towards the viewer. */
function extentOf(
  corners: readonly number[],
  points: readonly Vec3[],
): Pick<Turned["faces"][number], "box" | "top"> {
  let left = Number.POSITIVE_INFINITY;
  let low = Number.POSITIVE_INFINITY;
  let right = Number.NEGATIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  let top = Number.NEGATIVE_INFINITY;
  for (const corner of corners) {
    const [x, y, z] = at(points, corner);
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < low) low = y;
    if (y > high) high = y;
    if (z > top) top = z;
  }
  return { box: [left, low, right, high], top };
}

function flatArea(corners: readonly number[], points: readonly Vec3[]): number {
  let sum = 0;
  let a = at(points, at(corners, corners.length - 1));
  for (const corner of corners) {
    const b = at(points, corner);
    sum += a[0] * b[1] - b[0] * a[1];
    a = b;
  }
  return sum / 2;
}

/** The edges of a face, anticlockwise on the paper, whichever way its corners run. */
function edgesOf(
  corners: readonly number[],
  points: readonly Vec3[],
  isAnticlockwise: boolean,
): readonly Vec3[] {
  const edges: Vec3[] = [];
  let p = at(points, at(corners, corners.length - 1));
  for (const corner of corners) {
    const q = at(points, corner);
    const [a, b] = isAnticlockwise ? [p, q] : [q, p];
    p = q;
    const x = b[0] - a[0];
    const y = b[1] - a[1];
    const size = Math.sqrt(x * x + y * y);
    // Corners that fall together bound nothing.
    if (size < 1e-12) continue;
    edges.push([-y / size, x / size, (y * a[0] - x * a[1]) / size]);
  }
  return edges;
}

function kindSeen({ kind, normals: [a, b] }: SolidLine, facing: Float64Array): SeenKind | null {
  const first = facing[a] ?? 0;
  const second = facing[b] ?? 0;
  const front = Number(first > FRONT) + Number(second > FRONT);
  if (kind === "crease") return first > CREASE && second > CREASE ? "crease" : front === 1 ? "outline" : null;
  if (front === 1) return "outline";
  return front === 2 && kind === "sharp" ? "edge" : null;
}

/** Whether the two faces of a line turn towards one another; both run round the line as a right hand does. */
function isHollow({ points, normals }: Solid, line: SolidLine): boolean {
  const around = cross(at(normals, line.normals[0]), at(normals, line.normals[1]));
  return dot(around, subtract(at(points, line.to), at(points, line.from))) < 0;
}

/** An ellipse as it is seen before it is moved to its place; null where it is seen edge-on, as a line. */
function flatEllipse(frame: Frame, { centre, u, v }: Ellipse): FlatEllipse | null {
  const flat = (vector: Vec3): Vec2 => {
    const [x, y] = turned(frame, vector);
    return [x, y];
  };
  const [a, b] = [flat(u), flat(v)];
  const [long, area] = [Math.max(Math.hypot(...a), Math.hypot(...b)), Math.abs(a[0] * b[1] - a[1] * b[0])];
  return area < EDGE_ON * long * long ? null : { centre: flat(centre), u: a, v: b };
}

function bowOf({ curves }: Solid, { curve }: SolidLine): number {
  if (curve === null) return 0;
  const { u, v } = at(curves, curve.of);
  const radius = Math.max(Math.hypot(...u), Math.hypot(...v));
  return radius * (1 - Math.cos((curve.to - curve.from) / 2));
}
