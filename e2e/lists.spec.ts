/** Lists of a job's own: made from a start, their columns and order changed, checked against the design. */
import type { Page } from "@playwright/test";
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
import { choose } from "./shape";

const cell = (page: Page, row: string, column: string) =>
  page.locator(`[data-list-row="${row}"] [data-column="${column}"]`);

/** Walks to a cell and types over it, by keys alone from there. */
async function typeOver(page: Page, row: string, column: string, text: string): Promise<void> {
  await cell(page, row, column).click();
  await page.keyboard.press("Enter");
  const field = page.locator(`[data-list-row="${row}"] input`);
  await field.fill(text);
  await field.press("Enter");
}

async function pasted(page: Page): Promise<readonly string[]> {
  await page.getByRole("button", { name: "Copy for a spreadsheet" }).click();
  await expect(page.getByText("The list is on the clipboard").first()).toBeVisible();
  return (await page.evaluate(() => navigator.clipboard.readText())).split("\n");
}

test("a cut list and a buying list: columns, sixteenths, a cell changed by hand, what changed, pasted out", async ({
  page,
}) => {
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: /Cut list by stock/ }).click();
  await expect(page.getByRole("grid", { name: "Cut list by stock" })).toBeVisible();
  await page.getByRole("button", { name: "Set up rows" }).click();
  await expectAccessible(page);
  await setField(page, "Title", "Saw list");
  await page.getByRole("button", { name: "Set up columns" }).click();
  await expectAccessible(page);
  await setField(page, "Heading of Count", "How many");
  await page.getByRole("button", { name: "Remove column Note" }).click();
  await page.getByRole("button", { name: "Remove column End direction" }).click();
  // The columns are moved with the keys as well as dragged.
  await page.getByRole("button", { name: "Move Count" }).focus();
  await page.keyboard.press("Space");
  await expect(page.getByText(/was moved over droppable area count/)).toBeAttached();
  await page.keyboard.press("ArrowUp");
  await expect(page.getByText(/was moved over droppable area name/)).toBeAttached();
  await page.keyboard.press("Space");
  await choose(page, "Add a column", "Cut length");
  await choose(page, "Numbers in Cut length", "to 1/16");
  await choose(page, "Unit of Cut length", "in");
  await setField(page, "Size of panels", "{thickness} x {width} x {wrong}");
  await expect(page.getByText(/uses \{wrong\}, which it does not know/)).toBeVisible();
  await setField(page, "Size of panels", "{thickness} x {width} x {length}");
  await page.getByRole("button", { name: "Set up columns" }).click();
  await saved(page);
  const grid = page.getByRole("grid", { name: "Saw list" });
  await expect(grid.getByRole("columnheader")).toHaveText([
    "Mark",
    "How many",
    "Name",
    "Piece",
    "Size",
    "End 1 °",
    "End 2 °",
    "Cut length (in)",
  ]);
  await expect(grid.getByText("21 x 612 x 1420")).toBeVisible();
  const csv = (await textOf(await takeOut(page, /Saw list \(CSV\)/))).split("\r\n");
  expect(csv[0]).toBe("Stock,Material,Mark,How many,Name,Size,End 1 °,End 2 °,Cut length (in)");
  // 1400 mm are 55.118 in, to the nearest sixteenth 55 1/8.
  expect(csv.find((line) => line.includes("Top rail"))).toBe(
    "Square tube 40 × 40 × 3,S235,A,2,Top rail,1400,45,45,≈55 1/8",
  );

  // Typed over: the computed value stays beside it, and Delete brings it back.
  await typeOver(page, "A", "count", "3");
  await expect(cell(page, "A", "count")).toHaveText("2 3");
  await expect(page.getByText("How many is changed by hand: 3, computed 2")).toBeVisible();
  await typeOver(page, "B", "name", "Foot rail");
  await page.keyboard.press("Delete");
  await expect(cell(page, "B", "name")).toHaveText("Low rail");
  await expect(page.getByText("1 cell changed by hand")).toBeVisible();

  // A key size changes: what hangs on it is flagged with the old value, also under what was changed by hand.
  await typeOver(page, "B", "size", "1320 long");
  await openStage(page, "Shape");
  await setField(page, "width", "1450");
  await saved(page);
  await openStage(page, "Tally");
  await expect(cell(page, "A", "size")).toHaveText("1450 was 1400, +50");
  await expect(cell(page, "B", "size")).toContainText("was 1320");
  await cell(page, "B", "size").click();
  await expect(page.getByText("computed value was 1320 before")).toBeVisible();
  await expectAccessible(page);

  const lines = await pasted(page);
  expect(lines[0]).toBe(
    "Stock\tMaterial\tMark\tHow many\tName\tSize\tEnd 1 °\tEnd 2 °\tCut length (in) ≈\tChanged by hand",
  );
  // 1450 mm are 57.087 in: 57 1/16; the number stands there without the sign that it is rounded.
  expect(lines.find((line) => line.includes("Top rail"))).toBe(
    "Square tube 40 × 40 × 3\tS235\tA\t3\tTop rail\t1450\t45\t45\t57 1/16\tHow many (computed 2)",
  );
  await page.getByRole("button", { name: "Seen" }).click();
  await expect(cell(page, "A", "size")).toHaveText("1450");
  await page.getByRole("button", { name: "Put all back" }).first().click();
  await expect(cell(page, "A", "count")).toHaveText("2");
  await saved(page);

  // The buying list: all rows of one stock size add up, and name the marks that they combine.
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: /Lengths to buy/ }).click();
  const buying = page.getByRole("grid", { name: "Lengths to buy" });
  await expect(buying.getByRole("row", { name: /Square tube 40/ })).toContainText("11.280");
  await buying.getByRole("row", { name: /Square tube 40/ }).click();
  await expect(page.getByText("6 rows")).toBeVisible();
  const bought = await pasted(page);
  expect(bought[0]).toBe("Stock\tMaterial\tMark\tCount\tNet\tIn\tkg");
  expect(bought.join("\n")).toMatch(/Square tube 40 × 40 × 3\tS235\tA B C D E F\t12\t11\.280\tm\t/);
  await page.getByRole("button", { name: "Set up rows" }).click();
  await choose(page, "Limit to assembly", "Drawer");
  await expect(buying.getByRole("row", { name: /Square tube 40/ })).toBeHidden();
  await expect(buying.getByRole("row", { name: /Birch ply 6/ })).toContainText("0.149");
  await page.getByRole("button", { name: "Remove this list" }).click();
  await saved(page);
  await page.reload();
  await choose(page, "List", "Saw list");
  await expect(page.getByRole("grid", { name: "Saw list" })).toBeVisible();
});

test("own columns, rows in an order by hand, kept in the stockroom and used in another job", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-207");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: /Parts list/ }).click();
  await page.getByRole("button", { name: "Set up columns" }).click();
  const add = async (name: string, kind: string, more?: readonly [string, string]) => {
    await page.getByLabel("New column").fill(name);
    await choose(page, "It holds", kind);
    if (more) await page.getByLabel(more[0], { exact: true }).fill(more[1]);
    await page.getByRole("button", { name: "Add it" }).click();
  };
  await add("Finish", "one of several", ["Choices", "oiled, raw"]);
  await add("Price each", "a number");
  await add("Row price", "a formula", ["Formula", "{count} * {no such thing}"]);
  await expect(page.getByText("names {no such thing}, which is no column")).toBeVisible();
  await page.getByLabel("Formula", { exact: true }).fill("{count} * {price each}");
  await page.getByRole("button", { name: "Add it" }).click();
  await page.getByRole("button", { name: "Set up columns" }).click();
  await saved(page);
  const grid = page.getByRole("grid", { name: "Parts list" });
  const column = async (name: string) => (await grid.getByRole("columnheader").allInnerTexts()).indexOf(name);
  const cells = grid.locator('[data-list-row="A"]').getByRole("gridcell");
  const finish = cells.nth(await column("Finish"));
  await expect(finish).toHaveText("not set");
  await finish.dblclick();
  await finish.locator("input").fill("painted");
  await finish.locator("input").press("Enter");
  await expect(page.getByText("must be one of oiled, raw")).toBeVisible();
  await finish.locator("input").fill("oiled");
  await finish.locator("input").press("Enter");
  await expect(finish).toHaveText("oiled");
  const price = cells.nth(await column("Price each"));
  await price.click();
  await page.keyboard.type("12,5");
  await page.keyboard.press("Enter");
  await expect(cells.nth(await column("Row price"))).toContainText("12.5");

  // In an order by hand: the second row is moved up with the keys, the third dragged to the top.
  await page.getByRole("button", { name: "Set up rows" }).click();
  await page.getByRole("checkbox", { name: "manual order" }).check();
  await page.getByRole("button", { name: "Set up rows" }).click();
  await grid.locator('[data-list-row="B"]').getByText("Drawer bottom").click();
  await page.keyboard.press("Alt+ArrowUp");
  const order = () =>
    grid
      .locator("[data-list-row]")
      .evaluateAll((rows) => rows.slice(0, 3).map((row) => row.getAttribute("data-list-row")));
  await expect.poll(order).toEqual(["B", "A", "C"]);
  const grip = grid
    .locator('[data-list-row="C"]')
    .getByRole("button", { name: "Drag the row to another place" });
  const from = await grip.boundingBox();
  const to = await grid.locator('[data-list-row="B"]').boundingBox();
  if (!from || !to) throw new Error("both are in view");
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(to.x + 8, to.y + 20, { steps: 4 });
  await page.mouse.move(to.x + 8, to.y + 12, { steps: 4 });
  await page.mouse.up();
  await expect.poll(order).toEqual(["C", "B", "A"]);

  await page.getByRole("button", { name: "Set up rows" }).click();
  await setField(page, "Title", `Parts ${id}`);
  await page.getByRole("button", { name: "Save list setup to stockroom" }).click();
  await expect(page.getByText("is saved in the stockroom")).toBeVisible();
  const other = await copyOf(page, "hl-211");
  await page.goto(`/jobs/${other}?stage=tally`);
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: new RegExp(`^Parts ${id}`) }).click();
  await expect(
    page.getByRole("grid", { name: `Parts ${id}` }).getByRole("columnheader", { name: "Row price" }),
  ).toBeVisible();
  await expect(page.getByText(/Finish is not set in \d+ rows/)).toBeVisible();
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: `Delete Parts ${id}` }).click();
  await expect(page.getByRole("menuitem", { name: `Delete Parts ${id}` })).toBeHidden();
});

test("a list by assembly folds, and leaves as XLSX, PDF and SVG", async ({ page, request }) => {
  const id = await copyOf(page, "hl-207");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: /Bill by assembly/ }).click();
  const grid = page.getByRole("grid", { name: "Bill by assembly" });
  const drawer = grid.getByRole("row", { name: /Drawer side/ });
  await expect(drawer).toContainText("24");
  await grid.getByRole("button", { name: "Collapse Row" }).click();
  await expect(drawer).toBeHidden();
  await grid.getByRole("button", { name: "Expand Row" }).click();
  await page.getByRole("textbox", { name: "Filter rows" }).fill("knob");
  await expect(grid.getByRole("row")).toHaveCount(3);
  await saved(page);
  const sheet = await takeOut(page, /Bill by assembly \(XLSX\)/);
  expect(sheet.suggestedFilename()).toMatch(/^HL-207.*-bill-by-assembly-r\d+\.xlsx$/);
  const list = (format: string) => request.get(`/api/jobs/${id}/lists/Bill%20by%20assembly.${format}`);
  expect(await (await list("svg")).text()).toContain("Drawer side");
  expect((await (await list("pdf")).body()).subarray(0, 5).toString()).toBe("%PDF-");
  const data = (await (await list("json")).json()) as { groups: { rows: { level: number }[] }[] };
  expect(Math.max(...data.groups.flatMap((group) => group.rows.map((row) => row.level)))).toBe(3);
  expect((await list("docx")).status()).toBe(404);
});

test("a mark is held by hand and put back; all marks are given anew", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.locator('[data-mark="D"]').click();
  await page
    .getByRole("region", { name: "Details" })
    .getByRole("button", { name: "Mark", exact: true })
    .click();
  await page.getByLabel(/The row keeps it/).fill("A");
  await page.getByRole("button", { name: "Lock mark" }).click();
  await expect(
    page.getByText('The mark "A" is that of Top rail; give that row another one first.'),
  ).toBeVisible();
  await page.getByLabel(/The row keeps it/).fill("LEG");
  await page.getByRole("button", { name: "Lock mark" }).click();
  await saved(page);
  await expect(page.locator('[data-mark="LEG"]')).toContainText("Front leg");

  await page.getByRole("button", { name: "Renumber" }).click();
  await choose(page, "Marks are", "numbers");
  await page.getByLabel("First").fill("101");
  await page.getByLabel("Prefix for panels").fill("P");
  await page.getByRole("button", { name: "Renumber all" }).click();
  await saved(page);
  await expect(page.locator('[data-mark="101"]')).toContainText("Top rail");
  await expect(page.locator('[data-mark="LEG"]')).toContainText("Front leg");
  await expect(page.locator('[data-mark="P101"]')).toBeVisible();
  await page.locator('[data-mark="LEG"]').click();
  await page.getByRole("button", { name: "Unlock mark" }).click();
  await saved(page);
  await expect(page.locator('[data-mark="LEG"]')).toHaveCount(0);
  await expectAccessible(page);
});

test("the cut list is a list like any other: sorted, typed over, set up, and put back to the usual", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  const grid = page.getByRole("grid", { name: "Cut list" });
  await grid.getByRole("button", { name: "Name", exact: true }).click();
  await expect(grid.locator("[data-mark]").first()).toHaveAttribute("data-mark", "M");
  await typeOver(page, "D", "note", "drill last");
  await expect(cell(page, "D", "note")).toContainText("drill last");
  await page.getByRole("button", { name: "Set up columns" }).click();
  await page.getByRole("button", { name: "Remove column End direction" }).click();
  await expect(grid.getByRole("columnheader", { name: /End direction/ })).toHaveCount(0);
  await saved(page);
  await page.reload();
  await expect(grid.locator("[data-mark]").first()).toHaveAttribute("data-mark", "M");
  // The file holds what is needed to read it again, whatever is shown.
  const csv = await textOf(await takeOut(page, /Cut list \(CSV\)/));
  expect(csv.split("\r\n")[0]).toBe(
    "Stock,Material,Mark,Name,Count,Cut length (mm),Width (mm),Thick (mm),End 1 °,End 2 °,Note,End direction,Grain,Edging,Changed by hand",
  );
  await page.getByRole("button", { name: "Set up rows" }).click();
  await page.getByRole("button", { name: "Put back the usual setup" }).click();
  await expect(grid.locator("[data-mark]").first()).toHaveAttribute("data-mark", "A");
  await expect(grid.getByRole("columnheader", { name: /End direction/ })).toBeVisible();
  await expect(cell(page, "D", "note")).not.toContainText("drill last");
  await expectAccessible(page);
});
