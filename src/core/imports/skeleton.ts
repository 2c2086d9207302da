/**
 * Lines of a drawing as the skeleton of a frame: points where they meet, a line each, and a member on each line of a layer
 * that has a section. What lies on one another counts once.
 */
import { norm, subtract, type Vec3 } from "../geometry";
import { type InsertEdit, type Job, newInsert, newMember, newPoint, type Point, textOf } from "../job";
import { addTo, grouped } from "../kernel";
import { MM_PER_UNIT, roundTo } from "../measure";
import type { NewId } from "./member-record";

export type SkeletonLine = { readonly from: Vec3; readonly to: Vec3; readonly layer: string };
export type Skeleton = {
  readonly name: string;
  /** Millimetres of one unit; null: the file tells none. */
  readonly unit: number | null;
  /** In units of the file. */
  readonly lines: readonly SkeletonLine[];
  /** What is no straight line and stays behind, such as "2 arcs". */
  readonly skipped: readonly string[];
};

/** mm. Ends nearer than this are one point; shorter lines are none. */
const MEET = 0.1;

export type SkeletonChoices = {
  /** Millimetres of one unit of the file. */
  readonly unit: number;
  /** The entry of the stockroom for each layer; layers without one become guide lines. */
  readonly sections: ReadonlyMap<string, string>;
};

/** Layers with how much stands on each, in order of their names. */
export function layersOf(
  drawn: readonly { readonly layer: string }[],
): readonly { readonly name: string; readonly count: number }[] {
  return [...grouped(drawn, ({ layer }) => layer)]
    .map(([name, own]) => ({ name, count: own.length }))
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** The records; `double`: how many lines lay on others and were left out. */
export function skeletonEdit(
  { lines }: Skeleton,
  { unit, sections }: SkeletonChoices,
  job: Job,
  newId: NewId,
): { readonly edit: InsertEdit; readonly double: number } {
  const text = (mm: number) => textOf(roundTo(mm / MM_PER_UNIT[job.info.job.unit], 7));
  const points: Point[] = [];
  const cells = new Map<string, { readonly place: Vec3; readonly point: Point }[]>();
  let named = Object.keys(job.points).length;
  const pointAt = (place: Vec3): Point => {
    const cell = place.map((value) => Math.floor(value / (4 * MEET)));
    for (let k = 0; k < 27; k++) {
      const near = [(k % 3) - 1, (Math.floor(k / 3) % 3) - 1, Math.floor(k / 9) - 1];
      const key = cell.map((value, i) => value + (near[i] ?? 0)).join();
      const found = cells.get(key)?.find((one) => norm(subtract(one.place, place)) <= MEET);
      if (found) return found.point;
    }
    const point = newPoint(newId("point"), `i${++named}`, [text(place[0]), text(place[1]), text(place[2])]);
    points.push(point);
    const key = cell.join();
    addTo(cells, key, { place, point });
    return point;
  };
  const made: InsertEdit["lines"] = [];
  const members: InsertEdit["members"] = [];
  const known = new Set<string>();
  let double = 0;
  for (const { from, to, layer } of lines) {
    const ends = [from, to].map(([x, y, z]): Vec3 => [x * unit, y * unit, z * unit]) as [Vec3, Vec3];
    if (norm(subtract(ends[1], ends[0])) <= MEET) continue;
    const [a, b] = [pointAt(ends[0]), pointAt(ends[1])];
    if (a === b) continue;
    const key = [a.id, b.id].sort().join();
    if (known.has(key)) {
      double++;
      continue;
    }
    known.add(key);
    const line = { id: newId("line"), from: a.id, to: b.id } as InsertEdit["lines"][number];
    made.push(line);
    const section = sections.get(layer);
    if (section === undefined) continue;
    const name = layer.slice(0, 60) || "Member";
    members.push(newMember(newId("member"), line.id, { name, from: "", to: "", section }));
  }
  return { edit: newInsert("a skeleton", { points, lines: made, members }), double };
}
