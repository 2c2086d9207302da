/**
 * A body as a panel: two flats that face away from one another, square walls between them, and holes. Its length and width
 * are the sides of the smallest rectangle around its outline; arcs are those of the walls, exactly.
 */
import {
  add,
  type BulgedCorner,
  type Corner,
  convexHull,
  cross,
  direction,
  dot,
  filletCorners,
  loopArea,
  norm,
  reach,
  roundedPolygon,
  scale,
  subtract,
  type Vec2,
  type Vec3,
} from "../geometry";
import { at } from "../kernel";
import type { Body } from "./body";

export type PanelHole = {
  readonly x: number;
  readonly y: number;
  readonly diameter: number;
  /** null: right through. */
  readonly depth: number | null;
  readonly face: "good" | "other";
};

export type PanelGroove = {
  readonly face: "good" | "other";
  /** A rectangle in the axes of the panel. */
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
  readonly depth: number;
};

export type ReadPanel = {
  readonly kind: "panel";
  /** The front left corner of the other face, the way of its length and of its good face. */
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly face: Vec3;
  readonly length: number;
  readonly width: number;
  readonly thickness: number;
  /** Corners within the rectangle, anticlockwise; null: it is one. */
  readonly outline: readonly { readonly x: number; readonly y: number; readonly radius: number }[] | null;
  readonly holes: readonly PanelHole[];
  readonly grooves: readonly PanelGroove[];
};

const SQUARE = 1e-3;
/** mm. */
const SAME = 0.01;
const rounded = (value: number) => Math.round(value * 10_000) / 10_000;

/** The panel that a body is; null: none, or something of it is no part of a panel. */
export function panelOf(body: Body): ReadPanel | null {
  const flats = body.surfaces.flatMap(({ surface, area }, index) =>
    surface.kind === "plane" ? [{ surface, area, index }] : [],
  );
  const large = flats.toSorted((a, b) => b.area - a.area).slice(0, 6);
  let best: { readonly panel: ReadPanel; readonly area: number } | null = null;
  for (const one of large)
    for (const other of flats) {
      if (one.index === other.index || dot(one.surface.normal, other.surface.normal) > -1 + 1e-9) continue;
      const thickness = one.surface.offset + other.surface.offset;
      if (thickness <= 0.05 || other.area > one.area + 1e-6) continue;
      if (best && one.area <= best.area) continue;
      const panel = panelBetween(body, one.index, other.index, thickness);
      if (panel) best = { panel, area: one.area };
    }
  return best?.panel ?? null;
}

type Loop = readonly { readonly place: Vec2; readonly wall: number }[];

/** The panel with its full outline on the first flat. */
function panelBetween(body: Body, first: number, second: number, thickness: number): ReadPanel | null {
  const { surface } = at(body.surfaces, first);
  const opposite = at(body.surfaces, second).surface;
  if (surface.kind !== "plane" || opposite.kind !== "plane") return null;
  const face = surface.normal;
  // Nothing of it may lie beyond the two flats.
  for (const point of body.points) {
    const height = dot(face, point) - surface.offset;
    if (height > SAME || height < -thickness - SAME) return null;
  }
  const sideways = direction(firstSide(body, first, face));
  if (!sideways) return null;
  const axes = { x: sideways, y: cross(face, sideways) };
  const loops = borderOf(body, first, axes);
  if (!loops) return null;
  const outer = loops.filter((loop) => areaOf(loop) > 0);
  const [outline] = outer;
  if (!outline || outer.length > 1) return null;
  const used = new Set([first, second]);
  const bulged = cornersOf(body, outline, face, axes, used);
  if (!bulged) return null;
  const flat = turnedToLeast(withoutTangents(filletCorners(bulged)), axes);
  const { x, y, low, high } = flat;
  const corners = wholeRoundings(flat.corners, low, high);
  const inPanel = (place: Vec3): Vec2 => [dot(place, x) - low[0], dot(place, y) - low[1]];
  const holes: PanelHole[] = [];
  const grooves: PanelGroove[] = [];
  // Through holes and those from the good face stand in the border of the first flat, the others in that of the second.
  for (const loop of loops) {
    if (areaOf(loop) > 0) continue;
    const hole = holeOf(body, loop, face, used);
    if (!hole) return null;
    holes.push({
      ...hole,
      ...placeOf(hole.centre),
      face: "good",
      depth: hole.depth(surface.offset, thickness),
    });
  }
  const below = borderOf(body, second, axes);
  if (!below) return null;
  for (const loop of below) {
    const walls = new Set(loop.map(({ wall }) => wall));
    if ([...walls].every((wall) => used.has(wall))) continue;
    if (loop.length === 0) continue;
    const hole = holeOf(body, loop, scale(face, -1), used);
    if (!hole) continue;
    holes.push({
      ...hole,
      ...placeOf(hole.centre),
      face: "other",
      depth: hole.depth(opposite.offset, thickness),
    });
  }
  // Floors of grooves and rebates: flats between the two faces.
  let groovesVolume = 0;
  for (const [index, one] of body.surfaces.entries()) {
    if (used.has(index) || one.surface.kind !== "plane") continue;
    const lean = dot(one.surface.normal, face);
    if (Math.abs(Math.abs(lean) - 1) > 1e-9) continue;
    const floors = rectanglesOf(
      one.triangles.map((t) =>
        at(body.triangles, t).corners.map((corner) => inPanel(at(body.points, corner))),
      ),
    );
    if (!floors) return null;
    const depth = lean > 0 ? surface.offset - one.surface.offset : opposite.offset - one.surface.offset;
    for (const box of floors)
      grooves.push({ face: lean > 0 ? "good" : "other", ...box, depth: rounded(depth) });
    // Grooves that cross take out what they share once.
    groovesVolume += one.area * depth;
    used.add(index);
  }
  if (grooves.length > 0)
    for (const [index, one] of body.surfaces.entries())
      if (
        one.surface.kind === "plane" &&
        Math.abs(dot(one.surface.normal, face)) < SQUARE &&
        isWallOfGroove(index)
      )
        used.add(index);
  if (body.surfaces.some((_, index) => !used.has(index))) return null;
  const area = loopArea(roundedPolygon(corners));
  const holesVolume = holes.reduce(
    (sum, { diameter, depth }) => sum + (Math.PI / 4) * diameter * diameter * (depth ?? thickness),
    0,
  );
  const volume = area * thickness - holesVolume - groovesVolume;
  // Facets of round walls take a little off, or add it.
  if (Math.abs(volume - body.volume) > 0.004 * volume + 1) return null;
  const [length, width] = [high[0] - low[0], high[1] - low[1]];
  const isRectangle =
    corners.length === 4 &&
    Math.abs(area - length * width) < 1e-6 * area &&
    corners.every(({ radius }) => radius === 0);
  return {
    kind: "panel",
    origin: add(add(scale(x, low[0]), scale(y, low[1])), scale(face, surface.offset - thickness)),
    x,
    y,
    face,
    length: rounded(length),
    width: rounded(width),
    thickness: rounded(thickness),
    outline: isRectangle
      ? null
      : corners.map(({ at: [px, py], radius }) => ({
          x: rounded(px - low[0]),
          y: rounded(py - low[1]),
          radius: rounded(radius),
        })),
    holes: holes.map(({ x, y, diameter, depth, face }) => ({ x, y, diameter, depth, face })),
    grooves,
  };

  function placeOf(centre: Vec3): { readonly x: number; readonly y: number } {
    const [px, py] = inPanel(centre);
    return { x: rounded(px), y: rounded(py) };
  }

  function isWallOfGroove(index: number): boolean {
    const places = pointsOf(body, index).map(inPanel);
    return grooves.some(({ x0, x1, y0, y1 }) =>
      places.every(([px, py]) => px > x0 - SAME && px < x1 + SAME && py > y0 - SAME && py < y1 + SAME),
    );
  }
}

const pointsOf = (body: Body, index: number): readonly Vec3[] =>
  [...new Set(at(body.surfaces, index).triangles.flatMap((t) => at(body.triangles, t).corners))].map(
    (corner) => at(body.points, corner),
  );

type Rectangle = { readonly x0: number; readonly x1: number; readonly y0: number; readonly y1: number };

/** Cells of a grid over the corners of a floor; more of them come from something that is no groove. */
const MOST_CELLS = 900;

/** The rectangles that a floor is of: grooves that cross or stand apart on one level. Null: it has other borders than theirs. */
function rectanglesOf(triangles: readonly (readonly Vec2[])[]): readonly Rectangle[] | null {
  const stops = (axis: 0 | 1) =>
    [...new Set(triangles.flat().map((place) => rounded(place[axis])))]
      .sort((a, b) => a - b)
      .filter((value, i, all) => i === 0 || value - at(all, i - 1) > SAME);
  const [xs, ys] = [stops(0), stops(1)];
  const [columns, rows] = [xs.length - 1, ys.length - 1];
  if (columns * rows > MOST_CELLS || columns < 1 || rows < 1) return null;
  const has = Array.from({ length: columns }, (_, i) =>
    Array.from({ length: rows }, (_, k) => {
      const middle: Vec2 = [(at(xs, i) + at(xs, i + 1)) / 2, (at(ys, k) + at(ys, k + 1)) / 2];
      return triangles.some((corners) => holds(corners, middle));
    }),
  );
  const cells = (i: number, k: number) => (at(xs, i + 1) - at(xs, i)) * (at(ys, k + 1) - at(ys, k));
  const area = has.reduce(
    (sum, column, i) => sum + column.reduce((all, is, k) => all + (is ? cells(i, k) : 0), 0),
    0,
  );
  const real = triangles.reduce((sum, [a, b, c]) => {
    if (!a || !b || !c) return sum;
    return sum + Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
  }, 0);
  if (Math.abs(area - real) > 0.001 * real + 0.01) return null;
  const left = has.map((column) => [...column]);
  const found: Rectangle[] = [];
  for (;;) {
    let best: {
      readonly from: Vec2;
      readonly to: Vec2;
      readonly fresh: number;
      readonly whole: number;
    } | null = null;
    for (let i = 0; i < columns; i++)
      for (let k = 0; k < rows; k++) {
        let most = rows;
        for (let i1 = i; i1 < columns; i1++) {
          let k1 = k;
          while (k1 < most && at(at(has, i1), k1)) k1++;
          most = Math.min(most, k1);
          if (most <= k) break;
          let fresh = 0;
          for (let a = i; a <= i1; a++)
            for (let b = k; b < most; b++) if (at(at(left, a), b)) fresh += cells(a, b);
          const whole = (at(xs, i1 + 1) - at(xs, i)) * (at(ys, most) - at(ys, k));
          const more = fresh - (best?.fresh ?? 0);
          // Of two that take as much it is the one that runs on through what another took: mirrored panels part alike.
          if (more > 1e-9 || (fresh > 0 && more > -1e-9 && whole > (best?.whole ?? 0) + 1e-9))
            best = { from: [i, k], to: [i1, most - 1], fresh, whole };
        }
      }
    if (!best) return found;
    const [i0, k0] = best.from;
    const [i1, k1] = best.to;
    for (let a = i0; a <= i1; a++) for (let b = k0; b <= k1; b++) (left[a] ?? [])[b] = false;
    found.push({ x0: at(xs, i0), x1: at(xs, i1 + 1), y0: at(ys, k0), y1: at(ys, k1 + 1) });
  }
}

function holds(corners: readonly Vec2[], [x, y]: Vec2): boolean {
  const sides = corners.map(([ax, ay], i) => {
    const [bx, by] = at(corners, (i + 1) % corners.length);
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax);
  });
  return sides.every((side) => side >= 0) || sides.every((side) => side <= 0);
}

/** Some direction in the flat. */
function firstSide(body: Body, index: number, face: Vec3): Vec3 {
  const [a, b] = pointsOf(body, index);
  const way = a && b ? subtract(b, a) : ([1, 0, 0] as Vec3);
  return subtract(way, scale(face, dot(way, face)));
}

const areaOf = (loop: Loop): number =>
  loop.reduce((sum, { place: a }, i) => {
    const b = at(loop, (i + 1) % loop.length).place;
    return sum + (a[0] * b[1] - b[0] * a[1]) / 2;
  }, 0);

/** The border of a flat: loops of corners, each with the surface beyond the edge that leads on from it. Null: it is open. */
function borderOf(
  body: Body,
  index: number,
  axes: { readonly x: Vec3; readonly y: Vec3 },
): readonly Loop[] | null {
  const beyond = neighboursOf(body);
  const after = new Map<number, { readonly to: number; readonly wall: number }>();
  for (const t of at(body.surfaces, index).triangles) {
    const { corners } = at(body.triangles, t);
    for (let k = 0; k < 3; k++) {
      const [a, b] = [at(corners, k), at(corners, (k + 1) % 3)];
      const wall = beyond.get(b * body.points.length + a);
      if (wall === undefined) return null;
      if (wall === index) continue;
      // Two loops that touch in a corner cannot be told apart.
      if (after.has(a)) return null;
      after.set(a, { to: b, wall });
    }
  }
  const loops: Loop[] = [];
  while (after.size > 0) {
    const [start] = after.keys();
    if (start === undefined) break;
    const loop: { place: Vec2; wall: number }[] = [];
    for (let corner = start; ; ) {
      const edge = after.get(corner);
      if (!edge) return null;
      after.delete(corner);
      const point = at(body.points, corner);
      loop.push({ place: [dot(point, axes.x), dot(point, axes.y)], wall: edge.wall });
      corner = edge.to;
      if (corner === start) break;
    }
    loops.push(loop);
  }
  return loops;
}

const neighbours = new WeakMap<Body, ReadonlyMap<number, number>>();

/** The surface of the triangle that an edge belongs to. */
function neighboursOf(body: Body): ReadonlyMap<number, number> {
  const before = neighbours.get(body);
  if (before) return before;
  const found = new Map<number, number>();
  for (const { corners, surface } of body.triangles)
    for (let k = 0; k < 3; k++)
      found.set(at(corners, k) * body.points.length + at(corners, (k + 1) % 3), surface);
  neighbours.set(body, found);
  return found;
}

/** An outline as corners with the bulge of what leads on from them; null: a wall of it is neither square nor round. */
function cornersOf(
  body: Body,
  loop: Loop,
  face: Vec3,
  axes: { readonly x: Vec3; readonly y: Vec3 },
  used: Set<number>,
): readonly BulgedCorner[] | null {
  const start = Math.max(
    0,
    loop.findIndex(({ wall }, i) => wall !== at(loop, (i + loop.length - 1) % loop.length).wall),
  );
  const runs: { wall: number; places: Vec2[] }[] = [];
  for (let k = 0; k < loop.length; k++) {
    const { wall, place } = at(loop, (start + k) % loop.length);
    const last = runs.at(-1);
    if (last && last.wall === wall) last.places.push(place);
    else runs.push({ wall, places: [place] });
  }
  const corners: BulgedCorner[] = [];
  for (const [i, { wall, places }] of runs.entries()) {
    const { surface } = at(body.surfaces, wall);
    const from = at(places, 0);
    const to = at(at(runs, (i + 1) % runs.length).places, 0);
    if (surface.kind === "plane") {
      if (Math.abs(dot(surface.normal, face)) > SQUARE) return null;
      corners.push([from[0], from[1], 0]);
    } else if (surface.kind === "cylinder") {
      if (Math.abs(dot(surface.axis, face)) < 1 - SQUARE * SQUARE) return null;
      const centre: Vec2 = [dot(surface.centre, axes.x), dot(surface.centre, axes.y)];
      const angle = (place: Vec2) => Math.atan2(place[1] - centre[1], place[0] - centre[0]);
      const turn = 2 * Math.PI;
      const sweep =
        runs.length === 1
          ? turn
          : ((((angle(to) - angle(from)) * (surface.isHollow ? -1 : 1)) % turn) + turn) % turn;
      const way = surface.isHollow ? -1 : 1;
      // In parts, so that no bulge is that of half a circle or more.
      const parts = Math.max(1, Math.ceil(sweep / 2));
      const bulge = way * Math.tan(sweep / parts / 4);
      for (let k = 0; k < parts; k++) {
        const on = angle(from) + (way * sweep * k) / parts;
        corners.push([
          centre[0] + surface.radius * Math.cos(on),
          centre[1] + surface.radius * Math.sin(on),
          bulge,
        ]);
      }
    } else return null;
    used.add(wall);
  }
  return corners;
}

/**
 * Corners rounded by one radius in two parts, as one: arcs of more than a quarter turn come in parts, but what somebody drew as
 * one corner is one wherever it lies within the rectangle.
 */
function wholeRoundings(corners: readonly Corner[], low: Vec2, high: Vec2): readonly Corner[] {
  const list = [...corners];
  for (let i = 0; i < list.length && list.length > 3; i++) {
    const n = list.length;
    const [p, a, b, q] = [-1, 0, 1, 2].map((k) => at(list, (i + k + n) % n)) as [
      Corner,
      Corner,
      Corner,
      Corner,
    ];
    if (a.radius === 0 || Math.abs(a.radius - b.radius) > TANGENT) continue;
    const turn = (from: Corner, by: Corner, to: Corner) => {
      const [ux, uy, vx, vy] = [
        by.at[0] - from.at[0],
        by.at[1] - from.at[1],
        to.at[0] - by.at[0],
        to.at[1] - by.at[1],
      ];
      return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
    };
    const [first, second] = [turn(p, a, b), turn(a, b, q)];
    const between = Math.hypot(b.at[0] - a.at[0], b.at[1] - a.at[1]);
    const tangents = a.radius * (Math.abs(Math.tan(first / 2)) + Math.abs(Math.tan(second / 2)));
    if (first * second <= 0 || Math.abs(first + second) > 3 || Math.abs(between - tangents) > TANGENT)
      continue;
    // Where the edge before the first and the edge after the second meet.
    const [ux, uy, vx, vy] = [a.at[0] - p.at[0], a.at[1] - p.at[1], q.at[0] - b.at[0], q.at[1] - b.at[1]];
    const share = ((b.at[0] - a.at[0]) * vy - (b.at[1] - a.at[1]) * vx) / (ux * vy - uy * vx);
    const place: Vec2 = [a.at[0] + ux * share, a.at[1] + uy * share];
    const isWithin = place.every(
      (value, k) => value > (low[k as 0 | 1] ?? 0) - TANGENT && value < (high[k as 0 | 1] ?? 0) + TANGENT,
    );
    if (!isWithin) continue;
    list[i] = { at: place, radius: a.radius };
    list.splice((i + 1) % n, 1);
    i = -1;
  }
  return list;
}

/** mm. Where an arc runs on into a straight edge its end is no corner; what is fitted strays by so much. */
const TANGENT = 0.003;

function withoutTangents(corners: readonly Corner[]): readonly Corner[] {
  return corners.filter(({ at: [x, y], radius }, i) => {
    if (radius > 0) return true;
    const [ax, ay] = at(corners, (i + corners.length - 1) % corners.length).at;
    const [bx, by] = at(corners, (i + 1) % corners.length).at;
    const whole = Math.hypot(bx - ax, by - ay) || 1;
    return Math.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / whole > TANGENT;
  });
}

/** A loop that runs round one hollow cylinder, with how deep it goes. */
function holeOf(body: Body, loop: Loop, out: Vec3, used: Set<number>) {
  const walls = [...new Set(loop.map(({ wall }) => wall))];
  const [wall] = walls;
  if (wall === undefined || walls.length > 1) return null;
  const { surface } = at(body.surfaces, wall);
  if (surface.kind !== "cylinder" || !surface.isHollow) return null;
  if (Math.abs(dot(surface.axis, out)) < 1 - SQUARE * SQUARE) return null;
  used.add(wall);
  const deepest = pointsOf(body, wall).reduce(
    (low, point) => Math.min(low, dot(point, out)),
    Number.POSITIVE_INFINITY,
  );
  const floor = body.surfaces.findIndex(
    ({ surface: one }) =>
      one.kind === "plane" && dot(one.normal, out) > 1 - 1e-9 && Math.abs(one.offset - deepest) < SAME,
  );
  return {
    centre: surface.centre,
    diameter: Math.round(2000 * surface.radius) / 1000,
    depth: (level: number, thickness: number): number | null => {
      const deep = level - deepest;
      if (Math.abs(deep - thickness) < SAME) return null;
      if (floor >= 0) used.add(floor);
      return rounded(deep);
    },
  };
}

/** The outline turned so that the rectangle around it is the smallest one, its longer side along x. */
function turnedToLeast(corners: readonly Corner[], axes: { readonly x: Vec3; readonly y: Vec3 }) {
  const loop = roundedPolygon(corners);
  const hull = convexHull(corners.map(({ at: place }) => place));
  const ways = hull.map((a, i): Vec2 => {
    const b = at(hull, (i + 1) % hull.length);
    const size = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [(b[0] - a[0]) / size, (b[1] - a[1]) / size];
  });
  const reachOf = (way: Vec2) => reach(loop, way);
  let best: { readonly way: Vec2; readonly area: number } | null = null;
  for (const way of ways) {
    const across: Vec2 = [-way[1], way[0]];
    const area =
      (reachOf(way) + reachOf([-way[0], -way[1]])) * (reachOf(across) + reachOf([-across[0], -across[1]]));
    if (!best || area < best.area * (1 - 1e-9)) best = { way, area };
  }
  let way: Vec2 = best?.way ?? [1, 0];
  const size = (one: Vec2) => reachOf(one) + reachOf([-one[0], -one[1]]);
  if (size([-way[1], way[0]]) > size(way) + 1e-9) way = [-way[1], way[0]];
  const across: Vec2 = [-way[1], way[0]];
  const world = (one: Vec2): Vec3 => {
    const raw = add(scale(axes.x, one[0]), scale(axes.y, one[1]));
    return scale(raw, 1 / (norm(raw) || 1));
  };
  const on = (place: Vec2): Vec2 => [
    place[0] * way[0] + place[1] * way[1],
    place[0] * across[0] + place[1] * across[1],
  ];
  return {
    corners: corners.map((corner) => ({ at: on(corner.at), radius: corner.radius })),
    x: world(way),
    y: world(across),
    low: [-reachOf([-way[0], -way[1]]), -reachOf([-across[0], -across[1]])] as Vec2,
    high: [reachOf(way), reachOf(across)] as Vec2,
  };
}
