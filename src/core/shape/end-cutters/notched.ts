/**
 * A member that is notched to fit up to another one that it meets square: it ends where the neighbour first stops any of it for
 * good, and on either side what the neighbour's legs or flanges are in the way of is cut back (common practice for angles and channels).
 */
import { dot, subtract, type Vec2 } from "../../geometry";
import type { EndCutOf, MemberFace } from "../../job";
import { at, err, ok, PARALLEL_TOLERANCE, type Result } from "../../kernel";
import { sectionProperties, sectionRooms } from "../../stockroom";
import type { Bar, EndSide } from "../bar";
import { planeEnd } from "../ends";
import type { MeetFault } from "../fault";
import { type Cutter, cannotMeet, lengthOf, type NotchPart } from "./cutter";

export const notched: Cutter<EndCutOf<"notched">> = (cut, ground) => {
  const { placed, side, others } = ground;
  const other = others.get(cut.neighbour);
  if (!other) return err({ kind: "noNeighbour", cut: "notched" });
  const gap = lengthOf(ground, "gap", cut.gap);
  if (!gap.ok) return gap;
  const fitted = fittedInto(placed.bar, side, other.bar, gap.value);
  if (!fitted.ok) return err(cannotMeet("notched", other, fitted.problem));
  const { z, notches } = fitted.value;
  return ok({ end: planeEnd({ z, slope: [0, 0] }), open: false, notches });
};

/** What stands in the way between two heights beside the member's run: from `near` on, along it. */
type Room = { readonly low: number; readonly high: number; readonly near: number };

/** As near as two directions have to be to count as one. */
const ALONG = 1 - 1e-9;

type Fitted = { readonly z: number; readonly notches: readonly NotchPart[] };

function fittedInto(bar: Bar, side: EndSide, other: Bar, gap: number): Result<Fitted, MeetFault> {
  const sign = side === "end" ? 1 : -1;
  const { frame, shape } = bar;
  const dir = frame.z.map((part) => sign * part) as unknown as typeof frame.z;
  if (Math.abs(dot(dir, other.frame.z)) > PARALLEL_TOLERANCE * 1e3) return err("notSquare");
  // In the neighbour's section: u along the member towards it, v across.
  const u: Vec2 = [dot(dir, other.frame.x), dot(dir, other.frame.y)];
  const v: Vec2 = [-u[1], u[0]];
  const across = other.frame.x.map(
    (part, i) => v[0] * part + v[1] * at(other.frame.y, i),
  ) as unknown as typeof dir;
  const [alongX, alongY] = [dot(across, frame.x), dot(across, frame.y)];
  const axis = Math.abs(alongX) > ALONG ? 0 : Math.abs(alongY) > ALONG ? 1 : null;
  if (axis === null) return err("notAligned");
  const turned = Math.sign(axis === 0 ? alongX : alongY);
  const { boxCentre, extent } = sectionProperties(shape);
  const from = subtract(frame.origin, other.frame.origin);
  const middle = dot(from, across) + turned * at(boxCentre, axis);
  const [low, high] = [middle - at(extent, axis) / 2, middle + at(extent, axis) / 2];
  const start = dot(from, dir);
  const rooms = sectionRooms(other.shape).map(({ from: a, to: b }): Room => {
    const corners = [a, b, [a[0], b[1]], [b[0], a[1]]] as const;
    const us = corners.map((p) => p[0] * u[0] + p[1] * u[1] - start);
    const vs = corners.map((p) => p[0] * v[0] + p[1] * v[1]);
    return { low: Math.min(...vs) - gap, high: Math.max(...vs) + gap, near: Math.min(...us) - gap };
  });
  const cells = cellsBetween(low, high, rooms);
  const stops = cells.map(({ near }) => near).filter(Number.isFinite);
  if (stops.length === 0) return err("passesBeside");
  const base = Math.max(...stops);
  const isFree = ({ near }: Room) => near >= base - 1e-9;
  // From either side inwards as far as something is in the way; within there must be nothing.
  const below = cells.slice(0, cells.findIndex(isFree));
  const above = cells.slice(cells.findLastIndex(isFree) + 1);
  if (!cells.slice(below.length, cells.length - above.length).every(isFree)) return err("inTheMiddle");
  const [lower, upper]: readonly [MemberFace, MemberFace] =
    axis === 0 ? ["left", "right"] : ["bottom", "top"];
  const faces = turned > 0 ? { below: lower, above: upper } : { below: upper, above: lower };
  const notches = [
    ...nested(
      below.map((cell) => ({ depth: cell.high - low, length: base - cell.near })),
      faces.below,
    ),
    ...nested(
      above.map((cell) => ({ depth: high - cell.low, length: base - cell.near })),
      faces.above,
    ),
  ];
  return ok({ z: sign * base, notches });
}

/** The stretch across the member in cells, each with what stops it first; nothing: infinitely far. */
function cellsBetween(low: number, high: number, rooms: readonly Room[]): readonly Room[] {
  const levels = [low, high, ...rooms.flatMap((room) => [room.low, room.high])]
    .filter((level) => level >= low && level <= high)
    .sort((a, b) => a - b)
    .filter((level, i, all) => i === 0 || level - at(all, i - 1) > 1e-6);
  return levels.slice(1).map((top, i): Room => {
    const bottom = at(levels, i);
    const middle = (bottom + top) / 2;
    const met = rooms.filter((room) => room.low < middle && room.high > middle);
    return { low: bottom, high: top, near: Math.min(...met.map(({ near }) => near)) };
  });
}

/** Only those notches that are not within another one. */
function nested(all: readonly Pick<NotchPart, "depth" | "length">[], face: MemberFace): readonly NotchPart[] {
  return all
    .filter(
      (one, i) =>
        !all.some(
          (other, k) =>
            k !== i &&
            other.depth >= one.depth - 1e-9 &&
            other.length >= one.length - 1e-9 &&
            (other.depth > one.depth + 1e-9 || other.length > one.length + 1e-9 || k < i),
        ),
    )
    .map(({ depth, length }) => ({ face, depth, length }));
}
