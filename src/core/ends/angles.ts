/** Slopes as angles, and what saws make of them. */
import { norm2, type Vec2 } from "../geometry";
import { formatDegrees, roundTo, toDegrees } from "../measure";
import type { PlaneTurn } from "../stockroom";

/** Slopes are kept to 1e-9: 0.01 micron in 10 m, so that equal ends are equal numbers. */
export const snapSlope = (slope: Vec2): Vec2 => [snapNumber(slope[0]), snapNumber(slope[1])];
export function snapNumber(value: number): number {
  const snapped = Math.round(value * 1e9) / 1e9;
  return snapped === 0 ? 0 : snapped;
}

/** A vector of the section after a turn or a mirror of it. */
export const turnedVector = ([r0, r1]: PlaneTurn["rows"], s: Vec2): Vec2 => [
  r0[0] * s[0] + r0[1] * s[1],
  r1[0] * s[0] + r1[1] * s[1],
];

export const apartFrom = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]);

export type EndAngles = { readonly angle: number; readonly compound: readonly [number, number] };

/** Degrees from square: the whole angle, and the signed parts along the section's x and y. */
export function anglesOf(slope: Vec2): EndAngles {
  const degrees = (value: number) => roundTo(toDegrees(Math.atan(value)), 4);
  return { angle: degrees(norm2(slope)), compound: [degrees(slope[0]), degrees(slope[1])] };
}

export const signedDegrees = (degrees: number): string =>
  `${degrees > 0 ? "+" : degrees < 0 ? "−" : ""}${formatDegrees(Math.abs(degrees))}°`;

/** Angles from square towards the sides of the section, as far as there are any: "width +45°, height −10°". */
export function slopeWords(slope: Vec2): string {
  const [x, y] = anglesOf(slope).compound;
  const parts = [
    ...(x === 0 ? [] : [`width ${signedDegrees(x)}`]),
    ...(y === 0 ? [] : [`height ${signedDegrees(y)}`]),
  ];
  return parts.length === 0 ? "square" : parts.join(", ");
}

/** Settings of a saw with the section's y face on its table: mitre = atan s_x, bevel = atan(s_y · cos mitre). */
export function sawSettings(slope: Vec2): { readonly mitre: number; readonly bevel: number } {
  const mitre = Math.atan(slope[0]);
  return {
    mitre: roundTo(toDegrees(mitre), 4),
    bevel: roundTo(toDegrees(Math.atan(slope[1] * Math.cos(mitre))), 4),
  };
}
