/** An end cut in two planes: a double mitre between two neighbours, or a point. */
import {
  dot2,
  extremePoints,
  type Linear,
  norm2,
  partBelow,
  subtract2,
  type Vec2,
  valueAt,
} from "../geometry";
import { LENGTH_TOLERANCE_MM, NM_PER_MM, SLOPE_TOLERANCE, snapMm } from "../kernel";
import { formatLength } from "../measure";
import { type SectionShape, sectionProperties } from "../stockroom";
import { anglesOf, apartFrom, slopeWords, snapSlope, turnedVector } from "./angles";
import type { End, EndFace, EndKind, TwoPlaneEnd, Way } from "./end";

/** How far one plane stands above another; zero on the ridge in which they meet. */
export function ridge(a: EndFace, b: EndFace): Linear {
  return { slope: subtract2(b.slope, a.slope), constant: b.beyond - a.beyond };
}

/**
 * The end that two planes leave of a section, each by where it crosses the axis and its slope, both counted outwards
 * from a common place; with `beyond`, how far from there the end crosses the axis. Where one plane lies below the other
 * all over the section, it alone is the end.
 */
export function endOfTwoPlanes(
  section: SectionShape,
  first: EndFace,
  second: EndFace,
): { readonly form: End; readonly beyond: number } {
  const beyond = Math.min(first.beyond, second.beyond);
  const lowered = ({ slope, beyond: own }: EndFace): EndFace => ({ slope, beyond: own - beyond });
  const form: TwoPlaneEnd = { kind: "twoPlanes", faces: [lowered(first), lowered(second)] };
  const above = ridge(...form.faces);
  const outline = sectionProperties(section).loops[0] ?? [];
  const over = extremePoints(outline, [above.slope], []).map((point) => valueAt(above, point));
  const alone = (face: EndFace) => ({
    form: { kind: "plane", slope: face.slope } as const,
    beyond: face.beyond,
  });
  if (Math.min(...over) >= -LEAST_CUT_MM) return alone(first);
  if (Math.max(...over) <= LEAST_CUT_MM) return alone(second);
  return { form, beyond };
}

/** mm. A plane that takes less than this off a corner is no cut. */
const LEAST_CUT_MM = 1e-3;

const lower = ({ faces: [a, b] }: TwoPlaneEnd, p: Vec2) =>
  Math.min(a.beyond + dot2(a.slope, p), b.beyond + dot2(b.slope, p));

const withFaces = (end: TwoPlaneEnd, change: (face: EndFace) => EndFace): TwoPlaneEnd => ({
  kind: "twoPlanes",
  faces: [change(end.faces[0]), change(end.faces[1])],
});

/** The planes have no order: both pairings are tried. */
const pairings = (b: TwoPlaneEnd) => [b.faces, [b.faces[1], b.faces[0]] as const];

export const twoPlanes: EndKind<TwoPlaneEnd> = {
  name: "two planes",
  sawn: true,
  height: (end) => (point) => lower(end, point),
  mean(end, section) {
    // min(f, g) = f + min(0, g − f), and the mean of a plane is where it crosses the axis.
    const { loops, areaMm2 } = sectionProperties(section);
    return end.faces[0].beyond + partBelow(loops, ridge(...end.faces)) / areaMm2;
  },
  faces: ({ faces }) => faces,
  snapped: (end) =>
    withFaces(end, ({ slope, beyond }) => ({ slope: snapSlope(slope), beyond: snapMm(beyond) })),
  turned: (end, rows) =>
    withFaces(end, ({ slope, beyond }) => ({ slope: turnedVector(rows, slope), beyond })),
  apart(a, b, tolerance) {
    const lengthMm = tolerance.lengthNm / NM_PER_MM;
    const face = (p: EndFace, q: EndFace) =>
      Math.max(apartFrom(p.slope, q.slope) / tolerance.slope, Math.abs(p.beyond - q.beyond) / lengthMm);
    return Math.min(...pairings(b).map(([p, q]) => Math.max(face(a.faces[0], p), face(a.faces[1], q))));
  },
  ways(a, b, tolerance) {
    const lengthMm = tolerance.lengthNm / NM_PER_MM;
    return pairings(b).map(
      (faces): Way => ({
        waves: a.faces.map(({ slope }, i) => ({
          from: slope,
          to: faces[i as 0 | 1].slope,
          unit: tolerance.slope,
        })),
        fixed: Math.max(
          ...a.faces.map(({ beyond }, i) => Math.abs(beyond - faces[i as 0 | 1].beyond) / lengthMm),
        ),
      }),
    );
  },
  sizes({ faces: [a, b] }) {
    const [first, second] = [norm2(a.slope), norm2(b.slope)];
    return [Math.max(first, second), Math.min(first, second), Math.max(a.beyond, b.beyond)];
  },
  numbers({ faces: [a, b] }) {
    const [p, q] = [
      [...a.slope, a.beyond],
      [...b.slope, b.beyond],
    ];
    const first = p.findIndex((value, i) => value !== q[i]);
    return first >= 0 && (p[first] ?? 0) > (q[first] ?? 0) ? [...q, ...p] : [...p, ...q];
  },
  // Across the ridge, away from the steeper plane.
  lean({ faces: [a, b] }) {
    const [first, second] = [norm2(a.slope), norm2(b.slope)];
    const even = Math.abs(first - second) < SLOPE_TOLERANCE;
    return {
      towards: first > second ? subtract2(b.slope, a.slope) : subtract2(a.slope, b.slope),
      either: even,
    };
  },
  slopes: ({ faces }) => faces.map(({ slope }) => slope),
  note: () => null,
  told({ faces }, style) {
    const [a, b] = faces[0].beyond <= faces[1].beyond ? faces : ([faces[1], faces[0]] as const);
    const farther =
      b.beyond > LENGTH_TOLERANCE_MM
        ? `, the second ${formatLength(b.beyond, style, LENGTH_TOLERANCE_MM)} farther out on the axis`
        : "";
    return `${slopeWords(a.slope)} and ${slopeWords(b.slope)}${farther}`;
  },
  profile(end, { axis, depth, section }) {
    const size = section ? sectionProperties(section).extent[axis] : depth;
    const scale = depth / size;
    const [a, b] = end.faces;
    const out = (across: number) => {
      const p = (0.5 - across) * depth;
      return Math.min(a.slope[axis] * p + a.beyond * scale, b.slope[axis] * p + b.beyond * scale);
    };
    const bend = 0.5 - ((b.beyond - a.beyond) * scale) / ((a.slope[axis] - b.slope[axis]) * depth);
    const stops = bend > 0.02 && bend < 0.98 ? [0, bend, 1] : [0, 1];
    return stops.map((across) => ({ across, out: out(across) }));
  },
  record: ({ faces }) => ({
    kind: "twoPlanes",
    planes: faces.map(({ slope, beyond }) => ({ ...anglesOf(slope), beyond })),
  }),
};
