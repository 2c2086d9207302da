/** Where a round member meets another round one, and the cope that fits it there (2-computation.md, section 8). */
import { type CopeCurve, type CopeEnd, radiiOf } from "../ends";
import { cross, dot, norm, scale, subtract, type Vec2, type Vec3 } from "../geometry";
import { err, ok, PARALLEL_TOLERANCE, POINT_TOLERANCE_MM, type Result } from "../kernel";
import type { Bar, EndSide } from "./bar";
import type { MeetFault } from "./fault";

/** Where a bar's axis meets that of a round neighbour, and the end that fits round it there. */
export function endOnRound(
  bar: Bar,
  side: EndSide,
  header: Bar,
  gap: number,
  curve: CopeCurve,
): Result<{ readonly z: number; readonly form: CopeEnd }, MeetFault> {
  const own = radiiOf(bar.shape);
  const met = radiiOf(header.shape);
  if (!own) return err("branchNotRound");
  if (!met) return err("headerNotRound");
  const { x, y, z, origin } = bar.frame;
  const b = side === "start" ? z : scale(z, -1);
  const along = header.frame.z;
  const h = dot(along, b) < 0 ? scale(along, -1) : along;
  const cos = Math.max(0, dot(h, b));
  const sin = norm(cross(h, b));
  if (sin < PARALLEL_TOLERANCE * 1e3) return err("parallel");
  const u = scale(subtract(h, scale(b, dot(h, b))), 1 / sin);
  const v = cross(b, u);
  const from = subtract(origin, header.frame.origin);
  const offset = dot(from, v);
  const radius = met.outer + gap;
  if (Math.abs(offset) + own.outer > radius + POINT_TOLERANCE_MM) return err("notAllRound");
  const normal = cross(v, h);
  const foot = -dot(from, normal) / dot(z, normal);
  const flat = (w: Vec3): Vec2 => [clean(dot(w, x)), clean(dot(w, y))];
  return ok({
    z: foot,
    form: { kind: "cope", u: flat(u), offset: flat(scale(v, offset)), cos: clean(cos), sin, radius, curve },
  });
}

const clean = (value: number) => (Math.abs(value) < 1e-12 ? 0 : value);
