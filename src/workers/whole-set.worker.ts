/** Draws up the whole set of a job, away from the page: one answer to one question. */
import { createSetAnswering, type WholeSetMessage } from "@/core/whole-set";

const answered = createSetAnswering();

self.addEventListener("message", ({ data }: MessageEvent<WholeSetMessage>) =>
  self.postMessage(answered(data)),
);
