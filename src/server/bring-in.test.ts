/** Files of solids and lines brought into a stored job, as somebody does who asks over HTTP. */
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { beforeAll, expect, it } from "vitest";
import { newJob } from "@/core/job";
import { sentence } from "@/core/kernel";
import { type Connection, openDatabase } from "@/db";
import { openBoardStep } from "@/formats/step/open-shell.fixture";
import { trolleyStep } from "../../demo/trolley";
import { bringIn } from "./bring-in";
import { createJob, currentStockroom } from "./jobs";
import { computeJob } from "./papers";

let db: Connection;
beforeAll(async () => {
  db = await openDatabase(`file:${path.join(mkdtempSync(path.join(tmpdir(), "tally-bring-")), "db")}`);
});

const bytesOf = (text: string) => new TextEncoder().encode(text);
const job = async (code: string): Promise<string> => createJob(db, newJob({ info: { code, title: code } }));

it("a STEP file enters with the entries that the stockroom lacks, into one job after another", async () => {
  const file = { name: "trolley.step", bytes: bytesOf(trolleyStep()), scale: 1, drawingOf: null };
  for (const code of ["T-1", "T-2"]) {
    const id = await job(code);
    const brought = await bringIn(db, id, file);
    if (!brought?.ok) throw new Error(brought ? sentence(brought.problem) : "no such job");
    expect(brought.value.answer.status).toBe("applied");
    const computed = await computeJob(db, id, "");
    const rows = computed?.results.tally.rows.map(({ name, count }) => `${count} ${name}`);
    expect(rows).toEqual(expect.arrayContaining(["4 Long rail", "4 Short rail", "4 Post", "2 Deck"]));
  }
  // The second job takes what the first one added.
  const { sections } = await currentStockroom(db);
  expect(sections).toHaveLength(1);
}, 120_000);

it("what is told of a file comes along; a scale makes it larger", async () => {
  const id = await job("T-3");
  const brought = await bringIn(db, id, {
    name: "shelf.step",
    bytes: bytesOf(openBoardStep("Shelf", [600, 300, 18], 0.2)),
    scale: 2,
    drawingOf: null,
  });
  if (!brought?.ok) throw new Error("not brought in");
  expect(brought.value.told.join()).toMatch(/Shelf: No solid: it is open at 6 places/);
  const [part] = Object.values(brought.value.stored.job.boughtParts);
  expect(part?.stand?.as.kind).toBe("shape");
}, 60_000);

it("lines of a DXF file enter, and outlines as panels; what cannot be read is a sentence, and no job is none", async () => {
  const bytes = readFileSync("src/formats/fixtures/skeleton-R12.dxf");
  const id = await job("T-4");
  const brought = await bringIn(db, id, { name: "frame.dxf", bytes, scale: 1, drawingOf: null });
  expect(brought?.ok && Object.keys(brought.value.stored.job.lines)).toHaveLength(9);
  const panels = readFileSync("src/formats/fixtures/panels-R2010.dxf");
  const drawn = await bringIn(db, id, { name: "panels.dxf", bytes: panels, scale: 1, drawingOf: null });
  expect(drawn?.ok && Object.keys(drawn.value.stored.job.panels)).toHaveLength(4);
  for (const name of ["bad.step", "bad.dxf"]) {
    const refused = await bringIn(db, id, { name, bytes: bytesOf("nothing"), scale: 1, drawingOf: null });
    expect(refused && !refused.ok && sentence(refused.problem)).toMatch(/[.]$/);
  }
  expect(await bringIn(db, "nowhere", { name: "frame.dxf", bytes, scale: 1, drawingOf: null })).toBeNull();
}, 60_000);
