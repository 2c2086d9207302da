/** A panel on its card: its good face with all work in it, running sizes from the left and the front edge, its edging and its grain. */
import type { Vec2 } from "../../geometry";
import { fromNm, LENGTH_TOLERANCE_MM, type Nm } from "../../kernel";
import { panelShape } from "../../layout";
import { formatLength, type LengthStyle } from "../../measure";
import type { Stockroom } from "../../stockroom";
import type { PanelForm } from "../../tally";
import { type DrawItem, movedBy, rectangle, type Stroke } from "../display";
import { dimensionLine, extension } from "../pages/size-parts";
import { circlePath, pathOfCorners } from "../path";
import { LETTERS, NARROW, smallWord, THIN, WIDE } from "./card-parts";
import { CARD_SCALES, type CardDrawing } from "./member-drawing";
import { type Running, runningDepth, runningLength, runningSizes } from "./running-sizes";

const HIDDEN: Stroke = { ink: "ink", width: 0.2, dash: [2, 1] };

/** mm on paper from the running sizes to the size over all. */
const OVERALL = 6;
const AROUND = 5;
/** Room at the right for the name of the front edge. */
const NAMED = 6;

/** The places of all that is worked in a panel, from its left or its front edge; its own edges are not among them. */
function placesOn(form: PanelForm, axis: "x" | "y"): readonly Nm[] {
  const whole = axis === "x" ? form.lengthNm : form.widthNm;
  const ends = ({ x0, x1, y0, y1 }: { x0: Nm; x1: Nm; y0: Nm; y1: Nm }): readonly Nm[] =>
    axis === "x" ? [x0, x1] : [y0, y1];
  const all = [
    ...form.grooves.flatMap(ends),
    ...form.notches.flatMap(ends),
    ...form.holes.map((hole) => hole[axis]),
    ...[form.outline ?? [], ...form.cutOuts].flat().map((corner) => corner[axis]),
  ];
  return [...new Set(all)].filter((place) => place > 0 && place < whole).sort((a, b) => a - b);
}

/** A panel in so much room; the scale is the largest of the standard ones that has room. */
export function panelDrawing(
  form: PanelForm,
  room: { readonly width: number; readonly height: number },
  style: LengthStyle,
  { edgingById }: Stockroom,
): CardDrawing & { readonly scale: number; readonly fits: boolean } {
  const [length, width] = [fromNm(form.lengthNm), fromNm(form.widthNm)];
  const write = (mm: number) => formatLength(mm, style, LENGTH_TOLERANCE_MM);
  const running = (axis: "x" | "y", scale: number): Running => ({
    places: placesOn(form, axis),
    whole: axis === "x" ? form.lengthNm : form.widthNm,
    scale,
    write,
  });
  const needs = (scale: number) => {
    const [x, y] = [running("x", scale), running("y", scale)];
    return {
      left: runningDepth(y) + OVERALL + AROUND,
      under: runningDepth(x) + OVERALL + AROUND,
      width: Math.max(length * scale, runningLength(x)),
      height: Math.max(width * scale, runningLength(y)),
    };
  };
  const fit = CARD_SCALES.find((scale) => {
    const need = needs(scale);
    return (
      need.left + need.width + AROUND + NAMED <= room.width &&
      need.under + need.height + AROUND <= room.height
    );
  });
  const scale = fit ?? CARD_SCALES[CARD_SCALES.length - 1] ?? 0.01;
  const { left, under } = needs(scale);
  const [w, h] = [length * scale, width * scale];
  // From the corner at the left of the front edge, upwards.
  const place = ([x, y]: Vec2): Vec2 => [x * scale, -y * scale];
  const items: DrawItem[] = [...faceItems(form, place, scale, edgingById)];
  const [x, y] = [running("x", scale), running("y", scale)];
  items.push(...runningSizes(x, "right"), ...runningSizes(y, "up"));
  const [low, out] = [runningDepth(x) + OVERALL, -(runningDepth(y) + OVERALL)];
  items.push(
    ...extension([0, 0], [0, low], THIN),
    ...extension([w, 0], [w, low], THIN),
    ...dimensionLine([0, low], [w, low], THIN, { text: write(length), typed: false, letters: LETTERS }),
    ...extension([0, 0], [out, 0], THIN),
    ...extension([0, -h], [out, -h], THIN),
    ...dimensionLine([out, 0], [out, -h], THIN, { text: write(width), typed: false, letters: LETTERS }),
  );
  return {
    items: movedBy(items, [left, h + AROUND]),
    width: left + w + AROUND,
    height: h + AROUND + under,
    scale,
    fits: fit !== undefined,
  };
}

function faceItems(
  form: PanelForm,
  place: (at: Vec2) => Vec2,
  scale: number,
  edgingById: Stockroom["edgingById"],
): readonly DrawItem[] {
  const [length, width] = [fromNm(form.lengthNm), fromNm(form.widthNm)];
  const box = (x0: Nm, x1: Nm, y0: Nm, y1: Nm): readonly Vec2[] => {
    const [left, top] = place([fromNm(x0), fromNm(y1)]);
    return rectangle(left, top, fromNm(x1 - x0) * scale, fromNm(y1 - y0) * scale);
  };
  // Places are told from the finished edges: so the finished outline, whatever edging takes off the blank.
  const { outline, cutOuts } = panelShape(
    { ...form, edging: { front: null, back: null, left: null, right: null } },
    edgingById,
  );
  const items: DrawItem[] = [
    {
      kind: "paths",
      paths: [outline, ...cutOuts].map((ring) => pathOfCorners(ring, place)),
      stroke: WIDE,
      fill: null,
      layer: "OUTLINES",
    },
  ];
  for (const { face, x0, x1, y0, y1 } of form.grooves)
    items.push({
      kind: "polygon",
      points: box(x0, x1, y0, y1),
      stroke: face === "good" ? NARROW : HIDDEN,
      fill: null,
      layer: face === "good" ? "EDGES" : "HIDDEN",
    });
  for (const hole of form.holes)
    items.push({
      kind: "paths",
      paths: [
        circlePath(
          place([fromNm(hole.x), fromNm(hole.y)]),
          Math.max(0.4, (fromNm(hole.diameterNm) * scale) / 2),
        ),
      ],
      stroke: hole.depthNm !== null && hole.face === "other" ? HIDDEN : NARROW,
      fill: null,
      layer: "HOLES",
    });
  // A strong line beside each edge that is banded.
  const band = (from: Vec2, to: Vec2, by: Vec2): DrawItem => ({
    kind: "line",
    from: [from[0] + by[0], from[1] + by[1]],
    to: [to[0] + by[0], to[1] + by[1]],
    stroke: { ink: "ink", width: 0.7 },
    layer: "EDGES",
  });
  const [a, b, c, d] = [place([0, 0]), place([length, 0]), place([length, width]), place([0, width])];
  const { edging } = form;
  if (edging.front !== null) items.push(band(a, b, [0, 1.2]));
  if (edging.back !== null) items.push(band(d, c, [0, -1.2]));
  if (edging.left !== null) items.push(band(a, d, [-1.2, 0]));
  if (edging.right !== null) items.push(band(b, c, [1.2, 0]));
  if (form.grain && length * scale > 14 && width * scale > 8) {
    const [x, y] = place([length / 2, width / 2]);
    items.push(
      { kind: "line", from: [x - 5, y], to: [x + 5, y], stroke: NARROW, layer: "TEXTS" },
      { kind: "line", from: [x - 5, y], to: [x - 3.4, y - 0.8], stroke: NARROW, layer: "TEXTS" },
      { kind: "line", from: [x + 5, y], to: [x + 3.4, y + 0.8], stroke: NARROW, layer: "TEXTS" },
      smallWord([x, y + 2.6], "grain", "soft"),
    );
  }
  const [right, front] = place([length, 0]);
  items.push(smallWord([right + 5, front - 1.2], "front", "soft"));
  return items;
}
