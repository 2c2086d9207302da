/** Double mitres, free angles and points: from the joint to the list, against plane geometry. */
import { describe, expect, it } from "vitest";
import { slopeOf } from "../ends/ends.fixture";
import type { Vec3 } from "../geometry";
import { isClosed } from "../geometry/mesh.fixture";
import {
  doubleMitreEnd,
  type EndCut,
  type Job,
  type JobParts,
  type Member,
  newJob,
  squareEnd,
  withEdit,
} from "../job";
import { at } from "../kernel";
import { layoutTasks } from "../layout";
import { resultsOf, STOCK } from "../pipeline.fixture";
import { endSurface } from "./ends";
import { meshOf } from "./mesh.fixture";

/** Three members of one section that end at the origin, each with a double mitre against the two others. */
function hub(directions: readonly [Vec3, Vec3, Vec3], gap = "0", section = "tube"): Job {
  const ids = ["a", "b", "c"] as const;
  const place = (p: Vec3) => p.map((value) => value.toFixed(9)) as [string, string, string];
  const members: NonNullable<JobParts["members"]> = Object.fromEntries(
    ids.map((id, i) => [
      id,
      {
        name: "Arm",
        from: "J",
        to: id.toUpperCase(),
        section,
        start: doubleMitreEnd(at(ids, (i + 1) % 3), at(ids, (i + 2) % 3), gap),
      },
    ]),
  );
  return newJob({
    info: { code: "T", title: "Hub" },
    points: { J: ["0", "0", "0"], A: place(directions[0]), B: place(directions[1]), C: place(directions[2]) },
    members,
  });
}
const solidOf = (job: Job, id: string) => {
  const { shape } = resultsOf(job);
  const solid = shape.members.find(({ member }) => member.id === id);
  if (!solid) throw new Error(JSON.stringify(shape.uncomputed.map(({ why }) => why)));
  return solid;
};

const s3 = Math.sqrt(3) / 2;
const FLAT_HUB = [
  [500, 0, 0],
  [-250, 500 * s3, 0],
  [-250, -500 * s3, 0],
] as const satisfies readonly [Vec3, Vec3, Vec3];
const CUBE_CORNER = [
  [500, 0, 0],
  [0, 500, 0],
  [0, 0, 500],
] as const satisfies readonly [Vec3, Vec3, Vec3];

describe("a double mitre", () => {
  it("of three arms at 120° in one plane is a point of 30° from square on either side, its tip in the joint", () => {
    const solid = solidOf(hub(FLAT_HUB), "a");
    expect(solid.start.z).toBeWithinMm(0, 1e-9);
    const { form } = solid.start;
    if (form.kind !== "twoPlanes") throw new Error("two planes meet there");
    // By plane geometry: arms that meet at 120° are mitred at 60° from their axis, 30° from square.
    for (const { slope, beyond } of form.faces) {
      expect(Math.hypot(...slope)).toBeWithinMm(Math.tan(Math.PI / 6), 1e-9);
      expect(beyond).toBe(0);
    }
    expect(Math.hypot(form.faces[0].slope[0] + form.faces[1].slope[0])).toBeWithinMm(0, 1e-9);
    const { lengths } = solid;
    expect(lengths.cut).toBeWithinMm(500, 1e-9);
    expect(lengths.longestEdge).toBeWithinMm(500, 1e-9);
    expect(lengths.shortestEdge).toBeWithinMm(500 - 20 * Math.tan(Math.PI / 6), 1e-6);
    expect(solid.remarks).toEqual([]);
    expect(resultsOf(hub(FLAT_HUB)).shape.checks).toEqual([]);
  });

  it("at the corner of a cube stands over its axis by what the rounded corner of the tube leaves of 20", () => {
    const { lengths, start } = solidOf(hub(CUBE_CORNER), "a");
    expect(start.z).toBeWithinMm(0, 1e-9);
    // Corner radius 6 (EN 10219-2): its middle lies 14 + 6·cos 45° from the axis in both directions.
    expect(lengths.cut).toBeWithinMm(500 + 14 + 6 * Math.SQRT1_2, 1e-9);
    expect(lengths.shortestEdge).toBeWithinMm(480, 1e-9);
  });

  it.each([
    ["in one plane", FLAT_HUB],
    ["at the corner of a cube", CUBE_CORNER],
  ] as const)(
    "three of them %s meet face to face: each point of a cut lies on the cut of a neighbour",
    (_, arms) => {
      const job = hub(arms);
      const { shape } = resultsOf(job);
      for (const id of ["a", "b", "c"]) {
        const mesh = meshOf(shape, id);
        if (!mesh) throw new Error("it is drawn");
        expect(isClosed(mesh)).toBe(true);
        // The vertices of the end lie nearer to the joint than the arm is long by half.
        const own = mesh.vertices.filter((p) => Math.hypot(...p) < 100);
        expect(own.length).toBeGreaterThan(8);
        for (const p of own) {
          const on = shape.members.filter((other) => {
            if (other.member.id === id) return false;
            const { frame } = other;
            const from = [p[0] - frame.origin[0], p[1] - frame.origin[1], p[2] - frame.origin[2]] as const;
            const along = (axis: Vec3) => from[0] * axis[0] + from[1] * axis[1] + from[2] * axis[2];
            const z = endSurface(other, "start").height([along(frame.x), along(frame.y)]);
            return Math.abs(along(frame.z) - z) < 1e-6;
          });
          expect(on.length).toBeGreaterThan(0);
        }
      }
    },
  );

  it("stands back by half of the gap, measured square to its planes", () => {
    const solid = solidOf(hub(FLAT_HUB, "2"), "a");
    // 1 mm square to a plane at 30° from square is 1 / cos 30° along the axis.
    expect(solid.lengths.cut).toBeWithinMm(500 - 1 / Math.cos(Math.PI / 6), 1e-9);
  });

  it("its three arms are one row, cut tip to tip on the bar, with both angles in the list", () => {
    const { tally, cutList } = resultsOf(hub(FLAT_HUB));
    expect(tally.rows.map(({ count, hands }) => [count, hands.opposite])).toEqual([[3, 0]]);
    const task = at(layoutTasks(tally, STOCK), 0);
    if (task.kind !== "bars") throw new Error("tubes are laid out on bars");
    expect(task.problem.pieces).toEqual([
      expect.objectContaining({ length: 500, qty: 3, ends: null, leans: [true, false] }),
    ]);
    const [row] = cutList.groups.flatMap(({ rows }) => rows);
    expect([row?.cells["end1"]?.text, row?.cells["end2"]?.text]).toEqual(["30 + 30", "0"]);
  });

  it("loses its neighbours one by one: it is a mitre, then square", () => {
    const removed = (job: Job, id: string): Job => {
      const after = withEdit(job, { kind: "remove", ids: [id] });
      if (!after.ok) throw new Error("it can be removed");
      return after.value;
    };
    const job = hub(FLAT_HUB, "2");
    const one = removed(job, "b");
    expect(one.members["a"]?.start).toEqual({ kind: "mitre", neighbour: "c", gap: "2" });
    expect(removed(one, "c").members["a"]?.start).toEqual(squareEnd());
    // With a condition that does not hold, the same for the time being.
    const without: Job = {
      ...job,
      members: { ...job.members, b: { ...(job.members["b"] as Member), when: "no" } },
    };
    expect(solidOf(without, "a").start.form.kind).toBe("plane");
    expect(without.members["a"]?.start.kind).toBe("doubleMitre");
  });

  it("says which neighbour it cannot meet", () => {
    const straight = hub([
      [500, 0, 0],
      [500, 1e-9, 0],
      [0, 500, 0],
    ]);
    const why = resultsOf(straight).shape.uncomputed.find(({ id }) => id === "a")?.why;
    expect(why).toEqual({
      kind: "end",
      side: "start",
      why: { kind: "cannotMeet", cut: "mitre", name: "Arm", why: "onOneAnother" },
    });
  });
});

const bar = (end: EndCut, more: { readonly cardinal?: number; readonly roll?: string } = {}): Job =>
  newJob({
    info: { code: "T", title: "Bar" },
    points: { P: ["0", "0", "0"], Q: ["500", "0", "0"] },
    members: { a: { name: "Bar", from: "P", to: "Q", section: "lath", end, ...more } },
  });

describe("ends by their own angles", () => {
  it("at 30° across the width, through the line's point wherever the section lies on it", () => {
    const end: EndCut = { kind: "angled", acrossWidth: "30", acrossHeight: "0", offset: "0" };
    const centred = solidOf(bar(end), "a");
    expect(slopeOf(centred.end.form)).toEqual([expect.closeTo(Math.tan(Math.PI / 6), 9), 0]);
    // A lath of 45 reaches 22.5 to its long side.
    expect(centred.lengths.cut).toBeWithinMm(500 + 22.5 * Math.tan(Math.PI / 6), 1e-9);
    // With a corner of the section on the line the plane still passes through the point: the long side or the short one is 500.
    const lengths = ([1, 3, 7, 9] as const).map((cardinal) => solidOf(bar(end, { cardinal }), "a").lengths);
    expect(
      lengths.map(({ longestEdge }) => Math.round(longestEdge * 1e6) / 1e6).filter((l) => l === 500),
    ).toHaveLength(2);
    expect(
      lengths.map(({ shortestEdge }) => Math.round(shortestEdge * 1e6) / 1e6).filter((l) => l === 500),
    ).toHaveLength(2);
  });

  it("to a point of two unequal angles, its ridge on the line; what is too steep is refused", () => {
    const end: EndCut = { kind: "pointed", across: "height", first: "60", second: "45", offset: "10" };
    const { lengths } = solidOf(bar(end), "a");
    expect(lengths.cut).toBeWithinMm(510, 1e-9);
    // Half of 20 falls off at 60° on one side: 10·tan 60°.
    expect(lengths.shortestEdge).toBeWithinMm(510 - 10 * Math.tan(Math.PI / 3), 1e-9);
    const steep = resultsOf(bar({ ...end, first: "88" })).shape.uncomputed.map(({ why }) => why);
    expect(steep).toEqual([{ kind: "end", side: "end", why: { kind: "tooSteep", degrees: 88, most: 85 } }]);
  });
});
