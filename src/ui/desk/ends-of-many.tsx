"use client";
/** The end cuts of several members at once: those that stand by themselves; what meets other members is cut in Joints. */
import { cutTexts, type EndCut, type Member, type SimpleEdit, SQUARE_END, withCutText } from "@/core/job";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk } from "./desk-context";
import { shared } from "./shared-fields";

type Side = "start" | "end";
type Alone = "square" | "level" | "angled" | "pointed" | "twoAngles";

/** Cuts that need no other member, as each is made first. */
export const ALONE: Readonly<Record<Alone, { readonly label: string; readonly cut: EndCut }>> = {
  square: { label: "square", cut: SQUARE_END },
  level: { label: "horizontal", cut: { kind: "level", offset: "0" } },
  angled: {
    label: "at an angle",
    cut: { kind: "angled", acrossWidth: "45", acrossHeight: "0", offset: "0" },
  },
  pointed: {
    label: "pointed",
    cut: { kind: "pointed", across: "width", first: "45", second: "45", offset: "0" },
  },
  twoAngles: {
    label: "at two angles",
    cut: {
      kind: "twoAngles",
      acrossWidth: "45",
      acrossHeight: "0",
      offset: "0",
      secondAcrossWidth: "0",
      secondAcrossHeight: "45",
      secondOffset: "0",
    },
  },
};

const isAlone = (cut: EndCut): boolean => cut.kind in ALONE && !(cut.kind === "square" && cut.past !== null);

export function EndsOfMany({ members }: { readonly members: readonly Member[] }) {
  return (
    <>
      <EndsOfSide members={members} side="start" />
      <EndsOfSide members={members} side="end" />
    </>
  );
}

function EndsOfSide({ members, side }: { readonly members: readonly Member[]; readonly side: Side }) {
  const desk = useDesk();
  const cuts = members.map((member) => member[side]);
  const kind = shared(cuts.map((cut) => (isAlone(cut) ? cut.kind : null)));
  const set = (change: (cut: EndCut) => EndCut) => {
    const edits = members.map(({ id, ...member }): SimpleEdit => {
      const cut = change(member[side]);
      return { kind: "changeMembers", ids: [id], set: side === "start" ? { start: cut } : { end: cut } };
    });
    return desk.submit({ kind: "together", what: `Cut the ${side}s of ${members.length} members`, edits });
  };
  const [first] = cuts;
  const texts = kind && first ? cutTexts(first) : [];
  return (
    <div className="space-y-1">
      <Chooser
        label={side === "start" ? "Start cuts" : "End cuts"}
        value={kind ?? ""}
        placeholder={cuts.every(isAlone) ? "mixed values" : "cut against others"}
        choices={Object.entries(ALONE).map(([value, { label }]) => ({ value, label }))}
        onChoose={(chosen) => {
          const one = ALONE[chosen as Alone];
          if (one) set(() => one.cut);
        }}
      />
      {texts.map(({ field, label }, i) => (
        <TextField
          key={`${kind} ${field}`}
          label={label(side === "start" ? "the start" : "the end")}
          value={shared(cuts.map((cut) => cutTexts(cut)[i]?.text ?? "")) ?? ""}
          placeholder="mixed values"
          onCommit={(typed) =>
            set((cut) => withCutText(cut, field, typed.trim() === "" ? "0" : typed.trim()))
          }
        />
      ))}
    </div>
  );
}
