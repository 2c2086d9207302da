/** Edits, undo, clashes and lost power on a real database file. */
import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Edit, type Job, setupToKeep } from "@/core/job";
import { layoutTasks, type SavedLayout, savedLayout } from "@/core/layout";
import { LIST_STARTS, startList } from "@/core/lists";
import { resultsOf, STOCK, smallFrame } from "@/core/pipeline.fixture";
import {
  type Connection,
  findJob,
  insertJob,
  keepListSetup,
  listJobs,
  openDatabase,
  rawDocument,
  readLayouts,
  readListSetups,
  readStock,
  removeListSetup,
  removeStockEntry,
  saveLayout,
  saveStockEntry,
  setDeleted,
  UnreadableJob,
} from "@/db";
import { editLog, jobs } from "@/db/schema";
import {
  computeJob,
  createEmptyJob,
  createFromList,
  duplicateJob,
  jobCards,
  jobPicture,
  openJob,
  openJobText,
  printJob,
  printList,
  readListRows,
  stepBack,
  submitEdit,
} from ".";
import { createJob } from "./jobs";

const folder = mkdtempSync(path.join(tmpdir(), "rustic-tally-server-"));
const url = `file:${path.join(folder, "test.db")}`;
let db: Connection;

beforeAll(async () => {
  db = await openDatabase(url);
  for (const entry of STOCK.sections) await saveStockEntry(db, { kind: "section", entry }, null);
  for (const entry of STOCK.boards) await saveStockEntry(db, { kind: "board", entry }, null);
  for (const entry of STOCK.edging) await saveStockEntry(db, { kind: "edging", entry }, null);
  for (const entry of STOCK.bought) await saveStockEntry(db, { kind: "bought", entry }, null);
});
afterAll(() => db.close());

const width = (formula: string): Edit => ({ kind: "setKeySize", id: "size-width", formula, variant: null });
const depth = (formula: string): Edit => ({ kind: "setKeySize", id: "size-depth", formula, variant: null });
const widthOf = (job: Job | undefined) => job?.keySizes["size-width"]?.formula;
const fresh = () => createJob(db, smallFrame());
const must = <T>(value: T | null): T => {
  if (value === null) throw new Error("there is such a job");
  return value;
};
const edit = async (id: string, revision: number, what: Edit) =>
  must(await submitEdit(db, id, revision, what));

let steps = 0;
/** A step on the newest revision. */
async function step(on: Connection, id: string, which: "undo" | "redo") {
  const { revision } = must(await findJob(on, id));
  return stepBack(on, id, which, { expectedRevision: revision, stepId: `step-${steps++}` });
}

describe("edits with an expected revision", () => {
  it("are applied, logged and counted", async () => {
    const id = await fresh();
    const { answer, stored, steps } = await edit(id, 1, width("700"));
    expect(answer).toEqual({ status: "applied", replayed: false });
    expect([stored.revision, widthOf(stored.job), steps.undo]).toEqual([2, "700", "Set a key size to 700"]);
    expect(widthOf((await findJob(db, id))?.job)).toBe("700");
  });

  it("sent twice because the answer was lost are applied once and acknowledged twice", async () => {
    const id = await fresh();
    const send = (revision: number) => submitEdit(db, id, revision, width("700"), "edit-1");
    const [first, second] = [must(await send(1)), must(await send(1))];
    expect([first.answer, second.answer]).toEqual([
      { status: "applied", replayed: false },
      { status: "applied", replayed: false },
    ]);
    expect([second.stored.revision, second.steps.undo]).toEqual([2, "Set a key size to 700"]);
    // Somebody else was here before it was sent again: it is acknowledged, and the sender gets the newer document.
    await edit(id, 2, depth("450"));
    expect(must(await send(1))).toMatchObject({ answer: { status: "applied", replayed: true } });
    expect((await findJob(db, id))?.revision).toBe(3);
    // Another job may use the same id.
    const other = await fresh();
    expect(must(await submitEdit(db, other, 1, width("650"), "edit-1")).stored.revision).toBe(2);
  });

  it("from a second tab are replayed on the newer document when they touch other records", async () => {
    const id = await fresh();
    await edit(id, 1, width("700"));
    const { answer, stored } = await edit(id, 1, depth("450"));
    expect(answer).toEqual({ status: "applied", replayed: true });
    expect([widthOf(stored.job), stored.job.keySizes["size-depth"]?.formula]).toEqual(["700", "450"]);
  });

  it("are refused with a sentence when both tabs changed one record, and nothing is lost", async () => {
    const id = await fresh();
    await edit(id, 1, width("700"));
    const { answer, stored } = await edit(id, 1, width("800"));
    expect(answer).toEqual({
      status: "refused",
      clash: true,
      message:
        "Key size width was changed somewhere else in the meantime; look at the new value and try again.",
    });
    expect([stored.revision, widthOf(stored.job)]).toEqual([2, "700"]);
  });

  it("that cannot be computed are refused by the same function as in the browser", async () => {
    const id = await fresh();
    const { answer } = await edit(id, 1, width("20"));
    expect(answer).toEqual({
      status: "refused",
      clash: false,
      message: "width would be 20, but it must be from 300 to 1200.",
    });
    expect(await submitEdit(db, "nowhere", 1, width("700"))).toBeNull();
  });

  it("sent at once are carried out one after the other", async () => {
    const id = await fresh();
    const names = ["P", "Q", "R", "S"];
    const members = ["front", "right", "back", "left"];
    const outcomes = await Promise.all(
      members.map((member, i) =>
        edit(id, 1, { kind: "changeMembers", ids: [member], set: { name: names[i] ?? "" } }),
      ),
    );
    expect(outcomes.map((outcome) => outcome.stored.revision).sort()).toEqual([2, 3, 4, 5]);
    const stored = must(await findJob(db, id));
    expect(members.map((member) => stored.job.members[member]?.name)).toEqual(names);
  });
});

describe("undo and redo", () => {
  it("run over the log, survive a new connection, and a new edit drops what was undone", async () => {
    const id = await fresh();
    await edit(id, 1, width("700"));
    await edit(id, 2, width("800"));
    const undone = must(await step(db, id, "undo"));
    expect([widthOf(undone.stored.job), undone.steps.undo, undone.steps.redo]).toEqual([
      "700",
      "Set a key size to 700",
      "Set a key size to 800",
    ]);

    const again = await openDatabase(url);
    const redone = must(await step(again, id, "redo"));
    expect([widthOf(redone.stored.job), redone.steps.redo]).toEqual(["800", null]);
    await step(again, id, "undo");
    await step(again, id, "undo");
    const empty = must(await step(again, id, "undo"));
    expect(empty.answer).toEqual({
      status: "refused",
      clash: false,
      message: "There is nothing to undo in this job.",
    });
    expect(widthOf(empty.stored.job)).toBe("600");
    again.close();

    const { stored } = must(await submitEdit(db, id, 7, depth("420")));
    expect(stored.job.keySizes["size-depth"]?.formula).toBe("420");
    expect(must(await step(db, id, "redo")).answer.status).toBe("refused");
  });
});

describe("what is sent twice, or on another state", () => {
  it("a step is taken once, however often it is sent", async () => {
    const id = await fresh();
    await edit(id, 1, width("700"));
    await edit(id, 2, width("800"));
    const sent = { expectedRevision: 3, stepId: "lost-answer" };
    const first = must(await stepBack(db, id, "undo", sent));
    const second = must(await stepBack(db, id, "undo", sent));
    expect([first.answer.status, second.answer.status]).toEqual(["applied", "applied"]);
    expect([widthOf(second.stored.job), second.stored.revision]).toEqual(["700", 4]);
  });

  it("a step on an older state is refused with the newest one: it would take back what somebody else did", async () => {
    const id = await fresh();
    await edit(id, 1, width("700"));
    await edit(id, 2, depth("410"));
    const late = must(await stepBack(db, id, "undo", { expectedRevision: 2, stepId: "late" }));
    expect(late.answer).toMatchObject({ status: "refused", clash: true });
    expect([widthOf(late.stored.job), late.stored.revision]).toEqual(["700", 3]);
  });

  it("a revision from the future is refused, for edits and for steps", async () => {
    const id = await fresh();
    await edit(id, 1, width("700"));
    expect((await edit(id, 9, width("800"))).answer).toMatchObject({
      status: "refused",
      clash: true,
      message: expect.stringMatching(/later state/),
    });
    const step = must(await stepBack(db, id, "undo", { expectedRevision: 9, stepId: "future" }));
    expect(step.answer.status).toBe("refused");
    expect(widthOf(step.stored.job)).toBe("700");
  });
});

describe("a database of an earlier version", () => {
  it("is read, and edits made with it are undone into a document of today", async () => {
    const id = await fresh();
    await edit(id, 1, { kind: "changeMembers", ids: ["front"], set: { name: "Front rail" } });
    // As version 1 wrote them: without all that came later, in the document and in the log.
    const { db: raw } = db;
    const later = new Set([
      ...["when", "choices"],
      ...[
        "usual",
        "asked",
        "assembly",
        "role",
        "look",
        "between",
        "stand",
        "assemblies",
        "placements",
        "lists",
      ],
    ]);
    const old = (text: string) =>
      JSON.stringify(
        JSON.parse(text, (key: string, value: unknown) => {
          if (later.has(key)) return undefined;
          return key === "schemaVersion" ? 1 : value;
        }),
      );
    const [row] = await raw.select().from(jobs).where(eq(jobs.id, id));
    await raw
      .update(jobs)
      .set({ document: old(row?.document ?? "{}") })
      .where(eq(jobs.id, id));
    const [logged] = await raw.select().from(editLog).where(eq(editLog.jobId, id));
    await raw
      .update(editLog)
      .set({ diff: old(logged?.diff ?? "{}") })
      .where(eq(editLog.jobId, id));
    expect(old(logged?.diff ?? "{}")).not.toContain("when");

    const undone = must(await step(db, id, "undo"));
    expect(undone.answer.status).toBe("applied");
    const stored = must(await findJob(db, id));
    expect(stored.job.members["front"]).toMatchObject({ name: "Rail", when: null, role: "made" });
    expect(must(await step(db, id, "redo")).stored.job.members["front"]?.name).toBe("Front rail");
  });
});

describe("a process that is killed", () => {
  it("loses no edit that it had acknowledged", async () => {
    const own = `file:${path.join(folder, "killed.db")}`;
    const first = await openDatabase(own);
    await insertJob(first, "k", smallFrame(), 0);
    first.close();
    for (let round = 0; round < 2; round++) {
      const before = await openDatabase(own);
      const start = must(await findJob(before, "k")).revision;
      before.close();
      const acknowledged = await killedInTheMiddle(own, start);
      const after = await openDatabase(own);
      const stored = must(await findJob(after, "k"));
      expect(stored.revision).toBeGreaterThanOrEqual(acknowledged.revision);
      // At most the one edit that was under way may stand beyond what was acknowledged.
      expect(stored.revision).toBeLessThanOrEqual(acknowledged.revision + 1);
      const number = Number(/^Name (\d+)$/.exec(stored.job.members["front"]?.name ?? "")?.[1]);
      expect(number).toBe(acknowledged.edit + stored.revision - acknowledged.revision);
      expect(must(await step(after, "k", "undo")).answer.status).toBe("applied");
      after.close();
    }
  });
});

/** Starts edits from revision 1 or wherever the job stands, kills the process, gives the last acknowledgement. */
function killedInTheMiddle(
  own: string,
  start: number,
): Promise<{ readonly edit: number; readonly revision: number }> {
  const child = spawn(
    process.execPath,
    ["scripts/run.mjs", "src/server/edit-stream.fixture.ts", own, "k", String(start)],
    { stdio: ["ignore", "pipe", "inherit"] },
  );
  let text = "";
  return new Promise((resolve, reject) => {
    child.stdout.on("data", (part: Buffer) => {
      text += part.toString();
      if (text.split("\n").length > 25) child.kill("SIGKILL");
    });
    child.on("close", () => {
      const last = text.slice(0, text.lastIndexOf("\n")).split("\n").at(-1)?.split(" ").map(Number);
      if (last?.length === 2 && last[0] && last[1]) resolve({ edit: last[0], revision: last[1] });
      else reject(new Error(`no edit was acknowledged: ${text}`));
    });
  });
}

describe("jobs", () => {
  it("are made empty, copied with their own revision, deleted and brought back", async () => {
    const id = await createEmptyJob(db, { code: "N-1", title: "New", unit: "in" });
    expect(must(await findJob(db, id)).job.info.job.format).toEqual({ kind: "fraction", denominator: 16 });
    const copy = must(await duplicateJob(db, id));
    expect(must(await findJob(db, copy)).code).toBe("N-1 copy");
    expect(await setDeleted(db, id, 1)).toBe(true);
    expect(await findJob(db, id)).toBeNull();
    expect((await listJobs(db)).some((job) => job.id === id)).toBe(false);
    expect(await setDeleted(db, id, 1)).toBe(false);
    expect(await setDeleted(db, id, null)).toBe(true);
    expect((await listJobs(db)).some((job) => job.id === id)).toBe(true);
    expect(await duplicateJob(db, "nowhere")).toBeNull();
  });

  it("from a cutting list keep the good rows and tell the others", async () => {
    const made = await createFromList(
      db,
      { code: "L-1", title: "List", unit: "mm" },
      "Mark;Name;Qty;Length;Section\r\nR1;Rail;2;1,200;tube\r\nR2;Post;2;900;tube\r\nR3;Stay;x;900;tube\r\n",
    );
    if (!made.ok) throw new Error("the list is read");
    expect([made.value.pieces, made.value.unreadable.map((row) => row.row)]).toEqual([1, [2, 4]]);
    const computed = must(await computeJob(db, made.value.id, ""));
    expect(computed.results.tally.rows.map((row) => [row.mark, row.count])).toEqual([["R2", 2]]);
    const nothing = await createFromList(
      db,
      { code: "L-2", title: "List", unit: "mm" },
      "Name;Qty;Length\r\nRail;x;100\r\n",
    );
    expect(nothing.ok).toBe(false);
  });

  it("keep their marks from the first moment on", async () => {
    const id = await fresh();
    const open = must(await openJob(db, id, ""));
    expect(open.job.marks["front"]?.mark).toBe("A");
    expect(resultsOf(open.job).tally.newMarks).toEqual([]);
  });

  it("are printed, for a variant that exists and no other", async () => {
    const id = await fresh();
    const computed = must(await computeJob(db, id, "wide"));
    const pdf = await printJob(computed, "a4", "wide");
    expect(Buffer.from(pdf.subarray(0, 5)).toString()).toBe("%PDF-");
    expect(await computeJob(db, id, "nothing")).toBeNull();
  });
});

describe("saved layouts", () => {
  it("stand by job, variant and stock, the newest in the place of the older", async () => {
    const id = await fresh();
    const task = layoutTasks(resultsOf(smallFrame()).tally, STOCK)[0];
    if (task?.kind !== "bars") throw new Error("bars come first");
    const layout = (cost: number): SavedLayout =>
      savedLayout(
        task,
        { bars: [], cost, count: 0, lowerBound: 0, lowerBoundOf: "cost", proven: false, unplaced: [] },
        1,
      );
    const own = { job: id, variant: "", code: "T-1" };
    await saveLayout(db, own, layout(1), 1);
    await saveLayout(db, own, layout(2), 2);
    await saveLayout(db, { ...own, variant: "wide" }, layout(3), 3);
    expect((await readLayouts(db, own)).map((kept) => kept.layout.cost)).toEqual([2]);
    expect((await readLayouts(db, { ...own, variant: "wide" })).map((kept) => kept.layout.cost)).toEqual([3]);
  });
});

describe("the stockroom", () => {
  it("refuses a change on an older state, and a second entry of one id", async () => {
    const { revisions, data } = await readStock(db);
    const entry = data.edging[0];
    if (!entry) throw new Error("there is edging");
    const revision = revisions[entry.id] ?? 0;
    const saved = await saveStockEntry(db, { kind: "edging", entry: { ...entry, pricePerM: 2 } }, revision);
    expect(typeof saved).toBe("number");
    expect(await saveStockEntry(db, { kind: "edging", entry: { ...entry, pricePerM: 3 } }, revision)).toBe(
      "changed",
    );
    expect(await saveStockEntry(db, { kind: "edging", entry }, null)).toBe("exists");
    expect((await readStock(db)).data.edging[0]?.pricePerM).toBe(2);
    // Whoever removes what they saw before it was changed is told.
    expect(await removeStockEntry(db, "edging", entry.id, revision)).toBe("changed");
    expect(await removeStockEntry(db, "edging", entry.id, revision + 1)).toBe("removed");
    expect(await removeStockEntry(db, "edging", entry.id, revision + 1)).toBe("gone");
  });
});

describe("list setups", () => {
  it("are kept under their name, replaced by another of that name, and removed", async () => {
    const [start] = LIST_STARTS;
    if (!start) throw new Error("there is one");
    const kept = setupToKeep(smallFrame(), startList(start, "list", "Saw list", 0));
    await keepListSetup(db, kept, 1);
    await keepListSetup(db, { ...kept, name: "Another" }, 2);
    await keepListSetup(db, { ...kept, setup: { ...kept.setup, totals: false } }, 3);
    const all = await readListSetups(db);
    expect(all.map(({ name, setup }) => [name, setup.totals])).toEqual([
      ["Another", true],
      ["Saw list", false],
    ]);
    expect([await removeListSetup(db, "Another"), await removeListSetup(db, "Another")]).toEqual([
      true,
      false,
    ]);
  });

  it("lists leave a job in every format, and none of another name", async () => {
    const id = await fresh();
    const computed = must(await computeJob(db, id, ""));
    const how = { page: "a4", variant: "" } as const;
    for (const format of ["csv", "json", "xlsx", "pdf", "svg"] as const) {
      const list = await printList(computed, "cut", format, how);
      expect([format, (list?.bytes.length ?? 0) > 300]).toEqual([format, true]);
    }
    expect(await printList(computed, "nothing", "csv", how)).toBeNull();
  });
});

describe("lists of strangers", () => {
  it("are read in a thread: one that takes too long is let go, and the next one is read", async () => {
    // Twice: the thread is kept for the next file. A new one loads all that reads files, which takes seconds on a busy machine.
    await readListRows("Name;Length\nRail;900", 50_000);
    expect(await readListRows("Name;Length\nRail;1200", 50_000)).toEqual({
      ok: true,
      value: [
        ["Name", "Length"],
        ["Rail", "1200"],
      ],
    });
    const late = await readListRows(`Name;Length\n${"Rail;1200\n".repeat(15_000)}`, 0);
    expect(late).toMatchObject({ ok: false, problem: { why: expect.stringMatching(/too long to read/) } });
    const bytes = new TextEncoder().encode("Name;Length\nStay;600");
    expect(await readListRows(bytes, 50_000)).toMatchObject({
      ok: true,
      value: [
        ["Name", "Length"],
        ["Stay", "600"],
      ],
    });
  }, 120_000);
});

describe("the thread that reads lists", () => {
  const held = globalThis as { rusticTallyReaders?: Map<string, { terminate: () => Promise<number> }> };
  const terminate = () => held.rusticTallyReaders?.get("list-reader.mjs")?.terminate();
  // A new thread loads all that reads files: on a busy machine that alone takes seconds, and is not what is tested.
  const read = () => readListRows("Name;Length\nRail;1200", 50_000);
  const ROWS = {
    ok: true,
    value: [
      ["Name", "Length"],
      ["Rail", "1200"],
    ],
  };

  it("is another one after it has ended by itself between two files", async () => {
    expect(await read()).toEqual(ROWS);
    await terminate();
    expect(await read()).toEqual(ROWS);
  }, 120_000);

  it("that ends under the next file's hands is told from a file that cannot be read", async () => {
    expect(await read()).toEqual(ROWS);
    const ending = terminate();
    expect(await read()).toEqual(ROWS);
    await ending;
  }, 120_000);
});

describe("a job that cannot be read", () => {
  it.each([
    ["not JSON", () => "{", /not JSON/],
    [
      "another shape",
      (good: string) => good.replace('"members":{', '"members":7,"x":{'),
      /members must be an object/,
    ],
    [
      "a key of every object",
      (good: string) => good.replaceAll('"front"', '"constructor"'),
      /every table has already/,
    ],
  ] as const)("(%s) is a marked card with its file, and nothing else suffers", async (_, made, words) => {
    const [id, other] = [await fresh(), await fresh()];
    const [row] = await db.db.select().from(jobs).where(eq(jobs.id, id));
    const document = made(row?.document ?? "");
    await db.write((writer) => writer.update(jobs).set({ document }).where(eq(jobs.id, id)));
    const cards = await jobCards(db);
    expect(cards.find((card) => card.id === id)?.facts).toEqual({
      kind: "unreadable",
      why: expect.stringMatching(words),
    });
    expect(cards.find((card) => card.id === other)?.facts).toMatchObject({ kind: "readable", pieces: 8 });
    await expect(openJob(db, id, "")).rejects.toThrow(UnreadableJob);
    await expect(edit(id, 1, width("700"))).rejects.toThrow(/cannot be read/);
    expect(await rawDocument(db, id)).toBe(document);
    await setDeleted(db, id, 1);
  });
});

describe("weight", () => {
  it("a job leaves once: its document is in no answer a second time", async () => {
    const id = await fresh();
    const text = JSON.stringify(await openJob(db, id, ""));
    expect(text.match(/"members":\{/g)).toHaveLength(1);
    expect(text).not.toContain('"document"');
  });

  it("a document that was read once leaves as it is stored; one that was changed on the disk is read anew", async () => {
    const id = await fresh();
    const told = async () => JSON.parse((await openJobText(db, id, "")) ?? "null");
    const first = await told();
    expect(first).toEqual(JSON.parse(JSON.stringify(await openJob(db, id, ""))));
    expect(await told()).toEqual(first);
    await edit(id, 1, width("700"));
    expect(await told()).toEqual(JSON.parse(JSON.stringify(await openJob(db, id, ""))));
    expect((await told()).revision).toBe(2);
    const [row] = await db.db.select().from(jobs).where(eq(jobs.id, id));
    // As long as before, and no job any more.
    const broken = (row?.document ?? "").replace(/"schemaVersion":\d+/, '"schemaVersion":999');
    await db.write((writer) => writer.update(jobs).set({ document: broken }).where(eq(jobs.id, id)));
    await expect(openJobText(db, id, "")).rejects.toThrow(UnreadableJob);
    const spaced = JSON.stringify(JSON.parse(row?.document ?? ""), null, 1);
    await db.write((writer) => writer.update(jobs).set({ document: spaced }).where(eq(jobs.id, id)));
    expect((await told()).job).toEqual(JSON.parse(row?.document ?? ""));
    expect(await openJobText(db, "nowhere", "")).toBeNull();
    await setDeleted(db, id, 1);
  });

  it("a picture is told by what it was drawn from: an edit changes its address, another job's does not", async () => {
    const [id, other] = [await fresh(), await fresh()];
    const address = async (which: string) => {
      const facts = (await jobCards(db)).find((card) => card.id === which)?.facts;
      return facts?.kind === "readable" ? facts.picture : null;
    };
    const [before, beside] = [await address(id), await address(other)];
    const tag = (await jobPicture(db, id))?.tag ?? "";
    expect(before).toContain(`of=${tag}`);
    await edit(id, 1, width("700"));
    expect(await address(id)).not.toBe(before);
    expect(await address(other)).toBe(beside);
    const picture = await jobPicture(db, id);
    expect(picture?.svg).toMatch(/^<\?xml/);
    expect(picture?.svg.length).toBeLessThan(60_000);
  });
});
