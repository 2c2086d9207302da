"use client";
import type { Check } from "@/core/job";
/** Checks, each one sentence with what, where and a verb; those of the selection, or all when there is none. */
import { counted } from "@/core/kernel";
import { Button } from "../common/button";
import { useDesk, useDeskState } from "./desk-context";

export function CheckList() {
  const checks = useDeskState((state) => state.results.tally.checks);
  const selected = useDeskState((state) => state.selected);
  const own =
    selected.size === 0 ? checks : checks.filter((check) => check.records.some((id) => selected.has(id)));
  const words = counted(own.length, "check");
  return (
    <>
      <h3 className="mb-1 font-semibold text-[13px]">
        {words}{" "}
        {selected.size > 0 && checks.length > own.length ? (
          <span className="font-normal text-ink-soft">for the selection, {checks.length} in the job</span>
        ) : null}
      </h3>
      {own.length === 0 ? (
        <p className="text-[13px] text-ink-soft">
          {checks.length === 0 ? "No checks in this job." : "No checks for this selection."}
        </p>
      ) : null}
      <ul className="space-y-1.5">
        {own.slice(0, 50).map((check) => (
          <CheckLine key={check.message} check={check} />
        ))}
      </ul>
    </>
  );
}

function CheckLine({ check }: { readonly check: Check }) {
  const desk = useDesk();
  const { fix, meant } = check;
  return (
    <li className="flex items-start gap-2 text-[13px] leading-snug">
      <span
        aria-hidden
        className={`mt-1.5 h-2 w-2 shrink-0 rotate-45 ${check.severity === "error" ? "bg-oxide" : "bg-brass"}`}
      />
      <button
        type="button"
        className="min-w-0 flex-1 text-left hover:underline"
        onClick={() => desk.select(check.records)}
      >
        <span className="sr-only">{check.severity === "error" ? "Error: " : "Warning: "}</span>
        {check.message}
      </button>
      <span className="flex shrink-0 flex-col items-end">
        {fix ? (
          <Button look="plain" onClick={() => desk.submit(fix.edit)}>
            {fix.label}
          </Button>
        ) : null}
        {meant === undefined ? null : (
          <Button look="plain" onClick={() => desk.submit({ kind: "setMeant", id: meant, meant: true })}>
            Intended
          </Button>
        )}
      </span>
    </li>
  );
}
