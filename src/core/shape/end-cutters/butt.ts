import type { EndCutOf } from "../../job";
import { err } from "../../kernel";
import { endOnPlane, faceMetFirst, planeEnd } from "../ends";
import { type Cutter, cannotMeet, closed, lengthOf } from "./cutter";

export const butt: Cutter<EndCutOf<"butt">> = (cut, ground) => {
  const { placed, side, others } = ground;
  const other = others.get(cut.neighbour);
  if (!other) return err({ kind: "noNeighbour", cut: "butt" });
  const gap = lengthOf(ground, "gap", cut.gap);
  if (!gap.ok) return gap;
  const face = faceMetFirst(placed.bar, side, other.bar);
  if (!face.ok) return err(cannotMeet("butt", other, face.problem));
  const plane = { normal: face.value.normal, offset: face.value.offset + gap.value };
  const end = endOnPlane(placed.bar, side, plane);
  return end.ok ? closed(planeEnd(end.value)) : err(cannotMeet("butt", other, end.problem));
};
