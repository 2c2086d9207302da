import { describe, expect, it } from "vitest";
import { assetIdOf, NO_ASSETS, type PageId, type PageItemId, readPicture, withEdit } from "@/core/job";
import { sentence } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { pottingBench } from "../../demo/potting-bench";
import { seedPacketCabinet } from "../../demo/seed-packet-cabinet";
import { demoStockroom } from "../../demo/stockroom";
import { smallPng } from "../../e2e/small-png";
import { readJobFile, writeJobFile } from "./job-file";
import { tallyToJson } from "./tally-json";

const stockroom = stockroomOf(demoStockroom);

describe("the job file", () => {
  it("carries the pictures on its pages, and one that is not what it says is refused", () => {
    const picture = readPicture(smallPng(6, 4));
    if (!picture.ok) throw new Error(sentence(picture.problem));
    const asset = assetIdOf(picture.value);
    const page = {
      id: "p" as PageId,
      heading: "P",
      paper: "a4",
      lying: false,
      border: true,
      titleBlock: true,
      scale: 1,
      projection: "first",
      lengths: null,
      marksChanges: false,
      position: 0,
    } as const;
    const on = {
      id: "i" as PageItemId,
      page: "p",
      kind: "picture",
      at: [20, 20],
      asset,
      width: 30,
      ratio: 0.66,
    } as const;
    const job = withEdit(pottingBench(), {
      kind: "together",
      edits: [
        { kind: "setPages", pages: [page] },
        { kind: "setPageItems", items: [{ ...on, at: [20, 20] }] },
      ],
    });
    if (!job.ok) throw new Error(sentence(job.problem));
    const written = writeJobFile(job.value, stockroom, { assets: new Map([[asset, picture.value]]) });
    const file = readJobFile(written);
    expect(file.ok && [...file.value.assets]).toEqual([[asset, picture.value]]);
    const bent = readJobFile(written.replace(/"width": ?6,/, '"width": 6000,'));
    expect(!bent.ok && sentence(bent.problem)).toContain("a picture in it is not what it says");
  });

  it.each([
    ["the potting bench", pottingBench()],
    ["the seed-packet cabinet", seedPacketCabinet()],
  ])("%s is computed the same from its file alone: stock that is only usual comes along", (_, plain) => {
    const usual = { section: null, board: "birch-ply-12", memberMaterial: null, panelMaterial: null };
    const job = withEdit(plain, { kind: "changeInfo", set: { usual } });
    if (!job.ok) throw new Error(sentence(job.problem));
    const file = readJobFile(writeJobFile(job.value, stockroom, { assets: NO_ASSETS }));
    if (!file.ok) throw new Error(sentence(file.problem));
    const here = createPipeline()(job.value, null, stockroom, []).tally;
    const there = createPipeline()(file.value.job, null, stockroomOf(file.value.stockroom), []).tally;
    // The order of rows goes by the whole stockroom, so rows are compared by their marks' contents.
    const rows = (tally: typeof here) =>
      tally.rows.map((row) => [row.name, row.count, row.hands, row.stockName, row.material]).sort();
    expect(rows(there)).toEqual(rows(here));
    expect(file.value.job).toEqual(job.value);
  });
});

describe("the tally as data", () => {
  it("gives every placed piece an id of its own, both hands of one record counted on", () => {
    const job = seedPacketCabinet();
    const { tally } = createPipeline()(job, null, stockroom, []);
    const { rows, balance } = tallyToJson(job, tally);
    const made = rows.filter((row) => row.kind !== "bought").flatMap((row) => row.pieces);
    expect(new Set(made).size).toBe(balance.inRows);
    const door = rows.find((row) => row.name === "Door leaf");
    expect([door?.hands, door?.pieces]).toEqual([{ asDrawn: 1, opposite: 1 }, ["doorLeaf", "doorLeaf#2"]]);
    expect(door?.work.map((one) => one.kind)).toEqual(["hole", "hole", "hole"]);
  });
});
