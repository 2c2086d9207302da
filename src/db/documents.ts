/**
 * Documents of jobs as they are read from their texts. Reading checks all of a document and brings it up to date, which
 * keeps the server busy for a second with a job of 20,000 pieces; what was read or written last is remembered with its text.
 */
import { type Job, readJob } from "@/core/job";
import { err, type Problem, type Result } from "@/core/kernel";

export type Document = {
  /** As it is stored. */
  readonly text: string;
  readonly job: Job;
  /** The text of `job`: the same text, where it was stored as it is read. */
  readonly read: string;
};

/** Signs of all texts that are remembered, together. */
const MOST_SIGNS = 40_000_000;

/** One for all parts of the server, each of which is built with a copy of this module. */
const held = globalThis as { rusticTallyDocuments?: Map<string, Document> };
held.rusticTallyDocuments ??= new Map();
/** By the ids of their jobs, the one that was used last at the end. */
const known = held.rusticTallyDocuments;

/** The document of a job in its stored text. */
export function readDocument(id: string, text: string): Result<Document, Problem> {
  const before = known.get(id);
  if (before?.text === text) {
    remember(id, before);
    return { ok: true, value: before };
  }
  const job = jobOf(text);
  if (!job.ok) return job;
  const own = JSON.stringify(job.value);
  const document = { text, job: job.value, read: own === text ? text : own };
  remember(id, document);
  return { ok: true, value: document };
}

/** The text of a job that is stored now, which need not be read again. */
export function writtenDocument(id: string, job: Job): string {
  const text = JSON.stringify(job);
  remember(id, { text, job, read: text });
  return text;
}

function jobOf(text: string): Result<Job, Problem> {
  try {
    return readJob(JSON.parse(text));
  } catch {
    return err({ kind: "malformed", what: "The job file", why: "it is not JSON" });
  }
}

function remember(id: string, document: Document): void {
  known.delete(id);
  known.set(id, document);
  let signs = [...known.values()].reduce((sum, one) => sum + signsOf(one), 0);
  for (const [oldest, one] of known) {
    if (signs <= MOST_SIGNS || oldest === id) break;
    known.delete(oldest);
    signs -= signsOf(one);
  }
}

const signsOf = ({ text, read }: Document): number => text.length + (read === text ? 0 : read.length);
