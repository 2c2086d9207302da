/** The whole set in one action: the pages that a job lacks, one step back, the shop's own recipe, cards and templates by hand. */
import { execFileSync } from "node:child_process";
import { copyOf, expect, expectAccessible, openStage, saved, setField, takeOut, test } from "./fixtures";

test("the set of the bench is drawn up at once, printed as one file, and one step back takes it all away", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=drawings`);
  const pages = page.getByRole("region", { name: "Pages in order" });
  await expect(pages.getByText("2. Frame, three views")).toBeVisible();
  await page.getByRole("button", { name: "Draw up the set" }).click();
  const dialog = page.getByRole("dialog", { name: "Draw up the set" });
  await expectAccessible(page);
  await dialog.getByRole("checkbox", { name: "Saved layouts" }).uncheck();
  await dialog.getByRole("checkbox", { name: /^Building steps/ }).uncheck();
  await dialog.getByRole("button", { name: "Draw up", exact: true }).click();
  await expect(page.getByText(/^\d+ pages added\.$/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole("heading", { name: "Cover", exact: true })).toBeVisible();
  // What was there stays where it was, after the cover.
  await expect(pages.getByText("2. General view")).toBeVisible();
  await expect(pages.getByText("3. Frame, three views")).toBeVisible();

  await pages.getByText("5. Cards").click();
  const sheet = page.getByRole("region", { name: "Page", exact: true });
  await expect(sheet.getByText("Top rail")).toBeVisible();
  await expect(sheet.getByText("1400", { exact: true }).first()).toBeVisible();
  await sheet.getByRole("button", { name: "Card A", exact: true }).focus();
  await setField(page, "Height, mm", "150");
  await expect(page.getByRole("textbox", { name: "Height, mm" })).toHaveValue("150");

  // All pages as one file, words and all.
  const pdf = await takeOut(page, /^All pages \(PDF\)/);
  const text = execFileSync("pdftotext", ["-layout", await pdf.path(), "-"], { encoding: "utf8" });
  for (const words of ["Contents", "Cut length", "Long points of both ends in line", "Print at 100 %"])
    expect(text).toContain(words);

  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(pages.getByText("1. General view")).toBeVisible();
  await expect(pages.getByText(/Cards/)).toHaveCount(0);
  await saved(page);
});

test("a template of the coped rail stands on A4 at full size; a card is added where there is room", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=drawings`);
  await page.getByRole("button", { name: "Add page" }).click();
  await openStage(page, "Tally");
  await page.getByText("Hanging rail").first().click();
  await openStage(page, "Drawings");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("menuitem", { name: "Card of G" }).click();
  const sheet = page.getByRole("region", { name: "Page", exact: true });
  await expect(sheet.getByText(/coped round 48.3 at 90°, turned/).first()).toBeVisible();

  await openStage(page, "Tally");
  await page.getByText("Hanging rail").first().click();
  await openStage(page, "Drawings");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("menuitem", { name: "Full-size template of G" }).click();
  await expect(page.getByRole("heading", { name: "Template G", exact: true }).first()).toBeVisible();
  await expect(sheet.getByText(/Full line: outside of the wall/)).toBeVisible();
  await page.getByRole("combobox", { name: "Paper lies" }).click();
  await page.getByRole("option", { name: "Inside" }).click();
  await expect(sheet.getByText(/Roll up inside, print inwards/)).toBeVisible();
});

test("the form gives the complete set of papers of what was typed as one PDF, and keeps no page in the job", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-207");
  await page.goto(`/jobs/${id}/to-size`);
  await page.getByLabel("Name").fill("Narrow one");
  await page.getByRole("button", { name: "Make lists and layouts" }).click();
  await expect(page.getByText("Ready. Saved as a variant of the job.")).toBeVisible({ timeout: 60_000 });
  const began = page.waitForEvent("download", { timeout: 60_000 });
  await page.getByRole("button", { name: "Complete set of papers (PDF)" }).click();
  const pdf = await began;
  expect(pdf.suggestedFilename()).toMatch(/^HL-207.*-papers-Narrow-one-r\d+\.pdf$/);
  const text = execFileSync("pdftotext", ["-layout", await pdf.path(), "-"], { encoding: "utf8" });
  // The cover, a card, the cut list, a layout, and the variant in every title block.
  for (const words of ["Contents", "Finished", "Buying list", "Narrow one", "sheet"])
    expect(text.toLowerCase()).toContain(words.toLowerCase());
  await page.goto(`/jobs/${id}?stage=drawings`);
  await expect(page.getByRole("button", { name: "Add page" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Pages in order" }).getByText(/Cover/)).toHaveCount(0);
});

test("a view is pulled apart and put together again by steps of a slider; nothing is measured in it meanwhile", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=drawings`);
  const sheet = page.getByRole("region", { name: "Page", exact: true });
  await page.getByRole("region", { name: "Pages in order" }).getByText("2. Frame, three views").click();
  const front = sheet.getByRole("button", { name: /^View Front/ }).first();
  await front.focus();
  await page.getByRole("checkbox", { name: "Pulled apart" }).check();
  await expect(page.getByRole("slider", { name: "How far apart" })).toHaveValue("1");
  await expect(
    sheet.getByText(/pulled apart nothing can be measured|lost: pick again/).first(),
  ).toBeVisible();
  // A piece is drawn farther off along an axis, by its handle.
  await openStage(page, "Tally");
  await page.getByText("Hanging rail").first().click();
  await openStage(page, "Drawings");
  const handle = sheet.getByRole("button", { name: /^Draw Hanging rail along the height/ });
  const heightOf = async () => Number(await handle.getAttribute("cy"));
  const start = await heightOf();
  await handle.focus();
  await page.keyboard.press("Shift+ArrowUp");
  // 100 mm at 1:10.
  await expect.poll(heightOf).toBeCloseTo(start - 10, 0);
  const from = await handle.boundingBox();
  if (!from) throw new Error("the handle is there");
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2, from.y - 30, { steps: 4 });
  await page.mouse.up();
  await expect.poll(heightOf).toBeLessThan(start - 15);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect.poll(heightOf).toBeCloseTo(start - 10, 0);
  await front.focus();
  await page.getByRole("slider", { name: "How far apart" }).focus();
  await page.keyboard.press("Home");
  await expect(page.getByRole("slider", { name: "How far apart" })).toHaveValue("0");
  await expect(sheet.getByText(/lost: pick again/)).toHaveCount(0);
  await page.getByRole("checkbox", { name: "Pulled apart" }).uncheck();
  await expect(page.getByRole("slider", { name: "How far apart" })).toHaveCount(0);
  await saved(page);
});

test("building steps are proposed, parted, joined and rewritten; what is in no step, or in two, is told", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-211");
  await page.goto(`/jobs/${id}?stage=drawings`);
  await page.getByRole("button", { name: "Add page" }).first().click();
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("menuitem", { name: "Building steps" }).click();
  await page.getByRole("menuitem", { name: "Proposed for all that has none" }).click();
  await expect(page.getByText(/^\d+ pages added\.$/)).toBeVisible({ timeout: 30_000 });
  const lacks = page.getByRole("region", { name: "What the set lacks" });
  await expect(lacks.getByText("Each piece is built in once.")).toBeVisible();
  const pages = page.getByRole("region", { name: "Pages in order" });
  const sheet = page.getByRole("region", { name: "Page", exact: true });

  await pages.hover();
  await page.mouse.wheel(0, 450);
  await pages
    .getByText(/Begin with Leg/)
    .first()
    .click();
  const step = sheet.getByRole("button", { name: /^Building step Begin with Leg/ });
  await step.focus();
  await setField(page, "Heading", "The two legs");
  await expect(sheet.getByText("The two legs", { exact: true })).toBeVisible();
  await page.getByRole("textbox", { name: "Text" }).fill("Lay them on the floor.");
  await page.getByRole("textbox", { name: "Heading" }).focus();
  await expect(sheet.getByText("Lay them on the floor.")).toBeVisible();
  await expectAccessible(page);

  // One leg comes later: another page, right after it.
  await page.getByRole("group", { name: "Comes in" }).getByRole("checkbox").first().check();
  await page.getByRole("button", { name: "To a new step after this one" }).click();
  await expect(page.getByRole("heading", { name: "Leg", exact: true })).toBeVisible();
  await expect(lacks.getByText("Each piece is built in once.")).toBeVisible();
  // And back again.
  await sheet.getByRole("button", { name: "Building step Leg", exact: true }).focus();
  await page.getByRole("button", { name: "Join with the step before" }).click();
  await expect(page.getByRole("heading", { name: "Begin with Leg", exact: true })).toBeVisible();
  await expect(lacks.getByText("Each piece is built in once.")).toBeVisible();

  // Taken out it is in no step; added from the list again it is.
  await page.getByRole("group", { name: "Comes in" }).getByRole("checkbox").first().check();
  await page.getByRole("button", { name: "Take out" }).click();
  await expect(lacks.getByText("1 piece in no step: Leg")).toBeVisible();
  await page.getByRole("combobox", { name: "Add to this step" }).click();
  await page.getByRole("option", { name: "Leg" }).click();
  await expect(lacks.getByText("Each piece is built in once.")).toBeVisible();

  // A copied page builds the same in twice.
  await pages.getByRole("button", { name: "Copy page Begin with Leg", exact: true }).click();
  await expect(lacks.getByText(/is built in by a step before it already/)).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(lacks.getByText("Each piece is built in once.")).toBeVisible();
  await saved(page);
});

test("pages that were put out say what changed since, with the values before and after", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=drawings`);
  const pages = page.getByRole("region", { name: "Pages in order" });
  await pages.getByText("2. Frame, three views").click();
  const since = page.getByRole("region", { name: "Changed since it was put out" });
  await expect(page.getByRole("heading", { name: "Frame, three views" })).toBeVisible();
  await expect(since).toHaveCount(0);
  const pdf = await takeOut(page, /^Put out all pages/);
  expect(execFileSync("pdftotext", [await pdf.path(), "-"], { encoding: "utf8" })).toContain("1380");
  await expect(since.getByText(/^As it was put out \(revision 1, /)).toBeVisible();

  await openStage(page, "Shape");
  await setField(page, "width", "1600");
  await openStage(page, "Drawings");
  await expect(since.getByRole("button", { name: "Size 1580 (was 1380, +200)" })).toBeVisible();
  await expect(pages.getByText("Changed since put out").first()).toBeVisible();
  await since.getByRole("button", { name: "Size 1580 (was 1380, +200)" }).click();
  // With bars on paper where that is wished: a setting of the page, when nothing on it is selected.
  const sheet = page.getByRole("region", { name: "Page", exact: true });
  await sheet
    .getByRole("button", { name: /^View Front/ })
    .first()
    .focus();
  await page.keyboard.press("Escape");
  await page.getByRole("checkbox", { name: "Mark changes" }).check();
  await saved(page);
  await expectAccessible(page);
  // Put out again, it is as it was put out.
  await takeOut(page, /^Put out Frame, three views/);
  await expect(since.getByText(/^As it was put out \(revision 3, /)).toBeVisible();
});
