/** Loads the demo data into the database, unless that is in use already. */
import { fromSources } from "../bin/sources.mjs";

const { databaseUrl, loadDemo } = await fromSources("demo/load.ts", "src/db/index.ts");
const outcome = await loadDemo(databaseUrl());
console.log(
  outcome === "loaded"
    ? "Demo data loaded."
    : "The database is already in use; demo data is not loaded again.",
);
