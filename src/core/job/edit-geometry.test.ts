import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sentence } from "../kernel";
import { resultsOf } from "../pipeline.fixture";
import {
  applyDiff,
  applyEdit,
  copyOfPieces,
  type Edit,
  lengthWith,
  movedPlace,
  newInsert,
  newPoint,
  placeBetween,
  readPlace,
  resolveSizes,
  reverseDiff,
} from ".";
import { edited, job, refusal } from "./edit.fixture";

const point = (id: string, ...at: [string, string, string]) => newPoint(id, id, at);
const newId = () => {
  let count = 0;
  return (kind: string) => `${kind}-${++count}`;
};

describe("inserting", () => {
  it("takes records that stand on one another", () => {
    const after = edited(
      newInsert("Draw", {
        points: [point("N", "0", "0", "0")],
        lines: [{ id: "n" as never, from: "N" as never, to: "A" as never }],
      }),
    );
    expect([after.points["N"]?.name, after.lines["n"]?.to]).toEqual(["N", "A"]);
  });

  it.each([
    [
      { lines: [{ id: "n" as never, from: "A" as never, to: "A" as never }] },
      'A line from point "A" to itself has no length; choose another end.',
    ],
    [
      { lines: [{ id: "n" as never, from: "A" as never, to: "nowhere" as never }] },
      "The point nowhere is no longer in this job; someone may have removed it.",
    ],
    [{ points: [point("A", "0", "0", "0")] }, 'The id "A" is in this job already; try again.'],
  ])("refuses what does not stand: %#", (parts, words) => {
    expect(refusal(newInsert("Draw", parts))).toBe(words);
  });
});

describe("removing", () => {
  it("takes the line and the points that nothing uses any more, and squares the ends cut against it", () => {
    const after = edited({ kind: "remove", ids: ["legLeft"] });
    expect([after.members["legLeft"], after.lines["legLeft-line"], after.points["E"]]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
    expect(after.points["A"]).toBe(job.points["A"]);
    const noRail = edited({ kind: "remove", ids: ["front"] });
    expect(noRail.members["left"]?.end).toEqual({ kind: "square", offset: "0", past: null });
    expect(noRail.members["legLeft"]?.end.kind).toBe("square");
    expect(resultsOf(noRail).shape.uncomputed).toEqual([]);
  });

  it("keeps a point that holds a line, and a line that carries a member", () => {
    expect(refusal({ kind: "remove", ids: ["A"] })).toContain('Point "A" is the end of a line');
    expect(refusal({ kind: "remove", ids: ["front-line"] })).toContain(
      'The line of "Rail" carries that member',
    );
    expect(refusal({ kind: "remove", ids: ["nothing"] })).toContain("no longer in this job");
  });

  it("is undone to the same document", () => {
    const diff = applyEdit(job, { kind: "remove", ids: ["front", "shelfLow", "chain"] });
    if (!diff.ok) throw new Error("it is removed");
    expect(applyDiff(applyDiff(job, diff.value), reverseDiff(diff.value))).toEqual(job);
  });
});

describe("points", () => {
  it("joined are one: lines follow, a line between the two is refused", () => {
    const apart = edited(
      newInsert("Draw", {
        points: [point("N", "22.5", "20", "0"), point("M", "300", "20", "0")],
        lines: [{ id: "n" as never, from: "N" as never, to: "M" as never }],
      }),
    );
    const after = edited({ kind: "joinPoints", from: "N", into: "E" }, apart);
    expect([after.points["N"], after.lines["n"]?.from]).toEqual([undefined, "E"]);
    expect(refusal({ kind: "joinPoints", from: "E", into: "A" })).toContain("would have no length");
    expect(refusal({ kind: "joinPoints", from: "E", into: "E" })).toContain("cannot be joined to itself");
  });

  it("moved take their members along", () => {
    const after = edited({
      kind: "movePoints",
      points: [
        { id: "E", at: ["20", "20", "0 - 50"] },
        { id: "F", at: ["width - 20", "20", "0 - 50"] },
      ],
    });
    expect(resultsOf(after).tally.rows.find((row) => row.name === "Leg")?.shown.form).toMatchObject({
      cutNm: 480_000_000,
    });
  });
});

describe("splitting a line", () => {
  const split: Edit = {
    kind: "splitLine",
    line: "front-line",
    point: { ...point("S", "width / 2", "20", "height") },
    newLine: "s" as never,
    newMember: "front2" as never,
  };

  it("parts the member; the far neighbour is cut against the second half", () => {
    const after = edited(split);
    expect(after.members["front"]?.end.kind).toBe("square");
    expect(after.members["front2"]).toMatchObject({
      name: "Rail",
      line: "s",
      start: { kind: "square" },
      end: { kind: "mitre", neighbour: "right" },
    });
    expect(after.members["right"]?.start).toEqual({ kind: "mitre", neighbour: "front2" });
    expect(after.members["legRight"]?.end).toEqual({ kind: "butt", neighbour: "front2", gap: "0" });
    expect(after.members["left"]?.end).toEqual({ kind: "mitre", neighbour: "front" });
    const { shape } = resultsOf(after);
    expect(shape.uncomputed).toEqual([]);
    expect(shape.members.find((solid) => solid.member.id === "front2")?.lengths.cut).toBeWithinMm(300, 1e-9);
  });
});

describe("places as text", () => {
  it("numbers are added up, formulas are put together", () => {
    expect(movedPlace(["0", "23 1/4", "height"], ["10", "1/2", "0 - tube/2"], "in")).toEqual([
      "10",
      "23.75",
      "height + (0 - tube/2)",
    ]);
    expect(placeBetween(["0", "0", "0"], ["width", "0", "300"], 0.5, "mm")).toEqual([
      "width * 0.5",
      "0",
      "150",
    ]);
  });

  it("a point between two places stays between them whatever the key sizes", () => {
    const sizes = resolveSizes(job, null);
    const value = (text: string) => {
      const read = lengthWith(sizes, text);
      if (!read.ok) throw new Error(`${text}: ${sentence(read.problem)}`);
      return read.value;
    };
    const coordinate = fc.constantFrom(
      "0",
      "-5",
      "12.5",
      "width",
      "depth - 20",
      "width / 2 + 3",
      "0 - depth",
      "min(width, depth)",
    );
    fc.assert(
      fc.property(coordinate, coordinate, fc.constantFrom(0.25, 0.5, 0.75), (a, b, share) => {
        const [x] = placeBetween([a, "0", "0"], [b, "0", "0"], share, "mm");
        expect(value(x)).toBeWithinMm(value(a) + share * (value(b) - value(a)), 1e-6);
        const [moved] = movedPlace([a, "0", "0"], [b, "0", "0"], "mm");
        expect(value(moved)).toBeWithinMm(value(a) + value(b), 1e-6);
      }),
    );
  });

  it("is read as the name of a point or as three coordinates", () => {
    expect(readPlace("P3")).toEqual({ kind: "name", name: "P3" });
    expect(readPlace(" width ; min(1, 2); 0 ")).toEqual({ kind: "place", at: ["width", "min(1, 2)", "0"] });
    expect([readPlace(""), readPlace("1; 2"), readPlace(";;")]).toEqual([null, null, null]);
  });
});

describe("copies", () => {
  const copy = (ids: readonly string[], rule: Parameters<typeof copyOfPieces>[2]) => {
    const made = copyOfPieces(job, ids, rule, newId());
    if (!made.ok) throw new Error(sentence(made.problem));
    return made.value;
  };

  it("repeat with a spacing formula; cuts between copied members hold between their copies", () => {
    const edit = copy(["front", "left"], { kind: "move", by: ["0", "0", "0 - height / 3"], times: 2 });
    expect([edit.what, edit.members.length, edit.points.length]).toEqual(["Repeat 2 times", 4, 6]);
    expect(edit.points.map((one) => one.at[2])).toContain("height + ((0 - height / 3) * 2)");
    const after = edited(edit);
    const { tally } = resultsOf(after);
    expect(tally.checks.filter((check) => check.severity === "error")).toEqual([]);
    const copies = edit.members.map((member) => member.id as string);
    expect(edit.members[1]?.end).toEqual({ kind: "mitre", neighbour: copies[0] });
    // A mitre whose partner was not copied becomes square; the far rail ends of the copies.
    expect(edit.members[0]?.end).toEqual({ kind: "square", offset: "0", past: null });
  });

  it("of nothing, of none or of too many are refused", () => {
    expect(copyOfPieces(job, [], { kind: "move", by: ["1", "0", "0"], times: 1 }, newId()).ok).toBe(false);
    for (const times of [0, -1, 1.5, 501])
      expect(copyOfPieces(job, ["front"], { kind: "move", by: ["1", "0", "0"], times }, newId()).ok).toBe(
        false,
      );
  });
});
