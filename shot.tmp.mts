import { chromium } from "@playwright/test";
import { BROWSER } from "./e2e/browser";
const [url, out, ...steps] = process.argv.slice(2);
const browser = await chromium.launch(BROWSER);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on("console", (m) => { if (m.type() === "error") console.log("console:", m.text()); });
page.on("pageerror", (e) => console.log("pageerror", e.message));
await page.goto(`http://localhost:3777${url}`);
await page.waitForTimeout(1500);
for (const step of steps) { try { await (new Function("page", `return (async () => { ${step} })()`))(page); } catch (e) { console.log("step failed", step, String(e).slice(0, 400)); } await page.waitForTimeout(700); }
await page.screenshot({ path: out });
await browser.close();
