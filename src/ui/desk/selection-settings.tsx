"use client";
/** What can be set on the selection: section, material, roll and end cuts; board, edging, grain; counts. */
import type {
  Assembly,
  BoughtPart,
  Job,
  KeySize,
  Look,
  Member,
  Panel,
  Placement,
  Role,
  TypedPiece,
} from "@/core/job";
import { numberWith } from "@/core/job";
import { memberSolid } from "@/core/shape";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { BoughtSettings } from "./bought-settings";
import { CARDINALS } from "./cardinals";
import { useDesk, useDeskState } from "./desk-context";
import { EndSettings } from "./end-settings";
import { EndsOfMany } from "./ends-of-many";
import { KeySizeSettings } from "./key-size-settings";
import { MemberWorkFields } from "./member-work";
import { MoreSettings } from "./more-settings";
import { PanelEdges } from "./panel-edges";
import { PanelOutline } from "./panel-outline";
import { PanelPlace } from "./panel-place";
import { PanelWork } from "./panel-work";
import { AssemblySettings, LOOK_CHOICES, PlacementSettings, ROLE_CHOICES } from "./placement-settings";
import { SectionChooser } from "./section-chooser";
import { SectionPicture } from "./section-picture";
import { LeaveOut, OnlyWhen, shared } from "./shared-fields";
import { TypedSettings } from "./typed-settings";

export function SelectionSettings() {
  const job = useDeskState((state) => state.job);
  const selected = useDeskState((state) => state.selected);
  const pick = <T,>(records: Readonly<Record<string, T>>) =>
    [...selected].flatMap((id) => (records[id] ? [records[id]] : []));
  const members = pick<Member>(job.members);
  const panels = pick<Panel>(job.panels);
  const parts = pick<BoughtPart>(job.boughtParts);
  const typed = pick<TypedPiece>(job.typedPieces);
  const [size] = pick<KeySize>(job.keySizes);
  const [placement] = pick<Placement>(job.placements);
  const [assembly] = pick<Assembly>(job.assemblies);
  if (size) return <KeySizeSettings key={size.id} size={size} />;
  if (members.length > 0) return <MemberSettings members={members} job={job} />;
  if (panels.length > 0) return <PanelSettings panels={panels} />;
  if (parts.length > 0) return <BoughtSettings parts={parts} />;
  if (typed.length > 0) return <TypedSettings typed={typed} />;
  if (placement) return <PlacementSettings key={placement.id} placement={placement} />;
  if (assembly) return <AssemblySettings key={assembly.id} assembly={assembly} />;
  return (
    <p className="text-[13px] text-ink-soft">
      Settings of the selection appear here: section, material, end cuts, board, edging.
    </p>
  );
}

const idsOf = (records: readonly { readonly id: string }[]) => records.map((record) => record.id);

type Manner = { readonly role?: Role; readonly look?: Look | null };

/** How pieces are come by, and how they look whatever they are made of. */
function RoleAndLook({
  roles,
  looks,
  onChange,
}: {
  readonly roles: readonly Role[];
  readonly looks: readonly (Look | null)[];
  readonly onChange: (set: Manner) => string | null;
}) {
  return (
    <>
      <Chooser
        label="Role"
        value={shared(roles) ?? ""}
        placeholder="mixed values"
        choices={ROLE_CHOICES}
        onChoose={(role) => onChange({ role })}
      />
      <Chooser
        label="Colour"
        value={shared(looks.map((look) => look ?? ""))}
        choices={LOOK_CHOICES}
        onChoose={(look) => onChange({ look: look === "" ? null : look })}
      />
    </>
  );
}

const GRID = "grid grid-cols-3 gap-x-3 gap-y-1.5";

const GRAIN_CHOICES = [
  { value: "length", label: "along the length" },
  { value: "width", label: "across, along the width" },
  { value: "any", label: "any way" },
] as const;

function MemberSettings({ members, job }: { readonly members: readonly Member[]; readonly job: Job }) {
  const desk = useDesk();
  const ids = idsOf(members);
  const change = (set: Partial<Omit<Member, "id" | "line">>) =>
    desk.submit({ kind: "changeMembers", ids, set });
  const section = shared(members.map((member) => member.section ?? ""));
  const [only] = members.length === 1 ? members : [];
  return (
    <div className="flex items-start gap-3">
      <SectionOfMembers members={members} onChange={change} />
      <div className={`${GRID} min-w-0 flex-1`}>
        <SectionChooser
          value={section}
          placeholder="mixed values"
          onChoose={(id) => change({ section: id === "" ? null : id })}
        />
        <TextField
          label="Name"
          value={shared(members.map((member) => member.name)) ?? ""}
          placeholder="mixed values"
          onCommit={(text) => (text.trim() === "" ? "Enter a name." : change({ name: text.trim() }))}
        />
        <TextField
          label="Section rotation, °"
          value={shared(members.map((member) => member.roll)) ?? "mixed values"}
          onCommit={(roll) => change({ roll })}
        />
        {only ? (
          <>
            <EndSettings
              key={`${only.id} start`}
              member={only}
              side="start"
              job={job}
              onChange={(start) => change({ start })}
            />
            <EndSettings
              key={`${only.id} end`}
              member={only}
              side="end"
              job={job}
              onChange={(end) => change({ end })}
            />
          </>
        ) : (
          <EndsOfMany members={members} />
        )}
        <Chooser
          label="Line passes through"
          value={String(shared(members.map((member) => member.cardinal)) ?? "")}
          placeholder="mixed values"
          choices={CARDINALS}
          onChoose={(cardinal) => change({ cardinal: Number(cardinal) })}
        />
        <div className="self-end">
          <LeaveOut
            leftOut={members.every((member) => member.leftOut)}
            onChange={(leftOut) => change({ leftOut })}
          />
        </div>
        <MemberWorkFields members={members} />
        <MoreSettings>
          <TextField
            label="Material (empty: from stock)"
            value={shared(members.map((member) => member.material)) ?? ""}
            placeholder="as the stock's"
            onCommit={(text) => change({ material: text.trim() === "" ? null : text.trim() })}
          />
          <OnlyWhen whens={members.map((member) => member.when)} onChange={(when) => change({ when })} />
          <RoleAndLook
            roles={members.map((member) => member.role)}
            looks={members.map((member) => member.look)}
            onChange={change}
          />
        </MoreSettings>
      </div>
    </div>
  );
}

/** The section that the members share, as it stands on their lines; nothing where they differ. */
function SectionOfMembers({
  members,
  onChange,
}: {
  readonly members: readonly Member[];
  readonly onChange: (set: Partial<Pick<Member, "roll" | "cardinal">>) => string | null;
}) {
  const { shape, sizes } = useDeskState((state) => state.results);
  const solids = members.map(({ id }) => memberSolid(shape, id));
  const entries = new Set(solids.map((solid) => solid?.entry.id));
  const [solid] = solids;
  const roll = shared(members.map((member) => member.roll));
  const cardinal = shared(members.map((member) => member.cardinal));
  const degrees = roll === null ? null : numberWith(sizes, roll);
  if (!solid || entries.size > 1 || !degrees?.ok || cardinal === null) return null;
  return (
    <SectionPicture
      shape={solid.entry.shape}
      roll={degrees.value}
      cardinal={cardinal}
      isPlumb={solids.every((one) => one && Math.abs(one.frame.z[2]) > 0.999)}
      onRoll={(next) => onChange({ roll: String(next) })}
      onCardinal={(next) => onChange({ cardinal: next })}
    />
  );
}

function PanelSettings({ panels }: { readonly panels: readonly Panel[] }) {
  const desk = useDesk();
  const boards = useDeskState((state) => state.stockroom.boards);
  const ids = idsOf(panels);
  const change = (set: Partial<Omit<Panel, "id">>) => desk.submit({ kind: "changePanels", ids, set });
  const [only] = panels.length === 1 ? panels : [];
  return (
    <div className={GRID}>
      <Chooser
        label="Board"
        value={shared(panels.map((panel) => panel.board ?? ""))}
        placeholder="mixed values"
        choices={[
          { value: "", label: "default" },
          ...boards.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChoose={(id) => change({ board: id === "" ? null : id })}
      />
      {only ? (
        only.between ? null : (
          <>
            <TextField label="Length" value={only.length} onCommit={(length) => change({ length })} />
            <TextField label="Width" value={only.width} onCommit={(width) => change({ width })} />
          </>
        )
      ) : null}
      <PanelEdges panels={panels} />
      <TextField
        label="Name"
        value={shared(panels.map((panel) => panel.name)) ?? ""}
        placeholder="mixed values"
        onCommit={(text) => (text.trim() === "" ? "Enter a name." : change({ name: text.trim() }))}
      />
      <Chooser
        label="Grain"
        value={shared(panels.map((panel) => panel.grain))}
        placeholder="mixed values"
        choices={GRAIN_CHOICES}
        onChoose={(grain) => change({ grain })}
      />
      <Chooser
        label="Faces"
        value={shared(panels.map((panel) => (panel.goodFace ? "good" : "alike")))}
        placeholder="mixed values"
        choices={[
          { value: "alike", label: "both alike" },
          { value: "good", label: "one good face" },
        ]}
        onChoose={(faces) => change({ goodFace: faces === "good" })}
      />
      {only ? <PanelPlace panel={only} /> : null}
      {only ? (
        <PanelOutline panel={only} onChange={(outline) => change({ outline })} onRead={change} />
      ) : null}
      <PanelWork panels={panels} />
      <div className="self-end">
        <LeaveOut
          leftOut={panels.every((panel) => panel.leftOut)}
          onChange={(leftOut) => change({ leftOut })}
        />
      </div>
      <MoreSettings>
        <TextField
          label="Material (empty: from stock)"
          value={shared(panels.map((panel) => panel.material)) ?? ""}
          placeholder="default"
          onCommit={(text) => change({ material: text.trim() === "" ? null : text.trim() })}
        />
        <OnlyWhen whens={panels.map((panel) => panel.when)} onChange={(when) => change({ when })} />
        <RoleAndLook
          roles={panels.map((panel) => panel.role)}
          looks={panels.map((panel) => panel.look)}
          onChange={change}
        />
      </MoreSettings>
    </div>
  );
}
