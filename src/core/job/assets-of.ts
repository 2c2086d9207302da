/** The assets that a job refers to. */
import type { AssetId } from "./asset";
import type { BoughtPart } from "./bought-part";
import type { PageItem } from "./page-item";

type Named = {
  readonly boughtParts: Readonly<Record<string, Pick<BoughtPart, "stand">>>;
  /** A document of before has none. */
  readonly pageItems?: Readonly<Record<string, PageItem>>;
};

/** Shapes that stand for bought parts, and pictures on pages. */
export function assetsOf({ boughtParts, pageItems = {} }: Named): ReadonlySet<AssetId> {
  return new Set([
    ...Object.values(boughtParts).flatMap(({ stand }) =>
      stand?.as.kind === "shape" ? [stand.as.asset] : [],
    ),
    ...Object.values(pageItems).flatMap((item) => (item.kind === "picture" ? [item.asset] : [])),
  ]);
}
