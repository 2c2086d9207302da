/** Points of the job as places: their formulas with the present key sizes. */
import type { Vec3 } from "../geometry";
import { type Job, lengthWith, type Sizes } from "../job";
import { sentence } from "../kernel";

/** Places by the id of the point; `onFault` hears of each that cannot be computed. */
export function placedPoints(
  job: Job,
  sizes: Sizes,
  onFault: (id: string, name: string, why: string) => void = () => {},
): ReadonlyMap<string, Vec3> {
  const points = new Map<string, Vec3>();
  for (const point of Object.values(job.points)) {
    const [x, y, z] = point.at.map((text) => lengthWith(sizes, text));
    if (x?.ok && y?.ok && z?.ok) points.set(point.id, [x.value, y.value, z.value]);
    else {
      const broken = [x, y, z].find((value) => value && !value.ok);
      onFault(
        point.id,
        point.name,
        broken && !broken.ok ? sentence(broken.problem) : "it has no coordinates.",
      );
    }
  }
  return points;
}
