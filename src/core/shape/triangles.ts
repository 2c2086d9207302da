/**
 * Reads the triangles of an STL file, text or binary (the format of 3D Systems, 1989: 80 bytes, a count of
 * triangles, 50 bytes each, little-endian), and puts the middle of its foot at the origin. STL has no unit;
 * millimetres are taken, as is usual.
 */
import { type Asset, assetIdOf, refused, type StandIn } from "../job";
import { ok, type Problem, type Result } from "../kernel";
import { roundTo } from "../measure";

const MOST_TRIANGLES = 4_000;
const HEAD_BYTES = 84;
const TRIANGLE_BYTES = 50;

/** A shape as it was read, and the stand-in that refers to it. */
export type ReadShape = { readonly standIn: StandIn; readonly asset: Asset };

/** The stand-in that a file describes; the problem says what is wrong with it. */
export function readTriangles(name: string, bytes: ArrayBuffer): Result<ReadShape, Problem> {
  const numbers = isBinary(bytes) ? binaryNumbers(bytes) : textNumbers(bytes);
  if (numbers === null || numbers.length === 0 || numbers.length % 9 !== 0)
    return refused("The file", name, "must be an STL file with triangles");
  if (numbers.length / 9 > MOST_TRIANGLES)
    return refused(
      "The file",
      name,
      `has ${numbers.length / 9} triangles; at most ${MOST_TRIANGLES} are taken, make it coarser`,
    );
  if (numbers.some((value) => !Number.isFinite(value) || Math.abs(value) > 100_000))
    return refused("The file", name, "has a corner that is no number or lies more than 100 m away");
  const asset: Asset = { kind: "shape", triangles: [...onItsFoot(numbers)] };
  return ok({ standIn: { kind: "shape", name: name.slice(0, 80), asset: assetIdOf(asset) }, asset });
}

/** The count in the head of a binary file agrees with its length; text starts with "solid" and has none. */
function isBinary(bytes: ArrayBuffer): boolean {
  if (bytes.byteLength < HEAD_BYTES) return false;
  const count = new DataView(bytes).getUint32(80, true);
  return bytes.byteLength === HEAD_BYTES + count * TRIANGLE_BYTES;
}

function binaryNumbers(bytes: ArrayBuffer): readonly number[] {
  const view = new DataView(bytes);
  const count = Math.min(view.getUint32(80, true), MOST_TRIANGLES + 1);
  const numbers: number[] = [];
  for (let i = 0; i < count; i++) {
    // The normal comes first; it follows from the corners.
    const corners = HEAD_BYTES + i * TRIANGLE_BYTES + 12;
    for (let k = 0; k < 9; k++) numbers.push(view.getFloat32(corners + 4 * k, true));
  }
  return numbers;
}

function textNumbers(bytes: ArrayBuffer): readonly number[] | null {
  if (bytes.byteLength > 4_000_000) return null;
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
