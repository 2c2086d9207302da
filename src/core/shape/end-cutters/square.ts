import type { EndCutOf } from "../../job";
import { err } from "../../kernel";
import { planeEnd, reachPast, sideAt } from "../ends";
import { type Cutter, cannotMeet, closed, lengthOf } from "./cutter";

export const square: Cutter<EndCutOf<"square">> = (cut, ground) => {
  const { placed, side, joint, others } = ground;
  const offset = lengthOf(ground, "offset", cut.offset);
  if (!offset.ok) return offset;
  let beyond = offset.value;
  if (cut.past !== null) {
    const branch = others.get(cut.past);
    if (!branch) return err({ kind: "noNeighbour", cut: "past" });
    const branchSide = sideAt(branch, joint);
    if (!branchSide) return err({ kind: "doesNotEndThere", name: branch.member.name });
    const past = reachPast(placed.bar, side, joint, branch.bar, branchSide);
    if (!past.ok) return err(cannotMeet("past", branch, past.problem));
    beyond += past.value;
  }
  const z = side === "start" ? -beyond : placed.bar.length + beyond;
  return closed(planeEnd({ z, slope: [0, 0] }));
};
