"use client";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { isLarge } from "@/core/computing";
import { indexStockroom, type StockroomData } from "@/core/stockroom";
import { Button } from "../common/button";
import { HomeFrame } from "../common/home-frame";
import { answerIn } from "../common/http";
/** A desk that opens: the job is fetched once, and its name stands there until it is drawn. */
import { Fault } from "../common/notice";
import { bytesOf, orUnanswered, Unanswered } from "../common/queries";
import { threadOf } from "../common/thread";
import type { DrawingWorkers } from "../drawings/drawings-ground";
import { UnreadablePage } from "../jobs/unreadable-page";
import { createRemoteComputer, firstResults, restAWhile } from "./computer";
import { Desk } from "./desk";
import { deskAddress } from "./desk-address";
import type { Computed, DeskJob } from "./desk-store";
import type { Stage } from "./stages";

export type OpeningProps = {
  readonly job: { readonly id: string; readonly code: string; readonly title: string };
  readonly stage: Stage;
  readonly startWorker: () => Worker;
  /** Starts a worker that computes a large job. */
  readonly startDeskWorker: () => Worker;
  /** Start workers for the pages. */
  readonly drawingWorkers: DrawingWorkers;
};

type FoundJob = { readonly opened: DeskJob; readonly stockroom: StockroomData };
/** With the results of a large job, which are waited for before anything is shown. */
type Ready = FoundJob & { readonly computed: Computed | null };

/** Bytes. To read a longer text takes the page as long as it may be busy. */
const LONG_TEXT = 2_000_000;

async function ready(id: string, startDeskWorker: () => Worker, onFound: () => void): Promise<Ready> {
  const bytes = await bytesOf(deskAddress(id));
  const remote = () =>
    createRemoteComputer({
      start: threadOf(startDeskWorker),
      rest: restAWhile,
      now: () => performance.now(),
    });
  if (bytes.byteLength > LONG_TEXT) {
    onFound();
    const computer = remote();
    const there = await computer.open<FoundJob>(bytes);
    if (there?.computed) return { ...there.found, computed: { computer, ...there.computed } };
    computer.end();
    if (there) return { ...there.found, computed: null };
  }
  // A thread that ended has taken the bytes with it.
  const again = bytes.byteLength > 0 ? bytes : await bytesOf(deskAddress(id));
  const found = orUnanswered(answerIn<FoundJob>(again));
  const { job, layouts, rack } = found.opened;
  if (!isLarge(job)) return { ...found, computed: null };
  onFound();
  const stockroom = indexStockroom(found.stockroom);
  const computer = remote();
  const results = await firstResults(computer, { job, variant: null, stockroom, layouts, rack });
  return { ...found, computed: { computer, results, stockroom } };
}

/** Ends the worker of a desk that is left; one that is only taken over by another render goes on. */
function useEndOf(computed: Computed | null | undefined): void {
  const leaving = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    clearTimeout(leaving.current);
    return () => {
      leaving.current = setTimeout(() => computed?.computer.end(), 0);
    };
  }, [computed]);
}

export function OpeningDesk({ job, stage, startWorker, startDeskWorker, drawingWorkers }: OpeningProps) {
  const [found, setFound] = useState(false);
  // Once: from then on the document moves by edits.
  const { data, error, isFetching, refetch } = useQuery({
    queryKey: ["job", job.id],
    queryFn: () => ready(job.id, startDeskWorker, () => setFound(true)),
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
    structuralSharing: false,
  });
  useEndOf(data?.computed);
  // Shown when it is made: in stretches, as the page can be busy with a large job for a second otherwise.
  const shown = useDeferredValue(data);
  if (shown)
    return <Desk {...shown} stage={stage} startWorker={startWorker} drawingWorkers={drawingWorkers} />;
  if (error instanceof Unanswered && error.refusal.status === 422)
    return <UnreadablePage why={error.message} id={job.id} />;
  return (
    <HomeFrame current="Jobs">
      <div className="mx-auto max-w-[720px] px-6 py-10">
        <h1 className="font-semibold font-slab text-[26px]">
          {job.code} {job.title}
        </h1>
        {error === null || isFetching ? (
          <p role="status" className="mt-3 text-ink-soft">
            {found ? "Computing the job. A large one takes some seconds." : "Opening the job"}
          </p>
        ) : (
          <>
            <Fault className="mt-3 mb-4">{error.message}</Fault>
            <Button onClick={() => void refetch()}>Try again</Button>
          </>
        )}
      </div>
    </HomeFrame>
  );
}
