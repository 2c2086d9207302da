import { describe, expect, it } from "vitest";
import { buttEnd, type Job, type JobParts, newJob, withEdit } from "../job";
import { sentence } from "../kernel";
import { createPipeline } from "../pipeline";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";

type Members = NonNullable<JobParts["members"]>;
const job = (
  points: NonNullable<JobParts["points"]>,
  members: Members,
  panels: NonNullable<JobParts["panels"]> = {},
): Job => newJob({ info: { code: "T", title: "T" }, points, members, panels });
const rail = (from: string, to: string, rest: Partial<Members[string]> = {}) => ({
  name: `${from}${to}`,
  from,
  to,
  section: "tube",
  ...rest,
});
const said = (one: Job) => resultsOf(one).shape.checks.map((check) => `${check.kind}: ${check.message}`);
const block = (
  name: string,
  origin: readonly [string, string, string],
  rest: Partial<NonNullable<JobParts["panels"]>[string]> = {},
) =>
  ({
    name,
    board: "ply",
    origin,
    lengthAxis: ["1", "0", "0"],
    faceAxis: ["0", "0", "1"],
    length: "300",
    width: "200",
    ...rest,
  }) as NonNullable<JobParts["panels"]>[string];

describe("checks over the frame", () => {
  it("the small frame and its parts touch, but nothing is told", () => {
    expect(said(smallFrame())).toEqual([]);
  });

  it("points nearly joined, with the fix that joins them", () => {
    const near = job(
      { A: ["0", "0", "0"], B: ["500", "0", "0"], C: ["502.5", "0", "0"], D: ["502.5", "400", "0"] },
      { ab: rail("A", "B"), cd: rail("C", "D") },
    );
    const check = resultsOf(near).shape.checks.find((one) => one.kind === "nearPoints");
    expect(check?.message).toBe("Points B and C are 2.5 mm apart, but not joined.");
    if (!check?.fix) throw new Error("there is a fix");
    const joined = withEdit(near, check.fix.edit);
    if (!joined.ok) throw new Error(sentence(joined.problem));
    expect(Object.keys(joined.value.points)).toEqual(["A", "B", "D"]);
    expect(said(joined.value).filter((words) => words.startsWith("nearPoints"))).toEqual([]);
  });

  it("points and ends beside a line that are meant to stand so are told no more, on an open desk too", () => {
    const compute = createPipeline();
    const near = job(
      {
        A: ["0", "0", "0"],
        B: ["500", "0", "0"],
        C: ["502.5", "0", "0"],
        D: ["502.5", "400", "0"],
        E: ["250", "3.2", "0"],
        F: ["250", "300", "0"],
      },
      { ab: rail("A", "B"), cd: rail("C", "D"), ef: rail("E", "F") },
    );
    const told = (now: Job) =>
      compute(now, null, STOCK, []).shape.checks.filter(({ kind }) => kind === "nearPoints");
    const checks = told(near);
    expect(checks.map(({ message }) => message)).toEqual([
      "Points B and C are 2.5 mm apart, but not joined.",
      expect.stringMatching(/^Point E is 3.2 mm from the line of /),
    ]);
    let now = near;
    for (const { meant } of checks) {
      const after = withEdit(now, { kind: "setMeant", id: meant ?? "", meant: true });
      if (!after.ok) throw new Error(sentence(after.problem));
      now = after.value;
    }
    expect(told(now)).toEqual([]);
  });

  it("points across the border of a cell are found, points 5 mm apart are not", () => {
    const at = (x: string) =>
      job(
        { A: ["0", "0", "0"], B: ["4.999", "0", "300"], C: [x, "0", "300"], D: ["900", "0", "0"] },
        { ab: rail("A", "B"), cd: rail("C", "D") },
      );
    expect(said(at("5.001")).some((words) => words.startsWith("nearPoints"))).toBe(true);
    expect(said(at("10.1")).some((words) => words.startsWith("nearPoints"))).toBe(false);
  });

  it("a member drawn twice, whichever way round", () => {
    const twice = job(
      { A: ["0", "0", "0"], B: ["500", "0", "0"], C: ["500", "0", "0"], D: ["0", "0", "0"] },
      { ab: rail("A", "B"), cd: rail("C", "D", { name: "AB" }) },
    );
    expect(said(twice).filter((words) => words.startsWith("drawnTwice"))).toEqual([
      "drawnTwice: Two members named AB are in the same place. Both are counted.",
    ]);
  });

  it("an end cut against a member that does not come that far", () => {
    const far = job(
      { A: ["0", "0", "0"], B: ["0", "0", "500"], C: ["40", "0", "700"], D: ["400", "0", "700"] },
      {
        post: rail("A", "B", { name: "Post" }),
        stay: rail("C", "D", { name: "Stay", start: buttEnd("post") }),
      },
    );
    expect(said(far)).toEqual([
      "meetsNothing: Stay: its start is cut against Post, but does not reach it. Extend Post or change the end cut.",
    ]);
  });

  it("members that run through one another, but not ones that butt or stand side by side", () => {
    const points = {
      A: ["0", "0", "0"],
      B: ["600", "0", "0"],
      C: ["300", "-200", "0"],
      D: ["300", "200", "0"],
      E: ["0", "40", "0"],
      F: ["600", "40", "0"],
    } as const;
    expect(said(job(points, { ab: rail("A", "B"), cd: rail("C", "D") }))).toEqual([
      "overlap: AB and CD run into one another; cut one to the other or move it.",
    ]);
    expect(said(job(points, { ab: rail("A", "B"), ef: rail("E", "F") }))).toEqual([]);
    expect(
      said(
        job(
          { ...points, M: ["300", "0", "0"] },
          { ab: rail("A", "B"), md: rail("M", "D", { start: buttEnd("ab") }) },
        ),
      ),
    ).toEqual([]);
  });

  it("panels that cut into one another, but not into their grooves; turned ones as well", () => {
    const upright = block("Upright", ["100", "0", "0"], {
      lengthAxis: ["0", "0", "-1"],
      faceAxis: ["1", "0", "0"],
      origin: ["100", "0", "400"],
      length: "400",
    });
    const groove = {
      id: "g",
      kind: "groove",
      face: "good",
      from: "right",
      distance: "100",
      width: "18",
      depth: "6",
      stopAtStart: "0",
      stopAtEnd: "0",
    } as const;
    const shelf = block("Shelf", ["112", "0", "100"]);
    expect(said(job({}, {}, { a: upright, b: shelf }))).toEqual([
      "overlap: Upright and Shelf run into one another; cut one to the other or move it.",
    ]);
    expect(said(job({}, {}, { a: { ...upright, work: [groove] }, b: shelf }))).toEqual([]);
    expect(
      said(job({}, {}, { a: { ...upright, work: [{ ...groove, depth: "5" }] }, b: shelf })),
    ).toHaveLength(1);
    expect(
      said(
        job(
          {},
          {},
          {
            a: block("Flat", ["0", "0", "0"]),
            b: block("Turned", ["150", "-100", "5"], { lengthAxis: ["1", "1", "0"] }),
          },
        ),
      ),
    ).toHaveLength(1);
    expect(
      said(
        job(
          {},
          {},
          {
            a: block("Flat", ["0", "0", "0"]),
            b: block("Turned", ["150", "-100", "18"], { lengthAxis: ["1", "1", "0"] }),
          },
        ),
      ),
    ).toEqual([]);
  });
});
