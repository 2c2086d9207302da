import { describe, expect, it } from "vitest";
import { combinedTasks } from "../combined";
import { at } from "../kernel";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import type { MemberForm } from "../tally";
import { layoutTasks, pieceKey, sawFor } from ".";
import { endsOf } from "./piece-ends";
import { askedOf } from "./saws";

const { tally } = resultsOf(smallFrame());
const row = (name: string) => {
  const found = tally.rows.find((one) => one.name === name);
  if (!found) throw new Error(name);
  return found;
};
const formOf = (name: string): MemberForm => {
  const { form } = row(name).shown;
  if (form.kind !== "member") throw new Error(name);
  return form;
};
const saw = (id: string, depth: number, angle: number, length: number) => ({
  id,
  name: id,
  unit: "mm" as const,
  depth,
  angle,
  length,
});

describe("which saw cuts a piece", () => {
  it("the first that has the height, the angle and the length; else the reason why none has", () => {
    const rail = formOf("Rail");
    expect(askedOf(rail)).toMatchObject({ height: 40, length: 600 });
    expect(askedOf(rail).angle).toBeWithinMm(45, 1e-6);
    const [small, large] = [saw("small", 60, 30, 3000), saw("large", 100, 60, 3000)];
    expect(sawFor([small, large], rail).saw).toBe(large);
    expect(sawFor([small, large], formOf("Leg")).saw).toBe(small);
    expect(sawFor([small], rail).why).toEqual({ kind: "tooSteep", degrees: 45 });
    expect(sawFor([saw("low", 30, 60, 3000)], rail).why).toEqual({ kind: "tooHigh", height: 40 });
    expect(sawFor([saw("short", 60, 60, 500)], rail).why).toEqual({ kind: "tooLong", length: 600 });
    expect(sawFor([saw("a", 60, 30, 3000), saw("b", 30, 60, 3000)], rail).why).toEqual({
      kind: "noneHasAll",
    });
  });
});

describe("the ends of a piece on the saw", () => {
  it("opposed 45s of a square tube lean apart, and it may be turned every way", () => {
    const ends = endsOf(row("Rail"));
    expect(ends).toMatchObject({ depth: 40, turns: ["end", "over", "roll"] });
    const [first, second] = ends?.angles ?? [0, 0];
    expect(Math.abs(first)).toBe(45);
    expect(second).toBe(-first);
  });

  it("square ends, and rows of both hands, say nothing", () => {
    expect(endsOf(row("Leg"))).toBeNull();
    expect(endsOf({ ...row("Rail"), hands: { asDrawn: 1, opposite: 1 } })).toBeNull();
  });

  it("an angle turns no way: its outline falls on itself only as it lies", () => {
    const rail = row("Rail");
    const form: MemberForm = {
      ...formOf("Rail"),
      shape: { kind: "unequalAngle", size: [60, 40, 5], rootRadius: 6 },
    };
    const ends = endsOf({ ...rail, shown: { ...rail.shown, form } });
    expect(ends?.turns).toEqual([]);
  });
});

describe("several jobs together", () => {
  it("share their tasks, each piece named with its job; two of one code are told apart", () => {
    const jobs = ["a", "b"].map((id) => ({ id, code: "T-1", job: smallFrame() }));
    const alone = layoutTasks(tally, STOCK);
    const both = combinedTasks(jobs, STOCK, { owner: "batch", pieces: [] });
    expect(both.map((task) => task.id)).toEqual(alone.map((task) => task.id));
    const [tube] = both;
    expect(tube?.pieces.map(pieceKey).slice(0, 1)).toEqual([`T-1 ${at(at(alone, 0).pieces, 0).mark}`]);
    expect(tube?.pieces.some((piece) => piece.job === "T-1 (2)")).toBe(true);
    const pieces = (task: (typeof both)[number] | undefined) =>
      task?.rows.reduce((sum, one) => sum + one.count, 0) ?? 0;
    expect(pieces(tube)).toBe(2 * pieces(alone[0]));
  });

  it("keep together what one of them keeps together", () => {
    const job = smallFrame();
    const group = { id: "g", name: "Shelves", panels: ["shelfLow", "shelfHigh"], along: "width" as const };
    const jobs = [
      { id: "a", code: "A", job },
      { id: "b", code: "B", job: { ...job, blankGroups: { g: group } } },
    ];
    const board = combinedTasks(jobs, STOCK, { owner: null, pieces: [] }).find(
      (task) => task.kind === "sheets",
    );
    expect(board?.kind === "sheets" && board.problem.together).toHaveLength(1);
    const [together] = board?.kind === "sheets" ? board.problem.together : [];
    expect(together && board?.pieces[at(together.panels, 0)]?.job).toBe("B");
  });
});
