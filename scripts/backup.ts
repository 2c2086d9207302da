/** `npm run backup -- FILE` and `npm run restore -- FILE`. */
import { backUp, backupFaultWords, databaseUrl } from "@/db";
import { restore } from "@/db/restore";

const [what, file] = process.argv.slice(2);
if (!file || (what !== "backup" && what !== "restore")) {
  console.error(`Name the file: npm run ${what ?? "backup"} -- FILE`);
  process.exit(2);
}
const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
if (what === "backup") {
  const made = await backUp(databaseUrl(), file);
  if (!made.ok) fail(backupFaultWords(made.problem));
  else
    console.log(
      `${made.value.file}: ${made.value.jobs} jobs, ${megabytes(made.value.bytes)}, opened and looked over.`,
    );
} else {
  const back = await restore(databaseUrl(), file, new Date());
  if (!back.ok) fail(backupFaultWords(back.problem));
  else {
    console.log(`Restored ${back.value.jobs} jobs from ${back.value.file}.`);
    if (back.value.kept) console.log(`What was there before is kept as ${back.value.kept}.`);
  }
}

function fail(why: string): void {
  console.error(why);
  process.exitCode = 1;
}
