import { describe, expect, it } from "vitest";
import { emptyJob, type Job, readJob } from "@/core/job";
import { readDocument, writtenDocument } from "./documents";

/** As it is when it is read. */
function job(title: string): Job {
  const made = readJob(
    emptyJob({ code: "D", title, unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } }),
  );
  if (!made.ok) throw new Error(made.problem.kind);
  return made.value;
}
const read = (id: string, text: string) => {
  const document = readDocument(id, text);
  if (!document.ok) throw new Error(document.problem.kind);
  return document.value;
};

describe("documents that are remembered", () => {
  it("are the identical ones as long as the text is the same, and read anew when it is another", () => {
    const text = JSON.stringify(job("first"));
    const first = read("a", text);
    expect(first.job).toEqual(job("first"));
    expect(first.read).toBe(text);
    // An equal text that is another object, as a database gives it.
    expect(read("a", [...text].join("")).job).toBe(first.job);
    const second = read("a", JSON.stringify(job("second")));
    expect(second.job.info.job.title).toBe("second");
    // Another job of the same text has its own.
    expect(read("b", text).job).toEqual(first.job);
  });

  it("leave as they are read where they were stored otherwise", () => {
    const spaced = JSON.stringify(job("spaced"), null, 1);
    expect(read("c", spaced).read).toBe(JSON.stringify(job("spaced")));
    expect(read("c", spaced).text).toBe(spaced);
  });

  it("are those that were written, and a text that cannot be read is told every time", () => {
    const written = job("written");
    expect(read("d", writtenDocument("d", written)).job).toBe(written);
    for (let i = 0; i < 2; i++)
      expect(readDocument("d", "{")).toEqual({
        ok: false,
        problem: { kind: "malformed", what: "The job file", why: "it is not JSON" },
      });
    expect(readDocument("d", '{"schemaVersion":999}').ok).toBe(false);
  });

  it("make room for others: so much that four of ten million signs each are kept, and not the fifth", () => {
    const blank = " ".repeat(10_000_000);
    const texts = [0, 1, 2, 3, 4].map((i) => `${JSON.stringify(job(`long ${i}`))}${blank}`);
    const all = texts.map((text, i) => read(`long ${i}`, text).job);
    expect(read("long 4", texts[4] ?? "").job).toBe(all[4]);
    const again = read("long 0", texts[0] ?? "").job;
    expect(again).toEqual(all[0]);
    expect(again).not.toBe(all[0]);
  });
});
