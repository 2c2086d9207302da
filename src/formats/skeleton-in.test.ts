import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { layersOf, skeletonEdit } from "@/core/imports";
import { emptyJob, withEdit } from "@/core/job";
import { sentence } from "@/core/kernel";
import { readSkeleton } from "./skeleton-in";

const read = (text: string) => {
  const found = readSkeleton("frame.dxf", text);
  if (!found.ok) throw new Error(sentence(found.problem));
  return found.value;
};
const fixture = (version: string) => readFileSync(`src/formats/fixtures/skeleton-${version}.dxf`, "utf8");

describe("lines of a drawing as a skeleton", () => {
  // Written by ezdxf 1.4: blocks in a grid, a mirrored block, a closed polyline at a height, an arc, a line without length.
  for (const version of ["R12", "R2000", "R2018"])
    it(`${version}: blocks taken apart, ends joined, what lies double once`, () => {
      const skeleton = read(fixture(version));
      expect(skeleton.unit).toBe(version === "R12" ? null : 1);
      expect(skeleton.skipped).toEqual(["1 arc"]);
      const counts = new Map(layersOf(skeleton.lines).map(({ name, count }) => [name, count]));
      // The line without length is none.
      expect(Object.fromEntries(counts)).toEqual({ LEGS: 5, RAILS: 5 });
      const job = emptyJob({ code: "d", title: "d", unit: "mm" });
      let count = 0;
      const { edit, double } = skeletonEdit(
        skeleton,
        { unit: 1, sections: new Map([["LEGS", "tube"]]) },
        job,
        (kind) => `${kind}${++count}`,
      );
      // One leg stands under the grid of four once more.
      expect(double).toBe(1);
      expect(edit.lines).toHaveLength(9);
      expect(edit.members).toHaveLength(4);
      // Eight corners, and both ends of the brace, which stands mirrored: from x = 1000 back to 700.
      expect(edit.points).toHaveLength(10);
      expect(edit.points.map(({ at }) => at.join(" "))).toContain("700 0 700");
      expect(withEdit(job, edit).ok).toBe(true);
    });

  it("files that are none are told", () => {
    const why = (text: string) => {
      const found = readSkeleton("frame.dxf", text);
      return found.ok ? null : sentence(found.problem);
    };
    expect(why("")).toContain("its end is missing");
    expect(why(fixture("R2000").slice(0, 4000))).toContain("its end is missing");
    expect(why("0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n")).toContain("no straight line");
    const far = fixture("R12").replace(/\n300\.0\n/, "\n1e12\n");
    expect(why(far)).toContain("more than 100 m away");
  });
});
