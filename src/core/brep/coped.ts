/** Ends that fit round a cylinder, for the borders of a bar. */
import type { CopeEnd } from "../ends";
import type { Vec2 } from "../geometry";
import type { SectionShape } from "../stockroom";
import type { RoundEnd } from "./prism";

/** mm. Nearer than this the tube and what it meets are of one radius, on one axis: as near as places are written. */
const SAME = 1e-6;
/** Of the greatest radius: nearer than this to touching the side of what is met, the curve turns too sharply. */
const TOUCHING = 1e-6;

/** Radians. A curve whose sharpest turn is this wide is even enough. */
const EVEN = 0.6;

/**
 * Where a curve is parted that turns sharply about an angle: the root in it has its zero `width` radians beside the real angles, and
 * parts are as long as they are far from there.
 */
function stopsAbout(angle: number, width: number): readonly number[] {
  const stops: number[] = [];
  for (let away = width; away < EVEN; away *= 3) stops.push(angle - away, angle + away);
  return stops;
}

/**
 * A cope at z on the axis as a cylinder and the curves on it, which run as 2-computation.md (section 8) says, two flat ones round
 * what is as wide; null: it follows no cylinder, or touches its side beside the axis. `side`: 1 at the end of the bar, -1 at its start.
 */
export function copedEnd(form: CopeEnd, z: number, side: 1 | -1, section: SectionShape): RoundEnd | null {
  const { u, offset, cos, sin, radius, curve } = form;
  if (curve !== "surface") return null;
  const v: Vec2 = [-u[1], u[0]];
  const beside = offset[0] * v[0] + offset[1] * v[1];
  const outer = section.size[0] / 2;
  const isEqual = Math.abs(radius - outer) < SAME && Math.abs(beside) < SAME;
  if (!isEqual && outer + Math.abs(beside) > radius * (1 - TOUCHING)) return null;
  const crossesFlat = (own: number) => isEqual && Math.abs(own - radius) < SAME;
  const turn = Math.atan2(u[1], u[0]);
  return {
    on: [-offset[0], -offset[1], z],
    axis: [sin * u[0], sin * u[1], -side * cos],
    radius,
    heightAt([x, y]) {
      const [a, c] = [x * u[0] + y * u[1], x * v[0] + y * v[1]];
      const own = Math.hypot(x, y);
      const root = crossesFlat(own) ? Math.abs(a) : Math.sqrt(radius * radius - (beside + c) ** 2);
      return z - (side * (root + a * cos)) / sin;
    },
    parted: ({ radius: own }) =>
      crossesFlat(own)
        ? [turn + Math.PI / 2, turn - Math.PI / 2]
        : [
            ...stopsAbout(turn + Math.PI / 2, Math.acosh((radius - beside) / own)),
            ...stopsAbout(turn - Math.PI / 2, Math.acosh((radius + beside) / own)),
          ],
    flatOver({ centre, radius: own }, angle) {
      if (!crossesFlat(own)) return null;
      const [x, y] = [centre[0] + own * Math.cos(angle), centre[1] + own * Math.sin(angle)];
      const rise = (-side * (Math.sign(x * u[0] + y * u[1]) + cos)) / sin;
      return { height: z, slope: [rise * u[0], rise * u[1]] };
    },
    over({ centre, radius: own }, angle) {
      const [x, y] = [own * Math.cos(angle), own * Math.sin(angle)];
      const place: Vec2 = [centre[0] + x, centre[1] + y];
      // Along u and v, with how they change by the angle.
      const [a, c] = [place[0] * u[0] + place[1] * u[1], place[0] * v[0] + place[1] * v[1]];
      const [a1, c1] = [-y * u[0] + x * u[1], -y * v[0] + x * v[1]];
      const [a2, c2] = [-x * u[0] - y * u[1], -x * v[0] - y * v[1]];
      const e = beside + c;
      const s = Math.sqrt(radius * radius - e * e);
      const [q1, q2] = [-2 * e * c1, -2 * c1 * c1 - 2 * e * c2];
      const s1 = q1 / (2 * s);
      const s2 = q2 / (2 * s) - (q1 * q1) / (4 * s * s * s);
      return [
        [place[0], place[1], z - (side * (s + a * cos)) / sin],
        [-y, x, -(side * (s1 + a1 * cos)) / sin],
        [-x, -y, -(side * (s2 + a2 * cos)) / sin],
      ];
    },
  };
}
