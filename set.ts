import { writeFileSync } from "node:fs";
import { NO_ASSETS, pagesInOrder, withEdit } from "@/core/job";
import { pagesForFile } from "@/core/paper-set";
import { createSetDrawing } from "@/core/whole-set/index";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf, USUAL_SET } from "@/core/stockroom";
import { pagesToPdf } from "@/formats/pdf";
import { demoStockroom } from "./demo/stockroom";
import { pottingBench } from "./demo/potting-bench";
import { noticeBoard } from "./demo/notice-board";
import { shelfBrackets } from "./demo/shelf-brackets";
import { seedPacketCabinet } from "./demo/seed-packet-cabinet";
const stockroom = stockroomOf(demoStockroom);
for (const [name, make] of [["bench", pottingBench], ["board", noticeBoard], ["brackets", shelfBrackets], ["cabinet", seedPacketCabinet]] as const) {
let job: any = make();
if (Object.keys(job.pages).length) { console.log("has pages", Object.keys(job.pages).length); job = (withEdit(job, {kind:"removePages", ids:Object.keys(job.pages)} as any) as any).value; }
let n = 0;
const t = performance.now();
const ids: any = { page: () => `p${n++}`, item: () => `i${n++}` };
const made = createSetDrawing()({ job, stockroom, assets: NO_ASSETS, variant: null, layouts: [] } as any, USUAL_SET, ids);
const t1 = performance.now();
for (const e of [{ kind: "setPages", pages: made.pages }, { kind: "setPageItems", items: made.items }]) { const r: any = withEdit(job, e as any); if (!r.ok) throw new Error(JSON.stringify(r)); job = r.value; }
const again = createSetDrawing()({ job, stockroom, assets: NO_ASSETS, variant: null, layouts: [] } as any, USUAL_SET, ids);
const results = createPipeline()(job, null, stockroom, []);
const pages: any = pagesInOrder(job);
const t2 = performance.now();
const drawings = pagesForFile(pages, { job, results, stockroom, layouts: [], assets: NO_ASSETS, variant: null, head: { info: job.info.job, revision: 1, date: "2026-11-28", variantName: null, shop: "Rustic" } } as any);
console.log(name, pages.length, "pages", made.items.length, "items", (t1 - t).toFixed(0), "ms; again", again.pages.length, again.items.length, "drawn", (performance.now() - t2).toFixed(0));
drawings.forEach((d, k) => { for (const i of d.items as any[]) if (i.kind === "text" && i.ink === "oxide") console.log(pages[k].heading, i.text); });
console.log(pages.map((p: any) => p.heading).join(" | "));
writeFileSync(`/tmp/S-${name}.pdf`, await pagesToPdf("T", new Date(), drawings));
}
