/** Before all driven tests: the demo data is computed once; each file of tests gets a copy of it. */
import { rmSync } from "node:fs";
import { demoFolder } from "./application";

export default function setUp(): () => void {
  const folder = demoFolder();
  process.env["RUSTIC_TALLY_DEMO_FOLDER"] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
