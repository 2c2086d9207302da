/**
 * The cards of the Jobs page. What a card says of a job is computed once for each revision of the job and state of the
 * stockroom; its picture leaves as a file of its own that a browser keeps.
 */
import { createHash } from "node:crypto";
import { thumbnail } from "@/core/drawing";
import { assetsOf, type Job, resolveSizes } from "@/core/job";
import { sentence } from "@/core/kernel";
import { countStanding, type Shape, shapeJob } from "@/core/shape";
import { indexStockroom, type Stockroom } from "@/core/stockroom";
import {
  type Connection,
  findJob,
  type JobSummary,
  type ListedJob,
  listJobs,
  readAssets,
  readJobs,
  readStock,
} from "@/db";
import { drawingToSvg } from "@/formats/svg";

/** What is drawn and typed in a job, or the sentence why it cannot be read. `picture`: its address, null for none. */
export type CardFacts =
  | {
      readonly kind: "readable";
      readonly pieces: number;
      readonly typed: number;
      readonly picture: string | null;
    }
  | { readonly kind: "unreadable"; readonly why: string };
export type Card = Omit<JobSummary, "updatedAt"> & { readonly facts: CardFacts };

const PICTURE = { width: 260, height: 170 } as const;
const MOST_KEPT = 2_000;
const kept = new Map<string, CardFacts>();

/** All jobs as cards. */
export async function jobCards(db: Connection): Promise<readonly Card[]> {
  const { state } = await stockNow(db);
  const keyOf = ({ id, revision, updatedAt }: JobSummary) => `${id}/${revision}/${updatedAt}/${state}`;
  const all = await listJobs(db);
  const fresh = await readJobs(
    db,
    all.filter((summary) => !kept.has(keyOf(summary))).map(({ id }) => id),
  );
  if (kept.size + fresh.length > MOST_KEPT) kept.clear();
  for (const one of fresh) kept.set(keyOf(one), factsOf(one, state));
  return all.map((summary) => {
    const { id, code, title, revision } = summary;
    return {
      id,
      code,
      title,
      revision,
      facts: kept.get(keyOf(summary)) ?? unreadable("It was changed just now; load the page again."),
    };
  });
}

const unreadable = (why: string): CardFacts => ({ kind: "unreadable", why });

function factsOf(listed: ListedJob, state: string): CardFacts {
  if (!listed.job.ok) return unreadable(sentence(listed.job.problem));
  try {
    return readFacts(listed, listed.job.value, state);
  } catch (thrown) {
    // One job that cannot be computed keeps no other from being opened.
    console.error(`job ${listed.id} cannot be computed:`, thrown);
    return unreadable("It cannot be computed.");
  }
}

function readFacts({ id, revision }: JobSummary, job: Job, state: string): CardFacts {
  const { pieces, anything } = countStanding(job, resolveSizes(job, null));
  return {
    kind: "readable",
    pieces,
    typed: Object.keys(job.typedPieces).length,
    picture: anything ? `/api/jobs/${encodeURIComponent(id)}/picture?of=${revision}-${state}` : null,
  };
}

const shapeOf = (job: Job, stockroom: Stockroom): Shape => shapeJob(job, resolveSizes(job, null), stockroom);

async function stockNow(db: Connection) {
  const { data } = await readStock(db);
  const state = createHash("sha256").update(JSON.stringify(data)).digest("hex").slice(0, 12);
  return { stockroom: indexStockroom(data), state };
}

/** The picture of a job as an SVG file, with the tag of what it was drawn from; null when there is no such job. */
export async function jobPicture(
  db: Connection,
  id: string,
): Promise<{ readonly svg: string; readonly tag: string } | null> {
  const [stored, { stockroom, state }] = await Promise.all([findJob(db, id), stockNow(db)]);
  if (!stored) return null;
  const { width, height } = PICTURE;
  const assets = await readAssets(db, assetsOf(stored.job));
  const drawing = thumbnail(shapeOf(stored.job, stockroom), width, height, assets);
  const svg = drawingToSvg(drawing, stored.title);
  return { svg, tag: `${stored.revision}-${state}` };
}
