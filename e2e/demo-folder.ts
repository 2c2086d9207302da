/** Loads the demo data into a folder: `node scripts/run.mjs e2e/demo-folder.ts FOLDER`. `npm test` does it while it builds. */
import { demoFolder } from "./application";

const [folder] = process.argv.slice(2);
if (folder === undefined) throw new Error("into which folder?");
demoFolder(folder);
