/**
 * The order in which a sheet is cut, from its tree of cuts: round by round (rips along the length, cross-cuts, and on), and
 * in each round one fence setting after the other, so that a fence stands for all parts that need it. Parts of one run may
 * be cut off in any order, since parallel strips can change places; so the greatest setting comes first.
 *
 * Two trims give the reference edges. The trims at the far edges are what is left of the last cut along each way; an offcut
 * that is left there keeps its raw edge, and is told without it.
 */
import { at, fromNm, invariant, toNm } from "../../kernel";
import { type CutNode, type CutPart, type CutWay, cutTree } from "./cut-tree";
import type { CutRect } from "./cuts";
import type { CutSheet, SheetProblem } from "./problem";

export type SheetCut = {
  /** `trim`: a reference edge; `rip`: along the sheet's length; `cross`: across it. */
  readonly kind: "trim" | CutWay;
  /** 0 for trims, then 1, 2, …: cuts of one stage are all parallel. */
  readonly stage: number;
  /** mm between fence or stop and blade: what is kept there; for a trim what comes off. */
  readonly setting: number;
  /** The part that is cut: 0 is the sheet. */
  readonly of: number;
  /** The part that comes off it. */
  readonly part: number;
  /** The panel that the part is when it needs no further cut; null: it is cut on, or an offcut. */
  readonly panel: number | null;
  /** The offcut that the part is, by its index in the sheet's list; null: it is none. */
  readonly offcut: number | null;
  /** Placements that lie in the part that is cut, by their place in the sheet's list. */
  readonly within: readonly number[];
  /** The cut separates panels that were kept together as one blank. */
  readonly separates: boolean;
};

/** A part that has its size without a cut of its own: what is left when its neighbours are off. */
export type LeftPart = Pick<SheetCut, "of" | "part" | "panel" | "offcut">;

export type SheetCuttingOrder = {
  readonly cuts: readonly SheetCut[];
  readonly left: readonly LeftPart[];
  /** How often the fence or the stop is set, the two trims included. */
  readonly settings: number;
};

/** A part that is still to be cut; `raw`: its far edge along that way is still the sheet's own. */
type Pending = {
  readonly id: number;
  readonly part: CutPart;
  readonly raw: { readonly rip: boolean; readonly cross: boolean };
  /** The round in which it came off. */
  readonly round: number;
};

const SIZE = { rip: "width", cross: "length" } as const;

/** The cuts of one sheet of a layout that can be cut by cuts that run right across; throws for any other. */
export function sheetCuts(
  problem: SheetProblem,
  sheet: Pick<CutSheet, "stock" | "placements">,
  effort: "best" | "plain" = "best",
): SheetCuttingOrder {
  const tree = cutTree(problem, sheet, effort);
  invariant(tree, "a sheet that is laid out can be cut right across");
  return new Order(problem, sheet).of(tree);
}

class Order {
  private readonly problem: SheetProblem;
  private readonly sheet: Pick<CutSheet, "stock" | "placements">;
  private readonly cuts: SheetCut[] = [];
  private readonly left: LeftPart[] = [];
  private readonly offcuts = new Map<CutPart, number>();
  private next = 1;

  constructor(problem: SheetProblem, sheet: Pick<CutSheet, "stock" | "placements">) {
    this.problem = problem;
    this.sheet = sheet;
  }

  of(tree: CutPart): SheetCuttingOrder {
    const { trim } = this.problem;
    const isTrimmed = toNm(trim) > 0;
    this.nameOffcuts(tree);
    if (isTrimmed) for (let i = 0; i < 2; i++) this.cuts.push({ ...NO_PART, kind: "trim", setting: trim });
    const raw = { rip: isTrimmed, cross: isTrimmed };
    const whole: Pending = { id: 0, part: tree, raw, round: 0 };
    if (isDone(whole)) this.left.push({ of: 0, part: 0, ...this.what(whole) });
    let pending: readonly Pending[] = isDone(whole) ? [] : [whole];
    for (let round = 1; pending.length > 0; round++) pending = this.runOf(pending, round);
    return { cuts: this.cuts, left: this.left, settings: settingsOf(this.cuts) };
  }

  private nameOffcuts(part: CutPart): void {
    if (part.kind === "cut") for (const one of part.parts) this.nameOffcuts(one);
    else if (part.kind === "offcut") this.offcuts.set(part, this.offcuts.size);
  }

  /** All parallel cuts of one round, like settings together. */
  private runOf(parts: readonly Pending[], round: number): readonly Pending[] {
    const way: CutWay = round % 2 === 1 ? "rip" : "cross";
    const run: SheetCut[] = [];
    const pending: Pending[] = [];
    for (const one of parts) {
      const cut = this.cutOf(one, way, round);
      if (!cut) {
        pending.push(one);
        continue;
      }
      for (const { made, setting } of cut.off) {
        run.push({
          kind: way,
          stage: one.part.kind === "cut" ? one.part.stage : round,
          setting,
          of: one.id,
          part: made.id,
          ...this.what(made),
          within: placementsOf(one.part),
          separates: one.part.kind === "cut" && one.part.blank,
        });
        if (!isDone(made)) pending.push(made);
      }
      const { rest } = cut;
      if (rest) this.left.push({ of: one.id, part: rest.id, ...this.what(rest) });
      if (rest && !isDone(rest)) pending.push(rest);
    }
    run.sort((a, b) => b.setting - a.setting || a.of - b.of || a.part - b.part);
    this.cuts.push(...run);
    return pending;
  }

  /** The parts that come off a part, and what is left of it as a part; null: nothing is cut here in this round. */
  private cutOf(one: Pending, way: CutWay, round: number) {
    const { part, raw } = one;
    const size = SIZE[way];
    const setting = (region: CutRect) => fromNm(region[size] - toNm(this.problem.kerf));
    const made = (of: CutPart, far: boolean): Pending => ({
      id: this.next++,
      part: of,
      raw: { ...raw, [way]: far },
      round,
    });
    const isOwn = part.kind === "cut" && part.way === way && (!part.blank || !(raw.rip || raw.cross));
    if (!isOwn) {
      // A panel, a blank or a part that is cut the other way only loses its raw edge, when that is needed.
      if (!raw[way] || part.kind === "offcut" || (part.kind === "cut" && !part.blank)) return null;
      return { off: [{ made: made(part, false), setting: setting(part.region) }], rest: null };
    }
    // A blank is separated in a round of its own: it must have come off whole before.
    if (part.blank && one.round === round) return null;
    const solid = part.parts.filter(({ kind }) => kind !== "dust");
    const waste = solid.filter(({ kind }) => kind === "offcut");
    const isLoose = raw[way] || solid.length < part.parts.length;
    const keeps = leftOf(part, { waste, isLoose, hasDust: solid.length < part.parts.length, size });
    const off = solid
      .filter((strip) => strip !== keeps)
      .sort((a, b) => b.region[size] - a.region[size])
      .map((strip) => ({ made: made(strip, false), setting: setting(strip.region) }));
    return { off, rest: keeps ? made(keeps, raw[way]) : null };
  }

  private what({ part, raw }: Pending): { readonly panel: number | null; readonly offcut: number | null } {
    const panel =
      part.kind === "panel" && !raw.rip && !raw.cross
        ? at(this.sheet.placements, part.placement).panel
        : null;
    return { panel, offcut: this.offcuts.get(part) ?? null };
  }
}

const NO_PART = {
  stage: 0,
  of: 0,
  part: 0,
  panel: null,
  offcut: null,
  within: [],
  separates: false,
} as const;

/**
 * The strip that needs no cut of its own because it is left when all others are off: the largest offcut, or the smallest
 * panel where nothing loose lies beyond it. Dust stays with what is left, so then every strip gets its own cut.
 */
function leftOf(
  node: CutNode,
  one: {
    readonly waste: readonly CutPart[];
    readonly isLoose: boolean;
    readonly hasDust: boolean;
    readonly size: "length" | "width";
  },
): CutPart | null {
  if (one.hasDust) return null;
  const by = (a: CutPart, b: CutPart) => b.region[one.size] - a.region[one.size];
  if (one.waste.length > 0) return [...one.waste].sort(by)[0] ?? null;
  return one.isLoose ? null : ([...node.parts].sort(by).at(-1) ?? null);
}

/** Nothing more is cut off it. */
const isDone = ({ part, raw }: Pending) =>
  part.kind === "offcut" || (part.kind === "panel" && !raw.rip && !raw.cross);

function placementsOf(part: CutPart): readonly number[] {
  if (part.kind === "panel") return [part.placement];
  return part.kind === "cut" ? part.parts.flatMap(placementsOf) : [];
}

function settingsOf(cuts: readonly SheetCut[]): number {
  let count = 0;
  let before: SheetCut | undefined;
  for (const cut of cuts) {
    if (cut.kind === "trim" || before?.kind !== cut.kind || before.setting !== cut.setting) count++;
    before = cut;
  }
  return count;
}
