/** What the pointer means while members are drawn: a place to catch on, or a length along a way. */
import type { Vec3 } from "@/core/geometry";
import { at } from "@/core/kernel";
import { directionOf, type SnapLine, type SnapPlace, WAYS, type Way } from "@/core/shape";

export type Spot = { readonly x: number; readonly y: number };
export type Project = (place: Vec3) => Spot;

const CATCH_PX = 12;

/** What is caught in one view: where everything is seen is worked out once, when the pointer first moves in it. */
export type Catcher = {
  /** The nearest place within reach of the pointer; points win over other places at the same distance. */
  readonly place: (spot: Spot) => SnapPlace | null;
  /** The place on a line that the pointer is near, at a length from its start in steps of `step` mm. */
  readonly onLine: (spot: Spot, step: number) => OnLine | null;
};

export function createCatcher(
  snaps: () => readonly SnapPlace[],
  lines: () => readonly SnapLine[],
  project: Project,
): Catcher {
  let seenSnaps: Float64Array | null = null;
  let seenLines: Float64Array | null = null;
  const spots = (places: readonly Vec3[]): Float64Array => {
    const seen = new Float64Array(2 * places.length);
    for (const [i, place] of places.entries()) {
      const { x, y } = project(place);
      seen[2 * i] = x;
      seen[2 * i + 1] = y;
    }
    return seen;
  };
  return {
    place: (spot) => {
      const all = snaps();
      seenSnaps ??= spots(all.map(({ at }) => at));
      return caught(all, seenSnaps, spot);
    },
    onLine: (spot, step) => {
      const all = lines();
      seenLines ??= spots(all.flatMap(({ from, to }) => [from, to]));
      return caughtOnLine(all, seenLines, spot, step);
    },
  };
}

function caught(snaps: readonly SnapPlace[], seen: Float64Array, spot: Spot): SnapPlace | null {
  let best: { readonly snap: SnapPlace; readonly apart: number } | null = null;
  for (const [i, snap] of snaps.entries()) {
    const [x, y] = [at(seen, 2 * i), at(seen, 2 * i + 1)];
    const apart = Math.hypot(x - spot.x, y - spot.y) - (snap.point === null ? 0 : 3);
    if (apart < CATCH_PX && (best === null || apart < best.apart)) best = { snap, apart };
  }
  return best?.snap ?? null;
}

export type AlongWay = { readonly way: Way; readonly mm: number };

/** The way that the pointer follows best from a place, and how far, in steps of `step` mm. */
export function alongWay(from: Vec3, spot: Spot, project: Project, step: number): AlongWay | null {
  const start = project(from);
  const [px, py] = [spot.x - start.x, spot.y - start.y];
  let best: (AlongWay & { readonly beside: number }) | null = null;
  for (const way of WAYS) {
    const [dx, dy, dz] = directionOf(way);
    const seen = project([from[0] + 100 * dx, from[1] + 100 * dy, from[2] + 100 * dz]);
    const [sx, sy] = [seen.x - start.x, seen.y - start.y];
    const size = Math.hypot(sx, sy);
    if (size < 1) continue;
    const along = (px * sx + py * sy) / size;
    const beside = Math.abs(px * sy - py * sx) / size;
    if (along <= 0) continue;
    const mm = Math.round((along / size) * (100 / step)) * step;
    if (mm > 0 && (best === null || beside < best.beside)) best = { way, mm, beside };
  }
  return best && { way: best.way, mm: best.mm };
}

export type OnLine = { readonly line: SnapLine; readonly mm: number; readonly at: Vec3 };

function caughtOnLine(
  lines: readonly SnapLine[],
  seen: Float64Array,
  spot: Spot,
  step: number,
): OnLine | null {
  let best: (OnLine & { readonly apart: number }) | null = null;
  for (const [i, line] of lines.entries()) {
    const { from, to } = line;
    const a = { x: at(seen, 4 * i), y: at(seen, 4 * i + 1) };
    const [dx, dy] = [at(seen, 4 * i + 2) - a.x, at(seen, 4 * i + 3) - a.y];
    const size = dx * dx + dy * dy;
    if (size < 100) continue;
    const share = ((spot.x - a.x) * dx + (spot.y - a.y) * dy) / size;
    const apart = Math.abs((spot.x - a.x) * dy - (spot.y - a.y) * dx) / Math.sqrt(size);
    if (share <= 0 || share >= 1 || apart > CATCH_PX / 2 || (best !== null && apart >= best.apart)) continue;
    const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
    const mm = Math.round((share * length) / step) * step;
    if (mm <= 0 || mm >= length) continue;
    const along = (i: 0 | 1 | 2) => from[i] + ((to[i] - from[i]) * mm) / length;
    best = { line, mm, at: [along(0), along(1), along(2)], apart };
  }
  return best;
}

/** A place in steps of `step` mm, but kept exactly where it agrees with the place that it started from. */
export function stepped(place: Vec3, from: Vec3, step: number): Vec3 {
  const part = (i: 0 | 1 | 2) =>
    Math.abs(place[i] - from[i]) < step / 2
      ? from[i]
      : from[i] + Math.round((place[i] - from[i]) / step) * step;
  return [part(0), part(1), part(2)];
}
