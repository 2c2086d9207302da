/** Layouts as they come in from outside and out of the database. */
import * as v from "valibot";
import { LAYOUT_KINDS, layoutKind } from "./kinds";
import { finite, whole } from "./kinds/schema-parts";
import { readReason } from "./stock";
import type { LayoutKind, SavedLayout } from "./types";

const text = v.pipe(v.string(), v.maxLength(200));
const common = {
  id: v.exactOptional(v.pipe(v.string(), v.minLength(1), v.maxLength(60))),
  stock: v.exactOptional(
    v.object({
      entry: v.pipe(v.string(), v.maxLength(200)),
      material: v.nullable(v.pipe(v.string(), v.maxLength(60))),
    }),
  ),
  taskId: v.pipe(v.string(), v.minLength(1), v.maxLength(300)),
  fingerprint: v.pipe(v.string(), v.maxLength(5_000_000)),
  revision: whole,
  pieces: v.array(
    v.object({
      mark: text,
      name: text,
      job: v.exactOptional(text),
      finished: v.exactOptional(v.tuple([finite, finite])),
      ids: v.exactOptional(v.array(v.pipe(v.string(), v.maxLength(4000)))),
      opposite: v.exactOptional(whole),
    }),
  ),
};

const ofKind = <K extends LayoutKind>(kind: K) =>
  v.object({ ...common, kind: v.literal(kind), ...LAYOUT_KINDS[kind].schemas });

/** A layout as it comes in over HTTP; whether it is right is told by `keptFault`. */
export const SavedSchema = v.variant("kind", [ofKind("bars"), ofKind("sheets"), ofKind("shapes")]);

/** A layout as it was stored by whichever version, with what problems, layouts and reasons have got since. */
export function readSaved(stored: SavedLayout): SavedLayout {
  // Reasons were words before they were codes.
  const unplaced = stored.layout.unplaced.map((one) => ({ ...one, why: readReason(one.why) }));
  const layout = { ...stored.layout, unplaced } as SavedLayout["layout"];
  return { ...stored, ...layoutKind(stored).read(stored.problem, layout) } as SavedLayout;
}
