/**
 * Reads the triangles of an STL file, text or binary (the format of 3D Systems, 1989: 80 bytes, a count of
 * triangles, 50 bytes each, little-endian), and puts the middle of its foot at the origin. STL has no unit;
 * millimetres are taken, as is usual.
 */
import { type Asset, assetIdOf, refused, type StandIn } from "../job";
import { ok, type Problem, type Result } from "../kernel";
import { roundTo } from "../measure";

const MOST_TRIANGLES = 4_000;
/** More are too many even to be made coarser. */
const MOST_COARSENED = 400_000;
const HEAD_BYTES = 84;
const TRIANGLE_BYTES = 50;

/** A shape as it was read, and the stand-in that refers to it. */
export type ReadShape = { readonly standIn: StandIn; readonly asset: Asset };

/** The stand-in that a file describes; the problem says what is wrong with it. */
export function readTriangles(name: string, bytes: ArrayBuffer): Result<ReadShape, Problem> {
  const numbers = isBinary(bytes) ? binaryNumbers(bytes) : textNumbers(bytes);
  if (numbers === null) return refused("The file", name, "must be an STL file with triangles");
  return shapeOfTriangles(name, numbers);
}

/**
 * The stand-in of nine numbers a triangle, in mm. One with more triangles than a job takes is made coarser, which its name says;
 * the problem says what is wrong with it.
 */
export function shapeOfTriangles(name: string, numbers: readonly number[]): Result<ReadShape, Problem> {
  if (numbers.length === 0 || numbers.length % 9 !== 0)
    return refused("The file", name, "must hold triangles");
  const count = numbers.length / 9;
  if (count > MOST_COARSENED)
    return refused(
      "The file",
      name,
      `has ${count} triangles; at most ${MOST_COARSENED} are read, export it coarser`,
    );
  if (numbers.some((value) => !Number.isFinite(value) || Math.abs(value) > 100_000))
    return refused("The file", name, "has a corner that is no number or lies more than 100 m away");
  const few = count > MOST_TRIANGLES ? coarser(numbers) : numbers;
  const asset: Asset = { kind: "shape", triangles: [...onItsFoot(few)] };
  const called = few === numbers ? name : `${name.slice(0, 70)}, coarser`;
  return ok({ standIn: { kind: "shape", name: called.slice(0, 80), asset: assetIdOf(asset) }, asset });
}

/** Corners that fall into one cell of a grid become the first of them; the cells grow until few triangles are left. */
function coarser(numbers: readonly number[]): readonly number[] {
  const extents = [0, 1, 2].map((axis) => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = axis; i < numbers.length; i += 3) {
      low = Math.min(low, numbers[i] ?? 0);
      high = Math.max(high, numbers[i] ?? 0);
    }
    return high - low;
  });
  const size = Math.max(...extents, 1e-6);
  // From two hundred cells along the whole of it downwards.
  for (let cells = 200; ; cells *= 0.8) {
    const few = inCells(numbers, size / cells);
    if (few.length / 9 <= MOST_TRIANGLES) return few;
  }
}

function inCells(numbers: readonly number[], size: number): readonly number[] {
  const first = new Map<string, number>();
  const cellOf = (i: number) => {
    const key = [0, 1, 2].map((k) => Math.floor((numbers[i + k] ?? 0) / size)).join();
    const known = first.get(key) ?? i;
    first.set(key, known);
    return known;
  };
  const few: number[] = [];
  const known = new Set<string>();
  for (let i = 0; i < numbers.length; i += 9) {
    const corners = [cellOf(i), cellOf(i + 3), cellOf(i + 6)];
    const key = corners.toSorted((a, b) => a - b).join();
    if (new Set(corners).size < 3 || known.has(key)) continue;
    known.add(key);
    for (const corner of corners) for (let k = 0; k < 3; k++) few.push(numbers[corner + k] ?? 0);
  }
  return few;
}

/** The count in the head of a binary file agrees with its length; text starts with "solid" and has none. */
function isBinary(bytes: ArrayBuffer): boolean {
  if (bytes.byteLength < HEAD_BYTES) return false;
  const count = new DataView(bytes).getUint32(80, true);
  return bytes.byteLength === HEAD_BYTES + count * TRIANGLE_BYTES;
}

function binaryNumbers(bytes: ArrayBuffer): readonly number[] {
  const view = new DataView(bytes);
  const count = Math.min(view.getUint32(80, true), MOST_COARSENED + 1);
  const numbers: number[] = [];
  for (let i = 0; i < count; i++) {
    // The normal comes first; it follows from the corners.
    const corners = HEAD_BYTES + i * TRIANGLE_BYTES + 12;
    for (let k = 0; k < 9; k++) numbers.push(view.getFloat32(corners + 4 * k, true));
  }
  return numbers;
}

function textNumbers(bytes: ArrayBuffer): readonly number[] | null {
  if (bytes.byteLength > 20_000_000) return null;
  const text = asciiOf(new Uint8Array(bytes));
  if (!text.trimStart().startsWith("solid")) return null;
  const numbers: number[] = [];
  for (const [, x, y, z] of text.matchAll(/vertex\s+(\S+)\s+(\S+)\s+(\S+)/g))
    numbers.push(Number(x), Number(y), Number(z));
  return numbers;
}

/** The format is plain ASCII; part by part, since a call takes only so many arguments. */
function asciiOf(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 8_192)
    parts.push(String.fromCharCode(...bytes.subarray(i, i + 8_192)));
  return parts.join("");
}

function onItsFoot(numbers: readonly number[]): number[] {
  const along = (axis: number) => numbers.filter((_, i) => i % 3 === axis);
  const low = [0, 1, 2].map((axis) => along(axis).reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY));
  const high = [0, 1, 2].map((axis) =>
    along(axis).reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY),
  );
  const middle = (axis: number) => ((low[axis] ?? 0) + (high[axis] ?? 0)) / 2;
  const origin = [middle(0), middle(1), low[2] ?? 0];
  return numbers.map((value, i) => roundTo(value - (origin[i % 3] ?? 0), 4));
}
