/**
 * Solids that run into one another: the parts of sections and the panels, wherever they stand, compared by separating
 * axes. What is inside a tube, between flanges, in a groove or a notch shares nothing.
 */
import { kindOf } from "../ends";
import {
  convexHull,
  cross,
  dot,
  frameIn,
  norm,
  sharedArea,
  subtract,
  toLocal,
  toWorld,
  type Vec2,
  type Vec3,
} from "../geometry";
import { type Check, type Home, plainCheck } from "../job";
import { at } from "../kernel";
import { type SectionPart, sectionParts, sectionProperties } from "../stockroom";
import type { Box, BoxPair, BoxPart } from "./box";
import { cellHash } from "./cells";
import { endHeight, type MemberEnd } from "./ends";
import type { MemberSolid } from "./member";
import { notchLevel } from "./member-work";
import type { FrameMemory } from "./memory";
import { grooveBox, notchBox, type PanelSolid, panelPolygon } from "./panel";
import { outlinePolygon } from "./panel-outline";
import type { Places } from "./places";

/** mm. Solids that share less than this are taken to touch. */
const TOUCH_MM = 0.5;
/** mm². A strip as long as a gusset's edge and as wide as what is taken to touch. */
const TOUCH_AREA = 100;

export type Solids = {
  readonly points: ReadonlyMap<string, Vec3>;
  readonly members: readonly MemberSolid[];
  readonly panels: readonly PanelSolid[];
  readonly places: Places;
};

/** The box round what a member surely fills, with the parts of its section in it. */
function memberBox(solid: MemberSolid): Box | null {
  if (solid.member.leftOut || solid.member.role === "guide") return null;
  const { start, end, entry } = solid;
  const heights: Heights = {
    start: endHeight("start", start, entry.shape),
    end: endHeight("end", end, entry.shape),
    looked: isOfPlanes(start) && isOfPlanes(end) ? CORNERS : ROUND,
  };
  const parts: BoxPart[] = [];
  for (const whole of sectionParts(entry.shape))
    for (const left of notchedParts(solid, whole)) {
      const part = memberPart(heights, left);
      if (part) parts.push(part);
    }
  if (parts.length === 0) return null;
  const { boxCentre, extent } = sectionProperties(entry.shape);
  const side = (axis: 0 | 1, sign: 1 | -1) => boxCentre[axis] + (sign * extent[axis]) / 2;
  const low: Vec3 = [side(0, -1), side(1, -1), Math.min(...parts.map((part) => part.low[2]))];
  const high: Vec3 = [side(0, 1), side(1, 1), Math.max(...parts.map((part) => part.high[2]))];
  const own = { grooves: [], outline: null, openings: [], parts };
  return boxOf(solid.member.id, solid.member.name, solid.frame, low, high, own);
}

const isOfPlanes = ({ form }: MemberEnd) => kindOf(form).faces(form) !== null;

/** The corners of a rectangle: where the lowest of some planes is lowest. */
const CORNERS: readonly Vec2[] = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
];

/** Points round a rectangle, so that a saddle between its corners is seen too. */
const ROUND: readonly Vec2[] = [-1, -0.5, 0, 0.5, 1].flatMap((t): Vec2[] => [
  [t, -1],
  [t, 1],
  [-1, t],
  [1, t],
]);

/** A part of a section, and from where to where along the member its notches leave it. */
type Left = SectionPart & { readonly from: number; readonly to: number };

/** A part of a section, parted where notches cut into it. */
function notchedParts({ work, entry }: MemberSolid, part: SectionPart): readonly Left[] {
  const { middle, half, turn } = part;
  // Written out, as in other places here that run for every member after a change of a size.
  const whole: Left = {
    middle,
    half,
    turn,
    from: Number.NEGATIVE_INFINITY,
    to: Number.POSITIVE_INFINITY,
  };
  if (!work || part.turn !== 0) return [whole];
  return work.notches.reduce<readonly Left[]>(
    (parts, notch) => {
      const { outwards, inner, end } = notch;
      const axis = outwards[0] === 0 ? 1 : 0;
      const sign = outwards[axis] > 0 ? 1 : -1;
      const level = notchLevel(notch, entry.shape);
      return parts.flatMap((one): readonly Left[] => {
        const [low, high] = [
          sign * one.middle[axis] - one.half[axis],
          sign * one.middle[axis] + one.half[axis],
        ];
        const cutBack = (a: number, b: number): Left => {
          const across = (pair: Vec2, value: number): Vec2 =>
            axis === 0 ? [value, pair[1]] : [pair[0], value];
          return {
            ...one,
            middle: across(one.middle, (sign * (a + b)) / 2),
            half: across(one.half, (b - a) / 2),
          };
        };
        const shortened = (left: Left): Left =>
          end === "start"
            ? { ...left, from: Math.max(left.from, inner) }
            : { ...left, to: Math.min(left.to, inner) };
        if (high <= level + 1e-9) return [one];
        if (low >= level - 1e-9) return [shortened(one)];
        return [cutBack(low, level), shortened(cutBack(level, high))];
      });
    },
    [whole],
  );
}

type Heights = {
  readonly start: (point: Vec2) => number;
  readonly end: (point: Vec2) => number;
  /** Places of a part, as shares of half its sizes, at which the ends are asked. */
  readonly looked: readonly Vec2[];
};

/** One part of a section, as long as all of it is there between the two cuts; null: nowhere. */
function memberPart(heights: Heights, { middle, half, turn, from: least, to: most }: Left): BoxPart | null {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  let [from, to] = [least, most];
  for (const [s, t] of heights.looked) {
    const [x, y] = [s * half[0], t * half[1]];
    const point: Vec2 = [middle[0] + x * cos - y * sin, middle[1] + x * sin + y * cos];
    from = Math.max(from, heights.start(point));
    to = Math.min(to, heights.end(point));
  }
  if (to - from <= TOUCH_MM) return null;
  // In axes that are turned with the part.
  const [mx, my] = [middle[0] * cos + middle[1] * sin, -middle[0] * sin + middle[1] * cos];
  return {
    low: [mx - half[0], my - half[1], from],
    high: [mx + half[0], my + half[1], to],
    turn,
  };
}

function panelBox(solid: PanelSolid): Box | null {
  if (solid.thickness === null || solid.panel.leftOut || solid.panel.role === "guide") return null;
  const size: Vec3 = [solid.length, solid.width, solid.thickness];
  const grooves = [
    ...solid.grooves.map((groove) => grooveBox(groove, size)),
    ...solid.notches.map((notch) => notchBox(notch, size)),
  ];
  const openings = solid.cutOuts.map((one) => outlinePolygon(one));
  // What stands in an opening is told by the outline: a rectangle with openings has one too.
  const outline = solid.outline || openings.length > 0 ? panelPolygon(solid) : null;
  const own = { grooves, outline, openings, parts: null };
  return boxOf(solid.panel.id, solid.panel.name, solid.frame, [0, 0, 0], size, own);
}

function boxOf(
  id: string,
  name: string,
  frame: Box["frame"],
  low: Vec3,
  high: Vec3,
  own: Pick<Box, "grooves" | "outline" | "openings" | "parts">,
): Box {
  const half: Vec3 = [(high[0] - low[0]) / 2, (high[1] - low[1]) / 2, (high[2] - low[2]) / 2];
  return { id, name, low, high, half, ...own, ...stands(frame, low, half) };
}

/** What of a box hangs on where it stands. */
function stands(frame: Box["frame"], low: Vec3, half: Vec3): Pick<Box, "frame" | "middle" | "reach"> {
  return {
    frame,
    middle: toWorld(frame, [low[0] + half[0], low[1] + half[1], low[2] + half[2]]),
    reach: [reachAlong(frame, half, 0), reachAlong(frame, half, 1), reachAlong(frame, half, 2)],
  };
}

/** Half of what a box takes along an axis of the job. */
const reachAlong = ({ x, y, z }: Box["frame"], half: Vec3, i: 0 | 1 | 2) =>
  Math.abs(x[i]) * half[0] + Math.abs(y[i]) * half[1] + Math.abs(z[i]) * half[2];

/** The boxes of all pieces wherever they stand; guides are no obstacle, what is left out is not built. */
function allBoxes({ members, panels, places }: Solids, memory: FrameMemory): readonly Box[] {
  const boxes: Box[] = [];
  const place = (box: Box | null, home: Home) => {
    if (!box) return;
    for (const instance of places.get(home) ?? []) {
      const { key, pose, counted } = instance;
      if (counted === "guide" || counted === "leftOut") continue;
      if (key === "") boxes.push(box);
      else
        boxes.push(
          memory.stoodBox(instance, box, () => ({
            ...box,
            ...stands(frameIn(pose.frame, box.frame), box.low, box.half),
          })),
        );
    }
  };
  for (const solid of members)
    place(
      memory.memberBox(solid, [], () => memberBox(solid)),
      solid.home,
    );
  for (const solid of panels)
    place(
      memory.panelBox(solid, [], () => panelBox(solid)),
      solid.panel.assembly,
    );
  return boxes;
}

/** Half of what a box takes along a direction. */
const halfAlong = ({ x, y, z }: Box["frame"], half: Vec3, axis: Vec3) =>
  Math.abs(dot(axis, x)) * half[0] + Math.abs(dot(axis, y)) * half[1] + Math.abs(dot(axis, z)) * half[2];

const MOST_OVERLAPS = 50;
/** A cell with more than these holds pieces stacked on one another; they are told by the first, and more would take for ever. */
const MOST_IN_CELL = 150;
/** So many pieces are compared; beyond that it is said that they were not. */
const MOST_COMPARED = 20_000;

/** A box twenty metres wide, deep and high; larger ones are few. */
const MOST_CELLS = 40_000;
const MOST_LARGE = 150;

/** mm. A few pieces a cell in a dense frame, a few cells a piece for long ones. */
const BOX_CELL_MM = 600;

/** With so few new boxes, those alone are compared with all others. */
const FEW_NEW = 40;
const MOST_PAIRS = 10_000;
/** From so many pairs on, further ones of the same two records are passed over. */
const REPEATS_FROM = 400;

export function overlaps(solids: Solids, memory: FrameMemory): readonly Check[] {
  const all = allBoxes(solids, memory);
  const boxes = all.slice(0, MOST_COMPARED);
  const pairs = pairsAmong(boxes, memory);
  const place = new Map(boxes.map((box, i) => [box, i]));
  const order = (box: Box) => place.get(box) ?? 0;
  const sorted = [...pairs].sort(([a, b], [c, d]) => order(b) - order(d) || order(a) - order(c));
  const checks = new Map<string, Check>();
  for (const [against, box] of sorted) {
    const pair = `${against.id} ${box.id}`;
    if (checks.has(pair)) continue;
    if (checks.size >= MOST_OVERLAPS) break;
    checks.set(pair, overlapCheck(against, box));
  }
  const found = [...checks.values()];
  if (all.length <= MOST_COMPARED) return found;
  const words = `${all.length} pieces stand there; only the first ${MOST_COMPARED} were looked at for running into one another.`;
  return [plainCheck("overlap", "warning", words, []), ...found];
}

function overlapCheck(against: Box, box: Box): Check {
  const words =
    box.name === against.name ? `Two pieces named ${box.name} run` : `${against.name} and ${box.name} run`;
  return plainCheck("overlap", "warning", `${words} into one another; cut one to the other or move it.`, [
    against.id,
    box.id,
  ]);
}

/** All pairs that share room; where only a few boxes are new, the others keep the pairs that they had. */
function pairsAmong(boxes: readonly Box[], memory: FrameMemory): readonly BoxPair[] {
  const before = memory.compared.last;
  const old = new Set(before?.boxes);
  const fresh = boxes.filter((box) => !old.has(box));
  let pairs: readonly BoxPair[];
  if (before?.pairs && fresh.length <= FEW_NEW) {
    const still = new Set(boxes);
    const kept = before.pairs.filter(([a, b]) => still.has(a) && still.has(b));
    pairs = [...kept, ...fresh.flatMap((box) => pairsOf(box, boxes, new Set(fresh)))];
  } else pairs = allPairs(boxes);
  memory.compared.last = { boxes, pairs: pairs.length > MOST_PAIRS ? null : pairs };
  return pairs;
}

/** Pairs of one new box with all others; of two new ones only the later looks at the earlier. */
function pairsOf(box: Box, boxes: readonly Box[], fresh: ReadonlySet<Box>): readonly BoxPair[] {
  const found: BoxPair[] = [];
  let passed = false;
  for (const other of boxes) {
    if (other === box) passed = true;
    else if (boundsShare(box, other) && !(passed && fresh.has(other)) && shareRoom(box, other))
      found.push(passed ? [box, other] : [other, box]);
  }
  return found;
}

/** Only boxes that share a cell are looked at. */
function allPairs(boxes: readonly Box[]): readonly BoxPair[] {
  const cells = new Map<number, number[]>();
  const large: number[] = [];
  const told = new Set<string>();
  const pairs: BoxPair[] = [];
  /** By box, the last one that met it: a pair may share several cells. */
  const metBy = new Int32Array(boxes.length).fill(-1);
  boxes.forEach((box, index) => {
    const met: number[] = [];
    const keys = cellsOf(box);
    // A box over more cells than can be written down is compared with all others.
    for (const other of keys ? large : boxes.keys())
      if (other < index && boundsShare(box, at(boxes, other))) met.push(other);
    if (!keys && large.length < MOST_LARGE) large.push(index);
    for (const key of keys ?? []) {
      const there = cells.get(key);
      if (!there) {
        cells.set(key, [index]);
        continue;
      }
      for (const other of there) {
        if (metBy[other] === index) continue;
        metBy[other] = index;
        if (other !== index && boundsShare(box, at(boxes, other))) met.push(other);
      }
      if (there.length < MOST_IN_CELL) there.push(index);
    }
    for (const other of met) {
      const against = at(boxes, other);
      // Repeats of one record may meet thousands of times; the first meeting says it.
      if (pairs.length > REPEATS_FROM && told.has(`${against.id} ${box.id}`)) continue;
      if (!shareRoom(box, against)) continue;
      told.add(`${against.id} ${box.id}`);
      pairs.push([against, box]);
    }
  });
  return pairs;
}

/** Hashes of the cells that a box covers; null when they are too many to write down. */
function cellsOf({ middle, reach }: Box): readonly number[] | null {
  const low = (i: 0 | 1 | 2) => Math.floor((middle[i] - reach[i]) / BOX_CELL_MM);
  const high = (i: 0 | 1 | 2) => Math.floor((middle[i] + reach[i]) / BOX_CELL_MM);
  const [x0, y0, z0] = [low(0), low(1), low(2)];
  const [x1, y1, z1] = [high(0), high(1), high(2)];
  if ((x1 - x0 + 1) * (y1 - y0 + 1) * (z1 - z0 + 1) > MOST_CELLS) return null;
  const keys: number[] = [];
  for (let x = x0; x <= x1; x++)
    for (let y = y0; y <= y1; y++) for (let z = z0; z <= z1; z++) keys.push(cellHash(x, y, z));
  return keys;
}

const areApart = (a: Box, b: Box, i: 0 | 1 | 2) =>
  Math.abs(a.middle[i] - b.middle[i]) > a.reach[i] + b.reach[i] - TOUCH_MM;
const boundsShare = (a: Box, b: Box) => !areApart(a, b, 0) && !areApart(a, b, 1) && !areApart(a, b, 2);

/** Whether two solids share room: the boxes round them first, then the parts that they surely fill. */
function shareRoom(a: Box, b: Box): boolean {
  if (!boxesMeet(a, b)) return false;
  const [first, second] = [partsOf(a), partsOf(b)];
  // A thin wall shares little of a gusset by itself: what all parts of a section share of an outline is added up.
  let shared = 0;
  for (const one of first) {
    if (!boundsShare(one, b)) continue;
    for (const other of second) {
      if (!boundsShare(one, other) || !boxesMeet(one, other)) continue;
      if (liesInGroove(one, other) || liesInGroove(other, one)) continue;
      shared += Math.min(outlineShare(one, other), outlineShare(other, one));
      if (shared > TOUCH_AREA) return true;
    }
  }
  return false;
}

const PARTS = new WeakMap<Box, readonly Box[]>();

/** The parts of a box as boxes where they stand; made only for what comes near to something. */
function partsOf(box: Box): readonly Box[] {
  if (box.parts === null) return [box];
  const known = PARTS.get(box);
  if (known) return known;
  const made = box.parts.map(({ low, high, turn }): Box => {
    const { x, y } = box.frame;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    const along = (p: Vec3, q: Vec3, a: number, b: number): Vec3 => [
      p[0] * a + q[0] * b,
      p[1] * a + q[1] * b,
      p[2] * a + q[2] * b,
    ];
    const frame = { ...box.frame, x: along(x, y, cos, sin), y: along(x, y, -sin, cos) };
    return boxOf(box.id, box.name, frame, low, high, {
      grooves: [],
      outline: null,
      openings: [],
      parts: null,
    });
  });
  PARTS.set(box, made);
  return made;
}

/** Separating axes of two boxes (Gottschalk, Lin and Manocha 1996). */
function boxesMeet(a: Box, b: Box): boolean {
  const between = subtract(b.middle, a.middle);
  const first = [a.frame.x, a.frame.y, a.frame.z];
  const second = [b.frame.x, b.frame.y, b.frame.z];
  for (const axis of first) if (separates(axis, 1, between, a, b)) return false;
  for (const axis of second) if (separates(axis, 1, between, a, b)) return false;
  for (const p of first)
    for (const q of second) {
      const axis = cross(p, q);
      const size = norm(axis);
      if (size >= 1e-6 && separates(axis, size, between, a, b)) return false;
    }
  return true;
}

/** Whether two boxes with their middles so far apart leave a gap along an axis of a size. */
function separates(axis: Vec3, size: number, between: Vec3, a: Box, b: Box): boolean {
  const reached = halfAlong(a.frame, a.half, axis) + halfAlong(b.frame, b.half, axis);
  return Math.abs(dot(between, axis)) > reached - TOUCH_MM * size;
}

const EDGES_OF_BOX = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((corner) =>
  [1, 2, 4].filter((bit) => (corner & bit) === 0).map((bit) => [corner, corner | bit] as const),
);

/**
 * mm² of the outline of `a` that `b` reaches into (without bound where `a` has none): what `b` has between the two faces of the panel is
 * convex, so its shadow on the panel is the hull of its corners there. An outline of `b` itself is asked the other way round.
 */
function outlineShare(a: Box, b: Box): number {
  if (a.outline === null) return Number.POSITIVE_INFINITY;
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((bits) => {
    const side = (axis: 0 | 1 | 2) => (bits & (1 << axis) ? b.high[axis] : b.low[axis]);
    return toLocal(a.frame, toWorld(b.frame, [side(0), side(1), side(2)]));
  });
  const [low, high] = [a.low[2] + TOUCH_MM, a.high[2] - TOUCH_MM];
  const shadow: Vec2[] = corners.filter((p) => p[2] >= low && p[2] <= high).map((p): Vec2 => [p[0], p[1]]);
  for (const [i, k] of EDGES_OF_BOX) {
    const [p, q] = [at(corners, i), at(corners, k)];
    for (const level of [low, high]) {
      if (p[2] < level === q[2] < level) continue;
      const t = (level - p[2]) / (q[2] - p[2]);
      shadow.push([p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])]);
    }
  }
  const hull = convexHull(shadow);
  return a.openings.reduce((area, opening) => area - sharedArea(opening, hull), sharedArea(a.outline, hull));
}

/** Whether all that `b` takes of `a` was grooved out of it. */
function liesInGroove(a: Box, b: Box): boolean {
  if (a.grooves.length === 0) return false;
  const middle = toLocal(a.frame, b.middle);
  const axes = [a.frame.x, a.frame.y, a.frame.z];
  const shared = axes.map((axis, i) => {
    const half = halfAlong(b.frame, b.half, axis);
    return [
      Math.max(at(middle, i) - half, at(a.low, i)),
      Math.min(at(middle, i) + half, at(a.high, i)),
    ] as const;
  });
  return a.grooves.some(({ from, to }) =>
    shared.every(([low, high], i) => low > at(from, i) - TOUCH_MM && high < at(to, i) + TOUCH_MM),
  );
}
