/**
 * The integer grid: lengths that add up, pack or are stored are whole nanometres. 1/64 in is
 * 396,875 nm exactly, and 100 m is 1e11, far inside the integers that a double holds exactly.
 */
import { BrokenInvariant } from "./invariant";

declare const nanometres: unique symbol;
/** A whole number of nanometres. */
export type Nm = number & { readonly [nanometres]: true };

export const NM_PER_MM = 1_000_000;

/** Snaps millimetres to the grid, halves away from zero. Throws on a value that is not finite. */
export function toNm(mm: number): Nm {
  if (!Number.isFinite(mm)) throw new BrokenInvariant(`a length must be finite, got ${mm}`);
  const scaled = Math.round(Math.abs(mm) * NM_PER_MM) * Math.sign(mm);
  return (scaled === 0 ? 0 : scaled) as Nm;
}

/** Millimetres of a grid length, as the nearest double. */
export function fromNm(nm: Nm | number): number {
  return nm / NM_PER_MM;
}

/** A millimetre value moved onto the grid and back: two values on one grid place become identical. */
export function snapMm(mm: number): number {
  return fromNm(toNm(mm));
}
