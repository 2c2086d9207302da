/** Panels as solids: their place, their finished size and their grooves, from formulas to millimetres. */
import {
  type BoxCut,
  blockMesh,
  type Frame,
  frameOfFace,
  type Mesh,
  placeMesh,
  type Vec3,
} from "../geometry";
import { type Groove, lengthWith, numberWith, type Panel, type PanelEdge, type Sizes } from "../job";
import { err, ok, type Problem, type Result, sentence } from "../kernel";
import type { BoardEntry, Stockroom } from "../stockroom";

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

export type PanelSolid = {
  readonly panel: Panel;
  readonly board: BoardEntry | null;
  readonly frame: Frame;
  readonly length: number;
  readonly width: number;
  /** null: no board was chosen. */
  readonly thickness: number | null;
  readonly grooves: readonly GrooveSolid[];
  readonly remarks: readonly string[];
};

const problemText = (what: string, problem: Problem) => err(`${what}: ${sentence(problem)}`);

/** Places a panel; the error says which of its fields cannot be computed. */
export function placePanel(panel: Panel, sizes: Sizes, stockroom: Stockroom): Result<PanelSolid, string> {
  const origin = threeOf(panel.origin, (text) => lengthWith(sizes, text), "its corner");
  if (!origin.ok) return origin;
  const lengthAxis = threeOf(panel.lengthAxis, (text) => numberWith(sizes, text), "its length axis");
  if (!lengthAxis.ok) return lengthAxis;
  const faceAxis = threeOf(panel.faceAxis, (text) => numberWith(sizes, text), "its face axis");
  if (!faceAxis.ok) return faceAxis;
  const frame = frameOfFace(origin.value, lengthAxis.value, faceAxis.value);
  if (!frame) return err("its length axis and face axis are parallel or empty");
  const length = lengthWith(sizes, panel.length);
  if (!length.ok) return problemText("its length", length.problem);
  const width = lengthWith(sizes, panel.width);
  if (!width.ok) return problemText("its width", width.problem);
  if (length.value <= 0 || width.value <= 0) return err("its length or width would be zero or negative");
  const board = panel.board === null ? null : (stockroom.boardById.get(panel.board) ?? null);
  const grooves: GrooveSolid[] = [];
  for (const work of panel.work) {
    const groove = resolveGroove(work, sizes);
    if (!groove.ok) return groove;
    grooves.push(groove.value);
  }
  const solid = {
    panel,
    board,
    frame,
    length: length.value,
    width: width.value,
    thickness: board?.thickness ?? null,
    grooves,
  };
  return ok({ ...solid, remarks: grooves.flatMap((groove) => grooveRemarks(groove, solid)) });
}

function threeOf(
  texts: readonly [string, string, string],
  read: (text: string) => Result<number, Problem>,
  what: string,
): Result<Vec3, string> {
  const values: number[] = [];
  for (const text of texts) {
    const value = read(text);
    if (!value.ok) return problemText(what, value.problem);
    values.push(value.value);
  }
  const [x, y, z] = values;
  return ok([x ?? 0, y ?? 0, z ?? 0]);
}

function resolveGroove(work: Groove, sizes: Sizes): Result<GrooveSolid, string> {
  const fields = ["distance", "width", "depth", "stopAtStart", "stopAtEnd"] as const;
  const values: Partial<Record<(typeof fields)[number], number>> = {};
  for (const field of fields) {
    const value = lengthWith(sizes, work[field]);
    if (!value.ok) return problemText("the groove", value.problem);
    values[field] = value.value;
  }
  const { distance = 0, width = 0, depth = 0, stopAtStart = 0, stopAtEnd = 0 } = values;
  return ok({
    id: work.id,
    face: work.face,
    from: work.from,
    distance,
    width,
    depth,
    stopAtStart,
    stopAtEnd,
  });
}

function grooveRemarks(
  groove: GrooveSolid,
  panel: { readonly length: number; readonly width: number; readonly thickness: number | null },
): readonly string[] {
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

/** The solid for the picture, in the job's coordinates; a panel without board is drawn as a thin sheet. */
export function meshOfPanel(solid: PanelSolid): Mesh {
  const size: Vec3 = [solid.length, solid.width, solid.thickness ?? 1];
  const cuts = solid.thickness === null ? [] : solid.grooves.map((groove) => grooveBox(groove, size));
  return placeMesh(blockMesh(size, cuts), solid.frame);
}
