"use client";
/** The batch with the layout worker, which its folder does not know. */
import { BatchDesk, type BatchDeskProps } from "@/ui/batch/batch-desk";
import { startLayoutWorker } from "../../jobs/[id]/start-worker";

export function BatchHere(props: Omit<BatchDeskProps, "startWorker">) {
  return <BatchDesk {...props} startWorker={startLayoutWorker} />;
}
