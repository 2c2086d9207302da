#!/usr/bin/env node
// The command line runs straight from the TypeScript sources, so there is nothing to build first.
import { register } from "tsx/esm/api";

register();
const { main } = await import("../src/cli/main.ts");
process.exitCode = await main(process.argv.slice(2));
