/** Finds which pieces the pages of a job place, away from the page. */
import { createPlacingAnswering, type PlacingMessage } from "@/core/placings";

const answered = createPlacingAnswering();

self.addEventListener("message", ({ data }: MessageEvent<PlacingMessage>) =>
  self.postMessage(answered(data)),
);
