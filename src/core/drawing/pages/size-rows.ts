/**
 * In which rows dimension lines stand: the shortest next to the view, each farther out than all that it spans, in the first row
 * that has room. Sizes that only touch share a row, as a chain.
 */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { Feature, SizeItem } from "../../job";
import type { LengthStyle } from "../../measure";
import type { BalloonGround } from "./balloons";
import { type CatchGround, featurePlace, type SizeStand, standOfSize } from "./new-sizes";
import { FIRST_OUT, NEXT_OUT } from "./size-parts";
import { lengthTextWidth } from "./sizes";

export type WantedSize = {
  readonly measure: SizeItem["measure"];
  readonly from: Feature;
  readonly to: Feature;
  /** What parts it into equal steps. */
  readonly between: readonly Feature[];
};

/** Stands for new sizes of a view, all at once; `there`: those that it has. */
export function standsOfSizes(
  wanted: readonly WantedSize[],
  there: readonly SizeItem[],
  ground: CatchGround,
  ring: Pick<BalloonGround, "box" | "blocked" | "border" | "widths">,
  style: LengthStyle,
): readonly SizeStand[] {
  const spanning = (size: WantedSize): SizeSpanning | null => {
    const ends = [featurePlace(size.from, ground), featurePlace(size.to, ground)] as const;
    const [a, b] = ends;
    if (!a || !b || (size.measure !== "horizontal" && size.measure !== "vertical")) return null;
    const axis = size.measure === "horizontal" ? 0 : 1;
    const [low, high] = a[axis] <= b[axis] ? [a[axis], b[axis]] : [b[axis], a[axis]];
    const middle = (a[1 - axis] ?? 0) + (b[1 - axis] ?? 0);
    const length = (high - low) / ground.place.scale;
    const text = lengthTextWidth(length, size.between.length + 1, { style, widths: ring.widths });
    const near = axis === 0 ? (middle < 0 ? "top" : "bottom") : middle > 0 ? "right" : "left";
    return { measure: size.measure, from: low, to: high, text, near };
  };
  const standing = there.flatMap(({ measure, from, to, between, side, out }): StandingSize[] => {
    const span = to && side !== "own" ? spanning({ measure, from, to, between }) : null;
    return span && side !== "own" ? [{ ...span, side, out }] : [];
  });
  const spans = wanted.map(spanning);
  const rows = rowsOfSizes(
    spans.flatMap((span) => span ?? []),
    standing,
    roomsRound(ring),
  );
  let next = 0;
  return spans.map((span, i) => {
    const row = span ? rows[next++] : undefined;
    return row ?? standOfSize(wanted[i]?.measure ?? "along", NOWHERE, []);
  });
}

const NOWHERE: readonly [Vec2, Vec2] = [
  [0, 0],
  [0, 0],
];

/** How far off a view the next thing stands on each side. */
function roomsRound({ box, blocked, border }: Pick<BalloonGround, "box" | "blocked" | "border">): Rooms {
  const beside = (isNear: (one: PlaneBox) => boolean, room: (one: PlaneBox) => number, most: number) =>
    blocked.reduce(
      (least, one) => (isNear(one) && room(one) >= 0 ? Math.min(least, room(one)) : least),
      most,
    );
  const overX = (one: PlaneBox) => one.x0 < box.x1 && one.x1 > box.x0;
  const overY = (one: PlaneBox) => one.y0 < box.y1 && one.y1 > box.y0;
  return {
    top: beside(overX, (one) => box.y0 - one.y1, box.y0 - border.y0),
    bottom: beside(overX, (one) => one.y0 - box.y1, border.y1 - box.y1),
    left: beside(overY, (one) => box.x0 - one.x1, box.x0 - border.x0),
    right: beside(overY, (one) => one.x0 - box.x1, border.x1 - box.x1),
  };
}

/** The sides of a view that sizes across (horizontal) and up (vertical) stand on. */
type SizeSide = Exclude<SizeItem["side"], "own">;

/** A size along a side of its view, in mm on paper. */
export type SizeSpanning = {
  readonly measure: "horizontal" | "vertical";
  /** Along the side, from the lesser to the greater. */
  readonly from: number;
  readonly to: number;
  /** How wide its text is. */
  readonly text: number;
  /** The side that is nearer to what it measures. */
  readonly near: SizeSide;
};

export type StandingSize = Pick<SizeSpanning, "from" | "to" | "text"> & {
  readonly side: SizeSide;
  readonly out: number;
};

/** How far off the view there is room, in mm, by side. */
type Rooms = Readonly<Record<SizeSide, number>>;

/** mm. Sizes that come nearer along their line would run into one another. */
const APART = 0.5;
/** mm. A text beside its line, with what it is led by. */
const BESIDE = 3.5;
/** mm. Over a dimension line for its text. */
const OVER = 4;

/** A stand for each of new sizes, beside those that are there. */
export function rowsOfSizes(
  sizes: readonly SizeSpanning[],
  there: readonly StandingSize[],
  rooms: Rooms,
): readonly Pick<StandingSize, "side" | "out">[] {
  const standing: StandingSize[] = [...there];
  const stands = new Map<SizeSpanning, StandingSize>();
  for (const size of [...sizes].sort((a, b) => a.to - a.from - (b.to - b.from))) {
    const ways = [size.near, OPPOSITE[size.near]].map((side) => ({
      ...size,
      side,
      out: rowOn(side, size, standing),
    }));
    const [first, second] = ways;
    if (!first || !second) continue;
    const room = (one: StandingSize) => rooms[one.side] - one.out - OVER;
    const stand: StandingSize = room(first) >= 0 || room(first) >= room(second) ? first : second;
    standing.push(stand);
    stands.set(size, stand);
  }
  return sizes.map((size) => {
    const { side, out } = stands.get(size) ?? { side: size.near, out: FIRST_OUT };
    return { side, out };
  });
}

const OPPOSITE = { top: "bottom", bottom: "top", left: "right", right: "left" } as const;

function rowOn(side: SizeSide, size: SizeSpanning, standing: readonly StandingSize[]): number {
  const beside = standing.filter((one) => one.side === side);
  const taken = reach(size);
  let out = FIRST_OUT;
  const isTaken = () =>
    beside.some((one) => {
      const apart = one.out - out;
      const spans = one.from > size.from - APART && one.to < size.to + APART;
      if (spans && apart > -NEXT_OUT + 0.01) return true;
      const other = reach(one);
      return (
        Math.abs(apart) < NEXT_OUT - 0.01 && other.from < taken.to - APART && other.to > taken.from + APART
      );
    });
  while (isTaken()) out += NEXT_OUT;
  return out;
}

/** What a size takes of its row: text that does not fit between its ends stands beside the second. */
function reach({ from, to, text }: Pick<SizeSpanning, "from" | "to" | "text">): {
  readonly from: number;
  readonly to: number;
} {
  return text + 2 <= to - from ? { from, to } : { from, to: to + text + BESIDE };
}
