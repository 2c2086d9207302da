/**
 * A typed-in piece: a row of a cutting list that nobody drew. Lengths in millimetres, angles in degrees
 * from square. `stockText` keeps the words of the list, whatever became of them.
 */
import * as v from "valibot";
import { SectionShapeSchema } from "../stockroom";
import { entity } from "./entity";
import { PANEL_EDGES } from "./panel";
import { materialName, positiveLength, recordId, shortName } from "./text";

const angle = v.pipe(v.number(), v.finite(), v.minValue(-89), v.maxValue(89));

/** How the two ends of a bar stand to one another; null: the list did not say. */
const TypedStandSchema = v.nullable(
  v.union([
    v.picklist(["opposed", "parallel"]),
    v.object({ turn: v.pipe(v.number(), v.finite(), v.minValue(-180), v.maxValue(180)) }),
  ]),
);
export type TypedStand = v.InferOutput<typeof TypedStandSchema>;

const edgingWords = v.pipe(v.string(), v.minLength(1), v.maxLength(80));

/** An edge that is edged, and nobody said with what. */
export const UNNAMED_EDGING = "edged";

const common = {
  id: v.pipe(recordId, v.brand("TypedPieceId")),
  name: shortName,
  /** The mark of the list; null: given by the tally. */
  mark: v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(12))),
  quantity: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100_000)),
  stockText: v.nullable(v.pipe(v.string(), v.maxLength(80))),
  /** Entry of the stockroom that the words were matched with. */
  stock: v.nullable(recordId),
  material: materialName,
  leftOut: v.boolean(),
  position: v.pipe(v.number(), v.finite()),
};

export const TypedPieceSchema = v.variant("kind", [
  v.object({
    ...common,
    kind: v.literal("member"),
    length: positiveLength,
    /** Section that the words name, for when the stockroom has no such entry. */
    shape: v.nullable(SectionShapeSchema),
    angles: v.tuple([angle, angle]),
    stand: TypedStandSchema,
  }),
  v.object({
    ...common,
    kind: v.literal("panel"),
    length: positiveLength,
    width: positiveLength,
    /** null: that of the board. */
    thickness: v.nullable(positiveLength),
    grain: v.boolean(),
    /** Edged edges and the words for the edging. */
    edged: v.array(v.picklist(PANEL_EDGES)),
    edgingText: v.nullable(v.pipe(v.string(), v.maxLength(80))),
    /** The words for the edging of single edges, where they are not those for all. */
    edgingTexts: v.exactOptional(
      v.partial(v.object({ front: edgingWords, back: edgingWords, left: edgingWords, right: edgingWords })),
    ),
  }),
  v.object({ ...common, kind: v.literal("other") }),
]);
export type TypedPiece = v.InferOutput<typeof TypedPieceSchema>;
export const typedPieces = entity(TypedPieceSchema);
export type TypedPieceId = TypedPiece["id"];
