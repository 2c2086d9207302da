"use client";
import { CloudOff, Redo2, Search, Undo2 } from "lucide-react";
import Link from "next/link";
import { useCallback, useEffect, useState } from "react";
import { toast } from "sonner";
/** The head of the desk: the job, the six stages with their state, variant, undo and redo, search. */
import type { VariantId } from "@/core/job";
import { savedFor } from "@/core/layout";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Hint } from "../common/hint";
import { useDesk, useDeskState } from "./desk-context";
import { nextStep } from "./desk-store";
import { SearchDialog } from "./search";
import { STAGE_NAMES, STAGES, type Stage } from "./stages";
import { StepsMenu } from "./steps-menu";

export type HeadProps = { readonly stage: Stage; readonly onStage: (stage: Stage) => void };

export function Head({ stage, onStage }: HeadProps) {
  const info = useDeskState((state) => state.job.info.job);
  const revision = useDeskState((state) => state.revision);
  return (
    <header className="on-dark flex min-h-[52px] shrink-0 items-stretch bg-ink text-ground narrow:flex-wrap">
      <div className="flex w-[240px] min-w-0 flex-col justify-center px-3.5 narrow:h-12 narrow:flex-1">
        <h1 className="truncate font-semibold font-slab text-[16px] leading-tight">
          {info.code} {info.title}
        </h1>
        <p className="truncate text-[12px] text-white/70">
          <Link href="/" className="underline-offset-2 hover:underline">
            Jobs
          </Link>
          {" · "}
          <Link href="/stockroom" className="underline-offset-2 hover:underline">
            Stockroom
          </Link>
          {" · "}
          <Link href="/rack" className="underline-offset-2 hover:underline">
            Rack
          </Link>
          {` · revision ${revision}`}
        </p>
      </div>
      <nav
        aria-label="Stages"
        className="flex narrow:order-last narrow:h-11 narrow:w-full narrow:border-white/15 narrow:border-t"
      >
        {STAGES.map((one) => (
          <StageButton key={one} stage={one} current={one === stage} onStage={onStage} />
        ))}
      </nav>
      <Tools stage={stage} onStage={onStage} />
    </header>
  );
}

function StageButton({
  stage,
  current,
  onStage,
}: {
  readonly stage: Stage;
  readonly current: boolean;
  readonly onStage: (stage: Stage) => void;
}) {
  const state = useStageState(stage);
  return (
    <button
      type="button"
      aria-current={current ? "page" : undefined}
      onClick={() => onStage(stage)}
      className={`flex items-center gap-2 border-t-[3px] border-r px-4 text-[15px] ${current ? "border-t-brass border-r-ink bg-ground font-semibold text-ink" : "border-t-transparent border-r-white/15 hover:bg-white/10"}`}
    >
      {STAGE_NAMES[stage]}
      {state ? (
        <span className="rounded-sm bg-amber-pale px-1.5 font-semibold font-table text-[12px] text-amber">
          {state}
        </span>
      ) : null}
    </button>
  );
}

/** The small state beside a stage: open checks, or that what stands there is older than the design. */
function useStageState(stage: Stage): string | null {
  const { tally, shape, tasks, quantities } = useDeskState((state) => state.results);
  const layouts = useDeskState((state) => state.layouts);
  switch (stage) {
    case "shape":
      return shape.checks.length > 0 ? String(shape.checks.length) : null;
    case "tally":
      return tally.checks.length > 0 ? String(tally.checks.length) : null;
    case "layout": {
      if (tasks.some((task) => savedFor(task, layouts)?.outdated)) return "outdated";
      return null;
    }
    case "buy":
      return quantities.byLayout.outdated > 0 ? "outdated" : null;
    default:
      return null;
  }
}

function Tools({ stage, onStage }: { readonly stage: Stage; readonly onStage: (stage: Stage) => void }) {
  const desk = useDesk();
  const undoable = useDeskState((state) => nextStep(state, "undo")?.words ?? null);
  const redoable = useDeskState((state) => nextStep(state, "redo")?.words ?? null);
  const saving = useDeskState((state) => state.saving);
  const computing = useDeskState((state) => state.computing);
  const [searching, setSearching] = useState(false);
  const step = useCallback(
    async (which: "undo" | "redo") => {
      const words = nextStep(desk.store.getState(), which)?.words;
      if (words === undefined) return;
      await desk.step(which);
      toast(`${which === "undo" ? "Undone" : "Done again"}: ${words}`, { id: "step", duration: 2500 });
    },
    [desk],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      // What opened over the desk, or is typed in, takes the key for itself.
      if (event.key === "Escape" && !typing && !event.defaultPrevented) desk.select([]);
      // Only where the pieces are drawn: in a list the same key puts a cell back.
      if (event.key === "Delete" && !typing && stage === "shape") {
        const { selected, job } = desk.store.getState();
        const ids = [...selected].filter(
          (id) => job.members[id] || job.panels[id] || job.boughtParts[id] || job.placements[id],
        );
        if (ids.length > 0 && desk.submit({ kind: "remove", ids }) === null) desk.select([]);
      }
      if (!(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      if (key === "k") {
        event.preventDefault();
        setSearching(true);
      } else if (!typing && (key === "z" || key === "y")) {
        event.preventDefault();
        void step(key === "y" || event.shiftKey ? "redo" : "undo");
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [desk, stage, step]);
  return (
    <div className="ml-auto flex items-center gap-1 pr-3">
      <p
        aria-live="polite"
        className="px-1 text-[12px] text-white/70"
        data-saving={saving}
        data-computing={computing}
      >
        {computing ? "Computing…" : saving === "saving" ? "Saving…" : null}
        {saving === "unreachable" ? (
          <span className="flex items-center gap-1 text-amber-pale">
            <CloudOff size={14} aria-hidden /> Not saved, trying again
          </span>
        ) : null}
      </p>
      <VariantChooser />
      <Hint text={undoable ? `Undo: ${undoable}` : "Nothing to undo"}>
        <Button
          look="dark"
          aria-label="Undo"
          aria-disabled={!undoable}
          icon={<Undo2 size={17} aria-hidden />}
          onClick={() => (undoable ? void step("undo") : undefined)}
        />
      </Hint>
      <StepsMenu disabled={!undoable} />
      <Hint text={redoable ? `Redo: ${redoable}` : "Nothing to redo"}>
        <Button
          look="dark"
          aria-label="Redo"
          aria-disabled={!redoable}
          icon={<Redo2 size={17} aria-hidden />}
          onClick={() => (redoable ? void step("redo") : undefined)}
        />
      </Hint>
      <Hint text="Search (Ctrl+K)">
        <Button
          look="dark"
          aria-label="Search"
          icon={<Search size={17} aria-hidden />}
          onClick={() => setSearching(true)}
        />
      </Hint>
      <SearchDialog open={searching} onOpen={setSearching} onStage={onStage} />
    </div>
  );
}

function VariantChooser() {
  const desk = useDesk();
  const variants = useDeskState((state) => state.job.variants);
  const variant = useDeskState((state) => state.variant);
  const choices = Object.values(variants).sort((a, b) => a.position - b.position);
  if (choices.length === 0) return null;
  return (
    <div className="w-[150px] px-1">
      <Chooser<VariantId | "">
        label="Variant"
        hideLabel
        dark
        value={variant ?? ""}
        choices={[
          { value: "", label: "Base design" },
          ...choices.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChoose={(id) => void desk.setVariant(id === "" ? null : id)}
      />
    </div>
  );
}
