/**
 * The order in which a sheet is cut: stage by stage (rips along the length, cross-cuts, and on), and in each stage one
 * fence setting after the other, so that a fence stands for all parts that need it. Parts of one run may be cut off in
 * any order, since parallel strips can change places; so the greatest setting comes first and like settings together.
 *
 * Two trims give the reference edges. The trims at the far edges are what is left of the last cut along each way.
 */
import { at, fromNm, invariant, type Nm, toNm } from "../../kernel";
import { type CutRect, inflated, slices } from "./cuts";
import type { CutSheet, SheetProblem } from "./problem";

export type CutWay = "rip" | "cross";

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
  /** The panel that the part is when it needs no further cut; null: it is cut on. */
  readonly panel: number | null;
  /** Placements that lie in the part that is cut, by their place in the sheet's list. */
  readonly within: readonly number[];
};

/** A part that has its size without a cut of its own: what is left when its neighbours are off. */
export type LeftPart = { readonly of: number; readonly part: number; readonly panel: number | null };

export type SheetCuttingOrder = {
  readonly cuts: readonly SheetCut[];
  readonly left: readonly LeftPart[];
  /** How often the fence or the stop is set, the two trims included. */
  readonly settings: number;
};

/** A part that is still to be cut, inflated by the kerf; `raw`: its far edge along that axis is still the sheet's own. */
type Pending = {
  readonly id: number;
  readonly region: CutRect;
  readonly rects: readonly Named[];
  readonly raw: { readonly rip: boolean; readonly cross: boolean };
};
type Named = CutRect & { readonly panel: number; readonly placement: number };

const AXIS = { rip: ["y", "width"], cross: ["x", "length"] } as const;

/** The cuts of one sheet of a layout that can be cut by cuts that run right across; throws for any other. */
export function sheetCuts(problem: SheetProblem, sheet: CutSheet): SheetCuttingOrder {
  const [kerf, trim] = [toNm(problem.kerf), problem.trim];
  const [region, bare] = inflated(problem, at(problem.stock, sheet.stock), sheet.placements);
  const rects = bare.map(
    (rect, i): Named => ({ ...rect, panel: at(sheet.placements, i).panel, placement: i }),
  );
  const cuts: SheetCut[] = [];
  const left: LeftPart[] = [];
  if (trim > 0)
    for (const part of [0, 0])
      cuts.push({ kind: "trim", stage: 0, setting: trim, of: 0, part, panel: null, within: [] });
  const raw = { rip: trim > 0, cross: trim > 0 };
  const whole = finished(region, rects, raw);
  if (whole !== null) left.push({ of: 0, part: 0, panel: whole });
  let pending: readonly Pending[] = whole === null ? [{ id: 0, region, rects, raw }] : [];
  const names = { next: 1 };
  let idle = 0;
  for (let stage = 1; pending.length > 0; stage++) {
    const way: CutWay = stage % 2 === 1 ? "rip" : "cross";
    const stageOf = runOf(pending, way, { kerf, stage, names });
    idle = stageOf.cuts.length + stageOf.left.length === 0 ? idle + 1 : 0;
    invariant(idle < 2, "a sheet that is laid out can be cut right across");
    cuts.push(...stageOf.cuts);
    left.push(...stageOf.left);
    pending = stageOf.pending;
  }
  return { cuts, left, settings: settingsOf(cuts) };
}

type Run = {
  readonly cuts: readonly SheetCut[];
  readonly left: readonly LeftPart[];
  readonly pending: readonly Pending[];
};

/** All parallel cuts of one stage, like settings together. */
function runOf(
  parts: readonly Pending[],
  way: CutWay,
  { kerf, stage, names }: { readonly kerf: number; readonly stage: number; readonly names: { next: number } },
): Run {
  const [from, size] = AXIS[way];
  const cuts: SheetCut[] = [];
  const left: LeftPart[] = [];
  const pending: Pending[] = [];
  for (const part of parts) {
    const all = slices(part.region, part.rects, from, size);
    const strips = all.filter((slice) => slice.rects.length > 0);
    const waste = all.length > strips.length || part.raw[way];
    if (strips.length === 1 && !waste) {
      pending.push(part);
      continue;
    }
    const sorted = [...strips].sort((a, b) => b.region[size] - a.region[size]);
    sorted.forEach((slice, i) => {
      const id = names.next++;
      const raw = { ...part.raw, [way]: false };
      const rects = slice.rects as readonly Named[];
      const panel = finished(slice.region, rects, raw);
      // The last part is what is left, unless something beyond it is to come off.
      if (i === sorted.length - 1 && !waste) left.push({ of: part.id, part: id, panel });
      else {
        const setting = fromNm((slice.region[size] - kerf) as Nm);
        const within = part.rects.map((rect) => rect.placement);
        cuts.push({ kind: way, stage, setting, of: part.id, part: id, panel, within });
      }
      if (panel === null) pending.push({ id, region: slice.region, rects, raw });
    });
  }
  cuts.sort((a, b) => b.setting - a.setting || a.of - b.of || a.part - b.part);
  return { cuts, left, pending };
}

/** The panel that a part is, when nothing is left to be cut off it. */
function finished(region: CutRect, rects: readonly Named[], raw: Pending["raw"]): number | null {
  const [only] = rects;
  if (!only || rects.length > 1 || raw.rip || raw.cross) return null;
  const same = only.length === region.length && only.width === region.width;
  return same ? only.panel : null;
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
