/** Angles: radians inside, degrees at the surface. */
import { formatDecimal, roundTo } from "./rounding";

export function toDegrees(radians: number): number {
  return (radians * 180) / Math.PI;
}

export function toRadians(degrees: number): number {
  return (degrees * Math.PI) / 180;
}

/** Degrees for tables: two places at most, no trailing zeros, never "-0". */
export function formatDegrees(degrees: number): string {
  return formatDecimal(roundTo(degrees, 2), 2, false);
}
