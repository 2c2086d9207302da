/**
 * A panel placed in space. Its own axes: x along its length from the left edge to the right, y along
 * its width from the front edge to the back, z out of its good face; the origin is the front left
 * corner of the other face.
 */
import * as v from "valibot";
import { homeId, role } from "./assembly";
import { entity, type Stored } from "./entity";
import { look } from "./look";
import { MOST_WORK } from "./member-work";
import { condition, edgeChoice, formulaText, materialName, placeTexts, recordId, shortName } from "./text";

export const PANEL_EDGES = ["front", "back", "left", "right"] as const;
export type PanelEdge = (typeof PANEL_EDGES)[number];

/**
 * A groove or rebate. It runs parallel to `from`, the edge it is measured from, `distance` away to its
 * nearer side (0: a rebate). `stopAtStart` and `stopAtEnd` are what is left uncut at the left or front
 * end and at the right or back end; "0" runs through.
 */
const GrooveSchema = v.object({
  id: recordId,
  kind: v.literal("groove"),
  face: v.picklist(["good", "other"]),
  from: v.picklist(PANEL_EDGES),
  distance: formulaText,
  width: formulaText,
  depth: formulaText,
  stopAtStart: formulaText,
  stopAtEnd: formulaText,
});
export type Groove = v.InferOutput<typeof GrooveSchema>;

/**
 * A hole, or a row of `count` holes `step` apart along the panel's length or width. `x` and `y` lead from
 * its front left corner to the middle of the first; `depth` null: right through.
 */
const HoleSchema = v.object({
  id: recordId,
  kind: v.literal("hole"),
  face: v.picklist(["good", "other"]),
  x: formulaText,
  y: formulaText,
  diameter: formulaText,
  depth: v.nullable(formulaText),
  count: formulaText,
  step: formulaText,
  along: v.picklist(["length", "width"]),
});
export type Hole = v.InferOutput<typeof HoleSchema>;

/**
 * A notch right through the panel: it starts `distance` from the left or front end of the edge `from`,
 * runs `width` along that edge and `depth` into the panel.
 */
const NotchSchema = v.object({
  id: recordId,
  kind: v.literal("notch"),
  from: v.picklist(PANEL_EDGES),
  distance: formulaText,
  width: formulaText,
  depth: formulaText,
});
export type Notch = v.InferOutput<typeof NotchSchema>;

/**
 * A corner of the outline of a panel or of a cut-out: so far from its left or right edge and from its front or back edge, so that
 * it follows the panel's size; rounded by `radius` ("0": sharp).
 */
const OutlineCornerSchema = v.object({
  id: recordId,
  fromX: v.picklist(["left", "right"]),
  x: formulaText,
  fromY: v.picklist(["front", "back"]),
  y: formulaText,
  radius: formulaText,
});
export type OutlineCorner = v.InferOutput<typeof OutlineCornerSchema>;

/** An outline read from a drawing may have many. */
export const MOST_CORNERS = 200;

/** Corners one after the other, either way round, within the panel's length and width. */
const CornersSchema = v.pipe(
  v.array(OutlineCornerSchema),
  v.minLength(3, "needs three corners"),
  v.maxLength(MOST_CORNERS),
);

/** An opening of any outline, right through the panel. */
const CutOutSchema = v.object({ id: recordId, kind: v.literal("cutOut"), corners: CornersSchema });
export type CutOut = v.InferOutput<typeof CutOutSchema>;

const WorkSchema = v.variant("kind", [GrooveSchema, HoleSchema, NotchSchema, CutOutSchema]);
export type Work = v.InferOutput<typeof WorkSchema>;

const panelId = v.pipe(recordId, v.brand("PanelId"));

/**
 * A panel that follows two others which face one another: its length runs from the one to the other and
 * reaches so far into each; its width runs along the `length` or the `width` of the first, short of its ends by the
 * two insets (the second at the right or back end); its other face stands `distance` from the left or front
 * end of the first panel's other direction.
 */
const BetweenSchema = v.object({
  first: panelId,
  second: panelId,
  reachFirst: formulaText,
  reachSecond: formulaText,
  runs: v.picklist(["length", "width"]),
  distance: formulaText,
  insetStart: formulaText,
  insetEnd: formulaText,
});
export type Between = v.InferOutput<typeof BetweenSchema>;

/** Turned about one of its edges on its other face; by an angle above zero the opposite edge rises to the side of the good face. */
const TiltSchema = v.object({
  edge: v.picklist(PANEL_EDGES),
  /** Degrees. */
  angle: formulaText,
});
export type Tilt = v.InferOutput<typeof TiltSchema>;

/** What of a panel must run along the grain; `any`: it may lie either way. */
const GRAIN_WAYS = ["length", "width", "any"] as const;
export type GrainWay = (typeof GRAIN_WAYS)[number];

const EdgingChoiceSchema = v.object({
  front: edgeChoice,
  back: edgeChoice,
  left: edgeChoice,
  right: edgeChoice,
});
export type EdgingChoice = v.InferOutput<typeof EdgingChoiceSchema>;

export const NO_EDGING: EdgingChoice = { front: null, back: null, left: null, right: null };

export const PanelSchema = v.object({
  id: panelId,
  name: shortName,
  assembly: homeId,
  /** Entry of the stockroom; null: what is usual in its assembly or in the job. */
  board: v.nullable(recordId),
  material: materialName,
  origin: placeTexts,
  lengthAxis: placeTexts,
  faceAxis: placeTexts,
  length: formulaText,
  width: formulaText,
  /** null: it stands as its axes say. */
  tilt: v.nullable(TiltSchema),
  /** Where not null, place and size follow from two other panels, and the six fields above rest. */
  between: v.nullable(BetweenSchema),
  /** null: a rectangle. */
  outline: v.nullable(CornersSchema),
  /** Has no effect on boards without grain. */
  grain: v.picklist(GRAIN_WAYS),
  goodFace: v.boolean(),
  edging: EdgingChoiceSchema,
  work: v.pipe(v.array(WorkSchema), v.maxLength(MOST_WORK)),
  when: condition,
  role,
  look,
  leftOut: v.boolean(),
});
export type Panel = v.InferOutput<typeof PanelSchema>;
export const panels = entity(PanelSchema, {
  // All were rectangles in the job itself, between nothing, always present and made.
  added: {
    2: { when: null },
    3: { assembly: null, between: null, role: "made", look: null },
    6: { outline: null },
    10: { tilt: null },
  },
  changed: { 10: withWayOfGrain },
});
export type PanelId = Panel["id"];

/** Whether the length must run along the grain was yes or no. */
function withWayOfGrain(record: Stored): Stored {
  if (typeof record["grain"] !== "boolean") return record;
  return { ...record, grain: record["grain"] ? "length" : "any" };
}
