/** What has no solid is told by a code; the words are made of it in one place, in the unit of the job. */
import { describe, expect, it } from "vitest";
import { buttEnd, copeEnd, type EndCut, mitreEnd, newJob, pastEnd, squareEnd } from "../job";
import type { LengthStyle } from "../measure";
import { resultsOf } from "../pipeline.fixture";
import { faultWords } from "./fault";

const INCHES: LengthStyle = { unit: "in", format: { kind: "fraction", denominator: 16 } };

/** A post on a point of a rail, whose start is cut in some way; the rail, and a beam that lies elsewhere. */
const faultOf = (
  start: EndCut,
  more: { readonly to?: [string, string, string]; readonly roll?: string } = {},
) => {
  const job = newJob({
    info: { code: "T", title: "T" },
    points: {
      A: ["0", "0", "0"],
      B: ["1000", "0", "0"],
      C: more.to ?? ["0", "0", "700"],
      D: ["0", "254", "0"],
      E: ["0", "900", "0"],
    },
    members: {
      post: {
        name: "Post",
        from: "A",
        to: "C",
        section: "tube",
        start,
        ...(more.roll ? { roll: more.roll } : {}),
      },
      rail: { name: "Rail", from: "A", to: "B", section: "tube" },
      beam: { name: "Beam", from: "D", to: "E", section: "tube" },
    },
  });
  return resultsOf(job).shape.uncomputed.find(({ id }) => id === "post")?.why;
};
const end = (why: object) => ({ kind: "end", side: "start", why });

describe("why a member cannot be cut", () => {
  it.each<[string, EndCut, object]>([
    ["mitred with nobody", mitreEnd("nobody"), { kind: "noNeighbour", cut: "mitre" }],
    ["butted against nobody", buttEnd("nobody"), { kind: "noNeighbour", cut: "butt" }],
    ["coped round nobody", copeEnd("nobody"), { kind: "noNeighbour", cut: "cope" }],
    ["past nobody", pastEnd("nobody"), { kind: "noNeighbour", cut: "past" }],
    ["past one that does not end there", pastEnd("beam"), { kind: "doesNotEndThere", name: "Beam" }],
    [
      "mitred with one that ends elsewhere",
      mitreEnd("beam"),
      { kind: "endsApart", name: "Beam", apart: 254 },
    ],
    ["with an unknown gap", buttEnd("rail", "nix"), { kind: "text", what: "gap" }],
    [
      "with an unknown gap of a mitre",
      { ...mitreEnd("rail"), gap: "nix" } as EndCut,
      { kind: "text", what: "gap" },
    ],
    ["with an unknown offset", squareEnd("nix"), { kind: "text", what: "offset" }],
    ["level by an unknown offset", { kind: "level", offset: "nix" }, { kind: "text", what: "offset" }],
    [
      "coped, though it is not round",
      copeEnd("rail"),
      { kind: "cannotMeet", cut: "cope", why: "branchNotRound" },
    ],
  ])("%s", (_, start, why) => {
    expect(faultOf(start)).toMatchObject(end(why));
  });

  it("where the other runs along it, there is nothing to cut against", () => {
    const along = { to: ["500", "0", "0"] as [string, string, string] };
    expect(faultOf(mitreEnd("rail"), along)).toMatchObject(
      end({ kind: "cannotMeet", cut: "mitre", why: "onOneAnother" }),
    );
    expect(faultOf(buttEnd("rail"), along)).toMatchObject(
      end({ kind: "cannotMeet", cut: "butt", why: "parallel" }),
    );
    expect(faultOf({ kind: "level", offset: "0" }, along)).toMatchObject(end({ kind: "levelMember" }));
    expect(faultOf(squareEnd(), { roll: "nix" })).toMatchObject({ kind: "text", field: "roll" });
  });
});

describe("the words of a fault", () => {
  it("are one sentence without its stop, with lengths in the unit of the job", () => {
    const apart = faultOf(mitreEnd("beam"));
    expect(apart && faultWords(apart, INCHES)).toBe(
      "its start is mitred with Beam, whose nearest end is 10 in away; join the points or choose another cut",
    );
    const gap = faultOf(buttEnd("rail", "nix"));
    expect(gap && faultWords(gap, INCHES)).toMatch(
      /^its start has no gap: "nix" uses nix, which is no key size .*[^.]$/,
    );
    expect(faultWords({ kind: "badCount", field: "holeCount", count: 2.54321, most: 2000 }, INCHES)).toBe(
      "a row of holes: its count would be 2.543; it must be a whole number from 0 to 2,000",
    );
    expect(faultWords({ kind: "outlineBeyond", of: "outline", corner: null }, INCHES)).toBe(
      "its outline lies beyond its length or width",
    );
    expect(faultWords({ kind: "notFacing", names: ["Left", "Right"] }, INCHES)).toBe(
      "Left and Right do not face one another there",
    );
  });
});
