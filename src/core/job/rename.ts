/** Renaming a key size: wherever formulas name it, they name it by its new name afterwards. */
import { ok, type Problem, type Result } from "../kernel";
import { parseFormula, RESERVED_NAMES } from "../measure";
import type { Job } from "./job";
import type { KeySize } from "./key-size";
import type { EndCut } from "./member";
import { missing, refused } from "./records";

type Change = (text: string) => string;

export function renameKeySize(job: Job, id: string, name: string): Result<Job, Problem> {
  const size = job.keySizes[id];
  if (!size) return missing("key size", id);
  if (size.name === name) return ok(job);
  if (RESERVED_NAMES.has(name))
    return refused("The name", name, "means something else in formulas; choose another");
  if (Object.values(job.keySizes).some((other) => other.name === name))
    return { ok: false, problem: { kind: "duplicateName", name } };
  const renamed = withFormulas(job, renamer(job, size.name, name));
  return ok({
    ...renamed,
    keySizes: { ...renamed.keySizes, [id]: { ...(renamed.keySizes[id] as KeySize), name } },
    variants: mapped(renamed.variants, (variant) => ({
      ...variant,
      formulas: Object.fromEntries(
        Object.entries(variant.formulas).map(([key, text]) => [key === size.name ? name : key, text]),
      ),
    })),
  });
}

/** Changes a text only where it is a formula that names the key size; words in quotation marks stay. */
function renamer(job: Job, from: string, to: string): Change {
  const word = new RegExp(`(?<![A-Za-z0-9_])${from}(?![A-Za-z0-9_])`, "g");
  return (text) => {
    const formula = parseFormula(text, job.info.job.unit);
    if (!formula.ok || !formula.value.names.includes(from)) return text;
    return text
      .split(/("[^"]*"|'[^']*')/)
      .map((part, i) => (i % 2 === 0 ? part.replace(word, to) : part))
      .join("");
  };
}

function mapped<T>(records: Readonly<Record<string, T>>, change: (record: T) => T): Record<string, T> {
  return Object.fromEntries(Object.entries(records).map(([id, record]) => [id, change(record)]));
}

/** The document with every formula text changed; records whose texts stay the same stay the same objects. */
function withFormulas(job: Job, change: Change): Job {
  const orNull = (text: string | null) => (text === null ? null : change(text));
  const three = ([x, y, z]: readonly [string, string, string]): [string, string, string] => [
    change(x),
    change(y),
    change(z),
  ];
  const cut = (end: EndCut): EndCut => {
    if (end.kind === "mitre") return end;
    return end.kind === "butt" || end.kind === "cope"
      ? { ...end, gap: change(end.gap) }
      : { ...end, offset: change(end.offset) };
  };
  const kept = <T>(record: T, next: T): T =>
    JSON.stringify(record) === JSON.stringify(next) ? record : next;
  return {
    ...job,
    keySizes: mapped(job.keySizes, (size) =>
      kept(size, {
        ...size,
        formula: change(size.formula),
        least: orNull(size.least),
        greatest: orNull(size.greatest),
      }),
    ),
    variants: mapped(job.variants, (variant) =>
      kept(variant, { ...variant, formulas: mapped(variant.formulas, change) }),
    ),
    points: mapped(job.points, (point) => kept(point, { ...point, at: three(point.at) })),
    members: mapped(job.members, (member) =>
      kept(member, {
        ...member,
        roll: change(member.roll),
        when: orNull(member.when),
        start: cut(member.start),
        end: cut(member.end),
      }),
    ),
    panels: mapped(job.panels, (panel) =>
      kept(panel, {
        ...panel,
        origin: three(panel.origin),
        lengthAxis: three(panel.lengthAxis),
        faceAxis: three(panel.faceAxis),
        length: change(panel.length),
        width: change(panel.width),
        when: orNull(panel.when),
        work: panel.work.map((one) => ({
          ...one,
          distance: change(one.distance),
          width: change(one.width),
          depth: change(one.depth),
          stopAtStart: change(one.stopAtStart),
          stopAtEnd: change(one.stopAtEnd),
        })),
      }),
    ),
    boughtParts: mapped(job.boughtParts, (part) =>
      kept(part, {
        ...part,
        count: change(part.count),
        length: orNull(part.length),
        when: orNull(part.when),
      }),
    ),
  };
}
