/**
 * Silhouettes: a piece as a small drawing. Lengths are to a common scale; the depth is drawn as deep as
 * there is room for, and ends lean at their true angle in it, so that a mitre looks like one at any scale.
 */
import { ringPoints, type Vec2 } from "../geometry";
import { fromNm } from "../kernel";
import { outlinePoints } from "../layout";
import type { CopeForm, MemberForm, PanelForm, Piece } from "../tally";
import { type DrawItem, movedBy, type Stroke, type Tint } from "./display";

export type SilhouetteOptions = {
  /** Drawn length of one millimetre of the piece. */
  readonly scale: number;
  /** Drawn depth at most. */
  readonly depth: number;
  readonly line: number;
  readonly pick?: string;
};

const outline = (width: number): Stroke => ({ ink: "ink", width });

/** Tint of a kind of stock; told apart by strokes and labels first. */
export function tintOf(piece: Piece): Tint {
  if (piece.kind === "panel") return "board";
  return piece.form.kind === "member" && piece.form.shape?.kind === "timber" ? "timber" : "steel";
}

/** The slopes of the two ends in the plane in which they lean most, signed as seen there. */
export function seenSlopes(form: MemberForm): readonly [number, number] {
  const across = Math.max(Math.abs(form.start[0]), Math.abs(form.end[0]));
  const along = Math.max(Math.abs(form.start[1]), Math.abs(form.end[1]));
  const axis = across >= along ? 0 : 1;
  return [form.start[axis], form.end[axis]];
}

/**
 * The four corners of a bar seen from the side, from x = 0 to x = `length`, y from 0 (its upper edge) to
 * `depth`. A slope above zero makes the upper edge the longer one.
 */
export function barCorners(
  length: number,
  depth: number,
  slopes: readonly [number, number],
): readonly Vec2[] {
  // On short pieces the two ends would meet and leave no room for a mark: they lean less there.
  const most = length * 0.3;
  const [first, second] = slopes.map((slope) => Math.max(-most, Math.min(most, slope * depth)));
  const [a, b] = [first ?? 0, second ?? 0];
  return [
    [Math.max(0, -a), 0],
    [length - Math.max(0, -b), 0],
    [length - Math.max(0, b), depth],
    [Math.max(0, a), depth],
  ];
}

/** How far a saddle of the drawn depth bites into an end that is coped; none where it is plane. */
export function saddleDepths(form: MemberForm, depth: number): readonly [number, number] {
  const bite = (cope: CopeForm | null) => {
    if (!cope || form.shape?.kind !== "roundTube") return 0;
    const [radius, own] = [fromNm(cope.radiusNm), form.shape.size[0] / 2];
    // The saddle of two axes that cross square, to the scale of the drawn depth.
    return ((radius - Math.sqrt(Math.max(0, radius ** 2 - own ** 2))) / (2 * own)) * depth;
  };
  return [bite(form.copes[0]), bite(form.copes[1])];
}

const SADDLE_STEPS = [0.25, 0.5, 0.75];

/** The outline of a bar with its ends; coped ones are hollow. */
export function barOutline(
  length: number,
  depth: number,
  slopes: readonly [number, number],
  [first, second]: readonly [number, number],
): readonly Vec2[] {
  const corners = barCorners(length, depth, slopes);
  const [topLeft, topRight, lowRight, lowLeft] = corners;
  if ((first === 0 && second === 0) || !topLeft || !topRight || !lowRight || !lowLeft) return corners;
  const hollow = (from: Vec2, to: Vec2, bite: number): readonly Vec2[] =>
    bite === 0
      ? []
      : SADDLE_STEPS.map((share) => [
          from[0] + (to[0] - from[0]) * share + bite * 4 * share * (1 - share),
          from[1] + (to[1] - from[1]) * share,
        ]);
  return [
    topLeft,
    topRight,
    ...hollow(topRight, lowRight, -second),
    lowRight,
    lowLeft,
    ...hollow(lowLeft, topLeft, first),
  ];
}

/** The silhouette of a piece from x = 0, in the middle of `depth`. Nothing for pieces without a size. */
export function silhouette(piece: Piece, options: SilhouetteOptions): readonly DrawItem[] {
  const { form } = piece;
  if (form.kind === "none") return [];
  const items = form.kind === "member" ? memberItems(piece, form, options) : panelItems(form, options);
  const height = Math.max(
    ...items.map((item) => (item.kind === "polygon" ? Math.max(...item.points.map((p) => p[1])) : 0)),
  );
  return movedBy(items, [0, (options.depth - height) / 2]);
}

export function silhouetteLength(piece: Piece): number {
  const { form } = piece;
  return form.kind === "member" ? fromNm(form.cutNm) : form.kind === "panel" ? fromNm(form.lengthNm) : 0;
}

const picked = (pick: string | undefined) => (pick === undefined ? {} : { pick });

function memberItems(
  piece: Piece,
  form: MemberForm,
  { scale, depth, line, pick }: SilhouetteOptions,
): readonly DrawItem[] {
  const length = fromNm(form.cutNm) * scale;
  const height = Math.min(depth, Math.max(depth * 0.55, 4));
  const corners = barOutline(length, height, seenSlopes(form), saddleDepths(form, height));
  const tint = tintOf(piece);
  const items: DrawItem[] = [
    { kind: "polygon", points: corners, stroke: outline(line), fill: tint, ...picked(pick) },
  ];
  if (tint === "timber") items.push(...grainStrokes(length, height, line));
  return items;
}

function grainStrokes(length: number, height: number, line: number): readonly DrawItem[] {
  if (length < 6 * line) return [];
  return [0.35, 0.68].map((share, i) => ({
    kind: "line",
    from: [length * (i === 0 ? 0.06 : 0.12), height * share],
    to: [length * (i === 0 ? 0.9 : 0.96), height * share],
    stroke: { ink: "soft", width: line * 0.5 },
  }));
}

/**
 * Drawn length and depth of a panel. An outline keeps its true form, which tells it from others: it is drawn shorter than to
 * scale where it would be too deep.
 */
function drawnSize(form: PanelForm, { scale, depth, line }: SilhouetteOptions): readonly [number, number] {
  const [length, width] = [fromNm(form.lengthNm) * scale, fromNm(form.widthNm) * scale];
  const squeeze = form.outline === null ? 1 : Math.min(1, depth / width);
  return [length * squeeze, Math.max(3 * line, Math.min(depth, width))];
}

function panelItems(form: PanelForm, options: SilhouetteOptions): readonly DrawItem[] {
  const { line, pick } = options;
  const [length, height] = drawnSize(form, options);
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: panelOutline(form, length, height),
      stroke: outline(line),
      fill: "board",
      ...picked(pick),
    },
  ];
  if (form.grain) items.push(...grainStrokes(length, height, line));
  const { edging } = form;
  const thick: Stroke = { ink: "ink", width: line * 3 };
  const edge = (from: Vec2, to: Vec2) => items.push({ kind: "line", from, to, stroke: thick });
  // Seen with the good face up: the front edge is drawn below.
  if (edging.front !== null) edge([0, height], [length, height]);
  if (edging.back !== null) edge([0, 0], [length, 0]);
  if (edging.left !== null) edge([0, 0], [0, height]);
  if (edging.right !== null) edge([length, 0], [length, height]);
  const sx = length / form.lengthNm;
  const sy = height / form.widthNm;
  for (const groove of form.grooves) {
    const along = groove.x1 - groove.x0 > groove.y1 - groove.y0;
    const middle = along ? height - ((groove.y0 + groove.y1) / 2) * sy : ((groove.x0 + groove.x1) / 2) * sx;
    items.push({
      kind: "line",
      from: along ? [groove.x0 * sx, middle] : [middle, height - groove.y0 * sy],
      to: along ? [groove.x1 * sx, middle] : [middle, height - groove.y1 * sy],
      stroke: {
        ink: "chalk",
        width: line * 1.2,
        ...(groove.face === "other" ? { dash: [line * 3, line * 2] } : {}),
      },
    });
  }
  return [...items, ...cutAwayItems(form, { sx, sy, height, line })];
}

/** The true outline in the room that there is: as deep as it can be drawn, its length to scale. */
function panelOutline(form: PanelForm, length: number, height: number): readonly Vec2[] {
  const [sx, sy] = [length / fromNm(form.lengthNm), height / fromNm(form.widthNm)];
  return outlinePoints(form).map(([x, y]): Vec2 => [x * sx, height - y * sy]);
}

type SheetScale = {
  readonly sx: number;
  readonly sy: number;
  readonly height: number;
  readonly line: number;
};

/** Notches are cut out of the outline, holes are dots of at least the width of a line. */
function cutAwayItems(form: PanelForm, { sx, sy, height, line }: SheetScale): readonly DrawItem[] {
  const box = (x0: number, x1: number, y0: number, y1: number): readonly Vec2[] => [
    [x0 * sx, height - y0 * sy],
    [x1 * sx, height - y0 * sy],
    [x1 * sx, height - y1 * sy],
    [x0 * sx, height - y1 * sy],
  ];
  const notches = form.notches.map(
    ({ x0, x1, y0, y1 }): DrawItem => ({
      kind: "polygon",
      points: box(x0, x1, y0, y1),
      stroke: { ink: "ink", width: line },
      fill: "paper",
    }),
  );
  const holes = form.holes.map(({ x, y, diameterNm }): DrawItem => {
    const radius = Math.max(line, (diameterNm / 2) * Math.min(sx, sy));
    const points = ringPoints({ centre: [x * sx, height - y * sy], radius }, 12);
    return { kind: "polygon", points, stroke: { ink: "chalk", width: line }, fill: null };
  });
  return [...notches, ...holes];
}
