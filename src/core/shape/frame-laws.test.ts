/** The checks over points and lines against looking at every pair. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cross, distance, dot, norm, subtract, type Vec3 } from "../geometry";
import { type Job, newJob } from "../job";
import { NEAR_TWIN_LENGTH_MM, SAME_PLACE_MM } from "../kernel";
import { countedRuns } from "../kernel/law-runs.fixture";
import { resultsOf } from "../pipeline.fixture";

/** Corners of a lattice, over the borders of cells, each missed by little or nothing. */
const near = (...corners: readonly number[]) =>
  fc
    .tuple(fc.constantFrom(...corners), fc.constantFrom(0, 0, 0, 0.004, 1.5, 3, 4.9, 6))
    .map(([corner, missed]) => corner + missed);
const places = fc.array(fc.tuple(near(-1000, 0, 1000), near(0, 998), near(98)), {
  minLength: 9,
  maxLength: 30,
});
const ends = fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat(2)), { minLength: 15, maxLength: 40 });

type Laid = { readonly id: string; readonly ends: readonly [string, string]; readonly home: string | null };
type Design = {
  readonly job: Job;
  readonly at: ReadonlyMap<string, Vec3>;
  readonly laid: readonly Laid[];
};

/** Points by turns in the job and in two assemblies, members between points of one home. */
function designOf(places: readonly Vec3[], picks: readonly (readonly [number, number, number])[]): Design {
  const homes = [null, "first", "second"] as const;
  const named = places.map((place, i) => ({ id: `P${i}`, place, home: homes[i % 3] ?? null }));
  const laid = picks.flatMap(([a, b, h], i): readonly Laid[] => {
    const home = homes[h] ?? null;
    const own = named.filter((one) => one.home === home);
    const [from, to] = [own[a % Math.max(1, own.length)], own[b % Math.max(1, own.length)]];
    if (!from || !to || distance(from.place, to.place) < 1) return [];
    return [{ id: `m${i}`, ends: [from.id, to.id], home }];
  });
  const plain = newJob({
    info: { code: "T", title: "T" },
    points: Object.fromEntries(
      named.map(({ id, place }) => [id, [`${place[0]}`, `${place[1]}`, `${place[2]}`]]),
    ),
    members: Object.fromEntries(
      laid.map(({ id, ends: [from, to] }) => [id, { name: id, from, to, section: "tube" }]),
    ),
    assemblies: { first: { name: "First" }, second: { name: "Second" } },
  });
  const points = Object.fromEntries(
    Object.values(plain.points).map((point) => {
      const home = named.find(({ id }) => id === point.id)?.home ?? null;
      return [point.id, { ...point, assembly: home }];
    }),
  ) as Job["points"];
  return { job: { ...plain, points }, at: new Map(named.map(({ id, place }) => [id, place])), laid };
}

const placeOf = ({ at }: Design, id: string): Vec3 => at.get(id) ?? [0, 0, 0];
const isNear = (mm: number) => mm > SAME_PLACE_MM && mm < NEAR_TWIN_LENGTH_MM;

function besideOf(design: Design, id: string, { ends: [from, to] }: Laid): number | null {
  const [a, b] = [placeOf(design, from), placeOf(design, to)];
  const [run, away] = [subtract(b, a), subtract(placeOf(design, id), a)];
  const along = dot(away, run) / norm(run);
  if (along < NEAR_TWIN_LENGTH_MM || along > norm(run) - NEAR_TWIN_LENGTH_MM) return null;
  return norm(cross(away, run)) / norm(run);
}

describe("checks over points and lines, as looking at every pair finds them", () => {
  it("points nearly joined, ends beside lines and members drawn twice, each within its home", () => {
    const met = { points: 0, lines: 0, twice: 0 };
    fc.assert(
      fc.property(places, ends, (places, picks) => {
        const design = designOf(places, picks);
        const { job, laid } = design;
        const { checks } = resultsOf(job).shape;
        const carrying = [...new Set(laid.flatMap(({ ends }) => ends))];
        const homeOf = (id: string) => job.points[id]?.assembly ?? null;
        const told = (kind: string, of: "points" | "line") =>
          checks.filter(
            (one) => one.kind === kind && (one.records[1]?.startsWith("P") ? "points" : "line") === of,
          );

        const pairs = carrying.flatMap((a) =>
          carrying
            .filter(
              (b) =>
                a < b && homeOf(a) === homeOf(b) && isNear(distance(placeOf(design, a), placeOf(design, b))),
            )
            .map((b) => `${a} ${b}`),
        );
        const toldPairs = told("nearPoints", "points").map(({ records }) => [...records].sort().join(" "));
        expect(toldPairs.sort()).toEqual(pairs.sort());

        const linesBy = (id: string) =>
          laid.filter(
            (line) =>
              line.home === homeOf(id) && !line.ends.includes(id) && isNear(besideOf(design, id, line) ?? 0),
          );
        const beside = told("nearPoints", "line");
        expect(beside.map(({ records }) => records[0]).sort()).toEqual(
          carrying.filter((id) => linesBy(id).length > 0).sort(),
        );
        for (const { records } of beside)
          expect(linesBy(records[0] ?? "").map(({ id }) => id)).toContain(records[1]);

        const rounded = (id: string) =>
          placeOf(design, id)
            .map((mm) => Math.round(mm * 100))
            .join(",");
        const keyOf = ({ ends, home }: Laid) => `${home} ${ends.map(rounded).sort().join(" ")}`;
        const seen = new Map<string, string>();
        const doubled = laid.flatMap((line) => {
          const first = seen.get(keyOf(line));
          if (first === undefined) seen.set(keyOf(line), line.id);
          return first === undefined ? [] : [`${first} ${line.id}`];
        });
        expect(told("drawnTwice", "line").map(({ records }) => records.join(" "))).toEqual(doubled);

        met.points += pairs.length;
        met.lines += beside.length;
        met.twice += doubled.length;
      }),
      countedRuns(300),
    );
    expect(Math.min(met.points, met.lines, met.twice)).toBeGreaterThan(10);
  });
});
