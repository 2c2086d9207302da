/** Layouts along outlines as they are stored, checked on their way in, and given out as files. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import DxfParser from "dxf-parser";
import * as v from "valibot";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { fullSizeDrawing, shopPapers } from "@/core/drawing";
import { at } from "@/core/kernel";
import { layoutTasks, type SavedLayout, SavedSchema, savedFault, savedLayout } from "@/core/layout";
import { layOutNesting } from "@/core/layout/nesting";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { type Connection, openDatabase, readLayouts, releaseLayout, saveLayout, saveStockEntry } from "@/db";
import { shelfBrackets } from "../../demo/shelf-brackets";
import { demoStockroom } from "../../demo/stockroom";
import { computeJob, printDiagrams, printInput } from ".";
import { createJob } from "./jobs";

const stockroom = stockroomOf(demoStockroom);
const folder = mkdtempSync(path.join(tmpdir(), "rustic-tally-shapes-"));
let db: Connection;
let job = "";
beforeAll(async () => {
  db = await openDatabase(`file:${path.join(folder, "shapes.db")}`);
  for (const entry of stockroom.sections) await saveStockEntry(db, { kind: "section", entry }, null);
  for (const entry of stockroom.boards) await saveStockEntry(db, { kind: "board", entry }, null);
  for (const entry of stockroom.bought) await saveStockEntry(db, { kind: "bought", entry }, null);
  job = await createJob(db, shelfBrackets());
});
afterAll(() => {
  db.close();
  rmSync(folder, { recursive: true, force: true });
});

function laid(): Extract<SavedLayout, { kind: "shapes" }> {
  const { tally } = createPipeline()(shelfBrackets(), null, stockroom, []);
  const task = layoutTasks(tally, stockroom).find((one) => one.kind === "shapes");
  if (task?.kind !== "shapes") throw new Error("a plate");
  const layout = layOutNesting(task.problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 2 });
  const saved = savedLayout(task, layout, 1);
  if (saved.kind !== "shapes") throw new Error("a layout of shapes");
  return saved;
}
const owner = () => ({ job, variant: "", code: "HL-214" });

describe("a layout along outlines", () => {
  it("comes in through its schema with all that it holds, and is stored so", async () => {
    const saved = laid();
    const read = v.parse(SavedSchema, JSON.parse(JSON.stringify(saved)));
    expect(read).toEqual(JSON.parse(JSON.stringify(saved)));
    expect(savedFault(read as SavedLayout)).toBeNull();
    expect(await saveLayout(db, owner(), saved, 1)).toBeNull();
    const [stored] = await readLayouts(db, owner());
    expect(stored).toMatchObject({ kind: "shapes", problem: saved.problem, layout: saved.layout });
  });

  it("is refused where two pieces lie too near, or a corner has a number too many", () => {
    const saved = laid();
    const [first, ...sheets] = saved.layout.sheets;
    if (!first) throw new Error("a sheet");
    const [one, other, ...rest] = first.placements;
    if (!one || !other) throw new Error("two pieces");
    const placements = [one, { ...other, x: one.x + 5, y: one.y, angle: one.angle }, ...rest];
    const layout = { ...saved.layout, sheets: [{ ...first, placements }, ...sheets] };
    expect(savedFault({ ...saved, layout })).toMatch(/nearer than the gap|lies off it/);
    const shapes = saved.problem.shapes.map((shape) => ({
      ...shape,
      outline: [...shape.outline, [0, 0, 0, 9]],
    }));
    expect(v.safeParse(SavedSchema, { ...saved, problem: { ...saved.problem, shapes } }).success).toBe(false);
  });

  it("leaves as DXF with true arcs and holes on a layer of their own", async () => {
    const saved = laid();
    await saveLayout(db, owner(), saved, 2);
    const computed = await computeJob(db, job, "");
    if (!computed) throw new Error("the job");
    const made = new Date(0);
    const input = printInput(computed, "", made);
    const drawing = new DxfParser().parseSync(String(await printDiagrams(input, saved.taskId, "dxf", made)));
    type Entity = {
      layer: string;
      type: string;
      vertices?: { x: number; y: number; bulge?: number }[];
      radius?: number;
    };
    const entities = (drawing?.entities ?? []) as unknown as Entity[];
    const on = (layer: string) => entities.filter((one) => one.layer === layer);
    expect(on("PANELS")).toHaveLength(36);
    // Four corners of a wall plate are quarter circles: a bulge of tan(90° / 4) each (DXF reference, group code 42).
    const rounded = on("PANELS").filter(
      ({ vertices }) => vertices?.length === 8 && vertices.some((one) => one.bulge),
    );
    const bulges = rounded.flatMap(
      ({ vertices }) => vertices?.flatMap((one) => (one.bulge ? [one.bulge] : [])) ?? [],
    );
    expect(rounded).toHaveLength(12);
    for (const bulge of bulges) expect(bulge).toBeWithinMm(Math.tan(Math.PI / 8), 1e-9);
    // Twelve brackets: four holes of 9 in each wall plate, one of 11 in each lug.
    expect(
      on("HOLES")
        .map((one) => one.radius)
        .sort(),
    ).toEqual([...Array(48).fill(4.5), ...Array(12).fill(5.5)]);
    const svg = String(await printDiagrams(input, saved.taskId, "svg", made));
    expect(svg).toContain("Sheet 1: pieces");
    const pdf = await printDiagrams(input, saved.taskId, "pdf", made);
    expect(
      Buffer.from(pdf ?? [])
        .subarray(0, 5)
        .toString(),
    ).toBe("%PDF-");
  });

  it("stands on the shop papers to scale, with each mark and the cut's length", () => {
    const saved = laid();
    const results = createPipeline()(shelfBrackets(), null, stockroom, [saved]);
    const { info } = shelfBrackets();
    const papers = shopPapers(
      {
        results,
        saved: [saved],
        saws: [],
        info: info.job,
        shop: "",
        revision: 1,
        made: "",
        variant: null,
      } as never,
      "a4",
    );
    const words = papers.flatMap(({ items }) =>
      items.flatMap((item) => (item.kind === "text" ? [item.text] : [])),
    );
    expect(words.filter((word) => word === "D").length).toBeGreaterThanOrEqual(12);
    expect(words.some((word) => /^Sheet 1, 1000 × 500 mm · scale 1:\d+$/.test(word))).toBe(true);
    expect(words.some((word) => /m cutting length, \d+ starts?\./.test(word))).toBe(true);
    // A lug: two straight sides of 35, the front of 40, half a circle of radius 20.
    const { items } = fullSizeDrawing(saved, {
      unit: "mm",
      format: { kind: "decimal", places: 1, trailingZeros: false },
    });
    expect(items.filter((one) => one.layer === "HOLES")).toHaveLength(60);
    const round = 2 * 35 + 40 + Math.PI * 20;
    expect(words).toContain(round.toFixed(1));
  });

  it("goes to the floor, and the end of its sheet into the rack", async () => {
    const saved = laid();
    await saveLayout(db, owner(), saved, 3);
    const outcome = await releaseLayout(db, owner(), saved.taskId, 4);
    if (typeof outcome === "string") throw new Error(outcome);
    const rest = saved.layout.sheets.flatMap(({ offcuts }) => offcuts).filter((one) => one.length >= 200);
    expect(outcome.entered.map(({ length, width }) => [length, width])).toEqual(
      rest.map(({ length, width }) => [length, width]),
    );
    expect(at(outcome.entered, 0)).toMatchObject({ entry: "plate-6", material: "S235", from: "HL-214" });
  });
});
