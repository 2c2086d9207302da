/** Computes a large job for its desk, away from the page. */
import { type Asked, createAnswering } from "@/core/computing";
import { movedWith } from "@/core/transfer";

const answered = createAnswering((bytes) => new TextDecoder().decode(bytes));

self.addEventListener("message", ({ data }: MessageEvent<Asked>) => {
  const answer = answered(data);
  self.postMessage(answer, { transfer: movedWith(answer.parcel) });
});
