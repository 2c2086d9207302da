import { describe, expect, it } from "vitest";
import { NO_ASSETS, withEdit } from "@/core/job";
import { sentence } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { pottingBench } from "../../demo/potting-bench";
import { seedPacketCabinet } from "../../demo/seed-packet-cabinet";
import { demoStockroom } from "../../demo/stockroom";
import { readJobFile, writeJobFile } from "./job-file";
import { tallyToJson } from "./tally-json";

const stockroom = stockroomOf(demoStockroom);

describe("the job file", () => {
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
