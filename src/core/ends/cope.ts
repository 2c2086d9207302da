/**
 * Copes: a round member cut to fit round another round one. With θ the angle between the axes, R the radius that is met,
 * e the offset of the axes, and φ counted from the side where the axes enclose θ, the surface stands
 * z(φ, ρ) = (√(R² − (e + ρ sin φ)²) + ρ cos φ cos θ) / sin θ along the branch from the foot of the common perpendicular
 * (2-computation.md, section 8). That foot is where the end stands on the axis; the height beyond it is −z.
 */
import { norm2, type Vec2 } from "../geometry";
import { LENGTH_TOLERANCE_MM, NM_PER_MM, SLOPE_TOLERANCE, snapMm } from "../kernel";
import { formatDegrees, formatLength, roundTo, toDegrees } from "../measure";
import type { SectionShape } from "../stockroom";
import { anglesOf, apartFrom, snapNumber, snapSlope, turnedVector } from "./angles";
import type { CopeEnd, EndKind, Tolerance, Way } from "./end";
import { plane } from "./plane";
import { meanOverRing } from "./turn";

/** Outer radius and bore of a round section; null for others. */
export function radiiOf(shape: SectionShape): { readonly outer: number; readonly bore: number } | null {
  if (shape.kind === "roundTube")
    return { outer: shape.size[0] / 2, bore: shape.size[0] / 2 - shape.size[1] };
  return shape.kind === "roundBar" ? { outer: shape.size[0] / 2, bore: 0 } : null;
}

/** The lean of the saddle: as deep over the two sides on which the axes enclose θ as a plane of this slope. */
const leanOf = ({ u, cos, sin }: CopeEnd): Vec2 => [-u[0] * (cos / sin) + 0, -u[1] * (cos / sin) + 0];

/** With a = ρ cos φ along u and c = ρ sin φ along v. */
function surface({ radius, cos, sin }: CopeEnd, offset: number, a: number, c: number): number {
  return (Math.sqrt(Math.max(0, radius ** 2 - (offset + c) ** 2)) + a * cos) / sin;
}

/** The offset of the axes along v, which stands square to u. */
const offsetOf = ({ u, offset }: CopeEnd) => offset[1] * u[0] - offset[0] * u[1];

/** How far along the branch, from the foot, the saddle stands above a point of its section. */
function depthAt(cope: CopeEnd, { outer, bore }: Radii, [px, py]: Vec2): number {
  const { u } = cope;
  const offset = offsetOf(cope);
  const along = px * u[0] + py * u[1];
  const across = py * u[0] - px * u[1];
  if (cope.curve === "surface") return surface(cope, offset, along, across);
  const rho = Math.hypot(along, across);
  if (rho === 0) return surface(cope, offset, 0, 0);
  return fitDepth(cope, offset, { outer, bore }, along / rho, across / rho);
}

type Radii = { readonly outer: number; readonly bore: number };

/**
 * The greatest depth over the wall at φ: the surface is concave in ρ, so it lies at an end of the wall
 * or where its slope vanishes.
 */
function fitDepth(
  cope: CopeEnd,
  offset: number,
  { bore, outer }: Radii,
  cosPhi: number,
  sinPhi: number,
): number {
  const { radius, cos } = cope;
  const candidates = [bore, outer];
  const k = cosPhi * cos;
  if (Math.abs(sinPhi) > 1e-12) {
    const w = (Math.sign(sinPhi) * k * radius) / Math.hypot(sinPhi, k);
    const rho = (w - offset) / sinPhi;
    if (rho > bore && rho < outer) candidates.push(rho);
  }
  return Math.max(...candidates.map((rho) => surface(cope, offset, rho * cosPhi, rho * sinPhi)));
}

const NO_WALL: Radii = { outer: 0, bore: 0 };
const heightOf = (end: CopeEnd, section: SectionShape) => {
  const radii = radiiOf(section) ?? NO_WALL;
  return (point: Vec2) => -depthAt(end, radii, point);
};

const DISC_STEPS = 512;

/**
 * ∫ √(R² − (e + c)²) over a disc of radius ρ, c across the axes. With c = ρ sin t it is 2ρ² ∫ √(R² − (e + ρ sin t)²) cos² t dt, and equal
 * steps of t converge faster than any power of their number; round what is as wide, as their fourth.
 */
function rootOverDisc(end: CopeEnd, rho: number): number {
  const offset = offsetOf(end);
  let sum = 0;
  for (let i = 0; i < DISC_STEPS; i++) {
    const t = Math.PI * ((i + 0.5) / DISC_STEPS - 0.5);
    sum += Math.sqrt(Math.max(0, end.radius ** 2 - (offset + rho * Math.sin(t)) ** 2)) * Math.cos(t) ** 2;
  }
  return (2 * rho * rho * sum * Math.PI) / DISC_STEPS;
}

/** The differences that no turn changes, in units of tolerance. */
const fixedApart = (a: CopeEnd, b: CopeEnd, tolerance: Tolerance) =>
  a.curve === b.curve
    ? Math.max(
        Math.abs(a.radius - b.radius) / (tolerance.lengthNm / NM_PER_MM),
        Math.abs(a.cos - b.cos) / tolerance.slope,
      )
    : Number.POSITIVE_INFINITY;

/** A saddle at 90° has no side where the axes enclose θ: either sign of u will do, so there are two ways. */
function waysOnto(a: CopeEnd, b: CopeEnd, tolerance: Tolerance): readonly Way[] {
  if (a.curve !== b.curve) return [];
  const fixed = fixedApart(a, b, tolerance);
  const way = (sign: 1 | -1): Way => ({
    fixed,
    waves: [
      { from: leanOf(a), to: leanOf(b), unit: tolerance.slope },
      { from: [sign * a.u[0], sign * a.u[1]], to: b.u, unit: tolerance.slope },
      { from: a.offset, to: b.offset, unit: tolerance.lengthNm / NM_PER_MM },
    ],
  });
  return Math.max(a.cos, b.cos) <= tolerance.slope ? [way(1), way(-1)] : [way(1)];
}

/** Shares of the depth at which the hollow of a saddle is drawn. */
const HOLLOW = [0, 0.25, 0.5, 0.75, 1];

export const cope: EndKind<CopeEnd> = {
  name: "cope",
  sawn: false,
  height: heightOf,
  mean(end, section) {
    const { outer, bore } = radiiOf(section) ?? NO_WALL;
    if (end.curve === "fit") return meanOverRing(outer, bore, heightOf(end, section));
    // What leans with φ is zero on the whole.
    const roots = rootOverDisc(end, outer) - rootOverDisc(end, bore);
    return -roots / (Math.PI * (outer * outer - bore * bore)) / end.sin;
  },
  faces: () => null,
  snapped: (end) => ({
    ...end,
    u: snapSlope(end.u),
    offset: snapSlope(end.offset),
    cos: snapNumber(end.cos),
    sin: snapNumber(end.sin),
    radius: snapMm(end.radius),
  }),
  turned: (end, rows) => ({
    ...end,
    u: turnedVector(rows, end.u),
    offset: turnedVector(rows, end.offset),
  }),
  apart: (a, b, tolerance) =>
    Math.min(
      Number.POSITIVE_INFINITY,
      ...waysOnto(a, b, tolerance).map(({ waves, fixed }) =>
        Math.max(fixed, ...waves.map(({ from, to, unit }) => apartFrom(from, to) / unit)),
      ),
    ),
  ways: waysOnto,
  sizes: (end) => [norm2(leanOf(end)), end.radius, end.cos, norm2(end.offset)],
  numbers: ({ u, offset, cos, radius }) => [...u, radius, cos, ...offset],
  lean: ({ u, cos }) => ({ towards: u, either: cos <= SLOPE_TOLERANCE }),
  slopes: (end) => [leanOf(end)],
  /** "coped round 48.3 at 60°": the diameter that is met and the angle between the axes. */
  note({ cos, offset, radius, curve }, style) {
    const write = (mm: number) => formatLength(mm, style, LENGTH_TOLERANCE_MM);
    const angle = formatDegrees(toDegrees(Math.acos(Math.min(1, cos))));
    const beside = norm2(offset);
    const aside = beside > LENGTH_TOLERANCE_MM ? `, ${write(beside)} beside its axis` : "";
    return `coped round ${write(2 * radius)} at ${angle}°${aside}${curve === "fit" ? ", for a blade held square" : ""}`;
  },
  told(end, style) {
    const aside = offsetOf(end);
    const turn = formatDegrees(roundTo(toDegrees(Math.atan2(end.u[1], end.u[0])), 2));
    const side = Math.abs(aside) > LENGTH_TOLERANCE_MM ? `, ${aside > 0 ? "left" : "right"} of the axis` : "";
    return `${cope.note(end, style)}${side}, turned ${turn}° from width`;
  },
  profile(end, seen) {
    const own = seen.section ? radiiOf(seen.section) : null;
    const straight = plane.profile({ kind: "plane", slope: leanOf(end) }, seen);
    const [upper, low] = [straight[0]?.out ?? 0, straight[1]?.out ?? 0];
    // The saddle of two axes that cross square, to the scale of the drawn depth.
    const { outer, bore } = own ?? NO_WALL;
    const bite = bore === 0 ? 0 : end.radius - Math.sqrt(Math.max(0, end.radius ** 2 - outer ** 2));
    const drawn = bore === 0 ? 0 : (bite / (2 * outer)) * seen.depth;
    return HOLLOW.map((across) => ({
      across,
      out: upper + (low - upper) * across - drawn * 4 * across * (1 - across),
    }));
  },
  record: (end) => ({
    kind: "cope",
    ...anglesOf(leanOf(end)),
    radius: end.radius,
    offset: norm2(end.offset),
    curve: end.curve,
  }),
};
