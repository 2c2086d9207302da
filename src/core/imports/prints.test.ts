/** What a file said of holes is kept one by one, whether they stand in rows or not. */
import { expect, it } from "vitest";
import type { Asset } from "../job";
import { keptPrints, workTexts } from "./prints";

const HOLE = {
  id: "h",
  kind: "hole",
  face: "good",
  x: "30",
  y: "40",
  diameter: "5",
  depth: null,
  count: "1",
  step: "0",
  along: "length",
};

it("a row says the same as its holes one by one, along the length, the width, or a member", () => {
  const singles = (field: "x" | "y") =>
    [0, 1, 2, 3].map((i) => ({ ...HOLE, id: `${i}`, [field]: String(Number(HOLE[field]) + 25.4 * i) }));
  for (const [field, along] of [
    ["x", "length"],
    ["y", "width"],
  ] as const)
    expect(workTexts([{ ...HOLE, along, count: "4", step: "25.4" }], "mm")).toEqual(
      workTexts(singles(field), "mm"),
    );
  const { x: _, ...member } = { ...HOLE, along: "50", slot: "0" };
  expect(workTexts([{ ...member, count: "3", step: "10" }], "mm")).toEqual(
    workTexts(
      ["50", "60", "70"].map((along) => ({ ...member, along })),
      "mm",
    ),
  );
  // A row that hangs on a key size is none of the file's.
  expect(workTexts([{ ...HOLE, count: "columns", step: "10" }], "mm")).toHaveLength(1);
});

it("work that was kept in the order of an earlier file is the same", () => {
  const print = (work: readonly string[]) => ({
    id: "panel1",
    kind: "panel" as const,
    home: null,
    name: "Side",
    form: { work: JSON.stringify(work) },
    place: [0],
  });
  const kept = (work: readonly string[]) => {
    const asset: Asset = {
      kind: "read",
      data: JSON.stringify({ version: 1, unit: "mm", prints: [print(work)], assemblies: [] }),
    };
    const read = keptPrints(asset, "a.step");
    if (!read.ok) throw new Error("lost");
    return read.value.prints[0]?.form["work"];
  };
  expect(kept(["b", "a"])).toBe(kept(["a", "b"]));
});
