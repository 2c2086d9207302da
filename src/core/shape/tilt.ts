/** A panel that is turned about one of its edges. */
import { add, type Frame, scale, toWorld, type Vec3 } from "../geometry";
import type { PanelEdge } from "../job";

type Seated = { readonly frame: Frame; readonly length: number; readonly width: number };

/**
 * The frame of a panel after a turn about one of its edges on its other face, in radians: above zero the opposite edge rises to
 * the side of its good face. Right-handed again, and the edge stays where it is.
 */
export function tilted({ frame, length, width }: Seated, edge: PanelEdge, angle: number): Frame {
  const { x, y, z } = frame;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  /** An axis that points away from the edge, raised to z; and the z that goes with it. */
  const raised = (away: Vec3, sign: 1 | -1) => ({
    axis: add(scale(away, cos), scale(z, sign * sin)),
    z: add(scale(z, cos), scale(away, -sign * sin)),
  });
  switch (edge) {
    case "front": {
      const turned = raised(y, 1);
      return { ...frame, y: turned.axis, z: turned.z };
    }
    case "back": {
      const turned = raised(y, -1);
      const origin = add(toWorld(frame, [0, width, 0]), scale(turned.axis, -width));
      return { origin, x, y: turned.axis, z: turned.z };
    }
    case "left": {
      const turned = raised(x, 1);
      return { ...frame, x: turned.axis, z: turned.z };
    }
    case "right": {
      const turned = raised(x, -1);
      const origin = add(toWorld(frame, [length, 0, 0]), scale(turned.axis, -length));
      return { origin, x: turned.axis, y, z: turned.z };
    }
    default:
      return edge satisfies never;
  }
}
