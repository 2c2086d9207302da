/**
 * Silhouettes: a piece as a small drawing. Lengths are to a common scale; the depth is drawn as deep as
 * there is room for, and ends lean at their true angle in it, so that a mitre looks like one at any scale.
 */
import { type End, kindOf, type ProfilePoint } from "../ends";
import { ringPoints, type Vec2 } from "../geometry";
import { at, fromNm } from "../kernel";
import { openingPoints, outlinePoints } from "../layout";
import type { MemberForm, PanelForm, Piece } from "../tally";
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

type Profile = readonly ProfilePoint[];
export type Profiles = readonly [Profile, Profile];

/** The two ends of a bar from the side on which they lean most, as deep as they are drawn. */
export function profilesOf({ ends, shape }: MemberForm, depth: number): Profiles {
  const lean = (axis: 0 | 1) =>
    Math.max(
      ...ends.flatMap((end) =>
        kindOf(end)
          .slopes(end)
          .map((slope) => Math.abs(slope[axis])),
      ),
    );
  const seen = { axis: lean(0) >= lean(1) ? 0 : 1, depth, section: shape } as const;
  return [kindOf(ends[0]).profile(ends[0], seen), kindOf(ends[1]).profile(ends[1], seen)];
}

/** Plane ends of given slopes; a slope above zero makes the upper edge the longer one. */
export function planeProfiles([start, end]: readonly [number, number], depth: number): Profiles {
  const seen = { axis: 0, depth, section: null } as const;
  const profile = (slope: number): Profile => {
    const end: End = { kind: "plane", slope: [slope, 0] };
    return kindOf(end).profile(end, seen);
  };
  return [profile(start), profile(end)];
}

/** How far each point of an end lies behind its tip. On short pieces two ends would leave no room for a mark: they lean less there. */
function insets(
  profile: Profile,
  length: number,
): readonly { readonly across: number; readonly inset: number }[] {
  const most = length * 0.3;
  const tip = Math.max(...profile.map(({ out }) => out));
  const [first, last] = [at(profile, 0).out, at(profile, profile.length - 1).out];
  const lean = tip - Math.min(first, last);
  const share = lean > most ? most / lean : 1;
  return profile.map(({ across, out }) => ({ across, inset: (tip - out) * share }));
}

/** The outline of a bar seen from the side, from x = 0 to x = `length`, y from 0 (its upper edge) to `depth`. */
export function barOutline(length: number, depth: number, [start, end]: Profiles): readonly Vec2[] {
  const right = insets(end, length).map(({ across, inset }): Vec2 => [length - inset, across * depth]);
  const left = insets(start, length).map(({ across, inset }): Vec2 => [inset, across * depth]);
  return [at(left, 0), ...right, ...left.slice(1).reverse()];
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
  const corners = barOutline(length, height, profilesOf(form, height));
  const tint = tintOf(piece);
  const items: DrawItem[] = [
    { kind: "polygon", points: corners, stroke: outline(line), fill: tint, ...picked(pick) },
  ];
  if (tint === "timber") items.push(...grainStrokes(length, height, line));
  return [...items, ...workItems(form, length, height, line)];
}

/** Holes as small circles where they are along a bar, notches as what is gone from its corner. */
function workItems(form: MemberForm, length: number, height: number, line: number): readonly DrawItem[] {
  const scale = length / fromNm(form.cutNm);
  const holes = form.holes.map((hole): DrawItem => {
    const wide = Math.min(height * 0.34, Math.max(1.6 * line, fromNm(hole.slotNm) * scale));
    const tall = Math.min(height * 0.34, Math.max(1.6 * line, fromNm(hole.diameterNm) * scale));
    return ellipse([fromNm(hole.fromTip) * scale, height / 2], wide / 2, tall / 2, line);
  });
  const notches = form.notches.map(({ end, face, lengthNm }): DrawItem => {
    const long = Math.min(length * 0.3, Math.max(2 * line, fromNm(lengthNm) * scale));
    const [x0, x1] = end === 0 ? [0, long] : [length - long, length];
    const [y0, y1] = face === "bottom" || face === "left" ? [height * 0.6, height] : [0, height * 0.4];
    return {
      kind: "polygon",
      points: [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
      ],
      stroke: outline(line * 0.6),
      fill: "paper",
    };
  });
  return [...holes, ...notches];
}

const ellipse = ([x, y]: Vec2, wide: number, tall: number, line: number): DrawItem => ({
  kind: "polygon",
  points: Array.from({ length: 16 }, (_, i): Vec2 => {
    const angle = (i * Math.PI) / 8;
    return [x + wide * Math.cos(angle), y + tall * Math.sin(angle)];
  }),
  stroke: outline(line * 0.6),
  fill: "paper",
});

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
  const cutOuts = openingPoints(form).map(
    (opening): DrawItem => ({
      kind: "polygon",
      points: opening.map(([x, y]): Vec2 => [x * 1e6 * sx, height - y * 1e6 * sy]),
      stroke: { ink: "ink", width: line },
      fill: "paper",
    }),
  );
  return [...notches, ...cutOuts, ...holes];
}
