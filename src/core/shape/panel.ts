/** Panels as solids: their place, their finished size and their work, from formulas to millimetres. */
import {
  edgeDistance,
  type Frame,
  frameOfFace,
  isInside,
  type Polygon,
  polygonDistance,
  type Vec3,
} from "../geometry";
import {
  type CutOut,
  type Groove,
  type Hole,
  lengthWith,
  type Notch,
  numberWith,
  type Panel,
  type PanelEdge,
  type Sizes,
  type Work,
} from "../job";
import { err, ok, type Result, unreachable } from "../kernel";
import { toRadians } from "../measure";
import type { BoardEntry } from "../stockroom";
import { type ShapeFault, type TextField, textFault } from "./fault";
import { ownOrDefault, type Readers } from "./member";
import {
  holdsHole,
  liesWithin,
  type OutlineSolid,
  outlinePolygon,
  outlineRemarks,
  outlineSolid,
} from "./panel-outline";
import { threeNumbers, wholeCount } from "./places";
import { tilted } from "./tilt";

/** A groove with its sizes computed, in the panel's own axes. */
export type GrooveSolid = {
  readonly id: string;
  readonly face: "good" | "other";
  readonly from: PanelEdge;
  readonly distance: number;
  readonly width: number;
  readonly depth: number;
  readonly stopAtStart: number;
  readonly stopAtEnd: number;
};

/** One hole, its middle in the panel's own axes; `depth` null: right through. */
export type HoleSolid = {
  readonly id: string;
  readonly face: "good" | "other";
  readonly x: number;
  readonly y: number;
  readonly diameter: number;
  readonly depth: number | null;
};

/** A notch right through, in the panel's own axes. */
export type NotchSolid = {
  readonly id: string;
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
};

/** An opening right through, anticlockwise in the panel's own axes. */
export type CutOutSolid = OutlineSolid & {
  readonly id: string;
  /** The ids of its corners, in the order of its solid. */
  readonly cornerIds: readonly string[];
};

export type PanelSolid = {
  readonly panel: Panel;
  readonly board: BoardEntry | null;
  readonly material: string | null;
  readonly frame: Frame;
  readonly length: number;
  readonly width: number;
  /** null: no board was chosen. */
  readonly thickness: number | null;
  /** null: a rectangle. */
  readonly outline: OutlineSolid | null;
  readonly grooves: readonly GrooveSolid[];
  readonly holes: readonly HoleSolid[];
  readonly notches: readonly NotchSolid[];
  readonly cutOuts: readonly CutOutSolid[];
  readonly remarks: readonly string[];
};

/** Where a panel stands and how large it is. */
export type PanelSeat = { readonly frame: Frame; readonly length: number; readonly width: number };

/** The board that holds for a panel: its own or the usual one; null where nobody chose. */
function boardOf(panel: Panel, { stockroom, usual }: Readers): BoardEntry | null {
  const id = ownOrDefault(panel.board, () => usual(panel.assembly, "board"));
  return id === null ? null : (stockroom.boardById.get(id) ?? null);
}

/** The seat of a panel that is placed by a corner and two axes; the error says which field cannot be computed. */
export function cornerSeat(panel: Panel, sizes: Sizes): Result<PanelSeat, ShapeFault> {
  const origin = threeNumbers(panel.origin, (text) => lengthWith(sizes, text), "corner");
  if (!origin.ok) return origin;
  const lengthAxis = threeNumbers(panel.lengthAxis, (text) => numberWith(sizes, text), "lengthAxis");
  if (!lengthAxis.ok) return lengthAxis;
  const faceAxis = threeNumbers(panel.faceAxis, (text) => numberWith(sizes, text), "faceAxis");
  if (!faceAxis.ok) return faceAxis;
  const frame = frameOfFace(origin.value, lengthAxis.value, faceAxis.value);
  if (!frame) return err({ kind: "noAxes" });
  const length = lengthWith(sizes, panel.length);
  if (!length.ok) return err(textFault("length", length.problem));
  const width = lengthWith(sizes, panel.width);
  if (!width.ok) return err(textFault("width", width.problem));
  const seat = { frame, length: length.value, width: width.value };
  if (panel.tilt === null) return ok(seat);
  const angle = numberWith(sizes, panel.tilt.angle);
  if (!angle.ok) return err(textFault("tilt", angle.problem));
  return ok({ ...seat, frame: tilted(seat, panel.tilt.edge, toRadians(angle.value)) });
}

/** A seated panel with its board and its work. */
export function finishPanel(panel: Panel, seat: PanelSeat, readers: Readers): Result<PanelSolid, ShapeFault> {
  if (seat.length <= 0 || seat.width <= 0) return err({ kind: "noSize" });
  const board = boardOf(panel, readers);
  const outline = panel.outline === null ? null : outlineSolid(panel.outline, seat, readers.sizes);
  if (outline && !outline.ok) return outline;
  const grooves: GrooveSolid[] = [];
  const holes: HoleSolid[] = [];
  const notches: NotchSolid[] = [];
  const cutOuts: CutOutSolid[] = [];
  const take = (work: Work) => {
    switch (work.kind) {
      case "groove":
        return gathered(resolveGroove(work, readers.sizes), grooves);
      case "hole":
        return gathered(resolveHoles(work, readers.sizes), holes);
      case "notch":
        return gathered(resolveNotch(work, seat, readers.sizes), notches);
      case "cutOut":
        return gathered(resolveCutOut(work, seat, readers.sizes), cutOuts);
      default:
        return unreachable(work);
    }
  };
  for (const work of panel.work) {
    const done = take(work);
    if (!done.ok) return done;
  }
  const solid = {
    ...seat,
    panel,
    board,
    material:
      ownOrDefault(panel.material, () => readers.usual(panel.assembly, "panelMaterial")) ??
      board?.material ??
      null,
    thickness: board?.thickness ?? null,
    outline: outline === null ? null : outline.value,
    grooves,
    holes,
    notches,
    cutOuts,
  };
  return ok({
    ...solid,
    remarks: [
      ...(solid.outline ? outlineRemarks(solid.outline, solid, readers.sizes.style) : []),
      ...(solid.outline && Object.values(panel.edging).some((edge) => edge !== null)
        ? ["edging is computed for straight edges; add a note for the shop"]
        : []),
      ...grooves.flatMap((groove) => grooveRemarks(groove, solid)),
      ...holeRemarks(holes, solid),
      ...notches.flatMap((notch) => notchRemarks(notch, solid)),
      ...cutOutRemarks(solid),
    ],
  });
}

function gathered<T>(found: Result<readonly T[], ShapeFault>, into: T[]): Result<null, ShapeFault> {
  if (!found.ok) return found;
  into.push(...found.value);
  return ok(null);
}

/** Lengths of several fields by name; the error names the work that they belong to. */
function lengthsOf<F extends string>(
  work: Readonly<Record<F, string>>,
  fields: readonly F[],
  what: TextField,
  sizes: Sizes,
): Result<Readonly<Record<F, number>>, ShapeFault> {
  const values: Partial<Record<F, number>> = {};
  for (const field of fields) {
    const value = lengthWith(sizes, work[field]);
    if (!value.ok) return err(textFault(what, value.problem));
    values[field] = value.value;
  }
  return ok(values as Record<F, number>);
}

function resolveGroove(work: Groove, sizes: Sizes): Result<readonly GrooveSolid[], ShapeFault> {
  const fields = ["distance", "width", "depth", "stopAtStart", "stopAtEnd"] as const;
  const values = lengthsOf(work, fields, "groove", sizes);
  return values.ok ? ok([{ id: work.id, face: work.face, from: work.from, ...values.value }]) : values;
}

const MOST_HOLES = 2_000;

function resolveHoles(work: Hole, sizes: Sizes): Result<readonly HoleSolid[], ShapeFault> {
  const values = lengthsOf(work, ["x", "y", "diameter", "step"], "hole", sizes);
  if (!values.ok) return values;
  const depth = work.depth === null ? null : lengthWith(sizes, work.depth);
  if (depth && !depth.ok) return err(textFault("hole", depth.problem));
  const count = wholeCount(sizes, work.count, MOST_HOLES, "holeCount");
  if (!count.ok) return count;
  const { x, y, diameter, step } = values.value;
  return ok(
    Array.from({ length: count.value }, (_, i) => ({
      id: work.id,
      face: work.face,
      x: x + (work.along === "length" ? i * step : 0),
      y: y + (work.along === "width" ? i * step : 0),
      diameter,
      depth: depth ? depth.value : null,
    })),
  );
}

function resolveNotch(
  work: Notch,
  { length, width }: PanelSeat,
  sizes: Sizes,
): Result<readonly NotchSolid[], ShapeFault> {
  const values = lengthsOf(work, ["distance", "width", "depth"], "notch", sizes);
  if (!values.ok) return values;
  const { distance, width: along, depth } = values.value;
  const [from, to] = [distance, distance + along];
  const lengthwise = work.from === "front" || work.from === "back";
  const across = lengthwise ? width : length;
  const [near, far] = work.from === "front" || work.from === "left" ? [0, depth] : [across - depth, across];
  return ok([
    lengthwise
      ? { id: work.id, x0: from, x1: to, y0: near, y1: far }
      : { id: work.id, x0: near, x1: far, y0: from, y1: to },
  ]);
}

function resolveCutOut(
  work: CutOut,
  seat: PanelSeat,
  sizes: Sizes,
): Result<readonly CutOutSolid[], ShapeFault> {
  const found = outlineSolid(work.corners, seat, sizes, "cutOut");
  if (!found.ok) return found;
  const ids = work.corners.map(({ id }) => id as string);
  return ok([{ ...found.value, id: work.id, cornerIds: found.value.reversed ? ids.toReversed() : ids }]);
}

type Extent = {
  readonly length: number;
  readonly width: number;
  readonly thickness: number | null;
  readonly outline: OutlineSolid | null;
};

/** The outline of a panel as a polygon, that of a rectangle as well. */
export const panelPolygon = ({ outline, length, width }: Extent): Polygon =>
  outline
    ? outlinePolygon(outline)
    : [
        [0, 0],
        [length, 0],
        [length, width],
        [0, width],
      ];

function cutOutRemarks(panel: Extent & Pick<PanelSolid, "cutOuts" | "holes">): readonly string[] {
  const { cutOuts, holes } = panel;
  if (cutOuts.length === 0) return [];
  const remarks = new Set<string>();
  const whole = panelPolygon(panel);
  const openings = cutOuts.map((one) => outlinePolygon(one));
  openings.forEach((opening, i) => {
    if (!liesWithin(opening, whole))
      remarks.add("a cut-out lies on or beyond the panel's edge; make it part of the outline");
    if (openings.slice(i + 1).some((other) => polygonDistance(opening, other) === 0))
      remarks.add("two cut-outs overlap");
    const meets = ({ x, y, diameter }: HoleSolid) =>
      isInside(opening, [x, y]) || edgeDistance(opening, [x, y]) < diameter / 2;
    if (holes.some(meets)) remarks.add("a hole lies in a cut-out or on its edge");
  });
  return [...remarks];
}

function holeRemarks(
  holes: readonly HoleSolid[],
  { length, width, thickness, outline }: Extent,
): readonly string[] {
  const remarks = new Set<string>();
  const polygon = outline && holes.length > 0 ? outlinePolygon(outline) : null;
  for (const hole of holes) {
    const { x, y, diameter, depth } = hole;
    const r = diameter / 2;
    const beyond = polygon
      ? !holdsHole(polygon, hole)
      : x - r < 0 || y - r < 0 || x + r > length || y + r > width;
    if (diameter <= 0 || (depth !== null && depth <= 0)) remarks.add("a hole has no diameter or no depth");
    else if (beyond) remarks.add("a hole lies on or beyond the panel's edge");
    if (depth !== null && thickness !== null && depth >= thickness)
      remarks.add("a hole is as deep as the panel is thick; let it run through");
  }
  return [...remarks];
}

function notchRemarks({ x0, x1, y0, y1 }: NotchSolid, { length, width }: Extent): readonly string[] {
  if (x1 <= x0 || y1 <= y0) return ["a notch has no size"];
  const beyond = x0 < -1e-6 || y0 < -1e-6 || x1 > length + 1e-6 || y1 > width + 1e-6;
  if (beyond) return ["a notch lies beyond the panel's edge"];
  const parts = (x0 <= 0 && x1 >= length) || (y0 <= 0 && y1 >= width);
  return parts ? ["a notch runs right across and parts the panel"] : [];
}

function grooveRemarks(groove: GrooveSolid, panel: Extent): readonly string[] {
  const remarks: string[] = [];
  const lengthwise = groove.from === "front" || groove.from === "back";
  const across = lengthwise ? panel.width : panel.length;
  const run = lengthwise ? panel.length : panel.width;
  if (groove.width <= 0 || groove.depth <= 0) remarks.push("a groove has no width or no depth");
  if (groove.distance < 0 || groove.distance + groove.width > across)
    remarks.push("a groove lies beyond the panel's edge");
  if (panel.thickness !== null && groove.depth >= panel.thickness)
    remarks.push("a groove is as deep as the panel is thick and breaks out");
  if (groove.stopAtStart + groove.stopAtEnd >= run) remarks.push("a stopped groove has no length left");
  return remarks;
}

/** A box-shaped room in a panel, in its own axes; where it is open it reaches beyond. */
export type BoxCut = { readonly from: Vec3; readonly to: Vec3 };

/** The room that a groove takes, in the panel's own axes. */
export function grooveBox(groove: GrooveSolid, size: Vec3): BoxCut {
  const [length, width, thickness] = size;
  const [low, high] = groove.face === "good" ? [thickness - groove.depth, thickness + 1] : [-1, groove.depth];
  const opened = (stop: number, run: number, far: boolean) =>
    stop > 0 ? (far ? run - stop : stop) : far ? run + 1 : -1;
  if (groove.from === "front" || groove.from === "back") {
    const near = groove.from === "front" ? groove.distance : width - groove.distance - groove.width;
    const [a, b] = rebate(near, groove.width, width);
    return {
      from: [opened(groove.stopAtStart, length, false), a, low],
      to: [opened(groove.stopAtEnd, length, true), b, high],
    };
  }
  const near = groove.from === "left" ? groove.distance : length - groove.distance - groove.width;
  const [a, b] = rebate(near, groove.width, length);
  return {
    from: [a, opened(groove.stopAtStart, width, false), low],
    to: [b, opened(groove.stopAtEnd, width, true), high],
  };
}

/** A groove that touches an edge is open there. */
function rebate(near: number, width: number, across: number): readonly [number, number] {
  return [near <= 1e-6 ? -1 : near, near + width >= across - 1e-6 ? across + 1 : near + width];
}

/** The room that a notch takes; where it touches an edge it is open there. */
export function notchBox({ x0, x1, y0, y1 }: NotchSolid, size: Vec3): BoxCut {
  const [fromX, toX] = rebate(x0, x1 - x0, size[0]);
  const [fromY, toY] = rebate(y0, y1 - y0, size[1]);
  return { from: [fromX, fromY, -1], to: [toX, toY, size[2] + 1] };
}
