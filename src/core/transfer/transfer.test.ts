import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { withEdit } from "../job";
import { lawRuns } from "../kernel/law-runs.fixture";
import { createPipeline } from "../pipeline";
import { STOCK, smallFrame } from "../pipeline.fixture";
import { createReceiver, createSender, type Parcel, type Plain, type Receiver } from ".";

/** Over the wire as a browser does it: nothing of the parcel is shared with the sender. */
const taken = (receive: Receiver, parcel: Parcel): Plain => {
  const unpacking = receive(structuredClone(parcel));
  for (;;) {
    const step = unpacking.next();
    if (step.done) return step.value;
  }
};
const connected = () => {
  const [send, receive] = [createSender(), createReceiver()];
  return (value: Plain) => {
    const parcel = send(value);
    return { parcel, value: taken(receive, parcel) };
  };
};

/** Values with everything that can be sent in them. */
const plain = fc.letrec<{ any: unknown }>((tie) => ({
  any: fc.oneof(
    { maxDepth: 4 },
    fc.double(),
    fc.string({ unit: "grapheme" }),
    fc.constantFrom(null, undefined, true, false, -0),
    fc.array(tie("any"), { maxLength: 4 }),
    fc.dictionary(
      fc.string({ maxLength: 3 }).filter((key) => key !== "__proto__"),
      tie("any"),
      { maxKeys: 4, noNullPrototype: true },
    ),
    fc.array(fc.tuple(tie("any"), tie("any")), { maxLength: 3 }).map((entries) => new Map(entries)),
    fc.array(tie("any"), { maxLength: 3 }).map((items) => new Set(items)),
  ),
})).any;

describe("plain data that is sent", () => {
  it("arrives as what a structured clone makes of it, one value after the other", () => {
    fc.assert(
      fc.property(fc.array(plain, { minLength: 1, maxLength: 5 }), (values) => {
        const pass = connected();
        for (const value of values) expect(pass(value).value).toStrictEqual(structuredClone(value));
      }),
      { numRuns: lawRuns(500) },
    );
  });

  it("keeps what is shared one object, within a parcel and from one to the next", () => {
    const pass = connected();
    const section = { size: [40, 40, 3] };
    const first = pass({ a: { section }, b: { section } }).value as Record<string, { section: object }>;
    expect(first["a"]?.section).toBe(first["b"]?.section);
    const { value, parcel } = pass({ c: { section } });
    expect((value as typeof first)["c"]?.section).toBe(first["a"]?.section);
    // Two objects, each with its one value, and the value itself.
    expect(parcel.tags).toHaveLength(5);
  });

  it("keeps texts apart, whatever signs they are cut at, and lists of keys of any length", () => {
    const pass = connected();
    const texts = ["", "a", "", "\ud83d", "\ude00", "\u0000", "aa", "\ud83d\ude00"];
    expect(pass(texts).value).toStrictEqual(texts);
    for (const keys of [0, 1, 63, 64, 65, 66, 300]) {
      const record = () => Object.fromEntries(Array.from({ length: keys }, (_, i) => [`k${i}`, keys]));
      for (let i = 0; i < 2; i++)
        expect(pass([record(), record()]).value).toStrictEqual([record(), record()]);
    }
  });

  it("begins afresh when the receiver holds much more than is in use", () => {
    const pass = connected();
    const parcels = Array.from({ length: 12 }, (_, n) =>
      pass(Array.from({ length: 10_000 }, (_, i) => ({ n, i }))),
    );
    expect(parcels.some(({ parcel }) => parcel.afresh)).toBe(true);
    for (const [n, { value }] of parcels.entries())
      expect((value as unknown[])[9_999]).toEqual({ n, i: 9_999 });
    const kept = { kept: true };
    const before = pass([kept]);
    expect((pass([kept]).value as object[])[0]).toBe((before.value as object[])[0]);
  });

  it("refuses what is no plain data, and what goes round in a circle", () => {
    const round: unknown[] = [];
    round.push({ round });
    for (const value of [round, new Date(0), { call: () => 1 }, [1n], JSON.parse('{"__proto__":1}')])
      expect(() => createSender()(value)).toThrow(/plain data|circle/);
  });

  it.each([
    ["many small objects", Array.from({ length: 50_000 }, (_, i) => [i])],
    ["one long list", Array.from({ length: 50_000 }, (_, i) => i)],
    ["one long map", new Map(Array.from({ length: 50_000 }, (_, i) => [i, i]))],
    ["one long record", Object.fromEntries(Array.from({ length: 50_000 }, (_, i) => [`key ${i}`, i]))],
    ["many texts", Array.from({ length: 50_000 }, (_, i) => `text ${i}`)],
    ["one long set", new Set(Array.from({ length: 50_000 }, (_, i) => i))],
  ])("rests often while it unpacks %s, and not at every step", (_, value) => {
    const unpacking = createReceiver()(createSender()(value));
    let rests = 0;
    while (!unpacking.next().done) rests++;
    expect(rests).toBeGreaterThan(10);
    expect(rests).toBeLessThan(100);
  });

  it("says that a parcel is damaged rather than giving something else", () => {
    const damaged = (change: (parcel: Parcel) => void) => {
      const parcel = createSender()([{ a: 1 }, 2]);
      change(parcel);
      return () => taken(createReceiver(), parcel);
    };
    expect(damaged(({ tags }) => tags.fill(99, 1, 2))).toThrow(/damaged/);
    expect(damaged(({ tags }) => tags.fill(99, 0, 1))).toThrow(/damaged/);
    expect(damaged(({ values }) => values.fill(7, 3, 4))).toThrow(/no element/);
  });

  it("brings the results of a job whole, and after an edit only what it changed", () => {
    const job = smallFrame();
    const pipeline = createPipeline();
    const pass = connected();
    const results = pipeline(job, null, STOCK, []);
    const first = pass(results);
    expect(first.value).toStrictEqual(results);
    const [panel] = Object.values(job.panels);
    const after = withEdit(job, {
      kind: "changePanels",
      ids: panel ? [panel.id] : [],
      set: { name: "Odd one" },
    });
    if (!after.ok) throw new Error("the edit is refused");
    const next = pipeline(after.value, null, STOCK, []);
    const second = pass(next);
    const [a, b] = [first.value, second.value] as (typeof results)[];
    const same = (x: typeof results | undefined, y: typeof results | undefined) =>
      [...(x?.shape.members ?? []), ...(x?.shape.panels ?? [])].map((solid) =>
        [...(y?.shape.members ?? []), ...(y?.shape.panels ?? [])].some((one) => one === solid),
      );
    // The very solids that the pipeline kept are the same objects here as well, and the one that it made anew is not.
    expect(same(b, a)).toEqual(same(next, results));
    expect(new Set(same(b, a))).toEqual(new Set([true, false]));
    expect(b?.shape.points).toBe(a?.shape.points);
    const passShape = connected();
    const whole = passShape(results.shape).parcel.tags.length;
    expect(passShape(next.shape).parcel.tags.length).toBeLessThan(whole / 4);
  });
});
