"use client";
/** The columns of one list, dragged into their order: heading, how numbers are written, unit, side, width, sum. */
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical, Plus, Sigma, Trash2 } from "lucide-react";
import { type ListColumn, type ListSetup, plainColumn } from "@/core/job";
import type { ListColumnKind } from "@/core/lists";
import { LENGTH_UNITS } from "@/core/measure";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import type { ColumnChoice } from "./column-choices";

/** Ways to write the numbers of a column. */
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

const SIDES = [
  { value: "", label: "own" },
  { value: "left", label: "left" },
  { value: "centre", label: "middle" },
  { value: "right", label: "right" },
];

type Props = {
  readonly setup: ListSetup;
  readonly choices: readonly ColumnChoice[];
  readonly kindOf: (column: string) => ListColumnKind | null;
  readonly onChange: (columns: readonly ListColumn[]) => string | null;
};

export function ListColumnsSettings({ setup, choices, kindOf, onChange }: Props) {
  const { columns } = setup;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = columns.map(({ column }) => column);
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    onChange(arrayMove([...columns], ids.indexOf(String(active.id)), ids.indexOf(String(over.id))));
  };
  const free = choices.filter(({ value }) => !ids.includes(value));
  return (
    <fieldset className="min-w-0">
      <legend className="font-semibold text-[13px]">Columns</legend>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ul>
            {columns.map((column) => (
              <ColumnLine
                key={column.column}
                column={column}
                kind={kindOf(column.column)}
                onSet={(next) => onChange(columns.map((one) => (one === column ? { ...one, ...next } : one)))}
                onRemove={() =>
                  columns.length > 1 ? onChange(columns.filter((one) => one !== column)) : null
                }
              />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      <span className="flex items-center gap-1 pt-1">
        <Plus size={14} aria-hidden className="text-enamel" />
        <span className="w-[200px]">
          <Chooser
            label="Add a column"
            hideLabel
            value=""
            placeholder="Add a column"
            choices={free}
            onChoose={(id) => onChange([...columns, plainColumn(id)])}
          />
        </span>
      </span>
    </fieldset>
  );
}

type LineProps = {
  readonly column: ListColumn;
  readonly kind: ListColumnKind | null;
  readonly onSet: (next: Partial<ListColumn>) => string | null;
  readonly onRemove: () => void;
};

function ColumnLine({ column, kind, onSet, onRemove }: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: column.column });
  const own = kind?.heading ?? column.column;
  const numbers = kind !== null && kind.writes.kind !== "words";
  const lengths = kind?.writes.kind === "length" || column.column === "size";
  const adds = column.adds ?? kind?.adds ?? false;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? "" }}
      className="grid grid-cols-[20px_minmax(70px,1fr)_minmax(90px,1.3fr)_92px_62px_90px_44px_28px_28px] items-center gap-1.5 border-seam border-b bg-ground py-0.5"
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move ${own}`}
        title="Drag it, or press Space and use the arrow keys"
        className="flex h-7 w-5 cursor-grab items-center justify-center text-ink-soft hover:text-ink"
      >
        <GripVertical size={14} aria-hidden />
      </button>
      <span className="truncate text-[13px]" title={own}>
        {own}
      </span>
      <TextField
        label={`Heading of ${own}`}
        hideLabel
        value={column.heading ?? ""}
        placeholder={own}
        onCommit={(text) => onSet({ heading: text.trim() === "" ? null : text.trim() })}
      />
      {numbers || lengths ? (
        <Chooser
          label={`Numbers in ${own}`}
          hideLabel
          value={formatValue(column)}
          choices={lengths ? FORMATS : FORMATS.filter(({ format }) => format?.kind !== "fraction")}
          onChoose={(value) => onSet({ format: FORMATS.find((one) => one.value === value)?.format ?? null })}
        />
      ) : (
        <span />
      )}
      {lengths ? (
        <Chooser
          label={`Unit of ${own}`}
          hideLabel
          value={column.unit ?? ""}
          choices={[
            { value: "", label: "job’s" },
            ...LENGTH_UNITS.map((unit) => ({ value: unit, label: unit })),
          ]}
          onChoose={(value) => onSet({ unit: LENGTH_UNITS.find((unit) => unit === value) ?? null })}
        />
      ) : (
        <span />
      )}
      <Chooser
        label={`Alignment of ${own}`}
        hideLabel
        value={column.align ?? ""}
        choices={SIDES}
        onChoose={(value) => onSet({ align: (value === "" ? null : value) as ListColumn["align"] })}
      />
      <TextField
        label={`Width of ${own}`}
        hideLabel
        align="right"
        value={column.width === null ? "" : String(column.width)}
        placeholder={String(kind?.width ?? 12)}
        onCommit={(text) => onSet({ width: widthIn(text) })}
      />
      {numbers ? (
        <button
          type="button"
          aria-pressed={adds}
          aria-label={`Show total of ${own}`}
          title={adds ? "Its numbers add up in groups and at the foot" : "Its numbers do not add up"}
          onClick={() => onSet({ adds: !adds })}
          className={`flex h-7 w-7 items-center justify-center rounded-sm ${adds ? "bg-enamel text-leaf" : "text-ink-soft hover:text-ink"}`}
        >
          <Sigma size={14} aria-hidden />
        </button>
      ) : (
        <span />
      )}
      <button
        type="button"
        aria-label={`Remove column ${own}`}
        title={`Remove column ${own}`}
        onClick={onRemove}
        className="flex h-7 w-7 items-center justify-center text-ink-soft hover:text-ink"
      >
        <Trash2 size={15} aria-hidden />
      </button>
    </li>
  );
}

/** A share of the width from 1 to 100; anything else is the column's own. */
function widthIn(text: string): number | null {
  const value = Number(text.trim());
  return text.trim() === "" || !Number.isFinite(value) ? null : Math.min(100, Math.max(1, value));
}
