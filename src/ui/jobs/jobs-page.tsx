"use client";
import { Copy, Download, Plus, Table, Trash2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
/** All jobs with a drawn thumbnail each: open, new, from a cutting list, copy, delete and bring back. */
import { counted } from "@/core/kernel";
import type { LengthUnit } from "@/core/measure";
import { Button, buttonClass } from "../common/button";
import { Dialog, DialogClose } from "../common/dialog";
import { HomeFrame } from "../common/home-frame";
import { call } from "../common/http";
import { Fault } from "../common/notice";
import { type JobFacts, JobFields, useJobForm } from "./job-form";

/** What is drawn and typed in a job, or the sentence why its document cannot be read. */
type Facts =
  | {
      readonly kind: "readable";
      readonly pieces: number;
      readonly typed: number;
      /** Address of its picture; null: nothing is drawn. */
      readonly picture: string | null;
    }
  | { readonly kind: "unreadable"; readonly why: string };

export type JobCard = {
  readonly id: string;
  readonly code: string;
  readonly title: string;
  readonly revision: number;
  readonly facts: Facts;
};

/** `unit`: the one that new jobs begin with. */
export function JobsPage({ jobs, unit }: { readonly jobs: readonly JobCard[]; readonly unit: LengthUnit }) {
  const [making, setMaking] = useState(false);
  return (
    <HomeFrame current="Jobs">
      <div className="mx-auto max-w-[1180px] px-6 py-6">
        <div className="flex items-center gap-3">
          <h1 className="font-semibold font-slab text-[26px]">Jobs</h1>
          <p className="text-ink-soft">{counted(jobs.length, "job")}</p>
          <span className="ml-auto" />
          <Link href="/jobs/from-list" className={buttonClass("outline")}>
            <Table size={16} aria-hidden /> New from a cut list
          </Link>
          <Button look="primary" icon={<Plus size={16} aria-hidden />} onClick={() => setMaking(true)}>
            New empty job
          </Button>
        </div>
        {jobs.length === 0 ? (
          <p className="mt-10 max-w-[60ch] text-ink-soft">
            Your jobs appear here. Start with an empty job, or paste a cut list from a spreadsheet: its pieces
            are laid out, priced and printed like drawn ones.
          </p>
        ) : null}
        <ul className="mt-5 grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4">
          {jobs.map((job) => (
            <Card key={job.id} job={job} />
          ))}
        </ul>
      </div>
      <NewJobDialog usual={unit} open={making} onOpen={setMaking} />
    </HomeFrame>
  );
}

function Card({ job }: { readonly job: JobCard }) {
  const router = useRouter();
  const url = `/api/jobs/${encodeURIComponent(job.id)}`;
  const name = `${job.code} ${job.title}`;
  const { facts } = job;
  const copy = async () => {
    const made = await call<{ id: string }>("POST", `${url}/duplicate`);
    if (!made.ok) toast.error(made.problem.message);
    else toast(`${name} was copied.`);
    router.refresh();
  };
  const restore = async () => {
    const back = await call("POST", `${url}/restore`);
    if (!back.ok) toast.error(back.problem.message);
    router.refresh();
  };
  const remove = async () => {
    const gone = await call("DELETE", url);
    if (!gone.ok) toast.error(gone.problem.message);
    else
      toast(`${name} was deleted.`, {
        duration: 20_000,
        action: { label: "Undo", onClick: () => void restore() },
      });
    router.refresh();
  };
  return (
    <li
      className={`flex flex-col border bg-leaf ${facts.kind === "unreadable" ? "border-oxide" : "border-seam"}`}
    >
      <Link
        href={`/jobs/${encodeURIComponent(job.id)}`}
        className="block hover:bg-ground"
        aria-label={`Open ${name}`}
      >
        <span className="flex h-[184px] items-center justify-center border-seam border-b">
          <Picture facts={facts} title={job.title} />
        </span>
        <span className="block px-3.5 pt-2.5">
          <span className="block font-semibold font-slab text-[17px] leading-tight">{job.code}</span>
          <span className="block truncate text-[15px]">{job.title}</span>
        </span>
      </Link>
      <p className="flex items-center gap-2 px-3.5 pt-0.5 pb-2 text-[13px] text-ink-soft">
        {[
          facts.kind === "readable" && facts.pieces > 0 ? `${facts.pieces} drawn` : "",
          facts.kind === "readable" && facts.typed > 0 ? `${facts.typed} typed in` : "",
          `revision ${job.revision}`,
        ]
          .filter(Boolean)
          .join(" · ")}
        <span className="ml-auto flex gap-3">
          {facts.kind === "unreadable" ? (
            <a
              className="flex h-6 items-center gap-1 text-enamel hover:underline"
              href={`${url}/file`}
              download
              aria-label={`Take the file of ${name} away`}
            >
              <Download size={14} aria-hidden /> File
            </a>
          ) : (
            <button
              type="button"
              className="flex h-6 items-center gap-1 text-enamel hover:underline"
              onClick={() => void copy()}
              aria-label={`Copy ${name}`}
            >
              <Copy size={14} aria-hidden /> Copy
            </button>
          )}
          <button
            type="button"
            className="flex h-6 items-center gap-1 text-oxide hover:underline"
            onClick={() => void remove()}
            aria-label={`Delete ${name}`}
          >
            <Trash2 size={14} aria-hidden /> Delete
          </button>
        </span>
      </p>
    </li>
  );
}

function Picture({ facts, title }: { readonly facts: Facts; readonly title: string }) {
  if (facts.kind === "unreadable")
    return (
      <span className="px-4 text-[13px] text-oxide">
        {facts.why} Nothing of it is lost: take its file away.
      </span>
    );
  if (facts.picture)
    return (
      // biome-ignore lint/performance/noImgElement: a drawing that the browser keeps needs no server that scales it
      <img src={facts.picture} alt={`${title} as drawn`} width={260} height={170} loading="lazy" />
    );
  return (
    <span className="text-[13px] text-ink-soft">
      {facts.typed > 0 ? counted(facts.typed, "typed-in row") : "nothing drawn yet"}
    </span>
  );
}

function NewJobDialog({
  usual,
  open,
  onOpen,
}: {
  readonly usual: LengthUnit;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
}) {
  const router = useRouter();
  const form = useJobForm(usual);
  const [fault, setFault] = useState<string | null>(null);
  const make = async (facts: JobFacts) => {
    const made = await call<{ id: string }>("POST", "/api/jobs", facts);
    if (made.ok) router.push(`/jobs/${made.value.id}`);
    else setFault(made.problem.message);
  };
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title="New empty job"
      about="The unit of numbers typed without one; other units can always be typed."
      trigger={null}
      close={null}
    >
      <form onSubmit={(event) => void form.handleSubmit(make)(event)} noValidate className="mt-4 space-y-3">
        <JobFields form={form} unitLabel="Unit" like={["HL-230", "Compost sieve"]} />
        {fault ? <Fault>{fault}</Fault> : null}
        <div className="flex justify-end gap-2 pt-1">
          <DialogClose />
          <Button look="primary" type="submit">
            Create job
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
