"use client";
/** What leaves the drawings: the open page or all, as files. */
import { DropdownMenu } from "radix-ui";
import type { Page } from "@/core/job";
import { OUT_ITEM, OutMenu, OutWords } from "../common/out-menu";
import { useDesk, useDeskState } from "../desk/desk-context";
import { type Paper, takeAway } from "../desk/pane-head";

const papersOf = (page: Page): readonly Paper[] => {
  const one = `page=${encodeURIComponent(page.id)}`;
  return [
    {
      label: "All pages (PDF)",
      contains: "to true scale, vector, text can be searched",
      path: "/pages?format=pdf",
    },
    { label: `${page.heading} (PDF)`, contains: "this page alone", path: `/pages?format=pdf&${one}` },
    { label: `${page.heading} (SVG)`, contains: "this page as a drawing", path: `/pages?format=svg&${one}` },
    {
      label: `${page.heading} (DXF)`,
      contains: "this page, layers by kind of line",
      path: `/pages?format=dxf&${one}`,
    },
  ];
};

export function PagesOut({ page }: { readonly page: Page }) {
  const desk = useDesk();
  const revision = useDeskState((state) => state.revision);
  const variant = useDeskState((state) => state.variant);
  return (
    <OutMenu heading={`Revision ${revision}, current state`}>
      {papersOf(page).map((paper) => (
        <DropdownMenu.Item
          key={paper.label}
          className={OUT_ITEM}
          onSelect={() => void takeAway(desk, paper, variant)}
        >
          <OutWords label={paper.label} contains={paper.contains} />
        </DropdownMenu.Item>
      ))}
    </OutMenu>
  );
}
