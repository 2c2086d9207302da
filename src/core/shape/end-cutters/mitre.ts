/** Mitres: in the plane that halves the corner with one neighbour, or in those of two. */
import { distance } from "../../geometry";
import type { EndCutOf } from "../../job";
import { err, ok, type Result } from "../../kernel";
import type { PlacedMember } from "../bar";
import {
  endOnPlane,
  endOnTwoPlanes,
  mitreCloses,
  mitrePlane,
  planeEnd,
  sideAt,
  type WorldPlane,
} from "../ends";
import type { EndFault } from "../fault";
import { type Cutter, cannotMeet, type EndGround, lengthOf } from "./cutter";

type Halved = { readonly other: PlacedMember; readonly plane: WorldPlane; readonly open: boolean };

/** The plane that halves the corner with a neighbour, moved back by half of the gap. */
function halvedCorner(ground: EndGround, neighbour: string, gap: number): Result<Halved, EndFault> {
  const { placed, side, joint, others } = ground;
  const other = others.get(neighbour);
  if (!other) return err({ kind: "noNeighbour", cut: "mitre" });
  const otherSide = sideAt(other, joint);
  if (!otherSide) {
    const apart = Math.min(distance(other.from, joint), distance(other.to, joint));
    return err({ kind: "endsApart", name: other.member.name, apart });
  }
  const plane = mitrePlane(placed.bar, side, other.bar, otherSide, joint);
  if (!plane.ok) return err(cannotMeet("mitre", other, plane.problem));
  // The normal points into this member: each of the two stands back by half of the gap.
  const { normal, offset } = plane.value;
  const open = !mitreCloses(placed.bar, other.bar, plane.value);
  return ok({ other, plane: { normal, offset: offset + gap / 2 }, open });
}

export const mitre: Cutter<EndCutOf<"mitre">> = (cut, ground) => {
  const gap = lengthOf(ground, "gap", cut.gap ?? "0");
  if (!gap.ok) return gap;
  const halved = halvedCorner(ground, cut.neighbour, gap.value);
  if (!halved.ok) return halved;
  const { other, plane, open } = halved.value;
  const end = endOnPlane(ground.placed.bar, ground.side, plane);
  return end.ok ? ok({ end: planeEnd(end.value), open }) : err(cannotMeet("mitre", other, end.problem));
};

export const doubleMitre: Cutter<EndCutOf<"doubleMitre">> = (cut, ground) => {
  const gap = lengthOf(ground, "gap", cut.gap);
  if (!gap.ok) return gap;
  const first = halvedCorner(ground, cut.neighbours[0], gap.value);
  if (!first.ok) return first;
  const second = halvedCorner(ground, cut.neighbours[1], gap.value);
  if (!second.ok) return second;
  const end = endOnTwoPlanes(ground.placed.bar, ground.side, [first.value.plane, second.value.plane]);
  if (!end.ok) return err(cannotMeet("mitre", first.value.other, end.problem));
  return ok({ end: end.value, open: first.value.open || second.value.open });
};
