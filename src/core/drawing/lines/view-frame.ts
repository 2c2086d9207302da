/** From where a view looks. */
import { cross, dot, type Frame, type Pose, type Vec3 } from "../../geometry";

/** Axes of a view: `right` and `up` on the paper, `towards` from what is drawn to the viewer. Unit vectors, right-handed. */
export type ViewFrame = { readonly right: Vec3; readonly up: Vec3; readonly towards: Vec3 };

const unit = ([x, y, z]: Vec3): Vec3 => {
  const size = Math.hypot(x, y, z);
  // −0 becomes 0, so that views from named directions have whole numbers.
  return [x / size + 0, y / size + 0, z / size + 0];
};

/** Seen this nearly from above or below, the depth of the job runs up the paper. sin of about half a degree. */
const NEARLY_PLUMB = 0.01;

/** The view from a direction, which has a length; heights run up the paper. */
export function viewFrom(direction: Vec3): ViewFrame {
  const towards = unit(direction);
  const plumb = Math.hypot(towards[0], towards[1]) < NEARLY_PLUMB;
  const right = unit(cross(plumb ? [0, Math.sign(towards[2]), 0] : [0, 0, 1], towards));
  return { right, up: unit(cross(towards, right)), towards };
}

/** The named directions: width runs to the right, depth away from the front, heights up. */
export const VIEW_DIRECTIONS = {
  front: [0, -1, 0],
  back: [0, 1, 0],
  left: [-1, 0, 0],
  right: [1, 0, 0],
  top: [0, 0, 1],
  bottom: [0, 0, -1],
  frontLeft: [-1, -1, 1],
  frontRight: [1, -1, 1],
  backRight: [1, 1, 1],
  backLeft: [-1, 1, 1],
} as const satisfies Readonly<Record<string, Vec3>>;

/** The same view, said in the axes of something else, in the axes that this stands in. */
export function viewIn({ x, y, z }: Frame, { right, up, towards }: ViewFrame): ViewFrame {
  const out = ([a, b, c]: Vec3): Vec3 => [
    a * x[0] + b * y[0] + c * z[0],
    a * x[1] + b * y[1] + c * z[1],
    a * x[2] + b * y[2] + c * z[2],
  ];
  return { right: out(right), up: out(up), towards: out(towards) };
}

/** Where axes of something that stands in the job come to lie in a view: right, up and towards the viewer. */
export function inView({ right, up, towards }: ViewFrame, { origin, x, y, z }: Frame): Frame {
  const seen = (v: Vec3): Vec3 => [dot(right, v), dot(up, v), dot(towards, v)];
  return { origin: seen(origin), x: seen(x), y: seen(y), z: seen(z) };
}

/** The direction to the viewer in the own axes of something that stands in the job. */
export function towardsViewer({ towards }: ViewFrame, { frame }: Pose): Vec3 {
  return [dot(towards, frame.x), dot(towards, frame.y), dot(towards, frame.z)];
}

/** Whether a view looks along an axis of what its axes are said in. */
export const isSquareView = ({ towards }: ViewFrame): boolean =>
  towards.some((part) => Math.abs(Math.abs(part) - 1) < 1e-9);
