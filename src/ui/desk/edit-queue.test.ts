/** Edits on their way: lost answers, refusals, other people, steps in between. Nothing is lost, nothing is done twice. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Edit, emptyJob, type Job, withEdit } from "@/core/job";
import { err, ok, type Result, sentence } from "@/core/kernel";
import type { Refusal } from "../common/http";
import type { GivenMarks } from "./computer";
import { createEditQueue, type Notice, type QueueState } from "./edit-queue";

const START = emptyJob({ code: "T-1", title: "Start", unit: "mm" });
const title = (text: string): Edit => ({ kind: "changeInfo", set: { title: text } });
const batch = (count: number): Edit => ({ kind: "changeInfo", set: { batch: count } });
const must = (result: Result<Job, unknown>): Job => {
  if (!result.ok) throw new Error("the edit applies");
  return result.value;
};

type Fate = "answers" | "lostBefore" | "lostAfter" | "refuses";

/** A server in memory: an edit log by id, undo of the last edit; what becomes of each request is told beforehand. */
class Server {
  job = START;
  revision = 1;
  readonly seen: string[] = [];
  readonly applied: string[] = [];
  private readonly before: Job[] = [];
  private readonly fates: Fate[];
  /** Called before each request is looked at. */
  onRequest: (() => Promise<void>) | null = null;

  constructor(fates: readonly Fate[] = []) {
    this.fates = [...fates];
  }

  edit(edit: Edit): void {
    this.before.push(this.job);
    this.job = must(withEdit(this.job, edit));
    this.revision++;
  }

  readonly send = async <T>(what: "/edits" | "/steps", body: object): Promise<Result<T, Refusal>> => {
    const request = body as { id: string; edit?: Edit; expectedRevision: number };
    this.seen.push(request.id);
    await this.onRequest?.();
    const fate = this.fates.shift() ?? "answers";
    if (fate === "lostBefore")
      return err({ status: 0, message: "The server cannot be reached.", body: null });
    if (fate === "refuses") {
      const { job, revision } = this;
      return err({ status: 409, message: "Changed meanwhile.", body: { job, revision, steps: this.steps } });
    }
    const known = this.applied.includes(request.id);
    const replayed = !known && request.expectedRevision !== this.revision;
    if (!known) {
      this.applied.push(request.id);
      if (what === "/edits" && request.edit) this.edit(request.edit);
      else {
        this.job = this.before.pop() ?? this.job;
        this.revision++;
      }
    }
    if (fate === "lostAfter") return err({ status: 502, message: "No answer.", body: null });
    const { revision, steps, job } = this;
    const whole = known || replayed || what === "/steps";
    return ok({ revision, steps, replayed, ...(whole ? { job } : {}) } as T);
  };

  private get steps() {
    return { undo: this.before.length > 0 ? "Change" : null, redo: null };
  }
}

function open(server: Server) {
  let state: QueueState = {
    revision: server.revision,
    confirmed: server.job,
    pending: [],
    job: server.job,
    steps: { undo: null, redo: null },
    saving: "saved",
  };
  const notices: Notice[] = [];
  const saving: string[] = [];
  const hooks: { onSaved?: () => void } = {};
  const queue = createEditQueue({
    read: () => state,
    write: (change) => {
      state = { ...state, ...change };
      if (change.saving) saving.push(change.saving);
      if (change.saving === "saved") hooks.onSaved?.();
    },
    send: server.send,
    wait: () => Promise.resolve(),
    notify: (notice) => notices.push(notice),
    onRevision: () => {},
    submit: (edit) => submit(edit),
  });
  function submit(edit: Edit): string | null {
    const after = withEdit(state.job, edit);
    if (!after.ok) return sentence(after.problem);
    queue.add(edit, after.value);
    return null;
  }
  /** An edit of a large job: its marks are told later, by what is given back. */
  function submitUnmarked(edit: Edit): (marks: GivenMarks) => void {
    let tell: ((marks: GivenMarks) => void) | null = null;
    queue.addUnmarked(edit, must(withEdit(state.job, edit)), (told) => {
      tell = told;
    });
    return (marks) => tell?.(marks);
  }
  return {
    queue,
    submit,
    submitUnmarked,
    notices,
    saving,
    hooks,
    state: () => state,
    title: () => state.job.info.job.title,
  };
}

/** Marks that an edit gives out, on the document that they were found for. */
function marksOn(from: Job, mark: string): NonNullable<GivenMarks> {
  const edit = { kind: "keepMarks" as const, marks: [{ id: `row ${mark}`, mark }], drop: [] };
  return { from, edit, job: must(withEdit(from, edit)) };
}

describe("edits on their way", () => {
  it("are shown at once and confirmed in their order, without the document coming back", async () => {
    const server = new Server();
    const desk = open(server);
    desk.submit(title("One"));
    desk.submit(batch(3));
    expect(desk.title()).toBe("One");
    const shown = desk.state().job;
    await desk.queue.flush();
    expect(desk.state()).toMatchObject({ revision: 3, pending: [], saving: "saved" });
    // The very document that was shown: nothing hangs on it anew.
    expect(desk.state().job).toBe(shown);
    expect(desk.state().confirmed).toEqual(server.job);
  });

  it.each<[string, Fate]>([
    ["before it was saved", "lostBefore"],
    ["after it was saved", "lostAfter"],
  ])("an answer that is lost %s: it is sent again under its id, and done once", async (_, fate) => {
    const server = new Server([fate, fate]);
    const desk = open(server);
    desk.submit(title("Once"));
    await desk.queue.flush();
    expect(new Set(server.seen).size).toBe(1);
    expect(server.seen).toHaveLength(3);
    expect(server.revision).toBe(2);
    expect(desk.title()).toBe("Once");
    expect(desk.saving).toContain("unreachable");
    expect(desk.state()).toMatchObject({ revision: 2, pending: [], saving: "saved" });
  });

  it("waits for its marks, is sent with them as one, and what follows keeps its place", async () => {
    const server = new Server();
    const desk = open(server);
    const tell = desk.submitUnmarked(title("Marked"));
    const from = desk.state().job;
    desk.submit(batch(4));
    await Promise.resolve();
    expect(server.seen).toEqual([]);
    expect(desk.title()).toBe("Marked");
    tell(marksOn(from, "A"));
    await desk.queue.flush();
    expect(desk.state()).toMatchObject({ revision: 3, pending: [], saving: "saved" });
    expect(desk.state().job).toEqual(server.job);
    expect(Object.values(server.job.marks).map(({ mark }) => mark)).toEqual(["A"]);
    // Undone together: the later edit, then title and marks.
    await desk.queue.step("undo");
    await desk.queue.step("undo");
    expect(desk.state().job).toEqual(START);
  });

  it("is sent without marks where there are none, and shows the very document that was computed with them", async () => {
    const server = new Server();
    const desk = open(server);
    desk.submitUnmarked(title("None"))(null);
    const tell = desk.submitUnmarked(title("Some"));
    const marks = marksOn(desk.state().job, "B");
    tell(marks);
    expect(desk.state().job).toBe(marks.job);
    await desk.queue.flush();
    expect(desk.state().job).toEqual(server.job);
  });

  it("drops the marks of an edit that gave way to another document meanwhile", async () => {
    const server = new Server();
    const desk = open(server);
    const tell = desk.submitUnmarked(title("Here"));
    const from = desk.state().job;
    desk.queue.take(must(withEdit(START, batch(9))), 5, { undo: null, redo: null });
    expect(desk.state().pending).toEqual([]);
    tell(marksOn(from, "C"));
    await desk.queue.flush();
    expect(desk.state().job.marks).toEqual({});
  });

  it("one that is refused gives way to the server's document, is told, and can be made again on top of it", async () => {
    const server = new Server(["refuses"]);
    const desk = open(server);
    server.edit(batch(7));
    desk.submit(title("Mine"));
    await desk.queue.flush();
    expect(desk.state().job).toEqual(server.job);
    expect(desk.title()).toBe("Start");
    const [notice] = desk.notices;
    expect(notice?.text).toBe("Changed meanwhile.");
    notice?.retry?.();
    expect(desk.title()).toBe("Mine");
    await desk.queue.flush();
    expect(server.job.info.job).toMatchObject({ title: "Mine", batch: 7 });
  });

  it("stand on top of what somebody else did, and those behind a refused one stay", async () => {
    const server = new Server(["answers", "refuses"]);
    const desk = open(server);
    server.edit(batch(5));
    desk.submit(title("First"));
    desk.submit(title("Second"));
    desk.submit({ kind: "changeInfo", set: { code: "T-2" } });
    await desk.queue.flush();
    expect(desk.notices.map(({ text }) => text)).toContain(
      "Someone else also changed this job. Your change was added after theirs.",
    );
    expect(desk.state().job).toEqual(server.job);
    expect(server.job.info.job).toMatchObject({ title: "First", code: "T-2", batch: 5 });
  });

  it("made while a step is on its way wait for it, and stand on top of what it leaves", async () => {
    const server = new Server();
    const desk = open(server);
    desk.submit(title("Gone"));
    await desk.queue.flush();
    let go = () => {};
    server.onRequest = () => new Promise((resolve) => (go = resolve));
    const undone = desk.queue.step("undo");
    while (server.seen.length < 2) await Promise.resolve();
    desk.submit(batch(9));
    server.onRequest = null;
    go();
    await undone;
    await desk.queue.flush();
    expect(desk.state().job.info.job).toMatchObject({ title: "Start", batch: 9 });
    expect(desk.state().job).toEqual(server.job);
  });

  it("made in the very moment in which the last one was settled are sent too", async () => {
    const server = new Server();
    const desk = open(server);
    let more = true;
    desk.hooks.onSaved = () => {
      if (more) desk.submit(batch(4));
      more = false;
    };
    desk.submit(title("First"));
    await desk.queue.flush();
    expect(desk.state().pending).toEqual([]);
    expect(server.job.info.job).toMatchObject({ title: "First", batch: 4 });
  });

  it("nothing is called saved while an edit waits for a step", async () => {
    const server = new Server();
    const desk = open(server);
    let go = () => {};
    server.onRequest = () =>
      new Promise((resolve) => {
        go = resolve;
      });
    const undone = desk.queue.step("undo");
    while (server.seen.length === 0) await Promise.resolve();
    const told = desk.saving.length;
    desk.submit(batch(9));
    for (let i = 0; i < 20; i++) await Promise.resolve();
    expect(desk.saving.slice(told)).toEqual([]);
    server.onRequest = null;
    go();
    await undone;
    expect(desk.state()).toMatchObject({ pending: [], saving: "saved" });
    expect(server.job.info.job.batch).toBe(9);
  });

  it("a step whose answer is lost goes back once", async () => {
    const server = new Server(["answers", "answers", "lostAfter"]);
    const desk = open(server);
    desk.submit(title("One"));
    desk.submit(title("Two"));
    await desk.queue.step("undo");
    expect(desk.title()).toBe("One");
    expect(server.revision).toBe(4);
  });

  it("a draft is shown and sends nothing; a confirmation meanwhile leaves it standing", async () => {
    const server = new Server();
    const desk = open(server);
    desk.submit(batch(2));
    desk.queue.showDraft(title("Dragged"));
    desk.queue.showDraft(title("Dragged on"));
    await desk.queue.flush();
    expect(desk.title()).toBe("Dragged on");
    desk.queue.endDraft();
    expect(desk.title()).toBe("Start");
    expect(server.job.info.job.title).toBe("Start");
    expect(desk.state().confirmed).toEqual(server.job);
  });

  it("whatever becomes of the answers, in the end the desk shows what the server holds, each edit done once or told", async () => {
    const fate = fc.constantFrom<Fate>("answers", "answers", "lostBefore", "lostAfter", "refuses");
    const act = fc.constantFrom("title", "batch", "code", "undo", "theirs");
    await fc.assert(
      fc.asyncProperty(
        fc.array(fate, { maxLength: 12 }),
        fc.array(act, { maxLength: 10 }),
        async (fates, acts) => {
          const server = new Server(fates);
          const desk = open(server);
          let made = 0;
          const steps: Promise<void>[] = [];
          for (const [i, what] of acts.entries()) {
            if (what === "theirs") server.edit(title(`Theirs ${i}`));
            else if (what === "undo") steps.push(desk.queue.step("undo"));
            else {
              made++;
              desk.submit(
                what === "title"
                  ? title(`Mine ${i}`)
                  : what === "batch"
                    ? batch(i + 2)
                    : { kind: "changeInfo", set: { code: `C-${i}` } },
              );
            }
            if (i % 3 === 0) await Promise.resolve();
          }
          await Promise.all(steps);
          await desk.queue.flush();
          expect(desk.state().pending).toEqual([]);
          expect(desk.state().job).toEqual(desk.state().confirmed);
          expect(new Set(server.applied).size).toBe(server.applied.length);
          // Somebody else's edits behind the last answer are fetched by the page, not by the queue.
          if (desk.state().revision === server.revision) expect(desk.state().job).toEqual(server.job);
          const told = desk.notices.filter(({ retry }) => retry !== null).length;
          const undone = acts.filter((what) => what === "undo").length;
          expect(server.applied.length).toBeGreaterThanOrEqual(made - told);
          expect(server.applied.length).toBeLessThanOrEqual(made + undone);
        },
      ),
      { numRuns: 200 },
    );
  });
});
