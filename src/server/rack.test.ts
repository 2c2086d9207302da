import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import DxfParser from "dxf-parser";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { at } from "@/core/kernel";
import { layoutTasks, type SavedLayout, savedLayout } from "@/core/layout";
import { layOutSheets } from "@/core/layout/sheets";
import { resultsOf, STOCK, smallFrame } from "@/core/pipeline.fixture";
import type { RackPiece } from "@/core/stockroom";
import {
  type Connection,
  openDatabase,
  readLayouts,
  readRack,
  releaseLayout,
  removeCombined,
  removeRackPiece,
  saveCombined,
  saveLayout,
  saveRackPiece,
  saveStockEntry,
  setDeleted,
} from "@/db";
import { computeJob, openCombined, printDiagrams, printInput, printRackLabels } from ".";
import { createJob } from "./jobs";

const folder = mkdtempSync(path.join(tmpdir(), "rustic-tally-rack-"));
let db: Connection;
beforeAll(async () => {
  db = await openDatabase(`file:${path.join(folder, "rack.db")}`);
  for (const entry of STOCK.sections) await saveStockEntry(db, { kind: "section", entry }, null);
  for (const entry of STOCK.boards)
    await saveStockEntry(db, { kind: "board", entry: { ...entry, keep: 200, rack: "first" } }, null);
  for (const entry of STOCK.edging) await saveStockEntry(db, { kind: "edging", entry }, null);
});
afterAll(() => {
  db.close();
  rmSync(folder, { recursive: true, force: true });
});

const offcut = (id: string): Omit<RackPiece, "holder" | "label"> & { label: null } => ({
  id,
  label: null,
  entry: "ply",
  material: null,
  length: 1200,
  width: 800,
  place: "left",
  note: "",
  from: null,
});

/** The sheet layout of the small frame on a rack piece. */
function layoutOn(rack: string, owner: string): SavedLayout {
  const setting = { ...at(STOCK.boards, 0), keep: 200, rack: "first" as const };
  const stockroom = { ...STOCK, boards: [setting], boardById: new Map([["ply", setting]]) };
  const piece = { ...offcut(rack), label: "R-1", holder: null };
  const task = layoutTasks(resultsOf(smallFrame()).tally, stockroom, undefined, {
    owner,
    pieces: [piece],
  }).find((one) => one.kind === "sheets");
  if (task?.kind !== "sheets") throw new Error("a board");
  return savedLayout(task, layOutSheets(task.problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 2 }), 1);
}

describe("the rack", () => {
  it("gives labels once, sets aside for one job alone, and takes and gives on release", async () => {
    const first = await saveRackPiece(db, offcut("a"), 1);
    expect(first).toMatchObject({ piece: { label: "R-1" }, revision: 1 });
    expect(await removeRackPiece(db, "a", 2, 1)).toBeNull();
    expect(await saveRackPiece(db, offcut("b"), 3)).toMatchObject({ piece: { label: "R-2" } });
    expect(await saveRackPiece(db, { ...offcut("c"), label: "R-1" as never }, 3)).toMatchObject({
      why: expect.stringMatching(/already exists/),
    });

    const [one, two] = [await createJob(db, smallFrame()), await createJob(db, smallFrame())];
    const own = { job: one, variant: "", code: "T-1" };
    expect(await saveLayout(db, own, layoutOn("b", one), 4)).toBeNull();
    expect((await readRack(db))[0]?.holder).toMatchObject({ job: one, code: "T-1" });
    // Keeping it again is no clash with itself; another job is refused, and nothing of its layout stands.
    expect(await saveLayout(db, own, layoutOn("b", one), 5)).toBeNull();
    const other = { job: two, variant: "", code: "T-2" };
    expect(await saveLayout(db, other, layoutOn("b", two), 6)).toContain("R-2 is reserved for T-1");
    expect(await readLayouts(db, other)).toEqual([]);
    expect(await removeRackPiece(db, "b", 7, 1)).toContain("reserved for T-1");
    expect(await saveRackPiece(db, { ...offcut("b"), length: 900 }, 7, 1)).toMatchObject({
      why: expect.stringMatching(/its size cannot change/),
    });

    const task = layoutOn("b", one).taskId;
    const released = await releaseLayout(db, own, task, 8);
    if (typeof released === "string") throw new Error(released);
    expect(released.left.map((piece) => piece.label)).toEqual(["R-2"]);
    expect(released.entered.length).toBeGreaterThan(0);
    expect(released.entered[0]).toMatchObject({ label: "R-3", entry: "ply", from: "T-1", holder: null });
    expect((await readRack(db)).some((piece) => piece.label === "R-2")).toBe(false);
    expect(await releaseLayout(db, own, task, 9)).toContain("released already");
    // Kept again, or changed by hand, it is still the layout that was released; a new one is a new one.
    const rackBefore = (await readRack(db)).length;
    expect(await saveLayout(db, own, layoutOn("gone", one), 9)).toContain("released and stays");
    expect(await saveLayout(db, own, { ...layoutOn("gone", one), revision: 7 }, 9)).toContain(
      "released and stays",
    );
    expect(await releaseLayout(db, own, task, 9)).toContain("released already");
    expect((await readRack(db)).length).toBe(rackBefore);
    const labels = await printRackLabels(
      db,
      released.entered.map((piece) => piece.id),
      new Date(0),
    );
    expect(
      Buffer.from(labels ?? [])
        .subarray(0, 5)
        .toString(),
    ).toBe("%PDF-");
    expect(await printRackLabels(db, ["gone"], new Date(0))).toBeNull();
  });

  it("is free again when the job that holds it is deleted, or its batch removed", async () => {
    await saveRackPiece(db, offcut("d"), 20);
    const job = await createJob(db, smallFrame());
    await saveLayout(db, { job, variant: "", code: "T-3" }, layoutOn("d", job), 21);
    const holder = async () => (await readRack(db)).find((piece) => piece.id === "d")?.holder ?? null;
    expect(await holder()).toMatchObject({ job });
    await setDeleted(db, job, 22);
    expect(await holder()).toBeNull();

    const kept = await createJob(db, smallFrame());
    await saveCombined(db, { id: "batch-1", name: "Both", jobs: [kept, job] }, 23);
    expect(
      await saveLayout(db, { combined: "batch-1", code: "Both" }, layoutOn("d", "batch-1"), 24),
    ).toBeNull();
    expect(await holder()).toMatchObject({ job: "batch-1", code: "Both" });
    const open = await openCombined(db, "batch-1");
    expect(open).toMatchObject({ gone: 1, combined: { name: "Both" } });
    expect(open?.layouts).toHaveLength(1);
    expect(await removeCombined(db, "batch-1")).toBe(true);
    expect(await holder()).toBeNull();
  });
});

describe("diagrams", () => {
  it("leave as PDF, SVG and DXF; the DXF holds each panel at full size on its layer", async () => {
    const job = await createJob(db, smallFrame());
    const saved = layoutOn("e", job);
    if (saved.kind !== "sheets") throw new Error("sheets");
    const bought = { ...saved, layout: { ...saved.layout } };
    await saveRackPiece(db, offcut("e"), 30);
    expect(await saveLayout(db, { job, variant: "", code: "T-1" }, bought, 31)).toBeNull();
    const computed = await computeJob(db, job, "");
    if (!computed) throw new Error("the job");
    const made = new Date(0);
    const input = printInput(computed, "", made);
    const dxf = await printDiagrams(input, saved.taskId, "dxf", made);
    const drawing = new DxfParser().parseSync(String(dxf));
    const outlines = (layer: string) => (drawing?.entities ?? []).filter((one) => one.layer === layer);
    const panels = saved.layout.sheets.flatMap((sheet) => sheet.placements);
    expect(outlines("PANELS")).toHaveLength(panels.length);
    const [first] = outlines("PANELS") as unknown as { vertices: { x: number; y: number }[] }[];
    const xs = first?.vertices.map((vertex) => vertex.x) ?? [];
    expect(Math.max(...xs) - Math.min(...xs)).toBeWithinMm(panels[0]?.length ?? 0, 1e-6);
    expect(outlines("LABELS").length).toBeGreaterThan(panels.length);
    expect(outlines("CUTS").length).toBeGreaterThan(0);
    const svg = String(await printDiagrams(input, saved.taskId, "svg", made));
    expect(svg).toContain("Cutting order of sheet 1");
    const pdf = await printDiagrams(input, saved.taskId, "pdf", made);
    writeFileSync(path.join(folder, "d.pdf"), pdf ?? "");
    expect(readFileSync(path.join(folder, "d.pdf")).subarray(0, 5).toString()).toBe("%PDF-");
    expect(await printDiagrams(input, "no such task", "pdf", made)).toBeNull();
  });
});

describe("a piece of the rack", () => {
  it("two people change one piece: the second is told what the first left, and takes out nothing unseen", async () => {
    const put = await saveRackPiece(db, offcut("two"), 1);
    if (put.kind !== "saved") throw new Error(put.why);
    const { label } = put.piece;
    const first = await saveRackPiece(db, { ...offcut("two"), label, place: "left" }, 2, 1);
    expect(first).toMatchObject({ kind: "saved", revision: 2 });
    const second = await saveRackPiece(db, { ...offcut("two"), label, note: "scratched" }, 3, 1);
    expect(second).toMatchObject({
      kind: "refused",
      why: expect.stringMatching(/changed somewhere else/),
      theirs: { piece: { place: "left", note: "" }, revision: 2 },
    });
    expect(await saveRackPiece(db, offcut("two"), 3)).toMatchObject({ kind: "refused" });
    expect(await removeRackPiece(db, "two", 4, 1)).toMatch(/changed somewhere else/);
    expect(await removeRackPiece(db, "two", 4, 2)).toBeNull();
    expect(await saveRackPiece(db, { ...offcut("two"), label }, 5, 2)).toMatchObject({
      why: expect.stringMatching(/has left the rack/),
    });
  });
});
