/**
 * Which section a slice shows. Roundings fall away and the flats beside them meet in sharp corners; the pattern of corners
 * that point out (C) and in (R) tells the kind: 4C bars and tubes, 5C R angles, 6C 2R channels and tees, 8C 4R beams.
 */
import { add2, cross2, dot2, norm2, scale2, subtract2, type Vec2 } from "../geometry";
import { at } from "../kernel";
import { type SectionShape, sectionProperties, shapeFault, tubeRadii } from "../stockroom";
import type { Body } from "./body";
import type { SliceAxes, SliceLoop } from "./slice";

/** How a section stands in the axes of its slice: where its own axes and its centroid lie. */
export type SeatedSection = {
  readonly shape: SectionShape;
  readonly centroid: Vec2;
  readonly x: Vec2;
  readonly y: Vec2;
  /** What of the read one the section of the product does not have, in words; none: it is the same. */
  readonly differences: readonly string[];
  /** The surfaces that run along it. */
  readonly surfaces: ReadonlySet<number>;
};

/** mm. */
const SAME = 0.02;
const SQUARE = 1e-3;

/** The sine of what two flats turn by at least where they meet in a corner. */
const LEAST_TURN = 0.3;

type Sharp = { readonly corners: readonly Vec2[]; readonly radii: readonly number[] };
type Circle = { readonly centre: Vec2; readonly radius: number };

const rounded = (value: number) => Math.round(value * 1000) / 1000;

/** The section; null: none that the product knows, or the slice runs over something that does not run along. */
export function sectionOf(body: Body, axes: SliceAxes, loops: readonly SliceLoop[]): SeatedSection | null {
  const outer = loops.filter(({ area }) => area > 0);
  const inner = loops.filter(({ area }) => area <= 0);
  const [outline] = outer;
  if (!outline || outer.length > 1 || inner.length > 1) return null;
  const surfaces = new Set(loops.flatMap(({ runs }) => runs.map(({ surface }) => surface)));
  const hole = inner[0] ?? null;
  const round = circleOf(body, axes, outline);
  if (round) {
    const within = hole && circleOf(body, axes, hole);
    if (hole && (!within || norm2(subtract2(within.centre, round.centre)) > SAME)) return null;
    const diameter = rounded(2 * round.radius);
    const shape: SectionShape = within
      ? { kind: "roundTube", size: [diameter, rounded(round.radius - within.radius)] }
      : { kind: "roundBar", size: [diameter] };
    return { shape, centroid: round.centre, x: [1, 0], y: [0, 1], differences: [], surfaces };
  }
  const bent = meetingOf(body, axes, outline);
  if (!bent) return null;
  const sharp = isSquare(bent) ? bent : null;
  const tapered = sharp || hole ? null : taperedOf(bent);
  if (tapered) {
    const seat = seated(tapered.shape, tapered.corners);
    return seat && { ...seat, shape: tapered.shape, differences: [], surfaces };
  }
  if (!sharp) return null;
  const read = hole ? sharpOf(body, axes, hole) : null;
  if (hole && !read) return null;
  const found = hole && read ? tubeOf(sharp, read) : openOf(sharp);
  if (!found || shapeFault(found.shape) !== null) return null;
  const seat = seated(found.shape, sharp.corners);
  return seat && { ...seat, shape: found.shape, differences: found.differences, surfaces };
}

/** A loop that runs round one cylinder alone. */
function circleOf(body: Body, axes: SliceAxes, loop: SliceLoop): Circle | null {
  const [only] = loop.runs;
  if (!only || loop.runs.length > 1) return null;
  return roundOf(body, axes, only.surface);
}

function roundOf(body: Body, axes: SliceAxes, index: number): Circle | null {
  const { surface } = at(body.surfaces, index);
  if (surface.kind !== "cylinder") return null;
  const { axis, centre, radius } = surface;
  const lean = Math.abs(axis[0] * axes.along[0] + axis[1] * axes.along[1] + axis[2] * axes.along[2]);
  if (lean < 1 - SQUARE * SQUARE) return null;
  const from = [centre[0] - axes.origin[0], centre[1] - axes.origin[1], centre[2] - axes.origin[2]] as const;
  const on = (way: readonly [number, number, number]) =>
    from[0] * way[0] + from[1] * way[1] + from[2] * way[2];
  return { centre: [on(axes.x), on(axes.y)], radius };
}

type Flat = { readonly normal: Vec2; readonly offset: number };

function flatOf(body: Body, axes: SliceAxes, index: number): Flat | null {
  const { surface } = at(body.surfaces, index);
  if (surface.kind !== "plane") return null;
  const on = (way: readonly [number, number, number]) =>
    surface.normal[0] * way[0] + surface.normal[1] * way[1] + surface.normal[2] * way[2];
  if (Math.abs(on(axes.along)) > SQUARE) return null;
  return { normal: [on(axes.x), on(axes.y)], offset: surface.offset - on(axes.origin) };
}

/** The corners of a loop whose flats stand square to one another; null: they do not. */
function sharpOf(body: Body, axes: SliceAxes, loop: SliceLoop): Sharp | null {
  const bent = meetingOf(body, axes, loop);
  return bent && isSquare(bent) ? bent : null;
}

const isSquare = ({ corners }: Sharp): boolean => {
  const ways = corners.map((corner, i) => {
    const side = subtract2(at(corners, (i + 1) % corners.length), corner);
    return scale2(side, 1 / (norm2(side) || 1));
  });
  return ways.every((way, i) => Math.abs(dot2(way, at(ways, (i + 1) % ways.length))) <= SQUARE);
};

/** The corners in which the flats of a loop meet, each with the radius of the rounding between them; null: they do not. */
function meetingOf(body: Body, axes: SliceAxes, loop: SliceLoop): Sharp | null {
  const flats: { flat: Flat; radius: number }[] = [];
  let radius = 0;
  for (const { surface } of loop.runs) {
    const flat = flatOf(body, axes, surface);
    if (flat) {
      flats.push({ flat, radius });
      radius = 0;
      continue;
    }
    const round = roundOf(body, axes, surface);
    if (!round) return null;
    radius = round.radius;
  }
  const [first] = flats;
  if (!first || flats.length < 4) return null;
  if (radius > 0) first.radius = radius;
  const corners: Vec2[] = [];
  for (const [i, { flat }] of flats.entries()) {
    const before = at(flats, (i + flats.length - 1) % flats.length).flat;
    const turn = cross2(before.normal, flat.normal);
    if (Math.abs(turn) < LEAST_TURN) return null;
    corners.push(
      scale2(
        subtract2(
          scale2([flat.normal[1], -flat.normal[0]], before.offset),
          scale2([before.normal[1], -before.normal[0]], flat.offset),
        ),
        1 / turn,
      ),
    );
  }
  return { corners, radii: flats.map((one) => one.radius) };
}

type Found = { readonly shape: SectionShape; readonly differences: readonly string[] };

type Sides = { readonly lengths: readonly number[]; readonly out: readonly boolean[] };

/** Side i runs from corner i to the next; `out[i]`: corner i points out. */
function sidesOf({ corners }: Sharp): Sides {
  const next = (i: number) => at(corners, (i + 1) % corners.length);
  const before = (i: number) => at(corners, (i + corners.length - 1) % corners.length);
  return {
    lengths: corners.map((corner, i) => norm2(subtract2(next(i), corner))),
    out: corners.map((corner, i) => cross2(subtract2(corner, before(i)), subtract2(next(i), corner)) > 0),
  };
}

const near = (a: number, b: number) => Math.abs(a - b) <= SAME;

function tubeOf(outer: Sharp, inner: Sharp): Found | null {
  const [a, b] = [sidesOf(outer), sidesOf(inner)];
  if (a.lengths.length !== 4 || b.lengths.length !== 4) return null;
  const box = (corners: readonly Vec2[]): Vec2 =>
    scale2(
      corners.reduce<Vec2>((sum, corner) => add2(sum, corner), [0, 0]),
      1 / 4,
    );
  if (norm2(subtract2(box(outer.corners), box(inner.corners))) > SAME) return null;
  const [l0, l1] = [at(a.lengths, 0), at(a.lengths, 1)];
  const way = subtract2(at(outer.corners, 1), at(outer.corners, 0));
  // The sides of the hole, in the order of those of the outline.
  const isAlong =
    Math.abs(cross2(way, subtract2(at(inner.corners, 1), at(inner.corners, 0)))) <
    SQUARE * l0 * at(b.lengths, 0);
  const [h0, h1] = isAlong ? [at(b.lengths, 0), at(b.lengths, 1)] : [at(b.lengths, 1), at(b.lengths, 0)];
  const wall = (l0 - h0) / 2;
  if (!near(wall, (l1 - h1) / 2) || wall <= 0) return null;
  const size = [rounded(Math.max(l0, l1)), rounded(Math.min(l0, l1)), rounded(wall)] as const;
  const radius = outer.radii.reduce((sum, one) => sum + one, 0) / 4;
  const cold = Math.abs(tubeRadii("coldFormed", wall).outer - radius);
  const hot = Math.abs(tubeRadii("hotFinished", wall).outer - radius);
  const corners = hot < cold ? "hotFinished" : "coldFormed";
  const standard = tubeRadii(corners, wall).outer;
  const differences =
    Math.min(cold, hot) > 0.05
      ? [
          radius < 0.05
            ? `its corners are sharp, those of the standard have a radius of ${rounded(standard)}`
            : `its corners have a radius of ${rounded(radius)}, those of the standard ${rounded(standard)}`,
        ]
      : [];
  const kind = near(l0, l1) ? "squareTube" : "rectangularTube";
  return { shape: { kind, size: [...size], corners }, differences };
}

function openOf(outline: Sharp): Found | null {
  const { lengths, out } = sidesOf(outline);
  const count = lengths.length;
  const inward = out.flatMap((isOut, i) => (isOut ? [] : [i]));
  const side = (i: number) => at(lengths, ((i % count) + count) % count);
  const radius = (i: number) => at(outline.radii, ((i % count) + count) % count);
  const roundings = (of: readonly number[]) => of.map(radius).filter((one) => one > 0.05);
  const all = outline.corners.map((_, i) => i);
  const notTaken = (of: readonly number[]): readonly string[] => {
    const radii = roundings(of);
    return radii.length === 0
      ? []
      : [`corners rounded by ${[...new Set(radii.map(rounded))].join(" and ")} count as sharp`];
  };
  /** The roundings where flanges meet the web, where they are all alike. */
  const isRooted = () => inward.every((i) => Math.abs(radius(i) - radius(inward[0] ?? 0)) <= SAME);
  const rootsOf = () => {
    const root = rounded(radius(inward[0] ?? 0));
    return isRooted() && root > 0 ? { rootRadius: root } : {};
  };
  const others = () => (isRooted() ? all.filter((i) => !inward.includes(i)) : all);
  if (count === 4 && inward.length === 0) {
    const [a, b] = [side(0), side(1)].map(rounded) as [number, number];
    const differences = notTaken(all);
    return near(a, b)
      ? { shape: { kind: "squareBar", size: [a, b] }, differences }
      : { shape: { kind: "flat", size: [Math.max(a, b), Math.min(a, b)] }, differences };
  }
  const [r = 0, other = 0] = inward;
  if (count === 6 && inward.length === 1) {
    // From the inner corner on: a leg's inside, its toe, its outside, the other's outside, its toe, its inside.
    const [toeA, outA, outB, toeB] = [side(r + 1), side(r + 2), side(r + 3), side(r + 4)];
    if (!near(toeA, toeB)) return null;
    const [x, y, t] = [Math.max(outA, outB), Math.min(outA, outB), toeA].map(rounded) as [
      number,
      number,
      number,
    ];
    const toes = [r + 1, r + 2, r + 4, r + 5].filter((i) => radius(i) > 0.05);
    const root = rounded(radius(r));
    const shape: SectionShape = {
      kind: near(x, y) ? "equalAngle" : "unequalAngle",
      size: [x, y, t],
      rootRadius: root,
    };
    const standardToes = Math.min(root / 2, t);
    const isStandard =
      root === 0
        ? toes.length === 0
        : toes.length === 2 && toes.every((i) => Math.abs(radius(i) - standardToes) < 0.05);
    return {
      shape,
      differences: isStandard ? [] : ["the roundings of its toes are not those of the standard"],
    };
  }
  if (count === 8 && inward.length === 2) {
    const apart = other - r;
    if (apart === 1 || apart === 7) {
      // The two inner corners stand side by side: a channel, its web between them.
      const a = apart === 1 ? r : other;
      const [toe, outside, back, outside2, toe2] = [
        side(a + 2),
        side(a + 3),
        side(a + 4),
        side(a + 5),
        side(a + 6),
      ];
      if (!near(toe, toe2) || !near(outside, outside2)) return null;
      const web = outside - side(a + 1);
      const size = [back, outside, web, toe].map(rounded) as [number, number, number, number];
      return { shape: { kind: "channel", size, ...rootsOf() }, differences: notTaken(others()) };
    }
    if (apart === 3 || apart === 5) {
      // Two corners between the inner ones on the side of the web's foot, four on that of the flange.
      const a = apart === 3 ? r : other;
      const [inside, foot, inside2] = [side(a), side(a + 1), side(a + 2)];
      const [, toe, top, toe2] = [0, side(a + 4), side(a + 5), side(a + 6)];
      if (!near(inside, inside2) || !near(toe, toe2) || !near(side(a + 3), side(a + 7))) return null;
      const size = [inside + toe, top, foot, toe].map(rounded) as [number, number, number, number];
      return { shape: { kind: "tee", size, ...rootsOf() }, differences: notTaken(others()) };
    }
    return null;
  }
  if (count === 12 && inward.length === 4) {
    const a = all.find((i) => !at(out, i) && !at(out, (i + 1) % count));
    if (a === undefined) return null;
    // From the web on one side: half a flange, its toe, its outside, the other toe, half a flange, the web, and round.
    const [web, half, toe, top, toe2, half2] = [0, 1, 2, 3, 4, 5].map((k) => side(a + k)) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const same = [half, toe, top, toe2, half2].every((value, k) => near(value, side(a + 7 + k)));
    if (!same || !near(half, half2) || !near(toe, toe2) || !near(web, side(a + 6))) return null;
    if (at(out, (a + 6) % count) || at(out, (a + 7) % count)) return null;
    const size = [web + 2 * toe, top, top - 2 * half, toe].map(rounded) as [number, number, number, number];
    return { shape: { kind: "beam", size, ...rootsOf() }, differences: notTaken(others()) };
  }
  return null;
}

/** A channel or a beam whose flanges taper, with its corners from an outer one on; null: it is none. */
function taperedOf({ corners, radii }: Sharp): {
  readonly shape: SectionShape;
  readonly corners: readonly Vec2[];
} | null {
  const n = corners.length;
  const { out } = sidesOf({ corners, radii });
  const a = out.findIndex((isOut, i) => !isOut && !at(out, (i + 1) % n));
  if ((n !== 8 && n !== 12) || a < 0 || out.filter((isOut) => !isOut).length !== (n === 8 ? 2 : 4))
    return null;
  const corner = (i: number) => at(corners, (a + i) % n);
  const radius = (i: number) => at(radii, (a + i) % n);
  // From the web's inner corners: the first flange's edge, then round. Of a channel its back, of a beam its other flange's edges follow.
  const [low, right, high] = n === 8 ? [corner(4), corner(3), corner(5)] : [corner(3), corner(4), corner(10)];
  const [across, up] = [subtract2(right, low), subtract2(high, low)];
  const [b, h] = [norm2(across), norm2(up)];
  const on = (place: Vec2): Vec2 => {
    const from = subtract2(place, low);
    return [dot2(from, across) / b, dot2(from, up) / h];
  };
  const [edge, root] = [on(corner(2))[1], on(corner(1))[1]];
  const stem = n === 8 ? on(corner(1))[0] : on(corner(6))[0] - on(corner(1))[0];
  const half = n === 8 ? b - stem : (b - stem) / 2;
  const percent = Math.round(((root - edge) / half) * 1e5) / 1e3;
  if (!(percent > 0.1 && percent <= 50)) return null;
  const flange = edge + (percent / 100) * (n === 8 ? b / 2 : b / 4);
  const roots = n === 8 ? [0, 1] : [0, 1, 6, 7];
  const toes = n === 8 ? [2, 7] : [2, 5, 8, 11];
  const isLike = (of: readonly number[]) => of.every((i) => Math.abs(radius(i) - radius(at(of, 0))) <= SAME);
  const others = corners.map((_, i) => i).filter((i) => !roots.includes(i) && !toes.includes(i));
  if (!isLike(roots) || !isLike(toes) || others.some((i) => radius(i) > SAME)) return null;
  const shape: SectionShape = {
    kind: n === 8 ? "channel" : "beam",
    size: [rounded(h), rounded(b), rounded(stem), rounded(flange)],
    ...(radius(0) > 0 ? { rootRadius: rounded(radius(0)) } : {}),
    taper: { percent, toeRadius: rounded(radius(2)) },
  };
  const first = (a + 3) % n;
  return { shape, corners: [...corners.slice(first), ...corners.slice(0, first)] };
}

/** Where the section of a shape must stand for its sharp corners to fall on those that were read; null: it cannot. */
function seated(
  shape: SectionShape,
  corners: readonly Vec2[],
): Pick<SeatedSection, "centroid" | "x" | "y"> | null {
  const properties = sectionProperties(shape);
  const way = subtract2(at(corners, 1), at(corners, 0));
  const size = norm2(way);
  if (size < 1e-6) return null;
  const first: Vec2 = scale2(way, 1 / size);
  const middle = (points: readonly Vec2[], ways: readonly [Vec2, Vec2]): Vec2 => {
    const [u, v] = ways.map((one) => {
      const on = points.map((point) => dot2(point, one));
      return (Math.min(...on) + Math.max(...on)) / 2;
    }) as [number, number];
    return add2(scale2(ways[0], u), scale2(ways[1], v));
  };
  let x = first;
  for (let quarter = 0; quarter < 4; quarter++) {
    const y: Vec2 = [-x[1], x[0]];
    const { boxCentre } = properties;
    const centroid = subtract2(
      middle(corners, [x, y]),
      add2(scale2(x, boxCentre[0]), scale2(y, boxCentre[1])),
    );
    const placed = properties.sharp.map(([a, b]) => add2(centroid, add2(scale2(x, a), scale2(y, b))));
    const isThere = (corner: Vec2) => placed.some((one) => norm2(subtract2(one, corner)) < 0.05);
    if (placed.length === corners.length && corners.every(isThere)) return { centroid, x, y };
    x = y;
  }
  return null;
}
