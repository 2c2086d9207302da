"use client";
/** The pages of the open job with the lines of their views, for the panes of the drawings: drawn in a worker, kept while the desk is open. */
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from "react";
import type { DrawnPage } from "@/core/drawing";
import { type Page, pagesInOrder } from "@/core/job";
import { invariant } from "@/core/kernel";
import { asksOfPages, createPageDrawing } from "@/core/paper-set";
import { type PageChange, pageChanges, pageSays, withChangeMarks } from "@/core/release";
import { threadOf } from "../common/thread";
import { useDeskState } from "../desk/desk-context";
import { createPlacingStore, type PlacingStore } from "./placing-store";
import { type PagesOut, usePutOut } from "./use-put-out";
import type { SetThread } from "./use-set-drawing";
import { createViewStore, type ShownViews } from "./view-store";

export type Drawings = {
  readonly pages: readonly Page[];
  /** The page that is open; null: there is none. */
  readonly page: Page | null;
  readonly shown: ShownViews;
  readonly draw: (page: Page) => DrawnPage;
  /** Which pieces the pages place. */
  readonly placings: PlacingStore;
  /** Draws up the whole set, elsewhere. */
  readonly setThread: SetThread;
  /** What stood on pages when they were put out. */
  readonly putOut: PagesOut;
  /** What changed on a page since then; null: it was never put out, or is not drawn yet. */
  readonly changes: (page: Page) => readonly PageChange[] | null;
  /** Says of which pages small pictures are in view. */
  readonly showSmall: (ids: readonly string[]) => void;
};

const DrawingsContext = createContext<Drawings | null>(null);

export function useDrawings(): Drawings {
  const drawings = useContext(DrawingsContext);
  invariant(drawings, "a pane of the drawings stands outside of their ground");
  return drawings;
}

/** What draws views, and what finds which pieces the pages place. */
export type DrawingWorkers = {
  readonly views: () => Worker;
  readonly placing: () => Worker;
  /** Draws up the whole set. */
  readonly set: () => Worker;
};

type GroundProps = {
  /** Whether anything of it is on the screen: only then is anything drawn. */
  readonly active: boolean;
  readonly workers: DrawingWorkers;
  readonly children: ReactNode;
};

export function DrawingsGround({ active, workers, children }: GroundProps) {
  const job = useDeskState((state) => state.job);
  const results = useDeskState((state) => state.results);
  const stockroom = useDeskState((state) => state.stockroom);
  const assets = useDeskState((state) => state.assets);
  const variant = useDeskState((state) => state.variant);
  const layouts = useDeskState((state) => state.layouts);
  const revision = useDeskState((state) => state.revision);
  const shop = useDeskState((state) => state.shop);
  const open = useDeskState((state) => state.page);
  const [store] = useState(() => createViewStore(threadOf(workers.views)));
  const [setThread] = useState((): SetThread => threadOf(workers.set));
  const [placings] = useState(() => createPlacingStore(threadOf(workers.placing)));
  const leaving = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    clearTimeout(leaving.current);
    return () => {
      leaving.current = setTimeout(() => {
        store.end();
        placings.end();
      }, 0);
    };
  }, [store, placings]);
  const pages = useMemo(() => pagesInOrder(job), [job]);
  const page = pages.find(({ id }) => id === open) ?? pages[0] ?? null;
  const [small, setSmall] = useState<readonly string[]>([]);
  const showSmall = useCallback(
    (ids: readonly string[]) => setSmall((before) => (before.join("\n") === ids.join("\n") ? before : ids)),
    [],
  );
  useEffect(() => {
    if (!active) return;
    const first = page ? asksOfPages(job, [page], variant, true) : [];
    const others = pages.filter((one) => one !== page && small.includes(one.id));
    store.want({ job, stockroom, assets }, [...first, ...asksOfPages(job, others, variant, true)]);
  }, [active, store, job, stockroom, assets, variant, pages, page, small]);
  const shown = useSyncExternalStore(store.subscribe, store.shown, store.shown);
  const isDrawn = shown.waiting.size === 0;
  useEffect(() => {
    if (active && pages.length > 0) placings.want({ job, stockroom, assets, variant }, isDrawn);
  }, [active, isDrawn, placings, job, stockroom, assets, variant, pages]);
  const putOut = usePutOut(active, page ? [page.id, ...small] : small);
  const [drawing] = useState(createPageDrawing);
  const [date] = useState(() => new Date().toISOString().slice(0, 10));
  const drawings = useMemo((): Drawings => {
    const known = new Map<string, DrawnPage>();
    const variantName = variant === null ? null : (job.variants[variant]?.name ?? null);
    const head = { info: job.info.job, revision, date, variantName, shop };
    const changed = new Map<string, readonly PageChange[] | null>();
    const plain = (one: Page) => {
      const before = known.get(one.id);
      if (before) return before;
      const drawn = drawing(one, { job, results, stockroom, views: shown.views, layouts, assets, head });
      known.set(one.id, drawn);
      return drawn;
    };
    const changes = (one: Page) => {
      const before = changed.get(one.id);
      if (before !== undefined) return before;
      const out = putOut.of(one.id);
      const drawn = plain(one);
      const waits = drawn.placed.some(({ item }) => shown.waiting.has(item.id));
      const made = out && !waits ? pageChanges(out.says, pageSays(drawn, job)) : null;
      changed.set(one.id, made);
      return made;
    };
    const marked = new Map<string, DrawnPage>();
    const draw = (one: Page) => {
      const before = marked.get(one.id);
      if (before) return before;
      const own = one.marksChanges ? changes(one) : null;
      const drawn = own ? withChangeMarks(plain(one), own) : plain(one);
      marked.set(one.id, drawn);
      return drawn;
    };
    return { pages, page, shown, draw, changes, putOut, showSmall, placings, setThread };
  }, [
    pages,
    page,
    shown,
    job,
    results,
    stockroom,
    layouts,
    assets,
    variant,
    revision,
    date,
    shop,
    drawing,
    showSmall,
    placings,
    setThread,
    putOut,
  ]);
  return <DrawingsContext value={drawings}>{children}</DrawingsContext>;
}
