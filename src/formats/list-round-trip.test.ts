/** What the product writes as a cut list it reads back whole, over random jobs of typed-in pieces. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { slopeOf } from "@/core/ends/ends.fixture";
import { type Job, newJob, PANEL_EDGES, readCuttingList, type TypedPiece } from "@/core/job";
import { resultsOf, STOCK } from "@/core/pipeline.fixture";
import type { TallyRow } from "@/core/tally";
import { listRows, listToCsv } from "./csv";
import { tableToXlsx } from "./xlsx";
import { xlsxRows } from "./xlsx-in";

const jobOf = (pieces: readonly TypedPiece[], base: Job): Job => ({
  ...base,
  typedPieces: Object.fromEntries(pieces.map((piece) => [piece.id, piece])),
});

/** What a row of the tally is to a shop. */
function factsOf({ name, count, stockName, material, shown: { form } }: TallyRow) {
  const common = { name, count, stockName, material };
  // To a micron: decimals of an inch are written with six places.
  const microns = (nm: number | null) => nm && Math.round(nm / 1000);
  if (form.kind === "member") {
    const lean = ([x, y]: readonly [number, number]) =>
      Math.round((Math.atan(Math.hypot(x, y)) * 1800) / Math.PI);
    return { ...common, cut: microns(form.cutNm), ends: form.ends.map((end) => lean(slopeOf(end))) };
  }
  if (form.kind !== "panel") return common;
  const { lengthNm, widthNm, thicknessNm, grain, edging } = form;
  const sizes = [lengthNm, widthNm, thicknessNm].map(microns);
  return { ...common, sizes, grain, edging };
}
const facts = (job: Job) =>
  resultsOf(job)
    .tally.rows.map((row) => JSON.stringify(factsOf(row)))
    .sort();

async function throughFiles(job: Job, format: "csv" | "xlsx") {
  const { cutList } = resultsOf(job);
  const about = { line: "T-1, revision 3, made today", created: new Date(0) };
  const rows =
    format === "csv" ? listRows(listToCsv(cutList)) : await xlsxRows(await tableToXlsx(cutList, about));
  if (!rows.ok) throw new Error(JSON.stringify(rows.problem));
  const read = readCuttingList(rows.value, {
    unit: job.info.job.unit,
    stockroom: STOCK,
    newId: (i) => `back-${i}`,
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return read.value;
}

const words = fc.constantFrom("Rail", "=Rail, left", 'Shelf "B"', "Tür 2", "-x", "No. 4; long");
const size = fc.integer({ min: 50, max: 29_000 }).map((n) => n / 10);
const piece = fc.record({
  name: words,
  quantity: fc.integer({ min: 1, max: 40 }),
  length: size,
  width: size,
  board: fc.boolean(),
  inStock: fc.boolean(),
  material: fc.constantFrom(null, "oak: A/B", "S355"),
  angles: fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 })),
  stand: fc.constantFrom(null, "opposed" as const, "parallel" as const, { turn: 90 }),
  grain: fc.boolean(),
  edges: fc.subarray([...PANEL_EDGES]),
  tapes: fc.array(fc.constantFrom("Birch edging 1 mm", "iron-on 22", "edged"), {
    minLength: 4,
    maxLength: 4,
  }),
});

type Made = typeof piece extends fc.Arbitrary<infer T> ? T : never;
function typedPiece(one: Made, i: number): TypedPiece {
  const common = {
    id: `t${i}` as never,
    name: one.name,
    mark: null,
    quantity: one.quantity,
    material: one.material,
    leftOut: false,
    position: i,
    length: one.length,
  };
  if (!one.board)
    return {
      ...common,
      kind: "member",
      stock: one.inStock ? "tube" : null,
      stockText: one.inStock ? "Square tube 40 × 40 × 3" : "flat 40 x 5",
      shape: one.inStock ? null : { kind: "flat", size: [40, 5] },
      angles: one.angles,
      stand: one.stand,
    };
  const tapes = one.edges.map((edge, k) => [edge, one.tapes[k] ?? "edged"] as const);
  const named = tapes.filter(([, tape]) => tape !== "edged");
  return {
    ...common,
    kind: "panel",
    width: one.width,
    thickness: one.inStock ? null : 12,
    stock: one.inStock ? "ply" : null,
    stockText: one.inStock ? "Birch ply 18" : "MDF black",
    grain: one.grain,
    edged: PANEL_EDGES.filter((edge) => one.edges.includes(edge)),
    edgingText: null,
    ...(named.length > 0 ? { edgingTexts: Object.fromEntries(named) } : {}),
  };
}

describe.each(["csv", "xlsx"] as const)("a cut list as %s", (format) => {
  it.each(["mm", "in"] as const)("is read back whole, in %s", async (unit) => {
    await fc.assert(
      fc.asyncProperty(fc.array(piece, { minLength: 1, maxLength: 6 }), async (made) => {
        const base = newJob({
          info: {
            code: "T-1",
            title: "T",
            unit,
            format: { kind: "decimal", places: 6, trailingZeros: false },
          },
        });
        const job = jobOf(made.map(typedPiece), base);
        const back = await throughFiles(job, format);
        expect(back.unreadable).toEqual([]);
        expect(facts(jobOf(back.pieces, base))).toEqual(facts(job));
      }),
      { numRuns: format === "csv" ? 120 : 25 },
    );
  });
});
