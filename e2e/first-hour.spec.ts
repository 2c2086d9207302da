/** What a drafter does who has never seen it: a frame and a cabinet, with the number of actions that each takes. */
import { Actions, expectAtMost, Keys } from "./actions";
import { copyOf, expect, expectAccessible, openStage, row, saved, setField, test, textOf } from "./fixtures";
import { newJob, tallyRows } from "./shape";

// As somebody sees it, on the whole way through.
test.use({ fills: true });

test("a frame of thirteen members is drawn in at most 60 actions", async ({ page }) => {
  await newJob(page, "HL-480");
  const does = new Actions(page);
  await does.button("Draw members");
  await does.choose("Draw", "a rectangle");
  await does.type("From", "0; 0; 830");
  await does.type("Opposite corner", "960; 460; 830");
  await does.button("Done");
  const rails = page.getByRole("button", { name: /Rail P\d–P\d/ });
  await does.click(rails.first());
  await does.click(rails.last(), ["Shift"]);
  await does.button("Legs");
  await does.button("Draw legs");
  await does.button("Draw members");
  await does.type("Name", "Low rail");
  await does.type("From", "0; 0; 180");
  await does.type("Opposite corner", "960; 460; 180");
  await does.choose("Draw", "one by one");
  await does.choose("Direction", "to a position");
  await does.type("Name", "Brace");
  await does.type("From", "0; 460; 280");
  await does.type("Position", "960; 460; 730");
  await does.press("Escape");
  await does.press("Escape");
  await expect(page.getByRole("button", { name: "Draw members" })).toBeFocused();
  await saved(page);
  expect(await tallyRows(page)).toEqual([
    // 920 between the legs, risen 450 in 960, and half a section on either end.
    "Brace 1 1034.8",
    "Rail 2 1000",
    "Low rail 2 920",
    "Leg 4 810",
    "Rail 2 500",
    "Low rail 2 420",
  ]);
  expectAtMost("frame, drawn", does.count, 60);
});

test("the same frame from a jig takes at most 15 actions, and a cabinet at most 35", async ({ page }) => {
  await newJob(page, "HL-481");
  const frame = new Actions(page);
  // An empty job offers how it may begin.
  await expectAccessible(page);
  await frame.click(page.getByRole("button", { name: /^A frame/ }));
  await frame.choose("Braces", "across the back");
  await frame.button("Insert");
  await saved(page);
  expect(await tallyRows(page)).toEqual(
    expect.arrayContaining([
      "Top rail 2 1000",
      "Leg 4 810",
      "Low end rail 2 420",
      expect.stringMatching(/^Brace 1 /),
    ]),
  );
  expectAtMost("frame, from a jig", frame.count, 15);

  await newJob(page, "HL-482");
  const cabinet = new Actions(page);
  await cabinet.click(page.getByRole("button", { name: /^A cabinet/ }));
  await cabinet.fill("Overall width", "800");
  await cabinet.fill("Overall height", "900");
  await cabinet.button("Insert");
  // The edges of both shelves at once, in front.
  await saved(page);
  const rows = await tallyRows(page);
  expect(rows.length).toBeGreaterThan(3);
  expectAtMost("cabinet, from a jig", cabinet.count, 35);
});

test("by keyboard alone the frame is drawn, the focus is never lost, and a jig needs few keys", async ({
  page,
}) => {
  await newJob(page, "HL-484");
  const does = new Keys(page);
  await does.reach("Draw members");
  await does.press("Enter");
  await does.reach("Draw", "Shift+Tab");
  await does.choose("a rectangle");
  await does.reach("From");
  await does.type("0; 0; 830");
  await does.press("Enter");
  await does.reach("Opposite corner");
  await does.type("960; 460; 830");
  await does.press("Enter");
  await does.press("Escape");
  await does.press("Escape");
  await expect(page.getByRole("button", { name: "Draw members" })).toBeFocused();
  // The rails in the list, the last one with Shift: all of them.
  await does.reach(/Rail ?P1–P2/, "Shift+Tab");
  await does.press("Enter");
  await does.reach(/Rail ?P4–P1/);
  await does.press("Shift+Enter");
  await does.reach("Legs");
  await does.press("Enter");
  await does.reach("Draw legs");
  await does.press("Enter");
  await saved(page);
  await does.reach("Draw members", "Shift+Tab");
  await does.press("Enter");
  await does.reach("Name", "Shift+Tab");
  await does.type("Low rail");
  await does.press("Enter");
  await does.reach("From");
  await does.type("0; 0; 180");
  await does.press("Enter");
  await does.reach("Opposite corner");
  await does.type("960; 460; 180");
  await does.press("Enter");
  await does.press("Escape");
  await does.press("Escape");
  await saved(page);
  expect(await tallyRows(page)).toEqual([
    "Rail 2 1000",
    "Low rail 2 920",
    "Leg 4 810",
    "Rail 2 500",
    "Low rail 2 420",
  ]);
  expectAtMost("frame of twelve members, by keyboard (keys)", does.count, 320);

  await newJob(page, "HL-485");
  const jig = new Keys(page);
  await jig.reach(/^A frame/);
  await jig.press("Enter");
  await expect(page.getByRole("dialog")).toBeVisible();
  await jig.reach("Braces");
  await jig.choose("across the back");
  await jig.reach("Insert");
  await jig.press("Enter");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await saved(page);
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Leg 4 810"]));
  expectAtMost("frame, from a jig by keyboard (keys)", jig.count, 80);

  await newJob(page, "HL-486");
  const cabinet = new Keys(page);
  await cabinet.reach(/^A cabinet/);
  await cabinet.press("Enter");
  await expect(page.getByRole("dialog")).toBeVisible();
  await cabinet.reach("Overall width");
  await cabinet.type("800");
  await cabinet.reach("Overall height");
  await cabinet.type("900");
  await cabinet.reach("Insert");
  await cabinet.press("Enter");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await saved(page);
  expect((await tallyRows(page)).length).toBeGreaterThan(3);
  expectAtMost("cabinet, from a jig by keyboard (keys)", cabinet.count, 100);
});

test("holes and notches of several members at once, in list and picture; ends notched to fit", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  await page.getByRole("button", { name: /Front leg P1–P3/ }).click();
  await page.getByRole("button", { name: /Front leg P2–P4/ }).click({ modifiers: ["Control"] });
  await page.getByRole("button", { name: "Add a hole" }).click();
  await setField(page, "Along", "150");
  await setField(page, "Quantity", "3");
  await page.getByRole("button", { name: "Add a notch" }).click();
  await saved(page);
  await expectAccessible(page);
  await openStage(page, "Tally");
  await expect(row(page, "D")).toContainText(
    "3 holes: ⌀ 9, through all walls, top, in the middle; from tip of end 1: 150, 250, 350",
  );
  await expect(page.getByText("all pieces counted")).toBeVisible();
  await openStage(page, "Shape");
  await page.keyboard.press("Escape");
  await page
    .getByRole("button", { name: /Top rail/ })
    .first()
    .click();
  await page.getByRole("combobox", { name: /^End cut at/ }).click();
  await page.getByRole("option", { name: "notch to fit", exact: true }).click();
  await saved(page);
  await expect(page.getByRole("combobox", { name: /^End cut at/ })).toHaveText("notch to fit");
});

test("rows are picked in runs and by what they share, Escape lets go, and the last steps are gone back to", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=tally`);
  const selected = page.locator("[data-mark][aria-selected=true]");
  await row(page, "A").click();
  await row(page, "D").click({ modifiers: ["Shift"] });
  await expect(selected).toHaveCount(4);
  await row(page, "B").click({ modifiers: ["Control"] });
  await expect(selected).toHaveCount(3);
  await page.keyboard.press("Escape");
  await expect(selected).toHaveCount(0);
  await expect(page.getByText("Nothing selected")).toBeVisible();
  await row(page, "A").click();
  await page.getByRole("button", { name: "Select", exact: true }).click();
  await expectAccessible(page);
  await page.getByRole("menuitem", { name: /^All of the same stock/ }).click();
  await expect(selected).toHaveCount(6);

  await openStage(page, "Shape");
  await page.keyboard.press("Escape");
  // All that lies in a box drawn round the whole picture.
  await page.getByRole("button", { name: "Select in a box" }).click();
  const box = await page.locator("[data-frames]").boundingBox();
  if (!box) throw new Error("the picture has a box");
  await page.mouse.move(box.x + 4, box.y + 4);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 4, box.y + box.height - 4, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText(/^\d+ rows$/)).toBeVisible();
  await page.keyboard.press("Escape");

  for (const value of ["1300", "1250", "1200"]) await setField(page, "width", value);
  await saved(page);
  await page.getByRole("button", { name: "History" }).click();
  await expect(page.getByRole("menuitem", { name: "Set a key size to 1200" })).toBeVisible();
  await page.getByRole("menuitem", { name: "Set a key size to 1250" }).click();
  await expect(page.getByText("Undid the last 2 steps.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "width", exact: true })).toHaveValue("1300");
});

test("a section is typed as people say it, and stands on its line as its picture shows", async ({ page }) => {
  await newJob(page, "HL-483");
  await page.getByRole("button", { name: "Draw members" }).click();
  await page.getByRole("combobox", { name: "Section", exact: true }).click();
  await page.getByRole("option", { name: "New section…" }).click();
  const dialog = page.getByRole("dialog", { name: "New section" });
  await dialog.getByRole("textbox", { name: "Section" }).fill("something round");
  await dialog.getByRole("button", { name: "Add section" }).click();
  await expect(dialog.getByText(/Its kind and sizes must be in the name/)).toBeVisible();
  await dialog.getByRole("textbox", { name: "Section" }).fill("2 x 2 x 1/8 in angle");
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Add section" }).click();
  await page.getByRole("button", { name: "Line passes through bottom left" }).click();
  await page.getByRole("button", { name: "A quarter turn to the right" }).click();
  await expect(page.getByText("heel", { exact: true })).toBeVisible();
  await setField(page, "From", "0; 0; 0");
  await setField(page, "Length", "500");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /Rail P1–P2 · 2 x 2 x 1\/8 in angle/ }).click();
  await expect(page.getByRole("textbox", { name: "Section rotation, °" })).toHaveValue("90");
  await expectAccessible(page);
});

test("the variants stand side by side, and can be taken away", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=buy`);
  await page.getByRole("button", { name: "Compare variants" }).click();
  const dialog = page.getByRole("dialog", { name: "Variants compared" });
  await expect(dialog.getByRole("row", { name: /^width mm 1400 1000 1400$/ })).toBeVisible();
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Export" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("menuitem", { name: /^Variants \(CSV\)/ }).click(),
  ]);
  expect(await textOf(download)).toContain("Key sizes,width,mm,1400,1000,1400");
});

test("ends that are cut against what stays outside are freed when an assembly is made", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  await page.getByRole("button", { name: /Front leg P1–P3/ }).click();
  await page.getByRole("button", { name: /Front leg P2–P4/ }).click({ modifiers: ["Control"] });
  await page.getByRole("button", { name: "Assemble", exact: true }).click();
  await expect(page.getByText(/^Free \d+ ends cut against/)).toBeVisible();
  await page.getByRole("button", { name: "Create assembly" }).click();
  await saved(page);
  await expect(page.getByRole("button", { name: /^Front leg × 1/ })).toBeVisible();
  await openStage(page, "Tally");
  await expect(page.getByText("all pieces counted")).toBeVisible();
});
