"use client";
import Link from "next/link";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import { thumbnail } from "@/core/drawing";
import { type Assets, type Job, type KeySize, resolveSizes, type Variant, type VariantId } from "@/core/job";
import { counted, type Problem, sentence } from "@/core/kernel";
import { formatCents, formatDecimal } from "@/core/measure";
import { createPipeline, type Results } from "@/core/pipeline";
import { indexStockroom } from "@/core/stockroom";
import { Button } from "../common/button";
import { DisplayList } from "../common/display-list";
/**
 * A job made to size by somebody who only sets a few values: the sizes that the drafter picked, a picture
 * that follows, and at the end the lists and layouts to take away. What is set becomes a variant of the job.
 */
import { newId } from "../common/fresh-id";
import { Fault } from "../common/notice";
import type { DeskProps } from "../desk/desk";
import { DeskContext, useDesk, useDeskState } from "../desk/desk-context";
import { computedHere, createDesk } from "../desk/desk-store";
import { handOver, PAPERS, takeAway } from "../desk/pane-head";
import { lackingWords, type SetThread, useSetDrawing } from "../drawings/use-set-drawing";
import { DeskGround } from "../layout/desk-ground";
import { useLayoutRunner } from "../layout/use-layout-runner";
import { Question } from "./question";

type FillInProps = Pick<DeskProps, "opened" | "stockroom" | "startWorker"> & {
  /** Draws up the whole set of papers. */
  readonly setThread: SetThread;
};

export function FillInPage({ opened, stockroom, startWorker, setThread }: FillInProps) {
  const [notice, setNotice] = useState<string | null>(null);
  const [desk] = useState(() =>
    createDesk(opened, computedHere(opened, indexStockroom(stockroom)), ({ text }) => setNotice(text)),
  );
  return (
    <DeskContext value={desk}>
      <DeskGround>
        <Form startWorker={startWorker} setThread={setThread} notice={notice} />
      </DeskGround>
    </DeskContext>
  );
}

type Answers = Readonly<Record<string, string>>;
const TRIAL = "trial" as VariantId;

/** The job with the answers as a variant that is nowhere kept. */
function tried(job: Job, answers: Answers): Job {
  const trial: Variant = { id: TRIAL, name: "trial", formulas: { ...answers }, position: 0 };
  return { ...job, variants: { ...job.variants, [TRIAL]: trial } };
}

function useTrial(answers: Answers): {
  readonly results: Results;
  readonly problems: ReadonlyMap<string, Problem>;
} {
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const [pipeline] = useState(createPipeline);
  return useMemo(() => {
    const trial = tried(job, answers);
    return {
      results: pipeline(trial, TRIAL, stockroom, []),
      problems: resolveSizes(trial, TRIAL).problems,
    };
  }, [job, answers, stockroom, pipeline]);
}

function Form({
  startWorker,
  setThread,
  notice,
}: Pick<FillInProps, "startWorker" | "setThread"> & {
  readonly notice: string | null;
}) {
  const id = useDeskState((state) => state.id);
  const job = useDeskState((state) => state.job);
  const info = job.info.job;
  const asked = Object.values(job.keySizes)
    .filter((size) => size.asked)
    .sort((a, b) => a.position - b.position);
  const [answers, setAnswers] = useState<Answers>(() =>
    Object.fromEntries(asked.map((size) => [size.name, size.formula])),
  );
  const assets = useDeskState((state) => state.assets);
  const { results, problems } = useTrial(answers);
  const others = [...problems].filter(([name]) => !asked.some((size) => size.name === name));
  return (
    <div className="min-h-screen bg-ground">
      <header className="on-dark flex min-h-[52px] items-center gap-4 bg-ink px-6 py-2 text-ground narrow:px-4">
        <h1 className="font-semibold font-slab text-[17px]">
          {info.title} <span className="font-normal text-white/70">{info.code}</span>
        </h1>
        <Link href={`/jobs/${id}`} className="ml-auto text-[14px] underline-offset-2 hover:underline">
          Open the job
        </Link>
      </header>
      <main className="mx-auto grid max-w-[1120px] grid-cols-[minmax(0,1fr)_480px] gap-8 px-6 py-6 narrow:grid-cols-1 narrow:gap-5 narrow:px-4">
        <div>
          {asked.length === 0 ? (
            <p className="max-w-[52ch] text-ink-soft">
              This form is empty. Open the job, select a key size, and set "Ask in form" to yes.
            </p>
          ) : (
            <p className="pb-3 text-ink-soft">Set what you need; everything else follows.</p>
          )}
          <ol className="space-y-4">
            {asked.map((size) => (
              <li key={size.id}>
                <Question
                  size={size}
                  unit={info.unit}
                  value={answers[size.name] ?? ""}
                  problem={problems.get(size.name)}
                  onChange={(text) => setAnswers({ ...answers, [size.name]: text })}
                />
              </li>
            ))}
          </ol>
          {others.map(([name, problem]) => (
            <Fault key={name} className="pt-3">
              With these sizes the design does not work: {sentence(problem)}
            </Fault>
          ))}
          {notice ? <Fault className="pt-3">{notice}</Fault> : null}
          {asked.length > 0 ? (
            <TakeAway
              answers={answers}
              asked={asked}
              blocked={problems.size > 0 || hasErrors(results)}
              startWorker={startWorker}
              setThread={setThread}
            />
          ) : null}
        </div>
        <Preview results={results} title={info.title} assets={assets} />
      </main>
    </div>
  );
}

const hasErrors = ({ tally }: Results) => tally.checks.some((check) => check.severity === "error");

function Preview({
  results,
  title,
  assets,
}: {
  readonly results: Results;
  readonly title: string;
  readonly assets: Assets;
}) {
  const drawing = useMemo(() => thumbnail(results.shape, 470, 430, assets), [results.shape, assets]);
  const { balance, checks } = results.tally;
  const { byRule, currency, massKg, massUnknown } = results.quantities;
  const [worst] = [...checks].sort((a, b) =>
    a.severity === b.severity ? 0 : a.severity === "error" ? -1 : 1,
  );
  return (
    <aside
      aria-label="Result"
      className="min-w-0 self-start border border-seam bg-leaf p-4 [&>svg]:h-auto [&>svg]:max-w-full"
    >
      <DisplayList drawing={drawing} label={`3D view of the ${title}`} />
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 pt-3 font-table">
        <dt className="text-ink-soft">Pieces to cut</dt>
        <dd>{balance.inRows}</dd>
        <dt className="text-ink-soft">Bought parts</dt>
        <dd>{balance.bought}</dd>
        <dt className="text-ink-soft">Mass of bars and boards</dt>
        <dd>
          {formatDecimal(massKg, 1)} kg{massUnknown > 0 ? `, ${massUnknown} not known` : ""}
        </dd>
        <dt className="text-ink-soft">Material, net + waste</dt>
        <dd>
          {formatCents(byRule.cents)} {currency}
          {byRule.missing > 0 ? `, incomplete: ${byRule.missing} without a price` : ""}
        </dd>
      </dl>
      {worst ? (
        <p className={`pt-3 text-[13px] ${worst.severity === "error" ? "text-oxide" : "text-amber"}`}>
          {worst.message}
        </p>
      ) : null}
    </aside>
  );
}

type TakeAwayProps = {
  readonly answers: Answers;
  readonly asked: readonly KeySize[];
  readonly blocked: boolean;
} & Pick<FillInProps, "startWorker" | "setThread">;

/** Keeps the answers as a variant, lays it out, and hands over lists and papers. */
function TakeAway({ answers, asked, blocked, startWorker, setThread }: TakeAwayProps) {
  const desk = useDesk();
  const runner = useLayoutRunner(startWorker);
  const job = useDeskState((state) => state.job);
  const [name, setName] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const [made, setMade] = useState<{ readonly id: VariantId; readonly answers: Answers } | null>(null);
  const proposed = asked.map((size) => answers[size.name]).join(" · ");
  const make = async () => {
    const id = newId("variant") as VariantId;
    const variant: Variant = {
      id,
      name: (name.trim() || proposed).slice(0, 60),
      formulas: { ...answers },
      position: Object.keys(job.variants).length,
    };
    const refused = desk.submit({ kind: "addVariant", variant });
    setFault(refused);
    if (refused !== null) return;
    await desk.flush();
    await desk.setVariant(id);
    runner.run(desk.store.getState().results.tasks);
    setMade({ id, answers });
  };
  const current = made !== null && made.answers === answers;
  return (
    <section aria-label="Download" className="mt-7 border-seam border-t pt-4">
      <label className="block text-[13px] text-ink-soft">
        Name
        <input
          value={name}
          placeholder={proposed}
          onChange={(event) => setName(event.target.value)}
          className="mt-0.5 block h-9 w-full max-w-[420px] rounded-sm border border-seam bg-leaf px-2 text-[15px] text-ink"
        />
      </label>
      <div className="flex items-center gap-3 pt-3">
        <Button look="primary" disabled={blocked || runner.running !== null} onClick={() => void make()}>
          Make lists and layouts
        </Button>
        <p role="status" className="text-[13px] text-ink-soft">
          {runner.running
            ? `Laying out ${runner.running.task.name}…`
            : blocked
              ? "Fix the values marked in red first."
              : ""}
        </p>
      </div>
      {fault ? <Fault className="pt-2">{fault}</Fault> : null}
      {made && runner.running === null ? (
        <div className="pt-4">
          <p className={current ? "text-moss" : "text-amber"}>
            {current
              ? "Ready. Saved as a variant of the job."
              : "These are of the sizes before; make them again for the new ones."}
          </p>
          <ul className="pt-1">
            <WholeSetOut variant={made.id} setThread={setThread} />
            {PAPERS.filter(({ path }) => !path.startsWith("/file")).map((paper) => (
              <li key={paper.label}>
                <Button look="plain" onClick={() => void takeAway(desk, paper, made.id)}>
                  {paper.label}
                </Button>{" "}
                <span className="text-[13px] text-ink-soft">{paper.contains}</span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
    </section>
  );
}

/** The complete set of papers of a variant as one PDF: drawn up in a thread, written on the server, kept nowhere. */
function WholeSetOut({ variant, setThread }: { readonly variant: VariantId; readonly setThread: SetThread }) {
  const desk = useDesk();
  const { running, pages, draw, stop } = useSetDrawing(setThread);
  const [writing, setWriting] = useState<AbortController | null>(null);
  const make = async () => {
    await desk.flush();
    const { id, stockroom } = desk.store.getState();
    const made = await draw(stockroom.setRecipe);
    if (made === "stopped") return;
    if ("refused" in made) {
      toast.error(made.refused);
      return;
    }
    const { lacking, ...set } = made;
    if (lacking.length > 0) toast(lackingWords(lacking));
    const given = new AbortController();
    setWriting(given);
    const response = await fetch(`/api/jobs/${encodeURIComponent(id)}/whole-set`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ variant, ...set }),
      signal: given.signal,
    }).catch(() => null);
    setWriting(null);
    if (!given.signal.aborted) await handOver(response);
  };
  const waits = running || writing !== null;
  return (
    <li>
      <Button look="plain" disabled={waits} onClick={() => void make()}>
        Complete set of papers (PDF)
      </Button>{" "}
      {waits ? (
        <span role="status" className="text-[13px]">
          {running ? `Drawing up the set, ${counted(pages, "page")} so far…` : "Writing the PDF…"}{" "}
          <Button
            look="plain"
            onClick={() => {
              stop();
              writing?.abort();
            }}
          >
            Stop
          </Button>
        </span>
      ) : (
        <span className="text-[13px] text-ink-soft">
          drawings with sizes and balloons, cards, templates, lists and layouts
        </span>
      )}
    </li>
  );
}
