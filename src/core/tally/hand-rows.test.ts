import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Edit, type Job, newJob } from "../job";
import { edited } from "../job/edit.fixture";
import { type Problem, type Result, sentence } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { balances, moveInto, putTogether, splitOff, type TallyRow } from ".";

const tallyOf = (job: Job) => resultsOf(job).tally;
const rowWith = (job: Job, id: string): TallyRow => {
  const row = tallyOf(job).rowOfPiece.get(id);
  if (!row) throw new Error(`${id} is in no row`);
  return row;
};
const done = (edit: Result<Edit, Problem>, job: Job): Job => {
  if (!edit.ok) throw new Error(sentence(edit.problem));
  const after = edited(edit.value, job);
  return edited({ kind: "keepMarks", marks: [...tallyOf(after).newMarks], drop: [] }, after);
};
const why = (edit: Result<Edit, Problem>) => (edit.ok ? "" : sentence(edit.problem));
const counts = (job: Job) => tallyOf(job).rows.map((row) => [row.name, row.count]);

/** Five slats in the same board: four of 600, one of 597.5. */
const slats = (last = "597.5"): Job => {
  const slat = (length: string) => ({ name: "Slat", board: "ply", length, width: "90" });
  const job = newJob({
    info: { code: "T", title: "T" },
    panels: { a: slat("600"), b: slat("600"), c: slat("600"), d: slat("600"), e: slat(last) },
  });
  return edited({ kind: "keepMarks", marks: [...tallyOf(job).newMarks], drop: [] }, job);
};

describe("rows by hand", () => {
  it("a piece that is split off has a row and a mark of its own, and the balance holds", () => {
    const job = done(splitOff(tallyOf(slats()), ["b"], "h"), slats());
    expect(rowWith(job, "b")).toMatchObject({ count: 1, byHand: "h", mark: "C" });
    expect(rowWith(job, "a")).toMatchObject({ count: 3, byHand: null, mark: "A" });
    // What was parted by hand is not asked about as if it were a mistake.
    const asked = tallyOf(job).checks.filter(({ kind }) => kind === "nearTwins");
    expect(asked.map(({ marks }) => marks)).toEqual([["A", "B"]]);
    expect(balances(tallyOf(job).balance)).toBe(true);
    const back = edited({ kind: "clearHandRows", pieces: ["b"] }, job);
    expect(rowWith(back, "b")).toMatchObject({ count: 4, mark: "A" });
  });

  it("a piece that leaves a row by hand leaves the others in it", () => {
    const three = done(splitOff(tallyOf(slats()), ["a", "b", "c"], "h"), slats());
    expect(rowWith(three, "b")).toMatchObject({ count: 3, byHand: "h" });
    const two = edited({ kind: "clearHandRows", pieces: ["b"] }, three);
    expect(rowWith(two, "a")).toMatchObject({ count: 2, byHand: "h" });
    expect(rowWith(two, "b")).toMatchObject({ count: 2, byHand: null });
    expect(two.handRows["h"]?.pieces).toEqual(["a", "c"]);
    // The last ones out close it.
    const none = edited({ kind: "clearHandRows", pieces: ["a", "c"] }, two);
    expect(Object.keys(none.handRows)).toEqual([]);
    expect(rowWith(none, "a").count).toBe(4);
  });

  it("of two, the one that is split off gets the new mark, not the one that stays", () => {
    const frame = edited(
      { kind: "keepMarks", marks: [...tallyOf(smallFrame()).newMarks], drop: [] },
      smallFrame(),
    );
    const before = rowWith(frame, "front").mark;
    const job = done(splitOff(tallyOf(frame), ["front"], "h"), frame);
    expect(rowWith(job, "back").mark).toBe(before);
    expect(rowWith(job, "front").mark).not.toBe(before);
  });

  it("near twins put together share a row that is cut at the greatest size, and it is said", () => {
    const job = done(putTogether(tallyOf(slats()), ["a", "e"], "h"), slats());
    expect(counts(job)).toEqual([["Slat", 5]]);
    expect(rowWith(job, "e").shown.form).toMatchObject({ lengthNm: 600e6 });
    const [check] = tallyOf(job).checks.filter(({ kind }) => kind === "handRow");
    expect(check?.message).toBe(
      "Mark A: pieces of 597.5 × 90 mm and 600 × 90 mm were put together by hand; the row shows 600 × 90 mm.",
    );
    expect(tallyOf(job).checks.filter(({ kind }) => kind === "nearTwins" || kind === "spreadRow")).toEqual(
      [],
    );
    const back = check?.fix ? edited(check.fix.edit, job) : job;
    expect(back.handRows).toEqual({});
  });

  it("a piece moves into another row", () => {
    const apart = done(splitOff(tallyOf(slats()), ["a", "b"], "h"), slats());
    const mark = rowWith(apart, "a").mark;
    const job = done(moveInto(tallyOf(apart), ["c"], rowWith(apart, "a"), "other"), apart);
    expect(rowWith(job, "c").mark).toBe(mark);
    expect([rowWith(job, "a").count, rowWith(job, "d").count]).toEqual([3, 1]);
    expect(Object.keys(job.handRows)).toEqual(["h"]);
    const again = moveInto(tallyOf(job), ["c"], rowWith(job, "a"), "x");
    expect(why(again)).toContain("is in that row already");
  });

  it("what has grown too unlike since stands apart again, and nothing is lost", () => {
    const job = done(putTogether(tallyOf(slats()), ["a", "e"], "h"), slats());
    const grown = edited({ kind: "changePanels", ids: ["e"], set: { length: "500" } }, job);
    expect(counts(grown)).toEqual([
      ["Slat", 4],
      ["Slat", 1],
    ]);
    expect(balances(tallyOf(grown).balance)).toBe(true);
  });

  it("one that is wider but shorter is never shown at a size that cuts it short", () => {
    const wide = edited({ kind: "changePanels", ids: ["e"], set: { width: "93" } }, slats());
    expect(why(putTogether(tallyOf(wide), ["a", "e"], "h"))).toContain("differ by more than near twins do");
  });

  it("refuses what is no row to split, or no rows to put together, with a sentence", () => {
    const frame = smallFrame();
    const tally = tallyOf(frame);
    expect(why(splitOff(tally, ["front", "back"], "h"))).toContain("is selected whole");
    expect(why(splitOff(tally, ["front", "left"], "h"))).toContain("is in several rows");
    expect(why(splitOff(tally, ["nothing"], "h"))).toContain("holds no piece of the tally");
    expect(why(putTogether(tally, ["front", "back"], "h"))).toContain("is in one row");
    expect(why(putTogether(tally, ["front", "left"], "h"))).toContain("differ by more than near twins do");
    expect(why(putTogether(tally, ["front", "shelfLow"], "h"))).toContain("are of different stock");
  });

  it("hands are counted apart in a row by hand as in a computed one", () => {
    const side = (groove: "left" | "right") => ({
      name: "Side",
      board: "ply",
      length: "600",
      width: "400",
      goodFace: true,
      edging: { front: "band" },
      work: [
        {
          kind: "groove" as const,
          id: "groove",
          face: "good" as const,
          from: groove,
          distance: "40",
          width: "10",
          depth: "8",
          stopAtStart: "0",
          stopAtEnd: "0",
        },
      ],
    });
    const job = newJob({
      info: { code: "T", title: "T" },
      panels: { l1: side("left"), r1: side("right"), l2: side("left"), r2: side("right") },
    });
    const row = { kind: "setHandRow", row: { id: "h" as never, pieces: ["l1", "r1"] } } satisfies Edit;
    expect(rowWith(edited(row, job), "r1").hands).toEqual({ asDrawn: 1, opposite: 1 });
    expect(rowWith(edited(row, job), "r2").hands).toEqual({ asDrawn: 1, opposite: 1 });
  });

  it("typed-in pieces are put to drawn ones by the check that offers it", () => {
    const typed = edited(
      {
        kind: "addTypedPieces",
        pieces: [
          {
            kind: "panel",
            id: "t1" as never,
            name: "Slat",
            mark: null,
            quantity: 3,
            stockText: "Birch ply 18",
            stock: "ply",
            material: null,
            leftOut: false,
            position: 0,
            length: 600,
            width: 90,
            thickness: null,
            grain: true,
            edged: [],
            edgingText: null,
          },
        ],
      },
      slats(),
    );
    const check = tallyOf(typed).checks.find(({ kind }) => kind === "typedLikeDrawn");
    expect(check?.fix?.label).toBe("Merge rows");
    const job = check?.fix ? edited(check.fix.edit, typed) : typed;
    expect(rowWith(job, "t1").count).toBe(7);
    expect(balances(tallyOf(job).balance)).toBe(true);
  });
});

describe("whatever is put into rows by hand", () => {
  const frame = smallFrame();
  const all = [
    ...Object.keys(frame.members),
    ...Object.keys(frame.panels),
    ...Object.keys(frame.boughtParts),
  ];
  const groupings = fc.array(fc.subarray(all, { minLength: 1 }), { maxLength: 5 });
  const grouped = (groups: readonly (readonly string[])[]) =>
    groups.reduce(
      (job: Job, pieces, i) =>
        edited({ kind: "setHandRow", row: { id: `h${i}` as never, pieces: [...pieces] } }, job),
      frame,
    );

  it("every piece stays in one row, the balance holds, and no row shows less than its pieces need", () => {
    fc.assert(
      fc.property(groupings, (groups) => {
        const tally = tallyOf(grouped(groups));
        expect(balances(tally.balance)).toBe(true);
        const listed = tally.rows.flatMap((row) => row.pieces.map((piece) => piece.id));
        expect([...new Set(listed)].sort()).toEqual([...all].sort());
        expect(new Set(tally.rows.map((row) => row.id)).size).toBe(tally.rows.length);
        // Nothing of different stock or of quite another size shares a row, whoever asked for it.
        for (const row of tally.rows) {
          const stocks = new Set(
            row.pieces.map(({ id }) => frame.members[id]?.section ?? frame.panels[id]?.board),
          );
          expect(stocks.size).toBe(1);
        }
      }),
      { numRuns: lawRuns(60) },
    );
  });

  it("goes back to just what was computed before", () => {
    fc.assert(
      fc.property(groupings, (groups) => {
        const back = edited({ kind: "clearHandRows", pieces: null }, grouped(groups));
        const rows = (job: Job) =>
          tallyOf(job).rows.map((row) => [row.mark, row.name, row.count, row.byHand]);
        expect(rows(back)).toEqual(rows(frame));
      }),
      { numRuns: lawRuns(30) },
    );
  });
});
