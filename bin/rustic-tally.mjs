#!/usr/bin/env node
// The command line runs from the TypeScript sources: there is nothing to build first.
import { fromSources } from "./sources.mjs";

const { main } = await fromSources("src/cli/main.ts");
process.exitCode = await main(process.argv.slice(2));
