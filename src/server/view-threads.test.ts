/** Views that threads draw beside the server are those that are drawn one after the other. */
import { describe, expect, it } from "vitest";
import type { DrawnView } from "@/core/drawing";
import { NO_ASSETS, pagesInOrder } from "@/core/job";
import { asksOfPages } from "@/core/paper-set";
import { createViews } from "@/core/views";
import { drawnJob, STOCKROOM } from "../../demo/drawn-jobs.fixture";
import { pottingBench } from "../../demo/potting-bench";
import { viewsSideBySide } from "./view-threads";

const job = drawnJob(pottingBench());
const document = { job, stockroom: STOCKROOM, assets: NO_ASSETS };
const pages = pagesInOrder(job).map((page) => asksOfPages(job, [page], null));
const shown = ({ lines, paths, parts, tints, box }: DrawnView) => ({ lines, paths, parts, tints, box });

/** Draws all pages with so many threads; how many of the views those have drawn. */
async function drawnBeside(threads: number): Promise<number> {
  const sideBySide = viewsSideBySide(document, pages.flat(), threads);
  const draw = createViews();
  try {
    for (const asked of pages) {
      // As the server does: others are answered between two pages.
      await new Promise((resolve) => setTimeout(resolve, threads === 0 ? 0 : 100));
      const views = await sideBySide.views(asked);
      expect([...views.keys()]).toEqual(asked.map(({ id }) => id));
      for (const one of asked)
        expect(shown(views.get(one.id) as DrawnView)).toEqual(shown(draw(document, one)));
    }
    return sideBySide.byThreads();
  } finally {
    sideBySide.end();
  }
}

describe("the views of pages, drawn side by side", () => {
  it("are the same with two threads as without, each page with its own", async () => {
    expect(pages.flat().length).toBeGreaterThan(6);
    expect(await drawnBeside(0)).toBe(0);
    // Threads that have just begun may come too late for all of them: the next time they are there.
    let byThreads = 0;
    for (let i = 0; i < 20 && byThreads === 0; i++) byThreads = await drawnBeside(2);
    expect(byThreads).toBeGreaterThan(0);
  });

  it("come from the server itself when the threads have ended", async () => {
    const sideBySide = viewsSideBySide(document, pages.flat(), 2);
    sideBySide.end();
    for (const asked of pages)
      expect([...(await sideBySide.views(asked)).keys()]).toEqual(asked.map(({ id }) => id));
  });
});
