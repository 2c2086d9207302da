"use client";
/** The setup of one list, in two parts: its rows (title, what goes in, groups, order, sums) and its columns. */
import { Archive, Plus, Trash2 } from "lucide-react";
import { type ReactNode, useMemo } from "react";
import { toast } from "sonner";
import { CUT_LIST, type Job, LIST_KINDS, type ListKind, type ListSetup, setupToKeep } from "@/core/job";
import { sentence } from "@/core/kernel";
import { handOrderOf, listView, ownList, readSizePattern, USUAL_SIZE } from "@/core/lists";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { call } from "../common/http";
import { TextField } from "../common/text-field";
import { Tick } from "../common/tick";
import { useDesk, useDeskState } from "../desk/desk-context";
import { type ColumnChoice, columnChoices } from "./column-choices";
import { ListColumnsSettings } from "./list-columns-settings";
import { OwnColumns } from "./own-columns";

const KIND_WORDS: Readonly<Record<ListKind, string>> = {
  member: "members",
  panel: "panels",
  other: "others",
  bought: "bought parts",
};

type Props = { readonly setup: ListSetup };
type Change = (set: Partial<ListSetup>) => string | null;

function useSetup(setup: ListSetup) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const change: Change = (set) => desk.submit({ kind: "setList", list: { ...setup, ...set } });
  return { desk, job, change, columns: columnChoices(job) };
}

function SetupPart({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <section
      aria-label={label}
      tabIndex={0}
      className="max-h-[58%] shrink-0 space-y-2 overflow-auto border-seam border-b bg-ground px-3.5 py-2"
    >
      {children}
    </section>
  );
}

/** Title, what goes in, how it stands, the order, the foot. */
export function RowSettings({ setup }: Props) {
  const { desk, job, change, columns } = useSetup(setup);
  return (
    <SetupPart label="Setup of the rows">
      <div className="grid grid-cols-3 gap-x-3 gap-y-1.5">
        <TextField
          label="Title"
          value={setup.name}
          onCommit={(name) => (name.trim() === "" ? "Enter a title." : change({ name: name.trim() }))}
        />
        <Chooser
          label="Structure"
          value={setup.levels ? "levels" : "flat"}
          choices={[
            { value: "flat", label: "flat or grouped" },
            { value: "levels", label: "by assembly level" },
          ]}
          onChoose={(way) => change({ levels: way === "levels" })}
        />
        {setup.levels ? (
          <Chooser
            label="Assembly rows"
            value={setup.showRows ? (setup.assemblyLines ? "rows" : "inside") : "sum"}
            choices={[
              { value: "rows", label: "its own line and what is in it" },
              { value: "inside", label: "only what is in it" },
              { value: "sum", label: "its own line alone" },
            ]}
            onChoose={(way) => change({ showRows: way !== "sum", assemblyLines: way !== "inside" })}
          />
        ) : (
          <Chooser
            label="Limit to assembly"
            value={setup.assembly ?? ""}
            choices={[
              { value: "", label: "the whole job" },
              ...Object.values(job.assemblies).map(({ id, name }) => ({ value: id as string, label: name })),
            ]}
            onChoose={(id) => change({ assembly: job.assemblies[id]?.id ?? null })}
          />
        )}
        <Kinds setup={setup} onChange={(kinds) => change({ kinds })} />
        <Materials setup={setup} onChange={(materials) => change({ materials })} />
        <TextField
          label="Limit to marks"
          value={setup.marks.join(", ")}
          placeholder="all; A-F, K"
          onCommit={(text) =>
            change({
              marks: text
                .split(/[,;]/)
                .map((part) => part.trim())
                .filter(Boolean),
            })
          }
        />
        {setup.levels ? null : <Groups setup={setup} columns={columns} change={change} />}
        <Sums setup={setup} change={change} />
      </div>
      <RowOrder setup={setup} columns={columns} change={change} />
      <div className="flex items-center gap-4">
        <Button
          look="plain"
          icon={<Archive size={14} aria-hidden />}
          onClick={() => void keepForOthers(job, setup)}
        >
          Save list setup to stockroom
        </Button>
        <span className="flex-1" />
        {setup.id !== CUT_LIST ? (
          <Button
            look="danger"
            icon={<Trash2 size={14} aria-hidden />}
            onClick={() => {
              if (desk.submit({ kind: "removeList", id: setup.id }) === null) desk.openList(null);
            }}
          >
            Remove this list
          </Button>
        ) : job.lists[CUT_LIST] ? (
          <Button look="plain" onClick={() => desk.submit({ kind: "removeList", id: CUT_LIST })}>
            Put back the usual setup
          </Button>
        ) : null}
      </div>
    </SetupPart>
  );
}

/** The columns that it shows, the order of sizes, and the job's own columns. */
export function ColumnSettings({ setup }: Props) {
  const { job, change, columns } = useSetup(setup);
  const stockroom = useDeskState((state) => state.stockroom);
  const results = useDeskState((state) => state.results);
  const view = useMemo(
    () => listView(setup, { job, stockroom, ...results }),
    [setup, job, stockroom, results],
  );
  return (
    <SetupPart label="Setup of the columns">
      <ListColumnsSettings
        setup={setup}
        choices={columns}
        kindOf={view.kind}
        onChange={(next) => change({ columns: [...next] })}
      />
      <div className="grid grid-cols-2 gap-x-3">
        <Pattern
          label="Size of panels"
          usual={USUAL_SIZE.panel}
          value={setup.sizeOfPanel}
          job={job}
          onChange={(sizeOfPanel) => change({ sizeOfPanel })}
        />
        <Pattern
          label="Size of members"
          usual={USUAL_SIZE.member}
          value={setup.sizeOfMember}
          job={job}
          onChange={(sizeOfMember) => change({ sizeOfMember })}
        />
      </div>
      <OwnColumns setup={setup} />
    </SetupPart>
  );
}

async function keepForOthers(job: Job, setup: ListSetup): Promise<void> {
  const reply = await call("PUT", "/api/stockroom/lists", setupToKeep(job, setup));
  if (reply.ok) toast(`“${setup.name}” is saved in the stockroom. "New list" offers it in every job.`);
  else toast.error(reply.problem.message);
}

function Kinds({ setup, onChange }: Props & { readonly onChange: (kinds: ListKind[]) => string | null }) {
  const toggle = (kind: ListKind, on: boolean) => {
    const kinds = LIST_KINDS.filter((one) => (one === kind ? on : setup.kinds.includes(one)));
    if (kinds.length > 0) onChange(kinds);
  };
  return (
    <fieldset>
      <legend className="text-[12px] text-ink-soft">Include</legend>
      <span className="flex flex-wrap gap-x-2">
        {LIST_KINDS.map((kind) => (
          <Tick
            key={kind}
            label={KIND_WORDS[kind]}
            on={setup.kinds.includes(kind)}
            onToggle={(on) => toggle(kind, on)}
          />
        ))}
      </span>
    </fieldset>
  );
}

/** Materials by name; none ticked is all of them. */
function Materials({
  setup,
  onChange,
}: Props & { readonly onChange: (materials: string[]) => string | null }) {
  const rows = useDeskState((state) => state.results.tally.rows);
  const all = [...new Set([...setup.materials, ...rows.flatMap((row) => row.material ?? [])])].sort();
  return (
    <fieldset>
      <legend className="text-[12px] text-ink-soft">Limit to materials (none selected: all)</legend>
      <span className="flex max-h-14 flex-wrap gap-x-2 overflow-auto">
        {all.map((material) => (
          <Tick
            key={material}
            label={material}
            on={setup.materials.includes(material)}
            onToggle={(on) =>
              onChange(all.filter((one) => (one === material ? on : setup.materials.includes(one))))
            }
          />
        ))}
      </span>
    </fieldset>
  );
}

type PartProps = Props & { readonly columns: readonly ColumnChoice[]; readonly change: Change };

function Groups({ setup, columns, change }: PartProps) {
  return (
    <>
      <Chooser
        label="Groups by"
        value={setup.groupBy ?? ""}
        choices={[{ value: "", label: "no groups" }, ...columns]}
        onChoose={(id) => change({ groupBy: id === "" ? null : id })}
      />
      <Chooser
        label="Each group shows"
        value={setup.showRows ? "rows" : "sum"}
        choices={[
          { value: "rows", label: "its rows and a subtotal" },
          { value: "sum", label: "one row that adds them up" },
        ]}
        onChoose={(way) => change({ showRows: way === "rows" })}
      />
    </>
  );
}

function Sums({ setup, change }: Omit<PartProps, "columns">) {
  return (
    <Chooser
      label="Totals"
      value={!setup.totals ? "no" : setup.wasteAtFoot ? "waste" : "yes"}
      choices={[
        { value: "no", label: "nothing" },
        { value: "yes", label: "the total" },
        { value: "waste", label: "sum, waste and total cost" },
      ]}
      onChoose={(way) => change({ totals: way !== "no", wasteAtFoot: way === "waste" })}
    />
  );
}

const MOST_ORDERS = 6;

/** Rows by several columns, the first first, or by hand. */
function RowOrder({ setup, columns, change }: PartProps) {
  const { order, handOrder } = setup;
  const desk = useDesk();
  /** By hand begins with the rows as they are: nothing moves until somebody moves it. */
  const rowsAsTheyAre = () => {
    const { job, stockroom, results } = desk.store.getState();
    const { groups } = ownList({ ...setup, levels: false, showRows: true }, { job, stockroom, ...results });
    return handOrderOf(groups.flatMap((group) => group.rows));
  };
  const set = (i: number, next: Partial<ListSetup["order"][number]>) =>
    change({ order: order.map((one, k) => (k === i ? { ...one, ...next } : one)) });
  const free = columns.filter(({ value }) => !order.some((one) => one.column === value));
  return (
    <fieldset>
      <legend className="text-[12px] text-ink-soft">Sort by</legend>
      <span className="flex flex-wrap items-center gap-1.5">
        <Tick
          label="manual order"
          on={handOrder !== null}
          onToggle={(on) => change({ handOrder: on ? rowsAsTheyAre() : null })}
        />
        {handOrder !== null ? (
          <span className="text-[12px] text-ink-soft">drag rows, or press Alt + arrow keys</span>
        ) : (
          <>
            {order.map((one, i) => (
              <span key={one.column} className="flex items-center">
                <span className="w-[120px]">
                  <Chooser
                    label={`Order ${i + 1}`}
                    hideLabel
                    value={one.column}
                    choices={columns.filter(
                      ({ value }) => value === one.column || free.some((other) => other.value === value),
                    )}
                    onChoose={(column) => set(i, { column })}
                  />
                </span>
                <button
                  type="button"
                  onClick={() => set(i, { descending: !one.descending })}
                  className="h-7 px-1 text-[12px] text-enamel hover:underline"
                >
                  {one.descending ? "descending" : "ascending"}
                </button>
                <button
                  type="button"
                  aria-label={`Remove sort by ${one.column}`}
                  onClick={() => change({ order: order.filter((_, k) => k !== i) })}
                  className="flex h-7 w-6 items-center justify-center text-ink-soft hover:text-ink"
                >
                  <Trash2 size={13} aria-hidden />
                </button>
              </span>
            ))}
            {order.length < MOST_ORDERS ? (
              <span className="flex items-center">
                <Plus size={13} aria-hidden className="text-enamel" />
                <span className="w-[130px]">
                  <Chooser
                    label="Then by"
                    hideLabel
                    value=""
                    placeholder={order.length === 0 ? "as in the tally" : "then by"}
                    choices={free}
                    onChoose={(column) => change({ order: [...order, { column, descending: false }] })}
                  />
                </span>
              </span>
            ) : null}
          </>
        )}
      </span>
    </fieldset>
  );
}

function Pattern({
  label,
  usual,
  value,
  job,
  onChange,
}: {
  readonly label: string;
  readonly usual: string;
  readonly value: string | null;
  readonly job: Job;
  readonly onChange: (value: string | null) => string | null;
}) {
  const commit = (text: string): string | null => {
    if (text.trim() === "") return onChange(null);
    const own = Object.values(job.ownColumns).map((column) => column.name);
    const read = readSizePattern(text, own);
    return read.ok ? onChange(text.trim()) : sentence(read.problem);
  };
  return <TextField label={label} value={value ?? ""} placeholder={usual} onCommit={commit} />;
}
