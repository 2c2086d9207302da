"use client";
/** The layout of one stock size, drawn to scale: bars or sheets with marks and sizes, its bound and proof. */
import { RotateCw, Square } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { barDrawing, sheetDrawing } from "@/core/drawing";
import { at } from "@/core/kernel";
import { type KeptLayout, keptFor, type LayoutTask } from "@/core/layout";
import { barOrderTable, sheetOrderTable, styleOf } from "@/core/lists";
import { Button } from "../common/button";
import { DisplayList, screenMeasure } from "../common/display-list";
import { useDeskState, useMarkSelection } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { CuttingOrder } from "./cutting-order";
import { boundWords, usage } from "./layout-ledger";
import type { LayoutRunner } from "./use-layout-runner";

export function LayoutPicture({
  runner,
  task: id,
}: {
  readonly runner: LayoutRunner;
  readonly task: string | null;
}) {
  const tasks = useDeskState((state) => state.results.tasks);
  const layouts = useDeskState((state) => state.layouts);
  const task = tasks.find((one) => one.id === id) ?? tasks[0];
  if (!task)
    return (
      <p className="p-5 text-ink-soft">Choose stock on the left; its bars or sheets will be drawn here.</p>
    );
  const found = keptFor(task, layouts);
  const busy = runner.running?.task.id === task.id;
  return (
    <>
      <PaneHead title={task.name} facts={settingsWords(task)}>
        <Out />
        <Button
          look={found && !found.stale ? "outline" : "primary"}
          icon={<RotateCw size={15} aria-hidden />}
          disabled={runner.running !== null}
          onClick={() => runner.run([task])}
        >
          {found ? "Lay out again" : "Lay out"}
        </Button>
      </PaneHead>
      {runner.running ? <Progress runner={runner} /> : null}
      {found?.stale && !busy ? (
        <p role="status" className="border-amber border-b bg-amber-pale px-3.5 py-1.5 text-[13px] text-amber">
          Stale: made from revision {found.kept.revision}; the design, its marks or the stock changed since.
          Lay it out again before cutting.
        </p>
      ) : null}
      <div className="min-h-0 flex-1 overflow-auto p-4">
        {found ? (
          <Layout kept={found.kept} />
        ) : busy ? null : (
          <p className="text-ink-soft">Not laid out yet. Press "Lay out": the result is kept with the job.</p>
        )}
      </div>
    </>
  );
}

function settingsWords(task: LayoutTask): string {
  if (!task.entry) return "not in the stockroom";
  if (task.kind === "bars") {
    const { kerf, trimStart, trimEnd } = task.entry;
    return `kerf ${kerf} · trim ${trimStart === trimEnd ? `${trimStart} each end` : `${trimStart} and ${trimEnd}`} · mm`;
  }
  const { kerf, trim, stages } = task.entry;
  return `kerf ${kerf} · trim ${trim} all round · ${stages === null ? "any stages" : `${stages} stages`} · mm`;
}

function Progress({ runner: { running, stop } }: { readonly runner: LayoutRunner }) {
  if (!running) return null;
  const { best, task, waiting } = running;
  const noun = task.kind === "bars" ? "bars" : "sheets";
  return (
    <div
      role="status"
      className="flex items-center gap-3 border-seam border-b bg-ground px-3.5 py-1.5 text-[13px]"
    >
      <span className="h-2 w-2 animate-pulse bg-brass" aria-hidden />
      <span>
        Laying out {task.name}
        {best
          ? `: best so far ${best.count} ${noun}${best.lowerBound > 0 ? `, bound ${best.lowerBoundOf === "cost" ? best.lowerBound.toFixed(2) : best.lowerBound}` : ""}`
          : "…"}
        {waiting > 0 ? ` · ${waiting} more waiting` : ""}
      </span>
      <Button look="plain" icon={<Square size={13} aria-hidden />} onClick={stop}>
        Good enough: stop
      </Button>
    </div>
  );
}

function Layout({ kept }: { readonly kept: KeptLayout }) {
  const box = useRef<HTMLDivElement>(null);
  const [{ width, height }, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!box.current) return;
    const pane = box.current.parentElement;
    const watcher = new ResizeObserver(() =>
      setSize({ width: box.current?.clientWidth ?? 0, height: (pane?.clientHeight ?? 0) - 70 }),
    );
    watcher.observe(box.current);
    if (pane) watcher.observe(pane);
    return () => watcher.disconnect();
  }, []);
  return (
    <div ref={box}>
      {width > 0 ? (
        kept.kind === "bars" ? (
          <Bars kept={kept} width={width} />
        ) : (
          <Sheets kept={kept} width={width} height={Math.max(200, height)} />
        )
      ) : null}
      {kept.kind === "bars" ? <BarOrder kept={kept} /> : null}
      <Unplaced kept={kept} />
      <Facts kept={kept} />
    </div>
  );
}

function Bars({
  kept,
  width,
}: {
  readonly kept: Extract<KeptLayout, { kind: "bars" }>;
  readonly width: number;
}) {
  const { isSelected, pick } = useMarkSelection();
  const info = useDeskState((state) => state.job.info.job);
  const rows = useDeskState((state) => state.results.tally.rows);
  const longest = Math.max(1, ...kept.layout.bars.map((bar) => at(kept.problem.stock, bar.stock).length));
  const scale = (width - 8) / longest;
  const shownOf = (mark: string) => rows.find((row) => row.mark === mark)?.shown ?? null;
  return kept.layout.bars.map((bar, i) => {
    const stock = at(kept.problem.stock, bar.stock);
    const items = barDrawing(
      { bar, problem: kept.problem, pieces: kept.pieces, shownOf, style: styleOf(info) },
      { scale, depth: 34, line: 1, text: 15, measure: screenMeasure },
    );
    const times = bar.times === 1 ? "once" : `${bar.times} times`;
    return (
      // biome-ignore lint/suspicious/noArrayIndexKey: the patterns of one layout have no identity beyond their order
      <figure key={i} className="mb-3">
        <figcaption className="mb-1 text-[13px]">
          <b className="font-semibold">Pattern {i + 1}</b>{" "}
          <span className="text-ink-soft">{`${times} · from ${stock.length}`}</span>
        </figcaption>
        <DisplayList
          drawing={{ width: stock.length * scale, height: 34, items }}
          label={`Pattern ${i + 1}, ${times}: ${bar.pieces.map((piece) => kept.pieces[piece]?.mark).join(", ")}`}
          isSelected={isSelected}
          onPick={pick}
        />
      </figure>
    );
  });
}

function Sheets({
  kept,
  width,
  height,
}: {
  readonly kept: Extract<KeptLayout, { kind: "sheets" }>;
  readonly width: number;
  readonly height: number;
}) {
  const { isSelected, pick } = useMarkSelection();
  const info = useDeskState((state) => state.job.info.job);
  const longest = Math.max(
    1,
    ...kept.layout.sheets.map((sheet) => at(kept.problem.stock, sheet.stock).length),
  );
  const widest = Math.max(...kept.layout.sheets.map((sheet) => at(kept.problem.stock, sheet.stock).width));
  // A whole sheet is to be seen at once.
  const scale = Math.min((width - 8) / longest, height / Math.max(1, widest));
  return kept.layout.sheets.map((sheet, i) => {
    const stock = at(kept.problem.stock, sheet.stock);
    const items = sheetDrawing(
      { sheet, problem: kept.problem, pieces: kept.pieces, style: styleOf(info) },
      { scale, line: 1, text: 15, measure: screenMeasure },
    );
    return (
      // biome-ignore lint/suspicious/noArrayIndexKey: the sheets of one layout have no identity beyond their order
      <figure key={i} className="mb-4">
        <figcaption className="mb-1 text-[13px]">
          <b className="font-semibold">Sheet {i + 1}</b>{" "}
          <span className="text-ink-soft">{`${stock.length} × ${stock.width}${stock.grain ? ` · grain along the ${stock.grain}` : ""}`}</span>
        </figcaption>
        <DisplayList
          drawing={{ width: stock.length * scale, height: stock.width * scale, items }}
          label={`Sheet ${i + 1}: ${sheet.placements.map((one) => kept.pieces[one.panel]?.mark).join(", ")}`}
          isSelected={isSelected}
          onPick={pick}
        />
        <CuttingOrder table={sheetOrderTable(kept, i, styleOf(info))} />
      </figure>
    );
  });
}

function BarOrder({ kept }: { readonly kept: Extract<KeptLayout, { kind: "bars" }> }) {
  const info = useDeskState((state) => state.job.info.job);
  const rows = useDeskState((state) => state.results.tally.rows);
  return <CuttingOrder table={barOrderTable(kept, rows, styleOf(info))} />;
}

function Unplaced({ kept }: { readonly kept: KeptLayout }) {
  return kept.layout.unplaced.map((one) => {
    const index = "piece" in one ? one.piece : one.panel;
    return (
      <p key={index} className="mb-1 border-oxide border-l-2 bg-oxide-pale px-3 py-1 text-[13px] text-oxide">
        Not placed: {one.qty} × {kept.pieces[index]?.mark} {kept.pieces[index]?.name}: {one.why}.
      </p>
    );
  });
}

function Facts({ kept }: { readonly kept: KeptLayout }) {
  const { layout } = kept;
  const { words, share } = usage(kept);
  const longestRest =
    kept.kind === "bars" ? Math.max(0, ...kept.layout.bars.map((bar) => bar.remainder)) : null;
  const facts: readonly (readonly [string, string, string])[] = [
    [words, boundWords(kept), ""],
    [
      layout.proven ? "proven best" : "not proven",
      layout.proven ? "no layout can be better" : "a better one may exist",
      layout.proven ? "text-moss" : "text-ink",
    ],
    [
      `${Math.round(share * 1000) / 10} %`,
      kept.kind === "bars" ? "of the bars used" : "of the sheets used",
      "",
    ],
    ...(longestRest === null ? [] : [[String(Math.round(longestRest)), "longest rest, mm", ""] as const]),
    ...(layout.cost === null
      ? [["no price", "cost is incomplete", "text-amber"] as const]
      : [[layout.cost.toFixed(2), "cost", ""] as const]),
  ];
  return (
    <dl className="mt-5 flex flex-wrap gap-x-9 gap-y-2 border-seam border-t pt-3">
      {facts.map(([value, name, look]) => (
        <div key={name} className="flex flex-col-reverse">
          <dt className="text-[13px] text-ink-soft">{name}</dt>
          <dd className={`font-semibold font-slab text-[21px] leading-tight ${look}`}>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
