import { chromium } from "@playwright/test";
import { BROWSER } from "./e2e/browser";

const script = process.argv[2] ?? "";
const browser = await chromium.launch(BROWSER);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on("console", (m) => {
  if (m.type() === "error") console.log("console:", m.text().slice(0, 300));
});
page.on("pageerror", (e) => console.log("pageerror:", e.message.slice(0, 300)));
const base = "http://localhost:3210";
const shot = (name: string) => page.screenshot({ path: `/tmp/look/${name}.png` });
const fn = (await import(script)).default;
try {
  await fn({ page, base, shot });
} catch (e) {
  console.log(String(e).slice(0, 1500));
  await shot("failed");
}
await browser.close();
