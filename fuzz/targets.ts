/**
 * What malformed inputs are thrown at: every way in that a stranger has. Each target makes an input and takes it through;
 * a refusal must be a sentence, and what is accepted must be computed, stored and read again.
 */
import { readFileSync } from "node:fs";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import * as v from "valibot";
import { thumbnail } from "@/core/drawing";
import {
  applyDiff,
  applyEdit,
  type Edit,
  EditSchema,
  emptyJob,
  issueWords,
  type Job,
  lawFault,
  NO_ASSETS,
  newInsert,
  newKeySize,
  newMember,
  newPoint,
  readCuttingList,
  readJob,
  resolveSizes,
  rowFaultWords,
  storedFault,
} from "@/core/job";
import { type Problem, type Random, type Result, sentence } from "@/core/kernel";
import { BarProblemSchema, layOutBars, lockedBarFault } from "@/core/layout/bars";
import { layOutNesting, lockedNestingFault, NestingProblemSchema } from "@/core/layout/nesting";
import { layOutSheets, lockedFault, SheetProblemSchema } from "@/core/layout/sheets";
import { listNames, namedTable } from "@/core/lists";
import { createPipeline } from "@/core/pipeline";
import { readTriangles } from "@/core/shape";
import { indexStockroom, type Stockroom, stockroomOf } from "@/core/stockroom";
import { loadLinearSolver } from "@/engines/linear-solver";
import { listRows } from "@/formats/csv";
import { readOutline } from "@/formats/dxf-in";
import { readJobFile, writeJobFile } from "@/formats/job-file";
import { xlsxRows } from "@/formats/xlsx-in";
import { pottingBench } from "../demo/potting-bench";
import { shelfBrackets } from "../demo/shelf-brackets";
import { demoStockroom } from "../demo/stockroom";
import { mutatedBytes, mutatedJson, mutatedText } from "./mutate";

/** An input, made before it is taken through, so that what hangs can be told. */
export type Try = { readonly input: string | Uint8Array; readonly run: () => Promise<"taken" | "refused"> };
export type Target = { readonly name: string; readonly make: (random: Random) => Try };

const STOCK = stockroomOf(demoStockroom);
const BENCH = pottingBench();
const pick = <T>(random: Random, values: readonly T[]): T => values[random.below(values.length)] as T;
const asText = (value: unknown) => JSON.stringify(value) ?? "null";

/** A refusal has words that a person can read. */
function refusedWith(words: string): "refused" {
  if (!/[a-z]{2}/i.test(words) || /undefined|\[object|NaN|\bat \S+:\d+/.test(words))
    throw new Error(`a refusal without a sentence: ${words.slice(0, 300)}`);
  return "refused";
}
const told = <T>(result: Result<T, Problem>) =>
  result.ok ? ("taken" as const) : refusedWith(sentence(result.problem));

/** Every stage of a job: nothing may throw, and all that is said are words. */
function computeAll(job: Job, stockroom: Stockroom): void {
  for (const variant of [null, ...Object.values(job.variants).map(({ id }) => id)].slice(0, 3)) {
    const results = createPipeline()(job, variant, stockroom, []);
    for (const { message } of results.tally.checks) refusedWith(message);
    for (const name of listNames(job).slice(0, 6)) namedTable(name, { job, stockroom, ...results });
    thumbnail(results.shape, 260, 170);
    resolveSizes(job, variant);
  }
}

const EDITS: readonly Edit[] = [
  {
    kind: "changeMembers",
    ids: Object.keys(BENCH.members).slice(0, 2) as never,
    set: { name: "Rail", roll: "45" },
  },
  {
    kind: "changePanels",
    ids: Object.keys(BENCH.panels).slice(0, 1) as never,
    set: { length: "600", work: [] },
  },
  {
    kind: "changeBoughtParts",
    ids: Object.keys(BENCH.boughtParts).slice(0, 1) as never,
    set: { count: "12" },
  },
  { kind: "changePoint", id: Object.keys(BENCH.points)[0] as never, set: { at: ["1", "width / 2", "3"] } },
  { kind: "setKeySize", id: Object.keys(BENCH.keySizes)[0] as never, formula: "1200", variant: null },
  { kind: "addKeySize", keySize: newKeySize("fresh", "fresh", "width / 2") },
  {
    kind: "addVariant",
    variant: { id: "v" as never, name: "Other", formulas: { width: "900" }, position: 9 },
  },
  { kind: "changeInfo", set: { title: "Bench", batch: 3, wastePercent: 5 } },
  { kind: "remove", ids: Object.keys(BENCH.members).slice(0, 1) as never },
  { kind: "keepMarks", marks: [{ id: Object.keys(BENCH.members)[0] ?? "", mark: "Z" }], drop: [] },
  { kind: "setMeant", id: "a|b", meant: true },
  newInsert("Frame", {
    points: [newPoint("np", "NP", ["0", "0", "0"]), newPoint("nq", "NQ", ["500", "0", "width / 3"])],
    lines: [{ id: "nl" as never, from: "np" as never, to: "nq" as never }],
    members: [
      newMember("nm", "nl", {
        name: "New",
        from: "np",
        to: "nq",
        section: Object.values(BENCH.members)[0]?.section ?? null,
      }),
    ],
  }),
  { kind: "together", edits: [{ kind: "setMeant", id: "x", meant: true }] },
];

const edits: Target = {
  name: "edits",
  make: (random) => {
    const edit = mutatedJson(random, pick(random, EDITS));
    return {
      input: asText(edit),
      run: async () => {
        const read = v.safeParse(EditSchema, JSON.parse(asText(edit)));
        if (!read.success) return refusedWith(issueWords(read.issues));
        const diff = applyEdit(BENCH, read.output);
        if (!diff.ok) return told(diff);
        const storable = storedFault(BENCH, diff.value);
        if (!storable.ok) return told(storable);
        const after = applyDiff(BENCH, diff.value);
        const again = readJob(JSON.parse(asText(after)));
        if (!again.ok) throw new Error(`a stored job cannot be read: ${sentence(again.problem)}`);
        computeAll(again.value, STOCK);
        return "taken";
      },
    };
  },
};

const jobFiles: Target = {
  name: "job files",
  make: (random) => {
    const good = pick(random, [
      () => writeJobFile(BENCH, STOCK, { assets: NO_ASSETS }),
      () => writeJobFile(shelfBrackets(), STOCK, { assets: NO_ASSETS }),
    ])();
    const text =
      random.below(4) === 0 ? mutatedText(random, good) : asText(mutatedJson(random, JSON.parse(good)));
    return {
      input: text,
      run: async () => {
        const file = readJobFile(text);
        if (!file.ok) return told(file);
        const fault = lawFault(file.value.job);
        if (fault !== null) throw new Error(`a file was read that breaks a law: ${fault}`);
        computeAll(file.value.job, indexStockroom(file.value.stockroom));
        return "taken";
      },
    };
  },
};

const GATE = readFileSync(new URL("../demo/allotment-gate.csv", import.meta.url), "utf8");

function throughList(rows: Result<readonly (readonly string[])[], Problem>): "taken" | "refused" {
  if (!rows.ok) return told(rows);
  let count = 0;
  const read = readCuttingList(rows.value, { unit: "mm", stockroom: STOCK, newId: () => `p${count++}` });
  if (!read.ok) return told(read);
  for (const { fault } of read.value.unreadable) refusedWith(rowFaultWords(fault));
  const base = emptyJob({ code: "F", title: "F" });
  const typedPieces = Object.fromEntries(read.value.pieces.map((piece) => [piece.id, piece]));
  const again = readJob(JSON.parse(asText({ ...base, typedPieces })));
  if (!again.ok) throw new Error(`a list makes a job that cannot be read: ${sentence(again.problem)}`);
  computeAll(again.value, STOCK);
  return "taken";
}

const csv: Target = {
  name: "CSV",
  make: (random) => {
    const text = mutatedText(random, GATE);
    const bytes = random.below(5) === 0 ? mutatedBytes(random, strToU8(text)) : strToU8(text);
    return { input: bytes, run: async () => throughList(listRows(bytes)) };
  },
};

/** A spreadsheet written by hand: the parts that a reader needs and no more. */
const SHEET = (() => {
  const rows = GATE.split(/\r?\n/)
    .filter((line) => line !== "")
    .map((line) => line.split(/[;,]/));
  const cells = rows
    .map(
      (row, i) =>
        `<row r="${i + 1}">${row.map((text) => `<c t="inlineStr"><is><t>${text.replace(/[&<"]/g, "")}</t></is></c>`).join("")}</row>`,
    )
    .join("");
  return zipSync({
    "xl/workbook.xml": strToU8(
      '<workbook><sheets><sheet name="List" r:id="a" xmlns:r="b"/></sheets></workbook>',
    ),
    "xl/_rels/workbook.xml.rels": strToU8(
      '<Relationships><Relationship Id="a" Target="worksheets/sheet1.xml"/></Relationships>',
    ),
    "xl/worksheets/sheet1.xml": strToU8(`<worksheet><sheetData>${cells}</sheetData></worksheet>`),
    "xl/sharedStrings.xml": strToU8("<sst><si><t>Rail</t></si></sst>"),
  });
})();

const xlsx: Target = {
  name: "XLSX",
  make: (random) => {
    const parts = unzipSync(SHEET);
    const name = pick(random, Object.keys(parts));
    const text = mutatedText(random, strFromU8(parts[name] ?? new Uint8Array()));
    const bytes =
      random.below(3) === 0 ? mutatedBytes(random, SHEET) : zipSync({ ...parts, [name]: strToU8(text) });
    return { input: bytes, run: async () => throughList(await xlsxRows(bytes)) };
  },
};

const pairs = (...all: readonly (readonly [number, string | number])[]) =>
  all.map(([code, value]) => `${code}\n${value}\n`).join("");
const DXF = [
  pairs(
    [0, "SECTION"],
    [2, "HEADER"],
    [9, "$INSUNITS"],
    [70, 4],
    [0, "ENDSEC"],
    [0, "SECTION"],
    [2, "ENTITIES"],
  ),
  pairs(
    [0, "LWPOLYLINE"],
    [8, "0"],
    [90, 4],
    [70, 1],
    [10, 0],
    [20, 0],
    [10, 80],
    [20, 0],
    [42, 0.4],
    [10, 80],
    [20, 60],
    [10, 0],
    [20, 60],
  ),
  pairs([0, "CIRCLE"], [8, "0"], [10, 40], [20, 30], [40, 5]),
  pairs(
    [0, "POLYLINE"],
    [8, "0"],
    [66, 1],
    [70, 1],
    [0, "VERTEX"],
    [8, "0"],
    [10, 20],
    [20, 20],
    [0, "VERTEX"],
    [8, "0"],
    [10, 21],
    [20, 20],
    [0, "VERTEX"],
    [8, "0"],
    [10, 21],
    [20, 21],
    [0, "SEQEND"],
  ),
  pairs([0, "ARC"], [8, "0"], [10, 10], [20, 10], [40, 2], [50, 0], [51, 360]),
  pairs([0, "ENDSEC"], [0, "EOF"]),
].join("");

const dxf: Target = {
  name: "DXF",
  make: (random) => {
    const text = mutatedText(random, DXF);
    return { input: text, run: async () => told(readOutline("part.dxf", text)) };
  },
};

const STL = `solid a\n${"facet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 2.5e1\nendloop\nendfacet\n".repeat(4)}endsolid a\n`;
const BINARY_STL = (() => {
  const bytes = new Uint8Array(84 + 3 * 50);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, 3, true);
  for (let i = 0; i < 3; i++)
    for (let k = 0; k < 12; k++) view.setFloat32(84 + i * 50 + 4 * k, (i + 1) * (k % 5), true);
  return bytes;
})();

const stl: Target = {
  name: "STL",
  make: (random) => {
    const bytes =
      random.below(2) === 0 ? strToU8(mutatedText(random, STL)) : mutatedBytes(random, BINARY_STL);
    return {
      input: bytes,
      run: async () => told(readTriangles("part.stl", bytes.slice().buffer)),
    };
  },
};

const BARS = {
  kerf: 2.5,
  trim: 5,
  stock: [
    { length: 6000, price: 21.6, count: null },
    { length: 1240, price: null, count: 2, rack: "R-1" },
  ],
  pieces: [
    { length: 1200, qty: 4 },
    { length: 350.5, qty: 7 },
  ],
  fixed: [{ stock: 0, pieces: [{ piece: 0, place: 5 }] }],
};
const SHEETS = {
  kerf: 3.2,
  trim: 10,
  stages: 3,
  stock: [{ length: 2440, width: 1220, price: 54, count: null, grain: "length" }],
  panels: [
    { length: 720, width: 400, qty: 3, grain: true },
    { length: 300, width: 200, qty: 4, grain: false },
  ],
  together: [{ panels: [0, 0], along: "width", qty: 1 }],
  fixed: [{ stock: 0, placements: [{ panel: 1, x: 10, y: 10, rotated: false }] }],
};
const SHAPES = {
  gap: 3,
  margin: 8,
  stock: [{ length: 300, width: 200, price: 9 }],
  shapes: [
    {
      outline: [
        [0, 0],
        [100, 0],
        [0, 100],
      ],
      qty: 3,
    },
  ],
};

function problems<S extends v.GenericSchema>(
  name: string,
  good: unknown,
  schema: S,
  run: (problem: v.InferOutput<S>) => Promise<string | null>,
): Target {
  return {
    name,
    make: (random) => {
      const text = asText(mutatedJson(random, good));
      return {
        input: text,
        run: async () => {
          const read = v.safeParse(schema, JSON.parse(text));
          if (!read.success) return refusedWith(issueWords(read.issues));
          const fault = await run(read.output);
          return fault === null ? "taken" : refusedWith(fault);
        },
      };
    },
  };
}
const now = () => performance.now();

const bars = problems("bars", BARS, BarProblemSchema, async (problem) => {
  const locked = lockedBarFault(problem);
  if (locked !== null) return locked;
  layOutBars(problem, { solver: await loadLinearSolver(), now, budgetMs: 150 });
  return null;
});
const sheets = problems("sheets", SHEETS, SheetProblemSchema, async (problem) => {
  const locked = lockedFault(problem);
  if (locked !== null) return locked;
  layOutSheets(problem, { seed: 1, now, budgetMs: 150, passes: 3 });
  return null;
});
const shapes = problems("shapes", SHAPES, NestingProblemSchema, async (problem) => {
  const locked = lockedNestingFault(problem);
  if (locked !== null) return locked;
  layOutNesting(problem, { seed: 1, now, budgetMs: 150 });
  return null;
});

export const TARGETS: readonly Target[] = [edits, jobFiles, csv, xlsx, dxf, stl, bars, sheets, shapes];
