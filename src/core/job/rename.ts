/** Renaming a key size: wherever formulas name it, they name it by its new name afterwards. */
import { ok, type Problem, type Result } from "../kernel";
import { parseFormula, RESERVED_NAMES } from "../measure";
import { type ChangeText, withFormulas } from "./formulas";
import type { Job } from "./job";
import type { KeySize } from "./key-size";
import { missing, refused } from "./records";

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
    variants: Object.fromEntries(
      Object.entries(renamed.variants).map(([key, variant]) => [
        key,
        {
          ...variant,
          formulas: Object.fromEntries(
            Object.entries(variant.formulas).map(([own, text]) => [own === size.name ? name : own, text]),
          ),
        },
      ]),
    ),
  });
}

/** Changes a text only where it is a formula that names the key size; words in quotation marks stay. */
function renamer(job: Job, from: string, to: string): ChangeText {
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
