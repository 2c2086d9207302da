"use client";
/** The desk with what it needs from folders that it does not know: where the layout worker lies. */
import { Desk, type DeskProps } from "@/ui/desk/desk";
import { startLayoutWorker } from "./start-worker";

export function DeskHere(props: Omit<DeskProps, "startWorker">) {
  return <Desk {...props} startWorker={startLayoutWorker} />;
}
