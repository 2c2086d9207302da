/** The lengths that follow from two ends. */
import { extremePoints, type Loop, reach, type Vec2 } from "../geometry";
import { at } from "../kernel";
import { type SectionShape, sectionProperties } from "../stockroom";
import { radiiOf } from "./cope";
import type { End, EndFace } from "./end";
import { kindOf } from "./registry";
import { extremesOverTurn } from "./turn";
import { ridge } from "./two-planes";

export type MemberLengths = {
  /** Mean over the section: area × this is the exact volume. */
  readonly centre: number;
  /** Tip to tip along the axis: what the stop is set to. */
  readonly cut: number;
  readonly longestEdge: number;
  /** Negative when the two ends cross. */
  readonly shortestEdge: number;
};

const outerLoop = (section: SectionShape): Loop => at(sectionProperties(section).loops, 0);

/**
 * Lengths of a member whose ends cross its axis `between` mm apart, over the true outline with its corner radii: exact
 * for ends of planes, to about 1e-10 of their swing for curved ones.
 */
export function lengthsBetween(section: SectionShape, between: number, start: End, end: End): MemberLengths {
  const [first, second] = [kindOf(start), kindOf(end)];
  const edge = edgesBetween(section, start, end);
  return {
    centre: between + first.mean(start, section) + second.mean(end, section),
    cut: between + tipOf(section, start) + tipOf(section, end),
    longestEdge: between + edge.greatest,
    shortestEdge: between + edge.least,
  };
}

/** How far the furthest point of an end stands beyond where it crosses the axis. */
export function tipOf(section: SectionShape, end: End): number {
  const kind = kindOf(end);
  const faces = kind.faces(end);
  // A single plane is highest where the outline reaches furthest along its slope.
  if (faces?.length === 1) return reach(outerLoop(section), at(faces, 0).slope);
  const height = kind.height(end, section);
  if (!faces) return overTurn(section, height).greatest;
  return Math.max(...extremePoints(outerLoop(section), slopesOf(faces), ridgesOf(faces)).map(height));
}

/** The least and the greatest of both heights together, along the edges of the member. */
function edgesBetween(section: SectionShape, start: End, end: End) {
  const [first, second] = [kindOf(start), kindOf(end)];
  const [low, high] = [first.faces(start), second.faces(end)];
  const outline = outerLoop(section);
  if (low?.length === 1 && high?.length === 1) {
    const [a, b] = [at(low, 0).slope, at(high, 0).slope];
    const sum: Vec2 = [a[0] + b[0], a[1] + b[1]];
    return { greatest: reach(outline, sum), least: -reach(outline, [-sum[0], -sum[1]]) };
  }
  const [below, above] = [first.height(start, section), second.height(end, section)];
  const together = (point: Vec2) => below(point) + above(point);
  if (!low || !high) return overTurn(section, together);
  const slopes = low.flatMap((p) =>
    high.map((q): Vec2 => [p.slope[0] + q.slope[0], p.slope[1] + q.slope[1]]),
  );
  const points = extremePoints(outline, slopes, [...ridgesOf(low), ...ridgesOf(high)]);
  const values = points.map(together);
  return { greatest: Math.max(...values), least: Math.min(...values) };
}

const slopesOf = (faces: readonly EndFace[]) => faces.map(({ slope }) => slope);

/** The ridges in which the planes of an end meet. */
export const ridgesOf = (faces: readonly EndFace[]) =>
  faces.flatMap((face, i) => faces.slice(0, i).map((before) => ridge(before, face)));

/** Curved ends are those of round members. */
function overTurn(section: SectionShape, height: (point: Vec2) => number) {
  const outer = radiiOf(section)?.outer ?? 0;
  return extremesOverTurn((phi) => height([outer * Math.cos(phi), outer * Math.sin(phi)]));
}
