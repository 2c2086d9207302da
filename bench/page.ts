/**
 * The page of a large job in Chromium: opening it, a key size to the next painted frame, how long the page is busy in one
 * stretch, and how long another page waits for the server meanwhile. Beside each stands the core's own time for the job.
 */
import { rmSync } from "node:fs";
import path from "node:path";
import { type Browser, chromium, type Locator, type Page } from "@playwright/test";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { openDatabase } from "@/db";
import { createJob } from "@/server/jobs";
import { demoStockroom } from "../demo/stockroom";
import { demoFolder, startApplication } from "../e2e/application";
import { BROWSER, E2E_PORT } from "../e2e/browser";
import { generatedJob } from "./generated";

const SIZES = [2_000, 20_000];
const now = () => performance.now();
const ms = (value: number) => `${value.toFixed(0).padStart(7)} ms`;

const drawn = (page: Page) =>
  page.locator('[data-frames]:not([data-frames="0"])').waitFor({ timeout: 300_000 });

/** Tells the page to note every stretch in which it is busy for over 50 ms. */
const noteLongTasks = () => {
  const noted: number[] = [];
  Object.assign(window, { longTasks: noted });
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) noted.push(entry.duration);
  }).observe({ entryTypes: ["longtask"] });
};
const longest = (page: Page) =>
  page.evaluate(() => Math.max(0, ...(window as unknown as { longTasks: number[] }).longTasks.splice(0)));

/** How long the home page takes while something else goes on; the longest of the tries. */
async function othersWait(base: string, work: Promise<unknown>): Promise<number> {
  let busy = true;
  void work.finally(() => {
    busy = false;
  });
  let most = 0;
  while (busy) {
    const start = now();
    await (await fetch(base)).text();
    most = Math.max(most, now() - start);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  return most;
}

type Measured = {
  readonly opened: number;
  readonly resized: number;
  /** One member that is turned about its axis, with the two that are mitred with it. */
  readonly turned: number;
  /** One member that is drawn by a typed length, clear of all others. */
  readonly added: number;
  readonly busyAtOpening: number;
  readonly busyAtSize: number;
  readonly busyAtMember: number;
  readonly busyAtAdding: number;
  readonly waited: number;
};

/** Leaves out what a graphics card would do, and a computer without one does in the page's own time. */
const drawNothing = () => {
  WebGL2RenderingContext.prototype.drawElements = () => undefined;
};

async function measured(
  browser: Browser,
  url: string,
  { id, draws, median }: { id: string; draws: boolean; median: (values: readonly number[]) => number },
): Promise<Measured> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(noteLongTasks);
  if (!draws) await page.addInitScript(drawNothing);
  const start = now();
  const opening = page.goto(`${url}/jobs/${id}?stage=shape`).then(() => drawn(page));
  const waited = await othersWait(url, opening);
  const opened = now() - start;
  await page.waitForTimeout(3_000);
  const busyAtOpening = await longest(page);
  const keySize = page.locator("section[aria-label='Key sizes'] input").first();
  const resized = median(await typedInto(page, keySize, ["1011", "1022", "1033"]));
  const busyAtSize = await longest(page);
  await page.getByRole("region", { name: "List" }).getByText("Rail", { exact: true }).first().click();
  await page.waitForTimeout(2_000);
  await longest(page);
  const rotation = page.getByLabel("Section rotation");
  const turned = median(await typedInto(page, rotation, ["10", "20", "30"]));
  const busyAtMember = await longest(page);
  await page.getByRole("button", { name: "Draw members" }).click();
  const from = page.getByRole("textbox", { name: "From", exact: true });
  // Each time elsewhere: nothing is drawn twice.
  await from.fill(`0; 0; ${draws ? 5_000 : 6_000}`);
  await from.press("Enter");
  await page.waitForTimeout(2_000);
  await longest(page);
  const length = page.getByRole("textbox", { name: "Length", exact: true });
  const added = median(await typedInto(page, length, ["500", "600", "700"], "aria-label"));
  const busyAtAdding = await longest(page);
  await page.close();
  return { opened, resized, turned, added, busyAtOpening, busyAtSize, busyAtMember, busyAtAdding, waited };
}

/**
 * How long it takes from Enter until the picture says something else, for each value that is typed into a field: that there was
 * another frame, or how many pieces it shows.
 */
async function typedInto(
  page: Page,
  field: Locator,
  values: readonly string[],
  said: "data-frames" | "aria-label" = "data-frames",
): Promise<readonly number[]> {
  const times: number[] = [];
  for (const value of values) {
    await field.fill(value);
    const before = await page.locator("[data-frames]").getAttribute(said);
    const from = now();
    await field.press("Enter");
    await page.waitForFunction(
      ([said, before]) => document.querySelector("[data-frames]")?.getAttribute(said ?? "") !== before,
      [said, before] as const,
      { timeout: 120_000 },
    );
    times.push(now() - from);
    await page.waitForTimeout(2_000);
  }
  return times;
}

/** Needs a build: `npx next build`. */
export async function pageTable(
  timed: (work: () => void) => number,
  median: (values: readonly number[]) => number,
): Promise<void> {
  console.log(
    "The page of a large job, from asking for it to the drawn picture; × the core's time for the job",
  );
  const folder = demoFolder();
  const db = await openDatabase(`file:${path.join(folder, "jobs.db")}`);
  const stockroom = stockroomOf(demoStockroom);
  const jobs = SIZES.map((size) => ({ size, id: `generated-${size}`, job: generatedJob(size) }));
  for (const { id, job } of jobs) await createJob(db, job, id);
  db.close();
  const { url, stop } = await startApplication(folder, E2E_PORT);
  const browser = await chromium.launch(BROWSER);
  try {
    await (await fetch(url)).text();
    for (const { size, id, job } of jobs) {
      const core = timed(() => createPipeline()(job, null, stockroom, []));
      const line = (what: string, value: number, busy: number) =>
        console.log(
          `    ${what.padEnd(24)}${ms(value)} ${(value / core).toFixed(1).padStart(6)} ×   busy at most ${ms(busy)}`,
        );
      console.log(`  ${size.toLocaleString("en")} pieces; the core alone ${ms(core)}`);
      for (const draws of [true, false]) {
        const found = await measured(browser, url, { id, draws, median });
        console.log(draws ? "   drawn by the processor" : "   without the time of drawing");
        line("opened and drawn", found.opened, found.busyAtOpening);
        line("key size to the frame", found.resized, found.busyAtSize);
        line("one member to the frame", found.turned, found.busyAtMember);
        line("a member drawn", found.added, found.busyAtAdding);
        console.log(`    another page waits      ${ms(found.waited)}`);
      }
    }
  } finally {
    await browser.close();
    await stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
