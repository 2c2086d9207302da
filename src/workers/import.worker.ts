/** Makes the records of a file of solids, with their ends joined and looked over, away from the page: of 2,000 pieces it takes seconds. */
import { type FoundFile, type ImportChoices, imported } from "@/core/imports";
import type { Job } from "@/core/job";
import type { Stockroom } from "@/core/stockroom";

export type ImportAsked = {
  readonly file: FoundFile;
  readonly choices: ImportChoices;
  readonly job: Job;
  readonly stockroom: Stockroom;
  /** Eight signs that no two imports share: its ids begin with them. */
  readonly stamp: string;
};

self.addEventListener("message", ({ data }: MessageEvent<ImportAsked>) => {
  const { file, choices, job, stockroom, stamp } = data;
  let count = 0;
  const newId = (kind: string) => `${kind}-${stamp}${(count++).toString(16).padStart(5, "0")}`;
  self.postMessage(imported(file, choices, job, stockroom, newId));
});
