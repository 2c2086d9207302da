/** Jobs, cutting lists, the stockroom, two tabs, and what happens with bad input. */
import { execFileSync } from "node:child_process";
import { startDemo } from "./application";
import { E2E_PORT } from "./browser";
import {
  copyOf,
  expect,
  expectAccessible,
  OURS,
  openStage,
  row,
  saved,
  setField,
  takeOut,
  test,
} from "./fixtures";

test("jobs: a new empty one, a copy, deleted and brought back", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("link", { name: /HL-204/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "New empty job" }).click();
  // What is missing is told beside its field, and the first of them has the focus.
  await page.getByRole("button", { name: "Create job" }).click();
  await expect(page.getByText("Code is missing.")).toBeVisible();
  await expect(page.getByText("Title is missing.")).toBeVisible();
  await expect(page.getByLabel("Code")).toBeFocused();
  await page.getByLabel("Code").fill("HL-300");
  await page.getByLabel("Title").fill("Tool rack");
  await page.getByRole("button", { name: "Create job" }).click();
  await expect(page.getByRole("heading", { name: "HL-300 Tool rack" })).toBeVisible();
  for (const stage of ["Tally", "Layout", "Buy", "Drawings", "Floor", "Shape"]) await openStage(page, stage);

  await page.goto("/");
  const card = page.getByRole("listitem").filter({ hasText: "HL-300" });
  await card.getByRole("button", { name: /Copy/ }).click();
  await expect(page.getByText("HL-300 copy")).toBeVisible();
  await page
    .getByRole("listitem")
    .filter({ hasText: "HL-300 copy" })
    .getByRole("button", { name: /Delete/ })
    .click();
  await expect(page.getByRole("link", { name: "Open HL-300 copy Tool rack" })).toBeHidden();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("link", { name: "Open HL-300 copy Tool rack" })).toBeVisible();
});

const LIST = [
  "Mark\tName\tQty\tLength\tWidth\tSection or board\tEnd 1\tEnd 2\tStand\tEdging",
  "R1\tRail\t4\t1200\t\tSquare tube 40 × 40 × 3\t45\t45\topposed\t",
  "R2\tStay\t2\t23 1/4 in\t\tSquare tube 40 × 40 × 3\t45\t45\tparallel\t",
  "P1\tShelf\t3\t800\t300\tBirch ply 12\t\t\t\tfront",
  "X1\tOdd\t1.5\t500\t\tSquare tube 40 × 40 × 3\t\t\t\t",
  "X2\tLong\t1\t1,400\t\tSquare tube 40 × 40 × 3\t\t\t\t",
].join("\n");

test("a pasted cutting list: bad rows are told, good ones go through tally, layout, buying list and print", async ({
  page,
}) => {
  await page.goto("/jobs/from-list");
  await page.getByLabel("Code").fill("HL-301");
  await page.getByLabel("Title").fill("Allotment gate");
  await page.getByLabel(/Rows copied from/).fill(LIST);
  await expect(page.getByText('The quantity "1.5" must be a whole number.')).toBeVisible();
  await expect(page.getByText(/"1,400" can mean/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: /Create job/ }).click();

  await expect(row(page, "R1")).toContainText("1200");
  await expect(row(page, "R2")).toContainText("590.6");
  await expect(row(page, "R2")).toContainText("parallel");
  await expect(row(page, "P1")).toContainText("800 × 300 × 12");
  await expect(page.getByText("all pieces counted")).toBeVisible();

  await openStage(page, "Layout");
  await page.getByRole("button", { name: "Lay out all" }).click();
  await expect(page.getByText("proven best", { exact: true }).first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("button", { name: "Lay out all" })).toBeEnabled({ timeout: 60_000 });
  await openStage(page, "Buy");
  await expect(page.getByRole("cell", { name: "R1 R2" })).toBeVisible();
  const pdf = await takeOut(page, /Shop papers, letter/);
  const text = execFileSync("pdftotext", ["-layout", await pdf.path(), "-"], { encoding: "utf8" });
  for (const words of ["HL-301", "R1", "R2", "P1", "typed in"]) expect(text).toContain(words);
});

test("two tabs on one job: the second edit is replayed or refused, never lost", async ({ page, context }) => {
  const id = await copyOf(page, "hl-204");
  const other = await context.newPage();
  await page.goto(`/jobs/${id}?stage=shape`);
  await other.goto(`/jobs/${id}?stage=shape`);
  // The second tab hears nothing of the first: its messages and its looks at the server are held back.
  await other.route(`**/api/jobs/${id}?variant=*`, (route) => route.abort());
  await setField(page, "width", "1500");
  await saved(page);

  await setField(other, "depth", "650");
  await expect(other.getByText("Your change was added after theirs")).toBeVisible();
  await expect(other.getByRole("textbox", { name: "width", exact: true })).toHaveValue("1500");

  await setField(page, "shelf_height", "200");
  await saved(page);
  await setField(other, "shelf_height", "220");
  await expect(other.getByText(/Key size shelf_height was changed somewhere else/)).toBeVisible();
  await expect(other.getByRole("textbox", { name: "shelf_height", exact: true })).toHaveValue("200");
  await other.getByRole("button", { name: "Try again" }).click();
  await expect(other.getByRole("textbox", { name: "shelf_height", exact: true })).toHaveValue("220");
  await saved(other);
});

test("undo and redo survive a reload", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  const width = page.getByRole("textbox", { name: "width", exact: true });
  await setField(page, "width", "1500");
  await setField(page, "width", "1600");
  await saved(page);
  await page.reload();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(width).toHaveValue("1500");
  await page.reload();
  await expect(width).toHaveValue("1500");
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(width).toHaveValue("1600");
});

test("an edit that cannot be sent is kept and sent later", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  let down = true;
  await page.route(`**/api/jobs/${id}/edits`, (route) => (down ? route.abort() : route.continue()));
  await setField(page, "width", "1500");
  await expect(page.getByText("Not saved, trying again")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "width", exact: true })).toHaveValue("1500");
  down = false;
  await saved(page);
  await page.reload();
  await expect(page.getByRole("textbox", { name: "width", exact: true })).toHaveValue("1500");
});

test("the stockroom: a price taken away makes totals incomplete, put back it counts", async ({ page }) => {
  await page.goto("/stockroom");
  await page.getByRole("tab", { name: "Bought parts" }).click();
  const price = page.getByRole("textbox", { name: "Price of Castor 80 mm with brake" });
  await expect(price).toHaveValue("7.9");
  await expectAccessible(page);
  await price.fill("");
  await price.press("Enter");
  await page.waitForLoadState("networkidle");
  await page.goto("/jobs/hl-204?stage=buy");
  await expect(page.getByText(/incomplete: .* without 1 line that has no price/).first()).toBeVisible();
  await expect(page.getByRole("cell", { name: "price missing" })).toBeVisible();
  await page.goto("/stockroom");
  await page.getByRole("tab", { name: "Bought parts" }).click();
  await expect(price).toHaveValue("");
  await price.fill("-3");
  await price.press("Enter");
  await expect(page.getByText('"-3" is not a number of zero or more.')).toBeVisible();
  await price.fill("7,9");
  await price.press("Enter");
  await page.waitForLoadState("networkidle");
  await page.goto("/jobs/hl-204?stage=buy");
  await expect(page.getByText("183.54 EUR")).toBeVisible();
});

test("a cutting list comes from a file, which the server reads; one that cannot be read loses nothing", async ({
  page,
}) => {
  await page.goto("/jobs/from-list");
  await page.getByLabel("Code").fill("HL-304");
  await page.getByLabel("Title").fill("From a file");
  const typed = page.getByLabel(/Rows copied from a spreadsheet/);
  await typed.fill("Name,Qty,Length,Section\nMast,1,900,Square tube 40 × 40 × 3");
  const choose = (name: string, buffer: Buffer) =>
    page.getByLabel(/Read a CSV or XLSX file/).setInputFiles({ name, mimeType: "text/csv", buffer });
  await choose("broken.csv", Buffer.from('Name,Qty\n"Rail,1'));
  await expect(page.getByRole("alert").filter({ hasText: "a quotation mark is not closed" })).toBeVisible();
  await expect(typed).toHaveValue(/Mast/);
  // 0xD7 is the sign × where a spreadsheet saves without Unicode.
  const rows = Array.from({ length: 150 }, (_, i) => `Odd ${i},x,100,Square tube 40 × 40 × 3`);
  const list = ["Name,Qty,Length,Section", "Rail,2,1200,Square tube 40 × 40 × 3", ...rows].join("\n");
  await choose("list.csv", Buffer.from(list, "latin1"));
  await expect(page.getByText("Read from list.csv")).toBeVisible();
  await expect(page.getByText("1 row read, 150 not")).toBeVisible();
  await expect(page.getByText("and 50 more")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Remove the file" }).click();
  await expect(typed).toHaveValue(/Mast/);
  await choose("list.csv", Buffer.from(list, "latin1"));
  await page.getByRole("button", { name: "Create job with 1 row" }).click();
  await expect(page.getByRole("row").filter({ hasText: "Rail" })).toContainText("1200");
});

test("pieces longer than every bar are listed as unplaced with why, the rest is laid out", async ({
  page,
}) => {
  await page.goto("/jobs/from-list");
  await page.getByLabel("Code").fill("HL-302");
  await page.getByLabel("Title").fill("Too long");
  await page
    .getByLabel(/Rows copied from/)
    .fill("Name,Qty,Length,Section\nMast,1,9 m,Square tube 40 × 40 × 3\nRail,2,1200,Square tube 40 × 40 × 3");
  await page.getByRole("button", { name: /Create job/ }).click();
  await openStage(page, "Layout");
  await page.getByRole("button", { name: "Lay out all" }).click();
  await expect(
    page.getByText(/1 × longer than every bar: 9000 mm.*Splice it from two, or buy a bar/),
  ).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByText("not all placed")).toBeVisible();
  await openStage(page, "Buy");
  await expect(page.getByRole("cell", { name: "not all placed" })).toBeVisible();
});

test("a layout can be stopped; the best so far is kept", async ({ page }) => {
  // Searched for longer than in the other tests, where a fast machine is done before anybody can stop it.
  const application = await startDemo(E2E_PORT + 22, { RUSTIC_TALLY_LAYOUT_TIME: "5" });
  try {
    await page.goto(`${application.url}/jobs/from-list`);
    const rows = Array.from(
      { length: 60 },
      (_, i) => `Part ${i},${3 + (i % 5)},${400 + ((i * 137) % 900)},${150 + ((i * 71) % 500)},Birch ply 12`,
    );
    await page.getByLabel("Code").fill("HL-303");
    await page.getByLabel("Title").fill("Many panels");
    await page.getByLabel(/Rows copied from/).fill(["Name,Qty,Length,Width,Board", ...rows].join("\n"));
    await page.getByRole("button", { name: /Create job/ }).click();
    await openStage(page, "Layout");
    await page.getByRole("button", { name: "Lay out all" }).click();
    await expect(page.getByText(/best so far \d+ sheets/)).toBeVisible();
    await page.getByRole("button", { name: "Stop and use this layout" }).click();
    await expect(page.getByText("Sheet 1", { exact: true })).toBeVisible();
    await expect(page.getByRole("button", { name: "Lay out all" })).toBeEnabled();
  } finally {
    await application.stop();
  }
});

test("a long design has only the rows in view in the page; a job that cannot be fetched is asked for again", async ({
  page,
}) => {
  const rows = Array.from({ length: 400 }, (_, i) => `Part ${i},1,${300 + i},Square tube 40 × 40 × 3`);
  const text = ["Name,Qty,Length,Section", ...rows].join("\n");
  const made = await page.request.post("/api/jobs/from-list", {
    headers: OURS,
    data: { code: "HL-305", title: "Long", unit: "mm", text },
  });
  const { id } = (await made.json()) as { id: string };
  let refused = false;
  await page.route("**/api/jobs/*/desk", (route) => {
    if (refused) return route.continue();
    refused = true;
    return route.abort();
  });
  await page.goto(`/jobs/${id}?stage=shape`);
  await expect(page.getByRole("heading", { name: "HL-305 Long" })).toBeVisible();
  await expect(page.getByRole("alert").filter({ hasText: "cannot be reached" })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Try again" }).click();
  const list = page.getByRole("region", { name: "Typed-in pieces" });
  await expect(list.getByRole("button", { name: "Part 0 " })).toBeVisible();
  expect(await list.getByRole("button").count()).toBeLessThan(100);
  await list.getByRole("button", { name: "Part 0 " }).focus();
  await page.mouse.move(200, 400);
  for (let i = 0; i < 60 && (await list.getByRole("button", { name: "Part 399 " }).count()) === 0; i++)
    await page.mouse.wheel(0, 600);
  await list.getByRole("button", { name: "Part 399 " }).click();
  await expect(list.getByRole("button", { name: "Part 399 " })).toHaveAttribute("aria-pressed", "true");
  expect(await list.getByRole("button").count()).toBeLessThan(100);
});

test("a job of thousands of pieces is computed away from the page: edits, marks and Undo are as in a small one", async ({
  page,
}) => {
  // So many that their text is read away from the page as well.
  const rows = Array.from(
    { length: 6_570 },
    (_, i) => `Part ${i % 9},1,${300 + (i % 9)},Square tube 40 × 40 × 3`,
  );
  const text = ["Name,Qty,Length,Section", ...rows].join("\n");
  const made = await page.request.post("/api/jobs/from-list", {
    headers: OURS,
    data: { code: "HL-306", title: "Many", unit: "mm", text },
  });
  const { id } = (await made.json()) as { id: string };
  expect((await (await page.request.get(`/api/jobs/${id}/desk`)).body()).length).toBeGreaterThan(2_000_000);
  const seen: string[] = [];
  page.on("worker", (worker) => seen.push(worker.url()));
  await page.goto(`/jobs/${id}?stage=tally`);
  await expect(row(page, "A")).toContainText("730");
  expect(seen).toHaveLength(1);
  const computed = () => expect(page.locator("[data-saving]")).toHaveAttribute("data-computing", "false");
  // A piece that no other is like takes a mark of its own, which is undone with it.
  await page.getByRole("button", { name: "Type in pieces" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Odd one");
  await page.getByLabel("Length, mm").fill("777");
  await page.getByRole("button", { name: "Add the piece" }).click();
  await page.getByRole("button", { name: "Close" }).first().click();
  await computed();
  await saved(page);
  await expect(row(page, "J")).toContainText("777");
  await page.reload();
  await expect(row(page, "J")).toContainText("777");
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(row(page, "J")).toBeHidden();
  await computed();
  await expect(row(page, "A")).toContainText("730");
  await page.getByRole("button", { name: "Redo", exact: true }).click();
  await expect(row(page, "J")).toContainText("777");
});

test("bad requests get a sentence and a 4xx, never a stack", async ({ page, request }) => {
  const edits = "/api/jobs/hl-204/edits";
  const bad = [
    await request.post(edits, { data: "{", headers: OURS }),
    await request.post(edits, { headers: OURS, data: { expectedRevision: 1, edit: { kind: "dance" } } }),
    await request.post(edits, {
      headers: OURS,
      data: {
        expectedRevision: 1,
        edit: { kind: "setKeySize", id: "size-width", formula: "9".repeat(600), variant: null },
      },
    }),
    await request.post("/api/jobs/nowhere/edits", {
      headers: OURS,
      data: { expectedRevision: 1, edit: { kind: "setMeant", id: "x", meant: true } },
    }),
    await request.post("/api/jobs", { headers: OURS, data: { code: "", title: "x", unit: "mm" } }),
    await request.post("/api/jobs/from-list", {
      headers: OURS,
      data: { code: "a", title: "b", unit: "mm", text: "Length,Length\n1,2" },
    }),
    await request.get("/api/jobs/nowhere"),
    await request.get("/api/jobs/hl-204/print?page=a9"),
    await request.get("/api/jobs/hl-204/lists/none.csv"),
    await request.put("/api/jobs/hl-204/layouts", { headers: OURS, data: { variant: "", saved: {} } }),
    await request.put("/api/stockroom/entries", {
      headers: OURS,
      data: { change: { kind: "edging", entry: {} }, expected: null },
    }),
  ];
  for (const answer of bad) {
    expect(answer.status()).toBeGreaterThanOrEqual(400);
    expect(answer.status()).toBeLessThan(500);
    const { message } = (await answer.json()) as { message: string };
    expect(message).toMatch(/\.$/);
    expect(message).not.toMatch(/\bat \S+:\d+/);
  }
  const unknown = await page.goto("/jobs/nowhere");
  expect(unknown?.status()).toBe(404);
  await page.getByRole("link", { name: "Back to all jobs" }).click();
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
});

test("the stockroom: fields changed one right after the other are all kept", async ({ page }) => {
  let kept = 0;
  page.on("response", (response) => {
    if (response.request().method() === "PUT" && response.ok()) kept++;
  });
  await page.goto("/stockroom");
  const field = (name: string) => page.getByRole("textbox", { name: `${name} of Flat 40 × 5` });
  await field("Kerf").fill("3");
  await field("Kerf").press("Tab");
  await page.keyboard.type("7");
  await page.keyboard.press("Tab");
  await page.keyboard.type("8");
  await page.keyboard.press("Tab");
  await expect.poll(() => kept).toBe(3);
  await page.reload();
  await expect(field("Kerf")).toHaveValue("3");
  await expect(field("Trim, start")).toHaveValue("7");
  await expect(field("Trim, end")).toHaveValue("8");
  for (const [name, value] of [
    ["Kerf", "2.5"],
    ["Trim, start", "5"],
    ["Trim, end", "5"],
  ] as const) {
    await field(name).fill(value);
    await field(name).press("Enter");
  }
  await expect.poll(() => kept).toBe(6);
});

test("settings of the shop: its unit is that of new jobs, its currency stands beside every price", async ({
  page,
}) => {
  await page.goto("/settings");
  await expectAccessible(page);
  const currency = page.getByRole("textbox", { name: "Currency of all prices" });
  await expect(currency).toHaveValue("EUR");
  const answered = () => page.waitForResponse((response) => response.request().method() === "PUT");
  await currency.fill("CHF");
  await Promise.all([answered(), currency.press("Enter")]);
  await page.goto("/jobs/hl-211?stage=buy");
  await expect(page.getByText("prices in CHF")).toBeVisible();
  // Feet by choice of the job, where it is in inches or feet.
  await page.getByLabel("Feet are written").click();
  await page.getByRole("option", { name: "12' 7\"" }).click();
  await expect(page.getByRole("cell", { name: /^\d+' \d+"$/ }).first()).toBeVisible();
  await page.goto("/settings");
  await currency.fill("EUR");
  await Promise.all([answered(), currency.press("Enter")]);
});
