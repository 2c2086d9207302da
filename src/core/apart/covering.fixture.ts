/** How much meshes cover of one another, by lines of sight through their triangles: nothing of it is shared with the method. */
import type { Mesh, Vec3 } from "../geometry";
import type { SeenFrom } from ".";

const times = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** From a direction to the viewer, heights upwards. */
export function seenFrom(viewer: Vec3): SeenFrom {
  const size = Math.hypot(...viewer);
  const towards: Vec3 = [viewer[0] / size, viewer[1] / size, viewer[2] / size];
  const flat = Math.hypot(towards[0], towards[1]);
  const right: Vec3 = [-towards[1] / flat, towards[0] / flat, 0];
  const up: Vec3 = [-right[1] * towards[2], right[0] * towards[2], flat];
  return { right, up, towards };
}

/** mm between lines of sight. */
const APART = 9;

type Seen = ReadonlyMap<string, number>;

/** How near a mesh comes along each line of sight that meets it. */
function seenSpots(mesh: Mesh, by: Vec3, { right, up, towards }: SeenFrom): Seen {
  const nearest = new Map<string, number>();
  const places = mesh.vertices.map((v) => {
    const p: Vec3 = [v[0] + by[0], v[1] + by[1], v[2] + by[2]];
    return [times(p, right) / APART, times(p, up) / APART, times(p, towards)] as const;
  });
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => places[mesh.triangles[i + k] as number]);
    if (!a || !b || !c) continue;
    const area = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
    if (Math.abs(area) < 1e-9) continue;
    for (let x = Math.ceil(Math.min(a[0], b[0], c[0])); x <= Math.max(a[0], b[0], c[0]); x++)
      for (let y = Math.ceil(Math.min(a[1], b[1], c[1])); y <= Math.max(a[1], b[1], c[1]); y++) {
        const u = ((x - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (y - a[1])) / area;
        const v = ((b[0] - a[0]) * (y - a[1]) - (x - a[0]) * (b[1] - a[1])) / area;
        if (u < 0 || v < 0 || u + v > 1) continue;
        const depth = a[2] + u * (b[2] - a[2]) + v * (c[2] - a[2]);
        const key = `${x} ${y}`;
        if (depth > (nearest.get(key) ?? Number.NEGATIVE_INFINITY)) nearest.set(key, depth);
      }
  }
  return nearest;
}

type Piece = { readonly key: string; readonly mesh: Mesh };

/** Pairs of pieces of which one covers another by more than in the whole, and that by this share of what it shows. */
export function coveredMore(
  pieces: readonly Piece[],
  offsets: ReadonlyMap<string, Vec3>,
  from: SeenFrom,
  more: number,
): readonly string[] {
  const shares = (by: (key: string) => Vec3): ReadonlyMap<string, number> => {
    const spots = pieces.map(({ key, mesh }) => ({ key, seen: seenSpots(mesh, by(key), from) }));
    return new Map(
      spots.flatMap((covered) =>
        spots.flatMap((over): [string, number][] => {
          if (over === covered || covered.seen.size === 0) return [];
          let hidden = 0;
          for (const [spot, depth] of covered.seen)
            if ((over.seen.get(spot) ?? depth) > depth + 1e-6) hidden++;
          return [[`${covered.key} by ${over.key}`, hidden / covered.seen.size]];
        }),
      ),
    );
  };
  const whole = shares(() => [0, 0, 0]);
  const apart = shares((key) => offsets.get(key) ?? [0, 0, 0]);
  return [...apart].flatMap(([pair, share]) => (share > (whole.get(pair) ?? 0) + more ? [pair] : []));
}
