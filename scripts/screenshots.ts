/** `npm run screenshots`: one current picture of each main view in docs/screenshots/, from the demo data, and those of the guide. */
import { mkdirSync, rmSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { chromium, type Page } from "@playwright/test";
import { demoFolder, startApplication } from "../e2e/application";
import { BROWSER, E2E_PORT } from "../e2e/browser";
import { follow, GUIDE, guideSteps } from "../e2e/guide";

const root = fileURLToPath(new URL("..", import.meta.url));
const folder = path.join(root, "docs", "screenshots");

type View = { readonly name: string; readonly url: string; readonly act?: (page: Page) => Promise<void> };

const drawn = async (page: Page) => {
  await page.locator('[data-frames]:not([data-frames="0"])').waitFor();
};

async function newList(page: Page, start: RegExp): Promise<void> {
  await page.getByRole("button", { name: "New list" }).click();
  await page.getByRole("menuitem", { name: start }).click();
}

const PASTED = [
  "Name\tQty\tLength\tSection or board\tMaterial",
  "Brace\t4\t23 5/8 in\tSquare tube 40 × 40 × 3\tS235",
  "Cleat\t3\t120,5\tEqual angle 30 × 30 × 3\tS235",
  "Strap\t-2\t300\tSquare tube 40 × 40 × 3\tS235",
  "Batten\t6\tlong\tLarch, planed 88 × 18\tlarch",
].join("\n");

const VIEWS: readonly View[] = [
  { name: "jobs", url: "/" },
  {
    name: "shape",
    url: "/jobs/hl-204?stage=shape",
    act: async (page) => {
      await drawn(page);
      await page.keyboard.press("Control+k");
      await page.getByPlaceholder(/A mark, a name/).fill("Top rail");
      await page.keyboard.press("Enter");
    },
  },
  {
    name: "drawing",
    url: "/jobs/hl-204?stage=shape",
    act: async (page) => {
      await drawn(page);
      await page.getByRole("button", { name: "Draw members" }).click();
      const from = page.getByRole("textbox", { name: "From", exact: true });
      await from.fill("P12");
      await from.press("Enter");
      const box = await page.locator("[data-frames]").boundingBox();
      if (box) await page.mouse.move(box.x + box.width * 0.79, box.y + box.height * 0.62, { steps: 4 });
    },
  },
  {
    name: "assemblies",
    url: "/jobs/hl-207?stage=shape",
    act: async (page) => {
      await drawn(page);
      await page.getByRole("button", { name: "Expand Row" }).click();
      await page.getByRole("button", { name: "Open Row" }).click();
      await page.getByRole("button", { name: "Drawer × 3" }).click();
    },
  },
  {
    name: "key-sizes",
    url: "/jobs/hl-204?stage=shape",
    act: async (page) => {
      await drawn(page);
      await page.getByRole("button", { name: "Key sizes in the 3D view" }).click();
    },
  },
  { name: "to-size", url: "/jobs/hl-207/to-size" },
  {
    name: "jigs",
    url: "/jobs/hl-204?stage=shape",
    act: async (page) => {
      await page.getByRole("button", { name: "Jigs" }).click();
      await page.getByRole("button", { name: "Carcass" }).click();
    },
  },
  {
    name: "import",
    url: "/jobs/hl-204?stage=shape",
    act: async (page) => {
      await page.getByRole("button", { name: "Import", exact: true }).click();
      await page.locator('[role="dialog"] input[type="file"]').setInputFiles("demo/trolley.step");
      await page.getByRole("button", { name: /^Import \d+ pieces/ }).waitFor({ timeout: 60_000 });
    },
  },
  {
    name: "tally",
    url: "/jobs/hl-204?stage=tally",
    act: async (page) => {
      await drawn(page);
      await page.locator('[data-mark="G"]').click();
    },
  },
  {
    name: "lists",
    url: "/jobs/hl-204?stage=tally",
    act: async (page) => {
      await drawn(page);
      await newList(page, /Cut list by stock/);
      await page.getByRole("button", { name: "Set up columns" }).click();
      await page.getByLabel("New column").fill("Finish");
      await page.getByRole("button", { name: "Add it" }).click();
      for (const column of ["End 1 °", "End 2 °", "Note"])
        await page.getByRole("button", { name: `Remove column ${column}` }).click();
      await page.getByRole("button", { name: "Set up columns" }).click();
      const cell = (row: string, column: string) =>
        page.locator(`[data-list-row="${row}"] [data-column^="${column}"]`);
      const type = async (row: string, column: string, text: string) => {
        await cell(row, column).click();
        await page.keyboard.press("Enter");
        await page.locator(`[data-list-row="${row}"] input`).fill(text);
        await page.keyboard.press("Enter");
      };
      await page.locator('[aria-label^="Rows."]').evaluate((box) => box.scrollTo(0, 100_000));
      for (const row of ["A", "B", "C"]) await type(row, "own:", "galvanised");
      await type("D", "count", "3");
    },
  },
  {
    name: "drawings",
    url: "/jobs/hl-204?stage=drawings",
    act: async (page) => {
      await page.getByRole("button", { name: "Balloon L", exact: true }).locator("text").click();
      await page.locator('g[data-item="view"] path[stroke="var(--color-brass)"]').waitFor();
    },
  },
  {
    name: "typed-in",
    url: "/jobs/hl-204?stage=tally",
    act: async (page) => {
      await page.getByRole("button", { name: "Type in pieces" }).click();
      await page.getByRole("button", { name: "Rows from a spreadsheet" }).click();
      await page.getByLabel(/Rows copied from a spreadsheet/).fill(PASTED);
    },
  },
  {
    name: "layout-bars",
    url: "/jobs/hl-204?stage=layout",
    act: async (page) => {
      await page.locator('polygon[data-pick="B"]').first().click({ force: true });
      await page.getByText("Cutting order", { exact: false }).first().click();
    },
  },
  {
    name: "layout-sheets",
    url: "/jobs/hl-204?stage=layout",
    act: (page) => page.getByRole("button", { name: /Birch ply 12/ }).click(),
  },
  {
    name: "layout-outlines",
    url: "/jobs/hl-214?stage=layout",
    act: async (page) => {
      await page.getByRole("button", { name: /Steel plate 6/ }).click();
      await page
        .getByRole("button", { name: /^D, .* sheet 1/ })
        .first()
        .click();
    },
  },
  { name: "buy", url: "/jobs/hl-204?stage=buy", act: (page) => page.locator(".js-plotly-plot").waitFor() },
  {
    name: "cutting-list",
    url: "/jobs/from-list",
    act: async (page) => {
      await page.getByLabel("Code").fill("HL-231");
      await page.getByLabel("Title").fill("Allotment gate");
      await page.locator('input[type="file"]').setInputFiles(path.join(root, "demo", "allotment-gate.csv"));
    },
  },
  { name: "stockroom", url: "/stockroom" },
  { name: "rack", url: "/rack" },
];

const demo = demoFolder();
const { url: base, stop } = await startApplication(demo, E2E_PORT);
try {
  mkdirSync(folder, { recursive: true });
  const browser = await chromium.launch(BROWSER);
  for (const { name, url, act } of VIEWS) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${base}${url}`);
    await page.waitForLoadState("networkidle");
    await act?.(page);
    await page.waitForTimeout(600);
    await page.screenshot({ path: path.join(folder, `${name}.png`) });
    await page.close();
    console.log(`docs/screenshots/${name}.png`);
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(base);
  const pictures = path.join(path.dirname(GUIDE), "guide");
  mkdirSync(pictures, { recursive: true });
  for (const step of guideSteps()) {
    if (step.do !== "picture") {
      await follow(page, step);
      continue;
    }
    await page.waitForTimeout(600);
    await page.screenshot({ path: path.join(pictures, step.file) });
    console.log(`docs/guide/${step.file}`);
  }
  await browser.close();
} finally {
  await stop();
  rmSync(demo, { recursive: true, force: true });
}
