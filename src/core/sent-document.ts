/** A job with what belongs to it, as it is told to another thread: all of it first, then what changed. */
import { type Assets, applyDiff, type Diff, type Job } from "./job";
import { invariant } from "./kernel";
import { indexStockroom, type Stockroom, type StockroomData } from "./stockroom";

export type SentDocument = { readonly job: Job; readonly stockroom: Stockroom; readonly assets: Assets };

/** What is not there is as it was before; the first one has all. */
export type DocumentMessage = {
  readonly job?: Job;
  readonly diff?: Diff;
  readonly stockroom?: StockroomData;
  readonly assets?: Assets;
};

/** Keeps the document in step with one message after the other. Throws where the first does not say all. */
export function createDocumentReceiver(): (message: DocumentMessage) => SentDocument {
  let known: Partial<SentDocument> = {};
  return ({ job = known.job, diff, stockroom, assets = known.assets }) => {
    const room = stockroom ? indexStockroom(stockroom) : known.stockroom;
    invariant(job && room && assets, "the job was not sent");
    const document = { job: diff ? applyDiff(job, diff) : job, stockroom: room, assets };
    known = document;
    return document;
  };
}
