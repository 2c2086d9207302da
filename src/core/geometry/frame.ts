/** A place and three square axes: where a member or a panel stands in the job. */
import { add, cross, direction, dot, scale, subtract, type Vec3 } from "./vector";

/** `x`, `y`, `z` are unit vectors, right-handed. */
export type Frame = { readonly origin: Vec3; readonly x: Vec3; readonly y: Vec3; readonly z: Vec3 };

const UP: Vec3 = [0, 0, 1];
const AWAY: Vec3 = [0, 1, 0];
/** sin of about 0.8 degrees: a line this near to plumb takes its reference from the depth of the job. */
const NEARLY_PLUMB = 0.0141;

/** Local coordinates to the job's. */
export function toWorld(frame: Frame, local: Vec3): Vec3 {
  const { origin, x, y, z } = frame;
  return [
    origin[0] + local[0] * x[0] + local[1] * y[0] + local[2] * z[0],
    origin[1] + local[0] * x[1] + local[1] * y[1] + local[2] * z[1],
    origin[2] + local[0] * x[2] + local[1] * y[2] + local[2] * z[2],
  ];
}

/** The job's coordinates to local ones. */
export function toLocal(frame: Frame, world: Vec3): Vec3 {
  const from = subtract(world, frame.origin);
  return [dot(from, frame.x), dot(from, frame.y), dot(from, frame.z)];
}

/**
 * The frame of a line: z runs along it; y is as near to up as it can be (for plumb lines: as near to
 * the job's depth), then both are turned about z by `roll` radians. Null for a line without length.
 */
export function frameAlong(from: Vec3, to: Vec3, roll: number): Frame | null {
  const z = direction(subtract(to, from));
  if (!z) return null;
  const plumb = Math.hypot(z[0], z[1]) < NEARLY_PLUMB;
  const reference = plumb ? AWAY : UP;
  const y0 = direction(subtract(reference, scale(z, dot(reference, z))));
  if (!y0) return null;
  const x0 = cross(y0, z);
  const c = Math.cos(roll);
  const s = Math.sin(roll);
  const x = add(scale(x0, c), scale(y0, s));
  return { origin: from, x, y: cross(z, x), z };
}

/**
 * The frame of a panel: x along its length, z out of its good face (made square to x). Null when the
 * two directions are parallel or have no length.
 */
export function frameOfFace(origin: Vec3, lengthAxis: Vec3, faceAxis: Vec3): Frame | null {
  const x = direction(lengthAxis);
  if (!x) return null;
  const z = direction(subtract(faceAxis, scale(x, dot(faceAxis, x))));
  if (!z || Math.abs(dot(direction(faceAxis) ?? x, x)) > 1 - 1e-9) return null;
  return { origin, x, y: cross(z, x), z };
}

/** A place and three axes that may be mirrored: where an assembly stands in the job. */
export type Pose = { readonly frame: Frame; readonly mirrored: boolean };

export const AT_HOME: Pose = {
  frame: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] },
  mirrored: false,
};

/** A direction of the frame in the job. */
export function turned(frame: Frame, local: Vec3): Vec3 {
  return subtract(toWorld(frame, local), frame.origin);
}

/** A frame as it stands where its own surroundings stand in `outer`; left-handed when `outer` is mirrored. */
export function frameIn(outer: Frame, inner: Frame): Frame {
  return {
    origin: toWorld(outer, inner.origin),
    x: turned(outer, inner.x),
    y: turned(outer, inner.y),
    z: turned(outer, inner.z),
  };
}

/** One pose inside another. */
export function poseIn(outer: Pose, inner: Pose): Pose {
  return { frame: frameIn(outer.frame, inner.frame), mirrored: outer.mirrored !== inner.mirrored };
}

/**
 * The pose of what is first mirrored across one of its axes (0 width, 1 depth, 2 height; null: not at all),
 * then turned about width, depth and height in this order (radians), then moved.
 */
export function posed(at: Vec3, turn: Vec3, mirror: 0 | 1 | 2 | null): Pose {
  const [cosA, cosB, cosC] = [exact(Math.cos(turn[0])), exact(Math.cos(turn[1])), exact(Math.cos(turn[2]))];
  const [sinA, sinB, sinC] = [exact(Math.sin(turn[0])), exact(Math.sin(turn[1])), exact(Math.sin(turn[2]))];
  // Columns of Rz·Ry·Rx: where the three axes come to lie.
  const x: Vec3 = [cosC * cosB, sinC * cosB, -sinB];
  const y: Vec3 = [cosC * sinB * sinA - sinC * cosA, sinC * sinB * sinA + cosC * cosA, cosB * sinA];
  const z: Vec3 = [cosC * sinB * cosA + sinC * sinA, sinC * sinB * cosA - cosC * sinA, cosB * cosA];
  const side = (axis: 0 | 1 | 2, way: Vec3): Vec3 => (mirror === axis ? scale(way, -1) : way);
  return {
    frame: { origin: at, x: side(0, x), y: side(1, y), z: side(2, z) },
    mirrored: mirror !== null,
  };
}

/** Quarter turns come out a hair beside 0 and ±1. */
function exact(value: number): number {
  const whole = Math.round(value);
  return Math.abs(value - whole) < 1e-15 ? whole + 0 : value;
}
