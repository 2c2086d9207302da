import { describe, expect, it } from "vitest";
import { rowsBetween, toggled } from "./picking";

const rows = ["a", "b", "c", "d"].map((key) => ({ key, ids: [`${key}1`, `${key}2`] }));
const keys = (from: string | null, to: string) => rowsBetween(rows, from, to).map(({ key }) => key);

describe("picking rows", () => {
  it("with Shift takes all from the last one on, whichever way", () => {
    expect(keys("b", "d")).toEqual(["b", "c", "d"]);
    expect(keys("d", "b")).toEqual(["b", "c", "d"]);
    expect(keys("c", "c")).toEqual(["c"]);
  });

  it("with Shift takes one where none was picked before, or that one is gone", () => {
    expect(keys(null, "c")).toEqual(["c"]);
    expect(keys("gone", "c")).toEqual(["c"]);
    expect(keys("a", "gone")).toEqual([]);
  });

  it("with Control adds what is not wholly there, and takes away what is", () => {
    expect(toggled(new Set(["a1", "b1"]), ["a1", "a2"])).toEqual(["a1", "b1", "a2"]);
    expect(toggled(new Set(["a1", "a2", "b1"]), ["a1", "a2"])).toEqual(["b1"]);
    expect(toggled(new Set(["b1"]), [])).toEqual(["b1"]);
  });
});
