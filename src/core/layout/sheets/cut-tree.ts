/**
 * The one tree of cuts of a sheet: placements, cutting order, offcuts, rack, labels and cut lines all come from it.
 *
 * Placements seldom fix the order of the cuts, and the order decides which offcuts there are. Of all trees that part the
 * blocks by cuts right across within the stages, the one with the largest single offcut is taken, then the one with the
 * fewest cuts: an exact recursion over the regions that cuts can lead to, remembered by region. Where that would take too
 * long, every clean cut is made in each run, rips first or cross-cuts first, whichever leaves the larger offcut.
 *
 * A keep-together run is one block, and is separated only when it is free on all sides.
 */
import { at, fromNm, toNm } from "../../kernel";
import { type Block, blocksOn, isDust } from "./blocks";
import { type CutRect, crossRun, partedRun, ripRun, sameRect, slices } from "./cuts";
import type { CutSheet, Offcut, SheetProblem } from "./problem";

export type CutWay = "rip" | "cross";

/** A part of a sheet, inflated by the kerf. `dust` is a strip that the blade takes away whole. */
export type CutPart =
  | { readonly kind: "panel"; readonly region: CutRect; readonly placement: number }
  | { readonly kind: "offcut" | "dust"; readonly region: CutRect }
  | CutNode;

/** A part that is cut on, by parallel cuts; its parts lie in the order of their place along the other axis. */
export type CutNode = {
  readonly kind: "cut";
  readonly region: CutRect;
  readonly way: CutWay;
  /** The run of parallel cuts; odd runs are rips. A blank may be separated in the run that cut it out. */
  readonly stage: number;
  readonly parts: readonly CutPart[];
  /** It is a keep-together blank that is separated here. */
  readonly blank: boolean;
};

const WAYS = ["rip", "cross"] as const;
const AXIS = { rip: ["y", "width"], cross: ["x", "length"] } as const;
const openRun = (way: CutWay, run: number) => (way === "rip" ? ripRun(run) : crossRun(run));

/** How many blocks the recursion may look at before the plain ways are taken. */
const MOST_LOOKS = 60_000;

/**
 * The tree of cuts of a sheet; null when its panels cannot be parted by cuts right across within the stages. `clean` makes
 * every clean cut in each run, begun either way, which is what `best` comes down to on very full sheets; `plain` rips first.
 */
export function cutTree(
  problem: SheetProblem,
  sheet: Pick<CutSheet, "stock" | "placements">,
  effort: "best" | "clean" | "plain" = "best",
): CutPart | null {
  const { region, blocks } = blocksOn(problem, at(problem.stock, sheet.stock), sheet.placements);
  const stages = problem.stages ?? Number.POSITIVE_INFINITY;
  if (effort === "best") {
    const found = new BestTree(problem, stages).of(region, blocks);
    if (found !== "too much work") return found && collapsed(problem, found, 1);
  }
  const trees = WAYS.slice(0, effort === "plain" ? 1 : 2).flatMap((way) => {
    const tree = everyCleanCut(region, blocks, way, 0);
    const last = tree && lastRunOf(tree, 1);
    if (!tree || last === null || last > stages) return [];
    return [{ tree, value: worthOf(problem, tree) }];
  });
  const best = trees.reduce<(typeof trees)[number] | null>(
    (found, one) => (found === null || isBetter(one.value, found.value) ? one : found),
    null,
  );
  return best && collapsed(problem, best.tree, 1);
}

/** What a sheet leaves over when it is cut by its tree, in millimetres of the untrimmed sheet. */
export function offcutsOf(
  problem: SheetProblem,
  sheet: Pick<CutSheet, "stock" | "placements">,
): readonly Offcut[] {
  const tree = cutTree(problem, sheet);
  return tree ? offcutParts(tree).map(({ region }) => offcutOf(problem, region)) : [];
}

/** The offcuts of a tree in the order of the tree: the cutting order counts them in the same way. */
function offcutParts(part: CutPart): readonly Extract<CutPart, { kind: "offcut" | "dust" }>[] {
  if (part.kind === "cut") return part.parts.flatMap(offcutParts);
  return part.kind === "offcut" ? [part] : [];
}

const offcutOf = ({ kerf, trim }: SheetProblem, region: CutRect): Offcut => ({
  x: fromNm(region.x + toNm(trim)),
  y: fromNm(region.y + toNm(trim)),
  length: fromNm(region.length - toNm(kerf)),
  width: fromNm(region.width - toNm(kerf)),
});

/** A tree as it is found: two parts a cut, or all strips of a run. */
type Found =
  | { readonly kind: "block"; readonly region: CutRect; readonly block: Block }
  | { readonly kind: "rest"; readonly region: CutRect }
  | {
      readonly kind: "cut";
      readonly region: CutRect;
      readonly way: CutWay;
      readonly parts: readonly Found[];
    };

/** Area of the largest offcut worth keeping, in mm²; cuts. */
type Value = { readonly largest: number; readonly cuts: number };

const isBetter = (a: Value, b: Value) =>
  a.largest > b.largest || (a.largest === b.largest && a.cuts < b.cuts);

function restValue(problem: SheetProblem, region: CutRect): number {
  const length = region.length / 1e6 - problem.kerf;
  const width = region.width / 1e6 - problem.kerf;
  return length > 0 && width > 0 && Math.min(length, width) >= problem.keep ? length * width : 0;
}

function worthOf(problem: SheetProblem, tree: Found): Value {
  if (tree.kind === "rest") return { largest: restValue(problem, tree.region), cuts: 0 };
  if (tree.kind === "block") return { largest: 0, cuts: 0 };
  const values = tree.parts.map((part) => worthOf(problem, part));
  return {
    largest: Math.max(...values.map(({ largest }) => largest)),
    cuts: values.reduce((sum, { cuts }) => sum + cuts, values.length - 1),
  };
}

/** The run that the last cut of a tree is in when run `open` is open; null: none at all. */
function lastRunOf(tree: Found, open: number): number | null {
  if (tree.kind === "rest") return open;
  if (tree.kind === "block") return partedRun(tree.block, open);
  const run = openRun(tree.way, open);
  return Math.max(run, ...tree.parts.map((part) => lastRunOf(part, run) ?? run));
}

/** The best tree by recursion over regions; what was found for a region and a run is remembered. */
class BestTree {
  private readonly problem: SheetProblem;
  private readonly stages: number;
  private readonly known = new Map<string, { readonly tree: Found; readonly value: Value } | null>();
  private looks = 0;

  constructor(problem: SheetProblem, stages: number) {
    this.problem = problem;
    this.stages = stages;
  }

  of(region: CutRect, blocks: readonly Block[]): Found | null | "too much work" {
    const found = this.best(region, blocks, 1);
    return this.looks > MOST_LOOKS ? "too much work" : (found?.tree ?? null);
  }

  private best(
    region: CutRect,
    blocks: readonly Block[],
    open: number,
  ): { readonly tree: Found; readonly value: Value } | null {
    if (blocks.length === 0)
      return { tree: { kind: "rest", region }, value: { largest: restValue(this.problem, region), cuts: 0 } };
    const [only] = blocks;
    if (blocks.length === 1 && only && sameRect(only, region)) {
      if (partedRun(only, open) > this.stages) return null;
      return { tree: { kind: "block", region, block: only }, value: { largest: 0, cuts: 0 } };
    }
    if (this.looks > MOST_LOOKS) return null;
    const run = this.stages === Number.POSITIVE_INFINITY ? 0 : open;
    const key = `${region.x},${region.y},${region.length},${region.width},${run}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    let best: { readonly tree: Found; readonly value: Value } | null = null;
    for (const way of WAYS) {
      const next = openRun(way, open);
      if (next > this.stages) continue;
      for (const place of this.places(region, blocks, way)) {
        const found = this.cut(region, blocks, { way, place, next });
        if (found && (best === null || isBetter(found.value, best.value))) best = found;
      }
    }
    this.known.set(key, best);
    return best;
  }

  private cut(
    region: CutRect,
    blocks: readonly Block[],
    { way, place, next }: { readonly way: CutWay; readonly place: number; readonly next: number },
  ) {
    const [from, size] = AXIS[way];
    const low = { ...region, [size]: place - region[from] };
    const high = { ...region, [from]: place, [size]: region[from] + region[size] - place };
    const first = this.best(
      low,
      blocks.filter((block) => block[from] < place),
      next,
    );
    if (!first) return null;
    const second = this.best(
      high,
      blocks.filter((block) => block[from] >= place),
      next,
    );
    if (!second) return null;
    const tree: Found = { kind: "cut", region, way, parts: [first.tree, second.tree] };
    const value = {
      largest: Math.max(first.value.largest, second.value.largest),
      cuts: first.value.cuts + second.value.cuts + 1,
    };
    return { tree, value };
  }

  /** Places at the edges of blocks where a cut runs right across and past all of them. */
  private places(region: CutRect, blocks: readonly Block[], way: CutWay): readonly number[] {
    const [from, size] = AXIS[way];
    this.looks += blocks.length;
    const sorted = [...blocks].sort((a, b) => a[from] - b[from]);
    const places: number[] = [];
    const end = region[from] + region[size];
    let covered = region[from];
    for (const block of sorted) {
      if (block[from] >= covered) {
        if (covered > region[from]) places.push(covered);
        if (block[from] > covered) places.push(block[from]);
      }
      covered = Math.max(covered, block[from] + block[size]);
    }
    if (covered < end) places.push(covered);
    return places;
  }
}

/** The tree in which every clean cut of a run is made, the first run along `way`; null: it cannot be cut. */
function everyCleanCut(region: CutRect, blocks: readonly Block[], way: CutWay, idle: number): Found | null {
  if (blocks.length === 0) return { kind: "rest", region };
  const [only] = blocks;
  if (blocks.length === 1 && only && sameRect(only, region)) return { kind: "block", region, block: only };
  if (idle > 1) return null;
  const [from, size] = AXIS[way];
  const strips = slices(region, blocks, from, size);
  const other = way === "rip" ? "cross" : "rip";
  if (strips.length === 1) return everyCleanCut(region, blocks, other, idle + 1);
  const parts = strips.map((strip) => everyCleanCut(strip.region, strip.rects, other, 0));
  return parts.every((part) => part !== null) ? { kind: "cut", region, way, parts } : null;
}

/** Cuts of one run in one node, blanks opened. */
function collapsed(problem: SheetProblem, tree: Found, open: number): CutPart {
  if (tree.kind === "rest")
    return { kind: isDust(tree.region, problem) ? "dust" : "offcut", region: tree.region };
  if (tree.kind === "block") return opened(tree.block, tree.region, open);
  const stage = openRun(tree.way, open);
  const strips = (one: Found): readonly Found[] =>
    one.kind === "cut" && one.way === tree.way ? one.parts.flatMap(strips) : [one];
  const parts = strips(tree).map((part) => collapsed(problem, part, stage));
  return { kind: "cut", region: tree.region, way: tree.way, stage, parts, blank: false };
}

/** A block as a panel, or as the blank that is separated into its panels. */
function opened(block: Block, region: CutRect, open: number): CutPart {
  if (block.inner === null) return { kind: "panel", region, placement: at(block.placements, 0) };
  const way = block.inner === "x" ? "cross" : "rip";
  const parts = block.rects.map(
    (own, i): CutPart => ({
      kind: "panel",
      region: own,
      placement: at(block.placements, i),
    }),
  );
  return { kind: "cut", region, way, stage: openRun(way, open), parts, blank: true };
}
