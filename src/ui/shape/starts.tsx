"use client";
/** What an empty job begins with: a frame, a cabinet, members drawn by hand, or a cut list; and what comes after it. */
import { Box, FileInput, Frame, PencilLine, Table2 } from "lucide-react";
import Link from "next/link";
import type { ReactNode } from "react";

type Props = {
  /** Opens a jig by its id. */
  readonly onJig: (id: string) => void;
  readonly onDraw: () => void;
  /** Opens the import of a file. */
  readonly onImport: () => void;
};

export function Starts({ onJig, onDraw, onImport }: Props) {
  return (
    <div className="absolute inset-0 overflow-auto bg-leaf p-8">
      <h3 className="font-semibold font-slab text-[18px]">How does this job begin?</h3>
      <ul className="mt-3 grid max-w-[620px] grid-cols-2 gap-3">
        <Start
          icon={<Frame size={22} aria-hidden />}
          title="A frame"
          words="Legs, rings and braces of tube, bar or timber, from a few sizes."
          onStart={() => onJig("box-frame")}
        />
        <Start
          icon={<Box size={22} aria-hidden />}
          title="A cabinet"
          words="A carcass of panels with its back and shelves, from a few sizes."
          onStart={() => onJig("carcass")}
        />
        <Start
          icon={<PencilLine size={22} aria-hidden />}
          title="By hand"
          words="Member by member in the 3D view, with the pointer or typed."
          onStart={onDraw}
        />
        <Start
          icon={<FileInput size={22} aria-hidden />}
          title="A STEP file"
          words="Solids from another program become members, panels and bought parts."
          onStart={onImport}
        />
        <li>
          <Link href="/jobs/from-list" className={CARD}>
            <Table2 size={22} aria-hidden />
            <b className="font-semibold">A cut list</b>
            <span className="text-[13px] text-ink-soft">
              Rows from a spreadsheet or a CSV file become a job of their own.
            </span>
          </Link>
        </li>
      </ul>
      <h3 className="mt-6 font-semibold text-[14px]">What comes next</h3>
      <ol className="mt-1 max-w-[620px] list-decimal space-y-0.5 pl-5 text-[13px] text-ink-soft">
        <li>Shape: the design, with key sizes that drive it.</li>
        <li>Tally: what has to be cut, identical pieces in one row each.</li>
        <li>Layout: how it is cut from bars and sheets.</li>
        <li>Buy: what to buy, and what it costs.</li>
        <li>Drawings: the pages that the shop builds from.</li>
      </ol>
    </div>
  );
}

const CARD =
  "flex h-full w-full flex-col items-start gap-1 rounded-sm border border-seam bg-leaf p-3 text-left text-enamel hover:border-brass hover:bg-brass-pale";

function Start({
  icon,
  title,
  words,
  onStart,
}: {
  readonly icon: ReactNode;
  readonly title: string;
  readonly words: string;
  readonly onStart: () => void;
}) {
  return (
    <li>
      <button type="button" className={CARD} onClick={onStart}>
        {icon}
        <b className="font-semibold">{title}</b>
        <span className="text-[13px] text-ink-soft">{words}</span>
      </button>
    </li>
  );
}
