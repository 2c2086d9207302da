/** Ends of members that are cut to fit others: what the design says, whatever gap is left for the weld. */
import { kindOf } from "../ends";
import { cross, dot, norm, scale, subtract, toWorld, type Vec3 } from "../geometry";
import { type Home, neighboursOf } from "../job";
import { type MemberSolid, memberSolid, type Shape } from "../shape";
import { sectionProperties } from "../stockroom";
import type { Body } from "./bodies";
import type { Declared, Hold } from "./relations";

/** The ends in a home that are cut against a neighbour there. */
export function declaredIn(shape: Shape, home: Home, bodies: readonly Body[]): readonly Declared[] {
  const numbers = new Map(bodies.map(({ key }, i) => [key, i]));
  return shape.members.flatMap((solid): Declared[] => {
    const a = numbers.get(solid.member.id);
    if (solid.home !== home || a === undefined) return [];
    return (["start", "end"] as const).flatMap((side) =>
      neighboursOf(solid.member[side]).flatMap((id): Declared[] => {
        const [b, neighbour] = [numbers.get(id), memberSolid(shape, id)];
        if (b === undefined || !neighbour) return [];
        // A mitre halves the corner: the neighbour's own end is cut to it as well, and says so itself.
        return [{ a, b, side, saddle: saddleOf(solid, side, neighbour) }];
      }),
    );
  });
}

/** Points round a saddle: more than it takes to hold it. */
const ROUND = 8;

/** Where a coped end lies on the round member that it is cut to; none where it is cut flat. */
function saddleOf(solid: MemberSolid, side: "start" | "end", on: MemberSolid): readonly Hold[] {
  const { z, form } = solid[side];
  if (form.kind !== "cope") return [];
  const out = side === "start" ? -1 : 1;
  const height = kindOf(form).height(form, solid.entry.shape);
  const radius = sectionProperties(solid.entry.shape).extent[0] / 2;
  return Array.from({ length: ROUND }, (_, i): Hold => {
    const angle = (2 * Math.PI * i) / ROUND;
    const [x, y] = [radius * Math.cos(angle), radius * Math.sin(angle)];
    const at = toWorld(solid.frame, [x, y, z + out * height([x, y])]);
    return { at, along: awayFrom(at, on) };
  });
}

/** The direction from the axis of a round member to a point. */
function awayFrom(point: Vec3, { frame }: MemberSolid): Vec3 {
  const from = subtract(point, frame.origin);
  const square = subtract(from, scale(frame.z, dot(from, frame.z)));
  const size = norm(square);
  return size > 1e-9 ? scale(square, 1 / size) : cross(frame.z, frame.x);
}
