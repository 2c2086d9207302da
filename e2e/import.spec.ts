/** A STEP file becomes members, panels and bought parts, and what cannot be read is told. */
import { readFileSync } from "node:fs";
import { trolleyStep } from "../demo/trolley";
import { openBoardStep } from "../src/formats/step/open-shell.fixture";
import { expect, expectAccessible, OURS, openStage, saved, takeOut, test, textOf } from "./fixtures";
import { newJob, tallyRows } from "./shape";

test("a trolley from another program: read, looked over, imported, priced, undone, given out again", async ({
  page,
}) => {
  await newJob(page, "HL-450");
  await page.getByRole("button", { name: /A STEP file/ }).click();
  const dialog = page.getByRole("dialog", { name: "Import", exact: true });
  const file = dialog.locator('input[type="file"]');
  await file.setInputFiles({ name: "notes.step", mimeType: "model/step", buffer: Buffer.from("no solids") });
  await expect(dialog.getByRole("alert")).toContainText("not a STEP file");
  await file.setInputFiles("demo/trolley.step");
  await expect(dialog.getByText("12 members, 2 panels, 4 bought parts")).toBeVisible({ timeout: 40_000 });
  await expect(dialog.getByRole("combobox", { name: /40 × 40 × 3, 12 pieces/ })).toContainText("Square tube");
  await expectAccessible(page, "[role=dialog]");
  await dialog.getByRole("button", { name: "Import 18 pieces" }).click();
  await expect(dialog).toBeHidden();
  await saved(page);
  await expect(page.getByText("18 pieces").first()).toBeVisible();
  // Points are joined: each end is cut against its neighbour, which is told.
  await expect(page.getByText("24 ends are cut against other members")).toBeVisible();
  await expect(page.getByRole("button", { name: /Long rail.*mitre · mitre/ }).first()).toBeVisible();
  expect(await tallyRows(page)).toHaveLength(4);
  await expect(page.locator('[data-mark="A"]')).toContainText("940");
  await openStage(page, "Buy");
  await expect(page.getByText("Castor 80 mm with brake").first()).toBeVisible();
  await openStage(page, "Shape");
  const step = await takeOut(page, /Solids \(STEP\)/);
  expect(step.suggestedFilename()).toContain(".step");
  // One piece alone, and laid flat; a bought part has nothing to lay flat, which is said.
  await page.getByRole("button", { name: /Deck/ }).first().click();
  const flat = await takeOut(page, /Selected piece, laid flat/);
  expect(await textOf(flat)).toContain("CUTS");
  await page
    .getByRole("button", { name: /Castor/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Export" }).click();
  await page.getByRole("menuitem", { name: /Selected piece, laid flat/ }).click();
  await expect(page.getByText(/flat patterns cannot be made/)).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await saved(page);
  await expect(page.getByText("How does this job begin?")).toBeVisible();
});

test("a read is stopped at once, and nothing enters", async ({ page }) => {
  await newJob(page, "HL-451");
  await page.getByRole("button", { name: "Import", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Import", exact: true });
  await dialog.locator('input[type="file"]').setInputFiles("demo/trolley.step");
  await dialog.getByRole("button", { name: "Stop" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Stopped");
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByText("How does this job begin?")).toBeVisible();
});

test("a board whose faces do not meet is closed in sight of what it becomes", async ({ page }) => {
  await newJob(page, "HL-453");
  await page.getByRole("button", { name: "Import", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Import", exact: true });
  const text = openBoardStep("Shelf", [600, 300, 18], 0.2);
  const file = { name: "shelf.step", mimeType: "model/step", buffer: Buffer.from(text) };
  await dialog.locator('input[type="file"]').setInputFiles(file);
  await expect(dialog.getByText("no solid: open")).toBeVisible({ timeout: 40_000 });
  await dialog.getByRole("button", { name: "Close Shelf" }).click();
  const closing = page.getByRole("dialog", { name: "Close Shelf" });
  await expect(closing.getByText(/Before: open at 6 places/)).toBeVisible();
  // What closes it is proposed.
  await expect(closing.getByRole("textbox")).toHaveValue("0.5");
  await expect(closing.getByText(/After: closed, 3,240 cm³, that is 100 %/)).toBeVisible();
  await expectAccessible(page, "[role=dialog]:not([aria-hidden])");
  await closing.getByRole("textbox").fill("0.1");
  await expect(closing.getByText(/After: still open at 6 places/)).toBeVisible();
  await closing.getByRole("textbox").fill("nothing");
  await expect(closing.getByRole("button", { name: "Close it" })).toBeDisabled();
  await closing.getByRole("textbox").fill("0.5");
  await closing.getByRole("button", { name: "Close it" }).click();
  await expect(dialog.getByTitle("600 mm × 300 mm × 18 mm")).toBeVisible();
  await expect(dialog.getByText(/was open in the file/)).toBeVisible();
  await dialog.getByRole("button", { name: "Leave Shelf open" }).click();
  await expect(dialog.getByText("no solid: open")).toBeVisible();
  await dialog.getByRole("button", { name: "Close Shelf" }).click();
  await closing.getByRole("button", { name: "Close it" }).click();
  await dialog.getByRole("button", { name: "Import 1 piece" }).click();
  await expect(dialog).toBeHidden();
  await saved(page);

  // Read again it is closed at once, as it was then.
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await dialog.locator('input[type="file"]').setInputFiles(file);
  await expect(dialog.getByText(/was open in the file/)).toBeVisible({ timeout: 40_000 });
  await dialog.getByRole("button", { name: "Compare with what it was" }).click();
  await expect(dialog.getByText("Nothing differs")).toBeVisible();
});

test("a file that was made wider is read again: what differs is told and accepted, what was done by hand stays", async ({
  page,
}) => {
  await newJob(page, "HL-454");
  const dialog = page.getByRole("dialog", { name: "Import", exact: true });
  const open = async (wide: number) => {
    await page.getByRole("button", { name: "Import", exact: true }).click();
    const text = trolleyStep({ wide, deep: 520, high: 760 });
    const file = { name: "trolley.step", mimeType: "model/step", buffer: Buffer.from(text) };
    await dialog.locator('input[type="file"]').setInputFiles(file);
    await expect(dialog.getByText("12 members, 2 panels, 4 bought parts")).toBeVisible({ timeout: 40_000 });
  };
  await open(900);
  await dialog.getByRole("button", { name: "Import 18 pieces" }).click();
  await expect(dialog).toBeHidden();
  await saved(page);
  await tallyRows(page);
  await page.locator('[data-mark="A"]').first().click();
  await openStage(page, "Shape");
  await open(1100);
  await expect(dialog.getByRole("combobox", { name: "Enters as" })).toContainText(
    "a later state of trolley.step",
  );
  await dialog.getByRole("button", { name: "Compare with what it was" }).click();
  await expect(dialog.getByText(/6 moved, 6 changed/)).toBeVisible();
  await expect(dialog.getByText("length 900 → 1100").first()).toBeVisible();
  await expectAccessible(page, "[role=dialog]");
  // One of the plates stays as it is for now.
  await dialog.getByRole("checkbox", { name: "Deck" }).uncheck();
  await dialog.getByRole("button", { name: "Accept 11 changes" }).click();
  await expect(dialog).toBeHidden();
  await saved(page);
  await tallyRows(page);
  await expect(page.locator('[data-mark="A"]')).toContainText("1140");
  await openStage(page, "Shape");
  await open(1100);
  await dialog.getByRole("button", { name: "Compare with what it was" }).click();
  await expect(dialog.getByText(/1 changed, 17 pieces as before/)).toBeVisible();
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await saved(page);
  await tallyRows(page);
  await expect(page.locator('[data-mark="A"]')).toContainText("940");
});

test("lines of a drawing become a skeleton, with members on the layers that have a section", async ({
  page,
}) => {
  await newJob(page, "HL-452");
  await page.getByRole("button", { name: "Import", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Import", exact: true });
  await dialog.locator('input[type="file"]').setInputFiles("src/formats/fixtures/skeleton-R12.dxf");
  await expect(dialog.getByText("10 lines", { exact: true })).toBeVisible();
  await expect(dialog.getByText(/1 arc/)).toBeVisible();
  await expect(dialog.getByRole("button", { name: "Import 10 lines" })).toBeDisabled();
  await dialog.getByRole("combobox", { name: "The drawing is in" }).click();
  await page.getByRole("option", { name: "millimetres" }).click();
  for (const layer of ["LEGS", "RAILS"]) {
    await dialog.getByRole("combobox", { name: `Section on layer ${layer}` }).click();
    await page.getByRole("option", { name: "Square tube 40 × 40 × 3" }).click();
  }
  await expectAccessible(page, "[role=dialog]");
  await dialog.getByRole("button", { name: "Import 10 lines" }).click();
  await saved(page);
  await expect(page.getByText(/^9 pieces/).first()).toBeVisible();
  await expect(
    page
      .getByText("10 points")
      .or(page.getByText(/Points/))
      .first(),
  ).toBeVisible();
});

test("outlines of a drawing become panels, of the boards that their layers are called as", async ({
  page,
}) => {
  await newJob(page, "HL-455");
  await page.getByRole("button", { name: "Import", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Import", exact: true });
  await dialog.locator('input[type="file"]').setInputFiles("src/formats/fixtures/panels-R2010.dxf");
  await expect(dialog.getByText("4 closed outlines", { exact: true })).toBeVisible();
  await expect(dialog.getByRole("button", { name: "Import 4 panels" })).toBeDisabled();
  await dialog.getByRole("combobox", { name: "The drawing is in" }).click();
  await page.getByRole("option", { name: "millimetres" }).click();
  await expect(dialog.getByText(/the longest 1200 mm/)).toBeVisible();
  await expect(dialog.getByRole("combobox", { name: "Board of layer PLY 12" })).toContainText("12");
  await expectAccessible(page, "[role=dialog]");
  await dialog.getByRole("button", { name: "Import 4 panels" }).click();
  await expect(dialog).toBeHidden();
  await saved(page);
  // Two alike, one of them with a square cut-out.
  expect(await tallyRows(page)).toHaveLength(4);
});

test("pieces that run into one another in the file are told before they enter", async ({ page }) => {
  await newJob(page, "HL-457");
  const id = new URL(page.url()).pathname.split("/").at(-1);
  // The same drawing twice: its panels lie on one another.
  for (let i = 0; i < 2; i++) {
    const sent = await page.request.post(`/api/jobs/${id}/import?name=panels.dxf`, {
      headers: { ...OURS, "content-type": "application/octet-stream" },
      data: readFileSync("src/formats/fixtures/panels-R2010.dxf"),
    });
    expect(sent.status()).toBe(200);
  }
  const solids = await page.request.get(`/api/jobs/${id}/solids?format=step`);
  expect(solids.status()).toBe(200);
  await newJob(page, "HL-458");
  await page.getByRole("button", { name: "Import", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Import", exact: true });
  const file = { name: "twice.step", mimeType: "model/step", buffer: await solids.body() };
  await dialog.locator('input[type="file"]').setInputFiles(file);
  const button = dialog.getByRole("button", { name: "Import 8 pieces" });
  await expect(button).toBeVisible({ timeout: 40_000 });
  await button.click();
  await expect(dialog.getByText(/In the file \d+ pairs? of pieces run into one another: /)).toBeVisible();
  await expect(dialog.getByText(/Import again to take it as it is, or cancel/)).toBeVisible();
  await button.click();
  await expect(dialog).toBeHidden();
  await saved(page);
});

test("a file enters over HTTP as well, and what cannot is a sentence", async ({ page }) => {
  await newJob(page, "HL-456");
  const id = new URL(page.url()).pathname.split("/").at(-1);
  const send = (name: string, data: string, scale = "1") =>
    page.request.post(`/api/jobs/${id}/import?name=${name}&scale=${scale}`, {
      headers: { ...OURS, "content-type": "application/octet-stream" },
      data: Buffer.from(data),
    });
  const brought = await send("shelf.step", openBoardStep("Shelf", [600, 300, 18], 0.2));
  expect(brought.status()).toBe(200);
  expect((await brought.json()).told.join()).toContain("open at 6 places");
  for (const [name, data, scale] of [
    ["bad.step", "nothing", "1"],
    ["bad.dxf", "nothing", "1"],
    ["shelf.step", "nothing", "-1"],
  ] as const) {
    const refused = await send(name, data, scale);
    expect(refused.status()).toBe(422);
    expect((await refused.json()).message).toMatch(/[.]$/);
  }
  await page.reload();
  await expect(page.getByText("Shelf").first()).toBeVisible();
});
