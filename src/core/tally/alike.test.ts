import { describe, expect, it } from "vitest";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { alike } from ".";

describe("what is like the selection", () => {
  const { tally } = resultsOf(smallFrame());
  const { rows } = tally;
  const [first] = rows;
  const one = first?.pieces[0]?.id ?? "";

  it("of the same row are all its pieces, and no others", () => {
    expect(alike(rows, new Set([one]), "row")).toEqual(first?.pieces.map(({ id }) => id));
  });

  it("of the same stock, and of the same name, are the pieces of all rows that have it", () => {
    for (const [by, pick] of [
      ["stock", (row: (typeof rows)[number]) => row.stock],
      ["name", (row: (typeof rows)[number]) => row.name],
    ] as const) {
      const wanted = rows.filter((row) => first && pick(row) === pick(first) && row.kind === first.kind);
      const found = alike(rows, new Set([one]), by);
      expect(found).toEqual(wanted.flatMap(({ pieces }) => pieces.map(({ id }) => id)));
      expect(found.length).toBeGreaterThan(1);
    }
  });

  it("of nothing is nothing", () => {
    expect(alike(rows, new Set(["gone"]), "stock")).toEqual([]);
  });
});
