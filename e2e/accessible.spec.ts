/** Every page, stage, menu and dialog: nothing that axe can see, and at the width of a tablet nothing beyond its edge. */
import type { Page } from "@playwright/test";
import { copyOf, expect, expectAccessible, openStage, test } from "./fixtures";

const PAGES = ["/", "/stockroom", "/rack", "/settings", "/combined", "/jobs/from-list", "/enter"] as const;
const STAGES = ["Shape", "Tally", "Layout", "Buy", "Drawings", "Floor"] as const;
const OPENED = '[role="menu"], [role="dialog"]';

/** Closes whatever stands over the page. */
async function closeAll(page: Page): Promise<void> {
  const open = page.locator(OPENED).filter({ visible: true });
  await expect(async () => {
    if ((await open.count()) > 0) await page.keyboard.press("Escape");
    await expect(open).toHaveCount(0, { timeout: 300 });
  }).toPass();
}

/** Opens each menu and dialog of a page once, of those with a name, and looks at it; how many there were. */
async function expectAccessibleMenus(page: Page, seen: Set<string>): Promise<void> {
  const triggers = page.locator(
    'button[aria-haspopup="menu"]:visible, button[aria-haspopup="dialog"]:visible',
  );
  for (let i = 0; i < (await triggers.count()); i++) {
    const trigger = triggers.nth(i);
    const name = ((await trigger.getAttribute("aria-label")) ?? (await trigger.textContent()) ?? "").trim();
    // Figures of the buying list open one dialog each, all made alike.
    const kind = /^[\d.,]+$/.test(name) ? "a figure" : name;
    if (seen.has(kind) || !(await trigger.isEnabled())) continue;
    seen.add(kind);
    await trigger.click();
    await expect(page.locator(OPENED).filter({ visible: true }).first(), `${name} opens`).toBeVisible();
    await expectAccessible(page, OPENED);
    await closeAll(page);
  }
}

/** Buttons, fields and links that stand beyond the edge of the window. */
const beyondEdge = (page: Page) =>
  page.evaluate(() => {
    const width = document.documentElement.clientWidth;
    const found = document.documentElement.scrollWidth > width ? ["the page"] : [];
    for (const one of document.querySelectorAll("button, input, a, [role=combobox]")) {
      const { left, right, width: own } = one.getBoundingClientRect();
      if (own > 0 && (right > width + 1 || left < -1))
        found.push(one.getAttribute("aria-label") ?? one.textContent ?? one.tagName);
    }
    return found;
  });

test("pages beside the desk, with their menus and dialogs", async ({ page }) => {
  const seen = new Set<string>();
  for (const path of PAGES) {
    await page.goto(path);
    await expect(page.locator("main")).toBeVisible();
    await expectAccessible(page);
    await expectAccessibleMenus(page, seen);
  }
  for (const tab of ["Boards", "Bought parts", "Title block"]) {
    await page.goto("/stockroom");
    await page.getByRole("tab", { name: tab }).click();
    await expectAccessible(page);
  }
});

test("the stages of a job, with their menus and dialogs, and with a piece selected", async ({ page }) => {
  test.slow();
  const id = await copyOf(page, "hl-204");
  await page.goto(`/jobs/${id}?stage=shape`);
  const seen = new Set<string>();
  for (const stage of STAGES) {
    await openStage(page, stage);
    await expectAccessible(page);
    await expectAccessibleMenus(page, seen);
  }
  expect(seen.size).toBeGreaterThan(12);
  await openStage(page, "Shape");
  await page
    .getByRole("button", { name: /Top rail/ })
    .first()
    .click();
  await expectAccessible(page);
  await expectAccessibleMenus(page, seen);
  await page.getByRole("button", { name: "Draw members" }).click();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Jigs" }).click();
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /Box frame/ })
    .click();
  await expectAccessible(page, OPENED);
  await closeAll(page);
  // What looks for violations finds one: words that are too pale to be read.
  await page.evaluate(() => {
    const pale = document.createElement("p");
    pale.textContent = "Too pale";
    pale.style.cssText = "position:fixed;top:200px;left:200px;z-index:99;color:#eee;background:#fff";
    document.querySelector("main")?.append(pale);
  });
  await expect(expectAccessible(page)).rejects.toThrow(/color-contrast/);
});

test("820 pixels wide every action is within reach, panes one over the other; the form at 390", async ({
  page,
}) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  for (const path of PAGES) {
    await page.goto(path);
    await expect(page.locator("main")).toBeVisible();
    expect(await beyondEdge(page), path).toEqual([]);
  }
  await page.goto("/jobs/hl-204?stage=shape");
  for (const stage of STAGES) {
    await openStage(page, stage);
    expect(await beyondEdge(page), stage).toEqual([]);
  }
  await openStage(page, "Shape");
  await page
    .getByRole("button", { name: /Top rail/ })
    .first()
    .click();
  await expect(page.getByRole("textbox", { name: "Section rotation, °" })).toBeVisible();
  expect(await beyondEdge(page), "a member selected").toEqual([]);
  const list = await page.getByRole("region", { name: "List" }).boundingBox();
  const picture = await page.getByRole("region", { name: "3D view" }).boundingBox();
  expect(list && picture && list.y + list.height <= picture.y + 1).toBe(true);
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto("/jobs/hl-207/to-size");
  await expect(page.getByRole("complementary", { name: "Result" })).toBeVisible();
  expect(await beyondEdge(page), "the form").toEqual([]);
  await expectAccessible(page);
});
