/** What every driven test watches: no error in the console, no violation that axe can see. */
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import {
  type BrowserContext,
  test as base,
  chromium,
  type Download,
  expect,
  type Locator,
  type Page,
} from "@playwright/test";
import axe from "axe-core";
import { type Application, startDemo } from "./application";
import { BROWSER, E2E_PORT } from "./browser";

/** Words of the browser itself that are no fault of a page. */
const NOT_OURS = /GPU stall due to ReadPixels|status of (4\d\d)|net::ERR_FAILED/;

/** Without a graphics card a frame with smoothed edges and every pixel takes the processor several times as long, and no test looks at them. */
const drawSharp = () => {
  Object.defineProperty(window, "devicePixelRatio", { value: 0.5 });
  const { getContext } = HTMLCanvasElement.prototype;
  HTMLCanvasElement.prototype.getContext = function (
    this: HTMLCanvasElement,
    kind: string,
    options?: object,
  ) {
    return getContext.call(this, kind, { ...options, antialias: false });
  } as typeof getContext;
};

/** Nor does it fill a triangle where no test looks at the picture: shaders are built and linked, frames counted, picks found all the same. */
const fillNothing = () => {
  WebGL2RenderingContext.prototype.drawElements = () => undefined;
};

/** Where the application of a worker is served. */
const portOf = (worker: number): number => E2E_PORT + worker;
const urlOf = (worker: number): string => `http://localhost:${portOf(worker)}`;

type Served = { readonly urlFor: (file: string) => Promise<string> };
export type OfTest = {
  readonly quiet: undefined;
  /**
   * "own": the file changes or counts what all jobs share (stockroom, rack, settings, the Jobs page), and gets a database with
   * nothing but the demo data. "shared": its tests make jobs of their own and look at those alone.
   */
  readonly database: "own" | "shared";
  /** Whether the 3D picture is filled with colour: a quarter of the processor's time of a click that draws it anew. */
  readonly fills: boolean;
};

export const test = base.extend<OfTest, { served: Served; profile: BrowserContext }>({
  database: ["own", { option: true }],
  fills: [false, { option: true }],
  /**
   * One browser for all tests of a worker, which keeps the code of the application as it has compiled it: half of what a page
   * costs. Nothing else is kept from test to test.
   */
  profile: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of fixtures from the pattern.
    async ({}, use, worker) => {
      const folder = mkdtempSync(path.join(tmpdir(), "rustic-tally-browser-"));
      const context = await chromium.launchPersistentContext(folder, {
        ...BROWSER,
        viewport: { width: 1280, height: 800 },
        acceptDownloads: true,
        baseURL: urlOf(worker.parallelIndex),
      });
      await use(context);
      await context.close();
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: "worker" },
  ],
  context: async ({ profile }, use) => {
    await use(profile);
    for (const page of profile.pages()) await page.close();
    await profile.clearCookies();
  },
  page: async ({ context, baseURL }, use) => {
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    await session.send("Storage.clearDataForOrigin", {
      origin: baseURL ?? "",
      storageTypes: "local_storage,indexeddb,service_workers",
    });
    await session.detach();
    await use(page);
  },
  /** Files that share nothing with others have the application on a database of their own: they run in any order, two at a time. */
  served: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of fixtures from the pattern.
    async ({}, use, worker) => {
      let now: { readonly file: string; readonly application: Application } | null = null;
      await use({
        urlFor: async (file) => {
          if (now?.file !== file) {
            await now?.application.stop();
            now = { file, application: await startDemo(portOf(worker.parallelIndex)) };
          }
          return now.application.url;
        },
      });
      await (now as { application: Application } | null)?.application.stop();
    },
    { scope: "worker", timeout: 120_000 },
  ],
  baseURL: async ({ served, database }, use, { file }) =>
    use(await served.urlFor(database === "own" ? file : "shared")),
  quiet: [
    async ({ page, fills }, use) => {
      const faults: string[] = [];
      page.on("console", (message) => {
        if (message.type() === "error" && !NOT_OURS.test(message.text())) faults.push(message.text());
      });
      page.on("pageerror", (error) => faults.push(error.message));
      await page.addInitScript(drawSharp);
      if (!fills) await page.addInitScript(fillNothing);
      await use(undefined);
      expect(faults).toEqual([]);
    },
    { auto: true },
  ],
});
export { expect };

/** What a browser says of a request that a page of ours sends. */
export const OURS = { "sec-fetch-site": "same-origin", "content-type": "application/json" };

/** Nothing on the page that axe can see, or in what `within` says of it. */
export async function expectAccessible(page: Page, within = "html"): Promise<void> {
  // Once a page: its text is half of what a look costs.
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(axe.source);
  const violations = await page.evaluate(async (within) => {
    const here = (window as unknown as { readonly axe: typeof axe }).axe;
    // Of text in a picture axe knows no colour: it asks somebody to look, and takes up to half of its time to find that out.
    here.configure({ rules: [{ id: "color-contrast", selector: "*:not(svg *)" }] });
    const found = await here.run(
      { include: [within] },
      {
        // Only what is wrong is brought back, from the page itself: it has no frames of others in it, and its styles are there.
        resultTypes: ["violations"],
        selectors: false,
        preload: false,
        runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"],
      },
    );
    return found.violations.map(({ id, nodes }) => ({ id, nodes: nodes.map(({ html }) => ({ html })) }));
  }, within);
  const found = violations.flatMap(({ id, nodes }) => {
    // WCAG 2.2, 2.5.8 (Equivalent): a target may be small where another control on the page does the same.
    const own = nodes.filter(({ html }) => id !== "target-size" || !html.includes("data-chosen-beside"));
    return own.length === 0 ? [] : [`${id}: ${own.map(({ html }) => html).join(" | ")}`];
  });
  expect(found).toEqual([]);
}

export async function openStage(page: Page, name: string): Promise<void> {
  await page
    .getByRole("navigation", { name: "Stages" })
    .getByRole("button", { name: new RegExp(`^${name}`) })
    .click();
}

/** A row of the tally by its mark. */
export const row = (page: Page, mark: string) => page.locator(`[data-mark="${mark}"]`);

/** Sets a field and carries it out with Enter. */
export async function setField(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByRole("textbox", { name: label, exact: true });
  await field.fill(value);
  await field.press("Enter");
}

/**
 * Picks from a chooser. Its list gives the focus back a moment after it has gone: a field that is filled before that would be left
 * by it, and so carried out.
 */
export async function pick(from: Locator, option: string): Promise<void> {
  await from.click();
  await from.page().getByRole("option", { name: option, exact: true }).click();
  await expect(from).toBeFocused();
}

export async function saved(page: Page): Promise<void> {
  await expect(page.locator("[data-saving]")).toHaveAttribute("data-saving", "saved");
}

/** A fresh copy of a demo job, so that no test stands on what another left behind. */
export async function copyOf(page: Page, id: string): Promise<string> {
  const answer = await page.request.post(`/api/jobs/${id}/duplicate`, { data: {}, headers: OURS });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as { id: string }).id;
}

export async function takeOut(page: Page, paper: RegExp): Promise<Download> {
  await page.getByRole("button", { name: "Export", exact: true }).first().click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("menuitem", { name: paper }).click(),
  ]);
  return download;
}

export async function textOf(download: Download): Promise<string> {
  return readFileSync(await download.path(), "utf8");
}
