"use client";
import { useEffect, useState } from "react";
import type { StockroomData } from "@/core/stockroom";
import { Button } from "../common/button";
import { HomeFrame } from "../common/home-frame";
import { call } from "../common/http";
/** A desk that opens: the job is fetched once, and its name stands there until it is drawn. */
import { Fault } from "../common/notice";
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
type State =
  | { readonly kind: "opening" }
  | { readonly kind: "there"; readonly found: Found }
  | { readonly kind: "unreadable" | "failed"; readonly why: string };

export function OpeningDesk({ job, stage, startWorker }: OpeningProps) {
  const [state, setState] = useState<State>({ kind: "opening" });
  const [tries, setTries] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another try fetches again
  useEffect(() => {
    let gone = false;
    void call<Found>("GET", deskAddress(job.id)).then((reply) => {
      if (gone) return;
      if (reply.ok) return setState({ kind: "there", found: reply.value });
      const { status, message } = reply.problem;
      setState({ kind: status === 422 ? "unreadable" : "failed", why: message });
    });
    return () => {
      gone = true;
    };
  }, [job.id, tries]);
  if (state.kind === "there") return <Desk {...state.found} stage={stage} startWorker={startWorker} />;
  if (state.kind === "unreadable") return <UnreadablePage why={state.why} id={job.id} />;
  const again = () => {
    setState({ kind: "opening" });
    setTries(tries + 1);
  };
  return (
    <HomeFrame current="Jobs">
      <div className="mx-auto max-w-[720px] px-6 py-10">
        <h1 className="font-semibold font-slab text-[26px]">
          {job.code} {job.title}
        </h1>
        {state.kind === "opening" ? (
          <p role="status" className="mt-3 text-ink-soft">
            Opening the job
          </p>
        ) : (
          <>
            <Fault className="mt-3 mb-4">{state.why}</Fault>
            <Button onClick={again}>Try again</Button>
          </>
        )}
      </div>
    </HomeFrame>
  );
}
