"use client";
/** Combined layouts: jobs chosen to be laid out together, so that they share bars and sheets. */
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { Button } from "../common/button";
import { Field } from "../common/field";
import { HomeFrame } from "../common/home-frame";
import { call } from "../common/http";
import { Tick } from "../common/tick";

export type CombinedPageProps = {
  readonly combined: readonly {
    readonly id: string;
    readonly name: string;
    readonly jobs: readonly string[];
  }[];
  readonly jobs: readonly { readonly id: string; readonly code: string; readonly title: string }[];
};

export function CombinedPage({ combined, jobs }: CombinedPageProps) {
  const router = useRouter();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [name, setName] = useState("");
  const codeOf = (id: string) => jobs.find((job) => job.id === id)?.code ?? "a deleted job";
  const make = async () => {
    const ids = jobs.filter((job) => chosen.has(job.id)).map((job) => job.id);
    const reply = await call<{ id: string }>("POST", "/api/combined", {
      name: name.trim() === "" ? ids.map(codeOf).join(" + ").slice(0, 60) : name,
      jobs: ids,
    });
    if (reply.ok) router.push(`/combined/${reply.value.id}`);
    else toast.error(reply.problem.message);
  };
  const remove = async (id: string) => {
    const reply = await call("DELETE", "/api/combined", { id });
    if (!reply.ok) toast.error(reply.problem.message);
    router.refresh();
  };
  return (
    <HomeFrame current="Combined layouts">
      <div className="mx-auto max-w-[900px] px-6 py-6">
        <h1 className="font-semibold font-slab text-[26px]">Combined layouts</h1>
        <p className="mt-1 text-ink-soft">
          Jobs laid out together share bars and sheets; every piece keeps the name of its job and its mark.
        </p>
        <ul className="mt-4 border-seam border-t">
          {combined.map((one) => (
            <li key={one.id} className="flex items-center gap-4 border-seam border-b py-2">
              <Link
                href={`/combined/${one.id}`}
                className="font-semibold font-slab text-[16px] text-enamel hover:underline"
              >
                {one.name}
              </Link>
              <span className="text-[14px] text-ink-soft">{one.jobs.map(codeOf).join(", ")}</span>
              <span className="ml-auto">
                <Button
                  look="danger"
                  aria-label={`Delete combined layout ${one.name}`}
                  onClick={() => void remove(one.id)}
                >
                  Remove
                </Button>
              </span>
            </li>
          ))}
        </ul>
        {combined.length === 0 ? (
          <p className="mt-3 text-ink-soft">No combined layout yet: choose its jobs below.</p>
        ) : null}
        <h2 className="mt-6 font-semibold font-slab text-[18px]">A new combined layout</h2>
        <ul className="mt-2 grid grid-cols-2 gap-x-6 gap-y-1">
          {jobs.map((job) => (
            <li key={job.id}>
              <Tick
                label={`${job.code} ${job.title}`}
                on={chosen.has(job.id)}
                onToggle={(on) =>
                  setChosen((all) => {
                    const next = new Set(all);
                    if (on) next.add(job.id);
                    else next.delete(job.id);
                    return next;
                  })
                }
              />
            </li>
          ))}
        </ul>
        <div className="mt-3 flex items-end gap-3">
          <div className="w-[300px]">
            <Field
              label="Its name"
              value={name}
              placeholder="the codes of its jobs"
              onChange={(event) => setName(event.target.value)}
            />
          </div>
          <Button look="primary" disabled={chosen.size === 0} onClick={() => void make()}>
            Create combined layout
          </Button>
        </div>
      </div>
    </HomeFrame>
  );
}
