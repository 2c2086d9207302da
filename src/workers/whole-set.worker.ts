/** Draws up the whole set of a job, away from the page: to one question how many pages there are, as they come, and then the set. */
import { createSetAnswering, type WholeSetMessage } from "@/core/whole-set";

const answer = createSetAnswering();

self.addEventListener("message", ({ data }: MessageEvent<WholeSetMessage>) =>
  answer(data, (said) => self.postMessage(said)),
);
