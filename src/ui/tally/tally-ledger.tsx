"use client";
/** The tally: one list of the job with what is done to its rows, and the balance line. */
import { CUT_LIST, cutListOf } from "@/core/job";
import { useDeskState } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { Balance } from "./balance";
import { HandSummary } from "./hand-actions";
import { ListChooser } from "./list-chooser";
import { MarkingBar, RenumberForm } from "./mark-actions";
import { OneList } from "./one-list";
import { TypeIn } from "./type-in";

export function TallyLedger() {
  const setup = useDeskState(({ job, list }) => job.lists[list ?? CUT_LIST] ?? cutListOf(job));
  const { unit } = useDeskState((state) => state.job.info.job);
  return (
    <>
      <PaneHead title={setup.name} facts={`lengths in ${unit}`}>
        <ListChooser />
        <Out list={setup.id === CUT_LIST ? undefined : setup} />
      </PaneHead>
      <MarkingBar />
      <OneList key={setup.id} setup={setup} />
      <footer className="flex shrink-0 flex-wrap items-center gap-x-4 border-seam border-t px-3.5 py-1 text-[13px]">
        <Balance />
        <span className="ml-auto" />
        <HandSummary />
        <TypeIn />
        <RenumberForm />
      </footer>
    </>
  );
}
