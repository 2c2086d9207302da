import { describe, expect, it } from "vitest";
import { slopeOf } from "../ends/ends.fixture";
import { buttEnd, newJob } from "../job";
import { resultsOf } from "../pipeline.fixture";

/** A tube that ends against a plumb post of 40 × 40 which is rolled, at `beside` from its middle. */
function endOf(postRoll: number, barRoll: number, beside: number) {
  const job = newJob({
    info: { code: "T", title: "T" },
    points: {
      P: ["0", "0", "-500"],
      Q: ["0", "0", "500"],
      A: ["-600", `${beside}`, "0"],
      B: ["0", `${beside}`, "0"],
    },
    members: {
      post: { name: "Post", from: "P", to: "Q", section: "tube", roll: `${postRoll}` },
      bar: { name: "Bar", from: "A", to: "B", section: "tube", roll: `${barRoll}`, end: buttEnd("post") },
    },
  });
  const bar = resultsOf(job).shape.members.find(({ member }) => member.id === "bar");
  if (!bar) throw new Error("the bar is computed");
  const [x, y] = slopeOf(bar.end.form);
  return { degrees: (Math.atan(Math.hypot(x, y)) * 180) / Math.PI, z: bar.end.z };
}

/**
 * Worked by hand: the corners of a post of 40 rolled by 20° lie at 28.284 in directions 65°, 155°, 245° and 335°, so its
 * left face runs from (−25.633, 11.954) to (−11.954, −25.633) and its upper one from there to (11.954, 25.633). The axis of
 * the bar at 27 passes beside it. Rolled by 20°, the bar's corners lie 25.633 and 11.954 from its axis: the one at y = 1.367
 * meets the left face at x = −21.78, the one at y = 15.046 the upper face at x = −17.12: later.
 */
describe("a member that butts where its axis passes beside its neighbour", () => {
  it.each([
    [20, 20, 27],
    [20, -20, 27],
    [20, 70, 27],
    [20, 110, 27],
    [-20, 20, -27],
    [-20, -20, -27],
    [20, 20, -27],
    [-20, 20, 27],
  ])(
    "post rolled by %d°, bar by %d°, at %d: is cut along the face that it meets first",
    (post, bar, beside) => {
      expect(endOf(post, bar, beside).degrees).toBeCloseTo(20, 6);
    },
  );

  it("is cut along the face that its axis meets, where that meets one, whatever its corners do", () => {
    // At 13 the axis meets the upper face, the lower corners the left one, earlier.
    const up = endOf(20, 0, 13).degrees;
    const down = endOf(-20, 0, 13).degrees;
    expect([up, down].map((angle) => Math.round(angle)).toSorted()).toEqual([20, 70]);
  });
});
