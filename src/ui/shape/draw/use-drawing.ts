"use client";
/** The drawing of members: where from, how, and the edit that each step makes. */
import { useMemo, useState } from "react";
import { sentence } from "@/core/kernel";
import {
  type DrawPlace,
  drawGuide,
  drawMember,
  placeAlong,
  type SnapLine,
  type SnapPlace,
  snapLines,
  snapPlaces,
  typedPlace,
  type Way,
} from "@/core/shape";
import { useDesk, useDeskState } from "../../desk/desk-context";
import { freshIds } from "../fresh-ids";

/** Chosen in the place of a section: a line to draw from, without a member. */
export const GUIDE = "guide";
export type DrawWay = Way | "place";
export type Drawing = ReturnType<typeof useDrawing>;

/** `possible`: the stage is one that pieces are drawn in; what was begun ends with it. */
export function useDrawing(possible: boolean) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const { shape, sizes } = useDeskState((state) => state.results);
  const stockroom = useDeskState((state) => state.stockroom);
  const home = useDeskState((state) => state.inside);
  const [begun, setBegun] = useState(false);
  const active = begun && possible;
  if (begun && !possible) setBegun(false);
  const [from, setFrom] = useState<DrawPlace | null>(null);
  const [way, setWay] = useState<DrawWay>("right");
  const [section, setSection] = useState<string>(stockroom.sections[0]?.id ?? "");
  const [name, setName] = useState("Rail");
  const [roll, setRoll] = useState("0");
  const [cardinal, setCardinal] = useState(10);
  const [fault, setFault] = useState<string | null>(null);
  const snaps: readonly SnapPlace[] = useMemo(
    () => (active ? snapPlaces(job, shape, home) : []),
    [active, job, shape, home],
  );

  const lines: readonly SnapLine[] = useMemo(
    () => (active ? snapLines(job, shape, home) : []),
    [active, job, shape, home],
  );

  /** Draws a member to a place and goes on from there; the sentence why not, or null. */
  const drawTo = (to: DrawPlace): string | null => {
    if (!from) {
      setFrom(to);
      setFault(null);
      return null;
    }
    if (section === GUIDE) {
      const guide = drawGuide({ job, sizes, stockroom, home }, from, to, freshIds(job));
      return went(guide);
    }
    const settings = { name, section: section === "" ? null : section, roll, cardinal };
    const drawn = drawMember({ job, sizes, stockroom, home }, from, to, settings, freshIds(job));
    return went(drawn);
  };
  /** Carries a step out and goes on from its end. */
  const went = (drawn: ReturnType<typeof drawMember>): string | null => {
    const refused = drawn.ok ? desk.submit(drawn.value.edit) : sentence(drawn.problem);
    setFault(refused);
    if (refused === null && drawn.ok) setFrom(drawn.value.end);
    return refused;
  };
  /** From a typed place; an empty text lifts the pen. */
  const startAt = (text: string): string | null => {
    if (text.trim() === "") {
      setFrom(null);
      return null;
    }
    const place = typedPlace({ job, sizes, home }, text);
    if (!place.ok) return sentence(place.problem);
    setFrom(place.value);
    setFault(null);
    return null;
  };
  /** On by a typed length along a way, or to a typed place. */
  const goOn = (text: string): string | null => {
    if (way === "place" || !from) {
      const place = typedPlace({ job, sizes, home }, text);
      return place.ok ? drawTo(place.value) : sentence(place.problem);
    }
    return drawTo(placeAlong(job, from, way, text));
  };
  const begin = () => {
    setBegun(true);
    setFrom(null);
    setFault(null);
  };
  return {
    active,
    begin,
    finish: () => setBegun(false),
    from,
    way,
    setWay,
    section,
    setSection,
    name,
    setName,
    fault,
    snaps,
    lines,
    roll,
    setRoll,
    cardinal,
    setCardinal,
    drawTo,
    startAt,
    goOn,
  };
}
