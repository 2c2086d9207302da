import { describe, expect, it } from "vitest";
import { mitreEnd, newJob } from "../job";
import { resultsOf, STOCK } from "../pipeline.fixture";
import { layoutTasks } from ".";

describe("the ends of a piece as a saw sees them", () => {
  const job = newJob({
    info: { code: "T", title: "T" },
    points: { A: ["0", "0", "0"], B: ["600", "0", "0"], C: ["600", "400", "0"], D: ["600", "400", "900"] },
    members: {
      one: { name: "One end", from: "A", to: "B", section: "tube", end: mitreEnd("two") },
      two: { name: "Two ends", from: "B", to: "C", section: "tube", start: mitreEnd("one") },
      post: { name: "Square", from: "C", to: "D", section: "tube" },
    },
  });
  const task = layoutTasks(resultsOf(job).tally, STOCK)[0];
  if (task?.kind !== "bars") throw new Error("tubes are laid out on bars");
  const endsOf = (name: string) => {
    const i = task.pieces.findIndex((piece) => piece.name === name);
    return task.problem.pieces[i]?.ends ?? null;
  };

  it("are told where one of them leans, whichever it is", () => {
    // A tube of 40 mitred at 45°, the long points on the outer side.
    for (const name of ["One end", "Two ends"]) {
      const ends = endsOf(name);
      expect(ends?.depth).toBe(40);
      expect(ends?.angles.map(Math.abs).toSorted()).toEqual([0, 45]);
    }
    expect(endsOf("Square")).toBeNull();
  });
});
