/** An end cut in one plane. */
import { dot2, norm2 } from "../geometry";
import { anglesOf, apartFrom, slopeWords, snapSlope, turnedVector } from "./angles";
import type { EndKind, PlaneEnd } from "./end";

export const SQUARE: PlaneEnd = { kind: "plane", slope: [0, 0] };

export const plane: EndKind<PlaneEnd> = {
  name: "plane",
  sawn: true,
  height:
    ({ slope }) =>
    (point) =>
      dot2(slope, point),
  // The centroid is the origin of the section.
  mean: () => 0,
  faces: ({ slope }) => [{ slope, beyond: 0 }],
  snapped: ({ slope }) => ({ kind: "plane", slope: snapSlope(slope) }),
  turned: ({ slope }, rows) => ({ kind: "plane", slope: turnedVector(rows, slope) }),
  apart: (a, b, tolerance) => apartFrom(a.slope, b.slope) / tolerance.slope,
  ways: (a, b, tolerance) => [{ waves: [{ from: a.slope, to: b.slope, unit: tolerance.slope }], fixed: 0 }],
  sizes: ({ slope }) => [norm2(slope)],
  numbers: ({ slope }) => slope,
  lean: ({ slope }) => ({ towards: slope, either: false }),
  slopes: ({ slope }) => [slope],
  note: () => null,
  told: ({ slope }) => slopeWords(slope),
  profile: ({ slope }, { axis, depth }) => [
    { across: 0, out: (slope[axis] * depth) / 2 },
    { across: 1, out: (-slope[axis] * depth) / 2 },
  ],
  record: ({ slope }) => ({ kind: "plane", ...anglesOf(slope) }),
};
