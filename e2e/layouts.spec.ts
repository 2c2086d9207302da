/** Layouts changed by hand, filled round locks, cut from the rack, released, and on paper; several jobs together. */
import { execFileSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { copyOf, expect, expectAccessible, OURS, saved, test } from "./fixtures";
import { dragTo, stockOf } from "./layout";

async function layOutBoard(page: Page, name = /^Birch ply 12/): Promise<void> {
  await stockOf(page, name).click();
  await page.getByRole("button", { name: /^Lay out( again)?$/ }).click();
  await expect(stockOf(page, name)).toContainText(/proven best|minimum possible/, {
    timeout: 30_000,
  });
  await expect(page.getByRole("button", { name: "Lay out again" })).toBeEnabled({ timeout: 30_000 });
}

test("the potting bench by hand: a panel to another sheet, locked, filled again, taken back", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=layout`);
  await layOutBoard(page);
  await expect(page.getByText(/^Sheet 2/)).toHaveCount(0);

  const moved = page.getByRole("button", { name: /^N, 486 × 326 mm on sheet 2$/ });
  await dragTo(page, /^N, 486 × 326 mm on sheet 1/, "text=Drop here: another 1525", [0.3, 0.5], moved);
  await expect(stockOf(page, /^Birch ply 12/)).toContainText("2 sheets");
  await page.keyboard.press("l");
  const locked = page.getByRole("button", { name: /^N, 486 × 326 mm on sheet \d, locked$/ });
  await expect(locked).toBeVisible();
  await expectAccessible(page);

  await page.getByRole("button", { name: "Lay out around locked pieces" }).click();
  await expect(page.getByRole("button", { name: "Lay out around locked pieces" })).toBeEnabled({
    timeout: 30_000,
  });
  // All is on the one sheet that holds the lock.
  await expect(page.getByText(/^Sheet 2/)).toHaveCount(0);
  await expect(locked).toBeVisible();

  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByText(/^Sheet 2/)).toBeVisible();
  await page.getByRole("button", { name: "Redo", exact: true }).click();
  await expect(page.getByText(/^Sheet 2/)).toHaveCount(0);

  // By keys: a place further along, refused against the grain, let lie knowingly, set aside and back.
  const small = page.getByRole("button", { name: /^O, 476 × 90 mm on sheet 1$/ }).first();
  await small.focus();
  await page.keyboard.press("t");
  await expect(page.getByText("Its grain would run across that of the sheet.")).toBeVisible();
  await page.keyboard.press("Delete");
  await expect(page.getByText(/1 × removed by hand/)).toBeVisible();
  await page.getByRole("button", { name: "Place", exact: true }).click();
  await expect(page.getByText(/Not placed/)).toHaveCount(0);

  // What is on the screen is what was kept.
  await page.reload();
  await stockOf(page, /^Birch ply 12/).click();
  await expect(locked).toBeVisible();
});

test("one undo for design and layouts: what was done last goes first, and comes back in the same order", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=layout`);
  await layOutBoard(page);
  const undo = page.getByRole("button", { name: "Undo", exact: true });
  const redo = page.getByRole("button", { name: "Redo", exact: true });
  await expect(undo).toHaveAttribute("aria-disabled", "true");
  const piece = page.getByRole("button", { name: /on sheet 1$/ }).first();
  await piece.focus();
  await page.keyboard.press("l");
  const locked = page.getByRole("button", { name: /on sheet 1, locked/ });
  await expect(locked).toHaveCount(1);
  await page.getByRole("button", { name: /^Shape/ }).click();
  const width = page.getByLabel("width", { exact: true });
  await width.fill("1450");
  await width.press("Enter");
  await page.getByRole("button", { name: /^Layout/ }).click();
  await undo.click();
  await expect(locked).toHaveCount(1);
  await undo.click();
  await expect(locked).toHaveCount(0);
  await expect(undo).toHaveAttribute("aria-disabled", "true");
  await redo.click();
  await expect(locked).toHaveCount(1);
  await redo.click();
  await page.getByRole("button", { name: /^Shape/ }).click();
  await expect(width).toHaveValue("1450");
  await page.keyboard.press("Control+z");
  await expect(width).toHaveValue("1400");
});

test("a panel cannot be let go on another one", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=layout`);
  await layOutBoard(page);
  // With something selected the slip is as high as it will be.
  await page.getByRole("button", { name: /^N, 486/ }).click();
  await expect(page.getByRole("button", { name: "Collapse" })).toBeVisible();
  // Told from the sheet: the pane may scroll a little to what gets the focus.
  const place = async () => {
    const box = await page.getByRole("button", { name: /^N, 486/ }).boundingBox();
    const sheet = await page.locator('[data-sheet="0"]').boundingBox();
    return [(box?.x ?? 0) - (sheet?.x ?? 0), (box?.y ?? 0) - (sheet?.y ?? 0)];
  };
  const stood = await place();
  // The pane may still be settling after the search: the drag is made again until it is answered.
  await expect(async () => {
    const before = await page.getByRole("button", { name: /^N, 486/ }).boundingBox();
    const other = await page
      .getByRole("button", { name: /^Q, 376/ })
      .first()
      .boundingBox();
    if (!before || !other) throw new Error("panels");
    // Taken in its middle and let go with the middle on the other: they cannot but collide.
    await page.mouse.move(before.x + before.width / 2, before.y + before.height / 2);
    await page.mouse.down();
    await page.mouse.move(other.x + other.width / 2, other.y + other.height / 2, { steps: 8 });
    await page.mouse.move(other.x + other.width / 2 + 2, other.y + other.height / 2);
    await page.mouse.up();
    await expect(page.getByText(/There is no room|off the sheet|full-width cuts/)).toBeVisible({
      timeout: 1500,
    });
  }).toPass({ timeout: 30_000 });
  expect(await place()).toEqual(stood);
});

test("from the rack: used first, set aside, released with labels, and on paper", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  // A piece of its own: what the demo's rack holds may be set aside for another test's job.
  const put = await page.request.put("/api/rack", {
    headers: OURS,
    data: {
      expected: null,
      piece: {
        id: `rack-${id}`,
        label: null,
        entry: "birch-ply-12",
        material: "birch ply",
        length: 905,
        width: 615,
        place: "left",
        note: "",
        from: null,
      },
    },
  });
  const { label } = ((await put.json()) as { piece: { label: string } }).piece;
  await page.goto(`/jobs/${id}?stage=layout`);
  await layOutBoard(page);
  await page.getByRole("button", { name: /^Settings/ }).click();
  await page.getByLabel("Offcuts from rack").click();
  await page.getByRole("option", { name: "Use first" }).click();
  await page.getByLabel("Smallest offcut to keep, mm").fill("250");
  await page.getByLabel("Smallest offcut to keep, mm").press("Enter");
  await page.keyboard.press("Escape");
  await saved(page);
  await expect(page.getByText(/^Outdated .*the use of the rack.* changed/)).toBeVisible();
  await layOutBoard(page);
  await expect(page.getByText(new RegExp(`905 × 615 mm · ${label} from the rack`))).toBeVisible();

  await page.goto("/rack");
  await expect(page.getByRole("row", { name: new RegExp(label) })).toContainText("HL-204");
  await expectAccessible(page);
  await page.goto(`/jobs/${id}?stage=layout`);
  await stockOf(page, /^Birch ply 12/).click();

  const answer = await page.request.get(
    `/api/jobs/${id}/diagrams?task=${encodeURIComponent("panel:birch-ply-12:birch ply")}&format=pdf`,
  );
  expect(answer.status()).toBe(200);
  const file = test.info().outputPath("diagrams.pdf");
  writeFileSync(file, await answer.body());
  const text = execFileSync("pdftotext", ["-layout", file, "-"]).toString();
  expect(text).toContain("Birch ply 12");
  expect(text).toContain("905 × 615 mm");
  expect(text).toContain("Cutting order of sheet 1");

  await page.getByRole("button", { name: "Release", exact: true }).click();
  await expect(page.getByText(new RegExp(`^Offcuts used: .*${label}`))).toBeVisible();
  await page.getByRole("dialog").getByRole("button", { name: "Release" }).click();
  await expect(page.getByText(new RegExp(`Cut up: .*${label}`))).toBeVisible();
  await page.getByRole("button", { name: "Close" }).click();
  await expect(page.getByText(/^Released/)).toBeVisible();
  await expect(page.getByText(/^Outdated/)).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Release", exact: true })).toBeDisabled();
  await page.goto("/rack");
  await expect(page.getByText(label, { exact: true })).toHaveCount(0);
});

test("sides kept together as one blank, grooves told before it is parted", async ({ page }) => {
  const id = await copyOf(page, "hl-207");
  await page.goto(`/jobs/${id}?stage=layout`);
  await layOutBoard(page, /^Birch ply 18/);
  await page
    .getByRole("button", { name: /^F, .* on sheet 1/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Keep together" }).click();
  await expect(page.getByText(/^One blank of/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Keep these together" }).click();
  await saved(page);
  await page.getByRole("button", { name: /^Lay out again/ }).click();
  await expect(page.getByText(/^Outdated/)).toHaveCount(0, { timeout: 30_000 });
  await expect(page.getByRole("button", { name: "Keep together (1)" })).toBeVisible();
  await page.getByText(/Cutting order of sheet 1/).click();
  await expect(page.getByRole("cell", { name: "groove, before separating" }).first()).toBeVisible();
});

test("bars by hand, and two jobs laid out together", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=layout`);
  await stockOf(page, /^Square tube 40/).click();
  await page
    .getByRole("button", { name: "Lay out again" })
    .or(page.getByRole("button", { name: "Lay out", exact: true }))
    .click();
  await expect(page.getByText(/saved by \d+ shared cuts/)).toBeVisible({ timeout: 40_000 });
  await expect(page.getByRole("button", { name: "Lay out again" })).toBeEnabled({ timeout: 40_000 });
  await page.getByText(/stop settings/).click();
  await expect(page.getByRole("cell", { name: "Mitre saw, bench" }).first()).toBeVisible();
  const piece = page.getByRole("button", { name: /^F, 560 on pattern \d$/ }).first();
  await piece.focus();
  await page.keyboard.press("l");
  await expect(page.getByRole("button", { name: /^F, 560 on pattern \d, locked$/ })).toBeVisible();

  await page.goto("/combined");
  await page
    .getByLabel(/^HL-204 Potting bench/)
    .first()
    .check();
  await page
    .getByLabel(/^HL-207 Seed-packet cabinet/)
    .first()
    .check();
  await page.getByLabel("Its name").fill("This week");
  await page.getByRole("button", { name: "Create combined layout" }).click();
  await expect(page.getByRole("heading", { name: "This week" })).toBeVisible();
  await stockOf(page, /^Birch ply 12/).click();
  await page.getByRole("button", { name: "Lay out", exact: true }).click();
  await expect(page.getByRole("button", { name: /^HL-204 N, .* on sheet/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole("button", { name: /^HL-207 C, .* on sheet/ }).first()).toBeVisible();
  await expectAccessible(page);
});

test("a layout worker that dies is started once more, then told", async ({ page }) => {
  await page.addInitScript(() => {
    class DyingWorker extends EventTarget {
      constructor() {
        super();
        document.documentElement.dataset["workers"] = String(
          Number(document.documentElement.dataset["workers"] ?? 0) + 1,
        );
        setTimeout(() => this.dispatchEvent(new ErrorEvent("error", { message: "dead" })), 20);
      }
      postMessage(): void {}
      terminate(): void {}
    }
    Object.assign(window, { Worker: DyingWorker });
  });
  const id = await copyOf(page, "hl-211");
  await page.goto(`/jobs/${id}?stage=layout`);
  await page.getByRole("button", { name: "Lay out", exact: true }).click();
  await expect(page.getByText(/could not be laid out: the computation stopped twice/)).toBeVisible();
  await expect(page.locator("html")).toHaveAttribute("data-workers", "2");
  // Nothing hangs: it can be tried again.
  await expect(page.getByRole("button", { name: "Lay out", exact: true })).toBeEnabled();
});
