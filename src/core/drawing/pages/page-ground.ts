/** What a page is drawn from. */
import type { Assets, Home, Job, ListItem, PageItem } from "../../job";
import type { ListGround, ListTable } from "../../lists";
import type { HomeSteps } from "../../steps";
import type { Tally } from "../../tally";
import type { PageHead } from "../flow";
import type { DiagramInput } from "../print";
import type { DrawnView } from "./drawn-view";

/** What a page is drawn from beside itself. */
export type PageGround = {
  readonly job: Job;
  /** Those of the page. */
  readonly items: readonly PageItem[];
  /** Lines by the id of their view; one that is still being drawn is not there. */
  readonly views: ReadonlyMap<string, DrawnView>;
  readonly tally: Tally;
  readonly lists: ListGround;
  /** What texts of views say that are bound to a variant. */
  readonly inVariant: (variant: string) => Pick<PageGround, "tally" | "lists">;
  /** The table of a list; null: it is gone. */
  readonly tableOf: (list: TabledList) => ListTable | null;
  readonly layouts: Omit<DiagramInput, keyof PageHead>;
  readonly assets: Assets;
  /** Building steps by what they build. */
  readonly steps: ReadonlyMap<Home, HomeSteps>;
  readonly head: PageHead;
  readonly sheet: number;
  readonly sheets: number;
};

/** Lists that are tables. */
export type TabledList = Exclude<ListItem["list"], { kind: "layout" | "rest" }>;
