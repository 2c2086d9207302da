/** What the tests of the Shape stage share: a job of their own, steps of drawing, the rows that come of it. */
import type { Page } from "@playwright/test";
import { expect, OURS, openStage, pick, setField } from "./fixtures";

export async function newJob(page: Page, code: string): Promise<void> {
  const made = await page.request.post("/api/jobs", {
    headers: OURS,
    data: { code, title: "Drawn here", unit: "mm" },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/jobs/${id}?stage=shape`);
  await expect(page.locator("[data-frames]")).not.toHaveAttribute("data-frames", "0");
}

export async function go(page: Page, way: string, length: string): Promise<void> {
  await pick(page.getByRole("combobox", { name: "Direction" }), way);
  await setField(page, "Length", length);
}

/** Four members round a table 560 by 360, at its height of 430; the drawing goes on from there. */
export async function drawRing(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Draw members" }).click();
  await setField(page, "From", "0; 0; 430");
  for (const [way, length] of [
    ["right", "560"],
    ["back", "360"],
    ["left", "560"],
    ["front", "360"],
  ] as const)
    await go(page, way, length);
}

/** The rows of the tally as name, count and size. */
export async function tallyRows(page: Page): Promise<readonly string[]> {
  await openStage(page, "Tally");
  const rows = page.locator("[data-mark]");
  const texts: string[] = [];
  for (const row of await rows.all()) {
    const cells = await row.getByRole("gridcell").allInnerTexts();
    texts.push(`${cells[1]} ${cells[2]} ${cells[4]}`.replace(/\s+/g, " "));
  }
  return texts;
}

/** Picks from a chooser by its label. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  await pick(page.getByRole("combobox", { name: label, exact: true }).first(), option);
}
