/** Pieces that are not drawn, rows by hand, and what is left out: with the balance holding all the way. */
import { copyOf, expect, expectAccessible, openStage, row, saved, test } from "./fixtures";
import { choose } from "./shape";

const ROWS = [
  "what\thow many\tL\tstuff\tmade of",
  "Brace\t4\t23 5/8 in\tSquare tube 40 × 40 × 3\tS235",
  "Strap\t-2\t300\tSquare tube 40 × 40 × 3\t",
  "Cleat\t3\tabc\tLarch, planed 88 × 18\tlarch",
  "Plate\t2\t120\tUnobtanium 4\t",
  "Shim\t2\t120\tEqual angle 30 × 30 × 3\tmoon rock",
].join("\n");

test("rows from a spreadsheet: columns told apart, bad rows said one by one, good ones laid out like drawn ones", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.getByRole("button", { name: "Type in pieces" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Loose rail");
  await page.getByLabel("Count", { exact: true }).fill("two");
  await page.getByLabel("Length, mm").fill("1400");
  await choose(page, "Section or board", "Square tube 40 × 40 × 3");
  await page.getByRole("button", { name: "Add the piece" }).click();
  await expect(page.getByRole("alert")).toHaveText('The quantity "two" is not a number.');
  await page.getByLabel("Count", { exact: true }).fill("2");
  await page.getByRole("button", { name: "Add the piece" }).click();
  await expect(page.getByText("2 × Loose rail added")).toBeVisible();

  await page.getByRole("button", { name: "Rows from a spreadsheet" }).click();
  await page.getByLabel(/Rows copied from a spreadsheet/).fill(ROWS);
  await expect(page.getByText("0 rows can be read, 5 cannot")).toBeVisible();
  await choose(page, "What what means", "name");
  await choose(page, "What stuff means", "section or board");
  await choose(page, "What made of means", "material");
  await expect(page.getByText("1 row can be read, 4 cannot and will not be added")).toBeVisible();
  for (const words of [
    'Row 3 (“Strap | -2 | 300 | Square tube 40 × 40 × 3”): The quantity "-2" must be at least 1.',
    'Row 4 (“Cleat | 3 | abc | Larch, planed 88 × 18 | larch”): Length: "abc" is not a length',
    'There is no section or board "Unobtanium 4" in the stockroom.',
    'Unknown material "moon rock"',
  ])
    await expect(page.getByText(words)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Add 1 row" }).click();
  await saved(page);
  await expect(page.getByRole("button", { name: "98 in the design" })).toBeVisible();
  await expect(page.getByText("all pieces counted", { exact: true })).toBeVisible();
  const brace = page.locator("[data-mark]").filter({ hasText: "Brace" });
  await expect(brace).toContainText("600.1");
  await expect(brace).toContainText("typed in");
});

test("a spreadsheet file is read; one with a formula, or that is none, is refused with a sentence", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.getByRole("button", { name: "Type in pieces" }).click();
  await page.getByRole("button", { name: "Rows from a spreadsheet" }).click();
  const file = page.locator('input[type="file"]');
  const sheet = async (rows: readonly (readonly unknown[])[]) => {
    const { default: ExcelJS } = await import("exceljs");
    const book = new ExcelJS.Workbook();
    book.addWorksheet("List").addRows(rows as unknown[][]);
    const name = "list.xlsx";
    return { name, mimeType: "application/octet-stream", buffer: Buffer.from(await book.xlsx.writeBuffer()) };
  };
  await file.setInputFiles(
    await sheet([
      ["Name", "Qty", "Length", "Section"],
      ["Brace", 4, 600, "Square tube 40 × 40 × 3"],
    ]),
  );
  await expect(page.getByText("1 row can be read")).toBeVisible();
  await file.setInputFiles(
    await sheet([
      ["Name", "Qty"],
      ["Brace", { formula: "2*2", result: 4 }],
    ]),
  );
  await expect(page.getByText(/cell B2 holds a formula/)).toBeVisible();
  await file.setInputFiles({
    name: "x.xlsx",
    mimeType: "application/octet-stream",
    buffer: Buffer.from([0x50, 0x4b, 3, 4, 9]),
  });
  await expect(page.getByText(/The spreadsheet/)).toBeVisible();
  await file.setInputFiles({ name: "x.csv", mimeType: "text/csv", buffer: Buffer.from([0, 1, 2, 0]) });
  await expect(page.getByText(/is not a text file/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Add rows" })).toBeDisabled();
});

test("rows by hand: put together, split off, moved, put back; pieces left out and put back", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  // Near twins of 1380 and 1377.5 become one row, which says so and is cut at the greater length.
  await page.getByRole("button", { name: /Marks J and K/ }).click();
  await page
    .getByRole("dialog", { name: "Checks" })
    .getByRole("button", { name: /Marks J and K/ })
    .click();
  await page.getByRole("button", { name: "Merge rows" }).click();
  await saved(page);
  await expect(row(page, "J")).toContainText("by hand");
  await expect(row(page, "K")).toHaveCount(0);
  await expect(page.getByText(/were put together by hand; the row shows 1380 mm/)).toBeVisible();
  await expect(page.getByText("1 row by hand")).toBeVisible();
  await page.getByRole("button", { name: "Put row back to computed" }).click();
  await expect(page.locator("[data-mark]").filter({ hasText: "Shelf slat" })).toHaveCount(2);

  // One of two front legs is picked alone in the picture and split off; the other one keeps the mark.
  const picture = await page.locator("[data-frames]").boundingBox();
  if (!picture) throw new Error("the picture is there");
  await page.mouse.click(picture.x + picture.width * 0.305, picture.y + picture.height * 0.72);
  await expect(page.getByText("1 of 2 selected")).toBeVisible();
  await page.getByRole("button", { name: "Split row" }).click();
  await saved(page);
  await expect(page.getByText("1 of 1 selected")).toBeVisible();
  await expect(row(page, "D")).not.toContainText("by hand");
  await page.getByRole("button", { name: "Move to row" }).click();
  await page.getByLabel(/Mark of the row/).fill("D");
  await page.getByRole("button", { name: "Move", exact: true }).click();
  await expect(row(page, "D")).toContainText("by hand");
  await page.getByRole("button", { name: "Put all back" }).click();
  await expect(page.getByText("row by hand")).toBeHidden();

  // What is no near twin does not go there.
  await row(page, "A").click();
  await page.getByRole("button", { name: "Move to row" }).click();
  await page.getByLabel(/Mark of the row/).fill("ZZ");
  await page.getByRole("button", { name: "Move", exact: true }).click();
  await expect(page.getByText("There is no row with the mark ZZ.")).toBeVisible();
  await page.getByLabel(/Mark of the row/).fill("B");
  await page.getByRole("button", { name: "Move", exact: true }).click();
  await expect(page.getByText(/differ by more than near twins do/)).toBeVisible();
  await page.keyboard.press("Escape");

  await row(page, "G").click();
  await page.getByRole("button", { name: "Leave out of lists" }).click();
  await saved(page);
  await page.getByRole("button", { name: "1 left out" }).click();
  await expect(page.getByText("1 × Hanging rail")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Include", exact: true }).click();
  await expect(page.getByText("Nothing is left out of the lists.")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(row(page, "G")).toBeVisible();
  await saved(page);
});

test("marks are given by picking, with a start and a step", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.getByRole("button", { name: "Renumber" }).click();
  await choose(page, "Marks are", "numbers");
  await choose(page, "In the order of", "picking, in the 3D view or the list");
  await page.getByLabel("First").fill("10");
  await page.getByLabel("Step").fill("5");
  await page.getByLabel("Prefix").fill("R");
  await page.getByRole("button", { name: "Start picking" }).click();
  await expect(page.getByText(/Next is R10/)).toBeVisible();
  await page.locator("[data-mark]").filter({ hasText: "Rear leg" }).click();
  await page.locator("[data-mark]").filter({ hasText: "Front leg" }).click();
  await expect(page.getByText(/Next is R20/)).toBeVisible();
  await page.getByRole("button", { name: "Done" }).click();
  await saved(page);
  await expect(row(page, "R10")).toContainText("Rear leg");
  await expect(row(page, "R15")).toContainText("Front leg");
  await expect(page.getByText("2 marks locked")).toBeVisible();
  await page.getByRole("button", { name: "Put all back" }).click();
  await saved(page);
  await expect(row(page, "R10")).toHaveCount(0);

  // Balloons are picked as well.
  await page.getByRole("button", { name: "Renumber" }).click();
  await choose(page, "In the order of", "picking, in the 3D view or the list");
  await page.getByLabel("Prefix").fill("Q");
  await page.getByRole("button", { name: "Start picking" }).click();
  await openStage(page, "Drawings");
  await expect(page.getByText(/Next is Q/)).toBeVisible();
  const balloon = (mark: string) =>
    page
      .getByRole("region", { name: "Page", exact: true })
      .getByRole("button", { name: `Balloon ${mark}`, exact: true });
  await balloon("L").locator("text").click();
  await expect(page.getByText(/Next is Q2|Next is QB/)).toBeVisible();
  await balloon("G").locator("text").click();
  await expect(balloon("QA").or(balloon("Q1"))).toBeVisible();
  await expect(balloon("QB").or(balloon("Q2"))).toBeVisible();
  await page.getByRole("button", { name: "Done" }).click();
  await saved(page);
});
