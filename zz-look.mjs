import { chromium } from "@playwright/test";

const b = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: ["--no-sandbox", "--enable-unsafe-swiftshader"],
});
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
p.on("console", (m) => {
  if (m.type() === "error") console.log("console:", m.text().slice(0, 300));
});
p.on("pageerror", (e) => console.log("pageerror", e.message.slice(0, 300)));
const steps = process.argv[2];
await (await import(steps)).default(p);
await b.close();
