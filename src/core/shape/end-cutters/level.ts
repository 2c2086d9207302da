import type { EndCutOf } from "../../job";
import { err } from "../../kernel";
import { endOnPlane, planeEnd } from "../ends";
import { type Cutter, closed, lengthOf } from "./cutter";

export const level: Cutter<EndCutOf<"level">> = (cut, ground) => {
  const { placed, side, joint } = ground;
  const offset = lengthOf(ground, "offset", cut.offset);
  if (!offset.ok) return offset;
  const end = endOnPlane(placed.bar, side, { normal: [0, 0, 1], offset: joint[2] + offset.value });
  return end.ok ? closed(planeEnd(end.value)) : err({ kind: "levelMember" });
};
