/** In which axes a view is said, and what belongs to it. */
import { AT_HOME, type Frame, poseIn } from "../../geometry";
import { asDrawn, type Instance, type Shape } from "../../shape";
import type { ViewAsked } from "./view-asked";

export type ViewPiece = {
  readonly record: string;
  /** The key of the instance in which it stands. */
  readonly way: string;
};
type Base = { readonly frame: Frame; readonly holds: (record: string, instance: Instance) => boolean };

/** The axes that a view is said in, and what belongs to it; null: it is not there. */
export function baseOf(shape: Shape, { of }: Pick<ViewAsked, "of">): Base | null {
  switch (of.kind) {
    case "job":
      return { frame: AT_HOME.frame, holds: () => true };
    case "pieces": {
      const records = new Set<string>(of.records);
      return {
        frame: AT_HOME.frame,
        holds: (record, { path }) => records.has(record) || path.some((placement) => records.has(placement)),
      };
    }
    case "assembly": {
      const instances = shape.places.get(of.assembly) ?? [];
      const one = asDrawn(instances);
      return one ? { frame: one.pose.frame, holds: (_, { key }) => key.startsWith(one.key) } : null;
    }
    case "piece":
      return pieceBase(shape, of.record);
    default:
      return of satisfies never;
  }
}

/** The own axes of a piece: its length runs to the right, its good face or the side that it lies with to the viewer. */
function pieceBase(shape: Shape, record: string): Base | null {
  const member = shape.members.find((one) => one.member.id === record);
  const panel = shape.panels.find((one) => one.panel.id === record);
  const bought = shape.bought.find((one) => one.part.id === record);
  const home = member?.home ?? panel?.panel.assembly ?? bought?.part.assembly ?? null;
  const instances = member || panel || bought ? (shape.places.get(home) ?? []) : [];
  const one = asDrawn(instances);
  if (!one) return null;
  const own = member?.frame ?? panel?.frame ?? AT_HOME.frame;
  const { origin, x, y, z } = poseIn(one.pose, { frame: own, mirrored: false }).frame;
  const back = (v: typeof x): typeof x => [0 - v[0], 0 - v[1], 0 - v[2]];
  // Width, depth away from the viewer and height of the piece, as the job has them of its own.
  const frame = member
    ? { origin, x: z, y: x, z: y }
    : panel
      ? { origin, x, y: back(z), z: y }
      : { origin, x, y, z };
  return { frame, holds: (id, { key }) => id === record && key === one.key };
}
