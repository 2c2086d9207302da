/**
 * Places that drawing catches on: points, middles and quarters of lines, corners of panels. Each knows
 * its coordinates as texts, so that what is drawn from it keeps following the key sizes.
 */
import { add, scale, toWorld, type Vec2, type Vec3 } from "../geometry";
import { type Home, homeOfLine, type Job, type Line, type PlaceText, placeBetween, textOf } from "../job";
import { MM_PER_UNIT, roundTo } from "../measure";
import { linesWithoutMember } from "./guides";
import type { PanelSolid } from "./panel";
import type { Shape } from "./shape";

export type SnapPlace = {
  readonly at: Vec3;
  /** The point that is there already; null: a new one would be made. */
  readonly point: string | null;
  /** Worked out when somebody takes the place: a large job has tens of thousands. */
  readonly texts: () => PlaceText;
  /** What it is, in a word or two: "P3", "middle of C". */
  readonly words: () => string;
};

/** Where the points of one home stand. */
export const pointsIn = (job: Pick<Job, "points">, shape: Shape, home: Home): readonly Vec3[] =>
  [...shape.points].flatMap(([id, at]) => (job.points[id]?.assembly === home ? [at] : []));

/** Every place of one home in a shape that drawing catches on, points first. */
export function snapPlaces(job: Job, shape: Shape, home: Home = null): readonly SnapPlace[] {
  const places: SnapPlace[] = [];
  for (const point of Object.values(job.points)) {
    const at = shape.points.get(point.id);
    if (at && point.assembly === home)
      places.push({ at, point: point.id, texts: () => point.at, words: () => point.name });
  }
  places.push({ at: [0, 0, 0], point: null, texts: () => ["0", "0", "0"], words: () => "origin" });
  const names = memberNames(shape);
  for (const line of linesIn(job, Object.values(job.lines), home)) {
    const [from, to] = [job.points[line.from], job.points[line.to]];
    const [a, b] = [shape.points.get(line.from), shape.points.get(line.to)];
    if (!from || !to || !a || !b) continue;
    for (const [share, word] of SHARES)
      places.push({
        at: add(scale(a, 1 - share), scale(b, share)),
        point: null,
        texts: () => placeBetween(from.at, to.at, share, job.info.job.unit),
        words: () => `${word} of ${names.get(line.id) ?? `${from.name}–${to.name}`}`,
      });
  }
  for (const panel of shape.panels)
    if (panel.panel.assembly === home) places.push(...panelCorners(panel, job));
  return places;
}

/** A line that drawing catches on anywhere along it. */
export type SnapLine = {
  readonly id: string;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly words: string;
};

/** The lines of one home, each called by its member or its points. */
export function snapLines(job: Job, shape: Shape, home: Home = null): readonly SnapLine[] {
  const names = memberNames(shape);
  return linesIn(job, Object.values(job.lines), home).flatMap((line) =>
    snapLine(job, shape, line, names.get(line.id)),
  );
}

const linesIn = (job: Job, lines: readonly Line[], home: Home): readonly Line[] =>
  lines.filter((line) => homeOfLine(job, line) === home);

/** A line as drawing catches on it, called by its points where it has no name; none where a point is not computed. */
function snapLine(job: Job, { points }: Shape, { id, from, to }: Line, name?: string): readonly SnapLine[] {
  const [start, end] = [points.get(from), points.get(to)];
  const ends = [from, to].map((point) => job.points[point]?.name ?? "").join("–");
  return start && end ? [{ id, from: start, to: end, words: name ?? ends }] : [];
}

/** Lines that carry no member: guides, which the picture shows as chalk. */
export function guideLines(job: Job, shape: Shape, home: Home = null): readonly SnapLine[] {
  return linesIn(job, linesWithoutMember(job), home).flatMap((line) => snapLine(job, shape, line));
}

const memberNames = (shape: Shape) =>
  new Map(shape.members.map(({ member }) => [member.line as string, member.name]));

const SHARES = [
  [0.5, "middle"],
  [0.25, "quarter"],
  [0.75, "three quarters"],
] as const;

/** Corners of a panel as they stand now, those of its outline where it has one: numbers, since a panel has no points of its own. */
function panelCorners(
  { panel, frame, length, width, thickness, outline }: PanelSolid,
  job: Job,
): readonly SnapPlace[] {
  const perUnit = MM_PER_UNIT[job.info.job.unit];
  const corners: readonly Vec2[] = outline?.corners.map((corner) => corner.at) ?? [
    [0, 0],
    [length, 0],
    [length, width],
    [0, width],
  ];
  const text = (value: number) => textOf(roundTo(value / perUnit, 6));
  return corners.flatMap(([x, y]) =>
    [0, thickness ?? 0].map((z): SnapPlace => {
      const at = toWorld(frame, [x, y, z]);
      return {
        at,
        point: null,
        texts: () => [text(at[0]), text(at[1]), text(at[2])],
        words: () => `corner of ${panel.name}`,
      };
    }),
  );
}
