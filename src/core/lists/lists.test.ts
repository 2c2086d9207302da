import { describe, expect, it } from "vitest";
import { newJob, withEdit } from "../job";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { allNotes, type ListTable } from ".";

const cells = (table: ListTable, ...columns: readonly string[]) =>
  table.groups.flatMap((group) =>
    group.rows.map((row) => columns.map((column) => row.cells[column]?.text ?? "")),
  );

describe("the cut list", () => {
  it("worked out by hand for the small frame", () => {
    const { cutList } = resultsOf(smallFrame());
    expect(cutList.groups.map((group) => [group.heading, group.detail, group.summary])).toEqual([
      ["Square tube 40 × 40 × 3", "S235", "6 pieces · 2860 mm"],
      ["Birch ply 18", "birch ply", "2 pieces · 0.333 m²"],
    ]);
    expect(
      cells(cutList, "mark", "name", "count", "length", "width", "thickness", "end1", "end2", "stand"),
    ).toEqual([
      ["A", "Rail", "2", "600", "–", "–", "45", "45", "opposed"],
      ["B", "Leg", "2", "430", "–", "–", "0", "0", "square"],
      ["C", "End rail", "2", "400", "–", "–", "45", "45", "opposed"],
      ["D", "Shelf", "2", "520", "320", "18", "–", "–", "grain long"],
    ]);
  });

  it("says the balance, the batch and its units under the table", () => {
    const { cutList } = resultsOf(smallFrame({ info: { code: "T", title: "T", batch: 2 } }));
    expect(allNotes(cutList)).toEqual([
      "266 pieces in the design = 16 in rows + 250 bought + 0 left out.",
      "Lengths in mm; end angles in degrees from square.",
      "Counts are for 2 of this job.",
    ]);
  });

  it("tells missing apart from what does not apply", () => {
    const job = withEdit(smallFrame(), {
      kind: "changePanels",
      ids: ["shelfLow", "shelfHigh"],
      set: { board: null },
    });
    if (!job.ok) throw new Error("the board goes");
    const bare = cells(resultsOf(job.value).cutList, "name", "thickness", "end1").find(
      ([name]) => name === "Shelf",
    );
    expect(bare).toEqual(["Shelf", "missing", "–"]);
    const noLine = resultsOf(
      smallFrame({ members: { broken: { name: "Broken", from: "A", to: "A", section: "tube" } } }),
    ).cutList;
    expect(cells(noLine, "name", "length", "note").find(([name]) => name === "Broken")).toEqual([
      "Broken",
      "missing",
      "not computed: its line has no length",
    ]);
  });

  it("tells a groove from both edges: a 3/4 groove at 18 1/2 from one end of a 30 side is 10 3/4 from the other", () => {
    const job = newJob({
      info: { code: "T", title: "T", unit: "in", format: { kind: "fraction", denominator: 16 } },
      panels: {
        side: {
          name: "Side",
          board: "ply",
          origin: ["0", "0", "0"],
          lengthAxis: ["1", "0", "0"],
          faceAxis: ["0", "0", "1"],
          length: "30",
          width: "12",
          work: [
            {
              id: "g",
              kind: "groove",
              face: "good",
              from: "left",
              distance: "18 1/2",
              width: "3/4",
              depth: "1/4",
              stopAtStart: "0",
              stopAtEnd: "0",
            },
          ],
        },
      },
    });
    const [note] = cells(resultsOf(job).cutList, "note")[0] ?? [];
    expect(note).toBe("groove 3/4 × 1/4 deep, 18 1/2 from left / 10 3/4 from right");
  });

  it("prints the edge beside the cut length of parallel ends", () => {
    const job = newJob({
      info: { code: "T", title: "T" },
      points: { A: ["0", "0", "0"], B: ["560", "0", "0"], C: ["560", "0", "400"], D: ["0", "0", "-400"] },
      members: {
        m: {
          name: "Middle",
          from: "A",
          to: "B",
          section: "tube",
          start: { kind: "mitre", neighbour: "d" as never },
          end: { kind: "mitre", neighbour: "c" as never },
        },
        c: { name: "C", from: "B", to: "C", section: "tube" },
        d: { name: "D", from: "D", to: "A", section: "tube" },
      },
    });
    expect(
      cells(resultsOf(job).cutList, "name", "length", "stand", "note").find(([name]) => name === "Middle"),
    ).toEqual(["Middle", "600", "parallel", "edge 560"]);
  });
});

describe("the buying list", () => {
  it("has one line a stock, the marks that it combines, subtotals and both totals", () => {
    const { buyingList } = resultsOf(smallFrame());
    expect(cells(buyingList, "name", "marks", "measure", "net", "gross", "cost")).toEqual([
      ["Square tube 40 × 40 × 3, S235", "A B C", "m", "2.860", "3.146", "12.58"],
      ["Birch ply 18, birch ply", "D", "m²", "0.332", "0.365", "6.62"],
      ["Birch edging 1 mm, birch (with 20 mm overhang at each end)", "D", "m", "1.120", "1.232", "1.85"],
      ["Screw 5 × 40, 2 × box of 100", "", "each", "121", "121", "12.80"],
      ["Foot M10", "", "each", "2", "2", "4.70"],
      ["Chain 4 mm", "", "m", "0.400", "0.400", "1.28"],
    ]);
    expect(buyingList.groups.map((group) => group.summary)).toEqual([
      "net + waste 12.58 EUR",
      "net + waste 6.62 EUR",
      "net + waste 1.85 EUR",
      "net + waste 18.78 EUR",
    ]);
    expect(buyingList.notes[0]).toBe("Total net + 10 % waste: 39.83 EUR.");
  });
});
