/**
 * What is cut out of a sheet as one: a single panel, or a keep-together run as the blank that it is until it is separated.
 * Sizes are inflated by the kerf, in nanometres from the corner of the trimmed sheet.
 */
import { addTo, at, toNm } from "../../kernel";
import { type CutRect, inflated } from "./cuts";
import type { Placement, SheetProblem } from "./problem";

export type Block = CutRect & {
  /** Placements by their index in the sheet's list; in a run, in the order of the run. */
  readonly placements: readonly number[];
  /** The axis along which the panels of a run follow one another; null: a single panel. */
  readonly inner: "x" | "y" | null;
  /** The inflated rectangle of each placement. */
  readonly rects: readonly CutRect[];
};

/** The trimmed sheet, and the blocks on it. A run whose panels are not one blank counts as single panels. */
export function blocksOn(
  problem: SheetProblem,
  stock: SheetProblem["stock"][number],
  placements: readonly Placement[],
): { readonly region: CutRect; readonly blocks: readonly Block[] } {
  const [region, rects] = inflated(problem, stock, placements);
  const runs = new Map<string, number[]>();
  const blocks: Block[] = [];
  placements.forEach((one, i) => {
    if (!one.together) {
      blocks.push(singleBlock(at(rects, i), i));
      return;
    }
    const key = `${one.together.group}.${one.together.run}`;
    addTo(runs, key, i);
  });
  for (const run of runs.values()) {
    const whole = blankOfRun(problem, placements, rects, run);
    if (whole) blocks.push(whole);
    else for (const i of run) blocks.push(singleBlock(at(rects, i), i));
  }
  return { region, blocks };
}

const singleBlock = (rect: CutRect, placement: number): Block => ({
  ...rect,
  placements: [placement],
  inner: null,
  rects: [rect],
});

function blankOfRun(
  problem: SheetProblem,
  placements: readonly Placement[],
  rects: readonly CutRect[],
  run: readonly number[],
): Block | null {
  const first = at(placements, at(run, 0));
  const group = first.together ? problem.together[first.together.group] : undefined;
  if (!group || run.length < 2) return null;
  const inner = (group.along === "length") !== first.rotated ? "x" : "y";
  const [size, across, breadth] =
    inner === "x" ? (["length", "y", "width"] as const) : (["width", "x", "length"] as const);
  const sorted = [...run].sort((a, b) => at(rects, a)[inner] - at(rects, b)[inner]);
  const head = at(rects, at(sorted, 0));
  let end = head[inner];
  for (const i of sorted) {
    const rect = at(rects, i);
    if (rect[inner] !== end || rect[across] !== head[across] || rect[breadth] !== head[breadth]) return null;
    end += rect[size];
  }
  return {
    ...head,
    [size]: end - head[inner],
    placements: sorted,
    inner,
    rects: sorted.map((i) => at(rects, i)),
  };
}

/** Whether the blade leaves nothing of an inflated rectangle. */
export const isDust = (rect: CutRect, problem: SheetProblem): boolean =>
  rect.length <= toNm(problem.kerf) || rect.width <= toNm(problem.kerf);
