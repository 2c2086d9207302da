/**
 * Sheets changed by hand: a panel (or a whole keep-together run) is moved, turned, locked, set aside and brought back. Every
 * change gives a layout that can be cut, or the reason why it would not be one; nothing is half done.
 */
import { at, err, fromNm, ok, type Result, toNm } from "../../kernel";
import { ASIDE, judged, oneLess, oneMore } from "../stock";
import { singlesOf, wholeBlank } from "./instance";
import type { CutSheet, Placement, SheetLayout, SheetProblem } from "./problem";
import { groupPlacements, utilisationOf, withOffcuts } from "./result";
import { type SheetFault, sheetFault } from "./verify";

export type Refusal = {
  /** `against`: it could lie there if the grain is let be. */
  readonly kind: "against" | "off" | "taken" | "uncuttable" | "stages" | "gone";
  readonly message: string;
};
const refuse = (kind: Refusal["kind"], message: string) => err<Refusal>({ kind, message });

/** Which panel of a layout: its sheet and its place in the list of that sheet. */
export type PlacedAt = { readonly sheet: number; readonly index: number };

/** Where something is to lie. `stock` is needed for a sheet that is not in the layout yet. */
export type Spot = {
  readonly sheet: number;
  readonly stock?: number;
  readonly x: number;
  readonly y: number;
  readonly rotated: boolean;
  readonly against?: boolean;
};

/** The panels that move as one: a keep-together run, or the panel alone. */
export function movedTogether(sheet: CutSheet, index: number): readonly number[] {
  const own = sheet.placements[index]?.together;
  if (!own) return [index];
  return sheet.placements.flatMap((one, i) =>
    one.together?.group === own.group && one.together.run === own.run ? [i] : [],
  );
}

export type Box = { readonly x: number; readonly y: number; readonly length: number; readonly width: number };

export function boxOf(placements: readonly Box[]): Box {
  const x = Math.min(...placements.map((one) => one.x));
  const y = Math.min(...placements.map((one) => one.y));
  const length = Math.max(...placements.map((one) => toNm(one.x) + toNm(one.length))) - toNm(x);
  const width = Math.max(...placements.map((one) => toNm(one.y) + toNm(one.width))) - toNm(y);
  return { x, y, length: fromNm(length), width: fromNm(width) };
}

/** Panels at another place, turned when the spot says so; they keep their order. */
function placedAt(problem: SheetProblem, moved: readonly Placement[], spot: Spot): readonly Placement[] {
  const box = boxOf(moved);
  const turns = (moved[0]?.rotated ?? false) !== spot.rotated;
  return moved.map((one): Placement => {
    const [dx, dy] = [toNm(one.x) - toNm(box.x), toNm(one.y) - toNm(box.y)];
    const size = at(problem.panels, one.panel);
    const [length, width] = spot.rotated ? [size.width, size.length] : [size.length, size.width];
    const { against: _, ...rest } = one;
    return {
      ...rest,
      length,
      width,
      rotated: spot.rotated,
      x: fromNm(toNm(spot.x) + (turns ? dy : dx)),
      y: fromNm(toNm(spot.y) + (turns ? dx : dy)),
      ...(spot.against ? { against: true, locked: true } : {}),
    };
  });
}

const withoutPanels = (layout: SheetLayout, from: number, indices: readonly number[]): readonly CutSheet[] =>
  layout.sheets.map((sheet, i) =>
    i === from ? { ...sheet, placements: sheet.placements.filter((_, k) => !indices.includes(k)) } : sheet,
  );

/** Moves a panel, with those that are kept together with it. */
export function movePanel(
  problem: SheetProblem,
  layout: SheetLayout,
  from: PlacedAt,
  spot: Spot,
): Result<SheetLayout, Refusal> {
  const source = layout.sheets[from.sheet];
  if (!source?.placements[from.index]) return refuse("gone", "This piece is no longer in the layout.");
  const places = movedTogether(source, from.index);
  const moved = places.map((i) => at(source.placements, i));
  return putDown(problem, layout, {
    sheets: withoutPanels(layout, from.sheet, places),
    panels: placedAt(problem, moved, spot),
    spot,
    // On its own sheet a panel keeps its place in the list, so that whoever holds it still holds it.
    places: spot.sheet === from.sheet ? places : null,
  });
}

/** Brings a panel back that was set aside or never placed; what is kept together comes back as one blank. */
export function bringBack(
  problem: SheetProblem,
  layout: SheetLayout,
  panel: number,
  spot: Spot,
): Result<SheetLayout, Refusal> {
  const waiting = layout.unplaced.find((one) => one.panel === panel);
  if (!waiting || !problem.panels[panel]) return refuse("gone", "This piece is already placed.");
  const bare = waitingBlank(problem, layout, panel);
  let { unplaced } = layout;
  for (const one of bare) {
    const own = unplaced.find((other) => other.panel === one.panel);
    if (!own) return refuse("gone", "The panels that are kept together are not all waiting.");
    unplaced = oneLess(unplaced, own);
  }
  return putDown(
    problem,
    { ...layout, unplaced },
    { sheets: layout.sheets, panels: placedAt(problem, bare, spot), spot, places: null },
  );
}

/** A waiting panel at the corner of nowhere, or the whole run that it is kept together with. */
export function waitingBlank(
  problem: SheetProblem,
  layout: SheetLayout,
  panel: number,
): readonly Placement[] {
  const size = at(problem.panels, panel);
  const alone: Placement = { panel, x: 0, y: 0, length: size.length, width: size.width, rotated: false };
  const laid = layout.sheets.flatMap((sheet) => sheet.placements);
  const waits = (one: number) =>
    layout.unplaced.reduce((sum, other) => sum + (other.panel === one ? other.qty : 0), 0);
  const group = problem.together.findIndex(
    ({ panels }, g) =>
      panels.includes(panel) &&
      wholeBlank(problem, at(problem.together, g)) !== null &&
      panels.every((one) => waits(one) >= panels.filter((other) => other === one).length),
  );
  const single = laid.filter((one) => one.panel === panel && !one.together).length;
  if (group < 0 || single < singlesOf(problem, panel)) return [alone];
  return groupPlacements(problem, { group, run: 0, x: 0, y: 0, rotated: false });
}

type Move = {
  readonly sheets: readonly CutSheet[];
  readonly panels: readonly Placement[];
  readonly spot: Spot;
  /** Where in the list of their sheet the panels stand; null: at its end. */
  readonly places: readonly number[] | null;
};

function putDown(
  problem: SheetProblem,
  layout: SheetLayout,
  { sheets, panels, spot, places }: Move,
): Result<SheetLayout, Refusal> {
  const known = sheets[spot.sheet];
  const target = known ?? freshSheet(problem, layout, spot.stock);
  if (!target) return refuse("gone", "There is no more sheet of that size in stock.");
  const fault = spotFault(problem, target, panels);
  if (fault) return err(fault);
  const runs = new Set(target.placements.map((one) => one.together?.run ?? -1));
  const placements = [...target.placements];
  panels.forEach((one, i) => {
    // A run keeps a number of its own on the sheet that it comes to.
    if (places === null) placements.push(renumbered(one, runs));
    else placements.splice(at(places, i), 0, one);
  });
  const filled = { ...target, placements };
  const whole = known ? sheets.map((sheet, i) => (i === spot.sheet ? filled : sheet)) : [...sheets, filled];
  return ok(recounted(problem, layout, whole));
}

function renumbered(one: Placement, taken: ReadonlySet<number>): Placement {
  if (!one.together || !taken.has(one.together.run)) return one;
  return { ...one, together: { ...one.together, run: Math.max(...taken) + 1 } };
}

export function freshSheet(
  problem: SheetProblem,
  layout: SheetLayout,
  stock: number | undefined,
): CutSheet | null {
  if (stock === undefined) return null;
  const size = problem.stock[stock];
  const used = layout.sheets.filter((sheet) => sheet.stock === stock).length;
  return size && (size.count === null || used < size.count) ? { stock, placements: [], offcuts: [] } : null;
}

const SPOT_WORDS: Readonly<Record<Exclude<SheetFault["kind"], "stages">, string>> = {
  unknown: "This piece is no longer in the layout.",
  off: "It would lie off the sheet or in its trim.",
  against: "Its grain would run across that of the sheet.",
  taken: "There is no room: it would come nearer than the kerf to a neighbour.",
  uncuttable: "At this position no full-width cuts can separate it.",
};

/** Why panels cannot be put down on a sheet, in the words of somebody who does so. */
function spotFault(problem: SheetProblem, sheet: CutSheet, panels: readonly Placement[]): Refusal | null {
  const fault = sheetFault(problem, { ...sheet, placements: [...sheet.placements, ...panels] });
  if (fault === null) return null;
  const { kind, words } = fault;
  if (kind === "stages") return { kind, message: `There ${words}.` };
  return { kind: kind === "unknown" ? "gone" : kind, message: SPOT_WORDS[kind] };
}

/** Whether a panel comes nearer than the kerf to any other. */
export function isNear(problem: SheetProblem, one: Box, others: readonly Box[]): boolean {
  const kerf = toNm(problem.kerf);
  const [x, y, x1, y1] = [
    toNm(one.x),
    toNm(one.y),
    toNm(one.x) + toNm(one.length),
    toNm(one.y) + toNm(one.width),
  ];
  return others.some(
    (other) =>
      x < toNm(other.x) + toNm(other.length) + kerf &&
      toNm(other.x) < x1 + kerf &&
      y < toNm(other.y) + toNm(other.width) + kerf &&
      toNm(other.y) < y1 + kerf,
  );
}

/** Sums made anew; sheets without a panel go back to stock. */
function recounted(problem: SheetProblem, layout: SheetLayout, all: readonly CutSheet[]): SheetLayout {
  const sheets = all
    .filter((sheet) => sheet.placements.length > 0)
    .map((sheet) => (layout.sheets.includes(sheet) ? sheet : withOffcuts(problem, sheet)));
  return {
    ...layout,
    ...judged(
      layout,
      sheets.map((sheet) => at(problem.stock, sheet.stock)),
    ),
    sheets,
    utilisation: utilisationOf(problem, sheets),
  };
}

/** Sets a panel aside, with those that are kept together with it: they wait until they are brought back or filled in. */
export function setAside(
  problem: SheetProblem,
  layout: SheetLayout,
  from: PlacedAt,
): Result<SheetLayout, Refusal> {
  const source = layout.sheets[from.sheet];
  if (!source?.placements[from.index]) return refuse("gone", "This piece is no longer in the layout.");
  const indices = movedTogether(source, from.index);
  const sheets = withoutPanels(layout, from.sheet, indices);
  let { unplaced } = layout;
  for (const i of indices) {
    const { panel } = at(source.placements, i);
    unplaced = oneMore(unplaced, { panel, qty: 1, why: ASIDE }, (one) => one.panel === panel);
  }
  return ok(recounted(problem, { ...layout, unplaced }, sheets));
}

/** Locks a panel to its place, or lets it go; a panel that is let go lies with its grain again when it is filled in. */
export function setLock(layout: SheetLayout, from: PlacedAt, locked: boolean): SheetLayout {
  const source = layout.sheets[from.sheet];
  if (!source) return layout;
  const indices = new Set(movedTogether(source, from.index));
  return {
    ...layout,
    sheets: layout.sheets.map((sheet, i) =>
      i !== from.sheet
        ? sheet
        : {
            ...sheet,
            placements: sheet.placements.map((one, k): Placement => {
              if (!indices.has(k)) return one;
              const { locked: _, ...open } = one;
              return locked ? { ...open, locked: true } : open;
            }),
          },
    ),
  };
}
