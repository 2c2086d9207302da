/**
 * Assemblies and their placements. An assembly has points, lines, members, panels and bought parts of its
 * own, in its own axes; a placement puts it into the job or into another assembly, any number of times.
 */
import * as v from "valibot";
import { entity } from "./entity";
import { look } from "./look";
import { condition, formulaText, placeTexts, recordId, shortName } from "./text";
import { DefaultsSchema } from "./usual";

/** An assembly's id, or null for the job itself. */
export const homeId = v.nullable(v.pipe(recordId, v.brand("AssemblyId")));
export type Home = v.InferOutput<typeof homeId>;

/** `bought`: comes ready-made, so that none of its pieces is cut; `guide`: stands there to look at only. */
const ROLES = ["made", "bought", "guide"] as const;
export const role = v.picklist(ROLES);
export type Role = (typeof ROLES)[number];

export const AssemblySchema = v.object({
  id: v.pipe(recordId, v.brand("AssemblyId")),
  name: shortName,
  role,
  usual: DefaultsSchema,
  /** Where it is bought as a whole: the bought part of the stockroom that it is, with its price; null: none. */
  entry: v.nullable(recordId),
  look,
});
export type Assembly = v.InferOutput<typeof AssemblySchema>;
export const assemblies = entity(AssemblySchema, { since: 3, added: { 10: { entry: null } } });
export type AssemblyId = Assembly["id"];

export const MIRROR_AXES = ["width", "depth", "height"] as const;

/**
 * One assembly put somewhere: first mirrored across one of its own axes, then turned about its own origin
 * (degrees about the width, then the depth, then the height of where it stands), then moved so that its origin lies
 * `at`. Repeated `count` times, each a `step` further.
 */
export const PlacementSchema = v.object({
  id: v.pipe(recordId, v.brand("PlacementId")),
  assembly: v.pipe(recordId, v.brand("AssemblyId")),
  into: homeId,
  at: placeTexts,
  turn: placeTexts,
  mirror: v.nullable(v.picklist(MIRROR_AXES)),
  count: formulaText,
  step: placeTexts,
  when: condition,
  leftOut: v.boolean(),
  /** Which of those that are repeated are left out, counted from 1. */
  without: v.pipe(
    v.array(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(10_000))),
    v.maxLength(1_000),
  ),
});
export type Placement = v.InferOutput<typeof PlacementSchema>;
export const placements = entity(PlacementSchema, { since: 3, added: { 10: { without: [] } } });
export type PlacementId = Placement["id"];
