"use client";
/** The tree of the job: assemblies as they stand in one another, with what is in them and how often. */
import { ChevronDown, ChevronRight, Eye, EyeOff, LogIn, Plus } from "lucide-react";
import { type ReactNode, useState } from "react";
import {
  type Assembly,
  type Home,
  homeOfMember,
  type Job,
  newInsert,
  newPlacement,
  type Placement,
  rowNumberWords,
} from "@/core/job";
import { Button } from "../common/button";
import { Hint } from "../common/hint";
import { useDesk, useDeskState } from "../desk/desk-context";
import { isMore, toggled } from "../desk/picking";
import { freshIds } from "./fresh-ids";
import { Section } from "./ledger-section";

export function AssemblyTree() {
  const job = useDeskState((state) => state.job);
  const inside = useDeskState((state) => state.inside);
  const assemblies = Object.values(job.assemblies);
  if (assemblies.length === 0) return null;
  const placed = new Set(Object.values(job.placements).map((placement) => placement.assembly as string));
  const loose = assemblies.filter((assembly) => !placed.has(assembly.id));
  return (
    <Section title="Assemblies" facts={inside === null ? "the job itself is open" : "one of them is open"}>
      <ul>
        <Branches home={null} depth={0} around={[]} />
        {loose.map((assembly) => (
          <LooseRow key={assembly.id} assembly={assembly} />
        ))}
      </ul>
    </Section>
  );
}

type BranchProps = { readonly home: Home; readonly depth: number; readonly around: readonly Home[] };

function Branches({ home, depth, around }: BranchProps) {
  const job = useDeskState((state) => state.job);
  return Object.values(job.placements)
    .filter((placement) => placement.into === home && !around.includes(placement.assembly))
    .map((placement) => (
      <Branch key={placement.id} placement={placement} depth={depth} around={[...around, home]} />
    ));
}

type PlacementRow = {
  readonly placement: Placement;
  readonly depth: number;
  readonly around: readonly Home[];
};

function Branch({ placement, depth, around }: PlacementRow) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const [open, setOpen] = useState(false);
  const chosen = useDeskState((state) => state.selected.has(placement.id));
  const hidden = useDeskState((state) => state.hidden);
  const inside = useDeskState((state) => state.inside === placement.assembly);
  const absent = useDeskState((state) => state.results.shape.absent.has(placement.id));
  const times = useTimes(placement);
  const assembly = job.assemblies[placement.assembly];
  if (!assembly) return null;
  const isHidden = hidden.has(placement.id);
  const pick = (event: React.MouseEvent) => {
    const { selected } = desk.store.getState();
    desk.select(isMore(event) ? toggled(selected, [placement.id]) : [placement.id]);
  };
  return (
    <li>
      <div
        className={`flex h-7 items-center border-seam border-b pr-3.5 ${chosen ? "bg-brass-pale" : "hover:bg-ground"}`}
        style={{ paddingLeft: 8 + depth * 18 }}
      >
        <IconButton
          label={`${open ? "Collapse" : "Expand"} ${assembly.name}`}
          onClick={() => setOpen(!open)}
          expanded={open}
        >
          {open ? <ChevronDown size={15} aria-hidden /> : <ChevronRight size={15} aria-hidden />}
        </IconButton>
        <button
          type="button"
          aria-pressed={chosen}
          onClick={pick}
          onDoubleClick={() => desk.enter(assembly.id)}
          className="flex min-w-0 flex-1 items-center gap-2 text-left font-table"
        >
          <span className={`truncate font-semibold ${isHidden ? "text-ink-soft line-through" : ""}`}>
            {assembly.name}
          </span>
          <span className="shrink-0">{absent ? "" : `× ${times}`}</span>
          <span className="truncate text-[13px] text-ink-soft">
            {stateWords(placement, assembly, absent)}
          </span>
        </button>
        <IconButton
          label={`${isHidden ? "Show" : "Hide"} ${assembly.name}`}
          onClick={() =>
            desk.hide(isHidden ? [...hidden].filter((id) => id !== placement.id) : [...hidden, placement.id])
          }
        >
          {isHidden ? <EyeOff size={15} aria-hidden /> : <Eye size={15} aria-hidden />}
        </IconButton>
        <IconButton
          label={`Open ${assembly.name}`}
          onClick={() => desk.enter(inside ? null : assembly.id)}
          pressed={inside}
        >
          <LogIn size={15} aria-hidden />
        </IconButton>
      </div>
      {open ? (
        <ul aria-label={`In ${assembly.name}`}>
          <Branches home={assembly.id} depth={depth + 1} around={around} />
          <Leaves job={job} home={assembly.id} depth={depth + 1} />
        </ul>
      ) : null}
    </li>
  );
}

/** How often a placement stands where it stands: in the job, or in one of what it is in. */
function useTimes(placement: Placement): number {
  const places = useDeskState((state) => state.results.shape.places);
  const all = (places.get(placement.assembly) ?? []).filter(({ path }) => path.at(-1) === placement.id);
  const outer = placement.into === null ? 1 : (places.get(placement.into) ?? []).length;
  return outer === 0 ? 0 : Math.round(all.length / outer);
}

function stateWords(placement: Placement, assembly: Assembly, absent: boolean): string {
  return [
    absent ? "not there now" : "",
    placement.mirror ? "mirrored" : "",
    assembly.role === "bought" ? "bought, not made" : assembly.role === "guide" ? "guide" : "",
    placement.leftOut
      ? "left out of lists"
      : placement.without.length > 0
        ? `without ${rowNumberWords(placement.without)}`
        : "",
  ]
    .filter(Boolean)
    .join(" · ");
}

type IconProps = {
  readonly label: string;
  readonly onClick: () => void;
  readonly children: ReactNode;
  readonly expanded?: boolean;
  readonly pressed?: boolean;
};

function IconButton({ label, onClick, children, expanded, pressed }: IconProps) {
  return (
    <Hint text={label}>
      <button
        type="button"
        aria-label={label}
        {...(expanded === undefined ? {} : { "aria-expanded": expanded })}
        {...(pressed === undefined ? {} : { "aria-pressed": pressed })}
        onClick={onClick}
        className={`flex h-7 w-6 shrink-0 items-center justify-center ${pressed ? "text-enamel" : "text-ink-soft"} hover:text-ink`}
      >
        {children}
      </button>
    </Hint>
  );
}

type LeafGroup = { readonly name: string; readonly ids: string[] };

/** Members, panels and bought parts of one assembly, those of one name together. */
function Leaves({ job, home, depth }: { readonly job: Job; readonly home: Home; readonly depth: number }) {
  const desk = useDesk();
  const selected = useDeskState((state) => state.selected);
  const groups = new Map<string, LeafGroup>();
  const add = (kind: string, { id, name }: { readonly id: string; readonly name: string }) => {
    const key = `${kind} ${name}`;
    const known = groups.get(key);
    if (known) known.ids.push(id);
    else groups.set(key, { name, ids: [id] });
  };
  for (const member of Object.values(job.members))
    if (homeOfMember(job, member) === home) add("member", member);
  for (const panel of Object.values(job.panels)) if (panel.assembly === home) add("panel", panel);
  for (const part of Object.values(job.boughtParts)) if (part.assembly === home) add("bought", part);
  return [...groups].map(([key, { name, ids }]) => {
    const chosen = ids.some((id) => selected.has(id));
    return (
      <li key={key}>
        <button
          type="button"
          aria-pressed={chosen}
          onClick={() => desk.select(ids)}
          className={`flex h-7 w-full items-center gap-2 border-seam border-b pr-3.5 text-left font-table ${chosen ? "bg-brass-pale" : "hover:bg-ground"}`}
          style={{ paddingLeft: 32 + depth * 18 }}
        >
          <span className="truncate">{name}</span>
          <span className="text-[13px] text-ink-soft">{ids.length > 1 ? `× ${ids.length}` : ""}</span>
        </button>
      </li>
    );
  });
}

/** An assembly that stands nowhere can be placed from here. */
function LooseRow({ assembly }: { readonly assembly: Assembly }) {
  const desk = useDesk();
  const chosen = useDeskState((state) => state.selected.has(assembly.id));
  return (
    <li
      className={`flex h-7 items-center gap-2 border-seam border-b pr-3.5 pl-8 ${chosen ? "bg-brass-pale" : ""}`}
    >
      <button
        type="button"
        aria-pressed={chosen}
        onClick={() => desk.select([assembly.id])}
        className="min-w-0 flex-1 truncate text-left font-table"
      >
        <b className="font-semibold">{assembly.name}</b>{" "}
        <span className="text-[13px] text-amber">not placed</span>
      </button>
      <Button look="plain" icon={<Plus size={15} aria-hidden />} onClick={() => placeAgain(desk, assembly)}>
        Place it
      </Button>
    </li>
  );
}

/** Puts one more of an assembly into what is open, at its origin, and selects it. */
export function placeAgain(desk: ReturnType<typeof useDesk>, assembly: Assembly): string | null {
  const { job, inside } = desk.store.getState();
  const placement = newPlacement(freshIds(job)("placement"), { assembly: assembly.id, into: inside });
  const refused = desk.submit(newInsert(`Place ${assembly.name}`, { placements: [placement] }));
  if (refused === null) desk.select([placement.id]);
  return refused;
}
