/** Faces of cuts: hatched at even distance within their outlines (ISO 128-3); what is thin on paper is filled. */
import { type Polygon, polygonArea, type Vec2 } from "../geometry";
import { at } from "../kernel";
import type { DrawItem } from "./display";
import type { Path } from "./path";

export type Hatch = {
  /** Degrees from the horizontal. */
  readonly angle: number;
  /** mm on paper from line to line. */
  readonly apart: number;
};

/** mm on paper. What is thinner is filled: lines in it would only be dots. */
const THIN = 1.2;

/** Outlines of one section on paper, holes the other way round, as what is drawn of it. */
export function hatched(outlines: readonly Polygon[], hatch: Hatch, width: number): readonly DrawItem[] {
  const area = Math.abs(outlines.reduce((sum, outline) => sum + polygonArea(outline), 0));
  const around = outlines.reduce((sum, outline) => sum + lengthOf(outline), 0);
  if (around === 0) return [];
  const paths = outlines.map(
    ([from = [0, 0], ...rest]): Path => ({
      from,
      segments: rest.map((to) => ({ kind: "line", to })),
      closed: true,
    }),
  );
  if ((2 * area) / around < THIN)
    return [{ kind: "paths", paths, stroke: null, fill: "ink", layer: "HATCHING" }];
  return hatchLines(outlines, hatch).map(
    ([from, to]): DrawItem => ({
      kind: "line",
      from,
      to,
      stroke: { ink: "ink", width: width / 2 },
      layer: "HATCHING",
    }),
  );
}

const lengthOf = (outline: Polygon): number =>
  outline.reduce((sum, [x, y], i) => {
    const [nx, ny] = at(outline, (i + 1) % outline.length);
    return sum + Math.hypot(nx - x, ny - y);
  }, 0);

/** Lines across outlines, inside by the even-odd rule; they lie on one raster for the whole page, so that neighbours match. */
export function hatchLines(
  outlines: readonly Polygon[],
  { angle, apart }: Hatch,
): readonly (readonly [Vec2, Vec2])[] {
  const turn = (angle * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), -Math.sin(turn)];
  // Along the lines and across them; y runs down on paper.
  const turned = ([x, y]: Vec2): Vec2 => [x * c + y * s, y * c - x * s];
  const back = ([a, b]: Vec2): Vec2 => [a * c - b * s, a * s + b * c];
  const edges = outlines.flatMap((outline) =>
    outline.map((place, i) => [turned(place), turned(at(outline, (i + 1) % outline.length))] as const),
  );
  const levels = edges.flatMap(([p, q]) => [p[1], q[1]]);
  const [low, high] = [Math.min(...levels), Math.max(...levels)];
  const lines: (readonly [Vec2, Vec2])[] = [];
  for (let k = Math.ceil(low / apart - 0.5); (k + 0.5) * apart < high; k++) {
    const level = (k + 0.5) * apart;
    const stops = edges
      .flatMap(([p, q]) =>
        p[1] > level !== q[1] > level ? [p[0] + ((level - p[1]) * (q[0] - p[0])) / (q[1] - p[1])] : [],
      )
      .sort((a, b) => a - b);
    for (let i = 0; i + 1 < stops.length; i += 2)
      lines.push([back([at(stops, i), level]), back([at(stops, i + 1), level])]);
  }
  return lines;
}
