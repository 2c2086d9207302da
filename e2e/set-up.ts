/** Before all driven tests: the demo data is computed once, unless somebody has done it; each file of tests gets a copy of it. */
import { rmSync } from "node:fs";
import { demoFolder } from "./application";

export default function setUp(): () => void {
  if (process.env["RUSTIC_TALLY_DEMO_FOLDER"]) return () => {};
  const folder = demoFolder();
  process.env["RUSTIC_TALLY_DEMO_FOLDER"] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
