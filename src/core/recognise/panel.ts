/**
 * A body as a panel: two flats that face away from one another, square walls between them, and holes. Its length and width
 * are the sides of the smallest rectangle around its outline; arcs are those of the walls, exactly.
 */
import {
  add,
  type BulgedCorner,
  type Corner,
  cross,
  direction,
  dot,
  filletCorners,
  loopArea,
  roundedPolygon,
  scale,
  subtract,
  type Vec2,
  type Vec3,
  withoutBox,
} from "../geometry";
import { at } from "../kernel";
import type { Body } from "./body";
import { areaOf, type BorderLoop, borderOf, haveSameWalls, pointsOf } from "./border";
import { rectanglesOf } from "./floors";
import { turnedToLeast, wholeRoundings, withoutTangents } from "./outline";

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

type RoundedCorner = { readonly x: number; readonly y: number; readonly radius: number };

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
  readonly outline: readonly RoundedCorner[] | null;
  readonly holes: readonly PanelHole[];
  readonly grooves: readonly PanelGroove[];
  /** Openings right through that are no round holes, each as its corners. */
  readonly cutOuts: readonly (readonly RoundedCorner[])[];
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
  const below = borderOf(body, second, axes);
  if (!below) return null;
  const corners = wholeRoundings(flat.corners, low, high);
  const inPanel = (place: Vec3): Vec2 => [dot(place, x) - low[0], dot(place, y) - low[1]];
  const holes: PanelHole[] = [];
  const grooves: PanelGroove[] = [];
  const cutOuts: (readonly Corner[])[] = [];
  // Through holes and those from the good face stand in the border of the first flat, the others in that of the second.
  for (const loop of loops) {
    if (areaOf(loop) > 0) continue;
    const hole = holeOf(body, loop, face, used);
    if (!hole) {
      // What does not come out on the other flat is a groove: its floor will tell.
      if (!below.some((other) => haveSameWalls(loop, other))) continue;
      const bent = cornersOf(body, loop, face, axes, used);
      if (!bent) return null;
      const opening = withoutTangents(filletCorners(bent)).map((corner) => ({
        ...corner,
        at: flat.on(corner.at),
      }));
      cutOuts.push(wholeRoundings(opening, low, high).toReversed());
      continue;
    }
    holes.push({
      ...hole,
      ...placeOf(hole.centre),
      face: "good",
      depth: hole.depth(surface.offset, thickness),
    });
  }
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
    const whole = rectanglesOf(
      one.triangles.map((t) =>
        at(body.triangles, t).corners.map((corner) => inPanel(at(body.points, corner))),
      ),
    );
    const open = whole ? null : openFloor(index);
    const floors = whole ?? (open && [open]);
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
  const open = cutOuts.reduce((sum, one) => sum + loopArea(roundedPolygon(one)), 0);
  const volume = (area - open) * thickness - holesVolume - groovesVolume;
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
    outline: isRectangle ? null : corners.map(inRectangle),
    holes: holes.map(({ x, y, diameter, depth, face }) => ({ x, y, diameter, depth, face })),
    grooves,
    cutOuts: cutOuts.map((one) => one.map(inRectangle)),
  };

  function inRectangle({ at: [px, py], radius }: Corner): RoundedCorner {
    return { x: rounded(px - low[0]), y: rounded(py - low[1]), radius: rounded(radius) };
  }

  /**
   * The rectangle of a groove whose floor ends at the outline, or at a cut-out, in another way than square: bounded by the walls that
   * rise from it, open where it has none. Null: what the outline leaves of that rectangle is not the floor.
   */
  function openFloor(index: number): Pick<PanelGroove, "x0" | "x1" | "y0" | "y1"> | null {
    const [border, ...rest] = borderOf(body, index, axes) ?? [];
    if (!border || rest.length > 0) return null;
    const [wide, deep] = [high[0] - low[0], high[1] - low[1]];
    const box = { x0: 0, x1: wide, y0: 0, y1: deep };
    for (const wall of new Set(border.map((one) => one.wall))) {
      if (used.has(wall)) continue;
      const rising = at(body.surfaces, wall).surface;
      if (rising.kind !== "plane") return null;
      const [across, up] = [dot(rising.normal, x), dot(rising.normal, y)];
      const [px, py] = inPanel(at(pointsOf(body, wall), 0));
      // The solid lies behind a wall: one that looks to the right bounds the groove on its left.
      if (across > 1 - SQUARE) box.x0 = Math.max(box.x0, rounded(px));
      else if (across < SQUARE - 1) box.x1 = Math.min(box.x1, rounded(px));
      else if (up > 1 - SQUARE) box.y0 = Math.max(box.y0, rounded(py));
      else if (up < SQUARE - 1) box.y1 = Math.min(box.y1, rounded(py));
      else return null;
    }
    const loops = [corners, ...cutOuts.map((one) => one.toReversed())].map((ring) =>
      roundedPolygon(ring.map(({ at: [px, py], radius }) => ({ at: [px - low[0], py - low[1]], radius }))),
    );
    // Beyond the rectangle where it is open, so that no edge runs along it.
    const reachOut = (value: number, edge: number, sign: 1 | -1) => (value === edge ? edge + sign : value);
    const left = withoutBox(loops, {
      from: [reachOut(box.x0, 0, -1), reachOut(box.y0, 0, -1)],
      to: [reachOut(box.x1, wide, 1), reachOut(box.y1, deep, 1)],
    });
    const area = (all: readonly (typeof loops)[number][]) =>
      all.reduce((sum, loop) => sum + loopArea(loop), 0);
    const own = at(body.surfaces, index).area;
    return left && Math.abs(area(loops) - area(left) - own) < 2e-4 * own + 0.02 ? box : null;
  }

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

/** Some direction in the flat. */
function firstSide(body: Body, index: number, face: Vec3): Vec3 {
  const [a, b] = pointsOf(body, index);
  const way = a && b ? subtract(b, a) : ([1, 0, 0] as Vec3);
  return subtract(way, scale(face, dot(way, face)));
}

/** An outline as corners with the bulge of what leads on from them; null: a wall of it is neither square nor round. */
function cornersOf(
  body: Body,
  loop: BorderLoop,
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

/** A loop that runs round one hollow cylinder, with how deep it goes. */
function holeOf(body: Body, loop: BorderLoop, out: Vec3, used: Set<number>) {
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
