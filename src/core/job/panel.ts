/**
 * A panel placed in space. Its own axes: x along its length from the left edge to the right, y along
 * its width from the front edge to the back, z out of its good face; the origin is the front left
 * corner of the other face.
 */
import * as v from "valibot";
import { condition, edgeChoice, formulaText, materialName, recordId, shortName } from "./text";

export const PANEL_EDGES = ["front", "back", "left", "right"] as const;
export type PanelEdge = (typeof PANEL_EDGES)[number];

/**
 * A groove or rebate. It runs parallel to `from`, the edge it is measured from, `distance` away to its
 * nearer side (0: a rebate). `stopAtStart` and `stopAtEnd` are what is left uncut at the left or front
 * end and at the right or back end; "0" runs through.
 */
export const GrooveSchema = v.object({
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

const EdgingChoiceSchema = v.object({
  front: edgeChoice,
  back: edgeChoice,
  left: edgeChoice,
  right: edgeChoice,
});
export type EdgingChoice = v.InferOutput<typeof EdgingChoiceSchema>;

export const NO_EDGING: EdgingChoice = { front: null, back: null, left: null, right: null };

const direction = v.tuple([formulaText, formulaText, formulaText]);

export const PanelSchema = v.object({
  id: v.pipe(recordId, v.brand("PanelId")),
  name: shortName,
  board: v.nullable(recordId),
  material: materialName,
  origin: direction,
  lengthAxis: direction,
  faceAxis: direction,
  length: formulaText,
  width: formulaText,
  /** Whether its length must run along the grain; has no effect on boards without grain. */
  grain: v.boolean(),
  goodFace: v.boolean(),
  edging: EdgingChoiceSchema,
  work: v.pipe(v.array(GrooveSchema), v.maxLength(40)),
  when: condition,
  leftOut: v.boolean(),
});
export type Panel = v.InferOutput<typeof PanelSchema>;
export type PanelId = Panel["id"];
