"use client";
/** What leaves the drawings: the open page or all, as files. */
import type { Page } from "@/core/job";
import { type Paper, PapersOut } from "../desk/pane-head";

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

export const PagesOut = ({ page }: { readonly page: Page }) => <PapersOut papers={papersOf(page)} />;
