import type { EndCutOf } from "../../job";
import { err } from "../../kernel";
import { endOnRound } from "../cope";
import { type Cutter, cannotMeet, closed, lengthOf } from "./cutter";

export const cope: Cutter<EndCutOf<"cope">> = (cut, ground) => {
  const { placed, side, others } = ground;
  const other = others.get(cut.neighbour);
  if (!other) return err({ kind: "noNeighbour", cut: "cope" });
  const gap = lengthOf(ground, "gap", cut.gap);
  if (!gap.ok) return gap;
  const end = endOnRound(placed.bar, side, other.bar, gap.value, cut.curve);
  return end.ok ? closed(end.value) : err(cannotMeet("cope", other, end.problem));
};
