import { describe, expect, it } from "vitest";
import { itemFaultWords } from "./item-fault";

describe("what is wrong with an item of a page, in words", () => {
  it("speaks of one piece as of one", () => {
    expect(itemFaultWords({ kind: "stepPiecesGone", count: 1 })).toBe(
      "1 piece of this step is gone. Take it out of the step.",
    );
    expect(itemFaultWords({ kind: "stepPiecesGone", count: 3 })).toBe(
      "3 pieces of this step are gone. Take them out of the step.",
    );
    expect(itemFaultWords({ kind: "piecesLoose", count: 1 })).toBe(
      "1 piece comes near to nothing that is there. Put it into a later step.",
    );
    expect(itemFaultWords({ kind: "piecesInTheWay", count: 2 })).toBe(
      "2 pieces cannot get to their places: what is there already is in the way. Put them into an earlier step.",
    );
  });

  it("tells sizes in the unit of the page, and how many rows are left", () => {
    const style = { unit: "in", format: { kind: "fraction", denominator: 16 } } as const;
    expect(itemFaultWords({ kind: "stepsUnequal", least: 127, most: 139.7, style })).toMatch(
      /^The steps of this size are not equal any more: from 5 to 5 1\/2/,
    );
    expect(itemFaultWords({ kind: "listTooLong", left: 1, what: "column" })).toMatch(
      /^1 column has no room here/,
    );
  });
});
