"use client";
/** The ground of the layout panes on the desk of one job. */
import { type ReactNode, useMemo } from "react";
import { styleOf } from "@/core/lists";
import { useDesk, useDeskState, useMarkSelection } from "../desk/desk-context";
import { LayoutGroundContext, type LayoutSource, useGround } from "./layout-ground";

export function DeskGround({ children }: { readonly children: ReactNode }) {
  const desk = useDesk();
  const tasks = useDeskState((state) => state.results.tasks);
  const layouts = useDeskState((state) => state.layouts);
  const revision = useDeskState((state) => state.revision);
  const info = useDeskState((state) => state.job.info.job);
  const saws = useDeskState((state) => state.stockroom.saws);
  const rack = useDeskState((state) => state.rack);
  const settings = useDeskState((state) => state.job.layoutSettings);
  const id = useDeskState((state) => state.id);
  const variant = useDeskState((state) => state.variant);
  const { isSelected, pick } = useMarkSelection();
  const source = useMemo(
    (): LayoutSource => ({
      tasks,
      layouts,
      revision,
      style: styleOf(info),
      saws,
      isSelected,
      pick,
      save: (saved) => desk.keep(saved, variant),
      history: { step: (which) => void desk.step(which) },
      release: (taskId) => desk.release(taskId),
      rackLabel: (rackId) => rack.pieces.find((piece) => piece.id === rackId)?.label ?? "a rack piece",
      settings: {
        of: (entry) => settings[entry],
        set: (entry, set) => desk.submit({ kind: "setLayoutSetting", id: entry, set }),
      },
      papers: `/api/jobs/${encodeURIComponent(id)}/diagrams?variant=${variant ?? ""}`,
    }),
    [tasks, layouts, revision, info, saws, rack, settings, id, variant, isSelected, pick, desk],
  );
  const ground = useGround(source);
  return <LayoutGroundContext value={ground}>{children}</LayoutGroundContext>;
}
