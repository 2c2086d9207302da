/** Makes the records of a file of solids, with their ends joined and looked over, away from the page: of 2,000 pieces it takes seconds. */
import { type ImportAsked, importAsked } from "@/core/imports";

self.addEventListener("message", ({ data }: MessageEvent<ImportAsked>) => {
  self.postMessage(importAsked(data));
});
