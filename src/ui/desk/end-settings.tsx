"use client";
/** The end cut of one end of a member: its kind, what it meets, its formulas. */
import {
  cutTexts,
  type EndCut,
  type EndCutName,
  homeOfMember,
  type Job,
  type Member,
  type MemberId,
  membersAtPoint,
  membersOfHome,
  neighboursOf,
  replacedNeighbour,
  withCutText,
} from "@/core/job";
import { remembersEach } from "@/core/kernel";
import { type Choice, Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { ALONE } from "./ends-of-many";

type EndProps = {
  readonly member: Member;
  readonly side: "start" | "end";
  readonly job: Job;
  readonly onChange: (cut: EndCut) => string | null;
};

/** Members that could meet this end: those whose line touches the same point, then all others. */
function* membersNear(member: Member, side: "start" | "end", job: Job): Generator<MemberId> {
  const line = job.lines[member.line];
  const meeting = membersAtPoint(job, (side === "start" ? line?.from : line?.to) ?? "");
  const told = new Set([member.id]);
  for (const others of [meeting.map(({ id }) => id), membersOfHome(job, homeOfMember(job, member))])
    for (const other of others) {
      if (!told.has(other)) yield other;
      told.add(other);
    }
}

/** More than an end can be cut against at once: the others are gone through only when somebody looks for one. */
const FEW = 6;

/** Of more members a list is made when it is opened. */
const MOST_LISTED = 50;

/** The first members that could meet an end. */
function nearest(member: Member, side: "start" | "end", job: Job): readonly MemberId[] {
  const ids: MemberId[] = [];
  for (const id of membersNear(member, side, job)) {
    if (ids.push(id) === FEW) break;
  }
  return ids;
}

const memberLabels = remembersEach<Member, string>();

/** What a member is called where one of many is chosen. */
const labelOf = (job: Job, member: Member): string =>
  memberLabels(member, [job.lines, job.points], () => {
    const line = job.lines[member.line];
    return `${member.name} ${job.points[line?.from ?? ""]?.name ?? ""}–${job.points[line?.to ?? ""]?.name ?? ""}`;
  });

/** What an end can be made; a square one is offered with and without a member that it runs past. */
type Offer = "past" | EndCutName;

type FirstCut = {
  readonly label: string;
  /** The cut that is made first, against the members that come first; null: there are not enough of them. */
  readonly make: (first: MemberId | undefined, second: MemberId | undefined) => EndCut | null;
};

const alone = (kind: keyof typeof ALONE): FirstCut => ({
  label: ALONE[kind].label,
  make: () => ALONE[kind].cut,
});

const OFFERS: Readonly<Record<Offer, FirstCut>> = {
  square: alone("square"),
  past: {
    label: "square, past neighbour",
    make: (first) => (first ? { kind: "square", offset: "0", past: first } : null),
  },
  mitre: { label: "mitre with", make: (first) => (first ? { kind: "mitre", neighbour: first } : null) },
  doubleMitre: {
    label: "double mitre with",
    make: (first, second) =>
      first && second ? { kind: "doubleMitre", neighbours: [first, second], gap: "0" } : null,
  },
  butt: {
    label: "butt against",
    make: (first) => (first ? { kind: "butt", neighbour: first, gap: "0" } : null),
  },
  cope: {
    label: "cope round",
    make: (first) => (first ? { kind: "cope", neighbour: first, gap: "0", curve: "surface" } : null),
  },
  notched: {
    label: "notch to fit",
    make: (first) => (first ? { kind: "notched", neighbour: first, gap: "0" } : null),
  },
  level: alone("level"),
  angled: alone("angled"),
  pointed: alone("pointed"),
  twoAngles: alone("twoAngles"),
};

const offerOf = (cut: EndCut): Offer => (cut.kind === "square" && cut.past !== null ? "past" : cut.kind);

export function EndSettings({ member, side, job, onChange }: EndProps) {
  const cut = member[side];
  const line = job.lines[member.line];
  const point = job.points[(side === "start" ? line?.from : line?.to) ?? ""]?.name ?? "";
  const near = nearest(member, side, job);
  const neighbours = neighboursOf(cut);
  const offers = (Object.keys(OFFERS) as Offer[]).filter((offer) => OFFERS[offer].make(near[0], near[1]));
  const choose = (chosen: string) => {
    const offer = offers.find((one) => one === chosen);
    // The neighbours that are there stay, as far as the new cut has any.
    const ids = [...neighbours, ...near.filter((id) => !neighbours.includes(id))];
    const made = offer && OFFERS[offer].make(ids[0], ids[1]);
    if (made) onChange(made);
  };
  const others = () => {
    const choices: Choice<MemberId>[] = [];
    for (const id of membersNear(member, side, job)) {
      const other = job.members[id];
      if (other) choices.push({ value: id, label: labelOf(job, other) });
    }
    return choices;
  };
  return (
    <div className="space-y-1">
      <Chooser
        label={`${side === "start" ? "Start" : "End"} cut at ${point}`}
        value={offerOf(cut)}
        choices={offers.map((value) => ({ value, label: OFFERS[value].label }))}
        onChoose={choose}
      />
      {neighbours.map((neighbour, i) => (
        <Chooser
          // biome-ignore lint/suspicious/noArrayIndexKey: the places of neighbours are fixed, who stands there is not
          key={i}
          label={neighbours.length > 1 ? `Neighbour ${i + 1} at ${point}` : `Neighbour at ${point}`}
          hideLabel
          value={neighbour}
          choices={membersOfHome(job, homeOfMember(job, member)).length > MOST_LISTED ? others : others()}
          chosen={job.members[neighbour] && labelOf(job, job.members[neighbour])}
          onChoose={(id) => onChange(replacedNeighbour(cut, neighbour, id))}
        />
      ))}
      {cut.kind === "cope" ? (
        <Chooser
          label={`Cut along, at ${point}`}
          value={cut.curve}
          choices={[
            { value: "surface", label: "outer surface" },
            { value: "fit", label: "cut square to tube wall" },
          ]}
          onChoose={(curve) => onChange({ ...cut, curve: curve })}
        />
      ) : null}
      {cut.kind === "pointed" ? (
        <Chooser
          label={`Pointed at ${point}, across its`}
          value={cut.across}
          choices={[
            { value: "width", label: "width" },
            { value: "height", label: "height" },
          ]}
          onChoose={(across) => onChange({ ...cut, across: across })}
        />
      ) : null}
      {cutTexts(cut).map(({ field, label, text }) => (
        <TextField
          key={`${cut.kind} ${field}`}
          label={label(point)}
          value={text}
          onCommit={(typed) => onChange(withCutText(cut, field, typed.trim() === "" ? "0" : typed))}
        />
      ))}
    </div>
  );
}
