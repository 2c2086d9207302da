import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { modelOf } from "@/core/brep";
import { imported } from "@/core/imports";
import { doubleMitreEnd, emptyJob, type Job, type Look, NO_ASSETS, newJob, withEdit } from "@/core/job";
import { at, seededRandom } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import type { Stockroom } from "@/core/stockroom";
import { stockroomOf } from "@/core/stockroom";
import type { TallyRow } from "@/core/tally";
import { loadStepReader } from "@/engines/step-reader";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { shelfBrackets } from "../../../demo/shelf-brackets";
import { demoStockroom } from "../../../demo/stockroom";
import { coloursOf } from "../solid-colours";
import { foundInStep } from "./read";
import { randomCopes, randomPieces, STOCKROOM } from "./round-trip.fixture";
import { writeStep } from "./write";

const reader = await loadStepReader();
/** 200 pieces in the long run (LAWS=2), 100 always. */
const ROUNDS = 4 * Number(process.env["LAWS"] ?? 1);
const HEAD = { name: "Test", made: new Date(0), shop: "" };
const bytesOf = (text: string) => new TextEncoder().encode(text);

/** The job as STEP and back: into an empty one, or beside itself. */
function thereAndBack(job: Job, stockroom: Stockroom, where: "alone" | "beside" = "alone") {
  const before = createPipeline()(job, null, stockroom, []);
  const model = modelOf(job, before.shape, NO_ASSETS);
  const found = foundInStep("test.step", bytesOf(writeStep(model, HEAD)), reader);
  if (!found.ok) throw new Error(JSON.stringify(found.problem));
  const into = where === "beside" ? job : emptyJob({ code: "back", title: "Back", unit: job.info.job.unit });
  let count = 0;
  const entered = imported(found.value, {}, into, stockroom, (kind) => `${kind}${++count}`);
  const after = withEdit(into, entered.edit);
  if (!after.ok) throw new Error(JSON.stringify(after.problem));
  const back = createPipeline()(after.value, null, entered.stockroom, []);
  return { before, back, model, entered, found: found.value };
}

/** What a row says of its pieces, whichever way round a panel's sides are named where no grain runs along them. */
function saying({ kind, count, hands, stockName, shown: { form } }: TallyRow): string {
  if (form.kind === "none") return kind;
  if (form.kind === "member")
    return `${stockName} ${count} ${JSON.stringify(hands)} ${Math.round(form.cutNm / 1e4)} ${JSON.stringify(form.ends.map((end) => (end.kind === "plane" ? end.slope.map((value) => value.toFixed(4)) : end.kind)))} ${form.holes.length}`;
  const sides = [form.lengthNm, form.widthNm].map((side) => Math.round(side / 1e4)).sort((a, b) => a - b);
  return `${stockName} ${count} ${JSON.stringify(hands)} ${sides} ${form.holes.length} ${form.grooves.length} ${form.outline?.length ?? 0} ${form.cutOuts.map(({ length }) => length)}`;
}
const made = (rows: readonly TallyRow[]) =>
  rows
    .filter(({ kind }) => kind === "member" || kind === "panel")
    .map(saying)
    .sort();

describe("out as STEP and back", () => {
  it("random pieces of every section, with any plane ends, turned anyhow: none wrong, nearly all the same", () => {
    const random = seededRandom(20261128);
    let [same, all] = [0, 0];
    for (let round = 0; round < ROUNDS; round++) {
      const job = randomPieces(random, 25);
      const { before, back, found } = thereAndBack(job, STOCKROOM, "beside");
      const pieces = before.tally.rows.reduce((sum, { count }) => sum + count, 0);
      // Each piece that came back is one with the piece that went out, as it stood: the tally finds twins and hands by itself.
      const made = back.tally.rows.filter(({ kind }) => kind === "member" || kind === "panel");
      const twice = made.filter(({ count, hands }) => count === 2 && hands.opposite === 0);
      const alone = made.filter((row) => !twice.includes(row));
      const parts = found.products.flatMap((product) => product.parts);
      const others = parts.filter(({ taken }) => taken.kind === "other");
      // Ends and cuts that cannot be said are told, and both pieces stand alone.
      const unsaid = parts.filter(
        ({ taken }) =>
          taken.kind === "member" &&
          (taken.leftOver > 0 || [taken.start, taken.end].some(({ kind }) => kind === "complex")),
      );
      // What is no twin has no counterpart: it is told as something else, never as another piece.
      expect(alone.map(saying).filter((_, i) => i >= others.length + 2 * unsaid.length)).toEqual([]);
      same += twice.length;
      all += pieces;
    }
    expect(same / all).toBeGreaterThanOrEqual(0.99);
  }, 240_000);

  for (const [name, make] of [
    ["notice board", noticeBoard],
    ["cabinet", seedPacketCabinet],
    ["brackets", shelfBrackets],
    ["potting bench", pottingBench],
  ] as const)
    it(`the ${name}: every member and panel, joined where it was joined`, () => {
      const start = make();
      const job: Job = { ...start, info: { job: { ...start.info.job, batch: 1 } } };
      const { before, back, model } = thereAndBack(job, stockroomOf(demoStockroom));
      expect(model.leftOut).toEqual([]);
      // Of what is made nothing; stand-ins of bought parts are triangles.
      const bought = new Set(Object.values(job.boughtParts).map(({ name }) => name));
      expect(model.faceted.filter((name) => !bought.has(name))).toEqual([]);
      const is = made(back.tally.rows);
      for (const row of before.tally.rows)
        if (row.kind === "member" || row.kind === "panel") expect(is).toContain(saying(row));
    });
});

it("pieces of one material have one colour, those of others another, as an independent reader sees them", () => {
  const cabinet = seedPacketCabinet();
  const plain = <T extends object>(all: Readonly<Record<string, T>>) =>
    Object.fromEntries(Object.entries(all).map(([id, one]) => [id, { ...one, look: null }]));
  const { panels, boughtParts, assemblies } = cabinet;
  const job = {
    ...cabinet,
    panels: plain(panels),
    boughtParts: plain(boughtParts),
    assemblies: plain(assemblies),
  } as Job;
  const { shape } = createPipeline()(job, null, stockroomOf(demoStockroom), []);
  const model = modelOf(job, shape, NO_ASSETS);
  const read = reader(writeStep(model, HEAD)) ?? [];
  const colours = new Map<string, Set<string>>();
  for (const { name, colour } of read) {
    const material = model.products.find((product) => product.name === name)?.material ?? "none";
    const known = colours.get(material) ?? new Set();
    colours.set(material, known.add(String(colour?.map((value) => value.toFixed(2)))));
  }
  const kinds = [
    ...new Set(model.products.filter(({ brep }) => brep).map(({ material }) => material ?? "none")),
  ];
  expect([...colours.keys()].toSorted()).toEqual(kinds.toSorted());
  expect([...colours.values()].every((own) => own.size === 1 && !own.has("undefined"))).toBe(true);
  const colourOf = coloursOf(model);
  for (const [material, own] of colours) {
    const wanted = colourOf({ material: material === "none" ? null : material, look: null });
    expect([...own][0]).toBe(String(wanted.map((value) => value.toFixed(2))));
  }
});

it("looks go out as colours and come back as the looks that they were; what has none looks as its material", () => {
  const leg = (i: number, look: Look | null) => [
    `m${i}`,
    { name: `Leg ${i}`, from: `P${i}`, to: `Q${i}`, section: "section0", look },
  ];
  const looks = [null, null, null, "brick", "sea blue", "leaf green", "chalk white"] as const;
  const ends = looks.flatMap((_, i) => [
    [`P${i}`, [String(200 * i), "0", "0"]],
    [`Q${i}`, [String(200 * i), "0", String(500 + i)]],
  ]);
  const job = newJob({
    info: { code: "L", title: "Looks" },
    points: Object.fromEntries(ends),
    members: Object.fromEntries(looks.map((look, i) => leg(i, look))),
    panels: { p: { name: "Top", board: "ply", length: "900", width: "300", look: "plum" } },
  });
  const { back, model } = thereAndBack(job, STOCKROOM);
  expect(Object.fromEntries(back.shape.members.map(({ member }) => [member.name, member.look]))).toEqual(
    Object.fromEntries(looks.map((look, i) => [`Leg ${i}`, look])),
  );
  // The only piece of its material has the colour of the material, whatever that is.
  expect(back.shape.panels[0]?.panel.look).toBeNull();
  expect(model.products.find(({ name }) => name === "Top")?.look).toBe("plum");
});

it("a solid whose faces alone have colours has that of most of them, though the reader keeps none", () => {
  const job = newJob({
    info: { code: "F", title: "Faces" },
    panels: { p: { name: "Top", board: "ply", length: "900", width: "300" } },
  });
  const { shape } = createPipeline()(job, null, STOCKROOM, []);
  const text = writeStep(modelOf(job, shape, NO_ASSETS), HEAD);
  const face = /#(\d+)=ADVANCED_FACE/.exec(text)?.[1];
  const byFace = text.replace(/(STYLED_ITEM\('colour',\(#\d+\),)#\d+/, `$1#${face}`);
  expect(byFace).not.toBe(text);
  expect((reader(byFace) ?? [])[0]?.colour).toBeNull();
  const colourIn = (from: string) => {
    const found = foundInStep("x.step", bytesOf(from), reader);
    return found.ok ? found.value.products.flatMap(({ parts }) => parts.map(({ colour }) => colour)) : null;
  };
  expect(colourIn(byFace)).toEqual(colourIn(text));
  expect(colourIn(text)?.[0]).toHaveLength(3);
});

it("copes come back as copes round the same member, with the same rows", () => {
  const { before, back, entered, model } = thereAndBack(randomCopes(seededRandom(80), 30), STOCKROOM);
  expect(model.faceted).toEqual([]);
  expect(made(back.tally.rows)).toEqual(made(before.tally.rows));
  const cuts = entered.edit.members.flatMap(({ start, end }) => [start, end]);
  expect(cuts.filter(({ kind }) => kind === "cope")).toHaveLength(30);
});

describe("ends in two planes", () => {
  it("of three bars that meet in a corner come back as double mitres, and stay joined when it moves", () => {
    const ids = ["a", "b", "c"] as const;
    const job = newJob({
      info: { code: "T", title: "Corner" },
      points: {
        J: ["100", "50", "0"],
        A: ["700", "50", "0"],
        B: ["100", "650", "0"],
        C: ["100", "50", "600"],
      },
      members: Object.fromEntries(
        ids.map((id, i) => [
          id,
          {
            name: `Arm ${id}`,
            from: "J",
            to: id.toUpperCase(),
            section: "section0",
            start: doubleMitreEnd(at(ids, (i + 1) % 3), at(ids, (i + 2) % 3), "0"),
          },
        ]),
      ),
    });
    const { before, back, entered, model } = thereAndBack(job, STOCKROOM);
    expect(model.faceted).toEqual([]);
    expect(made(back.tally.rows)).toEqual(made(before.tally.rows));
    const cuts = entered.edit.members.flatMap(({ start, end }) => [start, end]);
    expect(cuts.filter(({ kind }) => kind === "doubleMitre")).toHaveLength(3);
    expect(entered.edit.points).toHaveLength(4);
  });

  it("alone are entered with their own angles", () => {
    const job = newJob({
      info: { code: "T", title: "Alone" },
      points: { P: ["0", "0", "0"], Q: ["300", "400", "500"] },
      members: {
        m: {
          name: "Strut",
          from: "P",
          to: "Q",
          section: "section2",
          roll: "20",
          end: {
            kind: "twoAngles",
            acrossWidth: "30",
            acrossHeight: "-10",
            offset: "0",
            secondAcrossWidth: "-20",
            secondAcrossHeight: "25",
            secondOffset: "4",
          },
        },
      },
    });
    const { before, back, entered } = thereAndBack(job, STOCKROOM);
    expect(made(back.tally.rows)).toEqual(made(before.tally.rows));
    expect(entered.edit.members.flatMap(({ start, end }) => [start.kind, end.kind]).toSorted()).toEqual([
      "square",
      "twoAngles",
    ]);
  });
});

const SAMPLES = "node_modules/occt-import-js/test/testfiles/cax-if/";

describe("the sample assembly of CAx-IF (as1, as the reader's package ships it)", () => {
  for (const [file, scale] of [
    ["as1-oc-214.stp", 1],
    ["as1-tu-203.stp", 1],
    // Declared in inches, though drawn in millimetres.
    ["as1_pe_203.stp", 25.4],
  ] as const)
    it(`${file}: one plate, two brackets, six bolts, eight nuts and a rod of 10 x 200`, () => {
      const found = foundInStep(file, readFileSync(SAMPLES + file), reader);
      if (!found.ok) throw new Error(JSON.stringify(found.problem));
      const into = emptyJob({ code: "as1", title: "as1", unit: "mm" });
      let count = 0;
      const entered = imported(found.value, {}, into, STOCKROOM, (kind) => `${kind}${++count}`);
      const after = withEdit(into, entered.edit);
      if (!after.ok) throw new Error(JSON.stringify(after.problem));
      const { tally } = createPipeline()(after.value, null, entered.stockroom, []);
      const counts = tally.rows.map(({ count: one }) => one).sort((a, b) => a - b);
      expect(counts).toEqual([1, 1, 2, 6, 8]);
      const rod = found.value.products.find(({ name }) => /rod$/i.test(name))?.parts[0]?.taken;
      if (rod?.kind !== "member") throw new Error("the rod is no member");
      expect(rod.shape).toEqual({ kind: "roundBar", size: [10 * scale] });
      expect(rod.end.z - rod.start.z).toBeCloseTo(200 * scale, 3);
    });
});
