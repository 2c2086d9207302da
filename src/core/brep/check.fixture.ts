/**
 * Looks a border over without the code that makes it: readers mend what is wrong in silence, so a good read proves little.
 * Edges are used twice, once each way; loops close; corners and curves lie on their faces; the volume is summed over the faces.
 */
import type { Brep, BrepEdge, BrepFace } from "./brep";
import type { BrepSpline } from "./spline";

type V = readonly [number, number, number];
const sub = (a: V, b: V): V => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: V, b: V) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: V, b: V): V => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const size = (a: V) => Math.sqrt(dot(a, a));
const mix = (...parts: readonly (readonly [V, number])[]): V =>
  parts.reduce<V>((sum, [v, f]) => [sum[0] + v[0] * f, sum[1] + v[1] * f, sum[2] + v[2] * f], [0, 0, 0]);

/** By the recursion of Cox and de Boor over its basis functions. */
function onBSpline({ pieces, poles }: BrepSpline, parameter: number): V {
  const knots = [
    ...Array<number>(6).fill(0),
    ...Array.from({ length: pieces - 1 }, (_, i) => [i + 1, i + 1, i + 1]).flat(),
    ...Array<number>(6).fill(pieces),
  ];
  const t = Math.min(parameter, pieces - 1e-12);
  const weight = (i: number, degree: number): number => {
    const knot = (k: number) => knots[k] as number;
    if (degree === 0) return t >= knot(i) && t < knot(i + 1) ? 1 : 0;
    const [left, right] = [knot(i + degree) - knot(i), knot(i + degree + 1) - knot(i + 1)];
    return (
      (left > 0 ? ((t - knot(i)) / left) * weight(i, degree - 1) : 0) +
      (right > 0 ? ((knot(i + degree + 1) - t) / right) * weight(i + 1, degree - 1) : 0)
    );
  };
  // Six of them are not zero between two knots.
  const first = 3 * Math.floor(t);
  return mix(...Array.from({ length: 6 }, (_, k) => [poles[first + k] as V, weight(first + k, 5)] as const));
}

/** Points along an edge from its first to its last corner. */
function along(brep: Brep, edge: BrepEdge, steps: number): readonly V[] {
  const [a, b] = [brep.points[edge.from] as V, brep.points[edge.to] as V];
  const { curve } = edge;
  if (curve.kind === "line") return [a, b];
  if (curve.kind === "spline")
    return Array.from({ length: steps + 1 }, (_, i) => onBSpline(curve, (curve.pieces * i) / steps));
  const minor = cross(curve.normal, curve.major);
  const angle = (p: V) => {
    const away = sub(p, curve.centre);
    return Math.atan2(dot(away, minor) / curve.short, dot(away, curve.major) / curve.long);
  };
  const turn = 2 * Math.PI;
  let sweep = curve.ahead ? angle(b) - angle(a) : angle(a) - angle(b);
  sweep = ((sweep % turn) + turn) % turn;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const at = angle(a) + ((curve.ahead ? 1 : -1) * sweep * i) / steps;
    return mix(
      [curve.centre, 1],
      [curve.major, curve.long * Math.cos(at)],
      [minor, curve.short * Math.sin(at)],
    );
  });
}

/** What is wrong with a border; nothing where it is sound. mm. */
export function faultsOf(brep: Brep): readonly string[] {
  const faults: string[] = [];
  const ways = brep.edges.map((): [number, number] => [0, 0]);
  for (const [f, face] of brep.faces.entries()) {
    for (const loop of face.loops)
      for (const [i, { edge, ahead }] of loop.entries()) {
        const one = brep.edges[edge] as BrepEdge;
        const next = loop[(i + 1) % loop.length] as (typeof loop)[number];
        const after = brep.edges[next.edge] as BrepEdge;
        const way = ways[edge] as [number, number];
        way[ahead ? 0 : 1] += 1;
        if ((ahead ? one.to : one.from) !== (next.ahead ? after.from : after.to))
          faults.push(`face ${f}: a loop has a gap`);
        for (const point of along(brep, one, 8))
          if (Math.abs(offSurface(face, point)) > 1e-6)
            faults.push(`face ${f}: an edge lies off it by ${offSurface(face, point)}`);
      }
  }
  for (const [i, [ahead, back]] of ways.entries())
    if (ahead !== 1 || back !== 1) faults.push(`edge ${i}: used ${ahead} and ${back} times`);
  for (const [i, edge] of brep.edges.entries()) {
    const run = along(brep, edge, 4);
    const ends = [brep.points[edge.from] as V, brep.points[edge.to] as V];
    if (size(sub(run[0] as V, ends[0] as V)) > 1e-6 || size(sub(run.at(-1) as V, ends[1] as V)) > 1e-6)
      faults.push(`edge ${i}: its curve misses its corners`);
  }
  return [...new Set(faults)];
}

function offSurface({ surface }: BrepFace, point: V): number {
  const away = sub(point, surface.on);
  if (surface.kind === "plane") return dot(away, surface.normal);
  const on = dot(away, surface.axis);
  return size(mix([away, 1], [surface.axis, -on])) - surface.radius;
}

/**
 * mm³, by the divergence theorem: a flat face by the turn of its loops, a round one by what its loops enclose on it rolled out.
 */
export function volumeOf(brep: Brep, steps = 400): number {
  let volume = 0;
  for (const { surface, loops } of brep.faces) {
    if (surface.kind === "plane") {
      let area = 0;
      for (const loop of loops) {
        const run = loop.flatMap(({ edge, ahead }) => {
          const points = along(brep, brep.edges[edge] as BrepEdge, steps);
          return (ahead ? points : points.toReversed()).slice(0, -1);
        });
        for (const [i, a] of run.entries()) {
          const b = run[(i + 1) % run.length] as V;
          area += dot(cross(sub(a, surface.on), sub(b, surface.on)), surface.normal) / 2;
        }
      }
      volume += (area * dot(surface.on, surface.normal)) / 3;
      continue;
    }
    // Over turn and height of the cylinder, by Green's theorem round its loops.
    const { on, axis, radius } = surface;
    const beside = size(cross(axis, [1, 0, 0])) > 0.5 ? cross(axis, [1, 0, 0]) : cross(axis, [0, 1, 0]);
    const u = mix([beside, 1 / size(beside)]);
    const v = cross(axis, u);
    for (const { edge, ahead } of loops.flat()) {
      const points = along(brep, brep.edges[edge] as BrepEdge, steps);
      const run = (ahead ? points : points.toReversed()).map((point) => {
        const away = sub(point, on);
        const angle = Math.atan2(dot(away, v), dot(away, u));
        const outwards = mix([u, Math.cos(angle)], [v, Math.sin(angle)]);
        return { angle, worth: (radius + dot(on, outwards)) * dot(away, axis) };
      });
      for (let i = 1; i < run.length; i++) {
        const [p, q] = [run[i - 1], run[i]] as { angle: number; worth: number }[];
        const turn = 2 * Math.PI;
        const raw = (q as { angle: number }).angle - (p as { angle: number }).angle;
        const step = raw - turn * Math.round(raw / turn);
        volume -= (radius * step * ((p as { worth: number }).worth + (q as { worth: number }).worth)) / 6;
      }
    }
  }
  return volume;
}
