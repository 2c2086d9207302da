/** Panels with outlines of their own: set on the desk, laid out along them, moved by hand, given out as files. */
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
import { dragTo, stockOf } from "./layout";
import { choose, newJob, tallyRows } from "./shape";

const LUG = [
  ["0", "SECTION", "2", "ENTITIES"],
  ["0", "LINE", "8", "0", "10", "0", "20", "0", "11", "40", "21", "0"],
  ["0", "LINE", "8", "0", "10", "40", "20", "0", "11", "40", "21", "35"],
  ["0", "ARC", "8", "0", "10", "20", "20", "35", "40", "20", "50", "0", "51", "180"],
  ["0", "LINE", "8", "0", "10", "0", "20", "35", "11", "0", "21", "0"],
  ["0", "CIRCLE", "8", "0", "10", "20", "20", "35", "40", "5.5"],
  ["0", "ENDSEC", "0", "EOF"],
]
  .flat()
  .join("\n");

test("a gusset is made of a panel: its corners follow its size, faults are told, the tally lists it", async ({
  page,
}) => {
  await newJob(page, "HL-431");
  await page.getByRole("button", { name: "Jigs" }).click();
  const dialog = page.getByRole("dialog", { name: "Jigs" });
  await dialog.getByRole("button", { name: "Single panel" }).click();
  await dialog.getByRole("button", { name: "Insert" }).click();
  await saved(page);
  await page.getByRole("button", { name: /^Mark A Panel/ }).click();
  await choose(page, "Board", "Steel plate 6");
  await choose(page, "Outline", "gusset with blunt ends");
  await saved(page);
  await expect(page.getByRole("img", { name: /^Outline of/ })).toBeVisible();
  await expect(page.getByRole("group", { name: "Corner 5" })).toBeVisible();
  await setField(page, "Length", "160");
  await setField(page, "Width", "120");
  await expect(
    page.getByText(
      /outline of 5 corners from left \/ front: 0 \/ 0, 160 \/ 0, 160 \/ 20, 20 \/ 120, 0 \/ 120/,
    ),
  ).toBeVisible();

  // A corner beyond the panel: told, nothing lost, and mended by typing it anew.
  const third = page.getByRole("group", { name: "Corner 3" });
  const depth = third.getByRole("textbox", { name: "by" }).nth(1);
  await depth.fill("200");
  await depth.press("Enter");
  await expect(
    page.getByText(/corner 3 of its outline lies beyond its length or width/).first(),
  ).toBeVisible();
  await depth.fill("30");
  await depth.press("Enter");
  await expect(page.getByText(/160 \/ 30, 20 \/ 120/)).toBeVisible();
  await third.getByRole("textbox", { name: "Rounded by" }).fill("10");
  await third.getByRole("textbox", { name: "Rounded by" }).press("Enter");
  await expect(page.getByText(/160 \/ 30 R 10/)).toBeVisible();
  await page.getByRole("button", { name: "Add a corner after 3" }).click();
  await expect(page.getByRole("group", { name: "Corner 6" })).toBeVisible();
  await page.getByRole("button", { name: "Remove corner 4" }).click();
  await expect(page.getByRole("group", { name: "Corner 6" })).toHaveCount(0);
  await expectAccessible(page);
  await saved(page);
  expect(await tallyRows(page)).toEqual(["Panel 1 160 × 120 × 6"]);

  // An opening so far from all edges, rounded; then by its corners one by one.
  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Add a cut-out" }).click();
  const opening = page.getByRole("group", { name: "Cut-out 1" });
  for (const [i, by] of ["20", "70", "20", "50"].entries()) {
    const side = opening.getByRole("textbox", { name: "by", exact: true }).nth(i);
    await side.fill(by);
    await side.press("Enter");
  }
  await opening.getByRole("textbox", { name: "Rounded by" }).fill("5");
  await opening.getByRole("textbox", { name: "Rounded by" }).press("Enter");
  await expect(
    page.getByText(/cut-out of 4 corners from left \/ front: 20 \/ 20 R 5, 90 \/ 20 R 5/),
  ).toBeVisible();
  await choose(page, "Cut-out 1, set by", "its corners");
  await opening.getByRole("button", { name: "Remove corner 3" }).click();
  await expect(
    page.getByText(/cut-out of 3 corners from left \/ front: 20 \/ 20 R 5, 90 \/ 20 R 5, 20 \/ 70 R 5/),
  ).toBeVisible();
  await expectAccessible(page);
  await saved(page);

  // A lug out of a drawing: half a circle on 40 × 35, with a hole; a file that is none is told.
  await openStage(page, "Shape");
  const file = page.getByLabel("Outline from a file (DXF)");
  await file.setInputFiles({ name: "photo.dxf", mimeType: "image/png", buffer: Buffer.from("PNG") });
  await expect(page.getByText(/photo\.dxf.*no pairs of code and value/)).toBeVisible();
  await file.setInputFiles({ name: "lug.dxf", mimeType: "image/vnd.dxf", buffer: Buffer.from(LUG) });
  await expect(page.getByText(/Ø 11 through, from left \/ front: 20 \/ 35/)).toBeVisible();
  await saved(page);
  expect(await tallyRows(page)).toEqual(["Panel 1 40 × 55 × 6"]);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText(/160 \/ 30/).first()).toBeVisible();
  await saved(page);

  await openStage(page, "Layout");
  await page.getByRole("button", { name: "Lay out", exact: true }).click();
  await expect(page.getByRole("button", { name: /^A, 160 × 120 mm on sheet 1/ })).toBeVisible({
    timeout: 30_000,
  });
});

test("brackets along their outlines: by hand, filled round a lock, cut another way, on paper and as a drawing", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-214");
  await page.goto(`/jobs/${id}?stage=layout`);
  const plate = stockOf(page, /^Steel plate 6/);
  await plate.click();
  await page.getByRole("button", { name: /^Lay out( again)?$/ }).click();
  await expect(plate).toContainText(/2 sheets.*proven best/, { timeout: 30_000 });
  await expect(page.getByRole("button", { name: "Lay out again" })).toBeEnabled({ timeout: 30_000 });

  const lugs = page.getByRole("button", { name: /^E, 40 × 55 mm on sheet 3/ });
  await dragTo(page, /^E, 40 × 55 mm on sheet 1/, "text=Drop here: another 1000", [0.3, 0.5], lugs);
  await expect(plate).toContainText("3 sheets");
  await lugs.click();
  // With something selected the slip is as high as it will be, and the sheets as small.
  await expect(page.getByRole("button", { name: "Collapse" })).toBeVisible();
  const place = async () => (await lugs.boundingBox())?.x ?? 0;
  const start = await place();
  await page.keyboard.press("ArrowRight");
  await expect.poll(place).toBeGreaterThan(start + 300);
  await page.keyboard.press("ArrowRight");
  await expect(page.getByText("E has no place further right on this sheet.")).toBeVisible();
  await page.keyboard.press("t");
  await expect(page.getByRole("button", { name: /^E, 40 × 55 mm on sheet 3, turned by/ })).toBeVisible();
  await page.keyboard.press("o");
  await expect(page.getByRole("button", { name: /^E, .* sheet 3, .*other face up/ })).toBeVisible();
  await page.keyboard.press("l");
  const locked = page.getByRole("button", { name: /^E, .* on sheet \d, .*locked$/ });
  await expect(locked).toBeVisible();
  await expectAccessible(page);

  await page.getByRole("button", { name: "Lay out around locked pieces" }).click();
  await expect(page.getByRole("button", { name: "Lay out around locked pieces" })).toBeEnabled({
    timeout: 30_000,
  });
  await expect(locked).toBeVisible();
  await expect(plate).toContainText("2 sheets");
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(plate).toContainText("3 sheets");
  await page.getByRole("button", { name: "Redo", exact: true }).click();
  await expect(plate).toContainText("2 sheets");

  const dxf = await textOf(await takeOut(page, /DXF/));
  expect(dxf).toContain("HOLES");
  expect(dxf).toMatch(/\n42\n0\.41421356/);

  // The same board straight through, for this job alone: blanks of the whole size, and back.
  await page.getByRole("button", { name: "Settings" }).click();
  await choose(page, "Cut", "Straight through the sheet");
  await page.keyboard.press("Escape");
  await expect(page.getByText(/Outdated .*the way in which it is cut changed/)).toBeVisible();
  await page.getByRole("button", { name: /Lay out again|Lay out around locked pieces/ }).click();
  await expect(
    page.getByRole("button", { name: /^C, 360 × 100 mm on sheet 1|^C, 100 × 360 mm on sheet 1/ }).first(),
  ).toBeVisible({
    timeout: 30_000,
  });
  await expect(page.getByText(/Cutting order of sheet 1/)).toBeVisible();
});
