"use client";
/** What can be done to the selected pieces as geometry: copy, repeat, mirror, split, remove. */
import {
  Boxes,
  Columns2,
  Combine,
  Copy,
  EyeOff,
  FlipHorizontal2,
  Focus,
  LogIn,
  Merge,
  Plus,
  Scissors,
  Trash2,
  Ungroup,
} from "lucide-react";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import {
  type Axis,
  assemblyOf,
  type CopyRule,
  copyOfPieces,
  findAssembly,
  type Home,
  homeOf,
  type Job,
  newInsert,
  newPanel,
  readPlace,
  takenApart,
} from "@/core/job";
import { sentence } from "@/core/kernel";
import { between, cutsByRule, editsOfCuts, type JointRule, splitMember } from "@/core/shape";
import { Button, buttonClass } from "../common/button";
import { Chooser } from "../common/chooser";
import { useDesk, useDeskState } from "../desk/desk-context";
import { placeAgain } from "./assembly-tree";
import { freshIds } from "./fresh-ids";

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
  const [fault, setFault] = useState<string | null>(null);
  if (ids.length === 0) return null;
  return (
    <div className="flex min-w-0 items-center gap-2">
      {pieces.length > 0 ? <CopyForm ids={pieces} /> : null}
      {pieces.length > 0 ? <MirrorForm ids={pieces} /> : null}
      {pieces.length > 0 ? <AssembleForm ids={pieces} /> : null}
      {pieces.length === 2 && pieces.every((id) => job.panels[id]) ? <BetweenForm ids={pieces} /> : null}
      {points.length === 2 ? <JoinPoints points={points} /> : null}
      {members.length > 0 || point ? <JointForm members={members} point={point} /> : null}
      {only && job.members[only] ? <SplitForm id={only} /> : null}
      {only && job.placements[only] ? <PlacedActions id={only} /> : null}
      {pieces.length > 0 ? <Visibility ids={pieces} /> : null}
      <Button
        look="danger"
        icon={<Trash2 size={14} aria-hidden />}
        onClick={() => {
          const refused = desk.submit({ kind: "remove", ids });
          setFault(refused);
          if (refused === null) desk.select([]);
        }}
      >
        Remove
      </Button>
      {fault ? (
        <span role="alert" className="truncate text-[12px] text-oxide" title={fault}>
          {fault}
        </span>
      ) : null}
    </div>
  );
}

/** Hide the selection in the picture, or everything else. */
function Visibility({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  const hide = () => desk.hide([...desk.store.getState().hidden, ...ids]);
  const isolate = () => {
    const { job } = desk.store.getState();
    const own = new Set(ids);
    // An assembly on the way to what is chosen has to stay.
    for (const id of ids)
      for (let home = homeOf(job, id) ?? null; home !== null; home = outerHome(job, home, own)) own.add(home);
    const all = [job.members, job.panels, job.boughtParts, job.placements].flatMap((table) =>
      Object.keys(table),
    );
    const inside = (id: string) => {
      const home = homeOf(job, id);
      return ids.some((chosen) => job.placements[chosen]?.assembly === home);
    };
    desk.hide(all.filter((id) => !own.has(id) && !inside(id)));
  };
  return (
    <>
      <Button look="plain" icon={<EyeOff size={14} aria-hidden />} onClick={hide}>
        Hide
      </Button>
      <Button look="plain" icon={<Focus size={14} aria-hidden />} onClick={isolate}>
        Only these
      </Button>
    </>
  );
}

function useCopies(ids: readonly string[]) {
  const desk = useDesk();
  return (rule: CopyRule): string | null => {
    const { job } = desk.store.getState();
    const edit = copyOfPieces(job, ids, rule, freshIds(job));
    if (!edit.ok) return sentence(edit.problem);
    const refused = desk.submit(edit.value);
    const { members, panels, boughtParts, placements } = edit.value;
    if (refused === null)
      desk.select([...members, ...panels, ...boughtParts, ...placements].map((record) => record.id));
    return refused;
  };
}

type FormProps = {
  readonly word: string;
  readonly icon: ReactNode;
  readonly button: string;
  readonly children: ReactNode;
  /** Carries it out; the sentence why not, or null. */
  readonly onDo: (form: FormData) => string | null;
};

/** A small form that opens over its word. */
function ActionForm({ word, icon, button, children, onDo }: FormProps) {
  const [open, setOpen] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setFault(null);
      }}
    >
      <Popover.Trigger className={buttonClass("plain")}>
        {icon} {word}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={6}
          aria-label={word}
          className="z-40 w-[300px] rounded-sm border border-seam bg-leaf p-3 shadow-lg"
        >
          <form
            className="space-y-2"
            onSubmit={(event) => {
              event.preventDefault();
              const refused = onDo(new FormData(event.currentTarget));
              setFault(refused);
              if (refused === null) setOpen(false);
            }}
          >
            {children}
            {fault ? (
              <p role="alert" className="text-[12px] text-oxide">
                {fault}
              </p>
            ) : null}
            <Button look="primary" type="submit">
              {button}
            </Button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Field({
  name,
  label,
  value,
}: {
  readonly name: string;
  readonly label: string;
  readonly value: string;
}) {
  return (
    <label className="block">
      <span className="block text-[12px] text-ink-soft">{label}</span>
      <input
        name={name}
        defaultValue={value}
        required
        className="h-7 w-full rounded-sm border border-seam bg-leaf px-1.5 font-table"
      />
    </label>
  );
}

const textIn = (form: FormData, name: string) => String(form.get(name) ?? "").trim();

function CopyForm({ ids }: { readonly ids: readonly string[] }) {
  const copy = useCopies(ids);
  const desk = useDesk();
  const run = (form: FormData) => {
    const by = readPlace(textIn(form, "by"));
    if (by?.kind !== "place") return "Type three lengths parted by semicolons: width; depth; height.";
    const many = textIn(form, "times");
    if (!/^\d+$/.test(many)) return repeatByFormula(desk, ids, by.at, many);
    return copy({ kind: "move", by: by.at, times: Number(textIn(form, "times")) });
  };
  return (
    <ActionForm word="Copy" icon={<Copy size={14} aria-hidden />} button="Copy" onDo={run}>
      <Field name="by" label="Each one further by (width; depth; height)" value="0; 100; 0" />
      <Field name="times" label="How many copies, or a formula that stays" value="1" />
    </ActionForm>
  );
}

/** A number that follows key sizes is kept by an assembly that stands there so many times more. */
function repeatByFormula(
  desk: ReturnType<typeof useDesk>,
  ids: readonly string[],
  step: readonly [string, string, string],
  formula: string,
): string | null {
  const { job } = desk.store.getState();
  const [only] = ids;
  const placement = ids.length === 1 && only !== undefined ? job.placements[only] : undefined;
  const count = `1 + (${formula})`;
  if (placement)
    return desk.submit({
      kind: "changePlacements",
      ids: [placement.id],
      set: { count, step: [step[0], step[1], step[2]] },
    });
  const name = ids
    .map((id) => (job.members[id] ?? job.panels[id] ?? job.boughtParts[id])?.name)
    .find(Boolean);
  const repeat = { count, step };
  const edit = assemblyOf(job, ids, { name: name ?? "Repeat", at: ["0", "0", "0"], repeat }, freshIds(job));
  if (!edit.ok) return sentence(edit.problem);
  const refused = desk.submit(edit.value);
  if (refused === null && edit.value.kind === "makeAssembly") desk.select([edit.value.placement.id]);
  return refused;
}

/** Makes one point of the two that are selected: the second goes into the first. */
function JoinPoints({ points }: { readonly points: readonly string[] }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const [fault, setFault] = useState<string | null>(null);
  const [into, from] = points;
  if (into === undefined || from === undefined) return null;
  return (
    <>
      <Button
        look="plain"
        icon={<Combine size={14} aria-hidden />}
        onClick={() => {
          const refused = desk.submit({ kind: "joinPoints", from, into });
          setFault(refused);
          if (refused === null) desk.select([into]);
        }}
      >
        Join {job.points[from]?.name} to {job.points[into]?.name}
      </Button>
      {fault ? (
        <span role="alert" className="truncate text-[12px] text-oxide" title={fault}>
          {fault}
        </span>
      ) : null}
    </>
  );
}

/** Cuts all joints of the selection by one rule, or the joint at one point. */
function JointForm({
  members,
  point,
}: {
  readonly members: readonly string[];
  readonly point: string | undefined;
}) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  // A single member is cut at its own two joints, with all that meet there.
  const [single] = members.length === 1 ? members : [];
  const line = job.lines[job.members[single ?? ""]?.line ?? ""];
  const places = point !== undefined ? [point] : line ? [line.from as string, line.to as string] : [];
  const meeting = [...new Set(places.flatMap((place) => membersAt(job, place)))];
  const [corners, setCorners] = useState<JointRule["corners"]>("mitre");
  const [through, setThrough] = useState("deepest");
  const run = (form: FormData) => {
    const { results, stockroom } = desk.store.getState();
    const only = places.flatMap((place) => {
      const at = results.shape.points.get(place);
      return at ? [at] : [];
    });
    const rule: JointRule = {
      corners,
      through:
        through === "deepest" || through === "level" || through === "plumb" ? through : { member: through },
      gap: textIn(form, "gap") || "0",
    };
    const ids = new Set(places.length === 0 ? members : meeting.map((member) => member.id as string));
    const ground = { sizes: results.sizes, stockroom, ...(places.length > 0 ? { only } : {}) };
    const edits = editsOfCuts(cutsByRule(job, ids, rule, ground));
    if (edits.length === 0) return "No two of these members meet; select the members of a joint.";
    return desk.submit({ kind: "together", what: "Cut joints by a rule", edits: [...edits] });
  };
  return (
    <ActionForm word="Joints" icon={<Merge size={14} aria-hidden />} button="Cut them so" onDo={run}>
      <Chooser
        label="Corners of two like ends"
        value={corners}
        choices={[
          { value: "mitre", label: "mitred" },
          { value: "butt", label: "butted" },
        ]}
        onChoose={(next) => setCorners(next as JointRule["corners"])}
      />
      <Chooser
        label="Where they butt, what runs through is"
        value={through}
        choices={[
          { value: "deepest", label: "the deepest section" },
          { value: "level", label: "the level one" },
          { value: "plumb", label: "the plumb one" },
          ...meeting.map(({ id, name }) => ({ value: id as string, label: name })),
        ]}
        onChoose={setThrough}
      />
      <Field name="gap" label="Gap for the weld" value="0" />
    </ActionForm>
  );
}

/** The members whose line starts or ends at a point. */
const membersAt = (job: Job, point: string) =>
  Object.values(job.members).filter((member) => {
    const line = job.lines[member.line];
    return line?.from === point || line?.to === point;
  });

function MirrorForm({ ids }: { readonly ids: readonly string[] }) {
  const copy = useCopies(ids);
  const [axis, setAxis] = useState<Axis>(0);
  const run = (form: FormData) => copy({ kind: "mirror", axis, plane: textIn(form, "plane") });
  return (
    <ActionForm
      word="Mirror"
      icon={<FlipHorizontal2 size={14} aria-hidden />}
      button="Mirror a copy"
      onDo={run}
    >
      <Chooser
        label="Across the"
        value={String(axis)}
        choices={[
          { value: "0", label: "width" },
          { value: "1", label: "depth" },
          { value: "2", label: "height" },
        ]}
        onChoose={(value) => setAxis(Number(value) as Axis)}
      />
      <Field name="plane" label="At the place" value="0" />
    </ActionForm>
  );
}

/** A new panel between the two that are selected, which follows them. */
function BetweenForm({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  const run = (form: FormData) => {
    const { job, results, inside } = desk.store.getState();
    const [first, second] = ids.map((id) => results.shape.panels.find(({ panel }) => panel.id === id));
    if (!first || !second) return "One of the two panels cannot be computed; mend that first.";
    const panel = newPanel(freshIds(job)("panel"), {
      name: textIn(form, "name"),
      board: first.panel.board,
      assembly: inside,
      between: between(first, second, textIn(form, "distance")),
    });
    const refused = desk.submit(newInsert("Put a panel between two", { panels: [panel] }));
    if (refused === null) desk.select([panel.id]);
    return refused;
  };
  return (
    <ActionForm
      word="Panel between"
      icon={<Columns2 size={14} aria-hidden />}
      button="Put it between"
      onDo={run}
    >
      <Field name="name" label="Name" value="Shelf" />
      <Field name="distance" label="Off the first one's left or front end" value="100" />
    </ActionForm>
  );
}

/** Makes an assembly of the selection where it stands. */
function AssembleForm({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const first = ids
    .map((id) => (job.members[id] ?? job.panels[id] ?? job.boughtParts[id])?.name)
    .find(Boolean);
  const run = (form: FormData) => {
    const at = readPlace(textIn(form, "at"));
    if (at?.kind !== "place") return "Type three lengths parted by semicolons: width; depth; height.";
    const edit = assemblyOf(job, ids, { name: textIn(form, "name"), at: at.at }, freshIds(job));
    if (!edit.ok) return sentence(edit.problem);
    const refused = desk.submit(edit.value);
    if (refused === null && edit.value.kind === "makeAssembly") desk.select([edit.value.placement.id]);
    return refused;
  };
  return (
    <ActionForm word="Assemble" icon={<Boxes size={14} aria-hidden />} button="Make an assembly" onDo={run}>
      <Field name="name" label="Name" value={first ?? "Assembly"} />
      <Field name="at" label="Its origin lies at (width; depth; height)" value="0; 0; 0" />
    </ActionForm>
  );
}

/** What can be done to one placed assembly. */
function PlacedActions({ id }: { readonly id: string }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const assembly = findAssembly(job, job.placements[id]?.assembly ?? null);
  const [fault, setFault] = useState<string | null>(null);
  if (!assembly) return null;
  const takeApart = () => {
    const edit = takenApart(job, id, freshIds(job));
    setFault(edit.ok ? desk.submit(edit.value) : sentence(edit.problem));
    if (edit.ok) desk.select([]);
  };
  return (
    <>
      <Button look="plain" icon={<LogIn size={14} aria-hidden />} onClick={() => desk.enter(assembly.id)}>
        Open
      </Button>
      <Button look="plain" icon={<Plus size={14} aria-hidden />} onClick={() => placeAgain(desk, assembly)}>
        Place again
      </Button>
      <Button look="plain" icon={<Ungroup size={14} aria-hidden />} onClick={takeApart}>
        Take apart
      </Button>
      {fault ? (
        <span role="alert" className="truncate text-[12px] text-oxide" title={fault}>
          {fault}
        </span>
      ) : null}
    </>
  );
}

/** The home around an assembly, where there is one that is not taken yet. */
function outerHome(job: Job, home: Home, taken: ReadonlySet<string>): Home {
  const placement = Object.values(job.placements).find(
    (one) => one.assembly === home && one.into !== null && !taken.has(one.into),
  );
  return placement?.into ?? null;
}

function SplitForm({ id }: { readonly id: string }) {
  const desk = useDesk();
  const run = (form: FormData) => {
    const { job, results } = desk.store.getState();
    const edit = splitMember({ job, sizes: results.sizes }, id, textIn(form, "at"), freshIds(job));
    return edit.ok ? desk.submit(edit.value) : sentence(edit.problem);
  };
  return (
    <ActionForm word="Split" icon={<Scissors size={14} aria-hidden />} button="Split" onDo={run}>
      <Field name="at" label="At a share (0.5) or a length from its start" value="0.5" />
    </ActionForm>
  );
}
