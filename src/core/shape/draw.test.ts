import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Edit, emptyJob, type Job, newJob, type Point, resolveSizes, withEdit } from "../job";
import { sentence } from "../kernel";
import { countedRuns, lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import {
  type DrawPlace,
  type DrawSettings,
  drawGuide,
  drawMember,
  guideLines,
  placeAlong,
  placeOnJobLine,
  splitMember,
  typedPlace,
  type Way,
  whereIs,
} from ".";

/** A hand that draws: types a place, then ways and lengths, one after the other. */
class Hand {
  job: Job;
  place: DrawPlace = { point: null, texts: ["0", "0", "0"] };
  private count = 0;

  constructor(job: Job) {
    this.job = job;
  }

  at(text: string): this {
    const place = typedPlace({ job: this.job, sizes: resolveSizes(this.job, null) }, text);
    if (!place.ok) throw new Error(sentence(place.problem));
    this.place = place.value;
    return this;
  }

  go(way: Way, length: string, settings: Partial<DrawSettings> = {}): this {
    return this.to(placeAlong(this.job, this.place, way, length), settings);
  }

  to(place: DrawPlace, settings: Partial<DrawSettings> = {}): this {
    const drawn = this.draw(place, settings);
    if (!drawn.ok) throw new Error(sentence(drawn.problem));
    const after = withEdit(this.job, drawn.value.edit);
    if (!after.ok) throw new Error(sentence(after.problem));
    this.job = after.value;
    this.place = drawn.value.end;
    return this;
  }

  draw(place: DrawPlace, settings: Partial<DrawSettings> = {}) {
    const ground = { job: this.job, sizes: resolveSizes(this.job, null), stockroom: STOCK };
    return drawMember(
      ground,
      this.place,
      place,
      { name: "Rail", section: "tube", roll: "0", cardinal: 10, ...settings },
      (kind) => `${kind}-${++this.count}`,
    );
  }
}

const rows = (job: Job) =>
  resultsOf(job).tally.rows.map((row) => [
    row.name,
    row.count,
    row.shown.form.kind === "member" ? row.shown.form.cutNm / 1e6 : 0,
  ]);

describe("drawing members", () => {
  it("a mitred ring on four legs with a lower rail, by typing, gives the tally worked out by hand", () => {
    // Centre lines 560 × 360 at 430, tubes of 40: 600 × 400 over all; legs butt under the ring, 410 long.
    const hand = new Hand(emptyJob({ code: "T", title: "T" }));
    hand.at("0; 0; 430").go("right", "560").go("back", "360").go("left", "560").go("front", "360");
    for (const [x, y] of [
      ["0", "0"],
      ["560", "0"],
      ["560", "360"],
      ["0", "360"],
    ])
      hand.at(`${x}; ${y}; 430`).go("down", "430", { name: "Leg" });
    hand.at("0; 0; 100").go("right", "560", { name: "Low rail" });
    expect(rows(hand.job)).toEqual([
      ["Rail", 2, 600],
      ["Low rail", 1, 520],
      ["Leg", 4, 410],
      ["Rail", 2, 400],
    ]);
    const { tally, shape } = resultsOf(hand.job);
    expect(tally.checks).toEqual([]);
    expect(shape.uncomputed).toEqual([]);
    expect(Object.keys(hand.job.points)).toHaveLength(10);
  });

  it("follows key sizes when lengths are typed as formulas", () => {
    const job = smallFrame();
    const hand = new Hand({ ...job, members: {}, lines: {}, points: {}, panels: {} });
    hand.at("0; 0; height").go("right", "width - 40");
    const wide = withEdit(hand.job, { kind: "setKeySize", id: "size-width", formula: "840", variant: null });
    expect(wide.ok && rows(wide.value).filter(([name]) => name === "Rail")).toEqual([["Rail", 1, 800]]);
    expect(Object.values(hand.job.points).map((point) => point.at)).toEqual([
      ["0", "0", "height"],
      ["width - 40", "0", "height"],
    ]);
  });

  it("takes a point that is already at the place", () => {
    const hand = new Hand(smallFrame());
    const before = Object.keys(hand.job.points).length;
    hand.at("20; 20; 200").to({ point: null, texts: ["580", "20", "450"] }, { name: "Stay" });
    expect(Object.keys(hand.job.points)).toHaveLength(before + 1);
  });

  it.each([
    ["A", { point: "A", texts: ["20", "20", "height"] }, "would have no length"],
    ["A", { point: "B", texts: ["width - 20", "20", "height"] }, "already connects these points"],
    ["A", { point: null, texts: ["1/0", "0", "0"] }, "divides by zero"],
    ["A", { point: null, texts: ["nothing", "0", "0"] }, "which is no key size of this job"],
  ] satisfies readonly (readonly [string, DrawPlace, string])[])(
    "refuses a member from %s to %j",
    (from, to, words) => {
      const drawn = new Hand(smallFrame()).at(from).draw(to);
      expect(drawn.ok ? "" : sentence(drawn.problem)).toContain(words);
    },
  );

  it("says what a place is typed like", () => {
    const words = (text: string) => {
      const place = typedPlace({ job: smallFrame(), sizes: resolveSizes(smallFrame(), null) }, text);
      return place.ok ? place.value : sentence(place.problem);
    };
    expect(words("a")).toMatchObject({ point: "A" });
    expect(words("Q")).toContain('The point "Q" is not here');
    expect(words("1; 2")).toContain("three coordinates");
    // A share, and a length that stays a formula, along the way from one point to another.
    expect(words("A to B at 0.25")).toMatchObject({
      texts: ["20 + ((width - 40) * 0.25)", "20", "height"],
    });
    expect(words("A to B at width/4")).toMatchObject({ texts: ["20 + width/4", "20", "height"] });
    expect(words("A to Q at 0.25")).toContain('The point "Q" is not here');
    expect(words("A to B at 9999")).toContain("must lie between the two ends of the line");
  });
});

describe("splitting a member", () => {
  const split = (text: string) => {
    const job = smallFrame();
    const edit = splitMember({ job, sizes: resolveSizes(job, null) }, "front", text, (kind) => `${kind}-new`);
    if (!edit.ok) return sentence(edit.problem);
    const after = withEdit(job, edit.value);
    if (!after.ok) return sentence(after.problem);
    return resultsOf(after.value)
      .shape.members.filter((solid) => solid.member.name === "Rail" && solid.member.id !== "back")
      .map((solid) => solid.lengths.cut);
  };

  it("at a share, at a length from the start, or at a formula", () => {
    expect(split("0.5")).toEqual([300, 300]);
    expect(split("200")).toEqual([220, 380]);
    expect(split("width / 3")).toEqual([220, 380]);
  });

  it("from the far end of a line that runs the other way, by share where it slants", () => {
    const job = smallFrame();
    const ground = { job, sizes: resolveSizes(job, null) };
    const line = (from: string, to: string) =>
      Object.values(job.lines).find((one) => one.from === from && one.to === to)?.id ?? "";
    const texts = (id: string, text: string) => {
      const place = placeOnJobLine(ground, id, text);
      if (!place.ok) throw new Error(sentence(place.problem));
      const at = whereIs(ground.sizes, place.value);
      return at.ok ? [place.value.texts, at.value] : sentence(at.problem);
    };
    // From C to D along the back, right to left: 200 of 560 are taken off the start.
    expect(texts(line("C", "D"), "200")).toEqual([
      ["width - 220", expect.any(String), expect.any(String)],
      [380, expect.any(Number), expect.any(Number)],
    ]);
    const slanted = newJob({
      info: { code: "T", title: "T" },
      points: { P: ["0", "0", "0"], Q: ["300", "400", "0"] },
      members: { m: { name: "Brace", from: "P", to: "Q", section: "tube" } },
    });
    const sizes = resolveSizes(slanted, null);
    const place = placeOnJobLine({ job: slanted, sizes }, Object.keys(slanted.lines)[0] ?? "", "250");
    expect(place.ok && whereIs(sizes, place.value)).toMatchObject({ ok: true, value: [150, 200, 0] });
  });

  it("what is not there any more, or cannot be computed, is told", () => {
    const job = smallFrame();
    const ground = { job, sizes: resolveSizes(job, null) };
    const kind = (result: ReturnType<typeof placeOnJobLine> | ReturnType<typeof splitMember>) =>
      result.ok ? "ok" : result.problem.kind;
    expect(kind(placeOnJobLine(ground, "nowhere", "0.5"))).toBe("missingRecord");
    expect(kind(splitMember(ground, "nobody", "0.5", (one) => one))).toBe("missingRecord");
    const [id, line] = Object.entries(job.lines)[0] ?? [];
    if (!id || !line) throw new Error("there is a line");
    for (const end of [line.from, line.to]) {
      const point = job.points[end];
      if (!point) throw new Error("it has ends");
      const broken = {
        ...job,
        points: { ...job.points, [end]: { ...point, at: ["nix", "0", "0"] as Point["at"] } },
      };
      const there = { job: broken, sizes: resolveSizes(broken, null) };
      expect(kind(placeOnJobLine(there, id, "0.5"))).toBe("unknownName");
    }
  });

  it("never beyond its ends", () => {
    expect(split("560")).toContain("must lie between the two ends");
    expect(split("0")).toContain("must lie between the two ends");
    expect(split("depth +")).toContain("cannot be read as a formula");
  });
});

describe("guides", () => {
  const draw = (job: Job, from: string, to: string) => {
    const ground = { job, sizes: resolveSizes(job, null), stockroom: STOCK };
    const [a, b] = [typedPlace(ground, from), typedPlace(ground, to)];
    if (!a.ok || !b.ok) throw new Error("both are places");
    let count = 0;
    return drawGuide(ground, a.value, b.value, (kind) => `guide-${kind}-${++count}`);
  };

  it("are lines to draw from: no piece, counted beside the balance, shown as guides", () => {
    const job = smallFrame();
    const drawn = draw(job, "A", "300; 900; 0");
    if (!drawn.ok) throw new Error(sentence(drawn.problem));
    const after = withEdit(job, drawn.value.edit);
    if (!after.ok) throw new Error(sentence(after.problem));
    const [before, now] = [resultsOf(job), resultsOf(after.value)];
    expect(now.tally.balance).toEqual({ ...before.tally.balance, guides: before.tally.balance.guides + 1 });
    expect(guideLines(after.value, now.shape).map((line) => line.words)).toEqual(["A–P1"]);
    expect(guideLines(job, before.shape)).toEqual([]);
  });

  it("are shown however many lines carry members", () => {
    const job = smallFrame();
    const drawn = draw(job, "A", "300; 900; 0");
    const after = drawn.ok ? withEdit(job, drawn.value.edit) : drawn;
    if (!after.ok) throw new Error(sentence(after.problem));
    const [line] = Object.values(job.lines);
    const [member] = Object.values(job.members);
    const many = Array.from({ length: 2_500 }, (_, i) => `many-${i}`);
    const large = {
      ...after.value,
      lines: { ...Object.fromEntries(many.map((id) => [id, { ...line, id }])), ...after.value.lines },
      members: {
        ...Object.fromEntries(many.map((id) => [id, { ...member, id, line: id }])),
        ...after.value.members,
      },
    } as Job;
    const { shape } = resultsOf(after.value);
    expect(guideLines(large, shape).map(({ words }) => words)).toEqual(["A–P1"]);
  });

  it("have a length", () => {
    const drawn = draw(smallFrame(), "A", "A");
    expect(drawn.ok ? "" : sentence(drawn.problem)).toBe(
      'A guide to "A" would have no length; choose another end.',
    );
  });
});

describe("drawing on and on", () => {
  it("gives the same edits as into a document that nobody has drawn in before, whatever was changed between", () => {
    const change: fc.Arbitrary<Edit> = fc.oneof(
      fc
        .constantFrom("0", "30", "90")
        .map((roll): Edit => ({ kind: "changeMembers", ids: ["front", "back"] as never[], set: { roll } })),
      fc
        .constantFrom("20", "60", "width / 3")
        .map((x): Edit => ({ kind: "movePoints", points: [{ id: "B", at: [x, "20", "height"] }] })),
      fc.constant<Edit>({ kind: "remove", ids: ["legLeft"] }),
      fc.constant<Edit>({ kind: "joinPoints", from: "F", into: "B" as never }),
    );
    const step = fc.tuple(
      fc.constantFrom<Way>("right", "back", "up", "down"),
      fc.constantFrom("120", "300", "height", "width - 40"),
      fc.constantFrom("A", "C", "E", "0; 0; 215"),
      fc.option(change, { freq: 2 }),
    );
    let cut = 0;
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 6 }), (steps) => {
        let job = smallFrame();
        const sizes = resolveSizes(job, null);
        const draw = (into: Job, [way, length, from]: readonly [Way, string, string]) => {
          let count = Object.keys(into.points).length;
          const start = typedPlace({ job: into, sizes }, from);
          if (!start.ok) return start;
          const settings = { name: "Rail", section: "tube", roll: "0", cardinal: 10 };
          const end = placeAlong(into, start.value, way, length);
          const ground = { job: into, sizes, stockroom: STOCK };
          return drawMember(ground, start.value, end, settings, (kind) => `${kind}-${++count}`);
        };
        for (const [way, length, from, between] of steps) {
          const drawn = draw(job, [way, length, from]);
          expect(drawn).toEqual(draw(structuredClone(job), [way, length, from]));
          if (drawn.ok && drawn.value.edit.kind === "together") cut += drawn.value.edit.edits.length - 1;
          for (const edit of [drawn.ok ? drawn.value.edit : null, between]) {
            const after = edit ? withEdit(job, edit) : null;
            if (after?.ok) job = after.value;
          }
        }
      }),
      countedRuns(40),
    );
    expect(cut).toBeGreaterThan(lawRuns(40));
  });
});
