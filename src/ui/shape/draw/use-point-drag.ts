"use client";
/** Dragging the points of what is selected: each step is shown, the whole drag is one edit. */
import { useMemo, useRef } from "react";
import type { Vec3 } from "@/core/geometry";
import { type Job, movedPlace, textOf } from "@/core/job";
import { MM_PER_UNIT, roundTo } from "@/core/measure";
import { useDesk, useDeskState } from "../../desk/desk-context";
import type { ModelScene } from "../model-scene";
import { type Spot, stepped } from "./pointer";

const GRIP_PX = 9;

type Grip = { readonly point: string; readonly start: Vec3 };

/** Points that can be taken hold of: selected ones, and those at the ends of selected members. */
function useGrips(): readonly { readonly id: string; readonly at: Vec3 }[] {
  const job = useDeskState((state) => state.job);
  const selected = useDeskState((state) => state.selected);
  const inside = useDeskState((state) => state.inside);
  const points = useDeskState((state) => state.results.shape.points);
  return useMemo(() => {
    const ids = new Set<string>();
    for (const id of selected) {
      const line = job.lines[job.members[id]?.line ?? ""];
      for (const point of line ? [line.from, line.to] : [id]) ids.add(point);
    }
    return [...ids].flatMap((id) => {
      const at = points.get(id);
      return at && job.points[id]?.assembly === inside ? [{ id, at }] : [];
    });
  }, [job, selected, inside, points]);
}

export function usePointDrag(scene: () => ModelScene | null, step: number) {
  const desk = useDesk();
  const grips = useGrips();
  const held = useRef<Grip | null>(null);
  const target = useRef<Vec3 | null>(null);
  const original = useRef<Job | null>(null);

  const move = (job: Job, { point, start }: Grip, to: Vec3) => {
    const { unit } = job.info.job;
    const by = (i: 0 | 1 | 2) => textOf(roundTo((to[i] - start[i]) / MM_PER_UNIT[unit], 6));
    const at = job.points[point]?.at ?? ["0", "0", "0"];
    return {
      kind: "movePoints" as const,
      points: [{ id: point, at: movedPlace(at, [by(0), by(1), by(2)], unit) }],
    };
  };
  /** Takes hold of the point under a spot; whether there was one. */
  const press = (spot: Spot): boolean => {
    const made = scene();
    if (!made) return false;
    const grip = grips.find(({ at }) => {
      const seen = made.project(at);
      return Math.hypot(seen.x - spot.x, seen.y - spot.y) < GRIP_PX;
    });
    if (!grip) return false;
    held.current = { point: grip.id, start: grip.at };
    target.current = null;
    made.turning(false);
    original.current = desk.store.getState().job;
    return true;
  };
  const drag = (spot: Spot): boolean => {
    const [grip, job] = [held.current, original.current];
    if (!grip || !job) return false;
    const place = scene()?.unproject(spot, grip.start);
    if (!place) return true;
    target.current = stepped(place, grip.start, step);
    desk.showDraft(move(job, grip, target.current));
    return true;
  };
  /** Lets go; whether something was held. */
  const release = (): boolean => {
    const [grip, job, to] = [held.current, original.current, target.current];
    if (!grip || !job) return false;
    held.current = null;
    scene()?.turning(true);
    desk.endDraft();
    if (to?.some((value, i) => value !== grip.start[i])) desk.submit(move(job, grip, to));
    return true;
  };
  return { grips, press, drag, release };
}
