import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { modelOf } from "@/core/brep";
import { closedPart, gapThatCloses, imported, remarksOn, timesOf, withClosed } from "@/core/imports";
import { emptyJob, NO_ASSETS, withEdit } from "@/core/job";
import { seededRandom, sentence } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { loadStepReader } from "@/engines/step-reader";
import { trolleyStep } from "../../../demo/trolley";
import { broughtSolids } from "../brought-in";
import { openBoardStep } from "./open-shell.fixture";
import { foundInStep } from "./read";
import { randomPieces, STOCKROOM } from "./round-trip.fixture";
import { decoded, readStatements } from "./statements";
import { readStructure } from "./structure";
import { quoted, writeStep } from "./write";

const reader = await loadStepReader();
const bytesOf = (text: string) => new TextEncoder().encode(text);
const why = (text: string | Uint8Array) => {
  const found = foundInStep("part.step", typeof text === "string" ? bytesOf(text) : text, reader);
  return found.ok ? null : sentence(found.problem);
};
const trolley = trolleyStep();
/** Three pieces: what is read by the reader need not be large. */
const few = (() => {
  const job = randomPieces(seededRandom(4), 3);
  const { shape } = createPipeline()(job, null, STOCKROOM, []);
  return writeStep(modelOf(job, shape, NO_ASSETS), { name: "few", made: new Date(0), shop: "" });
})();

describe("files that hold no solids", () => {
  it("each is told in a sentence", () => {
    expect(why("")).toContain("it is empty");
    expect(why("solid nothing\nendsolid")).toContain("not a STEP file");
    expect(why(trolley.slice(0, trolley.length / 2))).toContain("cut short");
    expect(why(trolley.slice(0, trolley.indexOf("DATA;")))).toContain("no DATA section");
    expect(why("ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;")).toContain("empty");
    expect(
      why("ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\n#1=CARTESIAN_POINT('',(0.,0.,0.));\nENDSEC;"),
    ).toContain("no product");
    expect(why(new Uint8Array(100_000_001))).toContain("larger than 100 MB");
    expect(why(new Uint8Array(3000).fill(0xfe))).toContain("not a STEP file");
  });

  it("a statement that nothing can read spoils nothing else", () => {
    expect(why(few.replace("DATA;", "DATA;\n#900000=NONSENSE('a',((;"))).toBeNull();
  });

  it("something round without end is told before anything is read", () => {
    const endless = few.replace(/(CYLINDRICAL_SURFACE\('',#\d+),[\d.]+\)/, "$1,1.E99)");
    expect(endless).not.toBe(few);
    expect(why(endless)).toContain("something round in it is larger than any job");
  });

  it("a use of itself has no end, and does not hang", () => {
    const own = few.replace(/(NEXT_ASSEMBLY_USAGE_OCCURRENCE\('1','[^']*','',)(#\d+),(#\d+)/, "$1$2,$2");
    expect(own).not.toBe(few);
    const found = foundInStep("loop.step", bytesOf(own), reader);
    // It stands nowhere: nothing of it is counted, and nothing is read for ever.
    if (!found.ok) throw new Error(sentence(found.problem));
    const times = timesOf(found.value);
    const looped = found.value.uses.find(({ parent, child }) => parent === child);
    expect(looped && times.get(looped.child)).toBe(0);
    expect(found.value.products).toHaveLength(4);
  });
});

describe("what a file says in words", () => {
  it("signs that are spelt out (ISO 10303-21, 6.4.3)", () => {
    expect(decoded("\\X2\\00C400D6\\X0\\ \\X\\E9 \\S\\C it''s")).toBe("ÄÖ é Ã it's");
    for (const name of ["Träger 40×40", "支柱", "it's \\ so", "Fuß 🪚"]) {
      const quotes = quoted(name);
      expect(quotes).toMatch(/^'[\x20-\x7e]*'$/);
      expect(decoded(quotes.slice(1, -1))).toBe(name);
    }
  });

  it("units of the files that the reader's package ships", () => {
    const unit = (file: string) => {
      const read = readStatements(
        file,
        readFileSync(`node_modules/occt-import-js/test/testfiles/cube-units/${file}`),
      );
      if (!read.ok) throw new Error(file);
      return [...readStructure(read.value).products.values()].map((product) => product.unit);
    };
    expect(new Set(unit("cube-m.step"))).toEqual(new Set([1000]));
    expect(new Set(unit("cube-in.step"))).toEqual(new Set([25.4]));
    expect(new Set(unit("cube-mm.step"))).toEqual(new Set([1]));
  });

  it("names, materials and the tree", () => {
    const read = readStatements("t", bytesOf(trolley));
    if (!read.ok) throw new Error("no file");
    const { products, uses, roots } = readStructure(read.value);
    expect(roots.map((root) => products.get(root)?.name)).toEqual(["Trolley"]);
    expect(uses).toHaveLength(18);
    expect(
      new Set([...products.values()].filter(({ name }) => name === "Post").map(({ material }) => material)),
    ).toEqual(new Set(["S235"]));
  });
});

it("what reaches farther than a job is told, and nothing of it enters, before and after it is scaled", () => {
  const found = foundInStep("far.step", bytesOf(few), reader);
  if (!found.ok) throw new Error(sentence(found.problem));
  const job = emptyJob({ code: "x", title: "x", unit: "mm" });
  const at = (scale: number) => broughtSolids(found.value, { job, stockroom: STOCKROOM, scale });
  expect(at(1).ok).toBe(true);
  const large = at(1000);
  expect(large.ok ? null : sentence(large.problem)).toMatch(
    /far\.step.*it reaches \d+\.\d m from where it is measured, and places beyond 100 m cannot be computed; choose another scale/,
  );
});

it("an instance that the file puts nowhere is told", () => {
  // One of the links from an instance to its place falls away.
  const own = few.replace(/#\d+=CONTEXT_DEPENDENT_SHAPE_REPRESENTATION\([^;]*;\n/, "");
  expect(own).not.toBe(few);
  const found = foundInStep("few.step", bytesOf(own), reader);
  if (!found.ok) throw new Error(sentence(found.problem));
  expect(
    remarksOn(found.value, new Map())
      .map(({ words }) => words)
      .join(),
  ).toContain("1 instance without a place in the file");
});

describe("what is no solid", () => {
  it("files that were tampered with are read or told, and never thrown at anybody", () => {
    const random = seededRandom(11);
    const statements = few.split("\n");
    const data = statements.indexOf("DATA;");
    for (let round = 0; round < 12 * Number(process.env["LAWS"] ?? 1); round++) {
      const lines = [...statements];
      for (let k = 0; k < 3; k++) {
        const i = data + 1 + Math.floor(random.next() * (lines.length - data - 4));
        const line = lines[i] ?? "";
        const pick = random.next();
        lines[i] =
          pick < 0.4
            ? ""
            : pick < 0.7
              ? line.replace(/-?\d+\.\d*/, "1.E99")
              : line.replace(/#\d+(?=[,)])/, "#1");
      }
      const found = foundInStep("bad.step", bytesOf(lines.join("\n")), reader);
      if (!found.ok) continue;
      const job = emptyJob({ code: "x", title: "x", unit: "mm" });
      let count = 0;
      const entered = imported(found.value, {}, job, STOCKROOM, (kind) => `${kind}${++count}`);
      const after = withEdit(job, entered.edit);
      // All of it enters, or it is told why nothing does.
      if (after.ok) expect(Object.keys(after.value.members)).toHaveLength(entered.edit.members.length);
      else expect(sentence(after.problem)).toMatch(/[.]$/);
    }
  });

  it("a solid without one of its faces is told as open, and enters as what it is", () => {
    // The first face of the first shell falls away.
    const open = few.replace(/CLOSED_SHELL\('',\(#\d+,/, "CLOSED_SHELL('',(");
    const found = foundInStep("open.step", bytesOf(open), reader);
    if (!found.ok) throw new Error(sentence(found.problem));
    const parts = found.value.products.flatMap(({ parts }) => parts);
    const gaps = parts.filter((part) => part.gaps.length > 0);
    expect(gaps).toHaveLength(1);
    expect(gaps[0]?.taken.kind).toBe("other");
    expect(gaps[0]?.gaps[0]?.length).toBeGreaterThan(10);
  });
});

describe("faces that do not meet", () => {
  const found = foundInStep("shelf.step", bytesOf(openBoardStep("Shelf", [600, 300, 18], 0.2)), reader);
  if (!found.ok) throw new Error(sentence(found.problem));
  const file = found.value;
  const open = file.products[0]?.parts[0];
  if (!open) throw new Error("The shelf is missing.");

  it("are told as open and enter as they stand", () => {
    expect(open.taken.kind).toBe("other");
    expect(open.gaps).toHaveLength(6);
  });

  it("joined within a gap that reaches over them they are the board that was drawn; within a lesser one they are not", () => {
    expect(gapThatCloses(open)).toBe(0.5);
    expect(closedPart(open, 0.1)?.part.gaps).toHaveLength(6);
    const file2 = withClosed(file, new Map([[open.key, 0.5]]));
    const { edit, added, remarks } = imported(
      file2,
      {},
      emptyJob({ code: "T", title: "T" }),
      STOCKROOM,
      (kind) => `${kind}-1`,
    );
    const [panel] = edit.panels;
    expect([panel?.length, panel?.width, edit.boughtParts.length]).toEqual(["600", "300", 0]);
    expect(added.boards[0]?.thickness ?? 18).toBe(18);
    expect(remarks.map(({ words }) => words).join()).toContain("joined where they lay up to 0.5 mm apart");
  });

  it("taken as a bought part they stand with their shape, which is drawn", () => {
    const { edit, assets } = imported(
      file,
      {},
      emptyJob({ code: "T", title: "T" }),
      STOCKROOM,
      (kind) => `${kind}-1`,
    );
    expect(edit.boughtParts[0]?.stand?.as.kind).toBe("shape");
    expect(assets).toHaveLength(1);
  });
});

it("the trolley that lies in demo is what its script makes", () => {
  expect(readFileSync("demo/trolley.step", "utf8")).toBe(trolley);
});
