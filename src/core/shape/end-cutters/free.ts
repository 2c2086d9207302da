/** Ends given by their own angles, whatever else is there: one plane, two that meet in a ridge, or any two. */
import { type EndFace, endOfTwoPlanes } from "../../ends";
import { dot2, toLocal, type Vec2 } from "../../geometry";
import { type EndCutOf, numberWith } from "../../job";
import { err, ok, type Result } from "../../kernel";
import { toRadians } from "../../measure";
import { planeEnd } from "../ends";
import type { EndFault } from "../fault";
import { type Cutter, closed, type EndGround, lengthOf } from "./cutter";

/** Degrees. Nearer to the member's own line a cut would have no end. */
const STEEPEST_DEG = 85;

/** The tangent of an angle from square, as it was typed. */
function tangentOf({ sizes }: EndGround, text: string): Result<number, EndFault> {
  const read = numberWith(sizes, text);
  if (!read.ok) return err({ kind: "text", what: "angle", problem: read.problem });
  if (Math.abs(read.value) > STEEPEST_DEG)
    return err({ kind: "tooSteep", degrees: read.value, most: STEEPEST_DEG });
  return ok(read.value === 0 ? 0 : Math.tan(toRadians(read.value)));
}

/** Where the line's point lies in the section, and how far out along the axis a plane through it has to stand. */
function placeOf({ placed: { bar }, joint, side }: EndGround, offset: number) {
  const [x, y, z] = toLocal(bar.frame, joint);
  return { point: [x, y] as Vec2, beyond: (side === "start" ? -z : z) + offset };
}

/** A plane of a slope through the line's point. */
const faceThrough = (slope: Vec2, { point, beyond }: ReturnType<typeof placeOf>): EndFace => ({
  slope,
  beyond: beyond - dot2(slope, point),
});

const outwards = ({ side }: EndGround, beyond: number) => (side === "start" ? -beyond : beyond);

/** The plane of an end at an angle. */
function leaningFace(
  ground: EndGround,
  cut: { readonly acrossWidth: string; readonly acrossHeight: string; readonly offset: string },
): Result<EndFace, EndFault> {
  const offset = lengthOf(ground, "offset", cut.offset);
  if (!offset.ok) return offset;
  const [across, up] = [tangentOf(ground, cut.acrossWidth), tangentOf(ground, cut.acrossHeight)];
  if (!across.ok) return across;
  if (!up.ok) return up;
  return ok(faceThrough([across.value, up.value], placeOf(ground, offset.value)));
}

export const angled: Cutter<EndCutOf<"angled">> = (cut, ground) => {
  const face = leaningFace(ground, cut);
  if (!face.ok) return face;
  const { slope, beyond } = face.value;
  return closed(planeEnd({ z: outwards(ground, beyond), slope }));
};

export const twoAngles: Cutter<EndCutOf<"twoAngles">> = (cut, ground) => {
  const first = leaningFace(ground, cut);
  if (!first.ok) return first;
  const second = leaningFace(ground, {
    acrossWidth: cut.secondAcrossWidth,
    acrossHeight: cut.secondAcrossHeight,
    offset: cut.secondOffset,
  });
  if (!second.ok) return second;
  const { form, beyond } = endOfTwoPlanes(ground.placed.bar.shape, first.value, second.value);
  return closed({ z: outwards(ground, beyond), form });
};

export const pointed: Cutter<EndCutOf<"pointed">> = (cut, ground) => {
  const offset = lengthOf(ground, "offset", cut.offset);
  if (!offset.ok) return offset;
  const [first, second] = [tangentOf(ground, cut.first), tangentOf(ground, cut.second)];
  if (!first.ok) return first;
  if (!second.ok) return second;
  const along = (tangent: number): Vec2 => (cut.across === "width" ? [tangent, 0] : [0, tangent]);
  const place = placeOf(ground, offset.value);
  // Each side falls off from the ridge; of both planes the lower one stands.
  const { form, beyond } = endOfTwoPlanes(
    ground.placed.bar.shape,
    faceThrough(along(first.value), place),
    faceThrough(along(-second.value), place),
  );
  return closed({ z: outwards(ground, beyond), form });
};
