"use client";
/** The desk: head, ledger, picture and slip round one job, with one selection through all of them. */
import { useEffect, useLayoutEffect, useMemo, useState } from "react";
import { Group, Panel, Separator, useGroupRef } from "react-resizable-panels";
import { toast } from "sonner";
import { indexStockroom, type StockroomData } from "@/core/stockroom";
import { BuyLedger } from "../buy/buy-ledger";
import { CostPicture } from "../buy/cost-picture";
import { useNarrow } from "../common/use-narrow";
import { DrawingsGround, type DrawingWorkers } from "../drawings/drawings-ground";
import { PagePicture } from "../drawings/page-picture";
import { PagesLedger } from "../drawings/pages-ledger";
import { DeskGround } from "../layout/desk-ground";
import { LayoutLedger } from "../layout/layout-ledger";
import { LayoutPicture } from "../layout/layout-picture";
import { useLayoutRunner } from "../layout/use-layout-runner";
import { ModelPicture } from "../shape/model-picture";
import { ShapeLedger } from "../shape/shape-ledger";
import { TallyLedger } from "../tally/tally-ledger";
import { DeskContext } from "./desk-context";
import { type Computed, computedHere, createDesk, type DeskJob } from "./desk-store";
import { Head } from "./head";
import { LaterStage } from "./later-stage";
import { Slip } from "./slip";
import type { Stage } from "./stages";

export type DeskProps = {
  readonly opened: DeskJob;
  readonly stockroom: StockroomData;
  readonly stage: Stage;
  readonly startWorker: () => Worker;
  /** Starts a worker that draws views of pages. */
  readonly drawingWorkers: DrawingWorkers;
  /** Where the results of a large job come from; null: they are computed here. */
  readonly computed?: Computed | null;
};

export function Desk({
  opened,
  stockroom,
  stage: first,
  startWorker,
  drawingWorkers,
  computed = null,
}: DeskProps) {
  const [desk] = useState(() =>
    createDesk(opened, computed ?? computedHere(opened, indexStockroom(stockroom)), ({ text, retry }) => {
      if (retry)
        toast.error(text, {
          duration: Number.POSITIVE_INFINITY,
          action: { label: "Try again", onClick: retry },
        });
      else toast(text);
    }),
  );
  const [stage, setStage] = useState<Stage>(first);
  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => {
      if (desk.store.getState().pending.length > 0) event.preventDefault();
    };
    const look = () => void desk.refresh();
    window.addEventListener("beforeunload", leave);
    window.addEventListener("focus", look);
    return () => {
      window.removeEventListener("beforeunload", leave);
      window.removeEventListener("focus", look);
    };
  }, [desk]);
  const go = (next: Stage) => {
    setStage(next);
    window.history.replaceState(null, "", `?stage=${next}`);
  };
  return (
    <DeskContext value={desk}>
      <div className="flex h-screen flex-col overflow-hidden">
        <Head stage={stage} onStage={go} />
        <DrawingsGround active={stage === "drawings"} workers={drawingWorkers}>
          <DeskGround>
            <Stages stage={stage} onStage={go} startWorker={startWorker} />
          </DeskGround>
          <Slip stage={stage} onStage={go} />
        </DrawingsGround>
      </div>
    </DeskContext>
  );
}

/** Per cent of the width. */
const LEDGER_SHARE: Readonly<Record<Stage, number>> = {
  shape: 42,
  tally: 58,
  layout: 24,
  buy: 62,
  drawings: 26,
  floor: 42,
};

/** Per cent of the height, where the panes stand one over the other. */
const STACKED_SHARE = 52;

function Stages({
  stage,
  onStage,
  startWorker,
}: {
  readonly stage: Stage;
  readonly onStage: (stage: Stage) => void;
  readonly startWorker: () => Worker;
}) {
  const runner = useLayoutRunner(startWorker);
  const [task, setTask] = useState<string | null>(null);
  const ledger = useMemo(() => {
    switch (stage) {
      case "shape":
        return <ShapeLedger />;
      case "tally":
        return <TallyLedger />;
      case "layout":
        return <LayoutLedger runner={runner} task={task} onTask={setTask} />;
      case "buy":
        return <BuyLedger onStage={onStage} />;
      case "drawings":
        return <PagesLedger />;
      default:
        return <LaterStage />;
    }
  }, [stage, runner, task, onStage]);
  // Kept as they are while only the selection changes: the panes follow it themselves.
  const picture = useMemo(() => {
    if (stage === "layout") return <LayoutPicture runner={runner} task={task} />;
    if (stage === "drawings") return <PagePicture />;
    return stage === "buy" ? <CostPicture /> : <ModelPicture canDraw={stage === "shape"} />;
  }, [stage, runner, task]);
  const group = useGroupRef();
  const narrow = useNarrow();
  // Set, not made anew with the stage: the 3D view goes on from one to the next as somebody turned it.
  useLayoutEffect(() => {
    const list = narrow ? STACKED_SHARE : LEDGER_SHARE[stage];
    group.current?.setLayout({ list, picture: 100 - list });
  }, [stage, group, narrow]);
  const [first] = useState(stage);
  return (
    <main className="min-h-0 flex-1">
      <Group groupRef={group} orientation={narrow ? "vertical" : "horizontal"} className="h-full">
        <Panel id="list" defaultSize={String(LEDGER_SHARE[first])} minSize="18">
          <section aria-label="List" className="flex h-full min-w-0 flex-col bg-leaf">
            {ledger}
          </section>
        </Panel>
        <Separator
          className={`${narrow ? "h-[7px] border-y" : "w-[5px] border-x"} border-seam bg-ground hover:bg-brass-pale data-[separator=active]:bg-brass`}
          aria-label={narrow ? "Height of the list" : "Width of the list"}
        />
        <Panel id="picture" minSize="20">
          <section aria-label="3D view" className="relative flex h-full min-w-0 flex-col bg-leaf">
            {picture}
          </section>
        </Panel>
      </Group>
    </main>
  );
}
