/**
 * The order in which faces are painted so that near ones cover far ones, by binary space partition
 * (Fuchs, Kedem and Naylor 1980): each face parts the others by its plane, cutting those that cross it.
 * For parallel projection and faces turned to the eye, what lies behind a face's plane comes first.
 */
import { at } from "../kernel";
import { cross, direction, dot, subtract, type Vec3 } from "./vector";

/** A flat convex face; `drawn[i]` tells whether the edge from point i to the next is to be drawn. */
export type Face<T> = {
  readonly points: readonly Vec3[];
  readonly drawn: readonly boolean[];
  readonly tag: T;
};

type Plane = { readonly normal: Vec3; readonly offset: number };

/** mm. Points nearer to a plane than this lie in it: panels that touch must not cut one another. */
const IN_PLANE_MM = 1e-4;

/**
 * Faces back to front for an eye that looks along +z from far away. All must be turned to the eye.
 * Guarantees that no face of the result is covered by an earlier one; faces without area are dropped.
 */
export function paintOrder<T>(faces: readonly Face<T>[]): readonly Face<T>[] {
  const out: Face<T>[] = [];
  // Own stack: a recursion as deep as there are faces could outgrow the call stack.
  const work: ({ readonly faces: readonly Face<T>[] } | { readonly done: readonly Face<T>[] })[] = [
    { faces },
  ];
  for (let next = work.pop(); next; next = work.pop()) {
    if ("done" in next) {
      out.push(...next.done);
      continue;
    }
    const split = partition(next.faces);
    if (!split) continue;
    work.push({ faces: split.front }, { done: split.within }, { faces: split.behind });
  }
  return out;
}

function planeOf(points: readonly Vec3[]): Plane | null {
  const origin = at(points, 0);
  for (let i = 1; i + 1 < points.length; i++) {
    const normal = direction(cross(subtract(at(points, i), origin), subtract(at(points, i + 1), origin)));
    // The eye is at −z; the normal that points to it has a negative z.
    if (normal) {
      const towards: Vec3 = normal[2] > 0 ? [-normal[0], -normal[1], -normal[2]] : normal;
      return { normal: towards, offset: dot(towards, origin) };
    }
  }
  return null;
}

type Parts<T> = { readonly within: Face<T>[]; readonly behind: Face<T>[]; readonly front: Face<T>[] };

/** Parts faces by the plane of the middle one; null when none of them has a plane. */
function partition<T>(faces: readonly Face<T>[]): Parts<T> | null {
  for (let k = 0; k < faces.length; k++) {
    const plane = planeOf(at(faces, (Math.floor(faces.length / 2) + k) % faces.length).points);
    if (!plane) continue;
    const parts: Parts<T> = { within: [], behind: [], front: [] };
    for (const face of faces) place(face, plane, parts);
    return parts;
  }
  return null;
}

function place<T>(face: Face<T>, { normal, offset }: Plane, parts: Parts<T>): void {
  const sides = face.points.map((point) => {
    const distance = dot(normal, point) - offset;
    return Math.abs(distance) < IN_PLANE_MM ? 0 : distance;
  });
  const before = sides.some((side) => side > 0);
  const after = sides.some((side) => side < 0);
  if (before && after) {
    parts.front.push(half(face, sides, 1));
    parts.behind.push(half(face, sides, -1));
  } else if (before) parts.front.push(face);
  else if (after) parts.behind.push(face);
  else parts.within.push(face);
}

/** The part of a face on one side of a plane; the cut itself is no drawn edge. */
function half<T>(face: Face<T>, sides: readonly number[], sign: 1 | -1): Face<T> {
  const points: Vec3[] = [];
  const drawn: boolean[] = [];
  face.points.forEach((from, i) => {
    const j = (i + 1) % face.points.length;
    const [a, b] = [sign * at(sides, i), sign * at(sides, j)];
    const edge = at(face.drawn, i);
    if (a >= 0) {
      points.push(from);
      drawn.push(edge && (a > 0 || b > 0));
    }
    if ((a > 0 && b < 0) || (a < 0 && b > 0)) {
      const to = at(face.points, j);
      const t = a / (a - b);
      points.push([
        from[0] + t * (to[0] - from[0]),
        from[1] + t * (to[1] - from[1]),
        from[2] + t * (to[2] - from[2]),
      ]);
      drawn.push(b > 0 ? edge : false);
    }
  });
  return { points, drawn, tag: face.tag };
}
