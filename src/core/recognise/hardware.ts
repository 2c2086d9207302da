/** Bolts, nuts and washers: small, turned about one axis, with a head of six flats or more than one diameter, or short and hollow. */
import { dot, norm, scale, subtract, type Vec3 } from "../geometry";
import type { Body } from "./body";
import type { CylinderSurface } from "./surface";

export type Hardware = "bolt" | "nut" | "washer";

/** mm. Thicker ones are parts of a machine. */
const MOST_ACROSS = 120;

/** What of hardware a body is; null: none. */
export function hardwareOf(body: Body): Hardware | null {
  const rounds = body.surfaces.flatMap(({ surface }) => (surface.kind === "cylinder" ? [surface] : []));
  const [first] = rounds;
  if (!first || rounds.some((other) => !isOnAxis(other, first))) return null;
  const { axis, centre } = first;
  const flats = body.surfaces.flatMap(({ surface }) => (surface.kind === "plane" ? [surface.normal] : []));
  const around = flats.filter((normal) => Math.abs(dot(normal, axis)) < 1e-3);
  if (flats.some((normal) => Math.abs(dot(normal, axis)) > 1e-3 && Math.abs(dot(normal, axis)) < 0.5))
    return null;
  const heights = body.points.map((point) => dot(point, axis));
  const length = Math.max(...heights) - Math.min(...heights);
  const across =
    2 *
    Math.max(
      ...body.points.map((point) => {
        const from = subtract(point, centre);
        return norm(subtract(from, scale(axis, dot(from, axis))));
      }),
    );
  if (across > MOST_ACROSS) return null;
  const solid = rounds.filter(({ isHollow }) => !isHollow);
  const hollow = rounds.filter(({ isHollow }) => isHollow);
  const isHexagon = around.length === 6;
  if (around.length > 0 && !isHexagon) return null;
  const radii = new Set(solid.map(({ radius }) => Math.round(radius * 100)));
  if (hollow.length > 0) {
    if (isHexagon) return length < across ? "nut" : null;
    return radii.size === 1 && length < across / 3 ? "washer" : null;
  }
  // A shank and a head: six flats, or round and thicker.
  const hasHead = isHexagon || radii.size > 1;
  return hasHead && length > across / 3 && length < 40 * across ? "bolt" : null;
}

function isOnAxis(one: CylinderSurface, other: CylinderSurface): boolean {
  const between: Vec3 = subtract(one.centre, other.centre);
  const along = dot(between, other.axis);
  return (
    Math.abs(dot(one.axis, other.axis)) > 1 - 1e-6 &&
    Math.sqrt(Math.max(0, dot(between, between) - along * along)) < 0.02
  );
}
