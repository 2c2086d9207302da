"use client";
import { useQuery } from "@tanstack/react-query";
import type { StockroomData } from "@/core/stockroom";
import { Button } from "../common/button";
import { HomeFrame } from "../common/home-frame";
/** A desk that opens: the job is fetched once, and its name stands there until it is drawn. */
import { Fault } from "../common/notice";
import { answerOf, Unanswered } from "../common/queries";
import { UnreadablePage } from "../jobs/unreadable-page";
import { Desk } from "./desk";
import { deskAddress } from "./desk-address";
import type { DeskJob } from "./desk-store";
import type { Stage } from "./stages";

export type OpeningProps = {
  readonly job: { readonly id: string; readonly code: string; readonly title: string };
  readonly stage: Stage;
  readonly startWorker: () => Worker;
};

type Found = { readonly opened: DeskJob; readonly stockroom: StockroomData };

export function OpeningDesk({ job, stage, startWorker }: OpeningProps) {
  // Once: from then on the document moves by edits.
  const { data, error, isFetching, refetch } = useQuery({
    queryKey: ["job", job.id],
    queryFn: () => answerOf<Found>(deskAddress(job.id)),
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
    structuralSharing: false,
  });
  if (data) return <Desk {...data} stage={stage} startWorker={startWorker} />;
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
            Opening the job
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
