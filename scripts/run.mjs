/** Runs a program of the sources: `node scripts/run.mjs FILE words…`, the file named from the root of the repository. */
import { fromSources } from "../bin/sources.mjs";

const [file] = process.argv.splice(2, 1);
await fromSources(file);
