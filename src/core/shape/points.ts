/** Points of the job as places: their formulas with the present key sizes. */
import type { Vec3 } from "../geometry";
import { type Job, lengthWith, type Point, type Sizes } from "../job";
import { ok, type Problem, type Result } from "../kernel";
import { newShapeMemory, type ShapeMemory } from "./memory";

type How = {
  /** Hears of each that cannot be computed. */
  readonly onFault?: (id: string, name: string, why: Problem) => void;
  readonly memory?: Pick<ShapeMemory, "point">;
};

/** Places by the id of the point. */
export function placedPoints(
  job: Job,
  sizes: Sizes,
  { onFault, memory = newShapeMemory() }: How = {},
): ReadonlyMap<string, Vec3> {
  const points = new Map<string, Vec3>();
  for (const point of Object.values(job.points)) {
    const place = memory.point(point, [sizes], () => placeOfPoint(point, sizes));
    if (place.ok) points.set(point.id, place.value);
    else onFault?.(point.id, point.name, place.problem);
  }
  return points;
}

/** Written out for each coordinate: a large job has thousands of points after every change of a size. */
export function placeOfPoint({ at: [x, y, z] }: Point, sizes: Sizes): Result<Vec3, Problem> {
  const width = lengthWith(sizes, x);
  if (!width.ok) return width;
  const depth = lengthWith(sizes, y);
  if (!depth.ok) return depth;
  const height = lengthWith(sizes, z);
  if (!height.ok) return height;
  return ok([width.value, depth.value, height.value]);
}
