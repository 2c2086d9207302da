/** The assets that a job and its papers refer to. */

import type { AssetId } from "../kernel";
import type { Stockroom } from "../stockroom";
import type { BoughtPart } from "./bought-part";
import type { Import } from "./import";
import type { PageItem } from "./page-item";

type Named = {
  readonly boughtParts: Readonly<Record<string, Pick<BoughtPart, "stand">>>;
  /** A document of before has none. */
  readonly pageItems?: Readonly<Record<string, PageItem>>;
};

/** Shapes that stand for bought parts, and pictures on pages: what is drawn. */
export function assetsOf({ boughtParts, pageItems = {} }: Named): ReadonlySet<AssetId> {
  return new Set([
    ...Object.values(boughtParts).flatMap(({ stand }) =>
      stand?.as.kind === "shape" ? [stand.as.asset] : [],
    ),
    ...Object.values(pageItems).flatMap((item) => (item.kind === "picture" ? [item.asset] : [])),
  ]);
}

type Shop = Pick<Stockroom, "titleBlock">;

/** Those of a job, and the picture in the title block of the shop. */
export const assetsOfPapers = (job: Named, { titleBlock: { logo } }: Shop): ReadonlySet<AssetId> =>
  logo ? new Set([...assetsOf(job), logo.asset]) : assetsOf(job);

/** All that a job file carries along: what is drawn, and what files said that were read. */
export const assetsOfFile = (
  job: Named & { readonly imports: Readonly<Record<string, Import>> },
  shop: Shop,
): ReadonlySet<AssetId> =>
  new Set([...assetsOfPapers(job, shop), ...Object.values(job.imports).map(({ asset }) => asset)]);
