import { rmSync } from "node:fs";
import { chromium } from "@playwright/test";
import { demoFolder, startApplication } from "./e2e/application";
import { BROWSER, E2E_PORT } from "./e2e/browser";
async function main() {
  const folder = demoFolder();
  const { url, stop } = await startApplication(folder, E2E_PORT);
  const browser = await chromium.launch(BROWSER);
  try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on("console", (m) => { if (m.type() === "error" || m.type() === "warning") console.log(m.type(), m.text().slice(0, 300)); });
  page.on("pageerror", (e) => console.log("pageerror", e.message, e.stack?.slice(0, 600)));
  page.setDefaultTimeout(12000);
  await page.goto(`${url}/jobs/hl-204?stage=drawings`);
  await page.getByText("2. Frame, three views").click();
  await page.locator("[data-placed=now]").waitFor();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: "/tmp/p1.png" });
  await page.getByRole("button", { name: "Add size" }).first().click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/p2.png" });
  await page.goto(`${url}/jobs/hl-207?stage=drawings`);
  await page.getByText("2. Cabinet, three views").click();
  await page.locator("[data-placed=now]").waitFor();
  await page.getByRole("region", { name: "What the set lacks" }).or(page.getByLabel("What the set lacks")).first().waitFor();
  await page.waitForTimeout(1000);
  await page.screenshot({ path: "/tmp/p3.png" });
  } catch (e) { console.log(String(e).slice(0, 1500)); const p = browser.contexts()[0]?.pages()[0]; await p?.screenshot({ path: "/tmp/derr.png" }); }
  await browser.close(); await stop(); rmSync(folder, { recursive: true, force: true });
}
void main();
