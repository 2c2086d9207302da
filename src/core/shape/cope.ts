/**
 * Copes: a round member cut to fit round another round one. With θ the angle between the axes, R the
 * radius that is met, e the offset of the axes, and φ counted from the side where the axes enclose θ, the
 * surface stands z(φ, ρ) = (√(R² − (e + ρ sin φ)²) + ρ cos φ cos θ) / sin θ along the branch from the foot
 * of the common perpendicular (2-computation.md, section 8).
 */
import { cross, dot, norm, scale, subtract, type Vec2, type Vec3 } from "../geometry";
import { err, ok, PARALLEL_TOLERANCE, POINT_TOLERANCE_MM, type Result } from "../kernel";
import type { SectionShape } from "../stockroom";
import type { Bar, EndSide } from "./bar";
import type { MeetFault } from "./fault";

/** `surface`: the header's true surface; `fit`: for a blade held square to the branch, so that its bore clears too. */
export type CopeCurve = "surface" | "fit";

export type Cope = {
  /** Unit vectors in the branch's section: φ = 0, and across it. */
  readonly u: Vec2;
  readonly v: Vec2;
  readonly cos: number;
  readonly sin: number;
  /** What is met: the header's radius and the gap. */
  readonly radius: number;
  /** Of the branch's axis from the header's, along v. */
  readonly offset: number;
  readonly curve: CopeCurve;
  /** Of the branch. */
  readonly outer: number;
  readonly bore: number;
};

/** Outer radius and bore of a round section; null for others. */
export function radiiOf(shape: SectionShape): { readonly outer: number; readonly bore: number } | null {
  if (shape.kind === "roundTube")
    return { outer: shape.size[0] / 2, bore: shape.size[0] / 2 - shape.size[1] };
  return shape.kind === "roundBar" ? { outer: shape.size[0] / 2, bore: 0 } : null;
}

/** Where a bar's axis meets that of a round neighbour, and the cope there; `foot` is along the bar's own z. */
export function copeOn(
  bar: Bar,
  side: EndSide,
  header: Bar,
  gap: number,
  curve: CopeCurve,
): Result<{ readonly cope: Cope; readonly foot: number }, MeetFault> {
  const own = radiiOf(bar.shape);
  const met = radiiOf(header.shape);
  if (!own) return err("branchNotRound");
  if (!met) return err("headerNotRound");
  const { x, y, z, origin } = bar.frame;
  const b = side === "start" ? z : scale(z, -1);
  const along = header.frame.z;
  const h = dot(along, b) < 0 ? scale(along, -1) : along;
  const cos = Math.max(0, dot(h, b));
  const sin = norm(cross(h, b));
  if (sin < PARALLEL_TOLERANCE * 1e3) return err("parallel");
  const u = scale(subtract(h, scale(b, dot(h, b))), 1 / sin);
  const v = cross(b, u);
  const from = subtract(origin, header.frame.origin);
  const offset = dot(from, v);
  const radius = met.outer + gap;
  if (Math.abs(offset) + own.outer > radius + POINT_TOLERANCE_MM) return err("notAllRound");
  const normal = cross(v, h);
  const foot = -dot(from, normal) / dot(z, normal);
  const flat = (w: Vec3): Vec2 => [clean(dot(w, x)), clean(dot(w, y))];
  return ok({
    cope: { u: flat(u), v: flat(v), cos: clean(cos), sin, radius, offset: clean(offset), curve, ...own },
    foot,
  });
}

const clean = (value: number) => (Math.abs(value) < 1e-12 ? 0 : value);

/** How far along the branch, from the foot, the cut stands above a point of its section. */
export function copeHeight(cope: Cope, [px, py]: Vec2): number {
  const along = px * cope.u[0] + py * cope.u[1];
  const across = px * cope.v[0] + py * cope.v[1];
  if (cope.curve === "surface") return surface(cope, along, across);
  const rho = Math.hypot(along, across);
  return rho === 0 ? surface(cope, 0, 0) : fitHeight(cope, along / rho, across / rho);
}

/** With a = ρ cos φ along u and c = ρ sin φ along v. */
function surface({ radius, offset, cos, sin }: Cope, a: number, c: number): number {
  return (Math.sqrt(Math.max(0, radius ** 2 - (offset + c) ** 2)) + a * cos) / sin;
}

/**
 * The greatest height over the wall at φ: the surface is concave in ρ, so it lies at an end of the wall
 * or where its slope vanishes.
 */
export function fitHeight(cope: Cope, cosPhi: number, sinPhi: number): number {
  const { radius, offset, cos, bore, outer } = cope;
  const candidates = [bore, outer];
  const k = cosPhi * cos;
  if (Math.abs(sinPhi) > 1e-12) {
    const w = (Math.sign(sinPhi) * k * radius) / Math.hypot(sinPhi, k);
    const rho = (w - offset) / sinPhi;
    if (rho > bore && rho < outer) candidates.push(rho);
  }
  return Math.max(...candidates.map((rho) => surface(cope, rho * cosPhi, rho * sinPhi)));
}

/** The least and the greatest of a smooth function of an angle, to about 1e-10 of its swing. */
export function extremesOverTurn(height: (phi: number) => number): {
  readonly least: number;
  readonly greatest: number;
} {
  const STEPS = 180;
  const heights = Array.from({ length: STEPS }, (_, i) => height((2 * Math.PI * i) / STEPS));
  let [low, high] = [0, 0];
  heights.forEach((value, i) => {
    if (value < (heights[low] ?? 0)) low = i;
    if (value > (heights[high] ?? 0)) high = i;
  });
  const refined = (i: number, sign: 1 | -1) => {
    const step = (2 * Math.PI) / STEPS;
    return sign * goldenLeast((phi) => sign * height(phi), step * (i - 1), step * (i + 1));
  };
  return { least: refined(low, 1), greatest: refined(high, -1) };
}

const GOLDEN = (Math.sqrt(5) - 1) / 2;

function goldenLeast(f: (x: number) => number, from: number, to: number): number {
  let [a, b] = [from, to];
  for (let i = 0; i < 60 && b - a > 1e-10; i++) {
    const [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
    if (f(c) < f(d)) b = d;
    else a = c;
  }
  return f((a + b) / 2);
}

const GAUSS = [
  [-0.932469514203152, 0.17132449237917],
  [-0.661209386466265, 0.360761573048139],
  [-0.238619186083197, 0.467913934572691],
  [0.238619186083197, 0.467913934572691],
  [0.661209386466265, 0.360761573048139],
  [0.932469514203152, 0.17132449237917],
] as const;

/** The mean of a height over the ring of a round section: what the end adds to the exact volume. */
export function meanOverRing(outer: number, bore: number, height: (point: Vec2) => number): number {
  // A smooth function of the angle: equal steps converge faster than any power of their number.
  const STEPS = 96;
  let sum = 0;
  for (const [node, weight] of GAUSS) {
    const rho = (outer + bore) / 2 + (node * (outer - bore)) / 2;
    let ring = 0;
    for (let i = 0; i < STEPS; i++) {
      const phi = (2 * Math.PI * (i + 0.5)) / STEPS;
      ring += height([rho * Math.cos(phi), rho * Math.sin(phi)]);
    }
    sum += (weight * rho * ring) / STEPS;
  }
  // Weights add up to 2 over the interval; the ring's own mean of ρ makes it an average.
  return sum / (outer + bore);
}
