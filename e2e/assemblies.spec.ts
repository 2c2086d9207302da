/** A whole design from an empty job: a frame by mouse and keyboard, a carcass as an assembly, mirrored, opened, taken apart. */
import {
  copyOf,
  expect,
  expectAccessible,
  openStage,
  saved,
  setField,
  takeOut,
  test,
  textOf,
} from "./fixtures";
import { choose, drawRing, go, newJob, tallyRows } from "./shape";

test("a frame with a mitred and a butted ring, a carcass as an assembly, a key size, a mirrored one, the right tally", async ({
  page,
}) => {
  await newJob(page, "HL-420");
  await drawRing(page);
  await setField(page, "Name", "Leg");
  for (const point of ["P1", "P2", "P3", "P4"]) {
    await setField(page, "From", point);
    await go(page, "down", "430");
  }
  // The lower ring from places on the legs: typed as a length along the way from one point to another.
  await setField(page, "Name", "Low rail");
  await setField(page, "From", "P1 to P5 at 300");
  await go(page, "right", "560");
  await go(page, "back", "360");
  await go(page, "left", "560");
  await go(page, "front", "360");
  await page.getByRole("button", { name: "Done" }).click();
  await saved(page);
  // By hand: mitred ring 600 and 400 over all; legs 430 − 20; the lower ring between legs: 560 − 40 and 360 − 40.
  expect(await tallyRows(page)).toEqual(
    expect.arrayContaining(["Rail 2 600", "Rail 2 400", "Leg 4 410", "Low rail 2 520", "Low rail 2 320"]),
  );

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Jigs" }).click();
  const dialog = page.getByRole("dialog", { name: "Jigs" });
  await dialog.getByRole("button", { name: "Carcass" }).click();
  await dialog.getByLabel("Overall width").fill("500");
  await dialog.getByLabel("Shelves").fill("1");
  await dialog.getByLabel(/^Position/).fill("0 - 600; 0; 0");
  await dialog.getByLabel("As an assembly that can be placed again").check();
  await dialog.getByRole("button", { name: "Insert" }).click();
  await saved(page);
  await page.getByRole("button", { name: "Carcass × 1" }).click();
  await expect(page.getByText("6 panels")).toBeVisible();
  await page.getByRole("button", { name: "Mirror", exact: true }).click();
  await page.getByLabel("Mirror plane at").fill("280");
  await page.getByRole("button", { name: "Create mirrored copy" }).click();
  await saved(page);
  await expect(page.getByText("mirrored", { exact: true })).toBeVisible();

  await setField(page, "width", "450");
  await saved(page);
  const rows = await tallyRows(page);
  // Two carcasses: sides handed, two of either hand; shelf 450 − 2·21 + 2·6, and 320 less 10 and the 6 of the back.
  expect(rows).toEqual(
    expect.arrayContaining(["Side 4 800 × 320 × 21", "Shelf 2 420 × 304 × 21", "Leg 4 410", "Rail 2 600"]),
  );
  await expect(page.getByText("all pieces counted")).toBeVisible();

  // Undone step by step, the mirrored one and the size go again.
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await saved(page);
  // Undo is a step of its own on the server; the tally follows each.
  await expect.poll(() => tallyRows(page)).toEqual(expect.arrayContaining(["Side 2 800 × 320 × 21"]));
});

test("an assembly is made of a selection, repeated by a formula, opened, changed in place and taken apart", async ({
  page,
}) => {
  await newJob(page, "HL-421");
  await page.getByRole("button", { name: "Draw members" }).click();
  await setField(page, "Name", "Slat");
  await setField(page, "From", "0; 0; 0");
  await go(page, "right", "900");
  await page.getByRole("button", { name: "Done" }).click();
  await page.getByRole("button", { name: "Add key size" }).click();
  await setField(page, "Name", "slats");
  await choose(page, "Kind", "number");
  await setField(page, "Value or formula", "5");
  await saved(page);
  await page.getByRole("button", { name: /^Mark A Slat/ }).click();
  await page.getByRole("button", { name: "Copy", exact: true }).click();
  await page.getByLabel(/Spacing/).fill("0; 110; 0");
  await page.getByLabel(/How many copies/).fill("slats - 1");
  await page.getByRole("dialog", { name: "Copy" }).getByRole("button", { name: "Copy" }).click();
  await saved(page);
  expect(await tallyRows(page)).toEqual(["Slat 5 900"]);
  await openStage(page, "Shape");
  await setField(page, "slats", "8");
  await saved(page);
  expect(await tallyRows(page)).toEqual(["Slat 8 900"]);

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Open Slat" }).click();
  await expect(page.getByText(/8 placements/)).toBeVisible();
  await setField(page, "width of P2", "750");
  await saved(page);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Back to the job" }).click();
  expect(await tallyRows(page)).toEqual(["Slat 8 750"]);

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Slat × 8" }).click();
  await page.getByRole("button", { name: "Dissolve" }).click();
  await expect(page.getByText(/is repeated there; set its count to 1 first/)).toBeVisible();
  await setField(page, "Count, or a formula", "0 - 1");
  await expect(page.getByText(/must be a whole number from 0 to 10,000/).first()).toBeVisible();
  await setField(page, "Count, or a formula", "1");
  await choose(page, "Role", "bought");
  await saved(page);
  await openStage(page, "Tally");
  await expect(page.getByText("1 bought")).toBeVisible();
  await openStage(page, "Shape");
  await choose(page, "Role", "made");
  await page.getByRole("button", { name: "Dissolve" }).click();
  await saved(page);
  expect(await tallyRows(page)).toEqual(["Slat 1 750"]);
});

test("points are dragged in the picture, each step shown, the drag one edit", async ({ page }) => {
  await newJob(page, "HL-422");
  await page.getByRole("button", { name: "Draw members" }).click();
  await setField(page, "From", "0; 0; 0");
  await go(page, "right", "500");
  await page.getByRole("button", { name: "Done" }).click();
  await page.getByRole("button", { name: "Front", exact: true }).click();
  await saved(page);
  await page.getByRole("button", { name: /^Mark A Rail/ }).click();
  const grips = page.locator("[data-frames] ~ svg circle");
  await expect(grips).toHaveCount(2);
  const grip = await grips.nth(1).boundingBox();
  if (!grip) throw new Error("the grip has a box");
  const [x, y] = [grip.x + grip.width / 2, grip.y + grip.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 60, y, { steps: 3 });
  const half = await page.getByRole("textbox", { name: "width of P2" }).inputValue();
  await page.mouse.move(x - 120, y, { steps: 3 });
  await page.mouse.up();
  await saved(page);
  const moved = await page.getByRole("textbox", { name: "width of P2" }).inputValue();
  expect([Number(half) < 500, Number(moved) < Number(half), Number(moved) % 10]).toEqual([true, true, 0]);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("textbox", { name: "width of P2" })).toHaveValue("500");
});

test("the picture is measured, cut open, and shows key sizes that are set on it", async ({ page }) => {
  const id = await copyOf(page, "hl-207");
  await page.goto(`/jobs/${id}?stage=shape`);
  await expect(page.locator("[data-frames]")).not.toHaveAttribute("data-frames", "0");
  await page.getByRole("button", { name: "Measure" }).click();
  await setField(page, "Measure from", "0; 0; 0");
  await setField(page, "Measure to", "300; 400; 0");
  await expect(page.getByRole("region", { name: "Measure" }).getByText("500 mm")).toBeVisible();
  await page.getByRole("button", { name: "Done" }).click();
  await page.getByRole("button", { name: "Clip view" }).click();
  await choose(page, "Cut", "across the height");
  await setField(page, "Position, typed", "width / 2");
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Key sizes in the 3D view" }).click();
  await page.getByRole("button", { name: "width 620" }).click();
  const field = page.getByRole("textbox", { name: "width in the 3D view" });
  await field.fill("2000");
  await field.press("Enter");
  await expect(page.getByText("width would be 2000, but it must be from 450 to 900.").first()).toBeVisible();
  await field.fill("700");
  await field.press("Enter");
  await saved(page);
  await expect(page.getByRole("button", { name: "width 700" })).toBeVisible();
});

test("two panels get one between them that follows; work is bored and cut; stock comes from what is usual", async ({
  page,
}) => {
  await newJob(page, "HL-423");
  await page.getByRole("button", { name: "Jigs" }).click();
  const dialog = page.getByRole("dialog", { name: "Jigs" });
  await dialog.getByRole("button", { name: "Single panel" }).click();
  await choose(page, "Its face looks", "to the right");
  await dialog.getByRole("button", { name: "Insert" }).click();
  await saved(page);
  await page.getByRole("button", { name: /^Mark A Panel/ }).click();
  await page.getByRole("button", { name: "Copy", exact: true }).click();
  await page.getByLabel(/Spacing/).fill("500; 0; 0");
  await page.getByRole("dialog", { name: "Copy" }).getByRole("button", { name: "Copy" }).click();
  await saved(page);
  await page
    .getByRole("button", { name: /^Mark A Panel/ })
    .first()
    .click();
  await page
    .getByRole("button", { name: /^Mark A Panel/ })
    .nth(1)
    .click({ modifiers: ["Shift"] });
  await page.getByRole("button", { name: "Panel between" }).click();
  await page.getByRole("button", { name: "Add panel" }).click();
  await saved(page);
  // 500 apart in 21 mm board: 479 between the faces, as deep as the panels are wide.
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Shelf 1 479 × 300 × 21"]));
  await openStage(page, "Shape");
  await setField(page, "Depth into first panel", "6");
  await page.getByRole("button", { name: "Add a hole" }).click();
  await setField(page, "Quantity", "3");
  await page.getByRole("button", { name: "Add a notch" }).click();
  await saved(page);
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Shelf 1 485 × 300 × 21"]));
  await expect(page.getByText(/3 × hole Ø 8 through/).first()).toBeVisible();
  await expect(page.getByText(/notch 40 × 40/).first()).toBeVisible();

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Set defaults" }).click();
  await choose(page, "Default board", "Birch ply 12");
  await choose(page, "Board", "default");
  await saved(page);
  await expect(page.getByText("Birch ply 12 · default of this job")).toBeVisible();
  await expect(page.getByText("birch ply · assumed, the stock's own")).toBeVisible();
  await setField(page, "Material of panels", "oak-faced ply");
  await expect(page.getByText("oak-faced ply · default of this job")).toBeVisible();
});

test("somebody who only sets three values takes lists and layouts away", async ({ page }) => {
  const id = await copyOf(page, "hl-207");
  await page.goto(`/jobs/${id}/to-size`);
  await expectAccessible(page);
  await page.getByRole("textbox", { name: "Width" }).fill("2000");
  await expect(page.getByText(/^width would be 2000, but it must be from 450/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Make lists and layouts" })).toBeDisabled();
  await page.getByRole("textbox", { name: "Width" }).fill("700");
  await page.getByRole("textbox", { name: "Rows" }).fill("3");
  await page.getByLabel("none", { exact: true }).check();
  await page.getByLabel("Name").fill("For the shed");
  await page.getByRole("button", { name: "Make lists and layouts" }).click();
  await expect(page.getByText("Ready. Saved as a variant of the job.")).toBeVisible({ timeout: 40_000 });
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Cut list (CSV)" }).click(),
  ]);
  const list = await textOf(download);
  expect(list).toContain("Row shelf");
  expect(list).not.toContain("Door leaf");
  await page.getByRole("link", { name: "Open the job" }).click();
  await choose(page, "Variant", "For the shed");
  expect(await tallyRows(page)).toEqual(expect.arrayContaining([expect.stringContaining("Row shelf 3 663")]));
  const papers = await takeOut(page, /Cut list \(CSV\)/);
  expect(await textOf(papers)).toContain("Row shelf");
});

test("guides are drawn from, points joined, joints cut by a rule with a gap for the weld", async ({
  page,
}) => {
  await newJob(page, "HL-424");
  await page.getByRole("button", { name: "Draw members" }).click();
  await choose(page, "Section", "a guide, no member");
  await setField(page, "From", "0; 0; 0");
  await go(page, "right", "600");
  await choose(page, "Section", "Square tube 40 × 40 × 3");
  await setField(page, "From", "P1 to P2 at 1/3");
  await go(page, "back", "400");
  await setField(page, "From", "P4");
  await go(page, "right", "300");
  await page.getByRole("button", { name: "Done" }).click();
  await saved(page);
  await expect(page.getByRole("button", { name: "Guide P1–P2" })).toBeVisible();
  // The mitred corner: 400 + 20 and 300 + 20.
  expect(await tallyRows(page)).toEqual(["Rail 1 420", "Rail 1 320"]);

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "P4", exact: true }).click();
  await page.getByRole("button", { name: "Joints" }).click();
  await choose(page, "Corner joint", "butt");
  await choose(page, "Through member", "horizontal");
  await page.getByLabel("Root gap").fill("2");
  await page.getByRole("button", { name: "Apply" }).click();
  await saved(page);
  // One runs through to 420, the other stands 20 + 2 short of the middle of it.
  expect(await tallyRows(page)).toEqual(["Rail 1 420", "Rail 1 278"]);
  await page.getByRole("button", { name: "Undo" }).hover();
  await expect(page.getByText("Undo: Cut joints by a rule").first()).toBeVisible();

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Guide P1–P2" }).click();
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  await expect(page.getByRole("button", { name: "Guide P1–P2" })).toBeHidden();
  await page.getByRole("button", { name: "P5", exact: true }).click();
  await page.getByRole("button", { name: "P3", exact: true }).click({ modifiers: ["Control"] });
  await page.getByRole("button", { name: "Join P3 to P5" }).click();
  await saved(page);
  await expect(page.getByRole("button", { name: "P3", exact: true })).toBeHidden();
});
