"use client";
/** What leaves the drawings: the open page or all, as files. */
import type { Page } from "@/core/job";
import { type Paper, PapersOut } from "../desk/pane-head";
import { useDrawings } from "./drawings-ground";

const papersOf = (page: Page): readonly Paper[] => {
  const one = `page=${encodeURIComponent(page.id)}`;
  return [
    {
      label: "All pages (PDF)",
      contains: "to true scale, vector, text can be searched",
      path: "/pages?format=pdf",
    },
    {
      label: "Put out all pages (PDF)",
      contains: "the same file; later changes on these pages are listed",
      path: "/put-out",
      sends: { page: null },
    },
    { label: `${page.heading} (PDF)`, contains: "this page alone", path: `/pages?format=pdf&${one}` },
    {
      label: `Put out ${page.heading} (PDF)`,
      contains: "this page alone; later changes on it are listed",
      path: "/put-out",
      sends: { page: page.id },
    },
    { label: `${page.heading} (SVG)`, contains: "this page as a drawing", path: `/pages?format=svg&${one}` },
    {
      label: `${page.heading} (DXF)`,
      contains: "this page, layers by kind of line",
      path: `/pages?format=dxf&${one}`,
    },
  ];
};

export function PagesOut({ page }: { readonly page: Page }) {
  const { putOut } = useDrawings();
  return <PapersOut papers={papersOf(page)} onTaken={putOut.again} />;
}
