import { chromium } from "@playwright/test"; import { BROWSER } from "./e2e/browser"; import { readFileSync } from "node:fs";
const b = await chromium.launch(BROWSER); const p = await b.newPage({ viewport: { width: 1000, height: 1300 } });
await p.setContent(`<body style="margin:0;background:white">${readFileSync(process.argv[2],"utf8").replace(/<\?xml[^>]*>/,"")}</body>`); await p.waitForTimeout(500); await p.screenshot({ path: process.argv[3] }); await b.close();
