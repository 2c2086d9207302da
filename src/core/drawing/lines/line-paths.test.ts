/** Lines as paths: curves are curves again, what runs on is one path, and nothing is drawn that was no line. */
import { describe, expect, it } from "vitest";
import {
  AT_HOME,
  boxLoop,
  circle,
  levelEnd,
  type Pose,
  posed,
  prismSolid,
  ringOf,
  type Solid,
  type Vec2,
  type Vec3,
} from "../../geometry";
import { resultsOf, smallFrame } from "../../pipeline.fixture";
import { onEllipse, type Path, type PathSegment } from "../path";
import { linePaths } from "./line-paths";
import type { ViewLine } from "./merging";
import { seenPieces } from "./shape-solids";
import { inView, VIEW_DIRECTIONS, viewFrom } from "./view-frame";
import { viewLines } from "./view-lines";

const asItIs = (place: Vec2): Vec2 => place;
/** Twice as large, with y downwards. */
const onPaper = ([x, y]: Vec2): Vec2 => [2 * x + 5, 70 - 2 * y];

const STEP = Math.PI / 16;
function rod(towards: Vec3): Solid {
  const angle = Math.atan2(towards[1], towards[0]);
  const silhouettes = [angle + Math.PI / 2, angle - Math.PI / 2];
  return prismSolid([ringOf(circle(20), { step: STEP, silhouettes })], levelEnd(0), levelEnd(100));
}
function linesOf(solid: Solid, direction: Vec3, { frame }: Pose = AT_HOME): readonly ViewLine[] {
  const round = 2 * 20 * (1 - Math.cos(STEP));
  return viewLines([{ solid, frame: inView(viewFrom(direction), frame), round }]);
}

const ellipsesOf = (paths: readonly Path[]) =>
  paths.flatMap(({ segments }) => segments.flatMap((one) => (one.kind === "ellipse" ? [one] : [])));

/** Places along a path, close together. */
function placesOn({ from, segments }: Path): readonly Vec2[] {
  let start = from;
  return segments.flatMap((segment: PathSegment): readonly Vec2[] => {
    const places = Array.from({ length: 60 }, (_, i): Vec2 => {
      const t = (i + 0.5) / 60;
      if (segment.kind === "ellipse")
        return onEllipse(segment, segment.from + (segment.to - segment.from) * t);
      return [start[0] + (segment.to[0] - start[0]) * t, start[1] + (segment.to[1] - start[1]) * t];
    });
    start = segment.kind === "line" ? segment.to : onEllipse(segment, segment.to);
    return places;
  });
}
const away = ([x, y]: Vec2, { from, to }: Pick<ViewLine, "from" | "to">): number => {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const t = Math.max(0, Math.min(1, ((x - from[0]) * dx + (y - from[1]) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - from[0] - t * dx, y - from[1] - t * dy);
};

describe("paths of lines", () => {
  it("are one circle where a rod is seen from above", () => {
    const paths = linePaths(linesOf(rod([0, 0, 1]), VIEW_DIRECTIONS.top), asItIs);
    expect(paths).toHaveLength(1);
    const [ellipse] = ellipsesOf(paths);
    expect(paths[0]?.closed).toBe(true);
    expect((ellipse?.to ?? 0) - (ellipse?.from ?? 0)).toBeCloseTo(2 * Math.PI, 6);
    expect([Math.hypot(...(ellipse?.u ?? [])), Math.hypot(...(ellipse?.v ?? []))]).toEqual([20, 20]);
  });

  it("are the whole rim, half the foot and two sides where it is seen aslant", () => {
    const direction: Vec3 = [0.3, -1, 0.8];
    const lines = linesOf(rod(direction), direction);
    const paths = linePaths(lines, onPaper);
    const turns = ellipsesOf(paths).map(({ from, to }) => Math.abs(to - from));
    expect(turns.sort((a, b) => a - b).map((turn) => Number((turn / Math.PI).toFixed(6)))).toEqual([1, 2]);
    // The foot runs on in both sides: with the rim that is all, since the sides end at the rim.
    expect(paths).toHaveLength(2);
    expect(paths.find(({ closed }) => !closed)?.segments.map(({ kind }) => kind)).toEqual([
      "line",
      "ellipse",
      "line",
    ]);
    // The diameter that lies square to the direction of view is as long as it is, at twice the size.
    const [rim] = ellipsesOf(paths).filter(({ from, to }) => Math.abs(to - from) > 4);
    if (!rim) throw new Error("there is a rim");
    const reaches = Array.from({ length: 720 }, (_, i) => onEllipse({ ...rim, centre: [0, 0] }, i / 100));
    expect(Math.max(...reaches.map((place) => Math.hypot(...place)))).toBeCloseTo(40, 2);
  });

  it("have no curve where a circle is seen edge-on", () => {
    const paths = linePaths(linesOf(rod([0, -1, 0]), VIEW_DIRECTIONS.front), asItIs);
    expect(ellipsesOf(paths)).toEqual([]);
    expect(paths).toHaveLength(1);
    expect(paths[0]?.closed).toBe(true);
  });

  it("run round a box from the front as one", () => {
    const box = prismSolid([ringOf(boxLoop([0, 0], [30, 20]), { step: 1 })], levelEnd(0), levelEnd(10));
    const [path, ...more] = linePaths(linesOf(box, VIEW_DIRECTIONS.front), asItIs);
    expect(more).toEqual([]);
    expect([path?.closed, path?.segments.length]).toEqual([true, 4]);
  });

  it.each([
    ["as drawn", null],
    ["mirrored", 0],
  ] as const)("draw what the lines draw and nothing else, %s", (_, mirror) => {
    const direction: Vec3 = [-0.6, -1, 0.5];
    const view = viewFrom(direction);
    const pieces = seenPieces(resultsOf(smallFrame()).shape, view);
    const turn = posed([0, 0, 0], [0, 0, 0], mirror);
    const lines = viewLines(pieces);
    const flipped = (place: Vec2): Vec2 => (turn.mirrored ? [-place[0], place[1]] : place);
    const paths = linePaths(lines, flipped);
    expect(paths.length).toBeLessThan(lines.length / 1.5);
    // A curve stands beside its chords by no more than they bow.
    const bow = 0.15;
    const placed = lines.map(({ from, to }) => ({ from: flipped(from), to: flipped(to) }));
    const drawn = paths.flatMap(placesOn);
    for (const place of drawn) expect(Math.min(...placed.map((line) => away(place, line)))).toBeLessThan(bow);
    for (const { from, to } of placed) {
      const middle: Vec2 = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      const size = Math.hypot(to[0] - from[0], to[1] - from[1]);
      const nearest = Math.min(
        ...drawn.map((place) => Math.hypot(place[0] - middle[0], place[1] - middle[1])),
      );
      expect(nearest).toBeLessThan(bow + size / 20);
    }
  });

  it("leave of a curve what is seen of it, from where it comes out to where it goes under", () => {
    const direction: Vec3 = [0.2, -1, 0.9];
    const view = viewFrom(direction);
    const solid = rod(direction);
    const post = prismSolid([ringOf(boxLoop([0, 0], [13, 5]), { step: 1 })], levelEnd(0), levelEnd(300));
    const stands = (origin: Vec3) => inView(view, { ...AT_HOME.frame, origin });
    const lines = viewLines([
      { solid, frame: stands([0, 0, 0]), round: 2 * 20 * (1 - Math.cos(STEP)) },
      { solid: post, frame: stands([5, -60, -80]), round: 0 },
    ]);
    const curved = lines.flatMap(({ from, to, arc }) => (arc ? [{ from, to, arc }] : []));
    expect(curved.length).toBeGreaterThan(20);
    for (const { from, to, arc } of curved)
      for (const [place, angle] of [
        [from, arc.from],
        [to, arc.to],
      ] as const) {
        const on = onEllipse(arc.on, angle);
        // Within what a chord of that step bows.
        expect(Math.hypot(on[0] - place[0], on[1] - place[1])).toBeLessThan(
          20 * (1 - Math.cos(STEP / 2)) + 0.01,
        );
      }
    // The post parts the rim: less than a turn of it is left, in two pieces.
    const rim = ellipsesOf(linePaths(lines, asItIs)).filter(({ centre }) => centre[1] > 40);
    expect(rim).toHaveLength(2);
    const left = rim.reduce((sum, { from, to }) => sum + Math.abs(to - from), 0);
    expect(left).toBeGreaterThan(4.5);
    expect(left).toBeLessThan(2 * Math.PI - 0.9);
  });

  it("of no lines are none", () => {
    expect(linePaths([], asItIs)).toEqual([]);
  });
});
