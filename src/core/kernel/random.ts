/**
 * Seeded random numbers (mulberry32): the same seed gives the same layout on every machine.
 * Not for secrets.
 */
export type Random = {
  /** A number in [0, 1). */
  readonly next: () => number;
  /** A whole number in [0, below). */
  readonly below: (below: number) => number;
};

export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { next, below: (below) => Math.floor(next() * below) };
}
