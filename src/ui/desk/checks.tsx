"use client";
import type { Check } from "@/core/job";
/** Checks, each one sentence with what, where and a verb; those of the selection first, the others of the job below. */
import { counted } from "@/core/kernel";
import { Button } from "../common/button";
import { useDesk, useDeskState } from "./desk-context";

export function CheckList() {
  const checks = useDeskState((state) => state.results.tally.checks);
  const selected = useDeskState((state) => state.selected);
  const isOwn = ({ records }: Check) => records.some((id) => selected.has(id));
  const own = checks.filter(isOwn);
  const others = checks.filter((check) => !isOwn(check));
  if (selected.size === 0) return <Checks heading={counted(checks.length, "check")} checks={checks} />;
  return (
    <>
      {own.length === 0 ? (
        <p className="text-[13px] text-ink-soft">No checks for this selection.</p>
      ) : (
        <Checks heading={`${counted(own.length, "check")} for the selection`} checks={own} />
      )}
      {others.length > 0 ? (
        <div className="pt-2">
          <Checks heading={`${counted(others.length, "other check")} in the job`} checks={others} />
        </div>
      ) : null}
    </>
  );
}

/** More than these are not read in one go. */
const MOST_SHOWN = 50;

function Checks({ heading, checks }: { readonly heading: string; readonly checks: readonly Check[] }) {
  const rest = checks.length - MOST_SHOWN;
  return (
    <>
      <h3 className="mb-1 font-semibold text-[13px]">{heading}</h3>
      {checks.length === 0 ? <p className="text-[13px] text-ink-soft">No checks in this job.</p> : null}
      <ul className="space-y-1.5">
        {checks.slice(0, MOST_SHOWN).map((check) => (
          <CheckLine key={check.message} check={check} />
        ))}
      </ul>
      {rest > 0 ? <p className="pt-1 text-[13px] text-ink-soft">and {rest} more</p> : null}
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
