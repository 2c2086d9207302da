/**
 * Grouping at size, beside the cheapest thing that could be done: a plain hash of rounded values, which parts twins
 * that lie on either side of a rounding step and knows neither turns nor hands. And a list over 2,000 rows.
 */
import { type Job, LIST_DEFAULTS, type ListSetup, newJob, plainColumn } from "@/core/job";
import { addTo, seededRandom, toNm } from "@/core/kernel";
import { createLister, ownList } from "@/core/lists";
import { createPipeline } from "@/core/pipeline";
import type { SectionShape, Stockroom } from "@/core/stockroom";
import { type Form, groupPieces, type Piece } from "@/core/tally";

type Run = (work: () => void) => number;

/** Bars of one stock, ten of each length on average, cut square, mitred or leaning either way, jittered within 0.04 mm. */
function generatedPieces(count: number): readonly Piece[] {
  const random = seededRandom(7);
  const shape: SectionShape = { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" };
  const slopes = [
    [0, 0],
    [1, 0],
    [0, 1],
    [-1, 0],
  ] as const;
  return Array.from({ length: count }, (_, i): Piece => {
    const kind = Math.floor(random.next() * (count / 10));
    const centreNm = toNm(300.03 + kind * 0.7 + (random.next() - 0.5) * 0.08);
    const form: Form = {
      kind: "member",
      shape,
      centreNm,
      cutNm: centreNm,
      longestNm: centreNm,
      shortestNm: centreNm,
      ends: [
        { kind: "plane", slope: slopes[kind % 4] ?? [0, 0] },
        { kind: "plane", slope: slopes[(kind >> 2) % 4] ?? [0, 0] },
      ],
      holes: [],
      notches: [],
    };
    return {
      id: `p${i}`,
      kind: "member",
      name: "Bar",
      quantity: 1,
      mirrored: 0,
      places: [""],
      form,
      stock: "tube",
      stockName: "Tube",
      material: "S235",
      typed: false,
      typedMark: null,
      leftOut: false,
      boughtLength: null,
      why: null,
    };
  });
}

/** Rounded values as a key. */
function hashed(pieces: readonly Piece[]): number {
  const rows = new Map<string, Piece[]>();
  for (const piece of pieces) {
    const { form } = piece;
    if (form.kind !== "member") continue;
    const slopes = form.ends
      .flatMap((end) => (end.kind === "plane" ? end.slope : []))
      .map((s) => Math.round(s * 1000));
    const rounded = [Math.round(form.centreNm / 1e5), ...slopes];
    const key = `${piece.stock}|${piece.material}|${rounded.join("|")}`;
    addTo(rows, key, piece);
  }
  return rows.size;
}

export function groupingTable(timed: Run, median: (values: readonly number[]) => number): void {
  console.log("Grouping pieces of one stock into rows (median), beside a plain hash of rounded values");
  const times: number[] = [];
  for (const count of [1_000, 10_000, 100_000]) {
    const pieces = generatedPieces(count);
    let rows = 0;
    let keys = 0;
    const runs = count > 50_000 ? 3 : 7;
    const own = median(
      Array.from({ length: runs }, () =>
        timed(() => {
          rows = groupPieces(pieces).length;
        }),
      ),
    );
    const plain = median(
      Array.from({ length: runs }, () =>
        timed(() => {
          keys = hashed(pieces);
        }),
      ),
    );
    times.push(own);
    const growth = times.length > 1 ? `, ${(own / (times.at(-2) ?? 1)).toFixed(1)} × the row above` : "";
    console.log(
      `  ${String(count).padStart(7)} pieces${ms(own)}   ${(own / plain).toFixed(1).padStart(5)} × the hash; ${rows} rows, the hash makes ${keys}${growth}`,
    );
  }
  console.log("");
}

/** 20,000 panels in 2,000 rows. */
function largeJob(): Job {
  const panels = Object.fromEntries(
    Array.from({ length: 20_000 }, (_, i) => [
      `p${i}`,
      {
        name: `Panel ${i % 40}`,
        board: i % 2 === 0 ? "birch-ply-12" : "birch-ply-18",
        length: String(200 + (i % 2_000)),
        width: String(100 + ((i % 2_000) % 7) * 50),
        origin: ["0", "0", String(i)] as const,
      },
    ]),
  );
  return newJob({ info: { code: "B", title: "Bench" }, panels });
}

export function listTable(
  stockroom: Stockroom,
  timed: Run,
  median: (values: readonly number[]) => number,
): void {
  const job = largeJob();
  const results = createPipeline()(job, null, stockroom, []);
  const ground = { job, stockroom, ...results };
  const setup: ListSetup = {
    ...LIST_DEFAULTS,
    id: "list" as ListSetup["id"],
    name: "List",
    kinds: ["member", "panel", "other"],
    assembly: null,
    columns: ["mark", "name", "count", "silhouette", "length", "width", "stock", "cost"].map(plainColumn),
    order: [],
    groupBy: null,
    showRows: true,
    totals: false,
    sizeOfMember: null,
    sizeOfPanel: null,
    position: 0,
  };
  const views: readonly (readonly [string, Partial<ListSetup>])[] = [
    ["as the tally has it", {}],
    [
      "ordered by two columns",
      {
        order: [
          { column: "name", descending: true },
          { column: "length", descending: false },
        ],
      },
    ],
    ["in groups by name, with subtotals and totals", { groupBy: "name", totals: true }],
    ["groups added up to one row each", { groupBy: "stock", showRows: false }],
  ];
  console.log(`A list of 20,000 pieces in ${results.tally.rows.length} rows (median; aim: 50 ms)`);
  const lister = createLister();
  for (const [name, set] of views) {
    const times = Array.from({ length: 15 }, () => timed(() => ownList({ ...setup, ...set }, ground)));
    const again = Array.from({ length: 15 }, () => timed(() => lister({ ...setup, ...set }, ground)));
    console.log(`  ${name.padEnd(48)}${ms(median(times))} from nothing,${ms(median(again))} on an open desk`);
  }
  console.log("");
}

const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 0).padStart(8)} ms`;
