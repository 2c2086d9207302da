/** Panels as shapes to nest: the outline that a torch, a laser or a router follows, and the holes in it. */
import {
  type BulgedCorner,
  boxOfPoints,
  bulgedCorners,
  flattened,
  loopArea,
  type Polygon,
  polygonArea,
  roundedPolygon,
  type Vec2,
  without,
} from "../geometry";
import { fromNm, toNm } from "../kernel";
import type { EdgingEntry } from "../stockroom";
import type { CornerForm, PanelForm } from "../tally";
import { blankOf } from "./blank";

export type PanelShape = {
  readonly outline: readonly BulgedCorner[];
  readonly holes: readonly { readonly x: number; readonly y: number; readonly diameter: number }[];
  /** Openings that are no circles, each as its corners. */
  readonly cutOuts: readonly (readonly BulgedCorner[])[];
};

/** mm. Arcs of an outline become straight where a notch is cut out of it; finer than a cut is wide. */
const NOTCHED_FINENESS = 0.02;

const rectangle = (
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): readonly (readonly [number, number])[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** The outline of a panel that is no rectangle, in mm: its corners with their roundings. */
const loopOf = (outline: readonly CornerForm[]) =>
  roundedPolygon(
    outline.map(({ x, y, radiusNm }) => ({ at: [fromNm(x), fromNm(y)] as const, radius: fromNm(radiusNm) })),
  );

/**
 * What is cut of a panel: a rectangle less the edging that is deducted, an outline as it is; notches are part of the outline,
 * holes and cut-outs right through it are cut with it.
 */
export function panelShape(form: PanelForm, edgingById: ReadonlyMap<string, EdgingEntry>): PanelShape {
  const blank = blankOf(form, edgingById);
  const off = (id: string | null) => {
    const entry = id === null ? undefined : edgingById.get(id);
    return entry?.deducted ? entry.thickness : 0;
  };
  const { edging } = form;
  // Places are told from the finished edges; the blank starts further in where they are banded.
  const [left, front] = form.outline === null ? [off(edging.left), off(edging.front)] : [0, 0];
  const whole =
    form.outline === null
      ? rectangle(left, front, left + blank.length, front + blank.width)
      : bulgedCorners(loopOf(form.outline));
  const outline = notched(whole, form);
  return {
    outline: outline.map(onGrid),
    cutOuts: form.cutOuts.map((corners) => bulgedCorners(loopOf(corners)).map(onGrid)),
    holes: form.holes
      .filter((hole) => hole.depthNm === null)
      .map(({ x, y, diameterNm }) => ({ x: fromNm(x), y: fromNm(y), diameter: fromNm(diameterNm) })),
  };
}

/** Whole nanometres, so that equal shapes are equal numbers. */
const grid = (mm: number) => fromNm(toNm(mm));

const onGrid = ([x, y, bulge]: BulgedCorner): BulgedCorner =>
  bulge ? [grid(x), grid(y), bulge] : [grid(x), grid(y)];

function notched(corners: readonly BulgedCorner[], { notches }: PanelForm): readonly BulgedCorner[] {
  if (notches.length === 0) return corners;
  const cut = notches.map(({ x0, x1, y0, y1 }) => {
    const [a, b, c, d] = [x0, y0, x1, y1].map(fromNm) as [number, number, number, number];
    return opened(rectangle(a, b, c, d), corners);
  });
  const { rings } = without([flattened(corners, NOTCHED_FINENESS)], cut);
  // A notch that parts the panel is told elsewhere; its larger part is cut.
  const largest = rings.toSorted((a, b) => polygonArea(b) - polygonArea(a))[0];
  return largest ? (largest as readonly (readonly [number, number])[]) : corners;
}

/** A notch that reaches an edge is open there. */
function opened(notch: Polygon, corners: readonly BulgedCorner[]): Polygon {
  const box = boxOfPoints(corners.map(([x, y]): Vec2 => [x, y]));
  const out = (value: number, low: number, high: number) =>
    value <= low + 1e-6 ? low - 1 : value >= high - 1e-6 ? high + 1 : value;
  return notch.map(([x, y]): Vec2 => [out(x, box.x0, box.x1), out(y, box.y0, box.y1)]);
}

/** mm², of the finished panel: exact for outlines, length × width for rectangles. */
export function areaOfPanel(form: PanelForm): number {
  if (form.outline === null) return fromNm(form.lengthNm) * fromNm(form.widthNm);
  return loopArea(loopOf(form.outline));
}

/** mm. Arcs of a small drawing. */
const DRAWN_FINENESS = 0.5;

/** mm², of what is cut out of a panel: exact. */
export const cutOutArea = ({ cutOuts }: PanelForm): number =>
  cutOuts.reduce((sum, corners) => sum + loopArea(loopOf(corners)), 0);

/** The openings of a panel as polygons, from its left and front edge. */
export const openingPoints = ({ cutOuts }: PanelForm): readonly Polygon[] =>
  cutOuts.map((corners) => flattened(bulgedCorners(loopOf(corners)), DRAWN_FINENESS));

/** The finished outline of a panel as a polygon, from its left and front edge. */
export function outlinePoints(form: PanelForm): Polygon {
  return form.outline === null
    ? rectangle(0, 0, fromNm(form.lengthNm), fromNm(form.widthNm))
    : flattened(bulgedCorners(loopOf(form.outline)), DRAWN_FINENESS);
}
