/** Functions over a full turn, for ends that are curved round the section. */
import type { Vec2 } from "../geometry";

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
