/**
 * Sheets changed by hand: a panel (or a whole keep-together run) is moved, turned, locked, set aside and brought back. Every
 * change gives a layout that can be cut, or the reason why it would not be one; nothing is half done.
 */
import { at, err, fromNm, ok, type Result, toNm } from "../../kernel";
import { type CutRect, inflated, slices } from "./cuts";
import type { CutSheet, Offcut, Placement, SheetLayout, SheetProblem } from "./problem";
import { utilisationOf } from "./result";
import { sheetFault } from "./verify";

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

type Box = { readonly x: number; readonly y: number; readonly length: number; readonly width: number };

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

/** Moves a panel, with those that are kept together with it. */
export function movePanel(
  problem: SheetProblem,
  layout: SheetLayout,
  from: PlacedAt,
  spot: Spot,
): Result<SheetLayout, Refusal> {
  const source = layout.sheets[from.sheet];
  if (!source?.placements[from.index]) return refuse("gone", "That panel is not there any more.");
  const indices = new Set(movedTogether(source, from.index));
  const moved = source.placements.filter((_, i) => indices.has(i));
  const without = layout.sheets.map((sheet, i) =>
    i === from.sheet ? { ...sheet, placements: sheet.placements.filter((_, k) => !indices.has(k)) } : sheet,
  );
  const places = [...indices];
  return putDown(problem, layout, {
    sheets: without,
    panels: placedAt(problem, moved, spot),
    spot,
    // On its own sheet a panel keeps its place in the list, so that whoever holds it still holds it.
    places: spot.sheet === from.sheet ? places : null,
  });
}

/** Brings a panel back that was set aside or never placed. */
export function bringBack(
  problem: SheetProblem,
  layout: SheetLayout,
  panel: number,
  spot: Spot,
): Result<SheetLayout, Refusal> {
  const waiting = layout.unplaced.find((one) => one.panel === panel);
  const size = problem.panels[panel];
  if (!waiting || !size) return refuse("gone", "That panel is not waiting any more.");
  const bare: Placement = { panel, x: 0, y: 0, length: size.length, width: size.width, rotated: false };
  const unplaced = layout.unplaced.flatMap((one) =>
    one !== waiting ? [one] : one.qty > 1 ? [{ ...one, qty: one.qty - 1 }] : [],
  );
  return putDown(
    problem,
    { ...layout, unplaced },
    { sheets: layout.sheets, panels: placedAt(problem, [bare], spot), spot, places: null },
  );
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

function freshSheet(problem: SheetProblem, layout: SheetLayout, stock: number | undefined): CutSheet | null {
  if (stock === undefined) return null;
  const size = problem.stock[stock];
  const used = layout.sheets.filter((sheet) => sheet.stock === stock).length;
  return size && (size.count === null || used < size.count) ? { stock, placements: [], offcuts: [] } : null;
}

/** Why panels cannot be put down on a sheet, in the words of somebody who does so. */
function spotFault(problem: SheetProblem, sheet: CutSheet, panels: readonly Placement[]): Refusal | null {
  const stock = at(problem.stock, sheet.stock);
  const trim = toNm(problem.trim);
  const off = panels.some(
    (one) =>
      toNm(one.x) < trim ||
      toNm(one.y) < trim ||
      toNm(one.x) + toNm(one.length) > toNm(stock.length) - trim ||
      toNm(one.y) + toNm(one.width) > toNm(stock.width) - trim,
  );
  if (off) return { kind: "off", message: "It would lie off the sheet or in its trim." };
  const against = panels.some(
    (one) =>
      !one.against &&
      problem.panels[one.panel]?.grain &&
      ((stock.grain === "length" && one.rotated) || (stock.grain === "width" && !one.rotated)),
  );
  if (against) return { kind: "against", message: "Its grain would run across that of the sheet." };
  if (panels.some((one) => isNear(problem, one, sheet.placements)))
    return { kind: "taken", message: "There is no room: it would come nearer than the kerf to a neighbour." };
  const fault = sheetFault(problem, { ...sheet, placements: [...sheet.placements, ...panels] });
  if (fault === null) return null;
  return fault.includes("stages")
    ? { kind: "stages", message: `There ${fault}.` }
    : { kind: "uncuttable", message: "There it could not be parted by cuts that run right across." };
}

/** Whether a panel comes nearer than the kerf to any other. */
function isNear(problem: SheetProblem, one: Box, others: readonly Box[]): boolean {
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

/** Sums made anew; sheets without a panel go back to stock. The bound holds for every layout, so it stays. */
function recounted(problem: SheetProblem, layout: SheetLayout, all: readonly CutSheet[]): SheetLayout {
  const sheets = all
    .filter((sheet) => sheet.placements.length > 0)
    .map((sheet) => ({ ...sheet, offcuts: restsOf(problem, sheet) }));
  const prices = sheets.map((sheet) => at(problem.stock, sheet.stock).price);
  const cost = prices.some((price) => price === null)
    ? null
    : Math.round(prices.reduce<number>((sum, price) => sum + (price ?? 0), 0) * 1e4) / 1e4;
  const value = layout.lowerBoundOf === "cost" ? cost : sheets.length;
  return {
    ...layout,
    sheets,
    count: sheets.length,
    cost,
    utilisation: utilisationOf(problem, sheets),
    proven: layout.unplaced.length === 0 && value !== null && value <= layout.lowerBound + 1e-9,
    // With panels set aside there may be fewer sheets than the bound for all of them.
    lowerBound: value !== null && value < layout.lowerBound ? value : layout.lowerBound,
  };
}

/** What is left of a sheet when its panels are parted by cuts that run right across, in the way that leaves the largest. */
export function restsOf(problem: SheetProblem, sheet: CutSheet): readonly Offcut[] {
  const [region, rects] = inflated(problem, at(problem.stock, sheet.stock), sheet.placements);
  const [kerf, trim] = [toNm(problem.kerf), toNm(problem.trim)];
  const ways = [true, false].map((rip) => wasteOf(region, rects, rip, 0));
  const largest = (rests: readonly CutRect[]) =>
    Math.max(0, ...rests.map((rest) => rest.length * rest.width));
  const best = ways.reduce((a, b) => (largest(b) > largest(a) ? b : a));
  return best
    .map((rest) => ({
      x: fromNm(rest.x + trim),
      y: fromNm(rest.y + trim),
      length: fromNm(rest.length - kerf),
      width: fromNm(rest.width - kerf),
    }))
    .filter((rest) => rest.length > 0 && rest.width > 0);
}

function wasteOf(region: CutRect, rects: readonly CutRect[], rip: boolean, idle: number): readonly CutRect[] {
  if (rects.length === 0) return [region];
  const [only] = rects;
  const whole = only && only.length === region.length && only.width === region.width;
  if ((rects.length === 1 && whole) || idle > 1) return [];
  const parts = rip ? slices(region, rects, "y", "width") : slices(region, rects, "x", "length");
  return parts.flatMap((part) => wasteOf(part.region, part.rects, !rip, parts.length === 1 ? idle + 1 : 0));
}

/** Sets a panel aside, with those that are kept together with it: they wait until they are brought back or filled in. */
export function setAside(
  problem: SheetProblem,
  layout: SheetLayout,
  from: PlacedAt,
): Result<SheetLayout, Refusal> {
  const source = layout.sheets[from.sheet];
  if (!source?.placements[from.index]) return refuse("gone", "That panel is not there any more.");
  const indices = new Set(movedTogether(source, from.index));
  const sheets = layout.sheets.map((sheet, i) =>
    i === from.sheet ? { ...sheet, placements: sheet.placements.filter((_, k) => !indices.has(k)) } : sheet,
  );
  let { unplaced } = layout;
  for (const i of indices) {
    const { panel } = at(source.placements, i);
    const known = unplaced.find((one) => one.panel === panel && one.why === ASIDE);
    unplaced = known
      ? unplaced.map((one) => (one === known ? { ...one, qty: one.qty + 1 } : one))
      : [...unplaced, { panel, qty: 1, why: ASIDE }];
  }
  return ok(recounted(problem, { ...layout, unplaced }, sheets));
}
const ASIDE = "set aside by hand";

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

/** Lines that an edge of a box can lie on: trims, and a kerf from a neighbour or level with it. */
function snapLines(
  problem: SheetProblem,
  sheet: CutSheet,
  others: readonly Box[],
  { axis, size }: { readonly axis: "x" | "y"; readonly size: number },
): readonly number[] {
  const extent = axis === "x" ? "length" : "width";
  const stock = at(problem.stock, sheet.stock)[extent];
  const [own, kerf] = [toNm(size), toNm(problem.kerf)];
  const places = new Set<number>([toNm(problem.trim), toNm(stock) - toNm(problem.trim) - own]);
  for (const other of others) {
    const [low, high] = [toNm(other[axis]), toNm(other[axis]) + toNm(other[extent])];
    for (const place of [high + kerf, low - kerf - own, low, high - own]) places.add(place);
  }
  const [least, most] = [toNm(problem.trim), toNm(stock) - toNm(problem.trim) - own];
  return [...places].filter((place) => place >= least && place <= most).map(fromNm);
}

const nearest = (lines: readonly number[], wanted: number, reach: number): number | null => {
  const best = lines.reduce<number | null>(
    (found, line) => (found === null || Math.abs(line - wanted) < Math.abs(found - wanted) ? line : found),
    null,
  );
  return best !== null && Math.abs(best - wanted) <= reach ? best : null;
};

/** Where a box let go at `wanted` comes to lie: at the nearest lines within `reach`, else on the tenth of a millimetre. */
export function snapped(
  problem: SheetProblem,
  sheet: CutSheet,
  wanted: Box,
  { except, reach }: { readonly except: readonly number[]; readonly reach: number },
): { readonly x: number; readonly y: number } {
  const others = sheet.placements.filter((_, i) => !except.includes(i));
  const tenth = (value: number) => Math.round(value * 10) / 10;
  const along = snapLines(problem, sheet, others, { axis: "x", size: wanted.length });
  const across = snapLines(problem, sheet, others, { axis: "y", size: wanted.width });
  return {
    x: nearest(along, wanted.x, reach) ?? tenth(wanted.x),
    y: nearest(across, wanted.y, reach) ?? tenth(wanted.y),
  };
}

export type Direction = "left" | "right" | "up" | "down";

/** The next place in a direction on its own sheet where a panel can lie; null when there is none. */
export function nextSpot(
  problem: SheetProblem,
  layout: SheetLayout,
  from: PlacedAt,
  direction: Direction,
): SheetLayout | null {
  const sheet = layout.sheets[from.sheet];
  const own = sheet?.placements[from.index];
  if (!sheet || !own) return null;
  const indices = movedTogether(sheet, from.index);
  const box = boxOf(indices.map((i) => at(sheet.placements, i)));
  const others = sheet.placements.filter((_, i) => !indices.includes(i));
  const axis = direction === "left" || direction === "right" ? "x" : "y";
  const sign = direction === "right" || direction === "up" ? 1 : -1;
  const lines = snapLines(problem, sheet, others, { axis, size: axis === "x" ? box.length : box.width })
    .filter((line) => sign * (toNm(line) - toNm(box[axis])) > 0)
    .sort((a, b) => sign * (a - b));
  for (const line of lines) {
    const spot: Spot = {
      sheet: from.sheet,
      x: box.x,
      y: box.y,
      [axis]: line,
      rotated: own.rotated,
      ...(own.against ? { against: true } : {}),
    };
    const moved = movePanel(problem, layout, from, spot);
    if (moved.ok) return moved.value;
  }
  return null;
}

/** The first place on a sheet, from its low corner on, where a panel can lie; null when there is none. */
export function firstSpot(
  problem: SheetProblem,
  layout: SheetLayout,
  panel: PlacedAt | { readonly waiting: number },
  {
    sheet: index,
    stock,
    rotated,
  }: { readonly sheet: number; readonly stock?: number; readonly rotated: boolean },
): SheetLayout | null {
  const sheet = layout.sheets[index] ?? freshSheet(problem, layout, stock);
  if (!sheet) return null;
  const source = "waiting" in panel ? null : layout.sheets[panel.sheet];
  const moved =
    "waiting" in panel || !source
      ? []
      : movedTogether(source, panel.index).map((i) => at(source.placements, i));
  const size = "waiting" in panel ? at(problem.panels, panel.waiting) : boxOf(moved);
  const turns = "waiting" in panel ? rotated : (moved[0]?.rotated ?? false) !== rotated;
  const [length, width] = turns ? [size.width, size.length] : [size.length, size.width];
  const own =
    "waiting" in panel || panel.sheet !== index || !source ? [] : movedTogether(source, panel.index);
  const others = sheet.placements.filter((_, i) => !own.includes(i));
  const ys = snapLines(problem, sheet, others, { axis: "y", size: width });
  const xs = snapLines(problem, sheet, others, { axis: "x", size: length });
  for (const y of [...ys].sort((a, b) => a - b)) {
    for (const x of [...xs].sort((a, b) => a - b)) {
      if (isNear(problem, { x, y, length, width }, others)) continue;
      const spot: Spot = { sheet: index, ...(stock === undefined ? {} : { stock }), x, y, rotated };
      const put =
        "waiting" in panel
          ? bringBack(problem, layout, panel.waiting, spot)
          : movePanel(problem, layout, panel, spot);
      if (put.ok) return put.value;
    }
  }
  return null;
}
