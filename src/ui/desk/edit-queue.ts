/**
 * Edits on their way to the server: the document as it was confirmed, those that are sent one after the other, and the
 * document with all of them, which is what is shown. An edit goes under one id until an answer comes, so that one whose
 * answer was lost is acknowledged and not done twice; one that no longer applies is told and offered again, never dropped.
 */
import { type Edit, type Job, type SimpleEdit, sharing, withEdit } from "@/core/job";
import { ok, type Result, sentence } from "@/core/kernel";
import { freshId } from "../common/fresh-id";
import type { Refusal } from "../common/http";
import type { GivenMarks } from "./computer";

export type StepNames = { readonly undo: string | null; readonly redo: string | null };
type SaveState = "saved" | "saving" | "unreachable";
type PendingEdit = {
  readonly id: string;
  readonly edit: Edit;
  /** The marks that it gives out are still being found; it is sent with them. Null: it is whole. */
  readonly whole: Promise<void> | null;
};

export type QueueState = {
  readonly revision: number;
  readonly confirmed: Job;
  /** Edits on their way, each with the id under which it is sent, once or again. */
  readonly pending: readonly PendingEdit[];
  /** The confirmed document with the pending edits. */
  readonly job: Job;
  readonly steps: StepNames;
  readonly saving: SaveState;
};

export type Notice = { readonly text: string; readonly retry: (() => void) | null };

type StepReply = {
  readonly revision: number;
  readonly steps: StepNames;
  readonly replayed: boolean;
  readonly job?: Job;
};

/** An edit and the marks that it gives out, as one: undone together. */
export const withMarks = (edit: Edit, marks: SimpleEdit): Edit =>
  edit.kind === "together"
    ? { ...edit, edits: [...edit.edits, marks] }
    : { kind: "together", edits: [edit, marks] };

export type QueueGround = {
  readonly read: () => QueueState;
  /** Sets state; what hangs on the document is computed where that is another one. */
  readonly write: (change: Partial<QueueState>) => void;
  /** Sends to the server; the error with status 0: it could not be reached. */
  readonly send: <T>(what: "/edits" | "/steps", body: object) => Promise<Result<T, Refusal>>;
  readonly wait: (ms: number) => Promise<void>;
  readonly notify: (notice: Notice) => void;
  /** Told with every revision that the server has confirmed. */
  readonly onRevision: (revision: number) => void;
  /** Makes an edit anew, as if somebody had made it now; the sentence why not, or null. */
  readonly submit: (edit: Edit) => string | null;
};

const AGAIN_MS = 1500;
/** Whether an answer may have been lost on its way: the same is sent until one comes. */
const isLost = ({ status }: Refusal) => status === 0 || status >= 500;

export function createEditQueue({ read, write, send, wait, notify, onRevision, submit }: QueueGround) {
  let sending: Promise<void> | null = null;
  let stepping: Promise<void> = Promise.resolve();
  /** While a step is on its way edits wait, or its answer would take them for older ones. */
  let inStep = false;
  /** The document under the draft that is shown; null while there is none. */
  let underDraft: Job | null = null;

  /** Takes an edit that was made on the shown document, which `after` is the outcome of, and sends it. */
  function add(edit: Edit, after: Job): void {
    write({ job: after, pending: [...read().pending, { id: freshId(), edit, whole: null }] });
    void flush();
  }

  /** The same for an edit whose marks come later, by `onMarks`; what follows waits with it, so that all stay in order. */
  function addUnmarked(edit: Edit, after: Job, onMarks: (told: (marks: GivenMarks) => void) => void): void {
    const id = freshId();
    let settle = () => {};
    const whole = new Promise<void>((resolve) => {
      settle = resolve;
    });
    onMarks((marks) => {
      const { pending, job } = read();
      settle();
      // It is no longer there when it did not apply to what came from elsewhere meanwhile; then its marks do not either.
      if (!pending.some((one) => one.id === id)) return;
      const made = marks ? withMarks(edit, marks.edit) : edit;
      const marked = marks === null ? null : marks.from === job ? ok(marks.job) : withEdit(job, marks.edit);
      write({
        pending: pending.map((one) => (one.id === id ? { id, edit: made, whole: null } : one)),
        ...(marked?.ok ? { job: marked.value } : {}),
      });
    });
    write({ job: after, pending: [...read().pending, { id, edit, whole }] });
    void flush();
  }

  /** Shows an edit while it is being made, each step instead of the one before; nothing is sent. */
  function showDraft(edit: Edit): void {
    underDraft ??= read().job;
    const after = withEdit(underDraft, edit);
    if (after.ok) write({ job: after.value });
  }

  /** Takes the draft away; whoever made it submits the last step as one edit. */
  function endDraft(): void {
    if (underDraft) write({ job: underDraft });
    underDraft = null;
  }

  /** Sends what is pending, one after the other; resolves when all of it is settled. */
  function flush(): Promise<void> {
    if (inStep) return stepping;
    sending ??= sendAll()
      .finally(() => {
        sending = null;
      })
      // One that was made in the very moment in which the last was settled.
      .then(() => (read().pending.length > 0 ? flush() : undefined));
    return sending;
  }

  async function sendAll(): Promise<void> {
    for (let next = read().pending[0]; next; next = read().pending[0]) {
      const { id, edit, whole } = next;
      write({ saving: "saving" });
      if (whole) {
        await whole;
        continue;
      }
      const reply = await send<StepReply>("/edits", { expectedRevision: read().revision, edit, id });
      if (reply.ok) confirm(reply.value, edit);
      else if (isLost(reply.problem)) {
        write({ saving: "unreachable" });
        await wait(AGAIN_MS);
      } else refuse(edit, reply.problem);
    }
    write({ saving: "saved" });
  }

  function confirm(reply: StepReply, edit: Edit): void {
    const { confirmed, pending, job } = read();
    const { revision, steps } = reply;
    const rest = pending.slice(1);
    if (reply.job) rebase(reply.job, revision, rest, steps);
    else {
      // The server did just what was done here: what is shown stays as it is, and nothing is computed anew.
      const after = rest.length === 0 ? ok(underDraft ?? job) : withEdit(confirmed, edit);
      write({ confirmed: after.ok ? after.value : confirmed, revision, pending: rest, steps });
    }
    if (reply.replayed)
      notify({
        text: "Someone else also changed this job. Your change was added after theirs.",
        retry: null,
      });
    onRevision(revision);
  }

  /** The server would not take an edit: its document stands, and the edit is offered again. */
  function refuse(edit: Edit, refusal: Refusal): void {
    const body = refusal.body as { job?: Job; revision?: number; steps?: StepNames } | null;
    const { confirmed, revision, pending, steps } = read();
    rebase(body?.job ?? confirmed, body?.revision ?? revision, pending.slice(1), body?.steps ?? steps);
    const again = () => {
      const refused = submit(edit);
      if (refused !== null) notify({ text: refused, retry: null });
    };
    notify({ text: refusal.message, retry: refusal.status === 409 ? again : null });
  }

  /** Puts the pending edits on another confirmed document; those that no longer apply are told. */
  function rebase(confirmed: Job, revision: number, pending: readonly PendingEdit[], steps: StepNames): void {
    underDraft = null;
    // The same content as before must stay the same object, or everything would be computed again.
    const base = sharing(read().job, confirmed);
    let job = base;
    const kept: PendingEdit[] = [];
    for (const one of pending) {
      const after = withEdit(job, one.edit);
      if (after.ok) {
        job = after.value;
        kept.push(one);
      } else notify({ text: sentence(after.problem), retry: null });
    }
    write({ confirmed: base, revision, pending: kept, steps, job });
  }

  /** A document that came from elsewhere, while nothing is pending. */
  const take = (job: Job, revision: number, steps: StepNames) => rebase(job, revision, [], steps);

  /** One step after the other: two answers that overtook one another would leave the older document on the desk. */
  function step(which: "undo" | "redo"): Promise<void> {
    stepping = stepping.then(() => stepOnce(which));
    return stepping;
  }

  async function stepOnce(which: "undo" | "redo"): Promise<void> {
    do await flush();
    while (sending !== null);
    inStep = true;
    try {
      await sendStep(which);
    } finally {
      inStep = false;
    }
    await flush();
  }

  async function sendStep(which: "undo" | "redo"): Promise<void> {
    const sent = { step: which, id: freshId(), expectedRevision: read().revision };
    let reply = await send<StepReply>("/steps", sent);
    while (!reply.ok && isLost(reply.problem)) {
      write({ saving: "unreachable" });
      await wait(AGAIN_MS);
      reply = await send<StepReply>("/steps", sent);
    }
    write({ saving: "saved" });
    if (!reply.ok) {
      const { job, revision, steps } = (reply.problem.body ?? {}) as Partial<StepReply>;
      if (job && revision !== undefined && steps) rebase(job, revision, read().pending, steps);
      notify({ text: reply.problem.message, retry: null });
      return;
    }
    const { job, revision, steps } = reply.value;
    // What was edited while the step was on its way stands on top of it.
    rebase(job ?? read().confirmed, revision, read().pending, steps);
    onRevision(revision);
  }

  return { add, addUnmarked, showDraft, endDraft, flush, step, take };
}
