/**
 * Sizes of views (dimensions, ISO 129-1): extension lines with a gap at what is measured and an overshoot past the dimension
 * line, oblique strokes at its ends, the value over it, readable from below or from the right. Values are computed from the
 * design, never from paper.
 */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { SizeItem } from "../../job";
import { at, LENGTH_TOLERANCE_MM } from "../../kernel";
import { formatLength } from "../../measure";
import { CAPITAL_HEIGHT, type DrawItem, type Stroke } from "../display";
import type { SizeFault } from "./item-fault";
import type { PlacedItem } from "./placed";
import { angleSize, roundSize } from "./round-sizes";
import {
  boxOf,
  dimensionLine,
  endStroke,
  extension,
  FIRST_OUT,
  LEAST_LETTERS,
  line,
  type Made,
  type SizeGround,
  sizeText,
  widthOf,
} from "./size-parts";
import { areEqualSteps } from "./step-sizes";
import { featureKey, type SeenFeature, type SeenPlace } from "./view-places";

/** mm of the design. Two places that are nearer to one another fall together. */
const TOGETHER = 0.01;

const LOST: SizeFault = { kind: "sizeLost" };

/** Draws a size about the place of its view. */
export function drawnSize(item: SizeItem, ground: SizeGround): PlacedItem {
  const { drawn, place } = ground;
  const from = drawn.features.get(featureKey(item.from)) ?? null;
  const to = item.to ? (drawn.features.get(featureKey(item.to)) ?? null) : null;
  const between = item.between.flatMap((one) => drawn.features.get(featureKey(one)) ?? []);
  const lost = from === null || (item.to !== null && to === null) || between.length < item.between.length;
  const made = ground.isApart
    ? { fault: { kind: "sizeInApartView" } as const }
    : lost
      ? { fault: LOST }
      : sized(item, [from, to], between, ground);
  if ("fault" in made) return { item, at: place.at, ...lostSize(item, ground), fault: made.fault };
  return { item, at: place.at, fault: null, ...made };
}

function sized(
  item: SizeItem,
  [from, to]: readonly [SeenFeature, SeenFeature | null],
  between: readonly SeenFeature[],
  ground: SizeGround,
): Made | { readonly fault: SizeFault } {
  switch (item.measure) {
    case "horizontal":
    case "vertical":
    case "along":
      return to
        ? lengthSize(item, [from.at, ...between.map(({ at: place }) => place), to.at], ground)
        : { fault: LOST };
    case "diameter":
      return from.diameter === null
        ? { fault: { kind: "sizeWants", what: "hole" } }
        : roundSize(
            item,
            from.at,
            { sign: "⌀", length: from.diameter, radius: from.diameter / 2, towards: null },
            ground,
          );
    case "radius":
      return from.radius === null
        ? { fault: { kind: "sizeWants", what: "rounding" } }
        : roundSize(
            item,
            from.at,
            { sign: "R", length: from.radius, radius: from.radius, towards: from.corner },
            ground,
          );
    case "angle":
      return from.to && to?.to
        ? angleSize(item, [from.at, from.to], [to.at, to.to], ground)
        : { fault: { kind: "sizeWants", what: "members" } };
    default:
      return item.measure satisfies never;
  }
}

/** The value of a length size in millimetres. */
function lengthOf(
  measure: "horizontal" | "vertical" | "along",
  a: SeenPlace,
  b: SeenPlace,
  isSquare: boolean,
): number {
  if (measure === "horizontal") return Math.abs(b[0] - a[0]);
  if (measure === "vertical") return Math.abs(b[1] - a[1]);
  // Seen at an angle, what runs along something is as long as it is, not as it looks.
  return Math.hypot(b[0] - a[0], b[1] - a[1], isSquare ? 0 : b[2] - a[2]);
}

/** A length from the first of some places to the last; those between part it into equal steps. */
function lengthSize(
  item: SizeItem,
  places: readonly SeenPlace[],
  ground: SizeGround,
): Made | { readonly fault: SizeFault } {
  const [a, b] = [at(places, 0), at(places, places.length - 1)];
  const measure = item.measure as "horizontal" | "vertical" | "along";
  if (measure !== "along" && !ground.isSquare) return { fault: { kind: "sizeSeenAtAngle" } };
  const value = lengthOf(measure, a, b, ground.isSquare);
  const [p, q] = [ground.place.onPaper([a[0], a[1]]), ground.place.onPaper([b[0], b[1]])];
  if (value < TOGETHER || (measure === "along" && Math.hypot(q[0] - p[0], q[1] - p[1]) < 0.1))
    return { fault: { kind: "placesTogether" } };
  const steps = places.slice(1).map((place, i) => lengthOf(measure, at(places, i), place, ground.isSquare));
  const unequal = unequalSteps(steps, value, ground);
  if (unequal) return { fault: unequal };
  const { along, off, base } = standing(item, p, q, ground.box);
  const on = (place: Vec2): number => place[0] * along[0] + place[1] * along[1];
  const [first, last] = on(p) <= on(q) ? [p, q] : [q, p];
  const foot = (place: Vec2): Vec2 => {
    const t = base - (place[0] * off[0] + place[1] * off[1]);
    return [place[0] + off[0] * t, place[1] + off[1] * t];
  };
  const [start, end] = [foot(first), foot(last)];
  const stroke: Stroke = { ink: "ink", width: ground.widths.narrow };
  const text = sizeText(item, lengthText(value, steps.length, ground));
  const between = places.slice(1, -1).map(([x, y]) => ground.place.onPaper([x, y]));
  const items = [
    ...extension(first, start, stroke),
    ...extension(last, end, stroke),
    ...between.flatMap((place) => [
      ...extension(place, foot(place), stroke),
      endStroke(foot(place), along, stroke),
    ]),
    ...dimensionLine(start, end, stroke, {
      text,
      typed: item.typed !== null,
      letters: ground.widths.letters,
    }),
  ];
  return { items, box: boxOf(items), way: item.side === "own" ? off : outOf(item.side), grip: [start, end] };
}

/** What is wrong with steps that are not equal, or do not lie one after the other; null: they are and do. */
function unequalSteps(steps: readonly number[], whole: number, { style }: SizeGround): SizeFault | null {
  if (areEqualSteps(steps, whole)) return null;
  return { kind: "stepsUnequal", least: Math.min(...steps), most: Math.max(...steps), style };
}

const outOf = (side: Exclude<SizeItem["side"], "own">): Vec2 =>
  ({ top: [0, -1], bottom: [0, 1], left: [-1, 0], right: [1, 0] })[side] as unknown as Vec2;

/** The direction of a dimension line, the way off what it measures, and how far along that way it lies. */
function standing(
  { measure, side, out }: SizeItem,
  p: Vec2,
  q: Vec2,
  box: PlaneBox,
): { readonly along: Vec2; readonly off: Vec2; readonly base: number } {
  if (measure === "along") {
    const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
    const along: Vec2 = [(q[0] - p[0]) / length, (q[1] - p[1]) / length];
    const off: Vec2 = [along[1], -along[0]];
    const reach = (place: Vec2) => place[0] * off[0] + place[1] * off[1];
    return { along, off, base: (out >= 0 ? Math.max : Math.min)(reach(p), reach(q)) + out };
  }
  if (measure === "horizontal")
    return side === "top"
      ? { along: [1, 0], off: [0, 1], base: box.y0 - out }
      : { along: [1, 0], off: [0, 1], base: box.y1 + out };
  return side === "left"
    ? { along: [0, 1], off: [1, 0], base: box.x0 - out }
    : { along: [0, 1], off: [1, 0], base: box.x1 + out };
}

/** What stands where a size has lost what it measures: a grey stub at the side of the view, with its typed text if it has one. */
function lostSize(item: SizeItem, { box }: SizeGround): Made {
  const y = box.y1 + Math.max(FIRST_OUT, Math.abs(item.out));
  const items: readonly DrawItem[] = [
    line([-12, y], [12, y], { ink: "soft", width: 0.25, dash: [2, 1] }),
    {
      kind: "text",
      at: [0, y - 2.4],
      text: "lost: pick again",
      size: LEAST_LETTERS / CAPITAL_HEIGHT,
      face: "condensed",
      align: "centre",
      ink: "oxide",
      layer: "SIZES",
    },
  ];
  return {
    items,
    box: boxOf(items),
    way: [0, 1],
    grip: [
      [-12, y],
      [12, y],
    ],
  };
}

/** What stands at a length: the value, or of equal steps "4 × 98 (= 392)" (ISO 129-1). */
function lengthText(length: number, steps: number, { style }: Pick<SizeGround, "style">): string {
  const words = (value: number) => formatLength(value, style, LENGTH_TOLERANCE_MM);
  return steps === 1 ? words(length) : `${steps} × ${words(length / steps)} (= ${words(length)})`;
}

/** mm on paper. How wide the text of a length is that is parted into so many equal steps. */
export const lengthTextWidth = (
  length: number,
  steps: number,
  { style, widths }: Pick<SizeGround, "style" | "widths">,
): number => widthOf({ text: lengthText(length, steps, { style }), letters: widths.letters });
