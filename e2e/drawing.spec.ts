/** A design brought into being in the application: drawn, built from jigs, copied, mirrored and changed. */
import { expect, expectAccessible, OURS, openStage, saved, setField, test } from "./fixtures";
import { choose, drawRing, go, newJob, tallyRows } from "./shape";

test("a four-legged frame with a mitred ring and a lower rail, typed and clicked, in the right tally", async ({
  page,
}) => {
  await newJob(page, "HL-410");
  await drawRing(page);
  await setField(page, "Name", "Leg");
  await go(page, "down", "430");
  for (const point of ["P2", "P3", "P4"]) {
    await setField(page, "From", point);
    await go(page, "down", "430");
  }
  // What cannot be drawn says why, and the length stays typed.
  await setField(page, "From", "P1");
  await go(page, "right", "560");
  await expect(page.getByText(/"Rail" already connects/).first()).toBeVisible();

  // The last one with the pointer: from the middle of a leg straight across, caught on the middle of the next.
  await page.getByRole("button", { name: "Done" }).click();
  await page.getByRole("button", { name: "Front", exact: true }).click();
  await page.getByRole("button", { name: "Fit" }).click();
  await page.getByRole("button", { name: "Draw members" }).click();
  await setField(page, "Name", "Low rail");
  await setField(page, "From", "0; 0; 215");
  await go(page, "right", "560");
  await page.getByRole("button", { name: "Done" }).click();
  await saved(page);
  expect(await tallyRows(page)).toEqual(["Rail 2 600", "Low rail 1 520", "Leg 4 410", "Rail 2 400"]);
  await expect(page.getByText("all pieces counted")).toBeVisible();
});

test("ends are set to a double mitre, to angles of their own and to a point, and the list says both angles", async ({
  page,
}) => {
  await newJob(page, "HL-413");
  await page.getByRole("button", { name: "Draw members" }).click();
  for (const [way, length] of [
    ["right", "500"],
    ["left", "500"],
    ["back", "500"],
  ] as const) {
    await setField(page, "From", "0; 0; 0");
    await go(page, way, length);
  }
  await page.getByRole("button", { name: "Done" }).click();
  await saved(page);
  await page.getByRole("button", { name: /P1–P4/ }).click();
  await choose(page, "Start cut at P1", "double mitre with");
  await choose(page, "End cut at P4", "pointed");
  await setField(page, "Degrees on one side, at P4", "30");
  await saved(page);
  // Between two arms in one line it is mitred at 45° on either side, its tip in the joint.
  await expect(page.getByText("500 mm longest")).toBeVisible();
  await setField(page, "Degrees on the other side, at P4", "89");
  await expect(page.getByText(/cannot be cut at 89° from square; the most is 85°/).first()).toBeVisible();
  await setField(page, "Degrees on the other side, at P4", "20");
  await saved(page);
  await expectAccessible(page);
  await openStage(page, "Tally");
  await expect(page.getByText("45 + 45", { exact: true })).toBeVisible();
  await expect(page.getByText("30 + 20", { exact: true })).toBeVisible();
});

test("members drawn with the pointer alone catch on points and follow a way", async ({ page }) => {
  await newJob(page, "HL-411");
  await page.getByRole("button", { name: "Draw members" }).click();
  const picture = page.locator("[data-frames]");
  const box = await picture.boundingBox();
  if (!box) throw new Error("the picture has a box");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.click(x, y);
  await expect(page.getByRole("textbox", { name: "From", exact: true })).toHaveValue("0; 0; 0");
  await page.mouse.move(x, y - 150);
  await expect(page.getByText(/\d+ up/)).toBeVisible();
  await page.mouse.click(x, y - 150);
  await expect(page.getByRole("textbox", { name: "From", exact: true })).toHaveValue("P2");
  await page.keyboard.press("Escape");
  await saved(page);
  expect(await tallyRows(page)).toHaveLength(1);
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Nothing is drawn or typed in yet")).toBeVisible();
});

test("jigs: a box frame and a carcass, key sizes, a mirrored copy, a split, a removal", async ({ page }) => {
  await newJob(page, "HL-412");
  await page.getByRole("button", { name: "Jigs" }).click();
  const dialog = page.getByRole("dialog", { name: "Jigs" });
  await expectAccessible(page);
  await dialog.getByLabel("Overall width").fill("0");
  await expect(dialog.getByText('Overall width "0" must be above zero.')).toBeVisible();
  await dialog.getByLabel("Overall width").fill("1000");
  await dialog.getByRole("button", { name: "Insert" }).click();
  await page.getByRole("button", { name: "Jigs" }).click();
  await dialog.getByRole("button", { name: "Carcass" }).click();
  await dialog.getByLabel(/^Position/).fill("1200; 0; 0");
  await dialog.getByRole("button", { name: "Insert" }).click();
  await saved(page);
  await expect(page.getByRole("textbox", { name: "width_2", exact: true })).toHaveValue("600");

  await setField(page, "width", "1200");
  await saved(page);
  expect(await tallyRows(page)).toEqual(
    expect.arrayContaining(["Top rail 2 1200", "Low rail 2 1120", "Leg 4 810", "Side 2 800 × 320 × 21"]),
  );

  await openStage(page, "Shape");
  await page
    .getByRole("button", { name: /Low rail/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Split" }).click();
  await page.getByLabel(/Fraction/).fill("0.5");
  await page.getByRole("dialog", { name: "Split" }).getByRole("button", { name: "Split" }).click();
  await saved(page);
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Low rail 2 560", "Low rail 1 1120"]));
  await page.keyboard.press("Control+z");

  await openStage(page, "Shape");
  await page
    .getByRole("button", { name: /^Mark \w+ Side/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Mirror" }).click();
  await page.getByLabel("Mirror plane at").fill("0 - 100");
  await page.getByRole("button", { name: "Create mirrored copy" }).click();
  await saved(page);
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Side 3 800 × 320 × 21"]));
  await openStage(page, "Shape");
  await page.keyboard.press("Delete");
  await saved(page);
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Side 2 800 × 320 × 21"]));
});

test("pieces are hidden, shown alone and shown again, in the picture only", async ({ page }) => {
  await page.goto("/jobs/hl-204?stage=shape");
  const picture = page.getByRole("img", { name: /^3D view of the job/ });
  await expect(picture).toHaveAccessibleName(/34 pieces/);
  await page.getByRole("button", { name: /Worktop/ }).click();
  await page.getByRole("button", { name: "Hide", exact: true }).click();
  await expect(picture).toHaveAccessibleName(/33 pieces/);
  await page.getByRole("button", { name: "Show only these" }).click();
  await expect(picture).toHaveAccessibleName(/, 1 piece,/);
  await openStage(page, "Tally");
  await expect(page.getByText("92 in the design")).toBeVisible();
  await page.getByRole("button", { name: /^Show all/ }).click();
  await expect(picture).toHaveAccessibleName(/34 pieces/);
});

test("points are moved by typing, and a loose end is told", async ({ page }) => {
  await newJob(page, "HL-413");
  await page.getByRole("button", { name: "Draw members" }).click();
  await setField(page, "From", "0; 0; 0");
  await go(page, "right", "500");
  await page.getByRole("button", { name: "Done" }).click();
  await setField(page, "width of P2", "640");
  await saved(page);
  expect(await tallyRows(page)).toEqual(["Rail 1 640"]);
  await openStage(page, "Shape");
  await setField(page, "width of P2", "0");
  await expect(page.getByText(/Rail cannot be computed: its line has no length/)).toBeVisible();
});

test("a yes/no key size decides what is there; a key size is renamed in all formulas", async ({ page }) => {
  await newJob(page, "HL-414");
  await page.getByRole("button", { name: "Jigs" }).click();
  await page.getByRole("dialog", { name: "Jigs" }).getByRole("button", { name: "Insert" }).click();
  await saved(page);

  await page.getByRole("button", { name: "Add key size" }).click();
  await setField(page, "Name", "with_ring");
  await choose(page, "Kind", "yes or no");
  await setField(page, "yes, no or formula", "yes");
  await page
    .getByRole("button", { name: /Low rail/ })
    .first()
    .click();
  await page.getByRole("button", { name: "More", exact: true }).click();
  await setField(page, "Include only if", "with_ring");
  await saved(page);
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Low rail 2 920"]));

  await openStage(page, "Shape");
  await page.getByRole("combobox", { name: "with_ring" }).click();
  await page.getByRole("option", { name: "no", exact: true }).click();
  await saved(page);
  await expect(page.getByText("not there now")).toBeVisible();
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Low rail 1 920"]));

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "width", exact: true }).click();
  await expect(page.getByText(/^Used by point/)).toBeVisible();
  await setField(page, "Name, changed in all formulas", "over_all");
  await saved(page);
  await setField(page, "over_all", "1100");
  await saved(page);
  expect(await tallyRows(page)).toEqual(expect.arrayContaining(["Top rail 2 1100"]));
});

test("panels get grooves, bought parts are added, variants stand side by side", async ({ page }) => {
  await newJob(page, "HL-415");
  await page.getByRole("button", { name: "Jigs" }).click();
  const dialog = page.getByRole("dialog", { name: "Jigs" });
  await dialog.getByRole("button", { name: "Single panel" }).click();
  await dialog.getByRole("button", { name: "Insert" }).click();
  await saved(page);
  await page.getByRole("button", { name: /^Mark \w+ Panel/ }).click();
  await page.getByRole("button", { name: "Add a groove" }).click();
  await setField(page, "From the edge", "20");
  await saved(page);
  await openStage(page, "Tally");
  await expect(page.getByText(/groove 6 × 5 deep, 20 from front/).first()).toBeVisible();

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Add bought part" }).click();
  await setField(page, "Count, or a formula", "length / 100");
  await saved(page);
  await openStage(page, "Buy");
  await expect(page.getByRole("cell", { name: "6", exact: true }).first()).toBeVisible();

  await openStage(page, "Shape");
  await page.getByRole("button", { name: "Add variant" }).click();
  await setField(page, "Name of the variant", "900 long");
  await saved(page);
  await setField(page, "length", "900");
  await saved(page);
  const row = page.getByRole("row", { name: /^length/ });
  await expect(row).toContainText("600");
  await expect(row).toContainText("900");
  expect(await tallyRows(page)).toEqual([expect.stringContaining("Panel 1 900 × 300")]);
  await page.getByRole("combobox", { name: "Variant" }).click();
  await page.getByRole("option", { name: "Base design" }).click();
  expect(await tallyRows(page)).toEqual([expect.stringContaining("Panel 1 600 × 300")]);
  await openStage(page, "Shape");
  await expectAccessible(page);
});

test("a shape from a file stands for a bought part, is stored once by its content and is there after a reload", async ({
  page,
}) => {
  await newJob(page, "HL-419");
  await page.getByRole("button", { name: "Add bought part" }).click();
  const facets = [
    "0 0 0|90 0 0|0 60 0",
    "0 0 0|0 60 0|0 0 40",
    "0 0 0|0 0 40|90 0 0",
    "90 0 0|0 0 40|0 60 0",
  ];
  const stl = facets
    .map(
      (facet) =>
        `facet normal 0 0 0\nouter loop\n${facet
          .split("|")
          .map((at) => `vertex ${at}`)
          .join("\n")}\nendloop\nendfacet`,
    )
    .join("\n");
  const file = (text: string) => ({ name: "wedge.stl", mimeType: "model/stl", buffer: Buffer.from(text) });
  const chosen = page.getByLabel("Shape from a file");
  await chosen.setInputFiles(file("no shape"));
  await expect(page.getByText(/must be an STL file with triangles/)).toBeVisible();
  const stored = page.waitForRequest(
    (request) => request.url().includes("/api/assets/") && request.method() === "PUT",
  );
  const sent = page.waitForRequest(
    (request) => request.url().endsWith("/edits") && (request.postData() ?? "").includes("wedge.stl"),
  );
  await chosen.setInputFiles(file(`solid wedge\n${stl}\nendsolid wedge`));
  const address = (await stored).url();
  // The edit names the shape and does not carry it.
  expect((await sent).postData()).not.toContain("triangles");
  const picture = page.getByRole("img", { name: /^3D view of the job, 1 piece/ });
  await expect(picture).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(picture).toBeVisible();

  const asset = await page.request.get(address);
  expect(asset.headers()["cache-control"]).toContain("immutable");
  const wrong = await page.request.put(address.replace(/[0-9a-f]{4}$/, "0000"), {
    data: await asset.json(),
    headers: OURS,
  });
  expect([wrong.status(), (await wrong.json()).message]).toEqual([
    422,
    "It is not what its name says. Choose its file again.",
  ]);
  expect((await page.request.get("/api/assets/none")).status()).toBe(404);
});
