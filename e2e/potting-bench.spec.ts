/** The whole way of the first slice: a changed key size goes through tally, layout, cost and paper. */
import { execFileSync } from "node:child_process";
import {
  copyOf,
  expect,
  expectAccessible,
  openStage,
  row,
  saved,
  setField,
  takeOut,
  test,
  textOf,
} from "./fixtures";

test("a wider potting bench: flagged rows, outdated layouts, new totals, PDF and CSV", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await expect(row(page, "A")).toContainText("1400");
  await expect(page.getByText("all pieces counted")).toBeVisible();

  await openStage(page, "Buy");
  await expect(page.getByText("183.54 EUR").first()).toBeVisible();
  await openStage(page, "Layout");
  await page.getByRole("button", { name: "Lay out all" }).click();
  await expect(page.getByText("proven best", { exact: true }).first()).toBeVisible();
  await expect(page.getByRole("button", { name: "Lay out all" })).toBeEnabled({ timeout: 60_000 });

  await openStage(page, "Shape");
  await expect(page.locator("[data-frames]")).not.toHaveAttribute("data-frames", "0");
  await setField(page, "width", "1500");
  await saved(page);

  await openStage(page, "Tally");
  await expect(row(page, "A")).toContainText("1500");
  await expect(row(page, "A")).toContainText("was 1400");
  await expect(row(page, "D")).not.toContainText("was");
  await expect(page.getByText(/rows changed/)).toBeVisible();

  await expect(
    page.getByRole("navigation", { name: "Stages" }).getByRole("button", { name: /^Layout/ }),
  ).toContainText("outdated");
  await openStage(page, "Layout");
  await expect(page.getByText(/^Outdated \(made from revision/)).toBeVisible();
  await page.getByRole("button", { name: "Lay out all" }).click();
  await expect(page.getByText(/^Outdated \(made from revision/)).toBeHidden({ timeout: 60_000 });
  await expect(page.getByRole("button", { name: "Lay out all" })).toBeEnabled({ timeout: 60_000 });
  await expect(
    page.getByRole("navigation", { name: "Stages" }).getByRole("button", { name: /^Layout/ }),
  ).not.toContainText("outdated");
  // Six lengths of tube, six stop settings; the order folds out under the bars.
  await page.getByText(/cuts at 6 stop settings/).click();
  await expect(page.getByRole("row", { name: /^Mitre saw, bench 1500 A 45 \/ 45, opposed/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: /Birch ply 12/ }).click();
  await page.getByText(/Cutting order of sheet 1/).click();
  await expect(page.getByRole("row", { name: /trim an edge × 2/ })).toBeVisible();

  await openStage(page, "Buy");
  await expect(page.getByText("183.54 EUR")).toHaveCount(0);
  await expect(page.getByText("from layout, whole bars and sheets")).toBeVisible();

  const csv = await textOf(await takeOut(page, /Cut list \(CSV\)/));
  expect(csv.split("\r\n")[0]).toBe(
    "Stock,Material,Mark,Name,Count,Cut length (mm),Width (mm),Thick (mm),End 1 °,End 2 °,End direction,Note,Grain,Edging",
  );
  expect(csv).toContain("Square tube 40 × 40 × 3,S235,A,Top rail,2,1500,,,45,45,opposed,,,");

  const pdf = await takeOut(page, /Shop papers, A4/);
  expect(pdf.suggestedFilename()).toMatch(/^HL-204-copy-shop-papers-r\d+\.pdf$/);
  const text = execFileSync("pdftotext", ["-layout", await pdf.path(), "-"], { encoding: "utf8" });
  for (const words of [
    "HL-204",
    "Potting bench",
    "Cut list",
    "Top rail",
    "1500",
    "Bar layouts",
    "Sheet layouts",
    "Buying list",
    "Total from layout",
  ])
    expect(text).toContain(words);
  expect(text).not.toContain("outdated");

  await openStage(page, "Tally");
  await page.getByRole("button", { name: "Seen" }).click();
  await expect(page.getByText(/rows changed/)).toBeHidden();
});

test("one selection through panes and stages, by mouse and by keyboard", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  const slip = page.getByRole("region", { name: "Details" });
  const list = page.getByLabel(/Rows. Arrow keys/);
  // The last row in view stays there when the details open over the foot of the list.
  const last = await list.evaluate((box) => {
    const foot = box.getBoundingClientRect().bottom;
    const rows = [...box.querySelectorAll("[role=row][data-mark]")];
    const inView = rows.filter((one) => one.getBoundingClientRect().bottom <= foot);
    return inView.at(-1)?.getAttribute("data-mark") ?? "";
  });
  await row(page, last).click();
  await expect(slip).toContainText(/\d of \d+ selected/);
  await expect(row(page, last)).toBeInViewport({ ratio: 1 });
  // And what is found by its name is looked for in the list.
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A mark, a name/).fill("Top rail");
  await page.keyboard.press("Enter");
  await expect(row(page, "A")).toBeInViewport({ ratio: 1 });
  await row(page, "B").click();
  await expect(slip.getByRole("heading", { name: "Low rail" })).toBeVisible();
  await expect(slip).toContainText("2 of 2 selected");

  await list.focus();
  await page.keyboard.press("ArrowDown");
  await expect(slip.getByRole("heading", { name: "Rear leg" })).toBeVisible();
  await expect(row(page, "C")).toHaveAttribute("aria-selected", "true");

  await openStage(page, "Layout");
  await page.getByRole("button", { name: "Lay out", exact: true }).click();
  await expect(slip.getByRole("heading", { name: "Rear leg" })).toBeVisible();
  await expect(page.locator('polygon[data-pick="C"]').first()).toHaveAttribute(
    "fill",
    "var(--color-brass-pale)",
  );
  // While it is searched for, the picture moves under the pointer.
  await expect(page.getByRole("button", { name: "Lay out all" })).toBeEnabled();
  await page.locator('polygon[data-pick="A"]').first().click({ force: true });
  await expect(slip.getByRole("heading", { name: "Top rail" })).toBeVisible();

  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A mark, a name/).fill("worktop");
  await page.keyboard.press("Enter");
  await expect(slip.getByRole("heading", { name: "Worktop" })).toBeVisible();
  await openStage(page, "Shape");
  await expect(page.getByRole("button", { name: /Worktop/ })).toHaveAttribute("aria-pressed", "true");
});

test("picking in the picture selects the piece under the pointer", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  const picture = page.locator("[data-frames]");
  await expect(picture).not.toHaveAttribute("data-frames", "0");
  await page.getByRole("button", { name: "Top", exact: true }).click();
  const box = await picture.boundingBox();
  if (!box) throw new Error("the picture has a box");
  // Seen from above the middle of the job is the worktop.
  await picture.click({ position: { x: box.width / 2, y: box.height / 2 } });
  await expect(
    page.getByRole("region", { name: "Details" }).getByRole("heading", { name: "Worktop" }),
  ).toBeVisible();
});

test("sections, end cuts and boards are set on the selection; what is refused says why and stays typed", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  await setField(page, "width", "3000");
  await expect(page.getByText("width would be 3000, but it must be from 900 to 2200.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "width", exact: true })).toHaveValue("3000");
  await page.getByRole("textbox", { name: "width", exact: true }).press("Escape");
  await setField(page, "depth", "height");
  await expect(page.getByText("depth would be 850, but it must be from 450 to 800.")).toBeVisible();
  await page.getByRole("textbox", { name: "depth", exact: true }).press("Escape");

  await page
    .getByRole("button", { name: /Low rail/ })
    .first()
    .click();
  await page.getByRole("combobox", { name: "Section", exact: true }).click();
  await page.getByRole("option", { name: "Rectangular tube 60 × 40 × 3" }).click();
  await saved(page);
  await openStage(page, "Tally");
  await expect(page.getByText("Rectangular tube 60 × 40 × 3").first()).toBeVisible();

  await page.keyboard.press("Control+z");
  await expect(page.getByText("Rectangular tube 60 × 40 × 3", { exact: true })).toHaveCount(0);
});

test("a member whose ends can no longer be computed is marked, and the last good picture says that it is old", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  await expect(page.locator("[data-frames]")).not.toHaveAttribute("data-frames", "0");
  await page
    .getByRole("button", { name: /Top rail/ })
    .first()
    .click();
  await setField(page, "Section rotation, °", "1/0");
  await expect(page.getByText("The 3D view is outdated")).toBeVisible();
  await expect(page.getByText(/Top rail cannot be computed/)).toBeVisible();
  await openStage(page, "Tally");
  await expect(page.getByText("all pieces counted")).toBeVisible();
  await page.keyboard.press("Control+z");
  await openStage(page, "Shape");
  await expect(page.getByText("The 3D view is outdated")).toBeHidden();
});

test("a check offers its fix and takes it", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  // Nothing is selected: the first check stands in the line below, all of them in the list over it.
  await page.getByRole("button", { name: /4 × Shelf slat at 1380 mm, 1 × Shelf slat at 1377.5 mm/ }).click();
  await page.getByRole("button", { name: "Join points" }).click();
  await expect(row(page, "J")).toContainText("5");
  await expect(page.getByText("No checks in this job.")).toBeVisible();
});
