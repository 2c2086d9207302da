/** Lists of a job's own: made from a start, their columns and order changed, checked against the design. */
import { copyOf, expect, expectAccessible, saved, setField, takeOut, test, textOf } from "./fixtures";
import { choose } from "./shape";

test("a cut list and a buying list: columns renamed and moved, sixteenths, groups, the file is the same", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: /Cut list by stock/ }).click();
  await expect(page.getByRole("grid", { name: "Cut list by stock" })).toBeVisible();
  await page.getByRole("button", { name: "Set it up" }).click();
  await expectAccessible(page);
  await setField(page, "Title", "Saw list");
  await setField(page, "Heading of Count", "How many");
  await page.getByRole("button", { name: "Move Count up" }).click();
  await choose(page, "Add a column", "Cut length");
  await choose(page, "Lengths in Cut length", "to 1/16");
  await setField(page, "Size of panels", "{thickness} x {width} x {wrong}");
  await expect(page.getByText(/uses \{wrong\}, which it does not know/)).toBeVisible();
  await setField(page, "Size of panels", "{thickness} x {width} x {length}");
  await page.getByRole("button", { name: "Fold the setup" }).click();
  await saved(page);
  const grid = page.getByRole("grid", { name: "Saw list" });
  await expect(grid.getByRole("columnheader")).toHaveText([
    "Mark",
    "How many",
    "Name",
    "Size",
    "End 1 °",
    "End 2 °",
    "Ends stand",
    "Note",
    "Cut length",
  ]);
  await expect(grid.getByText("21 x 620 x 1420")).toBeVisible();
  const csv = (await textOf(await takeOut(page, /Saw list \(CSV\)/))).split("\r\n");
  expect(csv[0]).toBe("Stock,Mark,How many,Name,Size,End 1 °,End 2 °,Ends stand,Note,Cut length");
  expect(csv.find((line) => line.includes("Top rail"))).toBe(
    "Square tube 40 × 40 × 3,A,2,Top rail,1400,45,45,opposed,,1400",
  );

  // A change of the design is in it at once, and picking a row picks its pieces.
  await grid.getByText("Worktop").click();
  await expect(page.getByRole("heading", { name: "Worktop" })).toBeVisible();
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: /Lengths to buy/ }).click();
  const buying = page.getByRole("grid", { name: "Lengths to buy" });
  await expect(buying.getByRole("row", { name: /Square tube 40/ })).toContainText("11.080");
  // The row that adds twelve pieces up stands for all of them.
  await buying.getByRole("row", { name: /Square tube 40/ }).click();
  await expect(page.getByText("6 rows")).toBeVisible();
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.getByRole("button", { name: "Copy for a spreadsheet" }).click();
  await expect(page.getByText("The list is on the clipboard")).toBeVisible();
  const pasted = await page.evaluate(() => navigator.clipboard.readText());
  expect(pasted.split("\n")[0]).toBe("Stock\tMaterial\tMark\tCount\tNet\tIn\tkg");
  expect(pasted).toMatch(/Square tube 40 × 40 × 3\tS235\t[A-Z ]+\t12\t11\.080\tm\t/);
  await page.getByRole("button", { name: "Set it up" }).click();
  await choose(page, "Only what is in", "Drawer");
  await expect(buying.getByRole("row", { name: /Square tube 40/ })).toBeHidden();
  await expect(buying.getByRole("row", { name: /Birch ply 6/ })).toContainText("0.149");
  await page.getByRole("button", { name: "Remove this list" }).click();
  await saved(page);
  await page.reload();
  await choose(page, "List", "Saw list");
  await expect(page.getByRole("grid", { name: "Saw list" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByText(/Lengths to buy|Saw list/).first()).toBeVisible();
});

test("a mark is held by hand and put back; all marks are given anew", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  await page.locator('[data-mark="D"]').click();
  await page.getByRole("button", { name: "Mark", exact: true }).click();
  await page.getByLabel(/The row keeps it/).fill("A");
  await page.getByRole("button", { name: "Hold this mark" }).click();
  await expect(
    page.getByText('The mark "A" is that of Top rail; give that row another one first.'),
  ).toBeVisible();
  await page.getByLabel(/The row keeps it/).fill("LEG");
  await page.getByRole("button", { name: "Hold this mark" }).click();
  await saved(page);
  await expect(page.locator('[data-mark="LEG"]')).toContainText("Front leg");

  await page.getByRole("button", { name: "Renumber" }).click();
  await choose(page, "Marks are", "numbers");
  await page.getByLabel("First").fill("101");
  await page.getByLabel("Before panels").fill("P");
  await page.getByRole("button", { name: "Mark all anew" }).click();
  await saved(page);
  await expect(page.locator('[data-mark="101"]')).toContainText("Top rail");
  await expect(page.locator('[data-mark="LEG"]')).toContainText("Front leg");
  await expect(page.locator('[data-mark="P101"]')).toBeVisible();
  await page.locator('[data-mark="LEG"]').click();
  await page.getByRole("button", { name: "Held; put back to computed" }).click();
  await saved(page);
  await expect(page.locator('[data-mark="LEG"]')).toHaveCount(0);
  await expectAccessible(page);
});
