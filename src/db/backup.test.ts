/** What can be wrong with the database file, each as a sentence; backups taken while it is in use, and put back. */
import { spawn, spawnSync } from "node:child_process";
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { createClient, LibsqlError } from "@libsql/client";
import { sql } from "drizzle-orm";
import { afterEach, describe, expect, it } from "vitest";
import { smallFrame } from "@/core/pipeline.fixture";
import { connection } from "@/server";
import {
  backUp,
  type Connection,
  DatabaseFault,
  dailyBackup,
  findJob,
  insertJob,
  listJobs,
  openDatabase,
} from ".";
import { asFault } from "./fault";
import { restore } from "./restore";

const open: Connection[] = [];
afterEach(() => {
  for (const one of open.splice(0)) one.close();
});
const folder = () => mkdtempSync(path.join(tmpdir(), "rustic-tally-db-"));
async function opened(file: string): Promise<Connection> {
  const db = await openDatabase(`file:${file}`);
  open.push(db);
  return db;
}
async function shopOf(jobs: number) {
  const file = path.join(folder(), "shop.db");
  const db = await opened(file);
  for (let i = 0; i < jobs; i++) await insertJob(db, `job-${i}`, smallFrame(), i);
  await db.write((writer) => writer.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`));
  return { file, db };
}
const close = (db: Connection) => {
  open.splice(open.indexOf(db), 1);
  db.close();
};
const why = async (work: Promise<unknown>) => {
  try {
    await work;
    return "";
  } catch (thrown) {
    expect(thrown).toBeInstanceOf(DatabaseFault);
    return (thrown as Error).message;
  }
};

/** Another program that has the database open, after a statement, for so long. */
const holding = (file: string, statement: string, ms: number) =>
  spawn(process.execPath, [
    "-e",
    `const D = require(${JSON.stringify(path.resolve("node_modules/libsql"))});
     const db = new D(${JSON.stringify(file)}); db.exec(${JSON.stringify(statement)}); console.log("held");
     setTimeout(() => db.close(), ${ms});`,
  ]);

describe("a database that cannot be used is a sentence with what to do", () => {
  it("an emptied file is no new shop", async () => {
    const file = path.join(folder(), "shop.db");
    writeFileSync(file, "");
    expect(await why(opened(file))).toMatch(/is empty\. Restore a backup: npm run restore/);
    expect(readFileSync(file).length).toBe(0);
  });

  it("something else than a database", async () => {
    const file = path.join(folder(), "shop.db");
    writeFileSync(file, "a letter to the timber yard ".repeat(200));
    expect(await why(opened(file))).toMatch(/is no database\. .*npm run restore/);
  });

  it("a damaged file", async () => {
    const { file, db } = await shopOf(30);
    close(db);
    const bytes = readFileSync(file);
    bytes.fill(0x5a, 8192, bytes.length - 4096);
    writeFileSync(file, bytes);
    expect(await why(opened(file))).toMatch(/damaged.*npm run restore/);
  });

  it("one that a newer version wrote is not written by an older one", async () => {
    const { file, db } = await shopOf(1);
    await db.write((writer) =>
      writer.run(sql`INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('later', 9999999999999)`),
    );
    close(db);
    expect(await why(opened(file))).toMatch(/newer version/);
  });

  it("a folder where the file should be, and a folder that cannot be made", async () => {
    const place = folder();
    mkdirSync(path.join(place, "shop.db"));
    expect(await why(opened(path.join(place, "shop.db")))).toMatch(/cannot be opened/);
    writeFileSync(path.join(place, "file"), "x");
    expect(await why(opened(path.join(place, "file", "shop.db")))).toMatch(/cannot be made/);
  });

  it("a full disk: nothing is changed, and it goes on when there is room", async () => {
    const { db } = await shopOf(1);
    await db.write((writer) => writer.run(sql`PRAGMA max_page_count = 1`));
    const big = { ...smallFrame(), info: { job: { ...smallFrame().info.job, title: "x".repeat(80) } } };
    const many = async () => {
      for (let i = 0; i < 200; i++) await insertJob(db, `more-${i}`, big, i);
    };
    expect(await why(many())).toMatch(/disk is full, so nothing was changed/);
    await db.write((writer) => writer.run(sql`PRAGMA max_page_count = 1000000`));
    await insertJob(db, "after", big, 1);
    expect(await findJob(db, "after")).not.toBeNull();
  });

  it.each([
    ["SQLITE_READONLY_DIRECTORY", /may not be written/],
    ["SQLITE_BUSY_SNAPSHOT", /Another program holds the database/],
    ["SQLITE_IOERR_FSYNC", /disk does not answer/],
  ])("%s", (code, words) => {
    const wrapped = new Error("Failed query", { cause: new LibsqlError("low words", code) });
    expect((asFault(wrapped) as Error).message).toMatch(words);
    const other = new Error("something else");
    expect(asFault(other)).toBe(other);
  });

  it("a first opening that failed is not remembered", async () => {
    const file = path.join(folder(), "shop.db");
    writeFileSync(file, "");
    process.env["RUSTIC_TALLY_DB"] = `file:${file}`;
    expect(await why(connection())).toMatch(/is empty/);
    copyFileSync((await shopOf(1)).file, file);
    const again = await connection();
    expect(await listJobs(again)).toHaveLength(1);
    again.close();
    delete process.env["RUSTIC_TALLY_DB"];
  });
});

describe("beside another program", () => {
  it("a write waits until the other one is done, and every commit reaches the disk", async () => {
    const { file, db } = await shopOf(1);
    const { rows } = await db.write((writer) => writer.run(sql`PRAGMA synchronous`));
    expect(Number(rows[0]?.[0])).toBe(2);
    const holder = holding(file, "BEGIN IMMEDIATE", 1200);
    await new Promise((resolve) => holder.stdout.once("data", resolve));
    const start = Date.now();
    await insertJob(db, "waited", smallFrame(), 1);
    expect(Date.now() - start).toBeGreaterThan(500);
    expect(await findJob(db, "waited")).not.toBeNull();
    if (holder.exitCode === null) await new Promise((resolve) => holder.once("exit", resolve));
  });
});

describe("backups", () => {
  it("are taken while edits go on, looked over, and put back when nobody has the database open", async () => {
    const { file, db } = await shopOf(3);
    const backup = path.join(folder(), "kept", "monday.db");
    const [made] = await Promise.all([
      backUp(`file:${file}`, backup),
      insertJob(db, "meanwhile", smallFrame(), 1),
    ]);
    expect(made).toMatchObject({ ok: true });
    expect(await backUp(`file:${file}`, backup)).toMatchObject({
      ok: false,
      problem: { kind: "isThere", file: backup },
    });
    // A copy that this process never had open stands for the shop's database; another program has it open.
    await insertJob(db, "later", smallFrame(), 1);
    await db.write((writer) => writer.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`));
    const shop = path.join(folder(), "shop.db");
    copyFileSync(file, shop);
    const holder = holding(shop, "SELECT count(*) FROM jobs", 60_000);
    await new Promise((resolve) => holder.stdout.once("data", resolve));
    // By the command, each time a process of its own.
    const restoring = () =>
      spawnSync(process.execPath, ["scripts/run.mjs", "scripts/backup.ts", "restore", backup], {
        encoding: "utf8",
        env: { ...process.env, RUSTIC_TALLY_DB: `file:${shop}` },
      });
    const refused = restoring();
    expect([refused.status, refused.stderr]).toEqual([1, expect.stringMatching(/in use\. Stop the server/)]);
    const gone = new Promise((resolve) => holder.once("exit", resolve));
    holder.kill("SIGKILL");
    await gone;
    const done = restoring();
    expect([done.status, done.stderr]).toEqual([0, ""]);
    const kept = /kept as (\S+)\.\n/.exec(done.stdout)?.[1] ?? "";
    const restored = await opened(shop);
    expect((await listJobs(restored)).map(({ id }) => id)).not.toContain("later");
    expect((await listJobs(restored)).length).toBeGreaterThanOrEqual(3);
    const before = await opened(kept);
    expect(await findJob(before, "later")).not.toBeNull();
  });

  it("what is no backup is refused, and the database stays", async () => {
    const { file, db } = await shopOf(1);
    close(db);
    const place = folder();
    writeFileSync(path.join(place, "empty.db"), "");
    writeFileSync(path.join(place, "letter.db"), "a letter ".repeat(900));
    const other = createClient({ url: `file:${path.join(place, "other.db")}` });
    await other.execute("CREATE TABLE things (id TEXT)");
    other.close();
    const kinds = {
      "empty.db": "empty",
      "letter.db": "noBackup",
      "other.db": "noBackup",
      "none.db": "noFile",
    };
    for (const [name, kind] of Object.entries(kinds)) {
      const back = await restore(`file:${file}`, path.join(place, name), new Date());
      expect(back).toEqual({ ok: false, problem: { kind, file: path.join(place, name) } });
    }
    expect(await restore("libsql://elsewhere", path.join(place, "none.db"), new Date())).toMatchObject({
      problem: { kind: "elsewhere" },
    });
    expect(await listJobs(await opened(file))).toHaveLength(1);
  });

  it("one a day is kept for two weeks", async () => {
    const { file } = await shopOf(1);
    const days = Array.from({ length: 20 }, (_, i) => new Date(Date.UTC(2026, 10, 1 + i, 7)));
    for (const day of days) expect(await dailyBackup(`file:${file}`, day)).toBeNull();
    expect(await dailyBackup(`file:${file}`, new Date(Date.UTC(2026, 10, 20, 9)))).toBeNull();
    const place = path.join(path.dirname(file), "backups");
    writeFileSync(path.join(place, "mine.db"), "not ours to remove");
    const kept = readdirSync(place).filter((name) => name.startsWith("rustic-tally-"));
    expect(kept).toHaveLength(14);
    expect([kept[0], kept.at(-1)]).toEqual(["rustic-tally-2026-11-07.db", "rustic-tally-2026-11-20.db"]);
    await dailyBackup(`file:${file}`, new Date(Date.UTC(2026, 11, 30)));
    expect(existsSync(path.join(place, "mine.db"))).toBe(true);
    expect(await dailyBackup("libsql://elsewhere", new Date())).toBeNull();
  });
});
