"use client";
/** What can be done to the selected pieces as geometry; each action stands in a file of its kind. */
import { EyeOff, Focus, Trash2 } from "lucide-react";
import { othersThan } from "@/core/job";
import { Button } from "../common/button";
import { useDesk, useDeskState } from "../desk/desk-context";
import { DoButton } from "./action-form";
import { AssembleForm, BetweenForm, PlacedActions } from "./assembly-actions";
import { CopyForm, MirrorForm } from "./copy-actions";
import { JoinPoints, JointForm, SplitForm } from "./joint-actions";
import { LegsForm } from "./legs-form";

export function SelectionActions() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const selected = useDeskState((state) => state.selected);
  const ids = [...selected].filter(
    (id) =>
      job.members[id] ||
      job.panels[id] ||
      job.boughtParts[id] ||
      job.points[id] ||
      job.lines[id] ||
      job.placements[id] ||
      job.assemblies[id],
  );
  const pieces = ids.filter(
    (id) => job.members[id] || job.panels[id] || job.placements[id] || job.boughtParts[id],
  );
  const [only] = pieces.length === 1 ? pieces : [];
  const members = pieces.filter((id) => job.members[id]);
  const points = ids.filter((id) => job.points[id]);
  const [point] = ids.length === 1 && job.points[ids[0] ?? ""] ? ids : [];
  if (ids.length === 0) return null;
  const remove = () => {
    const refused = desk.submit({ kind: "remove", ids });
    if (refused === null) desk.select([]);
    return refused;
  };
  return (
    <div className="flex min-w-0 items-center gap-2 narrow:flex-wrap narrow:gap-y-0">
      {pieces.length > 0 ? <CopyForm ids={pieces} /> : null}
      {pieces.length > 0 ? <MirrorForm ids={pieces} /> : null}
      {pieces.length > 0 ? <AssembleForm ids={pieces} /> : null}
      {pieces.length === 2 && pieces.every((id) => job.panels[id]) ? <BetweenForm ids={pieces} /> : null}
      {points.length === 2 ? <JoinPoints points={points} /> : null}
      {members.length > 0 || point ? <JointForm members={members} point={point} /> : null}
      {members.length > 0 || points.length > 0 ? <LegsForm points={points} members={members} /> : null}
      {only && job.members[only] ? <SplitForm id={only} /> : null}
      {only && job.placements[only] ? <PlacedActions id={only} /> : null}
      {pieces.length > 0 ? <Visibility ids={pieces} /> : null}
      <DoButton look="danger" icon={<Trash2 size={14} aria-hidden />} onDo={remove}>
        Remove
      </DoButton>
    </div>
  );
}

/** Hide the selection in the picture, or everything else. */
function Visibility({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  const hide = () => desk.hide([...desk.store.getState().hidden, ...ids]);
  const isolate = () => desk.hide(othersThan(desk.store.getState().job, ids));
  return (
    <>
      <Button look="plain" icon={<EyeOff size={14} aria-hidden />} onClick={hide}>
        Hide
      </Button>
      <Button look="plain" icon={<Focus size={14} aria-hidden />} onClick={isolate}>
        Show only these
      </Button>
    </>
  );
}
