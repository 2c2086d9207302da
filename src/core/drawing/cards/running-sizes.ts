/**
 * Running sizes: places along an edge, each told from one end of it (superimposed running dimensioning of ISO 129-1, without its
 * arrows). Their numbers stand beside one another without overlap, however close the places are.
 */
import type { Vec2 } from "../../geometry";
import { at, fromNm, type Nm } from "../../kernel";
import { CAPITAL_HEIGHT, type DrawItem, type Stroke } from "../display";
import { line, written } from "../pages/size-parts";
import { textWidth } from "../text-width";
import { type EvenRun, evenRuns } from "./card-facts";
import { LETTERS } from "./card-parts";

/** mm on paper from one number to the next. */
const PITCH = 3.6;
const GAP = 1;
/** From the edge to the numbers. */
const NUMBERS_AWAY = 6;
const STROKE: Stroke = { ink: "ink", width: 0.18 };

/**
 * The nearest places to some wanted ones, in their order, no two nearer than `pitch`: least squares by pooling neighbours. The
 * first and the last stay where they are as long as there is room between them.
 */
export function spread(wanted: readonly number[], pitch: number): readonly number[] {
  const pools: { sum: number; weight: number; count: number }[] = [];
  wanted.forEach((place, i) => {
    const weight = i === 0 || i === wanted.length - 1 ? STAYS : 1;
    pools.push({ sum: weight * (place - i * pitch), weight, count: 1 });
    for (;;) {
      const [before, last] = [pools.at(-2), pools.at(-1)];
      if (!before || !last || before.sum / before.weight <= last.sum / last.weight) return;
      pools.splice(-2, 2, {
        sum: before.sum + last.sum,
        weight: before.weight + last.weight,
        count: before.count + last.count,
      });
    }
  });
  const level = pools.flatMap(({ sum, weight, count }) => new Array<number>(count).fill(sum / weight));
  return level.map((one, i) => one + i * pitch);
}
const STAYS = 1e9;

export type Running = {
  /** Places from the end that they are told from. */
  readonly places: readonly Nm[];
  /** How long the edge is: its ends have lines of their own. */
  readonly whole: Nm;
  /** mm on paper for one of the piece. */
  readonly scale: number;
  readonly write: (mm: number) => string;
};

type Told = { readonly at: number; readonly text: string };

const toldOf = ({ first, step, count }: EvenRun, { scale, write }: Running): readonly Told[] => {
  const one = (nm: number): Told => ({ at: fromNm(nm) * scale, text: write(fromNm(nm)) });
  if (count === 1) return [one(first)];
  const last = first + step * (count - 1);
  const middle = { at: fromNm((first + last) / 2) * scale, text: `${count} at ${write(fromNm(step))}` };
  return [one(first), middle, one(last)];
};

/** Running sizes along the lower edge, from [0, 0] to the right, or along the left one, from [0, 0] upwards. */
export function runningSizes(running: Running, way: "right" | "up"): readonly DrawItem[] {
  const told = evenRuns(running.places).flatMap((run) => toldOf(run, running));
  const whole = fromNm(running.whole) * running.scale;
  const stand = spread([0, ...told.map((one) => one.at), whole], PITCH).slice(1, -1);
  const place = (along: number, away: number): Vec2 => (way === "right" ? [along, away] : [-away, -along]);
  return told.flatMap(({ at: along, text }, i): DrawItem[] => {
    const to = at(stand, i);
    const half = textWidth(text, LETTERS / CAPITAL_HEIGHT, "condensed") / 2;
    const [x, y] = place(to, NUMBERS_AWAY + half);
    return [
      line(place(along, GAP), place(along, 2.5), STROKE),
      line(place(along, 2.5), place(to, NUMBERS_AWAY - 1), STROKE),
      ...written({ text, typed: false, letters: LETTERS }, [x, y], way === "right" ? 90 : 0),
    ];
  });
}

/** How far the numbers of running sizes reach from their edge. */
export function runningDepth(running: Running): number {
  const told = evenRuns(running.places).flatMap((run) => toldOf(run, running));
  if (told.length === 0) return 0;
  return (
    NUMBERS_AWAY +
    Math.max(...told.map(({ text }) => textWidth(text, LETTERS / CAPITAL_HEIGHT, "condensed"))) +
    1
  );
}

/** How long an edge has to be on paper for so many numbers. */
export const runningLength = (running: Running): number =>
  evenRuns(running.places).flatMap((run) => toldOf(run, running)).length * PITCH;
