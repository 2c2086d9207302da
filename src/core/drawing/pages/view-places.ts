/** Where the named places of pieces lie in a view. */
import { type Frame, poseIn, toWorld, type Vec3 } from "../../geometry";
import type { Assets, Feature } from "../../job";
import { featuresOf, type Shape } from "../../shape";
import { inView, viewIn } from "../lines";
import type { ViewAsked } from "./view-asked";
import { baseOf, type ViewPiece } from "./view-base";

/** A place in a view: right and down in mm of the design as on paper, and how near the viewer. */
export type SeenPlace = readonly [x: number, y: number, near: number];

export type SeenFeature = {
  readonly at: SeenPlace;
  /** Of a hole by its middle; null: it is none. */
  readonly diameter: number | null;
  /** Of a rounded corner by its middle; null: it is none. */
  readonly radius: number | null;
  /** Where that corner would be. */
  readonly corner: SeenPlace | null;
  /** The other end of a member's line, where that is what is meant; null: it is a place. */
  readonly to: SeenPlace | null;
};

/** The line of a member, as a feature. */
export const AXIS = "axis";

/** The named places of a piece as a view has them; null where it does not stand in it. */
export function placesInView(
  shape: Shape,
  asked: Pick<ViewAsked, "of" | "axes">,
  piece: ViewPiece,
  assets: Assets,
): ReadonlyMap<string, SeenFeature> | null {
  const features = featuresOf(shape, piece.record, assets);
  const base = baseOf(shape, asked);
  if (!features || !base) return null;
  const instance = (shape.places.get(features.home) ?? []).find(
    (one) => one.key === piece.way && base.holds(piece.record, one),
  );
  if (!instance) return null;
  const frame: Frame = inView(
    viewIn(base.frame, asked.axes),
    poseIn(instance.pose, { frame: features.frame, mirrored: false }).frame,
  );
  const seen = (place: Vec3): SeenPlace => {
    const [x, y, z] = toWorld(frame, place);
    return [x, 0 - y, z];
  };
  const places = new Map<string, SeenFeature>();
  for (const [name, place] of features.places) {
    const rounding = features.roundings.get(name);
    places.set(name, {
      at: seen(place),
      diameter: features.diameters.get(name) ?? null,
      radius: rounding?.radius ?? null,
      corner: rounding ? seen(rounding.corner) : null,
      to: null,
    });
  }
  const [start, end] = [places.get("start, axis"), places.get("end, axis")];
  if (start && end)
    places.set(AXIS, { at: start.at, diameter: null, radius: null, corner: null, to: end.at });
  return places;
}

/** A feature in a view; null where it is lost: its piece or the place on it is not there. */
export function featureInView(
  shape: Shape,
  asked: Pick<ViewAsked, "of" | "axes" | "hidden">,
  { record, way, place }: Feature,
  assets: Assets,
): SeenFeature | null {
  const features = featuresOf(shape, record, assets);
  const base = baseOf(shape, asked);
  if (!features || !base || asked.hidden.includes(record)) return null;
  const own =
    way === null ? (shape.places.get(features.home) ?? []).find((one) => base.holds(record, one))?.key : way;
  return own === undefined
    ? null
    : (placesInView(shape, asked, { record, way: own }, assets)?.get(place) ?? null);
}

export const featureKey = ({ record, way, place }: Feature): string => JSON.stringify([record, way, place]);
