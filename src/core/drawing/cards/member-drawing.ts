/** A member on its card: lying with its start at the left, from one side or two, broken where it is long; and its section. */
import { anglesOf, type End, kindOf, tipOf } from "../../ends";
import { type Frame, ringOf, type Solid, type Vec2 } from "../../geometry";
import { at, fromNm, LENGTH_TOLERANCE_MM } from "../../kernel";
import { formatDegrees, formatLength, type LengthStyle } from "../../measure";
import { solidOfMember, type WorkedEnds } from "../../shape";
import { type SectionShape, sectionProperties } from "../../stockroom";
import type { MemberForm } from "../../tally";
import { type DrawItem, movedBy, rectangle } from "../display";
import { hatched } from "../hatching";
import { linePaths, viewLines } from "../lines";
import { dimensionLine, extension } from "../pages/size-parts";
import { placedPath } from "../path";
import { LETTERS, NARROW, SIZE, smallWord, THIN, WIDE } from "./card-parts";

/** What is drawn, and its room: y runs down from its upper edge. */
export type CardDrawing = {
  readonly items: readonly DrawItem[];
  readonly width: number;
  readonly height: number;
};

/** mm on paper. How high a member is drawn at most, and how long its ends are shown at least where its middle is left out. */
const MOST_DEPTH = 16;
const LEAST_END = 18;
const BREAK = 5;
/** Room for sizes above and under a view, and at its ends for the angles. */
const ABOVE = 9;
const UNDER = 9;
const ASIDE = 12;

export const CARD_SCALES = [1, 1 / 2, 1 / 5, 1 / 10, 1 / 20, 1 / 50, 1 / 100] as const;

type Side = 0 | 1;

const slopesOf = (end: End) => kindOf(end).slopes(end);
const leansOn = ({ ends }: MemberForm, side: Side) =>
  Math.max(...ends.flatMap((end) => slopesOf(end).map((slope) => Math.abs(slope[side]))));

/** The sides from which a member is drawn: that on which its ends lean most first, the other where it shows something more. */
function sidesOf(form: MemberForm): readonly Side[] {
  const [x, y] = [leansOn(form, 0), leansOn(form, 1)];
  const first: Side = x >= y && x > 1e-9 ? 0 : 1;
  const other: Side = first === 0 ? 1 : 0;
  const curved = form.ends.some((end) => end.kind === "cope");
  const worked = form.holes.length + form.notches.length > 0;
  return leansOn(form, other) > 1e-9 || curved || worked ? [first, other] : [first];
}

/** How far the axes of both ends lie apart. */
function betweenEnds(form: MemberForm, shape: SectionShape): number {
  const [start, end] = form.ends;
  return fromNm(form.cutNm) - tipOf(shape, start) - tipOf(shape, end);
}

/** How far an end reaches from its tip to its lowest point. */
function depthOf(shape: SectionShape, end: End): number {
  const height = kindOf(end).height(end, shape);
  const { loops } = sectionProperties(shape);
  const ring = ringOf(at(loops, 0), { step: Math.PI / 36 });
  return tipOf(shape, end) - Math.min(...ring.points.map((point) => height(point.at)));
}

/** A member with a section, in so much width; the scale is the largest that has room. */
export function memberDrawing(
  form: MemberForm,
  shape: SectionShape,
  width: number,
  style: LengthStyle,
): CardDrawing & { readonly scale: number; readonly broken: boolean } {
  const { extent } = sectionProperties(shape);
  const sides = sidesOf(form);
  const free = width - 2 * ASIDE;
  const ends = Math.max(...form.ends.map((end) => depthOf(shape, end)));
  const scale =
    CARD_SCALES.find(
      (one) =>
        Math.max(...sides.map((side) => extent[side])) * one <= MOST_DEPTH &&
        Math.max(LEAST_END, ends * one + 6) * 2 + BREAK <= Math.max(free, fromNm(form.cutNm) * one),
    ) ?? at(CARD_SCALES, CARD_SCALES.length - 1);
  const broken = fromNm(form.cutNm) * scale > free + 1e-9;
  const length = broken ? free : fromNm(form.cutNm) * scale;
  const items: DrawItem[] = [];
  let y = 0;
  sides.forEach((side, i) => {
    const view = sideView(form, shape, { side, scale, length, broken, style, sizes: i === 0 });
    items.push(...movedBy(view.items, [ASIDE, y]));
    y += view.height;
  });
  return { items, width: length + 2 * ASIDE, height: y, scale, broken };
}

type SideAsked = {
  readonly side: Side;
  readonly scale: number;
  /** On paper, from tip to tip. */
  readonly length: number;
  readonly broken: boolean;
  readonly style: LengthStyle;
  /** With the sizes along it. */
  readonly sizes: boolean;
};

function sideView(form: MemberForm, shape: SectionShape, asked: SideAsked): CardDrawing {
  const { side, scale, length, broken, style, sizes } = asked;
  const { extent, boxCentre } = sectionProperties(shape);
  const between = betweenEnds(form, shape);
  const [start, end] = form.ends;
  const tip = tipOf(shape, start);
  const depth = extent[side] * scale;
  const top = (boxCentre[side] + extent[side] / 2) * scale;
  const above = sizes ? ABOVE : 4;
  // Along the member from its first tip; up the side that is seen.
  const place = ([along, up]: Vec2): Vec2 => [(along + tip) * scale, above + top - up * scale];
  const paths = sidePaths(form, shape, between, side, place);
  const cut = fromNm(form.cutNm) * scale;
  const skipped = cut - length;
  const half = (length - BREAK) / 2;
  const window = (x0: number, x1: number): readonly Vec2[] => rectangle(x0, above - 1, x1 - x0, depth + 2);
  const lines = (by: number): readonly DrawItem[] => paths(by);
  const drawn: readonly DrawItem[] = broken
    ? [
        { kind: "clip", within: window(-1, half), items: lines(0) },
        { kind: "clip", within: window(length - half, length + 1), items: lines(-skipped) },
        ...breakLine(half, above, depth),
        ...breakLine(length - half, above, depth),
      ]
    : lines(0);
  const shownAt = (x: number): number => (broken && x > cut / 2 ? x - skipped : x);
  const flat = form.ends.every(
    (one) => one.kind === "plane" && Math.abs(one.slope[side === 0 ? 1 : 0]) < 1e-9,
  );
  const write = (mm: number) => formatLength(mm, style, LENGTH_TOLERANCE_MM);
  const items: DrawItem[] = [...drawn];
  const dimension = (from: number, to: number, up: number, y: number, value: number) => {
    const [a, b] = [shownAt(from), shownAt(to)];
    items.push(
      ...extension([a, up], [a, y], THIN),
      ...extension([b, up], [b, y], THIN),
      ...dimensionLine([a, y], [b, y], THIN, { text: write(value), typed: false, letters: LETTERS }),
    );
  };
  const foot = above + depth;
  let under = 0;
  if (sizes) {
    const edge = (up: number) => {
      const from = start.kind === "plane" ? tip - start.slope[side] * up : 0;
      const to = end.kind === "plane" ? tip + between + end.slope[side] * up : 0;
      return { from: from * scale, to: to * scale, value: to - from };
    };
    const upper = edge(boxCentre[side] + extent[side] / 2);
    const lower = edge(boxCentre[side] - extent[side] / 2);
    const cutMm = fromNm(form.cutNm);
    const differs = (a: number, b: number) => Math.abs(a - b) > LENGTH_TOLERANCE_MM;
    if (flat && differs(upper.value, lower.value)) dimension(upper.from, upper.to, above, 4.5, upper.value);
    under = UNDER;
    if (flat && differs(upper.value, lower.value) && differs(lower.value, cutMm)) {
      dimension(lower.from, lower.to, foot, foot + 6, lower.value);
      under += 7;
    }
    dimension(0, cut, foot, foot + under - 3, cutMm);
  }
  const words = (i: 0 | 1, end_: End) => {
    const angle = slopesOf(end_).map((slope) => formatDegrees(Math.abs(anglesOf(slope).compound[side])));
    if (angle.every((one) => one === "0")) return;
    items.push({
      kind: "text",
      at: [i === 0 ? -1.5 : length + 1.5, above + depth / 2],
      text: angle.map((one) => `${one}°`).join(" / "),
      size: SIZE,
      face: "condensed",
      align: i === 0 ? "right" : "left",
      ink: "ink",
      layer: "SIZES",
    });
  };
  words(0, start);
  words(1, end);
  items.push({
    kind: "text",
    at: [0, foot + under + 2.4],
    text: `${side === 0 ? "Width" : "Height"} upwards${sizes ? "" : `, ${write(extent[side])}`}`,
    size: SIZE * 0.9,
    face: "text",
    align: "left",
    ink: "soft",
    layer: "TEXTS",
  });
  return { items, width: length, height: foot + under + 5.5 };
}

/** The work of a form where its tips stand there. */
function workOfForm({ holes, notches }: MemberForm, tips: Vec2): NonNullable<WorkedEnds["work"]> | null {
  if (holes.length + notches.length === 0) return null;
  return {
    tips,
    holes: holes.map((hole, i) => ({
      ...hole,
      id: String(i),
      begins: [fromNm(hole.begins[0]), fromNm(hole.begins[1])],
      z: tips[0] + fromNm(hole.fromTip),
      across: fromNm(hole.across),
      diameter: fromNm(hole.diameterNm),
      slot: fromNm(hole.slotNm),
      walls: hole.through ? "all" : "one",
    })),
    notches: notches.map(({ end, face, outwards, depthNm, lengthNm }, i) => {
      const length = fromNm(lengthNm);
      const inner = end === 0 ? tips[0] + length : tips[1] - length;
      return {
        id: String(i),
        end: end === 0 ? "start" : "end",
        face,
        outwards,
        depth: fromNm(depthNm),
        length,
        inner,
      };
    }),
  };
}

/** The lines of a member from a side, as drawn at some shift along it. */
function sidePaths(
  form: MemberForm,
  shape: SectionShape,
  between: number,
  side: Side,
  place: (at: Vec2) => Vec2,
): (by: number) => readonly DrawItem[] {
  const [start, end] = form.ends;
  const solid: Solid = solidOfMember(
    {
      entry: { shape },
      start: { z: 0, form: start },
      end: { z: between, form: end },
      work: workOfForm(form, [-tipOf(shape, start), between + tipOf(shape, end)]),
    },
    {
      step: Math.PI / 24,
      creases: true,
      silhouettes: side === 0 ? [0, Math.PI] : [Math.PI / 2, -Math.PI / 2],
    },
  );
  // Its z to the right and the side that is seen upwards; the third axis then runs away from the viewer or towards.
  const frame: Frame =
    side === 0
      ? { origin: [0, 0, 0], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] }
      : { origin: [0, 0, 0], x: [0, 0, -1], y: [0, 1, 0], z: [1, 0, 0] };
  const lines = viewLines([{ solid, frame, round: 0.05 }]);
  const kinds = [
    ["crease", THIN],
    ["edge", NARROW],
    ["outline", WIDE],
  ] as const;
  const whole = kinds.map(([kind, stroke]) => ({
    stroke,
    paths: linePaths(
      lines.filter((line) => line.kind === kind),
      place,
    ),
  }));
  return (by) =>
    whole.flatMap(({ stroke, paths }): DrawItem[] =>
      paths.length === 0
        ? []
        : [
            {
              kind: "paths",
              paths: paths.map((path) => placedPath(path, 1, [by, 0])),
              stroke,
              fill: null,
              layer: "OUTLINES",
            },
          ],
    );
}

/** A jag over the depth: the middle is left out. */
function breakLine(x: number, above: number, depth: number): readonly DrawItem[] {
  const y = above + depth / 2;
  return [
    {
      kind: "paths",
      paths: [
        {
          from: [x, above - 2],
          segments: (
            [
              [x, y - 2],
              [x - 1.2, y - 0.8],
              [x + 1.2, y + 0.8],
              [x, y + 2],
              [x, above + depth + 2],
            ] as const
          ).map((to) => ({ kind: "line", to })),
          closed: false,
        },
      ],
      stroke: THIN,
      fill: null,
      layer: "OUTLINES",
    },
  ];
}

/** The section with its two sides named, in a square of some size. */
export function sectionDrawing(shape: SectionShape, size: number, style: LengthStyle): CardDrawing {
  const { loops, extent, boxCentre } = sectionProperties(shape);
  const room = size - 9;
  const scale = Math.min(room / extent[0], room / extent[1], 2);
  const middle: Vec2 = [size / 2 - 3, size / 2 - 3];
  const place = ([x, y]: Vec2): Vec2 => [
    middle[0] + (x - boxCentre[0]) * scale,
    middle[1] - (y - boxCentre[1]) * scale,
  ];
  const outlines = loops.map((loop) =>
    ringOf(loop, { step: Math.PI / 18 }).points.map((point) => place(point.at)),
  );
  const write = (mm: number) => formatLength(mm, style, LENGTH_TOLERANCE_MM);
  const foot = middle[1] + (extent[1] * scale) / 2 + 3;
  const right = middle[0] + (extent[0] * scale) / 2 + 3;
  return {
    width: size,
    height: size + 3,
    items: [
      ...hatched(outlines, { angle: 45, apart: 1.6 }, 0.25),
      ...outlines.map(
        (points): DrawItem => ({ kind: "polygon", points, stroke: NARROW, fill: null, layer: "OUTLINES" }),
      ),
      ...arrow([middle[0] - 5, foot], [middle[0] + 5, foot]),
      smallWord([middle[0], foot + 2.6], `width + ${write(extent[0])}`, "ink"),
      ...arrow([right, middle[1] + 5], [right, middle[1] - 5]),
      smallWord([right + 2.6, middle[1]], `height + ${write(extent[1])}`, "ink", 90),
    ],
  };
}

function arrow(from: Vec2, to: Vec2): readonly DrawItem[] {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const [x, y]: Vec2 = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  const barb = (turn: 1 | -1): DrawItem => ({
    kind: "line",
    from: to,
    to: [to[0] - 2 * x - turn * 0.8 * y, to[1] - 2 * y + turn * 0.8 * x],
    stroke: NARROW,
    layer: "TEXTS",
  });
  return [{ kind: "line", from, to, stroke: NARROW, layer: "TEXTS" }, barb(1), barb(-1)];
}
