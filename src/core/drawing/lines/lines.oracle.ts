/**
 * The image of solids by brute force, with nothing of the method that is tested: at a place on the paper every face of
 * every solid is asked whether it lies there, and the one nearest to the viewer is seen.
 */
import { at } from "../../kernel";
import type { SeenSolid } from "./candidates";

type Place = readonly [number, number];
type Facet = {
  readonly owner: number;
  readonly around: readonly (readonly [number, number, number])[];
  readonly normal: readonly [number, number, number];
  readonly box: readonly [number, number, number, number];
};

/** What is seen at a place: the solid, the normal of its face, and how near it is. */
export type Seen = {
  readonly owner: number;
  readonly normal: readonly [number, number, number];
  readonly z: number;
  /** The slope of the face on the paper: how its depth changes. */
  readonly slope: readonly [number, number];
};

export class Image {
  private readonly facets: readonly Facet[];
  readonly box: readonly [number, number, number, number];

  constructor(solids: readonly SeenSolid[]) {
    this.facets = solids.flatMap(({ solid, frame }, owner) => {
      const move = ([a, b, c]: readonly [number, number, number], from: readonly number[]) =>
        [0, 1, 2].map(
          (i) => (from[i] ?? 0) + a * at(frame.x, i) + b * at(frame.y, i) + c * at(frame.z, i),
        ) as unknown as [number, number, number];
      const points = solid.points.map((point) => move(point, frame.origin));
      return solid.faces.flatMap(({ corners, normal: n }): Facet[] => {
        const normal = move(at(solid.normals, n), [0, 0, 0]);
        if (Math.abs(normal[2]) < 1e-9) return [];
        const around = corners.map((i) => at(points, i));
        const [xs, ys] = [around.map(([x]) => x), around.map(([, y]) => y)];
        const box = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const;
        return [{ owner, around, normal, box }];
      });
    });
    const all = this.facets.map(({ box }) => box);
    this.box = [
      Math.min(...all.map(([x]) => x)),
      Math.min(...all.map(([, y]) => y)),
      Math.max(...all.map(([, , x]) => x)),
      Math.max(...all.map(([, , , y]) => y)),
    ];
  }

  seenAt([x, y]: Place): Seen | null {
    let best: Seen | null = null;
    for (const { owner, around, normal, box } of this.facets) {
      if (x < box[0] || y < box[1] || x > box[2] || y > box[3]) continue;
      if (!holds(around, x, y)) continue;
      const [px, py, pz] = at(around, 0);
      const slope = [-normal[0] / normal[2], -normal[1] / normal[2]] as const;
      const z = pz + (x - px) * slope[0] + (y - py) * slope[1];
      if (best === null || z > best.z) best = { owner, normal, z, slope };
    }
    return best;
  }
}

/** Crossings of a ray to the right with the sides: odd inside. */
function holds(around: readonly (readonly [number, number, number])[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = around.length - 1; i < around.length; j = i++) {
    const [[x0, y0], [x1, y1]] = [at(around, i), at(around, j)];
    if (y0 > y !== y1 > y && x < ((x1 - x0) * (y - y0)) / (y1 - y0) + x0) inside = !inside;
  }
  return inside;
}

/** Whether two places of the image show something else on either side of a border. */
function differs(a: Seen | null, b: Seen | null, apart: Place): "no" | "crossing" | "yes" {
  if (a === null || b === null) return a === b ? "no" : "yes";
  const cos = a.normal[0] * b.normal[0] + a.normal[1] * b.normal[1] + a.normal[2] * b.normal[2];
  const bent = cos < Math.cos((23 * Math.PI) / 180);
  // How far the one face, gone on, misses the other.
  const step = Math.min(
    Math.abs(b.z - a.z - apart[0] * a.slope[0] - apart[1] * a.slope[1]),
    Math.abs(b.z - a.z - apart[0] * b.slope[0] - apart[1] * b.slope[1]),
  );
  if (step > 0.3) return "yes";
  if (a.owner !== b.owner) return "crossing";
  return bent ? "yes" : "no";
}

type Drawn = { readonly from: Place; readonly to: Place; readonly kind: string };

/** mm. How far a change of the image may lie from the line that is drawn for it. */
const NEAR_MM = 0.04;

export type Verdict = {
  /** Places at which the image changes, and those among them that no line is near. */
  readonly changes: number;
  readonly missing: readonly string[];
  /** Places on lines, and those at which nothing changes from one side to the other. */
  readonly drawn: number;
  readonly withoutReason: readonly string[];
  /** Changes where solids touch or share room: whether a line has to be drawn there is not asked. */
  readonly crossings: number;
};

/** Looks for changes along lines laid at random over the image, and for reasons beside random places of drawn lines. */
export function verdict(
  solids: readonly SeenSolid[],
  lines: readonly Drawn[],
  { next }: { readonly next: () => number },
  { scans = 60, places = 400, length = 150 } = {},
): Verdict {
  const image = new Image(solids);
  const between = (a: number, b: number) => a + (b - a) * next();
  const [left, low, right, high] = image.box;
  const missing: string[] = [];
  let [changes, crossings, drawn] = [0, 0, 0];
  for (let k = 0; k < scans; k++) {
    const start: Place = [between(left, right), between(low, high)];
    const angle = between(0, Math.PI);
    const way: Place = [length * Math.cos(angle), length * Math.sin(angle)];
    for (const found of changesAlong(image, start, way)) {
      if (found.what === "crossing") crossings++;
      else {
        changes++;
        if (!lines.some((line) => distanceTo(line, found.at) < NEAR_MM))
          missing.push(found.at.map((v) => v.toFixed(3)).join(" "));
      }
    }
  }
  const withoutReason: string[] = [];
  for (let k = 0; k < places && lines.length > 0; k++) {
    const { from, to, kind } = at(lines, Math.floor(between(0, lines.length)));
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    const size = Math.hypot(dx, dy);
    // A crease has none in the image, and beside a very short line there is no room to look.
    if (kind === "crease" || size < 0.5) continue;
    drawn++;
    const t = between(0.1, 0.9);
    const place: Place = [from[0] + dx * t, from[1] + dy * t];
    if (!hasReason(image, place, [-dy / size, dx / size]))
      withoutReason.push(`${kind} ${place.map((v) => v.toFixed(3)).join(" ")}`);
  }
  return { changes, missing, drawn, withoutReason, crossings };
}

type Change = { readonly what: "crossing" | "yes"; readonly at: Place };

/** Where the image changes along a line, each place to a thousandth of a millimetre. */
function changesAlong(image: Image, start: Place, way: Place): readonly Change[] {
  const steps = 100;
  const on = (t: number): Place => [start[0] + way[0] * t, start[1] + way[1] * t];
  const apart = (share: number): Place => [way[0] * share, way[1] * share];
  const least = 1e-3 / Math.hypot(...way);
  const changes: Change[] = [];
  let before = image.seenAt(on(0));
  for (let i = 1; i <= steps; i++) {
    const after = image.seenAt(on(i / steps));
    if (differs(before, after, apart(1 / steps)) !== "no") {
      let [low, high, a, b] = [(i - 1) / steps, i / steps, before, after];
      while (high - low > least) {
        const middle = (low + high) / 2;
        const seen = image.seenAt(on(middle));
        if (differs(a, seen, apart(middle - low)) === "no") [low, a] = [middle, seen];
        else [high, b] = [middle, seen];
      }
      const what = differs(a, b, apart(high - low));
      if (what !== "no") changes.push({ what, at: on((low + high) / 2) });
    }
    before = after;
  }
  return changes;
}

/** Whether the image is another on the two sides of a place, close by: two lines may lie a few hundredths from one another. */
function hasReason(image: Image, [x, y]: Place, [nx, ny]: Place): boolean {
  return [0.03, 0.06, 0.1, 0.015, 0.005].some((e) => {
    const [a, b] = [image.seenAt([x - nx * e, y - ny * e]), image.seenAt([x + nx * e, y + ny * e])];
    if (differs(a, b, [2 * nx * e, 2 * ny * e]) !== "no") return true;
    return a !== null && b !== null && a.normal.some((v, i) => Math.abs(v - at(b.normal, i)) > 0.3);
  });
}

function distanceTo({ from, to }: Drawn, [x, y]: Place): number {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const t = ((x - from[0]) * dx + (y - from[1]) * dy) / (dx * dx + dy * dy || 1);
  const on = Math.max(0, Math.min(1, t));
  return Math.hypot(x - from[0] - dx * on, y - from[1] - dy * on);
}
