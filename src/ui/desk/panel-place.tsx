"use client";
/** Where a panel stands: by its corner and two axes, or between two panels that it follows. */
import { type Between, PANEL_EDGES, type Panel } from "@/core/job";
import { between, facingPair, letGo, panelSolid } from "@/core/shape";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "./desk-context";
import { ThreeFields } from "./placement-settings";

type Props = { readonly panel: Panel };

export function PanelPlace({ panel }: Props) {
  const desk = useDesk();
  const change = (set: Partial<Omit<Panel, "id" | "assembly">>) =>
    desk.submit({ kind: "changePanels", ids: [panel.id], set });
  const shape = useDeskState((state) => state.results.shape);
  const unit = useDeskState((state) => state.job.info.job.unit);
  const pair = facingPair(shape, panel);
  const follow = (how: string) => {
    const solid = panelSolid(shape, panel.id);
    if (how === "corner") change(solid ? letGo(solid, unit) : { between: null });
    else if (pair) change({ between: between(pair.first, pair.second, "0") });
  };
  return (
    <section aria-label="Place" className="col-span-3 grid grid-cols-3 gap-x-3 gap-y-1.5">
      <Chooser
        label="Position by"
        value={panel.between ? "between" : "corner"}
        choices={[
          { value: "corner", label: "corner" },
          ...(panel.between || pair ? [{ value: "between", label: "two panels" }] : []),
        ]}
        onChoose={follow}
      />
      {panel.between ? (
        <BetweenFields panel={panel} between={panel.between} onChange={(next) => change({ between: next })} />
      ) : (
        <>
          <ThreeFields label="Corner" values={panel.origin} onCommit={(origin) => change({ origin })} />
          <ThreeFields
            label="Length direction"
            values={panel.lengthAxis}
            onCommit={(lengthAxis) => change({ lengthAxis })}
          />
          <ThreeFields
            label="Good face direction"
            values={panel.faceAxis}
            onCommit={(faceAxis) => change({ faceAxis })}
          />
          <Chooser
            label="Tilted about"
            value={panel.tilt?.edge ?? ""}
            choices={[
              { value: "", label: "not tilted" },
              ...PANEL_EDGES.map((edge) => ({ value: edge, label: `its ${edge} edge` })),
            ]}
            onChoose={(edge) =>
              change({ tilt: edge === "" ? null : { edge, angle: panel.tilt?.angle ?? "15" } })
            }
          />
          {panel.tilt ? (
            <TextField
              label="Tilt, °, towards its good face"
              value={panel.tilt.angle}
              onCommit={(angle) => (panel.tilt ? change({ tilt: { ...panel.tilt, angle } }) : null)}
            />
          ) : null}
        </>
      )}
    </section>
  );
}

function BetweenFields({
  panel,
  between: now,
  onChange,
}: Props & { readonly between: Between; readonly onChange: (between: Between) => string | null }) {
  const panels = useDeskState((state) => state.job.panels);
  const choices = Object.values(panels)
    .filter((other) => other.id !== panel.id && other.assembly === panel.assembly)
    .map((other, i) => ({ value: other.id as string, label: `${other.name} (${i + 1})` }));
  const pick = (id: string, which: "first" | "second") => {
    const other = panels[id];
    if (other) onChange({ ...now, [which]: other.id });
  };
  const text = (
    field: "reachFirst" | "reachSecond" | "distance" | "insetStart" | "insetEnd",
    label: string,
  ) => (
    <TextField label={label} value={now[field]} onCommit={(value) => onChange({ ...now, [field]: value })} />
  );
  return (
    <>
      <Chooser label="From" value={now.first} choices={choices} onChoose={(id) => pick(id, "first")} />
      <Chooser label="To" value={now.second} choices={choices} onChoose={(id) => pick(id, "second")} />
      {text("distance", "Offset from left or front of first panel")}
      {text("reachFirst", "Depth into first panel")}
      {text("reachSecond", "Depth into second panel")}
      <Chooser
        label="Its width runs along the first's"
        value={now.runs}
        choices={[
          { value: "width", label: "width" },
          { value: "length", label: "length" },
        ]}
        onChoose={(runs) => onChange({ ...now, runs: runs })}
      />
      {text("insetStart", "Inset at left or front")}
      {text("insetEnd", "Inset at right or back")}
    </>
  );
}
