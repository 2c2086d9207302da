/** The guide is followed as it is written, and ends with the papers of the job that it made. */
import { execFileSync } from "node:child_process";
import type { Page } from "@playwright/test";
import { expect, saved, test } from "./fixtures";
import { follow, guideSteps } from "./guide";

/** Whether the 3D view shows anything, and some of it at its very edge. */
const isCutOff = (page: Page) =>
  page.evaluate(() => {
    const drawn = document.querySelector<HTMLCanvasElement>("[data-frames] canvas");
    const copy = document.createElement("canvas");
    const flat = copy.getContext("2d");
    if (!drawn || !flat) return true;
    [copy.width, copy.height] = [drawn.width, drawn.height];
    flat.drawImage(drawn, 0, 0);
    const hasInk = (x: number, y: number, width: number, height: number) =>
      flat.getImageData(x, y, width, height).data.some((value) => value < 250);
    const edges = [
      [0, 0, copy.width, 2],
      [0, copy.height - 2, copy.width, 2],
      [0, 0, 2, copy.height],
      [copy.width - 2, 0, 2, copy.height],
    ] as const;
    return (
      !hasInk(0, 0, copy.width, copy.height) ||
      edges.some(([x, y, width, height]) => hasInk(x, y, width, height))
    );
  });

test.use({ actionTimeout: 8_000, fills: true });

test("the guide leads from nothing to a frame that is cut, priced and printed", async ({ page }) => {
  await page.goto("/");
  const steps = guideSteps().filter((step) => step.do !== "picture");
  expect(steps.length).toBeGreaterThan(20);
  let papers = "";
  for (const step of steps) {
    await test.step(step.words, async () => {
      const download = await follow(page, step);
      // What a jig puts into an empty job is seen whole.
      if (step.do === "press" && step.what === "Insert") await expect.poll(() => isCutOff(page)).toBe(false);
      if (download)
        papers = execFileSync("pdftotext", ["-layout", await download.path(), "-"], { encoding: "utf8" });
    });
  }
  await saved(page);
  // Legs 780 less the 40 of the ring on them, rails as wide and deep as was asked, and the price of whole bars.
  expect(papers).toMatch(/Top rail\s+2\s/);
  expect(papers).toContain("1400");
  expect(papers).toMatch(/Total from layout \(whole bars and sheets\): \d+\.\d\d EUR/);
});
