/** Draws the views of pages, away from the page. */
import { movedWith } from "@/core/transfer";
import { createViewAnswering, type ViewMessage } from "@/core/views";

const answered = createViewAnswering();

self.addEventListener("message", ({ data }: MessageEvent<ViewMessage>) => {
  const answer = answered(data);
  self.postMessage(answer, { transfer: movedWith(answer.parcel) });
});
