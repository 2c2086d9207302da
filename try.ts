import { writeFileSync } from "node:fs";
import { modelOf } from "@/core/brep";
import { emptyJob, withEdit } from "@/core/job";
import { imported } from "@/core/imports";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { loadStepReader } from "@/engines/step-reader";
import { foundInStep, writeStep } from "@/formats/step";
import { demoStockroom } from "./demo/stockroom";
import { pottingBench } from "./demo/potting-bench";
import { noticeBoard } from "./demo/notice-board";
import { seedPacketCabinet } from "./demo/seed-packet-cabinet";
import { shelfBrackets } from "./demo/shelf-brackets";
const stockroom = stockroomOf(demoStockroom);
const reader = await loadStepReader();
for (const job of [pottingBench(), noticeBoard(), seedPacketCabinet(), shelfBrackets()].map((j) => ({ ...j, info: { job: { ...j.info.job, batch: 1, quantity: 1 } } }))) {
  const res = createPipeline()(job, null, stockroom, []);
  const model = modelOf(job, res.shape, new Map());
  const text = writeStep(model, { name: job.info.job.title, made: new Date(0), shop: "" });
  writeFileSync(`/tmp/${job.info.job.code}.step`, text);
  const t = performance.now();
  const found = foundInStep("x.step", new TextEncoder().encode(text), reader);
  if (!found.ok) { console.log(job.info.job.code, found.problem); continue; }
  let n = 0;
  const into = emptyJob({ code: "x", title: "x", unit: job.info.job.unit });
  const imp = imported(found.value, {}, into, stockroom, (k) => `${k}${++n}`);
  const after = withEdit(into, imp.edit);
  if (!after.ok) { console.log(after.problem); continue; }
  const back = createPipeline()(after.value, null, imp.stockroom, []);
  console.log("==", job.info.job.code, job.info.job.title, text.length, model.leftOut, model.faceted, "ms", (performance.now() - t).toFixed(0), "joined", imp.joined, "added", imp.added.sections.map((s) => s.name), imp.added.boards.map((b) => b.name));
  for (const r of imp.remarks) console.log("   ", r.part, r.words);
  const row = (r: any) => `${r.kind} ${r.name} x${r.count} ${JSON.stringify(r.hands)} ${r.stockName} ${r.shown.form.cutNm ?? ""} ${r.shown.form.lengthNm ?? ""} ${r.shown.form.widthNm ?? ""} ${JSON.stringify((r.shown.form.ends ?? []).map((e: any) => e.kind + " " + (e.slope ?? []).map((v: number) => v.toFixed(5))))}`;
  const [a, b] = [res.tally.rows.map(row).sort(), back.tally.rows.map(row).sort()];
  for (const x of a) if (!b.includes(x)) console.log("  was ", x);
  for (const x of b) if (!a.includes(x)) console.log("  is  ", x);
  console.log("  rows", a.length, b.length, "checks", back.tally.checks.length, back.tally.checks.slice(0, 3).map((c: any) => c.message));
}
