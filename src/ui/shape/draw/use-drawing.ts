"use client";
/** The drawing of members: where from, how, and the edit that each step makes. */
import { useMemo, useState } from "react";
import { lastUsed } from "@/core/jigs";
import { type Job, numberWith, readPlace } from "@/core/job";
import { sentence } from "@/core/kernel";
import {
  type DrawPlace,
  drawGuide,
  drawMember,
  drawRectangle,
  drawRun,
  placeAlong,
  placeNamed,
  pointsIn,
  type SnapLine,
  type SnapPlace,
  snapLines,
  snapPlaces,
  typedPlace,
  type Way,
} from "@/core/shape";
import type { Stockroom } from "@/core/stockroom";
import { useDesk, useDeskState } from "../../desk/desk-context";
import { freshIds } from "../fresh-ids";

/** Chosen in the place of a section: a line to draw from, without a member. */
export const GUIDE = "guide";
export type DrawWay = Way | "place";
export type Drawing = ReturnType<typeof useDrawing>;

/** One member after the other, four round a rectangle, or several beside one another. */
export type DrawHow = "single" | "rectangle" | "run";

/** How the member looks that was drawn last; of a new job what is usual in it. */
function lastDrawn(job: Job, stockroom: Stockroom) {
  const last = Object.values(job.members).at(-1);
  return {
    name: last?.name ?? "Rail",
    section: last ? (last.section ?? "") : (lastUsed(job, stockroom, "section") ?? ""),
    roll: last?.roll ?? "0",
    cardinal: last?.cardinal ?? 10,
  };
}

/** Names that mean a length. */
const sizeNames = (job: Job): Readonly<Record<string, true>> =>
  Object.fromEntries(Object.values(job.keySizes).map(({ name }) => [name, true]));

/** Something that is made when somebody asks for it, and once. */
export function onceAsked<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => {
    made ??= { value: make() };
    return made.value;
  };
}

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
  const [how, setHow] = useState<DrawHow>("single");
  const [count, setCount] = useState("3");
  const [step, setStep] = useState("0; 100; 0");
  // As the member was that was drawn last, here or on another day.
  const [start] = useState(() => lastDrawn(job, stockroom));
  const [section, setSection] = useState<string>(start.section);
  const [name, setName] = useState(start.name);
  const [roll, setRoll] = useState(start.roll);
  const [cardinal, setCardinal] = useState(start.cardinal);
  const [fault, setFault] = useState<string | null>(null);
  const usual = useDeskState((state) => state.job.info.job.usual.section);
  const entry = section === GUIDE ? undefined : stockroom.sectionById.get(section || (usual ?? ""));
  const turned = numberWith(sizes, roll);
  /** What is drawn with: its section, and how many degrees it is turned; null: that cannot be read. */
  const seat = { shape: entry?.shape ?? null, roll: turned.ok ? turned.value : null };
  // Worked out when the pointer comes: whoever types lengths asks for none of them.
  const snaps = useMemo(
    () => onceAsked((): readonly SnapPlace[] => (active ? snapPlaces(job, shape, home) : [])),
    [active, job, shape, home],
  );
  const lines = useMemo(
    () => onceAsked((): readonly SnapLine[] => (active ? snapLines(job, shape, home) : [])),
    [active, job, shape, home],
  );
  const { points: drawn } = job;
  const points = useMemo(
    () => (active ? pointsIn({ points: drawn }, shape, home) : []),
    [active, drawn, shape, home],
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
    const ground = { job, sizes, stockroom, home };
    if (how === "rectangle") return went(drawRectangle(ground, from, to, settings, freshIds(job)));
    if (how === "single") return went(drawMember(ground, from, to, settings, freshIds(job)));
    const by = readPlace(step);
    if (by?.kind !== "place")
      return told("The step is three lengths separated by semicolons: width; depth; height.");
    const run = { count: Number(count), step: by.at };
    return went(drawRun(ground, from, to, run, settings, freshIds(job)));
  };
  const told = (sentenceWhy: string): string => {
    setFault(sentenceWhy);
    return sentenceWhy;
  };
  /** Carries a step out and goes on from its end. */
  const went = (drawn: ReturnType<typeof drawMember>): string | null => {
    const refused = drawn.ok ? desk.submit(drawn.value.edit) : sentence(drawn.problem);
    setFault(refused);
    // A rectangle and a run are whole: the next one begins elsewhere.
    if (refused === null && drawn.ok) setFrom(how === "single" ? drawn.value.end : null);
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
  /** On by a typed length along a way, or to a typed place; the name of a point is a place whatever the way is. */
  const goOn = (text: string): string | null => {
    const named = placeNamed(job, home, text);
    if (named && !(text.trim() in sizeNames(job))) return drawTo(named);
    if (how === "rectangle" || way === "place" || !from) {
      const place = typedPlace({ job, sizes, home }, text);
      return place.ok ? drawTo(place.value) : sentence(place.problem);
    }
    return drawTo(placeAlong(job, from, way, text));
  };
  const begin = () => {
    // What was selected is not what is drawn.
    desk.select([]);
    setBegun(true);
    setFrom(null);
    setFault(null);
  };
  /** One step back: from a line that was begun to none, then out of drawing. */
  const stepBack = () => (from ? setFrom(null) : setBegun(false));
  return {
    active,
    begin,
    seat,
    stepBack,
    how,
    setHow,
    count,
    setCount,
    step,
    setStep,
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
    points,
    roll,
    setRoll,
    cardinal,
    setCardinal,
    drawTo,
    startAt,
    goOn,
  };
}
