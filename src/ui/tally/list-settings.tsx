"use client";
/** The setup of one list: title, what goes in, columns with their order and format, order of rows, groups. */
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { type Job, LIST_KINDS, type ListColumn, type ListKind, type ListSetup } from "@/core/job";
import { sentence } from "@/core/kernel";
import { columnKind, LIST_COLUMNS, readSizePattern, USUAL_SIZE } from "@/core/lists";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";

const KIND_WORDS: Readonly<Record<ListKind, string>> = {
  member: "members",
  panel: "panels",
  other: "others",
  bought: "bought parts",
};

/** Ways to write the lengths of a column. */
const FORMATS: readonly {
  readonly value: string;
  readonly label: string;
  readonly format: ListColumn["format"];
}[] = [
  { value: "", label: "as the job", format: null },
  ...[0, 1, 2, 3].map((places) => ({
    value: `d${places}`,
    label: places === 0 ? "whole" : `${places} places`,
    format: { kind: "decimal", places, trailingZeros: true } as const,
  })),
  ...([2, 4, 8, 16, 32, 64] as const).map((denominator) => ({
    value: `f${denominator}`,
    label: `to 1/${denominator}`,
    format: { kind: "fraction", denominator } as const,
  })),
];

const formatValue = ({ format }: ListColumn) =>
  format === null ? "" : format.kind === "decimal" ? `d${format.places}` : `f${format.denominator}`;

function columnChoices(job: Job) {
  return [
    ...LIST_COLUMNS.map(({ id, heading }) => ({ value: id, label: heading })),
    ...Object.values(job.keySizes).map(({ name }) => ({ value: `key:${name}`, label: `key size ${name}` })),
  ];
}

type Props = { readonly setup: ListSetup };

export function ListSettings({ setup }: Props) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const change = (set: Partial<ListSetup>) => desk.submit({ kind: "setList", list: { ...setup, ...set } });
  const columns = columnChoices(job);
  const [first] = setup.order;
  const orderBy = (column: string, descending: boolean) =>
    change({ order: column === "" ? [] : [{ column, descending }, ...setup.order.slice(1)] });
  return (
    <section
      aria-label="Setup of the list"
      className="max-h-[46%] shrink-0 space-y-2 overflow-auto border-seam border-b bg-ground px-3.5 py-2"
    >
      <div className="grid grid-cols-3 gap-x-3 gap-y-1.5">
        <TextField
          label="Title"
          value={setup.name}
          onCommit={(name) => (name.trim() === "" ? "It needs a title." : change({ name: name.trim() }))}
        />
        <Chooser
          label="Only what is in"
          value={setup.assembly ?? ""}
          choices={[
            { value: "", label: "the whole job" },
            ...Object.values(job.assemblies).map(({ id, name }) => ({ value: id as string, label: name })),
          ]}
          onChoose={(id) => change({ assembly: job.assemblies[id]?.id ?? null })}
        />
        <Kinds setup={setup} onChange={(kinds) => change({ kinds })} />
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
        <Chooser
          label="Total"
          value={setup.totals ? "yes" : "no"}
          choices={[
            { value: "yes", label: "at the foot" },
            { value: "no", label: "none" },
          ]}
          onChoose={(way) => change({ totals: way === "yes" })}
        />
        <Chooser
          label="Rows ordered by"
          value={first?.column ?? ""}
          choices={[{ value: "", label: "as in the tally" }, ...columns]}
          onChoose={(id) => orderBy(id, first?.descending ?? false)}
        />
        <Chooser
          label="From"
          value={first?.descending ? "down" : "up"}
          choices={[
            { value: "up", label: "least to greatest" },
            { value: "down", label: "greatest to least" },
          ]}
          onChoose={(way) => (first ? orderBy(first.column, way === "down") : null)}
        />
        <span />
        <Pattern
          label="Size of panels"
          usual={USUAL_SIZE.panel}
          value={setup.sizeOfPanel}
          onChange={(sizeOfPanel) => change({ sizeOfPanel })}
        />
        <Pattern
          label="Size of members"
          usual={USUAL_SIZE.member}
          value={setup.sizeOfMember}
          onChange={(sizeOfMember) => change({ sizeOfMember })}
        />
        <div className="self-end">
          <Button
            look="danger"
            icon={<Trash2 size={14} aria-hidden />}
            onClick={() => {
              if (desk.submit({ kind: "removeList", id: setup.id }) === null) desk.openList(null);
            }}
          >
            Remove this list
          </Button>
        </div>
      </div>
      <Columns setup={setup} choices={columns} onChange={(next) => change({ columns: [...next] })} />
    </section>
  );
}

function Kinds({ setup, onChange }: Props & { readonly onChange: (kinds: ListKind[]) => string | null }) {
  const toggle = (kind: ListKind, on: boolean) => {
    const kinds = LIST_KINDS.filter((one) => (one === kind ? on : setup.kinds.includes(one)));
    if (kinds.length > 0) onChange(kinds);
  };
  return (
    <fieldset>
      <legend className="text-[12px] text-ink-soft">What goes in</legend>
      <span className="flex flex-wrap gap-x-2">
        {LIST_KINDS.map((kind) => (
          <label key={kind} className="flex h-7 items-center gap-1 text-[13px]">
            <input
              type="checkbox"
              checked={setup.kinds.includes(kind)}
              onChange={(event) => toggle(kind, event.target.checked)}
              className="accent-enamel"
            />
            {KIND_WORDS[kind]}
          </label>
        ))}
      </span>
    </fieldset>
  );
}

function Pattern({
  label,
  usual,
  value,
  onChange,
}: {
  readonly label: string;
  readonly usual: string;
  readonly value: string | null;
  readonly onChange: (value: string | null) => string | null;
}) {
  const commit = (text: string): string | null => {
    if (text.trim() === "") return onChange(null);
    const read = readSizePattern(text);
    return read.ok ? onChange(text.trim()) : sentence(read.problem);
  };
  return <TextField label={label} value={value ?? ""} placeholder={usual} onCommit={commit} />;
}

function Columns({
  setup,
  choices,
  onChange,
}: Props & {
  readonly choices: readonly { readonly value: string; readonly label: string }[];
  readonly onChange: (columns: readonly ListColumn[]) => string | null;
}) {
  const { columns } = setup;
  const set = (i: number, next: Partial<ListColumn>) =>
    onChange(columns.map((one, k) => (k === i ? { ...one, ...next } : one)));
  const move = (i: number, to: number) => {
    const moved = columns[i];
    if (!moved || to < 0 || to >= columns.length) return;
    const rest = columns.filter((_, k) => k !== i);
    onChange([...rest.slice(0, to), moved, ...rest.slice(to)]);
  };
  const free = choices.filter(({ value }) => !columns.some((one) => one.column === value));
  return (
    <fieldset>
      <legend className="font-semibold text-[13px]">Columns</legend>
      <ul>
        {columns.map((column, i) => {
          const own = columnKind(column.column)?.heading ?? column.column;
          return (
            <li
              key={column.column}
              className="grid grid-cols-[1fr_1.2fr_110px_auto] items-center gap-2 border-seam border-b py-0.5"
            >
              <span className="truncate text-[13px]">{own}</span>
              <TextField
                label={`Heading of ${own}`}
                hideLabel
                value={column.heading ?? ""}
                placeholder={own}
                onCommit={(text) => set(i, { heading: text.trim() === "" ? null : text.trim() })}
              />
              <Chooser
                label={`Lengths in ${own}`}
                hideLabel
                value={formatValue(column)}
                choices={FORMATS}
                onChoose={(value) =>
                  set(i, { format: FORMATS.find((one) => one.value === value)?.format ?? null })
                }
              />
              <span className="flex">
                <Icon label={`Move ${own} up`} onClick={() => move(i, i - 1)}>
                  <ArrowUp size={15} aria-hidden />
                </Icon>
                <Icon label={`Move ${own} down`} onClick={() => move(i, i + 1)}>
                  <ArrowDown size={15} aria-hidden />
                </Icon>
                <Icon
                  label={`Take ${own} out`}
                  onClick={() => (columns.length > 1 ? onChange(columns.filter((_, k) => k !== i)) : null)}
                >
                  <Trash2 size={15} aria-hidden />
                </Icon>
              </span>
            </li>
          );
        })}
      </ul>
      <span className="flex items-center gap-1 pt-1">
        <Plus size={14} aria-hidden className="text-enamel" />
        <span className="w-[200px]">
          <Chooser
            label="Add a column"
            hideLabel
            value=""
            placeholder="Add a column"
            choices={free}
            onChoose={(id) =>
              onChange([...columns, { column: id, heading: null, align: null, width: null, format: null }])
            }
          />
        </span>
      </span>
    </fieldset>
  );
}

function Icon({
  label,
  onClick,
  children,
}: {
  readonly label: string;
  readonly onClick: () => void;
  readonly children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={onClick}
      className="flex h-7 w-7 items-center justify-center text-ink-soft hover:text-ink"
    >
      {children}
    </button>
  );
}
