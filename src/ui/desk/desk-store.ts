/**
 * The state of one open desk: the document as confirmed by the server with the edits that are still on
 * their way on top, the results computed from it, and the one selection that all panes share.
 */

import { createStore } from "zustand";
import type { Vec3 } from "@/core/geometry";
import {
  type Asset,
  type AssetId,
  type Assets,
  assetIdOf,
  assetsOfPapers,
  type Edit,
  findAssembly,
  type Home,
  type Job,
  NO_ASSETS,
  type VariantId,
  withEdit,
} from "@/core/job";
import { err, invariant, ok, type Problem, type Result, sentence } from "@/core/kernel";
import type { SavedLayout } from "@/core/layout";
import type { Results } from "@/core/pipeline";
import {
  asUsual,
  type BoardEntry,
  indexStockroom,
  type Rack,
  type RackPiece,
  type SectionEntry,
  type Stockroom,
} from "@/core/stockroom";
import { markPicked, type PickRule } from "@/core/tally";
import { call } from "../common/http";
import type { EntryFault } from "../stockroom/entry-fault";
import { newSection } from "../stockroom/new-entry";
import { type Computer, createLocalComputer } from "./computer";
import { createEditQueue, type Notice, type QueueState, type StepNames, withMarks } from "./edit-queue";
import { type History, NO_HISTORY, type Offered, offered, stepped, withStep } from "./history";

/** What the server hands to a desk that opens. */
export type DeskJob = {
  readonly id: string;
  readonly revision: number;
  readonly job: Job;
  readonly layouts: readonly SavedLayout[];
  readonly rack: Rack;
  readonly steps: StepNames;
  /** The name of the shop, as it stands on papers. */
  readonly shop: string;
};

/** What a release took out of the rack and put into it. */
export type Released = { readonly left: readonly RackPiece[]; readonly entered: readonly RackPiece[] };

export type DeskState = QueueState & {
  readonly id: string;
  readonly stockroom: Stockroom;
  readonly variant: VariantId | null;
  readonly layouts: readonly SavedLayout[];
  readonly rack: Rack;
  /** Shapes from files that the job refers to, as far as they have arrived. */
  readonly assets: Assets;
  /** Of the document as it is, or of one before it while `computing`. */
  readonly results: Results;
  readonly computing: boolean;
  /** Ids of the records that are selected. */
  readonly selected: ReadonlySet<string>;
  /** Ids of the records that the picture leaves out for now; lists know nothing of it. */
  readonly hidden: ReadonlySet<string>;
  /** The assembly that is open: what is drawn goes into it; null: the job itself. */
  readonly inside: Home;
  /** The list that the tally shows, by its id; null: the cut list. */
  readonly list: string | null;
  /** The page of the drawings that is open; null, or gone: the first. */
  readonly page: string | null;
  /** From where the 3D view was looked at last: towards whoever looks at it. */
  readonly seenFrom: Vec3 | null;
  readonly shop: string;
  /** While marks are given by picking: which comes next. */
  readonly marking: PickRule | null;
  /** Edits and changes of layouts since the desk was opened. */
  readonly history: History;
};

/** What Undo or Redo does next, in words; null: nothing. */
export function nextStep(state: DeskState, which: "undo" | "redo"): Offered {
  const { undo, redo } = state.steps;
  // An edit that is still on its way has no name on the server.
  const server = { undo: undo ?? (state.pending.length > 0 ? "the last edit" : null), redo };
  return offered(state.history, which, server, state.layouts);
}

/** Where results come from, and those of the job as it was opened. */
export type Computed = {
  readonly computer: Computer;
  readonly results: Results;
  /** The very object that they were computed with. */
  readonly stockroom: Stockroom;
};

/** A job that is computed in the page. */
export function computedHere({ job, layouts, rack }: DeskJob, stockroom: Stockroom): Computed {
  const computer = createLocalComputer();
  const results = computer.compute({ job, variant: null, stockroom, layouts, rack });
  invariant(results, "the page computes at once");
  return { computer, results, stockroom };
}

/** Why an entry is not added: what was typed, or what the server says of it. */
export type AddedFault = EntryFault | { readonly kind: "refused"; readonly message: string };

export type Desk = ReturnType<typeof createDesk>;

/** Makes the desk of one job. `notify` shows a message to the person. */
export function createDesk(
  opened: DeskJob,
  { computer, results, stockroom }: Computed,
  notify: (notice: Notice) => void,
) {
  const store = createStore<DeskState>(() => ({
    id: opened.id,
    stockroom,
    revision: opened.revision,
    confirmed: opened.job,
    pending: [],
    job: opened.job,
    variant: null,
    layouts: opened.layouts,
    rack: opened.rack,
    steps: opened.steps,
    assets: NO_ASSETS,
    results,
    computing: false,
    selected: new Set(),
    hidden: new Set(),
    inside: null,
    list: null,
    page: null,
    seenFrom: null,
    shop: opened.shop,
    marking: null,
    history: NO_HISTORY,
    saving: "saved",
  }));
  const channel =
    typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(`rustic-tally:${opened.id}`);
  const url = (rest: string) => `/api/jobs/${encodeURIComponent(opened.id)}${rest}`;

  const queue = createEditQueue({
    read: store.getState,
    write: (change) => (change.job === undefined ? store.setState(change) : put(change)),
    send: (what, body) => call("POST", url(what), body),
    wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
    notify,
    onRevision: (revision) => channel?.postMessage(revision),
    submit,
  });

  /** Sets state and recomputes what hangs on it; stages whose inputs are the same objects are not run again. */
  function put(change: Partial<DeskState>): void {
    const next = { ...store.getState(), ...change };
    // The open assembly may be gone by now, by undo or by someone else.
    const inside = findAssembly(next.job, next.inside) ? next.inside : null;
    const results = computer.compute(next);
    store.setState({ ...change, inside, ...(results ? { results, computing: false } : { computing: true }) });
    void fetchAssets();
  }
  computer.onResults = (results, newest) => store.setState({ results, computing: !newest });

  const withAsset = (id: AssetId, asset: Asset) =>
    store.setState(({ assets }) => ({ assets: new Map(assets).set(id, asset) }));
  const asked = new Set<AssetId>();

  /** Fetches the shapes that the job refers to and that are not here; one that does not come is asked for again later. */
  async function fetchAssets(): Promise<void> {
    const { job, stockroom: stock } = store.getState();
    for (const id of assetsOfPapers(job, stock)) {
      if (asked.has(id) || store.getState().assets.has(id)) continue;
      asked.add(id);
      const reply = await call<Asset>("GET", `/api/assets/${id}`);
      if (reply.ok) withAsset(id, reply.value);
      else asked.delete(id);
    }
  }

  /** An asset that is not drawn, and not kept here; null: it does not come. */
  async function fetchAsset(id: AssetId): Promise<Asset | null> {
    const reply = await call<Asset>("GET", `/api/assets/${id}`);
    return reply.ok ? reply.value : null;
  }

  /** Stores a shape on the server, which a job may refer to from then on; the sentence why not, or null. */
  async function storeAsset(asset: Asset): Promise<string | null> {
    const id = assetIdOf(asset);
    const reply = await call("PUT", `/api/assets/${id}`, asset);
    if (!reply.ok) return reply.problem.message;
    if (asset.kind !== "read") withAsset(id, asset);
    return null;
  }

  /** Puts an edit and the marks that the tally after it newly gives out into the queue. */
  function added(edit: Edit): Result<null, Problem> {
    const { job, variant, stockroom: stock, layouts, rack } = store.getState();
    const after = withEdit(job, edit);
    if (!after.ok) return after;
    if (computer.marksOf === null) {
      queue.addUnmarked(edit, after.value, computer.onMarks);
      return ok(null);
    }
    const marks = computer.marksOf({ job: after.value, variant, stockroom: stock, layouts, rack });
    // The very document that was computed is shown, so that it is not computed again.
    const marked = marks ? withEdit(after.value, marks) : after;
    if (!marked.ok) return marked;
    queue.add(marks ? withMarks(edit, marks) : edit, marked.value);
    return ok(null);
  }

  /** Applies an edit at once and sends it; the sentence why not, or null. */
  function submit(edit: Edit): string | null {
    const taken = added(edit);
    if (!taken.ok) return sentence(taken.problem);
    store.setState(({ history }) => ({ history: withStep(history, { kind: "edit" }) }));
    return null;
  }

  /** Fetches the newest document when another tab or person moved on. */
  async function refresh(): Promise<void> {
    const { pending, variant } = store.getState();
    if (pending.length > 0) return;
    const reply = await call<DeskJob>("GET", url(`?variant=${variant ?? ""}`));
    if (!reply.ok || store.getState().pending.length > 0) return;
    const { job, revision, layouts, rack, steps } = reply.value;
    if (JSON.stringify(rack) !== JSON.stringify(store.getState().rack)) put({ rack });
    if (revision !== store.getState().revision) queue.take(job, revision, steps);
    if (JSON.stringify(layouts) !== JSON.stringify(store.getState().layouts)) put({ layouts });
  }

  async function setVariant(variant: VariantId | null): Promise<void> {
    put({ variant, layouts: [] });
    const reply = await call<DeskJob>("GET", url(`?variant=${variant ?? ""}`));
    if (reply.ok && store.getState().variant === variant)
      put({ layouts: reply.value.layouts, rack: reply.value.rack });
  }

  const shownWith = (layouts: readonly SavedLayout[], saved: SavedLayout) => [
    ...layouts.filter((one) => one.taskId !== saved.taskId),
    saved,
  ];
  const withRack = (pieces: readonly RackPiece[]): Rack => ({ ...store.getState().rack, pieces });

  /** Keeps a layout; where there was one before, that can be taken back. */
  function keep(saved: SavedLayout, variant: VariantId | null): Promise<void> {
    const { layouts, variant: shown, results } = store.getState();
    const before = shown === variant ? layouts.find(({ taskId }) => taskId === saved.taskId) : undefined;
    if (before) {
      const name = results.tasks.find(({ id }) => id === saved.taskId)?.name ?? "a stock";
      store.setState(({ history }) => ({
        history: withStep(history, { kind: "layout", variant, name, before, after: saved }),
      }));
    }
    return putLayout(saved, variant);
  }

  /** Takes back what was done last, an edit or a change of a layout, or does it again. */
  function step(which: "undo" | "redo"): Promise<void> {
    const next = nextStep(store.getState(), which);
    if (!next) return Promise.resolve();
    const { step: what } = next;
    store.setState(({ history }) => ({ history: stepped(history, which, what) }));
    if (what.kind === "edit") return queue.step(which);
    return putLayout(which === "undo" ? what.before : what.after, what.variant);
  }

  /** Shows a layout at once and stores it on the server, which sets aside what it uses of the rack. */
  async function putLayout(saved: SavedLayout, variant: VariantId | null): Promise<void> {
    const { layouts, variant: shown } = store.getState();
    if (shown === variant) put({ layouts: shownWith(layouts, saved) });
    const reply = await call<{ rack: readonly RackPiece[] }>("PUT", url("/layouts"), {
      variant: variant ?? "",
      saved,
    });
    if (!reply.ok) {
      // What another job has set aside in the meantime is not to be had by trying again.
      const retry = reply.problem.status === 409 ? null : () => void putLayout(saved, variant);
      notify({ text: reply.problem.message, retry });
      await refresh();
      return;
    }
    put({ rack: withRack(reply.value.rack) });
    channel?.postMessage(store.getState().revision);
  }

  /** Sends a saved layout to the floor: what it uses leaves the rack, its rests enter; null: it was refused and told. */
  async function release(taskId: string): Promise<Released | null> {
    const { variant } = store.getState();
    const reply = await call<Released & { rack: readonly RackPiece[]; releasedAt: number }>(
      "POST",
      url("/layouts"),
      { variant: variant ?? "", taskId },
    );
    if (!reply.ok) {
      notify({ text: reply.problem.message, retry: null });
      return null;
    }
    const { rack, releasedAt } = reply.value;
    const layouts = store
      .getState()
      .layouts.map((one) => (one.taskId === taskId ? { ...one, releasedAt } : one));
    put({ layouts, rack: withRack(rack) });
    return reply.value;
  }

  /** Puts a section that is typed as people say it into the stockroom; its id, or why not. */
  async function addSection(name: string): Promise<Result<string, AddedFault>> {
    const { stockroom: stock } = store.getState();
    const typed = name.trim();
    const there = stock.sections.find((one) => one.name.toLowerCase() === typed.toLowerCase());
    if (there) return ok(there.id);
    const made = newSection(typed);
    if (!made.ok) return made;
    const entry = asUsual(made.value, stock.sections);
    const refused = await addEntries([entry], []);
    return refused === null ? ok(entry.id) : err({ kind: "refused", message: refused });
  }

  /** Puts entries into the stockroom, one after the other; the sentence why one is refused, or null. */
  async function addEntries(
    sections: readonly SectionEntry[],
    boards: readonly BoardEntry[],
  ): Promise<string | null> {
    const changes = [
      ...sections.map((entry) => ({ kind: "section" as const, entry })),
      ...boards.map((entry) => ({ kind: "board" as const, entry })),
    ];
    for (const change of changes) {
      const reply = await call("PUT", "/api/stockroom/entries", { change, expected: null });
      if (!reply.ok) return reply.problem.message;
      const { stockroom: now } = store.getState();
      put({
        stockroom: indexStockroom(
          change.kind === "section"
            ? { ...now, sections: [...now.sections, change.entry] }
            : { ...now, boards: [...now.boards, change.entry] },
        ),
      });
    }
    return null;
  }

  /** Selects; while marks are given by picking, the row that is picked takes the next one. */
  function select(ids: Iterable<string>): void {
    const selected = new Set(ids);
    store.setState({ selected });
    const { marking, results } = store.getState();
    if (!marking) return;
    const rows = new Set([...selected].flatMap((id) => results.tally.rowOfPiece.get(id) ?? []));
    const [row] = rows;
    if (!row || rows.size > 1) return;
    const picked = markPicked(results.tally, row, marking);
    const refused = picked.ok ? submit(picked.value.edit) : sentence(picked.problem);
    if (refused !== null) notify({ text: refused, retry: null });
    else if (picked.ok) store.setState({ marking: { ...marking, next: picked.value.next } });
  }

  /** Begins to give marks by picking, or ends it. */
  const giveMarks = (marking: PickRule | null) => store.setState({ marking, selected: new Set() });

  /** Leaves pieces out of the picture; none: shows everything again. */
  const hide = (ids: Iterable<string>) => store.setState({ hidden: new Set(ids) });

  const openList = (list: string | null) => store.setState({ list });

  const openPage = (page: string) => store.setState({ page, selected: new Set() });

  const lookedFrom = (seenFrom: Vec3) => store.setState({ seenFrom });

  /** Opens an assembly to work in, or goes back to the job. */
  const enter = (inside: Home) => store.setState({ inside, selected: new Set() });

  channel?.addEventListener("message", () => void refresh());
  void fetchAssets();
  return {
    store,
    submit,
    showDraft: queue.showDraft,
    endDraft: queue.endDraft,
    flush: queue.flush,
    step,
    refresh,
    storeAsset,
    addSection,
    addEntries,
    fetchAsset,
    setVariant,
    keep,
    release,
    select,
    hide,
    enter,
    openList,
    openPage,
    lookedFrom,
    giveMarks,
    close: () => channel?.close(),
  };
}
