import { sheetTable } from "./sheets";

sheetTable(1, Number(process.argv[2] ?? 3000), process.argv.slice(3).map(Number));
