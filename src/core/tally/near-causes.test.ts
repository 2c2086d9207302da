import { describe, expect, it } from "vitest";
import { buttEnd, type Check, type Job, newJob, type TypedPiece } from "../job";
import { edited } from "../job/edit.fixture";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { renumber } from "./renumber";

const nearTwins = (job: Job): Check => {
  const [check] = resultsOf(job).tally.checks.filter(({ kind }) => kind === "nearTwins");
  if (!check) throw new Error("there are near twins");
  return check;
};
const mended = (job: Job): Job => {
  const { fix } = nearTwins(job);
  if (!fix) throw new Error("it can be mended");
  return edited(fix.edit, job);
};
const rowsNamed = (job: Job, name: string) => resultsOf(job).tally.rows.filter((row) => row.name === name);

describe("why near twins differ", () => {
  it("an end that is cut with another gap", () => {
    const job = smallFrame({
      members: {
        legRight: { section: "tube", name: "Leg", from: "F", to: "B", end: buttEnd("front", "2") },
      },
    });
    // Legs of 450 − 20 = 430 and 428.
    expect(nearTwins(job).message).toContain("Leg at 430 mm");
    expect(nearTwins(job).message).toContain("Its end is cut butt with 0, that of C with 2.");
    expect(nearTwins(job).fix?.label).toMatch(/^Cut . like .$/);
    expect(rowsNamed(mended(job), "Leg").map((row) => row.count)).toEqual([2]);
  });

  it("one point that stands off where the others agree: it is named, and moved to them", () => {
    const posts = Object.fromEntries(
      ["0", "100", "200", "300"].flatMap((x, i) => [
        [`G${i}`, [x, "0", "0"]],
        [`T${i}`, [x, "0", i === 1 ? "903.1" : "900"]],
      ]),
    );
    const job = newJob({
      info: { code: "T", title: "T" },
      points: posts as never,
      members: Object.fromEntries(
        [0, 1, 2, 3].map((i) => [`post${i}`, { name: "Post", from: `G${i}`, to: `T${i}`, section: "tube" }]),
      ),
    });
    expect(nearTwins(job).message).toContain(
      "Point T1 stands 3.1 mm off in height; the other 3 are at 900 mm.",
    );
    expect(nearTwins(job).fix?.label).toBe("Move it to 900 mm");
    expect(rowsNamed(mended(job), "Post").map((row) => row.count)).toEqual([4]);
  });

  const shelves = (first: string, second: string, keySizes = {}): Job => {
    const shelf = (length: string) => ({ name: "Shelf", board: "ply", length, width: "200" });
    return newJob({
      info: { code: "T", title: "T" },
      keySizes: { depth: { formula: "400" }, ...keySizes },
      panels: { a: shelf(first), b: shelf(first), c: shelf(second) },
    });
  };

  it("a panel that goes by another formula", () => {
    const job = shelves("depth", "depth - 2.5");
    expect(nearTwins(job).message).toBe(
      "Marks A and B: 2 × Shelf at 400 × 200 mm, 1 × Shelf at 397.5 × 200 mm. Its length is depth - 2.5, that of A depth.",
    );
    expect(rowsNamed(mended(job), "Shelf").map((row) => row.count)).toEqual([3]);
  });

  it("another key size that is nearly the same", () => {
    const job = shelves("depth", "inner", { inner: { formula: "398" } });
    expect(nearTwins(job).message).toContain("Key size inner is 398, depth is 400.");
  });

  it("key sizes of a job in inches are compared by their real difference", () => {
    // 0.1 in are 2.54 mm: read as millimetres, they would count as no difference worth telling.
    const job = shelves("depth", "inner", { depth: { formula: "15.75" }, inner: { formula: "15.65" } });
    const inInches: Job = { ...job, info: { job: { ...job.info.job, unit: "in" } } };
    expect(nearTwins(inInches).message).toContain("Key size inner is 15.65, depth is 15.75.");
  });

  it("members whose points hang on another key size are told, without a fix that would guess", () => {
    const job = newJob({
      info: { code: "T", title: "T" },
      keySizes: { run: { formula: "500" }, reach: { formula: "502" } },
      points: {
        A: ["0", "0", "0"],
        B: ["run", "0", "0"],
        C: ["0", "900", "0"],
        D: ["reach", "900", "0"],
      },
      members: {
        one: { name: "Lath", from: "A", to: "B", section: "lath" },
        two: { name: "Lath", from: "C", to: "D", section: "lath" },
      },
    });
    const { message, fix, meant } = nearTwins(job);
    expect([message.includes("Key size"), fix, meant]).toEqual([true, null, "one ~ two"]);
  });

  it("typed-in lengths are compared with one another, whatever their marks", () => {
    const typed = (id: string, length: number, mark: string) =>
      ({
        kind: "member",
        id,
        name: "Brace",
        mark,
        quantity: 2,
        stockText: null,
        stock: "tube",
        material: null,
        leftOut: false,
        position: 0,
        length,
        shape: null,
        angles: [0, 0],
        stand: null,
      }) as unknown as TypedPiece;
    const job: Job = {
      ...newJob({ info: { code: "T", title: "T" } }),
      typedPieces: { t1: typed("t1", 700, "X"), t2: typed("t2", 698, "Y") },
    };
    expect(nearTwins(job).message).toContain("The sizes of");
    const lengths = rowsNamed(mended(job), "Brace").map((row) => row.shown.form);
    expect(new Set(lengths.map((form) => form.kind === "member" && form.cutNm)).size).toBe(1);
  });

  it("bought parts of nearly the same length", () => {
    const chain = (length: string) => ({ name: "Chain", entry: "chain", count: "2", length });
    const job = smallFrame({ boughtParts: { one: chain("300"), two: chain("297"), far: chain("200") } });
    const checks = resultsOf(job).tally.checks.filter(({ message }) => message.startsWith("Chain 4 mm"));
    expect(checks.map(({ message }) => message)).toEqual([
      "Chain 4 mm: 2 × Chain of 297 mm, 2 × Chain of 300 mm.",
    ]);
    const [check] = checks;
    if (!check?.fix) throw new Error("it can be mended");
    expect(rowsNamed(edited(check.fix.edit, job), "Chain").map((row) => row.count)).toEqual([2 + 2, 4]);
  });

  it("what is meant stays so when all marks are given anew", () => {
    const job = shelves("depth", "depth - 2.5");
    const { meant } = nearTwins(job);
    const kept = edited({ kind: "setMeant", id: meant ?? "", meant: true }, job);
    const { tally } = resultsOf(kept);
    const prefix = { member: "", panel: "P", other: "" };
    const anew = renumber(kept, tally, { style: "numbers", start: 5, step: 5, order: "listed", prefix });
    if (!anew.ok) throw new Error("it can be");
    const checks = resultsOf(edited(anew.value, kept)).tally.checks;
    expect(checks.filter(({ kind }) => kind === "nearTwins")).toEqual([]);
  });
});

describe("many sizes that creep", () => {
  const laths = (count: number): Job => {
    const panels = Object.fromEntries(
      Array.from({ length: count }, (_, i) => [
        `p${i}`,
        { name: "Lath", board: "ply", length: "800", width: String(200 + 2 * i) },
      ]),
    );
    return newJob({ info: { code: "T", title: "T" }, panels });
  };
  const asked = (job: Job) => resultsOf(job).tally.checks.filter(({ kind }) => kind === "nearTwins");

  it("are told at once, and can be meant as a whole; a few are told pair by pair", () => {
    // Of three in steps of 2, each pair lies within 5.
    expect(asked(laths(3))).toHaveLength(3);
    const [check, ...more] = asked(laths(40));
    expect(more).toEqual([]);
    expect(check?.message).toContain("40 sizes from 200 mm to 278 mm, each less than 5 mm from the next");
    expect(check?.marks).toHaveLength(40);
    const meant = edited({ kind: "setMeant", id: check?.meant ?? "", meant: true }, laths(40));
    expect(asked(meant)).toEqual([]);
  });
});
