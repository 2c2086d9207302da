/** A found file on its way into a job: the records, the entries that the stockroom lacks, and what has to be told before. */
import type { Asset, Edit, InsertEdit, Job } from "../job";
import { counted, GREATEST_LENGTH_MM } from "../kernel";
import { type LengthUnit, MM_PER_UNIT } from "../measure";
import { asUsual, type BoardEntry, indexStockroom, type SectionEntry, type Stockroom } from "../stockroom";
import { choicesOf } from "./choices";
import { type FoundFile, type FoundPart, readingFor, timesOf } from "./found";
import { computed, joinedImport } from "./joins";
import type { NewId } from "./member-record";
import { nearTwinsIn } from "./near-twins";
import { keptImport, type Prints, printsOf } from "./prints";
import { type Entered, enteredOf, type ImportChoices } from "./records";
import { neededStock, newBoard, newSection, usualWays, type Ways, wayOf } from "./stock";

export type Remark = {
  /** The part that it is about; null: the file as a whole. */
  readonly part: string | null;
  readonly words: string;
};

export type Imported = {
  readonly edit: InsertEdit;
  readonly assets: readonly Asset[];
  /** The stockroom with what it lacked; the entries that were added. */
  readonly stockroom: Stockroom;
  readonly added: { readonly sections: readonly SectionEntry[]; readonly boards: readonly BoardEntry[] };
  /** Ends that are cut against another member, so that key sizes can drive them. */
  readonly joined: number;
  readonly remarks: readonly Remark[];
  /** Why nothing of it may enter, as the end of a sentence about the file; null: it may. */
  readonly refusal: string | null;
  /** What the file says piece by piece, to compare a later state of it with. */
  readonly prints: Prints;
};

/** All that an import hangs on, as it is sent to where it is made. */
export type ImportAsked = {
  readonly file: FoundFile;
  readonly choices: ImportChoices;
  readonly job: Job;
  readonly stockroom: Stockroom;
  /** Eight signs that no two imports share: its ids begin with them. */
  readonly stamp: string;
};

/** What was asked for, with ids of its own. */
export function importAsked({ file, choices, job, stockroom, stamp }: ImportAsked): Imported {
  let count = 0;
  const newId = (kind: string) => `${kind}-${stamp}${(count++).toString(16).padStart(5, "0")}`;
  return imported(file, choices, job, stockroom, newId);
}

/** What enters a job. Sections and boards that are not chosen are matched by their sizes, or become new entries. */
export function imported(
  file: FoundFile,
  choices: Partial<ImportChoices>,
  job: Job,
  stockroom: Stockroom,
  newId: NewId,
): Imported {
  const ways: Ways = new Map([...usualWays(file, stockroom), ...(choices.ways ?? [])]);
  const needed = neededStock(file, ways, stockroom);
  const sections = new Map(choices.sections ?? []);
  const boards = new Map(choices.boards ?? []);
  const added = { sections: [] as SectionEntry[], boards: [] as BoardEntry[] };
  for (const one of needed.sections) {
    if (sections.has(one.key)) continue;
    const made = newSection(newId("section"), one);
    const entry = one.entries[0] ?? {
      ...asUsual(made, stockroom.sections),
      ...(one.material === null ? {} : { material: one.material }),
    };
    if (one.entries.length === 0) added.sections.push(entry);
    sections.set(one.key, entry.id);
  }
  for (const one of needed.boards) {
    if (boards.has(one.key)) continue;
    const entry = one.entries[0] ?? newBoard(newId("board"), one);
    if (one.entries.length === 0) added.boards.push(entry);
    boards.set(one.key, entry.id);
  }
  const whole = indexStockroom({
    ...stockroom,
    sections: [...stockroom.sections, ...added.sections],
    boards: [...stockroom.boards, ...added.boards],
  });
  const { unit } = job.info.job;
  const entered = enteredOf(file, { ways, sections, boards }, { stockroom: whole, unit, newId });
  const { edit, joined, unsaid, astray } = joinedImport(entered, job, whole, newId);
  const nameOf = new Map<string, string>(
    [...entered.members, ...entered.panels].map(({ id, name }) => [id, name]),
  );
  const names = (ids: Iterable<string>) =>
    [...new Set([...ids].map((id) => nameOf.get(id) ?? ""))].join(", ");
  const remarks: Remark[] = [...remarksOn(file, ways)];
  if (unsaid.length > 0)
    remarks.push({
      part: null,
      words: `${counted(unsaid.length, "end")} cannot be said by any cut; set square at the longest: ${names(unsaid.map(({ member }) => member))}.`,
    });
  if (astray.length > 0)
    remarks.push({
      part: null,
      words: `${counted(astray.length, "member")} differ from the file once computed: ${names(astray)}. Compare before cutting.`,
    });
  const crossing = (computed(edit, job, whole)?.checks ?? []).flatMap(({ kind, records: [one, other] }) =>
    kind === "overlap" && one && other ? [`${nameOf.get(one)} and ${nameOf.get(other)}`] : [],
  );
  if (crossing.length > 0)
    remarks.push({
      part: null,
      words: `In the file ${counted(crossing.length, "pair")} of pieces run into one another: ${listed(crossing)}.`,
    });
  return {
    edit,
    assets: entered.assets,
    stockroom: whole,
    added,
    joined,
    remarks,
    refusal: tooFar(entered, unit),
    prints: printsOf(entered, { choices: [...choicesOf(file, ways)], scale: file.scaledBy }, unit),
  };
}

/** Places that no job can compute: of a file in metres that says millimetres, or one that stands where a map has it. */
function tooFar({ members, panels, boughtParts, placements }: Entered, unit: LengthUnit): string | null {
  const places = [
    ...panels.map(({ origin }) => origin),
    ...boughtParts.flatMap(({ stand }) => (stand ? [stand.at] : [])),
    ...placements.map(({ at }) => at),
  ];
  let far = 0;
  const take = (mm: number) => {
    far = Math.max(far, Math.abs(mm));
  };
  for (const { from, to } of members) for (const value of [...from, ...to]) take(value);
  for (const text of places.flat()) take(Number(text) * MM_PER_UNIT[unit]);
  if (far <= GREATEST_LENGTH_MM) return null;
  return `it reaches ${(far / 1000).toFixed(1)} m from where it is measured, and places beyond ${GREATEST_LENGTH_MM / 1000} m cannot be computed; choose another scale, or move it nearer in the program that it comes from`;
}

/** An import as one step of a job that keeps what the file said; and all assets that have to be there before. */
export function keptWith(
  { edit, assets, prints }: Pick<Imported, "edit" | "assets" | "prints">,
  name: string,
  newId: NewId,
): { readonly edit: Edit; readonly assets: readonly Asset[] } {
  const kept = keptImport(newId("import"), name, prints);
  return {
    edit: { kind: "together", what: `Import ${name}`.slice(0, 60), edits: [edit, kept.edit] },
    assets: [...assets, kept.asset],
  };
}

/** So many pairs are told by their names. */
const MOST_TOLD = 4;

function listed(pairs: readonly string[]): string {
  const more = pairs.length - MOST_TOLD;
  return [...pairs.slice(0, MOST_TOLD), ...(more > 0 ? [`${more} more`] : [])].join("; ");
}

const mm = (value: number) => String(Math.round(value * 100) / 100);

/** What somebody should know of a file before it enters, part by part. */
export function remarksOn(file: FoundFile, ways: Ways): readonly Remark[] {
  const times = timesOf(file);
  const remarks: Remark[] = [];
  if (file.withoutPlace > 0)
    remarks.push({
      part: null,
      words: `${counted(file.withoutPlace, "instance")} without a place in the file: each stands where its assembly begins. Move them.`,
    });
  for (const product of file.products) {
    if ((times.get(product.id) ?? 0) === 0) continue;
    if (product.missing > 0)
      remarks.push({
        part: null,
        words: `${product.name}: ${counted(product.missing, "solid")} in the file could not be read. Export again.`,
      });
    for (const part of product.parts) {
      if (wayOf(ways, part.key) === "leave") continue;
      for (const words of partRemarks(part, ways)) remarks.push({ part: part.key, words });
    }
  }
  for (const { names: pair, apart } of nearTwinsIn(file, ways)) {
    const [a, b] = pair;
    const both = a === b ? `Two pieces called ${a}` : `${a} and ${b}`;
    const by = apart === 0 ? "in an angle alone" : `by ${apart < 0.1 ? apart.toFixed(2) : mm(apart)} mm`;
    remarks.push({
      part: null,
      words: `${both} are near twins: they differ ${by}. Look whether they should be the same.`,
    });
  }
  return remarks;
}

function partRemarks(part: FoundPart, ways: Ways): readonly string[] {
  const read = readingFor(part, wayOf(ways, part.key));
  const words: string[] = [];
  if (part.joinedWithin !== null)
    words.push(
      `It was open in the file; its rims were joined where they lay up to ${mm(part.joinedWithin)} mm apart.`,
    );
  if (part.gaps.length > 0) {
    const [longest] = part.gaps.toSorted((a, b) => b.length - a.length);
    const [x, y, z] = longest?.middle ?? [0, 0, 0];
    words.push(
      `No solid: it is ${part.joinedWithin === null ? "" : "still "}open at ${counted(part.gaps.length, "place")}, the longest ${mm(longest?.length ?? 0)} mm round, near ${mm(x)}; ${mm(y)}; ${mm(z)}. It enters as a bought part.`,
    );
  } else if (part.wasInverted) words.push("Its faces looked inwards; they are turned outwards.");
  if (read?.kind === "member") {
    for (const one of read.differences) words.push(`${one[0]?.toUpperCase()}${one.slice(1)}.`);
    if (read.leftOver > 0)
      words.push(`${counted(read.leftOver, "face")} of cuts that are not taken over: add them by hand.`);
  }
  const [other] = part.otherwise;
  if (other && read && read.kind !== "other" && isDoubtful(read.kind, other.kind, part))
    words.push(read.kind === "member" ? "Could be a panel as well." : "Could be a flat bar as well.");
  return words;
}

/** A plate or a flat bar: where only the rule decides. */
function isDoubtful(taken: string, other: string, part: FoundPart): boolean {
  if (taken === other) return false;
  const member = [part.taken, ...part.otherwise].find((one) => one.kind === "member");
  if (member?.kind !== "member" || member.shape.kind !== "flat" || member.leftOver > 0) return false;
  const [width] = member.shape.size;
  return width <= WIDEST_DOUBT && member.end.z - member.start.z >= 2 * width;
}

/** mm. Wider ones are panels to everybody. */
const WIDEST_DOUBT = 250;
