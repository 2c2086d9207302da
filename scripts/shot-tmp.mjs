import { chromium } from "@playwright/test";
import { readFileSync } from "node:fs";
const { BROWSER } = await import("/tmp/browser.mjs");
const browser = await chromium.launch(BROWSER);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on("console", m => { if (m.type()==="error") console.log("CONSOLE", m.text().slice(0,300)); });
page.on("pageerror", e => console.log("PAGEERROR", e.message.slice(0,300)));
const shot = async (name) => { await page.waitForTimeout(500); await page.screenshot({ path: `/tmp/shots/${name}.png` }); };
const fn = new (Object.getPrototypeOf(async function(){}).constructor)("page","shot","base", readFileSync(process.argv[2],"utf8"));
page.setDefaultTimeout(8000);
try { await fn(page, shot, "http://localhost:3555"); } catch (e) { console.log("FAILED", e.message.slice(0,600)); await shot("failed"); }
await browser.close();
