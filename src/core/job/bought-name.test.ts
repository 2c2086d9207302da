import { describe, expect, it } from "vitest";
import { STOCK, smallFrame } from "../pipeline.fixture";
import { entryChosen, nameOfEntry } from "./bought-name";
import { edited } from "./edit.fixture";

const part = (job: ReturnType<typeof smallFrame>, id: string) => {
  const found = job.boughtParts[id];
  if (!found) throw new Error(id);
  return found;
};

describe("the name of a bought part", () => {
  it("follows what is chosen for it until somebody types one", () => {
    const [screw, foot] = STOCK.bought;
    const job = edited(
      { kind: "changeBoughtParts", ids: ["screws"], set: { name: nameOfEntry(screw) } },
      smallFrame(),
    );
    // The feet carry a name that somebody typed.
    const both = edited(entryChosen([part(job, "screws"), part(job, "feet")], "foot", STOCK.bought), job);
    expect([part(both, "screws").name, part(both, "feet").name]).toEqual([foot?.name, "Feet"]);
    expect([part(both, "screws").entry, part(both, "feet").entry]).toEqual(["foot", "foot"]);
    const none = edited(entryChosen([part(both, "screws")], null, STOCK.bought), both);
    expect([part(none, "screws").name, part(none, "screws").entry]).toEqual(["Bought part", null]);
    const again = edited(entryChosen([part(none, "screws")], "chain", STOCK.bought), none);
    expect(part(again, "screws").name).toBe("Chain 4 mm");
  });
});
