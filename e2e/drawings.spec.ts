/** Drawing pages: views in line, a list and balloons that follow the design, and what leaves as files. */
import { execFileSync } from "node:child_process";
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
import { smallPng } from "./small-png";

const sheet = (page: Page) => page.getByRole("region", { name: "Page", exact: true });
const item = (page: Page, name: string | RegExp) =>
  sheet(page).getByRole("button", { name, ...(typeof name === "string" ? { exact: true } : {}) });
const lacks = (page: Page) => page.getByRole("region", { name: "What the set lacks" });

/** Walks down the menu by keys; each word but the last opens a menu of its own. */
async function add(page: Page, ...words: readonly string[]): Promise<void> {
  await page.getByRole("button", { name: "Add", exact: true }).click();
  for (const [i, word] of words.entries()) {
    const entry = page.getByRole("menuitem", { name: word, exact: true });
    await entry.focus();
    await page.keyboard.press(i + 1 < words.length ? "ArrowRight" : "Enter");
  }
}

async function placeBalloons(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Balloons" }).click();
  await page.getByRole("menuitem", { name: /Place all for/ }).click();
}

/** Waits for the lines of all views: a view beside another stands in line with it only when both have theirs. */
const drawn = (page: Page) => expect(sheet(page).getByText("Drawing…")).toHaveCount(0);

/** Where an item stands, and how large it is, in millimetres of the page. */
async function room(page: Page, name: string | RegExp) {
  await drawn(page);
  const at = await item(page, name).evaluate((node) => {
    const move = (node as SVGGElement).transform.baseVal.consolidate()?.matrix;
    const box = node.querySelector("rect");
    return { x: move?.e ?? 0, y: move?.f ?? 0, width: Number(box?.getAttribute("width")) };
  });
  return { ...at, x: Math.round(at.x * 1000) / 1000, y: Math.round(at.y * 1000) / 1000 };
}

test("a page with views in line, a list and all balloons follows a key size and tells what is lost; it leaves as PDF, SVG and DXF", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=drawings`);
  await page.getByRole("button", { name: "Add page" }).click();
  await expect(page.getByRole("heading", { name: "Page 3" })).toBeVisible();

  await add(page, "Whole job", "Front");
  await expect(item(page, "View Front")).toHaveAttribute("aria-pressed", "true");
  await expect(sheet(page).getByText("Front", { exact: true })).toBeVisible();
  await add(page, "View beside Front", "To the right");
  const side = /^View of whole job/;
  await expect(item(page, side)).toBeVisible();
  const [front, follower] = [await room(page, "View Front"), await room(page, side)];
  // In line by the heights of the design, which both show whole.
  expect(follower.y).toBeCloseTo(front.y, 3);
  expect(follower.x).toBeGreaterThan(front.x);

  await add(page, "Whole job", "Isometric, front left");
  await add(page, "List", "Cut list");
  await expect(item(page, "Cut list")).toBeVisible();
  await item(page, "View Isometric, front left").focus();
  await placeBalloons(page);
  await expect(item(page, "Balloon A")).toBeVisible();

  // A balloon is the row: it is selected everywhere.
  await item(page, "Balloon A").locator("text").click();
  await expect(page.getByRole("region", { name: "Facts" })).toContainText("1400");
  await expect(sheet(page).locator("[data-selected-row]")).toHaveCount(1);
  await expectAccessible(page);

  // Strokes beside each row: the balloons of this page, and of the others.
  await lacks(page).getByText("Balloons of each row").click();
  await expect(
    lacks(page).getByRole("button", { name: "A Top rail: 1 on this page, 2 in the set" }),
  ).toBeVisible();

  // The end of its leader is slid over the piece with the keys, and on to another with the pointer: then it names that one.
  const tipOf = (mark: string) =>
    sheet(page).getByRole("button", { name: new RegExp(`^End of leader 1 on ${mark} `) });
  await item(page, "Balloon N").locator("text").click();
  const other = await tipOf("N").boundingBox();
  await item(page, "Balloon L").locator("text").click();
  const tip = tipOf("L");
  await tip.focus();
  const [was, on] = [await tip.getAttribute("cx"), await tip.getAttribute("cy")];
  await page.keyboard.press("ArrowRight");
  await expect(tip).not.toHaveAttribute("cx", was ?? "");
  await page.keyboard.press("Alt+ArrowDown");
  await expect(tip).not.toHaveAttribute("cy", on ?? "");
  const from = await tip.boundingBox();
  if (!from || !other) throw new Error("the leaders have ends");
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(other.x + other.width / 2, other.y + other.height / 2, { steps: 4 });
  await expect(sheet(page).getByText("N Tray floor", { exact: true })).toBeVisible();
  await page.mouse.up();
  await expect(item(page, "Balloon L")).toHaveCount(0);
  await expect(item(page, "Balloon N")).toHaveCount(2);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await item(page, "Balloon A").locator("text").click();

  // Moved by keys, and taken back.
  const before = await room(page, "Cut list");
  await item(page, "Cut list").focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Alt+ArrowUp");
  await expect.poll(async () => (await room(page, "Cut list")).y).toBeCloseTo(before.y - 0.1, 3);
  expect((await room(page, "Cut list")).x).toBeCloseTo(before.x - 1, 3);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect.poll(async () => (await room(page, "Cut list")).y).toBeCloseTo(before.y, 3);

  // The design changes: views and list follow.
  const wide = (await room(page, "View Front")).width;
  await openStage(page, "Shape");
  await setField(page, "width", "1800");
  await openStage(page, "Drawings");
  await page
    .getByRole("button", { name: /Page 3/ })
    .first()
    .click();
  await expect
    .poll(async () => (await room(page, "View Front")).width / wide)
    .toBeCloseTo((1800 + 20) / (1400 + 20), 1);
  await expect(sheet(page).getByText("1800", { exact: true }).first()).toBeVisible();

  // A piece goes: its balloon stays and says so.
  await openStage(page, "Shape");
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A mark, a name/).fill("Worktop");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  await openStage(page, "Drawings");
  await page
    .getByRole("button", { name: /Page 3/ })
    .first()
    .click();
  await expect(lacks(page)).toContainText("is gone, or in no list");
  await saved(page);

  const pdf = await takeOut(page, /^All pages \(PDF\)/);
  const text = execFileSync("pdftotext", ["-layout", await pdf.path(), "-"], { encoding: "utf8" });
  for (const words of [
    "General view",
    "Frame, three views",
    "Page 3",
    "3 of 3",
    "Hollow Lane Works",
    "Top rail",
  ])
    expect(text).toContain(words);
  expect(pdf.suggestedFilename()).toMatch(/^HL-204.*-drawings-r\d+\.pdf$/);
  expect(await textOf(await takeOut(page, /Page 3 \(SVG\)/))).toContain('width="594mm"');
  expect(await textOf(await takeOut(page, /Page 3 \(DXF\)/))).toContain("OUTLINES");
});

test("pages are added, copied, put in order by keys and removed; notes, frames and callouts stand on them", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-214");
  await page.goto(`/jobs/${id}?stage=drawings`);
  const pages = page.getByRole("region", { name: "Pages in order" });
  await expect(pages.getByRole("listitem")).toHaveCount(1);
  await page.getByRole("button", { name: "Copy page Bracket" }).click();
  await expect(pages.getByText("2. Bracket (copy)")).toBeVisible();
  const handle = pages.getByRole("button", { name: "Move page Bracket (copy)", exact: true });
  await handle.focus();
  await page.keyboard.press("Space");
  await expect(handle).toHaveAttribute("aria-pressed", "true");
  // The keys are listened to a moment after the page was taken up.
  await expect(async () => {
    await page.keyboard.press("ArrowUp");
    // It lies over its own place first.
    await expect(page.getByText(/was moved over droppable area page-1\b/)).toBeAttached({ timeout: 500 });
  }).toPass();
  await page.keyboard.press("Space");
  await expect(pages.getByText("1. Bracket (copy)")).toBeVisible();
  await page.getByRole("button", { name: "Remove page Bracket (copy)" }).click();
  await expect(pages.getByRole("listitem")).toHaveCount(1);

  await add(page, "Note");
  await page.getByRole("textbox", { name: "Text", exact: true }).fill("Deburr all edges.\nTwo coats of oil.");
  await page.getByRole("textbox", { name: "Text", exact: true }).blur();
  await expect(sheet(page).getByText("Two coats of oil.")).toBeVisible();
  await add(page, "Frame");
  await expect(item(page, "Frame")).toBeVisible();

  // A callout to the piece that is clicked; a name that is no column is told on the page.
  await add(page, "Callout");
  const view = item(page, "View Front");
  await drawn(page);
  const box = await view.boundingBox();
  if (!box) throw new Error("the view is there");
  await page.mouse.click(box.x + box.width * 0.75, box.y + box.height * 0.12);
  await expect(sheet(page).getByText(/^[A-Z]: /)).toBeVisible();
  const pattern = page.getByRole("textbox", { name: /columns in braces/ });
  await pattern.fill("{mark} × {colour}");
  await pattern.blur();
  await expect(sheet(page).getByText(/no column/)).toBeVisible();
  await item(page, /^Callout/).focus();
  await page.keyboard.press("Delete");
  await expect(item(page, /^Callout/)).toHaveCount(0);

  // A detail about a place of a view, larger; the view is cut, and says why where it cannot be.
  await add(page, "Detail of a view");
  const corner = await view.locator("rect").first().boundingBox();
  if (!corner) throw new Error("the view is there");
  await page.mouse.click(corner.x + 1, corner.y + 1);
  await expect(item(page, "Detail X")).toBeVisible();
  await expect(sheet(page).getByText(/^X, 1:2$/)).toBeVisible();
  await view.focus();
  await page.getByRole("combobox", { name: "Cut", exact: true }).click();
  await page.getByRole("option", { name: "Across the depth" }).click();
  await setField(page, "At", "reach * nothing");
  await expect(page.getByText(/nothing/).first()).toBeVisible();
  await page.getByRole("textbox", { name: "At", exact: true }).press("Escape");
  await setField(page, "At", "0");
  await expect(item(page, "View Front")).toBeVisible();

  // Tinted by material, and lines alone again.
  await page.getByRole("combobox", { name: "Lines", exact: true }).click();
  await page.getByRole("option", { name: "Visible lines, tinted by material" }).click();
  const tinted = view.locator('path[fill="var(--color-steel)"]');
  await expect(tinted.first()).toBeAttached();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(tinted).toHaveCount(0);

  // A picture goes on the page and into the PDF; what is none is refused.
  const chooser = page.locator('input[type="file"][accept="image/png,image/jpeg"]');
  await chooser.setInputFiles({ name: "note.png", mimeType: "image/png", buffer: Buffer.from("no picture") });
  await expect(page.getByText(/is no PNG or JPEG picture/)).toBeVisible();
  await chooser.setInputFiles({ name: "dot.png", mimeType: "image/png", buffer: smallPng(8, 4) });
  await expect(item(page, "Picture").locator("image")).toBeVisible();
  await saved(page);
  const pdf = await takeOut(page, /^Bracket \(PDF\)/);
  const images = execFileSync("pdfimages", ["-list", await pdf.path()], { encoding: "utf8" });
  expect(images).toMatch(/image\s+8\s+4\s/);

  // A scale that is none is told where it is typed.
  await item(page, "Picture").focus();
  await page.keyboard.press("Escape");
  await setField(page, "Typed", "1:0");
  await expect(page.getByText(/is no scale; write 1:10/)).toBeVisible();
  await page.getByRole("textbox", { name: "Typed" }).press("Escape");

  // Turned, the page is arranged again in one step: the list stands in its corner, and nothing off the sheet.
  const before = await room(page, "Cut list");
  await choose(page, "Orientation", "Portrait");
  await expect(page.getByText("A3, portrait").first()).toBeVisible();
  await expect.poll(async () => (await room(page, "Cut list")).x).toBeCloseTo(before.x - (420 - 297), 1);
  await expect(page.getByText(/runs off the page/)).toHaveCount(0);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByText("A3, landscape").first()).toBeVisible();
  await expect.poll(async () => (await room(page, "Cut list")).x).toBeCloseTo(before.x, 3);
  await saved(page);
});

test("sizes are picked from place to place, and can be chosen by names", async ({ page }) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=drawings`);
  await page.getByRole("button", { name: /^2\. Frame, three views/ }).click();
  const view = item(page, "View Front");
  await expect(view.locator("path").first()).toBeVisible();
  // The sizes of the other views come with their lines.
  await drawn(page);
  // The outer edges of the two posts, at their tops: the corners of the view.
  const corners = async () => {
    const box = await view.locator("rect").first().boundingBox();
    if (!box) throw new Error("the view is there");
    return [
      { x: box.x + 1, y: box.y + 1 },
      { x: box.x + box.width - 1, y: box.y + 1 },
    ] as const;
  };
  await page.getByRole("button", { name: "Sizes" }).click();
  await page.getByRole("menuitem", { name: "Horizontal", exact: true }).click();
  await expect(page.getByText("Click the place that the size begins at.")).toBeVisible();
  const sizes = sheet(page).getByRole("button", { name: "Size", exact: true });
  const before = await sizes.allTextContents();
  const [left, right] = await corners();
  // The worktop is a little wider than the posts.
  await page.mouse.move(left.x + 1, left.y);
  await page.mouse.click(left.x + 1, left.y);
  await expect(page.getByText("Click the place that the size runs to.")).toBeVisible();
  await page.mouse.click(right.x - 1, right.y);
  await page.getByRole("button", { name: "Done" }).click();
  await expect(sizes).toHaveCount(before.length + 1);
  const now = await sizes.allTextContents();
  const times = (all: readonly string[], one: string) => all.filter((text) => text === one).length;
  const place = now.findIndex((one) => times(now, one) > times(before, one));
  const made = sizes.nth(place);
  const value = now[place] ?? "";
  expect(Number(value)).toBeGreaterThan(1300);
  expect(Number(value)).toBeLessThan(1421);
  await saved(page);

  // By names: from the one post to another piece.
  await made.focus();
  await page.getByRole("combobox", { name: "To, piece" }).click();
  await page.getByPlaceholder("Find").fill("Worktop");
  await page.getByRole("option", { name: "Worktop" }).click();
  await expect(made.locator("text")).not.toHaveText(value);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(made.locator("text")).toHaveText(value);
  await expectAccessible(page);
});

test("which pieces the pages place is told: a missing size is added, one too many goes into brackets, a page gets all that it needs", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=drawings`);
  await page.getByRole("button", { name: /^2\. Frame, three views/ }).click();
  const sizes = sheet(page).getByRole("button", { name: "Size", exact: true });
  await expect(lacks(page)).toContainText("35 of 35 pieces");
  await expect(lacks(page)).toContainText(
    "Every piece is placed. Solved a second way, with the same answer.",
  );
  await drawn(page);

  // One size less: what it held is loose, and comes back with the size that is offered.
  await sizes.filter({ hasText: /^1420$/ }).focus();
  await page.keyboard.press("Delete");
  await expect(lacks(page)).toContainText("Hanging rail: up and down not given");
  await expectAccessible(page);
  await lacks(page).getByRole("button", { name: "Add size" }).click();
  await expect(lacks(page)).toContainText("Every piece is placed.");
  await expect(sizes.filter({ hasText: /^1420$/ })).toHaveCount(1);

  // One size too many follows from others, and is put into brackets.
  await item(page, "View Front").focus();
  await page.getByRole("button", { name: "Sizes" }).click();
  await page.getByRole("menuitem", { name: "Over all" }).click();
  await expect(lacks(page)).toContainText("says what");
  for (const left of [1, 0]) {
    const buttons = lacks(page).getByRole("button", { name: "In brackets" });
    if ((await buttons.count()) > left) await buttons.first().click();
    await expect(buttons).toHaveCount(left);
  }
  await expect(lacks(page).getByRole("button", { name: "In brackets" })).toHaveCount(0);

  // A piece tells how its place is known.
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A mark, a name/).fill("Drawer bottom");
  await page.keyboard.press("Enter");
  await expect(lacks(page)).toContainText("How Drawer bottom is placed");

  // Without that page most is lost; another one gets all that its views can show.
  await page.getByRole("button", { name: "Remove page Frame, three views" }).click();
  await expect(lacks(page)).toContainText("not given");
  await page.getByRole("button", { name: "Add page" }).click();
  await add(page, "Whole job", "Front");
  await add(page, "View beside Front", "To the right");
  await drawn(page);
  await page.getByRole("button", { name: "Sizes" }).click();
  await page.getByRole("menuitem", { name: "All that the page needs" }).click();
  await expect.poll(() => sizes.count()).toBeGreaterThan(8);
  await expect(lacks(page)).toContainText(/2\d of 35 pieces/);
  await saved(page);
});

test("a size of equal steps is parted into single ones and joined again; the pieces stay placed", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-207");
  await page.goto(`/jobs/${id}?stage=drawings`);
  await page.getByText("2. Cabinet, three views").click();
  await expect(sheet(page).getByText("2 × 194 (= 388)")).toBeVisible();
  await expect(lacks(page).getByText(/^Every piece is placed/)).toBeVisible();
  await drawn(page);
  const sizes = () => sheet(page).locator('[data-item="size"]');
  const count = await sizes().count();
  const steps = sizes().filter({ hasText: "2 × 194 (= 388)" });
  await steps.focus();
  await page.getByRole("button", { name: "Part into single sizes" }).click();
  await expect(sizes()).toHaveCount(count + 1);
  const single = sizes().filter({ hasText: /^194$/ });
  await expect(single).toHaveCount(2);
  await expect(lacks(page).getByText(/^Every piece is placed/)).toBeVisible();
  await single.first().focus();
  const second = await single.last().locator("line").first().boundingBox();
  if (!second) throw new Error("the size has a line");
  await page.keyboard.down("Shift");
  await page.mouse.click(second.x + second.width / 2, second.y + second.height / 2);
  await page.keyboard.up("Shift");
  await page.getByRole("button", { name: "Join to equal steps" }).click();
  await expect(steps).toBeVisible();
  await expect(sizes()).toHaveCount(count);
  await expect(lacks(page).getByText(/^Every piece is placed/)).toBeVisible();
});

test("the shop's own title block stands on every page; a list goes on on the next page, in columns as wide as they are set", async ({
  page,
}) => {
  const id = await copyOf(page, "hl-204");
  await page.goto("/stockroom");
  await page.getByRole("tab", { name: "Title block" }).click();
  await expectAccessible(page);
  const field = page.getByRole("group", { name: "Field 2 of row 2" });
  const text = field.getByRole("textbox", { name: "Text" });
  await text.fill("{colour}");
  await text.press("Enter");
  await expect(page.getByText(/names \{colour\}, which a title block does not know/)).toBeVisible();
  await text.fill("{page}, rev {revision}");
  const answered = () => page.waitForResponse((response) => response.request().method() === "PUT");
  await Promise.all([answered(), text.press("Enter")]);
  await expect(page.getByText("Frame, rev 3")).toBeVisible();
  await page
    .getByLabel("Picture of the shop")
    .setInputFiles({ name: "shop.png", mimeType: "image/png", buffer: smallPng(12, 5) });
  await expect(page.getByRole("button", { name: "Remove the picture" })).toBeVisible();
  await expect(page.locator("svg image")).toBeVisible();

  await page.goto(`/jobs/${id}?stage=drawings`);
  await expect(sheet(page).getByText(/^General view, rev \d+$/)).toBeVisible();
  await expect(sheet(page).locator("image")).toBeVisible();
  await page.getByRole("textbox", { name: "Drawn by, on all pages" }).fill("R. Tally");
  await page.getByRole("textbox", { name: "Drawn by, on all pages" }).press("Enter");
  await expect(sheet(page).getByText("R. Tally")).toBeVisible();

  await page.getByRole("button", { name: "Add page" }).click();
  await add(page, "List", "Cut list");
  await expect(item(page, "Cut list")).toHaveAttribute("aria-pressed", "true");
  await setField(page, "Greatest height, mm", "40");
  await setField(page, "Side by side, at most", "1");
  await expect(lacks(page).getByText(/rows have no room here/)).toBeVisible();
  await page.getByText("Widths of columns").click();
  await setField(page, "Name, mm", "60");
  await expect(page.getByRole("textbox", { name: "Name, mm" })).toHaveValue("60");
  await page.getByRole("button", { name: "Continue on the next page" }).click();
  await expect(page.getByRole("heading", { name: "Page 4" })).toBeVisible();
  await expect(sheet(page).getByText("Cut list, continued")).toBeVisible();
  await expect(lacks(page).getByText(/have no room/)).toBeHidden();
  await saved(page);
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByText("3. Page 3").click();
  await expect(lacks(page).getByText(/rows have no room here/)).toBeVisible();
});
