"use client";
/** The line over a pane: what it shows on the left, what can be done with it on the right. */
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { toast } from "sonner";
import * as v from "valibot";
import type { ListSetup, VariantId } from "@/core/job";
import { OUT_ITEM, OutMenu, OutWords } from "../common/out-menu";
import { useDesk, useDeskState } from "./desk-context";
import type { Desk } from "./desk-store";

export function PaneHead({
  title,
  facts,
  children,
}: {
  readonly title: string;
  readonly facts?: ReactNode;
  readonly children?: ReactNode;
}) {
  return (
    <div className="flex h-[41px] shrink-0 items-center gap-3 border-seam border-b px-3.5">
      <h2 className="shrink-0 font-semibold font-slab text-[16px]">{title}</h2>
      <p className="min-w-0 truncate text-[13px] text-ink-soft">{facts}</p>
      <div className="ml-auto flex shrink-0 items-center gap-2">{children}</div>
    </div>
  );
}

export type Paper = {
  readonly label: string;
  readonly contains: string;
  readonly path: string;
  /** It is asked for by POST, with this; undefined: by GET. */
  readonly sends?: object;
};

export const PAPERS: readonly Paper[] = [
  { label: "Shop papers, A4 (PDF)", contains: "cut list, bars, sheets, buying list", path: "/print?page=a4" },
  {
    label: "Shop papers, letter (PDF)",
    contains: "cut list, bars, sheets, buying list",
    path: "/print?page=letter",
  },
  {
    label: "Shop papers with drawings (PDF)",
    contains: "the same on A4, then the drawing pages",
    path: "/print?page=a4&drawings",
  },
  { label: "Cut list (CSV)", contains: "every made row with its sizes and ends", path: "/lists/cut.csv?" },
  { label: "Cut list (XLSX)", contains: "the same as a spreadsheet", path: "/lists/cut.xlsx?" },
  { label: "Buying list (CSV)", contains: "quantities and cost by stock", path: "/lists/buying.csv?" },
  { label: "Buying list (XLSX)", contains: "the same as a spreadsheet", path: "/lists/buying.xlsx?" },
  {
    label: "Solids (STEP)",
    contains: "every piece, exact, for other CAD programs",
    path: "/solids?format=step",
  },
  { label: "Solids (glTF)", contains: "the same as triangles, for viewers", path: "/solids?format=glb" },
  {
    label: "Panels laid flat (DXF)",
    contains: "outlines, holes and grooves at full size, for machines",
    path: "/solids?format=dxf",
  },
  { label: "Job file (.tally.json)", contains: "the job and its part of the stockroom", path: "/file?" },
];

/** The one piece that is selected, for whoever makes it. */
const pieceOut = (id: string): readonly Paper[] => [
  {
    label: "Selected piece (STEP)",
    contains: "this piece alone, in its own axes",
    path: `/solids?format=step&piece=${encodeURIComponent(id)}`,
  },
  {
    label: "Selected piece, laid flat (DXF)",
    contains: "a panel as it is cut, the ends of a member unrolled",
    path: `/solids?format=dxf&piece=${encodeURIComponent(id)}`,
  },
];

const OWN_FORMATS = [
  ["xlsx", "XLSX", "this list as it is set up, numbers as numbers"],
  ["csv", "CSV", "this list as plain rows"],
  ["pdf", "PDF", "this list on A4, with silhouettes and sums"],
  ["svg", "SVG", "this list as one drawing"],
] as const;

/** Where lengths are shown in fractions, lists can be had in decimals too. */
const DECIMALS: Paper = {
  label: "Cut list (CSV, decimals)",
  contains: "the same, lengths as decimals instead of fractions",
  path: "/lists/cut.csv?numbers=decimals",
};

/** The papers of a job, with the list that is shown first. */
function papersWith(list: ListSetup | undefined, fractions: boolean): readonly Paper[] {
  if (!list)
    return PAPERS.flatMap((paper) =>
      fractions && paper.path === "/lists/cut.csv?" ? [paper, DECIMALS] : [paper],
    );
  const own = OWN_FORMATS.map(
    ([format, name, contains]): Paper => ({
      label: `${list.name} (${name})`,
      contains,
      path: `/lists/${encodeURIComponent(list.id)}.${format}?`,
    }),
  );
  const inDecimals: Paper = {
    label: `${list.name} (CSV, decimals)`,
    contains: "the same, lengths as decimals instead of fractions",
    path: `/lists/${encodeURIComponent(list.id)}.csv?numbers=decimals`,
  };
  return [...own, ...(fractions ? [inDecimals] : []), ...PAPERS];
}

/** Has a paper made and hands it to the browser. */
export async function takeAway(desk: Desk, paper: Paper, variant: VariantId | null): Promise<void> {
  // What is printed must hold what is on the screen.
  await desk.flush();
  const { id } = desk.store.getState();
  const url = `/api/jobs/${encodeURIComponent(id)}${paper.path}`;
  const asked = paper.sends
    ? fetch(url, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ variant: variant ?? "", ...paper.sends }),
      })
    : fetch(`${url}&variant=${variant ?? ""}`);
  await handOver(await asked.catch(() => null));
}

/** Hands the file of an answer to the browser; without one, says so. */
export async function handOver(response: Response | null): Promise<void> {
  if (!response?.ok) {
    // What the server says of it tells what to do.
    const said = await response?.json().catch(() => null);
    const why = v.safeParse(v.object({ message: v.string() }), said);
    toast.error(
      why.success
        ? why.output.message
        : "It could not be made; the server did not answer as it should. Try again.",
    );
    return;
  }
  const name =
    /filename="([^"]+)"/.exec(response.headers.get("content-disposition") ?? "")?.[1] ?? "rustic-tally";
  const link = document.createElement("a");
  link.href = URL.createObjectURL(await response.blob());
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** Everything that leaves the job. */
export function Out({ list }: { readonly list?: ListSetup | undefined }) {
  const fractions = useDeskState((state) => state.job.info.job.format.kind === "fraction");
  const selected = useDeskState(({ selected: ids, job }) => {
    const [only] = ids.size === 1 ? ids : [];
    return only !== undefined && [job.members, job.panels, job.boughtParts].some((table) => table[only])
      ? only
      : null;
  });
  return (
    <PapersOut papers={[...papersWith(list, fractions), ...(selected === null ? [] : pieceOut(selected))]} />
  );
}

/** Papers to be taken away, each with what it contains, and the revision that they are of. */
export function PapersOut({
  papers,
  onTaken,
}: {
  readonly papers: readonly Paper[];
  readonly onTaken?: () => void;
}) {
  const desk = useDesk();
  const revision = useDeskState((state) => state.revision);
  const variant = useDeskState((state) => state.variant);
  return (
    <OutMenu heading={`Revision ${revision}, current state`}>
      {papers.map((paper) => (
        <DropdownMenu.Item
          key={paper.label}
          className={OUT_ITEM}
          onSelect={() => void takeAway(desk, paper, variant).then(onTaken)}
        >
          <OutWords label={paper.label} contains={paper.contains} />
        </DropdownMenu.Item>
      ))}
    </OutMenu>
  );
}
